#include "files/plans/dxf/pairs.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <cstring>

#include "files/text/text_scanner.hpp"

namespace glow::files::dxf {
namespace {

using namespace std::string_view_literals;

constexpr std::string_view kBinaryMark = "AutoCAD Binary DXF\r\n\x1a\0"sv;
constexpr double kFurthest = 1e12;  // drawing units: a survey's millimetres have eleven digits
constexpr std::size_t kShownWord = 40;

enum class Stored { text, real, whole16, whole32, whole64, flag, bytes };

/// How a binary file stores the value of a group.
Stored stored_as(int code) {
  if (code == 1004 || (code >= 310 && code <= 319)) return Stored::bytes;
  if ((code >= 10 && code <= 59) || (code >= 110 && code <= 149) || (code >= 210 && code <= 239) ||
      (code >= 460 && code <= 469) || (code >= 1010 && code <= 1059))
    return Stored::real;
  if ((code >= 60 && code <= 79) || (code >= 170 && code <= 179) || (code >= 270 && code <= 289) ||
      (code >= 370 && code <= 389) || (code >= 400 && code <= 409) || (code >= 1060 && code <= 1070))
    return Stored::whole16;
  if ((code >= 90 && code <= 99) || (code >= 420 && code <= 429) || (code >= 440 && code <= 459) ||
      code == 1071)
    return Stored::whole32;
  if (code >= 160 && code <= 169) return Stored::whole64;
  if (code >= 290 && code <= 299) return Stored::flag;
  return Stored::text;
}

std::string shown(std::string_view word) {
  return printable(to_utf8(word.substr(0, kShownWord))) + (word.size() > kShownWord ? ".." : "");
}

/// What the first bytes say that it is instead; empty: it may be a drawing exchange file.
std::string other_format(std::string_view bytes) {
  const auto begins = [&](std::string_view mark) { return bytes.substr(0, mark.size()) == mark; };
  if (begins("AC10") && bytes.size() > 6 && bytes.find('\n') > 6)
    return "this is a DWG, the drawing program's own format; save it as DXF (any version) and import that";
  if (begins("%PDF")) return "this is a PDF; ask for the drawing as DXF";
  if (begins("PK\x03\x04")) return "this is a ZIP archive; unpack it and import the DXF in it";
  if (begins("\x1f\x8b")) return "this is compressed; unpack it and import the DXF in it";
  if (begins("ISO-10303-21")) return "this is a building model (STEP text), no DXF";
  if (begins("<")) return "this is XML or HTML, no DXF";
  if (begins("\xff\xfe") || begins("\xfe\xff"))
    return "this is text of two bytes a letter (UTF-16); save it as plain text, or export the DXF again";
  return {};
}

}  // namespace

PairReader::PairReader(std::string_view bytes, std::string file, Problems& problems)
    : bytes_(bytes), file_(std::move(file)), problems_(problems) {
  constexpr std::string_view kByteOrderMark = "\xef\xbb\xbf";
  if (bytes_.empty()) fail("empty", 0, "the file is empty; export the drawing again");
  if (bytes_.substr(0, kBinaryMark.size()) == kBinaryMark) {
    is_binary_ = true;
    at_ = kBinaryMark.size();
    is_old_ = bytes_.size() > at_ + 1 && bytes_[at_ + 1] != 0;  // group codes of one byte
    return;
  }
  const std::string other = other_format(bytes_);
  if (!other.empty()) fail(bytes_.substr(0, 4) == "AC10" ? "is-dwg" : "not-dxf", 0, other);
  if (bytes_.substr(0, kByteOrderMark.size()) == kByteOrderMark) at_ = kByteOrderMark.size();
}

Place PairReader::place(std::uint32_t line) const {
  return is_binary_ ? Place{file_, 0, 0} : Place{file_, int(line), 0};
}

void PairReader::fail(const char* code, std::uint32_t line, const std::string& words) {
  if (!failed_)
    problems_.error(code, place(line),
                    is_binary_ && line > 0 ? fmt::format(FMT_STRING("at byte {}: {}"), line, words) : words);
  failed_ = true;
}

bool PairReader::next_line(std::string_view& line) {
  if (at_ >= bytes_.size()) return false;
  const char* begin = bytes_.data() + at_;
  const std::size_t left = bytes_.size() - at_;
  const auto* end = static_cast<const char*>(std::memchr(begin, '\n', left));
  std::size_t length = end ? std::size_t(end - begin) : left;
  at_ += length + (end ? 1 : 0);
  if (const auto* cr = static_cast<const char*>(std::memchr(begin, '\r', length))) {
    const std::size_t before = std::size_t(cr - begin);
    // A lone CR ends a line as well; CR LF is one end.
    if (before + 1 < length) at_ = std::size_t(cr + 1 - bytes_.data());
    length = before;
  }
  line = {begin, length};
  ++line_;
  return true;
}

bool PairReader::next_of_text(Pair& pair) {
  std::string_view line;
  do {
    if (!next_line(line)) return false;
    line = trimmed(line);
    // What follows the end of the last group: blank lines, and the end-of-file sign of old systems.
  } while ((line.empty() || line == "\x1a") && at_ >= bytes_.size());
  const auto [end, error] = std::from_chars(line.data(), line.data() + line.size(), pair.code);
  if (error != std::errc{} || end != line.data() + line.size() || line.empty()) {
    fail("bad-group-code", line_,
         line_ == 1 ? fmt::format(FMT_STRING("the first line is \"{}\"; a DXF file begins with the group "
                                             "code 0. This is no DXF"),
                                  shown(line))
                    : fmt::format(FMT_STRING("\"{}\" stands where a group code belongs, a whole number; a "
                                             "line is missing or damaged above. Export the drawing again"),
                                  shown(line)));
    return false;
  }
  if (!next_line(pair.text)) {
    fail("truncated", line_,
         fmt::format(FMT_STRING("the file ends after group code {}, without its value; it is cut off. Export "
                                "or copy it again"),
                     pair.code));
    return false;
  }
  pair.line = line_;
  pair.kind = Pair::Kind::text;
  return true;
}

template <class Number>
bool PairReader::take(Number& value) {
  if (bytes_.size() - at_ < sizeof value) return false;
  std::memcpy(&value, bytes_.data() + at_, sizeof value);
  at_ += sizeof value;
  return true;
}

bool PairReader::next_of_binary(Pair& pair) {
  const auto cut = [&] {
    fail("truncated", std::uint32_t(bytes_.size()),
         "the file ends in the middle of a group; it is cut off. Export or copy it again");
    return false;
  };
  if (at_ >= bytes_.size()) return false;
  pair.line = std::uint32_t(at_);
  std::uint8_t byte = 0;
  std::int16_t two = 0;
  if (is_old_) {
    take(byte);
    two = byte;
    if (byte == 255 && !take(two)) return cut();
  } else if (!take(two)) {
    return cut();
  }
  pair.code = two;
  pair.text = {};
  pair.real = 0;
  pair.kind = Pair::Kind::whole;
  std::int32_t four = 0;
  std::int64_t eight = 0;
  switch (stored_as(pair.code)) {
    case Stored::text: {
      const std::size_t end = bytes_.find('\0', at_);
      if (end == std::string_view::npos) return cut();
      pair.kind = Pair::Kind::text;
      pair.text = bytes_.substr(at_, end - at_);
      at_ = end + 1;
      return true;
    }
    case Stored::bytes:
      if (!take(byte) || bytes_.size() - at_ < byte) return cut();
      pair.kind = Pair::Kind::text;
      at_ += byte;
      return true;
    case Stored::real:
      pair.kind = Pair::Kind::real;
      return take(pair.real) || cut();
    case Stored::whole16:
      if (!take(two)) return cut();
      pair.real = two;
      return true;
    case Stored::whole32:
      if (!take(four)) return cut();
      pair.real = four;
      return true;
    case Stored::whole64:
      if (!take(eight)) return cut();
      pair.real = double(eight);
      return true;
    case Stored::flag:
      if (!take(byte)) return cut();
      pair.real = byte;
      return true;
  }
  return cut();
}

bool PairReader::next(Pair& pair) {
  if (is_again_) {
    is_again_ = false;
    pair = last_;
    return true;
  }
  if (failed_ || !(is_binary_ ? next_of_binary(pair) : next_of_text(pair))) return false;
  last_ = pair;
  return true;
}

bool PairReader::number(const Pair& pair, double& value) {
  if (pair.kind == Pair::Kind::text) {
    std::string_view word = trimmed(pair.text);
    if (!word.empty() && word.front() == '+') word.remove_prefix(1);
    const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), value);
    if (word.empty() || (error == std::errc{} && end != word.data() + word.size()) ||
        error == std::errc::invalid_argument) {
      const bool infinite = number_fault(word) == "not-finite" || word.find('#') != std::string_view::npos;
      const bool comma = word.find(',') != std::string_view::npos;
      fail(infinite ? "not-finite" : "bad-number", pair.line,
           fmt::format(
               FMT_STRING("\"{}\" stands where group code {} wants a number{}"), shown(word), pair.code,
               comma ? "; it has a decimal comma, where DXF has a point. Export the drawing again with "
                       "a point"
                     : ". Export the drawing again"));
      return false;
    }
    if (error != std::errc{}) value = HUGE_VAL;
  } else {
    value = pair.real;
  }
  if (!std::isfinite(value)) {
    fail("not-finite", pair.line,
         fmt::format(FMT_STRING("group code {} holds no finite number; mend or erase the entity in the "
                                "drawing program, and export again"),
                     pair.code));
    return false;
  }
  const bool is_place = (pair.code >= 10 && pair.code <= 39) || pair.code == 40;
  if (is_place && std::abs(value) > kFurthest) {
    fail("out-of-range", pair.line,
         fmt::format(
             FMT_STRING("a coordinate of {:g} is further than any drawing reaches; erase the entity in "
                        "the drawing program, and export again"),
             value));
    return false;
  }
  return true;
}

bool PairReader::whole(const Pair& pair, std::int64_t& value) {
  if (pair.kind != Pair::Kind::text) {
    value = std::abs(pair.real) < 9e18 ? std::int64_t(pair.real) : 0;
    return true;
  }
  std::string_view word = trimmed(pair.text);
  if (!word.empty() && word.front() == '+') word.remove_prefix(1);
  const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), value);
  if (error == std::errc{} && end == word.data() + word.size()) return true;
  double real = 0;  // some programs write 4.0
  const auto [end2, error2] = std::from_chars(word.data(), word.data() + word.size(), real);
  if (error2 == std::errc{} && end2 == word.data() + word.size() && real == std::floor(real) &&
      std::abs(real) < 9e18) {
    value = std::int64_t(real);
    return true;
  }
  fail("bad-number", pair.line,
       fmt::format(
           FMT_STRING("\"{}\" stands where group code {} wants a whole number. Export the drawing again"),
           shown(word), pair.code));
  return false;
}

}  // namespace glow::files::dxf
