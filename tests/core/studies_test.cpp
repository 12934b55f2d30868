// What a room would be like with one thing changed, why checks fail, and how surely built rooms meet them.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include "core/photometry/placed_luminaire.hpp"
#include "core/studies/explanation.hpp"
#include "core/studies/trials.hpp"
#include "rooms/furnished_room.hpp"
#include "rooms/planned_room.hpp"
#include "words/findings.hpp"

namespace glow {
namespace studies_test {

using space::GridRole;

geometry::Polygon box(double x, double y, double dx, double dy) {
  return {{x, y}, {x + dx, y}, {x + dx, y + dy}, {x, y + dy}};
}

/// The furnished office as a room with one group.
space::Space office() {
  const rooms::TestRoom source = rooms::furnished_room();
  space::Space room;
  room.name = "Office";
  room.outline = box(0, 0, 6, 5);
  room.height_m = 2.8;
  room.floor_area_m2 = 30;
  room.geometry = source.geometry;
  room.wall_names = {"wall 1", "wall 2", "wall 3", "wall 4"};
  room.reflectances = {0.7, 0.5, 0.2};
  room.groups.emplace_back();
  room.groups[0].mark = "A";
  room.groups[0].photometry =
      std::make_shared<photometry::Photometry>(photometry::Photometry{{},
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      false,
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      {},
                                                                      *source.luminaires[0].table,
                                                                      source.luminaires[0].area,
                                                                      {}});
  room.groups[0].luminaires = source.luminaires;
  room.groups[0].array = model::Array{2, 3, {}, {}};
  room.grids.push_back({"work plane", GridRole::work_plane, readings::Kernel::plane, Vec3::UnitX(),
                        *readings::plane_grid(room.outline, 0.8, 0.5, 0.6)});
  return room;
}

/// The same, its work plane held against a mean of 0 lx and a U0 of 0 unless the test says otherwise.
struct Office : rooms::PlannedTestRoom {
  explicit Office(space::Space space = office()) {
    take(std::move(space), 0.8);
    planned.brief.grids[0].demands.resize(2);
    planned.brief.grids[0].demands[1].quantity = standards::Quantity::uniformity;
  }
  std::vector<standards::Demand>& demands() { return planned.brief.grids[0].demands; }
};

/// A room lit and judged, ready for trials.
struct Studied {
  Office office;
  Watch watch;
  assess::ReadingPlan plan;
  transport::Transport transport;
  assess::Setting setting;
  lighting::Lighting lighting;
  assess::LitRoom lit;
  assess::SeenFromEyes eyes;
  assess::Assessment assessment;
  studies::StudiedRoom room{setting, eyes, lighting, lit, assessment, watch};
  studies::Trials trials{room};

  explicit Studied(space::Space space = studies_test::office(), transport::TransportStore* store = nullptr)
      : office(std::move(space)),
        plan(assess::ReadingPlan::whole(office.planned.space, office.planned.brief)),
        transport(office.planned.space.geometry, plan.receivers, {}, {}),
        setting(office.planned.space, office.planned.brief, plan, transport),
        lighting(office.planned.space, transport, {}, store, "office"),
        lit{&office.planned.space.groups,
            lighting::planned_weights(office.project, office.room, office.planned.space),
            {}},
        eyes(setting, {}) {
    lit.light = lighting.weighted(lit.weights);
    assessment = assess::assess(setting, eyes, lit, nullptr, {}, {});
  }
};

void expect_alike(const studies::Trial& a, const studies::Trial& b, double tolerance) {
  const lighting::RoomLight &x = a.lit.light, &y = b.lit.light;
  ASSERT_EQ(x.maintained.direct_lx.size(), y.maintained.direct_lx.size());
  for (std::size_t i = 0; i < x.maintained.direct_lx.size(); ++i) {
    const double lux = y.maintained.total_lx(i);
    // Light that is taken away and added again carries its errors both times.
    const double doubt = x.maintained.direct_error_lx[i] + y.maintained.direct_error_lx[i];
    EXPECT_NEAR(x.maintained.total_lx(i), lux, tolerance * std::max(1.0, lux) + doubt) << i;
    EXPECT_NEAR(x.initial_lx[i], y.initial_lx[i], tolerance * std::max(1.0, y.initial_lx[i]) + 2 * doubt)
        << i;
  }
}

/// Holds light, and counts how much was found anew.
struct CountingStore : transport::TransportStore {
  std::map<std::string, std::shared_ptr<const transport::GroupLight>> lights;
  int held = 0;

