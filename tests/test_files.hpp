#pragma once

#include <filesystem>
#include <nlohmann/json_fwd.hpp>
#include <string>

/// Files that tests read. Not inline: parsing JSON takes the compiler longer than most tests.
namespace glow::test {

/// A file of tests/, by its name from there.
std::string test_data(const std::string& name);

/// All bytes; empty if there is no such file.
std::string content_of(const std::filesystem::path& path);

nlohmann::json json_of(const std::string& text);
nlohmann::json json_in(const std::filesystem::path& path);

/// A file of tests/, read once: tests are named by what is in some, each time that one of them runs.
const nlohmann::json& shared_json(const std::string& name);

}  // namespace glow::test
