#pragma once

#include <optional>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"
#include "core/standards/verdict.hpp"
#include "core/studies/arrangement/fields.hpp"

namespace glow::studies {

/// The means that one luminaire gives on grids, as they change with its place: tells at once about how much a
/// field gives, before any light of its places is known.
class MeanMap {
 public:
  /// What the mean of a field of many luminaires is off by at most (tests/core/arrangement_test.cpp).
  static constexpr double kMargin = 0.1;

  struct Sample {
    photometry::PlacedLuminaire luminaire;
    std::vector<double> means_lx;  ///< maintained, by demand
  };
  /// A mean that is asked for, as it is with what hangs there already.
  struct Demand {
    double required_lx = 0, there_lx = 0;
  };
  MeanMap(std::vector<Demand> demands, std::vector<Sample> samples)
      : demands_(std::move(demands)), samples_(std::move(samples)) {}

  /// Of the means with the field, the least over what is asked; infinite where nothing is.
  double times_asked(const LaidField& field) const;

 private:
  double mean_of(const photometry::PlacedLuminaire& luminaire, std::size_t demand) const;

  std::vector<Demand> demands_;
  std::vector<Sample> samples_;
};

}  // namespace glow::studies
