#pragma once

#include <functional>
#include <ostream>
#include <string>

#include "core/record/record.hpp"
#include "files/text/json_number.hpp"
#include "words/data/data_table.hpp"

namespace glow::files {

/// A line for each of the table's, numbers with six digits that count; `with_head`: under a line of keys.
std::string data_csv(const words::DataTable& table, bool with_head = true);

/// A list of objects by the columns' keys; cells that hold nothing are null.
json data_json(const words::DataTable& table);

/// Every point of every grid, scene and moment in one long table, handed over room by room.
void write_points_csv(const record::RunRecord& run, const std::function<void(const std::string&)>& write);

/// All that the tables of words/data/run_data.hpp hold, points included, in lx, m and W, by the schema
/// docs/results.xsd; written room by room.
void write_results_xml(const record::RunRecord& run, std::ostream& out);

}  // namespace glow::files
