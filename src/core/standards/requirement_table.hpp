#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace glow::standards {

/// How the plane lies on which a task is read.
enum class PlaneOrientation { horizontal, vertical, open, slope };

/// One row of a standard's table: what a task asks for. Empty = the table sets no value, unless `not_held`
/// names the column: then the value is not known here. Neither ever counts as met.
struct Requirement {
  std::string standard, edition, reference;  ///< "EN 12464-1", "2021", table and row
  std::string key, area, task, sport_class;
  std::optional<double> em_lx, em_modified_lx;  ///< maintained mean
  std::optional<double> uo;                     ///< Emin / Emean
  std::optional<double> ra, rugl, grl;
  std::optional<double> ez_lx, ewall_lx, eceiling_lx;
  std::optional<double> emin_lx;         ///< of emergency lighting: a minimum at each point
  std::optional<double> emax_over_emin;  ///< likewise: the most that largest to smallest may be
  std::optional<double> t50_s;           ///< likewise: within which half of the light is there
  std::optional<double> plane_height_m;
  std::string plane_note, remark, words;
  std::string posture;  ///< "seated" or "standing", of the people who do it; empty: by the plane's height
  std::string certainty, modified_certainty, surface_certainty, reference_certainty;
  std::string basis, not_held, source_note;
  std::vector<std::pair<std::string, std::string>> others;  ///< columns that are shown and not verified
  bool own = false;                                         ///< from a table of the designer's

  /// "EN 12464-1:2021, 17.3".
  std::string source() const;
  /// "EN 12464-1:2021".
  std::string standard_name() const { return standard + ":" + edition; }
  /// From the first word of `plane_note`; horizontal when it is none of them.
  PlaneOrientation orientation() const;
  /// Whether `not_held` names the column: there is, or may be, a value, and it is not known here.
  bool is_not_held(const std::string& column) const;
};

/// The table of one standard, rows in its own order.
class RequirementTable {
 public:
  explicit RequirementTable(std::vector<Requirement> rows) : rows_(std::move(rows)) {}
  const std::vector<Requirement>& rows() const { return rows_; }
  /// "EN 12464-1:2021".
  std::string name() const { return rows_.empty() ? std::string() : rows_.front().standard_name(); }
  /// Whether it asks for emergency lighting and for nothing else.
  bool is_of_emergency() const { return !rows_.empty() && rows_.front().standard == "EN 1838"; }
  /// Whether it asks for work places outdoors.
  bool is_of_outdoors() const { return !rows_.empty() && rows_.front().standard == "EN 12464-2"; }
  /// Whether it is about what others leave out.
  bool is_special() const { return is_of_emergency() || is_of_outdoors(); }
  /// Null when the key is not in the table.
  const Requirement* find(const std::string& key) const;
  std::vector<std::string> keys() const;
  /// Takes over a row: in place of the one with its key, or at the end.
  void put(const Requirement& row);

 private:
  std::vector<Requirement> rows_;
};

}  // namespace glow::standards
