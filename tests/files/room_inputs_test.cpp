// What a room's results depend on, and what they do not.
#include "files/project/room/room_inputs.hpp"
#include "core/record/record.hpp"

#include <gtest/gtest.h>

#include "files/project/project_reader.hpp"
#include "temporary_folder.hpp"

namespace glow::files {
namespace room_inputs_test {

const std::string kProject =
    "format = 1\n[project]\nname = \"Mill\"\n[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = "
    "0.7, "
    "walls = 0.5, floor = 0.2 }\n[luminaires.A]\nfile = \"a.ldt\"\n[luminaires.B]\nfile = \"b.ldt\"\n"
    "[[rooms]]\nname = \"one\"\nsize = [4, 3]\nheight = 3\n[[rooms.luminaires]]\nmark = \"A\"\nat = [1, 1]\n"
    "[[rooms]]\nname = \"two\"\nsize = [5, 3]\nheight = 3\n[[rooms.luminaires]]\nmark = \"B\"\nat = [1, 1]\n";

using Inputs = std::vector<std::vector<record::InputPart>>;

Inputs inputs_of(const std::string& text, const test::TemporaryFolder& folder) {
  Problems problems;
  const auto project = read_project(text, "p.toml", problems);
  EXPECT_TRUE(project) << text;
  return room_inputs(text, *project, folder.path());
}

std::vector<std::string> changed(const Inputs& then, const Inputs& now, std::size_t room) {
  record::RoomRecord record;
  record.inputs = then[room];
  return record::changed_inputs(record, now[room]);
}

struct Change {
  const char *from, *to;
  std::vector<std::string> one, two;  ///< what has changed of either room
};

TEST(RoomInputs, TellWhatOfARoomHasChanged) {
  const test::TemporaryFolder folder;
  folder.write("a.ldt", "1");
  folder.write("b.ldt", "2");
  const Inputs before = inputs_of(kProject, folder);
  for (const Change& c :
       {Change{"format = 1\n", "format = 1\n# a remark\n", {}, {}},
        Change{"size = [4, 3]\nheight = 3", "height = 3\nsize = [ 4, 3 ]", {}, {}},
        Change{"format = 1\n", "format = 1\n[figures]\nsteps = 5\n", {}, {}},
        Change{"size = [4, 3]", "size = [4, 4]", {"the room"}, {}},
        Change{"[luminaires.B]\n", "[luminaires.B]\nflux = 900\n", {}, {"luminaire B"}},
        Change{"maintenance_factor = 0.8", "maintenance_factor = 0.7", {"[defaults]"}, {"[defaults]"}},
        Change{"mark = \"A\"", "mark = \"B\"", {"the room", "luminaire B", "luminaire A"}, {}}}) {
    std::string text = kProject;
    text.replace(text.find(c.from), std::string(c.from).size(), c.to);
    const Inputs now = inputs_of(text, folder);
    EXPECT_EQ(changed(before, now, 0), c.one) << c.to;
    EXPECT_EQ(changed(before, now, 1), c.two) << c.to;
  }
  folder.write("a.ldt", "another file");
  const Inputs now = inputs_of(kProject, folder);
  EXPECT_EQ(changed(before, now, 0), std::vector<std::string>{"luminaire A"});
  EXPECT_TRUE(changed(before, now, 1).empty());
}

TEST(RoomInputs, DaylightHangsOnWhatItComesInByNotOnElectricLight) {
  const test::TemporaryFolder folder;
  for (const char* file : {"a.ldt", "b.ldt"}) folder.write(file, "1");
  const std::string lit = kProject + "[[rooms.control]]\nkind = \"switched\"\n[energy]\nprice = 0.3\n";
  const auto key_of = [&](const std::string& text) {
    Problems problems;
    return day_keys(text, *read_project(text, "p.toml", problems), folder.path()).at(1);
  };
  struct Other {
    const char *from, *to;
    bool same;
  };
  for (const Other& other :
       {Other{"price = 0.3", "price = 0.5", true}, Other{"\"switched\"", "\"dimmed\"", true},
        Other{"mark = \"B\"", "mark = \"A\"", true},
        Other{"price = 0.3", "hours = { from = \"8:00\", to = \"9:00\" }", true},
        Other{"size = [5, 3]", "size = [5, 4]", false}, Other{"floor = 0.2", "floor = 0.3", false}}) {
    std::string text = lit;
    text.replace(text.find(other.from), std::string(other.from).size(), other.to);
    EXPECT_EQ(key_of(text) == key_of(lit), other.same) << other.to;
  }
}

}  // namespace room_inputs_test
}  // namespace glow::files
