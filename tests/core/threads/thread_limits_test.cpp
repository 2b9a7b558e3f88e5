#include "threads/thread_limits.h"

#include "quantity/table.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::threads;

namespace {

ThreadLimits limits(const char* name) {
  const auto found = find(name);
  EXPECT_NE(found.thread, nullptr) << name;
  const auto limits = found.thread ? limits_of(*found.thread) : std::nullopt;
  EXPECT_TRUE(limits) << name;
  return limits.value_or(ThreadLimits{});
}

/// The preferred number of series R40 nearest to `value` (ISO 3).
double r40(double value) {
  return std::pow(10.0, std::round(40 * std::log10(value)) / 40);
}

} // namespace

// ISO 965-2:1998, limits of sizes, medium quality: M8, M10, M3, M20x1.5; from memory.
TEST(ThreadLimits, MetricOnesAreTheStandards) {
  const auto m8 = limits("M8");
  EXPECT_EQ(m8.screw_class, "6g");
  EXPECT_NEAR(m8.screw_major.most, 7.972, 1e-9);
  EXPECT_NEAR(m8.screw_major.least, 7.760, 1e-9);
  EXPECT_NEAR(m8.screw_pitch.most, 7.160, 1e-3);
  EXPECT_NEAR(m8.screw_pitch.least, 7.042, 1e-3);
  EXPECT_NEAR(m8.nut_pitch.least, 7.188, 1e-3);
  EXPECT_NEAR(m8.nut_pitch.most, 7.348, 1e-3);
  EXPECT_NEAR(m8.nut_minor.least, 6.647, 1e-3);
  EXPECT_NEAR(m8.nut_minor.most, 6.912, 1e-3);
  const auto m10 = limits("M10");
  EXPECT_NEAR(m10.screw_major.most, 9.968, 1e-9);
  EXPECT_NEAR(m10.screw_major.least, 9.732, 1e-9);
  EXPECT_NEAR(m10.nut_minor.most, 8.676, 1e-3);
  const auto m3 = limits("M3");
  EXPECT_NEAR(m3.screw_pitch.most, 2.655, 1e-3);
  EXPECT_NEAR(m3.screw_pitch.least, 2.580, 1e-3);
  EXPECT_NEAR(limits("M20x1.5").nut_minor.least, 18.376, 1e-3);
  EXPECT_EQ(limits("M1.2").screw_class, "6h"); // to M1.4
  EXPECT_EQ(limits("M1.2").nut_class, "5H");
}

// ISO 965-1:2013, clause on calculation: es = −(15 + 11 P); Td(6) = 180 P^⅔ − 3.15/√P; Td2(6) = 90 P^0.4
// d^0.1, d the geometric mean of its range; TD2(6) = 1.32 Td2(6); TD1(6) = 433 P − 190 P^1.22 to 0.8 mm, else
// 230 P^0.7; each rounded to R40. The tables depart from them by a step here and there to run smoothly. From
// memory.
TEST(ThreadLimits, TheTablesFollowTheStandardsFormulas) {
  const double step = std::pow(10.0, 1.0 / 40);
  for (const auto& t : all()) {
    if (t.series != "M" && t.series != "M fine") continue;
    const auto l = limits_of(t);
    ASSERT_TRUE(l) << t.name;
    const double p = t.pitch;
    const auto near = [&](double mm, double um, const char* what) {
      EXPECT_LT(mm * 1000, r40(um) * step * 1.03) << t.name << " " << what;
      EXPECT_GT(mm * 1000, r40(um) / step * 0.97) << t.name << " " << what;
    };
    near(l->screw_major.most - l->screw_major.least, 180 * std::cbrt(p * p) - 3.15 / std::sqrt(p), "major");
    double low = 0.99, high = 1.4;
    for (const double edge : {2.8, 5.6, 11.2, 22.4, 45.0})
      if (t.major > high) {
        low = high;
        high = edge;
      }
    const double pitch_diameter = 90 * std::pow(p, 0.4) * std::pow(std::sqrt(low * high), 0.1);
    near(l->screw_pitch.most - l->screw_pitch.least, pitch_diameter, "pitch diameter");
    if (l->nut_class == "5H") continue;
    EXPECT_NEAR((t.major - l->screw_major.most) * 1000, 15 + 11 * p, 1.5) << t.name;
    near(l->nut_pitch.most - l->nut_pitch.least, 1.32 * pitch_diameter, "nut, pitch diameter");
    near(l->nut_minor.most - l->nut_minor.least,
         p > 0.8 ? 230 * std::pow(p, 0.7) : 433 * p - 190 * std::pow(p, 1.22), "nut, minor");
  }
}

// ASME B1.1-2003, table of limits of size: 1/4-20 UNC, 1/2-13 UNC and 1/4-28 UNF, classes 2A and 2B; from
// memory.
TEST(ThreadLimits, UnifiedOnesAreTheStandards) {
  const auto inch = [](double mm) { return mm / 25.4; };
  const auto quarter = limits("1/4-20");
  EXPECT_NEAR(inch(quarter.screw_major.most), 0.2489, 6e-5);
  EXPECT_NEAR(inch(quarter.screw_major.least), 0.2408, 1e-4);
  EXPECT_NEAR(inch(quarter.screw_pitch.most), 0.2164, 6e-5);
  EXPECT_NEAR(inch(quarter.screw_pitch.least), 0.2127, 6e-5);
  EXPECT_NEAR(inch(quarter.nut_pitch.least), 0.2175, 6e-5);
  EXPECT_NEAR(inch(quarter.nut_pitch.most), 0.2224, 6e-5);
  EXPECT_NEAR(inch(quarter.nut_minor.least), 0.196, 6e-4);
  EXPECT_NEAR(inch(quarter.nut_minor.most), 0.207, 6e-4);
  const auto half = limits("1/2-13");
  EXPECT_NEAR(inch(half.screw_major.most), 0.4985, 6e-5);
  EXPECT_NEAR(inch(half.screw_major.least), 0.4876, 6e-5);
  EXPECT_NEAR(inch(half.nut_pitch.most), 0.4565, 6e-5);
  const auto fine = limits("1/4-28");
  EXPECT_NEAR(inch(fine.screw_pitch.most), 0.2258, 6e-5);
  EXPECT_NEAR(inch(fine.screw_pitch.least), 0.2225, 6e-5);
  EXPECT_FALSE(limits_of(*find("4BA").thread)); // those standards do not state it
}
