// Fixtures, tolerances, other datums and holes gone wrong, in the window. Common practice: a pin of 8.19
// leaves 0.01 to 0.14 in holes of 8.20 to 8.33; a reject goes in first; M5 is drilled 4.2 (ISO 2306).

#include "app/route/route_page.h"
#include "app/shop/shop_page.h"
#include "tests/app/solids.h"

#include "app/route/fixture_dialog.h"
#include "app/route/recovery_dialog.h"
#include "app/route/tolerance_dialog.h"

#include <QDir>
#include <QStandardPaths>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;

namespace {

/// A rod bored at its big end, its small end to be drilled in a jig.
class InTheJig : public Solids {
protected:
  void SetUp() override {
    OwnBuild::SetUp();
    jig_ = part("Drilling jig");
    rod_ = part("Rod", 2, "mild steel");
    big_ = put(round("big end", {0, 0, 0}, 8.25));
    small_ = put(round("small end", {40, 0, 0}, 5));
    Dimension d;
    d.part = rod_;
    d.name = "big end";
    d.kind = DimensionKind::size;
    d.surface = big_;
    d.nominal = 8.25, d.lower = -0.05, d.upper = 0.08;
    size_ = put(d);
    PartSurface face;
    face.part = rod_;
    face.name = "face";
    face.point = {20, 0, -6};
    face.direction = -Vec3::UnitZ();
    face.width = 50, face.height = 12;
    face_ = put(face);
    build::Setup s;
    s.part = rod_;
    s.name = "in the jig";
    s.datums = {face_, big_};
    s.cuts = {small_};
    s.holding = Workholding::fixture;
    setup_ = put(s);
    Operation o;
    o.part = rod_;
    o.kind = OperationKind::drill;
    o.surfaces = {small_};
    o.setup = setup_;
    o.size = 5;
    o.needs = {jig_};
    put(o);
    window->document().choose(rod_, b().pieces_of(rod_).front().first);
    window->go_to(MainWindow::route);
    window->show_face(1);
  }
  PartSurface round(const char* name, const Vec3& at, double diameter) const {
    PartSurface s;
    s.part = rod_;
    s.name = name;
    s.kind = SurfaceKind::bore;
    s.point = at;
    s.direction = Vec3::UnitZ();
    s.diameter = diameter;
    s.height = 12;
    return s;
  }
  template <class Dialog>
  Dialog& opened(QPushButton* button) {
    EXPECT_TRUE(button->isVisible() && button->isEnabled());
    QTest::mouseClick(button, Qt::LeftButton);
    auto* dialog = window->findChild<Dialog*>();
    EXPECT_TRUE(dialog);
    return *dialog;
  }
  static void click(QPushButton* button) {
    ASSERT_TRUE(button->isEnabled()) << button->text().toStdString();
    QTest::mouseClick(button, Qt::LeftButton);
  }
  app::HoldingForm& holding() { return *window->route_page()->setups()->holding(); }
  Id jig_ = 0, rod_ = 0, big_ = 0, small_ = 0, size_ = 0, face_ = 0, setup_ = 0;
};

} // namespace

TEST_F(InTheJig, ItsPinIsTypedAndThePlayOfEveryRodTold) {
  auto& jig = opened<app::FixtureDialog>(holding().fixture_button());
  EXPECT_EQ(jig.fixture_box()->currentText(), "Drilling jig"); // the operation needs it
  EXPECT_TRUE(jig.words().contains("othing says where it takes hold")) << jig.words().toStdString();
  pick(jig.surface_box(), "big end");
  pick(jig.kind_box(), "pin");
  click(jig.add_button());
  ASSERT_EQ(jig.locators()->rowCount(), 1);
  enter(jig.size_field()->edit(), "8.19", Qt::Key_Return);
  ASSERT_EQ(jig.locators()->rowCount(), 1); // Enter is the field's, no button's
  EXPECT_TRUE(jig.locators()->item(0, 3)->text().contains("play 0.010"))
      << jig.locators()->item(0, 3)->text().toStdString();
  EXPECT_TRUE(jig.locators()->item(0, 3)->text().contains("0.140"));
  EXPECT_TRUE(jig.words().contains("nothing holds against that"));
  // Read, every rod is told by itself.
  Measurement m;
  m.piece = b().pieces_of(rod_).front().first;
  m.dimension = size_;
  m.value = 8.17;
  put(m);
  EXPECT_TRUE(jig.words().contains("no. 1: big end")) << jig.words().toStdString();
  EXPECT_TRUE(jig.words().contains("does not go, by 0.02")) << jig.words().toStdString();
  // A stop at the other end holds against the drill.
  click(jig.add_button());
  pick(jig.surface_box(), "small end");
  pick(jig.kind_box(), "stop");
  enter(jig.arm_field()->edit(), "40", Qt::Key_Return);
  EXPECT_TRUE(jig.words().contains("16 N at the stop")) << jig.words().toStdString(); // 656 N·mm / 40 mm
  // Tried on a reject, then good.
  EXPECT_TRUE(jig.trials().contains("Not tried yet"));
  enter(jig.off_field()->edit(), "0.05", Qt::Key_Tab);
  jig.good_box()->setChecked(true);
  click(jig.tried_button());
  EXPECT_TRUE(jig.trials().contains("a bit of scrap, off by 0.05")) << jig.trials().toStdString();
  EXPECT_TRUE(jig.trials().contains(", good"));
  EXPECT_FALSE(jig.words().contains("not tried yet"));
  EXPECT_EQ(window->undo_action()->text(), "Undo: Trial of Drilling jig");
  jig.close();
}

