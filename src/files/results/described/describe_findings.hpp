#pragma once

#include "core/studies/findings.hpp"
#include "files/results/described/archive.hpp"

// How checks and what was found out about them stand in results.json. Included by record_json.cpp only.
namespace glow::files {

template <>
struct EnumNames<standards::Target::Kind> {
  static constexpr std::array<const char*, 7> list = {"light",          "grid",     "eyes",     "tabular",
                                                      "luminaire_type", "openings", "road_user"};
};
template <>
struct EnumNames<standards::NotVerified::Why> {
  static constexpr std::array<const char*, 20> list = {
      "ugr_limit_not_held",  "gr_limit_not_held",   "colour_not_held",  "mean_not_held",
      "uniformity_not_held", "surfaces_not_held",   "no_room_for_band", "no_room_for_faces",
      "no_plane_for_task",   "colour_unknown",      "table_fails",      "no_eyes",
      "nothing_in_sight",    "nothing_in_sight_gr", "no_luminous_size", "left_out",
      "delay_unknown",       "no_way_out",          "median_unknown",   "place_unknown"};
};
template <>
struct EnumNames<standards::Quantity> {
  static constexpr std::array<const char*, 32> list = {"mean illuminance",
                                                       "uniformity U0",
                                                       "minimum illuminance",
                                                       "colour rendering Ra",
                                                       "glare UGR",
                                                       "glare rating GR",
                                                       "luminance of luminaires",
                                                       "shielding angle",
                                                       "largest to smallest",
                                                       "delay",
                                                       "daylight factor over 50 %",
                                                       "daylight factor over 95 %",
                                                       "hours of sunlight",
                                                       "horizontal sight angle",
                                                       "outside distance",
                                                       "layers of the view",
                                                       "daylight autonomy",
                                                       "spatial daylight autonomy",
                                                       "annual sun exposure",
                                                       "light exposure",
                                                       "half of daylight over 50 %",
                                                       "half of daylight over 95 %",
                                                       "energy of the year",
                                                       "power density",
                                                       "power per 100 lx",
                                                       "illuminance on the window",
                                                       "illuminance on the property",
                                                       "glare value k",
                                                       "intensity towards the property",
                                                       "upward light ratio",
                                                       "upward flux ratio",
                                                       "threshold increment"};
};
template <>
struct EnumNames<standards::Verdict> {
  static constexpr std::array<const char*, 3> list = {"met", "not met", "undecided"};
};

}  // namespace glow::files

namespace glow::files {

template <>
struct EnumNames<studies::DaylightChange::Kind> {
  static constexpr std::array<const char*, 8> list = {"wider",           "higher",          "clearer",
                                                      "lighter_outside", "brighter_inside", "overhangs",
                                                      "darker_panes",    "blinds"};
};
template <>
struct EnumNames<studies::SpillChange::Kind> {
  static constexpr std::array<const char*, 6> list = {"dimmed",   "tilted", "turned",
                                                      "shielded", "moved",  "off"};
};
template <>
struct EnumNames<studies::YearOtherwise::Case::If> {
  static constexpr std::array<const char*, 3> list = {"only_opening", "nothing_outside", "turned"};
};

}  // namespace glow::files

namespace glow::files::archive_detail {

template <>
struct KindNames<studies::Cause> {
  static constexpr std::array<const char*, 20> list = {
      "lowest_points", "luminaires_there",  "direct_share",    "with_darker_walls", "not_tried",
      "low_colour",    "more_than_asked",   "could_be_dimmed", "worst_view",        "glare_causes",
      "see_remarks",   "table_keeps_limit", "see_table",       "bright_planes",     "no_shielding_stated",
      "too_close",     "by_opening",        "see_outlook",     "year_otherwise",    "spill_causes"};
};
template <>
struct KindNames<studies::Change> {
  static constexpr std::array<const char*, 12> list = {
      "times_flux",     "other_array", "wider_beam", "one_more",           "brighter", "better_colour",
      "source_changed", "all_dimmed",  "all_turned", "dimmed_or_shielded", "daylight", "spill"};
};

}  // namespace glow::files::archive_detail

