#include "app/chains/chains_page.h"
#include "app/drawing/dimension_panel.h"
#include "app/joints/joints_page.h"
#include "app/overview/overview_page.h"
#include "tests/app/bench.h"

#include "app/joints/joint_dialog.h"
#include "app/marks/why.h"
#include "build/edit_drawing.h"
#include "readings/size_now.h"

#include <QElapsedTimer>
#include <QStyle>

#include <cmath>
#include <set>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

/// The reading of it that is kept; nothing where there is none.
static std::optional<build::Measurement> readings_of(const build::Build& b, const chains::Made& made) {
  return readings::size_now(b, made).measurement;
}

class Joints : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
    window->go_to(MainWindow::joints);
  }
  app::JointsPage& page() { return *window->joints_page(); }
  const build::Build& b() { return window->document().build(); }
  build::Id joint(const std::string& name) {
    for (const auto& [id, j] : b().joints())
      if (j.name == name) return id;
    return 0;
  }
  void choose(const std::string& name) {
    ASSERT_NE(joint(name), 0) << name;
    page().choose(joint(name));
    ASSERT_EQ(page().state().joint.name, name);
  }
  double room(const std::string& name) {
    const auto targets = chains::build_targets(b());
    return targets.result.conditions[static_cast<std::size_t>(targets.tightest_of_joint(joint(name)))].room;
  }
  /// The micrometer of the demo reads 2 µm over; "±" as typed leaves that out.
  void without_instrument() { page().make()->instrument_box()->setCurrentIndex(0); }
};

// The story of the joint: the bore is measured over, its pin's target moves, the pin is made, the joint
// closes.
TEST_F(Joints, BoreMeasuredOverPinFollowsJointCloses) {
  choose("Eccentric on shaft");
  auto* make = page().make();
  EXPECT_EQ(make->figure_text(), "17.009"); // the bore's own target first
  without_instrument();
  enter(make->hole_edit(), "17.031 \u00B10.003", Qt::Key_Return);
  const auto first = make->figure_text();
  EXPECT_GT(first.toDouble(), 16.990);
  EXPECT_TRUE(make->was_text().startsWith("was 16.98")) << make->was_text().toStdString();
  EXPECT_TRUE(make->was_text().contains("before Eccentric sheave, bore was read"));
  EXPECT_TRUE(make->verdict().contains("out: 13\u202F\u00B5m over")) << make->verdict().toStdString();
  EXPECT_NEAR(make->why().total(), first.toDouble(), 0.0006);
  EXPECT_TRUE(make->moves_text().contains("Crankshaft, eccentric seat"));
  without_instrument();
  enter(make->shaft_edit(), first + " \u00B10.002", Qt::Key_Return);
  EXPECT_EQ(make->was_text(), "The joint closes as it was meant.");
  EXPECT_GE(room("Eccentric on shaft"), 1);
  // Undone, the pin waits again; done again, it is closed: nothing entered is lost.
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(make->figure_text(), first);
  press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(make->was_text(), "The joint closes as it was meant.");
}

TEST_F(Joints, ABoreFarOverAsksTheDrawingToGiveWay) {
  choose("Eccentric on shaft");
  auto* make = page().make();
  EXPECT_FALSE(make->widen_button()->isVisible());
  without_instrument();
  enter(make->hole_edit(), "17.080 \u00B10.003", Qt::Key_Return);
  EXPECT_TRUE(make->widen_button()->isVisible());
  EXPECT_TRUE(make->follow_button()->isVisible());
  EXPECT_TRUE(make->was_text().contains("over its drawing limit")) << make->was_text().toStdString();
  // 17.080 less the most of H7/g6 at 17, 0.035, against 17 g6's upper 16.994: 0.051 short (ISO 286-2).
  EXPECT_TRUE(make->was_text().contains("the upper limit of Crankshaft, eccentric seat must grow by 0.0510"))
      << make->was_text().toStdString();
  QTest::mouseClick(make->widen_button(), Qt::LeftButton);
  const auto* d = b().find<build::Dimension>(page().state().joint.shaft);
  EXPECT_EQ(d->reason, "departs from the drawing for Eccentric on shaft");
  EXPECT_EQ(d->source, build::DimensionSource::mate);
  ASSERT_EQ(d->history.size(), 1U);
  EXPECT_EQ(d->history[0].was, "17 mm g6");
  // Widened to the very number, the limit pulled it back from the middle of the joint: 17.080 less the middle
  // of 6 to 35 \u00B5m.
  EXPECT_NEAR(make->figure_text().toDouble(), 17.0595, 0.0006);
  EXPECT_GE(room("Eccentric on shaft"), 0.999);
}

