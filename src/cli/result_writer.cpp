#include "cli/result_writer.hpp"

#include <algorithm>
#include <sstream>

#include "cli/room_pictures.hpp"
#include "cli/write_figures.hpp"
#include "core/model/file_names.hpp"
#include "files/results/drawn_list.hpp"
#include "files/results/luminaire_csv.hpp"
#include "files/results/results_json.hpp"

namespace glow::cli {
namespace {

/// Names that go when this run's files come: those of the run before, and what was drawn from it.
std::vector<std::string> stale_files(const std::filesystem::path& target) {
  std::vector<std::string> stale = files::files_of_earlier_run(target / files::kResultsFile);
  for (const std::string folder : {"figures", kPicturesFolder})
    for (const std::string& name : files::drawn_files(target / folder)) stale.push_back(folder + "/" + name);
  return stale;
}

const std::string kFigures = "figures/";

std::vector<figures::Figure> only_usual(std::vector<figures::Figure> list) {
  list.erase(std::remove_if(list.begin(), list.end(), [](const auto& figure) { return !figure.usual; }),
             list.end());
  return list;
}

void write_usual(const std::vector<figures::Figure>& list, files::OutputFolder& folder, Problems& problems,
                 const Watch& watch) {
  write_figures(
      list, [](const figures::Figure&) { return std::set{FigureFormat::svg}; }, kFigures, folder, problems,
      watch);
}

}  // namespace

std::vector<figures::Figure> usual_figures(const record::RoomRecord& room, const model::FigureStyle& style,
                                           const units::ShownUnits& units,
                                           const figures::CommonScale& common) {
  std::vector<figures::Figure> list = figures::figures_of(room, style, units, common);
  for (figures::Figure& figure : figures::figures_of_scenes(room, style, units, common))
    list.push_back(std::move(figure));
  return only_usual(std::move(list));
}

ResultWriter::ResultWriter(files::OutputFolder& folder, record::RunRecord run, bool figures)
    : folder_(folder),
      run_(std::move(run)),
      figures_(figures),
      document_(folder.staged(files::kResultsFile), std::ios::binary) {
  document_ << files::results_head(run_);
}

void ResultWriter::draw(const record::RoomRecord& room, Problems& problems, const Watch& watch) {
  if (!figures_) return;
  const auto common = figures::common_scale_of(undrawn_);
  write_usual(usual_figures(room, run_.style, run_.units, common), folder_, problems, watch);
}

void ResultWriter::add(const record::RoomRecord& room, const RoomFiles& files, const Drawn& drawn,
                       Problems& problems, const Watch& watch) {
  document_ << (run_.rooms.empty() ? "" : ",") << files.in_results;
  for (const auto& [name, bytes] : files.tables) folder_.write(name, bytes);
  schedule_ += files::luminaire_csv(room, run_.units, schedule_.empty());
  if (drawn)
    for (const auto& [name, svg] : *drawn) folder_.write(kFigures + name + ".svg", svg);
  else if (run_.style.common_scale)
    undrawn_.push_back(room);
  else
    draw(room, problems, watch);
  record::RoomRecord slim = room;
  record::drop_values(slim);
  run_.rooms.push_back(std::move(slim));
}

void ResultWriter::add_pictures(const std::vector<views::Picture>& pictures, Problems& problems,
                                const Watch& watch) {
  std::vector<figures::Figure> list;
  const std::string prefix = std::string(kPicturesFolder) + "/";
  for (const views::Picture& picture : pictures) {
    watch.stop_if_cancelled();
    write_picture(picture, usual_use(picture), folder_, prefix);
    list.push_back({picture_base(picture),
                    picture.room + ": " + picture.view,
                    false,
                    true,
                    [&picture] { return natural_figure(picture); },
                    {}});
  }
  write_figures(
      list, [](const figures::Figure&) { return std::set{FigureFormat::png}; }, prefix, folder_, problems,
      watch);
}

void ResultWriter::add_hours(const record::RoomRecord& room, const std::vector<run::YearHours>& hours,
                             files::HoursFormat format) {
  const bool csv = format == files::HoursFormat::csv;
  if (room.energy && room.energy->hourly)
    folder_.write(model::grid_file("hours", room.name, "energy", "csv"),
                  files::power_csv(room.energy->hourly->power_w));
  for (const run::YearHours& own : hours)
    folder_.write(model::grid_file("hours", room.name, own.grid, csv ? "csv" : "bin"),
                  csv ? files::hours_csv(own) : files::hours_binary(own));
}

void ResultWriter::keep_pictures(const std::string& room, const std::vector<std::string>& files) {
  const std::string begin = std::string(kPicturesFolder) + "/" + model::file_name_part(room) + "--";
  std::error_code error;
  for (const std::string& name : files)
    if (name.rfind(begin, 0) == 0 && name.find('/', begin.size()) == std::string::npos &&
        !std::filesystem::copy_file(folder_.target() / name, folder_.staged(name), error))
      folder_.forget(name);
}

void ResultWriter::commit(const std::vector<Problem>& warnings, Problems& problems, const Watch& watch) {
  for (const record::RoomRecord& room : undrawn_) draw(room, problems, watch);
  folder_.write("luminaires.csv", schedule_);
  std::vector<figures::Figure> figures = figures::floors_of(run_);
  for (figures::Figure& shares : figures::shares_of_planes(run_))
    figures.insert(figures.begin(), std::move(shares));
  figures.insert(figures.begin(), figures::status_of(run_));
  if (figures_) write_usual(only_usual(std::move(figures)), folder_, problems, watch);
  watch.stop_if_cancelled();
  for (const std::vector<Problem>& list : {warnings, problems.all()})
    for (const Problem& problem : list) run_.warnings.push_back(to_string(problem));
  run_.files = folder_.names();
  run_.files.erase(std::remove(run_.files.begin(), run_.files.end(), files::kResultsFile), run_.files.end());
  document_ << files::results_tail(run_);
  document_.close();
  if (!document_)
    throw files::OutputError("cannot write " + (folder_.target() / files::kResultsFile).string());
  folder_.commit(stale_files(folder_.target()));
}

}  // namespace glow::cli
