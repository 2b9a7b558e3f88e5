// Parts named where grams are asked for: what they weigh by their solids.

#include "tests/app/own_build.h"

#include "app/drawing/part_mass.h"
#include "app/shop/sums_dialog.h"

#include <cmath>
#include <numbers>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;

namespace {

class Weighing : public OwnBuild {};

} // namespace

// A pin of 10 by 20 in mild steel, 7.85 g/cm³ (handbook tables of densities): 12.33 g by hand.
TEST_F(Weighing, ASumOfPartsIsTheSumOfTheirSolids) {
  const Id pin = part("Crank pin", 1, "mild steel");
  Body round;
  round.part = pin, round.name = "pin", round.shape = BodyShape::round;
  round.set_size({BodyRole::diameter, 0, 10});
  round.set_size({BodyRole::height, 0, 20});
  put(round);
  part("Ghost", 1, "mild steel"); // nothing of it is drawn
  const auto read = app::masses_named(window->document(), "2 * crank pin + 5");
  EXPECT_TRUE(read.starts_with("2 * 12.3")) << read;
  EXPECT_EQ(app::masses_named(window->document(), "Ghost"), "Ghost");
  app::SumsDialog sums(Unit::mm, {}, window.get());
  sums.name_masses([this](const std::string& text) { return app::masses_named(window->document(), text); });
  sums.show();
  sums.choose("balance");
  const auto* sum = bench::sum_called("balance");
  const auto type = [&](const char* key, const char* text) {
    for (std::size_t k = 0; k < sum->fields.size(); ++k)
      if (bench::key_of(sum->fields[k]) == key) sums.fields()[k]->setText(text);
  };
  type("crank_radius", "20");
  type("rotating", "2 * Crank pin");
  type("reciprocating", "0");
  type("radius", "20");
  ASSERT_GT(sums.answers()->rowCount(), 0) << sums.words().toStdString();
  const double grams = 2 * std::numbers::pi * 25 * 20 / 1000 * 7.85;
  EXPECT_NEAR(sums.answers()->item(0, 1)->text().toDouble(), grams, 0.3)
      << sums.answers()->item(0, 1)->text().toStdString();
  type("rotating", "Ghost");
  EXPECT_TRUE(sums.words().contains("Rotating")) << sums.words().toStdString();
}
