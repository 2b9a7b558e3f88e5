#include "app/casting/settings_panel.h"

#include "app/marks/column.h"
#include "app/marks/xyz_row.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "quantity/text.h"
#include "sheets/figures.h"

#include <QHBoxLayout>
#include <QShortcut>

namespace datrin::app {

using build::SettingFrame;
using sheets::figure;
using sheets::qt;

namespace {

/// Finer than a height gauge reads: a residual is the smaller the better.
QString residual_text(double mm, Unit unit) {
  LengthTextOptions options{.decimals_mm = 3, .decimals_inch = 5, .show_unit = true};
  return qt(length_text(mm, unit, options));
}

/// Beside what it belongs to; below it where the text is large.
void put_spread(QVBoxLayout* column, QHBoxLayout* beside, QLineEdit* spread) {
  auto* row = theme().large() ? new QHBoxLayout : beside;
  row->addWidget(new QLabel("\u00B1"));
  row->addWidget(spread);
  if (row != beside) column->addLayout(row);
}

} // namespace

SettingsPanel::SettingsPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), settings_(new QVBoxLayout), settings_box_(new QWidget),
      mark_setting_(new QComboBox), size_from_(new QComboBox), size_to_(new QComboBox), mark_(new QLineEdit),
      size_(new LengthEdit("Size read across", "size")),
      mark_spread_(new LengthEdit("Uncertainty of the mark, 95 %", {}, must_not_be_negative)),
      size_spread_(new LengthEdit("Uncertainty of the size, 95 %", {}, must_not_be_negative)),
      add_mark_(new QPushButton("Keep the mark")), add_size_(new QPushButton("Keep")),
      marks_(new QListWidget), message_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 10, 12, 12);
  column->setSpacing(5);
  column->addWidget(heading_label("How the casting stood"));
  settings_->setContentsMargins(0, 0, 0, 0);
  settings_->setSpacing(3);
  settings_box_->setLayout(settings_);
  column->addWidget(settings_box_);
  column->addWidget(hairline());
  make_marks();
  make_sizes();
  connect_entries();
}

void SettingsPanel::make_marks() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  column->addWidget(heading_label("Reference marks"));
  auto* who = new QHBoxLayout;
  who->setSpacing(4);
  mark_->setPlaceholderText("A");
  mark_->setAccessibleName("Name of the mark");
  mark_->setMaximumWidth(theme().ipx(46));
  mark_setting_->setAccessibleName("Setting the mark was read in");
  mark_setting_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  mark_setting_->setMinimumContentsLength(4);
  who->addWidget(mark_);
  who->addWidget(mark_setting_, 1);
  for (auto* spread : {mark_spread_, size_spread_}) {
    spread->setToolTip("\u00B1, 95 %: how well it was read");
    if (!theme().large()) spread->setFixedWidth(theme().ipx(80));
  }
  column->addLayout(who);
  put_spread(column, who, mark_spread_);
  xyz_ = add_xyz_row(column, "Mark", [this] { add_mark(); });
  column->addWidget(add_mark_);
  marks_->setAccessibleName("Reference marks and sizes");
  marks_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  marks_->setWordWrap(true);
  marks_->setMinimumHeight(theme().ipx(96));
  column->addWidget(marks_, 1);
}

void SettingsPanel::make_sizes() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  column->addWidget(heading_label("Read across"));
  auto* across = new QHBoxLayout;
  across->setSpacing(4);
  for (auto* box : {size_from_, size_to_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(3);
    across->addWidget(box, 1);
  }
  size_from_->setAccessibleName("Size from surface");
  size_to_->setAccessibleName("Size to surface, or the diameter");
  column->addLayout(across);
  auto* last = new QHBoxLayout;
  last->setSpacing(4);
  last->addWidget(size_, 1);
  column->addLayout(last);
  put_spread(column, last, size_spread_);
  last->addWidget(add_size_);
  column->addWidget(message_);
}

void SettingsPanel::connect_entries() {
  connect(add_mark_, &QPushButton::clicked, this, &SettingsPanel::add_mark);
  connect(add_size_, &QPushButton::clicked, this, &SettingsPanel::add_size);
  connect(size_, &QLineEdit::returnPressed, this, &SettingsPanel::add_size);
  auto* drop = new QShortcut(QKeySequence::Delete, marks_, nullptr, nullptr, Qt::WidgetShortcut);
  connect(drop, &QShortcut::activated, this, &SettingsPanel::remove_chosen);
  marks_->setToolTip("Delete removes the chosen one");
}

