// Derived photometric values against the cases of metrics.json.
#include "core/photometry/derived.hpp"

#include <gtest/gtest.h>

#include "files/photometry/photometry_reader.hpp"
#include "validation/metric_cases.hpp"

namespace glow::photometry {
namespace derived_test {

using nlohmann::json;

/// The luminaires' files; a sphere exists in LM-63 only.
std::vector<std::pair<json, std::string>> cases() {
  std::vector<std::pair<json, std::string>> found;
  for (const json& c : reference::metrics().at("cases")) {
    if (c.at("id").get<std::string>().rfind("photometry-", 0) != 0) continue;
    const std::string name = c.at("inputs").at("photometry");
    for (const char* suffix : {".ies", ".ldt"}) {
      const std::string path = test::test_data("validation/luminaires/") + name + suffix;
      if (std::filesystem::exists(path)) found.emplace_back(c, path);
    }
  }
  return found;
}

Photometry read(const std::string& path) {
  Problems problems;
  auto photometry = files::read_photometry(test::content_of(path), path, problems);
  EXPECT_TRUE(photometry) << to_string(problems.all().at(0));
  return *photometry;
}

double tolerance(const json& tolerances, const std::string& key, double expected) {
  const json& t = tolerances.contains(key) ? tolerances[key] : tolerances.at("*");
  return t.value("abs", 0.0) + t.value("rel", 0.0) * std::abs(expected);
}

void expect_edges(const IntensityTable& table, const json& c, const std::string& plane, const char* name,
                  double share) {
  const json& expected = c.at("expected").at("divergence").at(plane).at(name);
  const auto edges = beam_edges(table, std::stod(plane.substr(1)), share);
  ASSERT_EQ(edges.has_value(), !expected.is_null()) << plane << " " << name;
  if (!edges) return;
  const double allowed = tolerance(c.at("tolerance"), "divergence", 0);
  EXPECT_NEAR(edges->left_deg, expected.at("left").get<double>(), allowed) << plane << " " << name;
  EXPECT_NEAR(edges->right_deg, expected.at("right").get<double>(), allowed) << plane << " " << name;
}

void expect_luminances(const Photometry& p, const json& c) {
  const json& planes = c.at("expected").at("luminance_C");
  const json& expected = c.at("expected").at("luminance_65_75_85");
  for (std::size_t i = 0; i < planes.size(); ++i)
    for (std::size_t k = 0; k < 3; ++k) {
      const double value = expected[i][k];
      EXPECT_NEAR(mean_luminance(p, planes[i], 65 + 10.0 * double(k)).value_or(-1), value,
                  tolerance(c.at("tolerance"), "luminance", value) + 1e-6)
          << planes[i] << " " << k;
    }
  const double most = c.at("expected").at("max_luminance_65_to_85");
  EXPECT_NEAR(max_luminance_above_65(p).value_or(-1), most, 0.01 * most);
}

TEST(Derived, AgreeWithTheReferenceLuminairesInBothFormats) {
  ASSERT_EQ(cases().size(), 15u);
  for (const auto& [c, path] : cases()) {
    SCOPED_TRACE(path.substr(path.rfind('/')));
    const Photometry p = read(path);
    const json& expected = c.at("expected");
    EXPECT_NEAR(p.flux_lm(), expected.at("flux_lm").get<double>(), 0.005 * p.flux_lm());
    const auto code = flux_code(p);
    ASSERT_TRUE(code && code->n5);
    const double ours[] = {code->n1, code->n2, code->n3, code->n4, *code->n5};
    for (std::size_t i = 0; i < 5; ++i)
      EXPECT_NEAR(ours[i], expected.at("flux_code")[i].get<double>(), 0.5) << i;
    for (std::size_t zone = 0; zone < 18; ++zone) {
      const double lm = expected.at("zonal_lumens_per_klm")[zone];
      EXPECT_NEAR(
          flux_between(p.table, 10.0 * double(zone), 10.0 * double(zone + 1)) / *p.lamp_flux_lm * 1000, lm,
          0.02 * lm + 1);
    }
    if (!expected.at("divergence").is_null())
      for (const auto& [plane, ignored] : expected.at("divergence").items()) {
        expect_edges(p.table, c, plane, "beam_50_peak", 0.5);
        expect_edges(p.table, c, plane, "field_10_peak", 0.1);
      }
    expect_luminances(p, c);
    const json& spacing = expected.at("spacing_criterion");
    EXPECT_NEAR(spacing_criterion(p.table, 0).value_or(-1), spacing.at("along_C0").get<double>(), 0.02);
    EXPECT_NEAR(spacing_criterion(p.table, 90).value_or(-1), spacing.at("along_C90").get<double>(), 0.02);
  }
}

TEST(Derived, AgreeWithClosedForms) {
  for (const json& c : reference::metrics().at("cases")) {
    if (c.at("id").get<std::string>().rfind("closed-form-", 0) != 0) continue;
    SCOPED_TRACE(c.at("id").get<std::string>());
    std::vector<double> gammas, candela;
    for (int g = 0; g <= 180; ++g) gammas.push_back(0.5 * g);
    for (const double g : gammas)
      candela.push_back(c.at("inputs").at("I0").get<double>() *
                        std::pow(std::max(0.0, std::cos(g * kDegree)), c.at("inputs").at("n").get<double>()));
    const IntensityTable table({0}, gammas, candela);
    const json& expected = c.at("expected");
    const auto near = [](double value, const json& e) {
      EXPECT_NEAR(value, e.get<double>(), 0.003 * e.get<double>());
    };
    near(table.flux(), expected.at("flux_per_klm"));
    near(beam_edges(table, 0, 0.5)->width_deg(), expected.at("beam_50"));
    near(beam_edges(table, 0, 0.1)->width_deg(), expected.at("field_10"));
    Photometry p{"", "", "", "", "", "", {}, false, 1000.0, {}, {}, {}, Symmetry::rotational, table, {}, {}};
    const auto code = flux_code(p);
    near(code->n1, expected.at("flux_code_1_4")[0]);
    near(code->n2, expected.at("flux_code_1_4")[1]);
    near(code->n3, expected.at("flux_code_1_4")[2]);
  }
}

struct Kind {
  const char* file;
  const char* kind;
  Symmetry found;
};

TEST(Derived, NameTheKindAndTheSymmetryOfTheDistribution) {
  for (const Kind& k : {Kind{"O1.ies", "direct, wide beam", Symmetry::rotational},
                        Kind{"O2.ldt", "direct, batwing", Symmetry::quadrant},
                        Kind{"O4.ies", "direct, medium beam", Symmetry::rotational},
                        Kind{"O5.ldt", "direct, asymmetric", Symmetry::about_c0},
                        Kind{"O7.ies", "direct-indirect, spread out", Symmetry::rotational}}) {
    const Photometry p = read(test::test_data("validation/luminaires/") + k.file);
    EXPECT_EQ(kind_of_distribution(p.table), k.kind) << k.file;
    EXPECT_EQ(symmetry_found(p.table), k.found) << k.file;
  }
}

}  // namespace derived_test
}  // namespace glow::photometry
