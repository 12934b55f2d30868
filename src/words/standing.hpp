#pragma once

#include <string>
#include <vector>

#include "core/record/record.hpp"

namespace glow::words {

/// How a room stands by one standard, or by all of them.
struct Standing {
  assess::Status status = assess::Status::no_target;
  std::size_t met = 0, binding = 0;            ///< checks
  const standards::Check* decisive = nullptr;  ///< see below; null: nothing binds
};

/// `standard`: empty for all.
Standing standing(const record::RoomRecord& room, const std::string& standard = {});

/// Of what fails, the check that misses most; of what is met, the one with the least to spare, where light or
/// glare decides: the light's colour has steps and is met with nothing to spare more often than not.
const standards::Check* decisive_check(const record::RoomRecord& room, const std::string& standard = {});

/// "mean 312 of 300 lx", "UGR 24.1 of at most 25".
std::string held_words(const standards::Check& check, const units::ShownUnits& units);

/// "work plane, mean 312 of 300 lx"; where that is wider than `width` columns the name is cut to what is
/// left, or to six, and never a number.
std::string check_words(const standards::Check& check, const record::RoomRecord& room,
                        const units::ShownUnits& units, std::size_t width = std::string::npos);

/// "3 of 4 rooms with a target meet it".
std::string met_words(std::size_t met, std::size_t judged);
/// Of all rooms of a run.
std::string met_words(const record::RunRecord& run);

/// A floor's name; "On no floor"; the project's name where it has no floors.
std::string floor_words(const record::FloorRecord& floor, const record::RunRecord& run);

/// "Work planes: 3 % below 300 lx, 95 % within, 2 % above 3000 lx", and a line break, of a floor or of all
/// rooms; empty: no thresholds are stated.
std::string shares_words(const record::RunRecord& run,
                         const std::optional<std::string>& floor = std::nullopt);

/// "EN 12464-1:2021 and EN 12193".
std::string standards_words(const std::vector<std::string>& standards);

}  // namespace glow::words