TEST_F(InTheJig, InInchesItSpeaksInches) {
  auto info = b().info();
  info.unit = Unit::inch;
  ASSERT_TRUE(window->document().apply(replace(b(), Build::info_id, info, "Unit")));
  auto& jig = opened<app::FixtureDialog>(holding().fixture_button());
  pick(jig.surface_box(), "big end");
  pick(jig.kind_box(), "pin");
  click(jig.add_button());
  enter(jig.size_field()->edit(), "0.322", Qt::Key_Return); // 8.1788
  EXPECT_NEAR(b().locators_of(jig_).front().second.size, 8.1788, 1e-9);
  EXPECT_TRUE(jig.locators()->item(0, 3)->text().contains("in"))
      << jig.locators()->item(0, 3)->text().toStdString();
  EXPECT_FALSE(jig.locators()->item(0, 3)->text().contains("mm"));
  jig.close();
}

TEST_F(InTheJig, WhereTheSmallEndMustLieIsHeldToItsZone) {
  window->show_face(4);
  auto& panel = *window->route_page()->spread();
  auto& dialog = opened<app::ToleranceDialog>(panel.tolerances_button());
  pick(dialog.surface_box(), "small end");
  click(dialog.add_button());
  EXPECT_EQ(dialog.message(), "Say what it is taken from.");
  pick(dialog.datum_box(0), "big end");
  enter(dialog.within_field()->edit(), "0.1");
  click(dialog.add_button());
  ASSERT_EQ(dialog.table()->rowCount(), 1);
  EXPECT_EQ(dialog.table()->item(0, 2)->text(), "big end");
  dialog.close();
  ASSERT_GE(panel.table()->rowCount(), 1);
  EXPECT_EQ(panel.table()->item(0, 0)->text(), "place of small end from big end");
  EXPECT_EQ(panel.table()->item(0, 1)->text(), "0.050"); // half of the zone each way
  EXPECT_EQ(panel.allowed()->why().answer.substr(0, 22), "half of it, each way: ");
  EXPECT_EQ(window->undo_action()->text(), "Undo: position of small end");
}

TEST_F(InTheJig, AHoleOutOfItsPlaceIsMendedFromItsOperation) {
  window->show_face(2);
  auto& panel = *window->route_page()->operations();
  auto& dialog = opened<app::RecoveryDialog>(panel.slip_button());
  ASSERT_TRUE(dialog.isVisible());
  EXPECT_TRUE(dialog.words().startsWith("Say how far")) << dialog.words().toStdString();
  enter(dialog.off_field()->edit(), "0.3", Qt::Key_Return);
  ASSERT_TRUE(dialog.isVisible()); // Enter is the field's
  const auto has = [&](const QString& way) {
    for (int r = 0; r < dialog.table()->rowCount(); ++r)
      if (dialog.table()->item(r, 0)->text() == way) return r;
    return -1;
  };
  ASSERT_GE(has("open it out"), 0);
  dialog.table()->setCurrentCell(has("open it out"), 0);
  EXPECT_TRUE(dialog.words().contains("5.60")) << dialog.words().toStdString(); // 5 + 2 · 0.3
  pick(dialog.slip_box(), "a tap broke in it");
  EXPECT_FALSE(dialog.off_field()->isVisible());
  ASSERT_GE(has("spark it out"), 0);
  dialog.table()->setCurrentCell(has("spark it out"), 0);
  click(dialog.take_button());
  EXPECT_EQ(b().operations_of(rod_).size(), 2U);
  EXPECT_EQ(window->undo_action()->text(), "Undo: small end: the tap is sparked out");
  ASSERT_EQ(b().decisions_of(rod_).size(), 1U);
}

TEST_F(InTheJig, MinutesOfAChangeAreOfThisShop) {
  window->show_face(2);
  auto& panel = *window->route_page()->operations();
  const double before = panel.plan().now.minutes;
  enter(panel.setup_minutes(), "5", Qt::Key_Return);
  EXPECT_EQ(b().info().setup_minutes, 5);
  EXPECT_NEAR(panel.plan().now.minutes, before - 2 * 15, 1e-9); // two rods, one setup each
  EXPECT_EQ(panel.time()->why().lines[1].source, "5 min each");
  enter(panel.tool_minutes(), "soon", Qt::Key_Return);
  EXPECT_EQ(b().info().tool_minutes, 2);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Minutes of a setup and a tool change");
}

// One person's shop goes from build to build by a file beside them.
TEST_F(InTheJig, TheShopIsKeptForTheNextBuild) {
  const auto before = qgetenv("XDG_DATA_HOME");
  qputenv("XDG_DATA_HOME", folder.filePath("data").toUtf8());
  window->go_to(MainWindow::shop);
  auto* shop = window->shop_page();
  auto* machines = shop->sheet_of(kind_of<Machine>);
  machines->type(0, 0, "Small lathe");
  ASSERT_EQ(b().machines().size(), 1U);
  shop->keep_own();
  EXPECT_TRUE(shop->message().startsWith("Kept")) << shop->message().toStdString();
  ASSERT_TRUE(window->new_build(folder.filePath("next.datrin")));
  window->go_to(MainWindow::shop);
  EXPECT_TRUE(b().machines().empty());
  window->shop_page()->take_own();
  ASSERT_EQ(b().machines().size(), 1U);
  EXPECT_EQ(b().machines().front().second.name, "Small lathe");
  window->shop_page()->take_own();
  EXPECT_EQ(b().machines().size(), 1U); // taken once
  before.isNull() ? qunsetenv("XDG_DATA_HOME") : qputenv("XDG_DATA_HOME", before);
}
