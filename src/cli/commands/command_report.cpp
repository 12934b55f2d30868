#include <fmt/format.h>

#include <algorithm>

#include "cli/commands.hpp"
#include "cli/options/figure_options.hpp"
#include "cli/options/result_choice.hpp"
#include "cli/options/room_choice.hpp"
#include "cli/runs/subject.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/model/file_names.hpp"
#include "files/output/output_folder.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_text.hpp"
#include "files/text/input_file.hpp"
#include "report/inline_figure.hpp"
#include "report/pdf.hpp"
#include "report/report.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

constexpr std::size_t kLargestAid = 64u << 20;  // bytes, of pictures, templates and the like
constexpr std::size_t kMostBeside = 2;

CommandLine report_line() {
  CommandLine line{
      "glowgrid report RESULTS|PROJECT [options]",
      "Makes a document of results, as [report] in the project asks for it: HTML, which needs nothing "
      "beside\n"
      "itself, and PDF. Forms: full; room-page, a page for each room; short, tables of all rooms by floor.",
      "  glowgrid report millrace.toml\n  glowgrid report millrace.toml --form room-page --format pdf -o "
      "rooms.pdf\n"
      "  glowgrid report millrace.toml --beside \"millrace.toml@half the lamps\"",
      "results",
      false,
      po::options_description()};
  line.wants = "which results, or which project?";
  add_room_option(line.options, "report");
  line.options.add_options()("output,o", po::value<std::string>()->value_name("FILE"),
                             "default: report.html, report.pdf beside results.json")(
      "form", po::value<std::string>()->value_name("FORM")->default_value("full"),
      "full, room-page or short")("only",
                                  po::value<std::vector<std::string>>()->value_name("PART")->composing(),
                                  "only this part, of the report or of rooms; may be given several times")(
      "format,f", po::value<std::string>()->value_name("LIST")->default_value("html"),
      "html, pdf, or html,pdf")("beside",
                                po::value<std::vector<std::string>>()->value_name("RESULTS")->composing(),
                                "a kept run, variant or other results to stand side by side; at most two")(
      "language", po::value<std::string>()->value_name("CODE"),
      "of headings, instead of the project's: en, de");
  add_units_option(line.options);
  line.options.add_options()("quiet,q", "no warnings")("help,h", "show this help");
  return line;
}

/// The project of results: as it was named, or beside them by its usual name; empty: not at hand.
fs::path project_of(const std::string& named, const fs::path& results) {
  const std::string first = named.substr(0, named.find_first_of("@#"));
  if (fs::path(first).extension() == ".toml") return first;
  const std::string folder = fs::absolute(results).parent_path().filename().string(), end = "-results";
  if (folder.size() <= end.size() || folder.substr(folder.size() - end.size()) != end) return {};
  const fs::path project = fs::absolute(results).parent_path().parent_path() /
                           (folder.substr(0, folder.size() - end.size()) + ".toml");
  std::error_code error;
  return fs::exists(project, error) ? project : fs::path();
}

/// What a report takes from the project's folder.
struct Aids {
  model::ReportWish wish;
  std::map<std::string, std::shared_ptr<const photometry::Photometry>> photometry;
  std::string logo, words, page, style;  ///< contents; the logo as a data address
};

std::string kind_of_image(const fs::path& file) {
  const std::string suffix = file.extension().string();
  if (suffix == ".svg") return "svg+xml";
  return suffix == ".jpg" || suffix == ".jpeg" ? "jpeg" : "png";
}

Aids read_aids(const fs::path& path, Problems& problems) {
  Aids aids;
  if (path.empty()) return aids;
  Problems unheard;  // `check` and `run` tell of the project
  const auto text = files::ProjectText::read(path, unheard);
  auto project = text ? files::read_project(text->text(), path.string(), unheard) : std::nullopt;
  if (!project || unheard.has_errors())
    problems.warning(
        "R015", {path.string(), 0, 0},
        "has errors (glowgrid check tells them): its [report] and photometric files are left out");
  if (!project || unheard.has_errors()) return aids;
  aids.wish = project->report;
  const fs::path folder = fs::absolute(path).parent_path();
  files::load_photometry(*project, folder, unheard);
  for (const model::ScheduledLuminaire& entry : project->schedule)
    if (entry.photometry) aids.photometry[entry.mark] = entry.photometry;
  const auto read = [&](const std::string& name, std::string& into) {
    if (name.empty()) return;
    const auto file =
        files::named_path(folder, name, project->files_outside, {path.string(), 0, 0}, problems);
    const auto bytes =
        file ? files::read_file(*file, kLargestAid, {path.string(), 0, 0}, problems) : std::nullopt;
    if (bytes) into = *bytes;
  };
  read(aids.wish.logo, aids.logo);
  if (!aids.logo.empty()) aids.logo = report::data_address(aids.logo, kind_of_image(aids.wish.logo));
  read(aids.wish.words, aids.words);
  read(aids.wish.template_file, aids.page);
  read(aids.wish.style, aids.style);
  return aids;
}

