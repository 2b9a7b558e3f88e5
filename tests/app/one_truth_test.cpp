// What is read on one page is what every page shows; whose piece it is stays chosen.

#include "app/allowance/allowance_page.h"
#include "app/drawing/drawing_page.h"
#include "app/joints/joints_page.h"
#include "tests/app/bench.h"

#include "app/marks/why.h"
#include "readings/measure.h"
#include "readings/size_now.h"
#include "sheets/figures.h"

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

class OneReading : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
  const build::Build& b() { return window->document().build(); }
  build::Id joint(const std::string& name) {
    for (const auto& [id, j] : b().joints())
      if (j.name == name) return id;
    return 0;
  }
  app::MakePanel& make() { return *window->joints_page()->make(); }
  QString text_of(QTableWidget* table, const QString& row, int column) {
    for (int r = 0; r < table->rowCount(); ++r)
      if (table->item(r, 0)->text() == row) return table->item(r, column)->text();
    return "no such row";
  }
};

} // namespace

// Alternate readings of a pair landed on alternate pieces: the page went to the pair that was then tightest.
TEST_F(OneReading, ThePairStaysChosenWhateverIsRead) {
  window->go_to(MainWindow::joints);
  auto& page = *window->joints_page();
  page.choose(joint("Pedestal bushes"));
  auto* pairs = make().pair_box();
  ASSERT_EQ(pairs->count(), 2);
  EXPECT_EQ(pairs->itemText(0), "hole no. 1, shaft no. 1");
  const auto first = page.state().hole;
  make().instrument_box()->setCurrentIndex(0);
  enter(make().hole_edit(), "27.004", Qt::Key_Return);
  EXPECT_EQ(page.state().hole, first);
  enter(make().shaft_edit(), "27.033", Qt::Key_Return);
  EXPECT_EQ(page.state().hole, first);
  EXPECT_NEAR(readings::size_now(b(), first).value, 27.004, 1e-9);
  // Only the person goes to the other pair.
  pairs->setCurrentIndex(1);
  emit pairs->activated(1);
  const auto second = page.state().hole;
  EXPECT_NE(second, first);
  EXPECT_EQ(make().hole_edit()->text(), "");
  enter(make().hole_edit(), "27.018", Qt::Key_Return);
  EXPECT_EQ(page.state().hole, second);
  EXPECT_NEAR(readings::size_now(b(), first).value, 27.004, 1e-9);
  EXPECT_NEAR(readings::size_now(b(), second).value, 27.018, 1e-9);
  // And it is still chosen after another joint was looked at.
  page.choose(joint("Big end"));
  page.choose(joint("Pedestal bushes"));
  EXPECT_EQ(page.state().hole, second);
}

// The cylinder's bore was bored, not finished: the cut that was logged fills dimensions and gate, and a
// reading in Dimensions finishes it in Allowance and at the gate.
TEST_F(OneReading, ACutFillsTheDimensionAndAReadingFinishesTheSurface) {
  build::Id cylinder = 0, piece = 0, bore = 0, surface = 0;
  for (const auto& [id, part] : b().parts())
    if (part.name == "Cylinder block") cylinder = id;
  ASSERT_NE(cylinder, 0);
  piece = b().pieces_of(cylinder).front().first;
  for (const auto& [id, d] : b().dimensions_of(cylinder))
    if (d.name == "bore") {
      bore = id;
      surface = d.surface;
    }
  window->document().choose(cylinder, piece);
  window->go_to(MainWindow::drawing);
  window->drawing_page()->tabs()->choose(1);
  auto* panel = window->drawing_page()->dimensions();
  const auto by_cut = readings::size_now(b(), {bore, piece});
  ASSERT_TRUE(by_cut.by_cut);
  const auto figure = sheets::fit_figure(by_cut.value, Unit::mm);
  EXPECT_EQ(text_of(panel->table(), "bore", 5), figure + " metal on");
  // Measured within its limits, 31 H7.
  for (int r = 0; r < panel->table()->rowCount(); ++r)
    if (panel->table()->item(r, 0)->text() == "bore") panel->table()->setCurrentCell(r, 0);
  enter(panel->measured_edit(), "31.012", Qt::Key_Return);
  EXPECT_EQ(text_of(panel->table(), "bore", 5), "31.012");
  window->go_to(MainWindow::allowance);
  auto& allowance = *window->allowance_page();
  allowance.choose_surface(surface);
  EXPECT_EQ(allowance.next_text(), QString(QChar(0x2713)));
  bool read_row = false;
  for (int r = 0; r < allowance.table()->rowCount(); ++r)
    read_row = read_row || (allowance.table()->item(r, 1)->text() == "read since" &&
                            allowance.table()->item(r, 5)->text() == "31.01");
  EXPECT_TRUE(read_row);
  // Undone, the cut says it again on both pages.
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NE(allowance.next_text(), QString(QChar(0x2713)));
  window->go_to(MainWindow::drawing);
  EXPECT_EQ(text_of(panel->table(), "bore", 5), figure + " metal on");
}

