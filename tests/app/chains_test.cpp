#include "app/chains/chains_page.h"
#include "app/joints/joints_page.h"
#include "app/overview/overview_page.h"
#include "tests/app/bench.h"

#include "app/overview/map_layout.h"
#include "build/edits.h"

#include <QFile>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>
#include <set>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Chains : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    window->go_to(MainWindow::chains);
  }
  app::ChainsPage& page() { return *window->chains_page(); }
  const build::Build& b() { return window->document().build(); }
  build::Id part(const std::string& name) {
    for (const auto& [id, p] : b().parts())
      if (p.name == name) return id;
    return 0;
  }
  static void pick(QComboBox* box, const QString& text) {
    box->setCurrentIndex(box->findText(text, Qt::MatchStartsWith));
    ASSERT_TRUE(box->currentText().startsWith(text)) << text.toStdString();
    emit box->activated(box->currentIndex());
  }
};

TEST_F(Chains, StatedAndLinkedByHand) {
  QTest::mouseClick(page().add_button(), Qt::LeftButton);
  enter(page().name_edit(), "pin float", Qt::Key_Return);
  enter(page().least_field()->edit(), "0.1", Qt::Key_Return);
  enter(page().most_field()->edit(), "0.4", Qt::Key_Return);
  window->show_face(1);
  auto* links = page().links();
  pick(links->dimension_box(), "Crank pin, journal length");
  QTest::mouseClick(links->add_button(), Qt::LeftButton);
  pick(links->dimension_box(), "Connecting rod, big end width");
  enter(links->coefficient_edit(), "minus one", Qt::Key_Return);
  EXPECT_TRUE(links->words().startsWith("Coefficient:")) << links->words().toStdString();
  enter(links->coefficient_edit(), "-1", Qt::Key_Return);
  ASSERT_EQ(page().view()->rows().size(), 2U);
  EXPECT_NEAR(page().view()->gap(), 13 - 12.8, 1e-9);
  EXPECT_NEAR(page().result().mean, 13.05 - 12.775, 1e-9);
  EXPECT_GT(page().result().p_within, 0.99);
  window->show_face(0);
  EXPECT_TRUE(page().figures().contains("0.275"));
  EXPECT_TRUE(page().advice().contains("spreads it most")) << page().advice().toStdString();
  EXPECT_TRUE(page().advice().contains("closes without a shim")) << page().advice().toStdString();
  // A gap too wide asks for a shim: 0.275 expected, 0.05 in the middle.
  enter(page().least_field()->edit(), "0.0", Qt::Key_Return);
  enter(page().most_field()->edit(), "0.1", Qt::Key_Return);
  EXPECT_TRUE(page().advice().contains("A shim of 0.225")) << page().advice().toStdString();
  enter(page().most_field()->edit(), "1", Qt::Key_Return);
  enter(page().least_field()->edit(), "0.6", Qt::Key_Return);
  EXPECT_TRUE(page().advice().contains("0.525\u202Fmm must come off")) << page().advice().toStdString();
  enter(page().least_field()->edit(), "0.1", Qt::Key_Return);
  enter(page().most_field()->edit(), "0.4", Qt::Key_Return);
  enter(page().least_field()->edit(), "0.9", Qt::Key_Return); // above the most
  EXPECT_EQ(b().chains().back().second.least, 0.1);
  page().closing_box()->setCurrentIndex(1);
  emit page().closing_box()->activated(1);
  EXPECT_TRUE(page().advice().contains("Made last")) << page().advice().toStdString();
}

