#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "app/page/page.h"
#include "app/shell/header.h"
#include "build/edit_drawing.h"
#include "tests/app/bench.h"

#include "app/marks/copy_table.h"
#include "app/marks/tabs.h"

#include <QAbstractSpinBox>
#include <QComboBox>
#include <QLocale>
#include <QStandardItemModel>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class EveryFace : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
  /// Every step, every face of it.
  void visit(const std::function<void(app::Step step, const std::string& face)>& look) {
    for (const auto& row : app::steps()) {
      window->go_to(row.step);
      for (int face = 0; face < std::max<int>(1, static_cast<int>(row.faces.size())); ++face) {
        window->show_face(face);
        QApplication::processEvents();
        look(row.step, (row.name + " " + row.faces.value(face)).toStdString());
      }
    }
  }
  /// Something stands in the centre and in the room column.
  void expect_drawn(app::Step step, const std::string& face) {
    EXPECT_GT(drawn_on(window->page(step)), 0.003) << face;
    EXPECT_GT(drawn_on(window->page(step)->side()), 0.003) << face;
  }
};

TEST_F(EveryFace, FitsTheWindowAtEverySizeOfTextLightAndDark) {
  // The dark changes no size: one in the dark is enough.
  for (const auto& [dark, scale] : {std::pair{false, 1.0}, std::pair{true, 1.25}, std::pair{false, 2.0}}) {
    window->set_look(dark, scale);
    choose_piece(5);
    visit([&, times = scale](app::Step step, const std::string& face) {
      EXPECT_LE(window->minimumSizeHint().width(), 1280)
          << face << times << " header " << window->header()->minimumSizeHint().width() << " pages "
          << window->drawing_page()->minimumSizeHint().width() << " "
          << window->touches_page()->minimumSizeHint().width() << " "
          << window->seat_page()->minimumSizeHint().width() << " "
          << window->marking_page()->minimumSizeHint().width();
      auto* page = window->page(step);
      if (page) { // nothing in the room column is cut off at its right edge
        QString widest;
        for (auto* child : page->side()->findChildren<QWidget*>())
          if (child->isVisible() &&
              child->minimumSizeHint().width() > page->side()->parentWidget()->width() - 24)
            widest = QString("%1 %2").arg(child->metaObject()->className(), child->accessibleName());
        EXPECT_LE(page->side()->minimumSizeHint().width(), page->side()->parentWidget()->width())
            << widest.toStdString() << " " << face << times;
      }
      expect_drawn(step, face);
    });
  }
}

TEST_F(EveryFace, FitsSmallScreens) {
  for (const auto& size : {QSize(1280, 700), QSize(1024, 640)}) {
    window->resize(size);
    QApplication::processEvents();
    visit([&](app::Step step, const std::string& face) {
      EXPECT_LE(window->minimumSizeHint().height(), size.height())
          << face << " page " << window->page(step)->minimumSizeHint().height();
      EXPECT_LE(window->minimumSizeHint().width(), size.width())
          << face << " header " << window->header()->minimumSizeHint().width() << " page "
          << window->page(step)->minimumSizeHint().width();
      EXPECT_EQ(window->size(), size) << face;
    });
  }
}

TEST_F(EveryFace, TeachesWhereThereIsNothingYet) {
  auto& document = window->document();
  const auto part = document.build().next_id();
  ASSERT_TRUE(document.apply(build::add_part(document.build(), "Flywheel").edit));
  document.choose(part, 0);
  visit([&](app::Step step, const std::string& face) { expect_drawn(step, face); });
  window->go_to(MainWindow::touches);
  EXPECT_FALSE(window->touches_page()->settings()->add_size_button()->isEnabled());
  EXPECT_TRUE(window->touches_page()->mistakes()->flagged().empty());
  EXPECT_FALSE(window->touches_page()->import_scan("/nowhere/x.ply", Unit::mm));
  window->go_to(MainWindow::seat);
  window->show_face(2);
  EXPECT_EQ(window->seat_page()->rescue()->words(), "Touch the casting first.");
  EXPECT_FALSE(window->seat_page()->rescue()->look_button()->isEnabled());
  window->show_face(1);
  EXPECT_FALSE(window->seat_page()->judge()->take_button()->isEnabled());
}

TEST_F(EveryFace, EveryWidgetThatTakesTheKeyboardHasAName) {
  choose_piece(5);
  visit([&](app::Step, const std::string& face) {
    for (auto* widget : window->findChildren<QWidget*>()) {
      if (!widget->isVisible() || !(widget->focusPolicy() & Qt::TabFocus)) continue;
      if (widget->objectName().startsWith("qt_") || qobject_cast<QComboBox*>(widget->parentWidget()) ||
          qobject_cast<QAbstractSpinBox*>(widget->parentWidget()) || widget->focusProxy())
        continue; // the inside of a box that has a name
      const auto* button = qobject_cast<QAbstractButton*>(widget);
      EXPECT_FALSE(widget->accessibleName().isEmpty() && (!button || button->text().isEmpty()))
          << face << widget->metaObject()->className();
    }
  });
}

