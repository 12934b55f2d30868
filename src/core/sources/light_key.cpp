#include "core/sources/light_key.hpp"

#include "core/transport/content_key.hpp"

namespace glow::sources {
namespace {

class LightChecksum {
 public:
  void add(double number) { sum_.add(&number, sizeof number); }
  void add(const std::vector<double>& numbers) {
    add(double(numbers.size()));
    sum_.add(numbers.data(), numbers.size() * sizeof(double));
  }
  void add(const Vec3& v) { sum_.add(v.data(), 3 * sizeof(double)); }
  void add(const photometry::IntensityTable& table) {
    add(table.c_deg());
    add(table.gamma_deg());
    for (std::size_t c = 0; c < table.c_deg().size(); ++c)
      for (std::size_t g = 0; g < table.gamma_deg().size(); ++g) add(table.node(c, g));
  }
  std::string text() const { return sum_.text(); }

 private:
  transport::ContentChecksum sum_;
};

}  // namespace

std::string light_key(const std::vector<photometry::PlacedLuminaire>& luminaires) {
  LightChecksum sum;
  const photometry::IntensityTable* last = nullptr;
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    sum.add(luminaire.table.get() == last ? 1.0 : 0.0);
    if (luminaire.table.get() != last) sum.add(*luminaire.table);
    last = luminaire.table.get();
    const photometry::LuminousArea& area = luminaire.area;
    for (const double number :
         {double(area.shape), area.extent_c0_m, area.extent_c90_m, double(luminaire.owner)})
      sum.add(number);
    for (const double side : area.side_heights_m) sum.add(side);
    for (const Vec3& v :
         {luminaire.frame.origin, luminaire.frame.c0, luminaire.frame.c90, luminaire.frame.g0})
      sum.add(v);
  }
  return sum.text();
}

}  // namespace glow::sources
