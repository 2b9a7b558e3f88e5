#include "app/casting/seat_page.h"
#include "build/edit_casting.h"

#include "app/theme.h"
#include "casting/explain.h"
#include "casting/survey_mistakes.h"
#include "sheets/figures.h"
#include "solid/body_edits.h"
#include "solid/seated_wall.h"

#include <fmt/format.h>

#include <QKeyEvent>

#include <cmath>
#include <utility>

namespace datrin::app {

using sheets::figure;
using sheets::qt;

namespace {

/// An arrow key, mm: a round figure on the dial.
double step_in(Unit unit) {
  return unit == Unit::mm ? 0.05 : 2 * mm_per_thou;
}

constexpr double step_turn = 0.05; // degrees, a bracket key
constexpr int glide_ms = 200;

bool same(const Pose& a, const Pose& b) {
  return (a.rotation - b.rotation).cwiseAbs().maxCoeff() < 1e-12 &&
         (a.translation - b.translation).cwiseAbs().maxCoeff() < 1e-9;
}

} // namespace

SeatPage::SeatPage(Document& document)
    : Page(document, Step::seat), canvas_(new PartCanvas), comb_(new StockComb), least_(new QLabel),
      unit_label_(new QLabel), verdict_(words_label()), holds_heading_(heading_label("What holds it")),
      ease_(words_label()), check_(muted_label()), rows_box_(new QWidget),
      wall_row_(new FigureRow({}, "Thinnest wall", 0, Unit::mm, {})), holds_(new HoldList),
      best_(new QPushButton("Seat it best")), next_(new NextButton), room_(new QWidget),
      judge_(new JudgePanel(document)), rescue_(new RescuePanel(document)), sure_(new SurePanel(document)) {
  draw_solid_of_part(canvas_, document_);
  connect(&document_.solids(), &PartSolids::made, this, [this](qlonglong part) {
    if (isVisible() && part == document_.part()) show_wall();
  });
  put_faces({room_, judge_, rescue_, sure_});
  make_picture();
  make_room_face();
  connect_hands();
  make_search();
}

void SeatPage::make_picture() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(10);
  canvas_->set_grabbable(true);
  canvas_->set_empty_text(
      "First the drawing",
      "The finished part is placed inside the touches. State it in the Drawing step and touch its casting.");
  canvas_->turning()->set_wall_near([this](const sheets::SectionPlane& cut) { return wall_near(cut); });
  canvas_->installEventFilter(this);
  column->addWidget(canvas_, 1);
  column->addWidget(comb_);

  connect(sure_, &SurePanel::ready, this, [this] {
    if (isVisible()) show_pose(state_.pose); // a page behind another has not followed the build
  });
  connect(tabs_, &Tabs::changed, this, [this] {
    show_pose(state_.pose);
    show_panels();
  });
  connect(judge_, &JudgePanel::take, this, [this](const Pose& pose, const QString& name) {
    stop_search();
    keep(pose, false, "Seat " + name + " for %1");
  });
}

void SeatPage::make_room_face() {
  auto* side = face_column(room_, 4);
  side->addWidget(heading_label("Least room"));
  auto* big = new QHBoxLayout;
  least_->setFont(theme().figure());
  least_->setAccessibleName("Least room");
  big->addWidget(least_);
  colour_label(unit_label_, theme().muted);
  unit_label_->setFont(theme().title());
  unit_label_->setContentsMargins(0, 0, 0, theme().ipx(9));
  big->addWidget(unit_label_, 0, Qt::AlignBottom);
  big->addStretch(1);
  side->addLayout(big);
  side->addWidget(verdict_);
  side->addSpacing(4);
  auto* rows = new QVBoxLayout(rows_box_);
  rows->setContentsMargins(0, 0, 0, 0);
  rows->setSpacing(0);
  side->addWidget(rows_box_);
  side->addWidget(wall_row_);
  wall_row_->hide();
  side->addSpacing(4);
  side->addWidget(best_);
  side->addSpacing(6);
  side->addWidget(hairline());
  side->addSpacing(4);
  side->addWidget(holds_heading_);
  side->addWidget(holds_);
  side->addSpacing(2);
  side->addWidget(ease_);
  side->addWidget(check_);
  side->addStretch(1);
  side->addWidget(heading_label("Next"));
  side->addWidget(next_);
}

