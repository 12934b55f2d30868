#include "files/plans/dxf/expand.hpp"

#include <fmt/format.h>

#include <Eigen/Geometry>
#include <cmath>
#include <set>

#include "files/plans/dxf/curves.hpp"
#include "files/plans/dxf/drawn_text.hpp"

namespace glow::files::dxf {
namespace {

constexpr double kSag = 0.002;  // m: how far a curve's chords may lie from it
constexpr int kDeepest = 64;
using Affine = Eigen::Affine3d;

/// World axes of an entity that has a normal of its own: by the rule of the format.
Affine world_of(const Eigen::Vector3f& of) {
  const Vec3 normal = of.cast<double>();
  Affine world = Affine::Identity();
  if (normal == Vec3::UnitZ()) return world;
  constexpr double kNearZ = 1.0 / 64;
  const bool steep = std::abs(normal.x()) < kNearZ && std::abs(normal.y()) < kNearZ;
  const Vec3 x = (steep ? Vec3(Vec3::UnitY().cross(normal)) : Vec3(Vec3::UnitZ().cross(normal))).normalized();
  world.linear().col(0) = x;
  world.linear().col(1) = normal.cross(x);
  world.linear().col(2) = normal;
  return world;
}

/// What inserting a block brings, all that it holds in turn.
struct Load {
  double entities = 0;
  bool wanted = false;  ///< something on a layer that is wanted, or on layer 0
  int state = 0;        ///< 0: not looked at, 1: being looked at, 2: known
};

class Expander {
 public:
  Expander(const Document& document, const Wanted& wanted, const std::string& file, Problems& problems)
      : document_(document), wanted_(wanted), file_(file), problems_(problems) {
    for (const Layer& layer : document.layers)
      drawing_.layers.push_back({layer.name, layer.key, layer.frozen, layer.off, layer.entities});
  }

  plans::Drawing take() {
    expand(document_.entities, {Affine::Identity(), 0, -1, 0, false, false});
    return std::move(drawing_);
  }

 private:
  struct Context {
    Affine to_world;
    std::uint32_t layer;  ///< of the insert: what stands on layer 0 in its block takes it
    int symbol;
    int depth;
    bool in_block;
    bool whole;  ///< in a block that is wanted whatever its layers
  };

  void expand(const Entities& entities, const Context& context) {
    for (std::size_t k = 0; k < entities.size() && !problems_.has_errors(); ++k) {
      const Entity& entity = entities[k];
      std::visit([&](const auto& shape) { take(shape, entity, context, entities); }, entity.shape);
    }
  }

  std::uint32_t layer_of(const Entity& entity, const Context& context) const {
    return entity.layer == 0 && context.in_block ? context.layer : entity.layer;
  }

  plans::Drawn drawn(const Entity& entity, const Context& context) const {
    return {layer_of(entity, context), entity.handle, entity.line, context.symbol};
  }

  /// Chord error in the coordinates of a shape that is then transformed.
  double sag_in(const Affine& to_world) const {
    const double scale = std::max(to_world.linear().col(0).norm(), to_world.linear().col(1).norm());
    return kSag / std::max(scale * wanted_.frame.metres_per_unit, 1e-300);
  }

  bool in_window(const Vec2& world) const {
    if (!wanted_.window) return true;
    const auto& [low, high] = *wanted_.window;
    return world.x() >= low.x() && world.y() >= low.y() && world.x() <= high.x() && world.y() <= high.y();
  }

  /// Points in the building; nothing where they lie outside the window.
  std::vector<Vec2> placed(const std::vector<Vec3>& points, const Affine& to_world) const {
    Vec2 middle = Vec2::Zero();
    std::vector<Vec2> world;
    world.reserve(points.size());
    for (const Vec3& p : points) {
      world.push_back((to_world * p).head<2>());
      middle += world.back() / double(points.size());
    }
    if (world.empty() || !in_window(middle)) return {};
    for (Vec2& p : world) p = wanted_.frame.to_metres(p);
    return world;
  }

