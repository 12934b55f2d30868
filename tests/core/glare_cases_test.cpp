// UGR, position indices, the tabular method, utilisation factors and shielding against the cases of
// metrics.json.
#include <gtest/gtest.h>

#include "core/cavity/ugr_table.hpp"
#include "core/geometry/room_shell.hpp"
#include "core/glare/unified_glare.hpp"
#include "core/photometry/placed_luminaire.hpp"
#include "core/sources/luminaire_inflow.hpp"
#include "core/standards/glare_rules.hpp"
#include "core/transport/transport.hpp"
#include "validation/metric_luminaires.hpp"

namespace glow {
namespace glare_cases_test {

using nlohmann::json;

Vec3 sight_of(const json& j) {
  const double azimuth = j.at("view_azimuth_deg").get<double>() * kDegree;
  return {std::cos(azimuth), std::sin(azimuth), 0};
}

glare::GlareSources sources_of(const json& luminaires) {
  glare::GlareSources sources;
  for (const json& j : luminaires) sources.add(reference::sized_luminaire(j), 1);
  return sources;
}

void expect_near(double value, const json& expected, double rel, const std::string& what) {
  EXPECT_NEAR(value, expected.get<double>(), rel * std::abs(expected.get<double>()) + 1e-9) << what;
}

/// Every number of one luminaire that the case gives.
void expect_term(const glare::UgrTerm& term, const Vec3& eye, const json& e) {
  const double rel = 0.01;
  expect_near(term.seen.distance_m, e.at("r"), rel, "r");
  expect_near(term.seen.intensity_cd, e.at("I"), rel, "I");
  expect_near(term.seen.projected_area_m2, e.at("Ap"), rel, "Ap");
  const std::string status = e.at("status");
  EXPECT_EQ(status == "behind", term.standing == glare::Standing::behind);
  EXPECT_EQ(status == "ok", term.standing == glare::Standing::counts) << status << eye.transpose();
  expect_near(term.term, e.at("term"), rel, "term");
  if (status == "behind") return;
  expect_near(term.seen.luminance_cd_m2(), e.at("L"), rel, "L");
  expect_near(term.seen.solid_angle_sr(), e.at("omega"), rel, "omega");
  expect_near(term.position_index, e.at("p"), rel, "p");
}

TEST(GlareCases, UgrOfEyesWithTheBackgroundGiven) {
  int checked = 0;
  for (const json& c : reference::metric_cases("ugr-")) {
    if (!c.at("inputs").contains("E_indirect_eye") || c.at("id") == "ugr-small-1") continue;
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &expected = c.at("expected");
    const Vec3 eye = reference::point(in.at("eye"));
    const auto seen = sources_of(in.at("luminaires")).seen_from(eye, nullptr, nullptr);
    const glare::Ugr ugr = glare::unified_glare(seen, eye, sight_of(in), in.at("E_indirect_eye"));
    EXPECT_NEAR(ugr.all_in_front.value(), expected.at("ugr_front").get<double>(), 0.05);
    EXPECT_NEAR(ugr.value.value(), expected.at("ugr_table_range").get<double>(), 0.05);
    expect_near(ugr.background_cd_m2, expected.at("Lb"), 0.01, "Lb");
    ASSERT_EQ(ugr.terms.size(), expected.at("luminaires").size());
    for (std::size_t i = 0; i < ugr.terms.size(); ++i)
      expect_term(ugr.terms[i], eye, expected.at("luminaires")[i]);
    ++checked;
  }
  EXPECT_EQ(checked, 12);
}

TEST(GlareCases, SmallSourcesByTheirIntensity) {
  const json c = reference::metric_cases("ugr-small-1").at(0);
  const json &in = c.at("inputs"), &expected = c.at("expected");
  const Vec3 eye = reference::point(in.at("eye"));
  const auto seen = sources_of(in.at("luminaires")).seen_from(eye, nullptr, nullptr);
  const glare::Ugr ugr = glare::unified_glare(seen, eye, sight_of(in), in.at("E_indirect_eye"));
  EXPECT_NEAR(ugr.value.value(), expected.at("ugr_cie147").get<double>(), 0.05);
  EXPECT_NEAR(ugr.without_cie147.value(), expected.at("ugr_cie117").get<double>(), 0.05);
  for (std::size_t i = 0; i < ugr.terms.size(); ++i) {
    const json& e = expected.at("luminaires")[i];
    expect_near(ugr.terms[i].seen.projected_area_m2, e.at("Ap"), 0.01, "Ap");
    expect_near(ugr.terms[i].plain_term, e.at("term_117"), 0.01, "term by CIE 117");
    expect_near(ugr.terms[i].term, e.at("term_147"), 0.01, "term by CIE 147");
    EXPECT_TRUE(ugr.terms[i].small);
  }
}

TEST(GlareCases, PositionIndices) {
  const json c = reference::metric_cases("position-index-1").at(0);
  const json &places = c.at("inputs").at("TRH"), &expected = c.at("expected");
  ASSERT_EQ(places.size(), 5u);
  for (std::size_t i = 0; i < places.size(); ++i) {
    const glare::SightPosition at{places[i][1], places[i][0], places[i][2]};
    expect_near(glare::guth_position_index(at), expected.at("p_guth")[i], 1e-4, "Guth");
    if (!expected.at("p_alternative")[i].is_null())
      expect_near(glare::ratio_position_index(at), expected.at("p_alternative")[i], 1e-4, "ratios");
  }
}

/// The background by our own transport: points as luminaires, as the cases say.
TEST(GlareCases, UgrInRoomsWithTheEnginesBackground) {
  const auto all = reference::metric_cases("ugr-room");
  ASSERT_EQ(all.size(), 2u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &rho = in.at("rho_ceiling_walls_floor");
    const double x = in.at("room")[0], y = in.at("room")[1];
    geometry::Geometry geometry;
    geometry::add_room(geometry, {{0, 0}, {x, 0}, {x, y}, {0, y}}, in.at("room")[2], rho[2], rho[1], rho[0]);
    std::vector<readings::Receiver> eyes;
    for (const json& o : in.at("observers")) eyes.push_back({reference::point(o.at("eye")), sight_of(o)});
    const transport::Transport transport(std::move(geometry), eyes, {}, {});
    std::vector<photometry::PlacedLuminaire> points;
    for (const json& j : in.at("luminaires"))
      points.push_back(reference::luminaire(j, reference::point(j.at("pos"))));
    const transport::GroupLight light = sources::relight(transport, points, {});
    const glare::GlareSources sources = sources_of(in.at("luminaires"));
    for (std::size_t i = 0; i < eyes.size(); ++i) {
      const json& e = c.at("expected").at("observers")[i];
      expect_near(light.interreflected_lx[i], e.at("E_indirect_eye"), 0.02, "indirect at the eye");
      const auto seen = sources.seen_from(eyes[i].position, &transport.tracer(), &transport.occluders());
      const glare::Ugr ugr =
          glare::unified_glare(seen, eyes[i].position, eyes[i].normal, light.interreflected_lx[i]);
      EXPECT_NEAR(ugr.all_in_front.value(), e.at("ugr_front").get<double>(), 0.15);
      EXPECT_NEAR(ugr.value.value(), e.at("ugr_table_range").get<double>(), 0.15);
    }
  }
}

TEST(GlareCases, TabularUgr) {
  const auto all = reference::metric_cases("ugr-table");
  ASSERT_EQ(all.size(), 3u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const photometry::Photometry p = reference::whole_photometry(c.at("inputs"));
    const json &expected = c.at("expected"), &rooms = c.at("inputs").at("rooms_XY");
    ASSERT_FALSE(cavity::no_ugr_table(p));
    const cavity::UgrTable table = cavity::ugr_table(p);
    const cavity::UgrHeadline corrected = cavity::ugr_headline(p);
    ASSERT_EQ(rooms.size(), cavity::UgrTable::rooms().size());
    double worst = 0, worst_alternative = 0;
    for (std::size_t r = 0; r < rooms.size(); ++r) {
      EXPECT_EQ(rooms[r][0], cavity::UgrTable::rooms()[r].x);
      EXPECT_EQ(rooms[r][1], cavity::UgrTable::rooms()[r].y);
      for (const auto& [ours, first, sight] : {std::tuple{&table.along_c0, 0u, cavity::Sight::along_c0},
                                               {&table.along_c90, 5u, cavity::Sight::along_c90}}) {
        const auto others = cavity::tabular_ugr(p, cavity::UgrTable::rooms()[r], sight,
                                                cavity::UgrTable::reflectances(), true);
        for (std::size_t s = 0; s < 5; ++s) {
          const auto off = [&](const char* key, double value) {
            return std::abs(value - expected.at(key)[r][first + s].get<double>());
          };
          worst = std::max(worst, off("table_uncorrected", (*ours)[r][s]));
          worst_alternative = std::max(worst_alternative, off("alternative_uncorrected", others[s]));
        }
      }
    }
    EXPECT_LT(worst, 0.1);
    EXPECT_LT(worst_alternative, 0.1);
    EXPECT_NEAR(corrected.correction, expected.at("flux_correction").get<double>(), 0.1);
    const json& headline = expected.at("reference_4Hx8H_corrected_70_50_20");
    EXPECT_NEAR(corrected.along_c0, headline[0].get<double>(), 0.1);
    EXPECT_NEAR(corrected.along_c90, headline[1].get<double>(), 0.1);
  }
}

TEST(GlareCases, ThereIsNoTableOfWhatHasNoLuminousArea) {
  photometry::Photometry p =
      reference::whole_photometry(reference::metric_cases("ugr-table").at(0).at("inputs"));
  p.area = {photometry::LuminousShape::rectangle, 0, 1.2, {}};
  EXPECT_EQ(cavity::no_ugr_table(p), cavity::NoTable::no_luminous_width);
  p.area = {};
  EXPECT_EQ(cavity::no_ugr_table(p), cavity::NoTable::no_luminous_size);
}

TEST(GlareCases, UtilisationFactors) {
  const auto all = reference::metric_cases("uf-");
  ASSERT_EQ(all.size(), 5u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &expected = c.at("expected"), &rho = in.at("rho_ceiling_walls_plane");
    const photometry::Photometry p = reference::whole_photometry(in);
    const cavity::Cavity cavity{in.at("L"), in.at("W"), in.at("hm")};
    const cavity::FluxShares direct = cavity::direct_shares(p.table, cavity);
    const cavity::FluxShares shares = cavity::total_shares(direct, cavity, {rho[0], rho[1], rho[2]});
    const double ratio = cavity::output_ratio(p);
    const double down = 1 - p.table.upward_flux() / p.flux_lm();
    expect_near(cavity.index(), expected.at("k"), 0.01, "k");
    expect_near(direct.bottom / down, expected.at("direct_ratio"), 0.01, "direct ratio");
    expect_near(ratio * shares.bottom, expected.at("UF"), 0.01, "UF");
    expect_near(ratio * shares.walls, expected.at("UF_walls"), 0.01, "UF of the walls");
    expect_near(ratio * shares.top, expected.at("UF_ceiling"), 0.01, "UF of the ceiling");
  }
}

TEST(GlareCases, ShieldingAngles) {
  const auto all = reference::metric_cases("shield-");
  ASSERT_EQ(all.size(), 5u);
  for (const json& c : all) {
    SCOPED_TRACE(c.at("id").get<std::string>());
    const json &in = c.at("inputs"), &expected = c.at("expected");
    if (in.contains("lamp_luminance")) {
      EXPECT_EQ(standards::required_shielding_angle(in.at("lamp_luminance")), expected.at("angle"));
      continue;
    }
    const double angle = standards::shielding_angle(in.at("depth"), in.at("opening"));
    EXPECT_NEAR(angle, expected.at("shielding_angle").get<double>(), 0.01);
    EXPECT_NEAR(90 - angle, expected.at("cut_off_angle_from_vertical").get<double>(), 0.01);
  }
}

}  // namespace glare_cases_test
}  // namespace glow
