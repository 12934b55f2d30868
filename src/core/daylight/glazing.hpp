#pragma once

#include <algorithm>
#include <array>
#include <memory>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"

namespace glow::daylight {

/// How much of the light that falls on a pane at an angle goes on in its direction, and what it scatters.
struct Glazing {
  enum class Law {
    constant,  ///< the same at every angle
    clear,     ///< clear panes by Fresnel's equations
    table      ///< measured, by angle
  };
  Law law = Law::constant;
  double at_normal = 1;  ///< transmittance, dirt and frame included
  int panes = 2;         ///< of clear ones
  double index = 1.52;   ///< of refraction
  std::vector<std::pair<double, double>> table =
      {};                ///< degrees of incidence, rising, and share of at_normal
  double scattered = 0;  ///< share that leaves the other side evenly in luminance, at whatever incidence

  /// For light whose direction has this cosine with the normal, 0 to 1.
  double transmittance(double cosine) const;
  /// Of light that is as bright from all sides.
  double even_transmittance() const;
};

/// The same transmittance looked up, for rays in great number: off by less than 1e-5, of measured panes by
/// less than 1e-3 (within 3 degrees of head-on, where their tables have a corner). Cheap to copy.
class QuickGlazing {
 public:
  QuickGlazing(const Glazing& glazing = {});

  double transmittance(double cosine) const {
    const double at = std::clamp(cosine, 0.0, 1.0) * kSteps;
    const std::size_t step = std::min(std::size_t(at), kSteps - 1);
    const float *low = by_cosine_->data() + step, *high = low + 1;
    return double(*low) + (at - double(step)) * double(*high - *low);
  }

 private:
  static constexpr std::size_t kSteps = 1024;
  std::shared_ptr<const std::array<float, kSteps + 1>> by_cosine_;
};

/// Frame and bars of a pane, m wide.
struct Bars {
  double frame_m = 0, bar_m = 0;
  int columns = 1, rows = 1;  ///< panes between them

  bool any() const { return frame_m > 0 || columns > 1 || rows > 1; }
  /// Share of an opening's area that they take; its size in m.
  double share(const Vec2& size) const;
  /// Whether there is glass at a place, m from the corner of an opening of this size.
  bool is_glass(const Vec2& at, const Vec2& size) const;
};

/// Transmittance of clear panes against that at normal incidence: F(cos) / F(1), with F the mean over both
/// polarisations of (1 - r) / (1 + (2 n - 1) r), r the reflectance of one face. No absorption.
double clear_panes(double cosine, int panes, double index);

/// Share of light that such panes throw back as a mirror does, at this cosine.
double panes_reflect(double cosine, int panes, double index);

}  // namespace glow::daylight
