#include <cctype>
#include <charconv>

#include "files/plans/step/step_file.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files::step {
namespace {

constexpr int kDeepestValue = 64;
constexpr std::size_t kMostValues = 6'000'000;  // of one record

bool is_letter(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) || c == '_';
}

/// Takes a record's list apart.
class ValueReader {
 public:
  ValueReader(std::string_view bytes, std::size_t at) : bytes_(bytes), at_(at) {}

  bool list(std::vector<Value>& items) {
    if (!is('(') || ++depth_ > kDeepestValue) return false;
    ++at_;
    while (!is(')')) {
      if (++count_ > kMostValues) return false;
      items.emplace_back();
      if (!value(items.back())) return false;
      if (is(','))
        ++at_;
      else if (!is(')'))
        return false;
    }
    ++at_;
    --depth_;
    return true;
  }

 private:
  /// The next letter that is no blank and no remark.
  bool is(char c) {
    for (; at_ < bytes_.size(); ++at_) {
      if (bytes_.compare(at_, 2, "/*") == 0) {
        at_ = bytes_.find("*/", at_ + 2);
        if (at_ == std::string_view::npos) return false;
        ++at_;
      } else if (!std::isspace(static_cast<unsigned char>(bytes_[at_]))) {
        return bytes_[at_] == c;
      }
    }
    return false;
  }

  bool value(Value& v) {
    if (is('$')) return ++at_, true;
    if (is('*')) return v.kind = Value::Kind::derived, ++at_, true;
    if (is('(')) return v.kind = Value::Kind::list, list(v.items);
    if (is('\'')) return text(v);
    if (at_ >= bytes_.size()) return false;
    const char c = bytes_[at_];
    if (c == '.') return word(v);
    if (c == '#') {
      v.kind = Value::Kind::reference;
      const auto end = std::from_chars(bytes_.data() + at_ + 1, bytes_.data() + bytes_.size(), v.reference);
      if (end.ec != std::errc()) return false;
      at_ = std::size_t(end.ptr - bytes_.data());
      return true;
    }
    if (c == '"') {  // bits
      v.kind = Value::Kind::word;
      const std::size_t end = bytes_.find('"', at_ + 1);
      if (end == std::string_view::npos) return false;
      at_ = end + 1;
      return true;
    }
    if (c == '+' || c == '-' || std::isdigit(static_cast<unsigned char>(c))) return number(v);
    if (!is_letter(c)) return false;
    v.kind = Value::Kind::typed;
    const std::size_t begin = at_;
    while (at_ < bytes_.size() && is_letter(bytes_[at_])) ++at_;
    v.raw = bytes_.substr(begin, at_ - begin);
    return list(v.items);
  }

  bool text(Value& v) {
    v.kind = Value::Kind::text;
    const std::size_t begin = ++at_;
    for (; at_ < bytes_.size(); ++at_) {
      if (bytes_[at_] != '\'') continue;
      if (at_ + 1 < bytes_.size() && bytes_[at_ + 1] == '\'') {
        ++at_;
        continue;
      }
      v.raw = bytes_.substr(begin, at_ - begin);
      return ++at_, true;
    }
    return false;
  }

  bool word(Value& v) {
    const std::size_t end = bytes_.find('.', at_ + 1);
    if (end == std::string_view::npos || end - at_ > 80) return false;
    v.kind = Value::Kind::word;
    v.raw = bytes_.substr(at_ + 1, end - at_ - 1);
    at_ = end + 1;
    return true;
  }

  bool number(Value& v) {
    const std::size_t begin = at_;
    while (at_ < bytes_.size() &&
           (std::isdigit(static_cast<unsigned char>(bytes_[at_])) || bytes_[at_] == '+' ||
            bytes_[at_] == '-' || bytes_[at_] == '.' || bytes_[at_] == 'E' || bytes_[at_] == 'e'))
      ++at_;
    std::string_view digits = bytes_.substr(begin, at_ - begin);
    if (digits.front() == '+') digits.remove_prefix(1);
    v.kind = Value::Kind::number;
    const auto end = std::from_chars(digits.data(), digits.data() + digits.size(), v.number);
    return end.ec == std::errc() && end.ptr == digits.data() + digits.size();
  }

