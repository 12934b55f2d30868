#include "files/project/lamp_colour_reader.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kDuv{-0.05, 0.05};
constexpr double kDaylightFrom = 4000;  // K

}  // namespace

model::LampColour read_lamp_colour(TomlTable& table) {
  model::LampColour colour;
  if (table.is_list("cct")) {
    if (const auto range = table.numbers("cct", 2, kColourTemperature.low, kColourTemperature.high)) {
      if ((*range)[0] < (*range)[1])
        colour.tunable = std::pair((*range)[0], (*range)[1]);
      else
        table.problems().error("P005", table.place_of("cct"),
                               "\"cct\" is a range from high to low; expected [lowest, highest]");
    }
  } else {
    colour.cct_k = table.quantity("cct", Dimension::temperature, kColourTemperature);
  }
  colour.duv = table.quantity("duv", Dimension::number, kDuv);
  using Locus = colour::Stated::Locus;
  if (table.is_word("locus", "planckian"))
    colour.locus = Locus::planckian;
  else if (table.is_word("locus", "daylight"))
    colour.locus = Locus::daylight;
  else if (table.has("locus")) {
    table.skip("locus");
    table.problems().error("P005", table.place_of("locus"),
                           "\"locus\" expects \"planckian\" or \"daylight\"");
  }
  if (colour.duv && table.has("locus"))
    table.problems().error("P007", table.place_of("locus"),
                           "\"duv\" is beside the Planckian locus; take \"locus\" out");
  const double lowest = colour.tunable ? colour.tunable->first : colour.cct_k.value_or(kDaylightFrom);
  if (colour.locus == Locus::daylight && lowest < kDaylightFrom)
    table.problems().error("P005", table.place_of("locus"),
                           "the daylight locus begins at 4000 K; take \"locus\" out");
  return colour;
}

}  // namespace glow::files
