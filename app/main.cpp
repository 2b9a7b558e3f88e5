// datrin [FILE.datrin] [--empty FILE] [--step N] [--piece N] [--seat] [--picture FILE.png] [--sheet FILE.pdf]
// …

#include "app/shell/main_window.h"
#include "app/shop/sums_dialog.h"
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
  const QCommandLineOption step("step", "go to step 1 to 6, or 7 overview, 8 joints, 9 chains", "N");
  const QCommandLineOption piece("piece", "choose piece N of the shelf, from 1", "N");
  const QCommandLineOption best("seat", "seat the chosen piece best before anything else");
  const QCommandLineOption dark("dark", "dark paper");
  const QCommandLineOption scale("text-scale", "text size, 1 to 2", "X");
  const QCommandLineOption picture("picture", "write a picture of the window to FILE and close", "FILE");
  const QCommandLineOption sheet(
      "sheet", "write the marking-out sheet of the chosen piece to FILE (.pdf, .svg or .dxf)", "FILE");
  const QCommandLineOption tab("tab", "face N of the room column, from 1", "N");
  const QCommandLineOption pattern("pattern", "write the pattern drawing of the chosen part to FILE (.pdf)",
                                   "FILE");
  const QCommandLineOption item("joint", "choose the joint or chain of this name", "NAME");
  const QCommandLineOption card("card", "write the card of the next numbers to FILE (.pdf)", "FILE");
  const QCommandLineOption sums("sums", "answer a sum of the bench: WORDS;VALUE;VALUE", "SUM");
  parser.addOptions({empty, step, piece, tab, best, dark, scale, picture, sheet, pattern, sums, item, card});
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
    window.shelf()->choose(parser.value(piece).toInt() - 1);
  }
  window.show();
  const auto last = static_cast<int>(app::steps().size());
  const auto first_step =
      app::steps()[static_cast<std::size_t>(std::clamp(parser.value(step).toInt(), 1, last) - 1)].step;
  window.go_to(first_step);

  int status = 0;
  const auto finish = [&] { // the picture and the sheet, once everything has come to rest
    window.go_to(first_step);
    if (parser.isSet(sheet)) {
      window.go_to(app::MainWindow::marking);
      const auto wrong = window.marking_page()->save_sheet(parser.value(sheet));
      if (!wrong.isEmpty()) std::fprintf(stderr, "%s\n", qPrintable(wrong));
      status = wrong.isEmpty() ? 0 : 1;
      window.go_to(first_step);
    }
    if (parser.isSet(pattern)) {
      const auto wrong = window.drawing_page()->foundry()->write_pattern(parser.value(pattern));
      if (!wrong.isEmpty()) std::fprintf(stderr, "%s\n", qPrintable(wrong));
      status = wrong.isEmpty() ? status : 1;
    }
    if (parser.isSet(card)) {
      window.go_to(app::MainWindow::overview);
      const auto wrong = window.overview_page()->save_card(parser.value(card));
      if (!wrong.isEmpty()) std::fprintf(stderr, "%s\n", qPrintable(wrong));
      status = wrong.isEmpty() ? status : 1;
      window.go_to(first_step);
    }
    for (const auto& [id, joint] : window.document().build().joints())
      if (parser.isSet(item) && joint.name == parser.value(item).toStdString())
        window.joints_page()->choose(id);
    for (const auto& [id, chain] : window.document().build().chains())
      if (parser.isSet(item) && chain.name == parser.value(item).toStdString())
        window.chains_page()->choose(id);
    if (parser.isSet(sums)) {
      auto* dialog = new app::SumsDialog(window.document().unit(), &window);
      const auto parts = parser.value(sums).split(';');
      dialog->search()->setText(parts.front());
      for (qsizetype k = 1; k < parts.size() && k <= static_cast<qsizetype>(dialog->fields().size()); ++k)
        dialog->fields()[static_cast<std::size_t>(k - 1)]->setText(parts[k]);
      dialog->show();
    }
    if (parser.isSet(tab)) window.show_face(parser.value(tab).toInt() - 1);
    if (!parser.isSet(picture)) return;
    auto* poll = new QTimer(&window);
    QObject::connect(poll, &QTimer::timeout, &window, [&, poll] {
      auto* seat = window.seat_page();
      if (seat->busy() || seat->judge()->busy() || seat->rescue()->busy() || seat->sure()->busy()) return;
      poll->stop();
      auto* dialog = window.findChild<app::SumsDialog*>();
      const auto shown = dialog ? dialog->grab() : window.grab();
      if (!shown.save(parser.value(picture))) status = 1;
      QApplication::exit(status);
    });
    poll->start(500);
  };
  if (parser.isSet(best)) {
    window.go_to(app::MainWindow::seat);
    QObject::connect(window.seat_page(), &app::SeatPage::settled, &window, finish, Qt::SingleShotConnection);
    window.seat_page()->seat_best();
    if (!window.seat_page()->busy()) finish(); // too few touches to seat it
  } else {
    QTimer::singleShot(0, &window, finish);
  }
  return QApplication::exec();
}
