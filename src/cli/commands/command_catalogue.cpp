#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/options/arguments.hpp"
#include "cli/streams.hpp"
#include "files/project/materials_reader.hpp"
#include "files/project/room/typical_furniture.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace {

using Words = std::vector<std::string>;

/// Whether the name holds each of the words.
bool is_meant(const std::string& name, const Words& words) {
  return std::all_of(words.begin(), words.end(),
                     [&](const std::string& word) { return name.find(word) != std::string::npos; });
}

std::string share(double value) {
  return value > 0 ? fmt::format(FMT_STRING("{:.2f}"), value) : std::string("-");
}

std::string finishes(const Words& words) {
  std::string text;
  for (const auto& [name, finish] : files::everyday_finishes()) {
    if (!is_meant(name, words)) continue;
    const geometry::Material& m = finish.material;
    text += fmt::format(FMT_STRING("  {:<26} {:>11} {:>8} {:>13} {:>10}\n"), name, share(m.diffuse),
                        share(m.mirror), share(m.clear), share(m.scattering));
  }
  if (text.empty()) return text;
  return fmt::format(FMT_STRING("  {:<26} {:>11} {:>8} {:>13} {:>10}\n"), "finish (material = )",
                     "reflectance", "mirror", "transmittance", "scattering") +
         text;
}

std::string furniture(const Words& words) {
  std::string text;
  for (const auto& [name, piece] : files::typical_furniture()) {
    if (!is_meant(name, words)) continue;
    const std::string high =
        piece.size.z() > 0 ? fmt::format(FMT_STRING("{:.2f}"), piece.size.z()) : std::string("ceiling");
    const std::string remark = piece.bottom > 0
                                   ? fmt::format(FMT_STRING(", {:.2f} m above the floor"), piece.bottom)
                               : piece.shelves > 0 ? fmt::format(FMT_STRING(", {} shelves"), piece.shelves)
                                                   : "";
    text += fmt::format(FMT_STRING("  {:<22} {:>6.2f} {:>6.2f} {:>8}  {}{}\n"), name, piece.size.x(),
                        piece.size.y(), high, piece.finish, remark);
  }
  if (text.empty()) return text;
  return fmt::format(FMT_STRING("  {:<22} {:>6} {:>6} {:>8}  finish\n"), "furniture, m", "along", "deep",
                     "high") +
         text;
}

}  // namespace

int command_catalogue(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid catalogue [finishes|furniture] [WORDS] [options]",
      "Lists the everyday finishes and the furniture that a project may name, with their typical\n"
      "reflectances and sizes; a project can state others.",
      "  glowgrid catalogue\n  glowgrid catalogue finishes wood",
      "words",
      true,
      po::options_description()};
  line.options.add_options()("help,h", "show this help");
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  Words asked = parsed.arguments.texts("words");
  const bool one = !asked.empty() && (asked[0] == "finishes" || asked[0] == "furniture");
  const std::string kind = one ? asked[0] : std::string();
  if (one) asked.erase(asked.begin());
  const std::string first = kind == "furniture" ? "" : finishes(asked),
                    second = kind == "finishes" ? "" : furniture(asked);
  if (first.empty() && second.empty()) {
    say(fmt::format(FMT_STRING("glowgrid catalogue: nothing there is called {}; see glowgrid catalogue\n"),
                    fmt::join(asked, " ")));
    return kBadInput;
  }
  tell(first + (first.empty() || second.empty() ? "" : "\n") + second);
  return kDone;
}

}  // namespace glow::cli
