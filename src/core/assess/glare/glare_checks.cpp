// Glare held against what limits it. UGR is verified as the brief's method says; what else is known of it is
// added as checks that do not bind.
#include <algorithm>
#include <cmath>
#include <set>

#include "core/assess/judge.hpp"
#include "core/standards/glare_rules.hpp"

namespace glow::assess {
namespace {

using standards::Check;
using standards::NotVerified;
using standards::Quantity;
using standards::Target;

double largest(const std::vector<glare::PlaneLuminance>& planes) {
  double most = -1;
  for (const glare::PlaneLuminance& plane : planes) most = std::max(most, plane.cd_m2);
  return most;
}

class GlareJudge {
 public:
  GlareJudge(const space::GlareBrief& brief, const std::vector<space::LuminaireGroup>& groups,
             const lighting::Weights& weights, Assessment& assessment)
      : brief_(brief), groups_(groups), weights_(weights), result_(assessment) {}

  void add_all() {
    for (const standards::Demand& limit : brief_.limits) {
      if (limit.quantity == Quantity::unified_glare)
        add_ugr(limit);
      else
        add_rating(limit);
    }
    for (const standards::Demand& limit : brief_.screen_limits) add_luminances(limit);
    add_shielding();
  }

 private:
  void add(Check check, const Target& target, bool binding) {
    check.target = target;
    check.binding = binding;
    result_.checks.push_back(std::move(check));
  }
  void leave_out(NotVerified::Why why, double required, const std::string& subject = {}) {
    const standards::NotVerified item{why, subject, required};
    auto& known = result_.not_verified;
    if (std::find(known.begin(), known.end(), item) == known.end()) known.push_back(item);
  }
  void add_ugr(const standards::Demand& limit);
  void note_nearness(double limit, double table);
  void add_rating(const standards::Demand& limit);
  void add_luminances(const standards::Demand& limit);
  void add_shielding();

  const space::GlareBrief& brief_;
  const std::vector<space::LuminaireGroup>& groups_;
  const lighting::Weights& weights_;
  Assessment& result_;
};

void GlareJudge::add_ugr(const standards::Demand& limit) {
  using model::GlareMethod;
  const auto table = result_.glare.table.worst();
  const bool by_table =
      brief_.method == GlareMethod::table || (brief_.method == GlareMethod::by_standard && table);
  if (table) {
    add(standards::judge(limit, *table), {Target::Kind::tabular, 0}, by_table);
    note_nearness(limit.required, *table);
  }
  bool rated = false;
  for (std::size_t s = 0; s < result_.glare.sets.size(); ++s) {
    const EyeSetGlare& set = result_.glare.sets[s];
    if (!set.worst) continue;
    add(standards::judge(limit, *set.views[*set.worst].ugr, set.uncertainty), {Target::Kind::eyes, s},
        !by_table && set.set.verified);
    rated = rated || set.set.verified;
  }
  if ((by_table && table) || (!by_table && rated)) return;
  leave_out(by_table                     ? NotVerified::Why::table_fails
            : result_.glare.sets.empty() ? NotVerified::Why::no_eyes
                                         : NotVerified::Why::nothing_in_sight,
            limit.required);
}

/// The method leaves details open, see docs/glare.md: tables by different hands differ.
void GlareJudge::note_nearness(double limit, double table) {
  constexpr double kHands = 0.6;
  if (std::abs(limit - table) > kHands) return;
  std::vector<TableGlare::Remark>& remarks = result_.glare.table.remarks;
  const TableGlare::Remark remark{TableGlare::Remark::Kind::near_limit, kHands, limit};
  const bool told = std::any_of(remarks.begin(), remarks.end(), [&](const TableGlare::Remark& known) {
    return known.kind == remark.kind && known.value == remark.value;
  });
  if (!told) remarks.push_back(remark);
}

void GlareJudge::add_rating(const standards::Demand& limit) {
  bool rated = false;
  for (std::size_t s = 0; s < result_.glare.sets.size(); ++s) {
    const EyeSetGlare& set = result_.glare.sets[s];
    if (!set.worst_rating) continue;
    add(standards::judge(limit, *set.ratings[*set.worst_rating].gr, set.rating_uncertainty),
        {Target::Kind::eyes, s}, set.set.verified);
    rated = rated || set.set.verified;
  }
  if (!rated) leave_out(NotVerified::Why::nothing_in_sight_gr, limit.required);
}

/// Each kind of luminaire once, at the brightest it is used.
void GlareJudge::add_luminances(const standards::Demand& limit) {
  for (std::size_t g = 0; g < groups_.size(); ++g) {
    const Target target{Target::Kind::luminaire_type, first_of_mark(groups_, groups_[g].mark)};
    const auto& exempt = brief_.screens->left_out;
    const auto own = std::find_if(exempt.begin(), exempt.end(),
                                  [&](const auto& entry) { return entry.mark == groups_[g].mark; });
    if (own != exempt.end()) {
      leave_out(NotVerified::Why::left_out, limit.required, own->mark + ", " + own->reason);
      continue;
    }
    const auto planes = brightest_planes(groups_[g], weights_[g].output, brief_.screens->from_deg);
    if (planes.empty()) {
      leave_out(NotVerified::Why::no_luminous_size, limit.required, groups_[g].mark);
      continue;
    }
    const auto known = std::find_if(result_.checks.begin(), result_.checks.end(), [&](const Check& c) {
      return c.demand.quantity == limit.quantity && c.target == target && c.demand.standard == limit.standard;
    });
    const Check check = standards::judge(limit, largest(planes));
    if (known == result_.checks.end()) {
      add(check, target, true);
    } else if (check.actual > known->actual) {
      *known = check;
      known->target = target;
    }
  }
}

void GlareJudge::add_shielding() {
  const std::string standard =
      brief_.limits.empty() ? std::string("EN 12464-1") : brief_.limits.front().standard;
  for (std::size_t g = 0; g < groups_.size(); ++g) {
    const space::LuminaireGroup& group = groups_[g];
    if (!group.lamp_luminance_cd_m2 || first_of_mark(groups_, group.mark) != g) continue;
    const double required = standards::required_shielding_angle(*group.lamp_luminance_cd_m2);
    if (required <= 0) continue;
    add(standards::judge(standards::shielding_demand(standard, *group.lamp_luminance_cd_m2),
                         group.shielding_deg.value_or(0)),
        {Target::Kind::luminaire_type, g}, true);
  }
}

}  // namespace

std::vector<glare::PlaneLuminance> brightest_planes(const space::LuminaireGroup& group, double output,
                                                    double from_deg) {
  std::vector<glare::PlaneLuminance> brightest;
  std::set<long> tilts;  // in millionths of the cosine
  for (const photometry::PlacedLuminaire& luminaire : group.luminaires) {
    if (!tilts.insert(std::lround(1e6 * luminaire.frame.g0.z())).second) continue;
    auto planes = glare::luminances_from(luminaire, output, from_deg);
    if (largest(planes) > largest(brightest)) brightest = std::move(planes);
  }
  return brightest;
}

void judge_glare(const space::GlareBrief& brief, const std::vector<space::LuminaireGroup>& groups,
                 const lighting::Weights& weights, Assessment& assessment) {
  GlareJudge(brief, groups, weights, assessment).add_all();
}

}  // namespace glow::assess