  void put(const std::vector<Vec3>& points, bool closed, const Affine& to_world, const Entity& entity,
           const Context& context, std::optional<plans::ArcOf> arc = {}) {
    if (drawing_.strokes.size() >= wanted_.most_strokes) return too_many(entity);
    plans::Stroke stroke{placed(points, to_world), closed, std::move(arc), drawn(entity, context)};
    if (!stroke.points.empty()) drawing_.strokes.push_back(std::move(stroke));
  }

  void too_many(const Entity& entity) {
    if (!wanted_.must_have_all) return;
    problems_.error(
        "too-many", place(entity),
        fmt::format(FMT_STRING("with all blocks inserted the drawing has more than {} lines on the "
                               "layers asked for; name fewer layers"),
                    wanted_.most_strokes));
  }

  bool is_wanted(const Entity& entity, const Context& context) const {
    return context.whole || wanted_.layers[layer_of(entity, context)];
  }

  Affine own_to_world(const Entity& entity, const Context& context, bool in_space) const {
    return in_space ? context.to_world : Affine(context.to_world * world_of(entity.normal));
  }

  void take(const Line& line, const Entity& entity, const Context& context, const Entities&) {
    if (is_wanted(entity, context)) put({line.from, line.to}, false, context.to_world, entity, context);
  }

  void take(const Polyline& polyline, const Entity& entity, const Context& context, const Entities&) {
    if (!is_wanted(entity, context)) return;
    const Affine to_world = own_to_world(entity, context, polyline.in_space);
    for (const auto& points : points_of(polyline, sag_in(to_world)))
      put(points, polyline.closed, to_world, entity, context);
  }

  void take(const Arc& arc, const Entity& entity, const Context& context, const Entities&) {
    if (!is_wanted(entity, context)) return;
    const Affine to_world = own_to_world(entity, context, arc.in_space);
    std::optional<plans::ArcOf> of;
    const double a = to_world.linear().col(0).head<2>().norm(), b = to_world.linear().col(1).head<2>().norm();
    if (arc.ratio == 1 && std::abs(a - b) < 1e-3 * std::max(a, b))
      of = plans::ArcOf{wanted_.frame.to_metres((to_world * arc.centre).head<2>()),
                        arc.axis.norm() * a * wanted_.frame.metres_per_unit};
    put(points_of(arc, sag_in(to_world)), arc.full, to_world, entity, context, of);
  }

  void take(const Spline& spline, const Entity& entity, const Context& context, const Entities&) {
    if (is_wanted(entity, context))
      put(points_of(spline, sag_in(context.to_world)), spline.closed, context.to_world, entity, context);
  }

  void take(const Text& text, const Entity& entity, const Context& context, const Entities& entities) {
    if (!wanted_.text_layers[layer_of(entity, context)] || text.words.empty()) return;
    const Affine to_world = own_to_world(entity, context, text.in_space);
    const Vec2 at = (to_world * text.at).head<2>();
    if (!in_window(at)) return;
    plans::Label label{text.words, wanted_.frame.to_metres(at),
                       text.height * to_world.linear().col(1).norm() * wanted_.frame.metres_per_unit,
                       folded(text.tag), drawn(entity, context)};
    if (text.insert >= 0 && std::size_t(text.insert) < entities.size()) {
      const auto known = attributed_.find(&entities[std::size_t(text.insert)]);
      if (known != attributed_.end()) label.drawn.symbol = known->second;
    }
    drawing_.labels.push_back(std::move(label));
  }

  void take(const Hatch& hatch, const Entity& entity, const Context& context, const Entities&) {
    if (!is_wanted(entity, context)) return;
    if (drawing_.fills.size() >= wanted_.most_strokes) return too_many(entity);
    const Affine to_world = own_to_world(entity, context, false);
    plans::Fill fill{{}, drawn(entity, context)};
    for (const auto& edges : hatch.loops) {
      std::vector<Vec3> points;
      for (const auto& edge : edges) {
        std::vector<Vec3> of_edge = points_of_edge(edge, sag_in(to_world));
        // Edges run on from one another; some programs write one of them the wrong way round.
        if (!points.empty() && !of_edge.empty() &&
            (of_edge.back() - points.back()).norm() < (of_edge.front() - points.back()).norm())
          std::reverse(of_edge.begin(), of_edge.end());
        points.insert(points.end(), of_edge.begin(), of_edge.end());
      }
      for (Vec3& p : points) p.z() = hatch.elevation;
      std::vector<Vec2> loop = placed(points, to_world);
      if (!loop.empty()) fill.loops.push_back(std::move(loop));
    }
    if (!fill.loops.empty()) drawing_.fills.push_back(std::move(fill));
  }

