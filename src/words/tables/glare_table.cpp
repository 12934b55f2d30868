#include "words/tables/glare_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "words/findings.hpp"
#include "words/text_layout.hpp"
#include "words/topics/glare_words.hpp"

namespace glow::words {
namespace {

using assess::EyeSetGlare;
using assess::TableGlare;

constexpr std::size_t kViewWidth = 30;
constexpr std::size_t kMostCauses = 4;
constexpr double kWorthTelling = 0.005;  // of the sum

std::string number(double value) {
  return std::isfinite(value) ? fmt::format(FMT_STRING("{:.1f}"), value) : std::string("none");
}

class GlareTable {
 public:
  GlareTable(const record::RoomRecord& room, const units::ShownUnits& units) : room_(room), values_{units} {}

  std::string write() {
    for (const EyeSetGlare& set : room_.assessment.glare.sets) {
      if (!set.views.empty()) write_set(set);
      if (set.worst_rating) write_rating(set);
    }
    if (room_.assessment.glare.sets.size() > 1) write_room();
    if (!room_.assessment.glare.sets.empty()) write_table();
    if (text_.empty()) return {};
    return fmt::format(FMT_STRING("  {:<{}} {:>6} {:>8} {:>6}  luminaires as new\n"), "glare", kViewWidth,
                       "worst", "typical", "+/-") +
           text_;
  }

 private:
  void row(const std::string& name, const std::string& worst, const std::string& typical,
           const std::string& sure, const std::string& where) {
    text_ += fmt::format(FMT_STRING("  {:<{}} {:>6} {:>8} {:>6}  {}\n"), fitted(name, kViewWidth), kViewWidth,
                         worst, typical, sure, where);
  }
  void write_set(const EyeSetGlare& set);
  void write_causes(const EyeSetGlare& set);
  void write_changes(const std::vector<assess::GlareChange>& changes);
  void write_rating(const EyeSetGlare& set);
  void write_room();
  void write_table();
  /// Whether its check has told all that there is to tell.
  bool is_explained(const EyeSetGlare& set) const {
    for (std::size_t c = 0; c < room_.assessment.checks.size(); ++c) {
      const standards::Target& target = room_.assessment.checks[c].target;
      if (target.kind == standards::Target::Kind::eyes && &room_.assessment.glare.sets[target.id] == &set &&
          !room_.explanations[c].causes.empty())
        return true;
    }
    return false;
  }
  const assess::GlareSourceName& source(int number) const {
    return room_.assessment.glare.sources[std::size_t(std::max(0, number))];
  }

  const record::RoomRecord& room_;
  Values values_;
  std::string text_;
};

void GlareTable::write_set(const EyeSetGlare& set) {
  const std::string name =
      fmt::format(FMT_STRING("UGR {} at {}"), set.set.name, values_.length(set.set.height_m));
  const auto buried = std::count(set.buried.begin(), set.buried.end(), true);
  if (!set.worst) {
    row(name, "-", "-", "-", buried ? "inside a thing" : "no luminaire in sight");
    return;
  }
  const std::string typical = set.views.size() > 1 ? number(set.typical) : "-";
  row(name, number(*set.views[*set.worst].ugr), typical, fmt::format(FMT_STRING("{:.2g}"), set.uncertainty),
      fmt::format(FMT_STRING("{} {}"), values_.in_plan(set.set.position(*set.worst)),
                  set.set.looking[*set.worst % set.set.directions()]));
  if (buried > 0)
    wrap(text_, "    ",
         fmt::format(FMT_STRING("{} of {} eyes left out: inside things"), buried, set.set.positions.size()),
         4);
  if (!is_explained(set)) write_causes(set);
}

void GlareTable::write_causes(const EyeSetGlare& set) {
  std::string words;
  for (std::size_t i = 0; i < std::min(kMostCauses, set.causes.size()); ++i) {
    const assess::SourceShare& cause = set.causes[i];
    if (cause.share < kWorthTelling) break;
    words += fmt::format(FMT_STRING("{}{} {} {:.0f} %"), i ? ", " : "", source(cause.source).mark,
                         values_.in_plan(source(cause.source).position), 100 * cause.share);
  }
  if (words.empty()) return;
  wrap(text_, "    ", "by " + words, 7);
  write_changes(set.changes);
  for (const assess::GlareRemark& remark : set.remarks) wrap(text_, "    ", remark_words(remark), 4);
}

void GlareTable::write_changes(const std::vector<assess::GlareChange>& changes) {
  std::string words;
  for (const assess::GlareChange& change : changes) {
    const std::string here = number(change.value), worst = number(change.worst);
    words +=
        fmt::format(FMT_STRING("{}{} {}{}"), words.empty() ? "" : ", ", change_words(change, values_.units),
                    here, here == worst ? "" : fmt::format(FMT_STRING(" (all these eyes {})"), worst));
  }
  if (!words.empty()) wrap(text_, "    ", "that first one " + words, 7);
}

void GlareTable::write_rating(const EyeSetGlare& set) {
  const std::size_t p = *set.worst_rating;
  std::vector<double> values;
  for (const assess::EyeRating& rating : set.ratings)
    if (rating.gr) values.push_back(*rating.gr);
  std::sort(values.begin(), values.end());
  row(fmt::format(FMT_STRING("GR {} at {}"), set.set.name, values_.length(set.set.height_m)),
      number(*set.ratings[p].gr), values.size() > 1 ? number(assess::median(values)) : "-",
      fmt::format(FMT_STRING("{:.2g}"), set.rating_uncertainty),
      fmt::format(FMT_STRING("{} {:g} deg, 2 deg down"), values_.in_plan(set.set.positions[p]),
                  set.ratings[p].azimuth_deg));
  if (is_explained(set)) return;
  wrap(text_, "    ",
       fmt::format(FMT_STRING("by {} {} {:.0f} % of the veil"), source(set.ratings[p].worst_source).mark,
                   values_.in_plan(source(set.ratings[p].worst_source).position),
                   100 * set.ratings[p].worst_share),
       7);
  write_changes(set.rating_changes);
}

void GlareTable::write_room() {
  const std::vector<double> values = room_.assessment.glare.all_ugr();
  if (!values.empty())
    row("UGR of all eyes in the room", number(values.back()),
        number(room_.assessment.glare.typical.value_or(NAN)), "-",
        fmt::format(FMT_STRING("{} views"), values.size()));
}

void GlareTable::write_table() {
  const TableGlare& table = room_.assessment.glare.table;
  if (!room_.rates_ugr) return;
  if (table.values.empty()) {
    wrap(text_, "  ", "no tabular UGR: " + why_not_words(table), 4);
    return;
  }
  for (const TableGlare::Value& value : table.values)
    row(fmt::format(FMT_STRING("tabular UGR along {}, {}"), along_words(value),
                    value.crosswise ? "crosswise" : "endwise"),
        number(value.ugr), "-", "-",
        fmt::format(FMT_STRING("{:.1f}H x {:.1f}H, {}"), value.x_h, value.y_h, reflectances_words(table)));
  for (const TableGlare::Remark& remark : table.remarks)
    wrap(text_, "    ", table_remark_words(remark, room_), 4);
}

}  // namespace

std::string glare_table(const record::RoomRecord& room, const units::ShownUnits& units) {
  return GlareTable(room, units).write();
}

}  // namespace glow::words
