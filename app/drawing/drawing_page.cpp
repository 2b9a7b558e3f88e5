#include "app/drawing/drawing_page.h"

#include "app/casting/piece_state.h"
#include "app/marks/column.h"
#include "app/marks/copy_table.h"
#include "app/marks/fields.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "fits/material_change.h"
#include "fits/solids.h"
#include "sheets/figures.h"

#include <QCompleter>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QShortcut>

#include <algorithm>

namespace datrin::app {

using sheets::qt;

DrawingPage::DrawingPage(Document& document)
    : Page(document, Step::drawing), canvas_(new PartCanvas), table_(new QTableView),
      model_(new SurfaceModel(this)), form_(new SurfaceForm(document)), walls_(new WallList(document)),
      part_name_(new QLineEdit), material_(new QLineEdit), material_words_(new MessageLine),
      take_material_(new QPushButton), condition_(choice_box("Condition of the material")),
      instead_(new QPushButton("Other than drawn\u2026")),
      drawn_material_(text_field("Material by the drawing", "the drawing says")),
      why_(text_field("Why another material is taken", "why another is taken")),
      consequences_(new MessageLine), quantity_(new QSpinBox), drawn_(new QWidget),
      dimensions_(new DimensionPanel(document)), foundry_(new FoundryPanel(document)),
      stock_(new StockPanel(document)), bodies_(new BodiesPanel(document)), tables_(new QStackedWidget) {
  draw_solid_of_part(canvas_, document_);
  put_faces({drawn_, dimensions_, foundry_, stock_, bodies_});
  make_picture();
  make_table();
  connect_picture();
  connect_faces();
  make_surfaces_face();
  connect_part();
  connect_material();
}

/// Fields that go after this say that editing is finished when one had the keyboard.
DrawingPage::~DrawingPage() {
  for (auto* edit : {part_name_, material_, drawn_material_, why_}) edit->disconnect(this);
  quantity_->disconnect(this);
}

void DrawingPage::make_picture() {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 8, 8);
  column->setSpacing(8);
  canvas_->set_empty_text("State the finished part", "Draw it as a solid, under Solid at the right: blocks, "
                                                     "rounds, holes; a click makes a face a surface. Or add "
                                                     "planes, bores, bosses and tapers alone, below. Sizes "
                                                     "go in as the drawing gives them: 1 3/8, 35 mm, #30.");
  column->addWidget(canvas_, 62);
  column->addWidget(tables_, 38);
}

void DrawingPage::make_table() {
  auto* stated = new QWidget;
  auto* lower = new QVBoxLayout(stated);
  lower->setContentsMargins(0, 0, 0, 0);
  lower->setSpacing(8);
  auto* bar = new QHBoxLayout;
  bar->setSpacing(6);
  const auto button = [&](const QString& words, const QString& key, auto&& act) {
    // Where the text is large there is room for "Plane" only.
    const auto short_words = words.section(' ', -1);
    auto* b = new QPushButton(theme().large() ? short_words.left(1).toUpper() + short_words.mid(1) : words);
    b->setAccessibleName(words);
    b->setToolTip(key);
    b->setShortcut(QKeySequence(key));
    connect(b, &QPushButton::clicked, this, act);
    bar->addWidget(b);
  };
  button("Add plane", "Ctrl+Shift+P", [this] { add_surface(SurfaceKind::plane); });
  button("Add bore", "Ctrl+Shift+B", [this] { add_surface(SurfaceKind::bore); });
  button("Add boss", "Ctrl+Shift+O", [this] { add_surface(SurfaceKind::boss); });
  button("Add taper", "Ctrl+Shift+C", [this] { add_surface(SurfaceKind::taper_bore); });
  button("Remove", "Ctrl+Backspace", [this] { remove_surface(); });
  bar->addStretch(1);
  auto* frame = muted_label("x right, z up in the front view; the end is seen along x");
  frame->setWordWrap(false);
  frame->setVisible(theme().text_scale <= 1.1);
  bar->addWidget(frame);
  lower->addLayout(bar);

  table_->setModel(model_);
  make_copyable(table_);
  table_->setSelectionBehavior(QAbstractItemView::SelectRows);
  table_->setSelectionMode(QAbstractItemView::SingleSelection);
  table_->verticalHeader()->hide();
  table_->verticalHeader()->setDefaultSectionSize(theme().ipx(24));
  table_->setShowGrid(false);
  table_->setTabKeyNavigation(false);
  table_->setAccessibleName("Surfaces of the part");
  table_->horizontalHeader()->setHighlightSections(false);
  table_->horizontalHeader()->setStretchLastSection(true);
  table_->horizontalHeader()->setMinimumSectionSize(theme().ipx(30));
  const int widths[] = {86, 80, 76, 72, 72, 72, 56, 166, 60};
  for (int c = 0; c < SurfaceModel::column_count; ++c) table_->setColumnWidth(c, theme().ipx(widths[c]));
  lower->addWidget(table_, 1);
  tables_->addWidget(stated);
  tables_->addWidget(dimensions_->table());
  tables_->addWidget(foundry_->table());
  tables_->addWidget(stock_->table());
  tables_->addWidget(bodies_->list());
}

