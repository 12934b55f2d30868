#include "files/workbook/workbook.hpp"

#include <fmt/format.h>
#include <unistd.h>
#include <xlsxwriter.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/model/file_names.hpp"
#include "files/output/output_folder.hpp"
#include "words/values.hpp"

namespace glow::files {
namespace {

namespace fs = std::filesystem;
using record::RoomRecord;

/// How a column's numbers are shown.
enum class Digits { text, whole, one, two, three };

struct Column {
  std::string title;
  Digits digits = Digits::text;
  double width = 12;
};

/// The file being written; formats are its own.
class Book {
 public:
  explicit Book(const fs::path& path) : book_(workbook_new(path.c_str())) {
    lxw_doc_properties properties{};
    std::string title = "Lighting results";
    properties.title = title.data();
    constexpr std::time_t kFixed = 1577836800;  // 2020: the same bytes whenever it is written
    properties.created = kFixed;
    workbook_set_properties(book_, &properties);
    head_ = workbook_add_format(book_);
    format_set_bold(head_);
    format_set_text_wrap(head_);
    format_set_bottom(head_, LXW_BORDER_THIN);
    title_ = workbook_add_format(book_);
    format_set_bold(title_);
    format_set_font_size(title_, 14);
    for (const auto& [digits, words] : {std::pair{Digits::whole, "0"},
                                        {Digits::one, "0.0"},
                                        {Digits::two, "0.00"},
                                        {Digits::three, "0.000"}}) {
      numbers_[std::size_t(digits)] = workbook_add_format(book_);
      format_set_num_format(numbers_[std::size_t(digits)], words);
    }
  }
  ~Book() {
    if (book_) workbook_close(book_);
  }
  Book(const Book&) = delete;
  Book& operator=(const Book&) = delete;

  /// False where it could not be written.
  bool close() {
    const lxw_error error = workbook_close(book_);
    book_ = nullptr;
    return error == LXW_NO_ERROR;
  }

  /// A sheet, its name made what sheets may be called and no other is.
  lxw_worksheet* sheet(const std::string& wanted) {
    constexpr std::size_t kLongest = 31;  // letters; fewer bytes are surely fewer letters
    std::string base;
    for (const char c : wanted) base += std::string("[]:*?/\\").find(c) == std::string::npos ? c : ' ';
    while (!base.empty() && (base.front() == '\'' || base.front() == ' ')) base.erase(base.begin());
    std::string name = cut(base.empty() ? "Room" : base, kLongest);
    for (int n = 2; !names_.insert(model::file_name_part(name)).second; ++n) {
      const std::string tail = " " + std::to_string(n);
      name = cut(base, kLongest - tail.size()) + tail;
    }
    return workbook_add_worksheet(book_, name.c_str());
  }

  lxw_format* head() const { return head_; }
  lxw_format* title() const { return title_; }
  lxw_format* number(Digits digits) const { return numbers_[std::size_t(digits)]; }

 private:
  /// At most so many bytes, never inside a letter.
  static std::string cut(std::string words, std::size_t most) {
    if (words.size() > most) {
      while (most > 0 && (words[most] & 0xC0) == 0x80) --most;
      words.resize(most);
    }
    while (!words.empty() && (words.back() == ' ' || words.back() == '\'')) words.pop_back();
    return words;
  }

  lxw_workbook* book_;
  lxw_format *head_ = nullptr, *title_ = nullptr;
  std::array<lxw_format*, 5> numbers_{};
  std::set<std::string> names_;
};

/// Rows under a head, from a place of a sheet on.
class Table {
 public:
  Table(Book& book, lxw_worksheet* sheet, lxw_row_t row, std::vector<Column> columns, bool whole_sheet)
      : book_(book), sheet_(sheet), row_(row), columns_(std::move(columns)) {
    for (std::size_t c = 0; c < columns_.size(); ++c) {
      worksheet_write_string(sheet_, row_, lxw_col_t(c), columns_[c].title.c_str(), book_.head());
      if (whole_sheet) worksheet_set_column(sheet_, lxw_col_t(c), lxw_col_t(c), columns_[c].width, nullptr);
    }
    if (whole_sheet) worksheet_freeze_panes(sheet_, row_ + 1, 0);
    ++row_;
  }
  Table& text(const std::string& words) {
    if (!words.empty()) worksheet_write_string(sheet_, row_, lxw_col_t(column_), words.c_str(), nullptr);
    ++column_;
    return *this;
  }
  /// Empty where there is none.
  Table& number(const std::optional<double>& value) {
    if (value && std::isfinite(*value))
      worksheet_write_number(sheet_, row_, lxw_col_t(column_), *value,
                             book_.number(columns_[column_].digits));
    ++column_;
    return *this;
  }
  void end_row() {
    ++row_;
    column_ = 0;
  }
  lxw_row_t row() const { return row_; }

 private:
  Book& book_;
  lxw_worksheet* sheet_;
  lxw_row_t row_;
  std::vector<Column> columns_;
  std::size_t column_ = 0;
};

class Writer {
 public:
  Writer(Book& book, const record::RunRecord& run)
      : book_(book), run_(run), light_(run.units.light_unit()), m_(run.units.length_unit()) {}

