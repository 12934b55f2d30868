#pragma once

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string>

#include "test_files.hpp"

namespace glow::test {

inline bool has_browser() {
  return std::system("command -v chromium > /dev/null") == 0;
}

/// The page as a browser has it after some seconds of its time, `script` having run in it at its end. What
/// the console said comes before it.
inline std::string seen_in_browser(const std::filesystem::path& page, const std::string& script,
                                   int width = 1280) {
  const std::filesystem::path driven = page.parent_path() / "driven.html",
                              out = page.parent_path() / "driven.txt";
  std::string html = content_of(page);
  const std::size_t end = html.rfind("</body>");
  html.insert(end == std::string::npos ? html.size() : end, "<script>" + script + "</script>");
  std::ofstream(driven, std::ios::binary) << html;
  const std::string command =
      "chromium --headless --no-sandbox --disable-gpu --enable-logging=stderr --v=0 --window-size=" +
      std::to_string(width) + ",800 --virtual-time-budget=8000 --dump-dom 'file://" + driven.string() +
      "' 2>&1 | grep -v 'dbus\\|ERROR:\\|^$' > '" + out.string() + "'";
  return std::system(command.c_str()) < 0 ? std::string() : content_of(out);
}

}  // namespace glow::test
