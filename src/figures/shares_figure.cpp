#include "figures/shares_figure.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "core/record/shares.hpp"
#include "figures/canvas/svg_canvas.hpp"
#include "figures/curves/curve_style.hpp"

namespace glow::figures {
namespace {

constexpr double kSharesTop = 150, kSharesBottom = 60, kSharesNames = 300, kSharesRight = 40;
constexpr const char *kShareBelow = "#3b4a6b", *kShareWithin = "#8fb996", *kShareAbove = "#e0a458";

struct Bar {
  std::string name;
  record::Shares shares;
  bool is_sum = false;
};

class SharesSheet {
 public:
  SharesSheet(SvgCanvas& canvas, std::size_t bars)
      : canvas_(canvas),
        step_(std::clamp((kSheetHeight - kSharesTop - kSharesBottom) / double(std::max<std::size_t>(bars, 1)),
                         14.0, 46.0)) {}

  void draw(const Bar& bar, std::size_t row) {
    const double y = kSharesTop + step_ * double(row), high = 0.66 * step_,
                 size = std::clamp(0.4 * step_, 9.0, 15.0);
    const double wide = kSheetWidth - kSheetLeft - kSharesNames - kSharesRight;
    canvas_.text({kSheetLeft + kSharesNames - 12, y + high / 2 + size / 3},
                 fitted_text(bar.name, kSharesNames - 20, size, bar.is_sum),
                 {size, "end", kSheetInk, bar.is_sum});
    double x = kSheetLeft + kSharesNames;
    const std::tuple<double, const char*, const char*> parts[] = {
        {bar.shares.below, kShareBelow, "#ffffff"},
        {bar.shares.within, kShareWithin, kSheetInk},
        {bar.shares.above, kShareAbove, kSheetInk}};
    for (const auto& [share, fill, ink] : parts) {
      const double width = share * wide;
      if (width <= 0) continue;
      canvas_.rectangle({x, y}, {width, high}, fill);
      const std::string words = fmt::format(FMT_STRING("{:.0f} %"), 100 * share);
      if (text_width(words, size) + 8 < width)
        canvas_.text({x + width / 2, y + high / 2 + size / 3}, words, {size, "middle", ink, bar.is_sum});
      x += width;
    }
  }

 private:
  SvgCanvas& canvas_;
  const double step_;
};

void draw_key(SvgCanvas& canvas, const record::Thresholds& limits, const units::ShownUnits& units) {
  const std::string low = units::light_words(units, limits.first),
                    high = units::light_words(units, limits.second);
  const std::pair<const char*, std::string> keys[] = {
      {kShareBelow, fmt::format(FMT_STRING("below {} {}"), low, units.light_unit())},
      {kShareWithin, fmt::format(FMT_STRING("{} to {} {}"), low, high, units.light_unit())},
      {kShareAbove, fmt::format(FMT_STRING("above {} {}"), high, units.light_unit())}};
  double x = kSheetLeft + kSharesNames;
  for (const auto& [colour, words] : keys) {
    canvas.rectangle({x, 104}, {22, 14}, colour);
    canvas.text({x + 30, 116}, words, {14, "start", kSheetInk});
    x += 60 + text_width(words, 14);
  }
}

}  // namespace

std::string shares_svg(const record::RunRecord& run) {
  constexpr std::size_t kMostBars = 40;
  std::vector<Bar> bars;
  std::optional<record::Thresholds> limits;
  for (const record::RoomRecord& room : run.rooms)
    if (const auto shares = record::plane_shares(room)) {
      bars.push_back({room.name, *shares});
      limits = room.thresholds_lx;
    }
  if (bars.empty() || !limits) return {};
  const std::size_t rooms = bars.size();
  if (rooms > kMostBars) {  // those furthest from being within
    std::stable_sort(bars.begin(), bars.end(),
                     [](const Bar& a, const Bar& b) { return a.shares.within < b.shares.within; });
    bars.resize(kMostBars);
  }
  if (rooms > 1) bars.push_back({"all work planes", *record::shares_over(run.rooms), true});
  SvgCanvas canvas(kSheetWidth, kSheetHeight);
  canvas.text({kSheetLeft, 40}, fitted_text(run.project, kSheetWidth - 2 * kSheetLeft, 24, true),
              {24, "start", kSheetInk, true});
  std::string words = "share of the work plane's points by maintained illuminance, as luminaires are placed";
  if (rooms > kMostBars)
    words += fmt::format(FMT_STRING("; the {} rooms of {} that are least within"), kMostBars, rooms);
  canvas.text({kSheetLeft, 66}, words, {14, "start", kSheetGrey});
  draw_key(canvas, *limits, run.units);
  SharesSheet sheet(canvas, bars.size());
  for (std::size_t k = 0; k < bars.size(); ++k) sheet.draw(bars[k], k);
  return canvas.bytes();
}

}  // namespace glow::figures
