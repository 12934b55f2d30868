#include "core/photometry/symmetry.hpp"

#include <algorithm>
#include <cmath>

namespace glow::photometry {
namespace {

constexpr double kSameAngle = 1e-6;  // degrees

double wrapped(double c_deg) {
  double c = std::fmod(c_deg, 360.0);
  if (c < 0) c += 360.0;
  return c >= 360.0 - kSameAngle ? 0.0 : c;
}

/// All places that the plane at c stands for.
std::vector<double> images(double c, Symmetry symmetry) {
  switch (symmetry) {
    case Symmetry::about_c0:
      return {c, -c};
    case Symmetry::about_c90:
      return {c, 180 - c};
    case Symmetry::quadrant:
      return {c, -c, 180 - c, 180 + c};
    case Symmetry::none:
    case Symmetry::rotational:
      break;
  }
  return {c};
}

}  // namespace

std::string to_string(Symmetry symmetry) {
  switch (symmetry) {
    case Symmetry::none:
      return "none";
    case Symmetry::rotational:
      return "rotational";
    case Symmetry::about_c0:
      return "about C0-C180";
    case Symmetry::about_c90:
      return "about C90-C270";
    case Symmetry::quadrant:
      return "about C0-C180 and C90-C270";
  }
  return "";
}

FullCircle full_circle(const std::vector<double>& listed_c_deg, Symmetry symmetry) {
  if (symmetry == Symmetry::rotational || listed_c_deg.size() == 1) return {{0.0}, {0}};
  std::vector<std::pair<double, std::size_t>> planes;
  for (std::size_t i = 0; i < listed_c_deg.size(); ++i)
    for (const double c : images(listed_c_deg[i], symmetry)) planes.emplace_back(wrapped(c), i);
  std::stable_sort(planes.begin(), planes.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  FullCircle circle;
  for (const auto& [c, listed] : planes) {
    if (!circle.c_deg.empty() && c - circle.c_deg.back() < kSameAngle) continue;
    circle.c_deg.push_back(c);
    circle.listed.push_back(listed);
  }
  circle.c_deg.push_back(360.0);
  // A file that lists the plane at 360 has the last word on it, even where it differs from the one at 0.
  const bool lists_end = symmetry == Symmetry::none && listed_c_deg.back() > 360.0 - kSameAngle;
  circle.listed.push_back(lists_end ? listed_c_deg.size() - 1 : circle.listed.front());
  return circle;
}

std::vector<double> spread(const FullCircle& circle, const std::vector<double>& listed_candela,
                           std::size_t gamma_count) {
  std::vector<double> candela;
  candela.reserve(circle.c_deg.size() * gamma_count);
  for (const std::size_t plane : circle.listed) {
    const auto begin = listed_candela.begin() + static_cast<std::ptrdiff_t>(plane * gamma_count);
    candela.insert(candela.end(), begin, begin + static_cast<std::ptrdiff_t>(gamma_count));
  }
  return candela;
}

}  // namespace glow::photometry
