#include "files/plans/ifc/placement.hpp"

#include <fmt/format.h>

namespace glow::files::ifc {
namespace {

constexpr std::size_t kMostRelative = 200;

std::optional<Vec3> vector_of(const Value& list) {
  if (!list.is_list() || list.items.size() < 2 || list.items.size() > 3) return std::nullopt;
  Vec3 v = Vec3::Zero();
  for (std::size_t k = 0; k < list.items.size(); ++k) {
    const auto number = number_of(list.items[k]);
    if (!number) return std::nullopt;
    v[Eigen::Index(k)] = *number;
  }
  return v;
}

/// A motion with x along `x` as far as z along `z` allows.
Eigen::Affine3d motion(const Vec3& at, Vec3 x, const Vec3& z) {
  x -= z * z.dot(x);
  if (x.norm() < 1e-9) x = (std::abs(z.x()) < 0.9 ? Vec3::UnitX() : Vec3::UnitY()) - z * z.x();
  x.normalize();
  Eigen::Affine3d result = Eigen::Affine3d::Identity();
  result.linear().col(0) = x;
  result.linear().col(1) = z.cross(x);
  result.linear().col(2) = z;
  result.translation() = at;
  return result;
}

}  // namespace

std::optional<Vec3> Placements::point(const Item& item) const {
  if (!item.is("IFCCARTESIANPOINT")) return std::nullopt;
  const auto p = vector_of(item.at(0));
  if (!p)
    file_.error("bad-number", *item.record,
                number_word(*item.record) + " is no point of two or three numbers");
  return p;
}

std::optional<Vec3> Placements::direction(const Item& item) const {
  if (!item.is("IFCDIRECTION")) return std::nullopt;
  const auto d = vector_of(item.at(0));
  if (!d || !(d->norm() > 1e-12)) return std::nullopt;
  return d->normalized();
}

Eigen::Affine3d Placements::axes(const Item& placement) {
  if (!placement) return Eigen::Affine3d::Identity();
  const Vec3 at = point(file_.item(placement, 0)).value_or(Vec3::Zero());
  if (placement.is("IFCAXIS2PLACEMENT2D"))
    return motion(at, direction(file_.item(placement, 1)).value_or(Vec3::UnitX()), Vec3::UnitZ());
  if (placement.is("IFCAXIS2PLACEMENT3D"))
    return motion(at, direction(file_.item(placement, 2)).value_or(Vec3::UnitX()),
                  direction(file_.item(placement, 1)).value_or(Vec3::UnitZ()));
  return Eigen::Affine3d::Identity();
}

Eigen::Affine3d Placements::operation(const Item& t) {
  const Vec3 at = point(file_.item(t, 2)).value_or(Vec3::Zero());
  const bool uneven = t.type->find("NONUNIFORM") != std::string::npos;
  const double scale = t.number(3).value_or(1);
  Eigen::Affine3d result = Eigen::Affine3d::Identity();
  Vec3 x = direction(file_.item(t, 0)).value_or(Vec3::UnitX());
  const auto y = direction(file_.item(t, 1));
  const bool flat = t.type->find("OPERATOR2D") != std::string::npos;
  const auto z = flat ? std::optional(Vec3(Vec3::UnitZ())) : direction(file_.item(t, 4));
  const Vec3 own_z = z.value_or(y ? Vec3(x.cross(*y).normalized()) : Vec3(Vec3::UnitZ()));
  x = (x - own_z * own_z.dot(x)).normalized();
  Vec3 own_y = own_z.cross(x);
  if (y && own_y.dot(*y) < 0) own_y = -own_y;  // mirrored
  const std::size_t first = flat ? 4 : 5;
  result.linear().col(0) = x * scale;
  result.linear().col(1) = own_y * (uneven ? t.number(first).value_or(scale) : scale);
  result.linear().col(2) = own_z * (uneven && !flat ? t.number(first + 1).value_or(scale) : scale);
  result.translation() = at;
  return result;
}

std::optional<Eigen::Affine3d> Placements::of(std::uint64_t number) {
  if (number == 0) return Eigen::Affine3d::Identity();
  const auto known = known_.find(number);
  if (known != known_.end()) return known->second;
  const Item item = file_.item(number);
  if (!item) return std::nullopt;
  if (!item.is("IFCLOCALPLACEMENT")) {
    file_.doubt("placement-kind", *item.record,
                fmt::format(FMT_STRING("{} places things by {}, which is not read; they were left out"),
                            number_word(*item.record), *item.type));
    return known_[number] = std::nullopt;
  }
  if (!open_.insert(number).second || open_.size() > kMostRelative) {
    file_.error(open_.size() > kMostRelative ? "too-deep" : "placement-cycle", *item.record,
                fmt::format(FMT_STRING("the placement {} is relative to itself, through others"),
                            number_word(*item.record)));
    return std::nullopt;
  }
  const auto base = of(item.reference(0));
  open_.erase(number);
  std::optional<Eigen::Affine3d> result;
  if (base) result = *base * axes(file_.item(item, 1));
  return known_[number] = result;
}

}  // namespace glow::files::ifc
