#include "app/drawing/surface_form.h"

#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "geometry/direction_text.h"
#include "sheets/figures.h"
#include "stock/part_stock.h"

#include <QGridLayout>
#include <QVBoxLayout>

#include <cmath>

namespace datrin::app {

using build::PartSurface;
using sheets::qt;

namespace {

int label_width() {
  return theme().ipx(70);
}

QWidget* named(const QString& words, QWidget* field) {
  field->setAccessibleName(words);
  return labelled(words, field, 70);
}

} // namespace

SurfaceForm::SurfaceForm(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), name_(new QLineEdit), kind_(new QComboBox),
      finish_(new QComboBox), direction_(new QComboBox), direction_label_(new QLabel),
      direction_wrong_(muted_label()), taper_(new QLineEdit), taper_words_(new MessageLine) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addWidget(named("Name", name_));
  kind_->addItems(shown_words<SurfaceKind>());
  column->addWidget(named("Kind", kind_));
  finish_->addItems({"machined", "as cast", "made from solid"});
  column->addWidget(named("Finish", finish_));

  add_place();
  add_sizes();
  connect_fields();
}

void SurfaceForm::add_place() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  add(
      "x", [](PartSurface& s, double v) { s.point.x() = v; },
      [](const PartSurface& s) { return s.point.x(); }, true, true);
  add(
      "y", [](PartSurface& s, double v) { s.point.y() = v; },
      [](const PartSurface& s) { return s.point.y(); }, true, true);
  add(
      "z", [](PartSurface& s, double v) { s.point.z() = v; },
      [](const PartSurface& s) { return s.point.z(); }, true, true);

  direction_->setEditable(true);
  direction_->setInsertPolicy(QComboBox::NoInsert);
  direction_->addItems({"+x", "\u2212x", "+y", "\u2212y", "+z", "\u2212z"});
  auto* direction_row = new QWidget;
  auto* direction_box = new QHBoxLayout(direction_row);
  direction_box->setContentsMargins(0, 0, 0, 0);
  direction_box->setSpacing(8);
  direction_label_->setFixedWidth(label_width());
  direction_label_->setBuddy(direction_);
  direction_box->addWidget(direction_label_);
  direction_box->addWidget(direction_, 1);
  column->addWidget(direction_row);
  direction_wrong_->hide();
  colour_label(direction_wrong_, theme().gone);
  column->addWidget(direction_wrong_);
}

void SurfaceForm::add_sizes() {
  auto* column = static_cast<QVBoxLayout*>(layout());
  add(
      "Diameter", [](PartSurface& s, double v) { s.diameter = v; },
      [](const PartSurface& s) { return s.diameter; }, false, true, must_be_positive);
  column->addWidget(taper_row_ = named("Taper", taper_));
  taper_->setPlaceholderText("1 in 20, or the whole angle");
  column->addWidget(taper_words_);
  connect(taper_, &QLineEdit::editingFinished, this, [this] { keep_taper(); });
  add(
      "Width", [](PartSurface& s, double v) { s.width = v; }, [](const PartSurface& s) { return s.width; },
      true, false, must_not_be_negative);
  add(
      "Height", [](PartSurface& s, double v) { s.height = v; }, [](const PartSurface& s) { return s.height; },
      true, false, must_not_be_negative);
  add(
      "Length", [](PartSurface& s, double v) { s.height = v; }, [](const PartSurface& s) { return s.height; },
      false, true, must_not_be_negative);
  add(
      "Stock", [](PartSurface& s, double v) { s.required = v; },
      [](const PartSurface& s) { return s.required; }, true, true, must_not_be_negative);
}

/// Fields that go after this say that editing is finished when one had the keyboard.
SurfaceForm::~SurfaceForm() {
  for (auto* edit : findChildren<QLineEdit*>()) edit->disconnect(this);
}

void SurfaceForm::connect_fields() {
  connect(name_, &QLineEdit::editingFinished, this, [this] {
    const auto* now = current();
    if (now == nullptr || !name_->isModified()) return;
    name_->setModified(false);
    auto changed = *now;
    changed.name = name_->text().trimmed().toStdString();
    if (changed.name.empty()) {
      show_from_start(name_, whole(now->name)); // a surface keeps its name until it has another
      return;
    }
    keep(changed, "Name");
  });
  connect(kind_, &QComboBox::activated, this, [this](int k) {
    if (const auto* now = current()) {
      keep(build::of_kind(*now, static_cast<SurfaceKind>(k), document_.unit()), "Kind");
    }
  });
  connect(finish_, &QComboBox::activated, this, [this](int k) {
    if (const auto* now = current()) {
      auto changed = *now;
      changed.machined = k != 1;
      changed.from_solid = k == 2;
      keep(changed, "Finish");
    }
  });
  connect(direction_, &QComboBox::activated, this, [this] { keep_direction(); });
  connect(direction_->lineEdit(), &QLineEdit::editingFinished, this, [this] { keep_direction(); });
}

