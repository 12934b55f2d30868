#include "cli/crew/found_bytes.hpp"

#include <cereal/archives/binary.hpp>
#include <cereal/types/optional.hpp>
#include <cereal/types/string.hpp>
#include <cereal/types/utility.hpp>
#include <cereal/types/vector.hpp>
#include <sstream>

#include "files/results/record_json.hpp"
#include "files/text/json_text.hpp"

namespace cereal {

using namespace glow;

template <class Archive>
void serialize(Archive& a, Vec3& v) {
  a(v.x(), v.y(), v.z());
}
template <class Archive>
void serialize(Archive& a, geometry::Frame& f) {
  a(f.origin, f.c0, f.c90, f.g0);
}
template <class Archive>
void serialize(Archive& a, standards::Demand& d) {
  a(d.quantity, d.required, d.standard, d.source, d.certainty, d.reason);
}
template <class Archive>
void serialize(Archive& a, standards::Check& c) {
  a(c.demand, c.target.kind, c.target.id, c.actual, c.uncertainty, c.binding, c.verdict);
}
template <class Archive>
void serialize(Archive& a, studies::Field& f) {
  a(f.rows, f.columns, f.turned, f.staggered, f.height_m, f.dimming, f.luminaires, f.watts);
}
template <class Archive>
void serialize(Archive& a, studies::TriedField& t) {
  a(t.field, t.checks, t.mean_lx, t.meets, t.frames);
}
template <class Archive>
void serialize(Archive& a, studies::WayOut& w) {
  a(w.kind, w.value, w.field);
}
template <class Archive>
void serialize(Archive& a, studies::Arrangement& f) {
  a(f.best, f.runners_up, f.nearest, f.ways_out, f.least_luminaires, f.least_because, f.most_luminaires,
    f.fields, f.looked_at, f.calculated, f.blocked, f.stopped);
}
template <class Archive>
void serialize(Archive& a, run::RankedCandidate& r) {
  a(r.candidate, r.found, r.w_per_m2_100lx, r.cost);
}
template <class Archive>
void serialize(Archive& a, geometry::Camera& c) {
  a(c.projection, c.eye, c.forward, c.right, c.up, c.half_width, c.columns, c.rows, c.from_outside);
}
template <class Archive>
void serialize(Archive& a, colour::Chromaticity& c) {
  a(c.x, c.y);
}
template <class Archive>
void serialize(Archive& a, views::PictureLayer& l) {
  a(l.source, l.is_moment, l.uncertainty, l.luminance, l.illuminance, l.bands);
}
template <class Archive>
void serialize(Archive& a, views::PictureUse& u) {
  a(u.name, u.weights, u.colours, u.when);
}
template <class Archive>
void serialize(Archive& a, views::Picture& p) {
  a(p.room, p.view, p.kind, p.camera, p.layers, p.uses, p.depth_m, p.normals, p.surfaces, p.surface_names);
}
template <class Archive, class Number>  // deduced, so that no other matrix is taken for one
void save(Archive& a, const Eigen::Matrix<Number, -1, -1>& m) {
  a(m.rows(), m.cols(), binary_data(m.data(), std::size_t(m.size()) * sizeof(Number)));
}
template <class Archive, class Number>
void load(Archive& a, Eigen::Matrix<Number, -1, -1>& m) {
  Eigen::Index rows = 0, columns = 0;
  a(rows, columns);
  m.resize(rows, columns);
  a(binary_data(m.data(), std::size_t(m.size()) * sizeof(Number)));
}
template <class Archive>
void serialize(Archive& a, run::YearHours& h) {
  a(h.grid, h.numbers, h.lux);
}

}  // namespace cereal

namespace glow::cli {
namespace {

template <class... Parts>
std::string written(const Parts&... parts) {
  std::ostringstream out;
  cereal::BinaryOutputArchive archive(out);
  archive(parts...);
  return out.str();
}

template <class... Parts>
void read(const std::string& bytes, Parts&... parts) {
  std::istringstream in(bytes);
  cereal::BinaryInputArchive archive(in);
  archive(parts...);
}

std::string text_of(const record::RoomRecord& room) {
  return files::json_line(files::room_json(room, units::ShownUnits()));
}

record::RoomRecord room_of(const std::string& text) {
  return files::room_of(files::parsed_json(text));
}

}  // namespace

std::string bytes_of(const run::FinishedRoom& room) {
  return written(room.fault.empty() ? text_of(room.record) : std::string(), room.reused, room.pictures,
                 room.hours, room.fault, room.drawn);
}

run::FinishedRoom finished_room(const std::string& bytes) {
  run::FinishedRoom room;
  std::string record;
  read(bytes, record, room.reused, room.pictures, room.hours, room.fault, room.drawn);
  if (!record.empty()) room.record = room_of(record);
  return room;
}

std::string bytes_of(const run::RankedCandidate& ranked) {
  return written(ranked);
}

run::RankedCandidate ranked_candidate(const std::string& bytes) {
  run::RankedCandidate ranked;
  read(bytes, ranked);
  return ranked;
}

std::string bytes_of(const run::SettledFields& settled) {
  return written(settled);
}

run::SettledFields settled_fields(const std::string& bytes) {
  run::SettledFields settled;
  read(bytes, settled);
  return settled;
}

std::string bytes_of(const run::ArrangedRoom& arranged) {
  return written(arranged.found, arranged.overruled, arranged.placement.has_value(),
                 arranged.record ? text_of(*arranged.record) : std::string());
}

run::ArrangedRoom arranged_room(const std::string& bytes) {
  run::ArrangedRoom arranged;
  bool is_placed = false;
  std::string record;
  read(bytes, arranged.found, arranged.overruled, is_placed, record);
  if (!record.empty()) arranged.record = room_of(record);
  if (is_placed) arranged.placement.emplace();
  return arranged;
}

}  // namespace glow::cli
