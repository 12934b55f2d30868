#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "core/problems/problems.hpp"

namespace glow::files::dxf {

/// A group of a drawing exchange file: its code, and the value as text (ASCII files) or as number (binary
/// ones).
struct Pair {
  enum class Kind : std::uint8_t { text, real, whole };
  std::int32_t code = 0;
  Kind kind = Kind::text;
  std::uint32_t line = 0;  ///< of the value, from 1; in binary files the place of its first byte
  std::string_view text;   ///< of ASCII files, always; of binary ones, where it is a text
  double real = 0;         ///< of binary files
};

/// Takes a drawing apart into groups, ASCII or binary, without keeping them.
class PairReader {
 public:
  /// `bytes` stay the caller's. One error where they are no drawing exchange file at all.
  PairReader(std::string_view bytes, std::string file, Problems& problems);

  /// The next group; false at the end, or after an error.
  bool next(Pair& pair);
  /// Puts the last group back.
  void again() { is_again_ = true; }
  bool failed() const { return failed_; }
  bool is_binary() const { return is_binary_; }
  Place place(std::uint32_t line) const;
  std::uint32_t line() const { return line_; }

  /// A number, finite and within what a drawing can hold; nothing and one error else.
  bool number(const Pair& pair, double& value);
  /// A whole number; likewise.
  bool whole(const Pair& pair, std::int64_t& value);
  Problems& problems() { return problems_; }
  void fail(const char* code, std::uint32_t line, const std::string& words);

 private:
  bool next_of_text(Pair& pair);
  bool next_of_binary(Pair& pair);
  bool next_line(std::string_view& line);
  template <class Number>
  bool take(Number& value);

  const std::string_view bytes_;
  const std::string file_;
  Problems& problems_;
  std::size_t at_ = 0;
  std::uint32_t line_ = 0;
  bool is_binary_ = false, is_old_ = false, failed_ = false, is_again_ = false;
  Pair last_;
};

}  // namespace glow::files::dxf
