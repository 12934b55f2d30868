#pragma once

#include <functional>

#include "core/record/record.hpp"
#include "words/data/data_table.hpp"

namespace glow::words {

inline constexpr int kText = DataColumn::kText;

/// Values in the shown units, and columns that say so.
struct Shown {
  const units::ShownUnits& units;

  DataColumn light(const std::string& key, const std::string& title, int digits) const {
    return {key + "_" + units.light_unit(), title + " " + units.light_unit(), digits};
  }
  DataColumn length(const std::string& key) const {
    return {key + "_" + units.length_unit(), key + " " + units.length_unit(), 3};
  }
  std::optional<double> lux(const std::optional<double>& value) const {
    return value ? std::optional(units.light(*value)) : std::nullopt;
  }
  void place(DataTable& table, const Vec3& p) const {
    table.number(units.length(p.x())).number(units.length(p.y())).number(units.length(p.z()));
  }
};

/// The room with all groups as placed, then in its scenes.
void each_use(const record::RoomRecord& room, const std::function<void(const record::RoomRecord&)>& take);
void each_use(const record::RunRecord& run, const std::function<void(const record::RoomRecord&)>& take);

}  // namespace glow::words