// "Widen" overwrote what the person had written.
TEST_F(Joints, AReasonThatWasTypedStays) {
  choose("Eccentric on shaft");
  const auto shaft = page().state().joint.shaft;
  auto typed = *b().find<build::Dimension>(shaft);
  typed.reason = "as the old one";
  window->document().apply(build::change(b(), shaft, typed, "Reason"));
  without_instrument();
  enter(page().make()->hole_edit(), "17.080 \u00B10.003", Qt::Key_Return);
  QTest::mouseClick(page().make()->widen_button(), Qt::LeftButton);
  EXPECT_EQ(b().find<build::Dimension>(shaft)->reason,
            "as the old one; departs from the drawing for Eccentric on shaft");
}

TEST_F(Joints, TheDrawingFollowsTheMate) {
  choose("Eccentric on shaft");
  const auto shaft = page().state().joint.shaft;
  const auto was = *b().find<build::Dimension>(shaft);
  without_instrument();
  auto* make = page().make();
  enter(make->hole_edit(), "17.080 \u00B10.003", Qt::Key_Return);
  const double wanted = 17.0595; // as above
  QTest::mouseClick(make->follow_button(), Qt::LeftButton);
  const auto& now = *b().find<build::Dimension>(shaft);
  EXPECT_EQ(now.lower, was.lower); // the tolerance stays
  EXPECT_EQ(now.upper, was.upper);
  EXPECT_EQ(now.tolerance, "g6");
  EXPECT_NEAR((now.least() + now.most()) / 2, wanted, 0.0006);
  EXPECT_NEAR(make->figure_text().toDouble(), wanted, 0.0006);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(*b().find<build::Dimension>(shaft), was);
}

// Only the joint's clearance was taken; the dimensions stayed without limits. ISO 286-2 at 17 mm: H8 +0.027,
// e8 -0.032 to -0.059; ANSI B4.1 RC4 at 0.669 in: hole +1.0, shaft -0.6 to -1.3 thou (from memory).
TEST_F(Joints, ACodeGivesHoleAndShaftTheirLimitsByTabAndByEnter) {
  choose("Eccentric on shaft");
  window->show_face(1);
  const auto joint = page().state().joint;
  const auto limits = [&](build::Id id) {
    const auto* d = b().find<build::Dimension>(id);
    return std::tuple(d->lower, d->upper, d->tolerance);
  };
  const auto was_hole = limits(joint.hole), was_shaft = limits(joint.shaft);
  for (const auto key : {Qt::Key_Tab, Qt::Key_Return}) {
    enter(page().fit()->code_edit(), "H8/e8", key);
    EXPECT_NEAR(std::get<1>(limits(joint.hole)), 0.027, 1e-12);
    EXPECT_EQ(std::get<2>(limits(joint.hole)), "H8");
    EXPECT_NEAR(std::get<0>(limits(joint.shaft)), -0.059, 1e-12);
    EXPECT_NEAR(std::get<1>(limits(joint.shaft)), -0.032, 1e-12);
    EXPECT_EQ(std::get<2>(limits(joint.shaft)), "e8");
    EXPECT_EQ(page().state().joint.basis, "ISO 286 H8/e8");
    press(Qt::Key_Z, Qt::ControlModifier); // one step
    EXPECT_EQ(limits(joint.hole), was_hole);
    EXPECT_EQ(limits(joint.shaft), was_shaft);
    EXPECT_EQ(page().state().joint, joint);
  }
  enter(page().fit()->code_edit(), "RC4", Qt::Key_Tab);
  EXPECT_NEAR(std::get<1>(limits(joint.hole)), 0.0254, 1e-9);
  EXPECT_NEAR(std::get<0>(limits(joint.shaft)), -1.3 * 0.0254, 1e-9);
  EXPECT_EQ(std::get<2>(limits(joint.shaft)), "");
  enter(page().fit()->code_edit(), "H7/q6", Qt::Key_Tab); // refused: its words stay to be mended
  EXPECT_EQ(page().fit()->code_edit()->text(), "H7/q6");
}

