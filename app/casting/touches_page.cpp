#include "app/casting/touches_page.h"

#include "app/casting/import_dialog.h"
#include "app/theme.h"
#include "sheets/figures.h"
#include "store/survey_csv.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QSaveFile>
#include <QShortcut>

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
    : Page(document), canvas_(new PartCanvas), entry_(new TouchEntry(document)), table_(new QTableView),
      model_(new TouchModel(document, this)), count_(new QLabel), gaps_(words_label()),
      counts_(muted_label()), next_(new NextButton) {
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
  connect(canvas_, &PartCanvas::angle_clicked, this,
          [this] { emit say("First or third angle is chosen in the Drawing step"); });

  auto* side = new QVBoxLayout(side_);
  side->setContentsMargins(12, 16, 12, 12);
  side->setSpacing(6);
  side->addWidget(heading_label("Survey"));
  count_->setFont(theme().figure());
  side->addWidget(count_);
  side->addWidget(counts_);
  side->addSpacing(6);
  auto* import = new QPushButton("Import a survey (CSV)\u2026");
  import->setShortcut(QKeySequence("Ctrl+I"));
  import->setToolTip("Ctrl+I");
  auto* save = new QPushButton("Export these touches\u2026");
  side->addWidget(import);
  side->addWidget(save);
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
  connect(next_, &QPushButton::clicked, this, [this] { emit go_to(2); });
}

void TouchesPage::refresh() {
  state_ = piece_state(document_.build(), document_.piece());
  model_->refresh();
  entry_->refresh();
  canvas_->set_scene(piece_scene(document_.build(), state_, state_.pose),
                     document_.build().info().third_angle);
  const auto n = state_.input.seat.points.size();
  count_->setText(QString::number(n));
  std::vector<int> per_surface(state_.input.seat.surfaces.size(), 0);
  for (const auto& point : state_.input.seat.points) ++per_surface[static_cast<std::size_t>(point.surface)];
  QStringList words;
  for (std::size_t i = 0; i < per_surface.size(); ++i)
    if (per_surface[i] > 0)
      words << QString("%1 %2").arg(qt(state_.input.seat.surfaces[i].id)).arg(per_surface[i]);
  counts_->setText(n == 0 ? QString("touches") : "touches: " + words.join(" \u00B7 "));
  QStringList missing;
  for (const auto& gap : state_.gaps) missing << qt(gap.text);
  if (!state_.input.uncorrected.empty())
    missing << QString("%1 touches have a tip radius but no direction of travel and are left out")
                   .arg(state_.input.uncorrected.size());
  gaps_->setText(state_.input.seat.surfaces.empty()
                     ? QString("Surfaces to touch: state them in the Drawing step.")
                 : missing.isEmpty() ? QString("Nothing: every surface to be machined has enough touches.")
                                     : missing.join("\n"));
  colour_label(gaps_, missing.isEmpty() && !state_.input.seat.surfaces.empty() ? theme().good : theme().ink);
  next_->setEnabled(n > 0);
  next_->set_words("Seat the part",
                   state_.can_judge() ? "find where it sits with most metal"
                                      : "some surfaces want touches first",
                   {}, "Ctrl+3");
}

bool TouchesPage::import_file(const QString& path) {
  const auto survey = store::read_survey_csv_file(path.toStdString(), surface_names(document_));
  if (survey.refused) {
    entry_->tell(qt(survey.message), true);
    emit say(qt(survey.message));
    return false;
  }
  if (!survey.bad.empty()) {
    ImportDialog dialog(QFileInfo(path).fileName(), survey, this);
    if (dialog.exec() != QDialog::Accepted) return false;
  }
  if (survey.good.empty()) {
    entry_->tell(QFileInfo(path).fileName() + " holds no touches.", true);
    return false;
  }
  std::vector<build::Record> records;
  double order = build::next_order(document_.build().touches_of(document_.piece()));
  for (const auto& line : survey.good) {
    auto touch = line.touch;
    touch.piece = document_.piece();
    touch.order = order++;
    records.emplace_back(std::move(touch));
  }
  const auto count = records.size();
  if (!document_.apply(build::add_all(document_.build(), std::move(records),
                                      QString("Import %1 touches").arg(count).toStdString())))
    return false;
  QString words = QString("%1 touches taken from %2.").arg(count).arg(QFileInfo(path).fileName());
  if (!survey.kept_as_notes.empty()) {
    QStringList columns;
    for (const auto& name : survey.kept_as_notes) columns << qt(name);
    words += " Kept as notes: " + columns.join(", ") + ".";
  }
  entry_->tell(words, false);
  return true;
}

bool TouchesPage::export_file(const QString& path) {
  std::vector<build::Touch> touches;
  for (const auto& [id, touch] : document_.build().touches_of(document_.piece())) touches.push_back(touch);
  const auto text = QByteArray::fromStdString(store::write_survey_csv(touches, surface_names(document_)));
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly) || file.write(text) != text.size() || !file.commit()) {
    entry_->tell(QString("%1 could not be written: %2").arg(path, file.errorString()), true);
    return false;
  }
  entry_->tell(QString("%1 touches written to %2.").arg(touches.size()).arg(path), false);
  return true;
}

void TouchesPage::ask_import() {
  const auto path =
      QFileDialog::getOpenFileName(this, "Import a survey", {}, "Surveys (*.csv *.tsv *.txt);;All files (*)");
  if (!path.isEmpty()) import_file(path);
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
