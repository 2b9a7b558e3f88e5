// What leaves the program as a drawing: three views in first and third angle, the turning view, and the DXF,
// read back by what their formats say.

#include "app/casting/marking_page.h"
#include "app/page/page.h"
#include "tests/app/bench.h"

#include "quantity/length_text.h"
#include "quantity/unit.h"
#include "sheets/figures.h"
#include "sheets/turning.h"

#include <QFile>
#include <QTextStream>

#include <cmath>
#include <map>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::sheets;
using app::MainWindow;

namespace {

/// A block 60 × 40 × 30 with an upright hole off its middle.
SceneInput block_with_a_hole() {
  SceneInput in;
  const auto plane = [&](const char* name, Vec3 at, Vec3 faces, bool machined) {
    in.surfaces.push_back({name, {SurfaceKind::plane, at, faces, 0}, 0, 0, machined});
  };
  plane("foot", {0, 0, 0}, -Vec3::UnitZ(), true);
  plane("top", {0, 0, 30}, Vec3::UnitZ(), true);
  plane("left", {-30, 0, 15}, -Vec3::UnitX(), false);
  plane("right", {30, 0, 15}, Vec3::UnitX(), true);
  plane("front", {0, -20, 15}, -Vec3::UnitY(), false);
  plane("back", {0, 20, 15}, Vec3::UnitY(), false);
  in.surfaces.push_back({"bore", {SurfaceKind::bore, {12, 5, 15}, Vec3::UnitZ(), 10}, 0, 0, true});
  return with_extents(in);
}

/// Group codes and values of a DXF file, as the format has them: a line each.
std::vector<std::pair<int, QString>> dxf_pairs(const QString& path) {
  QFile file(path);
  EXPECT_TRUE(file.open(QIODevice::ReadOnly | QIODevice::Text));
  QTextStream text(&file);
  std::vector<std::pair<int, QString>> pairs;
  while (!text.atEnd()) {
    const int code = text.readLine().trimmed().toInt();
    pairs.emplace_back(code, text.readLine().trimmed());
  }
  return pairs;
}

} // namespace

// ISO 128-30 (first angle): the plan below the front view, the view from the left to its right; third angle:
// the plan above, the view from the right to its right.
TEST(Views, LieWhereTheAngleSays) {
  const PixelRect area{0, 0, 800, 600};
  const auto box = bounds(block_with_a_hole());
  const auto first = lay_out(box, area, false, 10, 10), third = lay_out(box, area, true, 10, 10);
  const auto at = [](const ThreeViews& v, View view) {
    return v.frame[static_cast<std::size_t>(view)].middle_px;
  };
  EXPECT_GT(at(first, View::plan).y(), at(first, View::front).y());
  EXPECT_LT(at(third, View::plan).y(), at(third, View::front).y());
  EXPECT_GT(at(first, View::end).x(), at(first, View::front).x());
  EXPECT_GT(at(third, View::end).x(), at(third, View::front).x());
  EXPECT_EQ(view_axes(View::end, false).toward, Vec3(-Vec3::UnitX()));
  EXPECT_EQ(view_axes(View::end, true).toward, Vec3(Vec3::UnitX()));
  for (const auto& views : {first, third}) // one scale for all, and what is in line stays in line
    for (const auto& frame : views.frame) EXPECT_EQ(frame.scale, views.frame[0].scale);
  EXPECT_NEAR(at(first, View::plan).x(), at(first, View::front).x(), 1e-9);
  EXPECT_NEAR(at(first, View::end).y(), at(first, View::front).y(), 1e-9);
}

TEST(Views, EachIsRightHanded) {
  for (const bool third : {false, true})
    for (const auto view : all_views) {
      const auto axes = view_axes(view, third);
      EXPECT_NEAR((axes.right.cross(axes.up) - axes.toward).norm(), 0, 1e-12);
    }
  for (const double yaw : {0.0, 0.7, -2.0, 3.1})
    for (const double pitch : {0.0, 0.4, -0.9}) {
      const auto axes = turned_axes(yaw, pitch);
      EXPECT_NEAR((axes.right.cross(axes.up) - axes.toward).norm(), 0, 1e-12);
      EXPECT_NEAR(axes.right.z(), 0, 1e-12); // the picture never lies on its side
    }
}

// By hand: seen from the front the block is 60 wide and 30 high, from above 60 by 40, from the end 40 by 30.
TEST(Views, ShowTheBlockInItsTrueSize) {
  const auto in = block_with_a_hole();
  const std::pair<View, Vec2> sizes[] = {
      {View::front, {60, 30}}, {View::plan, {60, 40}}, {View::end, {40, 30}}};
  for (const auto& [view, size] : sizes) {
    const auto scene = make_scene(in, view_axes(view, false));
    EXPECT_NEAR((scene.high - scene.low - size).norm(), 0, 1e-6) << static_cast<int>(view);
    int finished = 0, centre = 0;
    for (const auto& path : scene.paths) {
      finished += path.role == Role::finished;
      centre += path.role == Role::centre;
      for (const auto& loop : path.loops)
        for (const auto& p : loop) EXPECT_TRUE(p.allFinite());
    }
    EXPECT_GT(finished, 0);
    EXPECT_GT(centre, 0); // of the hole, in every view
  }
}

