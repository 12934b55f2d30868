#pragma once

#include <string>

namespace glow::report {

/// A drawing as it may stand in a page beside others: without its XML head, its ids and what refers to them
/// begun with `prefix`, with a role and words for those who do not see it.
std::string inline_figure(const std::string& svg, const std::string& prefix, const std::string& words);

/// "data:image/png;base64,..." of the bytes of a picture.
std::string data_address(const std::string& bytes, const std::string& kind);

}  // namespace glow::report
