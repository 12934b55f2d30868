// Reads project files and prints a JSON schema of all that the reader asked of them; on standard error, those
// that it found nothing wrong in: project_schema FILE...
#include <iostream>

#include "files/project/project_reader.hpp"
#include "files/text/input_file.hpp"
#include "files/text/key_schema.hpp"

int main(int count, char** words) {
  glow::files::AskedKeys asked;
  for (int i = 1; i < count; ++i) {
    glow::Problems problems;
    const auto bytes = glow::files::read_file(words[i], glow::files::kLargestProjectFile, {}, problems);
    if (!bytes) {
      std::cerr << words[i] << " cannot be read\n";
      return 1;
    }
    glow::files::read_project(*bytes, words[i], problems, {}, &asked);
    if (!problems.has_errors()) std::cerr << words[i] << "\n";
  }
  std::cout << glow::files::key_schema(asked, "Project file of Glow Grid, format 1");
}
