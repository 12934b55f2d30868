#include "files/plans/dxf/document_reader.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "files/plans/dxf/entity_reader.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files::dxf {
namespace {

constexpr std::size_t kMostEntities = 5'000'000;
constexpr double kLevel = 1 - 1e-9;  // cosine of a normal that points straight up

class DocumentReader {
 public:
  DocumentReader(std::string_view bytes, const std::string& file, Problems& problems)
      : reader_(bytes, file, problems), problems_(problems) {
    layer_of("0");
  }

  std::optional<Document> read() {
    document_.is_binary = reader_.is_binary();
    bool ended = false;
    while (!ended && next()) {
      if (pair_.code == 0 && trimmed(pair_.text) == "EOF") ended = true;
      if (pair_.code != 0 || trimmed(pair_.text) != "SECTION") continue;
      if (!next()) break;
      read_section(std::string(trimmed(pair_.text)));
      ended = found_end_;
    }
    if (!reader_.failed() && !any_section_)
      reader_.fail("not-dxf", reader_.line(), "there is no section in it; a DXF file has ENTITIES, at least");
    if (reader_.failed()) return std::nullopt;
    if (!ended)
      problems_.warning("no-end", reader_.place(reader_.line()),
                        "the file has no EOF at its end; what there is was taken");
    if (!letters_.is_known())
      problems_.warning("code-page", {reader_.place(0)},
                        "its code page is unknown; letters beyond ASCII are taken as Latin ones");
    return std::move(document_);
  }

 private:
  bool next() { return reader_.next(pair_); }
  bool at_kind(std::string_view kind) const { return pair_.code == 0 && trimmed(pair_.text) == kind; }

  /// Whether the section goes on with this pair. Says so where it, or the file, ends too early.
  bool goes_on(bool is_there, const std::string& section) {
    if (reader_.failed()) return false;
    if (!is_there) {
      reader_.fail(
          "truncated", reader_.line(),
          fmt::format(FMT_STRING("the file ends within its section {}; it is cut off. Export or copy "
                                 "it again"),
                      printable(section)));
      return false;
    }
    if (at_kind("ENDSEC")) return false;
    if (at_kind("EOF")) {
      problems_.warning("section-not-ended", reader_.place(pair_.line),
                        fmt::format(FMT_STRING("section {} has no end before the end of the file; what there "
                                               "is was taken"),
                                    printable(section)));
      found_end_ = true;
      return false;
    }
    return true;
  }

  void read_section(const std::string& name) {
    any_section_ = true;
    if (name == "HEADER")
      read_header();
    else if (name == "TABLES")
      read_tables();
    else if (name == "BLOCKS")
      read_blocks();
    else if (name == "ENTITIES")
      read_entities(document_.entities, name, true);
    else
      while (goes_on(next(), name)) {
      }
  }

  void read_header() {
    std::string variable, code_page;
    while (goes_on(next(), "HEADER")) {
      if (pair_.code == 9) {
        variable = trimmed(pair_.text);
        continue;
      }
      std::int64_t value = 0;
      if (variable == "$ACADVER" && pair_.code == 1) document_.version = trimmed(pair_.text);
      if (variable == "$DWGCODEPAGE" && pair_.code == 3) code_page = trimmed(pair_.text);
      if (variable == "$INSUNITS" && pair_.code == 70 && reader_.whole(pair_, value))
        document_.unit_code = int(std::clamp<std::int64_t>(value, -1, 1000));
    }
    letters_ = Letters(document_.version, code_page);
  }

  /// The groups up to the next entity or entry; false where the section ends.
  bool collect() {
    fields_.clear();
    while (next()) {
      if (pair_.code == 0) {
        reader_.again();
        return true;
      }
      fields_.push_back(pair_);
    }
    return false;
  }

  void read_tables() {
    while (goes_on(next(), "TABLES")) {
      if (!at_kind("LAYER")) continue;
      collect();
      const Fields fields(reader_, fields_);
      if (!fields.has(2)) continue;
      Layer& layer = document_.layers[layer_of(fields.text(2))];
      layer.is_listed = true;
      layer.frozen = (fields.whole(70, 0) & 1) != 0;
      layer.off = fields.whole(62, 7) < 0;
    }
  }

  void read_blocks() {
    constexpr int kReference = 4 | 8;
    while (goes_on(next(), "BLOCKS")) {
      if (!at_kind("BLOCK")) continue;
      collect();
      const Fields fields(reader_, fields_);
      const std::string name = letters_.decoded(trimmed(fields.text(fields.has(2) ? 2 : 3)));
      Block block;
      block.name = name;
      block.base = fields.point(10);
      block.is_reference = (fields.whole(70, 0) & kReference) != 0;
      if (block.is_reference) block.reference = letters_.decoded(trimmed(fields.text(1)));
      if (reader_.failed()) return;
      read_entities(block.entities, "BLOCKS", false);
      if (!document_.blocks.emplace(folded(name), std::move(block)).second)
        problems_.warning(
            "block-twice", reader_.place(pair_.line),
            fmt::format(FMT_STRING("block \"{}\" is defined twice; the first counts"), printable(name)));
      if (reader_.failed() || found_end_ || at_kind("ENDSEC")) return;
    }
  }

