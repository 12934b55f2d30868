#include "cli/import/mark_files.hpp"

#include <fmt/format.h>

#include <filesystem>

#include "cli/streams.hpp"
#include "files/text/input_file.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

bool take_table(const fs::path& table, MarkFiles& files) {
  constexpr std::size_t kLargestTable = 1u << 20;
  Problems problems;
  const auto bytes = files::read_file(table, kLargestTable, {}, problems);
  if (!bytes) return refused("import", problems.all().front().text);
  int number = 0;
  for (const std::string_view line : files::split_lines(*bytes)) {
    ++number;
    const std::string text = files::to_utf8(files::trimmed(line));
    if (text.empty() || text.front() == '#') continue;
    const std::size_t comma = text.rfind(',');  // types may have commas in them, files have none
    const std::string type(files::trimmed(std::string_view(text).substr(0, comma)));
    const std::string file(
        comma == std::string::npos ? "" : files::trimmed(std::string_view(text).substr(comma + 1)));
    if (type.empty() || file.empty())
      return refused(
          "import",
          fmt::format(FMT_STRING("{}:{}: \"{}\"; expected a type of luminaire and its photometric file, with "
                                 "a comma between, such as Panel 600,panel.ldt"),
                      table.string(), number, printable(text)));
    const fs::path path = fs::path(file).is_absolute() ? fs::path(file) : table.parent_path() / file;
    std::error_code error;
    if (!fs::is_regular_file(path, error))
      return refused("import", fmt::format(FMT_STRING("{}:{}: there is no file {}"), table.string(), number,
                                           printable(path.string())));
    if (!files.emplace(type, path.string()).second)
      return refused("import", fmt::format(FMT_STRING("{}:{}: \"{}\" is there twice"), table.string(), number,
                                           printable(type)));
  }
  return true;
}

}  // namespace

std::optional<MarkFiles> mark_files(const Arguments& arguments) {
  MarkFiles files;
  if (arguments.has("marks") && !take_table(arguments.text("marks"), files)) return std::nullopt;
  for (const std::string& mark : arguments.texts("mark")) {
    const std::size_t equals = mark.find('=');
    if (equals == std::string::npos || equals == 0 || equals + 1 == mark.size()) {
      refused("import",
              fmt::format(FMT_STRING("--mark is \"{}\"; expected MARK=FILE, such as P1=pendant.ldt"), mark));
      return std::nullopt;
    }
    files[mark.substr(0, equals)] = mark.substr(equals + 1);
  }
  return files;
}

}  // namespace glow::cli
