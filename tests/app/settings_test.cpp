#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "build/edit_drawing.h"
#include "tests/app/bench.h"

#include <QApplication>
#include <QClipboard>
#include <QDialog>
#include <QFile>
#include <QTimer>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

constexpr std::size_t bracket = 5; // on the shelf

} // namespace

class Surveying : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    choose_piece(bracket);
    window->go_to(MainWindow::touches);
  }
  app::TouchesPage& page() { return *window->touches_page(); }
  const build::Build& build() { return window->document().build(); }
  build::Id piece() { return window->document().piece(); }
};

TEST_F(Surveying, TwoSettingsAreJoinedByTheirMarksAndSaySo) {
  page().tabs()->choose(1);
  EXPECT_TRUE(page().settings()->setting_text("on its side").startsWith("joined by 4 marks, residual 0.0"))
      << page().settings()->setting_text("on its side").toStdString();
  EXPECT_EQ(page().gaps_text(), "Nothing: every surface to be machined has enough touches.");
}

TEST_F(Surveying, AMarkTypedWronglyIsNamed) {
  page().tabs()->choose(1);
  for (const auto& [id, mark] : build().marks_of(piece()))
    if (mark.name == "C" && mark.setting == "on its side") {
      auto changed = mark;
      changed.at.x() += 2.54;
      ASSERT_TRUE(window->document().apply(build::replace(build(), id, changed, "x")));
      break;
    }
  EXPECT_TRUE(
      page().settings()->setting_text("on its side").contains("C is misread: without it the others agree"))
      << page().settings()->setting_text("on its side").toStdString();
}

TEST_F(Surveying, AFifthMarkIsTypedAndRemoved) {
  page().tabs()->choose(1);
  auto* panel = page().settings();
  const auto before = build().marks_of(piece()).size();
  panel->mark_name()->setText("E");
  panel->mark_setting()->setCurrentIndex(panel->mark_setting()->findText("on its side"));
  enter(panel->mark_xyz(0), "1 in", Qt::Key_Return);
  enter(panel->mark_xyz(1), "twelve", Qt::Key_Return);
  enter(panel->mark_xyz(2), "3/8 in", Qt::Key_Return);
  EXPECT_TRUE(panel->message().startsWith("Mark, y: ")) << panel->message().toStdString();
  EXPECT_EQ(build().marks_of(piece()).size(), before);
  enter(panel->mark_xyz(1), "12", Qt::Key_Return);
  panel->mark_spread()->setText("-1 mm");
  enter(panel->mark_xyz(2), "3/8 in", Qt::Key_Return);
  EXPECT_EQ(panel->message(), "Uncertainty of the mark, 95 %: must not be negative");
  EXPECT_EQ(build().marks_of(piece()).size(), before);
  panel->mark_spread()->setText("0.04 mm");
  enter(panel->mark_xyz(2), "3/8 in", Qt::Key_Return);
  ASSERT_EQ(build().marks_of(piece()).size(), before + 1);
  EXPECT_LT((build().marks_of(piece()).back().second.at - Vec3(25.4, 12, 9.525)).norm(), 1e-9);
  EXPECT_EQ(build().marks_of(piece()).back().second.uncertainty, 0.04);
  panel->marks_list()->setCurrentRow(panel->marks_list()->count() - 1);
  panel->marks_list()->setFocus();
  QTest::keyClick(panel->marks_list(), Qt::Key_Delete);
  EXPECT_EQ(build().marks_of(piece()).size(), before);
}

TEST_F(Surveying, ASettingInTheSurveysFrameNeedsNoMarks) {
  page().tabs()->choose(1);
  auto* box = page().settings()->frame_box("on its side");
  ASSERT_NE(box, nullptr);
  box->setCurrentIndex(0);
  emit box->activated(0);
  EXPECT_EQ(build().settings_of(piece()).back().second.frame, build::SettingFrame::survey);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Frame of the setting \"on its side\"");
}

TEST_F(Surveying, ASizeReadAcrossIsKeptOrRefused) {
  page().tabs()->choose(1);
  auto* panel = page().settings();
  panel->size_from()->setCurrentIndex(panel->size_from()->findText("foot"));
  panel->size_to()->setCurrentIndex(0);
  enter(panel->size_edit(), "20", Qt::Key_Return);
  EXPECT_EQ(panel->message(), "A plane has no diameter; choose the face opposite it.");
  panel->size_from()->setCurrentIndex(panel->size_from()->findText("bore"));
  enter(panel->size_edit(), "14 mm", Qt::Key_Return);
  EXPECT_EQ(build().sizes_of(piece()).size(), 1U);
  EXPECT_TRUE(panel->message().contains("bore: its diameter was read as 14.00 mm, its touches say 1"))
      << panel->message().toStdString();
}