void DrawingPage::connect_picture() {
  connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
          [this](const QModelIndex& now) { choose_row(now.row()); });
  connect(table_, &QTableView::activated, this, [this] { form_->name_edit()->setFocus(); });
  connect(model_, &QAbstractItemModel::modelReset, this, [this] {
    const int row = std::max(0, model_->row_of(chosen_));
    if (model_->rowCount() > 0)
      table_->selectRow(row);
    else
      choose_row(-1);
  });
  connect(canvas_, &PartCanvas::angle_clicked, this, [this] {
    document_.apply(build::lay_out_views(document_.build(), !document_.build().info().third_angle));
  });
  connect(form_, &SurfaceForm::previewed, this,
          [this](const build::PartSurface& surface) { show_canvas(&surface); });
}

void DrawingPage::connect_faces() {
  connect(tabs_, &Tabs::changed, this, [this](int k) {
    tables_->setCurrentIndex(k);
    refresh();
  });
  const auto show_surface = [this](qlonglong id) {
    tabs_->choose(surfaces_face);
    if (const int row = model_->row_of(id); row >= 0) table_->selectRow(row);
  };
  connect(dimensions_, &DimensionPanel::surface_chosen, this, show_surface);
  connect(bodies_, &BodiesPanel::surface_chosen, this, show_surface);
  connect(bodies_, &BodiesPanel::face_lit, this,
          [this](int face) { canvas_->turning()->set_lit_face(face); });
  connect(canvas_, &PartCanvas::face_clicked, this, &DrawingPage::point_at);
  connect(foundry_, &FoundryPanel::say, this, &Page::say);
}

void DrawingPage::make_surfaces_face() {
  auto* side = face_column(drawn_, 6);
  side->addWidget(heading_label("Part"));
  auto* part_row = new QHBoxLayout;
  part_name_->setAccessibleName("Name of the part");
  quantity_->setRange(1, 999);
  quantity_->setAccessibleName("How many");
  quantity_->setSuffix(" off");
  quantity_->setButtonSymbols(QAbstractSpinBox::NoButtons);
  part_row->addWidget(part_name_, 1);
  part_row->addWidget(quantity_);
  side->addLayout(part_row);
  material_->setPlaceholderText("material");
  material_->setAccessibleName("Material");
  side->addWidget(material_);
  QStringList known;
  for (const auto& name : fits::solid_names()) known << sheets::qt(name);
  auto* completer = new QCompleter(known, material_);
  completer->setCaseSensitivity(Qt::CaseInsensitive);
  completer->setFilterMode(Qt::MatchContains);
  material_->setCompleter(completer);
  side->addWidget(material_words_);
  side->addWidget(take_material_);
  side->addWidget(condition_);
  side->addWidget(instead_);
  side->addWidget(drawn_material_);
  side->addWidget(why_);
  side->addWidget(consequences_);
  auto* drawn_names = new QCompleter(known, drawn_material_);
  drawn_names->setCaseSensitivity(Qt::CaseInsensitive);
  drawn_names->setFilterMode(Qt::MatchContains);
  drawn_material_->setCompleter(drawn_names);
  side->addSpacing(8);
  side->addWidget(hairline());
  side->addSpacing(4);
  side->addWidget(heading_label("Surface"));
  side->addWidget(form_);
  side->addSpacing(8);
  side->addWidget(hairline());
  side->addSpacing(4);
  side->addWidget(heading_label("Walls to keep"));
  side->addWidget(walls_);
  side->addStretch(1);
}

