#include "app/drawing/drawing_page.h"
#include "tests/app/bench.h"

#include <QFile>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Dimensioning : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    choose_piece(0);
    window->go_to(MainWindow::drawing);
    window->drawing_page()->tabs()->choose(1);
  }
  app::DimensionPanel& panel() { return *window->drawing_page()->dimensions(); }
  const build::Build& build() { return window->document().build(); }
  const build::Dimension& chosen() { return *build().find<build::Dimension>(panel().chosen()); }
  static void pick(QComboBox* box, const QString& text) {
    const int k = box->findText(text);
    ASSERT_GE(k, 0) << text.toStdString();
    box->setCurrentIndex(k);
    emit box->activated(k);
  }
};

// ISO 286-2: 27 H7 is 27.000 to 27.021; from memory.
TEST_F(Dimensioning, LimitsAreTypedInEveryWayAndTheOldValueIsKept) {
  ASSERT_EQ(chosen().name, "bore");
  EXPECT_EQ(panel().message(), "27.000 to 27.021\u202Fmm");
  enter(panel().limits_edit(), "27 +0.03/0", Qt::Key_Return);
  EXPECT_NEAR(chosen().upper, 0.03, 1e-12);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Limits of bore");
  ASSERT_EQ(chosen().history.size(), 1U);
  EXPECT_EQ(chosen().history[0].was, "27 mm H7");
  EXPECT_TRUE(panel().history().startsWith("Was 27 mm H7 until 20")) << panel().history().toStdString();
  enter(panel().limits_edit(), "1 1/16 in f7", Qt::Key_Return);
  EXPECT_NEAR(chosen().nominal, 26.9875, 1e-9);
  EXPECT_NEAR(chosen().upper, -0.020, 1e-9);
  window->document().undo();
  window->document().undo();
  EXPECT_EQ(chosen().tolerance, "H7");
  EXPECT_TRUE(chosen().history.empty());
}

TEST_F(Dimensioning, NonsenseIsRefusedInPlaceAndTheValueStays) {
  enter(panel().limits_edit(), "27 H77", Qt::Key_Return);
  EXPECT_EQ(panel().message(), "there is no grade 77; grades run from 01, 0, 1 to 18. It stays 27 mm H7.");
  EXPECT_EQ(chosen().tolerance, "H7");
  enter(panel().limits_edit(), "", Qt::Key_Return);
  EXPECT_TRUE(panel().message().startsWith("write a dimension")) << panel().message().toStdString();
  enter(panel().limits_edit(), "-3 \u00B10.1", Qt::Key_Return);
  EXPECT_TRUE(panel().message().startsWith("it must be above 0")) << panel().message().toStdString();
}

TEST_F(Dimensioning, AContradictionIsShownCountedAndLedTo) {
  panel().add_dimension();
  enter(panel().name_edit(), "whole height");
  pick(panel().kind_box(), "length");
  enter(panel().limits_edit(), "70", Qt::Key_Return);
  enter(panel().sum_edit(), "centre height + 1/2 x over the cheeks + 1 mm");
  ASSERT_EQ(panel().contradictions()->count(), 1);
  EXPECT_EQ(panel().contradictions()->item(0)->text(), "whole height is 70.000\u202Fmm, but centre height + "
                                                       "1/2 x over the cheeks + 1 mm makes 71.000\u202Fmm.");
  EXPECT_EQ(window->drawing_page()->tabs()->button(1)->text(), "Dimensions 1");
  panel().table()->setCurrentCell(0, 0);
  panel().contradictions()->setCurrentRow(0);
  panel().contradictions()->setFocus();
  QTest::keyClick(panel().contradictions(), Qt::Key_Return);
  EXPECT_EQ(chosen().name, "whole height");
  enter(panel().limits_edit(), "71", Qt::Key_Return);
  EXPECT_EQ(panel().contradictions()->item(0)->text(), "None found.");
}

