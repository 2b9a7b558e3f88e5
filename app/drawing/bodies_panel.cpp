#include "app/drawing/bodies_panel.h"

#include "app/drawing/bodies_words.h"
#include "app/marks/column.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/now.h"
#include "sheets/figures.h"
#include "threads/threads.h"

#include <utility>

namespace datrin::app {

using build::Body;
using build::HoleMaking;
using build::HoleMouth;
using sheets::figure_with_unit;
using sheets::qt;
using solid::BodyFace;
using solid::BodyRole;
using solid::BodyShape;

namespace {

template <class E>
QStringList words() {
  QStringList list;
  const auto [all, count] = build::words_of<E>();
  for (std::size_t k = 0; k < count; ++k) list << whole(all[k]);
  return list;
}

/// On what a body can be put: its own number and the face, as one number of a choice.
qlonglong place_code(build::Id body, const solid::FaceOf& face) {
  return (static_cast<qlonglong>(body) * 10000 + face.profile_place) * 100 + static_cast<int>(face.face);
}

} // namespace

BodiesPanel::BodiesPanel(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), list_(new BodiesList), form_(new QWidget),
      name_(text_field("Name of the body")), thread_(text_field("Thread", "M6")),
      on_(choice_box("What it is put on")),
      lie_(choice_box("How it lies there", {"stands on it", "lies along it", "lies across it"})),
      from_along_(choice_box("To the right: counted from")), from_across_(choice_box("Up: counted from")),
      mouth_(choice_box("Mouth of the hole", words<HoleMouth>())),
      making_(choice_box("How the hole is made", words<HoleMaking>())),
      pattern_(choice_box("Repeated", words<build::BodyPattern>())), cut_(new QCheckBox("taken away")),
      through_(new QCheckBox("all the way through")), count_(new QSpinBox), count_across_(new QSpinBox),
      sides_(new QSpinBox), profile_(new ProfileTable),
      profile_hint_(
          muted_label("A new place goes into the last row; emptied, a place goes. Arc: the radius of "
                      "the way there, bulging, or with a minus hollow.")),
      message_(new MessageLine), face_button_(new QPushButton), keep_button_(new QPushButton),
      figures_(new SolidFigures(document)) {
  const QStringList along{"from the middle", "from the left edge", "from the right edge", "flush left",
                          "flush right"};
  const QStringList up{"from the middle", "from the lower edge", "from the upper edge", "flush below",
                       "flush above"};
  from_along_->addItems(along);
  from_across_->addItems(up);
  connect_list();
  make_column();
  connect_choices();
  connect(&document_.solids(), &PartSolids::made, this, [this](qlonglong part) {
    if (isVisible() && part == document_.part()) refresh();
  });
}

/// Fields that go after this say that editing is finished when one had the keyboard.
BodiesPanel::~BodiesPanel() {
  for (auto* edit : findChildren<QLineEdit*>()) edit->disconnect(this);
  for (auto* spin : findChildren<QSpinBox*>()) spin->disconnect(this);
}

void BodiesPanel::connect_list() {
  connect(list_, &BodiesList::wanted, this, &BodiesPanel::add);
  connect(list_, &BodiesList::move_wanted, this, &BodiesPanel::move);
  connect(list_, &BodiesList::remove_wanted, this, &BodiesPanel::remove);
  connect(list_, &BodiesList::entered, this, [this] { name_->setFocus(); });
  connect(list_, &BodiesList::chosen, this, [this](qlonglong body) {
    if (body == chosen_) return;
    chosen_ = body;
    face_ = BodyFace::middle;
    pointed_ = before_ = -1;
    show_body();
    light();
  });
}

void BodiesPanel::add_size(QVBoxLayout* column, BodyRole role) {
  Row row;
  if (solid::is_angle(role)) {
    row.angle = text_field(whole(build::words_of<BodyRole>().first[static_cast<std::size_t>(role)]),
                           role == BodyRole::taper ? "1 in 12, 5 %" : "13°, 1 in 12");
    row.row = labelled(row.angle->accessibleName(), row.angle, 104);
    connect(row.angle, &QLineEdit::editingFinished, this, [this, role] { keep_angle(role); });
  } else {
    row.length = new LengthField(whole(build::words_of<BodyRole>().first[static_cast<std::size_t>(role)]));
    row.length->set_label_width(theme().ipx(104));
    row.length->set_compact();
    if (role < BodyRole::along)
      row.length->set_rule(solid::may_be_zero(role) ? must_not_be_negative : must_be_positive);
    row.row = row.length;
    connect(row.length, &LengthField::committed, this, [this, role](double mm) {
      document_.apply(solid::set_body_size(document_.build(), chosen_, role, mm, build::utc_now()));
    });
  }
  row.label = row.row->findChild<QLabel*>();
  column->addWidget(row.row);
  sizes_[role] = row;
}

void BodiesPanel::make_column() {
  auto* side = new QVBoxLayout(this);
  side->setContentsMargins(12, 10, 12, 12);
  side->setSpacing(6);
  side->addWidget(figures_);
  side->addWidget(face_button_);
  side->addWidget(keep_button_);
  side->addWidget(hairline());
  auto* column = new QVBoxLayout(form_);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addWidget(heading_label("Body"));
  column->addWidget(labelled("Name", name_, 104));
  column->addWidget(message_);
  column->addWidget(cut_);
  for (const auto role :
       {BodyRole::flats, BodyRole::length, BodyRole::width, BodyRole::diameter, BodyRole::top_diameter,
        BodyRole::taper, BodyRole::bore, BodyRole::inside_diameter, BodyRole::outside_diameter,
        BodyRole::height, BodyRole::thickness, BodyRole::corner})
    add_size(column, role);
  column->addWidget(profile_);
  column->addWidget(profile_hint_);
  connect(profile_, &ProfileTable::typed, this, [this](const std::vector<build::ProfilePoint>& typed) {
    const auto* now = body();
    if (!now) return;
    document_.apply(solid::set_profile(document_.build(), chosen_, typed, build::utc_now()));
  });
  connect(profile_, &ProfileTable::not_understood, this, [this](const QString& why) {
    message_->refuse(why);
    message_->show();
  });
  column->addWidget(sides_row_ = labelled("Sides", sides_, 104));
  sides_->setRange(2, 100);
  sides_->setAccessibleName("How many sides or spokes");
  column->addWidget(making_row_ = labelled("Made", making_, 104));
  column->addWidget(thread_row_ = labelled("Thread", thread_, 104));
  column->addWidget(through_);
  add_size(column, BodyRole::depth);
  add_size(column, BodyRole::point_angle);
  column->addWidget(mouth_row_ = labelled("Mouth", mouth_, 104));
  for (const auto role : {BodyRole::mouth_diameter, BodyRole::mouth_depth, BodyRole::mouth_angle})
    add_size(column, role);
  column->addSpacing(4);
  column->addWidget(heading_label("Where it is put"));
  column->addWidget(labelled("On", on_, 104));
  column->addWidget(lie_row_ = labelled("It", lie_, 104));
  column->addWidget(from_along_row_ = labelled("Right", from_along_, 104));
  add_size(column, BodyRole::along);
  column->addWidget(from_across_row_ = labelled("Up", from_across_, 104));
  for (const auto role : {BodyRole::across, BodyRole::off, BodyRole::turn, BodyRole::tilt})
    add_size(column, role);
  column->addSpacing(4);
  column->addWidget(pattern_row_ = labelled("Repeated", pattern_, 104));
  auto* counts = new QWidget;
  auto* both = new QHBoxLayout(counts);
  both->setContentsMargins(0, 0, 0, 0);
  count_->setRange(1, 100);
  count_->setAccessibleName("How many");
  count_across_->setRange(1, 100);
  count_across_->setAccessibleName("How many rows");
  both->addWidget(count_);
  both->addWidget(count_across_);
  column->addWidget(count_row_ = labelled("How many", counts, 104));
  for (const auto role : {BodyRole::pitch, BodyRole::pitch_across, BodyRole::circle}) add_size(column, role);
  column->addStretch(1);
  side->addWidget(form_, 1);
  face_button_->hide();
  keep_button_->hide();
}

void BodiesPanel::connect_choices() {
  const auto box = [this](QComboBox* choice, auto&& change, const char* what) {
    connect(choice, &QComboBox::activated, this, [this, change, what](int k) {
      const auto* now = body();
      if (!now) return;
      auto changed = *now;
      change(changed, k);
      keep(changed, what);
    });
  };
  box(
      lie_, [](Body& b, int k) { b.lie = static_cast<build::BodyLie>(k); }, "Lie");
  box(
      from_along_, [](Body& b, int k) { b.from_along = static_cast<build::PlaceFrom>(k); }, "Place");
  box(
      from_across_, [](Body& b, int k) { b.from_across = static_cast<build::PlaceFrom>(k); }, "Place");
  box(
      mouth_, [](Body& b, int k) { b.mouth = static_cast<HoleMouth>(k); }, "Mouth");
  box(
      making_, [](Body& b, int k) { b.making = static_cast<HoleMaking>(k); }, "Making");
  box(
      pattern_,
      [](Body& b, int k) {
        b.pattern = static_cast<build::BodyPattern>(k);
        constexpr int usual_of_circle = 6, usual_of_row = 2;
        if (b.count < 2) b.count = b.pattern == build::BodyPattern::circle ? usual_of_circle : usual_of_row;
        if (b.pattern == build::BodyPattern::grid && b.count_across < 2) b.count_across = usual_of_row;
      },
      "Pattern");
  connect(on_, &QComboBox::activated, this, [this] {
    const auto* now = body();
    if (!now) return;
    auto changed = *now;
    const auto code = on_->currentData().toLongLong();
    changed.surface = code < 0 ? -code : 0;
    changed.on = code < 0 ? 0 : code / 1000000;
    changed.on_profile_place = code < 0 ? 0 : static_cast<int>(code / 100 % 10000);
    changed.face = code < 0 ? BodyFace::middle : static_cast<BodyFace>(code % 100);
    keep(changed, "Place");
  });
  const auto tick = [this](QCheckBox* mark, bool Body::*into, const char* what) {
    on_tick(mark, this, [this, into, what](bool on) {
      const auto* now = body();
      if (!now) return;
      auto changed = *now;
      changed.*into = on;
      keep(changed, what);
    });
  };
  tick(cut_, &Body::cut, "Metal");
  tick(through_, &Body::through, "Depth");
  const auto number = [this](QSpinBox* spin, int Body::*into, const char* what) {
    connect(spin, &QSpinBox::editingFinished, this, [this, spin, into, what] {
      const auto* now = body();
      if (!now || now->*into == spin->value()) return;
      auto changed = *now;
      changed.*into = spin->value();
      keep(changed, what);
    });
  };
  number(count_, &Body::count, "Number");
  number(count_across_, &Body::count_across, "Number");
  number(sides_, &Body::sides, "Sides");
  const auto text = [this](QLineEdit* edit, std::string Body::*into, const char* what, bool needed) {
    connect(edit, &QLineEdit::editingFinished, this, [this, edit, into, what, needed] {
      const auto* now = body();
      if (!now || !edit->isModified()) return;
      edit->setModified(false);
      auto changed = *now;
      changed.*into = edit->text().trimmed().toStdString();
      if (needed && (changed.*into).empty()) return show_body();
      keep(changed, what);
    });
  };
  text(name_, &Body::name, "Name", true);
  connect(thread_, &QLineEdit::editingFinished, this, &BodiesPanel::keep_thread);
  connect(face_button_, &QPushButton::clicked, this, [this] {
    const auto* face = pointed();
    if (!face) return;
    if (const auto id = solid::surface_of_face(document_.build(), document_.part(), *face)) {
      emit surface_chosen(id);
      return;
    }
    const auto made = solid::surface_from_face(document_.build(), document_.part(), *face, true);
    if (!made.ok()) return message_->refuse(sheets::sentence(made.wrong));
    if (document_.apply(made.edit)) emit surface_chosen(made.id);
  });
  connect(keep_button_, &QPushButton::clicked, this, [this] {
    const auto* face = pointed();
    if (!face) return;
    const auto* other = pointed_before();
    const auto made = solid::keep_read_off(document_.build(), document_.part(), *face,
                                           solid::read_off(*face, other) && other ? other : nullptr);
    if (!made.ok()) return message_->refuse(sheets::sentence(made.wrong));
    document_.apply(made.edit);
  });
}

LengthField* BodiesPanel::field(BodyRole role) const {
  return sizes_.at(role).length;
}
QLineEdit* BodiesPanel::angle_edit(BodyRole role) const {
  return sizes_.at(role).angle;
}

const Body* BodiesPanel::body() const {
  return document_.build().find<Body>(chosen_);
}

void BodiesPanel::keep(const Body& changed, const char* what) {
  document_.apply(solid::set_body(document_.build(), chosen_, changed, what));
}

/// A thread of the table under its own name; what is none of them is refused.
void BodiesPanel::keep_thread() {
  const auto* now = body();
  if (!now || !thread_->isModified()) return;
  const auto typed = thread_->text().trimmed().toStdString();
  std::string name;
  if (!typed.empty()) {
    const auto found = threads::find(typed);
    if (!found.thread) {
      message_->refuse(sheets::sentence(found.message));
      message_->show();
      return;
    }
    name = found.thread->name;
  }
  thread_->setModified(false);
  document_.apply(solid::set_thread(document_.build(), chosen_, name, build::utc_now()));
}

void BodiesPanel::keep_angle(BodyRole role) {
  auto* edit = sizes_.at(role).angle;
  if (!edit->isModified() || !body()) return;
  const auto read = parse_angle(edit->text().trimmed().isEmpty() ? "0" : edit->text().toStdString(),
                                role == BodyRole::taper ? angle_options(TaperOf::cone) : angle_options());
  if (!read.ok) {
    message_->refuse(sheets::sentence(read.message));
    message_->show();
    return;
  }
  edit->setModified(false);
  document_.apply(solid::set_body_size(document_.build(), chosen_, role, read.radian, build::utc_now()));
}

void BodiesPanel::choose(build::Id body) {
  list_->choose(body);
}

void BodiesPanel::add(BodyShape shape, bool cut) {
  const auto* now = body();
  solid::NewBody begun;
  begun.shape = shape;
  begun.cut = cut;
  if (now) {
    // On the face that was pointed at; else on the top of what is chosen, or on what a feature is on itself.
    const bool feature = solid::always_cuts(now->shape) || now->cut || solid::works_edges(now->shape);
    begun.surface = feature && face_.face == BodyFace::middle ? now->surface : 0;
    begun.on = feature && face_.face == BodyFace::middle ? now->on : chosen_;
    if (face_.face != BodyFace::middle)
      begun.face = face_;
    else if (feature)
      begun.face = now->stands_on();
  }
  // A face that is none of a body's own (drawn elsewhere) is stood on as a surface.
  if (const auto* face = pointed(); face && face->body == 0 && face->known()) {
    const auto on = solid::add_on_face(document_.build(), document_.part(), *face, begun);
    if (!on.ok()) return message_->refuse(sheets::sentence(on.wrong));
    return begin(on);
  }
  const auto added = solid::add_body(document_.build(), document_.part(), begun);
  if (!added.ok()) return message_->refuse(sheets::sentence(added.wrong));
  begin(added);
}

/// A body just made is chosen, and its name wants typing.
void BodiesPanel::begin(const build::Added& added) {
  if (added.ok()) {
    chosen_ = added.id;
    face_ = {};
    pointed_ = before_ = -1;
  }
  if (!document_.apply(added)) return;
  choose(chosen_);
  name_->setFocus();
  name_->selectAll();
}

void BodiesPanel::remove() {
  if (body()) document_.apply(solid::remove_body(document_.build(), chosen_));
}

void BodiesPanel::move(int by) {
  document_.apply(solid::move_body(document_.build(), chosen_, by));
}

const solid::SolidFace* BodiesPanel::face_at(int face) const {
  const auto solid = document_.solid_of(document_.part());
  if (!solid || !solid->picture || face < 0 || face >= static_cast<int>(solid->picture->solid.faces.size()))
    return nullptr;
  return &solid->picture->solid.faces[static_cast<std::size_t>(face)];
}

void BodiesPanel::point_at(int face) {
  if (face != pointed_) before_ = pointed_;
  pointed_ = face_at(face) ? face : -1;
  face_ = {};
  if (const auto* at = pointed(); at && at->body != 0) {
    chosen_ = at->body;
    choose(chosen_);
    face_ = at->face_of(); // choosing the row forgets it
    pointed_ = face;
    show_body();
  }
  light();
}

void BodiesPanel::light() {
  const auto* face = pointed();
  const auto* now = body();
  face_button_->setVisible(face != nullptr && face->known());
  keep_button_->hide();
  if (face) {
    const auto surface = solid::surface_of_face(document_.build(), document_.part(), *face);
    face_button_->setText(
        surface != 0 ? "Surface " + literal(name_words(build::surface_name(document_.build(), surface)))
        : now && face_.face != BodyFace::middle
            ? "Make " + literal(face_name(*now, face_)) + " a surface"
            : filled("Make this %1 a surface", whole(solid::face_kind_name(face->kind))));
    // What can be read off by pointing: between the last two faces, else the size of a round one.
    const auto* other = pointed_before();
    auto size = other ? solid::read_off(*face, other) : std::nullopt;
    const bool between = size.has_value();
    if (!size) size = solid::read_off(*face, nullptr);
    keep_button_->setVisible(size.has_value());
    if (size)
      keep_button_->setText(filled(between ? "%1 from the last face: keep it as a dimension"
                                           : "\u2300\u202F%1: keep it as a dimension",
                                   figure_with_unit(*size, document_.unit())));
  }
  emit face_lit(pointed_);
}

void BodiesPanel::refresh() {
  if (std::exchange(shown_part_, document_.part()) != document_.part()) {
    chosen_ = 0;
    face_ = BodyFace::middle;
    pointed_ = before_ = -1;
  }
  if (const auto solid = document_.solid_of(document_.part()); of_ != solid) {
    of_ = solid;
    pointed_ = before_ = -1; // its faces count anew
    face_ = {};
  }
  const auto bodies = document_.build().bodies_of(document_.part());
  if (!body() || body()->part != document_.part()) chosen_ = bodies.empty() ? 0 : bodies.back().first;
  list_->show_bodies(document_, chosen_);
  show_body();
  figures_->refresh();
  light();
}

void BodiesPanel::show_on(const Body& body) {
  on_->clear();
  on_->addItem("the drawing's origin", place_code(0, {}));
  for (const auto& [id, other] : document_.build().bodies_of(body.part)) {
    if (id == chosen_) break; // what comes later cannot be stood on
    for (const auto& face : solid::faces_of(solid::form_of(other)))
      on_->addItem(face_name(other, face.face_of()), place_code(id, face.face_of()));
  }
  for (const auto& [id, surface] : document_.build().surfaces_of(body.part))
    if (surface.body == 0) on_->addItem("surface " + name_words(surface.name), -static_cast<qlonglong>(id));
  choose_data(on_, body.surface != 0
                       ? -static_cast<qlonglong>(body.surface)
                       : place_code(body.on, body.on == 0 ? solid::FaceOf{} : body.stands_on()));
}

void BodiesPanel::show_sizes(const Body& body) {
  auto roles = solid::roles_of(solid::form_of(body));
  const auto place = solid::place_roles_of(body);
  roles.insert(roles.end(), place.begin(), place.end());
  for (auto& [role, row] : sizes_) {
    const bool wanted = std::find(roles.begin(), roles.end(), role) != roles.end();
    row.row->setVisible(wanted);
    if (!wanted) continue;
    const auto* size = body.size(role);
    double value = size ? size->value : 0;
    if (role == BodyRole::top_diameter) value = solid::top_diameter(solid::form_of(body));
    auto label = qt(solid::role_words(body, role));
    if (role == BodyRole::along || role == BodyRole::across) label = "by"; // from where stands above it
    if (row.label) row.label->setText(label.left(1).toUpper() + label.mid(1));
    if (row.length) row.length->set_value(value, document_.unit(), static_cast<qint64>(chosen_));
    if (row.angle && !(row.angle->hasFocus() && row.angle->isModified()))
      show_from_start(row.angle, value == 0                ? QString()
                                 : role == BodyRole::taper ? qt(taper_text(value))
                                                           : qt(angle_text(value)));
    const auto* dimension = size ? document_.build().find<build::Dimension>(size->dimension) : nullptr;
    row.row->setToolTip(dimension ? "dimension " + name_words(dimension->name) : QString());
  }
}

void BodiesPanel::show_body() {
  const auto* now = body();
  form_->setVisible(now != nullptr);
  show_message();
  if (!now) return;
  const auto& b = *now;
  const bool own = !solid::works_edges(b.shape), hole = b.shape == BodyShape::hole;
  if (!(name_->hasFocus() && name_->isModified())) show_from_start(name_, whole(b.name));
  if (!(thread_->hasFocus() && thread_->isModified())) show_from_start(thread_, whole(b.thread));
  show_tick(cut_, b.cut);
  const bool metal = own && !solid::is_mark(b.shape) && b.shape != BodyShape::imported;
  cut_->setVisible(metal && !solid::always_cuts(b.shape));
  show_tick(through_, b.through);
  through_->setVisible(solid::form_of(b).cut && own && b.shape != BodyShape::groove);
  lie_->setCurrentIndex(static_cast<int>(b.lie));
  lie_row_->setVisible(metal && !solid::form_of(b).cut);
  from_along_->setCurrentIndex(static_cast<int>(b.from_along));
  from_across_->setCurrentIndex(static_cast<int>(b.from_across));
  from_along_row_->setVisible(own);
  from_across_row_->setVisible(own);
  mouth_->setCurrentIndex(static_cast<int>(b.mouth));
  making_->setCurrentIndex(static_cast<int>(b.making));
  mouth_row_->setVisible(hole);
  making_row_->setVisible(hole);
  thread_row_->setVisible((hole && b.making == HoleMaking::tapped) || b.shape == BodyShape::round);
  pattern_->setCurrentIndex(static_cast<int>(b.pattern));
  pattern_row_->setVisible(own);
  const bool grid = b.pattern == build::BodyPattern::grid;
  const bool counted =
      grid || b.pattern == build::BodyPattern::row || b.pattern == build::BodyPattern::circle;
  count_row_->setVisible(own && counted);
  count_across_->setVisible(grid);
  count_->setValue(b.count);
  count_across_->setValue(b.count_across);
  sides_->setValue(b.sides);
  profile_->setVisible(b.shape == BodyShape::turned);
  profile_hint_->setVisible(b.shape == BodyShape::turned);
  profile_->show_profile(b.profile, document_.unit());
  sides_row_->setVisible(b.shape == BodyShape::prism || b.shape == BodyShape::spokes);
  show_on(b);
  show_sizes(b);
}

void BodiesPanel::show_message() {
  message_->tell({});
  const auto solid = document_.solid_of(document_.part());
  if (solid)
    for (const auto& problem : solid->problems)
      if (problem.body == chosen_) message_->refuse(sheets::sentence(problem.words));
  message_->setVisible(!message_->text().isEmpty());
}

} // namespace datrin::app
