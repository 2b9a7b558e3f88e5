// Four jobs of the route, in the window. Common practice: reference marks are scribed before a turn-over or
// the part is scrapped; a block squared face by face, a rod until both sides are true; operations 10 and 20
// free and 30 after both; bores cut from both ends lie apart by what the turn-over leaves, an indicator shows
// twice that.

#include "app/route/route_page.h"
#include "tests/app/solids.h"

#include "app/route/plans_dialog.h"

#include <QAbstractButton>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;

namespace {

class RouteStory : public Solids {
protected:
  Id face(const char* name, const Vec3& at, const Vec3& way, bool machined = true) {
    PartSurface s;
    s.part = part_;
    s.name = name;
    s.point = at;
    s.direction = way;
    s.width = 60, s.height = 40;
    s.machined = machined;
    return put(s);
  }
  Id bored(const char* name, SurfaceKind kind, const Vec3& at, const Vec3& way, double diameter,
           double high) {
    PartSurface s;
    s.part = part_;
    s.name = name;
    s.kind = kind;
    s.point = at;
    s.direction = way;
    s.diameter = diameter;
    s.height = high;
    return put(s);
  }
  void begin(const char* name, int quantity, const char* material) { part_ = part(name, quantity, material); }
  void to_route(int face_of_page) {
    window->document().choose(part_, b().pieces_of(part_).front().first);
    window->go_to(MainWindow::route);
    window->show_face(face_of_page);
  }
  app::SetupPanel& setups() { return *window->route_page()->setups(); }
  app::OperationsPanel& operations() { return *window->route_page()->operations(); }
  void part_in_setup(Id surface, int times) {
    for (int n = 0; n < times; ++n) {
      for (int k = 0; k < setups().parts()->count(); ++k)
        if (setups().parts()->item(k)->data(Qt::UserRole).toLongLong() == surface)
          setups().parts()->setCurrentRow(k);
      QTest::keyClick(setups().parts(), Qt::Key_Return);
    }
  }
  static void click(QAbstractButton* button) {
    ASSERT_TRUE(button->isEnabled()) << button->text().toStdString();
    QTest::mouseClick(button, Qt::LeftButton);
  }
  int row(const QString& words) {
    auto& table = *operations().table();
    for (int r = 0; r < table.rowCount(); ++r)
      if (table.item(r, 1)->text().contains(words)) return r;
    ADD_FAILURE() << words.toStdString();
    return 0;
  }
  Id part_ = 0;
};

} // namespace

// The stand is faced on top, its two raw sides get a mark each: the next setup stands on those. The gate does
// not let it go before both are scribed.
TEST_F(RouteStory, AStandIsNotUnclampedBeforeItsMarksAreScribed) {
  begin("Stand", 1, "cast iron");
  const Id foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), false);
  const Id top = face("top", {0, 0, 40}, Vec3::UnitZ());
  const Id left = face("side L", {-30, 0, 20}, -Vec3::UnitX(), false);
  const Id back = face("side R", {0, 20, 20}, Vec3::UnitY(), false);
  const Id bore = bored("bore", SurfaceKind::bore, {0, 0, 20}, Vec3::UnitZ(), 12, 40);
  to_route(1);
  click(setups().add_button());
  part_in_setup(foot, 1); // locates
  part_in_setup(top, 2);  // cut here
  part_in_setup(left, 2); // stays as cast: reference for later
  part_in_setup(back, 2);
  const Id first = setups().chosen();
  EXPECT_EQ(b().find<build::Setup>(first)->marks, (std::vector<Id>{left, back}));
  click(setups().add_button());
  part_in_setup(top, 1);
  part_in_setup(left, 1);
  part_in_setup(back, 1);
  part_in_setup(bore, 2);
  setups().setups()->setCurrentRow(0);
  ASSERT_EQ(setups().chosen(), first);
  window->show_face(3);
  EXPECT_TRUE(setups().verdict().startsWith("Do not unclamp yet")) << setups().verdict().toStdString();
  EXPECT_EQ(setups().release_button()->text(), "Unclamp anyway");
  int asked = 0;
  for (const auto& item : setups().gate_result().items)
    asked += item.kind == route::GateKind::reference && !item.done &&
             item.text.find("must be cut or scribed") != std::string::npos;
  EXPECT_EQ(asked, 3); // both marks, and the top as a reference
  // Both scribed, one by one: what is left is the top itself.
  for (const Id mark : {left, back})
    for (std::size_t k = 0; k < setups().gate_result().items.size(); ++k)
      if (const auto& item = setups().gate_result().items[k];
          item.kind == route::GateKind::reference && item.surface == mark && !item.done) {
        setups().gate_list()->setCurrentRow(static_cast<int>(k));
        for (auto* button : setups().gate()->findChildren<QPushButton*>())
          if (button->text() == "Done") click(button);
        break;
      }
  for (const auto& item : setups().gate_result().items)
    EXPECT_TRUE(item.done || item.kind != route::GateKind::reference || item.surface == top) << item.text;
  // Taken out all the same, what was missing is kept with it.
  click(setups().release_button());
  const auto release = b().release_of(window->document().piece(), first);
  ASSERT_TRUE(release);
  EXPECT_NE(release->second.missing.find("top"), std::string::npos) << release->second.missing;
  EXPECT_EQ(release->second.missing.find("side L"), std::string::npos) << release->second.missing;
}

