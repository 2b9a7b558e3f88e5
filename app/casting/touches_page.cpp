#include "app/casting/touches_page.h"
#include "build/edit_casting.h"

#include "app/casting/import_dialog.h"
#include "app/marks/copy_table.h"
#include "app/marks/waiting.h"
#include "app/theme.h"
#include "quantity/text.h"
#include "sheets/figures.h"
#include "store/scan_file.h"
#include "store/text_file.h"

#include <QApplication>
#include <QClipboard>
#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QInputDialog>
#include <QShortcut>

#include <algorithm>

namespace datrin::app {

using sheets::qt;

namespace {

store::SurfaceNames surface_names(const Document& document) {
  store::SurfaceNames names;
  for (const auto& [id, surface] : document.build().surfaces_of(document.part()))
    names.emplace_back(id, surface.name);
  return names;
}

} // namespace

TouchesPage::TouchesPage(Document& document)
    : Page(document, Step::touches), canvas_(new PartCanvas), entry_(new TouchEntry(document)),
      table_(new QTableView), model_(new TouchModel(document, this)), count_(new QLabel),
      gaps_(words_label()), counts_(muted_label()), next_(new NextButton), survey_(new QWidget),
      settings_(new SettingsPanel(document)), mistakes_(new MistakesPanel(document)),
      spots_(new SpotsPanel(document)), doubts_(new DoubtsPanel(document)),
      scan_button_(new QPushButton("Import a scan\u2026")) {
  draw_solid_of_part(canvas_, document_);
  put_faces({survey_, settings_, mistakes_, spots_});
  make_picture();
  make_survey_face();
  connect_faces();
}

void TouchesPage::make_picture() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(8);
  canvas_->set_empty_text("First the drawing", "A touch is booked to a surface of the drawing. State the "
                                               "part in the Drawing step, then touch its casting here.");
  column->addWidget(canvas_, 64);
  column->addWidget(entry_);
  table_->setModel(model_);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(theme().ipx(24));
  table_->setShowGrid(false);
  table_->setTabKeyNavigation(false);
  table_->setAccessibleName("Touches");
  table_->horizontalHeader()->setHighlightSections(false);
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->horizontalHeader()->setMinimumSectionSize(theme().ipx(30));
  const int widths[] = {40, 104, 74, 74, 74, 78, 62, 50, 100};
  for (int c = 0; c < 9; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  column->addWidget(table_, 36);
  connect(model_, &TouchModel::not_understood, entry_,
          [this](const QString& why) { entry_->tell(why, true); });
  connect(entry_, &TouchEntry::added, this,
          [this](build::Id id) { table_->scrollTo(model_->index(model_->row_of(id), 0)); });
  auto* drop = new QShortcut(QKeySequence::Delete, table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(drop, &QShortcut::activated, this, [this] { remove_chosen(); });
  auto* paste_key = new QShortcut(QKeySequence::Paste, table_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(paste_key, &QShortcut::activated, this, [this] { paste(QApplication::clipboard()->text()); });
  connect(canvas_, &PartCanvas::angle_clicked, this,
          [this] { emit say("First or third angle is chosen in the Drawing step"); });

  make_copyable(table_);
  table_->setToolTip("Ctrl+C copies the rows, Ctrl+V pastes touches, Delete removes the chosen");
}

void TouchesPage::make_survey_face() {
  auto* side = face_column(survey_, 6);
  side->addWidget(heading_label("Survey"));
  count_->setFont(theme().figure());
  side->addWidget(count_);
  side->addWidget(counts_);
  side->addWidget(doubts_);
  side->addSpacing(6);
  auto* import = new QPushButton("Import a survey (CSV)\u2026");
  import->setShortcut(QKeySequence("Ctrl+I"));
  import->setToolTip("Ctrl+I");
  auto* save = new QPushButton("Export these touches\u2026");
  side->addWidget(import);
  scan_button_->setToolTip("PLY or STL, as points or triangles");
  side->addWidget(scan_button_);
  side->addWidget(save);
  connect(scan_button_, &QPushButton::clicked, this, [this] {
    if (scanning())
      reading_scan_.stop();
    else if (const auto path = QFileDialog::getOpenFileName(this, "Import a scan", {},
                                                            "Scans (*.ply *.stl);;All files (*)");
             !path.isEmpty())
      ask_scan(path);
  });
  connect(import, &QPushButton::clicked, this, [this] { ask_import(); });
  connect(save, &QPushButton::clicked, this, [this] { ask_export(); });
  side->addSpacing(8);
  side->addWidget(hairline());
  side->addSpacing(4);
  side->addWidget(heading_label("Still missing"));
  side->addWidget(gaps_);
  side->addStretch(1);
  side->addWidget(heading_label("Next"));
  side->addWidget(next_);
  connect(next_, &QPushButton::clicked, this, [this] { emit go_to(Step::seat); });
}

void TouchesPage::connect_faces() {
  connect(mistakes_, &MistakesPanel::chosen, this, [this](qlonglong id) {
    if (const int row = model_->row_of(id); row >= 0 && tabs_->chosen() == mistakes_face)
      table_->selectRow(row);
  });
  connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
          [this](const QModelIndex& now) { spots_->refresh(model_->id_at(now.row())); });
}

void TouchesPage::refresh() {
  state_ = piece_state(document_.build(), document_.piece());
  model_->refresh();
  entry_->refresh();
  auto flagged = casting::flagged_touches(document_.build(), state_.piece, state_.input, state_.pose);
  std::set<build::Id> ids;
  std::vector<Ring> rings;
  for (const auto& one : flagged) {
    ids.insert(one.touch);
    rings.push_back({state_.input.touch_index(one.touch), one.number});
  }
  model_->set_flagged(std::move(ids));
  canvas_->set_rings(std::move(rings));
  tabs_->set_name(mistakes_face,
                  flagged.empty() ? QString("Mistakes") : QString("Mistakes %1").arg(flagged.size()));
  mistakes_->show_flagged(std::move(flagged), state_.input.set_aside);
  doubts_->refresh();
  settings_->show_state(state_);
  spots_->refresh(model_->id_at(table_->currentIndex().row()));
  canvas_->set_unit(document_.unit());
  canvas_->set_scene(piece_scene(document_.build(), state_, state_.pose),
                     document_.build().info().third_angle);
  const auto n = state_.input.seat.points.size();
  count_->setText(QString::number(n));
  std::vector<int> per_surface(state_.input.seat.surfaces.size(), 0);
  for (const auto& point : state_.input.seat.points) ++per_surface[static_cast<std::size_t>(point.surface)];
  QStringList words;
  for (std::size_t i = 0; i < per_surface.size(); ++i)
    if (per_surface[i] > 0)
      words << filled("%1 %2", name_words(state_.input.seat.surfaces[i].id), per_surface[i]);
  counts_->setText(n == 0 ? QString("touches") : "touches: " + words.join(" \u00B7 "));
  QStringList missing;
  for (const auto& gap : state_.gaps) missing << qt(gap.text);
  if (!state_.input.uncorrected.empty())
    missing << QString("%1 with a tip radius but no direction of travel: left out")
                   .arg(qt(counted(state_.input.uncorrected.size(), "touch", "touches")));
  if (!state_.input.not_joined.empty())
    missing << QString("%1 left out until their setting is joined (Settings)")
                   .arg(qt(counted(state_.input.not_joined.size(), "touch", "touches")));
  gaps_->setText(!state_.cast ? no_touches_words(state_)
                 : state_.input.seat.surfaces.empty()
                     ? QString("Surfaces to touch: state them in the Drawing step.")
                 : missing.isEmpty() ? QString("Nothing: every surface to be machined has enough touches.")
                                     : missing.join("\n"));
  colour_label(gaps_, missing.isEmpty() && !state_.input.seat.surfaces.empty() ? theme().good : theme().ink);
  next_->setEnabled(n > 0);
  next_->set_words("Seat the part",
                   !state_.cast         ? "it is not cast: see Allowance"
                   : state_.can_judge() ? "find where it sits with most metal"
                                        : "some surfaces want touches first",
                   {}, row_of(Step::seat).key);
}

bool TouchesPage::not_read(const QString& why) {
  entry_->tell(why, true);
  emit say(why);
  return false;
}

bool TouchesPage::import_file(const QString& path) {
  const auto names = surface_names(document_);
  QString thrown;
  const auto survey = wait_for(
      this, filled("Reading %1\u2026", QFileInfo(path).fileName()), thrown,
      [&](const auto& options) { return store::read_survey_csv_file(path.toStdString(), names, options); });
  if (!survey || survey->refused) return not_read(survey ? qt(survey->message) : path + ": " + thrown);
  if (!survey->bad.empty()) {
    ImportDialog dialog(QFileInfo(path).fileName(), *survey, this);
    if (dialog.exec() != QDialog::Accepted) return false;
  }
  return take_survey(*survey, QFileInfo(path).fileName());
}

bool TouchesPage::take_survey(const store::SurveyCsv& survey, const QString& from) {
  if (survey.good.empty() && survey.marks.empty()) {
    entry_->tell(from + " holds no touches.", true);
    return false;
  }
  std::vector<build::Touch> touches;
  for (const auto& line : survey.good) touches.push_back(line.touch);
  const auto count = touches.size();
  if (!document_.apply(
          build::take_survey(document_.build(), document_.piece(), std::move(touches), survey.marks)))
    return false;
  QString words = QString("%1 taken from %2.").arg(qt(counted(count, "touch", "touches")), from);
  if (!survey.marks.empty())
    words += QString(" %1 of reference marks.").arg(qt(counted(survey.marks.size(), "reading", "readings")));
  if (!survey.kept_as_notes.empty()) {
    QStringList columns;
    for (const auto& name : survey.kept_as_notes) columns << name_words(name);
    words += " Kept as notes: " + columns.join(", ") + ".";
  }
  entry_->tell(words, false);
  return true;
}

bool TouchesPage::paste(const QString& text) {
  if (document_.piece() == 0) return false;
  QString rows = text;
  const auto first = rows.section('\n', 0, 0).toLower();
  if (!first.contains("surface")) { // no headings: the columns a person would write
    const QString unit = document_.unit() == Unit::mm ? "mm" : "in";
    const QChar separator = first.contains('\t') ? '\t' : first.contains(';') ? ';' : ',';
    rows =
        QStringList{"surface", "x_" + unit, "y_" + unit, "z_" + unit, "note"}.join(separator) + "\n" + rows;
  }
  const auto survey = store::read_survey_csv(rows.toStdString(), "clipboard", surface_names(document_));
  if (survey.refused) {
    entry_->tell(qt(survey.message), true);
    return false;
  }
  if (!survey.bad.empty()) {
    ImportDialog dialog("The clipboard", survey, this);
    if (dialog.exec() != QDialog::Accepted) return false;
  }
  return take_survey(survey, "the clipboard");
}

bool TouchesPage::import_scan(const QString& path, Unit unit) {
  if (document_.piece() == 0 || state_.input.seat.surfaces.empty()) {
    entry_->tell("State the drawing first: a scan is given to its surfaces.", true);
    return false;
  }
  if (scanning()) {
    entry_->tell("A scan is being read already; stop it or wait for it.", true);
    return false;
  }
  QString thrown;
  auto file =
      wait_for(this, filled("Reading %1\u2026", QFileInfo(path).fileName()), thrown,
               [&](const auto& options) { return store::read_scan_file(path.toStdString(), unit, options); });
  if (!file || !file->ok) return not_read(file ? qt(file->message) : path + ": " + thrown);
  ScanRead read;
  read.name = QFileInfo(path).fileName();
  read.piece = scan_for_ = document_.piece();
  read.surface_ids = state_.input.surface_ids;
  read.points = std::make_shared<std::vector<std::array<float, 3>>>(std::move(file->at));
  const auto scene = part_scene(document_.build(), document_.part()); // with extents filled in
  casting::ScanInput input;
  input.surfaces = state_.input.seat.surfaces;
  for (std::size_t i = 0; i < input.surfaces.size(); ++i) {
    Eigen::Vector2d extent(40, 40);
    for (const auto& s : scene.surfaces)
      if (s.name == input.surfaces[i].id) extent = {s.shape.round() ? 0.0 : s.width, s.height};
    input.extent.push_back(extent);
  }
  const bool touched =
      !document_.build().touches_of(read.piece).empty() || !document_.build().scans_of(read.piece).empty();
  const Pose seat = state_.pose;
  scan_button_->setText("Stop reading the scan");
  entry_->tell(filled("Laying %1 points of %2 on the drawing\u2026", read.points->size(), read.name), false);
  reading_scan_.start([read, input, touched, seat](const auto& should_stop) mutable {
    input.points = read.points.get();
    casting::ScanOptions options;
    options.should_stop = should_stop;
    read.result = casting::assign_scan(input, options);
    // The first thing known of a piece lends the survey its frame; later ones are laid where its seat is.
    if (touched) read.scan_to_survey = then(read.result.pose, seat.inverse());
    return read;
  });
  return true;
}

void TouchesPage::take_scan(ScanRead read) {
  scan_button_->setText("Import a scan\u2026");
  if (read.result.status != casting::ScanStatus::assigned) {
    entry_->tell(qt(read.result.message), true);
    emit scan_ended();
    return;
  }
  auto points = std::make_shared<build::ScanPoints>();
  points->at = *read.points;
  points->surface = std::move(read.result.surface);
  points->surfaces = read.surface_ids;
  constexpr double scan_good_to = 0.05; // mm, 95 %
  build::Scan scan{read.piece, read.name.toStdString(), read.scan_to_survey, scan_good_to, std::move(points)};
  // Where the scan was laid is a seat to begin with.
  const auto laid = then(read.scan_to_survey.inverse(), read.result.pose);
  if (document_.apply(build::take_scan(document_.build(), std::move(scan), laid)))
    entry_->tell(filled("%1: %2 points given to their surfaces, each taken as good to %5 (95 %); %3 "
                        "doubtful and %4 far from any are kept and not used.",
                        read.name, read.result.given, read.result.doubtful, read.result.elsewhere,
                        sheets::figure_with_unit(scan_good_to, document_.unit())),
                 false);
  emit scan_ended();
}

void TouchesPage::scan_failed(const QString& why) {
  scan_button_->setText("Import a scan\u2026");
  (void)not_read("The scan was not taken. " + why);
  emit scan_ended();
}

bool TouchesPage::export_file(const QString& path) {
  std::vector<build::Touch> touches;
  for (const auto& [id, touch] : document_.build().touches_of(document_.piece())) touches.push_back(touch);
  std::vector<build::Mark> marks;
  for (const auto& [id, mark] : document_.build().marks_of(document_.piece())) marks.push_back(mark);
  auto wrong = document_.is_own_file(path);
  if (wrong.isEmpty())
    wrong = qt(store::write_text_file(path.toStdString(),
                                      store::write_survey_csv(touches, surface_names(document_), marks)));
  if (!wrong.isEmpty()) {
    entry_->tell(wrong, true);
    return false;
  }
  entry_->tell(QString("%1 written to %2.").arg(qt(counted(touches.size(), "touch", "touches")), path),
               false);
  return true;
}

void TouchesPage::ask_import() {
  const auto path =
      QFileDialog::getOpenFileName(this, "Import a survey", {}, "Surveys (*.csv *.tsv *.txt);;All files (*)");
  if (!path.isEmpty()) import_file(path);
}

bool TouchesPage::ask_scan(const QString& path) {
  bool ok = false;
  const auto unit =
      QInputDialog::getItem(this, "Unit of the scan", "The file does not say. Its numbers are in",
                            {"mm", "inch"}, document_.unit() == Unit::mm ? 0 : 1, false, &ok);
  return ok && import_scan(path, unit == "mm" ? Unit::mm : Unit::inch);
}

void TouchesPage::ask_export() {
  const auto path = QFileDialog::getSaveFileName(this, "Export the touches", {}, "Surveys (*.csv)");
  if (!path.isEmpty()) export_file(path);
}

void TouchesPage::remove_chosen() {
  std::vector<build::Id> ids;
  for (const auto& index : table_->selectionModel()->selectedRows())
    ids.push_back(model_->id_at(index.row()));
  document_.apply(build::remove_touches(document_.build(), ids));
}

} // namespace datrin::app
