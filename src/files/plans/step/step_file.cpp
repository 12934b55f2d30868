#include "files/plans/step/step_file.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <charconv>

#include "files/text/text_scanner.hpp"

namespace glow::files::step {
namespace {

constexpr std::size_t kMostRecords = 12'000'000;
constexpr int kDeepestList = 64;

bool is_name(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) || c == '_';
}

}  // namespace

/// Walks over the file once.
class Indexer {
 public:
  Indexer(StepFile& file, const std::string& name, Problems& problems)
      : file_(file), bytes_(file.bytes_), name_(name), problems_(problems) {}

  bool index() {
    if (!check_kind()) return false;
    if (bytes_.compare(0, 3, "\xEF\xBB\xBF") == 0) at_ = 3;
    bool in_data = false;
    while (skip_blanks()) {
      if (bytes_[at_] == '#') {
        if (!record(in_data)) return false;
        continue;
      }
      const std::string word = next_word();
      if (word.empty())
        return fail("syntax", fmt::format(FMT_STRING("found {}; expected a record such as #12=IFCWALL(...);"),
                                          shown(at_)));
      if (word == "DATA") in_data = true;
      if (word == "ENDSEC") in_data = false;
      if (word == "END-ISO-10303-21") return finish();
      const std::size_t begin = at_;
      if (!skip_to_end()) return false;
      if (word == "FILE_SCHEMA") read_schema(begin);
    }
    return fail("truncated",
                "the file ends without END-ISO-10303-21; it was cut off. Have it exported again");
  }

 private:
  bool fail(const char* code, std::string text, std::uint32_t line = 0) {
    problems_.error(code, {name_, int(line ? line : line_), 0}, std::move(text));
    return false;
  }

  bool check_kind() {
    if (bytes_.find_first_not_of(" \t\r\n") == std::string::npos)
      return fail("empty", "the file is empty; export the model again");
    if (bytes_.compare(0, 2, "PK") == 0)
      return fail("is-zip", "this is a zipped file; unpack it and import the model within");
    const std::string head = in_capitals(std::string_view(bytes_).substr(0, 4096));
    if (head.find("ISO-10303-21") == std::string::npos)
      return fail("not-step", "this is no STEP file: it does not begin with ISO-10303-21;");
    return true;
  }

  /// What stands at a place, for a message.
  std::string shown(std::size_t at) const {
    std::string words = bytes_.substr(at, 16);
    words = words.substr(0, words.find_first_of("\r\n"));
    return "\"" + printable(to_utf8(words)) + "\"";
  }

  /// Over blanks and remarks; false at the end.
  bool skip_blanks() {
    for (; at_ < bytes_.size(); ++at_) {
      if (bytes_[at_] == '\n') {
        ++line_;
      } else if (bytes_[at_] == '/' && bytes_.compare(at_, 2, "/*") == 0) {
        std::size_t end = bytes_.find("*/", at_ + 2);
        if (end == std::string::npos) end = bytes_.size() - 2;
        line_ += std::uint32_t(
            std::count(bytes_.begin() + std::ptrdiff_t(at_), bytes_.begin() + std::ptrdiff_t(end), '\n'));
        at_ = end + 1;
      } else if (!std::isspace(static_cast<unsigned char>(bytes_[at_]))) {
        return true;
      }
    }
    return false;
  }

  std::string next_word() {
    const std::size_t begin = at_;
    while (at_ < bytes_.size() && (is_name(bytes_[at_]) || bytes_[at_] == '-')) ++at_;
    return in_capitals(std::string_view(bytes_).substr(begin, at_ - begin));
  }

  /// To behind the semicolon that ends a statement.
  bool skip_to_end() {
    const std::uint32_t began = line_;
    int depth = 0;
    while (skip_blanks()) {
      const char c = bytes_[at_];
      if (c == '\'') {
        if (!skip_text()) return false;
        continue;
      }
      if (c == '(' && ++depth > kDeepestList)
        return fail("too-deep", fmt::format(FMT_STRING("lists nest deeper than {}"), kDeepestList), began);
      if (c == ')') --depth;
      ++at_;
      if (c == ';') {
        if (depth == 0) return true;
        return fail("syntax", "a record ends before its brackets are closed", began);
      }
      if (depth < 0) return fail("syntax", "found \")\" without its \"(\"");
    }
    return fail("truncated", "the file ends inside this record; it was cut off. Have it exported again",
                began);
  }

  /// A text may not run over a line's end in practice: one that does has lost its quote.
  bool skip_text() {
    const std::uint32_t began = line_;
    for (++at_; at_ < bytes_.size(); ++at_) {
      if (bytes_[at_] == '\n') {
        ++line_;
        std::size_t next = at_ + 1;
        while (next < bytes_.size() && (bytes_[next] == ' ' || bytes_[next] == '\r' || bytes_[next] == '\t'))
          ++next;
        if (next < bytes_.size() && bytes_[next] == '#' && looks_like_record(next))
          return fail("quote", "a text is not closed: its quote is missing", began);
      }
      if (bytes_[at_] != '\'') continue;
      if (at_ + 1 < bytes_.size() && bytes_[at_ + 1] == '\'') {
        ++at_;
        continue;
      }
      ++at_;
      return true;
    }
    return fail("truncated", "the file ends inside a text; it was cut off. Have it exported again", began);
  }

