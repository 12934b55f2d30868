#pragma once

#include <string>
#include <vector>

#include "words/values.hpp"

namespace glow::words {

/// "07:24 to 09:10, 11:32 to 17:20"; "never".
std::string interval_words(const std::vector<daylight::Interval>& intervals);

/// What of sun and view stands behind a check of this quantity: a sentence for each opening, or for the
/// shares of the plane that see something.
std::vector<std::string> outlook_words(const assess::Outlook& outlook, standards::Quantity quantity,
                                       const units::ShownUnits& units);

}  // namespace glow::words