TEST_F(Joints, ReadingsAsThePersonTakesThem) {
  choose("Eccentric on shaft");
  auto* make = page().make();
  // The micrometer shows 2 µm too much: taken off, and said.
  ASSERT_EQ(make->instrument_box()->currentText(), "micrometer 0\u201325");
  enter(make->hole_edit(), "17.012", Qt::Key_Return);
  const auto hole = page().state().hole;
  EXPECT_NEAR(readings_of(b(), hole)->value, 17.010, 1e-9);
  EXPECT_NEAR(readings_of(b(), hole)->uncertainty, 0.003, 1e-9);
  EXPECT_EQ(readings_of(b(), hole)->read, "17.012");
  EXPECT_TRUE(make->verdict().contains("17.010"));
  // Zeroed on its mate.
  enter(make->shaft_edit(), "mate -0.022", Qt::Key_Return);
  const auto shaft = readings_of(b(), page().state().shaft);
  ASSERT_TRUE(shaft);
  EXPECT_NEAR(shaft->value, 16.988, 1e-9);
  EXPECT_EQ(shaft->mate, hole.dimension);
  EXPECT_NEAR(page().clearance()->picture().expected, 0.022, 1e-9); // the difference itself
  // Gauge pins.
  enter(make->hole_edit(), "go 17.00 no-go 17.02", Qt::Key_Return);
  EXPECT_NEAR(readings_of(b(), hole)->value, 17.01, 1e-9);
  EXPECT_NEAR(readings_of(b(), hole)->uncertainty, 0.01, 1e-9);
  EXPECT_TRUE(make->verdict().contains("gauges"));
  // What cannot be is refused in place, and what was there stays.
  for (const char* bad : {"go 17.02 no-go 17.00", "seventeen", "-3", "432 mm"}) {
    enter(make->hole_edit(), bad, Qt::Key_Return);
    EXPECT_EQ(make->hole_edit()->property("wrong"), true) << bad;
    EXPECT_EQ(make->hole_edit()->text(), bad);
    EXPECT_NEAR(readings_of(b(), hole)->value, 17.01, 1e-9) << bad;
  }
  enter(make->hole_edit(), "", Qt::Key_Return);
  EXPECT_FALSE(readings_of(b(), hole));
}

TEST_F(Joints, AReadingShowsItsTargetsSoon) {
  const auto before = b().records();
  choose("Eccentric on shaft");
  auto* edit = page().make()->hole_edit();
  edit->setFocus();
  edit->selectAll();
  QTest::keyClicks(edit, "17.015");
  QElapsedTimer timer;
  timer.start();
  QTest::keyClick(edit, Qt::Key_Return);
  QApplication::processEvents();
  const auto taken = timer.elapsed();
  RecordProperty("milliseconds", static_cast<int>(taken)); // 50 is aimed at; benchmarks measure it
  EXPECT_NE(b().records(), before);
}

TEST_F(Joints, StatedByPointingAtTwoFeatures) {
  const auto before = b().joints().size();
  app::JointDialog dialog(window->document(), window.get());
  dialog.show();
  dialog.name_edit()->setText("Rod in cover");
  dialog.purpose_box()->setCurrentIndex(static_cast<int>(build::JointPurpose::runs_freely));
  dialog.hole_box()->setCurrentIndex(dialog.hole_box()->findText("Gland, rod hole", Qt::MatchStartsWith));
  dialog.shaft_box()->setCurrentIndex(dialog.shaft_box()->findText("Piston rod, rod", Qt::MatchStartsWith));
  EXPECT_FALSE(dialog.hole_size()->isVisible());
  QTest::mouseClick(dialog.state_button(), Qt::LeftButton);
  ASSERT_EQ(b().joints().size(), before + 1) << dialog.message().toStdString();
  const auto* j = b().find<build::Joint>(dialog.joint());
  EXPECT_EQ(j->basis, "ISO 286 H8/f7");
  EXPECT_GT(j->least, 0);
  EXPECT_EQ(window->undo_action()->text(), "Undo: State the joint Rod in cover");
}

