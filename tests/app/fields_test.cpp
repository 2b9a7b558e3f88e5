// Entry that is not understood is marked in place and the old value stands; nothing typed by mistake is lost.

#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "app/shell/header.h"
#include "tests/app/bench.h"

#include "app/marks/why.h"
#include "casting/expect.h"

#include <QAbstractItemModelTester>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Fields : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
  const build::PartSurface& shown() {
    return *window->document().build().find<build::PartSurface>(window->drawing_page()->form()->surface());
  }
};

TEST_F(Fields, WhatIsNotUnderstoodIsMarkedAndTheOldValueStands) {
  auto* field = window->drawing_page()->form()->field("Width");
  enter(field->edit(), "12 furlongs");
  EXPECT_EQ(field->message(), "Column 4: \"furlongs\" is not a unit; write mm, cm, m, \u00B5m, in, \", ft, "
                              "yd, thou or tenths. It stays 98 mm.");
  EXPECT_EQ(shown().width, 98);
  EXPECT_EQ(field->edit()->text(), "12 furlongs"); // what was typed is there to be mended
  enter(field->edit(), "3 7/8 in");
  EXPECT_EQ(field->message(), QString());
  EXPECT_DOUBLE_EQ(shown().width, 3.875 * 25.4);
}

// A refresh from anywhere (another edit, the answer of a seat) wiped words that had been refused as soon as
// the field had lost the keyboard.
TEST_F(Fields, RefusedWordsOutliveARefresh) {
  auto* page = window->drawing_page();
  auto* field = page->form()->field("Width");
  enter(field->edit(), "12 furlongs");
  const auto told = field->message();
  enter(page->form()->field("Height")->edit(), "77");
  EXPECT_EQ(field->edit()->text(), "12 furlongs");
  EXPECT_EQ(field->message(), told);
  QTest::mouseClick(window->header()->unit_button(), Qt::LeftButton);
  EXPECT_EQ(field->edit()->text(), "12 furlongs");
  EXPECT_TRUE(field->message().endsWith("It stays 3.858268 in.")) << field->message().toStdString();
  QTest::keyClick(field->edit(), Qt::Key_Escape); // back to what it was
  EXPECT_EQ(field->edit()->text(), "3.858268 in");
  EXPECT_EQ(field->message(), QString());
  enter(field->edit(), "12 furlongs");
  page->table()->selectRow(1); // of another surface the words mean nothing
  EXPECT_NE(field->edit()->text(), "12 furlongs");
  EXPECT_EQ(field->message(), QString());
}

TEST_F(Fields, EmptyAndNegativeAreRefused) {
  auto* field = window->drawing_page()->form()->field("Stock");
  enter(field->edit(), "-1");
  EXPECT_TRUE(field->message().startsWith("Stock must not be negative")) << field->message().toStdString();
  field->edit()->setFocus();
  field->edit()->selectAll();
  QTest::keyClick(field->edit(), Qt::Key_Delete);
  QTest::keyClick(field->edit(), Qt::Key_Tab);
  EXPECT_TRUE(field->message().contains("nothing was typed")) << field->message().toStdString();
  EXPECT_EQ(shown().required, 0.7);
}

TEST_F(Fields, TheDrawingFollowsTheKeys) {
  auto* page = window->drawing_page();
  auto* field = page->form()->field("Width");
  const auto before = page->canvas()->scene_input().surfaces[0].width;
  field->edit()->setFocus();
  field->edit()->selectAll();
  QTest::keyClicks(field->edit(), "120");
  EXPECT_EQ(page->canvas()->scene_input().surfaces[0].width, 120); // drawn, not kept yet
  EXPECT_EQ(shown().width, before);
}

TEST_F(Fields, ADirectionThatIsNone) {
  auto* form = window->drawing_page()->form();
  EXPECT_FALSE(form->direction_box()->isEnabled()); // the foot is a face of a body, which says where it looks
  window->drawing_page()->add_surface(datrin::SurfaceKind::plane); // of no body: what is typed says it
  ASSERT_TRUE(form->direction_box()->isEnabled());
  enter(form->direction_box()->lineEdit(), "sideways");
  EXPECT_EQ(shown().direction, Vec3(0, 0, 1));
  bool told = false;
  for (auto* label : form->findChildren<QLabel*>())
    told = told || label->text().contains("\"sideways\" is not a direction");
  EXPECT_TRUE(told);
}

