#include "app/batch/batch_page.h"

#include "app/joints/make_panel.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QHeaderView>

#include <algorithm>
#include <set>

namespace datrin::app {

using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

BatchPage::BatchPage(Document& document, TargetsState& targets)
    : Page(document, Step::batch), targets_(targets), model_(new BatchModel(document, targets, this)),
      table_(new BatchTable(model_)), run_(new RunView), stack_(new QStackedWidget), title_(new QLabel),
      progress_(words_label()), column_heading_(heading_label("The size")), column_(words_label()),
      groups_(words_label()), piece_(words_label()), width_(new LengthField("Within")),
      instrument_(choice_box("Instrument")),
      reason_(text_field("Why it is rejected", "why: a blow hole, bored over")),
      reject_(new QPushButton("Reject")), message_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(6);
  title_->setFont(theme().title());
  column->addWidget(title_);
  column->addWidget(progress_);
  auto* nothing = new QWidget;
  auto* middle = new QVBoxLayout(nothing);
  middle->setContentsMargins(48, 48, 48, 48);
  middle->addWidget(heading_label("A part made in numbers"));
  auto* words = words_label();
  words->setText(
      "Choose a part on the left, and give it the dimensions that are read (Drawing, Dimensions). Each "
      "piece is a row here: type a column of readings downwards, Enter after each, or paste it from a "
      "spreadsheet. How many pieces there are stands in the Drawing step.");
  middle->addWidget(words);
  middle->addStretch(1);
  auto* sheet = new QWidget;
  auto* rows = new QVBoxLayout(sheet);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(8);
  rows->addWidget(table_, 62);
  rows->addWidget(run_, 38);
  stack_->addWidget(sheet);
  stack_->addWidget(nothing);
  column->addWidget(stack_, 1);
  column->addWidget(message_);
  make_side();
  connect(table_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this] {
    show_column();
    show_piece();
  });
  connect(model_, &BatchModel::refused, message_, [this](const QString& why) { message_->refuse(why); });
  connect(table_, &BatchTable::told, message_, [this](const QString& told) {
    if (!told.isEmpty()) emit say(told);
  });
}

void BatchPage::make_side() {
  auto* side = face_column(this->side());
  side->addWidget(heading_label("Read"));
  side->addWidget(labelled("With", instrument_, 72));
  side->addWidget(hairline());
  side->addWidget(column_heading_);
  side->addWidget(column_);
  side->addWidget(hairline());
  side->addWidget(heading_label("By size"));
  width_->set_label_width(theme().ipx(72));
  width_->set_rule(must_not_be_negative);
  width_->edit()->setAccessibleName("Sizes within, for one setting");
  width_->setToolTip("Pieces within so much of each other are made with one setting");
  side->addWidget(width_);
  groups_->setTextFormat(Qt::RichText);
  side->addWidget(groups_);
  side->addWidget(hairline());
  side->addWidget(heading_label("The piece"));
  side->addWidget(piece_);
  side->addWidget(reason_);
  side->addWidget(reject_);
  side->addStretch(1);
  connect(instrument_, &QComboBox::currentIndexChanged, this,
          [this] { model_->set_instrument(instrument_->currentData().toLongLong()); });
  connect(width_, &LengthField::committed, this, [this](double mm) {
    width_of_groups_ = mm;
    show_column();
  });
  connect(reject_, &QPushButton::clicked, this, &BatchPage::reject);
  connect(reason_, &QLineEdit::returnPressed, this, &BatchPage::reject);
}

void BatchPage::refresh() {
  const auto& b = document_.build();
  const auto part = document_.part();
  if (std::exchange(path_, document_.path()) != document_.path()) model_->forget_refused();
  const auto at = table_->currentIndex();
  const bool another = std::exchange(shown_part_, part) != part;
  fill_instruments(instrument_, b);
  model_->set_instrument(instrument_->currentData().toLongLong());
  model_->show_sheet(batch::batch_sheet(b, part, &targets_.now()));
  const auto* p = b.find<build::Part>(part);
  const auto& sheet = model_->sheet();
  const bool usable = p != nullptr && !sheet.columns.empty() && !sheet.rows.empty();
  stack_->setCurrentIndex(usable ? 0 : 1);
  title_->setText(
      p ? filled(p->quantity == 1 ? "%1, %2 piece" : "%1, %2 pieces", name_words(p->name), p->quantity)
        : QString());
  progress_->setText(usable ? qt(batch::progress_words(sheet.progress)) : QString());
  if (another) message_->clear();
  if (usable) {
    const int row = another ? 0 : std::clamp(at.row(), 0, model_->rowCount() - 1);
    // Of another part the column that was begun.
    const auto begun =
        std::find_if(sheet.columns.begin(), sheet.columns.end(), [](const auto& c) { return c.read > 0; });
    const int first = begun == sheet.columns.end() ? 0 : static_cast<int>(begun - sheet.columns.begin());
    const int column = another ? first : std::clamp(at.column(), 0, model_->columnCount() - 1);
    if (const auto to = model_->index(row, column); to != table_->currentIndex()) table_->setCurrentIndex(to);
  }
  width_->set_value(width_of_groups_, document_.unit());
  for (auto* widget : std::initializer_list<QWidget*>{reason_, reject_, width_, instrument_})
    widget->setEnabled(usable);
  show_column();
  show_piece();
}

