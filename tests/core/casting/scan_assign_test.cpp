#include "casting/scan_assign.h"

#include "casting/seat.h"
#include "sim/pedestal.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::casting;

namespace {

struct Scanned {
  sim::Pedestal pedestal;
  std::vector<std::array<float, 3>> points;
  ScanInput input;
};

Scanned scan(std::uint64_t seed, int touches, const Pose& lies) {
  Scanned s;
  sim::PedestalOptions options;
  options.seed = seed;
  options.touches = touches;
  s.pedestal = sim::random_pedestal(options);
  for (const auto& p : s.pedestal.input.points) {
    const Vec3 at = lies.apply(s.pedestal.truth.apply(p.xyz));
    s.points.push_back({float(at.x()), float(at.y()), float(at.z())});
  }
  s.input.surfaces = s.pedestal.input.surfaces;
  s.input.extent = s.pedestal.extent;
  s.input.extent[6] = {0, 36};
  s.input.extent[5] = {0, 36};
  return s;
}

/// Share of the points given to their own surface. The block is the same end for end, so a scan of it may be
/// turned end for end too: then end a is called end b, and cheek left cheek right.
struct Share {
  double right = 0, wrong = 0;
};
Share share_of(const Scanned& s, const ScanResult& result) {
  Share best;
  for (const auto& names :
       {std::array<int, 7>{0, 1, 2, 3, 4, 5, 6}, std::array<int, 7>{0, 2, 1, 4, 3, 5, 6}}) {
    Share share;
    for (std::size_t i = 0; i < result.surface.size(); ++i) {
      const int own = names[static_cast<std::size_t>(s.pedestal.input.points[i].surface)];
      if (result.surface[i] == own)
        share.right += 1.0 / double(result.surface.size());
      else if (result.surface[i] != 0xFFFF)
        share.wrong += 1.0 / double(result.surface.size());
    }
    if (share.right > best.right) best = share;
  }
  return best;
}

} // namespace

TEST(ScanAssign, AScanLyingAnyWayIsGivenToItsSurfaces) {
  for (std::uint64_t seed = 1; seed <= 8; ++seed) {
    const double k = double(seed);
    const Pose lies{rotation_from_vector({std::sin(2 * k), 1.3 * std::cos(5 * k), 2 * std::sin(7 * k)}),
                    {100 * k, -40, 7}};
    auto s = scan(seed, 300, lies);
    s.input.points = &s.points;
    const auto result = assign_scan(s.input);
    ASSERT_EQ(result.status, ScanStatus::assigned) << seed << result.message;
    const auto share = share_of(s, result);
    EXPECT_GT(share.right, 0.9) << seed;
    EXPECT_LT(share.wrong, 0.01) << seed; // what is doubtful is given to none
  }
}

TEST(ScanAssign, PointsFarFromEveryPlaneAreElsewhere) {
  auto s = scan(2, 200, {});
  for (int i = 0; i < 100; ++i) s.points.push_back({float(i), 120, 200});
  s.input.points = &s.points;
  const auto result = assign_scan(s.input);
  EXPECT_GE(result.elsewhere, 100U);
  EXPECT_EQ(result.surface.back(), 0xFFFF);
}

TEST(ScanAssign, TheWrongUnitIsToldApart) {
  auto s = scan(3, 200, {});
  for (auto& p : s.points)
    for (auto& c : p) c *= 25.4F;
  s.input.points = &s.points;
  const auto result = assign_scan(s.input);
  EXPECT_EQ(result.status, ScanStatus::no_fit);
  EXPECT_NE(result.message.find("is its unit right"), std::string::npos) << result.message;
}

TEST(ScanAssign, TooLittleIsRefused) {
  auto s = scan(3, 2, {});
  s.input.points = &s.points;
  EXPECT_EQ(assign_scan(s.input).message, "a scan needs twenty points at least");
  s.input.surfaces.clear();
  EXPECT_EQ(assign_scan(s.input).message, "state the drawing first: a scan is given to its surfaces");
}
