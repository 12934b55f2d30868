#include <fmt/format.h>

#include <algorithm>
#include <kainjow/mustache.hpp>
#include <stdexcept>

#include "files/output/embedded_files.hpp"
#include "report/report.hpp"
#include "words/text_layout.hpp"

namespace glow::report {
namespace {

using kainjow::mustache::data;

constexpr std::size_t kHeadWidth = 48;  // letters of running heads

/// "✓ met": by sign, word and, in the style sheet, colour and pattern.
std::string verdict_sign(const std::string& verdict) {
  if (verdict == "met") return "\u2713";
  if (verdict == "not met") return "\u2717";
  return verdict == "undecided" ? "?" : "";
}

std::string verdict_class(std::string verdict) {
  std::replace(verdict.begin(), verdict.end(), ' ', '-');
  return verdict;
}

/// With places to break in words so long that they would not fit a column.
std::string breakable(const std::string& words) {
  constexpr int kLongest = 28;  // letters
  std::string text;
  int letters = 0;
  for (const char c : words) {
    const bool begins_letter = (c & 0xC0) != 0x80;
    if (begins_letter && letters == kLongest) {
      text += "\u200b";
      letters = 0;
    }
    text += c;
    letters = c == ' ' || c == '-' ? 0 : letters + begins_letter;
  }
  return text;
}

bool is_verdict(const std::string& words) {
  return words == "met" || words == "not met" || words == "undecided" || words == "no target";
}

class Renderer {
 public:
  Renderer(const ReportWords& words, std::string language) : words_(words), language_(std::move(language)) {}

  data of(const Document& document, const model::ReportWish& wish, const std::string& style) {
    data root;
    root.set("title", document.title);
    root.set("head", words::fitted(document.title, kHeadWidth));
    root.set("language", document.language);
    root.set("standards", document.standards);
    root.set("client", document.client);
    root.set("author", document.author);
    root.set("date", document.date);
    root.set("logo", document.logo);
    for (const char* key : {"client", "author", "date", "logo"})
      root.set(std::string("has_") + key, !std::string(root.get(key)->string_value()).empty());
    root.set("page", wish.page == "Letter" ? "Letter" : "A4");
    root.set("stale", document.stale);
    root.set("is_stale", !document.stale.empty());
    root.set("form", document.form);
    root.set("is_room_page", document.form == "room-page");
    root.set("has_cover", document.has_cover);
    root.set("has_contents", document.has_contents && document.sections.size() > 1);
    for (const char* word : {"Contents", "Client", "Author", "Date", "Verified after", "Page"}) {
      std::string key = std::string("word_") + word;
      std::replace(key.begin(), key.end(), ' ', '_');
      root.set(key, words_(word));
    }
    root.set("own_style", style);
    root.set("block", kainjow::mustache::partial([] {
               std::string text;
               for (const files::EmbeddedFile& file : files::embedded_report())
                 if (file.name == "block.html") text = file.bytes;
               return text;
             }));
    for (const files::EmbeddedFile& file : files::embedded_report()) {
      std::string name = file.name;
      std::replace(name.begin(), name.end(), '.', '_');
      root.set(name, std::string(file.bytes));
    }
    data sections = data::type::list;
    for (const Section& section : document.sections) sections << of(section);
    root.set("sections", sections);
    return root;
  }

 private:
  /// `tag`: of headings within it.
  data of(const Section& section, const char* tag = "h3") {
    data node;
    node.set("id", section.id);
    node.set("title", section.title);
    node.set("head", words::fitted(section.title, kHeadWidth));
    node.set("has_verdict", !section.verdict.empty());
    node.set("verdict", words_(section.verdict));
    node.set("verdict_sign", verdict_sign(section.verdict));
    node.set("verdict_class", verdict_class(section.verdict));
    node.set("stale", section.stale);
    node.set("on_new_page", section.on_new_page);
    data blocks = data::type::list, parts = data::type::list;
    for (const Block& block : section.blocks) blocks << of(block, tag);
    for (const Section& part : section.parts) parts << of(part, "h4");
    node.set("blocks", blocks);
    node.set("parts", parts);
    node.set("has_parts", !section.parts.empty());
    return node;
  }

