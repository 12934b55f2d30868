#pragma once

#include <memory>
#include <vector>

#include "core/geometry/vec.hpp"
#include "core/photometry/table_bends.hpp"

namespace glow::photometry {

/// Finds the interval of a rising list of angles that holds a value, in constant time for usual steps.
class AngleAxis {
 public:
  /// `nodes` rise strictly; at least one.
  explicit AngleAxis(std::vector<double> nodes);
  const std::vector<double>& nodes() const { return nodes_; }
  /// Index i with nodes[i] <= x <= nodes[i + 1]; `x` within [front, back], two nodes or more.
  std::size_t interval(double x) const;

 private:
  std::vector<double> nodes_;
  std::vector<std::size_t> first_in_bucket_;
  double buckets_per_degree_ = 0;
  bool even_ = false;  ///< all steps alike: the bucket is the interval
};

struct Peak {
  double candela = 0;
  double c_deg = 0;
  double gamma_deg = 0;
};

/// An intensity, and by how much its slope jumps in the neighbourhood: cd, cd per radian.
struct BentIntensity {
  double candela = 0;
  double bend = 0;
};

/// Luminous intensity of a luminaire in all directions, as its maker tabulated it.
///
/// Frame    C-gamma: gamma 0 points down, C turns counter-clockwise seen from above; degrees.
/// Values   cd as installed: for the real lamp flux, no maintenance factor, no dimming.
/// Between  table points: bilinear in (C, gamma), C wraps at 360; table points come back exactly.
/// Outside  the tabulated gammas there is no light.
/// Threads  immutable once made; share freely.
class IntensityTable {
 public:
  /// Full circle: `c_deg` is {0} (rotational) or rises from 0 to 360 with the last plane equal to the first.
  /// `gamma_deg` rises within [0, 180]. candela[c * gamma_deg.size() + g], finite and not negative.
  /// All of this is the reader's duty and is asserted here.
  IntensityTable(std::vector<double> c_deg, std::vector<double> gamma_deg, std::vector<double> candela);

  /// cd; any finite c_deg; gamma_deg in [0, 180].
  double intensity(double c_deg, double gamma_deg) const;
  /// cd in the direction given by its components along C0, C90 and gamma 0; need not be of unit length.
  double intensity_along(double along_c0, double along_c90, double along_g0) const;
  /// The same, and how sharply the table bends within about half of `width` (radian) of there.
  BentIntensity bent_intensity_along(const Vec3& along, double width) const;

  /// cd; no direction within `angle_deg` of this one has more. The least such number where the table bends at
  /// its nodes only; the whole circle is taken where the cone holds a pole.
  double most_within(const Vec3& along, double angle_deg) const;

  /// lm; integral over the sphere, exact for the bilinear surface. A cosine table in 5 degree steps comes out
  /// 0.06 % low; the loss falls with the square of the step.
  double flux() const { return flux_; }
  /// lm emitted above the horizontal (gamma > 90).
  double upward_flux() const { return upward_flux_; }
  Peak peak() const;
  bool rotational() const { return c_axis_.nodes().size() == 1; }

  const std::vector<double>& c_deg() const { return c_axis_.nodes(); }
  const std::vector<double>& gamma_deg() const { return gamma_axis_.nodes(); }
  double node(std::size_t c, std::size_t g) const { return candela_[c * gamma_axis_.nodes().size() + g]; }

  /// lm within one table cell between C planes c, c+1 (the full circle when rotational) and gammas g, g+1.
  double cell_flux(std::size_t c, std::size_t g) const;
  std::size_t cell_columns() const { return rotational() ? 1 : c_axis_.nodes().size() - 1; }
  std::size_t cell_rows() const { return gamma_axis_.nodes().size() - 1; }

  /// The same light, multiplied.
  IntensityTable scaled(double factor) const;

 private:
  AngleAxis c_axis_;
  AngleAxis gamma_axis_;
  std::vector<double> candela_;
  double flux_ = 0;
  double upward_flux_ = 0;
  std::shared_ptr<const TableBends> bends_;
};

}  // namespace glow::photometry