  bool looks_like_record(std::size_t at) const {
    std::size_t end = at + 1;
    while (end < bytes_.size() && std::isdigit(static_cast<unsigned char>(bytes_[end]))) ++end;
    while (end < bytes_.size() && bytes_[end] == ' ') ++end;
    return end > at + 1 && end < bytes_.size() && bytes_[end] == '=';
  }

  bool record(bool in_data) {
    Record record;
    record.line = line_;
    if (!in_data) return fail("syntax", "a record stands outside the data section");
    const auto end = std::from_chars(bytes_.data() + at_ + 1, bytes_.data() + bytes_.size(), record.number);
    if (end.ec != std::errc() || record.number == 0)
      return fail("bad-number", fmt::format(FMT_STRING("found {}; expected a record's number"), shown(at_)));
    at_ = std::size_t(end.ptr - bytes_.data());
    if (!skip_blanks() || bytes_[at_] != '=')
      return fail(at_ < bytes_.size() ? "syntax" : "truncated",
                  fmt::format(FMT_STRING("expected \"=\" behind #{}"), record.number), record.line);
    ++at_;
    if (!skip_blanks())
      return fail("truncated", "the file ends inside this record; it was cut off", record.line);
    const std::string word = next_word();  // none: a record of several types at once
    record.type = type_number(word);
    if (!skip_blanks())
      return fail("truncated", "the file ends inside this record; it was cut off", record.line);
    record.begin = at_;
    if (!skip_to_end()) return false;
    if (file_.records_.size() >= kMostRecords)
      return fail("too-many", fmt::format(FMT_STRING("the file holds more than {} records"), kMostRecords));
    file_.records_.push_back(record);
    return true;
  }

  std::uint32_t type_number(const std::string& word) {
    const auto [found, fresh] = numbers_.emplace(word, std::uint32_t(file_.types_.size()));
    if (fresh) file_.types_.push_back(word);
    return found->second;
  }

  void read_schema(std::size_t begin) {
    const std::size_t open = bytes_.find('\'', begin), close = bytes_.find('\'', open + 1);
    if (close != std::string::npos && close < at_)
      file_.schema_ = in_capitals(std::string_view(bytes_).substr(open + 1, close - open - 1));
  }

  bool finish() {
    std::vector<Record>& records = file_.records_;
    std::stable_sort(records.begin(), records.end(),
                     [](const Record& a, const Record& b) { return a.number < b.number; });
    const Record* twice = nullptr;
    for (std::size_t k = 0; k + 1 < records.size(); ++k)
      if (records[k].number == records[k + 1].number && (!twice || records[k + 1].line < twice->line))
        twice = &records[k + 1];
    if (twice)
      return fail(
          "id-twice",
          fmt::format(FMT_STRING("#{} is there twice; what refers to it could mean either"), twice->number),
          twice->line);
    file_.by_type_.resize(file_.types_.size());
    for (std::size_t k = 0; k < records.size(); ++k)
      file_.by_type_[records[k].type].push_back(std::uint32_t(k));
    for (auto& list : file_.by_type_)
      std::sort(list.begin(), list.end(),
                [&](std::uint32_t a, std::uint32_t b) { return records[a].begin < records[b].begin; });
    return true;
  }

  StepFile& file_;
  const std::string& bytes_;
  const std::string& name_;
  Problems& problems_;
  std::size_t at_ = 0;
  std::uint32_t line_ = 1;
  std::unordered_map<std::string, std::uint32_t> numbers_;
};

std::optional<StepFile> StepFile::read(std::string bytes, const std::string& name, Problems& problems) {
  StepFile file;
  file.bytes_ = std::move(bytes);
  if (!Indexer(file, name, problems).index()) return std::nullopt;
  return file;
}

const Record* StepFile::find(std::uint64_t number) const {
  const auto found = std::lower_bound(records_.begin(), records_.end(), number,
                                      [](const Record& r, std::uint64_t n) { return r.number < n; });
  return found != records_.end() && found->number == number ? &*found : nullptr;
}

std::vector<const Record*> StepFile::of_type(const std::string& type) const {
  std::vector<const Record*> found;
  for (std::size_t t = 0; t < types_.size(); ++t)
    if (types_[t] == type)
      for (const std::uint32_t k : by_type_[t]) found.push_back(&records_[k]);
  return found;
}

std::vector<std::pair<std::string, std::size_t>> StepFile::types() const {
  std::vector<std::pair<std::string, std::size_t>> all;
  for (std::size_t t = 0; t < types_.size(); ++t) all.emplace_back(types_[t], by_type_[t].size());
  return all;
}

}  // namespace glow::files::step