// A sawn block: the plan squares it face by face; taken, its setups say rod or none, and its operations stand
// in that order.
TEST_F(RouteStory, ABlockIsSquaredFaceByFace) {
  part_ = quick(solid::QuickShape::plain_block);
  Stock stock;
  stock.part = part_;
  stock.form = StockForm::block;
  put(stock);
  to_route(2);
  app::PlansDialog plans(window->document(), window.get());
  ASSERT_TRUE(QTest::qWaitFor([&] { return !plans.busy(); }, patience(5000)));
  int squared = -1;
  for (int r = 0; r < plans.table()->rowCount(); ++r)
    if (plans.table()->item(r, 0)->text().startsWith("Squared in the vise")) squared = r;
  ASSERT_GE(squared, 0);
  plans.table()->setCurrentCell(squared, 0);
  EXPECT_TRUE(plans.detail().contains("to the fixed jaw")) << plans.detail().toStdString();
  EXPECT_TRUE(plans.detail().contains("no rod"));
  EXPECT_TRUE(plans.detail().contains("upright by a square against"));
  click(plans.take_button());
  const auto all = b().setups_of(part_);
  ASSERT_EQ(all.size(), 6U);
  int rods = 0;
  for (const auto& [id, s] : all) rods += s.holding == Workholding::soft_rod;
  EXPECT_GE(rods, 3); // until the sides between the jaws are true
  EXPECT_LT(rods, 6);
  operations().refresh();
  EXPECT_TRUE(operations().plan().unmade.empty());
  EXPECT_TRUE(operations().plan().in_best_order());
  for (const auto& o : operations().plan().operations) EXPECT_FALSE(o.broken);
  // What locates is cut before it is stood on.
  std::vector<Id> cut;
  for (const auto& [id, s] : all) {
    for (const Id datum : s.datums) EXPECT_TRUE(cut.size() < 3 || contains(cut, datum)) << s.name;
    cut.insert(cut.end(), s.cuts.begin(), s.cuts.end());
  }
  EXPECT_TRUE(window->undo_action()->text().contains("squared in the vise"));
}

