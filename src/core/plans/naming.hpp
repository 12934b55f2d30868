#pragma once

#include "core/plans/drawing.hpp"
#include "core/plans/found.hpp"
#include "core/plans/request.hpp"

namespace glow::plans {

/// Gives rooms their names and numbers by the texts inside them: of stamps by their attributes, else by what
/// the words look like. A text belongs to the smallest room that holds it.
void name_rooms(const Drawing& drawing, const Request& request, FoundPlan& plan);

/// What one line of a text is.
enum class WordKind { name, number, note };
WordKind kind_of_words(const std::string& line);

}  // namespace glow::plans
