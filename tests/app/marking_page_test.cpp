#include "app/casting/marking_page.h"
#include "tests/app/bench.h"

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class MarkingOutPage : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    window->go_to(MainWindow::seat);
    seat_best();
    window->go_to(MainWindow::marking);
  }
  app::MarkingPage& page() { return *window->marking_page(); }
  static void pick(QComboBox* box, const QString& text) {
    const int k = box->findText(text);
    ASSERT_GE(k, 0) << text.toStdString();
    box->setCurrentIndex(k);
    emit box->activated(k);
  }
};

TEST_F(MarkingOutPage, AnotherWayUpGivesOtherLines) {
  ASSERT_TRUE(page().can_print());
  pick(page().way_box(), "end A down");
  ASSERT_TRUE(page().can_print()) << page().result().message;
  const auto& lines = page().result().lines;
  ASSERT_EQ(lines.size(), 3U); // both ends and the bore's centre line
  EXPECT_DOUBLE_EQ(lines.front().height, 25);
  EXPECT_DOUBLE_EQ(lines.back().height, 25 + 98);
  EXPECT_DOUBLE_EQ(lines[1].height, 25 + 49);
  EXPECT_EQ(window->undo_action()->text(), "Undo: end A down for marking out");
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(page().way_box()->currentText(), "foot down");
}

TEST_F(MarkingOutPage, JacksCanBeChosenAndGivenBack) {
  const auto automatic = page().result().jacks;
  auto* box = page().jack_box(0);
  ASSERT_GT(box->count(), 3);
  box->setCurrentIndex(3);
  emit box->activated(3);
  if (page().can_print()) {
    EXPECT_EQ(page().result().jacks[1].point, automatic[1].point); // the other two stay
  }
  pick(page().jack_box(1), "chosen for you");
  ASSERT_TRUE(page().can_print());
  for (std::size_t k = 0; k < 3; ++k) EXPECT_EQ(page().result().jacks[k].point, automatic[k].point);
}

TEST_F(MarkingOutPage, ABaseHeightThatIsTooLowIsCautionedAbout) {
  enter(page().base_field()->edit(), "1 mm");
  EXPECT_NE(page().result().caution.find("raise the base height"), std::string::npos);
  enter(page().base_field()->edit(), "0");
  EXPECT_TRUE(page().base_field()->message().contains("must be above 0"));
}

TEST_F(MarkingOutPage, AFolderThatCannotBeWrittenToIsSaid) {
  EXPECT_TRUE(page().save_sheet("/no/such/folder/sheet.pdf").contains("could not be written"));
}

TEST_F(MarkingOutPage, WithoutASeatItSaysWhatComesFirst) {
  choose_piece(3); // a cover, not touched yet
  EXPECT_FALSE(page().can_print());
  EXPECT_TRUE(page().figure_rows().empty());
  EXPECT_EQ(page().save_sheet(folder.filePath("x.pdf")), "there is nothing to print yet");
}
