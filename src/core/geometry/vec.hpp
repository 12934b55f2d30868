#pragma once

#include <Eigen/Core>
#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>

namespace glow {

// Eigen's vectors, whose sums and products are vectors at once instead of expressions: each kind of
// expression is a type of its own, some 50 ms to compile, and a build held 2000. Numbers are added in Eigen's
// order. What Eigen itself gives, as by a transformation, is made a Vec2 or Vec3 before it is reckoned with.

/// Metres; of a room's plan, or of what is drawn.
struct Vec2 : Eigen::Vector2d {
  Vec2() = default;
  Vec2(double x, double y) : Eigen::Vector2d(x, y) {}
  template <class Expression>
  Vec2(const Eigen::EigenBase<Expression>& other) : Eigen::Vector2d(other.derived()) {}

  static Vec2 Constant(double value) { return {value, value}; }
  static Vec2 Zero() { return Constant(0); }
  static Vec2 Ones() { return Constant(1); }
  static Vec2 UnitX() { return {1, 0}; }
  static Vec2 UnitY() { return {0, 1}; }

  double dot(const Vec2& o) const { return x() * o.x() + y() * o.y(); }
  double squaredNorm() const { return dot(*this); }
  double norm() const { return std::sqrt(squaredNorm()); }
  Vec2 normalized() const { return squaredNorm() > 0 ? *this / norm() : *this; }

  Vec2 cwiseMin(const Vec2& o) const { return {std::min(x(), o.x()), std::min(y(), o.y())}; }
  Vec2 cwiseMax(const Vec2& o) const { return {std::max(x(), o.x()), std::max(y(), o.y())}; }
  Vec2 cwiseMin(double most) const { return cwiseMin(Constant(most)); }
  Vec2 cwiseMax(double least) const { return cwiseMax(Constant(least)); }
  Vec2 cwiseProduct(const Vec2& o) const { return {x() * o.x(), y() * o.y()}; }
  Vec2 cwiseQuotient(const Vec2& o) const { return {x() / o.x(), y() / o.y()}; }
  Vec2 cwiseAbs() const { return {std::abs(x()), std::abs(y())}; }

  Vec2& operator+=(const Vec2& o) { return *this = *this + o; }
  Vec2& operator-=(const Vec2& o) { return *this = *this - o; }
  Vec2& operator*=(double factor) { return *this = *this * factor; }
  Vec2& operator/=(double divisor) { return *this = *this / divisor; }
  friend Vec2 operator-(const Vec2& a) { return {-a.x(), -a.y()}; }
  friend Vec2 operator+(const Vec2& a, const Vec2& b) { return {a.x() + b.x(), a.y() + b.y()}; }
  friend Vec2 operator-(const Vec2& a, const Vec2& b) { return {a.x() - b.x(), a.y() - b.y()}; }
  friend Vec2 operator*(const Vec2& a, double factor) { return {a.x() * factor, a.y() * factor}; }
  friend Vec2 operator*(double factor, const Vec2& a) { return {factor * a.x(), factor * a.y()}; }
  friend Vec2 operator/(const Vec2& a, double divisor) { return {a.x() / divisor, a.y() / divisor}; }
  friend Vec2 operator*(const Vec2& a, int factor) { return a * double(factor); }
  friend Vec2 operator*(int factor, const Vec2& a) { return double(factor) * a; }
  friend Vec2 operator/(const Vec2& a, int divisor) { return a / double(divisor); }
  friend bool operator==(const Vec2& a, const Vec2& b) { return a.x() == b.x() && a.y() == b.y(); }
  friend bool operator!=(const Vec2& a, const Vec2& b) { return !(a == b); }
};

/// Metres, right-handed, z up; a room's plan lies in x-y.
struct Vec3 : Eigen::Vector3d {
  Vec3() = default;
  Vec3(double x, double y, double z) : Eigen::Vector3d(x, y, z) {}
  template <class Expression>
  Vec3(const Eigen::EigenBase<Expression>& other) : Eigen::Vector3d(other.derived()) {}