TEST_F(Surveying, BothSlipsAreFoundAndOneKeyPutsEachRight) {
  page().tabs()->choose(2);
  auto* panel = page().mistakes();
  ASSERT_EQ(panel->flagged().size(), 2U);
  EXPECT_EQ(page().tabs()->button(2)->text(), "Mistakes 2");
  EXPECT_EQ(panel->flagged()[0].mistake.reason, "y is one turn of the dial (1 mm) too much");
  const auto id = panel->flagged()[0].touch;
  const auto before = *build().find<build::Touch>(id);
  panel->list()->setFocus();
  QTest::keyClick(panel->list(), Qt::Key_A);
  const auto* after = build().find<build::Touch>(id);
  EXPECT_NEAR(after->centre.y(), before.centre.y() - 1, 1e-9);
  EXPECT_TRUE(after->corrected.starts_with("y was "))
      << after->corrected; // the old value stays in the record
  EXPECT_NE(after->corrected.find("one turn of the dial"), std::string::npos);
  ASSERT_EQ(panel->flagged().size(), 1U)
      << panel->flagged()[0].number << panel->flagged()[0].mistake.reason << "|" << panel->flagged()[1].number
      << panel->flagged()[1].mistake.reason << panel->flagged()[1].mistake.off;
  QTest::keyClick(panel->list(), Qt::Key_A);
  EXPECT_TRUE(panel->flagged().empty());
  EXPECT_EQ(page().tabs()->button(2)->text(), "Mistakes");
  window->undo_action()->trigger();
  EXPECT_EQ(panel->flagged().size(), 1U);
}

TEST_F(Surveying, ATouchSetAsideStaysInTheListAndIsNotUsed) {
  page().tabs()->choose(2);
  auto* panel = page().mistakes();
  const auto id = panel->flagged()[0].touch;
  const auto touches = build().touches_of(piece()).size();
  panel->list()->setFocus();
  QTest::keyClick(panel->list(), Qt::Key_S);
  EXPECT_EQ(build().touches_of(piece()).size(), touches);
  EXPECT_EQ(build().find<build::Touch>(id)->standing, build::TouchStanding::set_aside);
  EXPECT_EQ(page().canvas()->scene_input().touches.size(), touches - 1);
  QTest::keyClick(panel->list(), Qt::Key_R); // the other is right, the person says
  EXPECT_TRUE(panel->flagged().empty());
}

TEST_F(Surveying, ASpotIsNotedWhereTheChosenTouchIsAndSeenInTheViews) {
  page().tabs()->choose(3);
  page().table()->selectRow(3);
  auto* panel = page().spots();
  const auto before = page().canvas()->scene_input().spots.size();
  panel->kind_box()->setCurrentIndex(1);
  panel->size_edit()->setText("1.5");
  enter(panel->note_edit(), "along the parting line", Qt::Key_Return);
  ASSERT_EQ(build().spots_of(piece()).size(), 2U);
  const auto spot = build().spots_of(piece()).back().second;
  EXPECT_EQ(spot.kind, build::SpotKind::flash);
  EXPECT_EQ(spot.size, 1.5);
  EXPECT_EQ(page().canvas()->scene_input().spots.size(), before + 1);
  // Flash is dressed off first; that is done, or something else decided, where it stands in the list.
  EXPECT_EQ(spot.cure, build::SpotCure::dress_off);
  panel->list()->setCurrentRow(1);
  EXPECT_EQ(panel->cure_box()->currentText(), "dress off first");
  QTest::mouseClick(panel->done_box(), Qt::LeftButton, Qt::NoModifier, {8, panel->done_box()->height() / 2});
  EXPECT_TRUE(build().spots_of(piece()).back().second.done);
  EXPECT_TRUE(panel->list()->item(1)->text().contains("dress off first \u2713"))
      << panel->list()->item(1)->text();
  panel->cure_box()->setCurrentIndex(static_cast<int>(build::SpotCure::leave));
  emit panel->cure_box()->activated(static_cast<int>(build::SpotCure::leave));
  EXPECT_EQ(build().spots_of(piece()).back().second.cure, build::SpotCure::leave);
  EXPECT_FALSE(build().spots_of(piece()).back().second.done);
}