TEST_F(Fields, UnitOfTheDialChangesEveryFigureAndCanBeUndone) {
  window->go_to(MainWindow::seat);
  const auto mm = window->seat_page()->room_rows().front()->margin();
  QTest::mouseClick(window->header()->unit_button(), Qt::LeftButton);
  EXPECT_EQ(window->document().unit(), Unit::inch);
  EXPECT_DOUBLE_EQ(window->seat_page()->room_rows().front()->margin(), mm);
  window->go_to(MainWindow::drawing);
  auto* field = window->drawing_page()->form()->field("Width");
  EXPECT_EQ(field->edit()->text(), "3.858268 in");
  enter(field->edit(), "4"); // a bare number is in the unit of the dial
  EXPECT_DOUBLE_EQ(shown().width, 101.6);
  press(Qt::Key_Z, Qt::ControlModifier);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(window->document().unit(), Unit::mm);
}

TEST_F(Fields, DecimalCommaLocale) {
  QLocale::setDefault(QLocale(QLocale::German, QLocale::Germany));
  auto* field = window->drawing_page()->form()->field("Width");
  enter(field->edit(), "97,5");
  QLocale::setDefault(QLocale::c());
  EXPECT_EQ(field->message(), QString());
  EXPECT_DOUBLE_EQ(shown().width, 97.5);
}

// "2,5" was kept as 2 degrees and "1 in 12,5" as 1 in 12 where a comma is the decimal mark.
TEST_F(Fields, AnglesUnderADecimalComma) {
  QLocale::setDefault(QLocale(QLocale::German, QLocale::Germany));
  window->drawing_page()->tabs()->choose(2);
  auto* foundry = window->drawing_page()->foundry();
  enter(foundry->draft_edit(), "2,5");
  const auto part = shown().part;
  EXPECT_DOUBLE_EQ(casting::foundry_or_usual(window->document().build(), part).draft, radians(2.5));
  enter(foundry->draft_edit(), "2.75\u00B0");
  EXPECT_DOUBLE_EQ(casting::foundry_or_usual(window->document().build(), part).draft, radians(2.75));
  window->drawing_page()->tabs()->choose(0);
  window->drawing_page()->add_surface(SurfaceKind::taper_bore);
  enter(window->drawing_page()->form()->taper_edit(), "1 in 12,5");
  QLocale::setDefault(QLocale::c());
  EXPECT_NEAR(shown().half_angle, std::atan(0.5 / 12.5), 1e-12);
}

TEST_F(Fields, TouchTableRefusesInPlace) {
  window->go_to(MainWindow::touches);
  auto* page = window->touches_page();
  const QAbstractItemModelTester tester(page->model(), QAbstractItemModelTester::FailureReportingMode::Fatal);
  const auto z = page->model()->index(0, app::TouchModel::z);
  const auto before = z.data();
  EXPECT_FALSE(page->model()->setData(z, "one", Qt::EditRole));
  EXPECT_EQ(z.data(), before);
  EXPECT_TRUE(page->entry()->message().startsWith("Touch 1, z: \"one\" is not a length"))
      << page->entry()->message().toStdString();
  EXPECT_FALSE(
      page->model()->setData(page->model()->index(0, app::TouchModel::surface), "foott", Qt::EditRole));
  EXPECT_TRUE(page->entry()->message().contains("did you mean \"foot\"?"));
  EXPECT_TRUE(page->model()->setData(z, "-4.25", Qt::EditRole));
  EXPECT_EQ(z.data(), "\u22124.25");
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(page->model()->index(0, app::TouchModel::z).data(), before);
}

