#include "files/project/writers/new_project.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "files/project/writers/toml_words.hpp"

namespace glow::files {

std::string new_project_text(const NewProject& p) {
  std::string text = fmt::format(
      FMT_STRING("# Lengths are metres. glowgrid check says what is missing, glowgrid run computes.\n"
                 "format = 1\n\n[project]\nname = {}\nstandard = {}\n{}"),
      toml_quoted(p.name), toml_quoted(p.standard),
      p.outside ? "files_outside = true        # the luminaire's file\n" : "");
  text +=
      "\n[defaults]\nreflectance = { ceiling = 0.70, walls = 0.50, floor = 0.20 }   # usual ones; put in "
      "your own\n"
      "maintenance_factor = 0.80\n";
  text += fmt::format(FMT_STRING("\n[luminaires.{}]            # {}\nfile = {}\n"), toml_key(p.mark),
                      p.luminaire, toml_quoted(p.file));
  text += fmt::format(
      FMT_STRING("\n[[rooms]]\nname = {}\nsize = [{:g}, {:g}]             # along x, along y\nheight = {:g}\n"
                 "task = {}   # {}\n"),
      toml_quoted(p.room), p.size.x(), p.size.y(), p.size.z(), toml_quoted(p.task), p.task_words);
  constexpr double kNarrow = 1.6;  // m: half a metre along both walls would leave next to nothing
  if (std::min(p.size.x(), p.size.y()) < kNarrow)
    text += "work_plane = { inset = 0.1 }   # narrow: the usual 0.5 m along the walls would leave nothing\n";
  text += fmt::format(FMT_STRING("\n[[rooms.luminaires]]\nmark = {}\n"), toml_quoted(p.mark));
  text += p.arrange
              ? std::string("arrange = {}               # run finds the even array that meets all checks\n")
              : fmt::format(FMT_STRING("array = {{ rows = {}, columns = {} }}   # a first guess by flux; "
                                       "glowgrid arrange finds the best\n"),
                            p.rows, p.columns);
  if (p.suspended)
    text +=
        "mounting = \"suspended\"     # it gives light upwards too\nsuspension = 0.5           # below the "
        "ceiling\n";
  return text;
}

}  // namespace glow::files
