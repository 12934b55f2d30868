#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/units/shown_units.hpp"

namespace glow::model {

/// How false-colour figures look. Light levels in lx; what is not set follows the values.
struct FigureStyle {
  enum class Values { none, fitting, all };
  std::optional<std::pair<double, double>> limits;  ///< of the colours; values beyond are marked
  std::optional<int> steps;                         ///< bands, about
  bool smooth = false;                              ///< no bands: colours run
  std::optional<bool> logarithmic;                  ///< nothing: where much of a wide range is dark
  std::vector<double> levels;                       ///< own limits of the bands, rising
  std::optional<std::vector<double>> isolux;        ///< own lines; nothing: between the bands
  Values values = Values::fitting;                  ///< printed numbers
  bool lines = true;
  bool tint = false;          ///< maps of colour temperature show the light's own tints
  bool common_scale = false;  ///< one scale for all figures of a run

  /// Sets one setting from words: limits = "100, 1000", steps = "8" or "smooth", scale = "linear" or "log",
  /// levels and isolux = "100, 200, 300", values = "none", "fitting" or "all", lines, tint and common_scale
  /// = "true" or "false". Bare light levels are in the given unit. Gives what was expected where the words do
  /// not fit, nothing when they do.
  std::optional<std::string> set(std::string_view key, std::string_view words,
                                 const units::ShownUnits& units);
  /// All settings that differ from the usual ones, as `set` takes them, in lx.
  std::vector<std::pair<std::string, std::string>> settings() const;
  static const std::vector<std::string>& keys();
};

}  // namespace glow::model
