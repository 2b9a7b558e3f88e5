#include "app/casting/seat_page.h"
#include "app/page/page.h"
#include "build/edit_casting.h"
#include "build/edit_drawing.h"
#include "tests/app/bench.h"

#include "app/casting/piece_state.h"
#include "app/marks/why.h"
#include "quantity/unit.h"

#include <QApplication>
#include <QElapsedTimer>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Seating : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    window->go_to(MainWindow::seat);
  }
  app::SeatPage& page() { return *window->seat_page(); }
};

TEST_F(Seating, GlidesToTheBestAndSaysWhatHoldsIt) {
  seat_best();
  EXPECT_TRUE(page().state().best);
  EXPECT_GE(page().holds()->rows().size(), 4U);
  int ringed = 0;
  for (const auto& row : page().holds()->rows()) ringed = std::max(ringed, row.number);
  EXPECT_EQ(ringed, static_cast<int>(page().holds()->rows().size())); // the same numbers as in the picture
  EXPECT_EQ(window->undo_action()->text(), "Undo: Best seat for Main pedestal, no. 1 of 2");
}

// The answer of a search is kept for the piece and the touches it was asked for, or for none.
TEST_F(Seating, ASeatIsNeverKeptOnAnotherPiece) {
  auto& document = window->document();
  const auto first = document.piece();
  std::vector<std::pair<build::Id, build::Id>> others; // that can be seated, and are not seated best
  for (const auto& [part, p] : document.build().parts())
    for (const auto& [id, piece] : document.build().pieces_of(part))
      if (const auto state = app::piece_state(document.build(), id);
          id != first && state.can_judge() && !state.best)
        others.emplace_back(part, id);
  ASSERT_FALSE(others.empty());
  ASSERT_FALSE(page().state().best);
  page().canvas()->setFocus();
  QTest::keyClick(page().canvas(), Qt::Key_S);
  ASSERT_TRUE(page().busy());
  document.choose(others.front().first, others.front().second);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page().busy(); }, patience(60000)));
  for (const auto& [part, id] : others) {
    const auto seat = document.build().seat_of(id);
    EXPECT_FALSE(seat && seat->second.best) << id;
  }
  EXPECT_FALSE(app::piece_state(document.build(), first).best);
  EXPECT_TRUE(window->message().contains("Seat it best once more")) << window->message();
}

TEST_F(Seating, ASeatOfTouchesThatWereChangedMeanwhileIsNotKept) {
  auto& document = window->document();
  const auto touches = document.build().touches_of(document.piece());
  page().canvas()->setFocus();
  QTest::keyClick(page().canvas(), Qt::Key_S);
  ASSERT_TRUE(page().busy());
  auto changed = touches.front().second;
  changed.centre += Vec3(0, 0, 1);
  ASSERT_TRUE(document.apply(build::change_touch(document.build(), touches.front().first, changed)));
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page().busy(); }, patience(60000)));
  EXPECT_FALSE(page().state().best);
  seat_best(); // and once more it is the best of what there is now
  EXPECT_TRUE(page().state().best);
}

TEST_F(Seating, AfterARestartTheKeptSeatIsExplainedAgain) {
  seat_best();
  const auto holds = page().holds()->rows().size();
  open_window();
  open_demo();
  window->go_to(MainWindow::seat);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page().busy(); }, patience(5000)));
  EXPECT_EQ(page().holds()->rows().size(), holds);
  EXPECT_GT(page().holds()->rows().front().share, 0);
}

TEST_F(Seating, ArrowsNudgeAndBracketsTurnInTheChosenView) {
  seat_best();
  const auto before = page().state().pose;
  QTest::keyClick(page().canvas(), Qt::Key_Right);
  EXPECT_NEAR((before.translation - page().state().pose.translation).norm(), 0.05, 1e-9);
  // The part went right by 0.05, so on the drawing the casting went left.
  EXPECT_NEAR((page().state().pose.translation - before.translation).x(), -0.05, 1e-6);
  QTest::keyClick(page().canvas(), Qt::Key_2);
  EXPECT_EQ(page().canvas()->active_view(), sheets::View::plan);
  const auto nudged = page().state().pose;
  QTest::keyClick(page().canvas(), Qt::Key_BracketLeft);
  EXPECT_NEAR(vector_from_rotation(page().state().pose.rotation * nudged.rotation.transpose()).norm(),
              radians(0.05), 1e-9);
  EXPECT_FALSE(page().state().best);
  for (int n = 0; n < 2; ++n) press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(page().state().pose.translation, before.translation);
}

