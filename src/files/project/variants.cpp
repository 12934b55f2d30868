#include "files/project/variants.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace glow::files {
namespace {

constexpr const char* kIds[] = {"name", "mark", "wall"};

class Merger {
 public:
  Merger(const std::string& file, Problems& problems) : file_(file), problems_(problems) {}

  /// Moves: copies would forget their place in the file.
  void merge(toml::table& base, toml::table& over) {
    if (const toml::array* without = over["without"].as_array())
      for (const toml::node& key : *without)
        if (const auto word = key.value<std::string>(); word && !base.erase(*word))
          refuse(key, fmt::format(FMT_STRING("there is no \"{}\" to be left out here"), *word));
    for (auto&& [key, node] : over) {
      const std::string name(key.str());
      if (name == "without" || name == "remove") continue;
      toml::node* known = base.get(key.str());
      if (known && known->is_table() && node.is_table())
        merge(*known->as_table(), *node.as_table());
      else if (node.is_array_of_tables() && (!known || known->is_array_of_tables()))
        merge_list(base, name, *node.as_array());
      else
        node.visit([&, &key = key](auto& value) { base.insert_or_assign(key, std::move(value)); });
    }
  }

 private:
  void refuse(const toml::node& at, std::string text) {
    const auto& begin = at.source().begin;
    problems_.error("P130", {file_, int(begin.line), int(begin.column)}, std::move(text));
  }

  void merge_list(toml::table& owner, const std::string& key, toml::array& entries) {
    if (!owner.contains(key)) owner.insert(key, toml::array());
    toml::array& list = *owner[key].as_array();
    for (toml::node& node : entries) merge_entry(list, *node.as_table(), key);
  }

  void merge_entry(toml::array& list, toml::table& entry, const std::string& key) {
    const char* id = nullptr;
    for (const char* word : kIds)
      if (!id && entry.contains(word)) id = word;
    if (!id)
      return refuse(
          entry, fmt::format(FMT_STRING("which of [[{}]] is meant? Say its name (of luminaires without one "
                                        "their mark)"),
                             key));
    std::vector<std::size_t> meant;
    for (std::size_t k = 0; k < list.size(); ++k)
      if (const toml::table* one = list[k].as_table(); one && is_same(*one, entry, id)) meant.push_back(k);
    const std::string words = shown(entry, id);
    if (meant.size() > 1)
      return refuse(entry,
                    fmt::format(FMT_STRING("{} of [[{}]] have {} {}; give them names to tell them apart"),
                                meant.size(), key, id, words));
    if (entry["remove"].value_or(false)) {
      if (meant.empty())
        return refuse(entry, fmt::format(FMT_STRING("there is no {} in [[{}]] to be removed"), words, key));
      list.erase(list.cbegin() + std::ptrdiff_t(meant.front()));
      return;
    }
    if (meant.empty()) {
      list.push_back(std::move(entry));
      return;
    }
    merge(*list[meant.front()].as_table(), entry);
  }

  static bool is_same(const toml::table& one, const toml::table& other, const char* id) {
    const toml::node *a = one.get(id), *b = other.get(id);
    if (!a || !b) return false;
    if (a->is_string() && b->is_string()) return a->as_string()->get() == b->as_string()->get();
    return a->is_integer() && b->is_integer() && a->as_integer()->get() == b->as_integer()->get();
  }

  static std::string shown(const toml::table& entry, const char* id) {
    if (const auto words = entry[id].value<std::string>()) return "\"" + *words + "\"";
    return std::to_string(entry[id].value_or(std::int64_t(0)));
  }

  const std::string& file_;
  Problems& problems_;
};

}  // namespace

bool lay_variant_over(toml::table& project, const std::string& variant, const std::string& file,
                      Problems& problems) {
  toml::table* found = project["variants"][variant].as_table();
  if (!found) {
    const std::string near = nearest_word(variant, variant_names(project));
    problems.error("P130", {file, 0, 0},
                   fmt::format(FMT_STRING("the project has no variant \"{}\"{}"), variant,
                               near.empty() ? std::string() : "; did you mean \"" + near + "\"?"));
    return false;
  }
  toml::table over = std::move(*found);
  over.erase("note");
  Problems own;
  for (const char* key : {"format", "variants", "runs"})
    if (const toml::node* node = over.get(key)) {
      const auto& begin = node->source().begin;
      own.error("P130", {file, int(begin.line), int(begin.column)},
                fmt::format(FMT_STRING("a variant cannot change \"{}\""), key));
    }
  project.erase("variants");
  Merger(file, own).merge(project, over);
  problems.append(own);
  return !own.has_errors();
}

std::vector<std::string> variant_names(const toml::table& project) {
  std::vector<std::pair<std::size_t, std::string>> found;
  if (const toml::table* variants = project["variants"].as_table())
    for (const auto& [key, node] : *variants)
      found.emplace_back(node.source().begin.line, std::string(key.str()));
  std::sort(found.begin(), found.end());
  std::vector<std::string> names;
  for (auto& [line, name] : found) names.push_back(std::move(name));
  return names;
}

}  // namespace glow::files
