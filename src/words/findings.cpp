#include "words/findings.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "words/topics/daylight_words.hpp"
#include "words/topics/glare_words.hpp"
#include "words/topics/spill_words.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Quantity;

using Sentences = std::vector<std::string>;

constexpr double kFinest = 0.1;  // %; the best accuracy that can be asked for
constexpr double kHidden = 0.7;  // share of light below which things in between are worth telling

/// One sentence, or some, for each kind of cause; none where it tells nothing.
class CauseWords {
 public:
  CauseWords(const record::RoomRecord& room, const Check& check, const units::ShownUnits& units)
      : room_(room), check_(check), values_{units} {}

  Sentences operator()(const studies::LowestPoints& low) const;
  Sentences operator()(const studies::LuminairesThere& there) const;
  Sentences operator()(const studies::DirectShare& split) const {
    const double share = std::round(100 * split.share);
    return {fmt::format(FMT_STRING("{:.0f} % of the light comes straight from luminaires, {:.0f} % by way of "
                                   "the room's surfaces"),
                        share, 100 - share)};
  }
  Sentences operator()(const studies::WithDarkerWalls& darker) const {
    const std::string then = shown(darker.value);
    if (then == shown(check_.actual)) return {};
    return {fmt::format(FMT_STRING("with walls darker by {:.1f} it would be {}"), darker.by, then)};
  }
  Sentences operator()(const studies::NotTried&) const {
    return {"other spacings and wider beams were not tried: too many luminaires and points"};
  }
  Sentences operator()(const studies::LowColourRendering& low) const {
    return {fmt::format(FMT_STRING("{} has Ra {:g}"), low.mark, low.ra)};
  }
  Sentences operator()(const studies::MoreThanAsked& more) const {
    return {fmt::format(FMT_STRING("{:.2f} times what is asked for"), more.times)};
  }
  Sentences operator()(const studies::CouldBeDimmed& dimmed) const;
  Sentences operator()(const studies::WorstView& worst) const;
  Sentences operator()(const studies::GlareCauses& causes) const;
  Sentences operator()(const studies::SeeRemarks&) const {
    Sentences list;
    for (const assess::GlareRemark& remark : room_.assessment.glare.sets[check_.target.id].remarks)
      list.push_back(remark_words(remark));
    return list;
  }
  Sentences operator()(const studies::TableKeepsLimit& table) const {
    return {
        fmt::format(FMT_STRING("the tabular value, {:.1f}, keeps the limit: it is of eyes in the middle of "
                               "a wall, in an even array of its own"),
                    table.ugr)};
  }
  Sentences operator()(const studies::SeeTable&) const {
    const assess::TableGlare& table = room_.assessment.glare.table;
    Sentences list;
    std::vector<assess::TableGlare::Value> values = table.values;
    std::stable_sort(values.begin(), values.end(),
                     [](const auto& a, const auto& b) { return a.ugr > b.ugr; });
    for (const assess::TableGlare::Value& v : values)
      list.push_back(
          fmt::format(FMT_STRING("{} looked at along {}, {}, in a room of {:.1f}H x {:.1f}H, {}: UGR {:.1f}"),
                      table.mark, along_words(v), v.crosswise ? "crosswise" : "endwise", v.x_h, v.y_h,
                      reflectances_words(table), v.ugr));
    return list;
  }
  Sentences operator()(const studies::BrightPlanes& bright) const;
  Sentences operator()(const studies::TooClose&) const;
  Sentences operator()(const studies::DaylightByOpening& by) const {
    std::string list;
    for (const auto& part : by.parts)
      list += fmt::format(FMT_STRING("{}{} {:.2f} %"), list.empty() ? "" : ", ", part.opening, part.factor);
    return {fmt::format(FMT_STRING("on average of the plane {} by itself gives: {}"),
                        by.parts.size() == 1 ? "the opening" : "each opening", list)};
  }
  Sentences operator()(const studies::YearOtherwise& otherwise) const {
    using If = studies::YearOtherwise::Case::If;
    std::string alone, turned, free;
    for (const auto& each : otherwise.cases) {
      if (each.what == If::only_opening)
        alone +=
            fmt::format(FMT_STRING("{}{} {}"), alone.empty() ? "" : ", ", each.opening, shown(each.value));
      if (each.what == If::turned)
        turned += fmt::format(FMT_STRING("{}by {:.0f} deg {}"), turned.empty() ? "" : ", ", each.deg,
                              shown(each.value));
      if (each.what == If::nothing_outside) free = shown(each.value);
    }
    Sentences list;
    if (!alone.empty()) list.push_back("with one opening alone: " + alone);
    if (!free.empty()) list.push_back("if nothing stood outside: " + free);
    if (!turned.empty()) list.push_back("if the building were turned: " + turned);
    return list;
  }
  Sentences operator()(const studies::SpillCauses& causes) const {
    return spill_cause_words(causes, check_, values_);
  }
  Sentences operator()(const studies::SeeOutlook&) const {
    if (!room_.assessment.outlook) return {};
    return outlook_words(*room_.assessment.outlook, check_.demand.quantity, values_.units);
  }
  Sentences operator()(const studies::NoShieldingStated&) const {
    return {"the project states no shielding angle for it; none is taken"};
  }