TEST_F(Seating, AltDragTurns) {
  seat_best();
  const auto before = page().state().pose;
  const auto& views = page().canvas()->views();
  const QPoint middle(static_cast<int>(views.frame[0].middle_px.x()),
                      static_cast<int>(views.frame[0].middle_px.y()));
  QTest::mousePress(page().canvas(), Qt::LeftButton, Qt::AltModifier, middle + QPoint(80, 0));
  QTest::mouseMove(page().canvas(), middle + QPoint(80, -8));
  QTest::mouseRelease(page().canvas(), Qt::LeftButton, Qt::AltModifier, middle + QPoint(80, -8));
  const Vec3 turn = vector_from_rotation(page().state().pose.rotation * before.rotation.transpose());
  EXPECT_GT(turn.norm(), radians(2));
  EXPECT_GT(std::abs(turn.y()), 0.99 * turn.norm()); // about the line of sight of the front view
}

TEST_F(Seating, WhatDoesNotCleanUpIsNamedWithItsShortfall) {
  seat_best();
  for (int n = 0; n < 5; ++n) QTest::keyClick(page().canvas(), Qt::Key_Up, Qt::ShiftModifier);
  EXPECT_TRUE(page().verdict_text().contains("it does not clean up here: "))
      << page().verdict_text().toStdString();
  EXPECT_TRUE(page().verdict_text().contains("short by"));
  bool gone = false;
  for (const auto* row : page().room_rows()) gone = gone || row->state() == app::RoomState::gone;
  EXPECT_TRUE(gone);
}

TEST_F(Seating, TwoTouchesShowWhatIsMissingInsteadOfNumbers) {
  auto& document = window->document();
  std::vector<build::Id> drop;
  for (const auto& [id, touch] : document.build().touches_of(document.piece())) drop.push_back(id);
  drop.resize(drop.size() - 2);
  ASSERT_TRUE(document.apply(build::remove_touches(document.build(), drop)));
  EXPECT_EQ(page().least_text(), "\u2013");
  EXPECT_TRUE(page().verdict_text().contains("foot: touch 3 places, well apart (0 so far)"))
      << page().verdict_text().toStdString();
  EXPECT_FALSE(page().best_button()->isEnabled());
  EXPECT_TRUE(page().comb()->combs().empty());
}

TEST_F(Seating, AnEmptyPartTeaches) {
  auto& document = window->document();
  const auto part = document.build().next_id();
  ASSERT_TRUE(document.apply(build::add_part(document.build(), "Flywheel").edit));
  document.choose(part, 0);
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    EXPECT_GT(drawn_on(window->page(row.step)), 0.003) << row.name.toStdString();
  }
  EXPECT_EQ(page().verdict_text(), "State the drawing and touch the casting first.");
}

TEST_F(Seating, FiguresShowTheirSum) {
  seat_best();
  auto* row = page().room_rows().front();
  row->setFocus();
  QTest::keyClick(row, Qt::Key_F1);
  auto* card = row->findChild<app::WhyCard*>();
  ASSERT_NE(card, nullptr);
  EXPECT_EQ(card->reckoning().title, "room on foot");
  ASSERT_EQ(card->reckoning().lines.size(), 3U);
  EXPECT_NEAR(card->reckoning().total(), row->margin(), 1e-12);
  QTest::keyClick(card, Qt::Key_C, Qt::ControlModifier);
  QTest::keyClick(card, Qt::Key_Escape);
}

TEST_F(Seating, LookChangesKeepEverything) {
  seat_best();
  const auto least = page().least_text();
  for (const double scale : {2.0, 1.0}) {
    window->set_look(scale > 1, scale);
    EXPECT_EQ(window->step(), MainWindow::seat);
    EXPECT_EQ(page().least_text(), least);
    EXPECT_LE(window->minimumSizeHint().width(), 1280) << scale;
    EXPECT_GT(drawn_on(page().canvas()), 0.02) << scale;
  }
}
