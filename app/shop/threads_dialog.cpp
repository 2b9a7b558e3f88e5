#include "app/shop/threads_dialog.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/marks/length_field.h"
#include "app/theme.h"
#include "quantity/text.h"
#include "sheets/figures.h"
#include "threads/threads.h"

#include <QHeaderView>

#include <charconv>

namespace datrin::app {

using sheets::fit_figure;
using sheets::qt;

ThreadsDialog::ThreadsDialog(Unit unit, std::vector<Drill> owned, QWidget* parent)
    : QDialog(parent), unit_(unit), owned_(std::move(owned)),
      thread_(text_field("Thread", "M6, 4BA, 5/16-18, 3/8 BSF, 1/4x40")),
      percent_(text_field("Per cent of thread wanted", "as the standard has it")),
      deep_(new LengthEdit("Full thread deep", "through", must_not_be_negative)),
      engaged_(new LengthEdit("Length engaged", {}, must_not_be_negative)),
      outside_(new LengthEdit("Outside of the unknown thread", {}, must_be_positive)),
      pitch_(new LengthEdit("Its pitch, or threads to the inch", "1.6 mm, or 16 tpi", must_be_positive)),
      answer_(words_label()), verdict_(words_label()),
      ranked_(
          plain_table("Threads it may be", {"Thread", "Outside", "Pitch", "off outside", "off pitch"}, 1)) {
  setWindowTitle("Threads");
  resize(theme().ipx(760), theme().ipx(460));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(20, 16, 20, 16);
  row->setSpacing(24);
  auto* left = new QVBoxLayout;
  left->setSpacing(6);
  left->addWidget(heading_label("A thread by its name"));
  left->addWidget(labelled("Thread", thread_));
  left->addWidget(labelled("Wanted %", percent_));
  left->addWidget(labelled("Deep", deep_));
  left->addWidget(labelled("Engaged", engaged_));
  left->addWidget(answer_);
  left->addStretch(1);
  row->addLayout(left, 2);
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  right->addWidget(heading_label("Which thread is this"));
  right->addWidget(labelled("Outside", outside_));
  right->addWidget(labelled("Pitch", pitch_));
  right->addWidget(verdict_);
  ranked_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  ranked_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  right->addWidget(ranked_, 1);
  row->addLayout(right, 3);
  for (QLineEdit* edit : std::initializer_list<QLineEdit*>{thread_, percent_, deep_, engaged_})
    connect(edit, &QLineEdit::textChanged, this, [this] { plan(); });
  deep_->set_when_empty(0);
  engaged_->set_when_empty(0);
  for (auto* edit : {outside_, pitch_}) connect(edit, &QLineEdit::textChanged, this, [this] { identify(); });
  plan();
  identify();
}

void ThreadsDialog::plan() {
  colour_label(answer_, theme().ink);
  const auto fail = [this](const QString& why) {
    answer_->setText(why);
    colour_label(answer_, theme().gone);
  };
  const auto length = [&](LengthEdit* edit) -> std::optional<double> {
    const auto typed = edit->read(unit_);
    if (typed.ok()) return typed.mm;
    fail(edit->accessibleName() + ": " + typed.wrong);
    return std::nullopt;
  };
  if (thread_->text().trimmed().isEmpty()) {
    answer_->setText(
        "ISO metric, BA, BSW, BSF, BSC, ME, UNC, UNF, UNEF, BSP and NPT: name one, and its drills are told.");
    return;
  }
  const auto found = threads::find(thread_->text().toStdString());
  if (found.thread == nullptr) return fail(qt(found.message));
  threads::TapInput in{*found.thread};
  in.drawer = unit_;
  in.owned = owned_;
  if (!percent_->text().trimmed().isEmpty()) {
    const auto percent = typed_number(percent_->text().remove('%'));
    if (!percent) return fail("Per cent of thread wanted: write a number, like 75.");
    in.percent = *percent;
  }
  const auto deep = length(deep_);
  const auto engaged = deep ? length(engaged_) : std::nullopt;
  if (!engaged) return;
  in.full_thread = *deep;
  in.engaged = *engaged;
  const auto plan = threads::plan_tap(in);
  if (!plan.ok) return fail(qt(plan.message));
  QStringList lines;
  for (const auto& line : threads::tap_words(in, plan, unit_)) lines << qt(line);
  answer_->setText(lines.join("\n"));
}

void ThreadsDialog::identify() {
  colour_label(verdict_, theme().ink);
  ranked_->setRowCount(0);
  if (outside_->text().trimmed().isEmpty() || pitch_->text().trimmed().isEmpty()) {
    verdict_->setText("Measure the outside, and the pitch over as many threads as there are.");
    return;
  }
  const auto fail = [this](const QString& why) {
    verdict_->setText(why);
    colour_label(verdict_, theme().gone);
  };
  const auto outside = outside_->read(unit_);
  if (!outside.ok()) return fail(outside_->accessibleName() + ": " + outside.wrong);
  threads::IdentifyInput in;
  in.outside = outside.mm;
  const auto text = lower_case(trimmed(pitch_->text().toStdString()));
  if (const auto at = text.find("tpi"); at != std::string::npos) {
    double turns = 0;
    const auto read = std::from_chars(text.data(), text.data() + at, turns);
    if (read.ec != std::errc{} || !(turns > 0))
      return fail("Threads to the inch: write a number, like 16 tpi.");
    in.pitch = mm_per_inch / turns;
  } else {
    const auto pitch = pitch_->read(unit_);
    if (!pitch.ok()) return fail(pitch_->accessibleName() + ": " + pitch.wrong);
    in.pitch = pitch.mm;
  }
  const auto found = threads::identify(in);
  if (!found.ok) return fail(qt(found.message));
  verdict_->setText(qt(found.verdict));
  ranked_->setRowCount(static_cast<int>(found.ranked.size()));
  for (std::size_t k = 0; k < found.ranked.size(); ++k) {
    const auto& like = found.ranked[k];
    fill_row(ranked_, static_cast<int>(k),
             {name_words(like.thread->name), fit_figure(like.thread->major, unit_),
              fit_figure(like.thread->pitch, unit_), fit_figure(like.major_off, unit_, true),
              fit_figure(like.pitch_off, unit_, true)});
  }
}

} // namespace datrin::app
