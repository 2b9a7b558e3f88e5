#include "casting/free_motion.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::casting;

TEST(FreeMotion, PlainMotionsAreNamedFirst) {
  Motions free = Motions::Zero(6, 2);
  free(0, 0) = free(1, 0) = std::sqrt(0.5); // x and y together…
  free(0, 1) = std::sqrt(0.5);
  free(1, 1) = -std::sqrt(0.5); // …span both axes
  const auto motions = name_motions(free, 30);
  ASSERT_EQ(motions.size(), 2U);
  EXPECT_EQ(motions[0].name(), "moving along x");
  EXPECT_EQ(motions[1].name(), "moving along y");
}

TEST(FreeMotion, TurningAboutAnAxisBesideTheCentre) {
  Motions free = Motions::Zero(6, 1);
  free.col(0) << 0.5, 0, -0.2, 0, 0.8, 0; // turns about y and carries the centre along
  const auto motions = name_motions(free, 30);
  ASSERT_EQ(motions.size(), 1U);
  EXPECT_EQ(motions[0].name(), "turning about y");
}

TEST(FreeMotion, OffAxisDirectionsGetNumbers) {
  Motions free = Motions::Zero(6, 1);
  free.col(0) << 0.6, 0, 0.8, 0, 0, 0;
  EXPECT_EQ(name_motions(free, 30)[0].name(), "moving along (0.60, 0.00, 0.80)");
}

TEST(FreeMotion, OneWay) {
  Columns6 rows = Columns6::Zero(6, 2);
  rows.col(0) << 1, 0, 0, 0, 0, 0;
  rows.col(1) << -1, 0, 1, 0, 0, 0;
  const auto motions = one_way_motions(rows);
  ASSERT_EQ(motions.size(), 1U);
  EXPECT_EQ(motions[0].name(), "moving along z");
}
