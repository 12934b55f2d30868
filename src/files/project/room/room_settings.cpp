#include "files/project/room/room_settings.hpp"

#include "core/plans/request.hpp"

namespace glow::files {
namespace {

/// A pattern, or a list of them.
std::vector<std::string> patterns(TomlTable& table, const char* key) {
  std::vector<std::string> found;
  if (table.is_text(key)) {
    found.push_back(table.text(key).value_or(""));
  } else {
    for (auto& [word, place] : table.texts(key)) found.push_back(word);
  }
  return found;
}

bool is_meant(const std::string& word, const std::vector<std::string>& wanted) {
  return wanted.empty() || plans::fits(word, wanted);
}

}  // namespace

RoomSettings::RoomSettings(TomlTable& root) {
  for (TomlTable& table : root.tables("settings")) {
    Setting setting{table, {}, {}, {}};
    if (auto whom = setting.table.table("for")) {
      setting.names = patterns(*whom, "name");
      setting.floors = patterns(*whom, "floor");
      setting.tasks = patterns(*whom, "task");
      whom->finish();
    }
    settings_.push_back(std::move(setting));
  }
}

void RoomSettings::lend(TomlTable& room, const Asked& asked) {
  for (auto setting = settings_.rbegin(); setting != settings_.rend(); ++setting) {
    if (!is_meant(asked.name, setting->names) || !is_meant(asked.floor, setting->floors) ||
        !is_meant(asked.task, setting->tasks))
      continue;
    room.fall_back_on(setting->table);
    setting->used = true;
  }
}

void RoomSettings::finish(const TomlTable* room) {
  for (Setting& setting : settings_) {
    if (room) {
      setting.table.know_what(*room);
      setting.table.skip("for");
      setting.table.finish();
    }
    if (!setting.used)
      setting.table.problems().warning("P100", setting.table.place(),
                                       "these settings fit no room; look at \"for\"");
  }
}

}  // namespace glow::files
