// The part as a solid, through the window: a bracket drawn from nothing with the keyboard alone; a bolt
// circle drilled from solid in a cast flange, through seat, marking out and gate without a touch on its
// holes; each size once; in millimetres and in inches.

#include "tests/app/own_build.h"

#include "allowance/plan.h"
#include "app/drawing/part_files.h"
#include "app/shop/shop_dialog.h"
#include "build/edit_drawing.h"
#include "build/edit_making.h"
#include "casting/survey.h"
#include "route/gate.h"
#include "solid/quick_start.h"

#include <QAbstractItemView>
#include <QCompleter>
#include <QElapsedTimer>

#include <random>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;
using solid::BodyRole;
using solid::BodyShape;

namespace {

constexpr int solid_tab = 4;

class Solids : public OwnBuild {
protected:
  app::BodiesPanel& bodies() { return *window->drawing_page()->bodies(); }
  void go_to_solid() {
    window->go_to(MainWindow::drawing);
    window->show_face(solid_tab);
  }
  Id body(const std::string& name) {
    for (const auto& [id, body] : b().bodies_of(window->document().part()))
      if (body.name == name) return id;
    ADD_FAILURE() << name;
    return 0;
  }
  const PartSurface* surface(const std::string& name) {
    for (const auto& [id, s] : b().surfaces_of(window->document().part()))
      if (s.name == name) return &s;
    return nullptr;
  }
  std::shared_ptr<const app::PartSolid> made() {
    window->document().solid_of(window->document().part());
    window->document().solids().wait();
    return window->document().solid_of(window->document().part());
  }
  void size(BodyRole role, const char* text) { enter(bodies().field(role)->edit(), text); }
  void name(const char* text) { enter(bodies().name_edit(), text); }
  static void pick(QComboBox* box, const QString& words) {
    const int k = box->findText(words);
    ASSERT_GE(k, 0) << words.toStdString();
    // As the keyboard does it: to the first, then down.
    box->setFocus();
    QTest::keyClick(box, Qt::Key_Home);
    for (int n = 0; n < k; ++n) QTest::keyClick(box, Qt::Key_Down);
    EXPECT_EQ(box->currentText(), words);
    emit box->activated(k);
  }
  Id quick(solid::QuickShape shape, Unit unit = Unit::mm) {
    std::vector<double> sizes;
    for (const auto& size : solid::quick_starts()[static_cast<std::size_t>(shape)].sizes)
      sizes.push_back(size.begins(unit));
    const auto added = solid::add_quick_part(b(), "Quick", solid::quick_drawing(shape, sizes));
    EXPECT_TRUE(window->document().apply(added.edit));
    window->document().choose(added.id, b().pieces_of(added.id).front().first);
    return added.id;
  }
};

} // namespace

