#include <fmt/format.h>
#include <unistd.h>

#include <algorithm>
#include <cmath>
#include <iostream>

#include "cli/commands.hpp"
#include "cli/open_project.hpp"
#include "cli/options/arguments.hpp"
#include "cli/streams.hpp"
#include "cli/terminal.hpp"
#include "core/photometry/derived.hpp"
#include "core/standards/task_search.hpp"
#include "core/units/quantity.hpp"
#include "files/output/output_folder.hpp"
#include "files/photometry/photometric_file.hpp"
#include "files/project/project_reader.hpp"
#include "files/project/project_tables.hpp"
#include "files/project/writers/new_project.hpp"

namespace glow::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

constexpr double kWidest = 500;  // m: rooms of projects that are begun in one line
constexpr const char* kSizeHint = "6x4x2.8: along x, along y and high, m";

/// "6x4x2.8"; the height may be left out. Units may be given: "20ft x 13ft x 9ft".
std::optional<Vec3> size_of(const std::string& words) {
  std::vector<double> sides;
  std::size_t begin = 0;
  while (begin <= words.size()) {
    const std::size_t end = std::min(words.find_first_of("xX", begin), words.size());
    const units::Parsed side =
        units::parse_quantity(words.substr(begin, end - begin), units::Dimension::length);
    if (!side.ok || side.value <= 0) return std::nullopt;
    sides.push_back(side.value);
    begin = end + 1;
  }
  if (sides.size() == 2) sides.push_back(files::NewProject{}.size.z());
  if (sides.size() != 3) return std::nullopt;
  return Vec3(sides[0], sides[1], sides[2]);
}

/// What the words say, piece by piece; each is checked as soon as it is known.
class Answers {
 public:
  explicit Answers(fs::path file) : file_(std::move(file)) {
    Problems problems;
    model::Project any;
    table_ = files::requirement_tables(any, {}, problems);
    project_.standard = table_.front().name();
    project_.name = file_.stem().string();
  }

  bool take_room(const std::string& name, const std::string& size) {
    const auto sides = size_of(size);
    if (name.empty()) return refused("new", "a room needs a name");
    if (!sides)
      return refused("new",
                     fmt::format(FMT_STRING("the size is \"{}\"; expected {}. Other units are written out: "
                                            "6000mm x 4000mm x 2800mm"),
                                 size, kSizeHint));
    if (sides->maxCoeff() > kWidest)
      return refused(
          "new",
          fmt::format(FMT_STRING("the size is \"{}\": a side of {:g} m. If these are millimetres write "
                                 "{:g}mm x {:g}mm x {:g}mm"),
                      size, sides->maxCoeff(), sides->x(), sides->y(), sides->z()));
    project_.room = name;
    project_.size = *sides;
    return true;
  }
  bool take_task(const std::string& words);
  bool take_luminaire(const std::string& mark, const std::string& file);
  void take_arrange(bool arrange) { project_.arrange = arrange; }
  bool write();

 private:
  void guess_array();

  const fs::path file_;
  std::vector<standards::RequirementTable> table_;
  files::NewProject project_;
  double em_lx_ = 0, flux_lm_ = 0;
};

/// A key, or words that only one row fits.
bool Answers::take_task(const std::string& words) {
  const standards::Requirement* row = table_.front().find(words);
  if (!row) {
    std::vector<std::string> list;
    for (std::size_t begin = 0; begin < words.size();) {
      const std::size_t end = std::min(words.find(' ', begin), words.size());
      if (end > begin) list.push_back(words.substr(begin, end - begin));
      begin = end + 1;
    }
    const auto found = standards::nearest_tasks(table_.front(), list);
    if (found.size() == 1) row = found.front().row;
    if (!row) {
      std::string near;
      for (std::size_t i = 0; i < std::min<std::size_t>(found.size(), 5) && !list.empty(); ++i)
        near += fmt::format(FMT_STRING("\n  {:<32} {}"), found[i].row->key, found[i].row->task);
      return refused("new",
                     fmt::format(FMT_STRING("\"{}\" is no task of {}; {}{}"), words, table_.front().name(),
                                 near.empty() ? "glowgrid tasks WORDS finds one" : "nearest:", near));
    }
  }
  project_.task = row->key;
  project_.task_words = row->task;
  em_lx_ = row->em_lx.value_or(0);
  return true;
}

bool Answers::take_luminaire(const std::string& mark, const std::string& file) {
  if (mark.empty() || file.empty())
    return refused("new", "a luminaire is given as MARK=FILE, such as P1=pendant.ldt");
  Problems problems;
  const auto photometry = files::read_photometric_file(file, problems);
  if (!photometry) {
    print_problems(problems, {}, true);
    return false;
  }
  std::error_code error;
  const fs::path folder = fs::absolute(file_).parent_path();
  const fs::path name = fs::absolute(file).lexically_normal().lexically_relative(folder.lexically_normal());
  project_.mark = mark;
  project_.file = name.generic_string();
  project_.outside = name.empty() || *name.begin() == "..";
  project_.luminaire = photometry->manufacturer.empty()
                           ? photometry->luminaire
                           : photometry->manufacturer + " " + photometry->luminaire;
  std::replace_if(
      project_.luminaire.begin(), project_.luminaire.end(),
      [](char c) { return static_cast<unsigned char>(c) < ' '; }, ' ');
  flux_lm_ = photometry->flux_lm();
  project_.suspended = photometry::gives_uplight(*photometry);
  return true;
}

