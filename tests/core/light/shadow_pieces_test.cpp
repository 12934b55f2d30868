#include "core/sources/direct/shadow_pieces.hpp"
#include "core/sources/luminaire_inflow.hpp"

#include <gtest/gtest.h>

#include <numeric>

#include "core/transport/tracing/sampling.hpp"

namespace glow::transport {

using namespace readings;
using namespace sources;
namespace shadow_pieces_test {

using geometry::Polygon;

const Polygon kSquare = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}};

double area_of(const std::vector<Polygon>& pieces) {
  return std::accumulate(pieces.begin(), pieces.end(), 0.0,
                         [](double sum, const Polygon& piece) { return sum + geometry::signed_area(piece); });
}

struct Cut {
  const char* what;
  std::vector<ShadowEdge> edges;
  std::size_t pieces;
};

class Pieces : public testing::TestWithParam<Cut> {};

TEST_P(Pieces, FillTheWhole) {
  const auto pieces = pieces_between(kSquare, GetParam().edges);
  EXPECT_EQ(pieces.size(), GetParam().pieces);
  EXPECT_NEAR(area_of(pieces), 4, 1e-8);
  for (const Polygon& piece : pieces) {
    EXPECT_GT(geometry::signed_area(piece), 0);
    EXPECT_TRUE(geometry::contains(piece, middle_of(piece)));
  }
}

INSTANTIATE_TEST_SUITE_P(Cuts, Pieces,
                         testing::Values(Cut{"none", {}, 1}, Cut{"beside", {{{2, -3}, {2, 3}}}, 1},
                                         Cut{"along a side", {{{1, -3}, {1, 3}}}, 1},
                                         Cut{"through", {{{0.2, -3}, {0.2, 3}}}, 2},
                                         Cut{"ends inside", {{{0.2, -3}, {0.2, 0}}}, 2},
                                         Cut{"the same twice", {{{0, -3}, {0, 3}}, {{0, 3}, {0, -3}}}, 2},
                                         Cut{"a cross", {{{0, -3}, {0, 3}}, {{-3, 0}, {3, 0}}}, 4},
                                         Cut{"a strip", {{{-0.1, -3}, {-0.1, 3}}, {{0.1, -3}, {0.1, 3}}}, 3},
                                         Cut{"a corner", {{{0, 0}, {0, 3}}, {{0, 0}, {3, 0}}}, 3},
                                         Cut{"of no length", {{{0, 0}, {0, 0}}}, 1}),
                         [](const auto& cut) {
                           std::string name = cut.param.what;
                           std::replace(name.begin(), name.end(), ' ', '_');
                           return name;
                         });

/// Whatever the edges, none runs through a piece: spots of one piece lie on the same side of each edge that
/// it could see.
TEST(PiecesBetweenChanceEdges, NoEdgeRunsThroughThem) {
  for (std::uint64_t seed = 0; seed < 20; ++seed) {
    std::vector<ShadowEdge> edges;
    auto number = [&, k = std::uint64_t{0}]() mutable { return 4 * unit_interval(mixed(seed, k++)) - 2; };
    for (int k = 0; k < 12; ++k) {
      const double ax = number(), ay = number(), bx = number(), by = number();
      edges.push_back({{ax, ay}, {bx, by}});
    }
    const auto pieces = pieces_between(kSquare, edges);
    EXPECT_NEAR(area_of(pieces), 4, 1e-7);
    for (const Polygon& piece : pieces)
      for (const ShadowEdge& edge : edges)
        for (double t = 0.005; t < 1; t += 0.01) {
          const Vec2 spot = edge.a + t * (edge.b - edge.a);
          if (!geometry::contains(piece, spot)) continue;
          double nearest = 1e30;
          for (std::size_t k = 0; k < piece.size(); ++k) {
            const Vec2 side = piece[(k + 1) % piece.size()] - piece[k], way = spot - piece[k];
            if (side.norm() > 1e-12)
              nearest = std::min(nearest, std::abs(side.x() * way.y() - side.y() * way.x()) / side.norm());
          }
          EXPECT_LT(nearest, 1e-4) << seed;
        }
  }
}

}  // namespace shadow_pieces_test
}  // namespace glow::transport
