// The energy of a year drawn, from made-up months and zones, without computing.
#include "figures/daylight/energy_figure.hpp"

#include <gtest/gtest.h>

#include <cstdio>
#include <pugixml.hpp>

namespace glow::figures {
namespace energy_figure_test {

/// A year that takes these kWh in every month and `uncontrolled` in all without control, in so many zones.
studies::RoomEnergy energy_of(double month_kwh, double uncontrolled_kwh, int zones) {
  studies::RoomEnergy energy;
  energy.area_m2 = 1;
  energy.price = 0.5;
  energy.currency = "EUR";
  studies::RoomEnergy::Hourly year;
  year.kwh = 12 * month_kwh;
  year.uncontrolled_kwh = uncontrolled_kwh;
  year.by_month_kwh.fill(month_kwh);
  year.by_day_kwh.assign(365, month_kwh / 30);
  year.daylight_by_day_lx.assign(365, 800);
  year.power_w.assign(daylight::kHoursOfYear, 100);
  for (int z = 0; z < zones; ++z) {
    studies::ZoneEnergy zone;
    zone.name = "zone " + std::to_string(z);
    zone.control = "dimmed by daylight";
    zone.watts = 100;
    year.zones.push_back(zone);
  }
  energy.hourly = year;
  return energy;
}

/// The figure, and every text of it.
struct Drawn {
  pugi::xml_document svg;
  std::vector<pugi::xml_node> texts;

  explicit Drawn(const studies::RoomEnergy& energy) {
    record::RoomRecord room;
    room.name = "closet";
    room.outline = {{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    room.height_m = 2.4;
    EXPECT_TRUE(svg.load_string(energy_svg({&room, {}, {}, {}}, energy).c_str()));
    for (const pugi::xpath_node& node : svg.select_nodes("//*[local-name()='text']"))
      texts.push_back(node.node());
  }
  int count(const std::string& words) const {
    int found = 0;
    for (const pugi::xml_node& text : texts) found += words == text.text().as_string();
    return found;
  }
  bool says(const std::string& words) const {
    for (const pugi::xml_node& text : texts)
      if (std::string(text.text().as_string()).find(words) != std::string::npos) return true;
    return false;
  }
};

TEST(EnergyFigure, WritesTheMonthsOfASmallRoomWithADecimal) {
  const Drawn small(energy_of(0.4, 9.6, 1)), large(energy_of(154, 2000, 1));
  EXPECT_EQ(small.count("0.4"), 12);
  EXPECT_EQ(small.count("4.8 kWh"), 1);
  EXPECT_EQ(small.count("2.4 EUR"), 1);
  EXPECT_TRUE(small.says("saves 50 %"));
  EXPECT_EQ(large.count("154"), 12);
}

TEST(EnergyFigure, NamesTwoZonesAndCountsMore) {
  EXPECT_TRUE(Drawn(energy_of(10, 240, 2)).says("zone 1: 100 W, dimmed by daylight"));
  const Drawn many(energy_of(10, 240, 8));
  EXPECT_TRUE(many.says("8 zones of 800 W in all"));
  EXPECT_FALSE(many.says("zone 1:"));
}

/// Control that saves 3 % has its line in the middle of the numbers on the bars.
TEST(EnergyFigure, KeepsTheLineWithoutControlOffTheNumbers) {
  for (const double saved : {0.0, 0.03, 0.1, 0.5}) {
    const Drawn drawn(energy_of(154, 12 * 154 / (1 - saved), 1));
    double line_y = 0;
    const pugi::xml_node line = drawn.svg.select_node("//*[local-name()='path'][@stroke='#8a4b2a']").node();
    std::sscanf(line.attribute("d").as_string(), "M80 %lf", &line_y);
    ASSERT_GT(line_y, 0);
    int numbers = 0;
    for (const pugi::xml_node& text : drawn.texts) {
      if (std::string("154") != text.text().as_string()) continue;
      ++numbers;
      const double foot = text.attribute("y").as_double(), head = foot - 9;
      EXPECT_TRUE(line_y >= foot + 2 || line_y <= head)
          << saved << ": line " << line_y << ", number " << foot;
    }
    EXPECT_EQ(numbers, 12) << saved;
  }
}

}  // namespace energy_figure_test
}  // namespace glow::figures
