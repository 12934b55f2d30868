#include "core/standards/demands.hpp"

#include <fmt/format.h>

namespace glow::standards {
namespace {

Demand demand_of(const TaskInForce& task, Quantity quantity, double required) {
  return {quantity, required, task.row.standard_name(), task.row.source(), task.row.certainty, {}};
}

std::vector<Demand> of_band(const TaskInForce& task, const Surroundings& rule, double mean_lx, double u0) {
  std::vector<Demand> demands;
  for (const auto& [quantity, required] :
       {std::pair{Quantity::mean_illuminance, mean_lx}, {Quantity::uniformity, u0}}) {
    Demand demand = demand_of(task, quantity, required);
    demand.source = rule.source;
    demand.certainty = rule.certainty;
    if (quantity == Quantity::mean_illuminance) {
      demand.reason = task.reason;
      if (!rule.remark.empty()) demand.reason += (demand.reason.empty() ? "" : "; ") + rule.remark;
    }
    demands.push_back(std::move(demand));
  }
  return demands;
}

}  // namespace

std::vector<Demand> task_demands(const TaskInForce& task) {
  std::vector<Demand> demands;
  if (task.em_lx) {
    demands.push_back(demand_of(task, Quantity::mean_illuminance, *task.em_lx));
    demands.back().certainty = task.em_certainty;
    demands.back().reason = task.reason;
  }
  if (task.row.emin_lx) demands.push_back(demand_of(task, Quantity::minimum_illuminance, *task.row.emin_lx));
  if (task.row.uo) demands.push_back(demand_of(task, Quantity::uniformity, *task.row.uo));
  return demands;
}

std::vector<Demand> surrounding_demands(const TaskInForce& task, const Surroundings& rule) {
  return of_band(task, rule, rule.surrounding_lx, rule.surrounding_u0);
}

std::vector<Demand> background_demands(const TaskInForce& task, const Surroundings& rule) {
  if (!rule.background_lx) return {};
  return of_band(task, rule, *rule.background_lx, *rule.background_u0);
}

std::vector<Demand> surface_demands(const TaskInForce& task, const std::optional<double>& mean_lx) {
  if (!mean_lx) return {};
  std::vector<Demand> demands = {demand_of(task, Quantity::mean_illuminance, *mean_lx),
                                 demand_of(task, Quantity::uniformity, kSurfaceU0)};
  demands[0].certainty = task.row.surface_certainty;
  demands[1].certainty = "agreed";
  return demands;
}

std::vector<Demand> colour_demands(const TaskInForce& task) {
  if (!task.row.ra) return {};
  return {demand_of(task, Quantity::colour_rendering, *task.row.ra)};
}

std::vector<Demand> emergency_demands(const TaskInForce& task) {
  std::vector<Demand> demands;
  if (task.row.emin_lx) demands.push_back(demand_of(task, Quantity::minimum_illuminance, *task.row.emin_lx));
  if (task.row.emax_over_emin)
    demands.push_back(demand_of(task, Quantity::illuminance_ratio, *task.row.emax_over_emin));
  return demands;
}

std::vector<Demand> delay_demands(const TaskInForce& task) {
  if (!task.row.t50_s) return {};
  return {demand_of(task, Quantity::delay, *task.row.t50_s)};
}

std::vector<Demand> glare_demands(const TaskInForce& task) {
  std::vector<Demand> demands;
  if (task.row.rugl) demands.push_back(demand_of(task, Quantity::unified_glare, *task.row.rugl));
  if (task.row.grl) demands.push_back(demand_of(task, Quantity::glare_rating, *task.row.grl));
  return demands;
}

std::vector<NotVerified> not_verified(const Requirement& row) {
  using Why = NotVerified::Why;
  std::vector<NotVerified> list;
  for (const auto& [name, why] : {std::pair{"RUGL", Why::ugr_limit_not_held},
                                  {"GRL", Why::gr_limit_not_held},
                                  {"Ra", Why::colour_not_held},
                                  {"Em_lx", Why::mean_not_held},
                                  {"Uo", Why::uniformity_not_held}})
    if (row.is_not_held(name)) list.push_back({why, {}, 0});
  if (!row.own && row.standard == "EN 12464-1" && row.edition == "2021" && !row.ewall_lx)
    list.push_back({Why::surfaces_not_held, {}, 0});
  return list;
}

}  // namespace glow::standards
