#pragma once

#include <optional>

#include "files/plans/dxf/document.hpp"
#include "files/plans/dxf/drawn_text.hpp"
#include "files/plans/dxf/pairs.hpp"

namespace glow::files::dxf {

inline constexpr double kDegree = 0.017453292519943295;  // radians

/// The groups of one entity, from its kind to the next.
class Fields {
 public:
  Fields(PairReader& reader, const std::vector<Pair>& pairs) : reader_(reader), pairs_(pairs) {}

  const std::vector<Pair>& pairs() const { return pairs_; }
  PairReader& reader() const { return reader_; }
  bool has(int code) const { return find(code) != nullptr; }
  /// The first with this code; faults are the reader's.
  double real(int code, double otherwise) const;
  std::int64_t whole(int code, std::int64_t otherwise) const;
  std::string_view text(int code) const;
  /// Of `code`, `code` + 10 and `code` + 20.
  Vec3 point(int code, const Vec3& otherwise = Vec3::Zero()) const;

 private:
  const Pair* find(int code) const;
  PairReader& reader_;
  const std::vector<Pair>& pairs_;
};

/// Takes pairs from `k` on in order: coordinates that come one after the other.
class FieldWalk {
 public:
  explicit FieldWalk(const Fields& fields) : fields_(fields) {}
  bool done() const { return at_ >= fields_.pairs().size() || fields_.reader().failed(); }
  int code() const { return done() ? -1 : fields_.pairs()[at_].code; }
  void skip() { ++at_; }
  bool skip_to(int code);
  /// The value here, and on to the next.
  double real();
  std::int64_t whole();
  /// x, and y and z where they follow.
  Vec3 point();
  std::size_t left() const { return fields_.pairs().size() - at_; }

 private:
  const Fields& fields_;
  std::size_t at_ = 0;
};

/// What a plan is made of; nothing for other kinds, and after a fault.
std::optional<Shape> read_shape(std::string_view kind, const Fields& fields, const Letters& letters);
/// A hatch's loops.
Hatch read_hatch(const Fields& fields);

}  // namespace glow::files::dxf
