#include "app/allowance/allowance_page.h"
#include "app/casting/seat_page.h"
#include "app/route/route_page.h"
#include "tests/app/bench.h"

#include "build/edit_route.h"
#include "build/edits.h"

#include <QListWidget>

#include <cmath>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Routing : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    choose_piece(2);
    window->go_to(MainWindow::route);
  }
  app::RoutePage& page() { return *window->route_page(); }
  app::SetupPanel& setups() { return *page().setups(); }
  const build::Build& build() { return window->document().build(); }
  build::Id surface(const char* name) {
    for (const auto& [id, s] : build().surfaces_of(window->document().part()))
      if (s.name == name) return id;
    return 0;
  }
  void part_of(const char* name) {
    for (int k = 0; k < setups().parts()->count(); ++k)
      if (setups().parts()->item(k)->data(Qt::UserRole).toLongLong() == surface(name))
        setups().parts()->setCurrentRow(k);
    setups().cycle_part();
  }
};

TEST_F(Routing, TheBestDatumsAreFirstAndTheTemptingOneIsExplained) {
  choose_piece(0);
  const auto& result = page().datums()->result();
  ASSERT_TRUE(result.usable()) << result.message;
  EXPECT_EQ(page().datums()->table()->rowCount(), static_cast<int>(result.choices.size()));
  EXPECT_TRUE(page().datums()->words().contains(result.tempting_place == 1 ? "also the best" : "Standing on"))
      << page().datums()->words().toStdString();
  EXPECT_TRUE(page().datums()->rest_words().contains("it stands on touches"))
      << page().datums()->rest_words().toStdString();
  EXPECT_EQ(page().canvas()->scene_input().spots.size(), 6U);
}

TEST_F(Routing, TakingDatumsSuggestsSetups) {
  choose_piece(5); // the bracket has none yet
  ASSERT_TRUE(page().datums()->result().usable()) << page().datums()->result().message;
  page().datums()->take_button()->click();
  const auto all = build().setups_of(window->document().part());
  ASSERT_EQ(all.size(), 2U);
  EXPECT_EQ(all[0].second.datums.size(), 3U);
  EXPECT_FALSE(all[0].second.cuts.empty());
  // Every surface to be machined is cut somewhere.
  std::size_t machined = 0;
  for (const auto& [id, s] : build().surfaces_of(window->document().part())) machined += s.machined;
  EXPECT_EQ(all[0].second.cuts.size() + all[1].second.cuts.size(), machined);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Take first datums, with setups");
  window->document().undo();
  EXPECT_TRUE(build().setups_of(window->document().part()).empty());
}

TEST_F(Routing, TheGateAsksForWhatLaterSetupsLocateFrom) {
  page().tabs()->choose(3);
  EXPECT_EQ(setups().gate_result().open, 3); // end B, as itself and as a reference, and the burrs
  EXPECT_EQ(setups().verdict(), "Do not unclamp yet: 3 things are missing.");
  EXPECT_EQ(page().tabs()->button(3)->text(), "Gate 3");
  // End B is cut to size: both its own entry and the reference are there.
  window->go_to(MainWindow::allowance);
  auto* allowances = window->allowance_page();
  for (std::size_t k = 0; k < allowances->plans().size(); ++k)
    if (allowances->plans()[k].drawn.name == "end B") allowances->choose(static_cast<int>(k));
  enter(allowances->reading_edit(), "0.02 mm", Qt::Key_Return);
  window->go_to(MainWindow::route);
  ASSERT_EQ(setups().gate_result().open, 1);
  for (const auto& item : setups().gate_result().items)
    if (!item.done)
      window->document().apply(
          build::set_done(build(), window->document().piece(), item.operation, true, "2026-11-27T10:00:00Z"));
  EXPECT_EQ(setups().gate_result().open, 0);
  EXPECT_EQ(setups().verdict(), "Everything is there: it may be unclamped.");
  setups().release_button()->click();
  EXPECT_TRUE(setups().verdict().startsWith("Unclamped on 20")) << setups().verdict().toStdString();
  EXPECT_EQ(window->undo_action()->text(), "Undo: Unclamp from \"on the chest, foot to the side\"");
  for (int k = 0; k < 3; ++k) window->document().undo();
  EXPECT_EQ(setups().gate_result().open, 3); // end B, as itself and as a reference, and the burrs
}

TEST_F(Routing, AGateEntryLeadsToItsSurface) {
  page().tabs()->choose(3);
  for (std::size_t k = 0; k < setups().gate_result().items.size(); ++k)
    if (!setups().gate_result().items[k].done) {
      setups().gate_list()->setCurrentRow(static_cast<int>(k));
      break;
    }
  setups().gate_list()->setFocus();
  QTest::keyClick(setups().gate_list(), Qt::Key_Return);
  EXPECT_EQ(window->step(), MainWindow::allowance);
  const auto* allowances = window->allowance_page();
  EXPECT_EQ(allowances->plans()[static_cast<std::size_t>(allowances->metal()->chosen())].drawn.name, "end B");
}

TEST_F(Routing, UnclampedAllTheSameIsKeptWithWhatWasMissing) {
  page().tabs()->choose(3);
  EXPECT_EQ(setups().release_button()->text(), "Unclamp anyway");
  setups().release_button()->click();
  const auto release = build().release_of(window->document().piece(), setups().chosen());
  ASSERT_TRUE(release);
  EXPECT_TRUE(release->second.missing.find("end B is as cast") != std::string::npos)
      << release->second.missing;
  EXPECT_EQ(setups().release_button()->text(), "Clamp it again");
}