void SeatPage::connect_hands() {
  connect(best_, &QPushButton::clicked, this, [this] {
    if (search_.busy())
      stop_search();
    else
      seat_best();
  });
  connect(next_, &QPushButton::clicked, this, [this] { emit go_to(Step::marking); });
  connect(canvas_, &PartCanvas::angle_clicked, this,
          [this] { emit say("First or third angle is chosen in the Drawing step"); });
  connect(canvas_, &PartCanvas::grabbed, this, [this] {
    stop_search();
    grabbed_ = state_.pose;
  });
  connect(canvas_, &PartCanvas::dragged, this, [this](const Vec3& move, const Vec3& turn) {
    const Pose shown = then(grabbed_.inverse(), picture_);
    const Vec3 middle = shown.apply(Vec3::Zero());
    show_pose(then(moved(shown, middle, move, turn), picture_.inverse()).inverse());
  });
  connect(canvas_, &PartCanvas::released, this, [this] {
    if (!same(grabbed_, state_.pose)) keep(state_.pose, false, "Move %1 by hand");
  });
}

void SeatPage::make_search() {
  glide_.setDuration(glide_ms);
  glide_.setStartValue(0.0);
  glide_.setEndValue(1.0);
  glide_.setEasingCurve(QEasingCurve::InOutCubic);
  connect(&glide_, &QVariantAnimation::valueChanged, this, [this](const QVariant& value) {
    const double f = value.toDouble();
    const Vec3 turn = vector_from_rotation(glide_target_.rotation * glide_from_.rotation.transpose());
    Pose between;
    between.rotation = rotation_from_vector(f * turn) * glide_from_.rotation;
    between.translation = (1 - f) * glide_from_.translation + f * glide_target_.translation;
    show_pose(between);
  });
  connect(&glide_, &QVariantAnimation::finished, this, [this] {
    keep(glide_target_, true, "Best seat for %1");
    emit settled();
  });
}

void SeatPage::refresh() {
  glide_.stop();
  if (search_.forget_other() && std::exchange(purpose_, Purpose::none) == Purpose::move)
    emit say("The search was given up: what it was for has changed. Seat it best once more.");
  auto fresh = piece_state(document_.build(), document_.piece());
  const bool another = fresh.piece != shown_piece_;
  const bool moved_elsewhere = !same(fresh.pose, state_.pose);
  state_ = std::move(fresh);
  shown_piece_ = state_.piece;
  if (another ||
      vector_from_rotation(state_.pose.rotation * picture_.rotation.transpose()).norm() > radians(3))
    picture_ = state_.pose;
  build::Judgement judgement;
  if (const auto now = document_.build().judgement_of(state_.piece)) judgement = now->second;
  if (another || moved_elsewhere || !same(answer_.pose, state_.pose) || !(judgement == shown_judgement_))
    have_answer_ = false;
  shown_judgement_ = judgement;
  show_pose(state_.pose);
  next_->setEnabled(state_.can_judge());
  next_->set_words("Mark out", "jacks, lines and a sheet to print", {}, row_of(Step::marking).key);
  if (state_.best && !have_answer_ && state_.can_judge()) start_search(Purpose::explain);
  show_panels();
}

/// Judge and rescue work out much; only the one shown is filled.
void SeatPage::show_panels() {
  if (tabs_->chosen() == judge_face)
    judge_->show_state(state_, have_answer_ && same(answer_.pose, state_.pose) ? &answer_ : nullptr);
  if (tabs_->chosen() == rescue_face) rescue_->show_state(state_);
  if (tabs_->chosen() == sure_face) sure_->show_state(state_);
}

void SeatPage::show_pose(const Pose& pose) {
  state_.pose = pose;
  if (!state_.input.seat.points.empty()) state_.margins = casting::margins_at(state_.input.seat, pose);
  std::vector<int> must;
  if (have_answer_)
    for (const auto& hold : answer_.held_by) must.push_back(hold.point);
  canvas_->set_unit(document_.unit());
  auto scene = piece_scene(document_.build(), state_, pose, must);
  if (tabs_->chosen() == sure_face) {
    scene.spots = sure_->advice_spots();
  }
  canvas_->set_scene(std::move(scene), document_.build().info().third_angle);
  canvas_->set_shown(then(pose.inverse(), picture_));
  show_margins();
  show_wall();
  show_holds();
}

