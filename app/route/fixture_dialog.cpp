#include "app/route/fixture_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_route.h"
#include "build/now.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"
#include "sheets/local_time.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using build::Id;
using build::Locator;
using build::LocatorKind;
using sheets::qt;

FixtureDialog::FixtureDialog(Document& document, Id part, Id fixture, QWidget* parent)
    : QDialog(parent), document_(document), part_(part), fixture_(choice_box("Fixture, jig or holder")),
      surface_(choice_box("What of the part it takes")),
      kind_(choice_box("By what", plain_words<LocatorKind>())), tried_on_(choice_box("Tried on")),
      locators_(plain_table("Where it takes hold", {"Takes", "By", "Size", "What it leaves"}, 9)),
      size_(new LengthField("Size")), closes_(new LengthField("Closes by")), arm_(new LengthField("Arm")),
      off_(new LengthField("Off by")), add_(new QPushButton("Add")), remove_(new QPushButton("Remove")),
      tried_(new QPushButton("Keep the trial")), good_(new QCheckBox("good enough for a good piece")),
      note_(text_field("Note of the trial", "what was seen")), words_(words_label()), trials_(muted_label()),
      message_(new MessageLine) {
  setWindowTitle("Fixture");
  resize(std::min(theme().ipx(820), 1220), std::min(theme().ipx(600), 740)); // never more than a screen
  auto* content = new QWidget;
  auto* column = new QVBoxLayout(content);
  column->setContentsMargins(20, 16, 20, 8);
  column->setSpacing(8);
  column->addWidget(labelled("Fixture", fixture_, 84));
  const int widths[] = {150, 84, 110};
  for (int c = 0; c < 3; ++c) locators_->setColumnWidth(c, theme().ipx(widths[c]));
  locators_->horizontalHeader()->setStretchLastSection(true);
  locators_->setMinimumHeight(theme().ipx(110));
  column->addWidget(locators_, 1);
  auto* forms = new QHBoxLayout;
  forms->setSpacing(24);
  forms->addWidget(form(), 1);
  forms->addWidget(trial_form(), 1);
  column->addLayout(forms);
  column->addWidget(words_);
  column->addWidget(message_);
  column->addWidget(
      muted_label("Try it by hand before the spindle turns: nothing may lift, turn or touch the "
                  "tool. Clamp what a drill can grab."));
  column->addStretch(1);
  auto* scroll = new QScrollArea; // of large text it is longer than a screen
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setWidget(content);
  auto* rows = new QVBoxLayout(this);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->addWidget(scroll, 1);
  auto* row = new QHBoxLayout;
  row->setContentsMargins(20, 4, 20, 14);
  row->addStretch(1);
  auto* close = new QPushButton("Close");
  row->addWidget(close);
  rows->addLayout(row);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);

  const auto& b = document_.build();
  const auto made = route::shop_made(b);
  if (fixture == 0 && !made.empty()) fixture = made.front();
  fixture_->addItem("choose a part of the build", 0);
  for (const auto& [id, p] : b.parts())
    if (id != part_) fixture_->addItem(name_words(p.name), qlonglong(id));
  choose_data(fixture_, fixture);
  for (const auto& [id, s] : b.surfaces_of(part_)) surface_->addItem(name_words(s.name), qlonglong(id));
  tried_on_->addItem("a bit of scrap", 0);
  for (const auto& [id, piece] : b.pieces_of(part_))
    tried_on_->addItem(filled(piece.rejected.empty() ? "no. %1" : "no. %1, rejected", piece.number),
                       qlonglong(id));
  for (auto* button : findChildren<QPushButton*>()) button->setAutoDefault(false); // Enter is the fields' own
  connect_fields();
  refresh();
}

QWidget* FixtureDialog::form() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(heading_label("The chosen place"));
  constexpr int label = 78;
  column->addWidget(labelled("Takes", surface_, label));
  column->addWidget(labelled("By", kind_, label));
  for (auto* field : {size_, closes_, arm_}) {
    field->set_label_width(theme().ipx(label));
    field->set_rule(must_not_be_negative);
    field->set_compact();
    column->addWidget(field);
  }
  size_->edit()->setAccessibleName("Across the pin, nest or open collet");
  closes_->edit()->setAccessibleName("How far the collet closes");
  arm_->edit()->setAccessibleName("From what it turns about to the stop");
  auto* row = new QHBoxLayout;
  add_->setAccessibleName("Add a place where it takes hold");
  remove_->setAccessibleName("Remove the chosen place");
  row->addWidget(add_);
  row->addWidget(remove_);
  row->addStretch(1);
  column->addLayout(row);
  column->addStretch(1);
  return box;
}