  void write() {
    summary();
    checks();
    luminaires();
    scenes(false);
    scenes(true);
    for (const RoomRecord& room : run_.rooms) sheet_of(room);
  }

 private:
  std::optional<double> light(const std::optional<double>& lux) const {
    return lux ? std::optional(run_.units.light(*lux)) : std::nullopt;
  }
  double length(double m) const { return run_.units.length(m); }

  void summary() {
    lxw_worksheet* sheet = book_.sheet("Summary");
    worksheet_write_string(sheet, 0, 0, run_.project.c_str(), book_.title());
    std::string standards;
    for (const std::string& standard : run_.standards)
      standards += (standards.empty() ? "" : ", ") + standard;
    worksheet_write_string(sheet, 1, 0, (standards + ", maintained values").c_str(), nullptr);
    Table table(book_, sheet, 3,
                {{"Floor", Digits::text, 14},
                 {"Number", Digits::text, 9},
                 {"Room", Digits::text, 24},
                 {"Verdict"},
                 {"Task", Digits::text, 24},
                 {"Area " + m_ + "2", Digits::two},
                 {"Target " + light_, Digits::whole},
                 {"Mean " + light_, Digits::whole},
                 {"+/- " + light_, Digits::one},
                 {"U0", Digits::two},
                 {"Luminaires", Digits::whole},
                 {"Power W", Digits::whole},
                 {"W/m2", Digits::two},
                 {"W/m2 per 100 lx", Digits::two}},
                true);
    for (const RoomRecord& room : run_.rooms) {
      const assess::GridReading* plane = record::work_plane(room.assessment);
      const auto watts = record::drawn_power(room);
      table.text(room.floor).text(room.number).text(room.name).text(to_string(room.assessment.status));
      table.text(room.tasks.empty() ? std::string() : room.tasks.front().key);
      table.number(length(length(room.floor_area_m2)));
      table.number(room.tasks.empty() ? std::nullopt : light(room.tasks.front().em_lx));
      table.number(plane ? light(plane->statistics.mean_lx) : std::nullopt);
      table.number(plane ? light(plane->uncertainty.mean_lx) : std::nullopt);
      table.number(plane ? plane->statistics.u0 : std::nullopt);
      table.number(double(room.luminaires().size()));
      table.number(watts).number(watts ? std::optional(*watts / room.floor_area_m2) : std::nullopt);
      table.number(room.assessment.power.w_per_m2_100lx);
      table.end_row();
    }
  }

  void add_checks(Table& table, const RoomRecord& room, const std::string& scene,
                  const std::vector<standards::Check>& checks) const {
    for (const standards::Check& check : checks) {
      const bool in_lux = check.unit() == "lx";
      const auto shown = [&](double value) { return in_lux ? run_.units.light(value) : value; };
      table.text(room.name).text(scene).text(words::name_of(check.target, room));
      table.text(to_string(check.demand.quantity));
      table.number(shown(check.demand.required)).number(shown(check.actual)).number(shown(check.uncertainty));
      table.text(in_lux ? light_ : check.unit())
          .text(to_string(check.verdict))
          .text(check.binding ? "yes" : "no");
      table.text(check.demand.standard).text(check.demand.source).text(check.demand.certainty);
      table.end_row();
    }
  }

  void checks() {
    Table table(book_, book_.sheet("Checks"), 0,
                {{"Room", Digits::text, 22},
                 {"Scene", Digits::text, 16},
                 {"Of", Digits::text, 24},
                 {"Quantity", Digits::text, 22},
                 {"Required", Digits::two},
                 {"Found", Digits::two},
                 {"+/-", Digits::two},
                 {"Unit"},
                 {"Verdict"},
                 {"Binding"},
                 {"Standard", Digits::text, 18},
                 {"Source", Digits::text, 24},
                 {"Certainty"}},
                true);
    for (const RoomRecord& room : run_.rooms) {
      add_checks(table, room, {}, room.assessment.checks);
      for (std::size_t s = 0; s < room.scenes.size(); ++s)
        add_checks(table, record::in_scene(room, s), room.scenes[s].name, room.scenes[s].assessment.checks);
    }
  }

  void luminaires() {
    Table table(book_, book_.sheet("Luminaires"), 0,
                {{"Room", Digits::text, 22},
                 {"Group", Digits::text, 16},
                 {"Mark"},
                 {"Luminaire", Digits::text, 28},
                 {"x " + m_, Digits::three},
                 {"y " + m_, Digits::three},
                 {"z " + m_, Digits::three},
                 {"Rotation deg", Digits::one},
                 {"Dimming", Digits::two},
                 {"Flux lm", Digits::whole},
                 {"Power W", Digits::one}},
                true);
    for (const RoomRecord& room : run_.rooms)
      for (const record::GroupRecord& group : room.groups)
        for (std::size_t k = 0; k < group.positions.size(); ++k) {
          const Vec3& at = group.positions[k];
          table.text(room.name).text(group.name).text(group.mark).text(group.full_name());
          table.number(length(at.x())).number(length(at.y())).number(length(at.z()));
          table.number(group.rotations_deg[k]).number(group.weight.output).number(group.flux_lm);
          table.number(group.watts_w);
          table.end_row();
        }
  }

