#include "figures/plans/light_drawing.hpp"

#include <fmt/format.h>

#include <cmath>
#include <map>
#include <set>

#include "figures/canvas/colour_scale.hpp"
#include "figures/canvas/isolines.hpp"
#include "figures/flat/dense_grid.hpp"
#include "files/plans/dxf/drawing_writer.hpp"
#include "files/text/csv_cell.hpp"

namespace glow::figures {
namespace {

using files::dxf::DrawingWriter;

constexpr const char *kLuminaires = "LIGHT-LUMINAIRES", *kNumbers = "LIGHT-NUMBERS",
                     *kIsolux = "LIGHT-ISOLUX", *kColours = "LIGHT-FALSE-COLOURS", *kRooms = "LIGHT-ROOMS",
                     *kNames = "LIGHT-NAMES";
constexpr double kLetters = 0.15;  // m
/// Pale colours by number of the exchange format, from cool to warm: numbers stay legible on them.
constexpr int kBands[] = {171, 161, 151, 141, 131, 121, 111, 91, 71, 51, 41, 31, 21};

/// What a room's floor was taken from; without a name, in metres, where it was taken from nothing.
record::FloorRecord::Drawing drawing_of(const record::RunRecord& run, const record::RoomRecord& room) {
  for (const record::FloorRecord& floor : run.floors)
    if (floor.name == room.floor && floor.drawing) return *floor.drawing;
  return {};
}

/// Degrees, 0 to 360, of a turn in the building as the drawing has it.
double turn_in(const plans::Frame& frame, double rotation_deg) {
  return std::fmod(std::fmod(rotation_deg - frame.rotate_deg, 360) + 360, 360);
}

class DrawnSheet {
 public:
  explicit DrawnSheet(double metres_per_unit) : writer_(metres_per_unit), per_m_(1 / metres_per_unit) {
    writer_.layer(kRooms, 8);
    writer_.layer(kNames, 8);
    writer_.layer(kLuminaires, 5);
    writer_.layer(kNumbers, 7);
    writer_.layer(kIsolux, 30);
    writer_.layer(kColours, 8);
  }

  void add(const record::RoomRecord& room, const plans::Frame& frame, const units::ShownUnits& units,
           const model::FigureStyle& style) {
    frame_ = frame;
    if (!room.assessment.grids.empty() && room.assessment.grids.front().grid.plane.is_level() &&
        !room.assessment.grids.front().total_lx.empty())
      add_values(room.assessment.grids.front(), units, style);
    writer_.on(kRooms);
    writer_.polyline(drawn(room.outline), true);
    writer_.on(kNames);
    const geometry::Box2 box = geometry::bounding_box(room.outline);
    const bool has_number = room.name.find(room.number) != std::string::npos;
    const std::string words = has_number ? room.name : room.number + " " + room.name;
    const Vec2 corner(box.low.x() + 1.5 * kLetters, box.high.y() - 1.5 * kLetters);  // clear of the numbers
    writer_.text(frame.to_drawing(corner), 1.3 * kLetters * per_m_, words, turn_in(frame, 0),
                 DrawingWriter::Anchor::left);
    for (const record::LuminaireRecord& luminaire : room.luminaires()) add_luminaire(luminaire);
  }
  std::string bytes() const { return writer_.bytes(); }

 private:
  std::vector<Vec2> drawn(const std::vector<Vec2>& points) const {
    std::vector<Vec2> out;
    for (const Vec2& p : points) out.push_back(frame_.to_drawing(p));
    return out;
  }

  /// False colours below isolux lines below numbers.
  void add_values(const assess::GridReading& grid, const units::ShownUnits& units,
                  const model::FigureStyle& style) {
    constexpr int kParts = 2;
    std::vector<double> shown;
    for (const double lux : grid.total_lx) shown.push_back(units.light(lux));
    const ColourScale scale = styled_scale(*std::min_element(shown.begin(), shown.end()),
                                           *std::max_element(shown.begin(), shown.end()), style, units);
    DenseGrid dense = dense_grid(grid);
    for (double& lux : dense.lux) lux = units.light(lux);
    const Lattice lattice = smooth_lattice(dense.grid, dense.lux, kParts);
    add_colours(grid, lattice, scale);
    const double letters = std::clamp(0.35 * grid.grid.cell.minCoeff(), 0.03, kLetters);  // m
    writer_.on(kIsolux);
    for (const double level : scale.lines)
      for (const std::vector<Vec2>& line : isolines(lattice, level))
        add_isoline(grid, line, scale.label(level), letters);
    writer_.on(kNumbers);
    for (std::size_t k = 0; k < grid.grid.points.size(); ++k)
      writer_.text(frame_.to_drawing(grid.grid.points[k].xy()), letters * per_m_,
                   units::light_words(units, grid.total_lx[k]), turn_in(frame_, 0));
  }

  Vec2 in_room(const assess::GridReading& grid, const Vec2& p) const { return grid.grid.plane.at(p).xy(); }

  void add_isoline(const assess::GridReading& grid, const std::vector<Vec2>& line, const std::string& label,
                   double letters) {
    constexpr std::size_t kFewest = 3;
    std::vector<Vec2> points;
    for (const Vec2& p : line)
      if (geometry::contains(grid.grid.outline, p)) points.push_back(frame_.to_drawing(in_room(grid, p)));
    if (points.size() < kFewest) return;
    writer_.polyline(points, false);
    writer_.text(points[points.size() / 2], 0.8 * letters * per_m_, label, turn_in(frame_, 0));
  }