// Enter on the button that leaves the dialog stated the joint.
TEST_F(Joints, EnterOnCancelStatesNothing) {
  const auto records = b().records();
  app::JointDialog dialog(window->document(), window.get());
  dialog.show();
  dialog.name_edit()->setText("Rod in cover");
  dialog.purpose_box()->setCurrentIndex(static_cast<int>(build::JointPurpose::runs_freely));
  dialog.hole_box()->setCurrentIndex(dialog.hole_box()->findText("Gland, rod hole", Qt::MatchStartsWith));
  dialog.shaft_box()->setCurrentIndex(dialog.shaft_box()->findText("Piston rod, rod", Qt::MatchStartsWith));
  QPushButton* cancel = nullptr;
  for (auto* button : dialog.findChildren<QPushButton*>())
    if (button->text() == "Cancel") cancel = button;
  ASSERT_TRUE(cancel);
  cancel->setFocus();
  QTest::keyClick(cancel, Qt::Key_Return);
  EXPECT_EQ(dialog.result(), QDialog::Rejected);
  EXPECT_FALSE(dialog.isVisible());
  EXPECT_TRUE(b().records() == records);
}

TEST_F(Joints, StatedByTypingTwoSizes) {
  app::JointDialog dialog(window->document(), window.get());
  dialog.show();
  dialog.name_edit()->setText("Trial");
  dialog.purpose_box()->setCurrentIndex(static_cast<int>(build::JointPurpose::press));
  QTest::mouseClick(dialog.state_button(), Qt::LeftButton);
  EXPECT_TRUE(dialog.message().startsWith("The hole:")) << dialog.message().toStdString();
  dialog.hole_size()->setText("1/2 in +0.0005/0");
  dialog.shaft_size()->setText("1/2 in s6");
  QTest::mouseClick(dialog.state_button(), Qt::LeftButton);
  ASSERT_NE(dialog.joint(), 0) << dialog.message().toStdString();
  const auto* j = b().find<build::Joint>(dialog.joint());
  EXPECT_NEAR(b().find<build::Dimension>(j->hole)->nominal, 12.7, 1e-9);
  EXPECT_NEAR(b().find<build::Dimension>(j->hole)->upper, 0.0127, 1e-9);
  EXPECT_LT(j->most, 0);
  page().choose(dialog.joint());
  EXPECT_TRUE(page().zones()->picture().known);
}

TEST_F(Joints, ProposalsSideBySideAndByCode) {
  choose("Piston on rod");
  window->show_face(1);
  auto* fit = page().fit();
  ASSERT_GE(fit->proposals()->rowCount(), 3);
  EXPECT_EQ(fit->proposals()->item(0, 0)->text(), "ISO 286 H7/h6");
  fit->proposals()->setCurrentCell(fit->proposals()->rowCount() - 1, 0);
  EXPECT_TRUE(fit->words().contains("thou")) << fit->words().toStdString();
  EXPECT_TRUE(fit->words().contains("reamer 5 mm")) << fit->words().toStdString();
  QTest::mouseClick(fit->take_button(), Qt::LeftButton);
  EXPECT_EQ(b().find<build::Joint>(joint("Piston on rod"))->basis, "shop's rule");
  enter(fit->code_edit(), "H7/k6", Qt::Key_Return);
  EXPECT_EQ(b().find<build::Joint>(joint("Piston on rod"))->basis, "ISO 286 H7/k6");
  EXPECT_NEAR(b().find<build::Joint>(joint("Piston on rod"))->least, -0.009,
              1e-9); // 5 k6: +1 to +9, from memory
  enter(fit->code_edit(), "H7/q6", Qt::Key_Return);
  EXPECT_TRUE(fit->words().contains("there is no class q6 at 5 mm")) << fit->words().toStdString();
  // Limits that exclude each other.
  enter(fit->least_field()->edit(), "0.5", Qt::Key_Return);
  EXPECT_TRUE(fit->least_field()->message().contains("nothing could be right. It stays -0.009 mm."))
      << fit->least_field()->message().toStdString();
  EXPECT_EQ(fit->least_field()->edit()->text(), "0.5"); // there to be mended
  EXPECT_NEAR(b().find<build::Joint>(joint("Piston on rod"))->least, -0.009, 1e-9);
}

