#include "cli/runs/subject.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "cli/runs/kept_run.hpp"
#include "files/project/project_text.hpp"
#include "words/topics/room_words.hpp"

namespace glow::cli {
namespace fs = std::filesystem;
namespace {

/// Leaves the rooms as they are in a scene; an error where none has it.
void take_scene(const std::string& scene, Subject& subject, Problems& problems) {
  std::vector<record::RoomRecord> rooms;
  std::vector<std::string> known;
  for (const record::RoomRecord& room : subject.results.run.rooms)
    for (std::size_t s = 0; s < room.scenes.size(); ++s) {
      known.push_back(room.scenes[s].name);
      if (room.scenes[s].name == scene) rooms.push_back(record::in_scene(room, s));
    }
  if (rooms.empty()) {
    const std::string near = nearest_word(scene, known);
    problems.error("R014", {subject.words, 0, 0},
                   fmt::format(FMT_STRING("no room has a scene or moment \"{}\"{}"), scene,
                               near.empty() ? std::string() : "; did you mean \"" + near + "\"?"));
  }
  subject.results.run.rooms = std::move(rooms);
  subject.told += ", " + scene;
}

/// When it was kept; empty where it is no kept run.
std::string kept_words(const fs::path& project, const std::string& name) {
  std::error_code error;
  if (!fs::exists(kept_runs_file(project), error)) return {};
  try {
    for (const store::KeptRun& run : store::KeptRuns(kept_runs_file(project)).list())
      if (run.name == name) return ", kept " + time_words(run.made_at);
  } catch (const store::DatabaseError&) {  // said where its results are opened
  }
  return {};
}

}  // namespace

std::optional<std::pair<fs::path, std::string>> kept_run_named(const std::string& words) {
  constexpr const char* kMark = ".toml@";
  const std::size_t at = words.find(kMark);
  if (at == std::string::npos) return std::nullopt;
  return std::pair(fs::path(words.substr(0, at + 5)), words.substr(at + 6));
}

std::optional<Subject> open_subject(const std::string& words, Problems& problems) {
  Subject subject;
  subject.words = words;
  std::error_code error;
  const std::size_t hash = fs::exists(words, error) ? std::string::npos : words.rfind('#');
  const std::string source = words.substr(0, hash);
  subject.told = source;
  auto results = open_results(source, problems);
  if (!results || problems.has_errors()) return std::nullopt;
  subject.results = std::move(*results);
  if (const auto kept = kept_run_named(source)) {
    const std::string words_of_kept = kept_words(kept->first, kept->second);
    if (words_of_kept.empty()) {
      const std::string older = words::older_rooms_words(subject.results.run);
      subject.told += older.empty() ? ", a variant" : ", a variant (out of date: " + older + ")";
    } else {
      std::string fault;
      const std::string file = kept->first.filename().string();
      subject.text = store::KeptRuns(kept_runs_file(kept->first)).file(kept->second, file, fault);
      subject.told += words_of_kept;
    }
  } else if (fs::path(source).extension() == ".toml") {
    Problems unheard;
    if (const auto text = files::ProjectText::read(source, unheard)) subject.text = text->text();
    const std::string older = words::older_rooms_words(subject.results.run);
    if (!older.empty()) subject.told += " (out of date: " + older + ")";
  }
  if (hash != std::string::npos) take_scene(words.substr(hash + 1), subject, problems);
  if (problems.has_errors()) return std::nullopt;
  return subject;
}

}  // namespace glow::cli
