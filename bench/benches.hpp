#pragma once

#include <cstdlib>
#include <string>
#include <vector>

namespace glow::bench {

/// What is written after the name of a measurement.
class Words {
 public:
  Words(int count, char** words) : words_(words, words + count) {}
  std::string at(std::size_t i, const std::string& otherwise) const {
    return i < words_.size() ? words_[i] : otherwise;
  }
  int number(std::size_t i, int otherwise) const {
    return i < words_.size() ? std::atoi(words_[i].c_str()) : otherwise;
  }
  /// These, after one more.
  Words after(const std::string& first) const {
    Words more = *this;
    more.words_.insert(more.words_.begin(), first);
    return more;
  }
  const std::vector<std::string>& all() const { return words_; }

 private:
  std::vector<std::string> words_;
};

/// Makes a measurement known to the program, which calls it by its name. It prints what it measured, and
/// gives the exit code.
struct Measurement {
  Measurement(const char* name, int (*measure)(const Words& words));
};

}  // namespace glow::bench