TEST_F(Joints, ATemperatureIsReadWithItsUnit) {
  choose("Piston in cylinder");
  window->show_face(2);
  auto* field = page().work()->temperature_edit();
  const auto kept = [&] { return b().find<build::Joint>(joint("Piston in cylinder"))->temperature; };
  for (const auto& [text, celsius] :
       {std::pair{"250 \u00B0C", 250.0}, {"90C", 90.0}, {"212 \u00B0F", 100.0}, {"120", 120.0}}) {
    enter(field, text, Qt::Key_Return);
    EXPECT_NEAR(kept(), celsius, 1e-9) << text;
  }
  enter(field, "hot", Qt::Key_Return);
  EXPECT_NEAR(kept(), 120, 1e-9);
  EXPECT_EQ(field->text(), "hot"); // there to be mended
}

TEST_F(Joints, TemperatureIsDraggedAndKept) {
  choose("Piston in cylinder");
  auto* zones = page().zones();
  ASSERT_TRUE(zones->picture().temperature_known); // cast iron in cast iron
  const double y = zones->height() - 30;
  QTest::mousePress(zones, Qt::LeftButton, {},
                    QPoint(static_cast<int>(zones->temperature_px(20)), static_cast<int>(y)));
  QTest::mouseMove(zones, QPoint(static_cast<int>(zones->temperature_px(100)), static_cast<int>(y)));
  EXPECT_NEAR(zones->picture().temperature, 100, 1.5);
  EXPECT_EQ(b().find<build::Joint>(joint("Piston in cylinder"))->temperature, 20); // not yet: only looked at
  QTest::mouseRelease(zones, Qt::LeftButton, {},
                      QPoint(static_cast<int>(zones->temperature_px(100)), static_cast<int>(y)));
  EXPECT_NEAR(b().find<build::Joint>(joint("Piston in cylinder"))->temperature, 100, 1.5);
  zones->setFocus();
  QTest::keyClick(zones, Qt::Key_Right);
  EXPECT_NEAR(b().find<build::Joint>(joint("Piston in cylinder"))->temperature, 105, 1.5);
  window->show_face(2);
  enter(page().work()->temperature_edit(), "900", Qt::Key_Return);
  EXPECT_TRUE(window->message().contains("past what grey iron")) << window->message().toStdString();
  EXPECT_NEAR(b().find<build::Joint>(joint("Piston in cylinder"))->temperature, 105, 1.5);
  enter(page().work()->temperature_edit(), "warm", Qt::Key_Return);
  EXPECT_TRUE(page().work()->heat_text().contains("degrees Celsius"));
}

TEST_F(Joints, WorkOfAPressABearingAndAThread) {
  choose("Crank on shaft");
  window->show_face(2);
  auto* work = page().work();
  EXPECT_TRUE(work->press_text().contains("Pressure")) << work->press_text().toStdString();
  EXPECT_TRUE(work->press_text().contains("Pushes on with about"));
  enter(work->hub_field()->edit(), "0", Qt::Key_Return);
  EXPECT_TRUE(work->press_text().contains("Say how large the hub is")) << work->press_text().toStdString();
  QTest::mouseClick(work->apart_box(), Qt::LeftButton, {}, QPoint(8, work->apart_box()->height() / 2));
  EXPECT_TRUE(b().find<build::Joint>(joint("Crank on shaft"))->comes_apart);
  EXPECT_TRUE(work->methods()->item(0)->text().contains("no, it must come apart again"));
  choose("Bearing on spindle");
  EXPECT_TRUE(work->press_text().contains("Left inside")) << work->press_text().toStdString();
  choose("Cylinder studs");
  EXPECT_TRUE(work->press_text().contains("Tapping drill 3.3 mm (0.1299\u202Fin): 77 % of thread"))
      << work->press_text().toStdString();
  choose("Rod in gland");
  EXPECT_TRUE(work->press_text().contains("the fit itself holds nothing"));
}

