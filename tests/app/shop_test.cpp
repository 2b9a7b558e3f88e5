// The shop, threads and sums by their windows: in inches and in millimetres, right and wrong.

#include "tests/app/bench.h"

#include "app/shop/shop_dialog.h"
#include "app/shop/sums_dialog.h"
#include "app/shop/threads_dialog.h"
#include "build/edit_drawing.h"

#include <QSignalSpy>

#include <cmath>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

class Shop : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    ASSERT_TRUE(window->new_build(folder.filePath("shop.datrin")));
  }
  const build::Build& b() { return window->document().build(); }
  void inches() { ASSERT_TRUE(window->document().apply(build::work_in(b(), Unit::inch))); }
};

QString cell(const QTableWidget* table, int row, int column) {
  return table->item(row, column) ? table->item(row, column)->text() : QString();
}

} // namespace

// What is left empty is what is usual: a graduation of 0.01 mm, or of a thou on a dial in inches.
TEST_F(Shop, AMachineInInchesHasAThouUnlessItIsSaid) {
  app::ShopDialog shop(window->document(), window.get());
  shop.show();
  enter(shop.machine_name(), "lathe");
  shop.unit_box()->setCurrentIndex(1);
  QTest::mouseClick(shop.add_machine_button(), Qt::LeftButton);
  ASSERT_EQ(b().machines().size(), 1U);
  EXPECT_EQ(b().machines().front().second.unit, Unit::inch);
  EXPECT_NEAR(b().machines().front().second.resolution, 0.0254, 1e-12);
  enter(shop.machine_name(), "mill");
  shop.unit_box()->setCurrentIndex(0);
  enter(shop.resolution(), "0.005");
  QTest::mouseClick(shop.add_machine_button(), Qt::LeftButton);
  ASSERT_EQ(b().machines().size(), 2U);
  EXPECT_NEAR(b().machines().back().second.resolution, 0.005, 1e-12);
  EXPECT_EQ(shop.machine_name()->text(), QString()); // ready for the next
}

TEST_F(Shop, WhatIsWrongIsToldAndNothingKept) {
  app::ShopDialog shop(window->document(), window.get());
  shop.show();
  QTest::mouseClick(shop.add_machine_button(), Qt::LeftButton);
  EXPECT_EQ(shop.message(), "Name the machine.");
  enter(shop.machine_name(), "mill");
  enter(shop.resolution(), "-1");
  QTest::mouseClick(shop.add_machine_button(), Qt::LeftButton);
  EXPECT_EQ(shop.message(), "Graduation of its dial: must be above 0");
  EXPECT_TRUE(b().machines().empty());
  EXPECT_EQ(shop.machine_name()->text(), "mill"); // what was entered stands
  enter(shop.resolution(), "1 thou");
  QTest::mouseClick(shop.add_machine_button(), Qt::LeftButton);
  EXPECT_EQ(b().machines().size(), 1U);
}

TEST_F(Shop, AnInstrumentMayShowLessThanNothingAtZero) {
  inches();
  app::ShopDialog shop(window->document(), window.get());
  shop.show();
  enter(shop.instrument_name(), "micrometer");
  enter(shop.instrument_uncertainty(), "0.0002");
  enter(shop.instrument_zero(), "-0.0001", Qt::Key_Return);
  ASSERT_EQ(b().instruments().size(), 1U) << shop.message();
  EXPECT_NEAR(b().instruments().front().second.uncertainty, 0.0002 * 25.4, 1e-12);
  EXPECT_NEAR(b().instruments().front().second.zero, -0.0001 * 25.4, 1e-12);
}

