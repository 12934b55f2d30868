// What would help a check, in words; why it is not met: findings.cpp.
#include <fmt/format.h>

#include <cmath>

#include "words/findings.hpp"
#include "words/topics/spill_words.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Quantity;

/// A change in words, without what it comes to.
class ChangeWords {
 public:
  ChangeWords(const record::RoomRecord& room, const Check& check, const units::ShownUnits& units)
      : room_(room), check_(check), values_{units} {}

  std::string operator()(const studies::TimesFlux& change) const {
    std::string marks;
    for (const auto& of : change.marks)
      marks += fmt::format(FMT_STRING("{}{} {:.0f} instead of {:.0f} lm"), marks.empty() ? "" : ", ", of.mark,
                           of.lm, of.from_lm);
    return fmt::format(FMT_STRING("{:.2f} times the flux of all luminaires ({})"), change.factor, marks);
  }
  std::string operator()(const studies::OtherArray& change) const {
    return fmt::format(FMT_STRING("{} in {} x {} instead of {} x {}, each with {:.0f} % of the flux"),
                       change.mark, change.rows, change.columns, change.from_rows, change.from_columns,
                       100 * change.flux_share);
  }
  std::string operator()(const studies::WiderBeam& change) const {
    return fmt::format(FMT_STRING("the same flux in a beam of {:.0f} deg ({})"), change.width_deg,
                       fmt::join(change.marks, ", "));
  }
  std::string operator()(const studies::OneMore& change) const {
    return fmt::format(FMT_STRING("one more {} {} the low points, at {}"), change.luminaire.mark,
                       change.before ? "before" : "above", values_.in_plan(change.luminaire.at));
  }
  std::string operator()(const studies::Brighter& change) const {
    return fmt::format(FMT_STRING("{} brighter by {:.1f}"),
                       change.ceiling_too ? "walls and ceiling" : "walls", change.by);
  }
  std::string operator()(const studies::BetterColour& change) const {
    return fmt::format(FMT_STRING("luminaires of Ra {:g} or more"), change.ra);
  }
  std::string operator()(const studies::SourceChanged& change) const {
    const assess::GlareChange& tried = changes()[change.change];
    const std::string quantity = symbol(check_.demand.quantity);
    const auto shown = [&](double v) { return number(check_.demand.quantity, v, values_.units, {}); };
    return fmt::format(FMT_STRING("{} at {} {}: {} {} there, {} at worst among these eyes"),
                       change.source.mark, values_.in_plan(change.source.at),
                       change_words(tried, values_.units), quantity, shown(tried.value), shown(tried.worst));
  }
  std::string operator()(const studies::AllDimmed& change) const {
    return fmt::format(FMT_STRING("all luminaires dimmed to {:.0f} %, with {:.0f} % less light everywhere"),
                       100 * change.share, 100 - 100 * change.share);
  }
  std::string operator()(const studies::AllTurned& change) const {
    return fmt::format(FMT_STRING("all luminaires turned by {:g} deg"), change.deg);
  }
  std::string operator()(const studies::DaylightChange& change) const {
    using Kind = studies::DaylightChange::Kind;
    switch (change.kind) {
      case Kind::wider:
        return fmt::format(FMT_STRING("openings wider by {:.0f} %"), 100 * (change.amount - 1));
      case Kind::higher:
        return fmt::format(FMT_STRING("heads of windows {} higher, or up to the ceiling"),
                           values_.length(change.amount));
      case Kind::clearer:
        return fmt::format(FMT_STRING("clean panes of transmittance {:.2f}"), change.amount);
      case Kind::lighter_outside:
        return fmt::format(FMT_STRING("what stands outside of reflectance {:.1f}"), change.amount);
      case Kind::brighter_inside:
        return fmt::format(FMT_STRING("walls brighter by {:.1f}, floor and ceiling by {:.1f}"), change.amount,
                           change.amount / 2);
      case Kind::overhangs:
        return fmt::format(FMT_STRING("overhangs of {} over the windows"), values_.length(change.amount));
      case Kind::darker_panes:
        return fmt::format(FMT_STRING("panes of {:.0f} % of their transmittance"), 100 * change.amount);
      case Kind::blinds:
        return fmt::format(FMT_STRING("blinds of transmittance {:.2f} that come down when the sun is strong"),
                           change.amount);
    }
    return "";
  }
  std::string operator()(const studies::SpillChange& change) const {
    return spill_change_words(change, values_);
  }
  std::string operator()(const studies::DimmedOrShielded& change) const {
    return fmt::format(FMT_STRING("dimmed to {:.0f} %, or an optic that shields above {:g} deg"),
                       100 * change.share, change.from_deg);
  }