  std::string_view bytes_;
  std::size_t at_;
  int depth_ = 0;
  std::size_t count_ = 0;
};

void append_utf8(std::uint32_t c, std::string& out) {
  if (c < 0x80) {
    out += char(c);
  } else if (c < 0x800) {
    out += char(0xC0 | (c >> 6));
    out += char(0x80 | (c & 0x3F));
  } else if (c < 0x10000) {
    if (c >= 0xD800 && c < 0xE000) c = 0xFFFD;
    out += char(0xE0 | (c >> 12));
    out += char(0x80 | ((c >> 6) & 0x3F));
    out += char(0x80 | (c & 0x3F));
  } else if (c < 0x110000) {
    out += char(0xF0 | (c >> 18));
    out += char(0x80 | ((c >> 12) & 0x3F));
    out += char(0x80 | ((c >> 6) & 0x3F));
    out += char(0x80 | (c & 0x3F));
  }
}

/// A number of `digits` hexadecimal digits at `at`; nothing where there is none.
std::optional<std::uint32_t> hexadecimal(std::string_view raw, std::size_t at, std::size_t digits) {
  std::uint32_t value = 0;
  if (at + digits > raw.size()) return std::nullopt;
  const auto end = std::from_chars(raw.data() + at, raw.data() + at + digits, value, 16);
  if (end.ec != std::errc() || end.ptr != raw.data() + at + digits) return std::nullopt;
  return value;
}

}  // namespace

std::vector<Value> StepFile::values(const Record& record) const {
  std::vector<Value> values;
  if (!ValueReader(bytes_, record.begin).list(values)) values.clear();
  return values;
}

std::string decoded(std::string_view raw) {
  std::string out;
  for (std::size_t k = 0; k < raw.size(); ++k) {
    if (raw[k] == '\'' && raw.compare(k, 2, "''") == 0) {
      out += '\'';
      ++k;
    } else if (raw[k] != '\\') {
      out += raw[k];
    } else if (raw.compare(k, 2, "\\\\") == 0) {
      out += '\\';
      ++k;
    } else if (raw.compare(k, 3, "\\S\\") == 0 && k + 3 < raw.size()) {
      append_utf8(std::uint32_t(static_cast<unsigned char>(raw[k + 3])) + 128, out);
      k += 3;
    } else if (raw.compare(k, 2, "\\P") == 0 && k + 3 < raw.size() && raw[k + 3] == '\\') {
      k += 3;  // a code page: letters of the first one are taken
    } else if (raw.compare(k, 3, "\\X\\") == 0) {
      if (const auto c = hexadecimal(raw, k + 3, 2)) append_utf8(*c, out);
      k += 4;
    } else if (raw.compare(k, 4, "\\X2\\") == 0 || raw.compare(k, 4, "\\X4\\") == 0) {
      const std::size_t digits = raw[k + 2] == '2' ? 4 : 8;
      std::uint32_t high = 0;
      for (k += 4; k < raw.size() && raw[k] != '\\'; k += digits) {
        const auto c = hexadecimal(raw, k, digits);
        if (!c) break;
        if (*c >= 0xD800 && *c < 0xDC00) {  // the first half of a letter
          high = *c;
          continue;
        }
        append_utf8(
            high && *c >= 0xDC00 && *c < 0xE000 ? 0x10000 + ((high - 0xD800) << 10) + (*c - 0xDC00) : *c,
            out);
        high = 0;
      }
      const std::size_t end = raw.find("\\X0\\", k);
      k = end == std::string_view::npos ? raw.size() : end + 3;
    } else {
      out += raw[k];
    }
  }
  return to_utf8(out);
}

}  // namespace glow::files::step