TEST_F(Chains, WalkedOnTheDrawings) {
  QTest::mouseClick(page().add_button(), Qt::LeftButton);
  window->show_face(1);
  auto* links = page().links();
  pick(links->part_box(), "Connecting rod");
  pick(links->from_box(), "axis of big end bore");
  pick(links->to_box(), "axis of small end bore");
  QTest::mouseClick(links->step_button(), Qt::LeftButton);
  EXPECT_TRUE(links->steps_text().contains("Adds up to 96.000")) << links->steps_text().toStdString();
  pick(links->part_box(), "Crosshead");
  pick(links->from_box(), "axis of pin hole");
  pick(links->to_box(), "rod face");
  QTest::mouseClick(links->step_button(), Qt::LeftButton);
  EXPECT_TRUE(links->steps_text().contains("Adds up to 113.000")) << links->steps_text().toStdString();
  QTest::mouseClick(links->walk_button(), Qt::LeftButton);
  ASSERT_EQ(page().view()->rows().size(), 2U);
  EXPECT_NEAR(page().view()->rows()[0].length, 96.06, 1e-9); // measured
  // A stretch no dimension leads along says which is missing.
  pick(links->part_box(), "Connecting rod");
  pick(links->from_box(), "big end front");
  pick(links->to_box(), "eye front");
  QTest::mouseClick(links->step_button(), Qt::LeftButton);
  EXPECT_TRUE(links->words().contains("no dimension leads from")) << links->words().toStdString();
  EXPECT_FALSE(links->walk_button()->isEnabled());
  // A link is taken out, and comes back.
  links->table()->setCurrentCell(1, 0);
  QTest::mouseClick(links->remove_button(), Qt::LeftButton);
  EXPECT_EQ(page().view()->rows().size(), 1U);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(page().view()->rows().size(), 2U);
}

class Overview : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    window->go_to(MainWindow::overview);
  }
  app::OverviewPage& page() { return *window->overview_page(); }
};

TEST_F(Overview, EveryPartAndJointIsOnTheMap) {
  const auto& b = window->document().build();
  EXPECT_EQ(page().map()->parts().size(), b.parts().size());
  EXPECT_GE(page().map()->joints().size(), 28U); // those over a thread are of one part
  for (int k = 0; k < static_cast<int>(page().map()->parts().size()); ++k)
    EXPECT_TRUE(QRectF(page().map()->rect()).contains(page().map()->place_px(k))) << k;
  EXPECT_EQ(page().tightest().size(), 10U);
  EXPECT_EQ(page().next().size(), 8U);
  EXPECT_TRUE(page().words().contains("Everything can still be held")) << page().words().toStdString();
  for (const auto* row : page().next())
    EXPECT_NEAR(row->why().total(), row->value(), 1e-6) << row->name().toStdString();
}

TEST_F(Overview, SaysWhatFightsAndWhatWouldEndIt) {
  auto& document = window->document();
  const auto& b = document.build();
  // Both bushes are read, one far too large: the one shaft cannot suit both, were it the same journal.
  for (const auto& [id, j] : b.joints()) {
    if (j.name != "Main bearing B") continue;
    auto same = j;
    for (const auto& [other, k] : b.joints())
      if (k.name == "Main bearing A") same.shaft = k.shaft;
    ASSERT_TRUE(document.apply(build::replace(b, id, same, "One journal for both")));
    const auto reading = b.measurement_of(same.pairs.front().first, same.hole);
    auto large = reading->second;
    large.value = 18.080;
    ASSERT_TRUE(document.apply(build::replace(b, reading->first, large, "A bush far over")));
    break;
  }
  EXPECT_TRUE(page().words().contains("cannot be held as things stand")) << page().words().toStdString();
  EXPECT_TRUE(page().words().contains("the least of Main bearing A must shrink by"))
      << page().words().toStdString();
  EXPECT_TRUE(page().words().contains("the most of Main bearing B must grow by"))
      << page().words().toStdString();
  EXPECT_EQ(page().tightest()[0]->state(), app::RoomState::gone);
  EXPECT_FALSE(page().tightest()[0]->why().lines.empty());
}

