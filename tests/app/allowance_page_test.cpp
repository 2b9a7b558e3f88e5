#include "app/allowance/allowance_page.h"
#include "app/shell/shelf.h"
#include "app/shop/shop_page.h"
#include "tests/app/bench.h"

#include "app/marks/why.h"
#include "app/shop/sums_dialog.h"
#include "build/edit_drawing.h"
#include "quantity/length_text.h"

#include <algorithm>
#include <cmath>

using namespace datrin;
using namespace datrin::test;
using allowance::SurfaceState;
using app::MainWindow;

class Spending : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    choose_piece(2); // the cylinder block, begun
    window->go_to(MainWindow::allowance);
  }
  app::AllowancePage& page() { return *window->allowance_page(); }
  const build::Build& build() { return window->document().build(); }
  int column(const char* name) {
    for (std::size_t k = 0; k < page().plans().size(); ++k)
      if (page().plans()[k].drawn.name == name) return static_cast<int>(k);
    ADD_FAILURE() << name;
    return -1;
  }
  const allowance::SurfacePlan& plan(const char* name) {
    return page().plans()[static_cast<std::size_t>(column(name))];
  }
  void read(const char* name, allowance::ReadingOf of, const QString& text) {
    page().choose(column(name));
    const int k = page().reading_box()->findData(static_cast<int>(of));
    ASSERT_GE(k, 0);
    page().reading_box()->setCurrentIndex(k);
    enter(page().reading_edit(), text, Qt::Key_Return);
  }
};

TEST_F(Spending, TheNextNumberIsTheDialsAndTheLathesReadsTheDiameter) {
  page().choose(column("end A"));
  const auto& end = plan("end A");
  EXPECT_EQ(page().next_text().toStdString(),
            number_text(std::round((end.most - end.rest.passes.front().left) * 100) / 100, 2));
  page().choose(column("bore"));
  const auto& bore = plan("bore");
  ASSERT_TRUE(bore.dial_here().reads_diameter);
  const double moved = 2 * (bore.most - bore.rest.passes.front().left); // graduated in 0.02
  EXPECT_NEAR(page().next_text().toDouble(), moved, 0.011);
  // The pass list: what is left after the last is the lapping allowance over the middle of 31 H7, 31.0125,
  // and the size after it short by twice that.
  const int last = page().table()->rowCount() - 2;
  EXPECT_EQ(page().table()->item(last, 3)->text(), "0.01");
  EXPECT_EQ(page().table()->item(last, 5)->text(), "30.97");
  EXPECT_EQ(page().table()->item(last + 1, 1)->text(), "lap");
}

TEST_F(Spending, EveryReadingReplansAndUndoGoesBackThroughIt) {
  page().choose(column("end A"));
  const auto before = page().next_text();
  const int passes = page().table()->rowCount();
  ASSERT_GE(passes, 2);
  read("end A", allowance::ReadingOf::left, "1.31 mm");
  EXPECT_EQ(plan("end A").state, SurfaceState::roughed);
  EXPECT_NEAR(plan("end A").now, 1.31, 1e-9);
  EXPECT_NE(page().next_text(), before);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Cut end A to 1.31 left");
  read("end A", allowance::ReadingOf::left, "0.02");
  EXPECT_EQ(plan("end A").state, SurfaceState::finished) << plan("end A").low << " " << plan("end A").high;
  EXPECT_EQ(page().next_text(), QString(QChar(0x2713)));
  window->document().undo();
  EXPECT_EQ(plan("end A").state, SurfaceState::roughed);
  window->document().undo();
  EXPECT_EQ(plan("end A").state, SurfaceState::as_cast);
  EXPECT_EQ(page().next_text(), before);
  EXPECT_EQ(page().table()->rowCount(), passes);
  window->document().redo();
  EXPECT_NEAR(plan("end A").now, 1.31, 1e-9);
}

TEST_F(Spending, ReadingsOfEveryKindComeToTheSame) {
  read("bore", allowance::ReadingOf::size, "30.4");
  EXPECT_NEAR(plan("bore").now, 0.3, 1e-9);
  const double most = plan("bore").most;
  read("bore", allowance::ReadingOf::dial, QString::number(2 * (most - 0.2), 'f', 6) + " mm");
  EXPECT_NEAR(plan("bore").now, 0.2, 1e-5);
  // The foot is finished 0.01 over; nothing of the drawing stands opposite it but the as-cast top.
  read("end A", allowance::ReadingOf::distance, "84");
  EXPECT_EQ(page().mistake_text(), "The face opposite is not cut yet: read what is still to come off.");
  read("end B", allowance::ReadingOf::left, "0.05");
  read("end A", allowance::ReadingOf::distance, "83.05");
  EXPECT_NEAR(plan("end A").now, 1.0, 1e-9);
}

