#include "app/shell/main_window.h"

#include "app/allowance/allowance_page.h"
#include "app/batch/batch_page.h"
#include "app/bench/bench_view.h"
#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "app/chains/chains_page.h"
#include "app/drawing/drawing_page.h"
#include "app/drawing/quick_start_dialog.h"
#include "app/joints/joints_page.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/length_edit.h"
#include "app/marks/spoken.h"
#include "app/marks/waiting.h"
#include "app/overview/overview_page.h"
#include "app/route/route_page.h"
#include "app/shell/build_nav.h"
#include "app/shell/header.h"
#include "app/shell/log_dialog.h"
#include "app/shell/part_transfer.h"
#include "app/shell/recent_builds.h"
#include "app/shell/shelf.h"
#include "app/shop/shop_page.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "drawing/named_sizes.h"
#include "sheets/figures.h"
#include "solid/quick_start.h"
#include "solid/step_file.h"
#include "store/build_json.h"
#include "store/text_file.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDropEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>
#include <QKeyEvent>
#include <QMimeData>
#include <QScreen>
#include <QScrollArea>
#include <QShortcut>
#include <QStackedWidget>

#include <algorithm>
#include <limits>

namespace datrin::app {

using sheets::qt;

MainWindow::MainWindow(std::unique_ptr<QSettings> settings, QWidget* parent)
    : QMainWindow(parent), settings_(std::move(settings)) {
  set_theme(*qApp, settings_->value("dark", false).toBool(), settings_->value("text_scale", 1.0).toDouble());
  setWindowTitle("Datrin");
  qApp->installEventFilter(this);
  speak_of_spoken();
  set_named_sizes([this](std::string_view text) {
    return drawing::size_named(document_.build(), document_.part(), text);
  });
  make_actions();
  make_interface();
  // All of it is seen below a title bar and beside a panel; a screen that is none (a picture is taken) has
  // both.
  QSize size(1280, 800);
  if (QGuiApplication::platformName() != "offscreen" && screen() != nullptr) {
    const int title_bar = theme().ipx(40);
    size = size.boundedTo(screen()->availableSize() - QSize(0, title_bar)).expandedTo({1024, 640});
  }
  resize(size);
  setAcceptDrops(true);
  if (const auto place = settings_->value("place").toByteArray(); !place.isEmpty()) restoreGeometry(place);
  connect(&document_, &Document::changed, this, [this] { refresh(); });
  connect(&document_, &Document::done, this, [this](const QString& words) { tell(words, false); });
  connect(&document_, &Document::refused, this, [this](const QString& why) { tell(why, true); });
  connect(&document_, &Document::moved, this, [this](const QString& what) {
    show_file();
    tell(what, true);
  });
  refresh();
}

/// What was typed and not left yet is kept, while everything that keeps it is there.
void MainWindow::finish_typing() {
  auto* edit = QApplication::focusWidget();
  if (edit != nullptr && isAncestorOf(edit)) edit->clearFocus();
}

QString MainWindow::message() const {
  return message_->text();
}

MainWindow::~MainWindow() {
  finish_typing();
  set_named_sizes({});
  disconnect(&document_, nullptr, this, nullptr);
  delete centralWidget(); // pages hold on to the document
}

void MainWindow::make_actions() {
  menu_ = new QMenu(this);
  menu_->setAccessibleName("Menu of the build");
  const auto act = [this](const QString& words, const QKeySequence& key, auto&& what) {
    auto* action = menu_->addAction(words);
    action->setShortcut(key);
    action->setShortcutContext(Qt::WindowShortcut);
    addAction(action);
    connect(action, &QAction::triggered, this, what);
    return action;
  };
  act("New build\u2026", QKeySequence::New, [this] {
    auto path = QFileDialog::getSaveFileName(this, "New build", "build.datrin", "Datrin builds (*.datrin)",
                                             nullptr, QFileDialog::DontConfirmOverwrite);
    if (path.isEmpty()) return;
    if (!path.endsWith(".datrin")) path += ".datrin";
    new_build(path);
  });
  act("Open a build\u2026", QKeySequence::Open, [this] {
    const auto path =
        QFileDialog::getOpenFileName(this, "Open a build", {}, "Datrin builds (*.datrin);;All files (*)");
    if (!path.isEmpty()) open_build(path);
  });
  recent_ = new RecentBuilds(*settings_, menu_);
  menu_->addMenu(recent_);
  connect(recent_, &RecentBuilds::chosen, this, &MainWindow::open_build);
  act("Name of the build\u2026", {}, [this] { ask_name(); });
  act("A part from a few sizes\u2026", QKeySequence("Ctrl+Shift+Q"), [this] { quick_part(); });
  menu_->addSeparator();
  act("Export as JSON\u2026", QKeySequence("Ctrl+Shift+E"), [this] {
    const auto path = QFileDialog::getSaveFileName(this, "Export the build",
                                                   QFileInfo(document_.path()).completeBaseName() + ".json",
                                                   "Builds as JSON (*.json)");
    if (path.isEmpty()) return;
    const auto wrong = export_json(path);
    tell(wrong.isEmpty() ? "Written to " + path + "." : wrong, !wrong.isEmpty());
  });
  act("Import JSON\u2026", {}, [this] {
    const auto path = QFileDialog::getOpenFileName(this, "Import a build", {}, "Builds as JSON (*.json)");
    if (!path.isEmpty()) open_file(path);
  });
  const auto told = [this](const Transfer& transfer) {
    if (!transfer.words.isEmpty()) tell(transfer.words, transfer.wrong);
  };
  act("Export the part\u2026", QKeySequence("Ctrl+Shift+G"),
      [this, told] { told(send_out_part(this, document_, drawing_->canvas()->turning()->lit_face())); });
  act("Export the build as STEP\u2026", {}, [this, told] { told(send_out_build(this, document_)); });
  act("Import a part from STEP\u2026", {}, [this] {
    const auto path = QFileDialog::getOpenFileName(this, "Import a part", {}, "STEP (*.step *.stp)");
    if (!path.isEmpty()) import_step(path);
  });
  menu_->addSeparator();
  undo_ = act("Undo", QKeySequence::Undo, [this] { document_.undo(); });
  redo_ = act("Redo", QKeySequence("Ctrl+Shift+Z"), [this] { document_.redo(); });
  act("Log of the build\u2026", QKeySequence("Ctrl+L"), [this] { LogDialog(document_, this).exec(); });
  menu_->addSeparator();
  act("Print the sheet or the card\u2026", QKeySequence::Print, [this] { print(); });
  act("State a joint\u2026", QKeySequence("Ctrl+Shift+J"), [this] {
    go_to(joints);
    joints_->state_joint();
  });
  act("At the machine", QKeySequence("F11"), [this] { go_to_bench(); });
  sound_ = act("Sound at the bench", {}, [this] {
    settings_->setValue("bench_sound", sound_->isChecked());
    bench_->set_sound(sound_->isChecked());
  });
  sound_->setCheckable(true);
  sound_->setChecked(settings_->value("bench_sound", true).toBool());
  act("True up a pressed crank\u2026", QKeySequence("Ctrl+Shift+U"),
      [this] { tell_if(ask_crank(document_, this)); });
  act("Threads\u2026", QKeySequence("Ctrl+Shift+T"), [this] { ask_threads(document_, this); });
  act("Sums of the bench\u2026", QKeySequence("Ctrl+Shift+K"),
      [this] { tell_if(ask_sums(document_, this)); });
  act("Reckon", QKeySequence("Ctrl+K"), [this] { header_->reckoner()->call(); });
  menu_->addSeparator();
  act("Dark paper", QKeySequence("Ctrl+Shift+D"), [this] { set_look(!theme().dark, theme().text_scale); });
  act("Larger text", QKeySequence::ZoomIn, [this] { set_look(theme().dark, theme().text_scale + 0.25); });
  act("Smaller text", QKeySequence::ZoomOut, [this] { set_look(theme().dark, theme().text_scale - 0.25); });
  act("Usual text", QKeySequence("Ctrl+0"), [this] { set_look(theme().dark, 1.0); });
  menu_->addSeparator();
  act("Close", QKeySequence::Quit, [this] { close(); });
  for (const auto& row : steps()) {
    auto* key = new QShortcut(QKeySequence(row.key), this);
    connect(key, &QShortcut::activated, this, [this, step = row.step] { go_to(step); });
  }
  auto* open_menu = new QShortcut(QKeySequence("Alt+B"), this);
  connect(open_menu, &QShortcut::activated, this, [this] { header_->build_button()->showMenu(); });
  auto* round = new QShortcut(QKeySequence("F6"), this);
  connect(round, &QShortcut::activated, this, &MainWindow::go_round);
}

/// F6 goes round the four places of the window: shelf, path, page, room column.
void MainWindow::go_round() {
  auto* const page = pages_.at(step_).page;
  std::vector<std::pair<QWidget*, QWidget*>> places{
      // what it is in, what takes the keyboard there
      {left_->parentWidget(), page->left() != nullptr            ? nav_->button(step_)
                              : shelf_->model()->rowCount() == 0 ? nullptr
                                                                 : static_cast<QWidget*>(shelf_->list())},
      {header_, header_->path()},
      {centre_, page->first_focus()},
      {side_, nullptr}};
  for (auto* child : page->side()->findChildren<QWidget*>())
    if (child->isEnabled() && child->isVisible() && child->focusPolicy() & Qt::TabFocus) {
      places.back().second = child;
      break;
    }
  auto* now = QApplication::focusWidget();
  const auto here = std::find_if(places.begin(), places.end(), [&](const auto& place) {
    return now != nullptr && place.first->isAncestorOf(now);
  });
  const auto at = here == places.end() ? places.size() - 1 : static_cast<std::size_t>(here - places.begin());
  for (std::size_t k = 1; k <= places.size(); ++k)
    if (auto* next = places[(at + k) % places.size()].second) return next->setFocus(Qt::ShortcutFocusReason);
}

void MainWindow::make_interface() {
  clear_style(*qApp);
  auto* old = takeCentralWidget();
  auto* whole = new QWidget;
  auto* rows = new QVBoxLayout(whole);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(0);
  header_ = new Header(document_, menu_);
  rows->addWidget(header_);
  auto* body = new QHBoxLayout;
  body->setSpacing(0);
  rows->addLayout(body, 1);

  const auto upright = [] {
    auto* line = new QWidget;
    line->setFixedWidth(1);
    line->setAutoFillBackground(true);
    auto palette = line->palette();
    palette.setColor(QPalette::Window, theme().hairline);
    line->setPalette(palette);
    return line;
  };
  // Columns widen with the text, but never so far that the picture loses its place.
  const double widen = std::min(theme().text_scale, 1.35);
  shelf_ = new Shelf(document_);
  auto* left = new QWidget;
  left->setFixedWidth(static_cast<int>(212 * widen));
  auto* left_rows = new QVBoxLayout(left);
  left_rows->setContentsMargins(0, 0, 0, 0);
  left_rows->setSpacing(0);
  nav_ = new BuildNav;
  left_rows->addWidget(nav_);
  left_ = new QStackedWidget;
  left_->addWidget(shelf_);
  left_rows->addWidget(left_, 1);
  body->addWidget(left);
  body->addWidget(upright());
  auto* middle = new QVBoxLayout;
  middle->setSpacing(0);
  centre_ = new QStackedWidget;
  middle->addWidget(centre_, 1);
  message_ = new QLabel;
  message_->setFont(theme().small());
  message_->setContentsMargins(14, 2, 8, 8);
  message_->setTextFormat(Qt::PlainText);
  message_->setAccessibleName("Message");
  message_->setMinimumWidth(10);
  message_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  middle->addWidget(message_);
  body->addLayout(middle, 1);
  body->addWidget(upright());
  side_ = new QStackedWidget;
  side_->setFixedWidth(static_cast<int>(280 * widen));
  body->addWidget(side_);

  make_pages();
  for (auto* view : whole->findChildren<QAbstractItemView*>()) follow_selection(view);
  connect(nav_, &BuildNav::chosen, this, &MainWindow::go_to);
  connect(header_->path(), &PathRuler::chosen, this, &MainWindow::go_to);
  connect(header_->reckoner(), &Reckoner::answered, this, &MainWindow::tell);
  connect(shelf_, &Shelf::add_part, this, [this] { add_part(); });
  connect(shelf_, &Shelf::quick_part, this, [this] { quick_part(); });
  delete old;
  delete bench_; // made in the look in force
  bench_ = new BenchView(document_, targets_, this);
  bench_->set_sound(settings_->value("bench_sound", true).toBool());
  bench_->on_left([this] {
    settings_->remove("at_bench");
    refresh();
  });
  setCentralWidget(whole);
  set_style(*qApp);
  shelf_->refresh();
}

void MainWindow::go_to_bench() {
  const auto chosen = step_ == Step::route ? route_->setups()->chosen() : 0;
  if (const auto why = bench_->open(chosen); !why.isEmpty()) return tell(why, true);
  // Found again at the next start, whatever ended this one.
  settings_->setValue("at_bench", QStringList{document_.path(), QString::number(document_.piece()),
                                              QString::number(bench_->setup())});
}

/// The build was left at the machine: it stands there again, at the same step.
void MainWindow::back_to_bench() {
  const auto place = settings_->value("at_bench").toStringList();
  if (place.size() != 3 || place[0] != document_.path()) return;
  const auto piece = place[1].toLongLong();
  const auto* found = document_.build().find<build::Piece>(piece);
  if (found == nullptr || document_.build().find<build::Setup>(place[2].toLongLong()) == nullptr) return;
  document_.choose(found->part, piece);
  bench_->open(place[2].toLongLong());
}

/// Every page, with its room column and what it asks of the window.
void MainWindow::make_pages() {
  drawing_ = new DrawingPage(document_);
  touches_ = new TouchesPage(document_);
  seat_ = new SeatPage(document_);
  marking_ = new MarkingPage(document_);
  allowance_ = new AllowancePage(document_, targets_);
  route_ = new RoutePage(document_, targets_);
  overview_ = new OverviewPage(document_, targets_);
  joints_ = new JointsPage(document_, targets_);
  chains_ = new ChainsPage(document_, targets_);
  batch_ = new BatchPage(document_, targets_);
  shop_ = new ShopPage(document_);
  pages_.clear();
  for (Page* page : std::initializer_list<Page*>{drawing_, touches_, seat_, marking_, allowance_, route_,
                                                 overview_, joints_, chains_, batch_, shop_}) {
    if (page->left() != nullptr) left_->addWidget(page->left());
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(page->side());
    side_->addWidget(scroll);
    centre_->addWidget(page);
    pages_[page->step()] = {page, scroll};
    connect(page, &Page::go_to, this, &MainWindow::go_to);
    connect(page, &Page::say, this, [this](const QString& words) { tell(words, false); });
  }
  connect(route_, &RoutePage::bench_wanted, this, &MainWindow::go_to_bench);
  connect(route_, &RoutePage::surface_wanted, this, [this](qlonglong surface) {
    go_to(allowance);
    allowance_->choose_surface(surface);
  });
  const auto to_joint = [this](qlonglong id) {
    joints_->choose(id);
    go_to(joints);
  };
  connect(overview_, &OverviewPage::joint_wanted, this, to_joint);
  connect(overview_, &OverviewPage::chain_wanted, this, [this](qlonglong id) {
    chains_->choose(id);
    go_to(chains);
  });
  connect(joints_, &JointsPage::card_wanted, this, [this] { overview_->ask_card(); });
}

void MainWindow::set_look(bool dark, double text_scale) {
  set_theme(*qApp, dark, text_scale);
  settings_->setValue("dark", theme().dark);
  settings_->setValue("text_scale", theme().text_scale);
  finish_typing();
  const auto at_bench = bench_->is_open() ? bench_->setup() : 0;
  const auto typed = bench_->reading()->text();
  make_interface();
  refresh();
  if (at_bench == 0) return;
  bench_->open(at_bench);
  bench_->reading()->setText(typed);
}

void MainWindow::tell(const QString& words, bool wrong) {
  message_->setText(words);
  // What went wrong is shown to its end, where it says what to do: in as many lines as that takes.
  message_->setWordWrap(wrong);
  message_->setFixedHeight(wrong ? message_->heightForWidth(std::max(message_->width(), theme().ipx(640)))
                                 : message_->fontMetrics().height() + 10);
  message_->setToolTip(words);
  message_->setAccessibleName("Message: " + words);
  if (wrong && !words.isEmpty()) { // read out at once, wherever one is
    QAccessibleEvent alert(message_, QAccessible::Alert);
    QAccessible::updateAccessibility(&alert);
  }
  colour_label(message_, wrong ? theme().gone : theme().muted);
}

void MainWindow::refresh() {
  if (const auto unit = qt(unit_name(document_.unit()));
      document_.is_open() && settings_->value("unit").toString() != unit)
    settings_->setValue("unit", unit); // what is set is written to disk, changed or not
  const auto undo = document_.undo_label(), redo = document_.redo_label();
  undo_->setEnabled(undo.has_value());
  undo_->setText(undo ? "Undo: " + literal(*undo) : QString("Nothing to undo"));
  redo_->setEnabled(redo.has_value());
  redo_->setText(redo ? "Redo: " + literal(*redo) : QString("Nothing to redo"));
  if (bench_->is_open()) return; // it covers the pages: they are brought up to date when it is left
  header_->refresh();
  header_->path()->set_step(step_);
  nav_->set_step(step_);
  const auto& place = pages_.at(step_);
  if (auto* own = place.page->left()) {
    left_->setCurrentWidget(own);
  } else {
    left_->setCurrentWidget(shelf_);
    shelf_->refresh();
  }
  centre_->setCurrentWidget(place.page);
  side_->setCurrentWidget(place.side);
  place.page->refresh();
}

void MainWindow::go_to(Step step) {
  if (bench_->is_open()) bench_->leave(); // else the page would be chosen beneath it
  step_ = step;
  const auto& row = row_of(step);
  header_->set_place(row.of_part ? QString() : row.name);
  refresh();
  pages_.at(step).page->first_focus()->setFocus();
}

bool MainWindow::open_build(const QString& path) {
  bool opened = false;
  const auto found = document_.open(path, &opened, [&](const std::function<void()>& work) {
    return wait_until_done(this, filled("Opening %1\u2026", QFileInfo(path).fileName()), false,
                           [&](const store::ReadOptions&) { work(); });
  });
  if (!opened) {
    tell(found, true);
    return false;
  }
  show_file();
  back_to_bench();
  if (!found.isEmpty()) {
    tell(found, true);
    return true;
  }
  const auto undo = document_.undo_label();
  tell(undo ? QString("Opened as it was left. Last: %1.").arg(*undo) : QString("Opened."), false);
  return true;
}

bool MainWindow::new_build(const QString& path) {
  const bool inches = settings_->value("unit").toString() == qt(unit_name(Unit::inch));
  const auto wrong = document_.create(path, QFileInfo(path).completeBaseName());
  if (!wrong.isEmpty()) {
    tell(wrong, true);
    return false;
  }
  show_file();
  step_ = drawing;
  // It begins in the unit the person worked in last.
  if (inches) document_.apply(build::work_in(document_.build(), Unit::inch));
  refresh();
  tell("A new build. Add a part to begin; everything entered is kept at once.", false);
  return true;
}

void MainWindow::add_part() {
  if (!document_.is_open()) return;
  const auto added = build::add_part(document_.build(), "Part", true);
  if (!document_.apply(added)) return;
  document_.choose(added.id, 0);
  go_to(drawing);
}

void MainWindow::quick_part() {
  if (!document_.is_open()) return;
  QuickStartDialog dialog(document_.unit(), this);
  if (dialog.exec() != QDialog::Accepted) return;
  const auto added =
      solid::add_quick_part(document_.build(), dialog.part_name().toStdString(), dialog.drawing());
  if (!document_.apply(added)) return;
  document_.choose(added.id, 0);
  go_to(drawing);
}

/// The card of the next numbers from a page of the build; else the marking-out sheet of the piece.
void MainWindow::print() {
  if (!row_of(step_).of_part) return overview_->ask_card();
  go_to(marking);
  if (marking_->can_print())
    marking_->ask_print();
  else
    tell("There is no sheet yet: it needs a survey and a seat.", true);
}

/// What a dialog has to tell when it is closed.
void MainWindow::tell_if(const Told& told) {
  if (!told.words.isEmpty()) tell(told.words, told.wrong);
}

bool MainWindow::import_json(const QString& path, const QString& to) {
  store::FileOutcome outcome;
  QString thrown;
  const auto read = wait_for(
      this, filled("Reading %1\u2026", QFileInfo(path).fileName()), thrown,
      [&](const store::ReadOptions& options) {
        auto from_file = store::read_build_json_file(path.toStdString(), options);
        if (from_file.ok)
          if (auto bad = solid::unreadable_import(from_file.build, options.should_stop); !bad.empty()) {
            from_file.ok = false;
            from_file.message =
                path.toStdString() + ": " + (options.stopped() ? store::reading_stopped : bad);
          }
        if (from_file.ok)
          (void)store::BuildFile::create(to.toStdString(), from_file.build, from_file.log, outcome);
        if (from_file.ok && outcome.ok() && options.stopped()) {
          QFile::remove(to); // just made
          from_file.ok = false;
          from_file.message = path.toStdString() + ": " + store::reading_stopped;
        }
        return from_file;
      });
  if (!read || !read->ok) {
    tell(read ? qt(read->message) : path + ": " + thrown, true);
    return false;
  }
  if (!outcome.ok()) {
    tell(shown(outcome.message, 4000), true);
    return false;
  }
  if (!open_build(to)) return false;
  tell(QString("%1 was read into %2.").arg(QFileInfo(path).fileName(), to), false);
  return true;
}

QString MainWindow::export_json(const QString& path) {
  if (!document_.is_open()) return "there is no build open";
  if (const auto wrong = document_.is_own_file(path); !wrong.isEmpty()) return wrong;
  auto log = document_.log(std::numeric_limits<int>::max());
  std::reverse(log.begin(), log.end());
  return qt(store::write_text_file(path.toStdString(), store::write_build_json(document_.build(), log)));
}

bool MainWindow::import_step(const QString& path) {
  const auto came = bring_in_part(this, document_, path);
  if (came.words.isEmpty()) return false; // the person did not want it after all
  if (!came.wrong) go_to(drawing);
  tell(came.words, came.wrong);
  return !came.wrong;
}

bool MainWindow::open_file(const QString& path) {
  const auto ending = QFileInfo(path).suffix().toLower();
  if (ending == "step" || ending == "stp") return import_step(path);
  if (ending == "json") {
    auto to = QFileInfo(path).absolutePath() + "/" + QFileInfo(path).completeBaseName() + ".datrin";
    for (int n = 2; QFileInfo::exists(to); ++n)
      to = filled("%1/%2-%3.datrin", QFileInfo(path).absolutePath(), QFileInfo(path).completeBaseName(), n);
    return import_json(path, to);
  }
  if (ending == "csv" || ending == "tsv" || ending == "txt") {
    go_to(touches);
    return touches_->import_file(path);
  }
  if (ending == "ply" || ending == "stl") {
    go_to(touches);
    return touches_->ask_scan(path);
  }
  return open_build(path);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls() && event->mimeData()->urls().front().isLocalFile())
    event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  const auto urls = event->mimeData()->urls();
  if (urls.isEmpty() || !urls.front().isLocalFile()) return;
  event->acceptProposedAction();
  open_file(urls.front().toLocalFile());
}

