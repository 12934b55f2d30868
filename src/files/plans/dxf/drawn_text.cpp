#include "files/plans/dxf/drawn_text.hpp"

#include <fmt/format.h>
#include <glib.h>

#include <cstdlib>
#include <memory>

#include "files/text/text_scanner.hpp"

namespace glow::files::dxf {
namespace {

constexpr std::string_view kUnicodeFrom = "AC1021";  // versions from here on write UTF-8

struct Freed {
  void operator()(gchar* text) const { g_free(text); }
};
using Owned = std::unique_ptr<gchar, Freed>;

void append_letter(std::string& text, gunichar letter) {
  if (!g_unichar_validate(letter) || letter == 0) letter = 0xfffd;
  char bytes[6];
  text.append(bytes, std::size_t(g_unichar_to_utf8(letter, bytes)));
}

bool is_hex(std::string_view digits) {
  return !digits.empty() && digits.find_first_not_of("0123456789abcdefABCDEF") == std::string_view::npos;
}

unsigned hex_value(std::string_view digits) {
  return unsigned(std::strtoul(std::string(digits).c_str(), nullptr, 16));
}

std::string converted(std::string_view bytes, const std::string& page) {
  gsize written = 0;
  const Owned text(g_convert_with_fallback(bytes.data(), gssize(bytes.size()), "UTF-8", page.c_str(), "?",
                                           nullptr, &written, nullptr));
  return text ? std::string(text.get(), written) : to_utf8(bytes);
}

/// \U+XXXX, and the older \M+nXXXX of two-byte code pages.
std::string with_escapes_resolved(const std::string& text) {
  static constexpr const char* kPages[] = {"CP932", "CP950", "CP949", "JOHAB", "CP936"};
  if (text.find("\\U+") == std::string::npos && text.find("\\M+") == std::string::npos) return text;
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const std::string_view rest = std::string_view(text).substr(i);
    if (rest.substr(0, 3) == "\\U+" && rest.size() >= 7 && is_hex(rest.substr(3, 4))) {
      append_letter(out, hex_value(rest.substr(3, 4)));
      i += 7;
    } else if (rest.substr(0, 3) == "\\M+" && rest.size() >= 8 && rest[3] >= '1' && rest[3] <= '5' &&
               is_hex(rest.substr(4, 4))) {
      const unsigned value = hex_value(rest.substr(4, 4));
      const char two[] = {char(value >> 8), char(value & 0xff)};
      out += converted({two, 2}, kPages[rest[3] - '1']);
      i += 8;
    } else {
      out += text[i++];
    }
  }
  return out;
}

/// Length of a formatting code that ends with a semicolon.
std::size_t up_to_semicolon(std::string_view rest) {
  const std::size_t end = rest.find(';');
  return end == std::string_view::npos ? rest.size() : end + 1;
}

/// "\S1^2;" and the like: what stands over what.
std::string stacked(std::string_view code) {
  std::string out;
  for (const char c : code) out += c == '^' || c == '#' ? '/' : c;
  while (!out.empty() && (out.back() == '/' || out.back() == ' ')) out.pop_back();
  return out;
}

}  // namespace

Letters::Letters(std::string_view version, std::string_view code_page) {
  if (version >= kUnicodeFrom && version.substr(0, 2) == "AC") {
    page_.clear();
    return;
  }
  std::string name = in_capitals(trimmed(code_page));
  if (name.empty()) return;
  for (char& c : name)
    if (c == '_') c = '-';
  if (name == "UTF-8" || name == "UTF8" || name == "ANSI-65001") {
    page_.clear();
    return;
  }
  if (name.rfind("ANSI-", 0) == 0) name = "CP" + name.substr(5);
  if (name.rfind("DOS", 0) == 0)
    name = "CP" + name.substr(name.find_first_of("0123456789") == std::string::npos
                                  ? 3
                                  : name.find_first_of("0123456789"));
  if (name.rfind("ISO8859-", 0) == 0) name = "ISO-8859-" + name.substr(8);
  gsize written = 0;
  const Owned probe(g_convert("a", 1, "UTF-8", name.c_str(), nullptr, &written, nullptr));
  is_known_ = probe != nullptr;
  if (is_known_) page_ = name;
}

std::string Letters::decoded(std::string_view bytes) const {
  bool plain = true;
  for (const char c : bytes) plain = plain && static_cast<unsigned char>(c) < 0x80;
  std::string text = plain ? std::string(bytes) : page_.empty() ? to_utf8(bytes) : converted(bytes, page_);
  return with_escapes_resolved(text);
}

std::string plain_line(const std::string& text) {
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const std::string_view rest = std::string_view(text).substr(i);
    if (rest.substr(0, 2) == "%%" && rest.size() > 2) {
      const char code = rest[2] | 0x20;
      std::size_t length = 3;
      if (code == 'c')
        out += "\u00d8";
      else if (code == 'd')
        out += "\u00b0";
      else if (code == 'p')
        out += "\u00b1";
      else if (rest[2] == '%')
        out += '%';
      else if (rest.size() >= 5 &&
               rest.substr(2, 3).find_first_not_of("0123456789") == std::string_view::npos) {
        append_letter(out, gunichar(std::atoi(std::string(rest.substr(2, 3)).c_str())));
        length = 5;
      } else if (code != 'u' && code != 'o' && code != 'k') {
        out += "%%";
        length = 2;
      }
      i += length;
    } else if (rest[0] == '^' && rest.size() > 1) {
      out += rest[1] == ' ' ? '^' : rest[1] == 'J' ? '\n' : ' ';
      i += 2;
    } else {
      out += text[i++];
    }
  }
  return out;
}

std::string plain_paragraph(const std::string& text) {
  constexpr std::string_view kWithValue = "ACFHQTWfpc";
  std::string out;
  for (std::size_t i = 0; i < text.size();) {
    const std::string_view rest = std::string_view(text).substr(i);
    if (rest[0] == '{' || rest[0] == '}') {
      ++i;
    } else if (rest[0] != '\\' || rest.size() == 1) {
      out += text[i++];
    } else if (rest[1] == 'P' || rest[1] == 'N' || rest[1] == 'X') {
      out += '\n';
      i += 2;
    } else if (rest[1] == '~') {
      out += ' ';
      i += 2;
    } else if (rest[1] == 'S') {
      const std::size_t length = up_to_semicolon(rest);
      out += stacked(rest.substr(2, length - 2 - (rest[length - 1] == ';')));
      i += length;
    } else if (kWithValue.find(rest[1]) != std::string_view::npos) {
      i += up_to_semicolon(rest);
    } else if (std::string_view("LlOoKk").find(rest[1]) != std::string_view::npos) {
      i += 2;
    } else {
      out += rest[1];  // \\, \{, \}
      i += 2;
    }
  }
  return plain_line(out);
}

std::string folded(const std::string& text) {
  const Owned small(g_utf8_casefold(text.c_str(), gssize(text.size())));
  return small.get();
}

}  // namespace glow::files::dxf
