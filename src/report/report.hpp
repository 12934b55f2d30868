#pragma once

#include <map>
#include <memory>

#include "core/photometry/photometry.hpp"
#include "report/document.hpp"
#include "report/room_section.hpp"

namespace glow::report {

/// How much a report tells.
enum class Form {
  full,       ///< everything that is wished for
  room_page,  ///< a page for each room
  brief       ///< tables and status of all rooms, by floor and for the building
};

/// States to stand beside the results: kept runs, variants. At most two more.
struct Beside {
  std::string name;
  const record::RunRecord* run = nullptr;
};

/// What a report is made from.
struct ReportInput {
  Source source;
  Form form = Form::full;
  std::map<std::string, std::shared_ptr<const photometry::Photometry>>
      photometry;          ///< by mark; those that are at hand
  std::string state_name;  ///< what the results are called beside others
  std::vector<Beside> beside;
};

/// The document by its sections.
Document compose(const ReportInput& input);

/// As HTML: one file that needs nothing else. `page`: the Mustache template, empty: the program's; `style`: a
/// style sheet put after the program's. Throws std::runtime_error, in words, where the template is faulty.
std::string html_of(const Document& document, const model::ReportWish& wish, const ReportWords& words,
                    const std::string& page, const std::string& style);

}  // namespace glow::report
