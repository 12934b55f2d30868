#include "files/workbook/workbook.hpp"

#include <fmt/format.h>
#include <unistd.h>
#include <xlsxwriter.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/model/file_names.hpp"
#include "files/output/output_folder.hpp"
#include "words/data/run_data.hpp"

namespace glow::files {
namespace {

namespace fs = std::filesystem;
using record::RoomRecord;

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
    for (const char* words : {"0", "0.0", "0.00", "0.000"}) {
      numbers_.push_back(workbook_add_format(book_));
      format_set_num_format(numbers_.back(), words);
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
  /// For numbers with so many digits after the point.
  lxw_format* number(int digits) const {
    return numbers_[std::min(std::size_t(digits), numbers_.size() - 1)];
  }

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
  std::vector<lxw_format*> numbers_;
  std::set<std::string> names_;
};

class Writer {
 public:
  Writer(Book& book, const record::RunRecord& run) : book_(book), run_(run) {}

  void write() {
    lxw_worksheet* summary = book_.sheet("Summary");
    worksheet_write_string(summary, 0, 0, run_.project.c_str(), book_.title());
    const std::string standards = fmt::format(FMT_STRING("{}"), fmt::join(run_.standards, ", "));
    worksheet_write_string(summary, 1, 0, (standards + ", maintained values").c_str(), nullptr);
    write(words::rooms_data(run_), summary, 3);
    for (const words::DataTable& table :
         {words::checks_data(run_), words::luminaires_data(run_), words::scenes_data(run_, false),
          words::scenes_data(run_, true), words::year_data(run_), words::year_floors_data(run_),
          words::year_points_data(run_), words::year_times_data(run_), words::energy_data(run_),
          words::neighbours_data(run_), words::neighbour_luminaires_data(run_)})
      if (!table.rows().empty() || table.key() == "checks") write(table, book_.sheet(table.title()), 0);
    for (const RoomRecord& room : run_.rooms) sheet_of(room);
  }

 private:
  /// The table from a row of the sheet on; the row after it. Columns are as wide as the first table wants
  /// them.
  lxw_row_t write(const words::DataTable& table, lxw_worksheet* sheet, lxw_row_t row, bool is_first = true) {
    const auto& columns = table.columns();
    for (std::size_t c = 0; c < columns.size(); ++c) {
      worksheet_write_string(sheet, row, lxw_col_t(c), columns[c].title.c_str(), book_.head());
      if (is_first) worksheet_set_column(sheet, lxw_col_t(c), lxw_col_t(c), columns[c].width, nullptr);
    }
    if (is_first) worksheet_freeze_panes(sheet, row + 1, 0);
    ++row;
    for (const auto& line : table.rows()) {
      for (std::size_t c = 0; c < line.size(); ++c) {
        if (const auto* words = std::get_if<std::string>(&line[c]))
          worksheet_write_string(sheet, row, lxw_col_t(c), words->c_str(), nullptr);
        if (const auto* number = std::get_if<double>(&line[c]))
          worksheet_write_number(sheet, row, lxw_col_t(c), *number, book_.number(columns[c].digits));
      }
      ++row;
    }
    return row;
  }

  /// Grids, and the work plane point by point, with all groups as placed.
  void sheet_of(const RoomRecord& room) {
    lxw_worksheet* sheet = book_.sheet(room.name);
    worksheet_write_string(sheet, 0, 0, room.name.c_str(), book_.title());
    const std::string state = room.changed_since.empty() ? std::string() : ", older than the project";
    worksheet_write_string(sheet, 1, 0, (to_string(room.assessment.status) + state).c_str(), nullptr);
    record::RunRecord one;
    one.units = run_.units;
    RoomRecord& placed = one.rooms.emplace_back();
    placed.floor = room.floor;
    placed.name = room.name;
    placed.assessment.grids = room.assessment.grids;
    const lxw_row_t row = write(words::grids_data(one), sheet, 3);
    const assess::GridReading* plane = record::work_plane(room.assessment);
    if (!plane) return;
    placed.assessment.grids = {*plane};
    write(words::points_data(placed, run_.units), sheet, row + 1, false);
  }

  Book& book_;
  const record::RunRecord& run_;
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
