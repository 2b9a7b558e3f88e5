#include "app/casting/marking_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "app/overview/overview_page.h"
#include "app/shell/shelf.h"
#include "tests/app/bench.h"

#include "build/edit_drawing.h"

#include <QApplication>
#include <QDir>
#include <QFile>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

using Window = WindowTest;

TEST_F(Window, AFileThatIsNotABuildIsLeftAloneAndTheOpenOneStays) {
  open_demo();
  const auto path = folder.filePath("letter.datrin");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("Dear foundry");
  file.close();
  EXPECT_FALSE(window->open_build(path));
  EXPECT_TRUE(window->message().contains("is not a Datrin build")) << window->message().toStdString();
  EXPECT_EQ(window->document().path(), demo_path());
  EXPECT_FALSE(window->new_build(path)); // never written over
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_EQ(file.readAll(), "Dear foundry");
}

TEST_F(Window, AFileTakenAwayIsSaidAndWorkGoesOnInACopy) {
  open_demo();
  ASSERT_TRUE(QFile::remove(demo_path()));
  auto* field = window->drawing_page()->form()->field("Width");
  enter(field->edit(), "97.5");
  const auto kept = folder.filePath("demo-kept.datrin");
  EXPECT_EQ(window->message(),
            demo_path() + " was taken away while it was open; everything is kept, and work goes on in " +
                kept);
  EXPECT_EQ(window->document().path(), kept);
  EXPECT_TRUE(window->windowTitle().startsWith("demo-kept")) << window->windowTitle().toStdString();
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(window->message().startsWith("Undone: ")) << window->message().toStdString();
  press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  store::FileOutcome outcome;
  const auto read = store::BuildFile::open(kept.toStdString(), outcome); // held by the window: for reading
  ASSERT_TRUE(read);
  EXPECT_TRUE(read->build().records() == window->document().build().records());
}

// Written over in place: said before anything is edited, and the window does not close on it unseen.
TEST_F(Window, AFileOverwrittenInPlaceIsSaidAndKept) {
  open_demo();
  auto* field = window->drawing_page()->form()->field("Width");
  enter(field->edit(), "97.5");
  const auto records = window->document().build().records();
  QFile file(demo_path());
  ASSERT_TRUE(file.open(QIODevice::ReadWrite)); // the same file, other bytes
  file.resize(4096);
  file.close();
  EXPECT_FALSE(window->close());
  const auto kept = folder.filePath("demo-kept.datrin");
  EXPECT_EQ(window->message(),
            demo_path() +
                " was overwritten by another program while it was open; everything is kept, and "
                "work goes on in " +
                kept);
  EXPECT_TRUE(window->document().build().records() == records);
  EXPECT_TRUE(window->close());
}

// An edit of what is no longer there did nothing, and said nothing.
TEST_F(Window, AnEditThatCannotBeMadeSaysSo) {
  open_demo();
  const auto& document = window->document();
  const auto records = document.build().records();
  EXPECT_FALSE(window->document().apply(build::set_quantity(document.build(), 999999, 2)));
  EXPECT_TRUE(window->message().contains("is no longer there")) << window->message().toStdString();
  window->tell("", false);
  const auto part = document.part();
  EXPECT_FALSE(window->document().apply(
      build::set_quantity(document.build(), part, document.build().find<build::Part>(part)->quantity)));
  EXPECT_EQ(window->message(), ""); // nothing differs: no news
  EXPECT_TRUE(document.build().records() == records);
}

TEST_F(Window, ExportNeverWritesOverTheOpenBuild) {
  open_demo();
  EXPECT_EQ(window->export_json(demo_path()), demo_path() + " is the build itself; choose another name");
  EXPECT_EQ(window->export_json(folder.filePath("a.json")), "");
  QFile build(demo_path());
  ASSERT_TRUE(build.open(QIODevice::ReadOnly));
  EXPECT_TRUE(build.readAll().startsWith("SQLite format 3"));
}

TEST_F(Window, UndoAndRedoNameWhatTheyDo) {
  open_demo();
  auto info = window->document().build().info();
  info.name = "Other";
  ASSERT_TRUE(window->document().apply(
      build::replace(window->document().build(), build::Build::info_id, info, "Name of the build")));
  EXPECT_EQ(window->undo_action()->text(), "Undo: Name of the build");
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(window->message(), "Undone: Name of the build");
  EXPECT_EQ(window->redo_action()->text(), "Redo: Name of the build");
  press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(window->document().build().info().name, "Other");
}

TEST_F(Window, EveryWidgetThatTakesTheKeyboardHasAName) {
  open_demo();
  for (const auto& row : app::steps()) {
    window->go_to(row.step);
    for (auto* widget : window->findChildren<QWidget*>()) {
      if (!widget->isVisible() || !(widget->focusPolicy() & Qt::TabFocus) ||
          widget->objectName().startsWith("qt_"))
        continue;
      const auto* button = qobject_cast<QAbstractButton*>(widget);
      const auto* proxied = widget->focusProxy();
      const bool inner =
          qobject_cast<QLineEdit*>(widget) && (qobject_cast<QComboBox*>(widget->parentWidget()) ||
                                               qobject_cast<QAbstractSpinBox*>(widget->parentWidget()));
      EXPECT_TRUE(!widget->accessibleName().isEmpty() || (button && !button->text().isEmpty()) || proxied ||
                  inner)
          << row.name.toStdString() << ": " << widget->metaObject()->className();
    }
  }
}

