// A batch by its sheet: typed downwards by the number pad, pasted, copied, rejected, undone.

#include "app/batch/batch_page.h"
#include "app/joints/joints_page.h"
#include "app/shell/header.h"
#include "app/shell/shelf.h"
#include "tests/app/bench.h"

#include "app/marks/why.h"
#include "build/edit_drawing.h"
#include "readings/size_now.h"

#include <QClipboard>
#include <QHeaderView>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

class Batch : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    const auto& b = window->document().build();
    for (const auto& [id, p] : b.parts())
      if (p.name == "Pedestal bush") part = id;
    ASSERT_NE(part, 0);
    ASSERT_TRUE(window->document().apply(build::set_quantity(b, part, 60)));
    window->document().choose(part, window->document().build().pieces_of(part).front().first);
    window->go_to(MainWindow::batch);
  }
  app::BatchPage& page() { return *window->batch_page(); }
  int column(const char* name) {
    const auto& columns = page().model()->sheet().columns;
    for (std::size_t k = 0; k < columns.size(); ++k)
      if (columns[k].name == name) return static_cast<int>(k);
    ADD_FAILURE() << name;
    return 0;
  }
  QString shown(int row, int c) { return page().model()->index(row, c).data().toString(); }
  build::Id part = 0;
};

TEST_F(Batch, SixtyReadingsTypedDownwardsByTheNumberPad) {
  page().instrument_box()->setCurrentIndex(0);
  auto* table = page().table();
  const int bore = column("bore");
  table->setFocus();
  table->setCurrentIndex(page().model()->index(0, bore));
  for (int n = 0; n < 60; ++n) {
    for (const QChar c : QString::number(18.010 + 0.0002 * n, 'f', 4))
      QTest::keyClick(QApplication::focusWidget(), c.toLatin1());
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Enter, Qt::KeypadModifier);
    QCoreApplication::processEvents(); // an editor is closed by the next event
    ASSERT_EQ(page().model()->sheet().columns[static_cast<std::size_t>(bore)].read,
              n < 2 ? std::max(2, n + 1) : n + 1)
        << n;
  }
  EXPECT_EQ(shown(59, bore).left(6), "18.022"); // 18.0218
  const auto& b = window->document().build();
  const build::Id d = page().model()->sheet().columns[static_cast<std::size_t>(bore)].dimension;
  EXPECT_NEAR(readings::size_now(b, {d, page().model()->sheet().rows[59].piece}).value, 18.0218, 1e-9);
  press(Qt::Key_Z, Qt::ControlModifier); // the last one only
  EXPECT_EQ(page().model()->sheet().columns[static_cast<std::size_t>(bore)].read, 59);
}

TEST_F(Batch, PastedFromASpreadsheetAndCopiedBackInOneStep) {
  page().instrument_box()->setCurrentIndex(0);
  auto* table = page().table();
  const int bore = column("bore");
  const auto before = window->document().build().records();
  QStringList lines;
  for (int n = 0; n < 60; ++n) lines << QString::number(18.010 + 0.0002 * n, 'f', 4);
  lines[7] = "bored over";
  lines << "18.0"
        << "18.1"; // more than there are pieces
  QApplication::clipboard()->setText(lines.join("\r\n"));
  table->setFocus();
  table->setCurrentIndex(page().model()->index(0, bore));
  QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
  EXPECT_TRUE(window->message().startsWith("59 of 60 readings taken. 2 had no place")) << window->message();
  EXPECT_EQ(shown(7, bore), "bored over"); // there to be mended
  EXPECT_TRUE(page().message().contains("\"bored over\" is not kept")) << page().message();
  EXPECT_TRUE(page().model()->index(7, bore).data(Qt::AccessibleTextRole).toString().contains("is not kept"));
  EXPECT_TRUE(page().model()->setData(page().model()->index(7, bore), "18.011"));
  EXPECT_EQ(shown(7, bore), "18.011");
  press(Qt::Key_Z, Qt::ControlModifier);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(window->document().build().records(), before);
  press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  table->clearSelection();
  table->selectColumn(bore);
  table->setFocus();
  QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
  const auto copied = QApplication::clipboard()->text().split('\n');
  EXPECT_EQ(copied[0], "18.010");
  EXPECT_EQ(copied[59], "18.022");
}

TEST_F(Batch, ARejectedPieceKeepsItsReasonAndIsPassedOver) {
  const int bore = column("bore");
  page().table()->setCurrentIndex(page().model()->index(2, bore));
  QTest::mouseClick(page().reject_button(), Qt::LeftButton);
  EXPECT_TRUE(page().message().contains("Say why")) << page().message();
  enter(page().reason_edit(), "blow hole", Qt::Key_Return);
  EXPECT_EQ(page().model()->sheet().rows[2].rejected, "blow hole");
  EXPECT_FALSE(page().model()->flags(page().model()->index(2, bore)).testFlag(Qt::ItemIsEditable));
  page().table()->setCurrentIndex(page().model()->index(1, bore));
  page().table()->go_down();
  EXPECT_EQ(page().table()->currentIndex().row(), 3);
  EXPECT_TRUE(page().progress_text().contains("1 rejected")) << page().progress_text();
  page().table()->setCurrentIndex(page().model()->index(2, bore));
  EXPECT_EQ(page().reject_button()->text(), "Take no. 3 back");
  QTest::mouseClick(page().reject_button(), Qt::LeftButton);
  EXPECT_EQ(page().model()->sheet().rows[2].rejected, "");
}

