#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/drawing/drawing_page.h"
#include "build/edit_drawing.h"
#include "tests/app/bench.h"

#include "app/drawing/quick_start_dialog.h"
#include "app/marks/figure_row.h"
#include "app/marks/why.h"
#include "casting/judgement.h"

#include <QDropEvent>
#include <QMimeData>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Judging : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    window->go_to(MainWindow::seat);
  }
  app::SeatPage& page() { return *window->seat_page(); }
  const build::Build& build() { return window->document().build(); }
  void wait_for_comparison() {
    ASSERT_TRUE(QTest::qWaitFor([&] { return !page().judge()->busy() && !page().busy(); }, patience(10000)));
    QTest::qWait(20);
  }
};

TEST_F(Judging, WhatHoldsItIsSaidAsForcesInBalance) {
  seat_best();
  page().tabs()->choose(1);
  const auto words = page().judge()->balance_text();
  EXPECT_TRUE(words.contains("it from going")) << words.toStdString();
  EXPECT_TRUE(words.contains("Easing by 0.20\u202Fmm gains everywhere: ")) << words.toStdString();
}

TEST_F(Judging, SeatsStandSideBySideAndTheBestIsFirst) {
  seat_best();
  page().tabs()->choose(1);
  wait_for_comparison();
  const auto& others = page().judge()->others();
  ASSERT_EQ(others.size(), 6U);
  EXPECT_EQ(others[1].name, "best, evened out");
  for (const auto& other : others)
    EXPECT_LE(other.margins.least, others[1].margins.least + 1e-5) << other.name.toStdString();
  page().judge()->table()->setCurrentCell(3, 0);
  page().judge()->table()->setFocus();
  QTest::keyClick(page().judge()->table(), Qt::Key_F1); // where the figure comes from
  auto* why = page().judge()->table()->findChild<app::WhyCard*>();
  ASSERT_NE(why, nullptr);
  EXPECT_NEAR(why->reckoning().total(), others[3].margins.least, 1e-9);
  QTest::keyClick(why, Qt::Key_Escape);
  QTest::mouseClick(page().judge()->take_button(), Qt::LeftButton);
  EXPECT_EQ(page().state().pose.translation, others[3].pose.translation);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Seat from the core for Main pedestal, no. 1 of 2");
}

TEST_F(Judging, ALockedMotionIsNotMovedByTheSearch) {
  page().tabs()->choose(1);
  QApplication::processEvents(); // laid out before it is clicked
  const auto before = page().state().pose;
  for (int k = 3; k < 6; ++k) QTest::mouseClick(page().judge()->lock(k), Qt::LeftButton);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Lock turn z of the seat");
  seat_best();
  EXPECT_LT(vector_from_rotation(page().state().pose.rotation * before.rotation.transpose()).norm(), 1e-9);
  EXPECT_TRUE(page().state().best);
}

TEST_F(Judging, AFavouredSurfaceHasMoreRoom) {
  seat_best();
  page().tabs()->choose(1);
  const double before = page().state().margins.groups[0].margin, least = page().state().margins.least;
  auto* judge = page().judge();
  judge->favoured()->setCurrentIndex(judge->favoured()->findText("foot"));
  enter(judge->favour()->edit(), "0.3 mm", Qt::Key_Return);
  ASSERT_TRUE(build().judgement_of(page().state().piece));
  seat_best();
  EXPECT_GT(page().state().margins.groups[0].margin, before + 0.02);
  EXPECT_LE(page().state().margins.least, least + 1e-6);
}

TEST_F(Judging, ARescueIsFoundTakenAndKeptWithItsReason) {
  choose_piece(5);
  seat_best();
  ASSERT_LT(page().state().margins.least, 0);
  page().tabs()->choose(2); // looks at once, because it does not clean up
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page().rescue()->busy(); }, patience(30000)));
  QTest::qWait(20);
  ASSERT_GE(page().rescue()->list()->count(), 1) << page().rescue()->words().toStdString();
  const auto part = window->document().part();
  page().rescue()->list()->setCurrentRow(0);
  page().rescue()->list()->setFocus();
  QTest::keyClick(page().rescue()->list(), Qt::Key_F1);
  auto* why = page().rescue()->list()->findChild<app::WhyCard*>();
  ASSERT_NE(why, nullptr);
  EXPECT_GE(why->reckoning().total(), -1e-6); // the room the change leaves
  EXPECT_LT(why->reckoning().total(), 0.05);
  QTest::keyClick(why, Qt::Key_Escape);
  QTest::mouseClick(page().rescue()->take_button(), Qt::LeftButton);
  const auto decisions = build().decisions_of(part);
  ASSERT_GE(decisions.size(), 1U);
  EXPECT_TRUE(decisions[0].second.reason.starts_with("did not clean up by ")) << decisions[0].second.reason;
  EXPECT_GE(page().state().margins.least, -1e-6);
  EXPECT_TRUE(window->undo_action()->text().startsWith("Undo: Rescue: "));
  window->undo_action()->trigger();
  EXPECT_LT(page().state().margins.least, 0);
  EXPECT_TRUE(build().decisions_of(part).empty());
}

