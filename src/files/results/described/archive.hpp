#pragma once

#include <array>
#include <optional>
#include <stdexcept>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "core/geometry/vec.hpp"
#include "files/text/json_number.hpp"

namespace glow::files {

/// One description of a type serves both ways: `describe(archive, value)` names its fields in their order,
/// and is called with a Writer or a Reader. What is written beside the fields, for other programs, is
/// `derived`: readers pass over it.
///
/// Numbers have nine significant digits, long lists six. The Reader distrusts: a missing key, another type or
/// a number out of range is a std::runtime_error or json::exception.

inline constexpr double kLargestNumber = 1e12;

/// A finite number of ordinary size.
inline double number_of(const json& j) {
  const double value = j.get<double>();
  if (!std::isfinite(value) || std::abs(value) > kLargestNumber)
    throw std::runtime_error("a number is out of range");
  return value;
}

/// The same without a fraction, as counts are.
template <class T>
T whole_number_of(const json& j) {
  const double wide = number_of(j);
  if (wide != std::floor(wide) || (std::is_unsigned_v<T> && wide < 0) || std::abs(wide) > 2e9)
    throw std::runtime_error("a number is out of range");
  return static_cast<T>(wide);
}

/// What `describe` takes of an archive: something to fill, or to write down.
template <class Archive, class T>
using Described = std::conditional_t<Archive::kReads, T, const T>;

/// Names of an enumeration's values, in their order: specialised beside each `describe`.
template <class Enum>
struct EnumNames;

template <class Enum>
std::string enum_name(Enum value) {
  return EnumNames<Enum>::list.at(std::size_t(value));
}

template <class Enum>
Enum enum_of(const std::string& name) {
  const auto& list = EnumNames<Enum>::list;
  for (std::size_t i = 0; i < list.size(); ++i)
    if (name == list[i]) return static_cast<Enum>(i);
  throw std::runtime_error("\"" + name.substr(0, 40) + "\" is not known here");
}

class Writer {
 public:
  static constexpr bool kReads = false;

  template <class T>
  void operator()(const char* name, const T& value) {
    out_[name] = json_of(value);
  }
  /// Six digits.
  void brief(const char* name, double value) { out_[name] = short_number(value); }
  /// A number that may be missing: null where it is not finite.
  void nullable(const char* name, double value, double /*missing*/, bool is_brief = true) {
    out_[name] = is_brief ? short_number(value) : number(value);
  }
  void brief_list(const char* name, const std::vector<double>& values) {
    json list = json::array();
    for (const double value : values) list.push_back(short_number(value));
    out_[name] = std::move(list);
  }
  /// An object of its own, whose fields `body(archive)` names.
  template <class Body>
  void object(const char* name, const Body& body) {
    Writer inner;
    body(inner);
    out_[name] = inner.take();
  }
  /// The same, or null.
  template <class T, class Body>
  void object_if(const char* name, const std::optional<T>& value, const Body& body) {
    if (value)
      object(name, [&](Writer& inner) { body(inner, *value); });
    else
      out_[name] = nullptr;
  }
  /// A key that is left out where there is nothing.
  template <class T>
  void present(const char* name, const std::optional<T>& value) {
    if (value) (*this)(name, *value);
  }
  /// A list of objects: body(archive, item, number).
  template <class T, class Body>
  void list(const char* name, const std::vector<T>& items, const Body& body) {
    json all = json::array();
    for (std::size_t i = 0; i < items.size(); ++i) {
      Writer inner;
      body(inner, items[i], i);
      all.push_back(inner.take());
    }
    out_[name] = std::move(all);
  }
  template <class Make>
  void derived(const char* name, const Make& make) {
    out_[name] = make();
  }
  /// For `derived`, whose body readers compile as well.
  template <class T>
  static json json_if_writer(const T& value) {
    return json_of(value);
  }
  json take() { return out_.is_null() ? json::object() : std::move(out_); }

  template <class T>
  static json json_of(const T& value);

 private:
  json out_;
};

class Reader {
 public:
  static constexpr bool kReads = true;
  static constexpr std::size_t kMostItems = 4000000;

  explicit Reader(const json& in) : in_(in) {}

  template <class T>
  void operator()(const char* name, T& value) {
    try {
      read(in_.at(name), value);
    } catch (const json::exception& error) {
      throw std::runtime_error(std::string("\"") + name + "\": " + error.what());
    }
  }
  void brief(const char* name, double& value) { value = number_of(in_.at(name)); }
  void nullable(const char* name, double& value, double missing, bool = true) {
    const json& j = in_.at(name);
    value = j.is_null() ? missing : number_of(j);
  }
  void brief_list(const char* name, std::vector<double>& values) { read(in_.at(name), values); }
  template <class Body>
  void object(const char* name, const Body& body) {
    Reader inner(in_.at(name));
    body(inner);
  }
  template <class T, class Body>
  void object_if(const char* name, std::optional<T>& value, const Body& body) {
    if (in_.at(name).is_null()) return;
    Reader inner(in_.at(name));
    body(inner, value.emplace());
  }
  template <class T>
  void present(const char* name, std::optional<T>& value) {
    if (!has(name)) return;
    T own{};
    (*this)(name, own);
    value = std::move(own);
  }
  template <class T, class Body>
  void list(const char* name, std::vector<T>& items, const Body& body) {
    const json& all = in_.at(name);
    if (!all.is_array() || all.size() > kMostItems)
      throw std::runtime_error("a list is not as it is written");
    for (std::size_t i = 0; i < all.size(); ++i) {
      Reader inner(all[i]);
      body(inner, items.emplace_back(), i);
    }
  }
  template <class Make>
  void derived(const char*, const Make&) {}
  template <class T>
  static json json_if_writer(const T&) {
    return nullptr;
  }
  bool has(const char* name) const { return in_.contains(name); }
  const json& at(const char* name) const { return in_.at(name); }

