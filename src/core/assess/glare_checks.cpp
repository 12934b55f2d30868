#include "core/assess/glare_checks.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/glare/screen_luminance.hpp"
#include "core/standards/glare_rules.hpp"

namespace glow::assess {
namespace {

using standards::Check;
using standards::Quantity;
using standards::Verdict;

/// Ranges of C planes that lie above a limit: "C 0 to 30, 330 to 355".
std::string planes_above(const std::vector<glare::PlaneLuminance>& planes, double limit) {
  std::string text;
  for (std::size_t i = 0; i < planes.size(); ++i) {
    if (planes[i].cd_m2 <= limit) continue;
    std::size_t last = i;
    while (last + 1 < planes.size() && planes[last + 1].cd_m2 > limit) ++last;
    text += fmt::format(FMT_STRING("{}{:g}"), text.empty() ? "C " : ", ", planes[i].c_deg);
    if (last > i) text += fmt::format(FMT_STRING(" to {:g}"), planes[last].c_deg);
    i = last;
  }
  return text;
}

double largest(const std::vector<glare::PlaneLuminance>& planes) {
  double most = -1;
  for (const glare::PlaneLuminance& plane : planes) most = std::max(most, plane.cd_m2);
  return most;
}

/// Of the luminaire of the group that looks brightest: they differ when they are aimed.
std::vector<glare::PlaneLuminance> brightest_planes(const space::LuminaireGroup& group, double from_deg) {
  std::vector<glare::PlaneLuminance> brightest;
  std::set<long> tilts;  // in millionths of the cosine
  for (const photometry::PlacedLuminaire& luminaire : group.luminaires) {
    if (!tilts.insert(std::lround(1e6 * luminaire.frame.g0.z())).second) continue;
    auto planes = glare::luminances_from(luminaire, group.dimming, from_deg);
    if (largest(planes) > largest(brightest)) brightest = std::move(planes);
  }
  return brightest;
}

class GlareVerdicts {
 public:
  GlareVerdicts(const space::Space& space, RoomResult& result)
      : space_(space), wish_(space.glare), result_(result) {}

  void add_all() {
    for (const standards::Demand& limit : wish_.limits) {
      if (limit.quantity == Quantity::unified_glare)
        add_ugr(limit);
      else
        add_rating(limit);
    }
    for (const standards::Demand& limit : wish_.screen_limits) add_luminances(limit);
    add_shielding();
  }

 private:
  void add(Check check, const std::string& where, const std::string& area, bool binding) {
    check.where = where;
    check.area = area;
    check.binding = binding;
    result_.checks.push_back(std::move(check));
  }
  void add_ugr(const standards::Demand& limit);
  void note_nearness(double limit, double table);
  void add_rating(const standards::Demand& limit);
  void add_luminances(const standards::Demand& limit);
  void add_shielding();

