#include "app/route/operation_form.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_route.h"
#include "build/now.h"
#include "quantity/text.h"
#include "route/propose.h"
#include "sheets/figures.h"

#include <QDate>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace datrin::app {

using build::Id;
using build::Operation;
using build::OperationKind;
using sheets::qt;

namespace {

QString tick(bool on) {
  return on ? QString("\u2713\u2002") : QString("\u2003\u2002");
}

} // namespace

OperationForm::OperationForm(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), kind_(choice_box("What is done", plain_words<OperationKind>())),
      setup_(choice_box("In which setup")), tool_(choice_box("With which tool of the shop")),
      made_(choice_box("What it makes")), after_(choice_box("Must come after")),
      needs_(choice_box("Fixture, jig or gauge it needs")), name_(text_field("Name of the operation")),
      minutes_(text_field("Minutes for one piece")), until_(text_field("Back on", "2026-12-04")),
      deferred_(text_field("Still to be decided", "what, and how it is left")),
      note_(text_field("Note of the operation", "note")),
      aside_(text_field("Why the rule is set aside", "why it need not")), size_(new LengthField("Size")),
      size_row_(nullptr), until_row_(nullptr), reasons_(new QListWidget),
      aside_button_(new QPushButton("Set aside")), done_(new QCheckBox("done")), message_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  constexpr int label = 72;
  column->addWidget(labelled("What", kind_, label));
  column->addWidget(labelled("Makes", made_, label));
  column->addWidget(labelled("Name", name_, label));
  column->addWidget(labelled("In", setup_, label));
  column->addWidget(labelled("With", tool_, label));
  size_->set_label_width(theme().ipx(label));
  size_->set_rule(must_not_be_negative);
  size_->edit()->setAccessibleName("Size of its tool");
  size_->set_compact();
  column->addWidget(size_row_ = size_);
  column->addWidget(labelled("Minutes", minutes_, label));
  column->addWidget(until_row_ = labelled("Back on", until_, label));
  column->addWidget(labelled("Open", deferred_, label));
  column->addWidget(labelled("Needs", needs_, label));
  needs_->setToolTip(
      "Parts of the build made for the shop: a fixture, a jig, a gauge. They have their own route.");
  column->addWidget(labelled("Note", note_, label));
  column->addWidget(message_);
  column->addWidget(heading_label("Comes after"));
  reasons_->setAccessibleName("What it must come after, and why");
  reasons_->setWordWrap(true);
  reasons_->setMinimumHeight(theme().ipx(72));
  column->addWidget(reasons_, 1);
  column->addWidget(labelled("Also", after_, label));
  QBoxLayout* row =
      theme().large() ? static_cast<QBoxLayout*>(new QVBoxLayout) : static_cast<QBoxLayout*>(new QHBoxLayout);
  row->setSpacing(4);
  row->addWidget(aside_, 1);
  row->addWidget(aside_button_);
  aside_button_->setToolTip("The rule chosen above does not hold here, for the reason typed");
  column->addLayout(row);
  column->addWidget(done_);
  connect_fields();
}

const Operation* OperationForm::current() const {
  return document_.build().find<Operation>(operation_);
}

template <class How>
void OperationForm::change(const char* what, How how) {
  const auto* now = current();
  if (now == nullptr) return;
  auto changed = *now;
  how(changed);
  document_.apply(build::change(document_.build(), operation_, changed, what));
}