  static std::vector<Vec3> points_of_edge(const std::variant<Line, Arc, Spline, Polyline>& edge, double sag) {
    if (const auto* line = std::get_if<Line>(&edge)) return {line->from, line->to};
    if (const auto* arc = std::get_if<Arc>(&edge)) return points_of(*arc, sag);
    if (const auto* spline = std::get_if<Spline>(&edge)) return points_of(*spline, sag);
    return points_of(std::get<Polyline>(edge), sag).front();
  }

  void take(const Insert& insert, const Entity& entity, const Context& context, const Entities&);
  void insert_once(const Insert& insert, const Block& block, const Entity& entity, const Context& context,
                   const Affine& to_world);
  const Load& load_of(const std::string& key, int depth);
  const Block* block_of(const Insert& insert, const Entity& entity);
  bool is_bearable(const Insert& insert, const Load& load, const Entity& entity);

  void warn_once(const char* code, const std::string& subject, const Entity& entity, std::string words) {
    if (warned_.insert(code + subject).second) problems_.warning(code, place(entity), std::move(words));
  }
  Place place(const Entity& entity) const { return {file_, document_.is_binary ? 0 : int(entity.line), 0}; }

  const Document& document_;
  const Wanted& wanted_;
  const std::string& file_;
  Problems& problems_;
  plans::Drawing drawing_;
  std::map<std::string, Load> loads_;
  std::map<const Entity*, int> attributed_;  ///< symbols of inserts that attributes may follow
  std::set<std::string> warned_, open_;
};

/// What a block holds, itself and what is inserted in it. What goes round or too deep counts once.
const Load& Expander::load_of(const std::string& key, int depth) {
  Load& load = loads_[key];
  const auto block = document_.blocks.find(key);
  if (load.state != 0 || block == document_.blocks.end() || depth > kDeepest) return load;
  load.state = 1;
  double entities = 0;
  bool wanted = wanted_.blocks && wanted_.blocks(key);
  for (const Entity& entity : block->second.entities) {
    wanted = wanted || entity.layer == 0 || wanted_.layers[entity.layer] || wanted_.text_layers[entity.layer];
    ++entities;
    const auto* insert = std::get_if<Insert>(&entity.shape);
    if (!insert) continue;
    const Load& inner = load_of(insert->block(), depth + 1);
    entities += inner.entities * std::max(1.0, double(insert->columns)) * std::max(1.0, double(insert->rows));
    wanted = wanted || inner.wanted;
  }
  Load& known = loads_[key];
  known.entities = entities;
  known.wanted = wanted;
  known.state = 2;
  return known;
}

const Block* Expander::block_of(const Insert& insert, const Entity& entity) {
  const auto found = document_.blocks.find(insert.block());
  if (found == document_.blocks.end()) {
    if (!insert.is_dimension)
      warn_once("block-missing", insert.block(), entity,
                insert.name().empty()
                    ? std::string("a block is inserted that has no name; it was passed over")
                    : fmt::format(FMT_STRING("block \"{}\" is inserted and not defined; it was passed over"),
                                  printable(insert.name())));
    return nullptr;
  }
  const Block& block = found->second;
  if (block.is_reference) {
    warn_once(
        "xref-missing", insert.block(), entity,
        fmt::format(FMT_STRING("\"{}\" stands for another drawing, {}, which is not looked for; bind it into "
                               "the drawing if its rooms are wanted"),
                    printable(block.name), printable(block.reference)));
    if (block.entities.empty()) return nullptr;
  }
  return &block;
}

/// Whether it can be inserted as often as it says.
bool Expander::is_bearable(const Insert& insert, const Load& load, const Entity& entity) {
  const double copies = std::max(1.0, double(insert.columns)) * std::max(1.0, double(insert.rows));
  const double coming = copies * std::max(1.0, load.entities);
  if (coming + double(drawing_.strokes.size()) <= double(wanted_.most_strokes)) return true;
  const bool is_needed = wanted_.must_have_all && load.wanted;
  const std::string words =
      fmt::format(FMT_STRING("block \"{}\" would bring {:.0f} entities, more than a plan holds; "),
                  printable(insert.name()), coming);
  if (is_needed)
    problems_.error("too-many", place(entity), words + "name layers without it, or erase it");
  else
    warn_once("too-many", insert.block(), entity, words + "it was passed over");
  return false;
}

void Expander::take(const Insert& insert, const Entity& entity, const Context& context, const Entities&) {
  const Block* block = block_of(insert, entity);
  if (!block) return;
  if (context.depth >= kDeepest)
    return warn_once(
        "too-deep", "", entity,
        fmt::format(FMT_STRING("blocks are nested more than {} deep; what lies deeper was passed "
                               "over"),
                    kDeepest));
  if (open_.count(insert.block()))
    return warn_once("block-cycle", insert.block(), entity,
                     fmt::format(FMT_STRING("block \"{}\" holds itself; it was passed over there"),
                                 printable(insert.name())));
  const Load& load = load_of(insert.block(), context.depth);
  if (load.state == 2 && !load.wanted && !context.whole) return;
  Insert sound = insert;
  if (insert.columns < 1 || insert.rows < 1) {
    warn_once(
        "insert-counts", insert.block(), entity,
        fmt::format(FMT_STRING("block \"{}\" is inserted in {} columns and {} rows; it was taken once along "
                               "what is less than one"),
                    printable(insert.name()), insert.columns, insert.rows));
    sound.columns = std::max<std::int64_t>(insert.columns, 1);
    sound.rows = std::max<std::int64_t>(insert.rows, 1);
  }
  if (insert.scale.x() == 0 || insert.scale.y() == 0)
    return warn_once("insert-counts", insert.block() + " ", entity,
                     fmt::format(FMT_STRING("block \"{}\" is inserted at scale 0; it was passed over"),
                                 printable(insert.name())));
  if (!is_bearable(sound, load, entity)) return;
  open_.insert(insert.block());
  attributed_[&entity] = int(drawing_.symbols.size());
  const Affine world = context.to_world * world_of(entity.normal) * Eigen::Translation3d(insert.at) *
                       Eigen::AngleAxisd(insert.rotation, Vec3::UnitZ());
  for (std::int64_t row = 0; row < sound.rows; ++row)
    for (std::int64_t column = 0; column < sound.columns; ++column)
      insert_once(
          insert, *block, entity, context,
          world *
              Eigen::Translation3d(double(column) * insert.column_step, double(row) * insert.row_step, 0) *
              Eigen::Scaling(insert.scale));
  open_.erase(insert.block());
}

void Expander::insert_once(const Insert& insert, const Block& block, const Entity& entity,
                           const Context& context, const Affine& to_world) {
  const Vec2 at = wanted_.frame.to_metres((to_world * Vec3(Vec3::Zero())).head<2>());
  const Vec2 along = wanted_.frame.to_metres((to_world * Vec3(Vec3::UnitX())).head<2>()) - at;
  const int symbol = int(drawing_.symbols.size());
  drawing_.symbols.push_back({insert.name(), insert.block(), at,
                              std::atan2(along.y(), along.x()) * 180 / M_PI, insert.is_dimension,
                              drawn(entity, context)});
  expand(block.entities,
         {to_world * Eigen::Translation3d(-block.base), layer_of(entity, context), symbol, context.depth + 1,
          true, context.whole || (wanted_.blocks && wanted_.blocks(insert.block()))});
}

}  // namespace

plans::Drawing expanded(const Document& document, const Wanted& wanted, const std::string& file,
                        Problems& problems) {
  return Expander(document, wanted, file, problems).take();
}

}  // namespace glow::files::dxf
