// A part that is not cast, through the window: a sawn block squared by calliper readings alone, a hole
// drilled from solid, a spindle from bar that is sold; in millimetres and in inches.

#include "app/allowance/allowance_page.h"
#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "tests/app/own_build.h"

#include "allowance/plan.h"
#include "app/marks/why.h"
#include "build/edit_drawing.h"
#include "build/edit_making.h"
#include "casting/survey.h"
#include "route/gate.h"
#include "sheets/solid_picture.h"
#include "solid/body_edits.h"
#include "stock/part_stock.h"

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;

namespace {

constexpr int a_second =
    1100; // ms: what was read before a cut is told from what was read after it by the clock

class FromStock : public OwnBuild {
protected:
  Id face(Id of, const char* name, const Vec3& at, const Vec3& out, double width, double height) {
    PartSurface s;
    s.part = of;
    s.name = name;
    s.point = at;
    s.direction = out;
    s.width = width;
    s.height = height;
    return put(s);
  }
  /// A block 50 x 30 x 20 with its dimensions, all faces machined.
  Id block() {
    const Id id = part("Block", 1, "mild steel");
    const Id left = face(id, "left", {-25, 0, 0}, -Vec3::UnitX(), 30, 20),
             right = face(id, "right", {25, 0, 0}, Vec3::UnitX(), 30, 20),
             front = face(id, "front", {0, -15, 0}, -Vec3::UnitY(), 50, 20),
             back = face(id, "back", {0, 15, 0}, Vec3::UnitY(), 50, 20),
             foot = face(id, "foot", {0, 0, -10}, -Vec3::UnitZ(), 50, 30),
             top = face(id, "top", {0, 0, 10}, Vec3::UnitZ(), 50, 30);
    for (const auto& [name, from, to, size] :
         {std::tuple("length", left, right, 50.0), std::tuple("width", front, back, 30.0),
          std::tuple("height", foot, top, 20.0)}) {
      Dimension d;
      d.part = id;
      d.name = name;
      d.kind = DimensionKind::distance;
      d.surface = from;
      d.other = to;
      d.nominal = size;
      d.lower = -0.05;
      d.upper = 0.05;
      d.tolerance = "typed";
      put(d);
    }
    window->document().choose(id, b().pieces_of(id).front().first);
    return id;
  }
  app::StockPanel& stock() { return *window->drawing_page()->stock(); }
  void go_to_stock() {
    window->go_to(MainWindow::drawing);
    window->show_face(3);
  }
  void made_from(StockForm form) {
    stock().form_box()->setCurrentIndex(static_cast<int>(form));
    emit stock().form_box()->activated(static_cast<int>(form));
  }
  void measure(const char* dimension, const char* text) {
    window->go_to(MainWindow::drawing);
    window->show_face(1);
    auto* panel = window->drawing_page()->dimensions();
    for (int r = 0; r < panel->table()->rowCount(); ++r)
      if (panel->table()->item(r, 0)->text() == dimension) panel->table()->setCurrentCell(r, 0);
    enter(panel->measured_edit(), text, Qt::Key_Return);
  }
  app::AllowancePage& allowance(const char* surface) {
    window->go_to(MainWindow::allowance);
    auto& page = *window->allowance_page();
    for (const auto& [id, s] : b().surfaces_of(window->document().part()))
      if (s.name == surface) page.choose_surface(id);
    return page;
  }
  QString metal(const char* surface, int column = 2) {
    go_to_stock();
    for (int r = 0; r < stock().table()->rowCount(); ++r)
      if (stock().table()->item(r, 0)->text() == surface) return stock().table()->item(r, column)->text();
    return "no such surface";
  }
};

} // namespace