TEST_F(Routing, AnAsCastDatumUsedTwiceIsWarnedOf) {
  page().tabs()->choose(1);
  EXPECT_EQ(setups().remarks(), "");
  setups().setups()->setCurrentRow(1);
  part_of("barrel");
  EXPECT_TRUE(setups().remarks().contains("\"on the foot\" uses barrel as cast a second time"))
      << setups().remarks().toStdString();
  setups().setups()->setCurrentRow(0);
  EXPECT_GE(setups().gate_result().open, 3);
  bool asked = false;
  for (const auto& item : setups().gate_result().items)
    asked = asked || item.text.find("barrel as cast a second time") != std::string::npos;
  EXPECT_TRUE(asked);
}

TEST_F(Routing, SetupsAreAddedNamedOrderedAndRemoved) {
  page().tabs()->choose(1);
  setups().add_button()->click();
  EXPECT_EQ(setups().setups()->count(), 3);
  enter(setups().name_edit(), "in the vice", Qt::Key_Return);
  EXPECT_EQ(build().find<build::Setup>(setups().chosen())->name, "in the vice");
  part_of("foot");
  EXPECT_EQ(build().find<build::Setup>(setups().chosen())->datums.size(), 1U);
  part_of("foot");
  EXPECT_EQ(build().find<build::Setup>(setups().chosen())->cuts.size(), 1U);
  setups().move_setup(-1);
  EXPECT_TRUE(setups().setups()->item(1)->text().contains("in the vice"));
  EXPECT_TRUE(setups().remarks().contains("\"in the vice\" says nothing of what locates the part"))
      << setups().remarks().toStdString();
  setups().remove_setup();
  EXPECT_EQ(setups().setups()->count(), 2);
}

TEST_F(Routing, AReferenceScribedOnAnAsCastFaceIsLogged) {
  page().tabs()->choose(1);
  part_of("foot top"); // locates? the setup has three datums already: a reference
  setups().setups()->setCurrentRow(1);
  part_of("foot top");
  setups().setups()->setCurrentRow(0);
  page().tabs()->choose(3);
  int row = -1;
  for (std::size_t k = 0; k < setups().gate_result().items.size(); ++k)
    if (setups().gate_result().items[k].surface == surface("foot top")) row = static_cast<int>(k);
  ASSERT_GE(row, 0);
  EXPECT_FALSE(setups().gate_result().items[static_cast<std::size_t>(row)].done);
  setups().gate_list()->setCurrentRow(row);
  for (auto* b : setups().gate()->findChildren<QPushButton*>())
    if (b->text() == "Done") b->click();
  EXPECT_TRUE(setups().gate_result().items[static_cast<std::size_t>(row)].done);
}

TEST_F(Routing, HowSureTheMarginsAreAndWhereToTouchNext) {
  choose_piece(0);
  window->go_to(MainWindow::seat);
  auto* page_seat = window->seat_page();
  seat_best();
  page_seat->tabs()->choose(3);
  auto* sure = page_seat->sure();
  ASSERT_TRUE(
      QTest::qWaitFor([&] { return !sure->busy() && sure->found().certainty.usable(); }, patience(15000)));
  EXPECT_GE(sure->table()->rowCount(), 6);
  EXPECT_TRUE(sure->words().startsWith("Least room ")) << sure->words().toStdString();
  // What is sure is never more than what the touches themselves say.
  EXPECT_LT(sure->found().certainty.sure, page_seat->state().margins.least + 0.2);
  EXPECT_EQ(sure->found().next.touches.size(), 3U);
  EXPECT_FALSE(sure->next_words().isEmpty());
  EXPECT_EQ(page_seat->canvas()->scene_input().spots.size(), sure->found().next.pays ? 3U : 0U);
}

/// What turning over costs stands beside the setups, with its sum. The cylinder's foot is cut first; then it
/// stands on it: three locators under the foot, two of them to one side, and the two cuts lie between.
TEST_F(Routing, TheSpreadOfTheSetupsIsToldByItsCauses) {
  window->show_face(4);
  auto& panel = *page().spread();
  auto* table = panel.table();
  ASSERT_TRUE(table->isVisible());
  ASSERT_GE(table->rowCount(), 2);
  int row = -1;
  for (int r = 0; r < table->rowCount(); ++r)
    if (table->item(r, 0)->text() == "centre height") row = r;
  ASSERT_GE(row, 0);
  table->setCurrentCell(row, 0);
  const auto& d = panel.spread().dimensions[static_cast<std::size_t>(row)];
  EXPECT_TRUE(panel.expected()->isVisible());
  EXPECT_NEAR(panel.allowed()->value(), 0.15, 1e-12);
  // At the middle of the three each of the pair counts a quarter, the third a half: 0.01 times the root of
  // 3/8, and the cut's own 0.01.
  EXPECT_NEAR(panel.expected()->value(), 3 * 0.01 * std::sqrt(0.375 + 1), 1e-6);
  EXPECT_EQ(panel.expected()->why().lines.size(), 2U);
  EXPECT_TRUE(panel.words().contains("73")) << panel.words();
  EXPECT_TRUE(panel.remarks().contains("On the foot: nothing locates it along y")) << panel.remarks();
  double sum = d.raw;
  for (const auto& share : d.shares) sum += share.locating + share.cutting;
  EXPECT_NEAR(sum, 1, 1e-9);
  // Without setups it says what comes first.
  choose_piece(0);
  window->show_face(4);
  EXPECT_EQ(table->rowCount(), 0);
  EXPECT_EQ(panel.words(), "First setups, under Setups: then it is told what each turn-over costs.");
  EXPECT_FALSE(panel.expected()->isVisible());
}
