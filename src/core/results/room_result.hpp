#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/readings/statistics.hpp"
#include "core/results/room_glare.hpp"
#include "core/scene/room_scene.hpp"
#include "core/standards/verdict.hpp"
#include "core/transport/transport.hpp"

namespace glow::results {

enum class Status { met, not_met, undecided, no_target };

/// "met", "not met", "undecided", "no target".
std::string to_string(Status status);

/// A point inside an object, or outside the room.
struct MisplacedPoint {
  Vec3 position;
  std::string inside;  ///< the object's name; empty: outside the room
};

/// What of a grid is held against its demands: all of it, or, of walls and ceiling, what keeps the standard's
/// border from their edges (all of it where nothing does).
struct Judged {
  readings::Statistics statistics;
  readings::Uncertainty uncertainty;
  std::size_t points = 0;
  double border_m = 0;
};

/// One grid with its values. All illuminances are maintained: initial values times the maintenance factor,
/// once.
struct GridResult {
  std::string name;
  scene::GridRole role = scene::GridRole::wanted;
  transport::Kernel kernel = transport::Kernel::plane;
  Vec3 facing = Vec3::UnitX();  ///< of semi-cylinders
  readings::PlaneGrid grid;
  std::vector<double> direct_lx, interreflected_lx, total_lx;  ///< per point
  readings::Statistics statistics;
  readings::Statistics initial;  ///< before the maintenance factor
  readings::Uncertainty uncertainty;
  Judged judged;                         ///< nothing in it when nothing is asked of the grid
  std::string task;                      ///< of areas: the task's key
  std::vector<MisplacedPoint> left_out;  ///< points of the grid that cannot be read; not among the values

  /// "horizontal plane", "vertical plane", "plane", "cylindrical", "semi-cylindrical", "hemispherical",
  /// "spherical".
  std::string kind() const;
};

/// The light at one of the designer's spots, maintained.
struct SpotResult {
  std::string name;
  transport::Receiver receiver;
  double direct_lx = 0, interreflected_lx = 0;
  double uncertainty_lx = 0;                ///< half width of the 95 % interval of the total
  std::optional<MisplacedPoint> misplaced;  ///< cannot be read; nothing else counts then
  double total_lx() const { return direct_lx + interreflected_lx; }
};

struct Power {
  std::optional<double> installed_w;  ///< nothing when a luminaire's file states no watts
  std::optional<double> w_per_m2;
  std::optional<double> w_per_m2_100lx;
};

/// Ez / Eh at points at the height of eyes; EN 12464-1 calls 0.30 to 0.60 good modelling.
struct Modelling {
  double mean = 0, low = 0, high = 0;
  double share_within = 0;  ///< of points between 0.30 and 0.60
};

/// How many possible built rooms meet all checks.
struct RoomSpread {
  std::size_t samples = 0;
  double share = 0;
};

struct RoomResult {
  const scene::RoomScene* scene = nullptr;
  Status status = Status::no_target;
  std::vector<GridResult> grids;  ///< in the scene's order; one that holds no readable point has no values
  std::vector<SpotResult> spots;
  std::vector<standards::Check> checks;
  std::vector<std::string> not_checked;
  std::optional<Modelling> modelling;
  RoomGlare glare;
  std::optional<RoomSpread> spread;  ///< when it was asked for
  Power power;
  transport::FluxBalance balance;
  std::size_t patches = 0, rays = 0;
  int refinements = 0;           ///< times the effort was raised to decide a check or to reach the accuracy
  bool accuracy_reached = true;  ///< of an accuracy in per cent
  bool reused = false;           ///< nothing was traced: every transport came from the store
};

/// How surely a room is to be known.
struct Accuracy {
  transport::Effort effort;       ///< to begin with
  std::optional<double> percent;  ///< wanted for means (95 %); three times as much is allowed for minima
  int most_refinements = 2;       ///< each with twice the patches and four times the rays

  /// "draft", "normal", "fine", or a number of per cent from 0.1 to 20; nothing when it is none of these.
  static std::optional<Accuracy> parse(const std::string& words);
};

/// Keeps traced hits for later; may forget and may fail, in silence.
class TransportStore {
 public:
  virtual ~TransportStore() = default;
  virtual std::optional<transport::TracedHits> find(const std::string& key) = 0;
  virtual void keep(const std::string& key, const transport::TracedHits& hits) = 0;
};

/// Installed power of a room, with the mean illuminance of its work plane for the last of its numbers.
Power power_of(const scene::RoomScene& scene, double mean_lx);

/// What to do beyond computing and verifying.
struct Studies {
  std::optional<model::SpreadWish> spread;
};

/// Computes one room; refines while a check is undecided or the accuracy is not reached. `scene` must outlive
/// the result; `store` may be null. Throws Cancelled.
RoomResult compute_room(const scene::RoomScene& scene, const Accuracy& accuracy, TransportStore* store,
                        const Watch& watch, const Studies& studies = {});

}  // namespace glow::results
