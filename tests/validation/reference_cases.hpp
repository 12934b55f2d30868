#pragma once

#include <string>
#include <vector>

#include "core/transport/transport.hpp"

namespace glow::validation {

/// One reference value and what the engine makes of it.
struct Row {
  std::string case_id;
  std::string receiver;
  std::string component;
  std::string unit;
  std::string method;  ///< how the reference was obtained
  double reference = 0;
  double allowed = 0;  ///< largest accepted |ours - reference|
  double ours = 0;
  bool passed() const;
};

struct CaseResult {
  std::string id;
  std::string title;
  std::vector<Row> rows;
  transport::FluxBalance balance;
  bool closed = false;  ///< the space has surfaces and no ray leaves it
};

/// Ids of the cases whose class letter is one of `classes` ("abcdef").
std::vector<std::string> case_ids(const std::string& classes);

/// Computes one case of transport.json. Throws std::runtime_error on a word that it does not know.
CaseResult run_case(const std::string& id, transport::Effort effort);

}  // namespace glow::validation
