#include "files/text/asked_keys.hpp"

namespace glow::files {

AskedKeys& AskedKeys::key(const std::string& name) {
  auto& asked = keys_[name];
  if (!asked) asked = std::make_unique<AskedKeys>();
  return *asked;
}

void AskedKeys::add(const AskedKeys& other) {
  forms.insert(other.forms.begin(), other.forms.end());
  words.insert(other.words.begin(), other.words.end());
  may_be_false = may_be_false || other.may_be_false;
  any_key = any_key || other.any_key;
  for (const auto& [name, asked] : other.keys_) key(name).add(*asked);
}

}  // namespace glow::files
