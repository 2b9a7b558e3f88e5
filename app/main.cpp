// datrin [FILE.datrin] [--empty FILE] [--step N] [--piece N] [--seat] [--picture FILE.png] [--sheet FILE.pdf]
// …

#include "app/bench/bench_view.h"
#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/chains/chains_page.h"
#include "app/drawing/drawing_page.h"
#include "app/joints/joints_page.h"
#include "app/overview/overview_page.h"
#include "app/shell/main_window.h"
#include "app/shell/shelf.h"
#include "app/shop/sums_dialog.h"
#include "app/theme.h"
#include "sheets/shown.h"
#include "store/failure_words.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QFileInfo>
#include <QScreen>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>

#include <algorithm>
#include <cstdio>
#include <string_view>

using namespace datrin;

namespace {

/// What the command line may ask for.
struct Options {
  QCommandLineOption empty{"empty", "make a new build in FILE and open it", "FILE"};
  QCommandLineOption step{"step", "go to step 1 to 6, or 7 overview, 8 joints, 9 chains, 10 batch, 11 shop",
                          "N"};
  QCommandLineOption piece{"piece", "choose piece N of the shelf, from 1", "N"};
  QCommandLineOption tab{"tab", "face N of the room column, from 1", "N"};
  QCommandLineOption seat{"seat", "seat the chosen piece best before anything else"};
  QCommandLineOption dark{"dark", "dark paper"};
  QCommandLineOption scale{"text-scale", "text size, 1 to 2", "X"};
  QCommandLineOption picture{"picture", "write a picture of the window to FILE and close", "FILE"};
  QCommandLineOption sheet{
      "sheet", "write the marking-out sheet of the chosen piece to FILE (.pdf, .svg or .dxf)", "FILE"};
  QCommandLineOption pattern{"pattern", "write the pattern drawing of the chosen part to FILE (.pdf)",
                             "FILE"};
  QCommandLineOption sums{"sums", "answer a sum of the bench: WORDS;VALUE;VALUE", "SUM"};
  QCommandLineOption joint{"joint", "choose the joint or chain of this name", "NAME"};
  QCommandLineOption bench{"bench", "at the machine, at step N of the setup, from 1", "N"};
  QCommandLineOption card{"card", "write the card of the next numbers to FILE (.pdf)", "FILE"};

  void read(QCommandLineParser& parser) const {
    parser.setApplicationDescription("A planner, calculator, simulator and logbook for model engineers.");
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("build", "the build to open (FILE.datrin, or FILE.json of a build)");
    parser.addOptions(
        {empty, step, piece, tab, seat, dark, scale, picture, sheet, pattern, sums, joint, card, bench});
    parser.process(*QCoreApplication::instance());
  }
};

/// Whether it is run to write a file, and nobody is to look at the window.
bool only_files(const QCommandLineParser& asked, const Options& options) {
  return !asked.isSet(options.picture) &&
         (asked.isSet(options.sheet) || asked.isSet(options.pattern) || asked.isSet(options.card));
}

/// Does what was asked for, once everything in the window has come to rest.
class Errands {
public:
  Errands(app::MainWindow& window, const QCommandLineParser& asked, const Options& options)
      : window_(window), asked_(asked), options_(options) {
    const auto last = static_cast<int>(app::steps().size());
    step_ = app::steps()[static_cast<std::size_t>(std::clamp(value(options.step).toInt(), 1, last) - 1)].step;
  }

  void begin() {
    if (asked_.isSet(options_.step) || !window_.bench()->is_open()) window_.go_to(step_);
    if (!asked_.isSet(options_.seat)) {
      QTimer::singleShot(0, &window_, [this] { finish(); });
      return;
    }
    auto* page = window_.seat_page();
    window_.go_to(app::MainWindow::seat);
    QObject::connect(
        page, &app::SeatPage::settled, &window_, [this] { finish(); }, Qt::SingleShotConnection);
    page->seat_best();
    if (!page->busy()) finish(); // too few touches to seat it
  }

private:
  QString value(const QCommandLineOption& option) const { return asked_.value(option); }

  void finish() {
    write_files();
    if (only_files(asked_, options_)) { // a command that writes a file ends when it is written
      QTimer::singleShot(0, &window_, [this] { QApplication::exit(status_); });
      return;
    }
    if (asked_.isSet(options_.step) || !window_.bench()->is_open()) window_.go_to(step_);
    choose_named();
    if (asked_.isSet(options_.sums)) show_sum();
    if (asked_.isSet(options_.tab)) window_.show_face(value(options_.tab).toInt() - 1);
    if (asked_.isSet(options_.bench)) {
      window_.go_to_bench();
      window_.bench()->look_at(value(options_.bench).toInt() - 1);
    }
    if (asked_.isSet(options_.picture)) take_picture();
  }

