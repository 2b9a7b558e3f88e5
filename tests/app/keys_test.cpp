// Every place of the window has its key, and no key means two things where both could be meant.

#include "app/page/page.h"
#include "tests/app/bench.h"

#include "app/page/steps.h"

#include <QAbstractButton>
#include <QAction>
#include <QShortcut>

#include <map>
#include <set>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

class Keys : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }

  /// What answers to which key in the whole window as it stands.
  std::map<QString, QStringList> answering() {
    std::map<QString, QStringList> who;
    for (auto* shortcut : window->findChildren<QShortcut*>()) {
      auto* at = qobject_cast<QWidget*>(shortcut->parent());
      if (shortcut->context() == Qt::WidgetShortcut || !shortcut->isEnabled()) continue;
      if (at != nullptr && at->isVisible()) who[shortcut->key().toString()] << "shortcut";
    }
    for (auto* button : window->findChildren<QAbstractButton*>())
      if (!button->shortcut().isEmpty() && button->isVisible() && button->isEnabled())
        who[button->shortcut().toString()] << button->text();
    for (auto* action : window->findChildren<QAction*>())
      if (!action->shortcut().isEmpty() && action->isEnabled())
        who[action->shortcut().toString()] << action->text();
    return who;
  }
};

} // namespace

TEST(Steps, EachHasANameAndAKeyOfItsOwn) {
  std::set<QString> names, keys;
  for (const auto& row : app::steps()) {
    EXPECT_TRUE(names.insert(row.name).second) << row.name;
    EXPECT_TRUE(keys.insert(row.key).second) << row.key;
    EXPECT_EQ(app::row_of(row.step).name, row.name);
    std::set<QString> faces;
    for (const auto& face : row.faces) EXPECT_TRUE(faces.insert(face).second) << face;
  }
  EXPECT_EQ(app::steps_of(true).size() + app::steps_of(false).size(), app::steps().size());
}

TEST_F(Keys, EveryStepIsReachedByItsKey) {
  for (const auto& row : app::steps()) {
    press(QKeySequence(row.key)[0].key(), Qt::ControlModifier);
    EXPECT_EQ(window->step(), row.step) << row.key;
    EXPECT_GT(drawn_on(window->page(row.step)), 0.002) << row.name;
  }
}

TEST_F(Keys, NoKeyMeansTwoThingsOnAnyFace) {
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    const int faces = std::max(1, static_cast<int>(row.faces.size()));
    for (int face = 0; face < faces; ++face) {
      if (!row.faces.isEmpty()) window->show_face(face);
      QTest::qWait(1);
      for (const auto& [key, who] : answering())
        EXPECT_EQ(who.size(), 1) << row.name << " face " << face << ": " << key << " is " << who.join(", ");
    }
  }
}

TEST_F(Keys, FacesAreWhatTheTableSays) {
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    auto* tabs = window->page(row.step)->tabs();
    if (row.faces.isEmpty()) {
      EXPECT_EQ(tabs, nullptr) << row.name;
      continue;
    }
    ASSERT_NE(tabs, nullptr) << row.name;
    for (int k = 0; k < row.faces.size(); ++k) {
      window->show_face(k);
      EXPECT_EQ(tabs->chosen(), k) << row.name;
    }
  }
}
