#include "files/results/hours_files.hpp"

#include <fmt/format.h>

#include <cstring>

#include "core/daylight/weather.hpp"

namespace glow::files {
namespace {

constexpr double kBytesOfCell = 6;  // of a CSV

/// Little-endian, whatever the machine is.
template <class T>
void put(std::string& out, T value) {
  for (std::size_t byte = 0; byte < sizeof(T); ++byte) out += char((value >> (8 * byte)) & 0xff);
}

std::uint32_t bits_of(float value) {
  std::uint32_t bits = 0;
  std::memcpy(&bits, &value, sizeof bits);
  return bits;
}

}  // namespace

double hours_bytes(std::size_t points, HoursFormat format) {
  constexpr double kLight = daylight::kHoursOfYear / 2.0;
  return kLight * double(points) * (format == HoursFormat::csv ? kBytesOfCell : sizeof(float));
}

std::string hours_csv(const run::YearHours& hours) {
  std::string out = "month,day,hour";
  for (Eigen::Index p = 0; p < hours.lux.rows(); ++p) out += fmt::format(FMT_STRING(",p{}_lx"), p + 1);
  out += "\n";
  for (std::size_t h = 0; h < hours.numbers.size(); ++h) {
    const auto [month, day] = daylight::date_of_day(hours.numbers[h] / 24);
    out += fmt::format(FMT_STRING("{},{},{}"), month, day, hours.numbers[h] % 24 + 1);
    for (Eigen::Index p = 0; p < hours.lux.rows(); ++p)
      out += fmt::format(FMT_STRING(",{:.4g}"), hours.lux(p, Eigen::Index(h)));
    out += "\n";
  }
  return out;
}

std::string power_csv(const std::vector<int>& power_w) {
  std::string out = "month,day,hour,power_w\n";
  for (std::size_t h = 0; h < power_w.size(); ++h) {
    const auto [month, day] = daylight::date_of_day(int(h / 24));
    out += fmt::format(FMT_STRING("{},{},{},{}\n"), month, day, h % 24 + 1, power_w[h]);
  }
  return out;
}

std::string hours_binary(const run::YearHours& hours) {
  std::string out = "GLOWHRS1";
  put(out, std::uint32_t(hours.lux.rows()));
  put(out, std::uint32_t(hours.numbers.size()));
  for (const int number : hours.numbers) put(out, std::uint16_t(number));
  if (hours.numbers.size() % 2 == 1) put(out, std::uint16_t(0));
  for (Eigen::Index h = 0; h < hours.lux.cols(); ++h)
    for (Eigen::Index p = 0; p < hours.lux.rows(); ++p) put(out, bits_of(hours.lux(p, h)));
  return out;
}

}  // namespace glow::files
