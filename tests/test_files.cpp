#include "test_files.hpp"

#include <fstream>
#include <map>
#include <nlohmann/json.hpp>
#include <sstream>

namespace glow::test {

std::string test_data(const std::string& name) {
  return std::string(GLOWGRID_TEST_DATA) + "/" + name;
}

std::string content_of(const std::filesystem::path& path) {
  std::ifstream file(path, std::ios::binary);
  std::ostringstream content;
  content << file.rdbuf();
  return content.str();
}

nlohmann::json json_of(const std::string& text) {
  return nlohmann::json::parse(text);
}

nlohmann::json json_in(const std::filesystem::path& path) {
  return json_of(content_of(path));
}

const nlohmann::json& shared_json(const std::string& name) {
  static std::map<std::string, nlohmann::json> known;
  const auto found = known.find(name);
  return found != known.end() ? found->second : known.emplace(name, json_in(test_data(name))).first->second;
}

}  // namespace glow::test