QWidget* FixtureDialog::trial_form() {
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(heading_label("Tried before a good piece"));
  constexpr int label = 78;
  column->addWidget(labelled("On", tried_on_, label));
  off_->set_label_width(theme().ipx(label));
  off_->set_compact();
  off_->edit()->setAccessibleName("How far what came out was off");
  column->addWidget(off_);
  column->addWidget(labelled("Note", note_, label));
  column->addWidget(good_);
  column->addWidget(tried_);
  column->addWidget(trials_);
  column->addStretch(1);
  return box;
}

template <class How>
void FixtureDialog::change(const char* what, How how) {
  const auto* now = document_.build().find<Locator>(chosen_);
  if (now == nullptr || filling_) return;
  auto changed = *now;
  how(changed);
  document_.apply(build::change(document_.build(), chosen_, changed, what));
}

void FixtureDialog::connect_fields() {
  connect(&document_, &Document::changed, this, &FixtureDialog::refresh);
  connect(fixture_, &QComboBox::activated, this, [this] { refresh(); });
  connect(locators_, &QTableWidget::currentCellChanged, this, [this](int row) {
    if (filling_) return;
    chosen_ = row >= 0 && row < static_cast<int>(check_.locators.size())
                  ? check_.locators[static_cast<std::size_t>(row)].locator
                  : 0;
    show_locator();
  });
  connect(surface_, &QComboBox::activated, this, [this] {
    const Id surface = surface_->currentData().toLongLong();
    change("What it takes", [surface](Locator& l) { l.surface = surface; });
  });
  connect(kind_, &QComboBox::activated, this, [this](int k) {
    change("How it takes it", [k](Locator& l) { l.kind = static_cast<LocatorKind>(k); });
  });
  connect(size_, &LengthField::committed, this,
          [this](double mm) { change("Size", [mm](Locator& l) { l.size = mm; }); });
  connect(closes_, &LengthField::committed, this,
          [this](double mm) { change("Range", [mm](Locator& l) { l.closes = mm; }); });
  connect(arm_, &LengthField::committed, this,
          [this](double mm) { change("Arm", [mm](Locator& l) { l.arm = mm; }); });
  connect(add_, &QPushButton::clicked, this, [this] {
    const auto added = build::add_locator(document_.build(), fixture(), surface_->currentData().toLongLong(),
                                          static_cast<LocatorKind>(std::max(0, kind_->currentIndex())));
    if (!added.ok()) return message_->refuse(sheets::sentence(added.wrong));
    chosen_ = added.id;
    document_.apply(added.edit);
  });
  connect(remove_, &QPushButton::clicked, this, [this] {
    if (chosen_ != 0) document_.apply(build::take_away(document_.build(), chosen_));
  });
  connect(tried_, &QPushButton::clicked, this, [this] {
    if (!off_->commit()) return;
    const auto added = build::add_proof(
        document_.build(), {fixture(), tried_on_->currentData().toLongLong(), off_->value(),
                            good_->isChecked(), note_->text().trimmed().toStdString(), build::utc_now()});
    if (!added.ok()) return message_->refuse(sheets::sentence(added.wrong));
    if (!document_.apply(added.edit)) return;
    note_->clear();
    off_->set_value(0, document_.unit(), 1);
    show_tick(good_, false);
  });
}

