// Shapes and features as they are typed: tapers, profiles, threads, angles, what stands on a part drawn
// elsewhere.

#include "app/drawing/drawing_page.h"
#include "build/edit_drawing.h"
#include "tests/app/solids.h"

#include "app/drawing/part_files.h"

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;
using solid::BodyRole;
using solid::BodyShape;

using SolidShapes = Solids;

/// Drilled where it was pointed: the face becomes a surface, the hole stands on it; one step to take back.
TEST_F(SolidShapes, AHoleIsDrilledInAPartDrawnElsewhere) {
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
  added(Qt::Key_H);
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

TEST_F(SolidShapes, AConeIsTypedByItsTaper) {
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

TEST_F(SolidShapes, AKnobIsTurnedByItsProfile) {
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

/// The neck of a handle is fitted to its ferrule: pointed at, it is a surface with a diameter to hold, and
/// the dimension carries the profile.
TEST_F(SolidShapes, TheNeckOfAHandleIsFittedLikeARound) {
  const Id id = part("Handle", 1, "brass");
  window->document().choose(id, b().pieces_of(id).front().first);
  go_to_solid();
  bodies().add(BodyShape::turned, false);
  const Id handle = body("turned");
  window->document().apply(
      solid::set_profile(b(), handle, {{0, 12, 0}, {6, 12, 0}, {6, 8, 0}, {20, 8, 0}}, ""));
  const auto solid = made();
  ASSERT_TRUE(solid && solid->picture);
  int neck = -1;
  const auto& faces = solid->picture->solid.faces;
  for (std::size_t k = 0; k < faces.size(); ++k)
    if (faces[k].shape.round() && std::abs(faces[k].shape.diameter - 8) < 1e-9) neck = static_cast<int>(k);
  bodies().refresh();
  bodies().point_at(neck);
  EXPECT_EQ(bodies().face_button()->text(), "Make side up to place 4 of turned a surface");
  QTest::mouseClick(bodies().face_button(), Qt::LeftButton);
  const auto* fitted = surface("side up to place 4 of turned");
  ASSERT_TRUE(fitted);
  const auto* size = b().find<Body>(handle)->size(BodyRole::diameter, 4);
  ASSERT_TRUE(size);
  auto d = *b().find<Dimension>(size->dimension);
  EXPECT_EQ(d.kind, DimensionKind::size);
  d.nominal = 7.9;
  d.upper = 0.02;
  window->document().apply(change(b(), size->dimension, d, "Limits"));
  bodies().refresh();
  EXPECT_EQ(surface("side up to place 4 of turned")->diameter, 7.9);
  EXPECT_EQ(bodies().profile()->item(3, 1)->text(), "7.90");
  EXPECT_EQ(bodies().profile()->item(2, 1)->text(), "7.90");
}

/// Nobody types the size of a tapped hole: its thread says it.
TEST_F(SolidShapes, AThreadSizesItsHoleAndIsDrawnThin) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  added(Qt::Key_H);
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

TEST_F(SolidShapes, AThreadIsOneOfTheTable) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  added(Qt::Key_H);
  pick(bodies().making_box(), "tapped");
  enter(bodies().thread_edit(), "M6.3");
  EXPECT_EQ(b().find<Body>(body("hole"))->thread, "");
  EXPECT_FALSE(bodies().message().isEmpty());
  enter(bodies().thread_edit(), "m6");
  EXPECT_EQ(b().find<Body>(body("hole"))->thread, "M6");
}

TEST_F(SolidShapes, AnglesAreTypedAsPeopleSayThem) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  added(Qt::Key_H);
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

TEST_F(SolidShapes, InInchesSizesAreRoundInInches) {
  window->document().apply(work_in(b(), Unit::inch));
  quick(solid::QuickShape::flange, Unit::inch);
  go_to_solid();
  bodies().choose(body("rim"));
  EXPECT_EQ(bodies().field(BodyRole::diameter)->edit()->text(), "2 in");
  added(Qt::Key_B);
  EXPECT_EQ(bodies().field(BodyRole::length)->edit()->text(), "2.5 in");
}

/// A screen reader toggles a box without a click.
TEST_F(SolidShapes, ATickByAScreenReaderCounts) {
  quick(solid::QuickShape::plain_block);
  go_to_solid();
  added(Qt::Key_H);
  bodies().through_box()->toggle();
  EXPECT_TRUE(b().find<Body>(body("hole"))->through);
  const auto records = b().records();
  window->document().undo();
  EXPECT_FALSE(bodies().through_box()->isChecked()); // shown, not taken for another wish
  window->document().redo();
  EXPECT_EQ(b().records(), records);
}
