// IES LM-63 reader. Field order after ANSI/IES LM-63 editions 1986, 1991, 1995, 2002 and 2019.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/photometry/native_angles.hpp"
#include "files/photometry/ies_opening.hpp"
#include "files/photometry/photometry_findings.hpp"
#include "files/photometry/photometry_reader.hpp"
#include "files/text/colour_text.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

using photometry::Photometry;
using photometry::Symmetry;

constexpr double kFoot = 0.3048;
constexpr double kAngleTolerance = 1e-6;

/// The thirteen numbers between the TILT block and the angles.
struct Numbers {
  int lamps = 0;
  double lumens_per_lamp = 0;
  double multiplier = 1;
  int gamma_count = 0, c_count = 0;
  int type = 1, unit = 2;
  double width = 0, length = 0, height = 0;
  double ballast_factor = 1, second_factor = 1, watts = 0;
  Place multiplier_place, width_place, type_place;
};

class IesReader {
 public:
  IesReader(std::string_view bytes, const std::string& name, Problems& problems, const Companion& companion)
      : lines_(split_lines(bytes)), name_(name), problems_(problems), companion_(companion) {}

  std::optional<Photometry> read() {
    const int errors_before = problems_.error_count();
    if (!read_head()) return std::nullopt;
    NumberScanner scanner(lines_, tilt_line_ + 1, name_);
    if (!read_tilt(scanner) || !read_numbers(scanner) || !read_table(scanner)) return std::nullopt;
    check_relations(scanner);
    if (problems_.error_count() > errors_before) return std::nullopt;
    Photometry result = assemble();
    if (problems_.error_count() > errors_before) return std::nullopt;
    return result;
  }

 private:
  bool read_head();
  void read_keyword(std::string_view line);
  bool read_tilt(NumberScanner& scanner);
  bool read_tilt_block(NumberScanner& scanner);
  void read_tilt_file(const std::string& file);
  bool read_numbers(NumberScanner& scanner);
  bool read_table(NumberScanner& scanner);
  bool read_angles(NumberScanner& scanner, std::vector<double>& angles, int count, const char* what);
  void check_relations(NumberScanner& scanner);
  bool find_symmetry();
  bool find_native_symmetry();
  photometry::IntensityTable table_of(const std::vector<double>& candela) const;
  Photometry assemble();
  void read_colour(Photometry& result) const;
  bool old_edition() const { return version_ == "LM-63-1986" || version_ == "IESNA91"; }

  std::vector<std::string_view> lines_;
  std::string name_;
  Problems& problems_;
  const Companion& companion_;
  std::size_t tilt_line_ = 0;
  std::string version_ = "LM-63-1986";
  std::vector<std::pair<std::string, std::string>> keywords_;
  Numbers n_;
  std::vector<double> gammas_, planes_, candela_;
  Place planes_place_;
  Symmetry symmetry_ = Symmetry::none;
};

bool IesReader::read_head() {
  const auto is_tilt = [](std::string_view line) { return is_tilt_line(line); };
  tilt_line_ = std::size_t(std::find_if(lines_.begin(), lines_.end(), is_tilt) - lines_.begin());
  if (tilt_line_ == lines_.size()) {
    problems_.error("no-tilt-line", {name_, 0, 0},
                    "no line begins with TILT=; expected one after the header");
    return false;
  }
  for (std::size_t i = 0; i < tilt_line_; ++i) {
    const std::string_view line = trimmed(lines_[i]);
    if (i == 0 && line.substr(0, 3) == "IES") {
      version_ = to_utf8(line);
    } else if (!line.empty()) {
      read_keyword(line);
    }
  }
  return true;
}

void IesReader::read_keyword(std::string_view line) {
  const std::size_t end = line.find(']');
  if (line.front() != '[' || end == std::string_view::npos) {
    keywords_.emplace_back("", to_utf8(line));
    return;
  }
  std::string key = to_utf8(line.substr(1, end - 1));
  std::string text = to_utf8(trimmed(line.substr(end + 1)));
  if (key == "MORE" && !keywords_.empty()) {
    keywords_.back().second += " " + text;
  } else {
    keywords_.emplace_back(std::move(key), std::move(text));
  }
}

