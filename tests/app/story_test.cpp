// The whole slice as a person goes through it: state the drawing, import the survey, seat, drag, undo,
// restart, print.

#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "tests/app/bench.h"

#include "app/casting/import_dialog.h"
#include "app/marks/why.h"
#include "casting/survey.h"
#include "geometry/direction_text.h"
#include "sheets/figures.h"
#include "store/survey_csv.h"

#include <QApplication>
#include <QFile>
#include <QProcess>
#include <QTimer>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

class Story : public WindowTest {
protected:
  build::Id pedestal() const { return demo.build.find<build::Piece>(demo.pieces[0].piece)->part; }

  /// Types the demo pedestal's drawing into an empty build, through the fields a person uses.
  void type_the_pedestal() {
    auto* page = window->drawing_page();
    for (const auto& [id, s] : demo.build.surfaces_of(pedestal())) {
      page->add_surface(s.kind);
      auto* form = page->form();
      enter(form->name_edit(), QString::fromStdString(s.name));
      if (!s.machined) {
        form->finish_box()->setFocus();
        QTest::keyClick(form->finish_box(), Qt::Key_Down);
        QTest::keyClick(form->finish_box(), Qt::Key_Return);
        emit form->finish_box()->activated(form->finish_box()->currentIndex());
      }
      for (int k = 0; k < 3; ++k)
        enter(form->field(QString(QChar('x' + k)))->edit(), QString::number(s.point[k]) + " mm");
      enter(form->direction_box()->lineEdit(),
            QString::fromStdString(direction_text(s.direction)).replace(QChar(0x2212), "-"));
      if (s.round()) {
        enter(form->field("Diameter")->edit(), QString::number(s.diameter));
        enter(form->field("Length")->edit(), QString::number(s.height));
      } else {
        enter(form->field("Width")->edit(), QString::number(s.width));
        enter(form->field("Height")->edit(), QString::number(s.height));
      }
      if (s.machined) enter(form->field("Stock")->edit(), QString::number(s.required));
    }
  }

  QString survey_file() const {
    store::SurfaceNames names;
    std::vector<build::Touch> touches;
    for (const auto& [id, s] : demo.build.surfaces_of(pedestal())) names.emplace_back(id, s.name);
    for (const auto& [id, touch] : demo.build.touches_of(demo.pieces[0].piece)) touches.push_back(touch);
    auto path = folder.filePath("survey.csv");
    QFile file(path);
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(QByteArray::fromStdString(store::write_survey_csv(touches, names)));
    return path;
  }

  const build::Build& b() { return window->document().build(); }
  QString least_by_core() {
    const auto input = casting::piece_input(b(), window->document().piece());
    const auto pose = casting::seat_or_start(b(), window->document().piece(), input);
    return sheets::figure(casting::margins_at(input.seat, pose).least, window->document().unit(), true);
  }
};

} // namespace