/// Of a casting drawn as a solid: how thick its thinnest wall is behind the touches, as it lies now.
void SeatPage::show_wall() {
  wall_row_->hide();
  const auto solid = state_.cast && state_.can_judge() ? document_.solid_of(state_.part) : nullptr;
  if (!solid || !solid->picture) return;
  constexpr std::size_t most_asked = 200; // touches; of a scan that many of its points
  const auto& input = state_.input.seat;
  const auto step = input.points.size() / most_asked + 1;
  std::vector<solid::CastTouch> touches;
  std::vector<std::size_t> of;
  for (std::size_t i = 0; i < input.points.size(); i += step) {
    const auto& surface = input.surfaces[static_cast<std::size_t>(input.points[i].surface)];
    if (surface.machined) continue;
    const Vec3 at = state_.pose.apply(input.points[i].xyz);
    touches.push_back({at, stock_direction(surface.shape, at)});
    of.push_back(i);
  }
  const auto wall = solid::thinnest_seated(solid->picture->solid, touches);
  if (wall.touch < 0) return;
  const auto point = of[static_cast<std::size_t>(wall.touch)];
  const auto cast = input.surfaces[static_cast<std::size_t>(input.points[point].surface)].id;
  const auto& face = solid->picture->solid.faces[wall.behind];
  const auto behind = solid::face_words(document_.build(), face.body, face.face_of());
  Reckoning why{"thinnest wall as it lies",
                {{cast + " to " + behind + ", as drawn", wall.drawn, "solid"},
                 {fmt::format("touch {} outside the drawn face", point + 1), wall.over, "survey, seated"}},
                {}};
  wall_row_->show_figure(wall.thick, document_.unit(), std::move(why),
                         filled("At touch %1 on %2, through to %3.", static_cast<int>(point) + 1,
                                name_words(cast), name_words(behind)));
  wall_row_->show();
}

/// The thinnest of the walls to keep, at touches within 3 mm of the cut.
QString SeatPage::wall_near(const sheets::SectionPlane& cut) const {
  constexpr double near = 3;
  const auto& input = state_.input.seat;
  double least = casting::no_margin;
  QString where;
  for (const auto& wall : input.walls)
    for (const auto& point : input.points) {
      if (point.surface != wall.from) continue;
      const Vec3 at = state_.pose.apply(point.xyz);
      if (std::abs(cut.normal.dot(at) - cut.at) > near) continue;
      const double thick = -stock_at(input.surfaces[static_cast<std::size_t>(wall.to)].shape, at);
      if (thick >= least) continue;
      least = thick;
      where = name_words(input.surfaces[static_cast<std::size_t>(wall.from)].id);
    }
  if (where.isEmpty()) return input.walls.empty() ? QString() : "no touch of a walled surface near this cut";
  return QString("thinnest wall near here %1, at %2")
      .arg(sheets::figure_with_unit(least, document_.unit()), where);
}

QString SeatPage::shortfall_words() const {
  QStringList short_by;
  for (const auto& group : state_.margins.groups)
    if (group.touches > 0 && group.margin < 0)
      short_by << QString("%1 short by %2")
                      .arg(qt(casting::group_name(state_.input.seat, group)),
                           sheets::figure_with_unit(-group.margin, document_.unit()));
  return short_by.join(", ");
}

void SeatPage::show_margins() {
  const auto unit = document_.unit();
  const bool judged = state_.can_judge();
  const auto& margins = state_.margins;
  comb_->set_combs(judged ? make_combs(state_.input.seat, state_.pose, margins) : std::vector<Comb>{}, unit);
  best_->setEnabled(judged);
  best_->setToolTip(
      QString("S. By hand: drag, Alt-drag to turn; arrows %1, [ ] 0.05\u00B0, with Shift ten times; "
              "1 2 3 choose the view")
          .arg(sheets::figure_with_unit(step_in(unit), unit)));
  best_->setText(search_.busy() && purpose_ == Purpose::move ? "Stop the search" : "Seat it best");
  rows_box_->setVisible(judged);
  if (!judged) {
    least_->setText("\u2013");
    unit_label_->clear();
    QStringList missing;
    for (const auto& gap : state_.gaps) missing << qt(gap.text);
    verdict_->setText(!state_.cast ? no_touches_words(state_)
                      : state_.input.seat.surfaces.empty()
                          ? QString("State the drawing and touch the casting first.")
                          : "Too few touches to judge:\n" + missing.join("\n"));
    colour_label(verdict_, theme().muted);
    return;
  }
  least_->setText(figure(margins.least, unit, true));
  unit_label_->setText(qt(unit_name(unit)));
  int limiting = 0;
  for (const auto& group : margins.groups) limiting += group.limiting ? 1 : 0;
  const auto other = unit == Unit::mm ? qt(number_text(margins.least / mm_per_thou, 0)) + "\u202Fthou"
                                      : sheets::figure_with_unit(margins.least, Unit::mm);
  if (margins.least >= 0)
    verdict_->setText(
        filled("%1 on %2 %3 \u00B7 it cleans up", other, limiting, limiting == 1 ? "surface" : "surfaces"));
  else
    verdict_->setText(QString("%1 \u00B7 it does not clean up here: %2").arg(other, shortfall_words()));
  colour_label(verdict_, margins.least >= 0 ? theme().good : theme().gone);

  double full = 0.5;
  for (const auto& group : margins.groups)
    if (group.touches > 0) full = std::max(full, group.margin);
  while (rows_.size() < margins.groups.size()) {
    auto* row = new RoomRow;
    rows_box_->layout()->addWidget(row);
    rows_.push_back(row);
  }
  while (rows_.size() > margins.groups.size()) {
    rows_.back()->hide();
    rows_.back()->deleteLater();
    rows_.pop_back();
  }
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const auto& group = margins.groups[i];
    rows_[i]->show_room(qt(casting::group_name(state_.input.seat, group)), group.margin, group.limiting, full,
                        unit, casting::explain_margin(state_.input.seat, group));
  }
}

