// The shop, threads and sums by their windows: in inches and in millimetres, right and wrong.

#include "app/shop/shop_page.h"
#include "tests/app/bench.h"

#include "app/shop/sums_dialog.h"
#include "app/shop/threads_dialog.h"
#include "build/edit_drawing.h"
#include "build/edits.h"

#include <sys/stat.h>

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
  app::ShopPage& page() { return *window->shop_page(); }
  void inches() { ASSERT_TRUE(window->document().apply(build::work_in(b(), Unit::inch))); }
};

QString cell(const QTableWidget* table, int row, int column) {
  return table->item(row, column) ? table->item(row, column)->text() : QString();
}

} // namespace

// What is not said is what is usual: a graduation of 0.01 mm, or of a thou where one works in inches.
TEST_F(Shop, AMachineInInchesHasAThouUnlessItIsSaid) {
  inches();
  window->go_to(MainWindow::shop);
  auto* machines = page().sheet_of(build::kind_of<build::Machine>);
  machines->type(0, 0, "small lathe");
  ASSERT_EQ(b().machines().size(), 1U);
  const auto lathe = [&] { return b().machines().front().second; };
  EXPECT_EQ(lathe().unit, Unit::inch);
  EXPECT_NEAR(lathe().resolution, 0.0254, 1e-12);
  EXPECT_EQ(lathe().kind, build::MachineKind::lathe); // by its name
  EXPECT_TRUE(lathe().reads_diameter);
  machines->type(0, column_called(machines, "Spindle bore"), "25/32");
  EXPECT_NEAR(lathe().spindle_bore, 25.0 / 32 * 25.4, 1e-9);
  machines->type(0, column_called(machines, "Swing"), "180 mm");
  EXPECT_NEAR(lathe().swing, 180, 1e-9);
  EXPECT_EQ(cell(machines, 0, column_called(machines, "Swing")), "7.0866");
  machines->type(0, column_called(machines, "Kind"), "mill");
  EXPECT_EQ(lathe().kind, build::MachineKind::mill);
}

TEST_F(Shop, WhatIsWrongIsToldAndNothingKept) {
  window->go_to(MainWindow::shop);
  auto* machines = page().sheet_of(build::kind_of<build::Machine>);
  machines->type(0, 0, "mill");
  const auto before = b().records();
  machines->type(0, column_called(machines, "Graduation"), "-1");
  EXPECT_TRUE(page().message().startsWith("Graduation: ")) << page().message();
  machines->type(0, column_called(machines, "Graduation"), "");
  EXPECT_TRUE(page().message().contains("above 0")) << page().message();
  machines->type(0, 0, " ");
  EXPECT_TRUE(page().message().contains("needs a name")) << page().message();
  machines->type(0, column_called(machines, "Kind"), "anvil");
  EXPECT_TRUE(page().message().contains("one of not stated, lathe, mill")) << page().message();
  EXPECT_EQ(b().records(), before);
  machines->type(0, column_called(machines, "Graduation"), "1 thou");
  EXPECT_NEAR(b().machines().front().second.resolution, 0.0254, 1e-12);
  EXPECT_EQ(page().message(), "");
  machines->setCurrentCell(0, 0);
  machines->setFocus();
  QTest::keyClick(machines, Qt::Key_Delete);
  EXPECT_TRUE(b().machines().empty());
}

TEST_F(Shop, AnInstrumentMayShowLessThanNothingAtZero) {
  inches();
  window->go_to(MainWindow::shop);
  auto* gauges = page().sheet_of(build::kind_of<build::Instrument>);
  gauges->type(0, 0, "micrometer");
  gauges->type(0, column_called(gauges, "\u00B1, 95 %"), "0.0002");
  gauges->type(0, column_called(gauges, "At zero"), "-0.0001");
  ASSERT_EQ(b().instruments().size(), 1U) << page().message();
  EXPECT_NEAR(b().instruments().front().second.uncertainty, 0.0002 * 25.4, 1e-12);
  EXPECT_NEAR(b().instruments().front().second.zero, -0.0001 * 25.4, 1e-12);
}

// A micro drill makes 0.007 where 0.005 was wanted (common practice): two thou over.
TEST_F(Shop, AToolsErrorIsLoggedAndTold) {
  inches();
  window->go_to(MainWindow::shop);
  window->show_face(1);
  auto* tools = page().sheet_of(build::kind_of<build::Tool>);
  tools->type(0, 0, "drill 0.005");
  tools->type(0, column_called(tools, "Size"), "0.005");
  tools->setCurrentCell(0, 0);
  EXPECT_EQ(b().tools().front().second.kind, build::ToolKind::drill);
  enter(page().made_field()->edit(), "0.007", Qt::Key_Return);
  QTest::mouseClick(page().log_button(), Qt::LeftButton);
  ASSERT_EQ(b().tools().front().second.made.size(), 1U) << page().message();
  EXPECT_TRUE(page().log_text().contains("0.0020\u202Fin")) << page().log_text();
  EXPECT_TRUE(page().log_text().contains("over")) << page().log_text();
}

