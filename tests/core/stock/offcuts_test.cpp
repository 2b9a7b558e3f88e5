// Offcuts in the shop: which serve, which is taken, what is left.

#include "stock/offcuts.h"

#include "build/edit_drawing.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::build;

namespace {

struct Shop {
  Build b;
  Id part = 0;
  Shop() {
    const auto made = add_part(b, "Spindle");
    part = made.id;
    b.apply(made.edit);
    auto p = *b.find<Part>(part);
    p.material = "mild steel";
    b.load(part, p);
  }
  Id put(StockForm form, double width, double length, const char* material = "mild steel") {
    Offcut o;
    o.form = form;
    o.width = width;
    o.length = length;
    o.material = material;
    const auto added = stock::put_by(b, o);
    EXPECT_TRUE(b.apply(added.edit));
    return added.id;
  }
  /// A round part 20 across and 50 long.
  std::vector<stock::StockChoice> choices() const {
    stock::ChooseInput in;
    in.patches = {{{SurfaceKind::boss, {25, 0, 0}, Vec3::UnitX(), 20, 0}, 0, 50},
                  {{SurfaceKind::plane, {0, 0, 0}, -Vec3::UnitX(), 0, 0}, 20, 20},
                  {{SurfaceKind::plane, {50, 0, 0}, Vec3::UnitX(), 0, 0}, 20, 20}};
    return stock::choose_stock(in).choices;
  }
};

} // namespace

TEST(Offcuts, TheSmallestThatServesComesFirstAndWhatIsLeftStays) {
  Shop shop;
  const Id thick = shop.put(StockForm::round, 40, 200), right = shop.put(StockForm::round, 22, 90);
  shop.put(StockForm::round, 22, 30);           // too short
  shop.put(StockForm::round, 18, 200);          // too thin
  shop.put(StockForm::round, 22, 200, "brass"); // another metal
  shop.put(StockForm::hexagon, 10, 200);        // too small
  const auto found = stock::offcuts_for(shop.b, shop.part, shop.choices());
  ASSERT_EQ(found.size(), 2U);
  EXPECT_EQ(found[0].offcut, right);
  EXPECT_EQ(found[1].offcut, thick);
  EXPECT_NEAR(found[0].left, 90 - found[0].choice.takes, 1e-9);
  ASSERT_TRUE(shop.b.apply(stock::take_offcut(shop.b, shop.part, found[0])));
  EXPECT_NEAR(shop.b.find<Offcut>(right)->length, 90 - found[0].choice.takes, 1e-9);
  EXPECT_EQ(shop.b.stock_of(shop.part)->second.width, 22);
}

TEST(Offcuts, WhatIsTooShortToHoldGoes) {
  Shop shop;
  const Id only = shop.put(StockForm::round, 22, shop.choices().front().takes + 5);
  const auto found = stock::offcuts_for(shop.b, shop.part, shop.choices());
  ASSERT_FALSE(found.empty());
  ASSERT_TRUE(shop.b.apply(stock::take_offcut(shop.b, shop.part, found.front())));
  EXPECT_EQ(shop.b.find<Offcut>(only), nullptr);
}

TEST(Offcuts, OneWithoutSizesIsNotPutBy) {
  Shop shop;
  EXPECT_EQ(stock::put_by(shop.b, {}).wrong, "say how large it is across");
  EXPECT_EQ(stock::put_by(shop.b, {StockForm::round, "", 20, 0, 0, 0, "", 0}).wrong, "say how long it is");
  EXPECT_EQ(stock::put_by(shop.b, {StockForm::tube, "", 20, 0, 0, 100, "", 0}).wrong,
            "say what bore the tube has");
}