TEST_F(Solids, ABracketIsDrawnFromNothingWithTheKeyboardAlone) {
  const Id id = part("Bracket", 1, "mild steel");
  window->document().choose(id, b().pieces_of(id).front().first);
  go_to_solid();
  EXPECT_TRUE(bodies().figures()->words().startsWith("No bodies yet")) << bodies().figures()->words();
  press(Qt::Key_B, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  name("foot");
  size(BodyRole::length, "80");
  size(BodyRole::width, "40");
  size(BodyRole::height, "3/8 in");
  press(Qt::Key_B, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  name("back");
  size(BodyRole::length, "10");
  size(BodyRole::width, "40");
  size(BodyRole::height, "50");
  pick(bodies().from_box(true), "flush left");
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  name("bolt hole");
  pick(bodies().on_box(), "top of foot");
  size(BodyRole::diameter, "6.5");
  bodies().through_box()->setFocus();
  QTest::keyClick(bodies().through_box(), Qt::Key_Space);
  pick(bodies().from_box(true), "from the right edge");
  size(BodyRole::along, "15");
  pick(bodies().pattern_box(), "row");
  size(BodyRole::pitch, "30");
  const auto solid = made();
  ASSERT_TRUE(solid && solid->picture);
  EXPECT_TRUE(solid->problems.empty());
  // 80 × 40 × 9.525, and 10 × 40 × 50 on it, less two holes of 6.5.
  const double volume = 80 * 40 * 9.525 + 10 * 40 * 50 - 2 * pi / 4 * 6.5 * 6.5 * 9.525;
  EXPECT_NEAR(solid->picture->solid.volume, volume, 1e-6 * volume);
  window->drawing_page()->refresh();
  const auto& weight = *bodies().figures()->rows().front();
  EXPECT_EQ(weight.words(), "391\u202Fg \u00B7 13.8\u202Foz"); // 49.8 cm³ of 7.85 g
  ASSERT_EQ(weight.why().lines.size(), 2U);
  EXPECT_EQ(weight.why().lines[0].figure, "49.8\u202Fcm\u00B3 \u00B7 3.04\u202Fin\u00B3");
  ASSERT_TRUE(surface("bolt hole 2"));
  EXPECT_NEAR(surface("bolt hole")->point.x(), 25, 1e-9);
  EXPECT_NEAR(surface("bolt hole 2")->point.x(), -5, 1e-9);
  // The back stands over the left edge; its holes go through the foot only.
  EXPECT_EQ(bodies().table()->rowCount(), 3);
  EXPECT_EQ(bodies().table()->item(2, 3)->text(),
            "top of foot, from the right edge 15.00, pitch 30.00, row of 2");
  // Undone in the middle and done again.
  const auto records = b().records();
  for (int k = 0; k < 4; ++k) window->document().undo();
  EXPECT_NE(b().records(), records);
  for (int k = 0; k < 4; ++k) window->document().redo();
  EXPECT_EQ(b().records(), records);
}

TEST_F(Solids, ASizeOfABodyIsTheDimensionAndTheDimensionIsTheSize) {
  quick(solid::QuickShape::pedestal);
  go_to_solid();
  bodies().choose(body("boss"));
  size(BodyRole::off, "46");
  window->show_face(1);
  auto* table = window->drawing_page()->dimensions()->table();
  int row = -1;
  for (int r = 0; r < table->rowCount(); ++r)
    if (table->item(r, 0)->text() == "centre height") row = r;
  ASSERT_GE(row, 0);
  QString line;
  for (int c = 0; c < table->columnCount(); ++c) line += table->item(row, c)->text() + ' ';
  EXPECT_TRUE(line.contains("46 mm")) << line.toStdString();
  EXPECT_NEAR(surface("bore")->point.z(), 46, 1e-9);
  // And the other way: typed among the dimensions.
  table->setCurrentCell(row, 0);
  enter(window->drawing_page()->dimensions()->limits_edit(), "44 ±0.05", Qt::Key_Return);
  EXPECT_NEAR(surface("bore")->point.z(), 44, 1e-9);
  EXPECT_EQ(surface("boss")->point.z(), surface("bore")->point.z());
  EXPECT_NEAR(made()->picture->solid.box.high.z(), 44 + 17, 1e-6);
  go_to_solid();
  bodies().choose(body("boss"));
  EXPECT_EQ(bodies().field(BodyRole::off)->value(), 44);
}

TEST_F(Solids, AFaceIsClickedNamedAndSeenAmongTheSurfaces) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  auto* canvas = window->drawing_page()->canvas();
  ASSERT_TRUE(canvas->scene_input().solid);
  press(Qt::Key_R, Qt::ControlModifier | Qt::AltModifier); // a round on its top
  QTest::qWait(150);
  made();
  window->drawing_page()->refresh();
  canvas->draw_again();
  // Its end, in the plan.
  const auto& views = canvas->views();
  const Vec2 px = views.frame[1].to_px(views.axes[1].on_paper({0, 0, 42}));
  QTest::mouseClick(canvas, Qt::LeftButton, {},
                    QPoint(static_cast<int>(px.x()) + 2, static_cast<int>(px.y()) + 2));
  EXPECT_EQ(bodies().chosen(), body("round"));
  ASSERT_TRUE(bodies().face_button()->isVisible());
  EXPECT_EQ(bodies().face_button()->text(), "Make top of round a surface");
  bodies().face_button()->click();
  ASSERT_TRUE(surface("top of round"));
  EXPECT_EQ(surface("top of round")->point, Vec3(0, 0, 42));
  EXPECT_EQ(window->drawing_page()->tabs()->chosen(), 0);
  // A click on a face that is a surface goes there from anywhere.
  const Vec2 front = views.frame[0].to_px(views.axes[0].on_paper({-20, -20, 5}));
  QTest::mouseClick(canvas, Qt::LeftButton, {},
                    QPoint(static_cast<int>(front.x()), static_cast<int>(front.y())));
  const auto row = window->drawing_page()->table()->currentIndex().row();
  EXPECT_EQ(window->drawing_page()->table()->model()->index(row, 0).data().toString(), "front");
}

TEST_F(Solids, ABodyThatCannotBeSaysWhyAtItsPlace) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  size(BodyRole::along, "100");
  made();
  bodies().refresh();
  EXPECT_EQ(bodies().message(),
            "Hole: it meets no metal: look where it is put, and whether it goes the right way.");
  size(BodyRole::along, "10");
  made();
  bodies().refresh();
  EXPECT_EQ(bodies().message(), "");
  size(BodyRole::diameter, "-3");
  EXPECT_EQ(b().find<Body>(body("hole"))->size(BodyRole::diameter)->value, 6);
  EXPECT_FALSE(bodies().field(BodyRole::diameter)->message().isEmpty());
}