  /// Scenes of electric light, or moments with daylight; no sheet where there are none.
  void scenes(bool moments) {
    const auto is_meant = [&](const record::SceneRecord& scene) {
      return scene.moment.has_value() == moments;
    };
    if (std::none_of(run_.rooms.begin(), run_.rooms.end(), [&](const RoomRecord& room) {
          return std::any_of(room.scenes.begin(), room.scenes.end(), is_meant);
        }))
      return;
    Table table(book_, book_.sheet(moments ? "Moments" : "Scenes"), 0,
                {{"Room", Digits::text, 22},
                 {moments ? "Moment" : "Scene", Digits::text, 22},
                 {"Verdict"},
                 {"When", Digits::text, 30},
                 {"Mean " + light_, Digits::whole},
                 {"U0", Digits::two},
                 {"Daylight factor %", Digits::two},
                 {"Power W", Digits::whole}},
                true);
    for (const RoomRecord& room : run_.rooms)
      for (const record::SceneRecord& scene : room.scenes) {
        if (!is_meant(scene)) continue;
        const assess::GridReading* plane = record::work_plane(scene.assessment);
        std::optional<double> factor;
        if (plane && plane->day && plane->day->has_factor) {
          double sum = 0;
          for (std::size_t k = 0; k < plane->day->day_lx.size(); ++k) sum += plane->day->factor(k);
          factor = sum / double(plane->day->day_lx.size());
        }
        table.text(room.name).text(scene.name).text(to_string(scene.assessment.status));
        table.text(scene.moment ? scene.moment->when() : std::string());
        table.number(plane ? light(plane->statistics.mean_lx) : std::nullopt);
        table.number(plane ? plane->statistics.u0 : std::nullopt).number(factor).number(scene.drawn_w);
        table.end_row();
      }
  }

  void sheet_of(const RoomRecord& room) {
    lxw_worksheet* sheet = book_.sheet(room.name);
    worksheet_write_string(sheet, 0, 0, room.name.c_str(), book_.title());
    const std::string state = room.changed_since.empty() ? std::string() : ", older than the project";
    worksheet_write_string(sheet, 1, 0, (to_string(room.assessment.status) + state).c_str(), nullptr);
    Table grids(book_, sheet, 3,
                {{"Grid", Digits::text, 28},
                 {"Points", Digits::whole},
                 {"Mean " + light_, Digits::whole},
                 {"+/- " + light_, Digits::one},
                 {"Least " + light_, Digits::whole},
                 {"Most " + light_, Digits::whole},
                 {"U0", Digits::two},
                 {"Direct mean " + light_, Digits::whole},
                 {"Reflected mean " + light_, Digits::whole}},
                true);
    for (const assess::GridReading& grid : room.assessment.grids) {
      if (grid.total_lx.empty()) continue;
      grids.text(grid.name).number(double(grid.total_lx.size())).number(light(grid.statistics.mean_lx));
      grids.number(light(grid.uncertainty.mean_lx)).number(light(grid.statistics.min_lx));
      grids.number(light(grid.statistics.max_lx)).number(grid.statistics.u0);
      grids.number(light(grid.direct_mean_lx)).number(light(grid.interreflected_mean_lx));
      grids.end_row();
    }
    points(room, sheet, grids.row() + 1);
  }

  /// Values of the work plane, point by point.
  void points(const RoomRecord& room, lxw_worksheet* sheet, lxw_row_t row) {
    const assess::GridReading* plane = record::work_plane(room.assessment);
    if (!plane) return;
    Table table(book_, sheet, row,
                {{"x " + m_ + ", work plane", Digits::three},
                 {"y " + m_, Digits::three},
                 {"z " + m_, Digits::three},
                 {"Direct " + light_, Digits::one},
                 {"Reflected " + light_, Digits::one},
                 {"Total " + light_, Digits::one}},
                false);
    for (std::size_t k = 0; k < plane->total_lx.size(); ++k) {
      const Vec3& p = plane->grid.points[k];
      table.number(length(p.x())).number(length(p.y())).number(length(p.z()));
      table.number(light(plane->direct_lx[k])).number(light(plane->interreflected_lx[k]));
      table.number(light(plane->total_lx[k]));
      table.end_row();
    }
  }

  Book& book_;
  const record::RunRecord& run_;
  const std::string light_, m_;
};

}  // namespace

void write_workbook(const record::RunRecord& run, const fs::path& path) {
  std::error_code error;
  fs::create_directories(fs::absolute(path).parent_path(), error);
  const fs::path aside = path.string() + fmt::format(FMT_STRING(".{}.part"), ::getpid());
  Book book(aside);
  Writer(book, run).write();
  if (!book.close()) {
    fs::remove(aside, error);
    throw OutputError("cannot write " + path.string());
  }
  fs::rename(aside, path, error);
  if (!error) return;
  const std::string why = error.message();
  fs::remove(aside, error);
  throw OutputError("cannot write " + path.string() + ": " + why);
}

}  // namespace glow::files