  static Vec3 Constant(double value) { return {value, value, value}; }
  static Vec3 Zero() { return Constant(0); }
  static Vec3 Ones() { return Constant(1); }
  static Vec3 UnitX() { return {1, 0, 0}; }
  static Vec3 UnitY() { return {0, 1, 0}; }
  static Vec3 UnitZ() { return {0, 0, 1}; }

  double dot(const Vec3& o) const { return x() * o.x() + y() * o.y() + z() * o.z(); }
  Vec3 cross(const Vec3& o) const {
    return {y() * o.z() - z() * o.y(), z() * o.x() - x() * o.z(), x() * o.y() - y() * o.x()};
  }
  double squaredNorm() const { return dot(*this); }
  double norm() const { return std::sqrt(squaredNorm()); }
  /// Where it lies in plan.
  Vec2 xy() const { return {x(), y()}; }
  Vec3 normalized() const { return squaredNorm() > 0 ? *this / norm() : *this; }

  Vec3 cwiseMin(const Vec3& o) const {
    return {std::min(x(), o.x()), std::min(y(), o.y()), std::min(z(), o.z())};
  }
  Vec3 cwiseMax(const Vec3& o) const {
    return {std::max(x(), o.x()), std::max(y(), o.y()), std::max(z(), o.z())};
  }
  Vec3 cwiseMin(double most) const { return cwiseMin(Constant(most)); }
  Vec3 cwiseMax(double least) const { return cwiseMax(Constant(least)); }
  Vec3 cwiseProduct(const Vec3& o) const { return {x() * o.x(), y() * o.y(), z() * o.z()}; }
  Vec3 cwiseQuotient(const Vec3& o) const { return {x() / o.x(), y() / o.y(), z() / o.z()}; }
  Vec3 cwiseAbs() const { return {std::abs(x()), std::abs(y()), std::abs(z())}; }

  Vec3& operator+=(const Vec3& o) { return *this = *this + o; }
  Vec3& operator-=(const Vec3& o) { return *this = *this - o; }
  Vec3& operator*=(double factor) { return *this = *this * factor; }
  Vec3& operator/=(double divisor) { return *this = *this / divisor; }
  friend Vec3 operator-(const Vec3& a) { return {-a.x(), -a.y(), -a.z()}; }
  friend Vec3 operator+(const Vec3& a, const Vec3& b) {
    return {a.x() + b.x(), a.y() + b.y(), a.z() + b.z()};
  }
  friend Vec3 operator-(const Vec3& a, const Vec3& b) {
    return {a.x() - b.x(), a.y() - b.y(), a.z() - b.z()};
  }
  friend Vec3 operator*(const Vec3& a, double f) { return {a.x() * f, a.y() * f, a.z() * f}; }
  friend Vec3 operator*(double f, const Vec3& a) { return {f * a.x(), f * a.y(), f * a.z()}; }
  friend Vec3 operator/(const Vec3& a, double divisor) {
    return {a.x() / divisor, a.y() / divisor, a.z() / divisor};
  }
  friend Vec3 operator*(const Vec3& a, int factor) { return a * double(factor); }
  friend Vec3 operator*(int factor, const Vec3& a) { return double(factor) * a; }
  friend Vec3 operator/(const Vec3& a, int divisor) { return a / double(divisor); }
  friend bool operator==(const Vec3& a, const Vec3& b) {
    return a.x() == b.x() && a.y() == b.y() && a.z() == b.z();
  }
  friend bool operator!=(const Vec3& a, const Vec3& b) { return !(a == b); }
};

/// Single precision, for rays: from the middle of the geometry (Geometry::middle), so that digits go where
/// they matter.
using Vec3f = Eigen::Vector3f;

inline constexpr double kPi = 3.14159265358979323846;
inline constexpr double kDegree = kPi / 180.0;
/// 1 / (2 sqrt 3): Gauss's two points lie so far from the middle of an interval of length 1.
inline constexpr double kGauss = 0.28867513459481287;

}  // namespace glow
