#include "cli/sheets/task_sheet.hpp"

#include <fmt/format.h>

#include "core/standards/general_rules.hpp"
#include "words/text_layout.hpp"

namespace glow::cli {
namespace {

using standards::Requirement;

constexpr std::size_t kNameWidth = 24;

class Sheet {
 public:
  explicit Sheet(const Requirement& row) : row_(row) {}

  std::string write() {
    words::wrap(text_, "", fmt::format(FMT_STRING("{}: {}"), row_.key, row_.task), 2);
    std::string source = row_.source();
    if (row_.reference_certainty == "inferred" || row_.reference_certainty == "table")
      source += row_.reference_certainty == "inferred" ? " (row number inferred)" : " (table number only)";
    entry("from", fmt::format(FMT_STRING("{}; {}"), source, row_.area));
    if (!row_.sport_class.empty()) entry("class", row_.sport_class);
    write_values();
    write_surroundings();
    write_plane();
    for (const auto& [name, value] : row_.others) entry(name, value);
    if (!row_.remark.empty()) entry("remark", row_.remark);
    if (!row_.source_note.empty()) entry("note", row_.source_note);
    if (!row_.basis.empty() && row_.basis != row_.edition)
      entry("basis", fmt::format(FMT_STRING("values of the {} edition, assumed unchanged"), row_.basis));
    return text_;
  }

 private:
  void entry(const std::string& name, const std::string& words) {
    words::wrap(text_, fmt::format(FMT_STRING("  {:<{}}"), name, kNameWidth), words, kNameWidth + 2);
  }
  /// A value with its certainty, or in words that there is none.
  void value(const char* name, const std::optional<double>& v, const char* unit, const char* column,
             const std::string& certainty) {
    if (v)
      entry(name, fmt::format(FMT_STRING("{:g}{}{}"), *v, unit,
                              certainty == "agreed" || certainty.empty() ? "" : "   [" + certainty + "]"));
    else if (row_.is_not_held(column))
      entry(name, "a value exists or may exist; not held here");
  }
  void write_values() {
    const std::string& c = row_.certainty;
    value("mean illuminance Em", row_.em_lx, " lx", "Em_lx", c);
    if (row_.em_modified_lx || row_.edition == "2021")
      entry("  modified Em", row_.em_modified_lx ? fmt::format(FMT_STRING("{:g} lx{}"), *row_.em_modified_lx,
                                                               row_.modified_certainty == "agreed"
                                                                   ? ""
                                                                   : "   [" + row_.modified_certainty + "]")
                                                 : std::string("not held"));
    value("minimum at each point", row_.emin_lx, " lx", "Emin_lx", c);
    value("largest to smallest", row_.emax_over_emin, " at most", "Emax_to_Emin_max", c);
    value("half of it within", row_.t50_s, " s", "t50_s", c);
    if (row_.uo)
      entry("uniformity U0",
            fmt::format(FMT_STRING("{:.2f}{}"), *row_.uo, c == "agreed" ? "" : "   [" + c + "]"));
    else
      value("uniformity U0", row_.uo, "", "Uo", c);
    value("colour rendering Ra", row_.ra, "", "Ra", c);
    value("glare limit RUGL", row_.rugl, "", "RUGL", c);
    value("glare limit RGL", row_.grl, "", "GRL", c);
    const std::string& s = row_.surface_certainty;
    value("cylindrical Ez", row_.ez_lx, " lx, U0 0.10", "Ez_lx", s);
    value("walls", row_.ewall_lx, " lx, U0 0.10", "Ewall_lx", s);
    value("ceiling", row_.eceiling_lx, " lx, U0 0.10", "Eceiling_lx", s);
    if (!row_.own && row_.standard == "EN 12464-1" && row_.edition == "2021" && !row_.ewall_lx)
      entry("Ez, walls, ceiling", "not held (which is not: none)");
  }
  void write_surroundings() {
    if (!row_.em_lx) return;
    const auto s = standards::surroundings_of(row_, *row_.em_lx);
    if (!s) return;
    std::string words = fmt::format(FMT_STRING("{:g} lx, U0 {:.2f} in a band of {:g} m"), s->surrounding_lx,
                                    s->surrounding_u0, s->band_m);
    if (s->background_lx)
      words += fmt::format(FMT_STRING("; background {:.4g} lx, U0 {:.2f} in {:g} m beyond"),
                           *s->background_lx, *s->background_u0, s->background_band_m);
    if (!s->remark.empty()) words += " (" + s->remark + ")";
    entry("surrounding", words);
  }
  void write_plane() {
    const std::string note = row_.plane_note.empty() ? "not stated" : row_.plane_note;
    entry("plane that counts", row_.plane_height_m ? fmt::format(FMT_STRING("{:g} m above the floor: {}"),
                                                                 *row_.plane_height_m, note)
                                                   : note);
  }

  const Requirement& row_;
  std::string text_;
};

std::string cell(const Requirement& row, const std::optional<double>& v, const char* column) {
  if (!v) return row.is_not_held(column) ? "?" : "-";
  return fmt::format(FMT_STRING("{:g}"), *v);
}

}  // namespace

std::string task_sheet(const standards::Requirement& row) {
  return Sheet(row).write();
}

std::string task_list(const std::vector<const Requirement*>& rows) {
  constexpr std::size_t kKeyWidth = 26;
  std::string text = fmt::format(FMT_STRING("  {:<{}} {:>5} {:>5} {:>4} {:>5} {:>7}  {}\n"), "key", kKeyWidth,
                                 "Em lx", "U0", "Ra", "RUGL", "plane", "task");
  for (const Requirement* row : rows) {
    const bool sure = row->certainty == "agreed";
    const std::string plane =
        row->plane_height_m ? fmt::format(FMT_STRING("{:g} m"), *row->plane_height_m)
                            : row->plane_note.substr(0, std::min(row->plane_note.find(';'), std::size_t(8)));
    const std::optional<double>& glare = row->grl ? row->grl : row->rugl;
    const std::string lead =
        fmt::format(FMT_STRING("  {:<{}} {:>5} {:>5} {:>4} {:>5} {:>7}{} "), row->key, kKeyWidth,
                    row->emin_lx ? "min " + cell(*row, row->emin_lx, "") : cell(*row, row->em_lx, "Em_lx"),
                    row->uo ? fmt::format(FMT_STRING("{:.2f}"), *row->uo) : cell(*row, row->uo, "Uo"),
                    cell(*row, row->ra, "Ra"), cell(*row, glare, "RUGL"), plane, sure ? " " : "*");
    words::wrap(text, lead, row->task, kKeyWidth + 6);
  }
  return text;
}

}  // namespace glow::cli