// Sawn by eye, nothing typed of its size: read across 52.00 for 50 gives 1 and 1; the right side is milled
// first to where the left one's millimetre is left, 51.00; then the left to 50.00. Nothing was touched.
TEST_F(FromStock, ASawnBlockIsSquaredByCalliperReadingsAlone) {
  block();
  go_to_stock();
  made_from(StockForm::block);
  EXPECT_TRUE(stock().message().contains("No touches are asked for")) << stock().message();
  EXPECT_EQ(metal("left"), QString(QChar(0x2013)));
  measure("length", "52.00");
  EXPECT_EQ(metal("left"), "1.00");
  EXPECT_EQ(metal("right"), "1.00");
  EXPECT_EQ(metal("right", 3), "read across");
  window->go_to(MainWindow::touches);
  EXPECT_TRUE(window->touches_page()->gaps_text().contains("no touches are asked for"))
      << window->touches_page()->gaps_text();
  QTest::qWait(a_second);
  auto& page = allowance("right");
  EXPECT_NE(page.next_text(), QString(QChar(0x2013)));
  enter(page.reading_edit(), "0", Qt::Key_Return); // milled to size: nothing is left on the right
  EXPECT_EQ(page.next_text(), QString(QChar(0x2713)));
  QTest::qWait(a_second);
  measure("length", "51.00");
  auto& left = allowance("left");
  for (const auto& plan : left.plans())
    if (plan.drawn.name == "left") {
      EXPECT_NEAR(plan.now, 1, 1e-9);
    }
  QTest::qWait(a_second);
  enter(left.reading_edit(), "0.02", Qt::Key_Return);
  EXPECT_EQ(allowance("left").next_text(), QString(QChar(0x2713)));
  // Undone to the beginning, nothing of it is left.
  for (int k = 0; k < 40 && stock::form_of(b(), window->document().part()) == StockForm::block; ++k)
    window->document().undo();
  EXPECT_EQ(stock::form_of(b(), window->document().part()), StockForm::casting);
}

// In inches, from flat 1 1/4 x 7/8 sawn 2 1/16 for 50 x 30 x 20: 52.3875 - 50 = 2.3875 over, 1.19375 a side:
// 0.0470 in; put against the left nothing there, 0.0940 on the right.
TEST_F(FromStock, AFlatBarInInchesPutAgainstAFace) {
  window->document().apply(work_in(b(), Unit::inch));
  const Id part = block();
  go_to_stock();
  made_from(StockForm::flat);
  enter(stock().width_field()->edit(), "1 1/4");
  enter(stock().thick_field()->edit(), "7/8");
  enter(stock().length_field()->edit(), "2 1/16");
  EXPECT_EQ(metal("left"), "0.0470");
  auto* put = stock().put_box(0);
  EXPECT_EQ(put->itemText(1), "against left");
  put->setCurrentIndex(1);
  emit put->activated(1);
  EXPECT_EQ(metal("left"), "0.0000");
  EXPECT_EQ(metal("right"), "0.0940");
  EXPECT_EQ(stock().put_box(0)->currentIndex(), 1);
  // Centred again, then shared by hand: the field is there though the sides are alike still. 0.030 on the
  // left, the rest on the right.
  for (const int how : {0, 3}) {
    put->setCurrentIndex(how);
    emit put->activated(how);
  }
  EXPECT_EQ(put->currentIndex(), 3);
  ASSERT_TRUE(stock().share_field(0)->isVisible());
  enter(stock().share_field(0)->edit(), "0.030");
  EXPECT_EQ(metal("left"), "0.0300");
  EXPECT_EQ(metal("right"), "0.0640");
  // 7/8 is 22.2 mm for 20; 3/4 would not hold it, and it is said.
  enter(stock().thick_field()->edit(), "3/4");
  EXPECT_EQ(metal("top", 3), "the stock does not hold it");
  EXPECT_EQ(stock::stock_text(b().stock_of(part)->second, Unit::inch),
            "1.25 in \u00D7 0.75 in flat bar, 2.0625 in long");
}

// A tube whose bore is its outside is refused where it is typed, and the words stay.
TEST_F(FromStock, ATubesBoreStaysBelowItsOutside) {
  const Id id = block();
  go_to_stock();
  made_from(StockForm::tube);
  enter(stock().width_field()->edit(), "30");
  enter(stock().bore_field()->edit(), "30");
  EXPECT_EQ(stock().bore_field()->edit()->text(), "30");
  EXPECT_TRUE(stock().bore_field()->message().contains("below its outside"))
      << stock().bore_field()->message();
  EXPECT_EQ(b().stock_of(id)->second.bore, 0);
  enter(stock().bore_field()->edit(), "20");
  EXPECT_EQ(b().stock_of(id)->second.bore, 20);
}