TEST_F(Solids, AThreadIsOneOfTheTable) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  pick(bodies().making_box(), "tapped");
  enter(bodies().thread_edit(), "M6.3");
  EXPECT_EQ(b().find<Body>(body("hole"))->thread, "");
  EXPECT_FALSE(bodies().message().isEmpty());
  enter(bodies().thread_edit(), "m6");
  EXPECT_EQ(b().find<Body>(body("hole"))->thread, "M6");
}

/// A surface that stands for something else is drawn beside the solid.
TEST_F(Solids, WhatIsNoFaceOfItIsStillDrawn) {
  quick(solid::QuickShape::plain_block);
  made();
  auto* page = window->drawing_page();
  window->go_to(MainWindow::drawing);
  const auto lines = [&] { return page->canvas()->scene(sheets::View::front).paths.size(); };
  page->refresh();
  const auto before = lines();
  page->add_surface(SurfaceKind::bore);
  const auto id = page->form()->surface();
  auto loose = *b().find<PartSurface>(id);
  loose.point = {0, 0, 80};
  window->document().apply(change(b(), id, loose, "Place"));
  EXPECT_GT(lines(), before);
  EXPECT_GT(page->canvas()->scene(sheets::View::front).high.y(), 80);
}

TEST_F(Solids, AnglesAreTypedAsPeopleSayThem) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  enter(bodies().angle_edit(BodyRole::tilt), "13°");
  EXPECT_NEAR(b().find<Body>(body("hole"))->size(BodyRole::tilt)->value, 13 * pi / 180, 1e-12);
  enter(bodies().angle_edit(BodyRole::tilt), "1 in 12");
  EXPECT_NEAR(b().find<Body>(body("hole"))->size(BodyRole::tilt)->value, std::atan(1.0 / 12), 1e-9);
  // The wall leans with it: nowhere a cosine was typed.
  EXPECT_NEAR(std::abs(surface("hole")->direction.z()), std::cos(std::atan(1.0 / 12)), 1e-9);
  enter(bodies().angle_edit(BodyRole::tilt), "steep");
  EXPECT_NEAR(b().find<Body>(body("hole"))->size(BodyRole::tilt)->value, std::atan(1.0 / 12), 1e-9);
  EXPECT_FALSE(bodies().message().isEmpty());
}