TEST_F(Judging, OtherCastingsOfThePartAreLookedAtToo) {
  page().tabs()->choose(2);
  page().rescue()->look();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page().rescue()->busy(); }, patience(30000)));
  QTest::qWait(20);
  EXPECT_TRUE(page().rescue()->castings_text().contains("casting no. 2 cleans up: least room +0.60"))
      << page().rescue()->castings_text().toStdString();
}

TEST_F(Judging, TheTurningViewTurnsAndCuts) {
  seat_best();
  auto* view = page().canvas()->turning();
  ASSERT_TRUE(view->isVisible());
  window->document().solids().wait();
  QTest::qWait(20);
  EXPECT_GT(drawn_on(view), 0.05);
  // The metal is drawn from the solid; over it lie the rough faces alone, touched or as cast.
  ASSERT_TRUE(page().canvas()->scene_input().solid);
  EXPECT_GE(view->scene().faces.size(), 10U);
  for (const auto& face : view->scene().faces) EXPECT_EQ(face.role, sheets::TurnedFace::Role::rough);
  EXPECT_FALSE(view->scene().figures.empty());
  view->setFocus();
  const double yaw = view->yaw();
  QTest::keyClick(view, Qt::Key_Right);
  EXPECT_GT(view->yaw(), yaw);
  QTest::keyClick(view, Qt::Key_Y);
  ASSERT_TRUE(view->section());
  EXPECT_EQ(view->caption().left(8), "Cut at y");
  view->grab();
  EXPECT_FALSE(view->scene().cut_rough.empty());
  EXPECT_LT(view->scene().pips.size(), page().canvas()->scene_input().touches.size());
  const double at = view->section()->at;
  QTest::keyClick(view, Qt::Key_PageDown);
  EXPECT_NEAR(view->section()->at, at - 0.5, 1e-9);
  QTest::keyClick(view, Qt::Key_Y);
  EXPECT_FALSE(view->section());
  const QPoint middle = view->rect().center();
  QTest::mousePress(view, Qt::LeftButton, {}, middle);
  QTest::mouseMove(view, middle + QPoint(30, 10));
  QTest::mouseRelease(view, Qt::LeftButton, {}, middle + QPoint(30, 10));
  QTest::keyClick(view, Qt::Key_Home);
  EXPECT_NEAR(view->yaw(), yaw, 1e-9);
}

TEST_F(Judging, AQuickStartIsDrawnAndEditedFreely) {
  app::QuickStartDialog dialog(Unit::mm, window.get());
  dialog.show();
  for (int k = 0; k < dialog.shapes()->count(); ++k) {
    dialog.shapes()->setCurrentRow(k);
    EXPECT_EQ(dialog.message(), "") << k;
    EXPECT_FALSE(dialog.canvas()->scene_input().surfaces.empty());
  }
  dialog.shapes()->setCurrentRow(0);
  const auto type = [&](const QString& text) {
    dialog.fields()[5]->edit()->selectAll();
    QTest::keyClicks(dialog.fields()[5]->edit(), text);
    EXPECT_TRUE(dialog.fields()[5]->commit());
  };
  type("10 mm");
  EXPECT_EQ(dialog.message(), "the boss must be wider than the bore.");
  EXPECT_FALSE(dialog.draw_button()->isEnabled());
  type("1 3/8\"");
  EXPECT_TRUE(dialog.draw_button()->isEnabled());
  ASSERT_TRUE(window->document().apply(solid::add_quick_part(build(), "Bearing", dialog.drawing()).edit));
  EXPECT_EQ(window->undo_action()->text(), "Undo: Add part Bearing");
}

