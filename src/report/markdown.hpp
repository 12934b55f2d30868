#pragma once

#include <string>

namespace glow::report {

/// HTML of Markdown as designers write it in notes; markup in it is left out, links to scripts are too.
std::string html_of_markdown(const std::string& text);

}  // namespace glow::report
