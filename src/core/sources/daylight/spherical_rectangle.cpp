#include "core/sources/daylight/spherical_rectangle.hpp"

#include <algorithm>
#include <cmath>

namespace glow::sources {
namespace {

constexpr double kInPlane = 1e-9;  // m
constexpr double kFar = 0.7;       // diagonal over distance
constexpr double kSmall = 1e-5;    // sr: below it the formulas for what is near cancel

}  // namespace

SphericalRectangle::SphericalRectangle(const Vec3& eye, const Vec3& corner, const Vec3& along, const Vec3& up)
    : eye_(eye) {
  const double width = along.norm(), height = up.norm();
  x_ = along / width;
  y_ = up / height;
  z_ = x_.cross(y_);
  const Vec3 d = corner - eye;
  z0_ = d.dot(z_);
  if (z0_ > 0) {
    z_ = -z_;
    z0_ = -z0_;
  }
  x0_ = d.dot(x_);
  y0_ = d.dot(y_);
  x1_ = x0_ + width;
  y1_ = y0_ + height;
  if (-z0_ < kInPlane) return;
  const Vec3 middle((x0_ + x1_) / 2, (y0_ + y1_) / 2, z0_);
  by_area_ = width * width + height * height < kFar * kFar * middle.squaredNorm();
  if (!by_area_) prepare_near();
}

void SphericalRectangle::prepare_near() {
  const Vec3 v00(x0_, y0_, z0_), v01(x0_, y1_, z0_), v10(x1_, y0_, z0_), v11(x1_, y1_, z0_);
  const Vec3 n0 = v00.cross(v10).normalized(), n1 = v10.cross(v11).normalized();
  const Vec3 n2 = v11.cross(v01).normalized(), n3 = v01.cross(v00).normalized();
  const auto angle = [](const Vec3& a, const Vec3& b) { return std::acos(std::clamp(-a.dot(b), -1.0, 1.0)); };
  b0_ = n0.z();
  b1_ = n2.z();
  k_ = 2 * kPi - angle(n2, n3) - angle(n3, n0);
  solid_angle_ = angle(n0, n1) + angle(n1, n2) - k_;
  by_area_ = !(solid_angle_ > kSmall);
}

SphericalRectangle::Point SphericalRectangle::point(double s, double t) const {
  if (by_area_) {
    const Vec3 way(x0_ + s * (x1_ - x0_), y0_ + t * (y1_ - y0_), z0_);
    const double d2 = way.squaredNorm();
    return {eye_ + way.x() * x_ + way.y() * y_ + z0_ * z_,
            (x1_ - x0_) * (y1_ - y0_) * -z0_ / (d2 * std::sqrt(d2))};
  }
  const double au = s * solid_angle_ + k_;
  const double fu = (std::cos(au) * b0_ - b1_) / std::sin(au);
  const double cu = std::clamp((fu > 0 ? 1.0 : -1.0) / std::sqrt(fu * fu + b0_ * b0_), -1.0, 1.0);
  const double xu = std::clamp(-(cu * z0_) / std::sqrt(std::max(1e-300, 1 - cu * cu)), x0_, x1_);
  const double d2 = xu * xu + z0_ * z0_;
  const double h0 = y0_ / std::sqrt(d2 + y0_ * y0_), h1 = y1_ / std::sqrt(d2 + y1_ * y1_);
  const double hv = h0 + t * (h1 - h0), hv2 = hv * hv;
  const double yv = hv2 < 1 - 1e-12 ? std::clamp(hv * std::sqrt(d2) / std::sqrt(1 - hv2), y0_, y1_) : y1_;
  return {eye_ + xu * x_ + yv * y_ + z0_ * z_, solid_angle_};
}

}  // namespace glow::sources
