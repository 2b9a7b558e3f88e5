#include "chains/targets.h"

#include "tests/core/chains/two_bushes.h"

#include "sim/random_targets.h"
#include "store/targets_case.h"

#include <glpk.h>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <fstream>

using namespace datrin;
using namespace datrin::chains;

namespace {

store::TargetsCase worked(const std::string& name) {
  auto read = store::read_targets_case_file(std::string(DATRIN_TEST_CASES) + "/" + name + ".json");
  EXPECT_TRUE(read.ok()) << read.message;
  return read;
}

nlohmann::json expected(const std::string& name) {
  std::ifstream file(std::string(DATRIN_TEST_CASES) + "/" + name + ".expected.json");
  return nlohmann::json::parse(file);
}

/// All rooms of a set of numbers, stated afresh from the definition.
std::vector<double> rooms_of(const TargetsInput& in, const std::vector<double>& value) {
  std::vector<double> rooms;
  for (const auto& c : in.conditions) {
    double g = 0, spread = 0;
    for (const auto& t : c.terms) {
      const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)];
      g += t.coefficient * value[static_cast<std::size_t>(t.dimension)];
      spread += std::abs(t.coefficient) * (d.measured ? d.uncertainty : d.capability);
    }
    rooms.push_back((g - c.least) / spread);
    rooms.push_back((c.most - g) / spread);
  }
  for (std::size_t d = 0; d < value.size(); ++d)
    if (!in.dimensions[d].measured) {
      rooms.push_back((value[d] - in.dimensions[d].lower) / in.dimensions[d].capability);
      rooms.push_back((in.dimensions[d].upper - value[d]) / in.dimensions[d].capability);
    }
  return rooms;
}

std::vector<double> values_of(const TargetsInput& in, const TargetsResult& result) {
  std::vector<double> value;
  for (std::size_t d = 0; d < in.dimensions.size(); ++d)
    value.push_back(in.dimensions[d].measured ? *in.dimensions[d].measured
                                              : result.target(static_cast<int>(d))->make);
  return value;
}

/// The levels of the lexicographic max-min by GLPK, the plain way: maximise the least room of the free
/// limits, then ask of each free limit whether it alone could be above that, and fix those that cannot.
std::vector<double> levels_by_glpk(const TargetsInput& in) {
  glp_term_out(GLP_OFF);
  const std::vector<double> zero(in.dimensions.size(), 0.0);
  std::vector<int> column(in.dimensions.size(), 0);
  int n = 0;
  std::vector<double> at(in.dimensions.size());
  for (std::size_t d = 0; d < at.size(); ++d) {
    at[d] = in.dimensions[d].measured ? *in.dimensions[d].measured : in.dimensions[d].nominal;
    if (!in.dimensions[d].measured) column[d] = ++n;
  }
  // Rooms are affine in the values: their slopes by steps of 1.
  const auto base = rooms_of(in, at);
  std::vector<std::vector<double>> slope(base.size(),
                                         std::vector<double>(static_cast<std::size_t>(n) + 1, 0.0));
  for (std::size_t d = 0; d < at.size(); ++d) {
    if (column[d] == 0) continue;
    auto moved = at;
    moved[d] += 1;
    const auto r = rooms_of(in, moved);
    for (std::size_t i = 0; i < r.size(); ++i) slope[i][static_cast<std::size_t>(column[d])] = r[i] - base[i];
  }
  std::vector<double> fixed(base.size(), NAN);
  // Maximises t (or one room) subject to free rooms ≥ t (≥ level) and fixed rooms ≥ what they were fixed at.
  const auto best = [&](int alone, double level) {
    glp_prob* lp = glp_create_prob();
    glp_set_obj_dir(lp, GLP_MAX);
    glp_add_cols(lp, n + 1);
    for (int j = 1; j <= n + 1; ++j) glp_set_col_bnds(lp, j, GLP_FR, 0, 0);
    glp_add_rows(lp, static_cast<int>(base.size()));
    for (std::size_t i = 0; i < base.size(); ++i) {
      std::vector<int> index{0};
      std::vector<double> value{0};
      for (int j = 1; j <= n; ++j)
        if (slope[i][static_cast<std::size_t>(j)] != 0) {
          index.push_back(j);
          value.push_back(slope[i][static_cast<std::size_t>(j)]);
        }
      const bool free = std::isnan(fixed[i]);
      if (free && alone < 0) {
        index.push_back(n + 1);
        value.push_back(-1);
      }
      glp_set_mat_row(lp, static_cast<int>(i) + 1, static_cast<int>(index.size()) - 1, index.data(),
                      value.data());
      const double bound = (free ? alone < 0 ? 0 : level : fixed[i]) - base[i];
      glp_set_row_bnds(lp, static_cast<int>(i) + 1, GLP_LO, bound - 1e-8, 0);
    }
    if (alone < 0) {
      glp_set_obj_coef(lp, n + 1, 1);
    } else {
      for (int j = 1; j <= n; ++j)
        glp_set_obj_coef(lp, j, slope[static_cast<std::size_t>(alone)][static_cast<std::size_t>(j)]);
      glp_set_col_bnds(lp, n + 1, GLP_FX, 0, 0);
    }
    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    glp_simplex(lp, &how);
    EXPECT_EQ(glp_get_status(lp), GLP_OPT);
    const double value = glp_get_obj_val(lp) + (alone < 0 ? 0 : base[static_cast<std::size_t>(alone)]);
    glp_delete_prob(lp);
    return value;
  };
  std::vector<double> levels;
  while (std::any_of(fixed.begin(), fixed.end(), [](double f) { return std::isnan(f); })) {
    const double level = best(-1, 0);
    std::vector<std::size_t> now;
    for (std::size_t i = 0; i < base.size(); ++i)
      if (std::isnan(fixed[i]) && best(static_cast<int>(i), level - 1e-7) < level + 1e-5) now.push_back(i);
    if (now.empty()) break;
    for (const auto i : now) {
      fixed[i] = level;
      levels.push_back(level);
    }
  }
  return levels;
}

} // namespace

