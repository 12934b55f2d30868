#include "figures/neighbours_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "figures/curves/curve_style.hpp"
#include "figures/flat/bare_plan.hpp"
#include "figures/status_look.hpp"

namespace glow::figures {
namespace {

using assess::NeighbourReading;
using assess::SpillSource;
using standards::Check;
using standards::Quantity;
using standards::Verdict;

constexpr double kPlanX = 40, kPlanY = 108, kPlanW = 760, kPlanH = 420;              // px
constexpr double kSectionX = 40, kSectionY = 580, kSectionW = 760, kSectionH = 180;  // px
constexpr double kTableX = 836, kTableY = 122;
constexpr std::size_t kMostRays = 3;         // from each neighbour
constexpr std::size_t kMostNeighbours = 11;  // in the list
constexpr const char *kKept = "#2c6e49", *kInDoubt = "#8a6d1a", *kStanding = "#d8d4cb";

const char* ink_of(Verdict verdict) {
  return verdict == Verdict::met ? kKept : verdict == Verdict::not_met ? kFail : kInDoubt;
}

class NeighboursFigure {
 public:
  explicit NeighboursFigure(const FigureInput& input)
      : input_(input),
        room_(*input.room),
        spill_(*room_.assessment.spill),
        canvas_(kSheetWidth, kSheetHeight) {
    for (std::size_t n = 0; n < spill_.neighbours.size(); ++n) order_.push_back(n);
    std::stable_sort(order_.begin(), order_.end(), [&](std::size_t a, std::size_t b) {
      return badness(spill_.neighbours[a]) > badness(spill_.neighbours[b]);
    });
  }

  std::string draw() {
    title();
    plan();
    section();
    list();
    return canvas_.bytes();
  }

 private:
  /// The check of this quantity on the neighbour that is worst off; null: none.
  const Check* check_of(const NeighbourReading& own, Quantity quantity) const {
    const Check* worst = nullptr;
    for (const Check& check : room_.assessment.checks)
      if (check.target.kind == standards::Target::Kind::grid && check.target.id == own.grid &&
          check.demand.quantity == quantity && (!worst || share_of(check) > share_of(*worst)))
        worst = &check;
    return worst;
  }
  static double share_of(const Check& check) { return check.actual / std::max(1e-9, check.demand.required); }
  /// How far the worst check is used up.
  double badness(const NeighbourReading& own) const {
    double most = 0;
    for (const Check& check : room_.assessment.checks)
      if (check.target.kind == standards::Target::Kind::grid && check.target.id == own.grid)
        most = std::max(most, share_of(check));
    return most;
  }
  const char* ink_of_neighbour(const NeighbourReading& own) const {
    const char* ink = kSheetGrey;
    for (const Check& check : room_.assessment.checks) {
      if (check.target.kind != standards::Target::Kind::grid || check.target.id != own.grid) continue;
      if (check.verdict == Verdict::not_met) return kFail;
      ink = check.verdict == Verdict::undecided ? kInDoubt : ink == kInDoubt ? kInDoubt : kKept;
    }
    return ink;
  }
  const std::string& name_of(const NeighbourReading& own) const {
    return room_.assessment.grids[own.grid].name;
  }
  const Vec3& place_of(const SpillSource& source) const {
    return spill_.sources[std::size_t(source.source)].position;
  }
  std::string number(std::size_t rank) const { return std::string(1, char('A' + int(rank % 26))); }
  geometry::Box2 world() const;
  void title();
  void plan();
  void section();
  void list();

