#include "files/project/report/report_reader.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::files {
namespace {

/// Names of parts, in the designer's order; those that there are not are told.
std::vector<std::string> read_parts(TomlTable& table, const char* key,
                                    const std::vector<std::string>& known) {
  std::vector<std::string> parts;
  for (const auto& [part, place] : table.texts(key)) {
    if (std::find(known.begin(), known.end(), part) != known.end()) {
      parts.push_back(part);
      continue;
    }
    const std::string near = nearest_word(part, known);
    table.problems().error(
        "P120", place,
        fmt::format(FMT_STRING("\"{}\" has no part \"{}\"{}; expected any of {}"), key, part,
                    near.empty() ? "" : "; did you mean \"" + near + "\"?", fmt::join(known, ", ")));
  }
  return parts;
}

}  // namespace

model::ReportWish read_report(TomlTable& root) {
  model::ReportWish wish;
  auto table = root.table("report");
  if (!table) return wish;
  const auto text = [&](const char* key, std::string& value) { value = table->text(key).value_or(value); };
  text("client", wish.client);
  text("author", wish.author);
  text("date", wish.date);
  text("logo", wish.logo);
  text("language", wish.language);
  text("words", wish.words);
  wish.notes = table->paragraphs("introduction").value_or("");
  text("template", wish.template_file);
  text("style", wish.style);
  text("page", wish.page);
  if (wish.page != "A4" && wish.page != "Letter")
    table->problems().error("P121", table->place_of("page"),
                            fmt::format(FMT_STRING("\"page\" is \"{}\"; expected A4 or Letter"), wish.page));
  if (const auto units = table->text("units"); units && !(wish.units = units::ShownUnits::parse(*units)))
    table->problems().error(
        "P005", table->place_of("units"),
        fmt::format(FMT_STRING("\"units\" is \"{}\"; expected lx or fc, and m or ft, such as \"fc, ft\""),
                    *units));
  wish.contents = read_parts(*table, "contents", model::report_parts());
  wish.room_contents = read_parts(*table, "room_contents", model::report_room_parts());
  for (const auto& [name, place] : table->texts("pictures")) wish.pictures.push_back(name);
  if (auto notes = table->table("notes")) {
    for (const std::string& room : notes->keys())
      if (const auto words = notes->paragraphs(room)) wish.room_notes[room] = *words;
    notes->finish();
  }
  table->finish();
  return wish;
}

}  // namespace glow::files