void OperationForm::connect_fields() {
  connect(kind_, &QComboBox::activated, this, [this](int k) {
    change("Kind", [k](Operation& o) {
      if (o.minutes == route::usual_minutes(o.kind))
        o.minutes = route::usual_minutes(static_cast<OperationKind>(k));
      o.kind = static_cast<OperationKind>(k);
    });
  });
  connect(setup_, &QComboBox::activated, this, [this] {
    const Id setup = setup_->currentData().toLongLong();
    change("Setup", [setup](Operation& o) { o.setup = setup; });
  });
  connect(tool_, &QComboBox::activated, this, [this] {
    const Id tool = tool_->currentData().toLongLong();
    change("Tool", [tool](Operation& o) { o.tool = tool; });
  });
  connect(made_, &QComboBox::activated, this, [this] {
    const auto k = static_cast<std::size_t>(made_->currentIndex());
    if (const auto* now = current(); now != nullptr && made_->currentIndex() >= 0)
      if (const auto all = route::features_to_make(document_.build(), now->part); k < all.size())
        document_.apply(route::toggle_feature(document_.build(), operation_, all[k]));
  });
  connect(after_, &QComboBox::activated, this, [this] {
    document_.apply(build::toggle_wait(document_.build(), operation_, after_->currentData().toLongLong()));
  });
  connect(needs_, &QComboBox::activated, this, [this] {
    document_.apply(build::toggle_need(document_.build(), operation_, needs_->currentData().toLongLong()));
  });
  connect(size_, &LengthField::committed, this,
          [this](double mm) { change("Size", [mm](Operation& o) { o.size = mm; }); });
  connect(minutes_, &QLineEdit::editingFinished, this, &OperationForm::take_minutes);
  connect(name_, &QLineEdit::editingFinished, this, [this] { take_text(name_, &Operation::name, "Name"); });
  connect(until_, &QLineEdit::editingFinished, this, [this] {
    const auto text = until_->text().trimmed();
    if (until_->isModified() && !text.isEmpty() && !QDate::fromString(text, Qt::ISODate).isValid())
      return message_->refuse(filled("%1 is no day: year-month-day, as 2026-12-04.", text));
    take_text(until_, &Operation::until, "Day");
  });
  connect(deferred_, &QLineEdit::editingFinished, this,
          [this] { take_text(deferred_, &Operation::deferred, "What is open"); });
  connect(note_, &QLineEdit::editingFinished, this, [this] { take_text(note_, &Operation::note, "Note"); });
  connect(aside_button_, &QPushButton::clicked, this, &OperationForm::set_aside);
  connect(aside_, &QLineEdit::returnPressed, this, &OperationForm::set_aside);
  on_tick(done_, this, [this](bool on) {
    document_.apply(build::set_done(document_.build(), document_.piece(), operation_, on, build::utc_now()));
  });
}

void OperationForm::take_text(QLineEdit* edit, std::string Operation::*into, const char* what) {
  if (!edit->isModified()) return;
  const auto text = edit->text().trimmed().toStdString();
  edit->setModified(false);
  change(what, [&](Operation& o) { o.*into = text; });
}

void OperationForm::take_minutes() {
  if (!minutes_->isModified()) return;
  const auto text = minutes_->text().trimmed();
  const auto read = text.isEmpty() ? std::optional<double>(0) : number_from(text.toStdString(), true);
  if (!read || *read < 0 || *read > 1e6) {
    message_->refuse(filled("%1 is no time: minutes for one piece, as 12 or 2.5.", text));
    return;
  }
  minutes_->setModified(false);
  change("Minutes", [&](Operation& o) { o.minutes = *read; });
}

void OperationForm::set_aside() {
  const auto* item = reasons_->currentItem();
  const auto reason = aside_->text().trimmed();
  if (item == nullptr) return message_->refuse("Choose above what it need not wait for.");
  if (reason.isEmpty()) return message_->refuse("Say why it need not: the reason is kept with it.");
  if (document_.apply(route::set_rule_aside(document_.build(), operation_,
                                            item->data(Qt::UserRole).toLongLong(), reason.toStdString())))
    aside_->clear();
}