void SeatPage::show_holds() {
  std::vector<HoldRow> rows;
  std::vector<Ring> rings;
  const auto& input = state_.input.seat;
  const auto touch_name = [&](int surface, int point, bool wall) {
    return filled("%1%2, touch %3", wall ? "wall at " : "",
                  name_words(input.surfaces[static_cast<std::size_t>(surface)].id), point + 1);
  };
  const bool answered = have_answer_ && same(answer_.pose, state_.pose);
  holds_heading_->setVisible(state_.can_judge());
  ease_->clear();
  check_->clear();
  if (!state_.can_judge()) {
    holds_->set_rows({});
    canvas_->set_rings({});
    return;
  }
  if (answered) {
    holds_heading_->setText("What holds it");
    for (const auto& hold : answer_.held_by) {
      const int number = static_cast<int>(rows.size()) + 1;
      rows.push_back({number, touch_name(hold.surface, hold.point, hold.wall_to >= 0), hold.share});
      rings.push_back({hold.point, number});
    }
    // What easing the strongest holder would buy, by its shadow price.
    std::vector<double> share(input.surfaces.size(), 0.0);
    for (const auto& hold : answer_.held_by)
      if (hold.wall_to < 0) share[static_cast<std::size_t>(hold.surface)] += hold.share;
    const auto strongest = std::max_element(share.begin(), share.end());
    if (strongest != share.end() && *strongest > 0.02) {
      const double eased = document_.unit() == Unit::mm ? 0.2 : 0.01 * mm_per_inch;
      ease_->setText(
          QString("Ask %1 less of the %2 and the least room gains about %3.")
              .arg(sheets::figure_with_unit(eased, document_.unit()),
                   name_words(input.surfaces[static_cast<std::size_t>(strongest - share.begin())].id),
                   sheets::figure_with_unit(eased * *strongest, document_.unit())));
    }
    QString words = answer_.check.holds ? "Checked: what holds it is in balance; no small move does better."
                                        : "Not proved best: " + qt(answer_.check.message);
    for (const auto& motion : answer_.undetermined)
      words += QString(motion.one_way ? "\nNothing limits %1: it went no further than the least room asks."
                                      : "\nThe touches say nothing about %1; it was left.")
                   .arg(qt(motion.name()));
    const auto mistakes =
        casting::flagged_touches(document_.build(), state_.piece, state_.input, state_.pose).size();
    if (mistakes > 0)
      words += filled("\n%1 %2 like mistakes: look at them first (Touches, Mistakes).", mistakes,
                      mistakes == 1 ? "touch looks" : "touches look");
    check_->setText(words);
  } else {
    holds_heading_->setText("What limits here");
    for (const auto& group : state_.margins.groups)
      if (group.limiting && group.least_point >= 0) {
        const int number = static_cast<int>(rows.size()) + 1;
        rows.push_back({number, touch_name(group.surface, group.least_point, group.wall >= 0), -1});
        rings.push_back({group.least_point, number});
      }
    if (search_.busy()) check_->setText("Looking for the best seat\u2026");
  }
  holds_->set_rows(std::move(rows));
  canvas_->set_rings(std::move(rings));
}

void SeatPage::seat_best() {
  if (!state_.can_judge() || glide_.state() == QAbstractAnimation::Running) return;
  start_search(Purpose::move);
}

