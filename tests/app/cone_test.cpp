// A casting with a taper, from nothing to the next number, through the fields a person uses. What is expected
// is worked out by hand beside each check.

#include "app/allowance/allowance_page.h"
#include "app/casting/marking_page.h"
#include "app/casting/seat_page.h"
#include "app/casting/touches_page.h"
#include "app/drawing/drawing_page.h"
#include "tests/app/bench.h"

#include <cmath>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

const double half = std::atan(0.5 / 20); // 1 in 20 on the diameter

class Taper : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    ASSERT_TRUE(window->new_build(folder.filePath("taper.datrin")));
    press(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
  }
  const build::Build& b() { return window->document().build(); }
  app::DrawingPage& page() { return *window->drawing_page(); }
  const build::PartSurface& shown() { return *b().find<build::PartSurface>(page().form()->surface()); }

  void plane(const QString& name, const QString& x, const QString& faces) {
    page().add_surface(SurfaceKind::plane);
    enter(page().form()->name_edit(), name);
    enter(page().form()->field("x")->edit(), x);
    enter(page().form()->direction_box()->lineEdit(), faces);
    for (const auto* size : {"Width", "Height"}) enter(page().form()->field(size)->edit(), "16");
    enter(page().form()->field("Stock")->edit(), "0.5");
  }
  void touch(const char* on, double x, double y, double z) {
    auto* entry = window->touches_page()->entry();
    entry->surface_box()->setCurrentIndex(entry->surface_box()->findText(on));
    const double at[] = {x, y, z};
    for (int k = 0; k < 3; ++k)
      enter(entry->coordinate(k), QString::number(at[k], 'f', 5) + " mm", Qt::Key_Return);
  }
  /// A shank ⌀20 growing over 40 mm with 1.5 mm on its side and 2 mm on its ends.
  void draw_and_touch_a_shank() {
    page().add_surface(SurfaceKind::taper_shank);
    auto* form = page().form();
    enter(form->name_edit(), "shank");
    enter(form->direction_box()->lineEdit(), "+x");
    enter(form->field("Diameter")->edit(), "20");
    enter(form->taper_edit(), "1 in 20");
    enter(form->field("Length")->edit(), "40");
    enter(form->field("Stock")->edit(), "0.5");
    plane("thin end", "0", "-x");
    plane("thick end", "40", "+x");
    window->go_to(MainWindow::touches);
    for (const double x : {5.0, 20.0, 35.0})
      for (int k = 0; k < 4; ++k) {
        const double turn = k * pi / 2 + 0.3, rho = 10 + x / 40 + 1.5 / std::cos(half);
        touch("shank", x, rho * std::cos(turn), rho * std::sin(turn));
      }
    for (int k = 0; k < 3; ++k) {
      const double turn = k * 2 * pi / 3;
      touch("thin end", -2, 8 * std::cos(turn), 8 * std::sin(turn));
      touch("thick end", 42, 8 * std::cos(turn), 8 * std::sin(turn));
    }
  }
};

} // namespace

TEST_F(Taper, IsAddedByKeyAndItsAngleReadOnTheDiameter) {
  press(Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
  ASSERT_EQ(b().surfaces_of(window->document().part()).size(), 1U);
  EXPECT_EQ(shown().kind, SurfaceKind::taper_bore);
  auto* form = page().form();
  EXPECT_EQ(form->taper_edit()->text(), "1 in 20");
  enter(form->taper_edit(), "1 in 12");
  EXPECT_NEAR(shown().half_angle, std::atan(1.0 / 24), 1e-12);
  EXPECT_TRUE(form->taper_words().contains("Whole angle 4.772\u00B0, half 2.386\u00B0"))
      << form->taper_words();
  enter(form->taper_edit(), "60"); // a bare number is degrees, of the whole angle
  EXPECT_NEAR(shown().half_angle, radians(30), 1e-12);
  enter(form->taper_edit(), "190");
  EXPECT_NEAR(shown().half_angle, radians(30), 1e-12);
  EXPECT_TRUE(form->taper_words().startsWith("Taper: the surface needs a half angle")) << form->taper_words();
  EXPECT_EQ(form->taper_edit()->text(), "190"); // there to be mended
  enter(form->taper_edit(), "steep");
  EXPECT_TRUE(form->taper_words().endsWith("It stays 60\u00B0.")) << form->taper_words();
  enter(form->taper_edit(), "60");
  EXPECT_TRUE(
      page().table()->model()->index(0, app::SurfaceModel::size).data().toString().endsWith(", 60\u00B0"));
}

TEST_F(Taper, WithoutAPartItIsSaidWhatToDo) {
  ASSERT_TRUE(window->new_build(folder.filePath("nothing.datrin")));
  press(Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(window->message(), "There is no part to draw it on yet: add one first.");
}

TEST_F(Taper, BecomesABoreAndATaperAgain) {
  page().add_surface(SurfaceKind::bore);
  auto* form = page().form();
  EXPECT_FALSE(form->taper_edit()->isVisible());
  const auto choose = [&](const char* kind) {
    form->kind_box()->setCurrentIndex(form->kind_box()->findText(kind));
    emit form->kind_box()->activated(form->kind_box()->currentIndex());
  };
  choose("taper shank");
  EXPECT_TRUE(form->taper_edit()->isVisible());
  EXPECT_GT(shown().half_angle, 0);
  choose("boss");
  EXPECT_EQ(shown().half_angle, 0);
  EXPECT_FALSE(form->taper_edit()->isVisible());
}

// By hand: 1.5 mm of metal on the side and 2 on the ends; 0.5 asked of each. Moving d along adds d sin α to
// the one and takes d from the other.
TEST_F(Taper, IsTouchedSeatedMarkedOutAndCut) {
  draw_and_touch_a_shank();
  EXPECT_TRUE(window->touches_page()->gaps_text().startsWith("Nothing"))
      << window->touches_page()->gaps_text();
  window->go_to(MainWindow::seat);
  EXPECT_GT(drawn_on(window->seat_page()->canvas()), 0.01);
  seat_best();
  const double d = 0.5 / (1 + std::sin(half));
  EXPECT_NEAR(window->seat_page()->state().margins.least, 1 + d * std::sin(half), 1e-4);

  window->go_to(MainWindow::marking);
  EXPECT_TRUE(window->marking_page()->can_print());

  window->go_to(MainWindow::allowance);
  const auto plans = window->allowance_page()->plans();
  ASSERT_EQ(plans.size(), 3U);
  const auto& side = plans[0];
  EXPECT_NEAR(side.most, 1.5 + d * std::sin(half), 2e-3);
  // 0.3 mm left a side: 2 · 0.3/cos α over the finished 20 mm.
  EXPECT_NEAR(side.size_with(0.3).value(), 20 + 0.6 / std::cos(half), 1e-9);
  window->allowance_page()->reading_box()->setCurrentIndex(
      window->allowance_page()->reading_box()->findData(static_cast<int>(allowance::ReadingOf::size)));
  enter(window->allowance_page()->reading_edit(), QString::number(20 + 0.6 / std::cos(half), 'f', 6) + " mm",
        Qt::Key_Return);
  ASSERT_EQ(b().cuts_of(window->document().piece(), side.surface).size(), 1U)
      << window->allowance_page()->mistake_text();
  EXPECT_NEAR(window->allowance_page()->plans()[0].now, 0.3, 1e-5);
  window->document().undo();
  EXPECT_TRUE(b().cuts_of(window->document().piece(), side.surface).empty());
}