void DrawingPage::keep_part(const std::function<void(build::Part&)>& change, const char* what) {
  const auto* part = document_.build().find<build::Part>(document_.part());
  if (part == nullptr) return;
  auto changed = *part;
  change(changed);
  document_.apply(build::change(document_.build(), document_.part(), changed, what));
}

void DrawingPage::connect_part() {
  connect(part_name_, &QLineEdit::editingFinished, this, [this] {
    if (!part_name_->isModified()) return;
    const auto name = part_name_->text().trimmed().toStdString();
    if (!name.empty())
      keep_part([&](build::Part& p) { p.name = name; }, "Name");
    else
      refresh();
  });
  connect(material_, &QLineEdit::editingFinished, this, [this] {
    if (!material_->isModified()) return;
    keep_part(
        [&](build::Part& p) {
          p.material = material_->text().trimmed().toStdString();
          const auto known = fits::conditions_of(p.material);
          if (std::find(known.begin(), known.end(), p.condition) == known.end()) p.condition.clear();
        },
        "Material");
  });
  connect(take_material_, &QPushButton::clicked, this, [this] {
    const auto nearest = fits::find_solid(material_->text().toStdString()).nearest;
    if (!nearest.empty()) keep_part([&](build::Part& p) { p.material = nearest; }, "Material");
  });
  connect(quantity_, &QSpinBox::editingFinished, this, [this] {
    document_.apply(build::set_quantity(document_.build(), document_.part(), quantity_->value()));
  });
}

void DrawingPage::connect_material() {
  connect(condition_, &QComboBox::activated, this, [this](int k) {
    keep_part(
        [&](build::Part& p) { p.condition = k == 0 ? std::string() : condition_->itemText(k).toStdString(); },
        "Condition");
  });
  connect(instead_, &QPushButton::clicked, this, [this] {
    instead_of_ = document_.part();
    refresh();
    drawn_material_->setFocus();
  });
  connect(drawn_material_, &QLineEdit::editingFinished, this, [this] {
    if (!drawn_material_->isModified()) return;
    drawn_material_->setModified(false);
    keep_part([&](build::Part& p) { p.drawn_material = drawn_material_->text().trimmed().toStdString(); },
              "Material by the drawing");
  });
  connect(why_, &QLineEdit::editingFinished, this, [this] {
    if (!why_->isModified()) return;
    why_->setModified(false);
    keep_part([&](build::Part& p) { p.material_reason = why_->text().trimmed().toStdString(); },
              "Why another material");
  });
}

/// Condition, and what it means where another material is taken than the drawing says.
void DrawingPage::show_material(const build::Part& part) {
  const auto conditions = fits::conditions_of(part.material);
  condition_->clear();
  condition_->addItem("as it usually comes");
  for (const auto& name : conditions) condition_->addItem(whole(name));
  condition_->setCurrentIndex(std::max(0, condition_->findText(whole(part.condition))));
  condition_->setVisible(!conditions.empty());
  const bool other = !part.drawn_material.empty() || instead_of_ == document_.part();
  instead_->setVisible(!other && !part.material.empty());
  drawn_material_->setVisible(other);
  why_->setVisible(other);
  if (!(drawn_material_->hasFocus() && drawn_material_->isModified()))
    show_from_start(drawn_material_, whole(part.drawn_material));
  if (!(why_->hasFocus() && why_->isModified())) show_from_start(why_, whole(part.material_reason));
  consequences_->hide();
  if (part.drawn_material.empty()) return;
  const auto unknown = fits::unknown_material(part.drawn_material);
  if (!unknown.empty()) {
    consequences_->refuse(sheets::qt(unknown));
  } else {
    QStringList said;
    for (const auto& words : fits::consequences(part.drawn_material, "", part.material, part.condition))
      said << sheets::qt(words);
    if (said.isEmpty()) return;
    consequences_->tell(filled("In place of %1: %2.", name_words(part.drawn_material), said.join("; ")));
  }
  consequences_->show();
}