  std::optional<transport::TracedHits> find(const std::string&) override { return std::nullopt; }
  void keep(const std::string&, const transport::TracedHits&) override {}
  std::shared_ptr<const transport::GroupLight> held_light(const std::string& key) override {
    const auto found = lights.find(key);
    return found == lights.end() ? nullptr : found->second;
  }
  void hold_light(const std::string& key,
                  const std::shared_ptr<const transport::GroupLight>& light) override {
    lights[key] = light;
    ++held;
  }
};

/// As variants of a project do that dim the same luminaires otherwise: what one has tried the next knows, and
/// what it gets is what it would find by itself. Another place, lobe or flux is another trial.
TEST(Trials, AreKnownFromAnotherVariant) {
  CountingStore store;
  const Studied alone, first(office(), &store), second(office(), &store);
  EXPECT_EQ(store.held, 1) << "one group, the same in both";
  photometry::PlacedLuminaire more = alone.office.planned.space.groups[0].luminaires.front();
  more.frame.origin = {3, 2.5, 2.7};
  const auto wider = studies::even_lobe(3000, 60);
  const auto all_of = [&](const studies::Trials& trials) {
    std::vector<studies::Trial> made;
    made.push_back(trials.with_group(0, {more}, 1));
    made.push_back(trials.with_one_more(0, more));
    made.push_back(trials.with_tables({{0, wider}}));
    made.push_back(trials.with_groups(alone.office.planned.space.groups));
    return made;
  };
  const auto by_itself = all_of(alone.trials), found = all_of(first.trials);
  const int after_first = store.held;
  EXPECT_EQ(after_first, 4) << "the group; one elsewhere, twice; a lobe; all as they are";
  const auto known = all_of(second.trials);
  EXPECT_EQ(store.held, after_first);
  for (std::size_t t = 0; t < known.size(); ++t)
    for (const auto* made : {&found, &known})
      EXPECT_EQ((*made)[t].lit.light.initial_lx, by_itself[t].lit.light.initial_lx) << t;
  more.frame.origin.x() += 0.1;
  second.trials.with_one_more(0, more);
  second.trials.with_tables({{0, studies::even_lobe(3000, 45)}});
  EXPECT_EQ(store.held, after_first + 2);
}

TEST(Trials, AreWhatTheChangedRoomWouldBe) {
  using geometry::SurfaceRole;
  const Studied room;
  const studies::Trials& trials = room.trials;
  const std::vector<space::LuminaireGroup>& groups = room.office.planned.space.groups;
  const studies::Trial before = trials.as_it_is();
  expect_alike(trials.with_finishes({}), before, 1e-4);
  expect_alike(trials.with_finishes({{SurfaceRole::wall, 0}}), before, 1e-4);
  expect_alike(trials.with_group(0, groups[0].luminaires, 1), before, 1e-6);
  expect_alike(trials.with_groups(groups), before, 1e-6);
  expect_alike(trials.with_weights(room.lit.weights), before, 1e-9);
  // Against the whole calculation of a room with brighter walls.
  space::Space brighter = office(), plain = office();
  brighter.geometry = plain.geometry = {};
  geometry::add_room(brighter.geometry, brighter.outline, 2.8, 0.2, 0.8, 0.7);
  geometry::add_room(plain.geometry, plain.outline, 2.8, 0.2, 0.5, 0.7);
  const Studied plain_room(std::move(plain)), bright_room(std::move(brighter));
  expect_alike(plain_room.trials.with_finishes({{SurfaceRole::wall, 0.3}}), bright_room.trials.as_it_is(),
               1e-3);
  // One more luminaire is the room with seven.
  space::Space seven = office();
  photometry::PlacedLuminaire more = seven.groups[0].luminaires.front();
  more.frame.origin = {3, 2.5, 2.7};
  seven.groups[0].luminaires.push_back(more);
  const Studied seven_room(std::move(seven));
  expect_alike(trials.with_one_more(0, more), seven_room.trials.as_it_is(), 1e-4);
  // A lobe keeps its flux.
  EXPECT_NEAR(studies::even_lobe(1000, 45)->flux(), 1000, 1e-6);
  EXPECT_NEAR(studies::even_lobe(1000, 60)->intensity(0, 60),
              studies::even_lobe(1000, 60)->intensity(0, 0) / 2, 1);
}

/// A part of the ceiling that hangs lower is ceiling too.
TEST(Trials, BrightenTheWholeCeilingOfASteppedOne) {
  using geometry::SurfaceRole;
  space::Space flat = office(), stepped = office();
  stepped.geometry.add_block("lower ceiling", box(0, 0, 3, 5), 2.75, 2.8, {0.3}, SurfaceRole::ceiling);
  const Studied room(std::move(stepped));
  const auto gain = [&](SurfaceRole role) {
    const studies::Trial after = room.trials.with_finishes({{role, 0.3}});
    double lux = 0;
    for (const std::size_t r : room.setting.judged()[0].receivers)
      lux += after.lit.light.maintained.total_lx(r) - room.lit.light.maintained.total_lx(r);
    return lux / double(room.setting.judged()[0].receivers.size());
  };
  EXPECT_GT(gain(SurfaceRole::ceiling), 0.5);
  EXPECT_NEAR(gain(SurfaceRole::object), 0, 40);
}

/// What a change costs elsewhere is told with it, glare included.
TEST(Trials, TellWhatElseWouldBreak) {
  space::Space space = office();
  space::EyeSet set;
  set.name = "clerk";
  set.height_m = 1.2;
  set.positions = {{1, 2.5, 1.2}};
  set.looking = {"0 deg"};
  set.azimuths_deg = {0};
  space.eyes = {set};
  rooms::PlannedTestRoom room;
  room.take(space, 0.8);
  room.planned.brief.glare.rates_ugr = true;
  room.planned.brief.grids[0].demands = {standards::Demand{}};
  room.planned.brief.grids[0].demands[0].required = 1;
  const record::RoomRecord free = room.compute("draft");
  const auto ugr = free.assessment.glare.sets[0].views[0].ugr;
  ASSERT_TRUE(ugr);
  // More flux than now by half, and a limit of UGR that holds now and not then: 8 lg 1.5 = 1.4.
  standards::Demand limit;
  limit.quantity = standards::Quantity::unified_glare;
  limit.required = *ugr + 0.7;
  room.planned.brief.glare.limits = {limit};
  room.planned.brief.glare.method = model::GlareMethod::eyes;
  room.planned.brief.grids[0].demands[0].required = 1.5 * free.assessment.grids[0].statistics.mean_lx;
  const record::RoomRecord asked = room.compute("draft");
  ASSERT_EQ(asked.assessment.checks[0].verdict, standards::Verdict::not_met);
  ASSERT_EQ(asked.assessment.checks[1].verdict, standards::Verdict::met);
  const studies::Mend* flux = nullptr;
  for (const studies::Mend& mend : asked.explanations[0].mends)
    if (std::holds_alternative<studies::TimesFlux>(mend.change)) flux = &mend;
  ASSERT_TRUE(flux);
  ASSERT_EQ(flux->breaks.size(), 1u);
  EXPECT_EQ(flux->breaks[0].target, (standards::Target{standards::Target::Kind::eyes, 0}));
  // A little more flux, for what the mean is uncertain by.
  const double factor = std::get<studies::TimesFlux>(flux->change).factor;
  EXPECT_GE(factor, 1.5);
  EXPECT_LT(factor, 1.55);
  EXPECT_NEAR(flux->breaks[0].actual, *ugr + 8 * std::log10(factor), 0.01);
  EXPECT_FALSE(flux->does_alone());
}

TEST(Explanation, FactorOnFluxSurelyMeetsTheMean) {
  Office room;
  room.demands()[0].required = 5000;
  room.demands()[1].required = 0.99;
  const record::RoomRecord record = room.compute("draft");
  ASSERT_EQ(record.assessment.checks.size(), 2u);
  const std::vector<std::string> help = words::help(record, 0, {});
  ASSERT_FALSE(words::why(record, 0, {}).empty());
  ASSERT_FALSE(help.empty());
  const double factor = std::stod(help[0]);
  EXPECT_NE(help[0].find("times the flux of all luminaires"), std::string::npos);
  // Of evenness it says what spacing, width, one more and paint would do, each with a value.
  const auto together = [](const std::vector<std::string>& sentences) {
    std::string all;
    for (const std::string& words : sentences) all += words + "\n";
    return all;
  };
  const std::string all = together(words::help(record, 1, {})), why = together(words::why(record, 1, {}));
  for (const char* words :
       {"A in 3 x 4 instead of 2 x 3, each with 50 % of the flux: U0 0.", "walls brighter by 0.2: U0 0."})
    EXPECT_NE(all.find(words), std::string::npos) << all;
  for (const char* words : {"the lowest", "the luminaire nearest to them, A at", "straight from luminaires",
                            "with walls darker by 0.2 it would be 0."})
    EXPECT_NE(why.find(words), std::string::npos) << why;
  room.room.luminaires[0].dimming = factor;
  EXPECT_EQ(room.compute("draft").assessment.checks[0].verdict, standards::Verdict::met);
}

TEST(Explanation, SaysWhatIsWasted) {
  space::Space space = office();
  photometry::Photometry copy = *space.groups[0].photometry;
  copy.watts = 10;
  space.groups[0].photometry = std::make_shared<photometry::Photometry>(copy);
  Office room(std::move(space));
  room.demands()[0].required = 100;
  const record::RoomRecord record = room.compute("draft");
  const std::vector<std::string> why = words::why(record, 0, {});
  ASSERT_EQ(why.size(), 2u);
  const double share = std::ceil(100 * 100 / record.assessment.checks[0].actual);
  EXPECT_EQ(
      why[1].rfind(fmt::format(FMT_STRING("dimmed to {:.0f} % all levels that are met stay met"), share), 0),
      0u)
      << why[1];
  EXPECT_NE(why[1].find("of 60 W are more than needed"), std::string::npos);
}

TEST(Tolerance, IsAsWideAsWhatIsStatedAndRepeats) {
  Office room;
  const double mean = room.compute("draft").assessment.grids[0].statistics.mean_lx;
  const auto study = [&](double required, const model::ToleranceWish& wish) {
    room.demands()[0].required = required;
    return *room.compute("draft", {wish}).tolerance;
  };
  model::ToleranceWish none;
  none.samples = 20;
  none.flux = none.maintenance = none.reflectance = none.mounting_m = 0;
  const auto sure = study(0.9 * mean, none), hopeless = study(1.1 * mean, none);
  EXPECT_EQ(sure.checks[0]->share, 1);
  EXPECT_NEAR(sure.checks[0]->low, mean, 1e-3 * mean);
  EXPECT_EQ(hopeless.checks[0]->share, 0);
  EXPECT_EQ(hopeless.share, 0);
  // Flux alone: half of the rooms lie above the planned mean, 90 % within 1.645 standard deviations.
  model::ToleranceWish flux = none;
  flux.samples = 2000;
  flux.flux = 0.05;
  const auto tolerance = study(mean, flux);
  EXPECT_NEAR(tolerance.checks[0]->share, 0.5, 0.04);
  EXPECT_NEAR(tolerance.checks[0]->high / mean, 1 + 1.645 * 0.05, 0.006);
  EXPECT_NEAR(tolerance.checks[0]->low / mean, 1 - 1.645 * 0.05, 0.006);
  EXPECT_EQ(study(mean, flux).checks[0]->share, tolerance.checks[0]->share);
  // Places alone change little in a mean, and something in U0; brighter or darker surfaces do more.
  model::ToleranceWish moved = none, painted = none;
  moved.samples = painted.samples = 100;
  moved.mounting_m = 0.1;
  painted.reflectance = 0.05;
  const auto by_place = study(mean, moved), by_paint = study(mean, painted);
  const auto width = [](const studies::RoomTolerance& t, std::size_t check) {
    return t.checks[check]->high - t.checks[check]->low;
  };
  EXPECT_GT(width(by_place, 1), 0.002);
  EXPECT_GT(width(by_paint, 0), 0.02 * mean);
  EXPECT_LT(width(by_paint, 0), 0.3 * mean);
}

}  // namespace studies_test
}  // namespace glow