void BatchPage::show_column() {
  const auto& sheet = model_->sheet();
  const int c = table_->currentIndex().column();
  if (c < 0 || c >= static_cast<int>(sheet.columns.size())) {
    column_->clear();
    groups_->clear();
    return run_->show_picture({}, document_.unit());
  }
  const auto& column = sheet.columns[static_cast<std::size_t>(c)];
  const auto unit = document_.unit();
  const auto name = qt(unit_name(unit));
  column_heading_->setText(name_words(column.name).toUpper());
  QStringList lines{filled("%1 of %2 read%3.", column.read,
                           sheet.rows.size() - static_cast<std::size_t>(sheet.progress.rejected),
                           column.out > 0 ? filled(", %1 out of limits", column.out) : QString())};
  if (column.undecided > 0) // what the "?" is
    lines << filled("%1 so near a limit that what was read leaves it open: read finer.", column.undecided);
  if (column.read > 0 && column.most > 0 && !column.angle) {
    lines << filled("%1 to %2 %3, mean %4 %3.", fit_figure(column.least, unit), fit_figure(column.most, unit),
                    name, fit_figure(column.mean, unit));
    if (column.sigma > 0)
      lines << filled("Standard deviation %1 %2.", fine_figure(column.sigma, unit), sheets::fine_unit(unit));
  }
  column_->setText(lines.join("\n"));
  const auto groups = batch::groups_of(sheet, static_cast<std::size_t>(c), width_of_groups_);
  show_run(groups);
  QString html = "<table width='100%' cellspacing='0' cellpadding='1'>";
  for (const auto& group : groups) {
    std::set<int> in_order;
    for (const auto& piece : group.pieces) in_order.insert(piece.number);
    QStringList numbers;
    for (const int number : in_order) numbers << QString::number(number);
    html += QString("<tr><td><b>%1</b>&nbsp;%2</td><td align='right'>%3</td></tr><tr><td colspan='2'>no. "
                    "%4</td></tr>")
                .arg(fit_figure(group.middle(), unit), name.toHtmlEscaped(),
                     QString("%1 pc.").arg(group.pieces.size()), numbers.join(", "));
  }
  groups_->setText(groups.empty() ? QString("Read some pieces first.") : html + "</table>");
}

void BatchPage::show_run(const std::vector<batch::SizeGroup>& groups) {
  const auto& sheet = model_->sheet();
  const auto c = static_cast<std::size_t>(table_->currentIndex().column());
  RunPicture run;
  run.title = name_words(sheet.columns[c].name);
  for (const auto& row : sheet.rows) {
    run.pieces = std::max(run.pieces, row.number);
    const auto& cell = row.cells[c];
    if (row.rejected.empty() && cell.now.read() && !readings::is_of_gauges(cell.now) &&
        !sheet.columns[c].angle)
      run.points.push_back({row.number, cell.now.value, cell.verdict == batch::CellVerdict::out});
    if (!run.wanted) run.wanted = cell.make;
  }
  const auto* d = document_.build().find<build::Dimension>(sheet.columns[c].dimension);
  if (d != nullptr && d->has_limits()) {
    run.lower = d->least();
    run.upper = d->most();
  }
  if (groups.size() > 1)
    for (const auto& group : groups) run.groups.push_back({group.least, group.most});
  run_->show_picture(std::move(run), document_.unit());
}

void BatchPage::show_piece() {
  const auto& sheet = model_->sheet();
  if (row() < 0 || row() >= static_cast<int>(sheet.rows.size())) return piece_->clear();
  const auto& piece = sheet.rows[static_cast<std::size_t>(row())];
  QString words = filled("No. %1: %2 of %3 read.", piece.number, piece.read, piece.cells.size());
  if (!piece.rejected.empty()) words += "\nRejected: " + name_words(piece.rejected);
  piece_->setText(words);
  reason_->setVisible(piece.rejected.empty());
  reject_->setText(piece.rejected.empty() ? filled("Reject no. %1", piece.number)
                                          : filled("Take no. %1 back", piece.number));
}

void BatchPage::reject() {
  const auto& sheet = model_->sheet();
  if (row() < 0 || row() >= static_cast<int>(sheet.rows.size())) return;
  const auto& piece = sheet.rows[static_cast<std::size_t>(row())];
  const bool back = !piece.rejected.empty();
  const auto why = reason_->text().trimmed();
  if (!back && why.isEmpty()) {
    message_->refuse("Say why it is rejected: a year from now nobody remembers.");
    reason_->setFocus();
    return;
  }
  message_->clear();
  reason_->clear();
  document_.apply(batch::reject(document_.build(), piece.piece, back ? std::string() : why.toStdString()));
}

} // namespace datrin::app
