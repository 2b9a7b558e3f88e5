#include "chains/chain.h"

#include "store/chain_case.h"

#include <boost/math/distributions/normal.hpp>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <numeric>

using namespace datrin;
using namespace datrin::chains;

namespace {

ChainInput uniform_chain(int terms, double lower, double upper) {
  ChainInput in;
  for (int k = 0; k < terms; ++k) {
    ChainLink link;
    link.id = "u" + std::to_string(k);
    link.coefficient = k % 2 == 0 ? 1 : -1;
    link.nominal = 10;
    link.plus = link.minus = 0.5;
    link.distribution = Distribution::uniform;
    in.links.push_back(link);
  }
  in.lower = lower;
  in.upper = upper;
  return in;
}

/// P(S ≤ x) of the sum of n uniforms on (0, 1): the Irwin–Hall distribution, 1/n! Σ (−1)^k C(n, k) (x − k)^n.
double irwin_hall(int n, double x) {
  double sum = 0, binomial = 1, factorial = 1;
  for (int k = 1; k <= n; ++k) factorial *= k;
  for (int k = 0; k <= static_cast<int>(std::floor(x)) && k <= n; ++k) {
    sum += (k % 2 == 0 ? 1 : -1) * binomial * std::pow(x - k, n);
    binomial = binomial * (n - k) / (k + 1);
  }
  return sum / factorial;
}

} // namespace

TEST(Chain, WorkedCases) {
  for (const char* name : {"chain-1-six-links", "chain-2-eighteen-links"}) {
    const auto c = store::read_chain_case_file(std::string(DATRIN_TEST_CASES) + "/" + name + ".json");
    ASSERT_TRUE(c.ok()) << c.message;
    std::ifstream file(std::string(DATRIN_TEST_CASES) + "/" + name + ".expected.json");
    const auto want = nlohmann::json::parse(file);
    const auto result = chain(c.input, c.options);
    ASSERT_TRUE(result.usable());
    EXPECT_NEAR(result.worst_low, want["worst_case"][0].get<double>(), 1e-6);
    EXPECT_NEAR(result.worst_high, want["worst_case"][1].get<double>(), 1e-6);
    EXPECT_NEAR(result.mean, want["mean"].get<double>(), 1e-6);
    EXPECT_NEAR(result.sigma, want["sigma"].get<double>(), 1e-6);
    EXPECT_NEAR(result.p_within, want["p_within"].get<double>(), 0.002);
    double shares = 0;
    for (const auto& contribution : result.contributions) shares += contribution.share;
    EXPECT_NEAR(shares, 1, 1e-12);
  }
}

// The exact distribution of a sum of uniforms (Irwin and Hall); four standard errors of a million tries.
TEST(Chain, UniformSumsAsTheExactDistributionHasThem) {
  for (const int n : {1, 2, 3, 5, 8, 12})
    for (const double half : {0.2, 0.5, 0.9}) {
      const auto in = uniform_chain(n, (n % 2 == 0 ? 0 : 10) - half, (n % 2 == 0 ? 0 : 10) + half);
      const double exact = irwin_hall(n, n / 2.0 + half) - irwin_hall(n, n / 2.0 - half);
      EXPECT_NEAR(chain(in).p_within, exact, 4 * std::sqrt(exact * (1 - exact) / 1e6) + 1e-9)
          << n << " " << half;
    }
}

// Boost.Math, a general statistics library.
TEST(Chain, NormalSumsAsBoostHasThem) {
  ChainInput in;
  double sigma = 0;
  for (int k = 0; k < 7; ++k) {
    ChainLink link;
    link.id = "n" + std::to_string(k);
    link.coefficient = k % 3 - 1.5;
    link.nominal = 3 + k;
    link.plus = 0.02 * (k + 1);
    link.minus = 0.01;
    if (k == 4) {
      link.measured = 7.004;
      link.uncertainty = 0.01;
    }
    const double own = k == 4 ? 0.005 : (link.plus + link.minus) / 6;
    sigma = std::hypot(sigma, link.coefficient * own);
    in.links.push_back(link);
  }
  const auto mean = chain(in, {.samples = 0}).mean;
  const boost::math::normal gap(mean, sigma);
  for (const double z : {0.5, 1.0, 2.0, 3.0}) {
    in.lower = mean - z * sigma;
    in.upper = mean + 0.7 * z * sigma;
    const double exact = cdf(gap, in.upper) - cdf(gap, in.lower);
    const auto result = chain(in);
    EXPECT_NEAR(result.sigma, sigma, 1e-12);
    EXPECT_NEAR(result.p_within, exact, 4 * std::sqrt(exact * (1 - exact) / 1e6)) << z;
  }
}