TEST_F(Joints, PiecesArePairedAndSeveralReadingsTellTheForm) {
  choose("Rings in groove");
  window->show_face(3);
  auto* pairs = page().pairs();
  EXPECT_EQ(pairs->table()->rowCount(), 2);
  EXPECT_FALSE(pairs->pair_button()->isEnabled());
  choose("Pedestal bushes");
  // Two pedestals, two bushes, read so that crosswise is better.
  const auto* j = b().find<build::Joint>(joint("Pedestal bushes"));
  const auto in_order = chains::joint_pairs(b(), *j);
  const double holes[] = {27.020, 27.002}, shafts[] = {27.024, 27.036};
  for (std::size_t k = 0; k < 2; ++k)
    for (const bool hole : {true, false}) {
      build::Measurement m;
      m.piece = hole ? in_order[k].first : in_order[k].second;
      m.dimension = hole ? j->hole : j->shaft;
      m.value = hole ? holes[k] : shafts[k];
      m.uncertainty = 0.002;
      ASSERT_TRUE(window->document().apply(build::add(b(), m, "Measure")));
    }
  ASSERT_TRUE(pairs->pair_button()->isEnabled());
  QTest::mouseClick(pairs->pair_button(), Qt::LeftButton);
  const auto& paired = b().find<build::Joint>(joint("Pedestal bushes"))->pairs;
  ASSERT_EQ(paired.size(), 2U);
  EXPECT_EQ(paired[0], std::pair(in_order[0].first, in_order[1].second));
  // Readings at places: the smallest of a bore counts.
  choose("Flywheel on shaft");
  ASSERT_EQ(pairs->instrument_box()->currentText(), "micrometer 0\u201325");
  pairs->instrument_box()->setCurrentIndex(0); // the sizes as typed
  for (const auto& [depth, turned, size] :
       {std::tuple{"0", "0", "16.012"}, {"15", "90", "16.006"}, {"28", "0", "16.004"}}) {
    pairs->depth_edit()->setText(depth);
    pairs->direction_edit()->setText(turned);
    enter(pairs->size_edit(), size, Qt::Key_Return);
  }
  const auto reading = readings_of(b(), page().state().hole);
  ASSERT_TRUE(reading);
  EXPECT_EQ(reading->places.size(), 3U);
  EXPECT_NEAR(reading->value, 16.004, 1e-9);
  EXPECT_TRUE(pairs->form_words().contains("narrower inside")) << pairs->form_words().toStdString();
  enter(pairs->size_edit(), "-1", Qt::Key_Return);
  EXPECT_TRUE(pairs->form_words().contains("must be above 0"));
}

TEST_F(Joints, ListGoesByKeyTightestFirst) {
  const auto& entries = page().list()->entries();
  ASSERT_GE(entries.size(), 30U);
  for (std::size_t k = 1; k < entries.size(); ++k) EXPECT_LE(entries[k - 1].room, entries[k].room);
  page().list()->setFocus();
  const auto first = page().state().id;
  QTest::keyClick(page().list(), Qt::Key_Down);
  EXPECT_NE(page().state().id, first);
  // The joint that is removed goes, and comes back.
  const auto gone = page().state().id;
  window->show_face(1);
  QTest::mouseClick(page().fit()->remove_button(), Qt::LeftButton);
  EXPECT_EQ(b().find<build::Joint>(gone), nullptr);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NE(b().find<build::Joint>(gone), nullptr);
}

TEST_F(Joints, InInchesEverythingIsInInches) {
  auto info = b().info();
  info.unit = Unit::inch;
  ASSERT_TRUE(window->document().apply(build::replace(b(), build::Build::info_id, info, "Inches")));
  choose("Big end");
  EXPECT_TRUE(page().make()->figure_text().startsWith("0.43")) << page().make()->figure_text().toStdString();
  without_instrument();
  enter(page().make()->shaft_edit(), ".4323 \u00B1.0001", Qt::Key_Return);
  EXPECT_NEAR(readings_of(b(), page().state().shaft)->value, 0.4323 * 25.4, 1e-9);
}

TEST_F(Joints, ADecimalCommaIsReadWhereThePersonWritesOne) {
  choose("Eccentric on shaft");
  QLocale::setDefault(QLocale(QLocale::German));
  without_instrument();
  enter(page().make()->hole_edit(), "17,012 \u00B10,002", Qt::Key_Return);
  QLocale::setDefault(QLocale::c());
  const auto reading = readings_of(b(), page().state().hole);
  ASSERT_TRUE(reading);
  EXPECT_NEAR(reading->value, 17.012, 1e-9);
  EXPECT_NEAR(reading->uncertainty, 0.002, 1e-9);
}

