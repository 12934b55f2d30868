// Pictures of rooms by the built program.
#include <nlohmann/json.hpp>

#include "run_program.hpp"
#include "test_files.hpp"

namespace glow::cli {
namespace view_test {

std::string room_with(const std::string& views) {
  return "format = 1\n[project]\nname = \"V\"\nstandard = \"EN 12464-1:2021\"\n"
         "[defaults]\nmaintenance_factor = 0.8\nreflectance = { ceiling = 0.7, walls = 0.5, floor = 0.2 }\n"
         "[scenes.half]\nrest = 0.5\n"
         "[luminaires.D2]\nfile = \"photometry/quillon-d2.ies\"\ncct = 3000\n"
         "[[rooms]]\nname = \"R\"\nsize = [4, 4]\nheight = 3\nsurfaces = false\n"
         "[[rooms.luminaires]]\nmark = \"D2\"\nat = [2, 3]\n"
         "[[rooms.objects]]\nname = \"block\"\nbox = [1, 1, 1.8]\nat = [1, 1, 0]\n"
         "reflectance = 0.4\n"
         "[[rooms.openings]]\nname = \"way in\"\nkind = \"door\"\nwall = 1\nfrom = 2.6\nwidth = 0.9\nheight "
         "= "
         "2.1\nreflectance = 0.5\n"
         "[[rooms.eyes]]\nname = \"sitter\"\nat = [3, 2, 1.2]\nlooking = \"90\"\n" +
         views;
}

void write(const TemporaryFolder& folder, const std::string& views) {
  write_project(folder);
  folder.write("v.toml", room_with(views));
}

std::set<std::string> files_in(const std::filesystem::path& folder) {
  std::set<std::string> names;
  for (const auto& entry : std::filesystem::directory_iterator(folder))
    names.insert(entry.path().filename().string());
  return names;
}

TEST(View, RunMakesSmallPicturesThatAreDevelopedAnewWithoutTracing) {
  const TemporaryFolder folder;
  write(folder, "");
  ASSERT_EQ(run_as_it_is(folder, "run v.toml -q").code, 0);
  const std::filesystem::path views = folder.path() / "v-results/views";
  for (const char* name : {"r--from-the-door", "r--from-the-far-end", "r--from-above", "r--plan"})
    for (const char* suffix : {".exr", ".png"})
      EXPECT_EQ(files_in(views).count(std::string(name) + suffix), 1u) << name << suffix;
  const Ran seen =
      run(folder, "view v-results --view plan --scene half --as luminance --limits 1,100 --scale log");
  EXPECT_EQ(seen.code, 0) << seen.err;
  EXPECT_TRUE(says(seen.out, "r--plan--half--luminance.png")) << seen.out;
  EXPECT_EQ(
      run(folder,
          "view v-results --view plan --as illuminance --values \"work plane\" --exposure 7 --white 3000 "
          "--format svg -o out")
          .code,
      0);
  const std::string figure = content_of(folder.path() / "out/r--plan--illuminance.svg");
  EXPECT_TRUE(says(figure, "illuminance in lx") && says(figure, "Illuminance of what is seen"));
  EXPECT_FALSE(says(figure, "with bloom"));
  ASSERT_EQ(run(folder, "view v-results --view \"from the door\" --bloom --format svg -o out").code, 0);
  EXPECT_TRUE(says(content_of(folder.path() / "out/r--from-the-door.svg"), "with bloom"));
  // A run of some rooms keeps the pictures of the others; without pictures there are none.
  ASSERT_EQ(run(folder, "run v.toml -q").code, 0);
  EXPECT_FALSE(std::filesystem::exists(views / "r--plan.exr"));
  const Ran none = run(folder, "view v-results");
  EXPECT_EQ(none.code, 2);
  EXPECT_TRUE(says(none.err, "holds no pictures")) << none.err;
}

TEST(View, OfTheProjectIsTheSameWithAnyNumberOfThreads) {
  const TemporaryFolder folder;
  write(folder,
        "[[rooms.views]]\nname = \"to the block\"\nfrom = \"sitter\"\nto = \"block\"\nangle = 60\nsize = "
        "[96, 64]\n"
        "[[rooms.views]]\nname = \"all around\"\nkind = \"panorama\"\nfrom = [3, 3, 1.5]\nsize = [120, 60]\n"
        "[[rooms.views]]\nname = \"wall\"\nkind = \"elevation\"\nto = \"wall 3\"\nsize = [96, 64]\n");
  ASSERT_EQ(run(folder, "view v.toml -q --threads 1 --quality draft -o one").code, 0);
  ASSERT_EQ(run(folder, "view v.toml -q --threads 2 --quality draft -o two").code, 0);
  for (const char* name : {"r--to-the-block", "r--all-around", "r--wall"})
    for (const char* suffix : {".exr", ".png"}) {
      const std::string one = content_of(folder.path() / "one" / (std::string(name) + suffix));
      EXPECT_GT(one.size(), 2000u) << name << suffix;
      EXPECT_TRUE(one == content_of(folder.path() / "two" / (std::string(name) + suffix))) << name << suffix;
    }
}

struct ViewFault {
  const char* view;
  const char* says;
};

TEST(View, FaultsAreToldOnceWithTheirMend) {
  const ViewFault faults[] = {
      {"name = \"a\"\nfrom = [1.5, 1.5, 1]\nto = [3, 3, 1]", "the eye of \"a\" lies in \"block\""},
      {"name = \"a\"\nfrom = [5, 1.5, 1]\nto = [3, 3, 1]", "lies outside the room"},
      {"name = \"a\"\nfrom = [3, 3, 1]\nto = [3, 3, 1]", "looks at itself"},
      {"name = \"a\"\nfrom = [3, 3, 1]\nto = \"blok\"", "did you mean \"block\"?"},
      {"name = \"a\"\nfrom = \"siter\"", "did you mean \"sitter\"?"},
      {"name = \"a\"\nto = \"block\"", "needs \"from\""},
      {"name = \"a\"\nfrom = [3, 3, 1]\nsize = [0, 800]", "from 16 to 8192"},
      {"name = \"a\"\nfrom = [3, 3, 1]\nangle = 179", "150"},
      {"name = \"a\"\nkind = \"fisheye\"\nfrom = [3, 3, 1]", "expected perspective, plan, elevation"},
      {"name = \"a\"\nkind = \"panorama\"", "needs \"from\""},
      {"name = \"a\"\nkind = \"elevation\"\nto = \"wall 9\"", "did you mean \"wall"},
      {"name = \"a\"\nkind = \"plan\"\nfrom = [3, 3, 1]", "says nothing about a plan view"},
      {"name = \"??\"\nkind = \"plan\"", "no letter or digit"},
      {"name = \"a\"\nkind = \"plan\"\n[[rooms.views]]\nname = \"A\"\nkind = \"cutaway\"", "same files"},
  };
  for (const ViewFault& fault : faults) {
    const TemporaryFolder folder;
    write(folder, std::string("[[rooms.views]]\n") + fault.view + "\n");
    const Ran ran = run(folder, "check v.toml");
    EXPECT_EQ(ran.code, 2) << fault.view;
    EXPECT_TRUE(says(ran.err, fault.says)) << ran.err;
    EXPECT_TRUE(says(ran.err, "1 error")) << ran.err;
  }
}

TEST(View, CallsThatCannotBeAreRefused) {
  const TemporaryFolder folder;
  write(folder, "[[rooms.views]]\nname = \"top\"\nkind = \"plan\"\nsize = [64, 64]\n");
  ASSERT_EQ(run_as_it_is(folder, "run v.toml -q").code, 0);
  const std::pair<const char*, const char*> calls[] = {
      {"view v-results --scene hal", "did you mean \"half\"?"},
      {"view v-results --view topp", "no view is called topp; there are: top"},
      {"view v-results --as heat", "expected natural, luminance or illuminance"},
      {"view v-results --exposure bright", "expected auto or an exposure value"},
      {"view v-results --as luminance --bloom", "--bloom is for --as natural"},
      {"view v-results --white 900", "1500 to 25000"},
      {"view v-results --size 10x10", "16 to 8192"},
      {"view v.toml --size 0x800", "16 to 8192"},
      {"view v-results --size 100x100", "--size is for a project"},
      {"view v.toml --quality best", "expected draft, normal or fine"},
      {"view v-results --values ceiling-tiles", "expected raster, work plane"},
      {"view v-results --format exr", "lie there already"},
      {"view v-results --format gif", "expected any of png, svg, pdf and exr"},
      {"view v-results --scene half --moment half", "--scene and --moment"},
      {"view v-results --room Q", "Q"},
      {"view nothing", "nothing"},
  };
  for (const auto& [call, expected] : calls) {
    const Ran ran = run(folder, call);
    EXPECT_EQ(ran.code, 2) << call;
    EXPECT_TRUE(says(ran.err, expected)) << call << ": " << ran.err;
  }
  std::filesystem::resize_file(folder.path() / "v-results/views/r--top.exr", 700);
  const Ran damaged = run(folder, "view v-results");
  EXPECT_EQ(damaged.code, 2);
  EXPECT_TRUE(says(damaged.err, "V001")) << damaged.err;
}

}  // namespace view_test
}  // namespace glow::cli