TEST(Chain, TheSameFigureOnAnyNumberOfThreads) {
  auto in = uniform_chain(9, 9.2, 10.8);
  in.links[3].distribution = Distribution::normal;
  const auto one = chain(in, {.samples = 300001, .seed = 7, .threads = 1, .bins = 40});
  for (const int threads : {2, 3, 8}) {
    const auto more = chain(in, {.samples = 300001, .seed = 7, .threads = threads, .bins = 40});
    EXPECT_EQ(one.p_within, more.p_within);
    EXPECT_EQ(one.histogram, more.histogram);
  }
  EXPECT_NE(one.p_within, chain(in, {.samples = 300001, .seed = 8}).p_within);
  EXPECT_NEAR(
      static_cast<double>(std::accumulate(one.histogram.begin(), one.histogram.end(), std::int64_t{0})),
      300001, 5);
}

TEST(Chain, WhoSpreadsItMostAndWhatClosesIt) {
  ChainInput in;
  in.links = {{"wide", 1, 20, 0.3, 0.3, Distribution::normal, {}, 0},
              {"read", -1, 12, 0.5, 0.5, Distribution::normal, 12.1, 0.02},
              {"fine", -2, 3, 0.02, 0.02, Distribution::normal, {}, 0}};
  in.lower = 1.8;
  in.upper = 2.2;
  const auto result = chain(in);
  EXPECT_EQ(result.improve, 0);
  EXPECT_NEAR(result.mean, 20 - 12.1 - 6, 1e-12);
  EXPECT_NEAR(result.worst_high - result.worst_low, 0.6 + 0.04 + 0.08, 1e-12);
  EXPECT_NEAR(gap_sum(in).total(), result.mean, 1e-12);
  EXPECT_EQ(gap_sum(in).lines[1].source, "measured");
  EXPECT_EQ(gap_sum(in).lines[2].label, "fine \u00D7 2");
  // Common practice: rod side gap of 0.25 on three rods is 0.75 in all.
  EXPECT_NEAR(closing_part(3 * 0.25 + 0.1, 0.05, 0.15), 0.75, 1e-12);
}

TEST(Chain, CoefficientsAsPeopleWriteThem) {
  EXPECT_EQ(parse_coefficient("2"), 2.0);
  EXPECT_EQ(parse_coefficient("-1/2"), -0.5);
  EXPECT_EQ(parse_coefficient("\u22121"), -1.0);
  EXPECT_NEAR(parse_coefficient("cos 60").value_or(0), 0.5, 1e-12);
  EXPECT_NEAR(parse_coefficient("1/cos 60").value_or(0), 2, 1e-12);
  EXPECT_NEAR(parse_coefficient("3/4 sin 30\u00B0").value_or(0), 0.375, 1e-12);
  EXPECT_NEAR(parse_coefficient("-tan 45").value_or(0), -1, 1e-12);
  std::string why;
  EXPECT_FALSE(parse_coefficient("", &why));
  EXPECT_FALSE(parse_coefficient("1/0", &why));
  EXPECT_EQ(why, "it divides by nothing");
  EXPECT_FALSE(parse_coefficient("cos", &why));
  EXPECT_EQ(why, "after cos comes an angle in degrees");
  EXPECT_FALSE(parse_coefficient("two", &why));
  // Not guessed at: half of one, or one and a half?
  EXPECT_FALSE(parse_coefficient("1 1/2", &why));
  EXPECT_EQ(why, "\"1 1/2\": put a sign between its numbers, or write one and a half as 1.5 or 3/2");
  for (const char* bad : {"2 3", "nan", "inf", "1/inf", "2 *", "1,5", "1/2/", "cos 30 2"})
    EXPECT_FALSE(parse_coefficient(bad)) << bad;
  EXPECT_NEAR(parse_coefficient("2 \u00D7 3").value_or(0), 6, 1e-12);
}

TEST(Chain, NonsenseIsRefused) {
  EXPECT_EQ(chain({}).message, "a chain needs a term");
  auto in = uniform_chain(2, 1, -1);
  EXPECT_EQ(chain(in).message, "lower must not be above upper");
  in = uniform_chain(2, -1, 1);
  in.links[1].plus = -1;
  EXPECT_EQ(chain(in).message.substr(0, 3), "u1:");
  in = uniform_chain(1, 9, 11);
  in.links[0].plus = in.links[0].minus = 0;
  EXPECT_EQ(chain(in).p_within, 1); // nothing spreads: it is in or out
  in.links[0].measured = 1e308;     // was answered "it closes"
  EXPECT_EQ(chain(in).message, "u0: every length of it must be at most 10 km");
}

TEST(Chain, WhatWouldTakeMinutesIsRefused) {
  const auto few = chain(uniform_chain(2, -1, 1), {.samples = 1000});
  EXPECT_EQ(few.status, ChainStatus::computed);
  const auto many = chain(uniform_chain(20, -1, 1), {.samples = 1000000000});
  EXPECT_EQ(many.status, ChainStatus::refused);
  EXPECT_EQ(many.message, "1000000000 samples of 20 terms take too long; take at most 500000000");
}
