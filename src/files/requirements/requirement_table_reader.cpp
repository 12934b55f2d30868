#include "files/requirements/requirement_table_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <stdexcept>

#include "core/standards/general_rules.hpp"
#include "core/units/quantity.hpp"
#include "files/output/embedded_files.hpp"
#include "files/text/text_scanner.hpp"

namespace glow::files {
namespace {

using standards::Requirement;

struct TextColumn {
  const char* name;
  std::string Requirement::*field;
};

struct NumberColumn {
  const char* name;
  std::optional<double> Requirement::*field;
};

constexpr TextColumn kTexts[] = {{"standard", &Requirement::standard},
                                 {"edition", &Requirement::edition},
                                 {"ref", &Requirement::reference},
                                 {"key", &Requirement::key},
                                 {"area", &Requirement::area},
                                 {"task", &Requirement::task},
                                 {"class", &Requirement::sport_class},
                                 {"plane_note", &Requirement::plane_note},
                                 {"posture", &Requirement::posture},
                                 {"remark", &Requirement::remark},
                                 {"words", &Requirement::words},
                                 {"certainty", &Requirement::certainty},
                                 {"modified_certainty", &Requirement::modified_certainty},
                                 {"surface_certainty", &Requirement::surface_certainty},
                                 {"ref_certainty", &Requirement::reference_certainty},
                                 {"basis", &Requirement::basis},
                                 {"not_held", &Requirement::not_held},
                                 {"source_note", &Requirement::source_note}};

constexpr NumberColumn kNumbers[] = {{"Em_lx", &Requirement::em_lx},
                                     {"Em_modified_lx", &Requirement::em_modified_lx},
                                     {"Uo", &Requirement::uo},
                                     {"Ra", &Requirement::ra},
                                     {"RUGL", &Requirement::rugl},
                                     {"GRL", &Requirement::grl},
                                     {"Ez_lx", &Requirement::ez_lx},
                                     {"Ewall_lx", &Requirement::ewall_lx},
                                     {"Eceiling_lx", &Requirement::eceiling_lx},
                                     {"Emin_lx", &Requirement::emin_lx},
                                     {"Emax_to_Emin_max", &Requirement::emax_over_emin},
                                     {"t50_s", &Requirement::t50_s},
                                     {"plane_height_m", &Requirement::plane_height_m}};

/// Of emergency lighting: shown with the task, not verified by this program.
constexpr const char* kShown[] = {"Emin_share_of_task_Em", "t100_s",         "duration_min_h", "L_min_cd_m2",
                                  "L_ratio_in_colour_max", "L_contrast_min", "L_contrast_max"};
constexpr std::size_t kMostRows = 20000;
constexpr std::size_t kMostColumns = 200;
constexpr int kMostFaults = 100;            // told of one table; more help nobody
constexpr std::size_t kLongestColumn = 60;  // of names that a known one is looked for
constexpr double kLargest = 1e6;            // of any value

std::vector<std::string> fields_of(std::string_view line) {
  std::vector<std::string> fields(1);
  for (const char c : to_utf8(line)) {
    if (c == ',')
      fields.emplace_back();
    else
      fields.back() += c;
  }
  return fields;
}

class TableReader {
 public:
  TableReader(std::string name, std::vector<std::string> header, Problems& problems)
      : name_(std::move(name)), header_(std::move(header)), problems_(problems) {}

  void check_header() const {
    if (header_.size() == 1 && header_[0].find(';') != std::string::npos) {
      problems_.error(
          "S001", {name_, 1, int(header_[0].find(';')) + 1},
          "fields are separated by semicolons; expected commas, and semicolons only inside a list");
      return;
    }
    if (header_.size() > kMostColumns) {
      problems_.error("S001", {name_, 1, 1},
                      fmt::format(FMT_STRING("the header has {} columns; expected at most {}"),
                                  header_.size(), kMostColumns));
      return;
    }
    std::vector<std::string> known(std::begin(kShown), std::end(kShown));
    for (const TextColumn& column : kTexts) known.emplace_back(column.name);
    for (const NumberColumn& column : kNumbers) known.emplace_back(column.name);
    for (std::size_t i = 0; i < header_.size(); ++i) {
      const std::string& column = header_[i];
      if (std::find(known.begin(), known.end(), column) == known.end()) {
        const std::string near = column.size() <= kLongestColumn ? nearest_word(column, known) : "";
        problems_.error("S001", place(1, header_, i),
                        fmt::format(FMT_STRING("unknown column \"{}\"; {}"), column.substr(0, kLongestColumn),
                                    near.empty() ? std::string("docs/requirements.md lists the columns")
                                                 : fmt::format(FMT_STRING("did you mean \"{}\"?"), near)));
      } else if (std::find(header_.begin(), header_.begin() + std::ptrdiff_t(i), column) !=
                 header_.begin() + std::ptrdiff_t(i)) {
        problems_.error("S001", place(1, header_, i),
                        fmt::format(FMT_STRING("column \"{}\" is there twice; keep one"), column));
      }
    }
    for (const char* needed : {"standard", "edition", "key", "task"})
      if (std::find(header_.begin(), header_.end(), needed) == header_.end())
        problems_.error("S001", {name_, 1, 1},
                        fmt::format(FMT_STRING("the header has no column \"{}\"; a table needs it"), needed));
  }