void MainWindow::show_face(int k) {
  if (auto* tabs = pages_.at(step_).page->tabs())
    tabs->choose(std::clamp(k, 0, static_cast<int>(row_of(step_).faces.size()) - 1));
}

void MainWindow::ask_name() {
  if (!document_.is_open()) return;
  const auto& info = document_.build().info();
  bool ok = false;
  const auto name =
      QInputDialog::getText(this, "Name of the build", "Name", QLineEdit::Normal, whole(info.name), &ok)
          .trimmed();
  if (!ok || name.isEmpty()) return;
  document_.apply(build::name_build(document_.build(), name.toStdString()));
}

void MainWindow::show_file() {
  setWindowTitle(QString("%1%2 \u2013 Datrin")
                     .arg(shown(QFileInfo(document_.path()).completeBaseName().toStdString(), 80),
                          document_.read_only().isEmpty() ? "" : " (for reading)"));
  recent_->remember(document_.path());
}

/// A field in which nothing has been typed leaves undo and redo to the build: only half-typed text has an
/// undo of its own. And no label, nor the one a tip is shown in, guesses markup: a name may look like some.
bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Polish)
    if (auto* label = qobject_cast<QLabel*>(watched); label != nullptr && label->textFormat() == Qt::AutoText)
      label->setTextFormat(Qt::PlainText);
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* edit = qobject_cast<QLineEdit*>(watched);
    const auto* key = static_cast<QKeyEvent*>(event);
    const bool undo_or_redo = key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo);
    if (edit != nullptr && undo_or_redo && !edit->isModified()) {
      event->ignore();
      return true;
    }
  }
  return QMainWindow::eventFilter(watched, event);
}

void MainWindow::closeEvent(QCloseEvent* event) {
  finish_typing();
  if (!document_.look_after_file()) { // that it is in another file now is to be seen before it goes
    event->ignore();
    return;
  }
  settings_->setValue("place", saveGeometry());
  QMainWindow::closeEvent(event);
}

} // namespace datrin::app
