// EULUMDAT reader: one field a line in fixed order. Lengths in mm, intensities in cd per 1000 lm of lamp
// flux.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/units/quantity.hpp"
#include "files/photometry/photometry_findings.hpp"
#include "files/photometry/photometry_reader.hpp"
#include "files/text/colour_text.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

using photometry::LuminousArea;
using photometry::LuminousShape;
using photometry::Photometry;
using photometry::Symmetry;

constexpr double kMillimetre = 0.001;
constexpr double kStepAgreement = 0.01;  // degrees
constexpr int kMostLampSets = 20;
constexpr std::size_t kDirectRatios = 10;

struct LampSet {
  double count = 0;
  std::string type;
  double flux_lm = 0;
  std::string colour;
  std::string rendering;
  double watts = 0;
};

class EulumdatReader {
 public:
  EulumdatReader(std::string_view bytes, const std::string& name, Problems& problems)
      : lines_(split_lines(bytes)), name_(name), problems_(problems) {}

  std::optional<Photometry> read();

 private:
  bool read_head();
  bool read_lamp_sets();
  bool is_number_ahead(std::size_t ahead) const;
  bool read_lamp_field(LampSet& set, std::size_t field);
  bool read_direct_ratios();
  void judge_step(const std::vector<double>& angles, double step, int line, const char* what);
  bool read_table();
  bool read_angles(std::vector<double>& angles, int count, double last_allowed, const char* what);
  std::vector<std::size_t> listed_planes(std::vector<double>& listed_c) const;
  LuminousArea luminous_area() const;
  Photometry assemble();

  bool text(std::string& value, const char* what);
  bool number(double& value, const char* what);
  bool count(int& value, int low, int high, const char* what, const std::string& code = "bad-count");
  Place here() const { return {name_, int(line_), 1}; }

  std::vector<std::string_view> lines_;
  std::size_t line_ = 0;  // lines read so far = number of the last line read
  std::string name_;
  Problems& problems_;

  std::string company_, luminaire_, catalogue_;
  int isym_ = 0, plane_count_ = 0, gamma_count_ = 0;
  double body_length_ = 0, body_width_ = 0, body_height_ = 0;
  double length_ = 0, width_ = 0;
  std::array<double, 4> heights_ = {0, 0, 0, 0};
  double conversion_ = 1, output_ratio_ = 0, tilt_ = 0, plane_step_ = 0, gamma_step_ = 0;
  int flux_line_ = 0;
  std::vector<LampSet> lamps_;
  std::vector<double> planes_, gammas_;
  std::vector<double> listed_c_, candela_;
};

bool EulumdatReader::text(std::string& value, const char* what) {
  if (line_ >= lines_.size()) {
    problems_.error("truncated", {name_, int(lines_.size()), 0},
                    fmt::format(FMT_STRING("the file ends where {} should stand; it is cut off"), what));
    return false;
  }
  value = to_utf8(trimmed(lines_[line_++]));
  return true;
}

bool EulumdatReader::number(double& value, const char* what) {
  std::string word;
  if (!text(word, what)) return false;
  std::replace(word.begin(), word.end(), ',',
               '.');  // one field a line, so a comma can only be a decimal sign
  if (units::parse_number(word, value)) return true;
  problems_.error(number_fault(word), here(),
                  fmt::format(FMT_STRING("\"{}\" is not a number; expected {}"), word.substr(0, 24), what));
  return false;
}

bool EulumdatReader::count(int& value, int low, int high, const char* what, const std::string& code) {
  double found = 0;
  if (!number(found, what)) return false;
  if (found != std::floor(found) || found < low || found > high) {
    problems_.error(
        found > high && code == "bad-count" ? "count-too-large" : code, here(),
        fmt::format(FMT_STRING("{} is {}; expected a whole number from {} to {}"), what, found, low, high));
    return false;
  }
  value = static_cast<int>(found);
  return true;
}