TEST_F(Overview, LeadsToWhatIsPointedAt) {
  auto* map = page().map();
  // A joint opens its page.
  QTest::mouseClick(map, Qt::LeftButton, {}, map->joint_px(0).toPoint());
  EXPECT_EQ(window->step(), MainWindow::joints);
  EXPECT_EQ(window->joints_page()->state().id, map->joints()[0].joint);
  press(Qt::Key_7, Qt::ControlModifier);
  EXPECT_EQ(window->step(), MainWindow::overview);
  // A part is chosen by a click, opened by Enter; arrows go on.
  QTest::mouseClick(map, Qt::LeftButton, {}, map->place_px(8).toPoint());
  EXPECT_EQ(window->document().part(), map->parts()[8].part);
  for (int k = 0; k < static_cast<int>(map->parts().size()); ++k)
    if (map->parts()[static_cast<std::size_t>(k)].name == "Connecting rod")
      QTest::mouseClick(map, Qt::LeftButton, {}, map->place_px(k).toPoint());
  EXPECT_TRUE(page().part_words().contains("big end bore: made 11.024")) << page().part_words().toStdString();
  EXPECT_TRUE(
      page().part_words().contains("big end width: make 12.775\u202Fmm, waits for Crank pin, journal length"))
      << page().part_words().toStdString();
  map->setFocus();
  const auto from = window->document().part();
  for (const auto key : {Qt::Key_Down, Qt::Key_Up, Qt::Key_Left, Qt::Key_Right}) QTest::keyClick(map, key);
  QTest::keyClick(map, Qt::Key_Down);
  QTest::keyClick(map, Qt::Key_Up);
  EXPECT_NE(from, 0);
  QTest::keyClick(map, Qt::Key_Return);
  EXPECT_EQ(window->step(), MainWindow::drawing);
  window->go_to(MainWindow::overview);
  page().tightest()[0]->setFocus();
  QTest::keyClick(page().tightest()[0], Qt::Key_Return);
  EXPECT_EQ(window->step(), MainWindow::joints);
}

TEST_F(Overview, PansAndZooms) {
  auto* map = page().map();
  const auto at = map->place_px(0);
  QTest::mousePress(map, Qt::LeftButton, {}, QPoint(5, 60));
  QTest::mouseMove(map, QPoint(45, 90));
  QTest::mouseRelease(map, Qt::LeftButton, {}, QPoint(45, 90));
  EXPECT_NEAR(map->place_px(0).x() - at.x(), 40, 1);
  const double zoom = map->zoom();
  QTest::keyClick(map, Qt::Key_Plus);
  EXPECT_GT(map->zoom(), zoom);
  QTest::keyClick(map, Qt::Key_Home);
  EXPECT_NEAR(map->zoom(), zoom, 1e-9);
  EXPECT_NEAR(map->place_px(0).x(), at.x(), 1e-6);
}

TEST_F(Overview, TheCardIsWritten) {
  const auto card = page().card();
  ASSERT_EQ(card.lines.size(), 12U);
  const auto path = folder.filePath("card.pdf");
  EXPECT_EQ(page().save_card(path), "");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_TRUE(file.readAll().startsWith("%PDF"));
  EXPECT_TRUE(page().save_card("/nowhere/card.pdf").contains("could not be written"));
  // With nothing to make there is nothing to print, and that is said.
  while (window->document().undo_label()) window->document().undo();
  EXPECT_TRUE(page().save_card(path).contains("nothing to cut next"));
}

TEST(MapLayout, NoPlateOverAnotherAndAlwaysTheSame) {
  std::vector<app::MapLink> links;
  for (int k = 1; k < 200; ++k) links.push_back({k, (k * 7) % k});
  for (int k = 0; k < 200; ++k) links.push_back({k, (k * 13 + 5) % 200});
  std::erase_if(links, [](const auto& l) { return l.a == l.b; });
  const auto places = app::lay_out_map(200, links), again = app::lay_out_map(200, links);
  for (std::size_t a = 0; a < places.size(); ++a) {
    EXPECT_EQ(places[a].x, again[a].x);
    for (std::size_t b = a + 1; b < places.size(); ++b)
      EXPECT_TRUE(std::abs(places[a].x - places[b].x) >= app::plate_wide ||
                  std::abs(places[a].y - places[b].y) >= app::plate_high);
  }
  EXPECT_TRUE(app::lay_out_map(0, {}).empty());
  EXPECT_EQ(app::lay_out_map(1, {}).size(), 1U);
  // A string of parts: what mates stands close.
  std::vector<app::MapLink> string;
  for (int k = 1; k < 12; ++k) string.push_back({k - 1, k});
  const auto line = app::lay_out_map(12, string);
  for (int k = 1; k < 12; ++k)
    EXPECT_LT(std::hypot(line[static_cast<std::size_t>(k)].x - line[static_cast<std::size_t>(k - 1)].x,
                         line[static_cast<std::size_t>(k)].y - line[static_cast<std::size_t>(k - 1)].y),
              260)
        << k;
}
