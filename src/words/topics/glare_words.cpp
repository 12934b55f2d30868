#include "words/topics/glare_words.hpp"

#include <fmt/format.h>

#include <cmath>

namespace glow::words {

std::string remark_words(const assess::GlareRemark& remark) {
  using Kind = assess::GlareRemark::Kind;
  const auto sources = [&](const std::string& words) {
    return fmt::format(FMT_STRING("{:.0f} % of it from sources {}"), 100 * remark.share, words);
  };
  switch (remark.kind) {
    case Kind::small_sources:
      return sources("seen smaller than 0.005 m2, rated by intensity (CIE 147)" +
                     (std::isfinite(remark.value)
                          ? fmt::format(FMT_STRING("; by the plain formula {:.1f}"), remark.value)
                          : std::string()));
    case Kind::tiny_sources:
      return sources("below 0.0003 sr, smaller than CIE 117 was made for: rated too harshly");
    case Kind::large_sources:
      return sources("above 0.1 sr, larger than CIE 117 was made for: rated too mildly");
    case Kind::below_sight:
      return sources(
          "below the line of sight, where CIE 117 has no position index; Iwata and Tokura's is taken");
    case Kind::partly_hidden:
      return sources("partly hidden, counted as far as they are seen");
    case Kind::beyond_field:
      return fmt::format(
          FMT_STRING("{:.1f} with the sources in front that lie outside the field of view of the "
                     "printed table"),
          remark.value);
    case Kind::indirect:
      return fmt::format(
          FMT_STRING("{:.0f} % of the light goes up: UGR does not rate the bright ceiling. CIE 147 "
                     "bounds the mean of even indirect light instead: 300, 600, 1000, 1600 lx for "
                     "UGR 13, 16, 19, 22"),
          100 * remark.share);
  }
  return "";
}

std::string against_words(assess::TableGlare::Against reason) {
  using Against = assess::TableGlare::Against;
  switch (reason) {
    case Against::not_rectangular:
      return "the room is not a rectangle";
    case Against::ceiling_not_flat:
      return "the ceiling is not flat";
    case Against::no_luminaires:
      return "there are no luminaires";
    case Against::several_kinds:
      return "several kinds of luminaires, or of dimming";
    case Against::switched_off:
      return "the luminaires are off";
    case Against::no_luminous_size:
      return "the file states no luminous size";
    case Against::no_luminous_width:
      return "the file states a luminous area without width";
    case Against::no_light_downwards:
      return "no light leaves downwards";
    case Against::not_symmetric:
      return "the luminaire is not symmetric about both planes";
    case Against::not_above_eye:
      return "the luminaires are not above the eye";
    case Against::tilted:
      return "luminaires are tilted";
    case Against::not_square:
      return "luminaires are not square to the room";
    case Against::several_heights:
      return "luminaires hang at several heights";
    case Against::turned_several_ways:
      return "luminaires are turned in several ways";
    case Against::not_even:
      return "the luminaires are not one even array";
  }
  return "";
}

std::string why_not_words(const assess::TableGlare& table) {
  std::string words;
  for (const auto reason : table.why_not) words += (words.empty() ? "" : "; ") + against_words(reason);
  return words;
}

std::string table_remark_words(const assess::TableGlare::Remark& remark, const record::RoomRecord& room) {
  using Kind = assess::TableGlare::Remark::Kind;
  const model::Reflectances& own = room.reflectances;
  switch (remark.kind) {
    case Kind::reflectances_differ:
      return fmt::format(
          FMT_STRING("the room's own reflectances, {:.0f}/{:.0f}/{:.0f}, are far from any of the "
                     "table; {} is the nearest"),
          100 * own.ceiling, 100 * own.walls, 100 * own.floor,
          reflectances_words(room.assessment.glare.table));
    case Kind::beyond_table:
      return "the table holds sides of 2H to 12H; what lies beyond is read at its edge";
    case Kind::near_limit:
      return fmt::format(
          FMT_STRING("within {} of the limit of {:g}: tables by different hands differ by as much"),
          remark.amount, remark.value);
  }
  return "";
}

std::string along_words(const assess::TableGlare::Value& value) {
  using Along = assess::TableGlare::Value::Along;
  if (value.along == Along::wall) return fmt::format(FMT_STRING("wall {}"), value.wall);
  return value.along == Along::x ? "x" : "y";
}

std::string reflectances_words(const assess::TableGlare& table) {
  return fmt::format(FMT_STRING("{}/{}/{}"), table.reflectances[0], table.reflectances[1],
                     table.reflectances[2]);
}

std::string not_verified_words(const standards::NotVerified& item, const assess::TableGlare& table) {
  using Why = standards::NotVerified::Why;
  const auto ugr = [&](const std::string& why) {
    return fmt::format(FMT_STRING("glare UGR {:g} ({})"), item.required, why);
  };
  const std::string of =
      item.subject.empty() ? std::string() : " of " + item.subject;  // where there are several
  switch (item.why) {
    case Why::ugr_limit_not_held:
    case Why::gr_limit_not_held:
      return "glare (limit" + of + " not held)";
    case Why::colour_not_held:
      return "colour rendering (value" + of + " not held)";
    case Why::mean_not_held:
      return "mean illuminance (value" + of + " not held)";
    case Why::uniformity_not_held:
      return "uniformity (value" + of + " not held)";
    case Why::surfaces_not_held:
      return "walls, ceiling and cylinders (values" + of + " not held)";
    case Why::no_room_for_band:
      return fmt::format(FMT_STRING("{}: does not apply, there is no room for it within the walls"),
                         item.subject);
    case Why::no_room_for_faces:
      return "cylindrical illuminance: the room is too low or too narrow for it";
    case Why::no_plane_for_task:
      return "the task's own plane: no area says where it is";
    case Why::colour_unknown:
      return fmt::format(
          FMT_STRING("colour rendering Ra {:g} (neither the file of {} nor the project states its Ra)"),
          item.required, item.subject);
    case Why::table_fails:
      return ugr("the tabular method does not hold: " + why_not_words(table));
    case Why::no_eyes:
      return ugr("there are no eyes to rate it at");
    case Why::nothing_in_sight:
      return ugr("no luminaire is in the field of view of the eyes that are verified");
    case Why::nothing_in_sight_gr:
      return fmt::format(
          FMT_STRING("glare rating GR {:g} (no luminaire is in the field of view of the eyes that "
                     "are verified)"),
          item.required);
    case Why::left_out:
      return fmt::format(FMT_STRING("luminance of {} in screens (left out by the project)"), item.subject);
    case Why::delay_unknown:
      return fmt::format(FMT_STRING("delay, at most {:g} s (the scene does not state one)"), item.required);
    case Why::no_way_out:
      return "emergency light: the room states neither escape routes nor an open area";
    case Why::median_unknown:
      return "daylight provision: nothing says how bright it is outside ([site] median_diffuse or "
             "climate_of)";
    case Why::place_unknown:
      return "hours of sunlight: [site] has no latitude and longitude";
    case Why::no_luminous_size:
      return fmt::format(FMT_STRING("luminance of {} in screens (its file states no luminous size)"),
                         item.subject);
  }
  return "";
}

}  // namespace glow::words