TEST_F(Window, F6GoesRoundThePlaces) {
  open_demo();
  window->go_to(MainWindow::seat);
  std::vector<QWidget*> places;
  for (int n = 0; n < 4; ++n) {
    press(Qt::Key_F6);
    places.push_back(QApplication::focusWidget());
  }
  std::sort(places.begin(), places.end());
  EXPECT_EQ(std::unique(places.begin(), places.end()) - places.begin(), 4);
}

TEST_F(Window, AThousandParts) {
  open_demo();
  const auto before = window->shelf()->model()->rowCount();
  auto& document = window->document();
  std::vector<build::Record> records;
  build::Id id = document.build().next_id();
  for (int n = 0; n < 1000; ++n) {
    build::Part part;
    part.name = "Part " + std::to_string(n);
    part.order = 10 + n;
    records.emplace_back(part);
    build::Piece piece;
    piece.part = id;
    records.emplace_back(piece);
    id += 2;
  }
  ASSERT_TRUE(document.apply(build::add_all(document.build(), std::move(records), "Add 1000 parts")));
  EXPECT_EQ(window->shelf()->model()->rowCount(), before + 1000);
  choose_piece(900);
  for (const auto& row : app::steps()) window->go_to(row.step);
  press(Qt::Key_Z, Qt::ControlModifier);
  window->go_to(MainWindow::drawing);
  EXPECT_EQ(window->shelf()->model()->rowCount(), before);
}

// Closing or rebuilding the window with a field half done: signals fired in fields already taken apart, and
// what was typed was lost.
TEST_F(Window, WhatIsTypedWhenItClosesIsKept) {
  open_demo();
  auto type = [&] {
    auto* form = window->findChild<app::SurfaceForm*>();
    ASSERT_NE(form, nullptr);
    form->show_surface(window->document().build().surfaces_of(window->document().part()).front().first);
    auto* edit = form->name_edit();
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, "sole");
  };
  const auto name = [&] {
    return window->document().build().surfaces_of(window->document().part()).front().second.name;
  };
  window->go_to(MainWindow::drawing);
  type();
  window->set_look(true, 1);
  EXPECT_EQ(name(), "sole");
  window->document().undo();
  window->go_to(MainWindow::drawing);
  type();
  open_window(); // the other one is gone, without having been closed
  open_demo();
  EXPECT_EQ(name(), "sole");
}

TEST_F(Window, NothingIsWrittenOverTheOpenBuild) {
  open_demo();
  choose_piece(0);
  const auto records = window->document().build().records();
  const auto link = folder.filePath("link.pdf");
  ASSERT_TRUE(QFile::link(demo_path(), link));
  for (const auto& path : {demo_path(), link}) {
    const auto says = path + " is the build itself; choose another name";
    EXPECT_EQ(window->export_json(path), says);
    EXPECT_EQ(window->overview_page()->save_card(path), says);
    EXPECT_EQ(window->drawing_page()->foundry()->write_pattern(path), says);
    EXPECT_FALSE(window->touches_page()->export_file(path));
  }
  EXPECT_TRUE(window->document().build().records() == records);
  window->go_to(MainWindow::seat);
  seat_best();
  const auto seated = window->document().build().records();
  window->go_to(MainWindow::marking);
  EXPECT_EQ(window->marking_page()->save_sheet(link), link + " is the build itself; choose another name");
  open_window();
  open_demo();
  EXPECT_TRUE(window->document().build().records() == seated);
}

// What was found and where it is now stands last, however long the way there is.
TEST_F(Window, WhatIsSaidOfAFileIsNotCut) {
  open_demo();
  window->new_build(folder.filePath("other.datrin")); // let go of the demo
  const QString deep = folder.filePath(QString(200, 'd')) + "/" + QString(200, 'e');
  ASSERT_TRUE(QDir().mkpath(deep));
  const auto path = deep + "/engine.datrin";
  ASSERT_TRUE(QFile::copy(demo_path(), path));
  QFile cut(path);
  ASSERT_TRUE(cut.open(QIODevice::ReadWrite) && cut.resize(cut.size() - 4096));
  cut.close();
  EXPECT_TRUE(window->open_build(path));
  EXPECT_TRUE(window->message().endsWith("They are now in " + deep + "/engine-recovered.datrin"))
      << window->message().toStdString();
  QTest::qWait(20);
  auto* line = window->findChild<QLabel*>(); // any: the one that says it
  for (auto* label : window->findChildren<QLabel*>())
    if (label->accessibleName() == "Message") line = label;
  EXPECT_GE(line->height(), line->heightForWidth(line->width())); // all of it is seen
  EXPECT_EQ(window->size(), QSize(1280, 800));
}
