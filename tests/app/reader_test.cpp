// A screen reader walks the whole tree while forms change their shape: nothing it was given is gone.

#include "app/drawing/drawing_page.h"
#include "app/page/page.h"
#include "app/shell/shelf.h"
#include "build/edit_drawing.h"
#include "tests/app/bench.h"
#include "tests/app/reader.h"

#include "app/page/steps.h"

#include <QComboBox>
#include <QScrollArea>
#include <QScrollBar>
#include <QSpinBox>
#include <QTableView>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

class ReaderWalks : public WindowTest {
protected:
  void look() {
    EXPECT_GT(read_all(), 100);
    let_go();
    EXPECT_GT(read_all(), 100);
  }
};

} // namespace

TEST_F(ReaderWalks, SpokesOfAWheelWhoseSizesChange) {
  ASSERT_TRUE(window->new_build(folder.filePath("wheel.datrin")));
  auto& document = window->document();
  const auto part = build::add_part(document.build(), "Wheel", false);
  ASSERT_TRUE(document.apply(part.edit));
  window->go_to(MainWindow::drawing);
  window->show_face(4);
  auto* bodies = window->drawing_page()->bodies();
  look();
  bodies->add(solid::BodyShape::round, false);
  look();
  bodies->add(solid::BodyShape::spokes, false);
  for (const char* high : {"14", "9", "15"}) {
    look();
    enter(bodies->field(solid::BodyRole::height)->edit(), high);
    document.solids().wait();
  }
  for (auto* spin : bodies->findChildren<QSpinBox*>())
    if (spin->isVisible())
      for (const int sides : {5, 7, 4}) {
        look();
        spin->setValue(sides);
        QTest::keyClick(spin, Qt::Key_Tab);
        document.solids().wait();
      }
  look();
}

/// A bar that goes takes no child with it: Qt gave what lay behind its list for the child there was.
TEST_F(ReaderWalks, WhatScrollsKeepsItsChildrenWhenItsBarsGo) {
  QScrollArea area;
  auto* form = new QWidget;
  form->setMinimumHeight(2000);
  area.setWidgetResizable(true);
  area.setWidget(form);
  area.resize(300, 300);
  area.show();
  auto* spoken = QAccessible::queryAccessibleInterface(&area);
  ASSERT_NE(spoken, nullptr);
  ASSERT_TRUE(QTest::qWaitFor([&] { return area.verticalScrollBar()->isVisible(); }));
  const int children = spoken->childCount();
  form->setMinimumHeight(20);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !area.verticalScrollBar()->isVisible(); }));
  EXPECT_EQ(spoken->childCount(), children);
  for (int k = 0; k < children; ++k) EXPECT_NE(spoken->child(k), nullptr) << k;
  EXPECT_EQ(spoken->child(children), nullptr);
}

/// Every choice of every form takes its last value and its first, every table its rows.
TEST_F(ReaderWalks, EveryFormOfEveryPageChangesItsShape) {
  open_demo();
  int changes = 0;
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    for (int face = 0; face < std::max<int>(1, static_cast<int>(row.faces.size())); ++face) {
      window->show_face(face);
      SCOPED_TRACE((row.name + " " + row.faces.value(face)).toStdString());
      look();
      QStringList seen;
      // A form may be another after a change: the fields are looked for anew each time.
      for (bool any = true; any && changes < 100000;) {
        any = false;
        for (auto* box : window->findChildren<QComboBox*>()) {
          const auto name = box->accessibleName();
          if (!box->isVisible() || !box->isEnabled() || seen.contains(name)) continue;
          seen << name;
          any = true;
          for (const int k : {box->count() - 1, 0}) {
            QPointer<QComboBox> still = box;
            box->setCurrentIndex(k);
            emit box->activated(k);
            ++changes;
            read_all();
            let_go();
            if (!still) break;
          }
          break;
        }
      }
      for (auto* view : window->findChildren<QTableView*>()) {
        if (!view->isVisible() || view->model() == nullptr) continue;
        QPointer<QTableView> still = view;
        for (int k = 0; still && k < std::min(2, view->model()->rowCount()); ++k) {
          view->setCurrentIndex(view->model()->index(k, 0));
          ++changes;
          read_all();
          let_go();
        }
        if (!still) break;
      }
      look();
    }
  }
  EXPECT_GT(changes, 100);
}
