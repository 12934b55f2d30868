// Vectors that add up to vectors at once are the library's in all they give, to the last bit.
#include "core/geometry/vec.hpp"

#include <gtest/gtest.h>

#include <random>
#include <type_traits>

namespace glow {
namespace vec_test {

template <class Vec>
class VecTest : public ::testing::Test {
 protected:
  using Library = std::conditional_t<std::is_same_v<Vec, Vec2>, Eigen::Vector2d, Eigen::Vector3d>;

  Vec any() {
    Vec v;
    for (Eigen::Index i = 0; i < v.size(); ++i) v[i] = draw_(random_);
    return v;
  }

 private:
  std::mt19937 random_{7};
  std::uniform_real_distribution<double> draw_{-3, 3};
};

using Kinds = ::testing::Types<Vec2, Vec3>;
TYPED_TEST_SUITE(VecTest, Kinds);

TYPED_TEST(VecTest, ReckonsAsTheLibraryDoes) {
  using Of = typename TestFixture::Library;
  for (int i = 0; i < 1000; ++i) {
    const TypeParam a = this->any(), b = this->any();
    const Of p = a, q = b;
    const double f = a.x();
    EXPECT_EQ(Of(a + b), Of(p + q));
    EXPECT_EQ(Of(a - b), Of(p - q));
    EXPECT_EQ(Of(-a), Of(-p));
    EXPECT_EQ(Of(f * b), Of(f * q));
    EXPECT_EQ(Of(b * f), Of(q * f));
    EXPECT_EQ(Of(b / f), Of(q / f));
    EXPECT_EQ(Of(3 * b / 7), Of(3 * q / 7));
    EXPECT_EQ(Of(b * 3), Of(q * 3));
    EXPECT_EQ(a.dot(b), p.dot(q));
    EXPECT_EQ(a.squaredNorm(), p.squaredNorm());
    EXPECT_EQ(a.norm(), p.norm());
    EXPECT_EQ(Of(a.normalized()), Of(p.normalized()));
    EXPECT_EQ(Of(a.cwiseMin(b)), Of(p.cwiseMin(q)));
    EXPECT_EQ(Of(a.cwiseMax(b)), Of(p.cwiseMax(q)));
    EXPECT_EQ(Of(a.cwiseMin(f)), Of(p.cwiseMin(f)));
    EXPECT_EQ(Of(a.cwiseMax(f)), Of(p.cwiseMax(f)));
    EXPECT_EQ(Of(a.cwiseProduct(b)), Of(p.cwiseProduct(q)));
    EXPECT_EQ(Of(a.cwiseQuotient(b)), Of(p.cwiseQuotient(q)));
    EXPECT_EQ(Of(a.cwiseAbs()), Of(p.cwiseAbs()));
  }
}

TYPED_TEST(VecTest, ChangesInPlace) {
  const TypeParam a = this->any(), b = this->any();
  TypeParam v = a;
  EXPECT_EQ(v += b, a + b);
  EXPECT_EQ(v -= b, a + b - b);
  v = a;
  EXPECT_EQ(v *= 2, a + a);
  EXPECT_EQ(v /= 2, a);
  EXPECT_NE(v += v, a);
}

TYPED_TEST(VecTest, OfNoLengthStaysSo) {
  EXPECT_EQ(TypeParam::Zero().normalized(), TypeParam::Zero());
}

TYPED_TEST(VecTest, TakesWhatTheLibraryGives) {
  const TypeParam a = this->any();
  const TypeParam more = a.array() + 1, ones = TestFixture::Library::Ones();
  EXPECT_EQ(more, a + TypeParam::Ones());
  EXPECT_EQ(ones, TypeParam::Constant(1));
  EXPECT_EQ(TypeParam::UnitX() + TypeParam::UnitY(),
            TypeParam(TestFixture::Library::Unit(0) + TestFixture::Library::Unit(1)));
}

TEST(Vec3, HasAProductAndAPlaceInPlan) {
  const Vec3 a(1, 2, 3), b(-2, 0.5, 7);
  EXPECT_EQ(Vec3::UnitX().cross(Vec3::UnitY()), Vec3::UnitZ());
  EXPECT_EQ(Eigen::Vector3d(a.cross(b)), Eigen::Vector3d(a).cross(Eigen::Vector3d(b)));
  EXPECT_EQ(a.xy(), Vec2(1, 2));
}

}  // namespace vec_test
}  // namespace glow
