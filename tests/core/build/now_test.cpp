// Hours between two times as records keep them.

#include "build/now.h"

#include <gtest/gtest.h>

using namespace datrin::build;

TEST(Now, HoursBetween) {
  EXPECT_NEAR(*hours_between("2026-11-27T10:00:00Z", "2026-11-27T15:30:00Z"), 5.5, 1e-12);
  EXPECT_NEAR(*hours_between("2024-02-28T12:00:00Z", "2024-03-01T12:00:00Z"), 48, 1e-12); // a leap year
  EXPECT_NEAR(*hours_between("2026-11-27T10:00:00Z", "2026-11-26T10:00:00Z"), -24, 1e-12);
  for (const auto* bad : {"", "2026", "2026-13-01T00:00:00Z", "2026-02-30T00:00:00Z", "2026-11-27T1a:00:00Z"})
    EXPECT_FALSE(hours_between(bad, "2026-11-27T15:30:00Z")) << bad;
  EXPECT_NEAR(*hours_between(utc_now(), utc_now()), 0, 0.01);
}
