#pragma once

#include "files/results/described/describe_findings.hpp"
#include "files/results/grid_csv.hpp"
#include "words/findings.hpp"
#include "words/topics/glare_words.hpp"

// How glare stands in results.json. Included by record_json.cpp only.
namespace glow::files {

template <>
struct EnumNames<assess::GlareRemark::Kind> {
  static constexpr std::array<const char*, 7> list = {"small_sources", "tiny_sources",  "large_sources",
                                                      "below_sight",   "partly_hidden", "beyond_field",
                                                      "indirect"};
};
template <>
struct EnumNames<assess::GlareChange::Kind> {
  static constexpr std::array<const char*, 6> list = {"dimmed", "moved_x",     "moved_y",
                                                      "turned", "tilted_down", "raised"};
};
template <>
struct EnumNames<assess::TableGlare::Against> {
  static constexpr std::array<const char*, 15> list = {
      "not_rectangular",  "ceiling_not_flat",  "no_luminaires",      "several_kinds",       "switched_off",
      "no_luminous_size", "no_luminous_width", "no_light_downwards", "not_symmetric",       "not_above_eye",
      "tilted",           "not_square",        "several_heights",    "turned_several_ways", "not_even"};
};
template <>
struct EnumNames<assess::TableGlare::Remark::Kind> {
  static constexpr std::array<const char*, 3> list = {"reflectances_differ", "beyond_table", "near_limit"};
};

inline constexpr std::size_t kMostViews = 400000;

/// What sentences and file names of glare need beside it.
struct GlareContext {
  const record::RoomRecord* room = nullptr;
  units::ShownUnits units;
};

}  // namespace glow::files