  const space::Space& space_;
  const space::GlareWish& wish_;
  RoomResult& result_;
};

void GlareVerdicts::add_ugr(const standards::Demand& limit) {
  const auto table = result_.glare.table.worst();
  const bool by_table =
      wish_.method == model::GlareMethod::table || (wish_.method == model::GlareMethod::by_standard && table);
  if (table) {
    add(judge(limit, *table), "tabular value", "tabular method", by_table);
    note_nearness(limit.required, *table);
  }
  bool rated = false;
  for (const EyeSetGlare& set : result_.glare.sets) {
    if (!set.worst) continue;
    add(judge(limit, *set.views[*set.worst].ugr, set.uncertainty), set.set.name, "eye",
        !by_table && set.set.verified);
    rated = rated || set.set.verified;
  }
  if ((by_table && table) || (!by_table && rated)) return;
  const std::string why = by_table ? fmt::format(FMT_STRING("the tabular method does not hold: {}"),
                                                 fmt::join(result_.glare.table.why_not, "; "))
                          : space_.eyes.empty() ? std::string("there are no eyes to rate it at")
                                                : std::string(
                                                      "no luminaire is in the field of view of the "
                                                      "eyes that are verified");
  result_.not_checked.push_back(fmt::format(FMT_STRING("glare UGR {:g} ({})"), limit.required, why));
}

/// The method leaves details open, see docs/glare.md: tables by different hands differ.
void GlareVerdicts::note_nearness(double limit, double table) {
  constexpr double kHands = 0.6;
  if (std::abs(limit - table) > kHands) return;
  std::vector<std::string>& remarks = result_.glare.table.remarks;
  const std::string words =
      fmt::format(FMT_STRING("within {} of the limit of {:g}: tables by different hands differ by as much"),
                  kHands, limit);
  if (std::find(remarks.begin(), remarks.end(), words) == remarks.end()) remarks.push_back(words);
}

void GlareVerdicts::add_rating(const standards::Demand& limit) {
  bool rated = false;
  for (const EyeSetGlare& set : result_.glare.sets) {
    if (!set.worst_rating) continue;
    add(judge(limit, *set.ratings[*set.worst_rating].gr, set.rating_uncertainty), set.set.name, "eye",
        set.set.verified);
    rated = rated || set.set.verified;
  }
  if (!rated)
    result_.not_checked.push_back(fmt::format(
        FMT_STRING(
            "glare rating GR {:g} (no luminaire is in the field of view of the eyes that are verified)"),
        limit.required));
}

/// Each kind of luminaire once, at the brightest it is used.
void GlareVerdicts::add_luminances(const standards::Demand& limit) {
  for (std::size_t g = 0; g < space_.groups.size(); ++g) {
    const space::LuminaireGroup& group = space_.groups[g];
    const auto same = [&](const Check& c) {
      return c.demand.quantity == limit.quantity && c.where == group.mark &&
             c.demand.standard == limit.standard;
    };
    const auto planes = brightest_planes(group, wish_.screens->from_deg);
    if (planes.empty()) {
      result_.not_checked.push_back(fmt::format(
          FMT_STRING("luminance of {} in screens (its file states no luminous size)"), group.mark));
      continue;
    }
    const auto most = std::max_element(planes.begin(), planes.end(),
                                       [](const auto& a, const auto& b) { return a.cd_m2 < b.cd_m2; });
    Check check = judge(limit, most->cd_m2);
    if (check.verdict == Verdict::not_met) {
      check.why.push_back(fmt::format(
          FMT_STRING("above the limit in the planes {}; most at C {:g}, {:g} deg from straight down"),
          planes_above(planes, limit.required), most->c_deg, most->gamma_deg));
      check.help.push_back(
          fmt::format(FMT_STRING("dimmed to {:.0f} %, or an optic that shields above {:g} deg"),
                      std::floor(100 * limit.required / most->cd_m2), wish_.screens->from_deg));
    }
    const auto known = std::find_if(result_.checks.begin(), result_.checks.end(), same);
    if (known == result_.checks.end())
      add(std::move(check), group.mark, "luminaire", true);
    else if (check.actual > known->actual) {
      check.where = known->where;
      check.area = known->area;
      *known = std::move(check);
    }
  }
}

void GlareVerdicts::add_shielding() {
  std::vector<std::string> done;
  const std::string standard =
      wish_.limits.empty() ? std::string("EN 12464-1") : wish_.limits.front().standard;
  for (const space::LuminaireGroup& group : space_.groups) {
    if (!group.lamp_luminance_cd_m2 || std::find(done.begin(), done.end(), group.mark) != done.end())
      continue;
    done.push_back(group.mark);
    const double required = standards::required_shielding_angle(*group.lamp_luminance_cd_m2);
    if (required <= 0) continue;
    Check check = standards::judge(
        {Quantity::shielding_angle, required, standard, standard + ", minimum shielding angles", "agreed",
         fmt::format(FMT_STRING("for lamps of {:g} cd/m2"), *group.lamp_luminance_cd_m2)},
        group.shielding_deg.value_or(0));
    if (check.verdict == Verdict::not_met && !group.shielding_deg)
      check.why.push_back("the project states no shielding angle for it; none is taken");
    add(std::move(check), group.mark, "luminaire", true);
  }
}

}  // namespace

void verify_glare(const space::Space& space, RoomResult& result) {
  GlareVerdicts(space, result).add_all();
}

}  // namespace glow::assess