namespace glow::standards {

using files::Described;

template <class A>
void describe(A& a, Described<A, Target>& t) {
  a("kind", t.kind);
  a("id", t.id);
}
template <class A>
void describe(A& a, Described<A, NotVerified>& n) {
  a("why", n.why);
  a("subject", n.subject);
  a("required", n.required);
}

/// What a check says by itself; of one that would break, that is all.
template <class A>
void describe_check(A& a, Described<A, Check>& c) {
  a("required", c.demand.required);
  a("actual", c.actual);
  a.derived("unit", [&] { return c.unit(); });
  a.derived("limit", [&] { return is_upper_limit(c.demand.quantity) ? "most" : "least"; });
  a("binding", c.binding);
  a("verdict", c.verdict);
  a.derived("met", [&] {
    return c.verdict == Verdict::undecided ? files::json() : files::json(c.verdict == Verdict::met);
  });
  a.derived("margin", [&] { return files::number(c.margin()); });
  a("uncertainty", c.uncertainty);
  a("standard", c.demand.standard);
  a("source", c.demand.source);
  a("certainty", c.demand.certainty);
  a("reason", c.demand.reason);
}
template <class A>
void describe(A& a, Described<A, Check>& c) {
  a("quantity", c.demand.quantity);
  a("target", c.target);
  describe_check(a, c);
}

}  // namespace glow::standards

