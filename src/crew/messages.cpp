#include "crew/messages.hpp"

#include <algorithm>
#include <cstdlib>
#include <cstring>
#include <stdexcept>

#if GLOWGRID_MPI
#include <mpi.h>
#endif

namespace glow::crew {
namespace {

/// What starts processes together says so to each in its environment.
bool is_one_of_several() {
  for (const char* name : {"OMPI_COMM_WORLD_SIZE", "PMI_SIZE", "PMIX_RANK"})
    if (const char* value = std::getenv(name); value && (std::strstr(name, "RANK") || std::atoi(value) > 1))
      return true;
  return false;
}

}  // namespace

std::string numbered(std::uint64_t number, const std::string& bytes) {
  std::string all(sizeof number, '\0');
  std::memcpy(all.data(), &number, sizeof number);
  return all + bytes;
}

std::uint64_t take_number(std::string& bytes) {
  std::uint64_t number = 0;
  if (bytes.size() < sizeof number) throw std::runtime_error("a message of the crew is too short");
  std::memcpy(&number, bytes.data(), sizeof number);
  bytes.erase(0, sizeof number);
  return number;
}

#if GLOWGRID_MPI

namespace {

constexpr std::uint64_t kPiece = 1u << 30;  // a message counts its bytes in an int

bool joined = false;

}  // namespace

Membership join_messages() {
  Membership own;
  if (!is_one_of_several()) return own;
  int provided = 0;
  if (MPI_Init_thread(nullptr, nullptr, MPI_THREAD_SERIALIZED, &provided) != MPI_SUCCESS ||
      provided < MPI_THREAD_SERIALIZED) {
    own.fault = "this MPI cannot be used from several threads in turn";
    return own;
  }
  joined = true;
  MPI_Comm_rank(MPI_COMM_WORLD, &own.rank);
  MPI_Comm_size(MPI_COMM_WORLD, &own.size);
  MPI_Comm machine = MPI_COMM_NULL;
  MPI_Comm_split_type(MPI_COMM_WORLD, MPI_COMM_TYPE_SHARED, own.rank, MPI_INFO_NULL, &machine);
  MPI_Comm_size(machine, &own.here);
  MPI_Comm_free(&machine);
  return own;
}

void send(int rank, Tag tag, const std::string& bytes) {
  const std::uint64_t size = bytes.size();
  MPI_Send(&size, 1, MPI_UINT64_T, rank, int(tag), MPI_COMM_WORLD);
  for (std::uint64_t at = 0; at < size; at += kPiece)
    MPI_Send(bytes.data() + at, int(std::min(kPiece, size - at)), MPI_BYTE, rank, int(tag), MPI_COMM_WORLD);
}

std::optional<Message> receive() {
  if (!joined) return std::nullopt;
  int any = 0;
  MPI_Status status;
  MPI_Iprobe(MPI_ANY_SOURCE, MPI_ANY_TAG, MPI_COMM_WORLD, &any, &status);
  if (!any) return std::nullopt;
  Message message{status.MPI_SOURCE, Tag(status.MPI_TAG), {}};
  std::uint64_t size = 0;
  MPI_Recv(&size, 1, MPI_UINT64_T, message.rank, status.MPI_TAG, MPI_COMM_WORLD, MPI_STATUS_IGNORE);
  message.bytes.resize(size);
  for (std::uint64_t at = 0; at < size; at += kPiece)
    MPI_Recv(message.bytes.data() + at, int(std::min(kPiece, size - at)), MPI_BYTE, message.rank,
             int(message.tag), MPI_COMM_WORLD, MPI_STATUS_IGNORE);
  return message;
}

void leave_messages() {
  if (joined) MPI_Finalize();
  joined = false;
}

#else

Membership join_messages() {
  Membership own;
  if (is_one_of_several())
    own.fault =
        "started as one of several processes, but built without MPI; install libopenmpi-dev and build again, "
        "or start it once";
  return own;
}

void send(int, Tag, const std::string&) {}

std::optional<Message> receive() {
  return std::nullopt;
}

void leave_messages() {}

#endif

}  // namespace glow::crew