namespace glow::assess {

using files::Described;
using files::json;
using files::short_number;

template <class A>
void describe(A& a, Described<A, GlareSourceName>& source) {
  a("mark", source.mark);
  a("at_m", source.position);
  a.derived("luminaires", [&] { return source.luminaires.size(); });
  a("group_and_number", source.luminaires);
}

template <class A>
void describe(A& a, Described<A, SourceShare>& cause) {
  a("source", cause.source);
  a.brief("share", cause.share);
  a.brief("distance_m", cause.distance_m);
  a.nullable("luminance_cd_m2", cause.luminance_cd_m2, NAN);
  a.brief("solid_angle_sr", cause.solid_angle_sr);
  a.brief("position_index", cause.position_index);
  a.brief("seen_share", cause.seen_share);
  a("small", cause.small);
  a("outside_range", cause.outside_range);
}

template <class A>
void describe(A& a, Described<A, GlareRemark>& remark) {
  a("kind", remark.kind);
  a("share", remark.share);
  a.nullable("value", remark.value, NAN, false);
}

template <class A>
void describe_changes(A& a, Described<A, std::vector<GlareChange>>& changes, const char* quantity,
                      const files::GlareContext& context) {
  a.list("first_changed", changes, [&](auto& own, auto& change, std::size_t) {
    own.derived("change", [&] { return words::change_words(change, context.units); });
    own.nullable(quantity, change.value, -INFINITY);
    own.nullable("worst_of_set", change.worst, -INFINITY);
    own("kind", change.kind);
    own("amount", change.amount);
    own("breaks", change.breaks);
  });
}

template <class A>
void describe_worst(A& a, Described<A, EyeSetGlare>& set, const files::GlareContext& context) {
  if constexpr (A::kReads) {
    std::size_t view = 0;
    a("view", view);
    if (view >= set.views.size()) throw std::runtime_error("the worst view is none of the set");
    set.worst = view;
    a("ugr", set.views[view].ugr);
    if (!set.views[view].ugr) throw std::runtime_error("the worst view has no UGR");
    a("azimuth_deg", set.set.azimuths_deg[view]);
  } else {
    a("view", *set.worst);
    a("ugr", *set.views[*set.worst].ugr);
  }
  a("uncertainty", set.uncertainty);
  a.derived("at_m", [&] { return A::json_if_writer(set.set.position(*set.worst)); });
  if constexpr (!A::kReads) a("azimuth_deg", set.set.azimuths_deg[*set.worst]);
  a.derived("looking", [&] { return set.set.looking[*set.worst % set.set.directions()]; });
  a.brief("background_cd_m2", set.views[*set.worst].background_cd_m2);
  a("causes", set.causes);
  describe_changes(a, set.changes, "ugr", context);
  a.derived("remarks", [&] {
    json list = json::array();
    for (const GlareRemark& remark : set.remarks) list.push_back(words::remark_words(remark));
    return list;
  });
  a("remarked", set.remarks);
}

template <class A>
void describe_worst_rating(A& a, Described<A, EyeSetGlare>& set, const files::GlareContext& context) {
  if constexpr (A::kReads) {
    std::size_t position = 0;
    a("position", position);
    if (position >= set.ratings.size()) throw std::runtime_error("the worst eye is none of the set");
    set.worst_rating = position;
  } else {
    a("position", *set.worst_rating);
  }
  auto& worst = set.ratings[*set.worst_rating];
  a("gr", worst.gr);
  if (!worst.gr) throw std::runtime_error("the worst eye has no GR");
  a("uncertainty", set.rating_uncertainty);
  a.derived("at_m", [&] { return A::json_if_writer(set.set.positions[*set.worst_rating]); });
  a("azimuth_deg", worst.azimuth_deg);
  a("source", worst.worst_source);
  a.brief("share", worst.worst_share);
  describe_changes(a, set.rating_changes, "gr", context);
}

/// One eye of a set with all its directions.
template <class A>
void describe_position(A& a, Described<A, EyeSetGlare>& set, std::size_t p) {
  const std::size_t directions = set.set.directions(), first = p * directions;
  const auto each = [&](const char* name, auto&& value_of) {
    if constexpr (!A::kReads)
      a.derived(name, [&] {
        json list = json::array();
        for (std::size_t v = first; v < first + directions; ++v) list.push_back(value_of(v));
        return list;
      });
  };
  const auto optional = [](const std::optional<double>& v) { return v ? short_number(*v) : json(nullptr); };
  const bool viewed = !set.views.empty();
  a.derived("at_m", [&] { return A::json_if_writer(set.set.positions[p]); });
  each("azimuths_deg", [&](std::size_t v) { return short_number(set.set.azimuths_deg[v]); });
  each("ugr", [&](std::size_t v) { return viewed ? optional(set.views[v].ugr) : json(nullptr); });
  a.derived("worst", [&] { return viewed ? optional(set.by_position[p].worst) : json(nullptr); });
  a.derived("typical", [&] { return viewed ? optional(set.by_position[p].typical) : json(nullptr); });
  if constexpr (!A::kReads) {
    if (set.buried[p]) a("inside_a_thing", true);
    if (!set.ratings.empty()) {
      a.derived("gr", [&] { return optional(set.ratings[p].gr); });
      a("gr_azimuth_deg", set.ratings[p].azimuth_deg);
      a("gr_source", set.ratings[p].worst_source);
      a.brief("gr_share", set.ratings[p].worst_share);
    }
    if (viewed) {
      each("background_cd_m2", [&](std::size_t v) { return short_number(set.views[v].background_cd_m2); });
      each("source", [&](std::size_t v) { return json(set.views[v].worst_source); });
      each("share", [&](std::size_t v) { return short_number(set.views[v].worst_share); });
    }
  }
}

/// The same taken from what was written.
inline void read_position(const files::Reader& a, bool viewed, bool rated, EyeSetGlare& set) {
  const std::size_t directions = set.set.directions();
  const auto list = [&](const char* name) -> const json& {
    const json& j = a.at(name);
    if (!j.is_array() || j.size() != directions) throw std::runtime_error("an eye lacks directions");
    return j;
  };
  files::Reader::read(a.at("at_m"), set.set.positions.emplace_back());
  for (const json& azimuth : list("azimuths_deg")) set.set.azimuths_deg.push_back(files::number_of(azimuth));
  set.buried.push_back(a.has("inside_a_thing"));
  if (rated) {
    EyeRating& rating = set.ratings.emplace_back();
    files::Reader::read(a.at("gr"), rating.gr);
    files::Reader::read(a.at("gr_azimuth_deg"), rating.azimuth_deg);
    files::Reader::read(a.at("gr_source"), rating.worst_source);
    files::Reader::read(a.at("gr_share"), rating.worst_share);
  }
  if (!viewed) return;
  PositionGlare& position = set.by_position.emplace_back();
  files::Reader::read(a.at("worst"), position.worst);
  files::Reader::read(a.at("typical"), position.typical);
  const json &ugr = list("ugr"), &background = list("background_cd_m2"), &source = list("source"),
             &share = list("share");
  for (std::size_t d = 0; d < directions; ++d) {
    ViewGlare& view = set.views.emplace_back();
    files::Reader::read(ugr[d], view.ugr);
    view.background_cd_m2 = files::number_of(background[d]);
    files::Reader::read(source[d], view.worst_source);
    view.worst_share = files::number_of(share[d]);
  }
}

inline void read_set(files::Reader& a, EyeSetGlare& set) {
  const json& positions = a.at("positions");
  if (set.set.looking.empty() || !positions.is_array() ||
      double(set.set.looking.size()) * double(positions.size()) > double(files::kMostViews) ||
      (set.set.cell_m && set.set.cell_m->minCoeff() <= 0))
    throw std::runtime_error("a set of eyes is not as it is written");
  const bool viewed = !positions.empty() && positions[0].contains("source");
  const bool rated = !positions.empty() && positions[0].contains("gr");
  for (const json& position : positions) read_position(files::Reader(position), viewed, rated, set);
}

template <class A>
void describe_set(A& a, Described<A, EyeSetGlare>& set, const files::GlareContext& context, std::size_t id) {
  a("name", set.set.name);
  a.derived("id", [&] { return id; });
  a("posture", set.set.posture);
  a("height_m", set.set.height_m);
  a("verified", set.set.verified);
  a("cell_m", set.set.cell_m);
  a("looking", set.set.looking);
  a("all_round", set.set.all_round);
  if constexpr (A::kReads) {
    read_set(a, set);
    if (!a.at("worst").is_null()) a.object("worst", [&](auto& own) { describe_worst(own, set, context); });
    if (set.worst) a("typical", set.typical);
    if (a.has("worst_gr")) a.object("worst_gr", [&](auto& own) { describe_worst_rating(own, set, context); });
  } else {
    if (set.worst)
      a.object("worst", [&](auto& own) { describe_worst(own, set, context); });
    else
      a.derived("worst", [] { return nullptr; });
    a.derived("typical", [&] { return set.worst ? files::number(set.typical) : json(nullptr); });
    if (set.worst_rating) a.object("worst_gr", [&](auto& own) { describe_worst_rating(own, set, context); });
    a.derived("csv", [&] { return files::csv_name("eyes", *context.room, set.set.name); });
    a.derived("positions", [&] {
      json list = json::array();
      for (std::size_t p = 0; p < set.set.positions.size(); ++p) {
        A own;
        describe_position(own, set, p);
        list.push_back(own.take());
      }
      return list;
    });
  }
}

template <class A>
void describe(A& a, Described<A, TableGlare::Value>& value) {
  using Along = TableGlare::Value::Along;
  a.derived("along", [&] { return words::along_words(value); });
  if constexpr (A::kReads) {
    const std::string along = a.at("along").template get<std::string>();
    value.along = along == "x" ? Along::x : along == "y" ? Along::y : Along::wall;
    if (value.along == Along::wall) {
      if (along != "wall 1" && along != "wall 2") throw std::runtime_error("a way of looking is not known");
      value.wall = along.back() - '0';
    }
  }
  a.brief("x_h", value.x_h);
  a.brief("y_h", value.y_h);
  a("crosswise", value.crosswise);
  a("ugr", value.ugr);
}

template <class A>
void describe(A& a, Described<A, TableGlare::Remark>& remark) {
  a("kind", remark.kind);
  a("amount", remark.amount);
  a("value", remark.value);
}

template <class A>
void describe_table(A& a, Described<A, TableGlare>& table, const files::GlareContext& context) {
  a.derived("method", [] { return "CIE 190"; });
  a("mark", table.mark);
  if constexpr (A::kReads) {
    const json& shares = a.at("reflectances_percent");
    for (std::size_t i = 0; i < 3; ++i) files::Reader::read(shares.at(i), table.reflectances[i]);
  } else {
    a.derived("reflectances",
              [&] { return table.mark.empty() ? std::string() : words::reflectances_words(table); });
    a.derived("reflectances_percent", [&] { return json(table.reflectances); });
  }
  a("values", table.values);
  a.derived("why_not", [&] {
    json list = json::array();
    for (const auto reason : table.why_not) list.push_back(words::against_words(reason));
    return list;
  });
  a("against", table.why_not);
  a.derived("remarks", [&] {
    json list = json::array();
    for (const auto& remark : table.remarks) list.push_back(words::table_remark_words(remark, *context.room));
    return list;
  });
  a("remarked", table.remarks);
}

template <class A>
void describe_glare(A& a, Described<A, RoomGlare>& glare, const files::GlareContext& context) {
  a.derived("luminaires", [] { return "as new, dimmed as the project says"; });
  a.derived("worst_ugr", [&] {
    const std::vector<double> all = glare.all_ugr();
    return all.empty() ? json(nullptr) : files::number(all.back());
  });
  a("typical_ugr", glare.typical);
  a("sources", glare.sources);
  a.list("eyes", glare.sets,
         [&](auto& own, auto& set, std::size_t id) { describe_set(own, set, context, id); });
  a.object("tabular", [&](auto& own) { describe_table(own, glare.table, context); });
}

}  // namespace glow::assess