TEST_F(Shop, WhatOperationsWantAndIsNotThereIsListed) {
  const auto part = build::add_part(b(), "Plate", true);
  ASSERT_TRUE(window->document().apply(part.edit));
  build::Operation o;
  o.part = part.id;
  o.kind = build::OperationKind::drill;
  o.size = 5;
  ASSERT_TRUE(window->document().apply(build::add(b(), o, "Drill")));
  window->go_to(MainWindow::shop);
  window->show_face(1);
  ASSERT_EQ(page().missing()->count(), 1);
  EXPECT_TRUE(page().missing()->item(0)->text().startsWith("drill 5.00\u202Fmm, for 1 operation"))
      << page().missing()->item(0)->text();
  QTest::mouseClick(page().buy_button(), Qt::LeftButton);
  ASSERT_EQ(b().supplies().size(), 1U);
  EXPECT_EQ(b().supplies().front().second.kind, build::SupplyKind::to_buy);
  QTest::mouseClick(page().buy_button(), Qt::LeftButton); // not twice
  EXPECT_EQ(b().supplies().size(), 1U);
  EXPECT_TRUE(page().message().contains("on the list already")) << page().message();
}

TEST_F(Shop, ItIsTakenIntoAnotherBuildByFile) {
  window->go_to(MainWindow::shop);
  auto* machines = page().sheet_of(build::kind_of<build::Machine>);
  machines->type(0, 0, "=lathe, \"old\"");
  machines->type(0, column_called(machines, "Quirks"), "one line\nand another");
  machines->type(0, column_called(machines, "Graduation"), "1 thou");
  auto* supplies = page().sheet_of(build::kind_of<build::Supply>);
  supplies->type(0, 0, "M5 hexagon");
  supplies->type(0, column_called(supplies, "How many"), "40");
  for (const char* name : {"shop.json", "shop.csv"})
    ASSERT_EQ(page().save_shop(folder.filePath(name)), "") << name;
  const auto lathe = b().machines().front().second;
  for (const char* name : {"shop.json", "shop.csv"}) {
    ASSERT_TRUE(window->new_build(folder.filePath(QString("other-") + name + ".datrin")));
    ASSERT_EQ(page().take_shop(folder.filePath(name)), "") << name;
    ASSERT_EQ(b().machines().size(), 1U) << name;
    EXPECT_EQ(b().machines().front().second, lathe) << name;
    EXPECT_EQ(b().supplies().front().second.count, 40) << name;
    // Taken again it is as it was.
    const auto before = b().records();
    EXPECT_EQ(page().take_shop(folder.filePath(name)), "");
    EXPECT_EQ(b().records(), before) << page().message();
    window->document().undo();
    EXPECT_TRUE(b().machines().empty()); // one step
  }
  QFile cut(folder.filePath("cut.json"));
  ASSERT_TRUE(cut.open(QIODevice::WriteOnly));
  cut.write("{\"format\": \"datrin-shop\", \"records\": [{\"kind\": \"machine\"");
  cut.close();
  // A pipe nobody writes to was waited for, for ever.
  const auto pipe = folder.filePath("pipe.json");
  ASSERT_EQ(::mkfifo(pipe.toLocal8Bit().constData(), 0600), 0);
  EXPECT_EQ(page().take_shop(pipe), pipe + ": is no file that can be read from end to end");
  EXPECT_TRUE(page().take_shop(cut.fileName()).contains("is no shop of this program"));
  EXPECT_TRUE(page().save_shop(folder.filePath("shop.txt")).contains(".json or .csv"));
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

TEST_F(Shop, WhatAToolIsFollowsFromItsNameUntilItIsSaid) {
  window->go_to(MainWindow::shop);
  auto* tools = page().sheet_of(build::kind_of<build::Tool>);
  tools->type(0, 0, "reamer 3/8");
  tools->type(0, column_called(tools, "Size"), "3/8 in");
  EXPECT_EQ(b().tools().back().second.kind, build::ToolKind::reamer);
  EXPECT_NEAR(b().tools().back().second.size, 9.525, 1e-9);
  tools->type(0, column_called(tools, "Kind"), "ground bar");
  EXPECT_EQ(b().tools().back().second.kind, build::ToolKind::ground_bar);
  tools->type(0, column_called(tools, "Point"), "118\u00B0");
  EXPECT_NEAR(degrees(b().tools().back().second.point_angle), 118, 1e-9);
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