/// At tilt 0 every factor is 1 by definition, so the block is read past and its shape checked.
bool IesReader::read_tilt_block(NumberScanner& scanner) {
  int geometry = 0, pairs = 0;
  if (!scanner.next_count(geometry, 1, 3, "the lamp-to-luminaire geometry of the TILT block", problems_,
                          "bad-code") ||
      !scanner.next_count(pairs, 1, kMostAngles, "the number of TILT angles", problems_))
    return false;
  double value = 0, before = -INFINITY;
  for (int i = 0; i < 2 * pairs; ++i) {
    if (!scanner.next(value, i < pairs ? "a TILT angle" : "a TILT factor", problems_)) return false;
    if (i < pairs && std::abs(value) > 180) {
      problems_.error("angles-out-of-range", scanner.place(),
                      fmt::format(FMT_STRING("a TILT angle is {}; expected -180 to 180"), value));
      return false;
    }
    if (i < pairs && value <= before) {
      problems_.error("angles-not-increasing", scanner.place(),
                      fmt::format(FMT_STRING("TILT angles must rise: {} follows {}; is their number right?"),
                                  value, before));
      return false;
    }
    before = value;
  }
  return true;
}

void IesReader::read_tilt_file(const std::string& file) {
  const Place place{name_, int(tilt_line_) + 1, 6};
  if (file.find_first_of("/\\:") != std::string::npos || file == ".." || file.empty()) {
    problems_.warning(
        "tilt-path", place,
        fmt::format(
            FMT_STRING("TILT={} leads to another folder and is not opened; at tilt 0 it has no effect"),
            file));
    return;
  }
  const auto content = companion_ ? companion_(file) : std::nullopt;
  if (!content) {
    problems_.warning(
        "tilt-file-missing", place,
        fmt::format(FMT_STRING("the tilt file \"{}\" is not beside this file; at tilt 0 it has no effect"),
                    file));
    return;
  }
  const auto tilt_lines = split_lines(*content);
  NumberScanner scanner(tilt_lines, 0, file);
  read_tilt_block(scanner);
}

bool IesReader::read_tilt(NumberScanner& scanner) {
  const std::string tilt = to_utf8(trimmed(trimmed(lines_[tilt_line_]).substr(5)));
  if (in_capitals(tilt) == "INCLUDE") return read_tilt_block(scanner);
  if (in_capitals(tilt) != "NONE") read_tilt_file(tilt);
  return true;
}

bool IesReader::read_numbers(NumberScanner& s) {
  const auto number = [&](double& value, const char* what) { return s.next(value, what, problems_); };
  if (!s.next_count(n_.lamps, 0, 100000, "the number of lamps", problems_) ||
      !number(n_.lumens_per_lamp, "the lumens per lamp") || !number(n_.multiplier, "the candela multiplier"))
    return false;
  n_.multiplier_place = s.place();
  if (!s.next_count(n_.gamma_count, 1, kMostAngles, "the number of vertical angles", problems_) ||
      !s.next_count(n_.c_count, 1, kMostAngles, "the number of horizontal angles", problems_) ||
      !s.next_count(n_.type, 1, 3, "the photometric type (1 C, 2 B, 3 A)", problems_, "bad-code"))
    return false;
  n_.type_place = s.place();
  if (!s.next_count(n_.unit, 1, 2, "the unit (1 feet, 2 metres)", problems_, "bad-code") ||
      !number(n_.width, "the width of the luminous opening"))
    return false;
  n_.width_place = s.place();
  if (!number(n_.length, "the length of the luminous opening") ||
      !number(n_.height, "the height of the luminous opening") ||
      !number(n_.ballast_factor, "the ballast factor") ||
      !number(n_.second_factor, "the second factor (reserved)") || !number(n_.watts, "the input watts"))
    return false;
  return true;
}

bool IesReader::read_angles(NumberScanner& scanner, std::vector<double>& angles, int count,
                            const char* what) {
  angles.resize(std::size_t(count));
  for (std::size_t i = 0; i < angles.size(); ++i) {
    if (!scanner.next(angles[i], what, problems_)) return false;
    if (i == 0 || angles[i] > angles[i - 1]) continue;
    problems_.error("angles-not-increasing", scanner.place(),
                    fmt::format(FMT_STRING("{}s must rise: {} follows {}"), what, angles[i], angles[i - 1]));
    return false;
  }
  return true;
}