QComboBox* SettingsPanel::frame_box(const QString& setting) const {
  for (const auto& row : rows_)
    if (row.name == setting) return row.frame;
  return nullptr;
}

QString SettingsPanel::setting_text(const QString& setting) const {
  for (const auto& row : rows_)
    if (row.name == setting) return row.words->text();
  return {};
}

void SettingsPanel::show_state(const PieceState& state) {
  // Usual uncertainties, round in the build's unit, until the person types one.
  const bool inch = document_.unit() == Unit::inch;
  for (auto* spread : {mark_spread_, size_spread_})
    if (!spread->isModified() && !spread->hasFocus())
      spread->setText(qt(spread == mark_spread_
                             ? length_entry_text(inch ? mm_per_thou : 0.02, document_.unit())
                             : length_entry_text(inch ? 2 * mm_per_thou : 0.05, document_.unit())));
  show_settings(state);
  show_known(state);
  show_choices(state);
  if (!state.input.remarks.empty()) {
    QStringList words;
    for (const auto& remark : state.input.remarks) words << qt(remark);
    message_->refuse(words.join("\n"));
  } else if (message_->refuses()) {
    message_->tell({});
  }
}

void SettingsPanel::show_settings(const PieceState& state) {
  while (auto* item = settings_->takeAt(0)) {
    if (item->widget()) {
      item->widget()->hide();
      item->widget()->deleteLater();
    }
    delete item;
  }
  rows_.clear();
  const auto now = mark_setting_->currentText();
  mark_setting_->clear();
  for (const auto& setting : state.input.settings.list) {
    const auto name = name_words(setting.name), key = whole(setting.name);
    mark_setting_->addItem(name.isEmpty() ? QString("(no name)") : name, key);
    auto* title =
        words_label(filled("%1 \u00B7 %2 touches", name.isEmpty() ? "(no name)" : name, setting.touches));
    auto* frame = new QComboBox;
    frame->addItems({"in the survey's frame", "has its own frame", "gives heights only"});
    frame->setCurrentIndex(static_cast<int>(setting.frame));
    frame->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    frame->setMinimumContentsLength(6);
    frame->setAccessibleName("Frame of " + name);
    connect(frame, &QComboBox::activated, this,
            [this, key](int k) { set_frame(key, static_cast<SettingFrame>(k)); });
    auto* words = how_joined(setting);
    settings_->addWidget(title);
    settings_->addWidget(frame);
    if (!words->text().isEmpty()) settings_->addWidget(words);
    rows_.push_back({key, frame, words});
  }
  if (rows_.empty())
    settings_->addWidget(
        muted_label("Name a setting at the touches (\"on its side\"). One that was read in a frame of its "
                    "own is joined by three reference marks read in both."));
  if (const int k = mark_setting_->findText(now); k >= 0) mark_setting_->setCurrentIndex(k);
}

QLabel* SettingsPanel::how_joined(const casting::SettingState& setting) const {
  auto* words = muted_label();
  if (setting.frame == SettingFrame::survey || setting.base) {
    words->setText(setting.frame == SettingFrame::survey ? QString() : qt(setting.message));
  } else if (setting.joined) {
    const double rms =
        setting.frame == SettingFrame::heights ? setting.heights.rms : setting.registration.rms;
    words->setText(
        QString("joined by %1, residual %2%3")
            .arg(qt(counted(setting.marks.size(), "mark", "marks")), residual_text(rms, document_.unit()),
                 setting.doubtful() ? "\n" + qt(setting.message) : QString(": as good as it was read")));
    colour_label(words, setting.doubtful() ? theme().gone : theme().good);
  } else {
    words->setText(qt(setting.message));
    colour_label(words, theme().gone);
  }
  return words;
}

