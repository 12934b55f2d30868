#include "files/results/drawn_list.hpp"

#include <fstream>
#include <set>

namespace glow::files {

std::vector<std::string> drawn_files(const std::filesystem::path& figures_folder) {
  std::vector<std::string> names;
  std::ifstream file(figures_folder / kDrawnList);
  for (std::string line; std::getline(file, line);)
    if (!line.empty() && line.find('/') == std::string::npos && line != "..") names.push_back(line);
  if (!names.empty()) names.emplace_back(kDrawnList);
  return names;
}

std::string drawn_list(const std::filesystem::path& figures_folder, const std::vector<std::string>& names) {
  std::set<std::string> all(names.begin(), names.end());
  for (const std::string& name : drawn_files(figures_folder)) all.insert(name);
  std::string text;
  for (const std::string& name : all)
    if (name != kDrawnList) text += name + "\n";
  return text;
}

}  // namespace glow::files