TEST_F(Solids, InInchesSizesAreRoundInInches) {
  window->document().apply(work_in(b(), Unit::inch));
  quick(solid::QuickShape::flange, Unit::inch);
  go_to_solid();
  bodies().choose(body("rim"));
  EXPECT_EQ(bodies().field(BodyRole::diameter)->edit()->text(), "2 in");
  press(Qt::Key_B, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  EXPECT_EQ(bodies().field(BodyRole::length)->edit()->text(), "2.5 in");
}

/// The flange of the issue: cast rim and cored bore are touched, six holes are drilled from solid.
TEST_F(Solids, ABoltCircleFromSolidNeedsNoTouchInSeatMarkingOutAndGate) {
  const Id id = quick(solid::QuickShape::flange);
  go_to_solid();
  bodies().choose(body("bolt hole"));
  bodies().count_box()->setValue(4);
  emit bodies().count_box()->editingFinished();
  const Id piece = b().pieces_of(id).front().first;
  std::vector<Record> touches;
  double order = 0;
  for (const auto& [surface_id, s] : b().surfaces_of(id)) {
    if (s.from_solid) continue;
    const double metal = s.machined ? 1.5 : 0;
    for (int k = 0; k < 8; ++k) {
      const double angle = 2 * pi * k / 8 + 0.1;
      const Vec3 way(std::cos(angle), std::sin(angle), 0);
      Touch t;
      t.piece = piece;
      t.surface = surface_id;
      t.order = order++;
      t.uncertainty = 0.02;
      if (s.round())
        t.centre = s.point + way * (s.diameter / 2 + (is_hole(s.kind) ? -metal : metal)) +
                   Vec3(0, 0, k % 2 == 0 ? 2 : -2);
      else
        t.centre = s.point + 17 * way + s.direction * metal;
      touches.push_back(t);
    }
  }
  ASSERT_TRUE(window->document().apply(add_all(b(), touches, "Touches")));
  const auto input = casting::piece_input(b(), piece);
  EXPECT_TRUE(casting::survey_gaps(input.seat).empty());
  window->go_to(MainWindow::seat);
  press(Qt::Key_S);
  ASSERT_TRUE(QTest::qWaitFor([&] { return b().seat_of(piece).has_value(); }, patience(20000)));
  window->go_to(MainWindow::marking);
  const auto setup = add_setup(b(), id);
  ASSERT_TRUE(window->document().apply(setup.edit));
  auto held = *b().find<build::Setup>(setup.id);
  for (const auto& [surface_id, s] : b().surfaces_of(id))
    if (s.from_solid) held.cuts.push_back(surface_id);
  ASSERT_TRUE(window->document().apply(change(b(), setup.id, held, "Cuts")));
  for (const Id cut : held.cuts) {
    Cut logged;
    logged.piece = piece;
    logged.surface = cut;
    ASSERT_TRUE(window->document().apply(log_cut(b(), logged)));
  }
  const auto gate = route::unclamp_gate(b(), piece, setup.id,
                                        allowance::surface_plans(b(), piece, casting::piece_input(b(), piece),
                                                                 b().seat_of(piece)->second.pose));
  for (const auto& item : gate.items)
    EXPECT_TRUE(item.done || item.kind != route::GateKind::feature) << item.text;
}

TEST_F(Solids, APartGoesOutAsFilesOfEveryKind) {
  quick(solid::QuickShape::flange);
  made();
  const auto text = [&](const QString& path) {
    QFile file(path);
    EXPECT_TRUE(file.open(QIODevice::ReadOnly)) << path;
    return file.readAll();
  };
  using app::PartFile;
  auto& document = window->document();
  EXPECT_EQ(app::export_part(document, PartFile::step, folder.filePath("part.step")), "");
  EXPECT_TRUE(text(folder.filePath("part.step")).startsWith("ISO-10303-21;"));
  EXPECT_EQ(app::export_part(document, PartFile::stl, folder.filePath("part.stl")), "");
  EXPECT_EQ(app::export_part(document, PartFile::pattern_stl, folder.filePath("pattern.stl")), "");
  // Faces and rim each 1 % larger; no bolt holes in a pattern: far fewer triangles.
  EXPECT_LT(text(folder.filePath("pattern.stl")).size(), text(folder.filePath("part.stl")).size() / 2);
  EXPECT_EQ(app::export_part(document, PartFile::views_dxf, folder.filePath("views.dxf")), "");
  const auto views = text(folder.filePath("views.dxf"));
  for (const char* layer : {"VISIBLE", "HIDDEN", "CENTRE"}) EXPECT_GT(views.count(layer), 4) << layer;
  EXPECT_EQ(app::export_part(document, PartFile::face_dxf, folder.filePath("face.dxf")),
            "point at a flat face first: a click in one of the views");
  int flat = 0;
  while (made()->picture->solid.faces[static_cast<std::size_t>(flat)].kind != solid::FaceKind::plane) ++flat;
  EXPECT_EQ(app::export_part(document, PartFile::face_dxf, folder.filePath("face.dxf"), flat), "");
  EXPECT_EQ(text(folder.filePath("face.dxf")).count("\nCIRCLE"), 8); // rim, bore, six holes
  EXPECT_EQ(app::export_build_step(document, folder.filePath("build.step")), "");
  EXPECT_NE(app::export_part(document, PartFile::stl, folder.filePath("own.datrin")), "");
}

TEST_F(Solids, APartDrawnElsewhereComesInAndItsSizesAreReadByPointing) {
  quick(solid::QuickShape::plain_block);
  made();
  ASSERT_EQ(app::export_part(window->document(), app::PartFile::step, folder.filePath("Slide.step")), "");
  ASSERT_TRUE(window->open_file(folder.filePath("Slide.step"))) << window->message();
  EXPECT_EQ(b().find<build::Part>(window->document().part())->name, "Slide");
  go_to_solid();
  const auto solid = made();
  ASSERT_TRUE(solid && solid->picture);
  EXPECT_NEAR(solid->picture->solid.volume, 72000, 1e-6);
  const auto& faces = solid->picture->solid.faces;
  const auto facing = [&](const Vec3& way) {
    for (std::size_t k = 0; k < faces.size(); ++k)
      if (faces[k].shape.direction.dot(way) > 0.99) return static_cast<int>(k);
    return -1;
  };
  bodies().point_at(facing(Vec3::UnitX()));
  EXPECT_EQ(bodies().face_button()->text(), "Make this plane a surface");
  bodies().point_at(facing(-Vec3::UnitX()));
  ASSERT_TRUE(bodies().keep_button()->isVisible());
  EXPECT_EQ(bodies().keep_button()->text(), "60.00\u202Fmm from the last face: keep it as a dimension");
  bodies().keep_button()->click();
  ASSERT_EQ(b().dimensions_of(window->document().part()).size(), 1U);
  const auto dimension = b().dimensions_of(window->document().part()).front().second;
  EXPECT_EQ(dimension.kind, DimensionKind::distance);
  EXPECT_NEAR(dimension.nominal, 60, 1e-9);
  EXPECT_EQ(b().surfaces_of(window->document().part()).size(), 2U);
  // It is one step to take back.
  window->document().undo();
  EXPECT_TRUE(b().surfaces_of(window->document().part()).empty());
}

TEST_F(Solids, AFileThatIsNoneIsToldAndChangesNothing) {
  const auto write = [&](const QByteArray& bytes) {
    QFile file(folder.filePath("bad.step"));
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(bytes);
  };
  const auto records = b().records();
  write("solid cube");
  EXPECT_FALSE(window->open_file(folder.filePath("bad.step")));
  EXPECT_TRUE(window->message().contains("is no STEP file")) << window->message();
  EXPECT_EQ(b().records(), records);
  // Within limits of time: a reader that is given no time says so.
  quick(solid::QuickShape::flange);
  made();
  ASSERT_EQ(app::export_part(window->document(), app::PartFile::step, folder.filePath("good.step")), "");
  app::StepLimits limits;
  limits.memory = qint64{40} << 20;
  EXPECT_FALSE(app::read_step_aside(folder.filePath("good.step"), 0, limits).wrong.isEmpty());
  EXPECT_TRUE(app::read_step_aside(folder.filePath("good.step")).wrong.isEmpty());
}

/// Files with bytes changed, cut and doubled by chance: each is read or refused, within its time; the window
/// stays.
TEST_F(Solids, FilesChangedByChanceAreReadOrRefused) {
  quick(solid::QuickShape::plug);
  made();
  const auto path = folder.filePath("chance.step");
  ASSERT_EQ(app::export_part(window->document(), app::PartFile::step, path), "");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const auto whole_file = file.readAll();
  file.close();
  std::mt19937 random(13);
  app::StepLimits limits;
  limits.seconds = 10;
  int refused = 0;
  constexpr int files = 25;
  for (int k = 0; k < files; ++k) {
    auto bytes = whole_file;
    const auto anywhere = [&] {
      return static_cast<qsizetype>(random() % static_cast<std::size_t>(bytes.size()));
    };
    for (int n = 0; n < 1 + k % 8; ++n) bytes[anywhere()] = static_cast<char>(random() % 256);
    if (k % 5 == 1) bytes.truncate(anywhere());
    if (k % 5 == 2) bytes.insert(anywhere(), bytes.mid(anywhere(), 400));
    QFile changed(path);
    ASSERT_TRUE(changed.open(QIODevice::WriteOnly | QIODevice::Truncate));
    changed.write(bytes);
    changed.close();
    QElapsedTimer clock;
    clock.start();
    const auto read = app::read_step_aside(path, 0, limits);
    EXPECT_LT(clock.elapsed(), patience(25000)) << k;
    EXPECT_NE(read.wrong.isEmpty(), read.step.isEmpty()) << k;
    if (!read.wrong.isEmpty()) {
      ++refused;
      EXPECT_LT(read.wrong.size(), 1000) << k;
    }
  }
  EXPECT_GT(refused, 0);
  EXPECT_LT(refused, files); // a changed figure is a figure
}

/// A touch booked "where it falls" is on the face it was taken on.
TEST_F(Solids, ATouchFindsItsFace) {
  quick(solid::QuickShape::plain_block);
  window->go_to(MainWindow::touches);
  auto* entry = window->touches_page()->entry();
  entry->surface_box()->setCurrentText("where it falls");
  const auto type = [&](const char* x, const char* y, const char* z) {
    enter(entry->coordinate(0), x, Qt::Key_Return);
    enter(entry->coordinate(1), y, Qt::Key_Return);
    enter(entry->coordinate(2), z, Qt::Key_Return);
  };
  type("10", "5", "31.2");
  ASSERT_EQ(b().touches_of(window->document().piece()).size(), 1U);
  const auto touch = b().touches_of(window->document().piece()).front().second;
  EXPECT_EQ(b().find<PartSurface>(touch.surface)->name, "top");
  EXPECT_TRUE(entry->message().contains("Kept: top")) << entry->message();
  type("200", "200", "200");
  EXPECT_EQ(b().touches_of(window->document().piece()).size(), 1U);
  EXPECT_TRUE(entry->message().contains("say which it is on")) << entry->message();
}

TEST_F(Solids, AnOffcutPutByIsOfferedAndTaken) {
  const Id id = quick(solid::QuickShape::stepped_shaft);
  auto part = *b().find<build::Part>(id);
  part.material = "mild steel";
  window->document().apply(change(b(), id, part, "Material"));
  app::ShopDialog shop(window->document(), nullptr);
  shop.show();
  shop.offcut_form()->setCurrentText("round bar");
  shop.offcut_material()->setText("mild steel");
  shop.offcut_width()->setText("22");
  shop.offcut_length()->setText("250");
  shop.add_offcut_button()->click();
  ASSERT_EQ(shop.offcuts()->rowCount(), 1) << shop.message();
  window->go_to(MainWindow::drawing);
  window->show_face(3);
  auto* sold = window->drawing_page()->stock()->sold();
  ASSERT_GT(sold->count(), 1);
  EXPECT_TRUE(sold->item(0)->text().startsWith("in the shop: 22.00\u202Fmm round bar"))
      << sold->item(0)->text();
  sold->setCurrentRow(0);
  emit sold->itemActivated(sold->item(0));
  EXPECT_EQ(b().stock_of(id)->second.width, 22);
  EXPECT_LT(b().offcuts().front().second.length, 250);
  window->document().undo();
  EXPECT_EQ(b().offcuts().front().second.length, 250);
}

/// A material typed whole: the first Enter closes the names that are offered, the second keeps it.
void type_material(QLineEdit* field, const char* name) {
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, name);
  field->completer()->popup()->hide();
  QTest::keyClick(field, Qt::Key_Return);
}

