#pragma once

#include "cli/run_program.hpp"
#include "test_files.hpp"

namespace glow::cli {

/// A small office in the south of Brackmere.
inline std::string office(const std::string& year, const std::string& of_room = "",
                          const std::string& site = "") {
  return "format = 1\n[project]\nname = \"O\"\nstandard = \"EN 12464-1:2021\"\n[site]\nnorth = 0\n" + site +
         "[year]\nweather = \"w.epw\"\n" + year +
         "[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
         "[[rooms]]\nname = \"Office\"\nsize = [4, 5]\nheight = 2.8\nsurfaces = false\n"
         "[[rooms.openings]]\nname = \"window\"\nkind = \"window\"\nwall = 1\nfrom = 1\nwidth = 2\nsill = "
         "0.9\n"
         "height = 1.5\nglazing = \"clear double\"\nscreen = { transmittance = 0.1, state = \"down\" }\n" +
         of_room;
}

/// And the weather of its place, as w.epw.
inline TemporaryFolder& with_weather(TemporaryFolder& folder) {
  folder.write("w.epw", content_of(test_data("validation/weather/brackmere.epw")));
  return folder;
}

}  // namespace glow::cli
