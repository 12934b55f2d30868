#include "files/plans/plan_taker.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/plans/drawing_units.hpp"
#include "files/plans/dxf/drawn_text.hpp"
#include "files/plans/dxf/expand.hpp"

namespace glow::files {
namespace {

/// The header's codes of units, m.
constexpr std::pair<int, double> kUnitCodes[] = {{1, 0.0254},  {2, 0.3048}, {3, 1609.344}, {4, 0.001},
                                                 {5, 0.01},    {6, 1},      {7, 1000},     {9, 0.0000254},
                                                 {10, 0.9144}, {13, 1e-6},  {14, 0.1}};

/// Names as they are compared.
void fold(plans::Request& request) {
  for (auto* names : {&request.room_layers, &request.wall_layers, &request.door_layers,
                      &request.window_layers, &request.text_layers})
    for (std::string& name : *names) name = dxf::folded(name);
  for (plans::BlockUse& use : request.blocks) use.block = dxf::folded(use.block);
  request.name_tag = dxf::folded(request.name_tag);
  request.number_tag = dxf::folded(request.number_tag);
}

/// Layers by the patterns that a person names them by.
class LayerChoice {
 public:
  LayerChoice(const dxf::Document& document, const std::string& file, Problems& problems)
      : document_(document), file_(file), problems_(problems) {}

  /// Adds the layers that the patterns name; an error where one names none. Hidden ones count only by their
  /// whole name.
  void add(const std::vector<std::string>& patterns, const char* what, std::vector<bool>& layers) {
    for (const std::string& written : patterns) {
      const std::string pattern = dxf::folded(written);
      bool taken = false;
      const dxf::Layer* passed_over = nullptr;
      for (std::size_t k = 0; k < document_.layers.size(); ++k) {
        const dxf::Layer& layer = document_.layers[k];
        if (!plans::fits(layer.key, {pattern}) || (!layer.is_listed && layer.entities == 0)) continue;
        if (!layer.is_visible() && layer.key != pattern) {
          passed_over = &layer;
          continue;
        }
        taken = layers[k] = true;
        if (!layer.is_visible())
          tell_hidden(layer, "perhaps an older design; it was taken because it is named");
      }
      if (taken) continue;
      if (passed_over)
        tell_hidden(*passed_over, "it was passed over; name it in full to take it");
      else
        refuse(written, what);
    }
  }

 private:
  void tell_hidden(const dxf::Layer& layer, const char* so) {
    problems_.warning("layer-frozen", {file_, 0, 0},
                      fmt::format(FMT_STRING("layer \"{}\" is {} in the drawing: {}"), printable(layer.name),
                                  layer.frozen ? "frozen" : "off", so));
  }
  void refuse(const std::string& written, const char* what) {
    std::vector<std::string> names;
    std::string all;
    std::size_t shown = 0;
    for (const dxf::Layer& layer : document_.layers) {
      if (layer.entities == 0) continue;
      names.push_back(layer.key);
      if (shown++ < 8) all += (all.empty() ? "" : ", ") + printable(layer.name);
    }
    const std::string near = nearest_word(dxf::folded(written), names);
    std::string meant;
    for (const dxf::Layer& layer : document_.layers)
      if (!near.empty() && layer.key == near) meant = printable(layer.name);
    problems_.error("layer-not-found", {file_, 0, 0},
                    fmt::format(FMT_STRING("there is no layer \"{}\" ({}); {}"), printable(written), what,
                                meant.empty() ? "the drawing has " + all + (shown > 8 ? ", .." : "")
                                              : "did you mean \"" + meant + "\"?"));
  }

