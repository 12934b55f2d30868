#include "files/photometry/photometry_writer.hpp"

#include <algorithm>

namespace glow::files {
namespace {

using photometry::Symmetry;

bool has(const std::vector<double>& angles, double angle) {
  return std::find(angles.begin(), angles.end(), angle) != angles.end();
}

}  // namespace

std::vector<std::size_t> listed_planes(const photometry::Photometry& photometry, bool eulumdat) {
  const std::vector<double>& c = photometry.table.c_deg();
  std::vector<std::size_t> listed;
  const auto add = [&](double low, double high) {
    for (std::size_t i = 0; i < c.size(); ++i)
      if (c[i] >= low && c[i] <= high) listed.push_back(i);
  };
  switch (photometry.declared_symmetry) {
    case Symmetry::rotational:
      return {0};
    case Symmetry::quadrant:
      if (has(c, 90) && has(c, 180) && has(c, 270)) add(0, 90);
      break;
    case Symmetry::about_c0:
      if (has(c, 180)) add(0, 180);
      break;
    case Symmetry::about_c90:
      if (!has(c, 90) || !has(c, 270)) break;
      if (eulumdat) {
        for (std::size_t i = 0; i + 1 < c.size(); ++i)
          if (c[i] >= 270) listed.push_back(i);
        add(0, 90);
      } else {
        add(90, 270);
      }
      break;
    case Symmetry::none:
      break;
  }
  return listed;
}

}  // namespace glow::files