void SettingsPanel::show_known(const PieceState& state) {
  const auto unit = document_.unit();
  marks_->clear();
  const auto& b = document_.build();
  const auto keep = [&](build::Id id, const QString& text) {
    auto* item = new QListWidgetItem(text);
    item->setData(Qt::UserRole, QVariant::fromValue<qlonglong>(id));
    marks_->addItem(item);
  };
  for (const auto& [id, mark] : b.marks_of(state.piece)) {
    const auto* setting = state.input.settings.find(mark.setting);
    QString left;
    if (setting && setting->joined && !setting->base)
      for (std::size_t k = 0; k < setting->marks.size(); ++k)
        if (setting->marks[k] == mark.name) {
          const auto& residual = setting->frame == SettingFrame::heights ? setting->heights.residual
                                                                         : setting->registration.residual;
          left = ", off " + residual_text(residual[k], unit);
        }
    keep(id, QString("%1  %2, %3, %4\n%5%6")
                 .arg(name_words(mark.name), figure(mark.at.x(), unit), figure(mark.at.y(), unit),
                      figure(mark.at.z(), unit), name_words(mark.setting), left));
  }
  const auto surface_name = [&](build::Id id) {
    const auto* s = b.find<build::PartSurface>(id);
    return s ? name_words(s->name) : QString("?");
  };
  for (const auto& [id, size] : b.sizes_of(state.piece))
    keep(id, size.other ? QString("%1 to %2: %3")
                              .arg(surface_name(size.surface), surface_name(size.other),
                                   sheets::figure_with_unit(size.size, unit))
                        : QString("%1, diameter: %2")
                              .arg(surface_name(size.surface), sheets::figure_with_unit(size.size, unit)));
}

void SettingsPanel::show_choices(const PieceState& state) {
  const auto from = size_from_->currentData(), to = size_to_->currentData();
  size_from_->clear();
  size_to_->clear();
  size_to_->addItem("diameter", 0);
  for (const auto& [id, s] : document_.build().surfaces_of(state.part)) {
    size_from_->addItem(name_words(s.name), QVariant::fromValue<qlonglong>(id));
    if (!s.round()) size_to_->addItem(name_words(s.name), QVariant::fromValue<qlonglong>(id));
  }
  if (const int k = size_from_->findData(from); k >= 0) size_from_->setCurrentIndex(k);
  if (const int k = size_to_->findData(to); k >= 0) size_to_->setCurrentIndex(k);
  add_mark_->setEnabled(state.piece != 0);
  add_size_->setEnabled(state.piece != 0 && size_from_->count() > 0);
}

void SettingsPanel::set_frame(const QString& name, SettingFrame frame) {
  document_.apply(build::frame_setting(document_.build(), document_.piece(), name.toStdString(), frame));
}

void SettingsPanel::add_mark() {
  build::Mark mark;
  mark.piece = document_.piece();
  mark.name = mark_->text().trimmed().toStdString();
  mark.setting = mark_setting_->currentData().toString().toStdString();
  for (int k = 0; k < 3; ++k) {
    const auto* box = frame_box(whole(mark.setting));
    const bool heights = box && box->currentIndex() == static_cast<int>(SettingFrame::heights);
    if (heights && k < 2) continue; // only z is known there
    const auto at = xyz_[static_cast<std::size_t>(k)]->take(document_.unit(), *message_);
    if (!at) return;
    mark.at[k] = *at;
  }
  const auto spread = mark_spread_->take(document_.unit(), *message_);
  if (!spread) return;
  mark.uncertainty = *spread;
  const auto added = build::book_mark(document_.build(), mark);
  if (!added.ok()) {
    message_->refuse(qt(added.wrong));
    mark_->setFocus();
    return;
  }
  if (!document_.apply(added.edit)) return;
  for (auto* field : xyz_) field->clear();
  mark_->clear();
  mark_->setFocus();
  message_->tell(QString("Kept: mark %1.").arg(name_words(mark.name)));
}

void SettingsPanel::add_size() {
  build::SizeReading size;
  size.piece = document_.piece();
  size.surface = size_from_->currentData().toLongLong();
  size.other = size_to_->currentData().toLongLong();
  const auto across = size_->take(document_.unit(), *message_);
  const auto spread = across ? size_spread_->take(document_.unit(), *message_) : std::nullopt;
  if (!spread) return;
  size.size = *across;
  size.uncertainty = *spread;
  const auto added = build::book_size(document_.build(), size);
  if (!added.ok()) return message_->refuse(qt(added.wrong));
  if (!document_.apply(added.edit)) return;
  size_->clear();
}

void SettingsPanel::remove_chosen() {
  if (const auto* item = marks_->currentItem())
    document_.apply(build::take_away(document_.build(), item->data(Qt::UserRole).toLongLong()));
}

} // namespace datrin::app
