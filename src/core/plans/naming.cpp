#include "core/plans/naming.hpp"

#include <glib.h>

#include <algorithm>
#include <cctype>
#include <memory>

#include "core/plans/signs.hpp"

namespace glow::plans {
namespace {

struct Written {
  const Label* label = nullptr;
  std::string line;
  double height_m = 0;
  double y = 0, x = 0;
};

std::string tidy(const std::string& words) {
  std::string out;
  for (std::size_t k = 0; k < words.size(); ++k) {
    const bool hard_blank = words.compare(k, 2, "\u00a0") == 0;
    if (hard_blank) ++k;
    if (hard_blank || std::isspace(static_cast<unsigned char>(words[k]))) {
      if (!out.empty() && out.back() != ' ') out += ' ';
    } else {
      out += words[k];
    }
  }
  while (!out.empty() && out.back() == ' ') out.pop_back();
  return out;
}

std::vector<std::string> lines_of(const std::string& words) {
  std::vector<std::string> lines;
  for (std::size_t begin = 0; begin <= words.size();) {
    const std::size_t end = std::min(words.find('\n', begin), words.size());
    const std::string line = tidy(words.substr(begin, end - begin));
    if (!line.empty()) lines.push_back(line);
    begin = end + 1;
  }
  return lines;
}

struct Range {
  std::size_t begin, end;
};

/// A regular expression on bytes, whatever case letters have.
class Pattern {
 public:
  explicit Pattern(const char* words)
      : made_(g_regex_new(words, GRegexCompileFlags(G_REGEX_RAW | G_REGEX_CASELESS | G_REGEX_OPTIMIZE),
                          GRegexMatchFlags(0), nullptr)) {}

  std::optional<Range> find(const std::string& line) const {
    GMatchInfo* found = nullptr;
    int begin = -1, end = -1;
    if (g_regex_match_full(made_.get(), line.c_str(), gssize(line.size()), 0, GRegexMatchFlags(0), &found,
                           nullptr))
      g_match_info_fetch_pos(found, 0, &begin, &end);
    g_match_info_free(found);
    if (begin < 0) return std::nullopt;
    return Range{std::size_t(begin), std::size_t(end)};
  }

