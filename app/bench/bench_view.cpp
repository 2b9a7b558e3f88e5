#include "app/bench/bench_view.h"

#include "app/bench/chime.h"
#include "app/marks/fields.h"
#include "app/marks/length_edit.h"
#include "app/marks/why.h"
#include "app/theme.h"
#include "build/now.h"
#include "chains/aims.h"
#include "quantity/angle.h"
#include "quantity/length_text.h"
#include "route/card.h"
#include "route/propose.h"
#include "sheets/figures.h"
#include "sheets/local_time.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>

namespace datrin::app {

using sheets::qt;
using steps::BenchStep;
using steps::StepKind;

namespace {

QLabel* bench_label(const QColor& colour, const QFont& font, const QString& name) {
  auto* label = new QLabel;
  label->setTextFormat(Qt::PlainText);
  label->setWordWrap(true);
  label->setFont(font);
  label->setAccessibleName(name);
  auto palette = label->palette();
  palette.setColor(QPalette::WindowText, colour);
  label->setPalette(palette);
  return label;
}

/// Large, but never so large that little else is seen.
double size_px(double pixels) {
  return pixels * std::min(theme().text_scale, 1.5);
}

QString capital(QString words) {
  if (!words.isEmpty()) words[0] = words[0].toUpper();
  return words;
}

QString number_words(double value, Unit unit) {
  return qt(length_text(value, unit, {.decimals_mm = 3, .decimals_inch = 4}));
}

} // namespace

BenchView::BenchView(Document& document, TargetsState& targets, QWidget* parent)
    : QWidget(parent), document_(document), targets_(targets), reading_(new QLineEdit), to_go_(new ToGo),
      read_out_(new ReadOut(this)), picture_(new BenchPicture) {
  make_labels();
  lay_out();
  hide();
  setAttribute(Qt::WA_OpaquePaintEvent); // the page beneath is not painted again
  setFocusProxy(reading_);
  reading_->installEventFilter(this);
  parent->installEventFilter(this);
  connect(&document_.solids(), &PartSolids::made, this, [this](qlonglong part) {
    if (const auto* now = step(); isVisible() && now && part == document_.part()) show_picture(*now);
  });
  connect(read_out_, &ReadOut::moved, this, [this] {
    if (isVisible()) show_way();
  });
  connect(&document_, &Document::changed, this, [this] {
    if (isVisible()) refresh();
  });
}

void BenchView::make_labels() {
  const auto& ink = theme().blue;
  const auto plain = [](double px, bool bold = false) { return sheets::font(size_px(px), bold); };
  part_ = bench_label(ink.line, plain(22, true), "Part");
  about_ = bench_label(ink.label, plain(15), "Setup");
  count_ = bench_label(ink.label, plain(18), "Step");
  keys_ = bench_label(ink.label, plain(13), "Keys");
  title_ = bench_label(ink.line, plain(28, true), "What to do");
  words_ = bench_label(ink.label, plain(18), "How");
  number_ = bench_label(Qt::white, plain(120, true), "Number");
  number_->setWordWrap(false);
  unit_ = bench_label(ink.label, plain(40), "Unit");
  other_ = bench_label(ink.label, plain(20), "In the other unit");
  sum_ = bench_label(ink.line, plain(17), "How it adds up");
  ask_ = bench_label(ink.line, plain(20), "What is asked");
  hint_ = bench_label(ink.label, plain(14), "What Enter does");
  hint_->setObjectName("hint");
  message_ = bench_label(ink.brass, plain(18, true), "Message");
  next_ = bench_label(ink.label, plain(16), "Then");
  next_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  count_->setAlignment(Qt::AlignRight);
  keys_->setAlignment(Qt::AlignRight);
  keys_->setText("Enter goes on; \u2212 Enter back; * why; / zero again; . Enter leaves");
  reading_->setFont(plain(26));
  reading_->setAccessibleName("What it reads");
}

void BenchView::lay_out() {
  auto* rows = new QVBoxLayout(this);
  rows->setContentsMargins(28, 20, 28, 24);
  rows->setSpacing(14);
  auto* head = new QHBoxLayout;
  auto* names = new QVBoxLayout;
  names->setSpacing(2);
  names->addWidget(part_);
  names->addWidget(about_);
  auto* where = new QVBoxLayout;
  where->setSpacing(2);
  where->addWidget(count_);
  where->addWidget(keys_);
  head->addLayout(names, 3);
  head->addLayout(where, 2);
  rows->addLayout(head);
  auto* middle = new QHBoxLayout;
  middle->setSpacing(40);
  picture_->setMinimumSize(240, 200);
  middle->addWidget(picture_, 41);
  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  right->addWidget(title_);
  right->addWidget(words_);
  auto* figure = new QHBoxLayout;
  figure->setSpacing(28);
  figure->addWidget(number_, 0, Qt::AlignBottom);
  figure->addWidget(unit_, 0, Qt::AlignBottom);
  figure->addStretch(1);
  right->addLayout(figure);
  right->addWidget(other_);
  right->addWidget(sum_);
  right->addSpacing(10);
  right->addWidget(to_go_);
  right->addStretch(1);
  right->addWidget(message_);
  middle->addLayout(right, 59);
  rows->addLayout(middle, 1);
  auto* foot = new QHBoxLayout;
  foot->setContentsMargins(20, 12, 20, 12);
  foot->setSpacing(24);
  auto* asked = new QVBoxLayout;
  asked->setSpacing(4);
  asked->addWidget(ask_);
  asked->addWidget(reading_);
  asked->addWidget(hint_);
  foot->addLayout(asked, 2);
  foot->addWidget(next_, 3);
  rows->addLayout(foot);
}

QString BenchView::open(build::Id setup) {
  const auto piece = document_.piece();
  const auto& b = document_.build();
  if (!document_.is_open() || piece == 0) return "Choose a piece first: the bench works on one at a time.";
  if (setup == 0)
    for (const auto& [id, s] : b.setups_of(document_.part()))
      if (setup == 0 && !b.release_of(piece, id)) setup = id;
  const auto* s = b.find<build::Setup>(setup);
  if (s == nullptr || s->part != document_.part())
    return b.setups_of(document_.part()).empty()
               ? QString("There are no setups yet: have them suggested under Route first.")
               : QString("The piece has left every setup.");
  setup_ = setup;
  if (!isVisible()) had_keyboard_ = window()->focusWidget();
  leaving_ = false;
  at_ = -1;
  fit_to_window();
  show();
  raise();
  refresh();
  reading_->setFocus();
  if (const auto place = b.bench_place_of(piece, setup); place && !place->second.dials.empty())
    say(filled("Left here %1: %2", sheets::local_time(place->second.at).left(16), whole(place->second.dials)),
        theme().blue.brass);
  return {};
}

void BenchView::fit_to_window() {
  setGeometry(parentWidget()->rect());
}

steps::BenchInput BenchView::input() const {
  steps::BenchInput in;
  in.piece = document_.piece();
  in.setup = setup_;
  in.pose = state_.pose;
  in.plans = allowance::surface_plans(document_.build(), state_.piece, state_.input, state_.pose,
                                      chains::aims_of(document_.build(), state_.piece, targets_.now()));
  return in;
}

Unit BenchView::unit() const {
  const auto* s = document_.build().find<build::Setup>(setup_);
  return s ? route::machine_unit(document_.build(), *s) : document_.unit();
}

void BenchView::look_at(int step) {
  if (!isVisible() || steps_.empty()) return;
  at_ = std::clamp(step, 0, static_cast<int>(steps_.size()) - 1);
  show_step();
}

const BenchStep* BenchView::step() const {
  return at_ >= 0 && at_ < static_cast<int>(steps_.size()) ? &steps_[static_cast<std::size_t>(at_)] : nullptr;
}

void BenchView::refresh() {
  const auto& b = document_.build();
  if (!document_.is_open() || b.find<build::Setup>(setup_) == nullptr) return leave();
  state_ = piece_state(b, document_.piece());
  if (state_.part == 0) state_.part = document_.part();
  input_ = input();
  steps::BenchOptions options;
  options.now = build::utc_now();
  steps_ = steps::bench_steps(b, input_, options);
  const int to_do = steps::step_to_do(steps_);
  at_ = to_do >= 0 ? to_do : static_cast<int>(steps_.size()) - 1;
  const auto& s = *b.find<build::Setup>(setup_);
  const auto* part = b.find<build::Part>(s.part);
  const auto* piece = b.find<build::Piece>(document_.piece());
  part_->setText(filled("%1, no. %2", part ? name_words(part->name) : QString(), piece ? piece->number : 0));
  const auto setups = b.setups_of(s.part);
  int number = 0, place = 0;
  for (const auto& [id, one] : setups) {
    ++number;
    if (id == setup_) place = number;
  }
  const auto* machine = b.find<build::Machine>(s.machine);
  read_out_->listen(machine ? qt(machine->read_out) : QString(), unit());
  auto about = filled("Setup %1 of %2 \u00B7 %3", place, number, name_words(s.name));
  if (machine) about += " \u00B7 on " + name_words(machine->name);
  about_->setText(about);
  show_step();
}

void BenchView::show_step() {
  const auto* now = step();
  if (now == nullptr) return;
  const bool all_done = steps::step_to_do(steps_) < 0; // else one is only looked at that is done
  count_->setText(filled("step %1 of %2", at_ + 1, steps_.size()));
  title_->setText(all_done ? QString("All of it is done") : sheets::sentence(now->title).chopped(1));
  words_->setText(all_done    ? QString("The piece has left this setup.")
                  : now->done ? QString("Done already.")
                              : capital(qt(now->words)));
  message_->clear();
  message_->setAccessibleDescription({});
  was_there_ = false;
  show_number(*now);
  show_picture(*now);
  QStringList then;
  for (std::size_t k = static_cast<std::size_t>(at_) + 1; k < steps_.size() && then.size() < 2; ++k) {
    const auto& s = steps_[k];
    if (s.done) continue;
    auto line = filled("%1 %2", k + 1, qt(s.title));
    if (s.number && !s.axis.empty()) line += ": " + qt(s.axis);
    if (s.number && !s.is_angle) line += (s.axis.empty() ? ": " : " ") + number_words(*s.number, unit());
    then << (then.isEmpty() ? "then " : "") + line;
  }
  next_->setText(then.join("\n"));
  show_way();
  // A name says what a label is for: what it says is its description.
  for (auto* label :
       {part_, about_, count_, title_, words_, number_, unit_, other_, sum_, ask_, hint_, next_})
    label->setAccessibleDescription(label->text());
  update();
}

/// What is asked and what Enter does, the read-out not looked at.
void BenchView::show_asked(const BenchStep& now) {
  const bool all_done = steps::step_to_do(steps_) < 0;
  ask_->setText(leaving_          ? QString("What do dials and read-out show, what stays on the machine?")
                : all_done        ? QString("Enter leaves the bench")
                : now.ask.empty() ? QString("Enter when it is so")
                                  : qt(now.ask));
  hint_->setText(leaving_           ? QString("Enter keeps it with this step; Esc leaves without")
                 : all_done         ? QString()
                 : now.may_be_empty ? with_another_way("Enter goes on")
                                    : with_another_way("Enter keeps it and goes on"));
}

/// What Enter does, and what + does where the step has another way.
QString BenchView::with_another_way(const QString& enter) const {
  const auto* now = step();
  return now && !now->done && !now->another_way.empty()
             ? filled("%1; + Enter: %2", enter, qt(now->another_way))
             : enter;
}

void BenchView::show_number(const BenchStep& now) {
  const bool any = now.number.has_value() && !now.done;
  for (QWidget* w : std::initializer_list<QWidget*>{number_, unit_, sum_}) w->setVisible(any);
  other_->setVisible(any || (!now.also.empty() && !now.done));
  other_->setText(capital(qt(now.also))); // beside no number it says the same
  if (!any) return;
  const auto unit = this->unit();
  if (now.is_angle) {
    number_->setText(qt(angle_text(*now.number)));
    unit_->clear();
    other_->clear();
  } else {
    number_->setText(number_words(*now.number, unit));
    unit_->setText(qt(unit_name(unit)));
    other_->setText(
        filled("%1 %2", number_words(*now.number, sheets::other(unit)), qt(unit_name(sheets::other(unit)))) +
        (now.also.empty() ? QString() : " \u00B7 " + qt(now.also)));
  }
  // As large as the room beside the picture lets it be.
  auto font = sheets::font(size_px(120), true);
  const int room = std::max(240, static_cast<int>(0.55 * width()) - 140);
  for (double px = size_px(120); px > 48 && QFontMetrics(font).horizontalAdvance(number_->text()) > room;
       px *= 0.92)
    font = sheets::font(px, true);
  number_->setFont(font);
  // The unit stands on the line of the figure.
  unit_->setContentsMargins(
      0, 0, 0, std::max(0, QFontMetrics(font).descent() - QFontMetrics(unit_->font()).descent()));
  QString parts;
  for (const auto& line : now.sum.lines) {
    const bool less = line.figure.empty() && line.mm < 0 && !parts.isEmpty();
    if (!parts.isEmpty()) parts += less ? "   \u2212   " : "   +   ";
    parts +=
        filled("%1 %2", line.figure.empty() ? number_words(less ? -line.mm : line.mm, unit) : qt(line.figure),
               qt(line.label));
  }
  const bool long_sum = now.sum.lines.size() > 3 || !now.sum.answer.empty(); // or no plain sum
  sum_->setText(long_sum ? QString("* shows how it adds up") : parts);
  sum_->setVisible(!parts.isEmpty());
}

void BenchView::show_picture(const BenchStep& now) {
  const auto& b = document_.build();
  BenchPicture::Shown shown;
  shown.part = with_solid(part_scene(b, state_.part), document_);
  shown.of_part = state_.part;
  shown.as_of = document_.plan_revision();
  const auto& s = *b.find<build::Setup>(setup_);
  shown.held = {route::way_of_setup(b, s), route::is_turned(b, s)};
  shown.third_angle = b.info().third_angle;
  int row = 0;
  for (const auto& [id, unused] : b.surfaces_of(state_.part)) {
    if (build::contains(now.lit, id)) shown.lit.push_back(row);
    ++row;
  }
  shown.at = now.at;
  shown.from = now.from;
  shown.axis = qt(now.axis);
  shown.datum = qt(now.datum);
  shown.finder = now.finder;
  if (now.number && !now.is_angle) shown.figure = number_words(*now.number, unit());
  shown.touched = now.looks;
  const auto* about = b.find<build::PartSurface>(now.surface);
  shown.view = view_of_step(shown.held, shown.axis, about ? about->direction : Vec3(Vec3::Zero()),
                            about && about->round());
  picture_->show_step(std::move(shown));
}

/// What the read-out shows, counted down to the number; once there it says so, once.
void BenchView::show_way() {
  const auto* now = step();
  if (now) show_asked(*now);
  // What has no axis is read by an instrument that sends bare figures, where there is one.
  const bool asks = now && !now->done && (!now->axis.empty() || (!now->ask.empty() && read_out_->last({})));
  const bool listens = asks && !read_out_->where().isEmpty();
  to_go_->setVisible(listens);
  if (!listens) return reading_->setPlaceholderText({});
  ToGo::Shown shown;
  shown.axis = qt(now->axis);
  shown.unit = unit();
  shown.now = read_out_->last(shown.axis);
  shown.old = read_out_->is_old();
  shown.trouble = read_out_->trouble();
  const auto* s = document_.build().find<build::Setup>(setup_);
  const auto* machine = s ? document_.build().find<build::Machine>(s->machine) : nullptr;
  if (machine) shown.within = machine->resolution;
  const bool goes = now->kind == StepKind::go || now->kind == StepKind::deep;
  if (goes && now->number) shown.target = *now->number;
  const double off = shown.target && shown.now && !shown.old ? std::abs(*shown.target - *shown.now) : 0;
  to_go_->show_way(shown);
  reading_->setPlaceholderText(live());
  if (!leaving_ && now->kind == StepKind::zero && now->axis == "Z" && shown.now && !shown.old)
    hint_->setText(filled("Enter: it touches where it reads %1", number_words(*shown.now, unit())));
  if (!leaving_ && !live().isEmpty()) {
    ask_->setText(qt(now->ask).section(" Enter:", 0, 0)); // what Enter alone does is said below
    hint_->setText(with_another_way("Enter takes what it shows"));
  }
  if (!leaving_ && shown.old && shown.now && !now->ask.empty())
    hint_->setText(with_another_way("What it shows is old: see to it, or type the figure"));
  constexpr double away = 3; // times what counts as there: it may tremble about its last figure
  if (to_go_->is_there() && !was_there_) {
    was_there_ = true;
    ++chimes_;
    if (sound_) chime();
  } else if (off > away * shown.within) {
    was_there_ = false;
  }
}

QString BenchView::live() const {
  const auto* now = step();
  const bool not_of_it =
      now && now->kind == StepKind::zero && (now->axis.empty() || now->axis == "Z"); // the finder, a block
  if (!now || now->ask.empty() || now->is_angle || not_of_it) return {};
  const auto shown = read_out_->at(qt(now->axis));
  if (!shown) return {};
  return number_words(*shown, unit()).replace(QChar(0x2212), QChar('-'));
}

/// Of the simulated read-out: a millimetre a key, a hundredth with Shift.
bool BenchView::turn_wheel(int key, Qt::KeyboardModifiers modifiers) {
  if (!read_out_->is_simulated() || !reading_->text().isEmpty()) return false;
  const double by = modifiers & Qt::ShiftModifier ? 0.01 : modifiers & Qt::ControlModifier ? 0.1 : 1;
  switch (key) {
  case Qt::Key_Left:
  case Qt::Key_Right:
    read_out_->turn('X', key == Qt::Key_Right ? by : -by);
    return true;
  case Qt::Key_Up:
  case Qt::Key_Down:
    read_out_->turn('Y', key == Qt::Key_Up ? by : -by);
    return true;
  case Qt::Key_PageUp:
  case Qt::Key_PageDown:
    read_out_->turn('Z', key == Qt::Key_PageUp ? by : -by);
    return true;
  default:
    return false;
  }
}

/// The zero the step counts from is lost, or not trusted: it is touched again, the old one kept.
void BenchView::find_again() {
  const auto* now = step();
  const auto edit = now ? steps::lose_zero(document_.build(), input_, *now, build::utc_now()) : build::Edit{};
  if (edit.empty()) return say("No zero is found yet that this step counts from.", theme().blue.brass);
  const auto axis = qt(now->axis);
  if (document_.apply(edit))
    say(filled("%1 is to be found again; what was read before is kept.", axis), theme().blue.brass);
}

void BenchView::say(const QString& words, const QColor& colour) {
  auto palette = message_->palette();
  palette.setColor(QPalette::WindowText, colour);
  message_->setPalette(palette);
  message_->setText(words);
  message_->setAccessibleDescription(words);
}

void BenchView::enter() {
  if (leaving_ && reading_->text().trimmed() == ".") return leave();
  if (leaving_) {
    const auto* now = step();
    document_.apply(steps::leave_bench(document_.build(), input_, now ? now->key : std::string(),
                                       reading_->text().trimmed().toStdString(), build::utc_now()));
    return leave();
  }
  // A number pad has no Backspace and no Escape.
  if (const auto alone = reading_->text().trimmed(); alone == "-" || alone == "." || alone == ",") {
    reading_->clear();
    return alone == "-" ? back() : ask_to_leave();
  }
  const auto* now = step();
  if (steps::step_to_do(steps_) < 0) return leave(); // there is nothing more to do
  if (now == nullptr || now->done) return;
  // What the read-out shows counts as typed, where a reading is asked for.
  const bool nothing_typed = reading_->text().trimmed().isEmpty();
  if (nothing_typed && !read_out_->where().isEmpty() && !now->ask.empty() && read_out_->is_old() &&
      read_out_->last(qt(now->axis)))
    return say("The read-out has sent nothing for a while: what it shows is old, and not taken.",
               theme().blue.brass);
  const auto typed = nothing_typed ? live() : reading_->text();
  auto lengths = entry_options(unit());
  lengths.decimal_comma = true; // a number pad types the mark of its own country
  const auto taken =
      steps::take_step(document_.build(), input_, *now, typed.toStdString(),
                       {lengths, angle_options(), build::utc_now(), read_out_->at(qt(now->axis))});
  if (!taken.ok()) {
    say(sheets::sentence(taken.wrong), theme().blue.brass);
    reading_->selectAll();
    return;
  }
  const auto told = taken.told;
  if (!document_.apply(taken.edit)) return;
  reading_->clear();
  // What it said of the step behind stays while the next is begun.
  if (!told.empty()) say("\u2713 " + sheets::sentence(told), theme().reached);
}

void BenchView::back() {
  const auto* now = step();
  int to = now && now->done ? at_ : at_ - 1; // all is done: the last of it again
  // Cuts and readings stay in the record: they are put right there, the old kept.
  while (to >= 0 && (steps_[static_cast<std::size_t>(to)].kind == StepKind::cut ||
                     steps_[static_cast<std::size_t>(to)].kind == StepKind::read ||
                     steps_[static_cast<std::size_t>(to)].kind == StepKind::leave))
    --to;
  if (to < 0) return say("This is the first step.", theme().blue.brass);
  document_.apply(steps::step_back(document_.build(), input_, steps_, to, build::utc_now()));
}

void BenchView::why() {
  const auto* now = step();
  if (now && !now->sum.lines.empty()) show_why(number_, now->sum, unit());
}

void BenchView::leave() {
  leaving_ = false;
  reading_->clear();
  read_out_->listen({}, Unit::mm);
  hide();
  if (had_keyboard_) had_keyboard_->setFocus();
  if (left_) left_();
}

/// What is in the field is offered as what is kept: nothing typed is lost.
void BenchView::ask_to_leave() {
  const auto typed = reading_->text();
  leaving_ = true;
  show_step();
  reading_->setText(typed);
}

bool BenchView::eventFilter(QObject* watched, QEvent* event) {
  if (watched == parentWidget() && event->type() == QEvent::Resize) fit_to_window();
  if (watched == reading_ && event->type() == QEvent::KeyPress) {
    const auto* key = static_cast<QKeyEvent*>(event);
    switch (key->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
      enter();
      return true;
    case Qt::Key_Escape:
      leaving_ ? leave() : ask_to_leave();
      return true;
    case Qt::Key_Backspace:
      if (!reading_->text().isEmpty() || leaving_) return false;
      back();
      return true;
    case Qt::Key_Asterisk:
      if (!reading_->text().isEmpty() || leaving_) return false; // 3 * 1/8
      why();
      return true;
    case Qt::Key_Slash:
      if (!reading_->text().isEmpty() || leaving_) return false; // 3/8
      find_again();
      return true;
    case Qt::Key_F1:
      why();
      return true;
    case Qt::Key_Tab:
    case Qt::Key_Backtab:
      return true; // nothing else takes the keyboard
    default:
      return turn_wheel(key->key(), key->modifiers());
    }
  }
  return QWidget::eventFilter(watched, event);
}

void BenchView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& ink = theme().blue;
  p.fillRect(rect(), ink.ground);
  // The strip at the foot, darker.
  const QRect foot(20, ask_->geometry().top() - 14, width() - 40, height() - ask_->geometry().top() - 2);
  p.setPen(Qt::NoPen);
  p.setBrush(ink.ground.darker(135));
  p.drawRoundedRect(foot, 6, 6);
  // One dash a step: behind in brass, the one at hand white.
  const auto count = static_cast<int>(steps_.size());
  if (count == 0) return;
  const double all = width() / 3.0, each = all / count;
  const double gap = std::min(6.0, each / 3);
  for (int k = 0; k < count; ++k) {
    const auto& s = steps_[static_cast<std::size_t>(k)];
    p.setBrush(k == at_ ? QColor(Qt::white) : s.done ? ink.brass : ink.plate.lighter(140));
    p.drawRoundedRect(QRectF(width() - 28 - all + k * each + gap, 8, each - gap, 5), 2, 2);
  }
}

} // namespace datrin::app