 private:
  std::string shown(double v) const { return value(check_.demand.quantity, v, values_.units); }

  const record::RoomRecord& room_;
  const Check& check_;
  Values values_;
};

/// An accuracy is asked for in percent of a mean, and may be three times as much for a minimum.
Sentences CauseWords::operator()(const studies::TooClose&) const {
  const Quantity quantity = check_.demand.quantity;
  const auto shown = [&](double v) {
    return standards::is_in_lux(quantity) ? values_.light(v) : fmt::format(FMT_STRING("{:.3f}"), v);
  };
  const std::string words = fmt::format(FMT_STRING("{} from the limit, and sure to +/- {} only"),
                                        shown(std::abs(check_.margin())), shown(check_.uncertainty));
  const double percent = 100 * std::abs(check_.margin()) / std::max(1e-9, std::abs(check_.actual));
  const double allowance =
      quantity == Quantity::mean_illuminance ? 1 : assess::GridReading::kMinimumAllowance;
  const double asked = std::floor(10 * percent / allowance) / 10;
  if (standards::is_glare(quantity) || asked < kFinest) return {words + "; give it some reserve"};
  return {words + fmt::format(FMT_STRING("; --accuracy {:.1f} would tell"), asked)};
}

Sentences CauseWords::operator()(const studies::LowestPoints& low) const {
  const std::string under =
      low.under.empty()
          ? std::string()
          : fmt::format(
                FMT_STRING("; they lie in or under \"{}\"; leave_out = \"objects\" takes such points out"),
                low.under);
  if (low.apart)
    return {fmt::format(FMT_STRING("the lowest {} points lie in several places; the least, {}, at {}{}"),
                        low.count, values_.light(low.lowest_lx), values_.in_plan(low.lowest), under)};
  const bool single = low.together == 1;
  std::string words = single ? std::string("the lowest point lies")
                             : fmt::format(FMT_STRING("the lowest {} points lie"), low.together);
  if (!low.along.empty()) words += fmt::format(FMT_STRING(" along {}"), fmt::join(low.along, " and "));
  const char* comma = low.along.empty() ? "" : ",";
  if (single)
    return {words + fmt::format(FMT_STRING("{} at {}: {}{}"), comma, values_.in_plan(low.lowest),
                                values_.light(low.lowest_lx), under)};
  return {words + fmt::format(FMT_STRING("{} about {}; the least, {}, at {}{}"), comma,
                              values_.in_plan(low.middle), values_.light(low.lowest_lx),
                              values_.in_plan(low.lowest), under)};
}

Sentences CauseWords::operator()(const studies::LuminairesThere& there) const {
  if (there.nearest.mark.empty()) return {"there are no luminaires"};
  std::string words = fmt::format(
      FMT_STRING(
          "the luminaire nearest to them, {} at {}, {} away, gives {} straight: they lie {:.0f} deg off "
          "its axis, where it shines with {:.0f} % of its peak"),
      there.nearest.mark, values_.in_plan(there.nearest.at), values_.length(there.distance_m),
      values_.light(there.straight_lx), there.off_axis_deg, 100 * there.peak_share);
  if (there.straight_lx < kHidden * there.open_lx)
    words += fmt::format(FMT_STRING("; without the things in between it would give {}"),
                         values_.light(there.open_lx));
  if (there.best)
    words += fmt::format(FMT_STRING("; {} at {} gives most, {}"), there.best->mark,
                         values_.in_plan(there.best->at), values_.light(there.best_lx));
  return {words};
}