bool EulumdatReader::read_head() {
  std::string ignored;
  double skipped = 0;
  int kind = 0;  // Ityp says nothing about the numbers
  return text(company_, "the company") && count(kind, 0, 3, "the kind of luminaire (Ityp)", "bad-code") &&
         count(isym_, 0, 4, "the symmetry (Isym)", "bad-code") &&
         count(plane_count_, 1, kMostAngles, "the number of C planes") &&
         number(plane_step_, "the step of the C planes") &&
         count(gamma_count_, 1, kMostAngles, "the number of gamma angles") &&
         number(gamma_step_, "the step of the gamma angles") && text(ignored, "the report number") &&
         text(luminaire_, "the luminaire's name") && text(catalogue_, "the luminaire's number") &&
         text(ignored, "the file name") && text(ignored, "the date") &&
         number(body_length_, "the luminaire's length in mm") &&
         number(body_width_, "the luminaire's width in mm") &&
         number(body_height_, "the luminaire's height in mm") &&
         number(length_, "the luminous length in mm") && number(width_, "the luminous width in mm") &&
         number(heights_[0], "the luminous height at C0 in mm") &&
         number(heights_[1], "the luminous height at C90 in mm") &&
         number(heights_[2], "the luminous height at C180 in mm") &&
         number(heights_[3], "the luminous height at C270 in mm") &&
         number(skipped, "the downward flux fraction") &&
         number(output_ratio_, "the light output ratio in %") &&
         number(conversion_, "the conversion factor for intensities") &&
         number(tilt_, "the tilt during measurement");
}

/// Whether the line `ahead` of the next one holds a number.
bool EulumdatReader::is_number_ahead(std::size_t ahead) const {
  if (line_ + ahead >= lines_.size()) return false;
  std::string word = to_utf8(trimmed(lines_[line_ + ahead]));
  std::replace(word.begin(), word.end(), ',', '.');
  double value = 0;
  return units::parse_number(word, value);
}

/// Sets are written one after the other. The definition can also be read as field after field; that is taken
/// only when the lines of numbers fit it and not the other.
bool EulumdatReader::read_lamp_sets() {
  int sets = 0;
  if (!count(sets, 1, kMostLampSets, "the number of lamp sets")) return false;
  lamps_.resize(std::size_t(sets));
  const std::size_t n = lamps_.size();
  bool set_by_set = true, field_by_field = n > 1;
  for (std::size_t i = 0; i < n; ++i)
    for (const std::size_t field : {0, 2, 5}) {
      set_by_set = set_by_set && is_number_ahead(6 * i + field);
      field_by_field = field_by_field && is_number_ahead(field * n + i);
    }
  flux_line_ = int(line_) + 3;
  const bool turned = field_by_field && !set_by_set;
  if (turned) {
    flux_line_ = int(line_ + 2 * n) + 1;
    problems_.note("lamp-sets-by-field", here(), "the lamp sets are listed field after field");
  }
  for (std::size_t k = 0; k < 6 * n; ++k)
    if (!read_lamp_field(lamps_[turned ? k % n : k / 6], turned ? k / n : k % 6)) return false;
  return read_direct_ratios();
}

bool EulumdatReader::read_lamp_field(LampSet& set, std::size_t field) {
  switch (field) {
    case 0:
      return number(set.count, "the number of lamps");
    case 1:
      return text(set.type, "the type of the lamps");
    case 2:
      return number(set.flux_lm, "the flux of the lamps in lm");
    case 3:
      return text(set.colour, "the colour of the lamps");
    case 4:
      return text(set.rendering, "the colour rendering");
    default:
      return number(set.watts, "the watts with ballast");
  }
}

/// Ten lines, which may be blank; some files leave them out. Nothing here depends on them.
bool EulumdatReader::read_direct_ratios() {
  const int by_symmetry[] = {plane_count_, 1, plane_count_ / 2 + 1, plane_count_ / 2 + 1,
                             plane_count_ / 4 + 1};
  const std::size_t wanted = std::size_t(plane_count_) + std::size_t(gamma_count_) +
                             std::size_t(by_symmetry[isym_]) * std::size_t(gamma_count_);
  std::size_t last = lines_.size();
  while (last > line_ && trimmed(lines_[last - 1]).empty()) --last;
  if (last - line_ == wanted) {
    problems_.note("no-direct-ratios", here(), "the ten direct ratios are missing; nothing depends on them");
    return true;
  }
  std::string ratio;
  for (std::size_t i = 0; i < kDirectRatios; ++i)
    if (!text(ratio, "a direct ratio")) return false;
  return true;
}

/// The list counts where it differs from the step in the head.
void EulumdatReader::judge_step(const std::vector<double>& angles, double step, int line, const char* what) {
  if (step <= 0) return;
  for (std::size_t i = 1; i < angles.size(); ++i) {
    if (std::abs(angles[i] - angles[i - 1] - step) <= kStepAgreement) continue;
    problems_.warning(
        "step-mismatch", {name_, line, 1},
        fmt::format(
            FMT_STRING("the head says {}s every {} degrees, the list has {} after {}; the list is used"),
            what, step, angles[i], angles[i - 1]));
    return;
  }
}