TEST_F(Batch, GroupsBySizeInTheUnitOfTheBuild) {
  page().instrument_box()->setCurrentIndex(0);
  const int bore = column("bore");
  std::vector<std::pair<QModelIndex, QString>> cells;
  for (int n = 0; n < 6; ++n)
    cells.emplace_back(page().model()->index(n, bore), QString::number(18.000 + 0.004 * n, 'f', 3));
  EXPECT_EQ(page().model()->keep(cells), 6U);
  page().table()->setCurrentIndex(page().model()->index(0, bore));
  enter(page().width_field()->edit(), "0.01");
  EXPECT_TRUE(page().groups_text().contains("no. 1, 2, 3")) << page().groups_text();
  EXPECT_TRUE(page().groups_text().contains("18.004")) << page().groups_text();
  QTest::mouseClick(window->header()->unit_button(), Qt::LeftButton);
  EXPECT_TRUE(page().groups_text().contains("0.7088")) << page().groups_text(); // 18.004 / 25.4
  EXPECT_FALSE(page().groups_text().contains("mm")) << page().groups_text();
  EXPECT_TRUE(page().column_text().contains("thou")) << page().column_text();
}

// Refused words could not be taken away again where nothing had been read.
TEST_F(Batch, RefusedWordsAreTakenAwayByDelete) {
  const auto cell = page().model()->index(5, column("bore"));
  EXPECT_FALSE(page().model()->setData(cell, "bored over"));
  EXPECT_EQ(shown(5, column("bore")), "bored over");
  QSignalSpy redrawn(page().model(), &QAbstractItemModel::dataChanged);
  page().table()->setCurrentIndex(cell);
  QTest::keyClick(page().table(), Qt::Key_Delete);
  EXPECT_NE(shown(5, column("bore")), "bored over");
  EXPECT_GE(redrawn.count(), 1);
}

// One reading, whichever page it is typed on: the sheet's is the joint's and the drawing's, and says how it
// came.
TEST_F(Batch, AReadingOfTheSheetIsTheJointsAndTheDrawings) {
  page().instrument_box()->setCurrentIndex(1); // the micrometer reads 2 µm over
  const int bore = column("bore");
  const auto cell = page().model()->index(0, bore);
  EXPECT_TRUE(page().model()->setData(cell, "18.016"));
  EXPECT_EQ(shown(0, bore), "18.014");
  page().table()->setCurrentIndex(cell);
  QTest::keyClick(page().table(), Qt::Key_F1);
  auto* card = window->findChild<app::WhyCard*>();
  ASSERT_NE(card, nullptr);
  EXPECT_NEAR(card->reckoning().total(), 18.014, 1e-9);
  QTest::keyClick(card, Qt::Key_Escape);
  window->go_to(MainWindow::joints);
  for (const auto& [id, joint] : window->document().build().joints())
    if (joint.name == "Main bearing A") window->joints_page()->choose(id);
  EXPECT_TRUE(window->joints_page()->make()->verdict().contains("Hole 18.014\u202Fmm") ||
              window->joints_page()->make()->verdict().contains("Hole 18.014 mm"))
      << window->joints_page()->make()->verdict();
}

// Sixty rows of one part filled the shelf: it stands there once until it is the one worked on.
TEST_F(Batch, APartMadeInNumbersStandsOnTheShelfOnceUntilItIsWorkedOn) {
  auto* model = window->shelf()->list()->model();
  const auto rows_of = [&](build::Id wanted) {
    int count = 0;
    for (int r = 0; r < model->rowCount(); ++r)
      count += model->index(r, 0).data(app::ShelfModel::part_role).toLongLong() == wanted ? 1 : 0;
    return count;
  };
  EXPECT_EQ(rows_of(part), 60);
  const auto& b = window->document().build();
  build::Id stud = 0;
  for (const auto& [id, p] : b.parts())
    if (p.name == "Cylinder stud") stud = id;
  EXPECT_EQ(rows_of(stud), 1);
  for (int r = 0; r < model->rowCount(); ++r)
    if (model->index(r, 0).data(app::ShelfModel::part_role).toLongLong() == stud) {
      EXPECT_EQ(model->index(r, 0).data(app::ShelfModel::below_role).toString(), "24 pieces \u00B7 16 begun");
      window->shelf()->choose(r);
      break;
    }
  EXPECT_EQ(window->document().part(), stud);
  EXPECT_EQ(rows_of(stud), 24);
  EXPECT_EQ(rows_of(part), 1);
}
