#include "core/space/placing/eye_placing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/model/file_names.hpp"
#include "core/space/tolerances.hpp"
#include "core/standards/general_rules.hpp"
#include "core/standards/glare_rules.hpp"
#include "core/units/quantity.hpp"

namespace glow::space {
namespace {

constexpr double kSeatedPlane = 0.5;    // m: at planes this high or higher people sit
constexpr double kStepOver = 0.4;       // m: nobody's eyes are above what is higher than this
constexpr double kLeastSpacing = 0.5;   // m, and
constexpr double kPlacesAllOver = 100;  // places in a room: of eyes that nobody gave a spacing for
constexpr double kMostViews = 40000;    // of one set
constexpr const char* kScreenRemark = "screen luminance limits apply";

class EyePlacer {
 public:
  EyePlacer(const model::Room& room, const Space& space, const GlareBrief& glare, bool seated,
            Problems& problems)
      : room_(room), space_(space), glare_(glare), seated_(seated), problems_(problems) {}

  std::optional<EyeSet> place(const model::EyesWish& wish);

 private:
  bool settle_height(const model::EyesWish& wish, EyeSet& set);
  bool lay_all_over(const model::EyesWish& wish, EyeSet& set);
  bool look(const model::EyesWish& wish, EyeSet& set);
  bool look_at_object(const model::EyesWish& wish, EyeSet& set);
  bool is_taken(const Vec3& eye) const;

