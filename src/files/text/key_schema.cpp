#include "files/text/key_schema.hpp"

#include <nlohmann/json.hpp>

namespace glow::files {
namespace {

using Json = nlohmann::ordered_json;

Json schema_of(const AskedKeys& asked);

Json of_type(const Json& type) {
  return {{"type", type}};
}

Json list_of(const Json& items, int least = 0, int most = 0) {
  Json list = {{"type", "array"}, {"items", items}};
  if (least > 0) list["minItems"] = least;
  if (most > 0) list["maxItems"] = most;
  return list;
}

Json table_of(const AskedKeys& asked) {
  Json table = of_type("object");
  if (asked.any_key) {
    AskedKeys each;
    for (const auto& [name, key] : asked.keys()) each.add(*key);
    table["additionalProperties"] = schema_of(each);
    return table;
  }
  table["properties"] = Json::object();
  for (const auto& [name, key] : asked.keys()) table["properties"][name] = schema_of(*key);
  table["additionalProperties"] = false;
  return table;
}

Json named_tables_of(const AskedKeys& asked) {
  Json tables = of_type("object");
  const auto each = asked.keys().find("*");
  if (each != asked.keys().end()) tables["additionalProperties"] = schema_of(*each->second);
  return tables;
}

Json value_of(Form form, const AskedKeys& asked) {
  const Json quantity = of_type({"number", "string"});
  switch (form) {
    case Form::text:
      return of_type("string");
    case Form::quantity:
      return quantity;
    case Form::count:
      return of_type("integer");
    case Form::flag:
      return of_type("boolean");
    case Form::point:
      return list_of(quantity, 2, 2);
    case Form::position:
      return list_of(quantity, 3, 3);
    case Form::place:
      return list_of(quantity, 2, 3);
    case Form::points:
      return list_of(list_of(quantity, 2, 2), 1);
    case Form::positions:
      return list_of(list_of(quantity, 3, 3), 1);
    case Form::numbers:
      return list_of(of_type("number"));
    case Form::pairs:
      return list_of(list_of(of_type("number"), 2, 2));
    case Form::texts:
      return list_of(of_type("string"));
    case Form::words:
      return of_type({"string", "number", "boolean", "array"});
    case Form::table:
      return table_of(asked);
    case Form::tables:
      return list_of(table_of(asked));
    case Form::named_tables:
      return named_tables_of(asked);
    case Form::anything:
      break;
  }
  return Json::object();
}

Json schema_of(const AskedKeys& asked) {
  Json ways = Json::array();
  std::string allowed;
  for (const auto& [form, words] : asked.forms) {
    ways.push_back(value_of(form, asked));
    if (!words.empty()) allowed += (allowed.empty() ? "" : "; ") + words;
  }
  if (!asked.words.empty() && !asked.forms.count(Form::text)) ways.push_back({{"enum", asked.words}});
  if (asked.may_be_false) ways.push_back({{"const", false}});
  if (ways.empty() && !asked.keys().empty()) ways.push_back(table_of(asked));  // of a reader's root
  Json schema = ways.size() == 1 ? ways.front() : ways.empty() ? Json::object() : Json{{"anyOf", ways}};
  if (!allowed.empty()) schema["description"] = allowed;
  return schema;
}

}  // namespace

std::string key_schema(const AskedKeys& asked, const std::string& title) {
  Json schema = {{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", title}};
  schema.update(schema_of(asked));
  schema["required"] = Json::array({"format"});
  return schema.dump(1) + "\n";
}

}  // namespace glow::files