TEST_F(Dimensioning, ClassSourceAndReasonAreKept) {
  pick(panel().class_box(), "critical");
  pick(panel().source_box(), "borrowed");
  enter(panel().reason_edit(), "from the engine built before");
  EXPECT_EQ(chosen().importance, build::DimensionClass::critical);
  EXPECT_EQ(chosen().source, build::DimensionSource::borrowed);
  EXPECT_EQ(chosen().reason, "from the engine built before");
  EXPECT_EQ(panel().table()->item(0, 4)->text(), "borrowed");
}

// Common practice: 23.000 over a pin in a 21/64 in hole; a pin of 8.19 leaves ±0.072, more than ±0.057.
TEST_F(Dimensioning, OverAPinWithAVerdict) {
  panel().add_dimension();
  enter(panel().limits_edit(), "23 \u00B10.057", Qt::Key_Return);
  enter(panel().pin_edit(), "8.19");
  enter(panel().hole_edit(), "21/64 in");
  EXPECT_TRUE(panel().verdict().startsWith("Cannot decide: the reading leaves \u00B10.072"))
      << panel().verdict().toStdString();
  enter(panel().pin_edit(), "9 mm");
  EXPECT_EQ(panel().verdict(), "the pin is larger than the hole it stands in");
  enter(panel().pin_edit(), "pin");
  EXPECT_TRUE(panel().verdict().startsWith("Pin: ")) << panel().verdict().toStdString();
}

TEST_F(Dimensioning, AnAngleShowsBothLegs) {
  panel().add_dimension();
  enter(panel().name_edit(), "bevel");
  pick(panel().kind_box(), "angle between");
  enter(panel().limits_edit(), "60 \u00B10.5", Qt::Key_Return);
  enter(panel().run_edit(), "7", Qt::Key_Return);
  enter(panel().rise_edit(), "4.04 mm", Qt::Key_Return);
  ASSERT_EQ(panel().contradictions()->count(), 1);
  EXPECT_TRUE(panel().contradictions()->item(0)->text().contains("complement was probably meant"))
      << panel().contradictions()->item(0)->text().toStdString();
}

TEST_F(Dimensioning, AReadingOutsideItsLimitsIsMarked) {
  enter(panel().measured_edit(), "27.04", Qt::Key_Return);
  EXPECT_EQ(panel().table()->item(0, 5)->text(), "27.040 out");
  enter(panel().measured_edit(), "27.01", Qt::Key_Return);
  EXPECT_EQ(panel().table()->item(0, 5)->text(), "27.010");
  choose_piece(1); // the other of the pair has readings of its own
  EXPECT_EQ(panel().table()->item(0, 5)->text(), "\u2013");
}

TEST_F(Dimensioning, TheCastingIsExpectedByItsGrades) {
  window->drawing_page()->tabs()->choose(2);
  auto* foundry = window->drawing_page()->foundry();
  ASSERT_GT(foundry->table()->rowCount(), 5);
  const auto raw = [&] { return foundry->table()->item(5, 2)->text().toDouble(); };
  EXPECT_EQ(foundry->table()->item(5, 0)->text(), "bore");
  // ISO 8062-3: 27 − 2 · 1.0 (F, up to 100 mm) − 2.6 / 2 (grade 10); from memory.
  EXPECT_NEAR(raw(), 27 - 2 - 1.2, 1e-9);
  foundry->grade_box()->setValue(8);
  emit foundry->grade_box()->editingFinished();
  EXPECT_NEAR(raw(), 27 - 2 - 1.2 / 2, 0.006);
  enter(foundry->shrinkage_edit(), "30");
  EXPECT_EQ(foundry->message(), "Shrinkage: a number of per cent from 0 to 10");
  enter(foundry->draft_edit(), "40");
  EXPECT_EQ(foundry->message(), "Draft: from 0 to 15\u00B0");
  EXPECT_TRUE(foundry->made_text().contains("It shrunk by")) << foundry->made_text().toStdString();
  const auto path = folder.filePath("pattern.pdf");
  EXPECT_EQ(foundry->write_pattern(path), "");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_TRUE(file.readAll().startsWith("%PDF-"));
  EXPECT_FALSE(foundry->write_pattern("/nowhere/pattern.pdf").isEmpty());
}