TEST_F(Story, FromAnEmptyBuildToThePrintedSheet) {
  ASSERT_TRUE(window->new_build(folder.filePath("engine.datrin")));
  press(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
  ASSERT_EQ(b().parts().size(), 1U);
  type_the_pedestal();

  // Every surface is on record as the demo has it.
  const auto typed = b().surfaces_of(window->document().part());
  const auto wanted = demo.build.surfaces_of(pedestal());
  ASSERT_EQ(typed.size(), wanted.size());
  for (std::size_t i = 0; i < typed.size(); ++i) {
    auto a = typed[i].second, w = wanted[i].second;
    a.part = w.part;
    a.order = w.order;
    if (!w.machined) a.required = w.required;
    w.body = 0; // typed, not drawn as a face of a body
    w.face = a.face;
    w.copy = 0;
    EXPECT_EQ(a, w) << w.name;
  }

  // A wall to keep, from boss to bore.
  auto* walls = window->drawing_page()->walls();
  walls->from_box()->setCurrentText("boss");
  walls->to_box()->setCurrentText("bore");
  QTest::mouseClick(walls->add_button(), Qt::LeftButton);
  ASSERT_EQ(walls->fields().size(), 1U);
  enter(walls->fields()[0]->edit(), "6 mm");
  EXPECT_EQ(b().walls_of(window->document().part()).front().second.least, 6.0);

  // The survey.
  press(Qt::Key_2, Qt::ControlModifier);
  ASSERT_EQ(window->step(), MainWindow::touches);
  EXPECT_TRUE(window->touches_page()->gaps_text().contains("foot: touch 3 places"));
  ASSERT_TRUE(window->touches_page()->import_file(survey_file()));
  EXPECT_EQ(b().touches_of(window->document().piece()).size(), 72U);

  // The seat; figures on screen are the core's.
  press(Qt::Key_3, Qt::ControlModifier);
  seat_best();
  auto* seat = window->seat_page();
  const auto input = casting::piece_input(b(), window->document().piece());
  const auto direct = casting::seat(input.seat);
  EXPECT_EQ(seat->least_text(), sheets::figure(direct.margins.least, Unit::mm, true));
  EXPECT_EQ(seat->least_text(), least_by_core());
  ASSERT_EQ(seat->room_rows().size(), direct.margins.groups.size());
  for (std::size_t k = 0; k < direct.margins.groups.size(); ++k) {
    EXPECT_NEAR(seat->room_rows()[k]->margin(), direct.margins.groups[k].margin, 2e-3) << k;
    EXPECT_NEAR(seat->room_rows()[k]->why().total(), seat->room_rows()[k]->margin(), 1e-9);
  }
  double shares = 0;
  for (const auto& row : seat->holds()->rows()) shares += row.share;
  EXPECT_NEAR(shares, 1, 1e-9);
  EXPECT_TRUE(seat->verdict_text().contains("it cleans up"));

  // Dragging the part: every margin moves at once, and it is kept when let go.
  const auto seated = seat->least_text();
  const auto at = QPoint(300, 200);
  QTest::mousePress(seat->canvas(), Qt::LeftButton, {}, at);
  QTest::mouseMove(seat->canvas(), at + QPoint(8, 0));
  const auto dragging = seat->least_text();
  EXPECT_NE(dragging, seated);
  QTest::mouseRelease(seat->canvas(), Qt::LeftButton, {}, at + QPoint(8, 0));
  EXPECT_EQ(seat->least_text(), dragging);
  EXPECT_EQ(seat->least_text(), least_by_core());
  EXPECT_EQ(window->undo_action()->text(), "Undo: Move Part by hand");

  // Undo, also after a restart.
  const auto path = window->document().path();
  open_window();
  ASSERT_TRUE(window->open_build(path));
  EXPECT_EQ(window->undo_action()->text(), "Undo: Move Part by hand");
  press(Qt::Key_Z, Qt::ControlModifier);
  window->go_to(MainWindow::seat);
  EXPECT_EQ(window->seat_page()->least_text(), seated);
  EXPECT_EQ(window->redo_action()->text(), "Redo: Move Part by hand");

  // Marking out and the printed page.
  press(Qt::Key_4, Qt::ControlModifier);
  auto* marking = window->marking_page();
  ASSERT_TRUE(marking->can_print());
  EXPECT_EQ(marking->way_box()->currentText(), "foot down");
  enter(marking->base_field()->edit(), "1 1/4 in");
  double bore = 0, foot = 0;
  for (const auto* row : marking->figure_rows()) {
    EXPECT_NEAR(row->why().total(), row->value(), 1e-9) << row->name().toStdString();
    if (row->name() == "bore centre") bore = row->value();
    if (row->name() == "foot") foot = row->value();
  }
  EXPECT_NEAR(foot, 31.75, 1e-12);
  EXPECT_NEAR(bore, 31.75 + 46, 1e-12);
  const auto pdf = folder.filePath("sheet.pdf");
  EXPECT_EQ(marking->save_sheet(pdf), QString());
  QProcess to_text;
  to_text.start("pdftotext", {"-layout", pdf, "-"});
  ASSERT_TRUE(to_text.waitForFinished(20000)) << "pdftotext (poppler-utils) is needed for this test";
  const auto text = QString::fromUtf8(to_text.readAllStandardOutput());
  EXPECT_TRUE(text.contains("77.75")) << text.toStdString(); // the bore's centre line
  EXPECT_TRUE(text.contains("3.0610"));                      // the same in inches
  EXPECT_TRUE(text.contains("marking out, foot down"));
  QProcess info;
  info.start("pdfinfo", {pdf});
  ASSERT_TRUE(info.waitForFinished(20000));
  const auto pages = QString::fromUtf8(info.readAllStandardOutput());
  EXPECT_TRUE(pages.contains(QRegularExpression("Pages:\\s+1\\n"))) << pages.toStdString();
  EXPECT_TRUE(pages.contains("(A4)")) << pages.toStdString();
}

// The same with the keyboard alone: no mouse event, no call that a key would not make.
TEST_F(Story, KeyboardAlone) {
  ASSERT_TRUE(window->new_build(folder.filePath("keys.datrin")));
  const auto key = [&](int k, Qt::KeyboardModifiers m = Qt::NoModifier) { press(k, m); };
  const auto type = [&](const QString& text) { QTest::keyClicks(QApplication::focusWidget(), text); };
  key(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier); // a part
  ASSERT_EQ(b().parts().size(), 1U);

  // A plate in two planes: "top" 12 mm over "foot"; Tab leads from field to field.
  const auto add_plane = [&](const QString& name, const QString& z, const QString& faces) {
    key(Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
    ASSERT_EQ(QApplication::focusWidget(), window->drawing_page()->form()->name_edit());
    type(name);
    for (int n = 0; n < 5; ++n) key(Qt::Key_Tab); // kind, finish, x, y, z
    type(z);
    key(Qt::Key_Tab);
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_A, Qt::ControlModifier);
    type(faces);
    key(Qt::Key_Tab);
  };
  add_plane("foot", "0", "-z");
  add_plane("top", "12", "+z");
  const auto surfaces = b().surfaces_of(window->document().part());
  ASSERT_EQ(surfaces.size(), 2U);
  EXPECT_EQ(surfaces[1].second.name, "top");
  EXPECT_EQ(surfaces[1].second.point.z(), 12);
  EXPECT_EQ(surfaces[0].second.direction, Vec3(0, 0, -1));

  // Touches, typed: x Enter y Enter z Enter.
  key(Qt::Key_2, Qt::ControlModifier);
  auto* entry = window->touches_page()->entry();
  ASSERT_EQ(QApplication::focusWidget(), entry->surface_box());
  const auto touch = [&](const QString& x, const QString& y, const QString& z) {
    for (const auto& text : {x, y, z}) {
      type(text);
      key(Qt::Key_Return);
    }
  };
  key(Qt::Key_Tab);
  touch("-20", "-10", "-1.5");
  touch("20", "-10", "-1.5");
  touch("0", "10", "-1.5");
  key(Qt::Key_Backtab);
  key(Qt::Key_Down);
  key(Qt::Key_Tab);
  touch("-20", "-10", "13");
  touch("20", "-10", "13");
  touch("0", "1/2 in - 2.7 mm", "13");
  ASSERT_EQ(b().touches_of(window->document().piece()).size(), 6U);
  EXPECT_TRUE(window->touches_page()->gaps_text().startsWith("Nothing"));

  key(Qt::Key_3, Qt::ControlModifier);
  QSignalSpy settled(window->seat_page(), &app::SeatPage::settled);
  key(Qt::Key_S);
  ASSERT_TRUE(settled.wait(patience(5000)));
  // 1.5 below and 1 above, 0.5 needed on each: shared evenly that leaves 0.75.
  EXPECT_EQ(window->seat_page()->least_text(), "+0.75");
  key(Qt::Key_Up); // a nudge
  EXPECT_EQ(window->seat_page()->least_text(), "+0.70");
  EXPECT_EQ(window->undo_action()->text(), "Undo: Nudge Part");
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(window->seat_page()->least_text(), "+0.75");

  key(Qt::Key_4, Qt::ControlModifier);
  ASSERT_TRUE(window->marking_page()->can_print());
  QTest::qWait(5);
  auto* row = window->marking_page()->figure_rows().front();
  row->setFocus(Qt::TabFocusReason);
  key(Qt::Key_F1);
  auto* why = row->findChild<app::WhyCard*>();
  ASSERT_NE(why, nullptr);
  EXPECT_NEAR(why->reckoning().total(), row->value(), 1e-9);
  key(Qt::Key_Escape);
}

TEST_F(Story, ThreeBadLinesOfFourHundredTakeNothingUntilToldTo) {
  open_demo();
  choose_piece(3); // a cover, not touched yet
  window->go_to(MainWindow::touches);
  const auto path = folder.filePath("bad.csv");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("surface,x_mm,y_mm,z_mm\n");
  for (int n = 0; n < 400; ++n) file.write(n % 150 == 7 ? "spigott,1,2,3\n" : "spigot,1,2,3\n");
  file.close();
  const auto touches = [&] { return b().touches_of(window->document().piece()).size(); };
  const auto answer = [&](bool take) {
    QTimer::singleShot(0, window.get(), [&, take] {
      auto* dialog = qobject_cast<app::ImportDialog*>(QApplication::activeModalWidget());
      ASSERT_NE(dialog, nullptr);
      EXPECT_EQ(dialog->take_button()->text(), "Take the other 397");
      if (take)
        QTest::mouseClick(dialog->take_button(), Qt::LeftButton);
      else
        QTest::keyClick(dialog, Qt::Key_Escape);
    });
  };
  answer(false);
  EXPECT_FALSE(window->touches_page()->import_file(path));
  EXPECT_EQ(touches(), 0U);
  answer(true);
  EXPECT_TRUE(window->touches_page()->import_file(path));
  EXPECT_EQ(touches(), 397U);
  press(Qt::Key_Z, Qt::ControlModifier); // one step takes all of them back
  EXPECT_EQ(touches(), 0U);
}
