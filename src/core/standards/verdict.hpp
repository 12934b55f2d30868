#pragma once

#include <cmath>
#include <optional>
#include <string>
#include <vector>

#include "core/readings/statistics.hpp"
#include "core/standards/quantities.hpp"

namespace glow::standards {

/// What is asked of one area, or of a room: a lower limit, or an upper one of glare.
struct Demand {
  Quantity quantity = Quantity::mean_illuminance;
  double required = 0;
  std::string standard;   ///< "EN 12464-1:2021"
  std::string source;     ///< standard, edition and row or rule
  std::string certainty;  ///< how surely the required value is held: "agreed", "single", "disputed", ...
  std::string reason;     ///< why it is not the table's required value; empty: it is
};

/// What a check is about, by the number that it has in its space: never by a name, which is for people.
struct Target {
  enum class Kind {
    light,           ///< of all luminaires of the room: its colour
    grid,            ///< of the space's grids
    eyes,            ///< of its sets of eyes
    tabular,         ///< the tabular method
    luminaire_type,  ///< the first of the groups of one mark
    openings,        ///< of the room, what comes in by them and what is seen through them
    road_user        ///< of those beside an outdoor area; neighbours are the grids on their windows
  };
  Kind kind = Kind::light;
  std::size_t id = 0;  ///< of grids, eyes, luminaire types and road users
};
inline bool operator==(const Target& a, const Target& b) {
  return a.kind == b.kind && a.id == b.id;
}

/// Something that is asked for and is not verified.
struct NotVerified {
  enum class Why {
    ugr_limit_not_held,
    gr_limit_not_held,
    colour_not_held,
    mean_not_held,
    uniformity_not_held,
    surfaces_not_held,
    no_room_for_band,   ///< a surrounding or background area; `subject` is its name
    no_room_for_faces,  ///< cylinders at the height of eyes
    no_plane_for_task,  ///< nobody says where the upright plane of the task is
    colour_unknown,     ///< of a luminaire type: `subject` is its mark
    table_fails,        ///< the tabular method does not hold, and nothing else is to verify UGR
    no_eyes,
    nothing_in_sight,     ///< of the eyes that verify UGR
    nothing_in_sight_gr,  ///< of those that verify GR
    no_luminous_size,     ///< of a luminaire type that screens mirror
    left_out,             ///< by the designer: `subject` is the luminaire's mark and the reason
    delay_unknown,        ///< of emergency lighting, until half of it is there
    no_way_out,           ///< stated: neither escape routes nor an open area
    median_unknown,       ///< of daylight outdoors, at the place
    place_unknown         ///< for the sun's way
  };
  Why why = Why::mean_not_held;
  std::string subject;  ///< see above; of values that are not held, the standard where there are several
  double required = 0;
};
inline bool operator==(const NotVerified& a, const NotVerified& b) {
  return a.why == b.why && a.subject == b.subject && a.required == b.required;
}

/// `undecided`: the value is nearer to its limit than it is certain.
enum class Verdict { met, not_met, undecided };

/// "met", "not met", "undecided".
std::string to_string(Verdict verdict);

/// One value held against one demand; both unrounded, so nothing is rounded into passing.
struct Check {
  Demand demand;
  Target target;
  double actual = 0;
  double uncertainty = 0;  ///< half width of the 95 % interval of `actual`
  bool binding = true;     ///< false: said for information, another check verifies the demand
  Verdict verdict = Verdict::undecided;

  double margin() const {
    return is_upper_limit(demand.quantity) ? demand.required - actual : actual - demand.required;
  }
  bool would_meet(double value) const {
    return is_upper_limit(demand.quantity) ? value <= demand.required : value >= demand.required;
  }
  /// The same of a value that is as uncertain as `actual` is, in proportion.
  bool would_surely_meet(double value) const {
    const double doubt = actual != 0 ? std::abs(uncertainty * value / actual) : uncertainty;
    return would_meet(is_upper_limit(demand.quantity) ? value + uncertainty : value - doubt);
  }
  std::string unit() const { return unit_of(demand.quantity); }
  /// Whether the other one is the same demand on the same thing.
  bool is_same_as(const Check& other) const {
    return target == other.target && demand.quantity == other.demand.quantity &&
           demand.required == other.demand.required && demand.standard == other.demand.standard;
  }
};

/// The demand against what a grid holds, maintained.
Check judge(const Demand& demand, const readings::Statistics& maintained,
            const readings::Uncertainty& uncertainty);
/// Against a value of its own.
Check judge(const Demand& demand, double actual, double uncertainty = 0);

}  // namespace glow::standards