// From above the hole is a circle of its diameter about its axis.
TEST(Views, AHoleIsACircleWhereItIsLookedInto) {
  const auto scene = make_scene(block_with_a_hole(), view_axes(View::plan, false));
  const auto middle = view_axes(View::plan, false).on_paper({12, 5, 15});
  bool round = false;
  for (const auto& path : scene.paths)
    for (const auto& loop : path.loops) {
      if (path.surface != 6 || loop.size() < 12) continue;
      round = std::all_of(loop.begin(), loop.end(),
                          [&](const Vec2& p) { return std::abs((p - middle).norm() - 5) < 0.05; }) ||
              round;
    }
  EXPECT_TRUE(round);
}

TEST(Turning, EveryFaceThatLooksThisWayIsThereBackToFront) {
  const auto in = block_with_a_hole();
  for (const double yaw : {0.5, 2.0, -1.0}) {
    const auto view = turned_axes(yaw, 0.5);
    const auto scene = make_turned(in, view);
    ASSERT_FALSE(scene.faces.empty());
    for (std::size_t k = 1; k < scene.faces.size(); ++k)
      EXPECT_LE(scene.faces[k - 1].depth, scene.faces[k].depth + 1e-9);
    for (std::size_t s = 0; s < 6; ++s) {
      const bool looks = in.surfaces[s].shape.direction.dot(view.toward) > 1e-6;
      const bool drawn = std::any_of(scene.faces.begin(), scene.faces.end(),
                                     [&](const TurnedFace& f) { return f.surface == static_cast<int>(s); });
      EXPECT_TRUE(drawn || !looks) << in.surfaces[s].name << " at " << yaw;
    }
    for (const auto& f : scene.faces) {
      EXPECT_GE(f.light, 0);
      EXPECT_LE(f.light, 1);
    }
  }
}

TEST(Turning, ACutTakesAwayWhatLiesBeyondIt) {
  const auto in = block_with_a_hole();
  const auto view = turned_axes(0.4, 0.4);
  const auto cut = make_turned(in, view, SectionPlane{Vec3::UnitX(), 12});
  EXPECT_FALSE(cut.cut.empty()); // it goes through the hole
  const auto whole = make_turned(in, view);
  EXPECT_TRUE(whole.cut.empty());
  const auto none = make_turned(in, view, SectionPlane{Vec3::UnitX(), -31});
  EXPECT_LT(none.faces.size(), whole.faces.size());
}

// DXF (AC1015): every scribed line lies at its height above the plate, in millimetres, on the layer LINES.
TEST(Dxf, LinesLieAtTheirHeights) {
  // In a window, as a person writes it.
  struct Page : WindowTest {
    void TestBody() override {}
    void begin() {
      SetUp();
      open_demo();
      window->go_to(MainWindow::seat);
      seat_best();
      window->go_to(MainWindow::marking);
    }
    app::MarkingPage& page() { return *window->marking_page(); }
    QString file(const char* name) { return folder.filePath(name); }
  } bench;
  bench.begin();
  ASSERT_EQ(bench.page().save_sheet(bench.file("lines.dxf")), QString());
  const auto pairs = dxf_pairs(bench.file("lines.dxf"));
  ASSERT_GT(pairs.size(), 50U);
  EXPECT_EQ(pairs.back().second, "EOF");
  std::map<QString, std::vector<double>> heights; // of level lines, by layer
  for (std::size_t k = 0; k < pairs.size(); ++k) {
    if (pairs[k].first != 0 || pairs[k].second != "LINE") continue;
    QString layer;
    double from = NAN, to = NAN;
    for (std::size_t n = k + 1; n < pairs.size() && pairs[n].first != 0; ++n) {
      if (pairs[n].first == 8) layer = pairs[n].second;
      if (pairs[n].first == 20) from = pairs[n].second.toDouble();
      if (pairs[n].first == 21) to = pairs[n].second.toDouble();
    }
    if (std::abs(from - to) < 1e-9) heights[layer].push_back(from);
  }
  const auto& result = bench.page().result();
  ASSERT_FALSE(result.lines.empty());
  for (const auto& line : result.lines) {
    const auto& drawn = heights["LINES"];
    EXPECT_TRUE(std::any_of(drawn.begin(), drawn.end(), [&](double y) {
      return std::abs(y - line.height) < 1e-4;
    })) << line.height;
  }
  EXPECT_FALSE(heights["PLATE"].empty());
  for (const double y : heights["PLATE"]) EXPECT_NEAR(y, 0, 1e-9);
}

TEST(Figures, AreTabularWithATrueMinusInBothUnits) {
  EXPECT_EQ(figure(12.345, Unit::mm), "12.35");
  EXPECT_EQ(figure(25.4, Unit::inch), "1.0000");
  EXPECT_EQ(figure(-0.5, Unit::mm), QString::fromUtf8("\u22120.50"));
  EXPECT_EQ(figure(0.5, Unit::mm, true), "+0.50");
  EXPECT_EQ(figure(-0.0001, Unit::mm), "0.00"); // no minus nought
  EXPECT_EQ(fit_figure(12.3456, Unit::mm), "12.346");
  EXPECT_EQ(fit_figure(25.4, Unit::inch), "1.0000");
  EXPECT_EQ(fine_figure(0.0123, Unit::mm), "12");
  EXPECT_EQ(fine_figure(0.00254, Unit::inch), "0.1"); // a tenth of a thou
  EXPECT_EQ(fine_unit(Unit::inch), "thou");
  EXPECT_EQ(sentence("a diameter must be above 0"), "A diameter must be above 0.");
  EXPECT_EQ(sentence(""), "");
}