  const dxf::Document& document_;
  const std::string& file_;
  Problems& problems_;
};

/// `written`: the request as a person wrote it; `folded` the same as names are compared, which must outlive
/// what comes back.
dxf::Wanted wanted_of(const dxf::Document& document, const plans::Request& written,
                      const plans::Request& folded, const plans::Frame& frame, const std::string& file,
                      Problems& problems) {
  dxf::Wanted wanted;
  wanted.frame = frame;
  wanted.window = written.window;
  wanted.layers.assign(document.layers.size(), false);
  wanted.text_layers.assign(document.layers.size(), false);
  LayerChoice choice(document, file, problems);
  if (written.from != plans::RoomsFrom::walls) choice.add(written.room_layers, "rooms", wanted.layers);
  choice.add(written.wall_layers, "walls", wanted.layers);
  choice.add(written.door_layers, "doors", wanted.layers);
  choice.add(written.window_layers, "windows", wanted.layers);
  choice.add(written.text_layers, "texts", wanted.text_layers);
  if (written.text_layers.empty())
    for (std::size_t k = 0; k < document.layers.size(); ++k)
      wanted.text_layers[k] = document.layers[k].is_visible();
  wanted.blocks = [&folded](const std::string& key) {
    const plans::BlockUse* use = plans::use_of(key, folded.blocks);
    return use && use->kind != plans::BlockUse::Kind::ignored;
  };
  return wanted;
}

/// Where something was looked for: on layers that were named, and those that named blocks or texts in rooms
/// stand on.
std::vector<bool> looked_at(const dxf::Wanted& wanted, const plans::Request& request,
                            const TakenFloor& taken) {
  std::vector<bool> layers = wanted.layers;
  for (std::size_t k = 0; k < layers.size(); ++k)
    layers[k] = layers[k] || (!request.text_layers.empty() && wanted.text_layers[k]);
  for (const plans::Symbol& symbol : taken.drawing.symbols)
    if (plans::use_of(symbol.key, request.blocks)) layers[symbol.drawn.layer] = layers[0] = true;
  for (const plans::Label& label : taken.drawing.labels)
    if (!layers[label.drawn.layer] &&
        std::any_of(taken.plan.rooms.begin(), taken.plan.rooms.end(),
                    [&](const plans::FoundRoom& room) { return geometry::contains(room.outline, label.at); }))
      layers[label.drawn.layer] = true;
  return layers;
}

Vec2 lower_left(const plans::FoundPlan& plan) {
  Vec2 low = Vec2::Constant(HUGE_VAL);
  for (const plans::FoundRoom& room : plan.rooms)
    for (const Vec2& p : room.outline) low = low.cwiseMin(p);
  return low;
}

std::string round_area(double area) {
  return area >= 10 ? fmt::format(FMT_STRING("{:.0f}"), area) : fmt::format(FMT_STRING("{:.2g}"), area);
}

/// Refused, with what is likely.
void refuse_without_unit(const dxf::Document& document, plans::FloorWish floor, const std::string& file,
                         Problems& problems) {
  Problems unheard;
  floor.unit.metres_per_unit = 0.001;
  const auto taken = take_floor(document, floor, file, unheard);
  std::string likely = "say it with --unit mm (or cm, m, in, ft)";
  if (taken && !taken->plan.rooms.empty()) {
    const double area = plans::median_area(taken->plan) * 1e6;
    const double unit = plans::likely_unit(area);
    const std::string name = plans::unit_name(unit);
    likely = fmt::format(FMT_STRING("likely {}, by which its rooms have about {} m2. Say so with --unit {}"),
                         name, round_area(area * unit * unit), name);
  }
  problems.error("unit-unknown", {file, 0, 0},
                 "the drawing does not say in what unit it is drawn: " + likely +
                     ", or state a distance that is known: --known-distance \"0,0 5000,0 = 5 m\"");
}

void doubt_unit(const plans::Frame& frame, const TakenFloor& taken, const std::string& file,
                Problems& problems) {
  if (plans::has_likely_sizes(taken.drawing, taken.plan)) return;
  const double area = plans::median_area(taken.plan);
  const std::string unit = plans::unit_name(plans::likely_unit(area / std::pow(frame.metres_per_unit, 2)));
  const std::string words =
      fmt::format(FMT_STRING("taken as {}, rooms have about {} m2, which nobody builds; the drawing is "
                             "likely in {} (--unit {})"),
                  plans::unit_name(frame.metres_per_unit), round_area(area), unit, unit);
  constexpr double kNoRoom = 1e6;  // m2: no project could hold it
  if (area > kNoRoom)
    problems.error("unit-doubtful", {file, 0, 0}, words);
  else
    problems.warning("unit-doubtful", {file, 0, 0}, words);
}

void doubt_origin(const plans::FoundPlan& plan, const std::string& file, Problems& problems) {
  constexpr double kFar = 1000;  // m
  const Vec2 corner = lower_left(plan);
  if (plan.rooms.empty() || corner.norm() < kFar) return;
  problems.warning(
      "far-from-origin", {file, 0, 0},
      fmt::format(FMT_STRING("the rooms lie {:.3g} km from the drawing's zero; --origin corner puts zero "
                             "at the lower left of what is taken"),
                  corner.norm() / 1000));
}

}  // namespace

std::optional<double> stated_unit(const dxf::Document& document) {
  for (const auto& [code, metres] : kUnitCodes)
    if (document.unit_code == code) return metres;
  return std::nullopt;
}

std::optional<TakenFloor> take_floor(const dxf::Document& document, const plans::FloorWish& written,
                                     const std::string& file, Problems& problems) {
  TakenFloor taken;
  plans::FloorWish floor = written;
  fold(floor.request);
  const plans::UnitWish& unit = floor.unit;
  std::optional<double> metres = unit.metres();
  if (!metres) metres = stated_unit(document);
  if (!metres || !std::isfinite(*metres) || *metres <= 0) {
    Problems layers;  // a layer that is not there is the likelier slip
    wanted_of(document, written.request, floor.request, {}, file, layers);
    if (layers.has_errors()) {
      problems.append(layers);
      return std::nullopt;
    }
    refuse_without_unit(document, floor, file, problems);
    return std::nullopt;
  }
  taken.frame = {*metres, floor.origin.value_or(Vec2::Zero()), floor.rotate_deg};
  const dxf::Wanted wanted = wanted_of(document, written.request, floor.request, taken.frame, file, problems);
  if (problems.has_errors()) return std::nullopt;
  taken.drawing = dxf::expanded(document, wanted, file, problems);
  if (problems.has_errors()) return std::nullopt;
  taken.plan = plans::take_plan(taken.drawing, floor.request);
  taken.looked_at = looked_at(wanted, floor.request, taken);
  doubt_unit(taken.frame, taken, file, problems);
  if (problems.has_errors()) return taken;  // for its picture
  if (floor.origin_at_corner && !taken.plan.rooms.empty()) {
    plans::FloorWish again = floor;
    again.origin_at_corner = false;
    again.origin = taken.frame.to_drawing(lower_left(taken.plan));
    Problems said;  // before
    return take_floor(document, again, file, said);
  }
  if (!floor.origin) doubt_origin(taken.plan, file, problems);
  return taken;
}

plans::Drawing whole_drawing(const dxf::Document& document, const plans::FloorWish& floor,
                             const plans::Frame& frame) {
  constexpr std::size_t kMostDrawn = 150'000;
  dxf::Wanted wanted;
  wanted.frame = frame;
  wanted.window = floor.request.window;
  for (const dxf::Layer& layer : document.layers) wanted.layers.push_back(layer.is_visible());
  wanted.text_layers.assign(document.layers.size(), false);
  wanted.most_strokes = kMostDrawn;
  wanted.must_have_all = false;
  Problems unheard;
  return dxf::expanded(document, wanted, {}, unheard);
}

}  // namespace glow::files