TEST_F(Solids, AnotherMaterialThanTheDrawingsSaysWhatItMeans) {
  const Id id = part("Crank", 1, "cast iron");
  window->document().choose(id, b().pieces_of(id).front().first);
  window->go_to(MainWindow::drawing);
  auto* page = window->drawing_page();
  EXPECT_FALSE(page->condition_box()->isVisible()); // iron has only one
  page->instead_button()->click();
  ASSERT_TRUE(page->drawn_edit()->isVisible());
  type_material(page->drawn_edit(), "mild steel");
  EXPECT_TRUE(page->consequences().startsWith("In place of mild steel: 60 % as strong before it yields"))
      << page->consequences();
  EXPECT_TRUE(page->consequences().contains("breaks out where a cut leaves it")) << page->consequences();
  enter(page->why_edit(), "none in the rack");
  EXPECT_EQ(b().find<build::Part>(id)->material_reason, "none in the rack");
  type_material(page->drawn_edit(), "mild stel");
  EXPECT_TRUE(page->consequences().contains("is no material of the table")) << page->consequences();
  type_material(page->material_edit(), "silver steel");
  ASSERT_TRUE(page->condition_box()->isVisible());
  page->condition_box()->setCurrentIndex(2);
  emit page->condition_box()->activated(2);
  EXPECT_EQ(b().find<build::Part>(id)->condition, "hardened and tempered");
}