TEST_F(Spending, BadReadingsAreRefusedAndNothingIsLogged) {
  const auto cuts = build().cuts_of(window->document().piece(), plan("end A").surface).size();
  for (const char* text : {"", "about one", "1 furlong", "nan"}) {
    read("end A", allowance::ReadingOf::left, text);
    EXPECT_TRUE(page().mistake_text().startsWith("Reading, column"))
        << text << ": " << page().mistake_text().toStdString();
  }
  read("end A", allowance::ReadingOf::left, "2 in");
  EXPECT_TRUE(page().mistake_text().startsWith("That would leave 50.80"))
      << page().mistake_text().toStdString();
  EXPECT_EQ(build().cuts_of(window->document().piece(), plan("end A").surface).size(), cuts);
}

TEST_F(Spending, ACutTooDeepIsAbsorbedByTheOtherFaceWhileThatIsUncut) {
  read("end A", allowance::ReadingOf::left, "-0.9");
  ASSERT_EQ(plan("end A").state, SurfaceState::spoilt);
  EXPECT_TRUE(page().mistake_text().contains("it can be absorbed")) << page().mistake_text().toStdString();
  ASSERT_TRUE(page().move_button()->isVisibleTo(&page()) || !page().move_button()->isHidden());
  page().move_button()->click();
  EXPECT_EQ(plan("end A").state, SurfaceState::finished);
  EXPECT_NEAR(plan("end A").now, 0, 1e-6);
  EXPECT_TRUE(window->undo_action()->text().startsWith("Undo: Move Cylinder block"))
      << window->undo_action()->text().toStdString();
  window->document().undo();
  EXPECT_EQ(plan("end A").state, SurfaceState::spoilt);
  // With the other end finished nothing can take it.
  read("end B", allowance::ReadingOf::left, "0");
  page().choose(column("end A"));
  EXPECT_TRUE(page().mistake_text().contains("end B is finished and would be off by 0.90"))
      << page().mistake_text().toStdString();
  EXPECT_TRUE(page().move_button()->isHidden());
}

TEST_F(Spending, ABoreTooLargeAsksForALargerMate) {
  read("bore", allowance::ReadingOf::size, "31.2");
  EXPECT_TRUE(page().mistake_text().contains("make it 0.20\u202Fmm larger on the diameter"))
      << page().mistake_text().toStdString();
  EXPECT_TRUE(page().mistake_text().contains("The wall under barrel still keeps"))
      << page().mistake_text().toStdString();
}

TEST_F(Spending, ThePlanIsChangedByTypingAndAnnouncedPassesAreAddedUp) {
  page().choose(column("end A"));
  page().tabs()->choose(1);
  const int passes = page().table()->rowCount();
  enter(page().field("rough")->edit(), "0.3 mm");
  EXPECT_GT(page().table()->rowCount(), passes);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Rough for end A");
  enter(page().field("rough")->edit(), "0");
  EXPECT_TRUE(page().field("rough")->message().startsWith("rough must be above 0"))
      << page().field("rough")->message().toStdString();
  enter(page().announced_edit(), "0.5 + 0.5 + 0.5");
  const double off = 1.5 - plan("end A").now;
  EXPECT_TRUE(page().announced_text().contains(off < 0 ? "less than there is" : "more than there is"))
      << page().announced_text().toStdString();
  page().last_box()->setCurrentIndex(3);
  emit page().last_box()->activated(3);
  EXPECT_TRUE(page().verdict_text().contains("Fit by trial at")) << page().verdict_text().toStdString();
}

TEST_F(Spending, TheMetalIsSharedByHandAndTheSeatFollows) {
  page().choose(column("end A"));
  page().tabs()->choose(2);
  auto* shares = page().shares();
  ASSERT_GE(shares->table()->rowCount(), 5);
  const double both = plan("end A").least + plan("end B").least, kept = plan("end B").drawn.required;
  int here = -1;
  for (int k = 0; k < shares->table()->rowCount(); ++k)
    if (shares->table()->item(k, 0)->text() == "all here") here = k;
  ASSERT_GE(here, 0);
  shares->table()->setCurrentCell(here, 0);
  shares->take_button()->click();
  EXPECT_NEAR(plan("end B").least, kept, 1e-6); // no more than it needs
  EXPECT_NEAR(plan("end A").least, both - kept, 1e-6);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Share the metal at end A: all here");
}

