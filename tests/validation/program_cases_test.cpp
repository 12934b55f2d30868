// The cases of classes F, G and H written as project files and photometric files, and run through the built
// program.
#include <fmt/format.h>

#include <cmath>

#include "cli/run_program.hpp"
#include "core/geometry/vec.hpp"

namespace glow::cli {
namespace program_cases_test {

constexpr int kGammaSteps = 180, kPlanes = 73;  // 1 and 5 degrees

const json& document() {
  return test::shared_json("validation/transport.json");
}

std::vector<std::string> ids() {
  std::vector<std::string> found;
  for (const json& c : document()["cases"])
    if (std::string("fgh").find(c["class"].get<std::string>()) != std::string::npos) found.push_back(c["id"]);
  return found;
}

/// I0 |cos g|^n (1 + sin g (a cos C + b sin C) + c sin^2 g cos 2C), in cd.
double formula(const json& set, double c, double g) {
  if (set.is_null()) return 0;
  const double shape =
      1 + std::sin(g) * (set["a"].get<double>() * std::cos(c) + set["b"].get<double>() * std::sin(c)) +
      set["c"].get<double>() * std::pow(std::sin(g), 2) * std::cos(2 * c);
  return std::max(0.0,
                  set["I0"].get<double>() * std::pow(std::abs(std::cos(g)), set["n"].get<double>()) * shape);
}

/// An absolute IES file; two angles close together at the horizontal keep the jump there.
std::string ies_file(const json& luminaire) {
  std::vector<double> gammas;
  for (int k = 0; k <= kGammaSteps; ++k) {
    gammas.push_back(k);
    if (k == 90) gammas.push_back(90.0001);
  }
  const bool area = luminaire["type"] == "rect";
  const double c0 = area ? luminaire["size"][0].get<double>() : 0,
               c90 = area ? luminaire["size"][1].get<double>() : 0;
  std::string text =
      fmt::format(FMT_STRING("IESNA:LM-63-2002\n[TEST] none\n[MANUFAC] Quillon\n[LUMINAIRE] {}\nTILT=NONE\n"
                             "1 -1 1 {} {} 1 2 {} {} 0\n1 1 10\n"),
                  luminaire["name"].get<std::string>(), gammas.size(), kPlanes, c90, c0);
  for (const double gamma : gammas) text += fmt::format(FMT_STRING("{}\n"), gamma);
  for (int p = 0; p < kPlanes; ++p) text += fmt::format(FMT_STRING("{}\n"), 5 * p);
  for (int p = 0; p < kPlanes; ++p)
    for (const double gamma : gammas)
      text += fmt::format(FMT_STRING("{:.7g}\n"), formula(luminaire["intensity"][gamma <= 90 ? "down" : "up"],
                                                          5 * p * kDegree, gamma * kDegree));
  return text;
}

std::string list(const json& numbers) {
  return numbers.dump();
}

/// The room as stated; free space is a black hall without effect.
std::string room_text(const json& space) {
  if (!space.contains("room"))
    return "[[rooms]]\nname = \"space\"\noutline = [[-20, -20], [20, -20], [20, 20], [-20, 20]]\nheight = "
           "20\n"
           "reflectance = { floor = 0, walls = 0, ceiling = 0 }\nsurfaces = false\n";
  const json &room = space["room"], &rho = room["reflectance"];
  std::string text =
      fmt::format(FMT_STRING("[[rooms]]\nname = \"room\"\nsize = [{}, {}]\nheight = {}\nsurfaces = false\n"
                             "reflectance = {{ floor = {}, walls = 0.5, ceiling = {} }}\n"),
                  room["size"][0].dump(), room["size"][1].dump(), room["size"][2].dump(), rho["floor"].dump(),
                  rho["ceiling"].dump());
  const char* walls[] = {"wall_y0", "wall_x1", "wall_y1", "wall_x0"};
  for (int k = 0; k < 4; ++k)
    text += fmt::format(FMT_STRING("[[rooms.walls]]\nwall = {}\nreflectance = {}\n"), k + 1,
                        rho[walls[k]].dump());
  return text;
}

std::string parts_text(const json& space) {
  std::string text;
  for (const json& box : space.value("obstacles", json::array())) {
    json size = json::array();
    for (std::size_t k = 0; k < 3; ++k)
      size.push_back(box["max"][k].get<double>() - box["min"][k].get<double>());
    text += fmt::format(FMT_STRING("[[rooms.objects]]\nname = {}\nbox = {}\nat = {}\nreflectance = {}\n"),
                        box["name"].dump(), list(size), list(box["min"]), box["reflectance"].dump());
  }
  for (const json& l : space["luminaires"])
    text += fmt::format(
        FMT_STRING("[[rooms.luminaires]]\nmark = {}\nat = [{}, {}]\nmounting_height = {}\nrotation = {}\n"),
        l["name"].dump(), l["position"][0].dump(), l["position"][1].dump(), l["position"][2].dump(),
        l["rotation_deg"].dump());
  return text;
}

std::string points_text(const json& receivers) {
  std::string text;
  for (const json& r : receivers) {
    text += fmt::format(FMT_STRING("[[rooms.points]]\nname = {}\nat = {}\n"), r["id"].dump(), list(r["p"]));
    if (r["type"] == "cylindrical") text += "kind = \"cylindrical\"\n";
    if (r["type"] == "semicylindrical")
      text += fmt::format(FMT_STRING("kind = \"semi-cylindrical\"\nfacing = {}\n"), list(r["dir"]));
    if (r["type"] == "point") text += fmt::format(FMT_STRING("facing = {}\n"), list(r["n"]));
  }
  return text;
}

class ProgramCase : public ::testing::TestWithParam<std::string> {};

TEST_P(ProgramCase, IsWithinItsToleranceAsAProjectFile) {
  const json* found = nullptr;
  for (const json& c : document()["cases"])
    if (c["id"] == GetParam()) found = &c;
  ASSERT_TRUE(found);
  const json& space = (*found)["scene"];
  const TemporaryFolder folder;
  std::string text =
      "format = 1\n[project]\nname = \"case\"\nstandard = \"EN "
      "12464-1:2021\"\n[defaults]\nmaintenance_factor = 1\n";
  for (const json& l : space["luminaires"]) {
    const std::string name = l["name"];
    folder.write(name + ".ies", ies_file(l));
    text += fmt::format(FMT_STRING("[luminaires.{0}]\nfile = \"{0}.ies\"\n"), name);
  }
  folder.write("case.toml", text + room_text(space) + parts_text(space) + points_text((*found)["receivers"]));
  const Ran ran = run(folder, "run case.toml --json -q --no-cache");
  ASSERT_EQ(ran.code, 0) << ran.err;
  const json room = json_of(ran.out).at("rooms").at(0);
  std::map<std::string, json> points;
  for (const json& point : room.at("points")) points[point.at("name")] = point;
  int held = 0;
  for (const json& reference : (*found)["reference"]) {
    const json& point = points.at(reference["receiver"]);
    const std::string component = reference["component"];
    const double ours = point.at(component == "indirect" ? "interreflected_lx" : component + "_lx");
    const double value = reference["value"];
    const double allowed = reference["rel_tol"].get<double>() * std::abs(value) +
                           reference.value("abs_tol", 0.0) + 3 * reference.value("se", 0.0);
    EXPECT_NEAR(ours, value, allowed) << reference["receiver"] << " " << component;
    ++held;
  }
  EXPECT_GT(held, 5);
  const json& flux = room.at("flux_balance");
  EXPECT_NEAR(flux.at("absorbed_lm").get<double>() / flux.at("emitted_lm").get<double>(), 1, 0.001);
}

INSTANTIATE_TEST_SUITE_P(Cases, ProgramCase, ::testing::ValuesIn(ids()),
                         [](const ::testing::TestParamInfo<std::string>& id) {
                           std::string name = id.param;
                           for (char& c : name)
                             if (!std::isalnum(static_cast<unsigned char>(c))) c = '_';
                           return name;
                         });

}  // namespace program_cases_test
}  // namespace glow::cli