bool EulumdatReader::read_angles(std::vector<double>& angles, int wanted, double last_allowed,
                                 const char* what) {
  if (std::size_t(wanted) > lines_.size() - line_) {
    problems_.error("truncated", here(),
                    fmt::format(FMT_STRING("{} of {}s are declared, but only {} lines follow"), wanted, what,
                                lines_.size() - line_));
    return false;
  }
  angles.resize(std::size_t(wanted));
  for (std::size_t i = 0; i < angles.size(); ++i) {
    if (!number(angles[i], what)) return false;
    if (angles[i] < 0 || angles[i] > last_allowed) {
      problems_.error("angles-out-of-range", here(),
                      fmt::format(FMT_STRING("{} is {}; expected 0 to {}"), what, angles[i], last_allowed));
      return false;
    }
    if (i > 0 && angles[i] <= angles[i - 1]) {
      problems_.error(
          "angles-not-increasing", here(),
          fmt::format(FMT_STRING("{}s must rise: {} follows {}"), what, angles[i], angles[i - 1]));
      return false;
    }
  }
  return true;
}

/// Which of the planes of the circle carry intensities, in the order of the file.
std::vector<std::size_t> EulumdatReader::listed_planes(std::vector<double>& listed_c) const {
  const auto in_list = [&](double c) {
    switch (isym_) {
      case 2:
        return c <= 180;
      case 3:
        return c >= 270 || c <= 90;
      case 4:
        return c <= 90;
      default:
        return true;
    }
  };
  std::vector<std::size_t> listed;
  for (std::size_t i = 0; i < planes_.size(); ++i)
    if (in_list(planes_[i])) listed.push_back(i);
  if (isym_ == 1) listed.resize(1);
  // Isym 3 begins at C270 and runs through C0 to C90.
  if (isym_ == 3)
    std::stable_partition(listed.begin(), listed.end(), [&](std::size_t i) { return planes_[i] >= 270; });
  for (const std::size_t i : listed) listed_c.push_back(planes_[i]);
  return listed;
}

bool EulumdatReader::read_table() {
  if (!read_angles(planes_, plane_count_, 360, "C angle") ||
      !read_angles(gammas_, gamma_count_, 180, "gamma angle"))
    return false;
  judge_step(planes_, plane_step_, 5, "C plane");
  judge_step(gammas_, gamma_step_, 7, "gamma angle");
  const auto has = [&](double c) { return std::find(planes_.begin(), planes_.end(), c) != planes_.end(); };
  const bool complete =
      isym_ < 2 || (isym_ == 2 && has(180)) || (isym_ == 3 && has(90) && has(270)) || (isym_ == 4 && has(90));
  if (!has(0) || !complete) {
    problems_.error("bad-symmetry", here(),
                    fmt::format(FMT_STRING("symmetry {} needs {} among the C planes"), isym_,
                                isym_ == 3   ? "C0, C90 and C270"
                                : isym_ == 2 ? "C0 and C180"
                                : isym_ == 4 ? "C0 and C90"
                                             : "C0"));
    return false;
  }
  const std::size_t wanted = listed_planes(listed_c_).size() * gammas_.size();
  if (wanted > lines_.size() - line_) {
    problems_.error(
        "truncated", {name_, int(lines_.size()), 0},
        fmt::format(FMT_STRING("{} planes x {} intensities should follow, but only {} lines are left; the "
                               "file is cut off, or a count is wrong"),
                    listed_c_.size(), gammas_.size(), lines_.size() - line_));
    return false;
  }
  candela_.resize(wanted);
  for (double& value : candela_) {
    if (!number(value, "an intensity in cd/klm")) return false;
    if (value >= 0) continue;
    problems_.error("negative-intensity", here(), fmt::format(FMT_STRING("intensity {} is negative"), value));
    return false;
  }
  const auto rest = std::find_if(lines_.begin() + static_cast<std::ptrdiff_t>(line_), lines_.end(),
                                 [](std::string_view line) { return !trimmed(line).empty(); });
  if (rest != lines_.end())
    problems_.warning(
        "trailing-data", {name_, int(rest - lines_.begin()) + 1, 1},
        fmt::format(FMT_STRING("lines are left over after the {} planes x {} intensities that symmetry {} "
                               "lists; they are ignored. Check the symmetry"),
                    listed_c_.size(), gammas_.size(), isym_));
  return true;
}

