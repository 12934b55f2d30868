#include "figures/plot_script.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace glow::figures {
namespace {

std::string quoted(const std::string& words) {
  std::string text = "'";
  for (const char c : words) text += c == '\'' ? std::string("''") : std::string(1, c == '\n' ? ' ' : c);
  return text + "'";
}

std::string row(const units::ShownUnits& units, const Vec2& p, const std::string& more = {}) {
  return fmt::format(FMT_STRING("{:.6g} {:.6g}{}\n"), units.length(p.x()), units.length(p.y()), more);
}

/// Blocks of the data file, two blank lines between: values, outline, isolux lines.
class DataFile {
 public:
  explicit DataFile(const FigureInput& input) : input_(input) {}

  int add_values(const assess::GridReading& grid) {
    begin(fmt::format(FMT_STRING("{}: u {}, v {}, {}"), grid.name, input_.units.length_unit(),
                      input_.units.length_unit(), input_.units.light_unit()));
    // Row after row and whole, as images want them: cells without a value are NaN.
    std::size_t next = 0;
    for (int j = 0; j < grid.grid.count.ny; ++j)
      for (int i = 0; i < grid.grid.count.nx; ++i) {
        const std::array<int, 2> cell = {i, j};
        const bool known = next < grid.grid.cells.size() && grid.grid.cells[next] == cell;
        text_ +=
            row(input_.units, grid.grid.middle_of(cell),
                known ? fmt::format(FMT_STRING(" {:.6g}"), input_.units.light(grid.total_lx[next])) : " NaN");
        next += known;
      }
    return count_ - 1;
  }
  int add_outline(const assess::GridReading& grid) {
    begin(grid.name + ": outline");
    geometry::Polygon outline = grid.grid.outline;
    outline.push_back(outline.front());
    for (const Vec2& p : outline) text_ += row(input_.units, p);
    return count_ - 1;
  }
  int add_lines(const assess::GridReading& grid, const ColourScale& scale) {
    begin(grid.name + ": isolux lines");
    std::vector<double> shown;
    for (const double lux : grid.total_lx) shown.push_back(input_.units.light(lux));
    const int most = std::max(grid.grid.count.nx, grid.grid.count.ny);
    const Lattice lattice = smooth_lattice(grid.grid, shown, std::clamp(240 / most, 1, 12));
    bool any = false;
    for (const double level : scale.lines)
      for (const auto& chain : isolines(lattice, level)) {
        if (any) text_ += "\n";  // one blank line between curves, two between blocks
        for (const Vec2& p : chain) text_ += row(input_.units, p, fmt::format(FMT_STRING(" {:.6g}"), level));
        any = true;
      }
    if (!any) text_ += row(input_.units, grid.grid.outline.front(), " 0");
    return count_ - 1;
  }
  const std::string& text() const { return text_; }

 private:
  void begin(const std::string& words) {
    text_ += fmt::format(FMT_STRING("{}# {}\n"), count_++ > 0 ? "\n\n" : "", words);
  }
  const FigureInput& input_;
  std::string text_;
  int count_ = 0;
};

std::string palette_of(const ColourScale& scale) {
  std::string text;
  const std::size_t n = scale.colours.size();
  for (std::size_t k = 0; k < n; ++k)
    text += fmt::format(FMT_STRING("{}{} '{}'"), k ? ", " : "", k, scale.colours[k]);
  const double low = scale.low_limit.value_or(0);
  const double high = scale.levels.empty() ? 1 : scale.levels.back();
  return fmt::format(FMT_STRING("set palette defined ({})\nset cbrange [{:.6g}:{:.6g}]\n"), text, low,
                     scale.high_limit.value_or(high));
}

std::string flat_plot(DataFile& data, const FigureInput& input, const assess::GridReading& grid,
                      const ColourScale& scale, const std::string& file) {
  const int values = data.add_values(grid), outline = data.add_outline(grid);
  std::string text = fmt::format(
      FMT_STRING("set title {}\nset xlabel 'u in {}'\nset ylabel 'v in {}'\nset size ratio -1\nset cblabel "
                 "'illuminance in {}'\nplot {} index {} using 1:2:3 with {} notitle, \\\n"),
      quoted(input.room->title() + ": " + grid.name), input.units.length_unit(), input.units.length_unit(),
      input.units.light_unit(), file, values,
      std::min(grid.grid.count.nx, grid.grid.count.ny) > 1 ? "image" : "points pt 5 ps 4 lc palette");
  if (input.style.lines)
    text += fmt::format(FMT_STRING("  {} index {} using 1:2 with lines lc rgb 'white' notitle, \\\n"), file,
                        data.add_lines(grid, scale));
  if (input.style.values != model::FigureStyle::Values::none)
    text += fmt::format(
        FMT_STRING("  {} index {} using 1:2:($3 == $3 ? sprintf('%.0f', $3) : '') with labels font ',8' "
                   "notitle, \\\n"),
        file, values);
  return text + fmt::format(FMT_STRING("  {} index {} using 1:2 with lines lw 2 lc rgb 'black' notitle\n"),
                            file, outline);
}

std::string columns_plot(DataFile& data, const FigureInput& input, const assess::GridReading& grid,
                         const std::string& file) {
  const int values = data.add_values(grid);
  return fmt::format(
      FMT_STRING(
          "set title {}\nset xlabel 'u in {}'\nset ylabel 'v in {}'\nset zlabel '{}'\nset xyplane at 0\n"
          "set boxwidth {:.4g}\nset boxdepth {:.4g}\nset style fill solid 1 border lc rgb 'black'\n"
          "set pm3d depthorder base\nset view 60, 30\nsplot {} index {} using 1:2:3:3 with boxes fc palette "
          "notitle\n"),
      quoted(input.room->title() + ": " + grid.name), input.units.length_unit(), input.units.length_unit(),
      input.units.light_unit(), 0.86 * input.units.length(grid.grid.cell.x()),
      0.86 * input.units.length(grid.grid.cell.y()), file, values);
}

}  // namespace

PlotScript plot_script(const FigureInput& input, const std::vector<const assess::GridReading*>& grids,
                       const std::string& base, bool columns) {
  DataFile data(input);
  const ColourScale scale = scale_of(input, grids);
  const std::string file = quoted(base + ".dat");
  std::string text = fmt::format(
      FMT_STRING(
          "# gnuplot {0}.gp   makes {0}.svg\nset terminal svg size 1280,800 font 'Open Sans,12' background "
          "'white'\nset output '{0}.svg'\n"),
      base);
  text += palette_of(scale);
  if (grids.size() > 1) {
    const int across = int(std::ceil(std::sqrt(double(grids.size()))));
    const int down = (int(grids.size()) + across - 1) / across;
    text += fmt::format(FMT_STRING("set multiplot layout {},{}\n"), down, across);
  }
  for (const assess::GridReading* grid : grids)
    text += columns ? columns_plot(data, input, *grid, file) : flat_plot(data, input, *grid, scale, file);
  if (grids.size() > 1) text += "unset multiplot\n";
  return {text, data.text()};
}

}  // namespace glow::figures
