#include "figures/canvas/isolines.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <unordered_map>

namespace glow::figures {
namespace {

/// Slope at the middle of three values one step apart that makes no curve go beyond them (Steffen 1990).
double steffen_slope(double before, double here, double after) {
  const double in = here - before, out = after - here;
  if (in * out <= 0) return 0;
  return std::copysign(std::min({std::abs(in), std::abs(out), std::abs(in + out) / 4}) * 2, in);
}

/// Smooth from b at t = 0 to c at t = 1, never beyond either: a curve that overshoots draws light that nobody
/// computed.
double between(double a, double b, double c, double d, double t) {
  const double slope_b = steffen_slope(a, b, c), slope_c = steffen_slope(b, c, d), rise = c - b;
  return b + t * (slope_b + t * (3 * rise - 2 * slope_b - slope_c + t * (slope_b + slope_c - 2 * rise)));
}

/// Cell values, continued beyond the grid in a straight line.
class Cells {
 public:
  Cells(const readings::PlaneGrid& grid, const std::vector<double>& lux)
      : nx_(grid.count.nx), ny_(grid.count.ny) {
    values_.assign(std::size_t(nx_) * std::size_t(ny_), std::numeric_limits<double>::quiet_NaN());
    for (std::size_t k = 0; k < lux.size(); ++k) at(grid.cells[k][0], grid.cells[k][1]) = lux[k];
    fill_gaps();
  }
  double value(int i, int j) const {
    const int ci = std::clamp(i, 0, nx_ - 1), cj = std::clamp(j, 0, ny_ - 1);
    double v = get(ci, cj);
    if (i != ci && nx_ > 1) v += std::abs(i - ci) * (get(ci, cj) - get(ci + (i < 0 ? 1 : -1), cj));
    if (j != cj && ny_ > 1) v += std::abs(j - cj) * (get(ci, cj) - get(ci, cj + (j < 0 ? 1 : -1)));
    return v;
  }

 private:
  double& at(int i, int j) { return values_[std::size_t(j * nx_ + i)]; }
  double get(int i, int j) const { return values_[std::size_t(j * nx_ + i)]; }

  /// NaN outside the grid and where there is no value yet.
  double known(const std::vector<double>& values, int i, int j) const {
    const bool inside = i >= 0 && i < nx_ && j >= 0 && j < ny_;
    return inside ? values[std::size_t(j * nx_ + i)] : std::numeric_limits<double>::quiet_NaN();
  }

  void fill_gaps() {
    bool gaps = true;
    while (gaps) {
      gaps = false;
      const std::vector<double> before = values_;
      for (int j = 0; j < ny_; ++j)
        for (int i = 0; i < nx_; ++i) {
          if (!std::isnan(before[std::size_t(j * nx_ + i)])) continue;
          gaps = true;
          double straight = 0, mean = 0;
          int straight_count = 0, count = 0;
          for (int dj = -1; dj <= 1; ++dj)
            for (int di = -1; di <= 1; ++di) {
              const double near = known(before, i + di, j + dj);
              if (std::isnan(near)) continue;
              mean += near;
              ++count;
              const double far = known(before, i + 2 * di, j + 2 * dj);
              if (std::isnan(far)) continue;
              straight += 2 * near - far;
              ++straight_count;
            }
          if (straight_count > 0)
            at(i, j) = std::max(0.0, straight / straight_count);
          else if (count > 0)
            at(i, j) = mean / count;
        }
    }
  }

  int nx_, ny_;
  std::vector<double> values_;
};

struct Crossing {
  const Lattice& lattice;
  double level;

