#include "casting/settings.h"

#include "build/edit_casting.h"
#include "build/edit_drawing.h"
#include "casting/seat.h"
#include "casting/survey.h"
#include "sim/pedestal.h"

#include <gtest/gtest.h>

#include <random>

using namespace datrin;
using namespace datrin::build;

namespace {

/// A simulated pedestal as a build, its surfaces touched in three settings joined by five centre pops, every
/// reading off by a little.
struct ThreeSettings {
  explicit ThreeSettings(std::uint64_t seed, double sigma = 0.01) : random(seed), noise(0, sigma) {
    sim::PedestalOptions options;
    options.seed = seed;
    pedestal = sim::random_pedestal(options);
    EXPECT_TRUE(build.apply(add_part(build, "Pedestal").edit));
    part = build.parts().front().first;
    piece = build.pieces_of(part).front().first;
    for (std::size_t i = 0; i < pedestal.input.surfaces.size(); ++i) {
      const auto& s = pedestal.input.surfaces[i];
      PartSurface surface{part,
                          s.id,
                          s.shape.kind,
                          s.shape.point,
                          s.shape.direction,
                          s.shape.diameter,
                          pedestal.extent[i].x(),
                          pedestal.extent[i].y(),
                          s.machined,
                          s.required,
                          double(i)};
      surfaces.push_back(put(surface));
    }
    put(Wall{part, surfaces[6], surfaces[5], 5.0});
    const char* names[] = {"on its foot", "on its side", "on an angle plate"};
    std::uniform_real_distribution<double> any(-1, 1);
    for (int k = 0; k < 3; ++k) {
      put(Setting{piece, names[k], SettingFrame::own, double(k)});
      if (k > 0)
        frame[static_cast<std::size_t>(k)] = {
            rotation_from_vector({1.5 * any(random), 1.5 * any(random), 1.5 * any(random)}),
            {40 * any(random), 40 * any(random), 40 * any(random)}};
    }
    const Vec3 pops[] = {{-30, -12, 12}, {30, 12, 12}, {-28, 14, 11}, {4, -18, 50}, {6, 17, 48}};
    for (std::size_t k = 0; k < 3; ++k)
      for (int m = 0; m < 5; ++m)
        put(Mark{piece, names[k], std::string(1, char('A' + m)), read(frame[k].apply(pops[m])), 2 * sigma,
                 double(m)});
    for (std::size_t i = 0; i < pedestal.input.points.size(); ++i) {
      const auto& p = pedestal.input.points[i];
      const std::size_t k = p.surface <= 2 ? 1 : p.surface <= 4 ? 2 : 0;
      Touch touch;
      touch.piece = piece;
      touch.surface = surfaces[static_cast<std::size_t>(p.surface)];
      touch.centre = read(frame[k].apply(p.xyz));
      touch.uncertainty = 2 * sigma;
      touch.setting = names[k];
      touch.order = double(i);
      touches.push_back(put(touch));
    }
  }

  Id put(Record record) {
    const auto id = build.next_id();
    EXPECT_TRUE(build.apply(add(build, std::move(record), "x")));
    return id;
  }
  Vec3 read(const Vec3& at) { return at + Vec3(noise(random), noise(random), noise(random)); }

  std::mt19937_64 random;
  std::normal_distribution<double> noise;
  sim::Pedestal pedestal;
  Build build;
  Id part = 0, piece = 0;
  std::vector<Id> surfaces, touches;
  std::array<Pose, 3> frame; ///< survey frame → frame of the setting
};

} // namespace

TEST(Settings, SimulatedSurveysInThreeSettingsComeBackWithinTheirUncertainty) {
  int within = 0, all = 0;
  for (std::uint64_t seed = 1; seed <= 20; ++seed) {
    ThreeSettings sim(seed);
    const auto input = casting::piece_input(sim.build, sim.piece);
    ASSERT_EQ(input.seat.points.size(), sim.pedestal.input.points.size());
    for (std::size_t i = 0; i < input.seat.points.size(); ++i) {
      const double off = (input.seat.points[i].xyz - sim.pedestal.input.points[i].xyz).norm();
      // The stated uncertainty is per coordinate; in space it is √3 of it.
      within += off <= std::sqrt(3.0) * input.seat.points[i].uncertainty ? 1 : 0;
      ++all;
    }
    for (const auto& setting : input.settings.list) {
      EXPECT_TRUE(setting.joined) << setting.message;
      EXPECT_FALSE(setting.doubtful()) << setting.message;
      EXPECT_LT(setting.registration.rms, 0.05);
    }
    const auto whole = casting::seat(sim.pedestal.input), joined = casting::seat(input.seat);
    EXPECT_NEAR(whole.margins.least, joined.margins.least, 0.15) << seed;
  }
  EXPECT_GE(within, 0.95 * all);
}

TEST(Settings, ASettingWithoutMarksIsLeftOutAndSaysSo) {
  ThreeSettings sim(3);
  std::vector<Id> gone;
  for (const auto& [id, mark] : sim.build.marks_of(sim.piece))
    if (mark.setting == "on its side" && mark.name > "B") gone.push_back(id);
  ASSERT_TRUE(sim.build.apply(remove_all(sim.build, gone, "x")));
  const auto input = casting::piece_input(sim.build, sim.piece);
  EXPECT_EQ(input.not_joined.size(), 36U);
  EXPECT_EQ(
      input.settings.find("on its side")->message,
      "not joined, its touches are left out: read 3 reference marks here and in another setting (2 so far, 2 "
      "of them known elsewhere)");
}