TEST_F(Spending, TwoPiecesOfOnePartHavePlansOfTheirOwnOrTheSameHeights) {
  choose_piece(0);
  const double first = plan("foot").most;
  choose_piece(1);
  const double second = plan("foot").most;
  EXPECT_NE(first, second);
  page().choose(column("foot"));
  page().batch_box()->click();
  EXPECT_NEAR(plan("foot").most, std::max(first, second), 1e-9);
  read("foot", allowance::ReadingOf::left, "0.4");
  choose_piece(0);
  EXPECT_TRUE(plan("foot").cuts.empty());
}

TEST_F(Spending, ByKeyboardAndInInches) {
  page().metal()->setFocus();
  page().choose(0);
  QTest::keyClick(page().metal(), Qt::Key_Right);
  EXPECT_EQ(page().metal()->chosen(), 1);
  auto info = build().info();
  info.unit = Unit::inch;
  ASSERT_TRUE(window->document().apply(build::replace(build(), build::Build::info_id, info, "x")));
  read("end A", allowance::ReadingOf::left, "0.050");
  EXPECT_NEAR(plan("end A").now, 1.27, 1e-9);
  read("end A", allowance::ReadingOf::left, "12 thou");
  EXPECT_NEAR(plan("end A").now, 0.3048, 1e-9);
}

TEST_F(Spending, APartWithNothingYetTeaches) {
  window->document().apply(build::add_part(build(), "Empty").edit);
  choose_piece(static_cast<std::size_t>(window->shelf()->model()->rowCount()) - 1);
  EXPECT_EQ(page().next_text(), "\u2013");
  EXPECT_EQ(page().verdict_text(), "No surface is to be machined yet.");
}

TEST_F(Spending, EveryLevelShowsItsSum) {
  page().choose(column("foot"));
  for (int row = 0; row < page().table()->rowCount(); ++row)
    EXPECT_NEAR(allowance::level_sum(plan("foot"), row).total(),
                page().table()->item(row, 3)->text().replace(QChar(0x2212), '-').toDouble(), 0.0051)
        << row;
  page().choose(column("end A"));
  EXPECT_NEAR(allowance::level_sum(plan("end A"), 0).total(), plan("end A").rest.passes.front().left, 1e-9);
  page().metal()->setFocus();
  press(Qt::Key_F1);
  EXPECT_FALSE(window->findChildren<app::WhyCard*>().isEmpty());
}

TEST_F(Spending, TheShopIsFilled) {
  window->go_to(MainWindow::shop);
  auto& page = *window->shop_page();
  auto* machines = page.sheet_of(build::kind_of<build::Machine>);
  const int rows = machines->rowCount(); // with the empty one
  machines->type(rows - 1, 0, "round table");
  EXPECT_EQ(machines->rowCount(), rows + 1);
  const int graduation = column_called(machines, "Graduation");
  machines->type(rows - 1, graduation, "none");
  EXPECT_TRUE(page.message().startsWith("Graduation: ")) << page.message().toStdString();
  machines->type(rows - 1, graduation, "0.05 mm");
  EXPECT_NEAR(build().machines().back().second.resolution, 0.05, 1e-12);
  auto* tools = page.sheet_of(build::kind_of<build::Tool>);
  const int last = tools->rowCount() - 1;
  tools->type(last, 0, "cheap insert");
  tools->type(last, column_called(tools, "Thinnest cut"), "0.015 in");
  EXPECT_NEAR(build().tools().back().second.least_cut, 0.381, 1e-9);
  window->document().apply(build::remove(build(), build().machines().front().first, "Remove a machine"));
  EXPECT_EQ(machines->rowCount(), rows);
}

TEST_F(Spending, ABenchSumIsAnsweredWhileTyped) {
  app::SumsDialog sums(Unit::mm, {}, window.get());
  sums.search()->setText("square from");
  ASSERT_EQ(sums.fields().size(), 2U); // the proportion of a rectangle may stay empty
  sums.fields()[0]->setText("25");
  ASSERT_EQ(sums.answers()->rowCount(), 4);
  EXPECT_EQ(sums.answers()->item(0, 1)->text(), "17.678"); // common practice: 25 round gives 17.68 square
  EXPECT_EQ(sums.answers()->item(0, 2)->text(), "0.6960");
  sums.fields()[0]->setText("a bit");
  EXPECT_EQ(sums.answers()->rowCount(), 0);
  EXPECT_TRUE(sums.words().startsWith("Bar diameter: ")) << sums.words().toStdString();
  sums.search()->setText("zzz");
  EXPECT_TRUE(sums.fields().empty());
  sums.choose("taper-strip");
  ASSERT_EQ(sums.fields().size(), 4U);
  sums.fields()[0]->setText("1 in");
  sums.fields()[1]->setText("12 in");
  EXPECT_EQ(sums.answers()->item(0, 1)->text(), "4.764\u00B0"); // common practice
}