TEST_F(EveryFace, UndoInTheMiddleOfEverythingLeavesEachFaceStanding) {
  choose_piece(5);
  visit([&](app::Step step, const std::string& face) {
    window->document().undo();
    QApplication::processEvents();
    expect_drawn(step, face);
  });
  while (window->document().undo_label()) window->document().undo();
  EXPECT_TRUE(window->document().build().parts().empty());
  visit([&](app::Step step, const std::string& face) { expect_drawn(step, face); });
  while (window->document().redo_label()) window->document().redo();
  EXPECT_EQ(window->document().build().records(), demo.build.records());
}

TEST_F(EveryFace, FiguresFollowTheUnit) {
  choose_piece(5);
  auto info = window->document().build().info();
  info.unit = Unit::inch;
  ASSERT_TRUE(window->document().apply(
      build::replace(window->document().build(), build::Build::info_id, info, "Inches")));
  window->go_to(MainWindow::seat);
  seat_best();
  window->show_face(2);
  auto* rescue = window->seat_page()->rescue();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !rescue->busy(); }, patience(30000)));
  QTest::qWait(20);
  ASSERT_GE(rescue->list()->count(), 1);
  EXPECT_TRUE(rescue->list()->item(0)->text().contains("\u202Fin"))
      << rescue->list()->item(0)->text().toStdString();
  window->show_face(1);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !window->seat_page()->judge()->busy(); }, patience(10000)));
  QTest::qWait(20);
  const auto figure = window->seat_page()->judge()->table()->item(0, 1)->text();
  EXPECT_EQ(figure.section('.', 1).size(), 4) << figure.toStdString(); // four decimals of an inch
}

TEST_F(EveryFace, ADecimalCommaIsReadWhereThePersonWritesOne) {
  QLocale::setDefault(QLocale(QLocale::German));
  choose_piece(5);
  window->go_to(MainWindow::touches);
  window->show_face(3);
  auto* spots = window->touches_page()->spots();
  for (int k = 0; k < 3; ++k) spots->xyz(k)->setText(QString("%1,5").arg(k));
  spots->size_edit()->setText("0,75");
  QTest::mouseClick(spots->add_button(), Qt::LeftButton);
  QLocale::setDefault(QLocale::c());
  const auto list = window->document().build().spots_of(window->document().piece());
  ASSERT_EQ(list.size(), 2U) << spots->message().toStdString();
  EXPECT_EQ(list.back().second.at, Vec3(0.5, 1.5, 2.5));
  EXPECT_EQ(list.back().second.size, 0.75);
  spots->xyz(0)->setText("1");
  QTest::mouseClick(spots->add_button(), Qt::LeftButton);
  EXPECT_TRUE(spots->message().startsWith("Spot, y: ")) << spots->message().toStdString();
  EXPECT_EQ(window->document().build().spots_of(window->document().piece()).size(), 2U);
}

TEST(CopyTable, ChosenRowsOrAllWithTheirHeadings) {
  QStandardItemModel model(3, 2);
  model.setHorizontalHeaderLabels({"Seat", "Room"});
  for (int r = 0; r < 3; ++r) {
    model.setItem(r, 0, new QStandardItem(QString("row\t%1").arg(r)));
    model.setItem(r, 1, new QStandardItem(QString(QChar(0x2212)) + QString::number(r)));
  }
  QTableView table;
  table.setModel(&model);
  table.setSelectionBehavior(QAbstractItemView::SelectRows);
  EXPECT_EQ(app::table_text(table), "Seat\tRoom\nrow 0\t-0\nrow 1\t-1\nrow 2\t-2\n");
  table.setSelectionMode(QAbstractItemView::MultiSelection);
  table.selectRow(0);
  table.selectRow(2);
  EXPECT_EQ(app::table_text(table).count('\n'), 3);
  EXPECT_FALSE(app::table_text(table).contains("row 1"));
}

TEST(Tabs, GoByKeyAndKeepTheirPlace) {
  app::Tabs tabs;
  QSignalSpy changed(&tabs, &app::Tabs::changed);
  for (const char* name : {"Room", "Judge", "Rescue"}) tabs.add(name, new QWidget);
  tabs.show();
  EXPECT_EQ(tabs.chosen(), 0);
  tabs.button(1)->setFocus();
  QTest::keyClick(tabs.button(1), Qt::Key_Space);
  EXPECT_EQ(tabs.chosen(), 1);
  EXPECT_TRUE(tabs.button(1)->isChecked());
  EXPECT_FALSE(tabs.button(0)->isChecked());
  tabs.set_name(2, "Rescue 3");
  tabs.choose(2);
  EXPECT_EQ(tabs.chosen(), 2);
  EXPECT_EQ(changed.count(), 2);
}