TEST_F(Joints, WithoutAnyJointEveryPageTeaches) {
  std::vector<build::Id> all;
  for (const auto& [id, j] : b().joints()) all.push_back(id);
  for (const auto& [id, c] : b().chains()) all.push_back(id);
  ASSERT_TRUE(window->document().apply(build::remove_all(b(), all, "Begin again")));
  EXPECT_FALSE(page().zones()->picture().known);
  window->show_face(1);
  EXPECT_FALSE(page().fit()->isEnabled());
  EXPECT_EQ(page().list()->count(), 0);
  window->go_to(MainWindow::chains);
  EXPECT_EQ(window->chains_page()->list()->count(), 0);
  EXPECT_FALSE(window->chains_page()->links()->isEnabled());
  window->go_to(MainWindow::overview);
  EXPECT_TRUE(window->overview_page()->words().startsWith("No joints yet"));
  EXPECT_TRUE(window->overview_page()->next().empty());
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(window->overview_page()->next().empty());
}

TEST_F(Joints, AThousandJointsAreListed) {
  std::vector<build::Record> more;
  const auto* big = b().find<build::Joint>(joint("Big end"));
  for (int k = 0; k < 1000; ++k) {
    auto j = *big;
    j.name = "Joint " + std::to_string(k);
    j.order = 100 + k;
    more.emplace_back(j);
  }
  ASSERT_TRUE(window->document().apply(build::add_all(b(), std::move(more), "A thousand")));
  EXPECT_EQ(page().list()->count(), 1033);
  window->go_to(MainWindow::overview);
  EXPECT_EQ(window->overview_page()->tightest().size(), 10U);
  press(Qt::Key_Z, Qt::ControlModifier);
  window->go_to(MainWindow::joints);
  EXPECT_EQ(page().list()->count(), 33);
}

// A part that goes takes its joints along, and the page goes on with another.
TEST_F(Joints, APartThatGoesTakesItsJointsAlong) {
  choose("Big end");
  const auto rod = b().find<build::Dimension>(page().state().joint.hole)->part;
  const auto before = b().joints().size();
  ASSERT_TRUE(window->document().apply(build::remove(b(), rod, "Remove the rod")));
  EXPECT_LT(b().joints().size(), before);
  EXPECT_NE(page().state().id, 0);
  EXPECT_NE(page().state().joint.name, "Big end");
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(b().joints().size(), before);
}

TEST_F(Joints, LimitsAreTypedInEitherUnitAndTheBasisGoes) {
  choose("Big end");
  window->show_face(1);
  auto* fit = page().fit();
  enter(fit->most_field()->edit(), "2 thou", Qt::Key_Return);
  const auto* j = b().find<build::Joint>(joint("Big end"));
  EXPECT_NEAR(j->most, 0.0508, 1e-9);
  EXPECT_TRUE(j->basis.empty());
  enter(fit->most_field()->edit(), "2 furlongs", Qt::Key_Return);
  EXPECT_NEAR(b().find<build::Joint>(joint("Big end"))->most, 0.0508, 1e-9);
  EXPECT_FALSE(fit->most_field()->message().isEmpty());
  // Another purpose takes its own limits; a thread needs no shaft.
  fit->purpose_box()->setCurrentIndex(static_cast<int>(build::JointPurpose::bolt_clearance));
  emit fit->purpose_box()->activated(fit->purpose_box()->currentIndex());
  EXPECT_EQ(b().find<build::Joint>(joint("Big end"))->shaft, 0);
  EXPECT_NEAR(b().find<build::Joint>(joint("Big end"))->least, 5 * mm_per_thou, 1e-9); // common practice
  enter(fit->thread_edit(), "M10", Qt::Key_Return);
  EXPECT_EQ(b().find<build::Joint>(joint("Big end"))->thread, "M10");
  enter(fit->thread_edit(), "M10.1", Qt::Key_Return);
  EXPECT_TRUE(fit->words().contains("not in the table of threads")) << fit->words().toStdString();
  EXPECT_EQ(b().find<build::Joint>(joint("Big end"))->thread, "M10");
}

