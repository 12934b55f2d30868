#pragma once

#include "core/model/report_wish.hpp"
#include "core/record/record.hpp"
#include "report/document.hpp"
#include "report/report_words.hpp"

namespace glow::report {

/// What sections are made from; all of it must outlive them.
struct Source {
  const record::RunRecord& run;
  const model::ReportWish& wish;
  const ReportWords& words;
  /// A picture of a view as a data address, by its name below the results' folder; empty: it cannot be read.
  std::function<std::string(const std::string& file)> picture;
};

/// Everything of a room that is wished for, in the wished order.
Section room_section(const Source& source, const record::RoomRecord& room);

/// What fits one page: facts, plan, checks (the worst first where there are too many), two pictures, first
/// mends.
Section room_page(const Source& source, const record::RoomRecord& room);

}  // namespace glow::report
