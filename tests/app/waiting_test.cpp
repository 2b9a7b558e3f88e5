#include "app/marks/waiting.h"

#include <gtest/gtest.h>

#include <QApplication>
#include <QElapsedTimer>
#include <QLabel>
#include <QProgressBar>
#include <QProgressDialog>
#include <QPushButton>
#include <QThread>
#include <QTimer>

using namespace datrin;
using namespace datrin::app;

namespace {

/// The small window, once it is there.
QProgressDialog* shown_dialog(QWidget& over) {
  auto* dialog = over.findChild<QProgressDialog*>();
  return dialog && dialog->isVisible() ? dialog : nullptr;
}

} // namespace

TEST(Waiting, WhatIsSoonDoneIsNotSeen) {
  QWidget over;
  over.show();
  bool seen = false;
  QTimer look;
  QObject::connect(&look, &QTimer::timeout, [&] { seen = seen || shown_dialog(over) != nullptr; });
  look.start(1);
  QString wrong;
  EXPECT_EQ(wait_for(&over, "Reading", wrong,
                     [](const store::ReadOptions&) {
                       QThread::msleep(50);
                       return 42;
                     }),
            42);
  EXPECT_EQ(wrong, "");
  EXPECT_FALSE(seen);
}

TEST(Waiting, WhatTakesLongSaysHowFarItIsAndCanBeStopped) {
  QWidget over;
  over.show();
  QString words, said;
  int part = 0, ticks = 0;
  QTimer look;
  QObject::connect(&look, &QTimer::timeout, [&] {
    ++ticks; // the window is awake
    auto* dialog = shown_dialog(over);
    if (!dialog) return;
    const auto* bar = dialog->findChild<QProgressBar*>();
    if (bar->maximum() > 0 && bar->value() > 0) {
      words = dialog->labelText();
      part = 100 * bar->value() / bar->maximum();
      dialog->findChild<QPushButton*>()->click();
    } else if (part > 0) {
      said = dialog->labelText();
    }
  });
  look.start(10);
  QString wrong;
  const auto stopped =
      wait_for(&over, "Reading large.json\u2026", wrong, [](const store::ReadOptions& options) {
        options.tell(0.25);
        while (!options.stopped()) QThread::msleep(1);
        QThread::msleep(200); // it takes a while to end
        return true;
      });
  EXPECT_EQ(stopped, true);
  EXPECT_EQ(words, "Reading large.json\u2026 25 %");
  EXPECT_EQ(part, 25);
  EXPECT_EQ(said, "Stopping\u2026");
  EXPECT_GT(ticks, 10);
  EXPECT_EQ(shown_dialog(over), nullptr);
}

TEST(Waiting, WhatTheWorkThrowsIsSaid) {
  QWidget over;
  QString wrong;
  EXPECT_EQ(
      wait_for(&over, "Reading", wrong, [](const store::ReadOptions&) -> int { throw std::bad_alloc(); }),
      std::nullopt);
  EXPECT_EQ(wrong, "It could not be worked out: there is not enough memory.");
  EXPECT_EQ(wait_for(&over, "Reading", wrong, [](const store::ReadOptions&) -> int { throw 1; }),
            std::nullopt);
  EXPECT_EQ(wrong, "It could not be worked out: the work came to an end it should not have come to.");
}