TEST(Targets, WorkedCases) {
  for (const char* name : {"targets-1-mill-engine", "targets-2-thirty-dimensions", "targets-3-infeasible"}) {
    const auto c = worked(name);
    const auto want = expected(name);
    const auto result = targets(c.input);
    ASSERT_TRUE(result.usable()) << result.message;
    EXPECT_EQ(result.feasible, want["feasible"].get<bool>()) << name;
    EXPECT_NEAR(result.least_room, want["least_room"].get<double>(), 1e-5) << name;
    EXPECT_TRUE(result.proved) << name;
    for (const auto& t : result.targets) {
      const auto& id = c.input.dimensions[static_cast<std::size_t>(t.dimension)].id;
      EXPECT_NEAR(t.make, want["make"][id].get<double>(), 1e-5) << name << " " << id;
    }
    auto rooms = rooms_of(c.input, values_of(c.input, result));
    std::sort(rooms.begin(), rooms.end());
    std::vector<double> levels; // distinct, as the case states them
    for (const double r : rooms)
      if (levels.empty() || r > levels.back() + 1e-4) levels.push_back(r);
    const auto stated = want["levels"].get<std::vector<double>>();
    for (std::size_t k = 0; k < stated.size() && k < levels.size(); ++k)
      EXPECT_NEAR(levels[k], stated[k], 1e-4) << name << k;
  }
}

// GLPK, a general linear programming library, the lexicographic order worked out the plain way.
TEST(Targets, EveryLevelAsGlpkHasIt) {
  for (unsigned seed = 1; seed <= 8; ++seed) {
    const auto in = sim::random_targets(seed, 12, 8);
    const auto result = targets(in);
    ASSERT_TRUE(result.usable()) << result.message;
    auto mine = rooms_of(in, values_of(in, result));
    std::sort(mine.begin(), mine.end());
    auto theirs = levels_by_glpk(in);
    std::sort(theirs.begin(), theirs.end());
    ASSERT_EQ(mine.size(), theirs.size()) << seed;
    for (std::size_t k = 0; k < mine.size(); ++k)
      EXPECT_NEAR(mine[k], theirs[k], 2e-4) << seed << " room " << k;
  }
}

TEST(Targets, LargeOnesAreProvedByTheirShadowPrices) {
  for (unsigned seed = 1; seed <= 3; ++seed) {
    const auto result = targets(sim::random_targets(100 + seed, 300, 180));
    ASSERT_TRUE(result.usable()) << result.message;
    EXPECT_TRUE(result.proved);
    double sum = 0;
    for (const auto& hold : result.held_by) sum += hold.share;
    EXPECT_NEAR(sum, 1, 1e-7);
  }
}