void FixtureDialog::refresh() {
  const bool was = filling_;
  filling_ = true;
  const auto& b = document_.build();
  const Id id = fixture();
  check_ = route::fixture_check(b, id);
  const auto unit = document_.unit();
  locators_->setRowCount(static_cast<int>(check_.locators.size()));
  int row = -1;
  for (std::size_t k = 0; k < check_.locators.size(); ++k) {
    const auto& c = check_.locators[k];
    const auto& l = *b.find<Locator>(c.locator);
    if (c.locator == chosen_) row = static_cast<int>(k);
    fill_row(locators_, static_cast<int>(k),
             {name_words(c.takes), plain_words<LocatorKind>()[static_cast<int>(l.kind)],
              l.size > 0 ? sheets::fit_figure(l.size, unit) : QString("\u2013"),
              c.leaves.empty() ? sheets::sentence(c.text) : qt(c.leaves)});
    locators_->item(static_cast<int>(k), 3)->setToolTip(sheets::sentence(c.text));
    if (!c.goes) locators_->item(static_cast<int>(k), 3)->setForeground(theme().gone);
  }
  if (row < 0 && !check_.locators.empty()) row = 0;
  chosen_ = row >= 0 ? check_.locators[static_cast<std::size_t>(row)].locator : 0;
  locators_->setCurrentCell(row, 0);
  filling_ = was;
  message_->tell({});
  show_locator();
  show_words();
}

void FixtureDialog::show_locator() {
  const auto* l = document_.build().find<Locator>(chosen_);
  const auto unit = document_.unit();
  if (l) {
    choose_data(surface_, l->surface);
    kind_->setCurrentIndex(static_cast<int>(l->kind));
  }
  size_->set_value(l ? l->size : 0, unit, chosen_);
  closes_->set_value(l ? l->closes : 0, unit, chosen_);
  arm_->set_value(l ? l->arm : 0, unit, chosen_);
  const auto kind = l ? l->kind : LocatorKind::pad;
  size_->setVisible(l &&
                    (kind == LocatorKind::pin || kind == LocatorKind::nest || kind == LocatorKind::collet));
  closes_->setVisible(l && kind == LocatorKind::collet);
  arm_->setVisible(l && kind == LocatorKind::stop);
  add_->setEnabled(fixture() != 0 && surface_->count() > 0);
  remove_->setEnabled(l != nullptr);
  tried_->setEnabled(fixture() != 0);
  if (off_->value() == 0) off_->set_value(0, unit, 1);
}

void FixtureDialog::show_words() {
  const auto unit = document_.unit();
  QStringList lines;
  if (fixture() == 0)
    lines << "Draw the fixture as a part of the build: it is made by a route of its own, and operations that "
             "need it wait for it.";
  for (const auto& c : check_.locators)
    if (!c.leaves.empty()) lines << (c.goes ? "" : "\u2717 ") + sheets::sentence(c.text);
  for (const auto& c : check_.locators)
    for (const auto& piece : c.pieces) {
      const auto read = sheets::figure_with_unit(piece.size, unit);
      const bool collet = document_.build().find<Locator>(c.locator)->kind == LocatorKind::collet;
      lines << (piece.goes
                    ? filled(collet ? "\u2713 no. %1: %2 %3, within its range by %4"
                                    : "\u2713 no. %1: %2 %3, play %4",
                             piece.number, name_words(c.takes), read, qt(length_text_both(piece.play, unit)))
                    : filled("\u2717 no. %1: %2 %3 does not go, by %4", piece.number, name_words(c.takes),
                             read, qt(length_text_both(-piece.play, unit))));
    }
  for (const auto& t : check_.torques) lines << (t.held ? "" : "\u2717 ") + sheets::sentence(t.text);
  if (fixture() != 0)
    for (const auto& remark : check_.remarks) lines << "? " + sheets::sentence(remark);
  words_->setText(lines.join("\n"));
  QStringList tried;
  for (const auto& [id, proof] : document_.build().proofs_of(fixture())) {
    const auto* piece = document_.build().find<build::Piece>(proof.piece);
    auto line = filled("%1  %2", sheets::local_time(proof.at).left(16),
                       piece ? filled("no. %1", piece->number) : QString("a bit of scrap"));
    if (proof.off != 0) line += filled(", off by %1", qt(length_text_both(proof.off, unit)));
    line += proof.good ? ", good" : ", not good";
    if (!proof.note.empty()) line += ": " + whole(proof.note);
    tried << line;
  }
  constexpr double fair = 0.05, most = 0.12; // mm: trials off by so much were taken (common practice)
  trials_->setText(tried.isEmpty()
                       ? filled("Not tried yet. Where holes have clearance a trial off by %1 to %2 is often "
                                "taken for good (common practice).",
                                qt(length_text_both(fair, unit)), qt(length_text_both(most, unit)))
                       : tried.join("\n"));
}

} // namespace datrin::app
