#pragma once

#include <fstream>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

#include "core/photometry/placed_luminaire.hpp"
#include "files/photometry/photometry_reader.hpp"
#include "test_files.hpp"

/// The made-up photometric files of tests/photometry and the truth about each.
namespace glow::files {

inline std::string corpus_folder() {
  return test::test_data("photometry/");
}

using test::content_of;

inline const nlohmann::json& corpus_truth() {
  static const nlohmann::json parsed = test::json_in(corpus_folder() + "truth.json").at("files");
  return parsed;
}

/// "valid/..." or "broken/..."; tilt files, which are no photometry of their own, left out.
inline std::vector<std::string> corpus_names(const std::string& folder) {
  std::vector<std::string> found;
  for (const auto& [name, entry] : corpus_truth().items())
    if (name.rfind(folder + "/", 0) == 0 && name.substr(name.size() - 4) != ".tlt") found.push_back(name);
  return found;
}

inline std::optional<photometry::Photometry> read_from_corpus(const std::string& name, Problems& problems) {
  const std::string folder = corpus_folder() + name.substr(0, name.rfind('/') + 1);
  return read_photometry(content_of(corpus_folder() + name), name, problems,
                         [&](const std::string& other) -> std::optional<std::string> {
                           if (!std::ifstream(folder + other)) return std::nullopt;
                           return content_of(folder + other);
                         });
}

}  // namespace glow::files