TEST_F(Judging, ABuildGoesOutAsJsonAndComesBackByADrop) {
  const auto json = folder.filePath("out.json");
  ASSERT_EQ(window->export_json(json), "");
  const auto records = build().records();
  QMimeData data;
  data.setUrls({QUrl::fromLocalFile(json)});
  QDragEnterEvent drag(QPoint(10, 10), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window.get(), &drag);
  EXPECT_TRUE(drag.isAccepted());
  QDropEvent drop(QPointF(10, 10), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window.get(), &drop);
  EXPECT_EQ(window->document().path(), folder.filePath("out.datrin"));
  EXPECT_EQ(build().records(), records);
  QFile broken(json);
  ASSERT_TRUE(broken.resize(500));
  EXPECT_FALSE(window->open_file(json));
  EXPECT_TRUE(window->message().contains("out.json: line ")) << window->message().toStdString();
  EXPECT_EQ(build().records(), records); // the open one stays
}

TEST_F(Judging, ASecondWindowReadsOnlyAndSaysSo) {
  app::MainWindow second(std::make_unique<QSettings>(folder.filePath("second.ini"), QSettings::IniFormat));
  second.show();
  ASSERT_TRUE(second.open_build(demo_path()));
  EXPECT_TRUE(second.message().contains("is open in another window; it is open for reading only"))
      << second.message().toStdString();
  EXPECT_TRUE(second.windowTitle().contains("(for reading)"));
  const auto parts = second.document().build().parts().size();
  EXPECT_FALSE(second.document().apply(build::add_part(second.document().build(), "x").edit));
  EXPECT_TRUE(second.message().contains("was not done")) << second.message().toStdString();
  EXPECT_EQ(second.document().build().parts().size(), parts);
}

TEST_F(Judging, TheSheetGoesOutAsSvgAndDxf) {
  seat_best();
  window->go_to(MainWindow::marking);
  for (const char* name : {"sheet.svg", "sheet.dxf", "sheet.pdf"})
    EXPECT_EQ(window->marking_page()->save_sheet(folder.filePath(name)), "") << name;
  const auto text = [&](const char* name) {
    QFile file(folder.filePath(name));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    return file.readAll();
  };
  const auto svg = text("sheet.svg");
  EXPECT_TRUE(svg.contains("<svg"));
  EXPECT_TRUE(svg.contains("Main pedestal, no. 1 of 2"));
  const auto dxf = text("sheet.dxf");
  EXPECT_TRUE(dxf.contains("AC1015"));
  EXPECT_TRUE(dxf.contains("LINES"));
  EXPECT_TRUE(dxf.contains("71.00")); // the bore's centre line, 25 + 46
  EXPECT_TRUE(dxf.trimmed().endsWith("EOF"));
  EXPECT_EQ(window->marking_page()->save_sheet(folder.filePath("sheet.doc")),
            folder.filePath("sheet.doc") + ": a sheet is written as .pdf, .svg or .dxf");
}

/// Beside the room stands how thick the thinnest wall is as it lies, with what it is drawn and what it has
/// over.
TEST_F(Judging, TheThinnestWallIsToldAsTheCastingLies) {
  seat_best();
  window->document().solids().wait();
  QTest::qWait(20);
  const auto* wall = page().wall_row();
  ASSERT_TRUE(wall);
  EXPECT_TRUE(wall->isVisible());
  const auto& why = wall->why();
  ASSERT_EQ(why.lines.size(), 2U);
  EXPECT_NEAR(why.lines[0].mm + why.lines[1].mm, wall->value(), 1e-9);
  EXPECT_GT(wall->value(), 0);
  // Moved by hand it is another.
  const double before = wall->value();
  page().canvas()->setFocus();
  for (int k = 0; k < 8; ++k) QTest::keyClick(page().canvas(), Qt::Key_Up, Qt::ShiftModifier);
  ASSERT_TRUE(page().wall_row()->isVisible());
  EXPECT_GT(std::abs(page().wall_row()->value() - before), 0.1);
}

// 1.5 degrees of draft, card that gives 0.25: 0.25 / tan 1.5 deg = 9.547.
TEST_F(Judging, ADraftSaysHowMuchAJawBears) {
  window->go_to(MainWindow::drawing);
  auto* foundry = window->drawing_page()->foundry();
  window->show_face(2);
  enter(foundry->draft_edit(), "1.5");
  ASSERT_TRUE(foundry->jaw()->isVisible());
  EXPECT_NEAR(foundry->jaw()->value(), 0.25 / std::tan(radians(1.5)), 1e-9);
  enter(foundry->draft_edit(), "0");
  EXPECT_FALSE(foundry->jaw()->isVisible());
}
