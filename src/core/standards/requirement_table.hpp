#pragma once

#include <optional>
#include <string>
#include <vector>

namespace glow::standards {

/// One row of a standard's table: what a task asks for. Empty = the table sets no value, unless `not_held`
/// names the column: then the value is not known here. Neither ever counts as met.
struct Requirement {
  std::string standard, edition, reference;  ///< "EN 12464-1", "2021", table and row
  std::string key, area, task;
  std::optional<double> em_lx, em_modified_lx;  ///< maintained mean
  std::optional<double> uo;                     ///< Emin / Emean
  std::optional<double> ra, rugl;
  std::optional<double> ez_lx, ewall_lx, eceiling_lx;
  std::optional<double> plane_height_m;
  std::string plane_note, remark, words;
  std::string certainty, modified_certainty, surface_certainty, reference_certainty;
  std::string basis, not_held, source_note;

  /// "EN 12464-1:2021, 17.3".
  std::string source() const { return standard + ":" + edition + ", " + reference; }
};

/// The table of one standard, rows in its own order.
class RequirementTable {
 public:
  explicit RequirementTable(std::vector<Requirement> rows) : rows_(std::move(rows)) {}
  const std::vector<Requirement>& rows() const { return rows_; }
  /// "EN 12464-1:2021".
  std::string name() const;
  /// Null when the key is not in the table.
  const Requirement* find(const std::string& key) const;
  std::vector<std::string> keys() const;

 private:
  std::vector<Requirement> rows_;
};

}  // namespace glow::standards