  void write_files() {
    const auto told = [this](const QString& wrong) {
      if (wrong.isEmpty()) return;
      std::fprintf(stderr, "%s\n", qPrintable(wrong));
      status_ = 1;
    };
    if (asked_.isSet(options_.sheet)) {
      window_.go_to(app::MainWindow::marking);
      told(window_.marking_page()->save_sheet(value(options_.sheet)));
    }
    if (asked_.isSet(options_.pattern))
      told(window_.drawing_page()->foundry()->write_pattern(value(options_.pattern)));
    if (asked_.isSet(options_.card)) {
      window_.go_to(app::MainWindow::overview);
      told(window_.overview_page()->save_card(value(options_.card)));
    }
  }

  void choose_named() {
    if (!asked_.isSet(options_.joint)) return;
    const auto name = value(options_.joint).toStdString();
    const auto& build = window_.document().build();
    for (const auto& [id, joint] : build.joints())
      if (joint.name == name) window_.joints_page()->choose(id);
    for (const auto& [id, chain] : build.chains())
      if (chain.name == name) window_.chains_page()->choose(id);
  }

  void show_sum() {
    auto* dialog = new app::SumsDialog(window_.document().unit(), {}, &window_);
    const auto parts = value(options_.sums).split(';');
    dialog->search()->setText(parts.front());
    const auto fields = dialog->fields();
    for (std::size_t k = 0; k < fields.size() && static_cast<qsizetype>(k) + 1 < parts.size(); ++k)
      fields[k]->setText(parts[static_cast<qsizetype>(k) + 1]);
    dialog->show();
  }

  void take_picture() {
    auto* poll = new QTimer(&window_);
    QObject::connect(poll, &QTimer::timeout, &window_, [this, poll] {
      auto* seat = window_.seat_page();
      if (seat->busy() || seat->judge()->busy() || seat->rescue()->busy() || seat->sure()->busy() ||
          window_.document().solids().busy() || window_.drawing_page()->bodies()->busy())
        return;
      poll->stop();
      auto* dialog = window_.findChild<app::SumsDialog*>();
      const auto shown = dialog ? dialog->grab() : window_.grab();
      if (!shown.save(value(options_.picture))) status_ = 1;
      QApplication::exit(status_);
    });
    poll->start(500);
  }

  app::MainWindow& window_;
  const QCommandLineParser& asked_;
  const Options& options_;
  app::Step step_;
  int status_ = 0;
};

/// A picture is the same on every machine: it reads and keeps no settings.
std::unique_ptr<QSettings> settings_for(bool picture) {
  if (!picture) return std::make_unique<QSettings>();
  static const QTemporaryDir folder; // goes when the program ends
  return std::make_unique<QSettings>(folder.filePath("settings.ini"), QSettings::IniFormat);
}

/// Nothing falls over for want of memory: what was asked for is not done, and the edit before it stands on
/// disk.
class Application : public QApplication {
public:
  using QApplication::QApplication;
  bool notify(QObject* receiver, QEvent* event) override {
    try {
      return QApplication::notify(receiver, event);
    } catch (const std::exception& error) {
      const auto words = whole(store::failure_words(error)) + "; what was asked for was not done";
      std::fprintf(stderr, "%s\n", qPrintable(words));
      for (auto* widget : topLevelWidgets())
        if (auto* window = qobject_cast<app::MainWindow*>(widget)) window->tell(words, true);
      return true;
    }
  }
};

/// Whether only words are asked for: they want no display.
bool words_only(int argc, char** argv) {
  return std::any_of(argv + 1, argv + argc, [](const char* word) {
    const std::string_view w(word);
    return w == "--help" || w == "-h" || w == "--help-all" || w == "--version" || w == "-v";
  });
}

} // namespace

int main(int argc, char** argv) {
  QCoreApplication::setApplicationName("datrin");
  QCoreApplication::setOrganizationName("datrin");
  QCoreApplication::setApplicationVersion("0.1.0");
  const Options options;
  QCommandLineParser asked;
  if (words_only(argc, argv)) {
    const QCoreApplication without_display(argc, argv);
    options.read(asked); // says them and ends
  }
  const Application application(argc, argv);
  QApplication::setStyle("Fusion");
  options.read(asked);
  app::MainWindow window(settings_for(asked.isSet(options.picture) || only_files(asked, options)));
  if (asked.isSet(options.dark) || asked.isSet(options.scale))
    window.set_look(asked.isSet(options.dark),
                    asked.isSet(options.scale) ? asked.value(options.scale).toDouble() : 1.0);
  bool opened = true;
  if (asked.isSet(options.empty))
    opened = window.new_build(asked.value(options.empty));
  else if (!asked.positionalArguments().isEmpty())
    opened = window.open_file(asked.positionalArguments().front());
  if (!opened) std::fprintf(stderr, "%s\n", qPrintable(window.message()));
  if (!opened && (asked.isSet(options.picture) || only_files(asked, options))) return 1;
  if (asked.isSet(options.piece)) window.shelf()->choose(asked.value(options.piece).toInt() - 1);
  const QSize room = window.screen()->availableSize() - QSize(0, 40); // less a title bar
  if (!asked.isSet(options.picture) && (room.height() < window.height() || room.width() < window.width()))
    window.showMaximized(); // the message line stands at the bottom
  else
    window.show();
  Errands errands(window, asked, options);
  errands.begin();
  return QApplication::exec();
}