/// Parts of the report or of rooms that --only names; false after saying which is none.
bool choose_parts(const Arguments& arguments, model::ReportWish& wish) {
  const std::vector<std::string> only = arguments.texts("only");
  if (only.empty()) return true;
  wish.contents.clear();
  std::vector<std::string> of_rooms;
  const auto &parts = model::report_parts(), &room_parts = model::report_room_parts();
  for (const std::string& part : only) {
    if (std::find(parts.begin(), parts.end(), part) != parts.end())
      wish.contents.push_back(part);
    else if (std::find(room_parts.begin(), room_parts.end(), part) != room_parts.end())
      of_rooms.push_back(part);
    else
      return refused("report",
                     fmt::format(FMT_STRING("there is no part \"{}\"; expected {}, or of rooms {}"),
                                 printable(part), fmt::join(parts, ", "), fmt::join(room_parts, ", ")));
  }
  if (!of_rooms.empty()) wish.room_contents = of_rooms;
  if (!of_rooms.empty() && std::count(wish.contents.begin(), wish.contents.end(), "rooms") == 0)
    wish.contents.push_back("rooms");
  return true;
}

std::optional<report::Form> form_of(const std::string& words) {
  if (words == "full") return report::Form::full;
  if (words == "room-page") return report::Form::room_page;
  if (words == "short") return report::Form::brief;
  refused("report",
          fmt::format(FMT_STRING("--form is \"{}\"; expected full, room-page or short"), printable(words)));
  return std::nullopt;
}

/// Writes what is wanted of the page; the exit code.
int write_report(const std::string& html, const std::string& formats, const fs::path& target) {
  const bool wants_html = formats != "pdf", wants_pdf = formats != "html";
  fs::path page = target, pdf = target;
  page.replace_extension(".html");
  pdf.replace_extension(".pdf");
  std::error_code error;
  const fs::path printed = wants_html ? page : fs::path(pdf.string() + ".html");
  files::write_whole(printed, html);
  if (wants_html) tell(fmt::format(FMT_STRING("Written: {}\n"), fs::proximate(page).string()));
  if (!wants_pdf) return kDone;
  const std::string fault = report::write_pdf(printed, pdf);
  if (!wants_html) fs::remove(printed, error);
  if (!fault.empty()) {
    refused("report", fault);
    return kFailure;
  }
  tell(fmt::format(FMT_STRING("Written: {}\n"), fs::proximate(pdf).string()));
  return kDone;
}

}  // namespace

int command_report(const std::vector<std::string>& words) {
  const ParseResult parsed = parse(report_line(), words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const auto form = form_of(arguments.text("form"));
  const std::string formats = arguments.text("format");
  if (!form) return kBadInput;
  if (formats != "html" && formats != "pdf" && formats != "html,pdf" && formats != "pdf,html") {
    refused("report", fmt::format(FMT_STRING("--format is \"{}\"; expected html, pdf or html,pdf"),
                                  printable(formats)));
    return kBadInput;
  }
  Problems problems;
  auto subject = open_subject(arguments.text("results"), problems);
  std::vector<Subject> others;
  for (const std::string& other : arguments.texts("beside"))
    if (auto opened = open_subject(other, problems)) others.push_back(std::move(*opened));
  if (others.size() > kMostBeside) {
    refused("report", "at most two results stand beside the report's own");
    return kBadInput;
  }
  Aids aids;
  if (subject) aids = read_aids(project_of(arguments.text("results"), subject->results.file), problems);
  print_problems(problems, {}, arguments.flag("quiet"));
  if (!subject || problems.has_errors()) return kBadInput;
  record::RunRecord& run = subject->results.run;
  run.units = aids.wish.units.value_or(run.units);
  if (!choose_results(arguments, "report", run) || !apply_units_option(arguments, "report", run.units))
    return kBadInput;
  if (arguments.has("language")) aids.wish.language = arguments.text("language");
  if (!choose_parts(arguments, aids.wish)) return kBadInput;
  try {
    const report::ReportWords headings(aids.wish.language, aids.words);
    const fs::path folder = subject->results.file.parent_path();
    const auto picture = [&](const std::string& file) {
      Problems unheard;  // a picture that was taken away is left out
      const auto bytes = files::read_file(folder / file, kLargestAid, {}, unheard);
      return bytes ? report::data_address(*bytes, "png") : std::string();
    };
    report::ReportInput input{
        {run, aids.wish, headings, picture}, *form, aids.photometry, subject->words, {}};
    for (const Subject& other : others) input.beside.push_back({other.words, &other.results.run});
    report::Document document = report::compose(input);
    document.logo = aids.logo;
    const std::string html = report::html_of(document, aids.wish, headings, aids.page, aids.style);
    return write_report(html, formats,
                        arguments.has("output") ? fs::path(arguments.text("output")) : folder / "report");
  } catch (const std::runtime_error& fault) {
    refused("report", fault.what());
    return kBadInput;
  }
}

}  // namespace glow::cli
