#pragma once

#include <string>
#include <vector>

namespace glow::cli {

/// Each command takes the words after its name and gives the exit code.
int command_demo(const std::vector<std::string>& words);
int command_arrange(const std::vector<std::string>& words);
int command_rank(const std::vector<std::string>& words);
int command_shelf(const std::vector<std::string>& words);
int command_export(const std::vector<std::string>& words);
int command_import(const std::vector<std::string>& words);
int command_new(const std::vector<std::string>& words);
int command_check(const std::vector<std::string>& words);
int command_probe(const std::vector<std::string>& words);
int command_catalogue(const std::vector<std::string>& words);
int command_show(const std::vector<std::string>& words);
int command_draw(const std::vector<std::string>& words);
int command_view(const std::vector<std::string>& words);
int command_tasks(const std::vector<std::string>& words);
int command_runs(const std::vector<std::string>& words);
int command_report(const std::vector<std::string>& words);
int command_compare(const std::vector<std::string>& words);
int command_run(const std::vector<std::string>& words);
int command_convert(const std::vector<std::string>& words);
int command_inspect(const std::vector<std::string>& words);
int command_weather(const std::vector<std::string>& words);

}  // namespace glow::cli