  bool above(int i, int j) const { return lattice.at(i, j) >= level; }
  Vec2 between(int i, int j, int k, int l) const {
    const double a = lattice.at(i, j), b = lattice.at(k, l);
    const double t = std::clamp((level - a) / (b - a), 0.0, 1.0);
    return lattice.node(i + t * (k - i), j + t * (l - j));
  }
};

constexpr int kCorner[5][2] = {{0, 0}, {1, 0}, {1, 1}, {0, 1}, {0, 0}};

}  // namespace

Lattice smooth_lattice(const readings::PlaneGrid& grid, const std::vector<double>& lux, int parts) {
  const Cells cells(grid, lux);
  Lattice lattice;
  lattice.low = grid.low;
  lattice.step = grid.cell / parts;
  lattice.nx = grid.count.nx * parts + 1;
  lattice.ny = grid.count.ny * parts + 1;
  for (int j = 0; j < lattice.ny; ++j)
    for (int i = 0; i < lattice.nx; ++i) {
      const double x = double(i) / parts - 0.5,
                   y = double(j) / parts - 0.5;  // in cells, from the first cell's middle
      const int ci = static_cast<int>(std::floor(x)), cj = static_cast<int>(std::floor(y));
      double rows[4];
      for (int r = 0; r < 4; ++r) {
        const int row = cj - 1 + r;
        rows[r] = between(cells.value(ci - 1, row), cells.value(ci, row), cells.value(ci + 1, row),
                          cells.value(ci + 2, row), x - ci);
      }
      lattice.values.push_back(std::max(0.0, between(rows[0], rows[1], rows[2], rows[3], y - cj)));
    }
  return lattice;
}

std::vector<std::vector<Vec2>> isolines(const Lattice& lattice, double level) {
  const Crossing cross{lattice, level};
  struct Ends {
    Vec2 point;
    int next[2] = {-1, -1};
  };
  std::vector<Ends> points;
  std::unordered_map<long, int> point_on_edge;
  const auto point_at = [&](int ai, int aj, int bi, int bj) {
    // Each lattice edge has one number, whichever cell asks: lower node, and whether it runs along x or y.
    const long key = 2 * (long(std::min(aj, bj)) * lattice.nx + std::min(ai, bi)) + (ai == bi ? 1 : 0);
    const auto [found, is_new] = point_on_edge.emplace(key, int(points.size()));
    if (is_new) points.push_back({cross.between(ai, aj, bi, bj)});
    return found->second;
  };
  const auto join = [&](int a, int b) {
    (points[std::size_t(a)].next[0] < 0 ? points[std::size_t(a)].next[0] : points[std::size_t(a)].next[1]) =
        b;
    (points[std::size_t(b)].next[0] < 0 ? points[std::size_t(b)].next[0] : points[std::size_t(b)].next[1]) =
        a;
  };
  for (int j = 0; j + 1 < lattice.ny; ++j)
    for (int i = 0; i + 1 < lattice.nx; ++i) {
      std::vector<int> met;
      for (int k = 0; k < 4; ++k) {
        const int ai = i + kCorner[k][0], aj = j + kCorner[k][1], bi = i + kCorner[k + 1][0],
                  bj = j + kCorner[k + 1][1];
        if (cross.above(ai, aj) != cross.above(bi, bj)) met.push_back(point_at(ai, aj, bi, bj));
      }
      // At a saddle the region's piece in the cell joins both high corners; the lines run along that piece.
      const std::size_t shift = met.size() == 4 && cross.above(i, j) ? 0 : met.size() == 4 ? 1 : 0;
      for (std::size_t k = 0; k + 1 < met.size(); k += 2)
        join(met[(k + shift) % met.size()], met[(k + 1 + shift) % met.size()]);
    }
  std::vector<char> used(points.size(), 0);
  std::vector<std::vector<Vec2>> lines;
  const auto follow = [&](int start) {
    std::vector<Vec2> line;
    int at = start, before = -1;
    while (at >= 0 && !used[std::size_t(at)]) {
      used[std::size_t(at)] = 1;
      line.push_back(points[std::size_t(at)].point);
      const int* next = points[std::size_t(at)].next;
      const int onward = next[0] != before && next[0] >= 0 ? next[0] : next[1];
      before = at;
      at = onward;
    }
    if (at == start && line.size() > 2) line.push_back(line.front());
    lines.push_back(std::move(line));
  };
  for (std::size_t p = 0; p < points.size(); ++p)
    if (!used[p] && points[p].next[1] < 0) follow(int(p));
  for (std::size_t p = 0; p < points.size(); ++p)
    if (!used[p]) follow(int(p));
  return lines;
}

std::vector<std::vector<Vec2>> region_above(const Lattice& lattice, double level) {
  // With a border far below every level around it, all lines close, and they cross to the border at its inner
  // side: along the lattice's own edge.
  constexpr double kFarBelow = -1e300;
  Lattice padded;
  padded.low = lattice.low - lattice.step;
  padded.step = lattice.step;
  padded.nx = lattice.nx + 2;
  padded.ny = lattice.ny + 2;
  padded.values.assign(std::size_t(padded.nx) * std::size_t(padded.ny), kFarBelow);
  for (int j = 0; j < lattice.ny; ++j)
    std::copy_n(lattice.values.begin() + j * lattice.nx, lattice.nx,
                padded.values.begin() + (j + 1) * padded.nx + 1);
  return isolines(padded, level);
}

}  // namespace glow::figures