// A reading that lands off moves the target of its mate, by as much.
TEST(Targets, AReadingMovesItsMate) {
  auto c = worked("targets-1-mill-engine");
  auto& bore = c.input.dimensions[0];
  const auto over = targets(c.input);
  EXPECT_NEAR(over.target(1)->make, 10.001, 1e-9);
  EXPECT_NEAR(target_sum(c.input, over, 1).total(), over.target(1)->make, 1e-9);
  bore.measured = 10.005;
  EXPECT_NEAR(targets(c.input).target(1)->make, 9.985, 1e-9);
  bore.measured.reset();
  bore.capability = 0.004;
  EXPECT_NE(targets(c.input).target(0), nullptr);
}

// Function above drawing: the pin's limit gives way by just what the clearance needs; without that the
// clearance does.
TEST(Targets, FunctionFirstDepartsFromTheDrawingByTheLeast) {
  TargetsInput in;
  in.dimensions.push_back({"bore", 10, 10, 10.015, 0, 10.060, 0.002});
  in.dimensions.push_back({"pin", 10, 9.95, 10.02, 0.004, {}, 0});
  in.conditions.push_back({"running", {{0, 1}, {1, -1}}, 0.010, 0.030});
  const auto together = targets(in);
  EXPECT_FALSE(together.feasible);
  const auto strict = targets(in, {true});
  EXPECT_NEAR(strict.target(1)->make, 10.040, 1e-9); // the middle of the clearance
  EXPECT_NEAR(strict.target(1)->departs, 0.020, 1e-9);
  const auto enough = targets(in, {true, 1.0});
  EXPECT_NEAR(enough.conditions[0].room, 1, 1e-6); // held at the ends of what its makers can, and no more
  EXPECT_NEAR(enough.target(1)->make, 10.060 - 0.030 + 0.006, 1e-8);
  EXPECT_NEAR(enough.target(1)->departs, 0.016, 1e-8);
  // Where nothing has to give way, both are the same.
  in.dimensions[0].measured = 10.005;
  EXPECT_NEAR(targets(in, {true}).target(1)->make, targets(in).target(1)->make, 1e-9);
}

TEST(Targets, WhatFights) {
  const auto in = test::shaft_in_two_bushes();
  const auto result = targets(in);
  EXPECT_FALSE(result.feasible);
  ASSERT_EQ(result.held_by.size(), 2U);
  EXPECT_EQ(std::min(result.held_by[0].limit, result.held_by[1].limit), "A:max");
  EXPECT_EQ(std::max(result.held_by[0].limit, result.held_by[1].limit), "B:min");
}

TEST(Targets, FreeOnesStayAtTheirNominalAndOneSidedConditionsWork) {
  TargetsInput in;
  in.dimensions.push_back({"a", 10, 9.8, 10.2, 0.01, {}, 0});
  in.dimensions.push_back({"b", 5, 4.8, 5.2, 0.01, {}, 0});
  TargetCondition over;
  over.id = "at least";
  over.terms = {{0, 1}, {1, -1}};
  over.least = 5.1;
  in.conditions.push_back(over);
  const auto result = targets(in);
  ASSERT_TRUE(result.usable());
  EXPECT_TRUE(result.feasible);
  EXPECT_GT(result.target(0)->make - result.target(1)->make, 5.1);
  EXPECT_NEAR(result.target(0)->make - 10, 5 - result.target(1)->make, 1e-7);
  in.conditions.clear();
  EXPECT_NEAR(targets(in).target(0)->make, 10, 1e-9);
}

TEST(Targets, NonsenseIsRefusedWithItsPlace) {
  TargetsInput in;
  in.dimensions.push_back({"a", 10, 10.2, 9.8, 0.01, {}, 0});
  EXPECT_EQ(targets(in).message, "a: lower must not be above upper");
  in.dimensions[0] = {"a", 10, 9.8, 10.2, 0, {}, 0};
  EXPECT_EQ(targets(in).message, "a: the capability of a dimension not made yet must be above 0");
  in.dimensions[0].capability = 0.01;
  in.conditions.push_back({"c", {{3, 1}}, 0, 1});
  EXPECT_EQ(targets(in).message, "c: a term must name a dimension and have a coefficient");
  in.conditions[0] = {"c", {{0, 1}}, 2, 1};
  EXPECT_EQ(targets(in).message, "c: min must not be above max");
  in.conditions[0] = {"c", {{0, 1}}, 0, 1e25};
  EXPECT_EQ(targets(in).message, "c: min and max must be at most 10 km");
  in.conditions[0] = {"c", {{0, 1e200}}, 0, 20};
  EXPECT_EQ(targets(in).status, TargetsStatus::refused);
  in.conditions[0].terms[0].coefficient = 1;
  in.dimensions[0].measured = 1e308;
  EXPECT_EQ(targets(in).message, "a: every length of it must be at most 10 km");
}