bool IesReader::read_table(NumberScanner& scanner) {
  const std::size_t wanted = std::size_t(n_.gamma_count) * std::size_t(n_.c_count);
  const std::size_t left = scanner.bytes_left();
  if (2 * wanted > left + 1) {  // a value takes a digit and a blank
    problems_.error(
        "truncated", scanner.place(),
        fmt::format(FMT_STRING("{} x {} intensities are declared, but only {} bytes follow; the file is "
                               "cut off, or a count is wrong"),
                    n_.c_count, n_.gamma_count, left));
    return false;
  }
  if (!read_angles(scanner, gammas_, n_.gamma_count, "vertical angle")) return false;
  const Place gamma_place = scanner.place();
  const double lowest = n_.type == 1 ? 0 : -90, highest = n_.type == 1 ? 180 : 90;
  if (gammas_.front() < lowest || gammas_.back() > highest) {
    problems_.error("angles-out-of-range", gamma_place,
                    fmt::format(FMT_STRING("vertical angles run from {} to {}; type {} allows {} to {}"),
                                gammas_.front(), gammas_.back(),
                                n_.type == 1   ? "C"
                                : n_.type == 2 ? "B"
                                               : "A",
                                lowest, highest));
    return false;
  }
  if (!read_angles(scanner, planes_, n_.c_count, "horizontal angle")) return false;
  planes_place_ = scanner.place();
  candela_.resize(wanted);
  for (std::size_t i = 0; i < wanted; ++i) {
    if (!scanner.next(candela_[i], "an intensity in cd", problems_)) return false;
    if (candela_[i] >= 0) continue;
    problems_.error("negative-intensity", scanner.place(),
                    fmt::format(FMT_STRING("the intensity at C {} gamma {} is {}; it cannot be negative"),
                                planes_[i / gammas_.size()], gammas_[i % gammas_.size()], candela_[i]));
    return false;
  }
  return true;
}

/// Types A and B: -90 to 90 is everything, 0 to 90 in the horizontal angles a mirrored half.
bool IesReader::find_native_symmetry() {
  const auto is = [](double a, double b) { return std::abs(a - b) < kAngleTolerance; };
  const bool whole = planes_.front() < 0 && planes_.front() >= -90 && planes_.back() <= 90;
  const bool half = is(planes_.front(), 0) && planes_.back() <= 90;
  if ((!whole && !half) || planes_.size() < 2) {
    problems_.error(
        "bad-symmetry", planes_place_,
        fmt::format(
            FMT_STRING("horizontal angles run from {} to {}; types A and B want 0 to 90 or -90 to 90"),
            planes_.front(), planes_.back()));
    return false;
  }
  if (is(gammas_.front(), 0))
    problems_.warning("half-table", planes_place_,
                      "vertical angles begin at 0; whether the lower half is dark or mirrored is open. It is "
                      "taken as dark");
  symmetry_ = half ? Symmetry::about_c90 : Symmetry::none;
  if (!half) return true;
  // Left of the middle the same columns again, in reverse.
  std::vector<double> planes, candela;
  const std::size_t row = gammas_.size();
  for (std::size_t i = planes_.size(); i-- > 1;) {
    planes.push_back(-planes_[i]);
    candela.insert(candela.end(), candela_.begin() + std::ptrdiff_t(i * row),
                   candela_.begin() + std::ptrdiff_t((i + 1) * row));
  }
  planes_.insert(planes_.begin(), planes.begin(), planes.end());
  candela_.insert(candela_.begin(), candela.begin(), candela.end());
  return true;
}

bool IesReader::find_symmetry() {
  if (n_.type != 1) return find_native_symmetry();
  const double first = planes_.front(), last = planes_.back();
  const auto is = [](double a, double b) { return std::abs(a - b) < kAngleTolerance; };
  if (planes_.size() == 1) {
    symmetry_ = Symmetry::rotational;
  } else if (is(first, 0) && is(last, 90)) {
    symmetry_ = Symmetry::quadrant;
  } else if (is(first, 0) && is(last, 180)) {
    symmetry_ = Symmetry::about_c0;
  } else if (is(first, 90) && is(last, 270)) {
    symmetry_ = Symmetry::about_c90;
  } else if (is(first, 0) && is(last, 360)) {
    symmetry_ = Symmetry::none;
  } else if (is(first, 0) && last > 180 && last < 360) {
    symmetry_ = Symmetry::none;
    problems_.warning(
        "open-circle", planes_place_,
        fmt::format(FMT_STRING("horizontal angles stop at {}; the circle is closed with the plane "
                               "at 0"),
                    last));
  } else {
    problems_.error(
        "bad-symmetry", planes_place_,
        fmt::format(FMT_STRING("horizontal angles run from {} to {}; expected 0 alone, 0 to 90, 0 to "
                               "180, 90 to 270 or 0 to 360"),
                    first, last));
    return false;
  }
  return true;
}

