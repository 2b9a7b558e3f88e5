#pragma once
// What every interface test stands on: a folder of its own, a window with settings of its own, the demo as a
// file.

#include "app/shell/main_window.h"
#include "demo/mill_engine.h"
#include "store/build_file.h"

#include <QApplication>
#include <QSignalSpy>
#include <QTemporaryDir>
#include <QTest>
#include <gtest/gtest.h>

#include <memory>
#include <unordered_map>

/// So that a failed check shows words, not bytes.
inline void PrintTo(const QString& text, std::ostream* out) {
  *out << '"' << text.toStdString() << '"';
}

inline std::ostream& operator<<(std::ostream& out, const QString& text) {
  return out << text.toStdString();
}

namespace datrin::test {

/// How much of a widget is drawn on: the share of its pixels that are not of its most common colour. Every
/// third is looked at, each way.
inline double drawn_on(QWidget* widget) {
  const auto image = widget->grab().toImage().convertToFormat(QImage::Format_RGB32);
  std::unordered_map<QRgb, int> counts;
  int looked_at = 0;
  for (int y = 0; y < image.height(); y += 7) {
    const auto* line = reinterpret_cast<const QRgb*>(image.constScanLine(y));
    for (int x = 0; x < image.width(); x += 5, ++looked_at) ++counts[line[x]];
  }
  int most = 0;
  for (const auto& [colour, count] : counts) most = std::max(most, count);
  return looked_at == 0 ? 0 : 1 - static_cast<double>(most) / looked_at;
}

/// How long to wait for what takes so long on an idle machine, ms: under the sanitizers everything is slower.
constexpr int patience(int milliseconds) {
#if defined(__SANITIZE_ADDRESS__)
  return 20 * milliseconds;
#elif defined(__has_feature)
#if __has_feature(address_sanitizer)
  return 20 * milliseconds;
#else
  return milliseconds;
#endif
#else
  return milliseconds;
#endif
}

/// The column of a table under that heading.
inline int column_called(const QTableWidget* table, const QString& heading) {
  for (int c = 0; c < table->columnCount(); ++c)
    if (table->horizontalHeaderItem(c)->text() == heading) return c;
  ADD_FAILURE() << heading.toStdString();
  return 0;
}

class WindowTest : public testing::Test {
protected:
  void SetUp() override { open_window(); }
  void TearDown() override { window.reset(); }

  void open_window() {
    window.reset();
    window = std::make_unique<app::MainWindow>(
        std::make_unique<QSettings>(folder.filePath("settings.ini"), QSettings::IniFormat));
    window->resize(1280, 800);
    window->show();
    take_the_keyboard();
    QTest::keyRelease(window.get(), Qt::Key_F35); // no Shift or Ctrl is held over from the test before
  }

  /// The demo build as a file of this test's own; opened.
  void open_demo() {
    const auto path = demo_path();
    if (!QFileInfo::exists(path)) {
      static QTemporaryDir once; // made once a process: it takes as long as many a test
      const auto made = once.filePath("demo.datrin");
      if (!QFileInfo::exists(made)) make_demo(made);
      ASSERT_TRUE(QFile::copy(made, path));
    }
    ASSERT_TRUE(window->open_build(path)) << window->message().toStdString();
    take_the_keyboard();
  }
  void make_demo(const QString& path) {
    store::FileOutcome outcome;
    auto file = store::BuildFile::create(path.toStdString(), "Demo", outcome);
    ASSERT_TRUE(outcome.ok()) << outcome.message;
    for (auto edit : demo.edits) {
      for (auto& change : edit.changes)
        if (change.id == build::Build::info_id) change.before = file->build().records().at(change.id);
      ASSERT_TRUE(file->apply(edit).ok());
    }
  }
  /// Where opening took long enough to be told of, what told it had the keyboard.
  void take_the_keyboard() {
    window->activateWindow();
    (void)QTest::qWaitForWindowActive(window.get());
  }
  QString demo_path() const { return folder.filePath("demo.datrin"); }

  /// Types into a field from the start and leaves it by `key`.
  static void enter(QWidget* field, const QString& text, Qt::Key key = Qt::Key_Tab) {
    field->setFocus();
    if (auto* edit = qobject_cast<QLineEdit*>(field)) edit->selectAll();
    if (text.isEmpty()) QTest::keyClick(field, Qt::Key_Backspace);
    QTest::keyClicks(field, text);
    QTest::keyClick(field, key);
  }

  /// A key pressed in the window, as the person would: to whatever has the keyboard. A button's shortcut
  /// shows the press for a tenth of a second before it acts.
  void press(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    take_the_keyboard();
    QTest::qWait(5); // what was just put into a layout is shown when events are next looked at
    auto* to = QApplication::focusWidget() ? QApplication::focusWidget() : window.get();
    QTest::keyClick(to, static_cast<Qt::Key>(key), modifiers);
    if (modifiers.testFlag(Qt::ShiftModifier) && modifiers.testFlag(Qt::ControlModifier)) QTest::qWait(150);
  }

  void choose_piece(std::size_t k);

  /// Presses S in the seat view and waits until the part has arrived.
  void seat_best();

  static const demo::DemoBuild& made_demo() {
    static const auto made = demo::mill_engine();
    return made;
  }

  QTemporaryDir folder;
  const demo::DemoBuild& demo = made_demo();
  std::unique_ptr<app::MainWindow> window;
};

} // namespace datrin::test