  /// Up to the section's end or, of a block, to its own.
  void read_entities(Entities& into, const std::string& section, bool is_model) {
    while (goes_on(next(), section) && !at_kind("ENDBLK")) {
      if (pair_.code != 0) continue;
      const std::string kind(trimmed(pair_.text));
      const std::uint32_t line = pair_.line;
      collect();
      if (reader_.failed()) return;
      const Fields fields(reader_, fields_);
      if (kind == "POLYLINE")
        read_polyline(fields, line, into, is_model);
      else
        add(kind, fields, line, into, is_model);
      if (++entities_ > kMostEntities)
        return reader_.fail(
            "too-many", line,
            fmt::format(FMT_STRING("it holds more than {} entities; write out the layers that "
                                   "matter, and import those"),
                        kMostEntities));
    }
  }

  void add(const std::string& kind, const Fields& fields, std::uint32_t line, Entities& into, bool is_model) {
    if (kind == "SEQEND" || kind == "VERTEX" || kind == "ATTDEF" || kind == "VIEWPORT") return;
    if (is_elsewhere(fields, is_model)) return;
    std::optional<Shape> shape = read_shape(kind, fields, letters_);
    if (reader_.failed()) return;
    if (!shape) {
      ++document_.left_out[printable(kind.substr(0, 40))];
      return;
    }
    if (kind == "ATTRIB") {
      if (fields.whole(70, 0) & 1) return;  // not to be seen
      auto& text = std::get<Text>(*shape);
      text.insert = last_insert_;
    } else if (std::holds_alternative<Text>(*shape)) {
      std::get<Text>(*shape).tag.clear();
    }
    put(std::move(*shape), fields, line, into);
    if (kind == "INSERT") last_insert_ = std::int64_t(into.size()) - 1;
  }

  void put(Shape shape, const Fields& fields, std::uint32_t line, Entities& into) {
    Vec3 normal = fields.point(210, Vec3::UnitZ());
    normal = normal.norm() > 1e-9 ? Vec3(normal.normalized()) : Vec3(Vec3::UnitZ());
    if (normal.z() > kLevel) normal = Vec3::UnitZ();
    Entity entity{std::move(shape), normal.cast<float>(), layer_of(fields.text(8)), line, 0};
    const std::string_view handle = trimmed(fields.text(5));
    std::from_chars(handle.data(), handle.data() + handle.size(), entity.handle, 16);
    if (reader_.failed()) return;
    ++document_.layers[entity.layer].entities;
    into.push_back(std::move(entity));
  }

  /// Its corners follow as entities of their own.
  void read_polyline(const Fields& head, std::uint32_t line, Entities& into, bool is_model) {
    constexpr int kInSpace = 8, kMesh = 16 | 64, kControl = 16;
    const std::int64_t flags = head.whole(70, 0);
    Polyline shape;
    shape.closed = (flags & 1) != 0;
    shape.in_space = (flags & kInSpace) != 0;
    const double elevation = head.real(30, 0);
    const bool elsewhere = is_elsewhere(head, is_model);
    const std::vector<Pair> own = fields_;
    while (next()) {
      if (!at_kind("VERTEX")) break;
      collect();
      if (reader_.failed()) return;
      const Fields fields(reader_, fields_);
      if (fields.whole(70, 0) & kControl) continue;
      Vec3 at = fields.point(10);
      if (!shape.in_space) at.z() = elevation;
      shape.vertices.push_back({at, fields.real(42, 0)});
    }
    if (!reader_.failed() && !at_kind("SEQEND")) reader_.again();
    if (at_kind("SEQEND")) collect();
    if (elsewhere || reader_.failed()) return;
    if (flags & kMesh)
      ++document_.left_out["POLYLINE (mesh)"];
    else
      put(std::move(shape), Fields(reader_, own), line, into);
  }

  /// On paper, or not to be seen.
  bool is_elsewhere(const Fields& fields, bool is_model) {
    const bool on_paper = is_model && fields.whole(67, 0) != 0;
    const bool invisible = fields.whole(60, 0) != 0;
    document_.on_paper += on_paper;
    document_.invisible += invisible && !on_paper;
    return on_paper || invisible;
  }

  std::uint32_t layer_of(std::string_view written) {
    written = trimmed(written);
    if (written.empty()) written = "0";
    const auto known = layers_.find(std::string(written));
    if (known != layers_.end()) return known->second;
    Layer layer;
    layer.name = letters_.decoded(written);
    layer.key = folded(layer.name);
    const auto [place, is_new] = layers_by_key_.emplace(layer.key, std::uint32_t(document_.layers.size()));
    if (is_new) document_.layers.push_back(std::move(layer));
    layers_.emplace(written, place->second);
    return place->second;
  }

  PairReader reader_;
  Problems& problems_;
  Letters letters_;
  Document document_;
  Pair pair_;
  std::vector<Pair> fields_;
  std::map<std::string, std::uint32_t> layers_, layers_by_key_;  ///< by the bytes as written; by the key
  std::int64_t last_insert_ = -1;
  std::size_t entities_ = 0;
  bool any_section_ = false, found_end_ = false;
};

}  // namespace

std::optional<Document> read_document(std::string_view bytes, const std::string& file, Problems& problems) {
  return DocumentReader(bytes, file, problems).read();
}

}  // namespace glow::files::dxf
