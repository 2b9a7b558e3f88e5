// Truing a pressed crank by the dialog: read, struck, read again.

#include "tests/app/own_build.h"

#include "app/bench/crank_dialog.h"
#include "app/marks/why.h"

using namespace datrin;
using namespace datrin::test;
using app::CrankDialog;

namespace {

class CrankOnTheBench : public OwnBuild {
protected:
  void SetUp() override {
    OwnBuild::SetUp();
    part("Crank");
    choose_piece(0);
    dialog = std::make_unique<CrankDialog>(window->document(), window.get());
    dialog->show();
  }
  void TearDown() override {
    dialog.reset();
    OwnBuild::TearDown();
  }
  void read(const QString& left, const QString& right) {
    dialog->left()->setText(left);
    dialog->right()->setText(right);
    QTest::keyClick(dialog->right(), Qt::Key_Return);
  }
  std::unique_ptr<CrankDialog> dialog;
};

} // namespace

TEST_F(CrankOnTheBench, ReadStruckAndReadAgain) {
  read("0.1 0 -0.1 0", "");
  EXPECT_TRUE(dialog->message().contains("both shafts")) << dialog->message().toStdString();
  read("0.1 0 -0.1 0", "0.1 0 -0.1 0");
  EXPECT_TRUE(dialog->message().contains("Shaft")) << dialog->message().toStdString(); // not said yet
  EXPECT_EQ(dialog->left()->text(), "0.1 0 -0.1 0"); // nothing typed is lost
  dialog->shaft()->setText("60");
  dialog->rim()->setText("30");
  read("0.1 0 -0.1 0", "0.1 0 -0.1 0");
  ASSERT_EQ(dialog->history()->rowCount(), 1);
  EXPECT_TRUE(dialog->advice().contains("wedge")) << dialog->advice().toStdString();
  EXPECT_TRUE(dialog->figure().startsWith("0.100"))
      << dialog->figure().toStdString(); // 0.2 in 60, 30 from the pin
  EXPECT_EQ(dialog->wanted()->text(), "0.200\u202Fmm");
  // Asked for by F1: both shafts towards the pin, by the lever of the wedge, in both units.
  QTest::mouseClick(dialog->why_button(), Qt::LeftButton);
  auto* card = dialog->findChild<app::WhyCard*>();
  ASSERT_TRUE(card);
  EXPECT_NEAR(card->reckoning().total(), 0.2, 1e-9);
  EXPECT_EQ(card->reckoning().answer, "0.100\u202Fmm \u00B7 0.0039\u202Fin");
  card->close();
  dialog->struck();
  EXPECT_EQ(dialog->figure(), "Read it again");
  read("0.06 0 -0.06 0", "0.06 0 -0.06 0");
  ASSERT_EQ(dialog->history()->rowCount(), 2);
  EXPECT_EQ(dialog->history()->item(0, 5)->text(), "40 %"); // it did 0.08 of 0.2
  EXPECT_TRUE(dialog->advice().contains("40 %")) << dialog->advice().toStdString();
  dialog->struck();
  read("0.004 0 -0.004 0", "0 0.003 0 -0.003");
  EXPECT_TRUE(dialog->figure().contains("true enough")) << dialog->figure().toStdString();
  dialog->take_back();
  EXPECT_EQ(dialog->history()->rowCount(), 2);
  EXPECT_EQ(dialog->figure(), "Read it again"); // the blow stands
  window->document().undo();
  EXPECT_EQ(b().all<build::CrankRound>().size(), 3U);
}

TEST_F(CrankOnTheBench, WhatCannotBeIsSaidAndStays) {
  dialog->shaft()->setText("60");
  read("0.1 0", "0.1 0 -0.1 0");
  EXPECT_TRUE(dialog->message().contains("left web")) << dialog->message().toStdString();
  EXPECT_TRUE(b().all<build::CrankRound>().empty());
  dialog->struck();
  EXPECT_FALSE(dialog->message().isEmpty());
  dialog->take_back();
  EXPECT_TRUE(dialog->message().contains("Nothing was read"));
}

TEST_F(CrankOnTheBench, FitsAndIsDrawnAtEverySize) {
  dialog->shaft()->setText("60");
  read("0.1 0.02 -0.1 -0.02", "0.1 0 -0.1 0");
  for (const double scale : {1.0, 2.0}) {
    window->set_look(scale > 1, scale);
    CrankDialog again(window->document(), window.get());
    again.show();
    QApplication::processEvents();
    EXPECT_LE(again.height(), 800) << scale;
    EXPECT_LE(again.width(), 1280) << scale;
    EXPECT_GT(drawn_on(&again), 0.01);
  }
}