TEST(Settings, SettingsJoinInAChain) {
  ThreeSettings sim(4);
  // The first is not seen from the third: marks A and B there are taken away, leaving C D E; the second sees
  // all, the first only A B C.
  std::vector<Id> gone;
  for (const auto& [id, mark] : sim.build.marks_of(sim.piece))
    if ((mark.setting == "on an angle plate" && mark.name < "C") ||
        (mark.setting == "on its foot" && mark.name > "C"))
      gone.push_back(id);
  ASSERT_TRUE(sim.build.apply(remove_all(sim.build, gone, "x")));
  const auto settings = casting::join_settings(sim.build, sim.piece);
  for (const auto& setting : settings.list) EXPECT_TRUE(setting.joined) << setting.name << setting.message;
  EXPECT_EQ(settings.marks.size(), 5U);
}

TEST(Settings, HeightsAreUsedForWhatTheyKnow) {
  ThreeSettings sim(5);
  // The angle plate becomes a surface plate: x and y are unknown there.
  Build build;
  for (const auto& [id, record] : sim.build.records()) {
    std::optional<Record> changed;
    if (const auto* setting = record.as<Setting>(); setting && setting->name == "on an angle plate") {
      auto heights = *setting;
      heights.frame = SettingFrame::heights;
      changed = heights;
    }
    if (const auto* old = record.as<Mark>(); old && old->setting == "on an angle plate") {
      auto mark = *old;
      const auto k = static_cast<std::size_t>(mark.name[0] - 'A');
      const Vec3 pops[] = {{-30, -12, 12}, {30, 12, 12}, {-28, 14, 11}, {4, -18, 50}, {6, 17, 48}};
      // Cheek left down: up is the drawing's +y as the casting lies.
      mark.at = Vec3(0, 0, sim.pedestal.truth.inverse().turn(Vec3::UnitY()).dot(pops[k]) + 60);
      changed = mark;
    }
    if (const auto* old = record.as<Touch>(); old && old->setting == "on an angle plate") {
      auto touch = *old;
      const auto i = static_cast<std::size_t>(std::find(sim.touches.begin(), sim.touches.end(), id) -
                                              sim.touches.begin());
      touch.centre = Vec3(
          0, 0, sim.pedestal.truth.inverse().turn(Vec3::UnitY()).dot(sim.pedestal.input.points[i].xyz) + 60);
      changed = touch;
    }
    build.load(id, changed.value_or(record));
  }
  const auto input = casting::piece_input(build, sim.piece);
  const auto whole = casting::seat(sim.pedestal.input), seen = casting::seat(input.seat);
  ASSERT_TRUE(seen.usable()) << seen.message;
  EXPECT_EQ(std::count(input.sources.begin(), input.sources.end(), casting::PointSource::height), 24);
  // The cheeks' stock is known as well as before; where on them it was read is not.
  for (const int cheek : {3, 4}) {
    double stock = 0, told = 0;
    for (std::size_t i = 0; i < input.seat.points.size(); ++i)
      if (input.seat.points[i].surface == cheek)
        told += stock_at(input.seat.surfaces[static_cast<std::size_t>(cheek)].shape,
                         seen.pose.apply(input.seat.points[i].xyz)) /
                12;
    for (const auto& p : sim.pedestal.input.points)
      if (p.surface == cheek)
        stock += stock_at(sim.pedestal.input.surfaces[static_cast<std::size_t>(cheek)].shape,
                          whole.pose.apply(p.xyz)) /
                 12;
    EXPECT_NEAR(told, stock, 0.4);
  }
}

TEST(Settings, ACalliperThicknessStandsInForTheFaceThatCannotBeTouched) {
  ThreeSettings sim(6);
  std::vector<Id> gone; // nothing is known of the right cheek but its distance from the left
  double thickness = 0, on_left = 0, on_right = 0;
  for (std::size_t i = 0; i < sim.touches.size(); ++i) {
    const auto& p = sim.pedestal.input.points[i];
    const double y = sim.pedestal.truth.apply(p.xyz).y();
    if (p.surface == 3) on_left += y / 12;
    if (p.surface == 4) on_right += y / 12, gone.push_back(sim.touches[i]);
  }
  thickness = on_right - on_left;
  ASSERT_TRUE(sim.build.apply(remove_touches(sim.build, gone)));
  sim.put(SizeReading{sim.piece, sim.surfaces[3], sim.surfaces[4], thickness, 0.1, "", 0});
  const auto input = casting::piece_input(sim.build, sim.piece);
  EXPECT_EQ(std::count(input.sources.begin(), input.sources.end(), casting::PointSource::size), 12);
  const auto found = casting::seat(input.seat);
  ASSERT_TRUE(found.usable()) << found.message;
  double sum = 0;
  for (const auto& group : found.margins.groups)
    if (group.surface == 3 || group.surface == 4) sum += (group.stock_least + group.stock_most) / 2;
  EXPECT_NEAR(sum, thickness - 36, 0.6); // both stocks together are the thickness less the finished width
}

TEST(Settings, ADiameterThatContradictsTheTouchesIsRemarked) {
  ThreeSettings sim(7);
  sim.put(SizeReading{sim.piece, sim.surfaces[5], 0, 25.0, 0.1, "", 0});
  const auto input = casting::piece_input(sim.build, sim.piece);
  ASSERT_EQ(input.remarks.size(), 1U);
  EXPECT_NE(input.remarks[0].find("bore: its diameter was read as 25.00 mm, its touches say 1"),
            std::string::npos)
      << input.remarks[0];
}