// ISO 2306: M8 is tapped at 6.8; the usual inch list: 1/4-20 at #7; from memory.
TEST_F(Shop, ThreadsTellTheStandardsDrill) {
  for (const auto unit : {Unit::mm, Unit::inch}) {
    app::ThreadsDialog threads(unit, {}, window.get());
    threads.show();
    enter(threads.thread_edit(), "M8");
    EXPECT_TRUE(threads.answer().contains("6.8 mm")) << threads.answer();
    enter(threads.thread_edit(), "1/4-20");
    EXPECT_TRUE(threads.answer().contains("#7")) << threads.answer();
    enter(threads.thread_edit(), "M8.5");
    EXPECT_TRUE(threads.answer().contains("did you mean")) << threads.answer();
  }
}

// A screw of 0.250 in and 20 threads to the inch is a quarter Whitworth or UNC: both are named.
TEST_F(Shop, AnUnknownScrewIsRankedInTheUnitOfTheDial) {
  app::ThreadsDialog threads(Unit::inch, {}, window.get());
  threads.show();
  enter(threads.outside_edit(), "0.249");
  enter(threads.pitch_edit(), "20 tpi");
  ASSERT_GT(threads.ranked()->rowCount(), 1);
  const auto first = cell(threads.ranked(), 0, 0) + cell(threads.ranked(), 1, 0);
  EXPECT_TRUE(first.contains("1/4")) << first;
  enter(threads.pitch_edit(), "many tpi");
  EXPECT_EQ(threads.verdict(), "Threads to the inch: write a number, like 16 tpi.");
  enter(threads.pitch_edit(), "1.27 mm");
  EXPECT_TRUE(threads.verdict().contains("1/4")) << threads.verdict();
  enter(threads.outside_edit(), "-3");
  EXPECT_TRUE(threads.verdict().contains("must be above 0")) << threads.verdict();
}

// By hand: a 1 in round bar gives a square of 0.7071 in, 17.961 mm.
TEST_F(Shop, SumsAnswerAsTheyAreTyped) {
  app::SumsDialog sums(Unit::inch, {}, window.get());
  sums.show();
  sums.choose("square-from-round");
  ASSERT_FALSE(sums.fields().empty());
  enter(sums.fields()[0], "1");
  ASSERT_GT(sums.answers()->rowCount(), 0);
  EXPECT_EQ(cell(sums.answers(), 0, 1), "0.7071");
  EXPECT_EQ(cell(sums.answers(), 0, 2), "17.961");
  enter(sums.fields()[0], "one");
  EXPECT_EQ(sums.answers()->rowCount(), 0);
  EXPECT_TRUE(sums.words().contains("one")) << sums.words();
  enter(sums.search(), "taper");
  EXPECT_GT(sums.list()->count(), 1);
  enter(sums.search(), "no such sum");
  EXPECT_EQ(sums.list()->count(), 0);
}

// What was typed was gone when another sum was looked at; an answer had to be copied by eye.
TEST_F(Shop, SumsKeepTheirValuesAndGiveTheirAnswer) {
  {
    app::SumsDialog sums(Unit::inch, {}, window.get());
    sums.show();
    sums.choose("creep");
    enter(sums.fields()[0], "7/8");
    enter(sums.fields()[1], "0.002");
    EXPECT_EQ(sums.understood(0)->text(), "0.8750\u202Fin \u00B7 22.225\u202Fmm");
    sums.fields()[2]->setText("shaft"); // asked: hole or shaft
    sums.choose("taper");
    sums.choose("creep");
    EXPECT_EQ(sums.fields()[0]->text(), "7/8");
    EXPECT_EQ(sums.fields()[2]->text(), "shaft");
  }
  app::SumsDialog again(Unit::inch, {}, window.get());
  again.show();
  again.choose("creep");
  EXPECT_EQ(again.fields()[0]->text(), "7/8");
  ASSERT_EQ(again.answers()->rowCount(), 6);
  EXPECT_EQ(cell(again.answers(), 5, 1), "0.8730"); // 0.875 less 0.002
  again.answers()->setCurrentCell(5, 0);
  QTest::mouseClick(again.take_button(), Qt::LeftButton);
  ASSERT_TRUE(again.taken());
  EXPECT_NEAR(*again.taken(), 0.873 * 25.4, 1e-9);
  // Kept as a dimension, with how it came about; without a part there is nothing to keep it for.
  EXPECT_FALSE(again.keep_button()->isEnabled());
  app::SumsDialog keeping(Unit::inch, "Rod", window.get());
  keeping.choose("creep");
  ASSERT_EQ(keeping.answers()->rowCount(), 6);
  keeping.answers()->setCurrentCell(5, 0);
  QSignalSpy kept(&keeping, &app::SumsDialog::keep_wanted);
  QTest::mouseClick(keeping.keep_button(), Qt::LeftButton);
  ASSERT_EQ(kept.count(), 1);
  EXPECT_NEAR(kept[0][1].toDouble(), 0.873 * 25.4, 1e-9);
  EXPECT_TRUE(kept[0][2].toString().contains("Size of the mate 7/8")) << kept[0][2].toString();
  enter(again.search(), "pcd");
  EXPECT_EQ(again.list()->count(), 2); // its group, and it
}

