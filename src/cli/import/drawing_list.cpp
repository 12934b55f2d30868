#include "cli/import/drawing_list.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "core/plans/drawing_units.hpp"
#include "files/plans/plan_taker.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace {

using namespace files::dxf;

/// What stands on a layer, in model space and in blocks.
struct LayerCount {
  std::size_t lines = 0, outlines = 0, curves = 0, hatches = 0, texts = 0, blocks = 0;
  std::vector<std::string> words;
};

struct Counted {
  std::vector<LayerCount> layers;
  std::map<std::string, std::size_t> inserts;  ///< by block key
  Vec2 low = Vec2::Constant(HUGE_VAL), high = Vec2::Constant(-HUGE_VAL);
};

class Counter {
 public:
  explicit Counter(const Document& document) { counted_.layers.resize(document.layers.size()); }
  void count(const Entities& entities, bool in_model) {
    in_model_ = in_model;
    for (const Entity& entity : entities) {
      layer_ = &counted_.layers[entity.layer];
      std::visit([this](const auto& shape) { add(shape); }, entity.shape);
    }
  }
  Counted take() { return std::move(counted_); }

 private:
  void reach(const Vec3& p) {
    if (!in_model_) return;
    counted_.low = counted_.low.cwiseMin(p.xy());
    counted_.high = counted_.high.cwiseMax(p.xy());
  }
  void add(const Line& line) {
    ++layer_->lines;
    reach(line.from);
    reach(line.to);
  }
  void add(const Polyline& polyline) {
    const auto& v = polyline.vertices;
    const bool closed = polyline.closed || (v.size() > 3 && (v.front().at - v.back().at).norm() < 1e-6);
    ++(closed ? layer_->outlines : layer_->lines);
    for (const Vertex& vertex : v)
      if (vertex.at.allFinite()) reach(vertex.at);
  }
  void add(const Arc& arc) {
    ++(arc.full ? layer_->outlines : layer_->curves);
    reach(arc.centre);
  }
  void add(const Spline&) { ++layer_->curves; }
  void add(const Hatch&) { ++layer_->hatches; }
  void add(const Text& text) {
    constexpr std::size_t kShown = 3;
    ++layer_->texts;
    if (layer_->words.size() < kShown) layer_->words.push_back(words::fitted(printable(text.words), 24));
    reach(text.at);
  }
  void add(const Insert& insert) {
    ++layer_->blocks;
    ++counted_.inserts[insert.block()];
    reach(insert.at);
  }

  Counted counted_;
  LayerCount* layer_ = nullptr;
  bool in_model_ = true;
};

Counted counted(const Document& document) {
  Counter counter(document);
  counter.count(document.entities, true);
  for (const auto& [key, block] : document.blocks)
    if (block.name.empty() || block.name.front() != '*') counter.count(block.entities, false);
  return counter.take();
}

std::string layer_table(const Document& document, const Counted& counted) {
  std::string text = fmt::format(FMT_STRING("\n{:<24} {:>7} {:>8} {:>7} {:>7} {:>6} {:>6}\n"), "layer",
                                 "lines", "outlines", "curves", "hatches", "blocks", "texts");
  for (std::size_t k = 0; k < document.layers.size(); ++k) {
    const Layer& layer = document.layers[k];
    const LayerCount& c = counted.layers[k];
    if (c.lines + c.outlines + c.curves + c.hatches + c.blocks + c.texts == 0) continue;
    std::string row = fmt::format(FMT_STRING("{:<24} {:>7} {:>8} {:>7} {:>7} {:>6} {:>6}"),
                                  words::fitted(printable(layer.name), 24), c.lines, c.outlines, c.curves,
                                  c.hatches, c.blocks, c.texts);
    if (!layer.is_visible()) row += layer.frozen ? "  frozen" : "  off";
    for (const std::string& words : c.words) row += (&words == &c.words.front() ? "  " : ", ") + words;
    std::replace(row.begin(), row.end(), '\n', ' ');
    text += row + "\n";
  }
  return text;
}

}  // namespace

std::string drawing_list(const Document& document, const std::string& file) {
  const Counted found = counted(document);
  const auto unit = files::stated_unit(document);
  std::string text =
      fmt::format(FMT_STRING("{}: {}, {}\n"), file, document.is_binary ? "binary DXF" : "DXF",
                  document.version.empty() ? std::string("version not stated") : printable(document.version));
  text += unit ? fmt::format(FMT_STRING("unit: {}\n"), plans::unit_name(*unit))
               : std::string("unit: not stated; say it with --unit\n");
  if (found.low.x() <= found.high.x()) {
    text += fmt::format(FMT_STRING("from {:.10g},{:.10g} to {:.10g},{:.10g}"), found.low.x(), found.low.y(),
                        found.high.x(), found.high.y());
    if (unit)
      text += fmt::format(FMT_STRING(": {:.4g} x {:.4g} m"), (found.high.x() - found.low.x()) * *unit,
                          (found.high.y() - found.low.y()) * *unit);
    text += "\n";
  }
  text += layer_table(document, found);
  if (!found.inserts.empty()) text += "\nblock                    inserted\n";
  for (const auto& [key, times] : found.inserts) {
    const auto block = document.blocks.find(key);
    const std::string name = block == document.blocks.end() ? key : block->second.name;
    text += fmt::format(FMT_STRING("{:<24} {:>8}{}\n"), words::fitted(printable(name), 24), times,
                        block == document.blocks.end() ? "  not defined"
                        : block->second.is_reference   ? "  another drawing, not looked for"
                                                       : "");
  }
  std::string left_out;
  for (const auto& [kind, times] : document.left_out)
    left_out += fmt::format(FMT_STRING("{}{} {}"), left_out.empty() ? "" : ", ", times, kind);
  if (!left_out.empty()) text += "\nnot read: " + left_out + "\n";
  if (document.on_paper > 0)
    text += fmt::format(FMT_STRING("on layout sheets, not taken: {}\n"), document.on_paper);
  if (document.invisible > 0)
    text += fmt::format(FMT_STRING("invisible, not taken: {}\n"), document.invisible);
  return text;
}

std::string likely_rooms(const Document& document) {
  const Counted found = counted(document);
  std::string best;
  std::size_t most = 0;
  const char* kind = "";
  for (std::size_t k = 0; k < document.layers.size(); ++k) {
    if (!document.layers[k].is_visible()) continue;
    for (const auto& [number, word] : {std::pair{found.layers[k].outlines, "closed outlines"},
                                       std::pair{found.layers[k].hatches, "hatches"}})
      if (number > most) {
        most = number;
        best = document.layers[k].name;
        kind = word;
      }
  }
  if (most == 0) return {};
  return fmt::format(FMT_STRING("{} holds {} {}"), printable(best), most, kind);
}

}  // namespace glow::cli
