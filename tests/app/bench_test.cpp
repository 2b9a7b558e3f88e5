// At the machine, by number pad and Enter alone.

#include "app/bench/bench_view.h"
#include "app/route/route_page.h"
#include "tests/app/own_build.h"

#include "app/marks/why.h"

#include <QListWidget>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;

namespace {

class AtTheBench : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    choose_piece(2); // the cylinder, begun on the mill
    window->go_to(MainWindow::route);
    QTest::keyClick(window.get(), Qt::Key_F11);
    ASSERT_TRUE(bench().is_open());
  }
  app::BenchView& bench() { return *window->bench(); }
  QLineEdit* field() { return bench().reading(); }
  const Build& b() { return window->document().build(); }
};

} // namespace

TEST_F(AtTheBench, OneNumberAtATimeAndItsReadingGoesIntoTheRecord) {
  EXPECT_TRUE(field()->hasFocus());
  EXPECT_EQ(bench().title(), "Look out");
  EXPECT_TRUE(bench().words().contains("Eyes")) << bench().words().toStdString();
  pad(field(), "");
  EXPECT_EQ(bench().title(), "Put it in");
  EXPECT_TRUE(bench().words().contains("lamped on the table"));
  pad(field(), "");
  ASSERT_EQ(bench().step()->kind, steps::StepKind::cut);
  EXPECT_TRUE(bench().title().startsWith("End B, cut")) << bench().title().toStdString();
  EXPECT_TRUE(bench().other_number().contains("in"));
  EXPECT_FALSE(bench().next_steps().isEmpty());
  const Id surface = bench().step()->surface, piece = window->document().piece();
  const auto before = b().cuts_of(piece, surface).size();
  // Enter alone is not a reading; what cannot be is asked about and stays in the field.
  pad(field(), "");
  EXPECT_TRUE(bench().message().contains("ype what it reads")) << bench().message().toStdString();
  pad(field(), "900");
  EXPECT_FALSE(bench().message().isEmpty());
  EXPECT_EQ(field()->text(), "900");
  EXPECT_EQ(b().cuts_of(piece, surface).size(), before);
  field()->clear();
  pad(field(), "1.3");
  EXPECT_EQ(b().cuts_of(piece, surface).size(), before + 1);
  EXPECT_NEAR(b().cuts_of(piece, surface).back().second.left, 1.3, 1e-9);
  EXPECT_TRUE(bench().message().contains("still to come off")) << bench().message().toStdString();
  EXPECT_TRUE(field()->text().isEmpty());
  // How the next number adds up, by one key.
  QTest::keyClick(field(), Qt::Key_Asterisk, Qt::KeypadModifier);
  auto* card = window->findChild<app::WhyCard*>();
  ASSERT_TRUE(card);
  EXPECT_NEAR(card->reckoning().total(), *bench().step()->number, 1e-6);
  card->close();
  window->document().undo();
  EXPECT_EQ(b().cuts_of(piece, surface).size(), before);
}

TEST_F(AtTheBench, LeftTodayFoundAgainAtTheSameStep) {
  pad(field(), "");
  pad(field(), "");
  const auto key = bench().step()->key;
  QTest::keyClick(field(), Qt::Key_Escape);
  ASSERT_TRUE(bench().is_open()); // asks what stands there
  QTest::keyClicks(field(), "X 12.40, vise trammed");
  QTest::keyClick(field(), Qt::Key_Return);
  EXPECT_FALSE(bench().is_open());
  const auto path = window->document().path();
  window->document().choose(0, 0);
  ASSERT_TRUE(window->open_build(path));
  choose_piece(2);
  QTest::keyClick(window.get(), Qt::Key_F11);
  ASSERT_TRUE(bench().is_open());
  EXPECT_EQ(bench().step()->key, key);
  EXPECT_TRUE(bench().message().contains("X 12.40, vise trammed")) << bench().message().toStdString();
  // A step back, and Escape twice leaves without a word.
  QTest::keyClick(field(), Qt::Key_Backspace);
  EXPECT_EQ(bench().title(), "Put it in");
  QTest::keyClick(field(), Qt::Key_Escape);
  QTest::keyClick(field(), Qt::Key_Escape);
  EXPECT_FALSE(bench().is_open());
}

TEST_F(AtTheBench, TheMachinesOwnUnitIsShown) {
  pad(field(), "");
  pad(field(), "");
  const double mm = *bench().step()->number;
  const Id setup = window->route_page()->setups()->chosen();
  const Id machine = b().find<build::Setup>(setup)->machine;
  ASSERT_NE(machine, 0);
  auto m = *b().find<Machine>(machine);
  m.unit = Unit::inch;
  ASSERT_TRUE(window->document().apply(replace(b(), machine, m, "Unit")));
  EXPECT_NEAR(bench().number().toDouble(), mm / 25.4, 6e-5);
  const Id surface = bench().step()->surface;
  pad(field(), "0.05"); // inches, as that machine shows
  EXPECT_NEAR(b().cuts_of(window->document().piece(), surface).back().second.left, 1.27, 1e-9);
}

TEST_F(AtTheBench, FitsAtEverySizeOfTextAndIsReadFromAfar) {
  for (const double scale : {1.0, 2.0}) {
    bench().hide();
    window->set_look(scale > 1, scale);
    window->go_to_bench();
    ASSERT_TRUE(bench().is_open()) << scale << window->message().toStdString();
    bench().look_at(6);
    QApplication::processEvents();
    EXPECT_EQ(bench().size(), window->size());
    EXPECT_LE(bench().minimumSizeHint().width(), 1280) << scale;
    EXPECT_LE(bench().minimumSizeHint().height(), 800) << scale;
    // The number is a seventh of the window high: a finger's width on a screen three metres away.
    EXPECT_GE(QFontMetrics(bench().number_font()).height(), 100) << scale;
    EXPECT_GT(drawn_on(&bench()), 0.01);
  }
}

