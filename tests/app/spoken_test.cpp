// By a screen reader's view: painted widgets have a role, a value and actions; what it chooses is chosen.

#include "app/casting/seat_page.h"
#include "app/joints/joints_page.h"
#include "app/shell/build_nav.h"
#include "app/shell/header.h"
#include "app/shell/shelf.h"
#include "tests/app/bench.h"

#include "app/drawing/quick_start_dialog.h"
#include "app/joints/joint_dialog.h"
#include "app/shop/sums_dialog.h"
#include "app/shop/threads_dialog.h"

#include <QAccessible>
#include <QMenu>

#include <map>

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

/// What takes the keyboard without a name, and fields of one name: a person who does not see them cannot tell
/// them apart.
static void expect_named(QWidget* on, const std::string& where) {
  std::map<QString, int> fields;
  for (auto* widget : on->findChildren<QWidget*>()) {
    if (!widget->isVisible() || widget->focusPolicy() == Qt::NoFocus || !widget->isEnabled()) continue;
    if (widget->objectName().startsWith("qt_") || widget->inherits("QScrollBar") ||
        widget->inherits("QAbstractScrollArea") != widget->inherits("QAbstractItemView"))
      continue; // a frame that scrolls is no thing of its own
    if (widget->parentWidget()->inherits("QComboBox") || widget->parentWidget()->inherits("QAbstractSpinBox"))
      continue; // parts of one that is named
    auto* spoken = QAccessible::queryAccessibleInterface(widget);
    const auto name = spoken ? spoken->text(QAccessible::Name) : QString();
    EXPECT_FALSE(name.trimmed().isEmpty())
        << where << ": a " << widget->metaObject()->className() << " has no name";
    if (widget->inherits("QLineEdit") || widget->inherits("QComboBox")) ++fields[widget->accessibleName()];
    if (widget->inherits("QComboBox")) {
      EXPECT_TRUE(name.startsWith(widget->accessibleName() + ": ")) << where << ": " << name;
    }
  }
  for (const auto& [name, count] : fields)
    EXPECT_EQ(count, 1) << where << ": " << name << " names several fields";
}

TEST_F(SpokenWidgets, EverythingThatTakesTheKeyboardHasANameOfItsOwn) {
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    for (int face = 0; face < std::max<int>(1, static_cast<int>(row.faces.size())); ++face) {
      window->show_face(face);
      QApplication::processEvents();
      expect_named(window.get(), (row.name + " " + row.faces.value(face)).toStdString());
    }
  }
}

TEST_F(SpokenWidgets, SoInTheDialogs) {
  auto& document = window->document();
  const auto look_at = [](QDialog&& dialog, const char* name) {
    dialog.show();
    QApplication::processEvents();
    expect_named(&dialog, name);
  };
  look_at(app::JointDialog(document, nullptr), "joint");
  look_at(app::QuickStartDialog(Unit::mm, nullptr), "quick start");
  look_at(app::SumsDialog(Unit::mm, "Rod", nullptr), "sums");
  look_at(app::ThreadsDialog(Unit::mm, {}, nullptr), "threads");
}

TEST_F(SpokenWidgets, TheMenuAndWhatIsInItAreNamed) {
  for (auto* menu : window->findChildren<QMenu*>()) {
    auto* spoken = of(menu);
    ASSERT_NE(spoken, nullptr);
    EXPECT_FALSE(spoken->text(QAccessible::Name).isEmpty()) << menu->title();
    EXPECT_EQ(spoken->role(), QAccessible::PopupMenu);
    for (auto* action : menu->actions()) EXPECT_TRUE(action->isSeparator() || !action->text().isEmpty());
  }
}