void OperationForm::show_choices(const Operation& now) {
  const auto& b = document_.build();
  setup_->clear();
  setup_->addItem("on the bench", 0);
  for (const auto& [id, s] : b.setups_of(now.part)) setup_->addItem(name_words(s.name), qlonglong(id));
  choose_data(setup_, now.setup);
  tool_->clear();
  tool_->addItem("\u2013", 0);
  for (const auto& [id, t] : b.tools()) tool_->addItem(name_words(t.name), qlonglong(id));
  choose_data(tool_, now.tool);
  made_->clear();
  int first = -1;
  for (const auto& f : route::features_to_make(b, now.part)) {
    const bool on = route::makes(now, f);
    if (on && first < 0) first = made_->count();
    made_->addItem(tick(on) + name_words(f.name));
  }
  made_->setCurrentIndex(first);
  needs_->clear();
  needs_->addItem("nothing made for it", 0);
  int needed = 0;
  for (const auto& [id, p] : b.parts()) {
    if (id == now.part) continue;
    const bool on = build::contains(now.needs, id);
    if (on && needed == 0) needed = needs_->count();
    needs_->addItem(tick(on) + name_words(p.name), qlonglong(id));
  }
  needs_->setCurrentIndex(needed);
  after_->clear();
  first = -1;
  int number = 0;
  for (const auto& [id, o] : b.operations_of(now.part)) {
    number += 10;
    if (id == operation_) continue;
    const bool on = build::contains(now.after, id);
    if (on && first < 0) first = after_->count();
    after_->addItem(tick(on) + filled("%1  %2", number, qt(route::operation_text(b, o))), qlonglong(id));
  }
  after_->setCurrentIndex(first);
}

void OperationForm::show_reasons(const route::RoutePlan& plan) {
  const int row = reasons_->currentRow();
  reasons_->clear();
  const auto here = std::find_if(plan.operations.begin(), plan.operations.end(),
                                 [this](const auto& o) { return o.id == operation_; });
  if (here == plan.operations.end()) return;
  for (const int k : here->waits) {
    const auto& one = plan.precedences[static_cast<std::size_t>(k)];
    const auto before = std::find_if(plan.operations.begin(), plan.operations.end(),
                                     [&](const auto& o) { return o.id == one.before; });
    const bool broken = one.holds() && before > here;
    auto words = filled("%1  %2", before->number, qt(one.reason));
    if (!one.holds()) words += "; set aside: " + whole(one.set_aside);
    auto* item = new QListWidgetItem(broken ? "\u2717 " + words : words, reasons_);
    item->setData(Qt::UserRole, qlonglong(one.before));
    item->setToolTip(words);
    if (broken) item->setForeground(theme().gone);
    if (!one.holds()) item->setForeground(theme().muted);
  }
  reasons_->setCurrentRow(std::clamp(row, reasons_->count() > 0 ? 0 : -1, reasons_->count() - 1));
}

void OperationForm::show_operation(Id operation, const route::RoutePlan& plan) {
  if (operation != operation_) {
    aside_->clear();
    for (auto* edit : {name_, minutes_, until_, deferred_, note_}) edit->setModified(false);
  }
  operation_ = operation;
  message_->tell({});
  const auto* now = current();
  setVisible(now != nullptr);
  if (now == nullptr) return;
  const auto show = [](QLineEdit* edit, const QString& text) {
    if (!(edit->hasFocus() && edit->isModified())) show_from_start(edit, text);
  };
  kind_->setCurrentIndex(static_cast<int>(now->kind));
  show(name_, whole(now->name));
  auto unnamed = *now;
  unnamed.name.clear();
  name_->setPlaceholderText(qt(route::operation_text(document_.build(), unnamed)));
  show(minutes_, now->minutes > 0 ? QString::number(now->minutes, 'g', 6) : QString());
  show(until_, whole(now->until));
  show(deferred_, whole(now->deferred));
  show(note_, whole(now->note));
  const bool away = now->kind == OperationKind::wait || now->kind == OperationKind::sent_out;
  until_row_->setVisible(away);
  size_row_->setVisible(now->kind == OperationKind::drill || now->kind == OperationKind::ream ||
                        now->kind == OperationKind::tap || now->kind == OperationKind::mill ||
                        now->kind == OperationKind::slit || now->kind == OperationKind::broach);
  size_->set_value(now->size, document_.unit(), operation_);
  show_choices(*now);
  show_reasons(plan);
  done_->setVisible(document_.piece() != 0);
  show_tick(done_, document_.build().done_of(document_.piece(), operation_).has_value());
}

} // namespace datrin::app