void DrawingPage::refresh() {
  const auto& b = document_.build();
  const auto* part = b.find<build::Part>(document_.part());
  side_->setEnabled(part != nullptr);
  if (part == nullptr) {
    model_->set_surfaces({}, document_.unit());
    show_canvas();
    return;
  }
  if (shown_part_ != document_.part()) chosen_ = 0;
  shown_part_ = document_.part();
  show_from_start(part_name_, whole(part->name));
  show_from_start(material_, whole(part->material));
  quantity_->setValue(part->quantity);
  const auto unknown = fits::unknown_material(part->material);
  material_words_->setVisible(!unknown.empty());
  if (!unknown.empty()) material_words_->refuse(sheets::qt(unknown));
  const auto nearest = unknown.empty() ? std::string() : fits::find_solid(part->material).nearest;
  take_material_->setVisible(!nearest.empty());
  show_material(*part);
  take_material_->setText("It is " + literal(name_words(nearest)));
  model_->set_surfaces(b.surfaces_of(document_.part()), document_.unit(),
                       stock::needs_touches(b, document_.part()));
  if (!table_->currentIndex().isValid() && model_->rowCount() > 0)
    table_->selectRow(std::max(0, model_->row_of(chosen_)));
  form_->show_surface(chosen_);
  walls_->refresh();
  const auto wrong = drawing::contradictions(b, document_.part()).size();
  tabs_->set_name(dimensions_face, wrong > 0 ? QString("Dimensions %1").arg(wrong) : QString("Dimensions"));
  if (tabs_->chosen() == dimensions_face) dimensions_->refresh();
  if (tabs_->chosen() == casting_face) foundry_->refresh();
  if (tabs_->chosen() == stock_face) stock_->refresh();
  if (tabs_->chosen() == solid_face) bodies_->refresh();
  show_canvas();
}

void DrawingPage::choose_row(int row) {
  chosen_ = model_->id_at(row);
  form_->show_surface(chosen_);
  canvas_->set_lit_surface(row);
}

void DrawingPage::show_canvas(const build::PartSurface* preview) {
  auto scene = part_scene(document_.build(), document_.part());
  if (preview != nullptr) {
    // The part as it would be: the chosen surface replaced, extents worked out anew.
    sheets::SceneInput typed;
    for (const auto& [id, s] : document_.build().surfaces_of(document_.part())) {
      const auto& shown = id == chosen_ ? *preview : s;
      typed.surfaces.push_back({shown.name, shown.shape(), shown.width, shown.height, shown.machined});
    }
    scene = sheets::with_extents(std::move(typed));
  }
  canvas_->set_scene(std::move(scene), document_.build().info().third_angle);
  canvas_->set_lit_surface(tabs_->chosen() == solid_face ? -1 : model_->row_of(chosen_));
}

/// A face of the solid: where the bodies are shown, the one it is of; else the surface it is. One of a part
/// drawn elsewhere is offered as a surface.
void DrawingPage::point_at(int face) {
  if (tabs_->chosen() == solid_face) return bodies_->point_at(face);
  const auto solid = document_.solid_of(document_.part());
  if (!solid || !solid->picture || face < 0) return;
  if (const auto id = solid::surface_of_face(document_.build(), document_.part(),
                                             solid->picture->solid.faces[static_cast<std::size_t>(face)])) {
    tabs_->choose(surfaces_face);
    if (const int row = model_->row_of(id); row >= 0) table_->selectRow(row);
    canvas_->turning()->set_lit_face(face);
    return;
  }
  tabs_->choose(solid_face);
  bodies_->point_at(face);
}

void DrawingPage::add_surface(SurfaceKind kind) {
  const auto added = build::add_surface(document_.build(), document_.part(), kind);
  if (!added.ok()) {
    emit say(sheets::sentence(added.wrong));
    return;
  }
  chosen_ = added.id;
  if (!document_.apply(added.edit)) return;
  table_->selectRow(model_->row_of(chosen_));
  form_->name_edit()->setFocus();
  form_->name_edit()->selectAll();
}

void DrawingPage::remove_surface() {
  document_.apply(build::take_away(document_.build(), chosen_));
}

} // namespace datrin::app
