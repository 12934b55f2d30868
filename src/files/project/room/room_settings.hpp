#pragma once

#include <vector>

#include "files/text/toml_table.hpp"

namespace glow::files {

/// [[settings]]: what rooms have in common that fit by name, floor or task, so that many rooms need no block
/// each.
class RoomSettings {
 public:
  explicit RoomSettings(TomlTable& root);

  /// Whether rooms fit is asked with these words.
  struct Asked {
    std::string name, floor, task;
  };
  /// Lets the room fall back on the settings that it fits, the last of them first. A key that the room has
  /// itself counts as a whole.
  void lend(TomlTable& room, const Asked& asked);
  /// Keys that no room knows are errors, settings that no room fits a warning. `room`: any that was read.
  void finish(const TomlTable* room);

 private:
  struct Setting {
    TomlTable table;
    std::vector<std::string> names, floors, tasks;  ///< patterns; empty: all
    bool used = false;
  };
  std::vector<Setting> settings_;
};

}  // namespace glow::files
