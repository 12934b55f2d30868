#include "core/transport/tracing/sampling.hpp"

#include <cmath>

namespace glow::transport {

double radical_inverse(std::uint32_t i, std::uint32_t scramble) {
  i = (i << 16) | (i >> 16);
  i = ((i & 0x00FF00FFu) << 8) | ((i & 0xFF00FF00u) >> 8);
  i = ((i & 0x0F0F0F0Fu) << 4) | ((i & 0xF0F0F0F0u) >> 4);
  i = ((i & 0x33333333u) << 2) | ((i & 0xCCCCCCCCu) >> 2);
  i = ((i & 0x55555555u) << 1) | ((i & 0xAAAAAAAAu) >> 1);
  return double(i ^ scramble) * 0x1.0p-32;
}

Vec2 even_point(std::uint32_t i, const Vec2& shift) {
  constexpr double kPlastic = 1.32471795724474602596;  // root of x^3 = x + 1
  const Vec2 p(shift.x() + i / kPlastic, shift.y() + i / (kPlastic * kPlastic));
  return {p.x() - std::floor(p.x()), p.y() - std::floor(p.y())};
}

EvenPoints::EvenPoints() {
  for (std::uint32_t i = 0; i < kLength; ++i) {
    const Vec2 p = even_point(i, Vec2::Zero());
    s_.push_back(float(p.x()));
    t_.push_back(float(p.y()));
  }
}

void EvenPoints::shifted(std::uint32_t first, int count, const Eigen::Vector2f& shift, float* s,
                         float* t) const {
  const float *from_s = s_.data() + first % kLength, *from_t = t_.data() + first % kLength;
  for (int i = 0; i < count; ++i) {
    s[i] = from_s[i] + shift.x();
    t[i] = from_t[i] + shift.y();
    s[i] -= s[i] >= 1 ? 1.0f : 0.0f;
    t[i] -= t[i] >= 1 ? 1.0f : 0.0f;
  }
}

const EvenPoints& EvenPoints::table() {
  static const EvenPoints points;
  return points;
}

namespace {

/// Solves cdf(x) = u on [low, high], where cdf rises with the slope `density`: Newton's steps, halving where
/// they would leave the interval.
template <class Cdf, class Density>
double inverse(const Cdf& cdf, const Density& density, double u, double low, double high) {
  constexpr double kClose = 1e-10;
  double x = (low + high) / 2;
  for (int step = 0; step < 60 && high - low > kClose; ++step) {
    const double excess = cdf(x) - u;
    (excess < 0 ? low : high) = x;
    const double next = x - excess / density(x);
    if (std::abs(next - x) < kClose) return x;
    x = next > low && next < high ? next : (low + high) / 2;
  }
  return x;
}

/// The direction for two evenly spread numbers, with the kernel's density.
Vec3 drawn(readings::Kernel kernel, double s, double t) {
  const auto along = [](double polar, double azimuth) {
    return Vec3(std::sin(polar) * std::cos(azimuth), std::sin(polar) * std::sin(azimuth), std::cos(polar));
  };
  const double around = 2 * kPi * t;
  // Density sin^2 of the polar angle, times the solid angle's sin: cylinders.
  const auto from_axis = [&] {
    return inverse([](double x) { return (x - std::sin(x) * std::cos(x)) / kPi; },
                   [](double x) { return 2 * std::sin(x) * std::sin(x) / kPi; }, s, 0, kPi);
  };
  switch (kernel) {
    case readings::Kernel::plane:
      return along(std::asin(std::sqrt(s)), around);  // sin^2 uniform: the cosine law
    case readings::Kernel::cylinder:
      return along(from_axis(), around);
    case readings::Kernel::semicylinder:
      return along(from_axis(),
                   inverse([](double x) { return (x + kPi + std::sin(x)) / (2 * kPi); },
                           [](double x) { return (1 + std::cos(x)) / (2 * kPi); }, t, -kPi, kPi));
    case readings::Kernel::hemisphere: {
      // (1 + c) dc over [-1, 1]: cumulative (1 + c)^2 / 4.
      return along(std::acos(2 * std::sqrt(1 - s) - 1), around);
    }
    case readings::Kernel::sphere:
      return along(std::acos(1 - 2 * s), around);
  }
  return Vec3::UnitZ();
}

}  // namespace

DirectionTable::DirectionTable(readings::Kernel kernel, int size) : size_(size), blocks_(kBlocks) {
  for (int b = 0; b < kBlocks; ++b) {
    const std::uint64_t chance = mixed(0x676C6F77u, std::uint64_t(b));
    const auto scramble = static_cast<std::uint32_t>(chance);
    const double jitter = unit_interval(mixed(chance, 1));
    for (int i = 0; i < size; ++i) {
      const double around = radical_inverse(std::uint32_t(i), scramble);
      const Vec3 direction = drawn(kernel, (i + jitter) / size, around);
      for (std::size_t axis = 0; axis < 3; ++axis)
        blocks_[std::size_t(b)][axis][std::size_t(i)] = float(direction[Eigen::Index(axis)]);
    }
  }
}

namespace {

/// Tables of one kernel, made when it is first asked for: most runs need one kernel only.
template <readings::Kernel kernel>
const DirectionTable& table_of(int size) {
  static const std::array<DirectionTable, 4> tables = {DirectionTable(kernel, 16), DirectionTable(kernel, 32),
                                                       DirectionTable(kernel, 64),
                                                       DirectionTable(kernel, 128)};
  return tables[size == 16 ? 0 : size == 32 ? 1 : size == 64 ? 2 : 3];
}

}  // namespace

const DirectionTable& DirectionTable::of(readings::Kernel kernel, int size) {
  switch (kernel) {
    case readings::Kernel::cylinder:
      return table_of<readings::Kernel::cylinder>(size);
    case readings::Kernel::semicylinder:
      return table_of<readings::Kernel::semicylinder>(size);
    case readings::Kernel::hemisphere:
      return table_of<readings::Kernel::hemisphere>(size);
    case readings::Kernel::sphere:
      return table_of<readings::Kernel::sphere>(size);
    case readings::Kernel::plane:
      break;
  }
  return table_of<readings::Kernel::plane>(size);
}

HemisphereFrame::HemisphereFrame(const Vec3& normal, std::uint64_t chance) : z(normal.cast<float>()) {
  const Vec3 helper = std::abs(normal.z()) < 0.9 ? Vec3::UnitZ() : Vec3::UnitX();
  const Vec3 a = helper.cross(normal).normalized();
  const Vec3 b = normal.cross(a);
  const double angle = 2 * kPi * unit_interval(chance);
  const Vec3 along_x = std::cos(angle) * a + std::sin(angle) * b;
  x = along_x.cast<float>();
  y = normal.cross(along_x).cast<float>();
}

void HemisphereFrame::world(const geometry::RayBlock::Coordinates& d, int count,
                            geometry::RayBlock::Coordinates& out) const {
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const Eigen::Index k = Eigen::Index(axis);
    const float along_x = x[k], along_y = y[k], along_z = z[k];
    for (std::size_t i = 0; i < std::size_t(count); ++i)
      out[axis][i] = d[0][i] * along_x + d[1][i] * along_y + d[2][i] * along_z;
  }
}

}  // namespace glow::transport