// Three operations of a frame, six of them to make: 10 and 20 as one likes, 30 after both.
TEST_F(RouteStory, AFrameTenAndTwentyFreeThirtyAfterBoth) {
  begin("Frame", 6, "mild steel");
  Stock stock;
  stock.part = part_;
  stock.form = StockForm::flat;
  put(stock);
  face("edge", {0, 20, 0}, Vec3::UnitY());
  bored("axle hole", SurfaceKind::bore, {-20, 0, 0}, Vec3::UnitZ(), 10, 4);
  bored("horn hole", SurfaceKind::bore, {20, 0, 0}, Vec3::UnitZ(), 6, 4);
  to_route(2);
  Id ids[3] = {0, 0, 0};
  static constexpr const char* names[] = {"drill the axle holes", "drill the horn holes",
                                          "file the horns to both"};
  for (int k = 0; k < 3; ++k) {
    operations().add();
    operations().table()->setCurrentCell(operations().table()->rowCount() - 1, 0);
    ids[k] = operations().chosen();
    enter(operations().form()->name_edit(), names[k], Qt::Key_Return);
    enter(operations().form()->minutes_edit(), k == 2 ? "10" : "4", Qt::Key_Return);
  }
  operations().table()->setCurrentCell(row("file the horns"), 0);
  auto& after = *operations().form()->after_box();
  for (int k = 0; k < 2; ++k)
    for (int n = 0; n < after.count(); ++n)
      if (after.itemText(n).contains(names[k])) {
        after.setCurrentIndex(n);
        emit after.activated(n);
        break;
      }
  ASSERT_EQ(b().find<Operation>(ids[2])->after.size(), 2U);
  const auto& plan = operations().plan();
  ASSERT_EQ(plan.operations.size(), 3U);
  EXPECT_EQ(plan.operations[0].side_by_side, 1); // 10 and 20 side by side
  EXPECT_EQ(plan.operations[1].side_by_side, 1);
  EXPECT_EQ(plan.operations[2].side_by_side, 0);
  EXPECT_EQ(plan.operations[2].right_before.size(), 2U);
  // Part by part: six times the bench set up, and 18 minutes; operation by operation it is set up once a run.
  const double by_part = plan.now.minutes;
  EXPECT_NEAR(by_part, 6 * (4 + 4 + 10) + 6 * 20 * plan.now.setups + 6 * 2 * plan.now.tool_changes, 1e-9);
  operations().manner_box()->setCurrentIndex(1);
  emit operations().manner_box()->activated(1);
  EXPECT_LE(operations().plan().now.minutes, by_part + 1e-9);
  // Moved before both it is said, with the reason; moved back it is not.
  operations().table()->setCurrentCell(row("file the horns"), 0);
  operations().table()->setFocus();
  QTest::keyClick(operations().table(), Qt::Key_Up, Qt::AltModifier);
  QTest::keyClick(operations().table(), Qt::Key_Up, Qt::AltModifier);
  EXPECT_EQ(row("file the horns"), 0);
  EXPECT_TRUE(operations().plan().operations[0].broken);
  EXPECT_TRUE(operations().form()->reasons()->item(0)->text().startsWith("\u2717"));
  window->document().undo();
  window->document().undo();
  EXPECT_FALSE(operations().plan().operations[2].broken);
}

// The nose piece is bored from both ends: the two bores lie apart by what turning it round leaves, and an
// indicator shows twice that; held to a zone it does not fit, in one setup it would.
TEST_F(RouteStory, ANosePieceBoredFromBothEnds) {
  begin("Nose piece", 1, "brass");
  Stock stock;
  stock.part = part_;
  stock.form = StockForm::round;
  put(stock);
  const Id outside = bored("outside", SurfaceKind::boss, {0, 0, 0}, Vec3::UnitZ(), 20, 40);
  const Id front = bored("front bore", SurfaceKind::bore, {0, 0, 12}, Vec3::UnitZ(), 8, 16);
  const Id back = bored("back bore", SurfaceKind::bore, {0, 0, -12}, Vec3::UnitZ(), 8, 16);
  build::Setup s;
  s.part = part_;
  s.name = "first end";
  s.cuts = {outside, front};
  s.holding = Workholding::three_jaw;
  put(s);
  s.name = "turned round";
  s.datums = {outside};
  s.cuts = {back};
  s.order = 1;
  put(s);
  GeometricTolerance t;
  t.part = part_;
  t.what = Characteristic::coaxial;
  t.surface = back;
  t.datums = {front};
  t.within = 0.05;
  put(t);
  to_route(4);
  auto& panel = *window->route_page()->spread();
  int at = -1;
  for (int r = 0; r < panel.table()->rowCount(); ++r)
    if (panel.table()->item(r, 0)->text() == "front bore to back bore, about one axis") at = r;
  ASSERT_GE(at, 0);
  panel.table()->setCurrentCell(at, 0);
  const auto d = panel.spread().dimensions[static_cast<std::size_t>(at)];
  EXPECT_NEAR(d.tir(), 2 * d.expected(), 1e-12);
  EXPECT_FALSE(d.fits());
  EXPECT_TRUE(panel.words().contains("An indicator on the one shows up to")) << panel.words().toStdString();
  EXPECT_TRUE(panel.words().contains("Cut in one setup")) << panel.words().toStdString();
  EXPECT_LT(d.together, d.sigma);
  // Where a collet seats better, the machine of the setup says so and less is lost.
  Machine lathe;
  lathe.name = "lathe";
  lathe.seating = 0.002, lathe.cutting = 0.002;
  const Id machine = put(lathe);
  for (const auto& [id, setup] : b().setups_of(part_)) {
    auto changed = setup;
    changed.machine = machine;
    ASSERT_TRUE(window->document().apply(replace(b(), id, changed, "Machine")));
  }
  EXPECT_NEAR(panel.spread().dimensions[static_cast<std::size_t>(at)].sigma, d.sigma / 5, 0.02 * d.sigma);
  EXPECT_TRUE(panel.spread().dimensions[static_cast<std::size_t>(at)].fits());
}
