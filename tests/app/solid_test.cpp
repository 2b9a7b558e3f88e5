// The part as a solid, through the window: a bracket drawn from nothing with the keyboard alone; a bolt
// circle drilled from solid in a cast flange, through seat, marking out and gate without a touch on its
// holes; each size once; in millimetres and in inches.

#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "app/shop/shop_page.h"
#include "tests/app/solids.h"

#include "allowance/plan.h"
#include "app/drawing/part_files.h"
#include "build/edit_drawing.h"
#include "build/edit_making.h"
#include "casting/survey.h"
#include "route/gate.h"
#include "solid/quick_start.h"
#include "solid/step_file.h"

#include <QAbstractItemView>
#include <QCompleter>

#include <random>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;
using solid::BodyRole;
using solid::BodyShape;

TEST_F(Solids, ABracketIsDrawnFromNothingWithTheKeyboardAlone) {
  const Id id = part("Bracket", 1, "mild steel");
  window->document().choose(id, b().pieces_of(id).front().first);
  go_to_solid();
  EXPECT_TRUE(bodies().figures()->words().startsWith("No bodies yet")) << bodies().figures()->words();
  added(Qt::Key_B);
  name("foot");
  size(BodyRole::length, "80");
  size(BodyRole::width, "40");
  size(BodyRole::height, "3/8 in");
  added(Qt::Key_B);
  name("back");
  size(BodyRole::length, "10");
  size(BodyRole::width, "40");
  size(BodyRole::height, "50");
  pick(bodies().from_box(true), "flush left");
  added(Qt::Key_H);
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
  added(Qt::Key_R); // a round on its top
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
  added(Qt::Key_H);
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
  const auto good = folder.filePath("good.step").toStdString();
  EXPECT_FALSE(solid::read_step(good, {.memory = std::size_t{40} << 20}).ok());
  EXPECT_TRUE(solid::read_step(good).ok());
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
    const auto read = solid::read_step(path.toStdString(), {.seconds = 10});
    EXPECT_EQ(read.ok(), read.solid.volume > 0) << k << ' ' << read.message;
    if (!read.ok()) {
      ++refused;
      EXPECT_LT(read.message.size(), 1000U) << k;
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
  window->go_to(MainWindow::shop);
  auto* offcuts = window->shop_page()->sheet_of(build::kind_of<build::Offcut>);
  offcuts->type(0, 0, "round bar");
  offcuts->type(0, 1, "mild steel");
  offcuts->type(0, column_called(offcuts, "Across"), "22");
  offcuts->type(0, column_called(offcuts, "Length"), "250");
  ASSERT_EQ(offcuts->rowCount(), 2) << window->shop_page()->message();
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
  EXPECT_TRUE(page->consequences().startsWith("In place of mild steel: 75 % as strong before it yields"))
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

TEST_F(Solids, AnOffcutIsOneOfTheForms) {
  window->go_to(MainWindow::shop);
  auto* offcuts = window->shop_page()->sheet_of(build::kind_of<build::Offcut>);
  offcuts->type(0, 0, "bar end");
  EXPECT_TRUE(window->shop_page()->message().contains("which bar, plate, sheet or tube"))
      << window->shop_page()->message();
  offcuts->type(0, 0, "tube");
  offcuts->type(0, 1, "brass");
  offcuts->type(0, column_called(offcuts, "Across"), "20");
  offcuts->type(0, column_called(offcuts, "Bore"), "16");
  ASSERT_EQ(b().offcuts().size(), 1U);
  EXPECT_EQ(b().offcuts().front().second.bore, 16);
}