LuminousArea EulumdatReader::luminous_area() const {
  LuminousArea area;
  const bool round = width_ == 0 && length_ > 0;
  area.extent_c90_m = length_ * kMillimetre;
  area.extent_c0_m = (round ? length_ : width_) * kMillimetre;
  for (std::size_t i = 0; i < 4; ++i) area.side_heights_m[i] = heights_[i] * kMillimetre;
  const bool sides = area.height_m() > 0;
  if (length_ == 0 && width_ == 0) {
    area.shape = LuminousShape::point;
  } else if (round) {
    area.shape = sides ? LuminousShape::vertical_cylinder : LuminousShape::disc;
  } else {
    area.shape = sides ? LuminousShape::box : LuminousShape::rectangle;
  }
  return area;
}

Photometry EulumdatReader::assemble() {
  const LampSet& set = lamps_.front();
  const double factor = conversion_ * set.flux_lm / 1000.0;
  for (double& cd : candela_) cd *= factor;
  constexpr Symmetry kSymmetries[] = {Symmetry::none, Symmetry::rotational, Symmetry::about_c0,
                                      Symmetry::about_c90, Symmetry::quadrant};
  const Symmetry symmetry = kSymmetries[isym_];
  const photometry::FullCircle circle = photometry::full_circle(listed_c_, symmetry);
  photometry::IntensityTable table(circle.c_deg, gammas_,
                                   photometry::spread(circle, candela_, gammas_.size()));
  Photometry result{
      "EULUMDAT", {}, company_, luminaire_, catalogue_,       set.type,        {}, set.count < 0, set.flux_lm,
      {},         {}, {},       symmetry,   std::move(table), luminous_area(), {}};
  if (set.watts > 0) result.watts = set.watts;
  result.cct_k = first_number(set.colour, 1000, 20000);
  result.colour_rendering = first_number(set.rendering, 20, 100);
  if (body_length_ > 0 || body_width_ > 0) {
    const bool round = body_width_ == 0;
    result.body = photometry::Body{(round ? body_length_ : body_width_) * kMillimetre,
                                   body_length_ * kMillimetre, body_height_ * kMillimetre, round};
  }
  if (lamps_.size() > 1)
    problems_.note("several-lamp-sets", {name_, 0, 0},
                   fmt::format(FMT_STRING("{} lamp sets are listed; the first ({:.0f} lm) is used"),
                               lamps_.size(), set.flux_lm));
  if (tilt_ != 0)
    problems_.note(
        "measured-tilted", {name_, 25, 1},
        fmt::format(FMT_STRING("measured with a tilt of {} degrees; the angles are used as they are"),
                    tilt_));
  judge_planes(listed_c_, gammas_, candela_, {name_, 0, 0}, problems_);
  // In absolute data the ratio says nothing, and 0 stands for "not stated".
  judge(result, {name_, flux_line_, 16, 23, result.absolute ? 0 : output_ratio_ / 100}, problems_);
  return result;
}

std::optional<Photometry> EulumdatReader::read() {
  const int errors_before = problems_.error_count();
  if (!read_head() || !read_lamp_sets() || !read_table()) return std::nullopt;
  if (lamps_.front().flux_lm <= 0)
    problems_.error(
        "zero-flux", {name_, flux_line_, 0},
        "the flux of the lamps is not above 0, so the intensities (cd per 1000 lm) cannot be scaled");
  if (conversion_ == 0) {
    problems_.warning("conversion-zero", {name_, 24, 1}, "the conversion factor is 0; it is taken as 1");
    conversion_ = 1;
  }
  if (conversion_ < 0) problems_.error("bad-factor", {name_, 24, 1}, "the conversion factor is negative");
  if (length_ < 0 || width_ < 0 || *std::min_element(heights_.begin(), heights_.end()) < 0)
    problems_.error("bad-size", {name_, 16, 1}, "a luminous length, width or height is negative");
  if (gammas_.size() < 2)
    problems_.error("too-few-angles", here(), "a single gamma angle says nothing about the distribution");
  if (std::all_of(candela_.begin(), candela_.end(), [](double cd) { return cd == 0; }))
    problems_.error("zero-flux", here(), "all intensities are 0: the luminaire gives no light");
  if (problems_.error_count() > errors_before) return std::nullopt;
  Photometry result = assemble();
  if (problems_.error_count() > errors_before) return std::nullopt;
  return result;
}

}  // namespace

std::optional<Photometry> read_eulumdat(std::string_view bytes, const std::string& name, Problems& problems) {
  return EulumdatReader(bytes, name, problems).read();
}

}  // namespace glow::files