  /// Rows of the lattice, each in as few pieces as bands change along it.
  void add_colours(const assess::GridReading& grid, const Lattice& lattice, const ColourScale& scale) {
    constexpr std::size_t kMostBands = std::size(kBands);
    writer_.on(kColours);
    const std::size_t bands = scale.levels.size() + 1;
    const auto colour = [&](std::size_t band) {
      return kBands[bands < 2 ? kMostBands / 2 : band * (kMostBands - 1) / (bands - 1)];
    };
    const auto corner = [&](int i, int j) { return frame_.to_drawing(in_room(grid, lattice.node(i, j))); };
    for (int j = 0; j + 1 < lattice.ny; ++j) {
      int begin = -1;
      std::size_t band = 0;
      for (int i = 0; i < lattice.nx; ++i) {
        const bool inside =
            i + 1 < lattice.nx && geometry::contains(grid.grid.outline, lattice.node(i + 0.5, j + 0.5));
        const std::size_t own = inside ? scale.band((lattice.at(i, j) + lattice.at(i + 1, j) +
                                                     lattice.at(i, j + 1) + lattice.at(i + 1, j + 1)) /
                                                    4)
                                       : 0;
        if (begin >= 0 && (!inside || own != band)) {
          writer_.solid(corner(begin, j), corner(i, j), corner(i, j + 1), corner(begin, j + 1), colour(band));
          begin = -1;
        }
        if (inside && begin < 0) {
          begin = i;
          band = own;
        }
      }
    }
  }

  void add_luminaire(const record::LuminaireRecord& luminaire) {
    const std::string block = block_of(luminaire);
    writer_.on(kLuminaires);
    writer_.insert(block, frame_.to_drawing(luminaire.position.xy()), turn_in(frame_, luminaire.rotation_deg),
                   {{"MARK", luminaire.mark},
                    {"ROTATION", fmt::format(FMT_STRING("{:g}"), luminaire.rotation_deg)},
                    {"HEIGHT", fmt::format(FMT_STRING("{:.3f}"), luminaire.position.z())}},
                   kLetters * per_m_);
  }

  /// The mark's body, with a line to where C0 looks; made when it is first used.
  std::string block_of(const record::LuminaireRecord& luminaire) {
    const std::string name = "LUMINAIRE-" + files::dxf::drawing_name(luminaire.mark);
    if (!blocks_.insert(name).second) return name;
    const Vec2 half = luminaire.size_m.cwiseMax(0.05) / 2 * per_m_;
    writer_.begin_block(name);
    writer_.on("0");
    if (luminaire.round)
      writer_.circle(Vec2::Zero(), half.x());
    else
      writer_.polyline({{-half.x(), -half.y()}, {half.x(), -half.y()}, half, {-half.x(), half.y()}}, true);
    writer_.line(Vec2::Zero(), Vec2(half.x(), 0));
    for (const char* tag : {"MARK", "ROTATION", "HEIGHT"})
      writer_.attribute_definition(tag, Vec2::Zero(), kLetters * per_m_);
    writer_.end_block();
    return name;
  }

  DrawingWriter writer_;
  const double per_m_;
  plans::Frame frame_;
  std::set<std::string> blocks_;
};

}  // namespace

std::vector<LightDrawing> light_drawings(const record::RunRecord& run) {
  std::vector<std::string> order;
  std::map<std::string, DrawnSheet> sheets;
  for (const record::RoomRecord& room : run.rooms) {
    const auto [of, frame] = drawing_of(run, room);
    auto sheet = sheets.find(of);
    if (sheet == sheets.end()) {
      order.push_back(of);
      sheet = sheets.emplace(of, DrawnSheet(frame.metres_per_unit)).first;
    }
    sheet->second.add(room, frame, run.units, run.style);
  }
  std::vector<LightDrawing> drawings;
  for (const std::string& of : order) drawings.push_back({of, sheets.at(of).bytes()});
  return drawings;
}

std::string luminaire_places_csv(const record::RunRecord& run) {
  std::string text =
      "floor,room,number,mark,x_m,y_m,z_m,rotation_deg,drawing,drawing_x,drawing_y,drawing_rotation_deg\n";
  for (const record::RoomRecord& room : run.rooms) {
    const auto [of, frame] = drawing_of(run, room);
    for (const record::LuminaireRecord& luminaire : room.luminaires()) {
      const Vec2 there = frame.to_drawing(luminaire.position.xy());
      text +=
          fmt::format(FMT_STRING("{},{},{},{},{:.4f},{:.4f},{:.4f},{:g},{},{:.6f},{:.6f},{:g}\n"),
                      files::csv_cell(room.floor), files::csv_cell(room.name), files::csv_cell(room.number),
                      files::csv_cell(luminaire.mark), luminaire.position.x(), luminaire.position.y(),
                      luminaire.position.z(), luminaire.rotation_deg, files::csv_cell(of), there.x(),
                      there.y(), turn_in(frame, luminaire.rotation_deg));
    }
  }
  return text;
}

}  // namespace glow::figures
