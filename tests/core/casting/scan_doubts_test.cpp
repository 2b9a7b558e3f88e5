// Scan points between two faces, given to one by hand; heights read at a stated place of a face.

#include "casting/scan_doubts.h"

#include "build/edit_casting.h"
#include "casting/settings.h"
#include "casting/survey.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::build;
using namespace datrin::casting;

namespace {

/// A foot looking down and an end looking right, meeting in the edge x = 20, z = 0; a seat that moves
/// nothing.
class TwoFaces : public test::DrawnPart {
protected:
  TwoFaces() {
    part = make(Part{"Part", "cast iron", 1, 0});
    piece = make(Piece{part, 1});
    foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), 40, 30);
    end = face("end", {20, 0, 10}, Vec3::UnitX(), 30, 20);
    make(Seat{piece, {}, true});
  }
  void scan(const std::vector<std::array<float, 3>>& at, const std::vector<std::uint16_t>& of) {
    auto points = std::make_shared<ScanPoints>();
    points->at = at;
    points->surface = of;
    points->surfaces = {foot, end};
    make(Scan{piece, "scan", {}, 0.05, points});
  }
  Id piece = 0, foot = 0, end = 0;
};

} // namespace

TEST_F(TwoFaces, DoubtfulPointsAreThoseBetweenTheFacesAndGoWhereTheyAreGiven) {
  constexpr auto none = ScanPoints::no_surface;
  scan({{0, 0, -1},
        {5, 0, -1},
        {21, 0, 10},
        {20.6f, 3, -0.7f},
        {20.7f, 5, -0.6f},
        {20.6f, 7, -0.5f},
        {80, 80, 80}},
       {0, 0, 1, none, none, none, none});
  const auto doubts = scan_doubts(b, piece);
  ASSERT_EQ(doubts.size(), 1U); // the last lies far from everything
  EXPECT_EQ(doubts[0].points, (std::vector<std::size_t>{3, 4, 5}));
  EXPECT_TRUE((doubts[0].first == foot && doubts[0].second == end) ||
              (doubts[0].first == end && doubts[0].second == foot));
  const auto before = piece_input(b, piece).seat.points.size();
  const auto edit = give_points(b, doubts[0], end);
  EXPECT_EQ(edit.label, "Give 3 points of the scan to end");
  ASSERT_TRUE(b.apply(edit));
  EXPECT_EQ(piece_input(b, piece).seat.points.size(), before + 3);
  EXPECT_TRUE(scan_doubts(b, piece).empty());
  ASSERT_TRUE(b.apply(reversed(edit)));
  EXPECT_EQ(scan_doubts(b, piece).size(), 1U);
  EXPECT_TRUE(give_points(b, doubts[0], piece).empty()); // no surface of the part
}

TEST_F(TwoFaces, ASurfaceTheScanDidNotKnowCanBeGivenThem) {
  constexpr auto none = ScanPoints::no_surface;
  auto points = std::make_shared<ScanPoints>();
  points->at = {{0, 0, -1}, {20.6f, 3, -0.7f}};
  points->surface = {0, none};
  points->surfaces = {foot};
  make(Scan{piece, "scan", {}, 0.05, points});
  const auto doubts = scan_doubts(b, piece);
  ASSERT_EQ(doubts.size(), 1U);
  ASSERT_TRUE(b.apply(give_points(b, doubts[0], end)));
  const auto input = piece_input(b, piece);
  EXPECT_EQ(input.seat.points.size(), 2U);
  EXPECT_EQ(b.scans_of(piece).front().second.points->surfaces.back(), end);
}

// The plate leans in the setting by 1 in 100 about y. A height read 15 mm along the foot is known to 3 mm of
// place: the lean adds 0.03 to what is not known; of the middle, unsaid, half the foot: 0.2.
TEST_F(TwoFaces, AHeightIsWhereItIsSaidToBe) {
  const double lean = std::atan(0.01);
  make(Setting{piece, "on its back", SettingFrame::heights, 0});
  const Mat3 turn = rotation_from_vector({0, lean, 0});
  int n = 0;
  for (const Vec3& pop : {Vec3(-15, -10, 3), Vec3(15, -10, 3), Vec3(0, 12, 3), Vec3(5, 5, 9)}) {
    const auto name = std::string(1, static_cast<char>('A' + n));
    make(Mark{piece, "", name, pop, 0.01, double(n)});
    make(Mark{piece, "on its back", name, {0, 0, (turn * pop).z() + 50}, 0.01, double(n++)});
  }
  for (const double right : {0.0, 15.0}) {
    Touch t;
    t.piece = piece;
    t.surface = foot;
    t.setting = "on its back";
    // 1.5 mm of metal on the foot at that place. Looked at from below, right is against x or along it: by the
    // directions of the face.
    const auto on = patch_directions(-Vec3::UnitZ());
    const Vec3 at = on.width * right - Vec3(0, 0, 1.5);
    t.centre = {0, 0, (turn * at).z() + 50};
    t.right = right;
    t.order = right;
    make(t);
  }
  const auto input = piece_input(b, piece);
  ASSERT_EQ(input.seat.points.size(), 2U) << (input.remarks.empty() ? "" : input.remarks.front());
  for (std::size_t k = 0; k < 2; ++k)
    EXPECT_NEAR(stock_at(input.seat.surfaces[0].shape, input.seat.points[k].xyz), 1.5, 2e-3) << k;
  EXPECT_NEAR(std::abs(input.seat.points[1].xyz.x()), 15, 0.05);
  EXPECT_NEAR(input.seat.points[0].uncertainty, 0.2, 0.01);
  EXPECT_NEAR(input.seat.points[1].uncertainty, 0.03, 0.005);
  EXPECT_TRUE(gives_heights(b, piece, "on its back"));
  EXPECT_FALSE(gives_heights(b, piece, "elsewhere"));
}
