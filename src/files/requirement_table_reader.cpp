#include "files/requirement_table_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

#include "core/units/quantity.hpp"
#include "files/embedded_files.hpp"
#include "files/text_scanner.hpp"

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
                                 {"plane_note", &Requirement::plane_note},
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
                                     {"Ez_lx", &Requirement::ez_lx},
                                     {"Ewall_lx", &Requirement::ewall_lx},
                                     {"Eceiling_lx", &Requirement::eceiling_lx},
                                     {"plane_height_m", &Requirement::plane_height_m}};

std::vector<std::string> fields_of(std::string_view line) {
  std::vector<std::string> fields(1);
  for (const char c : line) {
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
    const auto known = [](const std::string& column) {
      const auto same = [&](const auto& c) { return column == c.name; };
      return std::any_of(std::begin(kTexts), std::end(kTexts), same) ||
             std::any_of(std::begin(kNumbers), std::end(kNumbers), same);
    };
    for (const std::string& column : header_)
      if (!known(column))
        problems_.error("S001", {name_, 1, 0}, fmt::format(FMT_STRING("unknown column \"{}\""), column));
  }

  Requirement row(const std::vector<std::string>& fields, int line) const {
    Requirement r;
    for (std::size_t i = 0; i < fields.size(); ++i) {
      for (const TextColumn& column : kTexts)
        if (header_[i] == column.name) r.*column.field = fields[i];
      for (const NumberColumn& column : kNumbers) {
        if (header_[i] != column.name || fields[i].empty()) continue;
        double value = 0;
        if (!units::parse_number(fields[i], value))
          problems_.error(
              "S003", {name_, line, 0},
              fmt::format(FMT_STRING("{} is \"{}\"; expected a number or nothing"), column.name, fields[i]));
        r.*column.field = value;
      }
    }
    if (r.key.empty()) problems_.error("S004", {name_, line, 0}, "the row has no key");
    return r;
  }

 private:
  std::string name_;
  std::vector<std::string> header_;
  Problems& problems_;
};

}  // namespace

std::optional<standards::RequirementTable> read_requirement_table(std::string_view bytes,
                                                                  const std::string& name,
                                                                  Problems& problems) {
  const int errors_before = problems.error_count();
  const auto lines = split_lines(bytes);
  const std::vector<std::string> header = lines.empty() ? std::vector<std::string>() : fields_of(lines[0]);
  const TableReader reader(name, header, problems);
  reader.check_header();
  std::vector<Requirement> rows;
  for (std::size_t i = 1; i < lines.size(); ++i) {
    if (trimmed(lines[i]).empty()) continue;
    const auto fields = fields_of(lines[i]);
    if (fields.size() != header.size()) {
      problems.error("S002", {name, int(i) + 1, 0},
                     fmt::format(FMT_STRING("{} fields; the header has {}"), fields.size(), header.size()));
      continue;
    }
    rows.push_back(reader.row(fields, int(i) + 1));
  }
  if (rows.empty()) problems.error("S005", {name, 0, 0}, "the table has no rows");
  if (problems.error_count() > errors_before) return std::nullopt;
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