// What a micrometer showed, less its zero error (2 µm over), is the size.
// How that came about could not be asked.
TEST_F(OneReading, HowAReadingCameAboutIsAskedWhereOneStandsOnIt) {
  window->go_to(MainWindow::joints);
  auto& page = *window->joints_page();
  page.choose(joint("Eccentric on shaft"));
  make().instrument_box()->setCurrentIndex(1); // a micrometer that reads 2 µm over
  enter(make().hole_edit(), "17.020", Qt::Key_Return);
  const auto sum = readings::reading_sum(b(), page.state().hole);
  ASSERT_FALSE(sum.lines.empty());
  EXPECT_NEAR(sum.total(), readings::size_now(b(), page.state().hole).value, 1e-9);
  EXPECT_NEAR(sum.total(), 17.018, 1e-9);
  make().hole_edit()->setFocus();
  QTest::keyClick(make().hole_edit(), Qt::Key_F1);
  auto* card = window->findChild<app::WhyCard*>();
  ASSERT_NE(card, nullptr);
  EXPECT_NEAR(card->reckoning().total(), 17.018, 1e-9);
  QTest::keyClick(card, Qt::Key_Escape);
}

// With metal on the joint says what is left and what the next cut is, and is not gone.
TEST_F(OneReading, MetalStillOnIsSaidWithTheNextCut) {
  window->go_to(MainWindow::joints);
  auto& page = *window->joints_page();
  page.choose(joint("Eccentric on shaft"));
  make().instrument_box()->setCurrentIndex(0);
  enter(make().shaft_edit(), "16.990", Qt::Key_Return);
  enter(make().hole_edit(), "16.90", Qt::Key_Return);
  EXPECT_TRUE(make().to_come_text().startsWith("Read 16.900\u202Fmm. ")) << make().to_come_text();
  EXPECT_TRUE(make().to_come_text().contains("on diameter still to come off")) << make().to_come_text();
  EXPECT_TRUE(make().verdict().contains("metal still on")) << make().verdict();
  EXPECT_FALSE(make().verdict().contains("out:")) << make().verdict();
  EXPECT_GT(make().figure_text().toDouble(), 17);
  const auto targets = chains::build_targets(b());
  const auto c = static_cast<std::size_t>(targets.tightest_of_joint(joint("Eccentric on shaft")));
  EXPECT_GE(targets.result.conditions[c].room, 0);
  // A gauge that does not go says the same.
  enter(make().hole_edit(), "go 17.00 stops", Qt::Key_Return);
  EXPECT_TRUE(make().verdict().contains("Hole below 17.000")) << make().verdict();
  EXPECT_EQ(make().hole_edit()->text(), "go 17.00 stops");
}

// "Left takes no. 1": which piece goes with which is said by hand, and a joint may be of one pair alone.
TEST_F(OneReading, AJointSaysWhichPieceGoesWithWhich) {
  window->go_to(MainWindow::joints);
  auto& page = *window->joints_page();
  page.choose(joint("Pedestal bushes"));
  page.tabs()->choose(3);
  auto* pairs = page.pairs();
  const auto pieces = [&] {
    return chains::joint_pairs(b(), *b().find<build::Joint>(joint("Pedestal bushes")));
  };
  const auto in_order = pieces();
  ASSERT_EQ(in_order.size(), 2U);
  ASSERT_TRUE(pairs->hole_box()->isVisible());
  pairs->hole_box()->setCurrentIndex(0);
  pairs->shaft_box()->setCurrentIndex(1);
  QTest::mouseClick(pairs->together_button(), Qt::LeftButton);
  EXPECT_EQ(pieces(), (std::vector<build::PiecePair>{{in_order[0].first, in_order[1].second},
                                                     {in_order[1].first, in_order[0].second}}));
  pairs->hole_box()->setCurrentIndex(0);
  pairs->shaft_box()->setCurrentIndex(0);
  QTest::mouseClick(pairs->only_button(), Qt::LeftButton);
  EXPECT_EQ(pieces(), (std::vector<build::PiecePair>{in_order[0]}));
  EXPECT_EQ(pairs->table()->rowCount(), 1);
  QTest::mouseClick(pairs->only_button(), Qt::LeftButton); // all again
  EXPECT_EQ(pieces(), in_order);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(pieces().size(), 1U);
}
