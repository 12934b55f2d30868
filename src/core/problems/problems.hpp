#pragma once

#include <cstddef>
#include <string>
#include <vector>

#include "core/geometry/vec.hpp"
#include "core/units/shown_units.hpp"

namespace glow {

enum class Severity { error, warning, note };

/// Where a problem was found. Line and column count from 1; 0 = not known (a whole file, for example).
struct Place {
  std::string file;
  int line = 0;
  int column = 0;
};

/// One thing that a person has to know: what was found, what was expected and how to mend it.
struct Problem {
  Severity severity = Severity::error;
  std::string code;  ///< stable, such as "P012"; the wording may improve, the code stays
  Place place;
  std::string text;
  std::string subject = {};  ///< the room that it is about, named in quotes in the text; empty: none
};

/// Collects everything that is wrong with an input, so that all of it is told in one go.
class Problems {
 public:
  void error(std::string code, Place place, std::string text);
  void warning(std::string code, Place place, std::string text);
  void note(std::string code, Place place, std::string text);

  /// Units that lengths are told in from now on.
  void set_units(const units::ShownUnits& units) { units_ = units; }
  const units::ShownUnits& units() const { return units_; }
  /// "2.70 m" or "8.86 ft".
  std::string length(double metres) const;
  /// "(1.00, 2.00)", in the same unit.
  std::string position(const Vec2& p) const;
  std::string position(const Vec3& p) const;

  /// In the order they were found; of very many only the first kMostKept.
  const std::vector<Problem>& all() const { return problems_; }
  bool has_errors() const { return error_count_ > 0; }
  int error_count() const { return error_count_; }
  /// Whether so much was found that looking on helps nobody.
  bool is_full() const { return problems_.size() >= kMostKept; }
  /// Takes over everything from `other`.
  void append(const Problems& other);
  /// What is found from now on is about this room; empty: about none.
  void set_subject(std::string subject) { subject_ = std::move(subject); }
  /// Warnings and notes that say the same of several subjects become one, with their names in it.
  void merge_alike();
  /// Lets `move` change every place.
  template <class Move>
  void move_places(const Move& move) {
    for (Problem& problem : problems_) move(problem.place);
  }
  /// Orders by file, line and column, so that a reader can walk through the file. Stable.
  void sort_by_place();

 private:
  static constexpr std::size_t kMostKept = 1000;
  void add(Severity severity, std::string code, Place place, std::string text);
  std::vector<Problem> problems_;
  units::ShownUnits units_;
  std::string subject_;
  int error_count_ = 0;
};

/// "error", "warning", "note".
std::string to_string(Severity severity);

/// The same text with control characters, which a terminal would obey, as question marks.
std::string printable(std::string text);
/// Whether there is a control character in the text: C0 but for tabs, DEL or, in UTF-8, C1.
bool has_control_characters(const std::string& text);

/// "file:line:column: error[P012]: text"; parts that are not known are left out.
std::string to_string(const Problem& problem);

/// The candidate with the smallest edit distance to `word`, or "" when none is near enough to be meant.
std::string nearest_word(const std::string& word, const std::vector<std::string>& candidates);

}  // namespace glow