TEST_F(Surveying, RowsPastedFromASpreadsheetBecomeTouches) {
  const auto before = build().touches_of(piece()).size();
  // With headings, and without.
  QApplication::clipboard()->setText(
      "surface\tx_mm\ty_mm\tz_mm\tsetting\nfoot\t1.5\t2\t3\ton its foot\nbore\t4\t5\t6\ton its foot\n");
  page().table()->setFocus();
  QTest::keyClick(page().table(), Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(build().touches_of(piece()).size(), before + 2);
  EXPECT_TRUE(page().paste("foot\t7\t8\t9\n"));
  EXPECT_EQ(build().touches_of(piece()).back().second.centre, Vec3(7, 8, 9));
  EXPECT_FALSE(page().paste(""));
}

TEST_F(Surveying, TheTableIsCopiedWithItsHeadings) {
  page().table()->setFocus();
  page().table()->clearSelection();
  QTest::keyClick(page().table(), Qt::Key_C, Qt::ControlModifier);
  const auto text = QApplication::clipboard()->text();
  EXPECT_TRUE(text.startsWith("No.\tSurface\tx\ty\tz\t")) << text.left(60).toStdString();
  EXPECT_EQ(text.count('\n'), 1 + static_cast<int>(build().touches_of(piece()).size()));
  EXPECT_FALSE(text.contains(QChar(0x2212)));
}

TEST_F(Surveying, MarksInACsvComeBackAndGiveSettingsTheirFrames) {
  const auto path = folder.filePath("bracket.csv");
  ASSERT_TRUE(page().export_file(path));
  const auto marks = build().marks_of(piece()).size(), touches = build().touches_of(piece()).size();
  ASSERT_TRUE(window->document().apply(build::set_quantity(build(), window->document().part(), 2)));
  window->document().choose(window->document().part(),
                            build().pieces_of(window->document().part()).back().first);
  ASSERT_TRUE(page().import_file(path));
  EXPECT_EQ(build().marks_of(piece()).size(), marks);
  EXPECT_EQ(build().touches_of(piece()).size(), touches);
  page().tabs()->choose(1);
  EXPECT_EQ(build().settings_of(piece()).size(), 2U);
  int joined = 0;
  for (const char* name : {"on its foot", "on its side"})
    joined += page().settings()->setting_text(name).startsWith("joined by 4 marks") ? 1 : 0;
  EXPECT_EQ(joined, 1); // one lends the survey its frame
}

TEST_F(Surveying, AScanIsGivenToItsSurfaces) {
  // A scan of the first pedestal's kind: points of its touches, thick enough to be laid.
  choose_piece(0);
  const auto state = app::piece_state(build(), piece());
  const auto path = folder.filePath("scan.ply");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  QByteArray body;
  int count = 0;
  for (const auto& point : state.input.seat.points)
    for (int k = 0; k < 20; ++k, ++count)
      body += QByteArray::number(point.xyz.x() + 0.01 * k) + " " + QByteArray::number(point.xyz.y()) + " " +
              QByteArray::number(point.xyz.z() + 0.005 * k) + "\n";
  for (int k = 0; k < 5; ++k, ++count) body += "200 " + QByteArray::number(100 + k) + " 90\n";
  file.write("ply\nformat ascii 1.0\nelement vertex " + QByteArray::number(count) +
             "\nproperty float x\nproperty float y\nproperty float z\nend_header\n" + body);
  file.close();
  ASSERT_TRUE(window->document().apply(build::set_quantity(build(), window->document().part(), 3)));
  window->document().choose(window->document().part(),
                            build().pieces_of(window->document().part()).back().first);
  QSignalSpy ended(&page(), &app::TouchesPage::scan_ended);
  ASSERT_TRUE(page().import_scan(path, Unit::mm));
  ASSERT_TRUE(ended.wait(patience(120000)));
  ASSERT_EQ(build().scans_of(piece()).size(), 1U);
  const auto after = app::piece_state(build(), piece());
  EXPECT_GT(after.input.seat.points.size(), static_cast<std::size_t>(0.7 * count));
  EXPECT_TRUE(after.can_judge());
  EXPECT_GE(page().canvas()->scene_input().strays.size(),
            5U); // those far from everything are shown, not used
  window->go_to(MainWindow::seat);
  seat_best();
  EXPECT_TRUE(window->seat_page()->state().best);

  EXPECT_FALSE(page().import_scan(folder.filePath("nothing.ply"), Unit::mm));
}

TEST_F(Surveying, ADroppedScanIsAskedForItsUnitAndNotGuessed) {
  const auto path = folder.filePath("thin.ply");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nproperty float z\n"
             "end_header\n1 2 3\n");
  file.close();
  bool asked = false;
  QTimer::singleShot(100, [&] {
    if (auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget())) {
      asked = dialog->windowTitle() == "Unit of the scan";
      dialog->reject();
    }
  });
  EXPECT_FALSE(window->open_file(path)); // no unit said, nothing taken
  EXPECT_TRUE(asked);
  EXPECT_TRUE(build().scans_of(piece()).empty());
}