TEST_F(Fields, ATipRadiusWantsADirection) {
  window->go_to(MainWindow::touches);
  auto* entry = window->touches_page()->entry();
  const auto count = [&] { return window->touches_page()->model()->rowCount(); };
  const int before = count();
  entry->coordinate(0)->setText("1");
  entry->coordinate(1)->setText("2");
  entry->coordinate(2)->setText("3");
  entry->tip_edit()->setText("1.5");
  QTest::keyClick(entry->coordinate(2), Qt::Key_Return);
  EXPECT_EQ(count(), before);
  EXPECT_TRUE(entry->message().startsWith("Tip went")) << entry->message().toStdString();
  EXPECT_EQ(entry->coordinate(0)->text(), "1"); // nothing typed is lost
  entry->toward_box()->setCurrentText("\u2212z");
  QTest::keyClick(entry->coordinate(2), Qt::Key_Return);
  ASSERT_EQ(count(), before + 1);
  const auto touch = window->document().build().touches_of(window->document().piece()).back().second;
  EXPECT_EQ(touch.toward, Vec3(0, 0, -1));
}

TEST_F(Fields, SurfacesCanBeRemovedAndBroughtBackWithTheirTouches) {
  auto* page = window->drawing_page();
  const auto before = window->document().build().records();
  page->table()->selectRow(0);
  page->remove_surface();
  EXPECT_LT(window->document().build().records().size(), before.size() - 10);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Remove foot");
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(window->document().build().records(), before);
}

// "bore" of the demo's first part is 24 mm: half of it and 3.
TEST_F(Fields, AFieldReckonsWithTheNamesOfTheDrawing) {
  auto* form = window->drawing_page()->form();
  const auto* bore = [&]() -> const build::PartSurface* {
    for (const auto& [id, s] : window->document().build().surfaces_of(window->document().part()))
      if (s.round() && s.diameter > 0) return window->document().build().find<build::PartSurface>(id);
    return nullptr;
  }();
  ASSERT_NE(bore, nullptr);
  enter(form->field("Width")->edit(), QString::fromStdString(bore->name) + "/2 + 3 mm");
  EXPECT_NEAR(shown().width, bore->diameter / 2 + 3, 1e-9);
  enter(form->field("Width")->edit(), "2 in x 3 in");
  EXPECT_TRUE(form->field("Width")->message().contains("that is an area; a length is wanted"))
      << form->field("Width")->message();
}

TEST_F(Fields, TheReckonerSaysWhatIsNearestAndWhatIsNoLength) {
  auto* reckoner = window->header()->reckoner();
  QString told;
  QObject::connect(reckoner, &app::Reckoner::answered, window.get(),
                   [&](const QString& words) { told = words; });
  const auto ask = [&](const char* text) {
    reckoner->call();
    reckoner->edit()->clear();
    QTest::keyClicks(reckoner->edit(), text);
    QTest::keyClick(reckoner->edit(), Qt::Key_Return);
    return told;
  };
  EXPECT_TRUE(ask("sqrt(9^2 + 12^2) mm").contains("15.000\u202Fmm \u00B7 0.59055\u202Fin; nearest 19/32 in"))
      << told;
  EXPECT_TRUE(told.contains("drill 15.00 mm exactly")) << told;
  EXPECT_EQ(ask("3 mm * 4 mm"), "3 mm \u00D7 4 mm = 12.0000 mm^2, an area");
  EXPECT_EQ(reckoner->answer(), QString()); // nothing to put into a field
  EXPECT_EQ(ask("2 in / 1 in"), "2 in \u00F7 1 in = 2.0000, a bare number");
}

TEST_F(Fields, ReckonerAnswersAndPutsItsAnswerBack) {
  auto* field = window->drawing_page()->form()->field("Width");
  field->edit()->setFocus();
  QTest::keyClick(field->edit(), Qt::Key_K, Qt::ControlModifier);
  auto* reckoner = window->header()->reckoner();
  ASSERT_TRUE(reckoner->edit()->hasFocus());
  QTest::keyClicks(reckoner->edit(), "3 mm + 9/16 in");
  QTest::keyClick(reckoner->edit(), Qt::Key_Return);
  EXPECT_TRUE(window->message().startsWith(
      "3 mm + 9/16 in = 17.288\u202Fmm \u00B7 0.68061\u202Fin; nearest 11/16 in"));
  QTest::keyClicks(reckoner->edit(), " +");
  QTest::keyClick(reckoner->edit(), Qt::Key_Return);
  EXPECT_TRUE(window->message().contains("a length is missing after it"));
}