// A number pad has no Backspace and no Escape.
TEST_F(AtTheBench, BackAndOutByThePadAlone) {
  pad(field(), "");
  EXPECT_EQ(bench().title(), "Put it in");
  pad(field(), "-");
  EXPECT_EQ(bench().title(), "Look out");
  EXPECT_TRUE(field()->text().isEmpty());
  pad(field(), ".");
  ASSERT_TRUE(bench().is_open()); // asks what the dials show
  pad(field(), "12.4");
  EXPECT_FALSE(bench().is_open());
}

// The window closed, or the power gone, with the bench open: the next start stands at the same step.
TEST_F(AtTheBench, StartedAgainItStandsWhereItStood) {
  pad(field(), "");
  pad(field(), "");
  const auto key = bench().step()->key;
  const auto path = window->document().path();
  open_window(); // as a new start with the same settings
  ASSERT_TRUE(window->open_build(path)) << window->message().toStdString();
  ASSERT_TRUE(bench().is_open());
  EXPECT_EQ(bench().step()->key, key);
  EXPECT_TRUE(field()->hasFocus());
  // Left, it is left.
  QTest::keyClick(field(), Qt::Key_Escape);
  QTest::keyClick(field(), Qt::Key_Escape);
  open_window();
  ASSERT_TRUE(window->open_build(path));
  EXPECT_FALSE(bench().is_open());
}

TEST_F(AtTheBench, WhatIsTypedIsNotLostOnTheWayOut) {
  pad(field(), "");
  pad(field(), "");
  QTest::keyClicks(field(), "1.3");
  QTest::keyClick(field(), Qt::Key_Escape);
  EXPECT_EQ(field()->text(), "1.3");
  QTest::keyClick(field(), Qt::Key_Return);
  EXPECT_FALSE(bench().is_open());
  const auto place = b().bench_place_of(window->document().piece(), bench().setup());
  ASSERT_TRUE(place);
  EXPECT_EQ(place->second.dials, "1.3");
  // A sum is typed with *, which only asks in the empty field.
  QTest::keyClick(window.get(), Qt::Key_F11);
  const Id surface = bench().step()->surface;
  pad(field(), "2*0.65");
  EXPECT_NEAR(b().cuts_of(window->document().piece(), surface).back().second.left, 1.3, 1e-9);
}

TEST_F(AtTheBench, LargerTextKeepsThePlaceAndWhatIsTyped) {
  pad(field(), "");
  QTest::keyClicks(field(), "1.3");
  window->set_look(true, 1.25);
  ASSERT_TRUE(bench().is_open());
  EXPECT_EQ(bench().title(), "Put it in");
  EXPECT_EQ(field()->text(), "1.3");
  // Nothing is read here: it is refused, and stays.
  QTest::keyClick(field(), Qt::Key_Return);
  EXPECT_TRUE(bench().message().contains("othing is read here")) << bench().message().toStdString();
  EXPECT_EQ(field()->text(), "1.3");
}

TEST_F(AtTheBench, AnotherPageLeavesItAndTheKeyboardGoesBack) {
  QTest::keyClick(field(), Qt::Key_Escape);
  QTest::keyClick(field(), Qt::Key_Escape);
  auto* had = window->focusWidget();
  ASSERT_TRUE(had);
  QTest::keyClick(window.get(), Qt::Key_F11);
  ASSERT_TRUE(field()->hasFocus());
  QTest::keyClick(field(), Qt::Key_Escape);
  QTest::keyClick(field(), Qt::Key_Escape);
  EXPECT_EQ(window->focusWidget(), had);
  QTest::keyClick(window.get(), Qt::Key_F11);
  window->go_to(MainWindow::allowance);
  EXPECT_FALSE(bench().is_open());
  EXPECT_EQ(window->step(), MainWindow::allowance);
}

TEST_F(AtTheBench, ReachedFromTheOperationsAsWell) {
  QTest::keyClick(field(), Qt::Key_Escape);
  QTest::keyClick(field(), Qt::Key_Escape);
  window->show_face(2);
  auto* button = window->route_page()->operations()->bench_button();
  ASSERT_TRUE(button->isEnabled());
  QTest::mouseClick(button, Qt::LeftButton);
  EXPECT_TRUE(bench().is_open());
  EXPECT_TRUE(field()->hasFocus());
}

TEST_F(AtTheBench, WithoutSetupsItSaysWhatToDo) {
  QTest::keyClick(field(), Qt::Key_Escape);
  QTest::keyClick(field(), Qt::Key_Escape);
  choose_piece(0); // the pedestal has none
  QTest::keyClick(window.get(), Qt::Key_F11);
  EXPECT_FALSE(bench().is_open());
  EXPECT_TRUE(window->message().contains("There are no setups yet")) << window->message().toStdString();
}

// The same part in its next setup lies another way: it is drawn anew, though nothing of the build changed.
TEST_F(AtTheBench, TheNextSetupIsDrawnAsItLies) {
  const auto setups = b().setups_of(window->document().part());
  ASSERT_GE(setups.size(), 2U);
  const auto seen = [&](Id setup) {
    EXPECT_EQ(bench().open(setup), QString());
    bench().look_at(1); // put it in
    QApplication::processEvents();
    return bench().grab(bench().picture()->geometry()).toImage();
  };
  const auto first = seen(setups[0].first), second = seen(setups[1].first);
  EXPECT_NE(first, second);
  EXPECT_EQ(seen(setups[0].first), first);
}
