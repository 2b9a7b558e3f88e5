// The one length field and the one message line, and work done aside: what they promise wherever they stand.

#include "app/allowance/allowance_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "tests/app/bench.h"

#include "app/aside.h"
#include "app/marks/length_edit.h"
#include "app/theme.h"
#include "build/edit_drawing.h"
#include "build/edit_making.h"

#include <QFile>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

class Entry : public WindowTest {};

} // namespace

TEST_F(Entry, AFractionWithoutAUnitIsInchesAndTheFieldSaysSo) {
  app::LengthEdit edit("Depth");
  app::MessageLine line;
  edit.resize(120, 24);
  edit.setText("13/16");
  ASSERT_TRUE(edit.take(Unit::mm, line));
  EXPECT_NEAR(*edit.take(Unit::mm, line), 20.6375, 1e-12);
  EXPECT_TRUE(edit.reads_inches());
  EXPECT_EQ(edit.accessibleDescription(), "A fraction without a unit is inches");
  const auto told = edit.grab().toImage();
  edit.setText("20.6");
  EXPECT_FALSE(edit.reads_inches());
  EXPECT_EQ(edit.accessibleDescription(), QString());
  edit.setText("13/16 mm");
  EXPECT_FALSE(edit.reads_inches());
  EXPECT_NEAR(*edit.take(Unit::mm, line), 0.8125, 1e-12);
  edit.setText("13/16");
  edit.setFocus();
  EXPECT_NE(told, [&] {
    edit.setText("13.16");
    return edit.grab().toImage();
  }());
}

TEST_F(Entry, WhatIsNotUnderstoodIsToldUnderTheFieldsNameAndStays) {
  app::LengthEdit edit("Depth", "deep", app::must_be_positive);
  app::MessageLine line;
  edit.setText("12 furlongs");
  EXPECT_FALSE(edit.take(Unit::mm, line));
  EXPECT_TRUE(line.refuses());
  EXPECT_TRUE(line.text().startsWith("Depth: \"furlongs\"")) << line.text();
  EXPECT_TRUE(edit.property("wrong").toBool());
  EXPECT_EQ(edit.text(), "12 furlongs");
  edit.setText("0");
  EXPECT_FALSE(edit.property("wrong").toBool()); // nobody is told off in the middle of a word
  EXPECT_FALSE(edit.take(Unit::mm, line));
  EXPECT_EQ(line.text(), "Depth: must be above 0");
  edit.clear();
  EXPECT_FALSE(edit.take(Unit::mm, line));
  EXPECT_TRUE(line.text().contains("nothing was typed")) << line.text();
  edit.set_when_empty(2.5);
  EXPECT_EQ(edit.take(Unit::mm, line), 2.5);
  edit.setText("1/2 in");
  EXPECT_EQ(edit.take(Unit::mm, line), 12.7);
  edit.setText("2");
  EXPECT_EQ(edit.take(Unit::inch, line), 50.8);
}

TEST_F(Entry, TheMessageLineTellsAndRefusesInDifferentColours) {
  app::MessageLine line;
  line.tell("Kept.");
  EXPECT_FALSE(line.refuses());
  const auto told = line.palette().color(QPalette::WindowText);
  line.refuse("Not kept.");
  EXPECT_TRUE(line.refuses());
  EXPECT_NE(line.palette().color(QPalette::WindowText), told);
  line.tell("<b>plain</b>");
  EXPECT_EQ(line.textFormat(), Qt::PlainText); // what a person typed is never read as markup
}

// A dial that goes by 0.005 mm is shown with three decimals, and what is read from it is a whole number of
// its graduations.
TEST_F(Entry, ADialOfFiveMicrometresShowsThree) {
  open_demo();
  choose_piece(2);
  auto& document = window->document();
  build::Machine fine;
  fine.name = "jig borer";
  fine.resolution = 0.005;
  const auto added = build::add_machine(document.build(), fine);
  ASSERT_TRUE(document.apply(added.edit));
  window->go_to(MainWindow::allowance);
  auto* page = window->allowance_page();
  int open = 0; // the first there is something to cut on
  while (page->plans()[static_cast<std::size_t>(open)].rest.passes.empty()) ++open;
  page->choose(open);
  const auto plan = page->plans()[static_cast<std::size_t>(open)];
  auto allowance = plan.allowance;
  allowance.piece = document.piece();
  allowance.surface = plan.surface;
  allowance.machine = added.id;
  ASSERT_TRUE(document.apply(build::set_allowance(document.build(), allowance, "Machine")));
  const auto shown = page->next_text();
  ASSERT_EQ(shown.section('.', 1).size(), 3) << shown;
  const double graduations = shown.toDouble() / 0.005;
  EXPECT_NEAR(graduations, std::round(graduations), 1e-9) << shown;
}