void SurfaceForm::add(const QString& name, Setter set, double (*get)(const PartSurface&), bool for_plane,
                      bool for_round, LengthRule rule) {
  auto* field = new LengthField(name);
  field->set_label_width(label_width());
  if (rule) field->set_rule(std::move(rule));
  layout()->addWidget(field);
  entries_.push_back({field, set, get, for_plane, for_round});
  connect(field, &LengthField::committed, this, [this, set, name](double mm) {
    if (const auto* now = current()) {
      auto changed = *now;
      set(changed, mm);
      keep(changed, name);
    }
  });
  connect(field, &LengthField::previewed, this, [this, set](double mm) {
    if (const auto* now = current()) {
      auto changed = *now;
      set(changed, mm);
      emit previewed(changed);
    }
  });
}

LengthField* SurfaceForm::field(const QString& name) const {
  for (const auto& entry : entries_)
    if (entry.field->edit()->accessibleName() == name) return entry.field;
  return nullptr;
}

const PartSurface* SurfaceForm::current() const {
  return document_.build().find<PartSurface>(id_);
}

void SurfaceForm::keep(const PartSurface& changed, const QString& what) {
  document_.apply(build::change(document_.build(), id_, changed, what.toStdString()));
}

void SurfaceForm::keep_direction() {
  const auto* now = current();
  if (now == nullptr) return;
  const auto direction = parse_direction(direction_->currentText().toStdString());
  direction_wrong_->setVisible(!direction);
  if (!direction) {
    direction_wrong_->setText(
        QString(
            "\"%1\" is not a direction: write +x, \u2212z, or three numbers such as 0.6 0 0.8. It stays %2.")
            .arg(direction_->currentText(), qt(direction_text(now->direction))));
    return;
  }
  auto changed = *now;
  changed.direction = *direction;
  if ((changed.direction - now->direction).norm() > 1e-12) keep(changed, "Direction");
}

void SurfaceForm::keep_taper() {
  const auto* now = current();
  if (now == nullptr || !taper_->isModified()) return;
  const auto read = parse_angle(taper_->text().toStdString(), angle_options(TaperOf::cone));
  if (!read.ok)
    return taper_words_->refuse(
        QString("%1. It stays %2.").arg(qt(read.message), qt(taper_text(2 * now->half_angle))));
  auto changed = *now;
  changed.half_angle = read.radian / 2;
  if (const auto wrong = shape_wrong(changed.shape()); !wrong.empty())
    return taper_words_->refuse("Taper: the surface " + qt(wrong));
  taper_->setModified(false);
  keep(changed, "Taper");
}

void SurfaceForm::show_taper(const PartSurface& s, bool another) {
  const bool cone = is_cone(s.kind);
  if (!cone || (!another && taper_->isModified())) return;
  taper_->setText(qt(taper_text(2 * s.half_angle)));
  taper_->setModified(false);
  taper_words_->tell(QString("On the diameter. Whole angle %1, half %2. It widens along its axis; the "
                             "diameter is that at x, y, z.")
                         .arg(qt(angle_text(2 * s.half_angle)), qt(angle_text(s.half_angle))));
}

void SurfaceForm::show_surface(build::Id id) {
  const bool another = id != id_;
  id_ = id;
  const auto* s = current();
  setEnabled(s != nullptr);
  taper_row_->setVisible(s != nullptr && is_cone(s->kind));
  taper_words_->setVisible(s != nullptr && is_cone(s->kind));
  if (s == nullptr) { // no rows of what is not there
    for (auto& entry : entries_) entry.field->hide();
    return;
  }
  if (another || !name_->hasFocus() || !name_->isModified()) show_from_start(name_, whole(s->name));
  kind_->setCurrentIndex(static_cast<int>(s->kind));
  // Of a face of a body these two are the body's.
  kind_->setEnabled(s->body == 0);
  direction_->setEnabled(s->body == 0);
  finish_->setItemText(1, stock::needs_touches(document_.build(), s->part) ? "as cast" : "as it comes");
  finish_->setCurrentIndex(s->from_solid ? 2 : s->machined ? 0 : 1);
  direction_label_->setText(s->round() ? "Axis" : "Faces");
  direction_->setAccessibleName(direction_label_->text());
  if (another || direction_wrong_->isHidden()) {
    direction_->setEditText(qt(direction_text(s->direction)));
    direction_wrong_->hide();
  }
  show_taper(*s, another);
  for (auto& entry : entries_) {
    const bool stock = entry.field->edit()->accessibleName() == "Stock";
    entry.field->setVisible((s->round() ? entry.for_round : entry.for_plane) &&
                            (!stock || (s->machined && !s->from_solid)));
    entry.field->set_value(entry.get(*s), document_.unit(), id_);
  }
}

} // namespace datrin::app
