// The application's own widgets, driven by key and mouse events in a real window on Qt's offscreen platform.

#include "tests/app/kill_worker.h"
#include "tests/locale.h"

#include <QApplication>
#include <gtest/gtest.h>

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", qgetenv("QT_QPA_PLATFORM").isEmpty() ? "offscreen" : qgetenv("QT_QPA_PLATFORM"));
  testing::InitGoogleTest(&argc, argv);
  QApplication application(argc, argv);
  QApplication::setStyle("Fusion");
  if (const auto build = qEnvironmentVariable("DATRIN_KILL_WORKER"); !build.isEmpty())
    return datrin::test::work_until_killed(build);
  // The tests of a comma locale are asked for by name: tests/CMakeLists.txt.
  if (!datrin::test::locale_of_environment()) return 1;
  if (!datrin::test::in_comma_locale()) QLocale::setDefault(QLocale::c());
  return RUN_ALL_TESTS();
}
