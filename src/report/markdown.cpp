#include "report/markdown.hpp"

#include <cmark.h>

#include <cstdlib>

namespace glow::report {

std::string html_of_markdown(const std::string& text) {
  char* html =
      cmark_markdown_to_html(text.data(), text.size(), CMARK_OPT_DEFAULT);  // safe: raw HTML is left out
  const std::string result = html;
  std::free(html);
  return result;
}

}  // namespace glow::report