 private:
  const std::vector<assess::GlareChange>& changes() const {
    const assess::EyeSetGlare& set = room_.assessment.glare.sets[check_.target.id];
    return check_.demand.quantity == Quantity::glare_rating ? set.rating_changes : set.changes;
  }

  const record::RoomRecord& room_;
  const Check& check_;
  Values values_;
};

/// ": mean 512 lx, met"; of changes that say it themselves, nothing.
std::string outcome_words(const studies::Mend& mend, const Check& check, const Values& values) {
  const bool glare = standards::is_glare(check.demand.quantity);
  if (std::holds_alternative<studies::SourceChanged>(mend.change))
    return mend.meets ? ", met" : ", not enough alone";
  if (!std::isfinite(mend.value)) return "";
  std::string words = glare ? fmt::format(FMT_STRING(": {:.1f}"), mend.value)
                            : fmt::format(FMT_STRING(": {} {}"), symbol(check.demand.quantity),
                                          value(check.demand.quantity, mend.value, values.units));
  if (!glare && check.unit().empty() && std::isfinite(mend.mean_lx))
    words += ", mean " + values.light(mend.mean_lx);
  return words + (mend.meets ? ", met" : ", not enough alone");
}

std::string broken_words(const studies::Mend& mend, const record::RoomRecord& room) {
  std::string words;
  if (!mend.breaks.empty()) {
    const Check& first = mend.breaks.front();
    const bool eyes = first.target.kind == standards::Target::Kind::eyes;
    words = fmt::format(FMT_STRING("; but {} of {}{}{} would not be met"), to_string(first.demand.quantity),
                        eyes ? "\"" : "", name_of(first.target, room), eyes ? "\"" : "");
    if (mend.breaks.size() > 1) words += fmt::format(FMT_STRING(", and {} more"), mend.breaks.size() - 1);
  }
  if (!mend.glare_tried) words += "; glare was not looked at: too many eyes and luminaires";
  return words;
}

}  // namespace

std::string change_words(const assess::GlareChange& change, const units::ShownUnits& units) {
  using Kind = assess::GlareChange::Kind;
  const Values values{units};
  switch (change.kind) {
    case Kind::dimmed:
      return fmt::format(FMT_STRING("dimmed to {:.0f} %"), 100 * change.amount);
    case Kind::moved_x:
    case Kind::moved_y:
      return fmt::format(FMT_STRING("moved by {}{} along {}"), change.amount < 0 ? "-" : "",
                         values.length(std::abs(change.amount)), change.kind == Kind::moved_x ? "x" : "y");
    case Kind::turned:
      return fmt::format(FMT_STRING("turned by {:g} deg"), change.amount);
    case Kind::tilted_down:
      return fmt::format(FMT_STRING("tilted down by {:g} deg"), change.amount);
    case Kind::raised:
      return fmt::format(FMT_STRING("{} higher"), values.length(change.amount));
  }
  return "";
}

std::vector<std::string> help(const record::RoomRecord& room, std::size_t number,
                              const units::ShownUnits& units) {
  std::vector<std::string> list;
  if (number >= room.explanations.size()) return list;
  const Check& check = room.assessment.checks[number];
  const ChangeWords words(room, check, units);
  const Values values{units};
  for (const studies::Mend& mend : room.explanations[number].mends) {
    const bool idle =
        !standards::is_glare(check.demand.quantity) && std::isfinite(mend.value) &&
        value(check.demand.quantity, mend.value, units) == value(check.demand.quantity, check.actual, units);
    if (idle) continue;
    list.push_back(std::visit(words, mend.change) + outcome_words(mend, check, values) +
                   broken_words(mend, room));
  }
  return list;
}

}  // namespace glow::words