// What is sold is offered, least metal first, and taken by Enter; F1 says how the metal comes about.
TEST_F(FromStock, WhatIsSoldIsTakenFromTheList) {
  block();
  go_to_stock();
  ASSERT_GT(stock().sold()->count(), 2);
  stock().sold()->setCurrentRow(0);
  const auto first = stock().sold()->item(0)->text();
  emit stock().sold()->itemActivated(stock().sold()->item(0));
  EXPECT_TRUE(first.startsWith(
      QString::fromStdString(stock::stock_text(b().stock_of(window->document().part())->second, Unit::mm))))
      << first;
  for (const char* name : {"left", "front", "top"}) EXPECT_NE(metal(name), QString(QChar(0x2013))) << name;
  stock().table()->setFocus();
  stock().table()->setCurrentCell(0, 0);
  QTest::keyClick(stock().table(), Qt::Key_F1);
  auto* card = window->findChild<app::WhyCard*>();
  ASSERT_NE(card, nullptr);
  EXPECT_EQ(card->reckoning().title, "metal on left");
  card->close();
  stock().sold()->setFocus(); // and what length of bar is taken: 50, a millimetre an end, 3 for the saw
  QTest::keyClick(stock().sold(), Qt::Key_F1);
  const auto cards = window->findChildren<app::WhyCard*>();
  ASSERT_FALSE(cards.empty());
  EXPECT_NEAR(cards.back()->reckoning().total(), 55, 1e-9);
}

// A hole drilled from solid in a casting asks for no touches; its drills stand in Allowance.
TEST_F(FromStock, AHoleFromSolidIsDrilledWithoutATouch) {
  const Id part = block();
  PartSurface s;
  s.part = part;
  s.name = "stud hole";
  s.kind = SurfaceKind::bore;
  s.diameter = 10;
  s.height = 20;
  const Id hole = put(s);
  window->go_to(MainWindow::touches);
  EXPECT_TRUE(window->touches_page()->gaps_text().contains("stud hole"));
  window->go_to(MainWindow::drawing);
  window->show_face(0);
  auto& form = *window->drawing_page()->form();
  for (int r = 0; r < window->drawing_page()->table()->model()->rowCount(); ++r)
    if (window->drawing_page()->table()->model()->index(r, 0).data().toString() == "stud hole")
      window->drawing_page()->table()->selectRow(r);
  form.finish_box()->setCurrentIndex(2);
  emit form.finish_box()->activated(2);
  EXPECT_TRUE(b().find<PartSurface>(hole)->from_solid);
  window->go_to(MainWindow::touches);
  EXPECT_FALSE(window->touches_page()->gaps_text().contains("stud hole"))
      << window->touches_page()->gaps_text();
  auto& page = allowance("stud hole");
  EXPECT_NE(page.next_text(), QString(QChar(0x2013)));
  EXPECT_TRUE(page.verdict_text().contains("Made from solid")) << page.verdict_text();
}

// An unknown material is asked about where it is typed, with the one most like it to take.
TEST_F(FromStock, AnUnknownMaterialIsAskedAboutWhereItIsTyped) {
  const Id part = block();
  window->go_to(MainWindow::drawing);
  window->show_face(0);
  auto& page = *window->drawing_page();
  EXPECT_FALSE(page.take_material_button()->isVisible()); // mild steel
  enter(page.material_edit(), "mild stel", Qt::Key_Return);
  EXPECT_TRUE(page.material_words().contains("\"mild stel\" is no material of the table"))
      << page.material_words();
  ASSERT_TRUE(page.take_material_button()->isVisible());
  QTest::mouseClick(page.take_material_button(), Qt::LeftButton);
  EXPECT_EQ(b().find<Part>(part)->material, "mild steel");
  EXPECT_FALSE(page.take_material_button()->isVisible());
  go_to_stock(); // and what is sold is weighed
  EXPECT_TRUE(stock().sold()->item(0)->text().endsWith("\u202Fg")) << stock().sold()->item(0)->text();
}

