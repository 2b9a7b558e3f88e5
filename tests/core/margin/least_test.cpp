#include "margin/certificate.h"
#include "margin/least.h"

#include <glpk.h>
#include <gtest/gtest.h>

#include <random>

using namespace datrin::margin;

namespace {

LinearMargins random_margins(std::mt19937& random, int columns, int rows, int groups, double box) {
  std::normal_distribution<double> normal;
  LinearMargins margins(columns);
  for (int i = 0; i < rows; ++i) {
    Eigen::VectorXd a(columns);
    for (int j = 0; j < columns; ++j) a[j] = normal(random);
    margins.add_row(i % groups, normal(random), a);
  }
  margins.lower.setConstant(-box);
  margins.upper.setConstant(box);
  return margins;
}

/// The same programme, stated the usual way round, by GLPK.
double least_by_glpk(const LeastInput& input) {
  const auto& m = *input.margins;
  glp_prob* lp = glp_create_prob();
  glp_set_obj_dir(lp, GLP_MAX);
  const int n = m.columns();
  glp_add_cols(lp, n + 1);
  for (int j = 0; j < n; ++j) glp_set_col_bnds(lp, j + 1, GLP_DB, m.lower[j], m.upper[j]);
  glp_set_col_bnds(lp, n + 1, GLP_FR, 0, 0);
  glp_set_obj_coef(lp, n + 1, 1);
  glp_add_rows(lp, m.rows());
  for (int i = 0; i < m.rows(); ++i) {
    std::vector<int> index{0};
    std::vector<double> value{0};
    for (int k = m.begin(i); k < m.end(i); ++k) {
      index.push_back(m.column(k) + 1);
      value.push_back(m.coefficient(k));
    }
    const auto g = static_cast<std::size_t>(m.group(i));
    const bool held = !input.held.empty() && input.held[g];
    if (!held) {
      index.push_back(n + 1);
      value.push_back(-1);
    }
    glp_set_mat_row(lp, i + 1, static_cast<int>(index.size()) - 1, index.data(), value.data());
    glp_set_row_bnds(lp, i + 1, GLP_LO, (held ? input.floors[g] : 0.0) - m.offset(i), 0);
  }
  glp_smcp parameters;
  glp_init_smcp(&parameters);
  parameters.msg_lev = GLP_MSG_OFF;
  glp_simplex(lp, &parameters);
  const double least = glp_get_obj_val(lp);
  EXPECT_EQ(glp_get_status(lp), GLP_OPT);
  glp_delete_prob(lp);
  return least;
}

} // namespace

// Two faces of a plate: the best that can be done is half the difference.
TEST(Least, TwoFacesShareTheDifference) {
  LinearMargins margins(1);
  margins.add_row(0, 3.0, {{0, 1.0}});
  margins.add_row(1, 1.0, {{0, -1.0}});
  const auto result = LeastSolver().solve({&margins});
  ASSERT_TRUE(result.usable());
  EXPECT_NEAR(result.least, 2.0, 1e-12);
  EXPECT_NEAR(result.x[0], -1.0, 1e-12);
  EXPECT_NEAR(result.multipliers[0], 0.5, 1e-12);
  EXPECT_NEAR(result.multipliers[1], 0.5, 1e-12);
}

TEST(Least, AgreesWithGlpkAndIsCertified) {
  std::mt19937 random(7);
  LeastSolver solver;
  for (int n = 0; n < 60; ++n) {
    const auto margins = random_margins(random, 2 + n % 6, 10 + n, 3, 2.0);
    const LeastInput input{&margins};
    const auto result = solver.solve(input);
    ASSERT_TRUE(result.usable()) << result.message;
    EXPECT_NEAR(result.least, least_by_glpk(input), 1e-8);
    EXPECT_TRUE(check_least(input, result).holds);
  }
}

TEST(Least, HeldGroupsKeepTheirFloors) {
  std::mt19937 random(11);
  LeastSolver solver;
  for (int n = 0; n < 40; ++n) {
    const auto margins = random_margins(random, 4, 30, 3, 2.0);
    const auto first = solver.solve({&margins});
    const LeastInput input{&margins, {1, 0, 0}, {first.least, 0, 0}};
    const auto result = solver.solve(input);
    ASSERT_TRUE(result.usable());
    EXPECT_NEAR(result.least, least_by_glpk(input), 1e-8);
    EXPECT_TRUE(check_least(input, result).holds);
    EXPECT_GE(result.least, first.least - 1e-9);
  }
}

TEST(Least, AWarmStartGivesTheSameAnswer) {
  std::mt19937 random(5);
  LeastSolver solver;
  std::vector<char> warm;
  for (int n = 0; n < 30; ++n) {
    const auto margins = random_margins(random, 6, 40, 4, 1.0);
    const auto cold = LeastSolver().solve({&margins});
    const auto warmed = solver.solve({&margins, {}, {}, warm});
    warm = warmed.basic;
    EXPECT_NEAR(cold.least, warmed.least, 1e-9);
  }
}

TEST(Least, SaysWhenNothingLimitsOrNothingIsFree) {
  LinearMargins margins(1);
  margins.add_row(0, 0.0, {{0, 1.0}});
  EXPECT_EQ(LeastSolver().solve({&margins}).status, LeastStatus::unbounded);
  EXPECT_EQ(LeastSolver().solve({&margins, {1}, {0.0}}).status, LeastStatus::nothing_free);
  margins.lower[0] = 1;
  margins.upper[0] = 0;
  EXPECT_EQ(LeastSolver().solve({&margins}).status, LeastStatus::infeasible);
}

TEST(Least, FloorsOutOfReach) {
  LinearMargins margins(1);
  margins.add_row(0, 0.0, {{0, 1.0}});
  margins.add_row(1, 0.0, {{0, -1.0}});
  margins.add_row(2, 0.0, {{0, 1.0}});
  const LeastInput input{&margins, {1, 1, 0}, {1.0, 1.0, 0.0}};
  EXPECT_EQ(LeastSolver().solve(input).status, LeastStatus::infeasible);
  EXPECT_TRUE(LeastSolver().solve(input, {.held_cap = 100}).usable()); // at a price it may fall short
}

TEST(Certificate, RefusesAnAnswerThatWasTamperedWith) {
  std::mt19937 random(3);
  const auto margins = random_margins(random, 3, 20, 2, 1.0);
  const LeastInput input{&margins};
  const auto good = LeastSolver().solve(input);
  ASSERT_TRUE(check_least(input, good).holds);
  auto moved = good;
  moved.x[0] += 1e-3;
  EXPECT_FALSE(check_least(input, moved).holds);
  auto boastful = good;
  boastful.least += 1e-3;
  EXPECT_FALSE(check_least(input, boastful).holds);
  auto unbalanced = good;
  for (auto& price : unbalanced.multipliers) price *= 1.01;
  EXPECT_FALSE(check_least(input, unbalanced).holds);
}