  data of(const Block& block, const char* tag) {
    data node("tag", tag);
    node.set("heading", block.heading);
    node.set("has_heading", !block.heading.empty());
    node.set("html", block.html);
    const auto list = [](const std::vector<std::string>& words) {
      data items = data::type::list;
      for (const std::string& each : words) items << data("words", each);
      return items;
    };
    node.set("paragraphs", list(block.paragraphs));
    data points = data::type::list;
    for (const Block::Point& each : block.points) {
      data point("words", each.words);
      point.set("kind", each.kind);
      points << point;
    }
    node.set("points", points);
    node.set("has_points", !block.points.empty());
    data facts = data::type::list, tables = data::type::list, figures = data::type::list;
    for (const auto& [name, value] : block.facts) {
      data fact("name", name);
      fact.set("value", value);
      facts << fact;
    }
    node.set("facts", facts);
    node.set("has_facts", !block.facts.empty());
    for (const words::DataTable& table : block.tables)
      if (!table.rows().empty()) tables << of(table, block.heading);
    node.set("tables", tables);
    for (const Block::Figure& figure : block.figures) {
      data each("svg", figure.svg);
      each.set("image", figure.image);
      each.set("has_image", !figure.image.empty());
      each.set("words", figure.words);
      std::string plan = figure.plan;  // stands in a script element
      for (std::size_t at = plan.find("</"); at != std::string::npos; at = plan.find("</", at))
        plan.replace(at, 2, "<\\/");
      each.set("plan", plan);
      each.set("has_plan", !figure.plan.empty());
      each.set("half", figure.half);
      figures << each;
    }
    node.set("figures", figures);
    node.set("has_figures", !block.figures.empty());
    return node;
  }

  /// "Mean lx" where only "Mean" is in the table of words.
  std::string title(const std::string& english) const {
    const std::string& whole = words_(english);
    const std::size_t blank = english.rfind(' ');
    if (whole != english || blank == std::string::npos) return whole;
    return words_(english.substr(0, blank)) + english.substr(blank);
  }

  /// Columns that hold nothing are left out.
  data of(const words::DataTable& table, const std::string& heading) {
    std::vector<std::size_t> columns;
    for (std::size_t c = 0; c < table.columns().size(); ++c)
      if (std::any_of(table.rows().begin(), table.rows().end(),
                      [&](const auto& row) { return !std::holds_alternative<std::monostate>(row[c]); }))
        columns.push_back(c);
    data node("caption", words_(table.title()));
    node.set("told", words_(table.title()) == heading);  // just above
    data head = data::type::list, rows = data::type::list;
    for (const std::size_t c : columns) {
      const words::DataColumn& column = table.columns()[c];
      data cell("title", title(column.title));
      cell.set("is_number", column.digits != words::DataColumn::kText);
      head << cell;
    }
    for (const auto& row : table.rows()) {
      data cells = data::type::list;
      for (const std::size_t c : columns) {
        const std::string words = words::cell_words(row[c], table.columns()[c]);
        data cell;
        const bool verdict = is_verdict(words);
        cell.set("words", verdict ? words_(words) : breakable(words));
        cell.set("has_sign", verdict && !verdict_sign(words).empty());
        cell.set("sign", verdict_sign(words));
        cell.set("class", verdict ? "verdict " + verdict_class(words)
                          : table.columns()[c].digits == words::DataColumn::kText ? ""
                                                                                  : "number");
        const auto* number = std::get_if<double>(&row[c]);
        cell.set("value", number ? fmt::format(FMT_STRING("{:.9g}"), *number) : "");
        cell.set("is_number", number != nullptr);
        cells << cell;
      }
      rows << data("cells", cells);
    }
    node.set("head", head);
    node.set("rows", rows);
    return node;
  }

  const ReportWords& words_;
  const std::string language_;
};

}  // namespace

std::string html_of(const Document& document, const model::ReportWish& wish, const ReportWords& words,
                    const std::string& page, const std::string& style) {
  std::string text = page;
  if (text.empty())
    for (const files::EmbeddedFile& file : files::embedded_report())
      if (file.name == "report.html") text = file.bytes;
  kainjow::mustache::mustache mustache(text);
  if (!mustache.is_valid()) throw std::runtime_error(mustache.error_message());
  const data root = Renderer(words, document.language).of(document, wish, style);
  std::string html = mustache.render(root);
  if (!mustache.is_valid()) throw std::runtime_error(mustache.error_message());
  return html;
}

}  // namespace glow::report