/// By half of the flux that reaches the plane, in cells as square as they come.
void Answers::guess_array() {
  constexpr double kReaches = 0.5, kMaintained = 0.8;
  const double wanted =
      flux_lm_ > 0 ? em_lx_ * project_.size.x() * project_.size.y() / (kReaches * kMaintained * flux_lm_) : 1;
  const double n = std::clamp(std::ceil(wanted), 1.0, 400.0);
  project_.rows = std::max(1, int(std::lround(std::sqrt(n * project_.size.y() / project_.size.x()))));
  project_.columns = std::max(1, int(std::ceil(n / project_.rows)));
}

bool Answers::write() {
  guess_array();
  std::error_code error;
  if (fs::exists(file_, error))
    return refused("new",
                   fmt::format(FMT_STRING("{} is there already; it is never overwritten. Give another name"),
                               file_.string()));
  files::write_whole(file_, files::new_project_text(project_));
  const auto open = open_project(file_);
  print_problems(open->problems, open->sources, false);
  say(fmt::format(FMT_STRING("Written: {}. {} glowgrid run {}\n"), file_.string(),
                  open->usable ? "Next:" : "Mend what is said above, then:", file_.string()));
  return open->usable;
}

/// A question on the terminal; what is in brackets is taken when nothing is answered.
std::optional<std::string> ask(const std::string& question, const std::string& usual) {
  say(usual.empty() ? question + ": " : fmt::format(FMT_STRING("{} [{}]: "), question, usual));
  std::string answer;
  if (!std::getline(std::cin, answer)) return std::nullopt;
  const std::size_t first = answer.find_first_not_of(" \t\r"), last = answer.find_last_not_of(" \t\r");
  return first == std::string::npos ? usual : answer.substr(first, last - first + 1);
}

/// Asks until the answer will do. False: the input ended.
template <class Take>
bool ask_until(const std::string& question, const std::string& usual, const Take& take) {
  while (const auto answer = ask(question, usual))
    if (take(*answer)) return true;
  say("\n");
  return false;
}

bool ask_all(Answers& answers) {
  std::string room;
  return ask_until("Name of the room", "Room 1",
                   [&](const std::string& name) {
                     room = name;
                     return true;
                   }) &&
         ask_until("Its size, along x, along y and high, m", "6x4x2.8",
                   [&](const std::string& size) { return answers.take_room(room, size); }) &&
         ask_until("What is done in it (words or a key of glowgrid tasks)", "office.writing",
                   [&](const std::string& words) { return answers.take_task(words); }) &&
         ask_until("Photometric file of the luminaire", "",
                   [&](const std::string& file) { return answers.take_luminaire("L1", file); }) &&
         ask_until("Shall the tool find the arrangement (yes, no)", "yes", [&](const std::string& word) {
           answers.take_arrange(word.rfind('y', 0) == 0);
           return word.rfind('y', 0) == 0 || word.rfind('n', 0) == 0;
         });
}

bool take_options(const Arguments& arguments, Answers& answers) {
  const std::vector<std::string> room = arguments.texts("room");
  if (room.size() != 2)
    return refused("new", fmt::format(FMT_STRING("--room takes a name and a size, such as --room Office {}"),
                                      kSizeHint));
  if (!answers.take_room(room[0], room[1])) return false;
  if (!arguments.has("task"))
    return refused("new", "what is done in the room? Give --task with a key (glowgrid tasks finds it)");
  if (!answers.take_task(arguments.text("task"))) return false;
  const std::string mark = arguments.text("mark");
  const std::size_t equals = mark.find('=');
  if (equals == std::string::npos) return answers.take_luminaire({}, {});
  answers.take_arrange(arguments.flag("arrange"));
  return answers.take_luminaire(mark.substr(0, equals), mark.substr(equals + 1));
}

}  // namespace

int command_new(const std::vector<std::string>& words) {
  CommandLine line{
      "glowgrid new FILE.toml --room NAME SIZE --task KEY --mark M=PHOTOMETRIC-FILE [--arrange]",
      "Writes a small project file, ready to run. Without options, on a terminal, it asks. Never overwrites.",
      "  glowgrid new office.toml --room Office 6x4x2.8 --task office.writing --mark P1=pendant.ldt "
      "--arrange\n"
      "  glowgrid run office.toml",
      "file",
      false,
      po::options_description()};
  line.wants = "which file is to be written?";
  line.options.add_options()(
      "room,r", po::value<std::vector<std::string>>()->multitoken()->value_name("NAME SIZE"),
      "the room, and its size such as 6x4x2.8 (m)")("task,t", po::value<std::string>()->value_name("KEY"),
                                                    "what is done in it: a key, or words that find one")(
      "mark,m", po::value<std::string>()->value_name("M=FILE"), "mark and photometric file of the luminaire")(
      "arrange", "run finds how many of them are needed, and where");
  line.options.add_options()("help,h", "show this help");
  const ParseResult parsed = parse(line, words);
  if (parsed.exit_code >= 0) return parsed.exit_code;
  const Arguments& arguments = parsed.arguments;
  const fs::path file = arguments.text("file");
  std::error_code error;
  if (fs::exists(file, error)) {
    refused("new", fmt::format(FMT_STRING("{} is there already; it is never overwritten. Give another name"),
                               file.string()));
    return kBadInput;
  }
  Answers answers(file);
  const bool asks = !arguments.has("room") && !arguments.has("task") && !arguments.has("mark") &&
                    ::isatty(STDIN_FILENO) != 0;
  if (!(asks ? ask_all(answers) : take_options(arguments, answers))) return kBadInput;
  return answers.write() ? kDone : kBadInput;
}

}  // namespace glow::cli