/// Drilled where it was pointed: the face becomes a surface, the hole stands on it; one step to take back.
TEST_F(Solids, AHoleIsDrilledInAPartDrawnElsewhere) {
  quick(solid::QuickShape::plain_block);
  made();
  ASSERT_EQ(app::export_part(window->document(), app::PartFile::step, folder.filePath("Slide.step")), "");
  ASSERT_TRUE(window->open_file(folder.filePath("Slide.step"))) << window->message();
  go_to_solid();
  const auto before = made();
  int top = -1;
  for (std::size_t k = 0; k < before->picture->solid.faces.size(); ++k)
    if (before->picture->solid.faces[k].shape.direction.z() > 0.99) top = static_cast<int>(k);
  bodies().point_at(top);
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  size(BodyRole::diameter, "8");
  bodies().through_box()->setFocus();
  QTest::keyClick(bodies().through_box(), Qt::Key_Space);
  EXPECT_TRUE(bodies().on_box()->currentText().startsWith("surface plane"))
      << bodies().on_box()->currentText();
  EXPECT_TRUE(bodies().table()->item(1, 3)->text().startsWith("plane"));
  const auto after = made();
  EXPECT_TRUE(after->problems.empty()) << after->problems.front().words;
  EXPECT_NEAR(before->picture->solid.volume - after->picture->solid.volume, pi * 16 * 30, 1e-5);
  for (int k = 0; k < 3; ++k) window->document().undo();
  EXPECT_EQ(b().bodies_of(window->document().part()).size(), 1U);
  EXPECT_TRUE(b().surfaces_of(window->document().part()).empty());
}

