#pragma once

#include <cmath>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/geometry/vec.hpp"
#include "core/standards/verdict.hpp"

namespace glow::studies {

/// What was found out about a check: values only. Sentences are made of them in words/.

/// A luminaire by its mark and the middle of its luminous part.
struct LuminaireAt {
  std::string mark;
  Vec3 at = Vec3::Zero();
};

// ---- causes: why a value is what it is ----

/// The lowest tenth of the points that are judged.
struct LowestPoints {
  std::size_t count = 0;
  bool apart = false;  ///< they lie in several places; middle and walls are then of those near the lowest
  std::size_t together = 0;        ///< of them, those near the lowest
  std::vector<std::string> along;  ///< walls that more than half of them lie along
  std::string under;               ///< object that more than half of them lie in or under; empty: none
  Vec3 middle = Vec3::Zero(), lowest = Vec3::Zero();
  double lowest_lx = 0;
};

/// What serves the lowest points: the luminaire nearest to them, and the one that gives them most.
struct LuminairesThere {
  LuminaireAt nearest;  ///< no mark: there are no luminaires
  double distance_m = 0;
  double straight_lx = 0;           ///< that the nearest gives them straight
  double off_axis_deg = 0;          ///< how far they lie off its axis
  double peak_share = 0;            ///< of its peak, its intensity towards them
  double open_lx = 0;               ///< that it would give if nothing were in between
  std::optional<LuminaireAt> best;  ///< another one that gives most
  double best_lx = 0;
};

/// Share of the light that comes straight from luminaires.
struct DirectShare {
  double share = 0;
};

/// What the value would be with walls darker by `by`.
struct WithDarkerWalls {
  double by = 0, value = 0;
};

/// Other spacings and beams were not tried: too many luminaires and points.
struct NotTried {};

/// A luminaire type whose colour rendering is too low.
struct LowColourRendering {
  std::string mark;
  double ra = 0;
};

/// The level is so many times what is asked for.
struct MoreThanAsked {
  double times = 1;
};

/// All levels that are met stay met at this share of the light.
struct CouldBeDimmed {
  double share = 1;
  std::optional<standards::Target> limit;  ///< which other check sets the limit
  std::optional<double> spare_w, installed_w;
};

/// Eyes in their worst view, or at their worst GR.
struct WorstView {
  standards::Quantity quantity = standards::Quantity::unified_glare;
  Vec3 eye = Vec3::Zero();
  std::string looking;     ///< UGR: the direction by name; GR: empty
  double azimuth_deg = 0;  ///< GR: counter-clockwise from +x
  double value = 0;
  double typical = 0;                ///< UGR
  std::size_t above = 0, rated = 0;  ///< UGR: views above the limit, and all
};

/// Sources that add most to the worst view.
struct GlareCauses {
  struct Cause {
    LuminaireAt source;
    double share = 0;
    double distance_m = 0;
    double luminance_cd_m2 = NAN;  ///< NaN: the file states no size
  };
  std::vector<Cause> causes;
  double background_cd_m2 = 0;  ///< NaN: of GR, where there is none
};

/// What the number of the worst view does not say: see assess::EyeSetGlare::remarks.
struct SeeRemarks {};

/// The tabular value keeps the limit that eyes do not.
struct TableKeepsLimit {
  double ugr = 0;
};

/// The tabular values: see assess::TableGlare::values.
struct SeeTable {};

/// Luminances above the limit: ranges of C planes, and where it is most.
struct BrightPlanes {
  std::vector<std::pair<double, double>> planes_deg;
  double c_deg = 0, gamma_deg = 0;
};

/// The value is nearer to its limit than it is certain.
struct TooClose {};

/// The project states no shielding angle.
struct NoShieldingStated {};

/// What each opening alone gives on the plane on average, as a daylight factor.
struct DaylightByOpening {
  struct Part {
    std::string opening;
    double factor = 0;  ///< %
  };
  std::vector<Part> parts;
};

/// What a number of the year would be otherwise.
struct YearOtherwise {
  struct Case {
    enum class If {
      only_opening,     ///< of this name
      nothing_outside,  ///< no obstructions stand
      turned            ///< the building, by so many degrees clockwise
    };
    If what = If::only_opening;
    std::string opening;
    double deg = 0, value = 0;
  };
  std::vector<Case> cases;
};

/// When the sun comes and what is seen outside: see assess::Assessment::outlook.
struct SeeOutlook {};

/// Luminaires that a neighbour outdoors sees.
struct SpillCauses {
  struct Part {
    LuminaireAt source;
    double k = 0, intensity_cd = 0, lux = 0;  ///< lux: straight on the window
    double distance_m = 0, gamma_deg = 0;     ///< off its axis
    bool outside_range = false;               ///< of what k was made for
  };
  std::vector<Part> parts;           ///< the first few, most first
  std::size_t seen = 0, beyond = 0;  ///< luminaires; those that have to change
  double background_cd_m2 = 0;
};

using Cause = std::variant<LowestPoints, LuminairesThere, DirectShare, WithDarkerWalls, NotTried,
                           LowColourRendering, MoreThanAsked, CouldBeDimmed, WorstView, GlareCauses,
                           SeeRemarks, TableKeepsLimit, SeeTable, BrightPlanes, NoShieldingStated, TooClose,
                           DaylightByOpening, SeeOutlook, YearOtherwise, SpillCauses>;

// ---- changes that may mend it ----

/// All luminaires with `factor` of their flux.
struct TimesFlux {
  struct OfMark {
    std::string mark;
    double lm = 0, from_lm = 0;
  };
  double factor = 1;
  std::vector<OfMark> marks;
};

/// An array of other numbers, each luminaire with this share of its flux.
struct OtherArray {
  std::string mark;
  int rows = 1, columns = 1, from_rows = 1, from_columns = 1;
  double flux_share = 1;
};

/// The same flux in a beam of this width.
struct WiderBeam {
  double width_deg = 0;
  std::vector<std::string> marks;
};

/// One luminaire more; before an upright plane, else above the low points.
struct OneMore {
  LuminaireAt luminaire;
  bool before = false;
};

/// Walls, or walls and ceiling, brighter by so much.
struct Brighter {
  bool ceiling_too = false;
  double by = 0;
};

/// Luminaires of this colour rendering or more.
struct BetterColour {
  double ra = 0;
};

/// The first source of glare changed: see assess::GlareChange.
struct SourceChanged {
  LuminaireAt source;
  std::size_t change = 0;  ///< number among the set's changes
};

/// All luminaires dimmed to this share.
struct AllDimmed {
  double share = 1;
};

/// All luminaires turned.
struct AllTurned {
  double deg = 90;
};

/// One luminaire type dimmed to this share, or an optic that shields above the angle.
struct DimmedOrShielded {
  double share = 1, from_deg = 65;
};

/// Of all openings that let daylight in, of the surfaces or of what stands outside.
struct DaylightChange {
  enum class Kind {
    wider,            ///< so many times
    higher,           ///< heads, m
    clearer,          ///< panes of this transmittance, clean
    lighter_outside,  ///< what stands outside of this reflectance
    brighter_inside,  ///< walls by so much, floor and ceiling by half of that
    overhangs,        ///< over each window, so many m deep
    darker_panes,     ///< with so many times their transmittance
    blinds            ///< even, of this transmittance, that come down by the year's rule
  };
  Kind kind = Kind::wider;
  double amount = 0;
};

/// Some luminaires that trouble a neighbour, or the sky.
struct SpillChange {
  enum class Kind {
    dimmed,    ///< to this share
    tilted,    ///< nearer to straight down, degrees
    turned,    ///< about the vertical, degrees counter-clockwise
    shielded,  ///< without light from so many degrees off their axes on
    moved,     ///< away from the neighbour, m
    off        ///< not lit in the hours of the limit
  };
  Kind kind = Kind::dimmed;
  LuminaireAt first;           ///< that troubles most
  std::size_t luminaires = 1;  ///< changed together
  double amount = 0;
};

using Change = std::variant<TimesFlux, OtherArray, WiderBeam, OneMore, Brighter, BetterColour, SourceChanged,
                            AllDimmed, AllTurned, DimmedOrShielded, DaylightChange, SpillChange>;

/// A change that was tried in this very room, and what it comes to.
struct Mend {
  Change change;
  double value = NAN;                    ///< of the check; NaN: just met, by arithmetic
  double mean_lx = NAN;                  ///< of the same points, where the value is a ratio
  bool meets = false;                    ///< the check
  std::vector<standards::Check> breaks;  ///< that are met now and would not be; with their new values
  bool glare_tried = true;  ///< false: whether a limit of glare would break was too much to look at
  /// Whether it meets the check and breaks no other.
  bool does_alone() const { return meets && breaks.empty(); }
};

/// Of one check.
struct Explanation {
  std::vector<Cause> causes;
  std::vector<Mend> mends;  ///< what does alone first
};

/// What a scene that is solved for came to.
struct SceneSolution {
  bool possible = true;
  bool each_alone =
      false;  ///< each of these cannot be even by itself; else any could be left out for the rest
  /// What stands against it, with values as of all groups as placed.
  std::vector<standards::Check> contradicting;
};

/// A check over many possible built rooms.
struct CheckTolerance {
  double share = 0;          ///< of them that meet it
  double low = 0, high = 0;  ///< 90 % of them lie between
};

/// How many possible built rooms meet all checks.
struct RoomTolerance {
  std::size_t samples = 0;
  double share = 0;
  std::vector<std::optional<CheckTolerance>> checks;  ///< by the checks of the room
};

}  // namespace glow::studies