Sentences CauseWords::operator()(const studies::CouldBeDimmed& dimmed) const {
  std::string words = fmt::format(FMT_STRING("dimmed to {:.0f} % all levels that are met stay met"),
                                  std::ceil(100 * dimmed.share));
  if (dimmed.limit) words += fmt::format(FMT_STRING(" (the limit is {})"), name_of(*dimmed.limit, room_));
  if (dimmed.spare_w && dimmed.installed_w)
    words += fmt::format(FMT_STRING("; {:.0f} of {:.0f} W are more than needed"), *dimmed.spare_w,
                         *dimmed.installed_w);
  return {words};
}

Sentences CauseWords::operator()(const studies::WorstView& worst) const {
  const std::string eye = fmt::format(FMT_STRING("worst at {}, eye at {}, looking "),
                                      values_.in_plan(worst.eye), values_.length(worst.eye.z()));
  if (worst.quantity == Quantity::unified_glare)
    return {eye + fmt::format(FMT_STRING("{}: UGR {:.1f}; typical {:.1f}; {} of {} views above {:g}"),
                              worst.looking, worst.value, worst.typical, worst.above, worst.rated,
                              check_.demand.required)};
  return {eye + fmt::format(FMT_STRING("{:g} deg and {:g} deg down: GR {:.1f}"), worst.azimuth_deg,
                            glare::kRatingDown, worst.value)};
}

Sentences CauseWords::operator()(const studies::GlareCauses& causes) const {
  if (std::isnan(causes.background_cd_m2)) {  // of GR: one source, and its share of the veil
    const studies::GlareCauses::Cause& first = causes.causes.front();
    return {fmt::format(FMT_STRING("{} at {} adds {:.0f} % of the veil"), first.source.mark,
                        values_.in_plan(first.source.at), 100 * first.share)};
  }
  std::string list;
  for (const studies::GlareCauses::Cause& cause : causes.causes) {
    const bool first = list.empty();
    list += fmt::format(FMT_STRING("{}{} at {} {:.0f} %"), first ? "" : ", ", cause.source.mark,
                        values_.in_plan(cause.source.at), 100 * cause.share);
    if (first && std::isfinite(cause.luminance_cd_m2))
      list += fmt::format(FMT_STRING(" ({} away, {:.0f} cd/m2)"), values_.length(cause.distance_m),
                          cause.luminance_cd_m2);
  }
  return {fmt::format(FMT_STRING("caused by {}; before a background of {:.1f} cd/m2"), list,
                      causes.background_cd_m2)};
}

Sentences CauseWords::operator()(const studies::BrightPlanes& bright) const {
  std::string planes;
  for (const auto& [from, to] : bright.planes_deg) {
    planes += fmt::format(FMT_STRING("{}{:g}"), planes.empty() ? "C " : ", ", from);
    if (to > from) planes += fmt::format(FMT_STRING(" to {:g}"), to);
  }
  return {
      fmt::format(FMT_STRING("above the limit in the planes {}; most at C {:g}, {:g} deg from straight down"),
                  planes, bright.c_deg, bright.gamma_deg)};
}

}  // namespace

std::vector<std::string> why(const record::RoomRecord& room, std::size_t number,
                             const units::ShownUnits& units) {
  std::vector<std::string> list;
  if (number >= room.explanations.size()) return list;
  const CauseWords words(room, room.assessment.checks[number], units);
  for (const studies::Cause& cause : room.explanations[number].causes)
    for (std::string& sentence : std::visit(words, cause)) {
      // GR says the worst eye and what glares there in one sentence.
      if (std::holds_alternative<studies::GlareCauses>(cause) && !list.empty() &&
          room.assessment.checks[number].demand.quantity == Quantity::glare_rating)
        list.back() += "; " + sentence;
      else
        list.push_back(std::move(sentence));
    }
  return list;
}

}  // namespace glow::words