TEST_F(Solids, AConeIsTypedByItsTaper) {
  window->document().apply(work_in(b(), Unit::inch));
  const Id id = part("Plug", 1, "silver steel");
  window->document().choose(id, b().pieces_of(id).front().first);
  go_to_solid();
  bodies().add(BodyShape::cone, false);
  size(BodyRole::diameter, "1");
  size(BodyRole::height, "2");
  enter(bodies().angle_edit(BodyRole::taper), "3/4 in/ft");
  // Three quarters of an inch to the foot: an eighth over two inches (common practice).
  EXPECT_EQ(bodies().field(BodyRole::top_diameter)->edit()->text(), "0.875 in");
  EXPECT_EQ(bodies().angle_edit(BodyRole::taper)->text(), "1 in 16");
  EXPECT_TRUE(bodies().table()->item(0, 2)->text().contains("1 in 16"))
      << bodies().table()->item(0, 2)->text();
  size(BodyRole::top_diameter, "1/2");
  EXPECT_EQ(bodies().angle_edit(BodyRole::taper)->text(), "");
  enter(bodies().angle_edit(BodyRole::taper), "steep");
  EXPECT_FALSE(bodies().message().isEmpty());
  EXPECT_EQ(bodies().field(BodyRole::top_diameter)->edit()->text(), "0.5 in");
}

TEST_F(Solids, AKnobIsTurnedByItsProfile) {
  const Id id = part("Knob", 1, "brass");
  window->document().choose(id, b().pieces_of(id).front().first);
  go_to_solid();
  bodies().add(BodyShape::turned, false);
  auto* table = bodies().profile();
  ASSERT_TRUE(table->isVisible());
  const auto type = [&](int row, int column, const char* text) {
    table->setCurrentCell(row, column);
    table->editItem(table->item(row, column));
    auto* editor = table->findChild<QLineEdit*>();
    ASSERT_TRUE(editor);
    editor->selectAll();
    QTest::keyClicks(editor, text);
    QTest::keyClick(editor, Qt::Key_Return);
    QTest::qWait(1);
  };
  // What it begins with, emptied from the end; then half a ball of 20.
  while (table->rowCount() > 2) type(table->rowCount() - 2, 0, " ");
  type(0, 1, "20");
  type(1, 0, "10");
  type(1, 1, "0");
  type(1, 2, "10");
  const auto& profile = b().find<Body>(body("turned"))->profile;
  ASSERT_EQ(profile.size(), 2U);
  EXPECT_EQ(profile[1], (ProfilePoint{10, 0, 10}));
  const auto solid = made();
  ASSERT_TRUE(solid && solid->picture) << (solid ? solid->problems.front().words : "");
  EXPECT_NEAR(solid->picture->solid.volume, 2.0 / 3 * pi * 1000, 1e-4);
  type(1, 2, "3");
  made();
  bodies().refresh();
  EXPECT_TRUE(bodies().message().contains("too small to reach it")) << bodies().message();
  type(1, 1, "ten");
  EXPECT_EQ(b().find<Body>(body("turned"))->profile[1].diameter, 0);
  EXPECT_TRUE(bodies().message().contains("It stays as it was")) << bodies().message();
}

