// By a screen reader's view: painted widgets have a role, a value and actions; what it chooses is chosen.

#include "tests/app/bench.h"

#include <QAccessible>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class SpokenWidgets : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
  static QAccessibleInterface* of(QWidget* widget) { return QAccessible::queryAccessibleInterface(widget); }
};

TEST_F(SpokenWidgets, TheStepsAreActionsOfThePath) {
  auto* path = of(window->header()->path());
  ASSERT_NE(path, nullptr);
  EXPECT_EQ(path->role(), QAccessible::PageTabList);
  ASSERT_NE(path->actionInterface(), nullptr);
  EXPECT_TRUE(path->actionInterface()->actionNames().contains("Marking out"));
  path->actionInterface()->doAction("Seat");
  EXPECT_EQ(window->step(), MainWindow::seat);
  EXPECT_EQ(path->text(QAccessible::Value), "Seat");
}

TEST_F(SpokenWidgets, RoomsAndPicturesSayTheirValue) {
  window->go_to(MainWindow::seat);
  auto* row = window->seat_page()->room_rows().front();
  EXPECT_TRUE(of(row)->text(QAccessible::Value).contains("mm")) << of(row)->text(QAccessible::Value);
  window->go_to(MainWindow::joints);
  auto* zones = of(window->joints_page()->zones());
  EXPECT_EQ(zones->role(), QAccessible::Graphic);
  EXPECT_TRUE(zones->text(QAccessible::Value).contains("clearance")) << zones->text(QAccessible::Value);
}

TEST_F(SpokenWidgets, WhatIsSelectedIsWhereOneIs) {
  window->go_to(MainWindow::joints);
  auto* list = window->joints_page()->list();
  const auto third = list->model()->index(2, 0);
  list->selectionModel()->select(third, QItemSelectionModel::ClearAndSelect); // as a reader's action does
  QCoreApplication::processEvents();
  EXPECT_EQ(list->currentIndex(), third);
  window->go_to(MainWindow::drawing);
  auto* shelf = window->shelf()->list();
  const auto part = window->document().part();
  shelf->selectionModel()->select(shelf->model()->index(4, 0), QItemSelectionModel::ClearAndSelect);
  QCoreApplication::processEvents();
  EXPECT_NE(window->document().part(), part);
}

TEST_F(SpokenWidgets, PagesOfTheBuildOpenByTheirAction) {
  for (const auto step : {MainWindow::batch, MainWindow::joints}) {
    auto* action = of(window->build_nav()->button(step))->actionInterface();
    action->doAction(action->actionNames().front());
    EXPECT_TRUE(QTest::qWaitFor([&] { return window->step() == step; }, 1000));
  }
  auto* tab = of(window->joints_page()->tabs()->button(2))->actionInterface();
  tab->doAction(QAccessibleActionInterface::toggleAction());
  EXPECT_TRUE(QTest::qWaitFor([&] { return window->joints_page()->tabs()->chosen() == 2; }, 1000));
}

TEST_F(SpokenWidgets, AMessageIsItsOwnName) {
  window->tell("The file is not there.", true);
  bool found = false;
  for (auto* label : window->findChildren<QLabel*>())
    found = found || label->accessibleName() == "Message: The file is not there.";
  EXPECT_TRUE(found);
}
