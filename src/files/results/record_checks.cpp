#include "files/results/record_checks.hpp"

#include <cmath>
#include <set>
#include <stdexcept>

#include "core/model/file_names.hpp"

namespace glow::files {

void refuse_unless(bool holds, const char* fault) {
  if (!holds) throw std::runtime_error(fault);
}

namespace {

using record::RoomRecord;

void check_target(const standards::Target& target, const RoomRecord& room) {
  using Kind = standards::Target::Kind;
  const std::size_t count = target.kind == Kind::grid             ? room.assessment.grids.size()
                            : target.kind == Kind::eyes           ? room.assessment.glare.sets.size()
                            : target.kind == Kind::luminaire_type ? room.groups.size()
                            : target.kind == Kind::road_user
                                ? (room.assessment.spill ? room.assessment.spill->road_users.size() : 0)
                                : 1;
  refuse_unless(target.id < count, "a check is about something that is not there");
}

/// Numbers that findings point with.
void check_findings(const RoomRecord& room) {
  for (std::size_t c = 0; c < room.assessment.checks.size(); ++c) {
    const standards::Check& check = room.assessment.checks[c];
    check_target(check.target, room);
    const bool eyes = check.target.kind == standards::Target::Kind::eyes;
    for (const studies::Cause& cause : room.explanations[c].causes) {
      if (const auto* dimmed = std::get_if<studies::CouldBeDimmed>(&cause); dimmed && dimmed->limit)
        check_target(*dimmed->limit, room);
      if (const auto* causes = std::get_if<studies::GlareCauses>(&cause))
        refuse_unless(!causes->causes.empty() || std::isfinite(causes->background_cd_m2),
                      "a cause of glare is missing");
      refuse_unless(eyes || !std::holds_alternative<studies::SeeRemarks>(cause), "a remark is of no eyes");
    }
    for (const studies::Mend& mend : room.explanations[c].mends) {
      for (const standards::Check& broken : mend.breaks) check_target(broken.target, room);
      if (const auto* changed = std::get_if<studies::SourceChanged>(&mend.change)) {
        refuse_unless(eyes, "a change of glare is of no eyes");
        const assess::EyeSetGlare& set = room.assessment.glare.sets[check.target.id];
        const bool rating = check.demand.quantity == standards::Quantity::glare_rating;
        refuse_unless(changed->change < (rating ? set.rating_changes : set.changes).size(),
                      "a change of glare is not there");
      }
    }
  }
}

/// Values of a year belong to points of grids that are there.
void check_year(const RoomRecord& room) {
  if (!room.assessment.year) return;
  for (const assess::YearOnGrid& own : room.assessment.year->grids) {
    refuse_unless(own.grid < room.assessment.grids.size(), "a year is of a grid that is not there");
    for (const assess::YearMap& map : own.maps)
      refuse_unless(map.values.size() == room.assessment.grids[own.grid].total_lx.size(),
                    "a year has other points than its grid");
  }
}

void check_glare(const RoomRecord& room) {
  const auto known = [&](int source) {
    refuse_unless(source >= -1 && source < int(room.assessment.glare.sources.size()),
                  "a source of glare is not there");
  };
  std::set<std::string> names;
  for (const assess::EyeSetGlare& set : room.assessment.glare.sets) {
    const std::string name = model::file_name_part(set.set.name);
    refuse_unless(!name.empty() && names.insert(name).second,
                  "two sets of eyes have one name, or a set has none");
    for (const assess::ViewGlare& view : set.views) known(view.worst_source);
    for (const assess::EyeRating& rating : set.ratings) known(rating.worst_source);
    for (const assess::SourceShare& cause : set.causes) known(cause.source);
    for (const auto* changes : {&set.changes, &set.rating_changes})
      for (const assess::GlareChange& change : *changes)
        for (const standards::Check& broken : change.breaks) check_target(broken.target, room);
    const bool explained =
        (set.changes.empty() && set.rating_changes.empty()) || !room.assessment.glare.sources.empty();
    refuse_unless(explained, "a source of glare is not there");
  }
}

void check_spill(const RoomRecord& room) {
  if (!room.assessment.spill) return;
  const assess::SpillReading& spill = *room.assessment.spill;
  const auto known = [&](int source, int least) {
    refuse_unless(source >= least && source < int(spill.sources.size()), "a luminaire outdoors is not there");
  };
  for (const assess::NeighbourReading& own : spill.neighbours) {
    refuse_unless(own.grid < room.assessment.grids.size(), "a neighbour has no grid");
    refuse_unless(
        own.k_by_point.empty() || own.k_by_point.size() == room.assessment.grids[own.grid].total_lx.size(),
        "a facade has other points than its grid");
    for (const assess::SpillSource& source : own.sources) known(source.source, 0);
  }
  for (const assess::RoadUserReading& own : spill.road_users) known(own.worst_source, -1);
}

}  // namespace

void check_record(const RoomRecord& room) {
  refuse_unless(room.outline.size() >= 3, "a room has no outline");
  refuse_unless(room.wall_names.size() == room.outline.size(), "a room's walls have no names");
  refuse_unless(!room.assessment.grids.empty(), "a room has no grids");
  constexpr std::size_t kMostCorners = 30000;  // of the ground
  refuse_unless(!room.ground || (!room.ground->empty() && room.ground->size() % 3 == 0 &&
                                 room.ground->size() <= kMostCorners),
                "the ground is not made of triangles, or of too many");
  std::set<std::string> grids;
  for (const assess::GridReading& grid : room.assessment.grids) {
    const std::string name = model::file_name_part(grid.name);
    refuse_unless(!name.empty() && grids.insert(name).second, "two grids have one name, or a grid has none");
  }
  check_findings(room);
  check_glare(room);
  check_spill(room);
  check_year(room);
}

}  // namespace glow::files