void IesReader::check_relations(NumberScanner& scanner) {
  if (const std::string_view next = scanner.word_ahead(); !next.empty() && !is_number_like(next))
    problems_.warning("trailing-words", scanner.place(),
                      fmt::format(FMT_STRING("\"{}\" follows after the last intensity; it is passed over"),
                                  to_utf8(next.substr(0, 24))));
  else if (!next.empty())
    problems_.error(
        "count-mismatch", scanner.place(),
        fmt::format(
            FMT_STRING("more numbers follow after the {} x {} intensities that are declared; a count is "
                       "wrong, or decimal commas split the numbers"),
            n_.c_count, n_.gamma_count));
  if (gammas_.size() < 2)
    problems_.error("too-few-angles", scanner.place(),
                    "a single vertical angle says nothing about the distribution");
  if (n_.multiplier <= 0 || n_.ballast_factor <= 0)
    problems_.error("zero-flux", n_.multiplier_place,
                    fmt::format(FMT_STRING("candela multiplier {} and ballast factor {} must be above 0"),
                                n_.multiplier, n_.ballast_factor));
  if (old_edition() && n_.second_factor <= 0)
    problems_.error("zero-flux", n_.width_place, "the ballast-lamp photometric factor must be above 0");
  if (std::all_of(candela_.begin(), candela_.end(), [](double cd) { return cd == 0; }))
    problems_.error("zero-flux", scanner.place(), "all intensities are 0: the luminaire gives no light");
  find_symmetry();
}

photometry::IntensityTable IesReader::table_of(const std::vector<double>& candela) const {
  if (n_.type != 1)
    return photometry::resampled(n_.type == 2 ? photometry::NativeKind::b : photometry::NativeKind::a,
                                 planes_, gammas_, candela);
  const photometry::FullCircle circle = photometry::full_circle(planes_, symmetry_);
  return {circle.c_deg, gammas_, photometry::spread(circle, candela, gammas_.size())};
}

/// LM-63 has no field for colour: makers use a keyword of their own, or say it in the text of the lamp.
void IesReader::read_colour(Photometry& result) const {
  for (const auto& [key, text] : keywords_) {
    if (key.find("CCT") != std::string::npos) result.cct_k = first_number(text, 1000, 20000);
    if (key.find("CRI") != std::string::npos) result.colour_rendering = first_number(text, 20, 100);
  }
  for (const std::string& text : {result.lamp, result.luminaire}) {
    if (!result.cct_k) result.cct_k = stated_colour_temperature(text);
    if (!result.colour_rendering) result.colour_rendering = stated_colour_rendering(text);
  }
}

Photometry IesReader::assemble() {
  // The factor in field 12 multiplies only in the editions of 1986 and 1991; later it is reserved or a code.
  const double factor = n_.multiplier * n_.ballast_factor * (old_edition() ? n_.second_factor : 1.0);
  for (double& cd : candela_) cd *= factor;
  if (n_.type == 1) judge_planes(planes_, gammas_, candela_, planes_place_, problems_);
  const double metre = n_.unit == 1 ? kFoot : 1.0;
  const bool one_extent = old_edition() || version_.find("1995") != std::string::npos;
  Photometry result{"IES LM-63",
                    version_,
                    {},
                    {},
                    {},
                    {},
                    keywords_,
                    false,
                    {},
                    {},
                    {},
                    {},
                    symmetry_,
                    table_of(candela_),
                    luminous_opening(n_.width * metre, n_.length * metre, n_.height * metre, one_extent),
                    {}};
  for (const auto& [key, text] : keywords_) {
    if (key == "MANUFAC") result.manufacturer = text;
    if (key == "LUMINAIRE") result.luminaire = text;
    if (key == "LUMCAT") result.catalogue_number = text;
    if (key == "LAMP") result.lamp = text;
  }
  read_colour(result);
  result.absolute = n_.lumens_per_lamp < 0;
  if (!result.absolute && n_.lumens_per_lamp > 0) result.lamp_flux_lm = n_.lamps * n_.lumens_per_lamp;
  if (n_.watts > 0) result.watts = n_.watts;
  if (n_.lamps == 0)
    problems_.warning(
        "zero-lamp-flux", n_.multiplier_place,
        "0 lamps are stated; the intensities stand, but ratios to the lamps' flux do not exist");
  const int line = n_.multiplier_place.line;
  judge(result, {name_, line, n_.width_place.line, 0, 0}, problems_);
  return result;
}

}  // namespace

std::optional<Photometry> read_ies(std::string_view bytes, const std::string& name, Problems& problems,
                                   const Companion& companion) {
  return IesReader(bytes, name, problems, companion).read();
}

}  // namespace glow::files