  const FigureInput& input_;
  const record::RoomRecord& room_;
  const assess::SpillReading& spill_;
  SvgCanvas canvas_;
  std::vector<std::size_t> order_;  // of neighbours, worst first
};

void NeighboursFigure::title() {
  canvas_.text({kSheetLeft, 40}, fitted_text(room_.title(), 760, 24, true), {24, "start", kSheetInk, true});
  canvas_.text({kSheetLeft, 64}, "neighbours, with lines to the luminaires that glare most into them; as new",
               {14, "start", kSheetGrey});
  canvas_.text(
      {kSheetLeft, 84},
      fmt::format(FMT_STRING("{:.1f} % of the light leaves above the horizontal; small solid angles: {}"),
                  spill_.upward_percent(), spill_.small_angles),
      {12.5, "start", kSheetGrey});
  draw_older(canvas_, room_, {kSheetLeft, 102});
}

/// All that is to be seen in plan.
geometry::Box2 NeighboursFigure::world() const {
  std::vector<Vec2> all = room_.outline;
  for (const NeighbourReading& own : spill_.neighbours) all.push_back(own.at.xy());
  for (const assess::RoadUserReading& own : spill_.road_users) all.push_back(own.eye.xy());
  for (const record::LuminaireRecord& luminaire : room_.luminaires()) all.push_back(luminaire.position.xy());
  geometry::Box2 box{all.front(), all.front()};
  for (const Vec2& p : all) box = {box.low.cwiseMin(p), box.high.cwiseMax(p)};
  const double around = 0.05 * box.size().maxCoeff();
  return {box.low - Vec2::Constant(around), box.high + Vec2::Constant(around)};
}

void NeighboursFigure::plan() {
  const geometry::Box2 box = world();
  const double scale = std::min(kPlanW / box.size().x(), kPlanH / box.size().y());
  const Vec2 drawn = box.size() * scale;
  BarePlan plan(canvas_, room_, box, {kPlanX + (kPlanW - drawn.x()) / 2, kPlanY + (kPlanH + drawn.y()) / 2},
                scale);
  canvas_.begin_clip(path_data({{kPlanX, kPlanY},
                                {kPlanX + kPlanW, kPlanY},
                                {kPlanX + kPlanW, kPlanY + kPlanH},
                                {kPlanX, kPlanY + kPlanH}},
                               true));
  plan.ground();
  plan.overlay(true);
  for (const std::size_t n : order_) {
    const NeighbourReading& own = spill_.neighbours[n];
    const Check* check = check_of(own, Quantity::glare_value);
    for (std::size_t s = 0; s < std::min(kMostRays, own.sources.size()); ++s) {
      const bool beyond = check && own.sources[s].k > check->demand.required;
      canvas_.line(plan.px(own.at.xy()), plan.px(place_of(own.sources[s]).xy()),
                   beyond  ? kFail
                   : check ? kKept
                           : kSheetGrey,
                   s == 0 ? 1.8 : 0.9);
    }
  }
  canvas_.end_group();
  std::set<int> marked;
  for (const NeighbourReading& own : spill_.neighbours)
    for (std::size_t s = 0; s < std::min(kMostRays, own.sources.size()); ++s)
      if (const int source = own.sources[s].source; marked.insert(source).second)
        canvas_.text(plan.px(place_of(own.sources[s]).xy()) + Vec2(0, -8), spill_.short_mark(source),
                     {11.5, "middle", kSheetInk, true, "#ffffff"});
  for (std::size_t rank = 0; rank < order_.size(); ++rank) {
    const NeighbourReading& own = spill_.neighbours[order_[rank]];
    const Vec2 at = plan.px(own.at.xy()), out(own.facing.x(), -own.facing.y());
    const Vec2 along(-out.y(), out.x());
    const bool all_round = own.facing.isZero();
    if (all_round)
      canvas_.circle(at, 5, ink_of_neighbour(own), ink_of_neighbour(own));
    else
      canvas_.line(at - 9 * along, at + 9 * along, ink_of_neighbour(own), 4);
    canvas_.text(all_round ? Vec2(at + Vec2(14, 5)) : Vec2(at - 15 * out + Vec2(0, 5)), number(rank),
                 {13, "middle", ink_of_neighbour(own), true, "#ffffff"});
  }
  for (const assess::RoadUserReading& own : spill_.road_users) {
    const Vec2 at = plan.px(own.eye.xy()), way(own.sight.x(), -own.sight.y());
    canvas_.circle(at, 4, kSheetInk, kSheetInk);
    canvas_.line(at, at + 22 * way, kSheetInk, 1.6);
    canvas_.text(at + Vec2(8, -8), own.name, {11.5, "start", kSheetInk, false, "#ffffff"});
  }
}

/// From the worst neighbour to its worst luminaire, with what stands in the plane between.
void NeighboursFigure::section() {
  const auto worst = std::find_if(order_.begin(), order_.end(),
                                  [&](std::size_t n) { return !spill_.neighbours[n].sources.empty(); });
  if (worst == order_.end()) return;
  const NeighbourReading& own = spill_.neighbours[*worst];
  const SpillSource& source = own.sources.front();
  const Vec3 to = place_of(source), from = own.at;
  const Vec2 way = (to - from).xy();
  const double length = way.norm(), before = 0.06 * length;
  double high = std::max({to.z(), from.z(), 1.0});
  constexpr int kSamples = 400;
  const auto place_at = [&](double along) -> Vec2 {
    return from.xy() + (along - before) / std::max(1e-9, length) * way;
  };
  const double whole = length + 2 * before;
  std::vector<std::pair<double, double>> tops(kSamples, {0.0, 0.0});  // what stands there: from, to
  for (int k = 0; k < kSamples; ++k)
    for (const space::PlanShape& object : room_.objects)
      if (object.extent.is_over(place_at(whole * (k + 0.5) / kSamples)) &&
          object.extent.top_m > tops[std::size_t(k)].second)
        tops[std::size_t(k)] = {object.extent.bottom_m, object.extent.top_m};
  for (const auto& [bottom, top] : tops) high = std::max(high, top);
  high *= 1.15;
  const double scale = std::min(kSectionW / whole, (kSectionH - 30) / high);
  const double left = kSectionX + (kSectionW - whole * scale) / 2, base = kSectionY + kSectionH - 24;
  const auto px = [&](double along, double z) -> Vec2 { return {left + along * scale, base - z * scale}; };
  canvas_.text(
      {kSectionX, kSectionY - 14},
      fmt::format(FMT_STRING("Section from {} to {}: {:.1f} {} away, {:.0f} deg off its axis"), name_of(own),
                  spill_.short_mark(source.source), input_.units.length(source.distance_m),
                  input_.units.length_unit(), source.gamma_deg),
      {13, "start", kSheetInk, true});
  for (int k = 0; k < kSamples; ++k) {
    const auto& [bottom, top] = tops[std::size_t(k)];
    if (top <= 0) continue;
    const Vec2 low = px(whole * k / kSamples, top);
    canvas_.rectangle(low, {whole * scale / kSamples + 0.4, (top - bottom) * scale}, kStanding);
  }
  canvas_.line(px(0, 0), px(whole, 0), kSheetInk, 1.6);
  if (room_.ground) {
    const geometry::Ground ground(*room_.ground);
    std::optional<Vec2> last;
    for (int k = 0; k <= kSamples; ++k) {
      const double along = whole * k / kSamples;
      if (!geometry::contains(room_.outline, place_at(along))) continue;
      const Vec2 here = px(along, ground.height(place_at(along)));
      if (last) canvas_.line(*last, here, kSheetInk, 1.6);
      last = here;
    }
  }
  canvas_.line(px(before + length, 0), px(before + length, to.z()), kSheetGrey, 1.2);
  canvas_.line(px(before, 0), px(before, from.z()), kSheetGrey, 1.2);
  const Check* check = check_of(own, Quantity::glare_value);
  canvas_.line(px(before, from.z()), px(before + length, to.z()), check ? ink_of(check->verdict) : kSheetGrey,
               1.8);
  canvas_.circle(px(before + length, to.z()), 5, "#ffffff", kSheetInk, 1.6);
  canvas_.rectangle(px(before, from.z()) - Vec2(4, 4), {8, 8}, ink_of_neighbour(own));
  const auto height = [&](double along, double z, const char* anchor, double off) {
    canvas_.text(px(along, z) + Vec2(off, -9),
                 fmt::format(FMT_STRING("{:.1f} {}"), input_.units.length(z), input_.units.length_unit()),
                 {11.5, anchor, kSheetInk, false, "#ffffff"});
  };
  height(before, from.z(), "end", -6);
  height(before + length, to.z(), "start", 8);
}

/// Neighbours, the worst first, with their checks.
void NeighboursFigure::list() {
  double y = kTableY;
  canvas_.text({kTableX, y}, "Neighbours, the worst first", {13, "start", kSheetInk, true});
  y += 24;
  for (std::size_t rank = 0; rank < std::min(kMostNeighbours, order_.size()); ++rank) {
    const NeighbourReading& own = spill_.neighbours[order_[rank]];
    canvas_.text({kTableX, y}, number(rank), {13, "start", ink_of_neighbour(own), true});
    canvas_.text({kTableX + 20, y}, fitted_text(name_of(own), 380, 13, true), {13, "start", kSheetInk, true});
    y += 17;
    std::string words;
    const char* ink = kSheetGrey;
    for (const Quantity quantity : {Quantity::glare_value, Quantity::window_illuminance,
                                    Quantity::property_illuminance, Quantity::spill_intensity}) {
      const Check* check = check_of(own, quantity);
      if (!check) continue;
      const bool light = standards::is_in_lux(check->demand.quantity);
      const double shown = light ? input_.units.light(check->actual) : check->actual;
      const double most = light ? input_.units.light(check->demand.required) : check->demand.required;
      const std::string unit = light                   ? std::string(" ") + input_.units.light_unit()
                               : check->unit().empty() ? ""
                                                       : " " + check->unit();
      const std::string symbol = quantity == Quantity::glare_value            ? "k"
                                 : quantity == Quantity::window_illuminance   ? "mean"
                                 : quantity == Quantity::property_illuminance ? "most"
                                                                              : "I";
      words = fmt::format(FMT_STRING("{} {} of at most {:g}{}: {}"), symbol, value_label(shown), most, unit,
                          standards::to_string(check->verdict));
      ink = check->verdict == Verdict::met ? kSheetGrey : ink_of(check->verdict);
      canvas_.text({kTableX + 20, y}, words, {12, "start", ink});
      y += 15;
    }
    if (words.empty()) {
      canvas_.text({kTableX + 20, y}, fmt::format(FMT_STRING("k {}; nothing is asked"), value_label(own.k())),
                   {12, "start", kSheetGrey});
      y += 15;
    }
    y += 9;
    if (y > kSheetHeight - 60) break;
  }
  if (order_.size() > kMostNeighbours)
    canvas_.text({kTableX, std::min(y, kSheetHeight - 24)},
                 fmt::format(FMT_STRING("and {} more, in the table"), order_.size() - kMostNeighbours),
                 {12, "start", kSheetGrey});
}

}  // namespace

std::string neighbours_svg(const FigureInput& input) {
  return NeighboursFigure(input).draw();
}

}  // namespace glow::figures