void SeatPage::start_search(Purpose purpose) {
  purpose_ = purpose;
  search_.start(
      [input = state_.input.seat, start = state_.pose,
       wishes = seat_wishes(document_.build(), state_.piece, state_.input)](const auto& should_stop) {
        casting::SeatOptions options;
        options.start = start;
        options.should_stop = should_stop;
        return casting::wished_seat(input, wishes, options);
      });
  show_margins();
  show_holds();
}

void SeatPage::stop_search() {
  if (search_.busy()) purpose_ = Purpose::none;
  search_.forget();
}

void SeatPage::search_ended(casting::SeatResult found) {
  if (!found.usable()) {
    const auto why = qt(found.message);
    QString motions;
    for (const auto& motion : found.undetermined)
      motions += (motions.isEmpty() ? "" : ", ") + qt(motion.name());
    emit say(motions.isEmpty() ? why : QString("%1 (free: %2)").arg(why, motions));
    show_margins();
    show_holds();
    emit settled();
    return;
  }
  if (purpose_ == Purpose::explain) {
    // The kept seat is explained when the search finds nothing better than it.
    if (found.margins.least_weighed <= state_.margins.least_weighed + 1e-6) {
      answer_ = std::move(found);
      answer_.pose = state_.pose;
      have_answer_ = true;
    }
    show_margins();
    show_holds();
    show_panels();
    emit settled();
    return;
  }
  answer_ = std::move(found);
  have_answer_ = true;
  glide_to(answer_.pose);
}

void SeatPage::search_failed(const QString& why) {
  if (purpose_ == Purpose::move) emit say("No seat was found. " + why);
  show_margins();
  show_holds();
  emit settled();
}

void SeatPage::glide_to(const Pose& target) {
  glide_from_ = state_.pose;
  glide_target_ = target;
  picture_ = target; // the part glides to where it stands upright
  glide_.start();
}

void SeatPage::keep(const Pose& pose, bool best, const QString& label) {
  if (!best) have_answer_ = false;
  const auto words = label.arg(piece_title(document_.build(), state_.piece)).toStdString();
  if (!document_.apply(build::set_seat(document_.build(), state_.piece, pose, best, words))) refresh();
}

void SeatPage::nudge(const Vec3& move, const Vec3& turn) {
  if (state_.input.seat.points.empty() || glide_.state() == QAbstractAnimation::Running) return;
  stop_search();
  const Pose shown = then(state_.pose.inverse(), picture_);
  const Pose pose = then(moved(shown, shown.apply(Vec3::Zero()), move, turn), picture_.inverse()).inverse();
  keep(pose, false, turn.norm() > 0 ? "Turn %1 a little" : "Nudge %1");
}

bool SeatPage::handle_key(int key, Qt::KeyboardModifiers modifiers) {
  const auto& axes = canvas_->views().axes[static_cast<std::size_t>(canvas_->active_view())];
  const double mm = step_in(document_.unit()) * (modifiers.testFlag(Qt::ShiftModifier) ? 10 : 1);
  const double turn = radians(step_turn) * (modifiers.testFlag(Qt::ShiftModifier) ? 10 : 1);
  const Vec3 none = Vec3::Zero();
  switch (key) {
  case Qt::Key_S:
    seat_best();
    return true;
  case Qt::Key_1:
    canvas_->set_active_view(sheets::View::front);
    return true;
  case Qt::Key_2:
    canvas_->set_active_view(sheets::View::plan);
    return true;
  case Qt::Key_3:
    canvas_->set_active_view(sheets::View::end);
    return true;
  case Qt::Key_Left:
    nudge(-mm * axes.right, none);
    return true;
  case Qt::Key_Right:
    nudge(mm * axes.right, none);
    return true;
  case Qt::Key_Up:
    nudge(mm * axes.up, none);
    return true;
  case Qt::Key_Down:
    nudge(-mm * axes.up, none);
    return true;
  case Qt::Key_BracketLeft:
  case Qt::Key_BraceLeft:
    nudge(none, turn * axes.toward);
    return true;
  case Qt::Key_BracketRight:
  case Qt::Key_BraceRight:
    nudge(none, -turn * axes.toward);
    return true;
  default:
    return false;
  }
}

bool SeatPage::eventFilter(QObject* watched, QEvent* event) {
  if (watched == canvas_ && event->type() == QEvent::KeyPress) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (!(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) &&
        handle_key(key->key(), key->modifiers()))
      return true;
  }
  return Page::eventFilter(watched, event);
}

} // namespace datrin::app