/// A setting that gives heights asks where on the face, not for x and y; left empty it is not known.
TEST_F(Surveying, AHeightIsBookedWhereItWasTouched) {
  build::Setting plate;
  plate.piece = piece();
  plate.name = "on the plate";
  plate.frame = build::SettingFrame::heights;
  ASSERT_TRUE(window->document().apply(build::add(build(), plate, "Setting")));
  auto& entry = *page().entry();
  auto* setting = entry.findChild<QLineEdit*>();
  for (auto* edit : entry.findChildren<QLineEdit*>())
    if (edit->accessibleName() == "Setting") setting = edit;
  enter(setting, "on the plate");
  EXPECT_EQ(entry.coordinate(0)->accessibleName(), "On its face, right");
  enter(entry.coordinate(0), "12");
  enter(entry.coordinate(1), "-5");
  enter(entry.coordinate(2), "31.5", Qt::Key_Return);
  const auto& kept = build().touches_of(piece()).back().second;
  EXPECT_EQ(kept.centre, Vec3(0, 0, 31.5));
  EXPECT_EQ(kept.right, 12);
  EXPECT_EQ(kept.up, -5);
  EXPECT_TRUE(entry.message().contains("at a height of 31.50")) << entry.message();
  auto* model = page().model();
  const int row = model->row_of(build().touches_of(piece()).back().first);
  EXPECT_EQ(model->index(row, app::TouchModel::x).data().toString(),
            QString(QChar(0x2192)) + QChar(0x202F) + "12.00");
  ASSERT_TRUE(model->setData(model->index(row, app::TouchModel::x), "14", Qt::EditRole));
  EXPECT_EQ(build().touches_of(piece()).back().second.right, 14);
  EXPECT_EQ(build().touches_of(piece()).back().second.centre.x(), 0);
  enter(entry.coordinate(2), "30", Qt::Key_Return);
  EXPECT_EQ(model->index(row + 1, app::TouchModel::x).data().toString(), QString(QChar(0x2013)));
  enter(setting, "on its foot");
  EXPECT_EQ(entry.coordinate(0)->accessibleName(), "x");
}

/// Points of a scan between two faces, given to one of them by hand.
TEST_F(Surveying, DoubtfulScanPointsAreGivenToAFace) {
  choose_piece(0);
  auto points = std::make_shared<build::ScanPoints>();
  // Beside the edge of the foot and end A of the pedestal, as far from the one as from the other.
  const auto surface = [&](const char* name) {
    for (const auto& [id, s] : build().surfaces_of(window->document().part()))
      if (s.name == name) return id;
    return build::Id{0};
  };
  const auto& foot = *build().find<build::PartSurface>(surface("foot"));
  const auto& end = *build().find<build::PartSurface>(surface("end A"));
  window->go_to(MainWindow::seat);
  seat_best();
  window->go_to(MainWindow::touches);
  const Pose to_survey = build().seat_of(piece())->second.pose.inverse();
  for (int k = 0; k < 4; ++k) {
    const Vec3 at = to_survey.apply(Vec3(end.point.x(), -6.0 + 4 * k, foot.point.z()) +
                                    2.5 * (foot.direction + end.direction));
    points->at.push_back({float(at.x()), float(at.y()), float(at.z())});
    points->surface.push_back(build::ScanPoints::no_surface);
  }
  points->surfaces = {surface("foot")};
  const build::Scan scan{piece(), "edge", {}, 0.05, points};
  ASSERT_TRUE(window->document().apply(build::add(build(), scan, "Scan")));
  auto& doubts = *page().doubts();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !doubts.busy(); }, patience(5000)));
  ASSERT_EQ(doubts.doubts().size(), 1U);
  ASSERT_EQ(doubts.boxes().size(), 1U);
  ASSERT_TRUE(doubts.isVisible());
  auto* box = doubts.boxes().front();
  EXPECT_TRUE(box->accessibleName().startsWith("Give the 4 between")) << box->accessibleName();
  const auto before = app::piece_state(build(), piece()).input.seat.points.size();
  box->setCurrentText("to end A");
  emit box->activated(box->currentIndex());
  EXPECT_EQ(app::piece_state(build(), piece()).input.seat.points.size(), before + 4);
  EXPECT_EQ(window->undo_action()->text(), "Undo: Give 4 points of the scan to end A");
  ASSERT_TRUE(QTest::qWaitFor([&] { return !doubts.busy(); }, patience(5000)));
  EXPECT_FALSE(doubts.isVisible());
}