TEST_F(Joints, EveryFigureSaysWhereItCameFrom) {
  choose("Piston in cylinder");
  const auto why_of = [&](QWidget* from) {
    from->setFocus();
    QTest::keyClick(from, Qt::Key_F1);
    auto* card = from->findChild<app::WhyCard*>();
    auto sum = card ? card->reckoning() : Reckoning{};
    if (card) QTest::keyClick(card, Qt::Key_Escape);
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
    return sum;
  };
  auto* zones = page().zones();
  const double cold = zones->picture().hole.value() - zones->picture().shaft.value();
  EXPECT_NEAR(why_of(zones).total(), cold, 1e-9);
  emit zones->temperature_dragged(120);
  const auto hot = why_of(zones);
  EXPECT_NEAR(hot.total(), cold + zones->picture().hole.grows - zones->picture().shaft.grows, 1e-9);
  EXPECT_EQ(hot.lines.size(), 4U); // two sizes, two growths
  window->show_face(3);
  page().pairs()->table()->setCurrentCell(0, 0);
  EXPECT_NEAR(why_of(page().pairs()->table()).total(), cold, 1e-9);
  window->go_to(MainWindow::chains);
  EXPECT_NEAR(why_of(window->chains_page()->view()).total(), window->chains_page()->result().mean, 1e-9);
}

TEST_F(Joints, PairingDropsNoPieceThatIsNotReadYet) {
  choose("Pedestal bushes");
  const auto hole_part = b().find<build::Dimension>(page().state().joint.hole)->part;
  const auto shaft_part = b().find<build::Dimension>(page().state().joint.shaft)->part;
  for (const auto part : {hole_part, shaft_part})
    ASSERT_TRUE(window->document().apply(build::set_quantity(b(), part, 3)));
  window->show_face(3);
  const auto holes = b().pieces_of(hole_part), shafts = b().pieces_of(shaft_part);
  for (const auto& [piece, dimension, size] : {std::tuple{holes[0].first, page().state().joint.hole, 27.01},
                                               {shafts[2].first, page().state().joint.shaft, 27.03}}) {
    build::Measurement m;
    m.piece = piece;
    m.dimension = dimension;
    m.value = size;
    ASSERT_TRUE(window->document().apply(build::add(b(), m, "Measure")));
  }
  ASSERT_TRUE(page().pairs()->pair_button()->isEnabled());
  QTest::mouseClick(page().pairs()->pair_button(), Qt::LeftButton);
  const auto& pairs = b().find<build::Joint>(joint("Pedestal bushes"))->pairs;
  ASSERT_EQ(pairs.size(), 3U);
  EXPECT_EQ(pairs[0], std::pair(holes[0].first, shafts[2].first));
  std::set<build::Id> seen;
  for (const auto& [hole, shaft] : pairs) EXPECT_TRUE(seen.insert(hole).second && seen.insert(shaft).second);
  // One cylinder meets both covers: there is nothing to choose.
  choose("Cover in cylinder");
  EXPECT_FALSE(page().pairs()->pair_button()->isEnabled());
}

TEST_F(Joints, AReadingInTheDrawingStepIsTheSameReading) {
  choose("Eccentric on shaft");
  const auto hole = page().state().hole;
  window->document().choose(b().find<build::Dimension>(hole.dimension)->part, hole.piece);
  window->go_to(MainWindow::drawing);
  window->show_face(1);
  auto& panel = *window->findChild<app::DimensionPanel*>();
  panel.table()->setCurrentCell(1, 0); // bore
  ASSERT_EQ(panel.chosen(), hole.dimension);
  enter(panel.measured_edit(), "go 17.00 no-go 17.02", Qt::Key_Return);
  EXPECT_NEAR(readings_of(b(), hole)->uncertainty, 0.01, 1e-9);
  enter(panel.measured_edit(), "432 mm", Qt::Key_Return);
  EXPECT_TRUE(panel.message().contains("is the unit right?")) << panel.message().toStdString();
  EXPECT_NEAR(readings_of(b(), hole)->value, 17.01, 1e-9);
}
