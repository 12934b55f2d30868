#include "files/text/json_text.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>

namespace glow::files {
namespace {

using json = nlohmann::ordered_json;

constexpr std::size_t kLine = 100;

/// Numbers, or short lists of numbers: they go on one line.
bool is_numeric(const json& list) {
  return std::all_of(list.begin(), list.end(), [](const json& value) {
    const auto number = [](const json& v) { return v.is_number() || v.is_null(); };
    return number(value) ||
           (value.is_array() && value.size() <= 3 && std::all_of(value.begin(), value.end(), number));
  });
}

class Writer {
 public:
  std::string write(const json& document, int depth) {
    value(document, depth);
    return std::move(text_);
  }

 private:
  void indent(int depth) { text_.append(std::size_t(2 * depth), ' '); }

  void value(const json& v, int depth) {
    if (v.is_object() && !v.empty()) {
      object(v, depth);
    } else if (v.is_array() && !v.empty()) {
      is_numeric(v) ? numbers(v, depth) : list(v, depth);
    } else {
      text_ += json_line(v);
    }
  }

  void object(const json& v, int depth) {
    text_ += "{\n";
    bool first = true;
    for (const auto& [key, inner] : v.items()) {
      if (!first) text_ += ",\n";
      first = false;
      indent(depth + 1);
      text_ += json_line(json(key)) + ": ";
      value(inner, depth + 1);
    }
    text_ += "\n";
    indent(depth);
    text_ += "}";
  }

  void list(const json& v, int depth) {
    text_ += "[\n";
    for (std::size_t i = 0; i < v.size(); ++i) {
      indent(depth + 1);
      value(v[i], depth + 1);
      text_ += i + 1 < v.size() ? ",\n" : "\n";
    }
    indent(depth);
    text_ += "]";
  }

  void numbers(const json& v, int depth) {
    std::vector<std::string> lines(1);
    for (std::size_t i = 0; i < v.size(); ++i) {
      const std::string word = json_line(v[i]) + (i + 1 < v.size() ? "," : "");
      if (!lines.back().empty() && lines.back().size() + word.size() > kLine) lines.emplace_back();
      lines.back() += (lines.back().empty() ? "" : " ") + word;
    }
    text_ += "[";
    for (std::size_t i = 0; i < lines.size(); ++i) {
      if (lines.size() > 1) {
        text_ += "\n";
        indent(depth + 1);
      }
      text_ += lines[i];
    }
    if (lines.size() > 1) {
      text_ += "\n";
      indent(depth);
    }
    text_ += "]";
  }

  std::string text_;
};

}  // namespace

std::string json_text(const json& document) {
  return Writer().write(document, 0) + "\n";
}

std::string json_piece(const json& value, int depth) {
  return Writer().write(value, depth);
}

std::string json_line(const json& value) {
  return value.dump(-1, ' ', false, json::error_handler_t::replace);
}

json parsed_json(std::string_view text) {
  return json::parse(text, nullptr, false);
}

}  // namespace glow::files