/// Nobody types the size of a tapped hole: its thread says it.
TEST_F(Solids, AThreadSizesItsHoleAndIsDrawnThin) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  pick(bodies().making_box(), "tapped");
  const auto thin = [&] {
    made();
    window->drawing_page()->refresh();
    int count = 0;
    for (const auto& path : window->drawing_page()->canvas()->scene(sheets::View::plan).paths)
      count += path.role == sheets::Role::smooth ? 1 : 0;
    return count;
  };
  const int before = thin();
  enter(bodies().thread_edit(), "M6");
  EXPECT_EQ(bodies().field(BodyRole::diameter)->value(), 5); // ISO 2306
  EXPECT_EQ(thin(), before + 1);                             // three quarters of a circle
  EXPECT_EQ(window->undo_action()->text(), "Undo: Thread of hole");
}

TEST_F(Solids, ATubeIsPutByWithItsBore) {
  app::ShopDialog shop(window->document(), nullptr);
  shop.show();
  shop.offcut_form()->setCurrentText("tube");
  ASSERT_TRUE(shop.offcut_bore()->isVisible());
  shop.offcut_material()->setText("brass");
  shop.offcut_width()->setText("20");
  shop.offcut_length()->setText("100");
  shop.add_offcut_button()->click();
  EXPECT_EQ(shop.offcuts()->rowCount(), 0);
  EXPECT_EQ(shop.message(), "Say what bore the tube has.");
  shop.offcut_bore()->setText("16");
  shop.add_offcut_button()->click();
  ASSERT_EQ(shop.offcuts()->rowCount(), 1) << shop.message();
  EXPECT_EQ(b().offcuts().front().second.bore, 16);
  shop.offcut_form()->setCurrentText("round bar");
  EXPECT_FALSE(shop.offcut_bore()->isVisible());
}

/// A screen reader toggles a box without a click.
TEST_F(Solids, ATickByAScreenReaderCounts) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  press(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
  QTest::qWait(150);
  bodies().through_box()->toggle();
  EXPECT_TRUE(b().find<Body>(body("hole"))->through);
  const auto records = b().records();
  window->document().undo();
  EXPECT_FALSE(bodies().through_box()->isChecked()); // shown, not taken for another wish
  window->document().redo();
  EXPECT_EQ(b().records(), records);
}

/// How the parts looked is kept with the file: opened again, the shelf has them without a solid being made;
/// one that is drawn otherwise by now has none. A file that is only looked at is left as it is.
TEST_F(Solids, SilhouettesAreKeptWithTheFile) {
  open_demo();
  choose_piece(0);
  const Id pedestal = window->document().part();
  const auto shown = [&](Id part) { return !window->document().silhouettes().of(b(), part).isNull(); };
  const auto paint = [&] {
    QTest::qWait(20);
    window->grab();
  };
  paint();
  window->document().solids().wait();
  paint();
  EXPECT_TRUE(shown(pedestal));
  const auto read = [](const QString& path) {
    QFile file(path);
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    return file.readAll();
  };
  open_window(); // and with it the file is let go of
  const auto looked_at = read(demo_path());
  open_demo();
  EXPECT_FALSE(shown(pedestal)); // nothing was edited: nothing was written
  open_window();
  EXPECT_EQ(read(demo_path()), looked_at);
  open_demo();
  paint();
  window->document().solids().wait();
  paint();
  auto named = *b().find<build::Part>(pedestal);
  named.name = "Pedestal";
  ASSERT_TRUE(window->document().apply(change(b(), pedestal, named, "Name")));
  open_window();
  open_demo();
  EXPECT_TRUE(shown(pedestal));
  EXPECT_EQ(b().find<build::Part>(pedestal)->name, "Pedestal");
  for (const auto& [id, body] : b().bodies_of(pedestal)) {
    auto wider = body;
    wider.count = 2;
    ASSERT_TRUE(window->document().apply(change(b(), id, wider, "Number")));
    break;
  }
  EXPECT_FALSE(shown(pedestal));
}

TEST_F(Solids, SilhouettesThatCannotBeReadAreLeftOut) {
  app::Silhouettes kept;
  QImage picture(126, 102, QImage::Format_ARGB32_Premultiplied);
  picture.fill(QColor(0, 255, 0));
  kept.keep(b(), 7, picture);
  const auto text = kept.text();
  app::Silhouettes again;
  again.read(text);
  EXPECT_EQ(again.of(b(), 7), picture);
  for (const std::string& spoilt :
       {std::string("7"), std::string("7 zz AAAA"), text.substr(0, text.size() / 2), "x" + text,
        std::string("7 1 AAAA\n\n \n")}) {
    again.read(spoilt);
    EXPECT_TRUE(again.of(b(), 7).isNull()) << spoilt.substr(0, 20);
  }
}
