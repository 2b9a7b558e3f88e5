// Whole plans compared, and the route card written out.

#include "route/facing.h"
#include "route/plans.h"

#include "demo/mill_engine.h"
#include "route/card.h"
#include "route/plan_route.h"
#include "route/propose.h"
#include "solid/body_edits.h"
#include "solid/quick_start.h"
#include "store/csv.h"
#include "store/route_export.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::route;

namespace {

Build demo_build() {
  return demo::mill_engine().build;
}

TEST(Plans, ThreeThatDifferAndEachCanBeTaken) {
  const auto b = demo_build();
  const Id part = b.parts().front().first; // the main pedestal, a casting
  double seen = 0;
  PlansOptions options;
  options.progress = [&](double done) {
    EXPECT_GE(done, seen);
    seen = done;
  };
  const auto found = best_plans(b, part, options);
  ASSERT_GE(found.plans.size(), 2U) << found.message;
  EXPECT_LE(found.plans.size(), 3U);
  EXPECT_EQ(seen, 1);
  for (std::size_t k = 0; k < found.plans.size(); ++k) {
    const auto& plan = found.plans[k];
    auto taken = b;
    ASSERT_TRUE(taken.apply(plan.edit)) << plan.words;
    const auto route = plan_route(taken, part);
    EXPECT_TRUE(route.now.usable()) << plan.words << ": " << route.now.message;
    EXPECT_TRUE(route.unmade.empty());
    EXPECT_NEAR(route.now.minutes, plan.order.minutes, 1e-9);
    EXPECT_EQ(route.now.setups, plan.order.setups);
    ASSERT_TRUE(taken.apply(reversed(plan.edit))); // one step to take back
    EXPECT_EQ(taken.records(), b.records());
    if (k > 0) {
      const auto& before = found.plans[k - 1];
      EXPECT_TRUE(before.order.setups < plan.order.setups ||
                  (before.order.setups == plan.order.setups && before.worst <= plan.worst + 1e-9));
    }
  }
}

TEST(Plans, StoppedItGivesWhatItHas) {
  const auto b = demo_build();
  int asked = 0;
  PlansOptions options;
  options.should_stop = [&] { return ++asked > 2; };
  const auto found = best_plans(b, b.parts().front().first, options);
  EXPECT_TRUE(found.stopped);
  EXPECT_EQ(found.tried, 2);
}

// One a setup is left over from the plan before, and one a setup there is when another is taken.
TEST(Plans, BurrsAreTakenOffInEverySetup) {
  auto b = demo_build();
  const Id part = b.parts().front().first;
  ASSERT_TRUE(b.apply(propose_operations(b, part)));
  for (int again = 0; again < 2; ++again) {
    const auto found = best_plans(b, part);
    ASSERT_FALSE(found.plans.empty());
    ASSERT_TRUE(b.apply(found.plans.back().edit));
    for (const auto& [id, setup] : b.setups_of(part)) {
      int burrs = 0, others = 0;
      for (const auto& [o_id, o] : b.operations_of(part))
        if (o.setup == id) ++(o.kind == OperationKind::deburr ? burrs : others);
      EXPECT_EQ(burrs, others > 0 ? 1 : 0) << setup.name;
    }
  }
}

TEST(Plans, OperationsThatAreThereStay) {
  auto b = demo_build();
  const Id part = b.parts().front().first;
  ASSERT_TRUE(b.apply(propose_operations(b, part)));
  const auto [id, first] = b.operations_of(part).front();
  auto mine = first;
  mine.note = "with the long drill";
  mine.minutes = 33;
  b.load(id, mine);
  const auto found = best_plans(b, part);
  ASSERT_FALSE(found.plans.empty());
  ASSERT_TRUE(b.apply(found.plans.front().edit));
  EXPECT_EQ(b.find<Operation>(id)->note, "with the long drill");
  EXPECT_EQ(b.find<Operation>(id)->minutes, 33);
}

TEST(Plans, ASawnBlockMayBeSquaredFaceByFace) {
  Build b;
  std::vector<double> sizes;
  for (const auto& size : solid::quick_starts()[std::size_t(solid::QuickShape::plain_block)].sizes)
    sizes.push_back(size.mm);
  const auto made =
      solid::add_quick_part(b, "Block", solid::quick_drawing(solid::QuickShape::plain_block, sizes));
  ASSERT_TRUE(b.apply(made.edit));
  Stock stock;
  stock.part = made.id;
  stock.form = StockForm::block;
  b.load(900, stock);
  ASSERT_TRUE(faces_to_square(b, made.id).usable());
  const auto setups = facing_setups(b, made.id);
  ASSERT_EQ(setups.size(), 6U);
  // The fourth is held by two true faces: no rod.
  EXPECT_EQ(setups[0].holding, Workholding::soft_rod);
  EXPECT_EQ(setups[3].holding, Workholding::vise);
  bool squared = false;
  for (const auto& plan : best_plans(b, made.id).plans)
    if (plan.words.find("squared") != std::string::npos) {
      squared = true;
      auto taken = b;
      ASSERT_TRUE(taken.apply(plan.edit));
      EXPECT_EQ(taken.setups_of(made.id).size(), 6U);
    }
  EXPECT_TRUE(squared);
}

TEST(Plans, APartWithNothingToMakeSaysSo) {
  Build b;
  b.load(2, Part{"Bought", "steel", 1, 1});
  EXPECT_EQ(best_plans(b, 2).message, "nothing of this part is machined yet, or nothing reaches it");
  EXPECT_EQ(best_plans(b, 99).message, "there is no part to plan");
}

TEST(RouteCard, SaysSetupBySetupWhatIsDone) {
  auto b = demo_build();
  const Id part = b.parts().front().first;
  ASSERT_TRUE(b.apply(propose_operations(b, part)));
  const auto card = route_card(b, part);
  ASSERT_FALSE(card.setups.empty());
  EXPECT_EQ(card.part, "Main pedestal");
  int number = 0;
  double minutes = 0;
  for (const auto& setup : card.setups) {
    EXPECT_FALSE(setup.cautions.empty());
    for (const auto& o : setup.operations) {
      EXPECT_EQ(o.number, number += 10);
      minutes += o.minutes;
      for (const int before : o.after) EXPECT_LT(before, o.number);
    }
  }
  EXPECT_NEAR(card.minutes, minutes, 1e-9);
  const auto json = nlohmann::json::parse(store::route_json(card));
  EXPECT_EQ(json["format"], "datrin-route");
  EXPECT_EQ(json["setups"].size(), card.setups.size());
  // One row an operation, every field where it belongs.
  const auto csv = store::route_csv(card);
  EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), number / 10 + 1);
  const auto second = csv.substr(csv.find('\n') + 1);
  const auto fields = store::csv_split(second.substr(0, second.find('\n')), ',');
  ASSERT_TRUE(fields);
  ASSERT_EQ(fields->size(), 10U);
  EXPECT_EQ((*fields)[0], "10");
  EXPECT_EQ((*fields)[1], card.setups.front().operations.front().what);
}

} // namespace
