// Operations in the window: proposed, put in order, moved, set aside, ticked off; plans; the route card.

#include "app/route/route_page.h"
#include "tests/app/solids.h"

#include "app/route/plans_dialog.h"
#include "app/route/recovery_dialog.h"
#include "route/propose.h"

#include <QListWidget>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;

namespace {

constexpr int operations_face = 2, gate_face = 3; // of the room column

class Operations : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    choose_piece(0); // the main pedestal: neither setups nor operations
    window->go_to(MainWindow::route);
    window->show_face(operations_face);
  }
  app::OperationsPanel& panel() { return *window->route_page()->operations(); }
  app::OperationForm& form() { return *panel().form(); }
  app::OperationsTable& table() { return *panel().table(); }
  const Build& b() { return window->document().build(); }
  Id part() { return window->document().part(); }
  void click(QPushButton* button) {
    ASSERT_TRUE(button->isEnabled()) << button->text().toStdString();
    QTest::mouseClick(button, Qt::LeftButton);
  }
  int row(const QString& words) {
    for (int r = 0; r < table().rowCount(); ++r)
      if (table().item(r, 1)->text().contains(words)) return r;
    ADD_FAILURE() << words.toStdString();
    return 0;
  }
  void choose(const QString& words) { table().setCurrentCell(row(words), 0); }
};

} // namespace

TEST_F(Operations, ProposedInAnOrderThatCanWorkAndTakenBackInOneStep) {
  EXPECT_TRUE(panel().words().contains("are to be made")) << panel().words().toStdString();
  const auto before = b().records();
  click(panel().propose_button());
  EXPECT_FALSE(b().operations_of(part()).empty());
  EXPECT_FALSE(b().setups_of(part()).empty());
  EXPECT_TRUE(panel().words().contains("setups")) << panel().words().toStdString();
  EXPECT_TRUE(panel().plan().now.usable());
  EXPECT_FALSE(panel().propose_button()->isEnabled()); // nothing is left to propose
  // How the time adds up is asked for like any figure.
  EXPECT_EQ(panel().time()->words().toStdString(), panel().time()->why().answer);
  EXPECT_EQ(panel().time()->why().lines.size(), 3U);
  EXPECT_EQ(table().rowCount(), static_cast<int>(b().operations_of(part()).size()));
  EXPECT_EQ(window->undo_action()->text(), "Undo: Propose operations");
  window->document().undo();
  EXPECT_EQ(b().records(), before);
}

TEST_F(Operations, MovedAgainstARuleTheReasonIsSaidAndMayBeSetAside) {
  click(panel().propose_button());
  const auto waits = [&](int r) { return table().item(r, 5)->text(); };
  int late = -1; // the first that waits for another
  for (int r = 0; r < table().rowCount() && late < 0; ++r)
    if (!waits(r).isEmpty()) late = r;
  ASSERT_GT(late, 0);
  table().setCurrentCell(late, 0);
  const Id moved = panel().chosen();
  ASSERT_GT(form().reasons()->count(), 0);
  const auto to_the_top = [&] {
    table().setFocus();
    while (table().currentRow() > 0) QTest::keyClick(&table(), Qt::Key_Up, Qt::AltModifier);
  };
  to_the_top();
  EXPECT_EQ(panel().chosen(), moved);
  EXPECT_EQ(table().currentRow(), 0);
  EXPECT_TRUE(waits(0).contains(QChar(0x2717))) << waits(0).toStdString();
  EXPECT_TRUE(panel().words().contains("cannot work")) << panel().words().toStdString();
  EXPECT_TRUE(form().reasons()->item(0)->text().startsWith(QChar(0x2717)));
  // Back to the best: one button.
  click(panel().best_button());
  EXPECT_TRUE(panel().plan().in_best_order());
  EXPECT_EQ(panel().chosen(), moved);
  to_the_top();
  // Not without a reason.
  click(form().aside_button());
  EXPECT_TRUE(form().message().contains("Say why")) << form().message().toStdString();
  while (waits(0).contains(QChar(0x2717))) {
    for (int k = 0; k < form().reasons()->count(); ++k)
      if (form().reasons()->item(k)->text().startsWith(QChar(0x2717))) form().reasons()->setCurrentRow(k);
    enter(form().aside_edit(), "held in the fixture");
    const auto before = b().find<Operation>(moved)->set_aside.size();
    click(form().aside_button());
    ASSERT_EQ(b().find<Operation>(moved)->set_aside.size(), before + 1);
  }
  EXPECT_TRUE(panel().plan().now.usable());
}

TEST_F(Operations, EditedByKeyAndRefusedWhereItCannotBe) {
  click(panel().propose_button());
  table().setCurrentCell(0, 0);
  const Id first = panel().chosen();
  enter(form().minutes_edit(), "7,5", Qt::Key_Return);
  EXPECT_EQ(b().find<Operation>(first)->minutes, 7.5);
  enter(form().minutes_edit(), "soon", Qt::Key_Return);
  EXPECT_TRUE(form().message().contains("is no time")) << form().message().toStdString();
  EXPECT_EQ(b().find<Operation>(first)->minutes, 7.5);
  enter(form().name_edit(), "skim it", Qt::Key_Return);
  EXPECT_EQ(table().item(0, 1)->text(), "skim it");
  panel().add();
  EXPECT_EQ(table().currentRow(), 1); // behind the one that was chosen
  const auto added = *b().find<Operation>(panel().chosen());
  EXPECT_EQ(added.setup, b().find<Operation>(first)->setup);
  const auto count = b().operations_of(part()).size();
  const Id removed = panel().chosen();
  panel().remove();
  EXPECT_EQ(b().operations_of(part()).size(), count - 1);
  EXPECT_FALSE(b().find<Operation>(removed));
  form().done_box()->setFocus();
  table().setCurrentCell(0, 0);
  QTest::keyClick(form().done_box(), Qt::Key_Space);
  EXPECT_TRUE(b().done_of(window->document().piece(), first).has_value());
  EXPECT_EQ(table().item(0, 6)->text(), QString(QChar(0x2713)));
}

