// datrin [FILE.datrin] [--empty FILE] [--step N] [--piece N] [--picture FILE.png] …

#include "app/shell/main_window.h"
#include "app/theme.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>
#include <QTimer>

#include <cstdio>

using namespace datrin;

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  QApplication::setApplicationName("datrin");
  QApplication::setOrganizationName("datrin");
  QApplication::setApplicationVersion("0.1.0");
  QApplication::setStyle("Fusion");

  QCommandLineParser parser;
  parser.setApplicationDescription("A planner, calculator, simulator and logbook for model engineers.");
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument("build", "the build to open (FILE.datrin)");
  const QCommandLineOption empty("empty", "make a new build in FILE and open it", "FILE");
  const QCommandLineOption step("step", "go to step 1 to 4", "N");
  const QCommandLineOption piece("piece", "choose piece N of the shelf, from 1", "N");
  const QCommandLineOption best("seat", "seat the chosen piece best before anything else");
  const QCommandLineOption dark("dark", "dark paper");
  const QCommandLineOption scale("text-scale", "text size, 1 to 2", "X");
  const QCommandLineOption picture("picture", "write a picture of the window to FILE and close", "FILE");
  parser.addOptions({empty, step, piece, best, dark, scale, picture});
  parser.process(application);

  // A picture is the same on every machine: it reads and keeps no settings.
  std::unique_ptr<QSettings> settings =
      parser.isSet(picture)
          ? std::make_unique<QSettings>(QDir::tempPath() + "/datrin-picture-" +
                                            QString::number(QCoreApplication::applicationPid()) + ".ini",
                                        QSettings::IniFormat)
          : std::make_unique<QSettings>();
  app::MainWindow window(std::move(settings));
  if (parser.isSet(dark) || parser.isSet(scale))
    window.set_look(parser.isSet(dark), parser.isSet(scale) ? parser.value(scale).toDouble() : 1.0);
  bool opened = true;
  if (parser.isSet(empty))
    opened = window.new_build(parser.value(empty));
  else if (!parser.positionalArguments().isEmpty())
    opened = window.open_build(parser.positionalArguments().front());
  if (!opened) std::fprintf(stderr, "%s\n", qPrintable(window.message()));
  if (!opened && parser.isSet(picture)) return 1;
  if (parser.isSet(piece)) {
    const auto items = window.shelf()->items();
    const auto n = parser.value(piece).toUInt();
    if (n >= 1 && n <= items.size()) window.document().choose(items[n - 1]->part(), items[n - 1]->piece());
  }
  window.show();
  window.go_to(std::max(1, parser.value(step).toInt()) - 1);
  if (parser.isSet(best)) {
    window.go_to(app::MainWindow::seat);
    window.seat_page()->seat_best();
  }
  if (parser.isSet(picture)) {
    const int wait = parser.isSet(best) ? 1200 : 700; // long enough for a search and its glide
    QTimer::singleShot(wait, &window, [&] {
      if (parser.isSet(step) && parser.isSet(best)) window.go_to(parser.value(step).toInt() - 1);
      QTimer::singleShot(400, &window, [&] {
        window.grab().save(parser.value(picture));
        QApplication::quit();
      });
    });
  }
  return QApplication::exec();
}