// Two stud holes drilled from solid in the foot of a cast pedestal: it is seated best and marked out without
// a touch on them, their centre lines among the heights; read, they pass the gate.
TEST_F(FromStock, AHoleFromSolidInACastingPassesSeatMarkingOutAndGate) {
  open_demo();
  choose_piece(0);
  const Id part = window->document().part();
  PartSurface s;
  s.part = part;
  s.name = "stud hole";
  s.kind = SurfaceKind::bore;
  s.point = {-38, 0, 8};
  s.direction = Vec3::UnitZ();
  s.diameter = 6;
  s.height = 16;
  s.from_solid = true;
  s.order = 99;
  const Id hole = put(s);
  s.name = "cross hole";
  s.direction = Vec3::UnitX();
  put(s);
  Dimension d;
  d.part = part;
  d.name = "stud hole";
  d.kind = DimensionKind::size;
  d.surface = hole;
  d.nominal = 6;
  d.lower = 0;
  d.upper = 0.1;
  d.tolerance = "typed";
  d.importance = DimensionClass::fit;
  const Id size = put(d);
  window->go_to(MainWindow::seat);
  EXPECT_TRUE(window->seat_page()->state().can_judge());
  seat_best();
  window->go_to(MainWindow::marking);
  const auto& marked = window->marking_page()->result();
  ASSERT_TRUE(marked.usable());
  bool lined = false;
  for (const auto& line : marked.lines)
    lined = lined ||
            window->seat_page()->state().input.seat.surfaces[static_cast<std::size_t>(line.surface)].id ==
                "cross hole"; // the other stands upright: its height is no line
  EXPECT_TRUE(lined);
  build::Setup setup;
  setup.part = part;
  setup.name = "drilling";
  setup.cuts = {hole};
  setup.sizes = {size};
  const Id drilling = put(setup);
  const auto open = [&] {
    const auto input = casting::piece_input(b(), window->document().piece());
    const auto plans =
        allowance::surface_plans(b(), window->document().piece(), input, window->seat_page()->state().pose);
    return route::unclamp_gate(b(), window->document().piece(), drilling, plans);
  };
  EXPECT_EQ(open().open, 2);
  EXPECT_NE(open().items.front().text.find("stud hole is in the solid"), std::string::npos)
      << open().items.front().text;
  measure("stud hole", "6.03");
  EXPECT_EQ(open().open, 0) << route::still_missing(open());
}

