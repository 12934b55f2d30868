#pragma once

#include <functional>
#include <memory>

#include "core/assess/assess.hpp"
#include "core/model/project.hpp"

namespace glow::studies {

class FieldLight;
using model::Least;

/// What may be laid, and how.
struct ArrangementWish {
  model::LuminairePlacement base;  ///< the mark, how it is mounted, and the margin and part of its array
  Least least = Least::luminaires;
  std::vector<double> heights_m;  ///< mounting heights to try; empty: as `base` says
  double least_dimming = 1;       ///< share of full output down to which it may be dimmed
  bool turns = true, staggers = true;
  bool best_only = false;  ///< neither others that meet all checks nor ways out are looked for
  int most =
      0;  ///< luminaires; 0: four times the fewest that could give enough light, one for 0.7 m2 at most

  static constexpr int kMostLuminaires = 400;
};

/// One even array of a room: all that tells it from others.
struct Field {
  int rows = 1, columns = 1;
  bool turned = false;             ///< its luminaires by a quarter
  bool staggered = false;          ///< every second row by half a spacing
  std::optional<double> height_m;  ///< mounting height; nothing: as the wish's base
  double dimming = 1;
  std::size_t luminaires = 0;
  std::optional<double> watts;  ///< of all, dimmed

  /// As it is written in a project.
  model::LuminairePlacement placement(const model::LuminairePlacement& base) const;
};

/// A field that was judged.
struct TriedField {
  Field field;
  std::vector<standards::Check> checks;  ///< those that bind
  double mean_lx = 0;                    ///< maintained, of the first grid that a mean is asked of
  bool meets = false;
  std::vector<geometry::Frame> frames;  ///< of its luminaires

  /// The check that is nearest to its limit, or furthest beyond it; null: there are none.
  const standards::Check* tightest() const;
  /// The least of the means that are asked for, as a multiple of what is asked; infinite: none is.
  double times_asked() const;
  /// By what share of its limit that one is met; below 0: missed.
  double in_hand() const;
};

/// One thing changed, and the first field that meets all checks then.
struct WayOut {
  enum class Kind { wider_beam, mounting_height, brighter_surfaces };
  Kind kind = Kind::wider_beam;
  double value = 0;  ///< half peak angle in degrees; height in m; what reflectances of walls and ceiling gain
  TriedField field;
};

/// What a search found, and what it looked at to be sure.
struct Arrangement {
  std::optional<TriedField> best;      ///< calculated
  std::vector<TriedField> runners_up;  ///< calculated; these meet all checks as well
  std::optional<TriedField> nearest;  ///< of those that meet not all: the best of fewer luminaires, or of any
  std::vector<WayOut> ways_out;       ///< where nothing meets all checks
  std::size_t least_luminaires = 1;   ///< fewer cannot give enough light, wherever they hang
  std::optional<standards::Check> least_because;          ///< the check that tells so
  std::size_t most_luminaires = 0;                        ///< that were looked at
  std::size_t fields = 0, looked_at = 0, calculated = 0;  ///< all; by quick light; by all of it
  std::size_t blocked = 0;                                ///< fields that would hang in something
  bool stopped = false;                                   ///< before it was done, on demand
};

/// A room without what is to be laid, lit by what stays. All of it must outlive the search.
struct SearchRoom {
  const model::Project& project;
  const model::Room& room;
  const assess::Setting& setting;  ///< that reads all grids and eyes
  const assess::SeenFromEyes& eyes;
  const lighting::Lighting& lighting;  ///< of what stays
  const assess::LitRoom& kept;
  /// Lays a placement; nothing where it does not fit.
  std::function<std::optional<space::LuminaireGroup>(const model::LuminairePlacement&)> lay;
  const Watch& watch;
  std::shared_ptr<const FieldLight> light = nullptr;  ///< of the same setting, from an earlier search
};

/// Looks at all even arrays that `wish` allows, in the order of what it is to save, until all checks of the
/// room that bind are met, glare included. Fields of fewer luminaires are left out only where so many could
/// not give enough light wherever they hang (most_straight_mean_lx), or were looked at by quick light
/// (FieldLight) and fail by more than that may be off; all others are calculated. When it is cancelled it
/// gives what it has, `stopped`.
Arrangement find_arrangement(const SearchRoom& room, const ArrangementWish& wish);

}  // namespace glow::studies