  const model::Room& room_;
  const Space& space_;
  const GlareBrief& glare_;
  bool seated_;
  Problems& problems_;
};

bool EyePlacer::settle_height(const model::EyesWish& wish, EyeSet& set) {
  const bool seated =
      wish.posture == model::Eyes::seated || (wish.posture == model::Eyes::by_task && seated_);
  set.posture = seated ? "seated" : "standing";
  set.height_m = seated ? standards::kSeatedEye : standards::kStandingEye;
  if (!glare_.rates_ugr && wish.posture == model::Eyes::by_task) set.height_m = standards::kRatingEye;
  if (wish.height_m) set.height_m = *wish.height_m;
  if (wish.at && !std::isnan(wish.at->z())) set.height_m = wish.at->z();
  if (wish.height_m || (wish.at && !std::isnan(wish.at->z()))) set.posture = "given height";
  if (set.height_m > 0 && set.height_m < room_.height_m) return true;
  problems_.error("P068", wish.place,
                  fmt::format(FMT_STRING("\"{}\" are at {}, the ceiling at {}; expected a height below it"),
                              wish.name, problems_.length(set.height_m), problems_.length(room_.height_m)));
  return false;
}

/// Whether something stands there that nobody sits or stands on.
bool EyePlacer::is_taken(const Vec3& eye) const {
  return std::any_of(space_.objects.begin(), space_.objects.end(), [&](const PlanShape& object) {
    return object.extent.bottom_m < eye.z() &&
           object.extent.top_m > kStepOver + space_.ground.height(eye.xy()) &&
           object.extent.is_over(eye.xy());
  });
}

bool EyePlacer::lay_all_over(const model::EyesWish& wish, EyeSet& set) {
  const double inset = wish.inset_m.value_or(kDefaultInset);
  const double usual =
      std::max(kLeastSpacing, std::sqrt(geometry::signed_area(space_.outline) / kPlacesAllOver));
  const double spacing = wish.spacing_m.value_or(usual);
  if (const double most = readings::most_points(space_.outline, inset, {spacing, {}, {}, {}});
      most > kMostViews) {
    problems_.error(
        "P069", wish.place,
        fmt::format(FMT_STRING("\"{}\" would be {:.0f} eyes; at most {:.0f} are rated. Give a wider "
                               "\"spacing\""),
                    wish.name, most, kMostViews));
    return false;
  }
  const auto grid = readings::plane_grid(space_.outline, set.height_m, inset, spacing);
  if (!grid) {
    problems_.error("P069", wish.place,
                    fmt::format(FMT_STRING("no eyes fit into \"{}\" with {} to the walls; give a smaller "
                                           "\"inset\""),
                                room_.name, problems_.length(inset)));
    return false;
  }
  set.cell_m = grid->cell;
  for (const Vec3& eye : grid->points)
    if (!is_taken(space_.ground.raised(eye))) set.positions.push_back(space_.ground.raised(eye));
  if (!set.positions.empty()) return true;
  problems_.error(
      "P069", wish.place,
      fmt::format(FMT_STRING("objects stand wherever eyes of \"{}\" could be; give some with \"at\""),
                  wish.name));
  return false;
}

/// Towards the middle of what is named, each eye its own way.
bool EyePlacer::look_at_object(const model::EyesWish& wish, EyeSet& set) {
  std::optional<Vec2> target;
  std::vector<std::string> names = {"4 directions", "8 directions"};
  const auto consider = [&](const std::string& name, const geometry::Polygon& outline) {
    names.push_back(name);
    if (name != wish.looking || target) return;
    target = Vec2::Zero();
    for (const Vec2& p : outline) *target += p / double(outline.size());
  };
  for (const PlanShape& object : space_.objects) consider(object.name, object.extent.plan);
  for (const Opening& opening : space_.openings) consider(opening.name, opening.plan());
  for (std::size_t w = 0; w < space_.wall_names.size(); ++w)
    consider(space_.wall_names[w], {space_.outline[w], space_.outline[(w + 1) % space_.outline.size()]});
  if (!target) {
    const std::string near = nearest_word(wish.looking, names);
    problems_.error(
        "P070", wish.looking_place,
        fmt::format(
            FMT_STRING("\"looking\" is \"{}\"; {}expected degrees counter-clockwise from +x (one or a "
                       "list), \"4 directions\", \"8 directions\", or the name of an object, an opening "
                       "or a wall"),
            wish.looking, near.empty() ? "" : fmt::format(FMT_STRING("did you mean \"{}\"? "), near)));
    return false;
  }
  set.looking = {"to " + wish.looking};
  for (const Vec3& eye : set.positions) {
    const Vec2 way = *target - eye.xy();
    set.azimuths_deg.push_back(way.norm() > 1e-6 ? std::atan2(way.y(), way.x()) / kDegree : 0);
  }
  return true;
}

bool EyePlacer::look(const model::EyesWish& wish, EyeSet& set) {
  std::vector<double> azimuths;
  set.all_round = wish.looking.empty();
  if (wish.looking.empty() || wish.looking == "4 directions") azimuths = {0, 90, 180, 270};
  if (wish.looking == "8 directions") azimuths = {0, 45, 90, 135, 180, 225, 270, 315};
  if (azimuths.empty()) {
    bool numbers = true;
    for (std::size_t start = 0; numbers && start <= wish.looking.size();) {
      const std::size_t end = std::min(wish.looking.find(',', start), wish.looking.size());
      std::size_t first = start;
      while (first < end && wish.looking[first] == ' ') ++first;
      double value = 0;
      numbers = units::parse_number(std::string_view(wish.looking).substr(first, end - first), value) &&
                std::abs(value) <= 3600;
      azimuths.push_back(value);
      start = end + 1;
    }
    if (!numbers) return look_at_object(wish, set);
  }
  for (const double azimuth : azimuths) set.looking.push_back(fmt::format(FMT_STRING("{:g} deg"), azimuth));
  for (std::size_t p = 0; p < set.positions.size(); ++p)
    set.azimuths_deg.insert(set.azimuths_deg.end(), azimuths.begin(), azimuths.end());
  return true;
}

std::optional<EyeSet> EyePlacer::place(const model::EyesWish& wish) {
  EyeSet set;
  set.name = wish.name;
  if (!settle_height(wish, set)) return std::nullopt;
  if (wish.at) {
    set.positions = {space_.ground.raised({wish.at->x(), wish.at->y(), set.height_m})};
    if (!space_.outdoors && !geometry::contains(space_.outline, wish.at->head<2>())) {
      problems_.error("P068", wish.place,
                      fmt::format(FMT_STRING("\"{}\" at {} lie outside room \"{}\""), wish.name,
                                  problems_.position(set.positions[0]), room_.name));
      return std::nullopt;
    }
  } else if (!lay_all_over(wish, set)) {
    return std::nullopt;
  }
  if (!look(wish, set)) return std::nullopt;
  if (double(set.size()) <= kMostViews) return set;
  problems_.error(
      "P069", wish.place,
      fmt::format(FMT_STRING("\"{}\" are {} eyes and directions; at most {:.0f} are rated. Give a "
                             "wider \"spacing\""),
                  wish.name, set.size(), kMostViews));
  return std::nullopt;
}

/// Adds a limit unless a stricter one of that standard and quantity is there.
void add_limit(std::vector<standards::Demand>& limits, const standards::Demand& demand) {
  for (standards::Demand& known : limits) {
    if (known.standard != demand.standard || known.quantity != demand.quantity) continue;
    if (demand.required < known.required) known = demand;
    return;
  }
  limits.push_back(demand);
}

}  // namespace

bool is_seated(const model::Room& room, const Tasks& tasks) {
  if (room.eyes != model::Eyes::by_task) return room.eyes == model::Eyes::seated;
  if (tasks.empty()) return false;
  const standards::Requirement& row = tasks.front().row;
  if (!row.posture.empty()) return row.posture == "seated";
  return row.plane_height_m.value_or(0) >= kSeatedPlane;
}

GlareBrief glare_brief(const model::Room& room, const std::vector<Tasks>& tasks,
                       const std::string& standard) {
  GlareBrief wish;
  wish.method = room.glare_method;
  wish.screens = room.screens;
  std::set<std::string> standards;
  for (const Tasks& of_one : tasks)
    for (const standards::TaskInForce& task : of_one) {
      for (const standards::Demand& demand : glare_demands(task)) add_limit(wish.limits, demand);
      const bool screens = task.row.remark.find(kScreenRemark) != std::string::npos;
      if (screens && !wish.screens) wish.screens = model::ScreensWish{};
      if (screens) standards.insert(task.row.standard_name());
    }
  for (const standards::Demand& limit : wish.limits) {
    wish.rates_ugr = wish.rates_ugr || limit.quantity == standards::Quantity::unified_glare;
    wish.rates_gr = wish.rates_gr || limit.quantity == standards::Quantity::glare_rating;
  }
  if (!wish.rates_gr) wish.rates_ugr = true;
  if (wish.screens && standards.empty()) standards.insert(standard);
  for (const std::string& name : standards) {
    const model::ScreensWish& s = *wish.screens;
    const double limit = standards::luminance_limit({s.luminance_cd_m2, s.dark_background}, name);
    const bool by_class = name.rfind("ISO 8995-1:2002", 0) == 0;
    wish.screen_limits.push_back(
        {standards::Quantity::luminaire_luminance, limit, name, name + ", work with display screens",
         by_class ? "single" : "agreed",
         by_class ? "screens of good or medium class"
         : s.assumed
             ? "screens brighter than 200 cd/m2 with a light background are assumed; say otherwise with "
               "glare = { screens = { luminance = ... } }"
             : ""});
  }
  return wish;
}

std::vector<EyeSet> place_eyes(const model::Room& room, const Space& space, const GlareBrief& glare,
                               bool seated, Problems& problems) {
  EyePlacer placer(room, space, glare, seated, problems);
  std::vector<model::EyesWish> wishes = room.eye_wishes;
  std::map<std::string, std::string> names;  // by the names of their files
  if (wishes.empty() && !glare.limits.empty()) {
    wishes.emplace_back();
    wishes.back().name = "eyes";
    wishes.back().place = room.task_place;
    wishes.back().looking_place = room.task_place;
    // A narrow passage has eyes too: in its middle.
    const auto box = geometry::inset_bounding_box(space.outline, 0);
    if (box) wishes.back().inset_m = std::min(kDefaultInset, 0.4 * box->size().minCoeff());
    if (space.height_m <= standards::kStandingEye) return {};
  }
  std::vector<EyeSet> sets;
  const bool seats =
      std::any_of(wishes.begin(), wishes.end(), [](const auto& wish) { return bool(wish.at); });
  for (const model::EyesWish& wish : wishes) {
    const auto [known, is_new] = names.emplace(model::file_name_part(wish.name), wish.name);
    if (!is_new)
      problems.error("P008", wish.place,
                     fmt::format(FMT_STRING("sets of eyes \"{}\" and \"{}\" of \"{}\" would write the same "
                                            "files; give one another name"),
                                 known->second, wish.name, room.name));
    auto set = placer.place(wish);
    if (!set) continue;
    set->verified = wish.verified.value_or(wish.at || !seats);
    sets.push_back(std::move(*set));
  }
  return sets;
}

std::vector<Point> points_at(const std::vector<EyeSet>& eyes) {
  std::vector<Point> points;
  for (const EyeSet& set : eyes)
    for (std::size_t v = 0; !set.cell_m && v < set.size(); ++v) {
      const std::string& looking = set.looking[v % set.directions()];
      points.push_back(
          {fmt::format(FMT_STRING("eye {}, {}"), set.name, looking), {set.position(v), set.sight(v)}, true});
    }
  return points;
}

}  // namespace glow::space
