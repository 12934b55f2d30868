#include "files/project/room/glare_reader.hpp"

#include <fmt/format.h>

#include "core/standards/glare_rules.hpp"

namespace glow::files {
namespace {

using units::Dimension;

constexpr Range kEyeHeight{0.2, 100};
constexpr Range kEyeSpacing{0.1, 50};
constexpr Range kEyeInset{0.1, 50};
constexpr Range kScreen{1, 1e6};
constexpr Range kLamp{1, 1e9};
constexpr Range kFrom{45, 85};
constexpr Range kShielding{0, 90};
constexpr Range kLouvre{1e-4, 10};

model::Eyes read_posture(TomlTable& table, const char* key) {
  const auto words = table.text(key);
  if (!words) return model::Eyes::by_task;
  if (*words == "seated") return model::Eyes::seated;
  if (*words == "standing") return model::Eyes::standing;
  table.problems().error("P005", table.place_of(key),
                         fmt::format(FMT_STRING("\"{}\" is \"{}\"; expected seated (1.2 m) or standing "
                                                "(1.6 m)"),
                                     key, *words));
  return model::Eyes::by_task;
}

model::EyesWish read_eyes(TomlTable& table) {
  model::EyesWish wish;
  wish.place = table.place();
  wish.name = table.text("name").value_or("");
  if (table.has("at")) wish.at = table.place_in_room("at");
  wish.posture = read_posture(table, "posture");
  wish.height_m = table.quantity("height", Dimension::length, kEyeHeight);
  wish.looking = table.words("looking").value_or("");
  wish.looking_place = table.place_of("looking");
  wish.verified = table.flag("verified");
  wish.spacing_m = table.quantity("spacing", Dimension::length, kEyeSpacing);
  wish.inset_m = table.quantity("inset", Dimension::length, kEyeInset);
  const bool three = wish.at && !std::isnan(wish.at->z());
  if (int(three) + int(wish.height_m.has_value()) + int(table.has("posture")) > 1)
    table.problems().error(
        "P007", wish.place,
        "the height of an eye is given once: by \"posture\", by \"height\", or as the third "
        "number of \"at\"");
  if (wish.at && (wish.spacing_m || wish.inset_m))
    table.problems().error(
        "P007", table.place_of(wish.spacing_m ? "spacing" : "inset"),
        "\"spacing\" and \"inset\" are for eyes all over the room; with \"at\" there is one");
  if (wish.at && wish.name.empty())
    table.problems().error("P004", wish.place, "somebody's eyes need a \"name\"");
  if (wish.name.empty()) wish.name = "eyes";
  table.finish();
  return wish;
}

model::ScreensWish read_screens(TomlTable& table) {
  model::ScreensWish screens;
  const bool described = !table.has("leave_out") || table.has("dark_background") || table.has("from");
  const auto luminance =
      table.quantity("luminance", Dimension::luminance, kScreen, described ? Need::required : Need::optional);
  screens.assumed = !luminance;
  screens.luminance_cd_m2 = luminance.value_or(screens.luminance_cd_m2);
  if (auto left_out = table.table("leave_out")) {
    for (const std::string& mark : left_out->keys())
      if (const auto reason = left_out->text(mark))
        screens.left_out.push_back({mark, *reason, left_out->place_of(mark)});
    left_out->finish();
  }
  screens.dark_background = table.flag("dark_background").value_or(false);
  screens.from_deg = table.quantity("from", Dimension::angle, kFrom).value_or(standards::kScreenLimitFrom);
  table.finish();
  return screens;
}

}  // namespace

void read_glare(TomlTable& table, model::Room& room) {
  // A word under "eyes" is the posture as earlier project files had it.
  if (table.is_text("eyes")) {
    room.eyes = read_posture(table, "eyes");
  } else {
    for (TomlTable& eyes : table.tables("eyes")) room.eye_wishes.push_back(read_eyes(eyes));
  }
  if (table.has("posture")) room.eyes = read_posture(table, "posture");
  auto glare = table.table("glare");
  if (!glare) return;
  const std::string method = glare->text("verified_by").value_or("standard");
  if (method == "table")
    room.glare_method = model::GlareMethod::table;
  else if (method == "eyes")
    room.glare_method = model::GlareMethod::eyes;
  else if (method != "standard")
    table.problems().error("P005", glare->place_of("verified_by"),
                           fmt::format(FMT_STRING("\"verified_by\" is \"{}\"; expected table (the tabular "
                                                  "method), eyes, or standard (the table where it holds)"),
                                       method));
  if (auto screens = glare->table("screens")) room.screens = read_screens(*screens);
  glare->finish();
}

void read_shielding(TomlTable& table, model::ScheduledLuminaire& entry) {
  entry.lamp_luminance_cd_m2 = table.quantity("lamp_luminance", Dimension::luminance, kLamp);
  auto louvre = table.table("louvre");
  entry.shielding_deg = table.quantity("shielding", Dimension::angle, kShielding);
  if (louvre) {
    const auto depth = louvre->quantity("depth", Dimension::length, kLouvre, Need::required);
    const auto opening = louvre->quantity("opening", Dimension::length, kLouvre, Need::required);
    louvre->finish();
    if (entry.shielding_deg)
      table.problems().error("P007", table.place_of("louvre"),
                             "the shielding angle is given once: by \"shielding\" or by \"louvre\"");
    if (depth && opening) entry.shielding_deg = standards::shielding_angle(*depth, *opening);
  }
  if (entry.shielding_deg && !entry.lamp_luminance_cd_m2 && !table.has("lamp_luminance"))
    table.problems().error("P004", table.place(),
                           "a shielding angle is held against the luminance of the lamps; give "
                           "\"lamp_luminance\" in cd/m2 with it");
}

}  // namespace glow::files
