// The window killed at any moment opens again with everything it had shown. The worker is this very program,
// told by its environment (tests/app/main.cpp); DATRIN_KILLS asks for more than the few of every day.

#include "tests/app/bench.h"
#include "tests/app/kill_worker.h"

#include "app/shell/shelf.h"

#include <QProcess>
#include <QPushButton>
#include <QRandomGenerator>

#include <cstdio>

using namespace datrin;
using namespace datrin::test;

namespace datrin::test {

int work_until_killed(const QString& path) {
  QTemporaryDir folder;
  app::MainWindow window(std::make_unique<QSettings>(folder.filePath("settings.ini"), QSettings::IniFormat));
  window.resize(1280, 800);
  window.show();
  if (!window.open_build(path) || !window.document().read_only().isEmpty()) return 3;
  QPushButton* add = nullptr;
  for (auto* button : window.findChildren<QPushButton*>())
    if (button->text() == "Add a part") add = button;
  if (add == nullptr) return 4;
  for (;;) {
    add->click();
    QApplication::processEvents(); // it is painted
    std::printf("%d\n", window.shelf()->model()->rowCount());
    std::fflush(stdout);
  }
}

} // namespace datrin::test

TEST(KilledWindow, OpensAgainWithEverythingItHadShown) {
  QTemporaryDir folder;
  const auto path = folder.filePath("engine.datrin");
  store::FileOutcome outcome;
  { ASSERT_TRUE(store::BuildFile::create(path.toStdString(), "Engine", outcome)) << outcome.message; }
  const int kills = std::max(8, qEnvironmentVariableIntValue("DATRIN_KILLS"));
  QRandomGenerator random(20260101);
  int shown = 0;
  for (int kill = 0; kill < kills; ++kill) {
    QProcess worker;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("DATRIN_KILL_WORKER", path);
    worker.setProcessEnvironment(environment);
    worker.start(QCoreApplication::applicationFilePath(), QStringList());
    ASSERT_TRUE(worker.waitForStarted());
    ASSERT_TRUE(worker.waitForReadyRead(20000)) << worker.readAllStandardError().toStdString();
    QTest::qWait(static_cast<int>(random.bounded(120)));
    worker.kill();
    ASSERT_TRUE(worker.waitForFinished());
    ASSERT_EQ(worker.exitStatus(), QProcess::CrashExit);
    for (const auto& line : worker.readAllStandardOutput().split('\n'))
      if (!line.isEmpty() && line.toInt() > 0) shown = std::max(shown, line.toInt());
    {
      const auto file = store::BuildFile::open(path.toStdString(), outcome);
      ASSERT_TRUE(file && outcome.ok()) << outcome.message << " after " << kill << " kills";
      const auto there = static_cast<int>(file->build().parts().size());
      ASSERT_GE(there, shown) << "an edit that was shown is lost";
      ASSERT_LE(there, shown + 1); // at most the one that was being written
    }
    if (shown < 400) continue; // many parts are slow to show: begin again
    ASSERT_TRUE(QFile::remove(path));
    { ASSERT_TRUE(store::BuildFile::create(path.toStdString(), "Engine", outcome)) << outcome.message; }
    shown = 0;
  }
}