 private:
  struct Released {
    void operator()(GRegex* made) const { g_regex_unref(made); }
  };
  std::unique_ptr<GRegex, Released> made_;
};

const Pattern& area_words() {
  static const Pattern words(
      R"((^|\s)(\S{1,6}\s*[=:]\s*)?[\d.,' ]*\d\s*(m2|m²|m\^2|qm|sqm|sq\.? ?m|sq\.? ?ft|ft2|ft²|sf)\b\.?$)");
  return words;
}

/// A line "0.01 Joinery 35.4 m2" in its parts.
void split(const std::string& line, std::vector<std::string>& parts) {
  std::string rest = line;
  std::string note;
  if (const auto area = rest.size() < 200 ? area_words().find(rest) : std::nullopt) {
    note = tidy(rest.substr(area->begin, area->end - area->begin));
    rest = tidy(rest.substr(0, area->begin));
  }
  const std::size_t blank = rest.find(' ');
  if (blank != std::string::npos && kind_of_words(rest.substr(0, blank)) == WordKind::number &&
      kind_of_words(rest.substr(blank + 1)) == WordKind::name) {
    parts.push_back(rest.substr(0, blank));
    rest = tidy(rest.substr(blank + 1));
  }
  // "Office 0.12": what has parts is a number; "Class 5" is a name.
  const std::size_t last = rest.rfind(' ');
  if (last != std::string::npos && rest.find_first_of(".-", last) != std::string::npos &&
      kind_of_words(rest.substr(last + 1)) == WordKind::number &&
      kind_of_words(rest.substr(0, last)) == WordKind::name) {
    parts.push_back(rest.substr(last + 1));
    rest = tidy(rest.substr(0, last));
  }
  if (!rest.empty()) parts.push_back(rest);
  if (!note.empty()) parts.push_back(note);
}

bool has_any(const std::string& tag, std::initializer_list<const char*> words) {
  return std::any_of(words.begin(), words.end(),
                     [&](const char* word) { return tag.find(word) != std::string::npos; });
}

/// What a stamp's attribute is, by its tag.
std::optional<WordKind> kind_of_tag(const std::string& tag, const Request& request) {
  if (tag.empty()) return std::nullopt;
  if (!request.name_tag.empty() || !request.number_tag.empty()) {
    if (tag == request.name_tag) return WordKind::name;
    if (tag == request.number_tag) return WordKind::number;
    return WordKind::note;
  }
  if (has_any(tag,
              {"area", "flaeche", "fläche", "size", "height", "hoehe", "höhe", "surface", "umfang", "perim"}))
    return WordKind::note;
  if (has_any(tag, {"num", "nr", "no", "code", "id"}) && !has_any(tag, {"name", "nom"}))
    return WordKind::number;
  if (has_any(tag, {"name", "nom", "bez", "title", "room", "raum", "desc", "use", "nutz"}))
    return WordKind::name;
  return std::nullopt;
}

int room_of(const Vec2& at, const FoundPlan& plan, const std::vector<geometry::Box2>& boxes) {
  int found = -1;
  double least = HUGE_VAL;
  for (std::size_t k = 0; k < plan.rooms.size(); ++k) {
    if ((at.array() < boxes[k].low.array()).any() || (at.array() > boxes[k].high.array()).any()) continue;
    const double area = geometry::signed_area(plan.rooms[k].outline);
    if (area < least && geometry::contains(plan.rooms[k].outline, at)) {
      found = int(k);
      least = area;
    }
  }
  return found;
}

void take_words(FoundRoom& room, const std::vector<Written>& texts, const Request& request) {
  // Names are written largest, where several could be one.
  double name_height = 0;
  for (const Written& text : texts) {
    const auto tagged = kind_of_tag(text.label->tag, request);
    std::vector<std::string> parts;
    if (tagged)
      parts.push_back(text.line);
    else
      split(text.line, parts);
    for (const std::string& part : parts) {
      const WordKind kind = tagged ? *tagged : kind_of_words(part);
      if (kind == WordKind::number && room.number.empty()) {
        room.number = part;
      } else if (kind == WordKind::name && (room.name.empty() || text.height_m >= 0.9 * name_height)) {
        if (text.height_m > 1.1 * name_height) room.name.clear();
        room.name += (room.name.empty() ? "" : " ") + part;
        name_height = std::max(name_height, text.height_m);
      }
    }
  }
}

}  // namespace

WordKind kind_of_words(const std::string& line) {
  static const Pattern number(
      R"(^([A-Za-z]|([A-Za-z]{0,3}[-._/]?|[A-Za-z]{1,2} )\d{1,5}([.\-_/ ]?\d{1,5}){0,3}[A-Za-z]?( ?(°|'|\*))?)$)");
  static const Pattern dimension(
      R"(^(\S{1,8}\s*[=:]\s*.*\d.*|(\S{1,8}\s*)?[+\-±]?[\d.,]+\s*(m|mm|cm|m2|m²|qm|sqm|ft|in|lx|%)\.?)$)");
  if (line.size() > 200) return WordKind::note;
  const auto area = area_words().find(line);
  if (area && area->begin == 0) return WordKind::note;
  if (number.find(line)) return WordKind::number;
  if (dimension.find(line)) return WordKind::note;
  constexpr unsigned char kLetters =
      0xc3;  // first bytes from here on begin letters, in UTF-8; before it, signs
  const bool has_letter = std::any_of(line.begin(), line.end(), [](char c) {
    return std::isalpha(static_cast<unsigned char>(c)) || static_cast<unsigned char>(c) >= kLetters;
  });
  return has_letter ? WordKind::name : WordKind::note;
}

void name_rooms(const Drawing& drawing, const Request& request, FoundPlan& plan) {
  std::vector<geometry::Box2> boxes;
  for (const FoundRoom& room : plan.rooms) boxes.push_back(geometry::bounding_box(room.outline));
  std::vector<std::vector<Written>> texts(plan.rooms.size());
  for (const Label& label : drawing.labels) {
    if (is_dimension(drawing, label.drawn)) continue;
    if (!request.text_layers.empty() && !fits(drawing.layers[label.drawn.layer].key, request.text_layers))
      continue;
    const int room = room_of(label.at, plan, boxes);
    if (room < 0) continue;
    int row = 0;
    for (const std::string& line : lines_of(label.words))
      texts[std::size_t(room)].push_back(
          {&label, line, label.height_m, label.at.y() - 1.6 * label.height_m * row++, label.at.x()});
  }
  for (std::size_t k = 0; k < plan.rooms.size(); ++k) {
    std::stable_sort(texts[k].begin(), texts[k].end(), [](const Written& a, const Written& b) {
      const double line = 0.5 * std::max(a.height_m, b.height_m);
      return std::abs(a.y - b.y) > line ? a.y > b.y : a.x < b.x;
    });
    take_words(plan.rooms[k], texts[k], request);
  }
}

}  // namespace glow::plans
