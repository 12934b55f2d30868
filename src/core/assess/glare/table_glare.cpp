#include "core/assess/glare/table_glare.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/cavity/ugr_table.hpp"

namespace glow::assess {
namespace {

constexpr double kSmallest = 2, kLargest = 12;  // heights: what the table holds
constexpr double kSquare = 0.02;                // sine of the angle by which things may be out of square
constexpr double kSameHeight = 0.05;            // m
constexpr double kEven = 0.15;                  // of the spacing: how uneven an array may be
constexpr double kLowest = 0.3;                 // m above the eye

/// The sides of a rectangular room.
struct Sides {
  Vec2 corner, u, v;  ///< unit vectors
  double along_u = 0, along_v = 0;
};

std::optional<Sides> sides_of(const geometry::Polygon& outline) {
  if (outline.size() != 4) return std::nullopt;
  const Vec2 a = outline[1] - outline[0], b = outline[3] - outline[0];
  const Vec2 opposite = outline[2] - outline[1] - b;
  if (std::abs(a.normalized().dot(b.normalized())) > kSquare || opposite.norm() > kSquare * b.norm())
    return std::nullopt;
  return Sides{outline[0], a.normalized(), b.normalized(), a.norm(), b.norm()};
}

/// Whether places lie evenly over a side: the outer ones half a spacing from the ends.
bool is_even(std::vector<double> places, double side) {
  std::sort(places.begin(), places.end());
  const auto same = [](double a, double b) { return std::abs(a - b) < kSameHeight; };
  places.erase(std::unique(places.begin(), places.end(), same), places.end());
  const double spacing = side / double(places.size());
  for (std::size_t i = 0; i < places.size(); ++i)
    if (std::abs(places[i] - (double(i) + 0.5) * spacing) > kEven * spacing) return false;
  return true;
}

std::size_t distinct(std::vector<double> places) {
  std::sort(places.begin(), places.end());
  std::size_t count = 1;
  for (std::size_t i = 1; i < places.size(); ++i) count += places[i] - places[i - 1] > kSameHeight;
  return count;
}

using Against = TableGlare::Against;

double tabular_value(const photometry::Photometry& photometry, const cavity::TableRoom& room,
                     cavity::Sight sight, const cavity::Reflectances& set) {
  return cavity::tabular_ugr(photometry, room, sight, {set})[0];
}

class TableReader {
 public:
  TableReader(const space::Space& space, const space::GlareBrief& brief,
              const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights,
              const TabularMemory* memory)
      : space_(space),
        brief_(brief),
        groups_(groups),
        weights_(weights),
        memory_(memory),
        sides_(sides_of(space.outline)) {}

  TableGlare read() {
    look_for_reasons();
    if (!result_.why_not.empty()) return std::move(result_);
    result_.mark = groups_.front().mark;
    choose_reflectances();
    add(sides_->u, sides_->along_u, sides_->along_v, 1);
    add(sides_->v, sides_->along_v, sides_->along_u, 2);
    return std::move(result_);
  }

 private:
  void look_for_reasons();
  void look_at_luminaires();
  void choose_reflectances();
  void add(const Vec2& sight, double along, double across, int wall);
  void against(Against reason) {
    if (std::find(result_.why_not.begin(), result_.why_not.end(), reason) == result_.why_not.end())
      result_.why_not.push_back(reason);
  }
  void remark(const TableGlare::Remark& remark) {
    for (const TableGlare::Remark& known : result_.remarks)
      if (known.kind == remark.kind) return;
    result_.remarks.push_back(remark);
  }
  double height() const { return groups_.front().luminaires.front().frame.origin.z() - brief_.table_eye_m; }