namespace glow::studies {

using files::Described;

template <class A>
void describe(A& a, Described<A, LuminaireAt>& v) {
  a("mark", v.mark);
  a("at_m", v.at);
}
template <class A>
void describe(A& a, Described<A, LowestPoints>& v) {
  a("count", v.count);
  a("together", v.together);
  a("apart", v.apart);
  a("along", v.along);
  a("under", v.under);
  a("middle_m", v.middle);
  a("lowest_m", v.lowest);
  a("lowest_lx", v.lowest_lx);
}
template <class A>
void describe(A& a, Described<A, LuminairesThere>& v) {
  a("nearest", v.nearest);
  a("distance_m", v.distance_m);
  a("straight_lx", v.straight_lx);
  a("off_axis_deg", v.off_axis_deg);
  a("peak_share", v.peak_share);
  a("open_lx", v.open_lx);
  a("best", v.best);
  a("best_lx", v.best_lx);
}
template <class A>
void describe(A& a, Described<A, DirectShare>& v) {
  a("share", v.share);
}
template <class A>
void describe(A& a, Described<A, WithDarkerWalls>& v) {
  a("by", v.by);
  a("value", v.value);
}
template <class A>
void describe(A&, Described<A, NotTried>&) {}
template <class A>
void describe(A& a, Described<A, LowColourRendering>& v) {
  a("mark", v.mark);
  a("ra", v.ra);
}
template <class A>
void describe(A& a, Described<A, MoreThanAsked>& v) {
  a("times", v.times);
}
template <class A>
void describe(A& a, Described<A, CouldBeDimmed>& v) {
  a("share", v.share);
  a("limit", v.limit);
  a("spare_w", v.spare_w);
  a("installed_w", v.installed_w);
}
template <class A>
void describe(A& a, Described<A, WorstView>& v) {
  a("quantity", v.quantity);
  a("eye_m", v.eye);
  a("looking", v.looking);
  a("azimuth_deg", v.azimuth_deg);
  a("value", v.value);
  a("typical", v.typical);
  a("above", v.above);
  a("rated", v.rated);
}
template <class A>
void describe(A& a, Described<A, GlareCauses::Cause>& v) {
  a("source", v.source);
  a("share", v.share);
  a("distance_m", v.distance_m);
  a.nullable("luminance_cd_m2", v.luminance_cd_m2, NAN, false);
}
template <class A>
void describe(A& a, Described<A, GlareCauses>& v) {
  a("causes", v.causes);
  a.nullable("background_cd_m2", v.background_cd_m2, NAN, false);
}
template <class A>
void describe(A&, Described<A, SeeRemarks>&) {}
template <class A>
void describe(A& a, Described<A, TableKeepsLimit>& v) {
  a("ugr", v.ugr);
}
template <class A>
void describe(A&, Described<A, SeeTable>&) {}
template <class A>
void describe(A& a, Described<A, BrightPlanes>& v) {
  a("planes_deg", v.planes_deg);
  a("c_deg", v.c_deg);
  a("gamma_deg", v.gamma_deg);
}
template <class A>
void describe(A&, Described<A, NoShieldingStated>&) {}
template <class A>
void describe(A&, Described<A, TooClose>&) {}
template <class A>
void describe(A& a, Described<A, DaylightByOpening::Part>& v) {
  a("opening", v.opening);
  a("factor", v.factor);
}
template <class A>
void describe(A& a, Described<A, DaylightByOpening>& v) {
  a("parts", v.parts);
}
template <class A>
void describe(A& a, Described<A, YearOtherwise::Case>& v) {
  a("if", v.what);
  a("opening", v.opening);
  a("deg", v.deg);
  a("value", v.value);
}
template <class A>
void describe(A& a, Described<A, YearOtherwise>& v) {
  a("cases", v.cases);
}
template <class A>
void describe(A&, Described<A, SeeOutlook>&) {}
template <class A>
void describe(A& a, Described<A, DaylightChange>& v) {
  a("what", v.kind);
  a("amount", v.amount);
}
template <class A>
void describe(A& a, Described<A, SpillCauses::Part>& v) {
  a("source", v.source);
  a("k", v.k);
  a("intensity_cd", v.intensity_cd);
  a("lux", v.lux);
  a("distance_m", v.distance_m);
  a("gamma_deg", v.gamma_deg);
  a("outside_range", v.outside_range);
}
template <class A>
void describe(A& a, Described<A, SpillCauses>& v) {
  a("luminaires", v.parts);
  a("seen", v.seen);
  a("beyond", v.beyond);
  a("background_cd_m2", v.background_cd_m2);
}
template <class A>
void describe(A& a, Described<A, SpillChange>& v) {
  a("what", v.kind);
  a("first", v.first);
  a("luminaires", v.luminaires);
  a("amount", v.amount);
}
template <class A>
void describe(A& a, Described<A, TimesFlux::OfMark>& v) {
  a("mark", v.mark);
  a("lm", v.lm);
  a("from_lm", v.from_lm);
}
template <class A>
void describe(A& a, Described<A, TimesFlux>& v) {
  a("factor", v.factor);
  a("marks", v.marks);
}
template <class A>
void describe(A& a, Described<A, OtherArray>& v) {
  a("mark", v.mark);
  a("rows", v.rows);
  a("columns", v.columns);
  a("from_rows", v.from_rows);
  a("from_columns", v.from_columns);
  a("flux_share", v.flux_share);
}
template <class A>
void describe(A& a, Described<A, WiderBeam>& v) {
  a("width_deg", v.width_deg);
  a("marks", v.marks);
}
template <class A>
void describe(A& a, Described<A, OneMore>& v) {
  a("luminaire", v.luminaire);
  a("before", v.before);
}
template <class A>
void describe(A& a, Described<A, Brighter>& v) {
  a("ceiling_too", v.ceiling_too);
  a("by", v.by);
}
template <class A>
void describe(A& a, Described<A, BetterColour>& v) {
  a("ra", v.ra);
}
template <class A>
void describe(A& a, Described<A, SourceChanged>& v) {
  a("source", v.source);
  a("change", v.change);
}
template <class A>
void describe(A& a, Described<A, AllDimmed>& v) {
  a("share", v.share);
}
template <class A>
void describe(A& a, Described<A, AllTurned>& v) {
  a("deg", v.deg);
}
template <class A>
void describe(A& a, Described<A, DimmedOrShielded>& v) {
  a("share", v.share);
  a("from_deg", v.from_deg);
}
template <class A>
void describe(A& a, Described<A, Mend>& v) {
  a("change", v.change);
  a.nullable("value", v.value, NAN, false);
  a.nullable("mean_lx", v.mean_lx, NAN, false);
  a("meets", v.meets);
  a("breaks", v.breaks);
  a("glare_tried", v.glare_tried);
}
template <class A>
void describe(A& a, Described<A, CheckTolerance>& v) {
  a("share_met", v.share);
  a("low", v.low);
  a("high", v.high);
}

}  // namespace glow::studies
