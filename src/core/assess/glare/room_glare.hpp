#pragma once

#include <array>
#include <cmath>
#include <optional>
#include <string>
#include <vector>

#include "core/glare/glare_rating.hpp"
#include "core/glare/unified_glare.hpp"
#include "core/space/eye_set.hpp"
#include "core/standards/verdict.hpp"

namespace glow::assess {

/// Glare of a room with its luminaires as new, dimmed as they are: the worst that happens, and what the
/// tabular method is about. All luminaires losing the same share of their light, UGR falls by 8 lg of it.

/// One view: an eye in one direction.
struct ViewGlare {
  std::optional<double> ugr;  ///< nothing: no source counts, or the eye lies in an object
  double background_cd_m2 = 0;
  int worst_source = -1;   ///< of RoomGlare::sources: what adds most
  double worst_share = 0;  ///< of the sum
};

/// GR of one eye in its worst direction.
struct EyeRating {
  std::optional<double> gr;
  double azimuth_deg = 0;
  int worst_source = -1;
  double worst_share = 0;
};

/// Over the directions of one position; nothing when none has a value.
struct PositionGlare {
  std::optional<double> worst, typical;  ///< the highest UGR and the median
};

/// A source of glare by name: luminaires at one place.
struct GlareSourceName {
  std::string mark;
  Vec3 position = Vec3::Zero();
  std::vector<std::pair<std::size_t, std::size_t>> luminaires;  ///< group, and number in it
};

/// A source with what it adds at one view.
struct SourceShare {
  int source = 0;
  double share = 0;  ///< of the sum
  double distance_m = 0;
  double luminance_cd_m2 = NAN;  ///< NaN: the file states no size
  double solid_angle_sr = 0;
  double position_index = 1;
  double seen_share = 1;
  bool small = false;          ///< rated by CIE 147
  bool outside_range = false;  ///< of what CIE 117 was made for
};

/// What the number of the worst view does not say.
struct GlareRemark {
  enum class Kind {
    small_sources,  ///< `share` of the sum is rated by intensity (CIE 147); `value`: UGR by the plain formula
    tiny_sources,   ///< `share` from sources below 0.0003 sr
    large_sources,  ///< `share` from sources above 0.1 sr
    below_sight,    ///< `share` from sources below the line of sight
    partly_hidden,  ///< `share` from sources that are seen in part
    beyond_field,   ///< `value` with the sources in front that the printed table leaves out
    indirect        ///< `share` of the luminaires' light goes up: the bright ceiling is not rated
  };
  Kind kind = Kind::small_sources;
  double share = 0;
  double value = NAN;  ///< NaN: there is none
};

/// What one eye would have after a change to the source that adds most there, computed by relight.
struct GlareChange {
  enum class Kind { dimmed, moved_x, moved_y, turned, tilted_down, raised };
  Kind kind = Kind::dimmed;
  double amount = 0;  ///< dimmed: to this share; moved, raised: m; turned, tilted: degrees
  double value = 0;   ///< UGR of that view, or GR of that eye; -infinity when nothing glares any more
  double worst = 0;   ///< of the whole set
  std::vector<standards::Check> breaks;  ///< that are met, and would not be
};

/// UGR and GR of one set of eyes.
struct EyeSetGlare {
  space::EyeSet set;
  std::vector<ViewGlare> views;             ///< by the set's views; empty when UGR is not rated
  std::vector<PositionGlare> by_position;   ///< of the views
  std::vector<EyeRating> ratings;           ///< by the set's positions; empty when GR is not rated
  std::vector<bool> buried;                 ///< by positions: it lies in an object and is left out
  std::optional<std::size_t> worst;         ///< view of the highest UGR
  std::optional<std::size_t> worst_rating;  ///< position of the highest GR
  double typical = 0;                       ///< median of UGR over all views that have one
  double uncertainty = 0;                   ///< half width of the 95 % interval of the worst UGR
  std::vector<SourceShare> causes;          ///< at the worst view, those that add most first
  std::vector<GlareRemark> remarks;
  std::vector<GlareChange> changes;         ///< at the worst view
  double rating_uncertainty = 0;            ///< half width of the 95 % interval of GR
  std::vector<GlareChange> rating_changes;  ///< at the worst GR
};

/// UGR of a room by the tabular method, read for its own proportions.
struct TableGlare {
  /// What speaks against the method.
  enum class Against {
    not_rectangular,
    ceiling_not_flat,
    no_luminaires,
    several_kinds,
    switched_off,
    no_luminous_size,
    no_luminous_width,
    no_light_downwards,
    not_symmetric,
    not_above_eye,
    tilted,
    not_square,
    several_heights,
    turned_several_ways,
    not_even
  };
  struct Value {
    /// Which way people look: along x or y of the plan where the room is square to it, else at right angles
    /// to the wall of this number (1 or 2).
    enum class Along { x, y, wall } along = Along::x;
    int wall = 0;
    double x_h = 0, y_h = 0;  ///< sides of the room in heights above the eye: across the sight and along it
    bool crosswise = true;
    double ugr = 0;  ///< corrected for the flux
  };
  struct Remark {
    enum class Kind {
      reflectances_differ,  ///< the room's are far from the table's sets
      beyond_table,         ///< the room is smaller or larger than the table's
      near_limit            ///< within `amount` of the limit `value`: tables by different hands differ so
    };
    Kind kind = Kind::beyond_table;
    double amount = 0, value = 0;
  };
  std::vector<Against> why_not;  ///< empty: it holds
  std::string mark;
  std::array<int, 3> reflectances = {0, 0,
                                     0};  ///< per cent of ceiling, walls, floor: the nearest set of the table
  std::vector<Value> values;              ///< for both lines of sight; empty when it does not hold
  std::vector<Remark> remarks;
  /// The higher of the values; none when the method does not hold.
  std::optional<double> worst() const;
};

/// Glare of a room: its luminaires as sources, and what eyes have of them.
struct RoomGlare {
  std::vector<GlareSourceName> sources;
  std::vector<EyeSetGlare> sets;
  TableGlare table;
  std::optional<double> typical;  ///< median of UGR over all views of all sets that have one
  /// UGR of every view of all sets that has one, rising.
  std::vector<double> all_ugr() const;
};

/// The middle of values that rise; the mean of both where two are in the middle.
double median(const std::vector<double>& rising);

}  // namespace glow::assess
