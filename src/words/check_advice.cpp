#include "words/check_advice.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <sstream>

#include "words/families.hpp"
#include "words/findings.hpp"
#include "words/standing.hpp"
#include "words/text_layout.hpp"
#include "words/values.hpp"

namespace glow::words {
namespace {

using standards::Check;
using standards::Verdict;

const Check& check_at(const record::RoomRecord& room, std::size_t number) {
  return room.assessment.checks[number];
}

/// Margin as a share of what is required: the least is the worst.
double relative_margin(const Check& check) {
  return check.margin() / std::max(1e-9, std::abs(check.demand.required));
}

bool is_told_by(const Check& told, const Check& check) {
  return told.target == check.target && told.demand.quantity == check.demand.quantity &&
         told.verdict == check.verdict && told.demand.required >= check.demand.required;
}

bool is_alike(const record::RoomRecord& room, const Check& a, const Check& b) {
  if (a.demand.quantity != b.demand.quantity || a.verdict != b.verdict || a.binding != b.binding)
    return false;
  const std::string family = family_of(name_of(a.target, room));
  return !family.empty() && family == family_of(name_of(b.target, room));
}

/// "2 x cage top, worst " before the name of the worst; empty of a single one.
std::string group_words(const record::RoomRecord& room, const Finding& finding) {
  if (finding.size() == 1) return {};
  const std::string name = name_of(check_at(room, finding.front()).target, room);
  return fmt::format(FMT_STRING("{} x {}, worst "), finding.size(), family_of(name));
}

const char* standing_words(const Check& check) {
  if (check.verdict == Verdict::met) return "met by far";
  if (check.verdict == Verdict::undecided) return "undecided";
  return check.binding ? "not met" : "above the limit, for information";
}

std::string undecided_words(const record::RoomRecord& room) {
  if (room.engine.refinements == 0) return "too close to tell";
  return fmt::format(
      FMT_STRING("still too close after {} refinements. Treat it as not met, or try --accuracy "
                 "fine"),
      room.engine.refinements);
}

}  // namespace

std::vector<Finding> findings(const record::RoomRecord& room) {
  std::vector<Finding> list;
  const auto& checks = room.assessment.checks;
  for (std::size_t c = 0; c < checks.size(); ++c) {
    const Check& check = checks[c];
    if (check.verdict == Verdict::undecided ? !check.binding : why(room, c, {}).empty()) continue;
    const auto told = [&](const Finding& finding) {
      return std::any_of(finding.begin(), finding.end(),
                         [&](std::size_t other) { return is_told_by(checks[other], check); });
    };
    if (std::any_of(list.begin(), list.end(), told)) continue;
    const auto alike = std::find_if(list.begin(), list.end(), [&](const Finding& finding) {
      return is_alike(room, checks[finding.front()], check);
    });
    if (alike == list.end()) {
      list.push_back({c});
      continue;
    }
    const bool worst = relative_margin(check) < relative_margin(checks[alike->front()]);
    alike->insert(worst ? alike->begin() : alike->end(), c);
  }
  return list;
}

std::string full_advice(const record::RoomRecord& room, const Finding& finding,
                        const units::ShownUnits& units) {
  std::string text;
  const std::size_t number = finding.front();
  const Check& check = check_at(room, number);
  const std::vector<std::string> causes = why(room, number, units), mends = help(room, number, units);
  wrap(text, "  ",
       fmt::format(FMT_STRING("{}{}, {} is {}:"), group_words(room, finding), name_of(check.target, room),
                   to_string(check.demand.quantity), standing_words(check)),
       4);
  if (check.verdict == Verdict::undecided) wrap(text, "    - ", undecided_words(room), 6);
  for (const std::string& sentence : causes) wrap(text, "    - ", sentence, 6);
  if (check.verdict == Verdict::met || mends.empty()) return text;
  text += "    What would help, each computed:\n";
  for (const std::string& sentence : mends) wrap(text, "    + ", sentence, 6);
  return text;
}

std::string short_advice(const record::RoomRecord& room, const Finding& finding,
                         const units::ShownUnits& units, std::string& told) {
  std::string text;
  const std::size_t number = finding.front();
  const Check& check = check_at(room, number);
  std::string words = group_words(room, finding) + check_words(check, room, units);
  if (check.verdict == Verdict::undecided) words += ", undecided";
  const std::vector<std::string> causes = why(room, number, units), mends = help(room, number, units);
  if (!causes.empty() && causes.front() != told) words += ": " + causes.front();
  if (!causes.empty()) told = causes.front();
  wrap(text, "  - ", words, 4);
  if (!mends.empty()) wrap(text, "  + ", mends.front(), 4);
  return text;
}

std::vector<AdviceSentence> sentences_of(const std::string& advice) {
  std::vector<AdviceSentence> sentences;
  std::istringstream lines(advice);
  for (std::string line; std::getline(lines, line);) {
    line.erase(0, line.find_first_not_of(' '));
    const std::string lead = line.substr(0, 2);
    using Kind = AdviceSentence::Kind;
    if (lead == "- " || lead == "+ ")
      sentences.push_back({line.substr(2), lead == "+ " ? Kind::mend : Kind::cause});
    else if (line.rfind("What would help", 0) == 0)
      continue;  // its sentences follow
    else if (!line.empty() && line.back() == ':')
      sentences.push_back({line.substr(0, line.size() - 1), Kind::about});
    else if (!sentences.empty() && !line.empty())
      sentences.back().words += " " + line;
  }
  return sentences;
}

}  // namespace glow::words