  template <class T>
  static void read(const json& j, T& value);

 private:
  const json& in_;
};

namespace archive_detail {

template <class T>
struct IsOptional : std::false_type {};
template <class T>
struct IsOptional<std::optional<T>> : std::true_type {};
template <class T>
struct IsVector : std::false_type {};
template <class T>
struct IsVector<std::vector<T>> : std::true_type {};
template <class T>
struct IsVariant : std::false_type {};
template <class... T>
struct IsVariant<std::variant<T...>> : std::true_type {};
template <class T>
struct IsPair : std::false_type {};
template <class A, class B>
struct IsPair<std::pair<A, B>> : std::true_type {};

/// Names of a variant's alternatives, in their order: specialised beside each `describe`.
template <class Variant>
struct KindNames;

template <class Variant, std::size_t... I>
void read_variant(const json& j, Variant& value, std::size_t kind, std::index_sequence<I...>) {
  const auto one = [&](auto index) {
    if (kind != index.value) return;
    Reader inner(j);
    describe(inner, value.template emplace<index.value>());
  };
  (one(std::integral_constant<std::size_t, I>()), ...);
}

}  // namespace archive_detail

template <class T>
json Writer::json_of(const T& value) {
  using namespace archive_detail;
  if constexpr (std::is_same_v<T, bool> || std::is_same_v<T, std::string> || std::is_integral_v<T>) {
    return value;
  } else if constexpr (std::is_same_v<T, double>) {
    return number(value);
  } else if constexpr (std::is_enum_v<T>) {
    return enum_name(value);
  } else if constexpr (std::is_same_v<T, Vec3>) {
    return {number(value.x()), number(value.y()), number(value.z())};
  } else if constexpr (std::is_same_v<T, Vec2>) {
    return {number(value.x()), number(value.y())};
  } else if constexpr (IsOptional<T>::value) {
    return value ? json_of(*value) : json(nullptr);
  } else if constexpr (IsVector<T>::value) {
    json list = json::array();
    for (const auto& item : value) list.push_back(json_of(item));
    return list;
  } else if constexpr (IsPair<T>::value) {
    return json::array({json_of(value.first), json_of(value.second)});
  } else if constexpr (IsVariant<T>::value) {
    Writer inner;
    inner("kind", std::string(KindNames<T>::list[value.index()]));
    std::visit([&](const auto& own) { describe(inner, own); }, value);
    return inner.take();
  } else {
    Writer inner;
    describe(inner, value);
    return inner.take();
  }
}

template <class T>
void Reader::read(const json& j, T& value) {
  using namespace archive_detail;
  if constexpr (std::is_same_v<T, bool> || std::is_same_v<T, std::string>) {
    value = j.get<T>();
  } else if constexpr (std::is_integral_v<T>) {
    value = whole_number_of<T>(j);
  } else if constexpr (std::is_same_v<T, double>) {
    value = number_of(j);
  } else if constexpr (std::is_enum_v<T>) {
    value = enum_of<T>(j.get<std::string>());
  } else if constexpr (std::is_same_v<T, Vec3>) {
    value = {number_of(j.at(0)), number_of(j.at(1)), number_of(j.at(2))};
  } else if constexpr (std::is_same_v<T, Vec2>) {
    value = {number_of(j.at(0)), number_of(j.at(1))};
  } else if constexpr (IsOptional<T>::value) {
    value.reset();
    if (!j.is_null()) read(j, value.emplace());
  } else if constexpr (IsVector<T>::value) {
    if (!j.is_array() || j.size() > kMostItems) throw std::runtime_error("a list is not as it is written");
    value.clear();
    for (const json& item : j) {
      typename T::value_type own{};
      read(item, own);
      value.push_back(std::move(own));
    }
  } else if constexpr (IsPair<T>::value) {
    read(j.at(0), value.first);
    read(j.at(1), value.second);
  } else if constexpr (IsVariant<T>::value) {
    const std::string kind = j.at("kind").get<std::string>();
    const auto& list = KindNames<T>::list;
    std::size_t number = 0;
    while (number < list.size() && kind != list[number]) ++number;
    if (number == list.size()) throw std::runtime_error("a finding is of an unknown kind");
    read_variant(j, value, number, std::make_index_sequence<std::variant_size_v<T>>());
  } else {
    Reader inner(j);
    describe(inner, value);
  }
}

}  // namespace glow::files