// A survey that names its settings and marks, as another program wrote it, comes in with frames and all.
TEST_F(Entry, ASurveyIsImportedIntoItsSettings) {
  open_demo();
  choose_piece(3);
  window->go_to(MainWindow::touches);
  const auto& b = window->document().build();
  const auto piece = window->document().piece();
  const auto surface = QString::fromStdString(b.surfaces_of(window->document().part()).front().second.name);
  const auto path = folder.filePath("two settings.csv");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  QString text = "surface,x_in,y_in,z_in,setting\n";
  for (int n = 0; n < 4; ++n) text += QString("%1,%2,0.5,0.25,as it lies\n").arg(surface).arg(n);
  for (int n = 0; n < 4; ++n) text += QString("%1,0.5,%2,0.25,turned over\n").arg(surface).arg(n);
  for (const auto* setting : {"as it lies", "turned over"})
    for (const auto* mark : {"A", "B", "C"})
      text += QString("mark %1,%2,1.25,%3,%4\n").arg(mark).arg(mark[0] - 'A').arg(mark[0] - 'A').arg(setting);
  file.write(text.toUtf8());
  file.close();
  ASSERT_TRUE(window->touches_page()->import_file(path));
  EXPECT_EQ(b.touches_of(piece).size(), 8U);
  EXPECT_EQ(b.marks_of(piece).size(), 6U);
  EXPECT_NEAR(b.touches_of(piece)[1].second.centre.x(), 25.4, 1e-12); // inches by the name of the column
  std::map<std::string, build::SettingFrame> frames;
  for (const auto& [id, s] : b.settings_of(piece)) frames[s.name] = s.frame;
  EXPECT_EQ(frames["turned over"], build::SettingFrame::own);
  window->touches_page()->tabs()->choose(1);
  EXPECT_TRUE(window->touches_page()->settings()->setting_text("turned over").contains("marks"))
      << window->touches_page()->settings()->setting_text("turned over");
  press(Qt::Key_Z, Qt::ControlModifier); // one step takes it all back
  EXPECT_TRUE(b.touches_of(piece).empty());
  EXPECT_TRUE(b.marks_of(piece).empty());
}

// Two surfaces of one name stay two: what is touched on the second belongs to the second.
TEST_F(Entry, TwoSurfacesOfOneNameAreToldApartByTheirPlaceInTheList) {
  ASSERT_TRUE(window->new_build(folder.filePath("twins.datrin")));
  press(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
  auto* page = window->drawing_page();
  for (int k = 0; k < 2; ++k) {
    page->add_surface(SurfaceKind::plane);
    enter(page->form()->name_edit(), "face");
    enter(page->form()->field("z")->edit(), QString::number(10 * k));
  }
  const auto& b = window->document().build();
  const auto surfaces = b.surfaces_of(window->document().part());
  ASSERT_EQ(surfaces.size(), 2U);
  EXPECT_EQ(surfaces[0].second.name, surfaces[1].second.name);
  window->go_to(MainWindow::touches);
  auto* entry = window->touches_page()->entry();
  entry->surface_box()->setCurrentIndex(1);
  for (int k = 0; k < 3; ++k) enter(entry->coordinate(k), "1", Qt::Key_Return);
  ASSERT_EQ(b.touches_of(window->document().piece()).size(), 1U);
  EXPECT_EQ(b.touches_of(window->document().piece()).front().second.surface, surfaces[1].first);
  EXPECT_EQ(entry->surface_box()->currentIndex(), 1); // goes on, on the same one
}
