#pragma once

#include <filesystem>
#include <string>

namespace glow::report {

/// Makes a PDF of a page by WeasyPrint, which has to be installed. Gives why it could not be made, and what
/// to do; empty: it was. The same bytes for the same page.
std::string write_pdf(const std::filesystem::path& html, const std::filesystem::path& pdf);

}  // namespace glow::report
