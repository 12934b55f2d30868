#include "files/plans/dxf/curves.hpp"

#include <algorithm>
#include <cmath>

namespace glow::files::dxf {
namespace {

constexpr int kMostChords = 2000, kFewestOfTurn = 12;
constexpr double kNoBulge = 1e-9;

int chords_of(double radius, double angle, double sag) {
  const double share = std::min(1.0, sag / std::max(radius, 1e-300));
  const double step = share < 1 ? 2 * std::acos(1 - share) : M_PI;
  const double least = std::abs(angle) / (2 * M_PI) * kFewestOfTurn;
  return int(std::clamp(std::ceil(std::max(std::abs(angle) / std::max(step, 1e-9), least)), 1.0,
                        double(kMostChords)));
}

void append_bulge(std::vector<Vec3>& points, const Vertex& from, const Vertex& to, double sag) {
  const Vec2 a = from.at.xy(), b = to.at.xy();
  const Vec2 along = b - a;
  const double bulge = std::clamp(from.bulge, -1e6, 1e6), length = along.norm();
  const double angle = 4 * std::atan(bulge);
  if (length > 0) {
    const double radius = length * (1 + bulge * bulge) / (4 * std::abs(bulge));
    const Vec2 across(-along.y(), along.x());
    const Vec2 centre = (a + b) / 2 + across * ((1 - bulge * bulge) / (4 * bulge));
    const int chords = chords_of(radius, angle, sag);
    const Vec2 arm = a - centre;
    for (int k = 1; k < chords; ++k) {
      const double turn = angle * k / chords, c = std::cos(turn), s = std::sin(turn);
      const Vec2 p = centre + Vec2(c * arm.x() - s * arm.y(), s * arm.x() + c * arm.y());
      points.push_back(Vec3(p.x(), p.y(), from.at.z()));
    }
  }
  points.push_back(to.at);
}

/// De Boor's way, rational where there are weights.
Vec3 on_spline(const Spline& spline, std::size_t span, double u) {
  const int p = spline.degree;
  Eigen::Vector4d d[24];
  for (int j = 0; j <= p; ++j) {
    const std::size_t i = span - std::size_t(p) + std::size_t(j);
    const double w = i < spline.weights.size() ? spline.weights[i] : 1;
    d[j] << spline.control[i] * w, w;
  }
  for (int r = 1; r <= p; ++r)
    for (int j = p; j >= r; --j) {
      const std::size_t i = span - std::size_t(p) + std::size_t(j);
      const double low = spline.knots[i], high = spline.knots[i + 1 + std::size_t(p - r)];
      const double share = high > low ? (u - low) / (high - low) : 0;
      d[j] = (1 - share) * d[j - 1] + share * d[j];
    }
  return std::abs(d[p].w()) > 1e-12 ? Vec3(d[p].head<3>() / d[p].w()) : spline.control[span];
}

/// Second derivatives at the points of the cubic through them that runs straight on at both ends, by the
/// lengths `h` of its stretches.
std::vector<Vec3> bends_of(const std::vector<Vec3>& points, const std::vector<double>& h) {
  const std::size_t n = points.size();
  std::vector<Vec3> bends(n, Vec3::Zero());
  std::vector<double> diagonal(n, 1);
  for (std::size_t k = 1; k + 1 < n; ++k) {  // elimination of a tridiagonal system
    const double before = k > 1 ? h[k - 1] / diagonal[k - 1] : 0;
    diagonal[k] = 2 * (h[k - 1] + h[k]) - before * h[k - 1];
    bends[k] = 6 * ((points[k + 1] - points[k]) / h[k] - (points[k] - points[k - 1]) / h[k - 1]) -
               before * bends[k - 1];
  }
  for (std::size_t k = n - 1; k-- > 1;) bends[k] = (bends[k] - h[k] * bends[k + 1]) / diagonal[k];
  return bends;
}

/// The smooth curve through points: a cubic by the length of its chords. Of a closed one the first and last
/// stretches are bent by those across its seam.
std::vector<Vec3> through(const std::vector<Vec3>& fit, bool closed, double sag) {
  std::vector<Vec3> points;
  for (const Vec3& point : fit)
    if (points.empty() || (point - points.back()).norm() > 1e-9) points.push_back(point);
  if (closed && points.size() > 1 && (points.front() - points.back()).norm() <= 1e-9) points.pop_back();
  const std::size_t n = points.size();
  if (n < 3) return points;
  constexpr std::size_t kAcross = 4;  // a bend dies out by a factor of four from point to point
  const std::size_t more = closed ? std::min(kAcross, n) : 0;
  std::vector<Vec3> all;
  for (std::size_t k = 0; k < n + 2 * more + (closed ? 1 : 0); ++k) all.push_back(points[(k + n - more) % n]);
  std::vector<double> h;
  for (std::size_t k = 1; k < all.size(); ++k) h.push_back((all[k] - all[k - 1]).norm());
  const std::vector<Vec3> bends = bends_of(all, h);
  std::vector<Vec3> curve;
  const std::size_t last = closed ? more + n : n - 1;
  for (std::size_t k = more; k < last; ++k) {
    const double bend = std::max(bends[k].norm(), bends[k + 1].norm());
    const double pieces = std::ceil(std::sqrt(bend * h[k] * h[k] / (8 * std::max(sag, 1e-12))));
    const int count = int(std::clamp(pieces, 1.0, double(kMostChords) / double(n) + 1));
    for (int j = 0; j < count; ++j) {
      const double t = double(j) / count, u = 1 - t;
      curve.push_back(u * all[k] + t * all[k + 1] +
                      h[k] * h[k] / 6 * ((u * u * u - u) * bends[k] + (t * t * t - t) * bends[k + 1]));
    }
  }
  if (!closed) curve.push_back(all.back());
  return curve;
}

bool is_whole(const Spline& spline) {
  const std::size_t n = spline.control.size(), p = std::size_t(spline.degree);
  return n > p && spline.knots.size() == n + p + 1 &&
         std::is_sorted(spline.knots.begin(), spline.knots.end());
}

}  // namespace

std::vector<Vec3> points_of(const Arc& arc, double sag) {
  const double radius = arc.axis.norm();
  std::vector<Vec3> points;
  if (!(radius > 0)) return points;
  double angle = arc.to - arc.from;
  if (arc.full) {
    angle = 2 * M_PI;
  } else {
    angle = std::fmod(angle, 2 * M_PI);
    if (angle <= 1e-12) angle += 2 * M_PI;
  }
  const Vec3 minor = Vec3(-arc.axis.y(), arc.axis.x(), 0) * arc.ratio;
  const int chords = chords_of(radius, angle, sag);
  for (int k = 0; k <= chords - (arc.full ? 1 : 0); ++k) {
    const double at = arc.from + angle * k / chords;
    points.push_back(arc.centre + std::cos(at) * arc.axis + std::sin(at) * minor);
  }
  return points;
}

std::vector<std::vector<Vec3>> points_of(const Polyline& polyline, double sag) {
  std::vector<std::vector<Vec3>> parts(1);
  const auto& vertices = polyline.vertices;
  for (std::size_t k = 0; k < vertices.size(); ++k) {
    if (std::isinf(vertices[k].bulge)) {
      parts.emplace_back();
      continue;
    }
    std::vector<Vec3>& points = parts.back();
    if (points.empty()) points.push_back(vertices[k].at);
    const bool last = k + 1 == vertices.size();
    if (last && !polyline.closed) break;
    const Vertex& next = vertices[last ? 0 : k + 1];
    if (std::isinf(next.bulge)) continue;
    if (std::abs(vertices[k].bulge) > kNoBulge)
      append_bulge(points, vertices[k], next, sag);
    else
      points.push_back(next.at);
    if (last) points.pop_back();
  }
  return parts;
}

std::vector<Vec3> points_of(const Spline& spline, double sag) {
  if (!is_whole(spline) && !spline.fit.empty()) return through(spline.fit, spline.closed, sag);
  if (!is_whole(spline)) return spline.control;
  double length = 0, longest = 0;
  for (std::size_t k = 1; k < spline.control.size(); ++k) {
    const double step = (spline.control[k] - spline.control[k - 1]).norm();
    length += step;
    longest = std::max(longest, step);
  }
  // A cubic's chord of length c sags by at most about c^2 / (8 r); its control polygon bounds the bends.
  const std::size_t p = std::size_t(spline.degree), n = spline.control.size();
  const double pieces = std::sqrt(std::max(longest, 1e-12) / (2 * std::max(sag, 1e-12))) + 2;
  const int of_span = int(std::clamp(pieces, 4.0, double(kMostChords) / double(n) + 4));
  std::vector<Vec3> points;
  for (std::size_t span = p; span < n; ++span) {
    const double low = spline.knots[span], high = spline.knots[span + 1];
    if (!(high > low)) continue;
    for (int k = 0; k < of_span; ++k)
      points.push_back(on_spline(spline, span, low + (high - low) * k / of_span));
  }
  points.push_back(spline.control.size() > 0 && spline.knots[n] > spline.knots[p]
                       ? on_spline(
                             spline,
                             [&] {
                               std::size_t last = n - 1;
                               while (last > p && !(spline.knots[last + 1] > spline.knots[last])) --last;
                               return last;
                             }(),
                             spline.knots[n])
                       : spline.control.back());
  return points;
}

}  // namespace glow::files::dxf
