#pragma once

#include <cstdint>
#include <optional>
#include <string>

namespace glow::crew {

/// What processes of a crew say to each other.
enum class Tag { hello = 1, job, result, failure, news, dismissal };

struct Message {
  int rank = 0;  ///< of who sent it
  Tag tag = Tag::hello;
  std::string bytes;
};

/// Messages over MPI; built without it nothing is ever sent or comes. Only one thread may use them at a time.
struct Membership {
  int rank = 0, size = 1, here = 1;
  std::string fault;
};
/// Joins those who were started together, if this process was.
Membership join_messages();
void send(int rank, Tag tag, const std::string& bytes);
/// What has come, if anything has: never waits.
std::optional<Message> receive();
/// Waits for all others to do the same.
void leave_messages();

/// A number before some bytes.
std::string numbered(std::uint64_t number, const std::string& bytes);
/// Takes it off again. Throws std::runtime_error where there is none.
std::uint64_t take_number(std::string& bytes);

}  // namespace glow::crew