// A block with a bore, out of 54 x 34 x 24 round it: 2 mm on every face. On the plate the foot's line stands
// at 2, the bore's axis, 10 above the foot, at 12, the top's at 22; the top of the metal reads 24. With the
// foot milled to size everything stands 2 lower. In inches the same figures are 0.0787, 0.4724.
TEST_F(FromStock, ABlockIsMarkedOutOnThePlateWithoutTouchOrJack) {
  const Id part = block();
  PartSurface bore;
  bore.part = part;
  bore.name = "bore";
  bore.kind = SurfaceKind::bore;
  bore.direction = Vec3::UnitY();
  bore.diameter = 8;
  bore.height = 30;
  bore.from_solid = true;
  bore.order = 99;
  put(bore);
  window->go_to(MainWindow::marking);
  auto& page = *window->marking_page();
  EXPECT_FALSE(page.can_print());
  go_to_stock();
  made_from(StockForm::block);
  window->go_to(MainWindow::marking);
  EXPECT_FALSE(page.can_print()); // its sizes are not known yet
  go_to_stock();
  enter(stock().width_field()->edit(), "34");
  enter(stock().thick_field()->edit(), "24");
  enter(stock().length_field()->edit(), "54");
  window->go_to(MainWindow::marking);
  ASSERT_TRUE(page.can_print()) << page.result().message;
  EXPECT_FALSE(page.jack_box(0)->isVisible());
  EXPECT_EQ(page.way_box()->currentText(), "foot down");
  EXPECT_EQ(page.reference_box()->currentText(), "its underside");
  const auto height = [&](const QString& name) {
    for (const auto* row : page.figure_rows())
      if (row->name() == name) return row->value();
    return -1.0;
  };
  EXPECT_NEAR(height("foot"), 2, 1e-9);
  EXPECT_NEAR(height("bore centre"), 12, 1e-9);
  EXPECT_NEAR(height("top"), 22, 1e-9);
  EXPECT_NEAR(height("top of the piece"), 24, 1e-9);
  Cut cut;
  cut.piece = window->document().piece();
  cut.surface = [&] {
    for (const auto& [id, s] : b().surfaces_of(part))
      if (s.name == "foot") return id;
    return Id{0};
  }();
  cut.place = {0, 0, -10};
  ASSERT_TRUE(window->document().apply(log_cut(b(), cut)));
  EXPECT_NEAR(height("bore centre"), 10, 1e-9);
  EXPECT_NEAR(height("top of the piece"), 22, 1e-9);
  enter(page.base_field()->edit(), "1 in"); // on parallels
  EXPECT_NEAR(height("bore centre"), 35.4, 1e-9);
  EXPECT_EQ(page.save_sheet(folder.filePath("block.pdf")), "");
  EXPECT_EQ(page.save_sheet(folder.filePath("block.dxf")), "");
  page.way_box()->setCurrentText("left down");
  emit page.way_box()->activated(page.way_box()->currentIndex());
  ASSERT_TRUE(page.can_print());
  EXPECT_NEAR(height("right"), 25.4 + 52, 1e-9); // 2 mm under the left, 50 to the right
}

// A block drawn as a solid alone, 1 1/2 x 3/4 x 5/8, none of its faces a surface: bar that holds it is
// offered all the same. Out of 7/8 x 3/4 flat a sixteenth comes off every side: (7/8 - 3/4) / 2 and (3/4 -
// 5/8) / 2.
TEST_F(FromStock, ABlockDrawnAsASolidIsOfferedBar) {
  window->document().apply(work_in(b(), Unit::inch));
  const Id id = part("Key block", 1, "mild steel");
  window->document().choose(id, b().pieces_of(id).front().first);
  const auto added =
      solid::add_body(b(), id, {solid::BodyShape::block, false, 0, solid::BodyFace::middle, "block"});
  ASSERT_TRUE(window->document().apply(added.edit));
  for (const auto& [role, inches] :
       {std::pair(solid::BodyRole::length, 1.5), std::pair(solid::BodyRole::width, 0.75),
        std::pair(solid::BodyRole::height, 0.625)})
    ASSERT_TRUE(
        window->document().apply(solid::set_body_size(b(), added.id, role, inches * mm_per_inch, "")));
  go_to_stock();
  made_from(StockForm::flat);
  ASSERT_GT(stock().sold()->count(), 0);
  const auto first = stock().sold()->item(0)->text();
  EXPECT_TRUE(first.startsWith("0.875 in \u00D7 0.75 in flat bar")) << first;
  EXPECT_TRUE(first.contains("0.0625 to 0.0625")) << first;
  stock().sold()->setCurrentRow(0);
  emit stock().sold()->itemActivated(stock().sold()->item(0));
  EXPECT_EQ(b().stock_of(id)->second.thick, 0.75 * mm_per_inch);
  // On the plate it stands a sixteenth under its foot, and reads three quarters over its top.
  window->go_to(MainWindow::marking);
  ASSERT_TRUE(window->marking_page()->can_print()) << window->marking_page()->result().message;
  EXPECT_NEAR(window->marking_page()->result().top_height.value(), 0.75 * mm_per_inch, 1e-9);
  // What is printed waits for the solid as it is now.
  ASSERT_TRUE(window->document().apply(
      solid::set_body_size(b(), added.id, solid::BodyRole::length, 1.25 * mm_per_inch, "")));
  const auto printed = window->marking_page()->sheet().picture.part.solid;
  ASSERT_TRUE(printed);
  EXPECT_NEAR(printed->solid.box.size().x(), 1.25 * mm_per_inch, 1e-6);
}