  Requirement row(const std::vector<std::string>& fields, int line) {
    Requirement r;
    for (std::size_t i = 0; i < fields.size(); ++i) {
      for (const TextColumn& column : kTexts)
        if (header_[i] == column.name) r.*column.field = fields[i];
      for (const NumberColumn& column : kNumbers)
        if (header_[i] == column.name && !fields[i].empty()) r.*column.field = number(fields, i, line);
      for (const char* column : kShown)
        if (header_[i] == column && !fields[i].empty()) r.others.emplace_back(column, fields[i]);
    }
    if (r.key.empty())
      problems_.error("S004", {name_, line, 1},
                      "the row has no key; expected one such as \"office.writing\"");
    else if (const auto [first, is_new] = keys_.emplace(r.key, line); !is_new)
      problems_.error("S006", {name_, line, 1},
                      fmt::format(FMT_STRING("key \"{}\" stands in line {} already; keep one row"), r.key,
                                  first->second));
    if (r.certainty.empty()) r.certainty = "not stated";
    if (!r.posture.empty() && r.posture != "seated" && r.posture != "standing")
      problems_.error("S004", {name_, line, 1},
                      fmt::format(FMT_STRING("posture is \"{}\"; expected seated, standing, or nothing"),
                                  r.posture.substr(0, kLongestColumn)));
    return r;
  }

 private:
  Place place(int line, const std::vector<std::string>& fields, std::size_t field) const {
    int column = 1;
    for (std::size_t i = 0; i < field; ++i) column += int(fields[i].size()) + 1;
    return {name_, line, column};
  }
  double number(const std::vector<std::string>& fields, std::size_t i, int line) const {
    double value = 0;
    const bool read = units::parse_number(fields[i], value);
    if (!read || !(value >= 0 && value <= kLargest))
      problems_.error("S003", place(line, fields, i),
                      fmt::format(FMT_STRING("{} is \"{}\"; expected a number from 0 to {:.0f}, or nothing"),
                                  header_[i], fields[i].substr(0, 40), kLargest));
    else if (header_[i] == "Uo" && value > 1)
      problems_.error("S003", place(line, fields, i),
                      fmt::format(FMT_STRING("Uo is {}; expected a share from 0 to 1"), value));
    return value;
  }

  std::string name_;
  std::vector<std::string> header_;
  std::map<std::string, int> keys_;
  Problems& problems_;
};

}  // namespace

std::optional<standards::RequirementTable> read_requirement_table(std::string_view bytes,
                                                                  const std::string& name,
                                                                  Problems& problems) {
  const int errors_before = problems.error_count();
  const auto lines = split_lines(bytes);
  if (lines.empty() || trimmed(lines[0]).empty()) {
    problems.error("S005", {name, 1, 1}, "the table is empty, or its first line is; expected a header row");
    return std::nullopt;
  }
  const std::vector<std::string> header = fields_of(lines[0]);
  TableReader reader(name, header, problems);
  reader.check_header();
  if (problems.error_count() > errors_before && header.size() > kMostColumns) return std::nullopt;
  std::vector<Requirement> rows;
  for (std::size_t i = 1; i < lines.size(); ++i) {
    if (trimmed(lines[i]).empty()) continue;
    if (problems.error_count() - errors_before >= kMostFaults) break;
    if (rows.size() >= kMostRows) {
      problems.error("S002", {name, int(i) + 1, 0},
                     fmt::format(FMT_STRING("the table has more than {} rows"), kMostRows));
      break;
    }
    const auto fields = fields_of(lines[i]);
    if (fields.size() != header.size()) {
      problems.error(
          "S002", {name, int(i) + 1, 1},
          fmt::format(FMT_STRING("this row has {} fields, the header {}; a comma separates fields and "
                                 "cannot stand in one (use ; in texts)"),
                      fields.size(), header.size()));
      continue;
    }
    rows.push_back(reader.row(fields, int(i) + 1));
  }
  if (rows.empty()) problems.error("S005", {name, 0, 0}, "the table has no rows");
  if (problems.error_count() > errors_before) return std::nullopt;
  for (Requirement& row : rows) standards::add_general_surfaces(row);
  return standards::RequirementTable(std::move(rows));
}

namespace {

const std::vector<standards::RequirementTable>& all_built_in() {
  static const std::vector<standards::RequirementTable> tables = [] {
    std::vector<standards::RequirementTable> read;
    Problems problems;
    for (const EmbeddedFile& file : embedded_tables()) {
      if (file.name.find(".csv") == std::string::npos) continue;
      auto table = read_requirement_table(file.bytes, file.name, problems);
      if (!table) throw std::logic_error("built-in table: " + to_string(problems.all().front()));
      read.push_back(std::move(*table));
    }
    return read;
  }();
  return tables;
}

}  // namespace

const standards::RequirementTable* built_in_table(const std::string& standard) {
  for (const auto& table : all_built_in())
    if (table.name() == standard) return &table;
  return nullptr;
}

std::vector<std::string> built_in_standards() {
  std::vector<std::string> names;
  for (const auto& table : all_built_in()) names.push_back(table.name());
  return names;
}

}  // namespace glow::files