TEST_F(Operations, TheGateWaitsForThemAndKeepsWhatStaysOnTheMachine) {
  click(panel().propose_button());
  window->show_face(gate_face);
  auto& setups = *window->route_page()->setups();
  int burrs = -1;
  for (int r = 0; r < setups.gate_list()->count(); ++r)
    if (setups.gate_list()->item(r)->text().contains("burrs")) burrs = r;
  ASSERT_GE(burrs, 0);
  const int open = setups.gate_result().open;
  setups.gate_list()->setCurrentRow(burrs);
  for (auto* button : setups.gate()->findChildren<QPushButton*>())
    if (button->text() == "Done") click(button);
  EXPECT_EQ(setups.gate_result().open, open - 1);
  enter(setups.left_edit(), "vise trammed, stop set");
  click(setups.release_button());
  EXPECT_TRUE(setups.verdict().contains("Left on the machine: vise trammed, stop set."))
      << setups.verdict().toStdString();
}

TEST_F(Operations, HowItIsHeldIsSaidAndWhatWouldGoWrongIsTold) {
  choose_piece(2); // the cylinder has setups
  window->show_face(1);
  auto& held = *window->route_page()->setups()->holding();
  EXPECT_EQ(held.holding_box()->currentText(), "clamped on the table");
  EXPECT_FALSE(held.clashes().contains("nothing says"));
  const Id setup = window->route_page()->setups()->chosen();
  held.holding_box()->setCurrentIndex(0);
  emit held.holding_box()->activated(0);
  EXPECT_TRUE(held.clashes().contains("othing says what holds the part")) << held.clashes().toStdString();
  enter(held.grip_field()->edit(), "1/2", Qt::Key_Return); // inches or not: half of one
  EXPECT_NEAR(b().find<build::Setup>(setup)->grip, 12.7, 1e-9);
  enter(held.packing_edit(), "a ring under the flange", Qt::Key_Return);
  EXPECT_EQ(b().find<build::Setup>(setup)->packing, "a ring under the flange");
}

TEST_F(Operations, OneOfThreePlansIsTaken) {
  app::PlansDialog dialog(window->document(), window.get());
  for (int k = 0; k < 400 && dialog.busy(); ++k) QTest::qWait(10);
  ASSERT_FALSE(dialog.busy());
  ASSERT_GE(dialog.table()->rowCount(), 2) << dialog.words().toStdString();
  dialog.table()->setCurrentCell(1, 0);
  click(dialog.take_button());
  EXPECT_TRUE(window->undo_action()->text().startsWith("Undo: Take the plan: "));
  panel().refresh();
  EXPECT_TRUE(panel().plan().now.usable());
  EXPECT_TRUE(panel().plan().unmade.empty());
}

TEST_F(Operations, TheRouteCardIsWrittenAsPdfCsvAndJson) {
  auto& page = *window->route_page();
  EXPECT_TRUE(page.save_card(folder.filePath("route.pdf")).contains("no operations yet"));
  click(panel().propose_button());
  for (const char* ending : {"pdf", "csv", "json"}) {
    const auto path = folder.filePath(QString("route.") + ending);
    EXPECT_EQ(page.save_card(path), "") << ending;
    EXPECT_GT(QFileInfo(path).size(), 200) << ending;
  }
  EXPECT_TRUE(page.save_card(folder.filePath("route.xls")).contains("written as .pdf, .csv or .json"));
  EXPECT_FALSE(page.save_card(window->document().path()).isEmpty()); // never over the build
}

// A bore cut too large: from the gate to what can be done, and a bush taken with its operations.
TEST_F(Operations, ASlipIsMendedFromTheGate) {
  choose_piece(2);
  const Id piece = window->document().piece();
  Id bore = 0;
  for (const auto& [id, s] : b().surfaces_of(part()))
    if (s.name == "bore") bore = id;
  Cut cut;
  cut.piece = piece;
  cut.surface = bore;
  cut.left = -0.4;
  cut.order = 99;
  ASSERT_TRUE(window->document().apply(add(b(), cut, "Cut")));
  window->show_face(gate_face);
  auto& setups = *window->route_page()->setups();
  ASSERT_TRUE(setups.recover_button()->isVisible());
  click(setups.recover_button());
  auto* dialog = window->findChild<app::RecoveryDialog*>();
  ASSERT_TRUE(dialog);
  ASSERT_GT(dialog->table()->rowCount(), 3);
  int bush = -1;
  for (int r = 0; r < dialog->table()->rowCount(); ++r)
    if (dialog->table()->item(r, 0)->text() == "bush") bush = r;
  ASSERT_GE(bush, 0);
  dialog->table()->setCurrentCell(bush, 0);
  EXPECT_TRUE(dialog->words().contains("press in a bush")) << dialog->words().toStdString();
  const auto before = b().operations_of(part()).size();
  click(dialog->take_button());
  EXPECT_EQ(b().operations_of(part()).size(), before + 4);
  EXPECT_EQ(window->undo_action()->text(), "Undo: bore: bushed");
  window->show_face(operations_face);
  EXPECT_GE(row("press the bush into bore"), 0);
}