  const space::Space& space_;
  const space::GlareBrief& brief_;
  const std::vector<space::LuminaireGroup>& groups_;
  const lighting::Weights& weights_;
  const TabularMemory* memory_;
  std::optional<Sides> sides_;
  cavity::Reflectances set_;
  TableGlare result_;
};

void TableReader::look_for_reasons() {
  if (!sides_) against(Against::not_rectangular);
  if (!space_.flat_ceiling) against(Against::ceiling_not_flat);
  if (groups_.empty()) return against(Against::no_luminaires);
  const space::LuminaireGroup& first = groups_.front();
  for (std::size_t g = 0; g < groups_.size(); ++g)
    if (groups_[g].photometry != first.photometry || weights_[g].output != weights_.front().output)
      against(Against::several_kinds);
  if (weights_.front().output <= 0) against(Against::switched_off);
  if (const auto reason = cavity::no_ugr_table(*first.photometry))
    against(*reason == cavity::NoTable::no_luminous_size    ? Against::no_luminous_size
            : *reason == cavity::NoTable::no_luminous_width ? Against::no_luminous_width
                                                            : Against::no_light_downwards);
  else if (!(memory_ ? memory_->symmetric(first.photometry)
                     : cavity::has_one_ugr_table(first.photometry->table)))
    against(Against::not_symmetric);
  if (height() < kLowest) against(Against::not_above_eye);
  if (sides_) look_at_luminaires();
}

void TableReader::look_at_luminaires() {
  std::vector<double> along_u, along_v;
  const photometry::PlacedLuminaire& first = groups_.front().luminaires.front();
  for (const space::LuminaireGroup& group : groups_)
    for (const photometry::PlacedLuminaire& luminaire : group.luminaires) {
      const geometry::Frame& frame = luminaire.frame;
      const Vec2 at = frame.origin.xy() - sides_->corner;
      along_u.push_back(at.dot(sides_->u));
      along_v.push_back(at.dot(sides_->v));
      if (frame.g0.z() > -1 + 1e-6) against(Against::tilted);
      const double turned = std::abs(frame.c0.xy().dot(sides_->u));
      if (!luminaire.table->rotational() && std::min(turned, std::abs(1 - turned)) > kSquare)
        against(Against::not_square);
      if (std::abs(frame.origin.z() - first.frame.origin.z()) > kSameHeight)
        against(Against::several_heights);
      if (std::abs(std::abs(frame.c0.dot(first.frame.c0)) - 1) > kSquare && !luminaire.table->rotational())
        against(Against::turned_several_ways);
    }
  if (distinct(along_u) * distinct(along_v) != along_u.size() || !is_even(along_u, sides_->along_u) ||
      !is_even(along_v, sides_->along_v))
    against(Against::not_even);
}

/// The nearest set of the table; walls count most, since they are the background.
void TableReader::choose_reflectances() {
  const model::Reflectances& own = space_.reflectances;
  double nearest = 1e9;
  for (const cavity::Reflectances& r : cavity::UgrTable::reflectances()) {
    const double off =
        std::abs(r.top - own.ceiling) + 2 * std::abs(r.walls - own.walls) + std::abs(r.bottom - own.floor);
    if (off < nearest) set_ = r;
    nearest = std::min(nearest, off);
  }
  const auto per_cent = [](double share) { return static_cast<int>(std::lround(100 * share)); };
  result_.reflectances = {per_cent(set_.top), per_cent(set_.walls), per_cent(set_.bottom)};
  constexpr double kFar = 0.15;
  if (std::abs(set_.walls - own.walls) > kFar || std::abs(set_.top - own.ceiling) > kFar)
    remark({TableGlare::Remark::Kind::reflectances_differ, 0, 0});
}

void TableReader::add(const Vec2& sight, double along, double across, int wall) {
  const space::LuminaireGroup& group = groups_.front();
  const double x = across / height(), y = along / height();
  const cavity::TableRoom room{std::clamp(x, kSmallest, kLargest), std::clamp(y, kSmallest, kLargest)};
  const Vec3& c0 = group.luminaires.front().frame.c0;
  const bool along_c0 = std::abs(c0.xy().dot(sight)) > std::sqrt(0.5);
  const auto plane = along_c0 ? cavity::Sight::along_c0 : cavity::Sight::along_c90;
  const photometry::Photometry& p = *group.photometry;
  TableGlare::Value value;
  using Along = TableGlare::Value::Along;
  value.along = std::abs(sight.y()) < 1e-6 ? Along::x : std::abs(sight.x()) < 1e-6 ? Along::y : Along::wall;
  value.wall = wall;
  value.x_h = x;
  value.y_h = y;
  value.crosswise = along_c0 == (p.area.extent_c0_m <= p.area.extent_c90_m);
  value.ugr =
      (memory_ ? memory_->ugr(group.photometry, room, plane, set_) : tabular_value(p, room, plane, set_)) +
      cavity::flux_correction(p) + 8 * std::log10(std::max(1e-6, weights_.front().output));
  if (std::isfinite(value.ugr)) result_.values.push_back(value);
  const bool beyond = x < kSmallest || y < kSmallest || x > kLargest || y > kLargest;
  if (beyond) remark({TableGlare::Remark::Kind::beyond_table, 0, 0});
}

}  // namespace

bool TabularMemory::symmetric(const std::shared_ptr<const photometry::Photometry>& photometry) const {
  const std::lock_guard<std::mutex> lock(mutex_);
  Luminaire& known = luminaires_[photometry.get()];
  known.photometry = photometry;
  if (!known.symmetric) known.symmetric = cavity::has_one_ugr_table(photometry->table);
  return *known.symmetric;
}

double TabularMemory::ugr(const std::shared_ptr<const photometry::Photometry>& photometry,
                          const cavity::TableRoom& room, cavity::Sight sight,
                          const cavity::Reflectances& set) const {
  const std::lock_guard<std::mutex> lock(mutex_);
  Luminaire& known = luminaires_[photometry.get()];
  known.photometry = photometry;
  const auto [found, is_new] = known.values.try_emplace(
      {room.x, room.y, sight == cavity::Sight::along_c0 ? 0.0 : 1.0, set.top, set.walls, set.bottom});
  if (is_new) found->second = tabular_value(*photometry, room, sight, set);
  return found->second;
}

std::optional<double> TableGlare::worst() const {
  std::optional<double> worst;
  for (const Value& value : values) worst = std::max(worst.value_or(value.ugr), value.ugr);
  return worst;
}

TableGlare table_glare(const space::Space& space, const space::GlareBrief& brief,
                       const std::vector<space::LuminaireGroup>& groups, const lighting::Weights& weights,
                       const TabularMemory* memory) {
  return TableReader(space, brief, groups, weights, memory).read();
}

}  // namespace glow::assess