TEST_F(Shop, ShopHoldsReamersBarAndInstruments) {
  app::ShopDialog shop(window->document(), window.get());
  shop.show();
  const auto tools = b().tools().size(), instruments = b().instruments().size();
  shop.tool_name()->setText("3/8 in");
  shop.tool_kind()->setCurrentIndex(2);
  QTest::mouseClick(shop.add_tool_button(), Qt::LeftButton);
  EXPECT_EQ(b().tools().size(), tools); // a reamer without a size reaches nothing
  EXPECT_TRUE(shop.message().contains("Size of the tool")) << shop.message().toStdString();
  shop.tool_size()->setText("3/8 in");
  QTest::mouseClick(shop.add_tool_button(), Qt::LeftButton);
  ASSERT_EQ(b().tools().size(), tools + 1);
  EXPECT_EQ(b().tools().back().second.kind, build::ToolKind::reamer);
  EXPECT_NEAR(b().tools().back().second.size, 9.525, 1e-9);
  shop.instrument_name()->setText("bore gauge");
  shop.instrument_uncertainty()->setText("0.004");
  shop.instrument_zero()->setText("-0.001");
  QTest::mouseClick(shop.add_instrument_button(), Qt::LeftButton);
  ASSERT_EQ(b().instruments().size(), instruments + 1);
  EXPECT_NEAR(b().instruments().back().second.zero, -0.001, 1e-12);
}

TEST_F(Shop, ThreadsByNameAndUnknownOnes) {
  app::ThreadsDialog threads(Unit::mm, {{"3.1 mm", 3.1}, {"F", 6.5278}}, window.get());
  threads.show();
  threads.thread_edit()->setText("4BA");
  EXPECT_TRUE(threads.answer().contains("Tapping drill")) << threads.answer().toStdString();
  threads.deep_edit()->setText("10");
  threads.engaged_edit()->setText("2");
  EXPECT_TRUE(threads.answer().contains("deep to the shoulder")) << threads.answer().toStdString();
  EXPECT_TRUE(threads.answer().contains("Of the shop's own: 3.1 mm")) << threads.answer().toStdString();
  EXPECT_TRUE(threads.answer().contains("Short"));
  threads.thread_edit()->setText("4CA");
  EXPECT_TRUE(threads.answer().contains("did you mean")) << threads.answer().toStdString();
  threads.outside_edit()->setText("9.49");
  threads.pitch_edit()->setText("16 tpi");
  ASSERT_GE(threads.ranked()->rowCount(), 3);
  EXPECT_TRUE(threads.ranked()->item(0, 0)->text().startsWith("3/8"));
  EXPECT_TRUE(threads.verdict().contains("taken for it")) << threads.verdict().toStdString();
  threads.pitch_edit()->setText("x tpi");
  EXPECT_TRUE(threads.verdict().contains("like 16 tpi"));
}
