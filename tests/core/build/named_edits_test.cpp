// The edits a person makes, each by its name: what it changes, what the undo menu says, what it refuses; and
// that undo brings back exactly what was.

#include "build/edit_casting.h"
#include "build/edit_drawing.h"
#include "build/edit_making.h"
#include "build/edit_mating.h"
#include "drawing/dimension_limits.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace datrin;
using namespace datrin::build;

namespace {

class NamedEdits : public testing::Test {
protected:
  void SetUp() override {
    part = take(add_part(b, "Bracket"), "Add part Bracket");
    piece = b.pieces_of(part).front().first;
    plane = take(add_surface(b, part, SurfaceKind::plane), "Add plane");
    bore = take(add_surface(b, part, SurfaceKind::bore), "Add bore");
  }
  /// Applies it, and checks the label, that there is something in it, and that it can be taken back.
  void carry_out(const Edit& edit, const std::string& label) {
    ASSERT_FALSE(edit.empty()) << label;
    EXPECT_EQ(edit.label, label);
    const auto before = b.records();
    ASSERT_TRUE(b.apply(edit)) << label;
    auto back = b;
    ASSERT_TRUE(back.apply(reversed(edit))) << label;
    EXPECT_EQ(back.records(), before) << label;
  }
  Id take(const Added& added, const std::string& label) {
    EXPECT_TRUE(added.ok()) << added.wrong;
    carry_out(added.edit, label);
    EXPECT_TRUE(b.records().contains(added.id)) << label;
    return added.id;
  }
  Touch touch_on(Id surface, const Vec3& at = Vec3::Zero()) {
    Touch t;
    t.piece = piece;
    t.surface = surface;
    t.centre = at;
    return t;
  }
  Build b;
  Id part = 0, piece = 0, plane = 0, bore = 0;
};

} // namespace

TEST_F(NamedEdits, OfTheBuildItself) {
  carry_out(name_build(b, "Beam engine"), "Name of the build");
  EXPECT_EQ(b.info().name, "Beam engine");
  EXPECT_TRUE(name_build(b, "Beam engine").empty());
  carry_out(work_in(b, Unit::inch), "Work in inches");
  EXPECT_EQ(b.info().unit, Unit::inch);
  carry_out(work_in(b, Unit::mm), "Work in millimetres");
  carry_out(lay_out_views(b, true), "Third-angle views");
  carry_out(lay_out_views(b, false), "First-angle views");
}

TEST_F(NamedEdits, PartsTakeAFreeNameOnlyWhenAsked) {
  const Id second = take(add_part(b, "Bracket", true), "Add part Bracket 2");
  EXPECT_EQ(b.find<Part>(second)->name, "Bracket 2");
  const Id third = take(add_part(b, "Bracket"), "Add part Bracket"); // two parts of one name may be wanted
  EXPECT_EQ(b.find<Part>(third)->name, "Bracket");
  EXPECT_GT(b.find<Part>(third)->order, b.find<Part>(second)->order);
  EXPECT_EQ(b.pieces_of(third).size(), 1U);
}

TEST_F(NamedEdits, SurfacesBeginAsSomethingThatCanBeDrawn) {
  for (const auto kind : {SurfaceKind::plane, SurfaceKind::bore, SurfaceKind::boss, SurfaceKind::taper_bore,
                          SurfaceKind::taper_shank}) {
    const auto added = add_surface(b, part, kind);
    ASSERT_TRUE(added.ok());
    ASSERT_TRUE(b.apply(added.edit));
    const auto& s = *b.find<PartSurface>(added.id);
    EXPECT_EQ(shape_wrong(s.shape()), "") << s.name;
    EXPECT_EQ(s.kind, kind);
    for (const auto other : {SurfaceKind::plane, SurfaceKind::bore, SurfaceKind::taper_shank})
      EXPECT_EQ(shape_wrong(of_kind(s, other, Unit::inch).shape()), "") << s.name;
  }
  EXPECT_FALSE(add_surface(b, 9999, SurfaceKind::plane).ok());
}

// A second surface of a name gets a number, and is its own record wherever it is used.
TEST_F(NamedEdits, TwoSurfacesOfOneNameStayTwo) {
  const Id again = take(add_surface(b, part, SurfaceKind::plane), "Add plane 2");
  auto same = *b.find<PartSurface>(again);
  same.name = "plane";
  carry_out(change(b, again, same, "Name"), "Name of plane");
  EXPECT_EQ(b.find<PartSurface>(plane)->name, b.find<PartSurface>(again)->name);
  take(book_touch(b, touch_on(again)), "Touch on plane");
  EXPECT_EQ(b.touches_of(piece).front().second.surface, again);
  carry_out(take_away(b, plane), "Remove plane");
  EXPECT_EQ(b.touches_of(piece).size(), 1U); // of the other one
}

TEST_F(NamedEdits, WallsAreKeptOnceBetweenTwoSurfaces) {
  carry_out(keep_wall(b, part, plane, bore), "Keep a wall from plane to bore");
  EXPECT_TRUE(keep_wall(b, part, plane, bore).empty());
  EXPECT_TRUE(keep_wall(b, part, plane, 9999).empty());
  const Id wall = b.walls_of(part).front().first;
  carry_out(set_wall(b, wall, 3.2), "Least wall from plane to bore");
  EXPECT_EQ(b.find<Wall>(wall)->least, 3.2);
  EXPECT_TRUE(set_wall(b, 9999, 3).empty());
}

TEST_F(NamedEdits, WhatWasReckonedIsKeptWithHowItCameAbout) {
  const auto kept = keep_reckoned(b, part, "try 1", 12.5, "Creep to a fit: 12.49 and 0.01");
  ASSERT_TRUE(kept.ok()) << kept.wrong;
  EXPECT_EQ(kept.edit.label, "Keep try 1, reckoned: 12.500\u202Fmm");
  ASSERT_TRUE(b.apply(kept.edit));
  const auto& d = *b.find<Dimension>(kept.id);
  EXPECT_EQ(d.reason, "Creep to a fit: 12.49 and 0.01");
  EXPECT_FALSE(d.has_limits());                                                     // nobody gave any
  EXPECT_NE(keep_reckoned(b, part, "try 1", 12.5, "").edit.label, kept.edit.label); // a name of its own
  EXPECT_FALSE(keep_reckoned(b, 9999, "x", 1, "").ok());
  EXPECT_FALSE(keep_reckoned(b, part, "x", -1, "").ok());
}

TEST_F(NamedEdits, LimitsKeepTheirHistory) {
  const auto added = add_dimension(b, part);
  ASSERT_TRUE(added.ok());
  ASSERT_TRUE(b.apply(added.edit));
  const auto limits = [&](const char* text) {
    return drawing::typed_limits(*b.find<Dimension>(added.id), text, {.bare_unit = Unit::mm}, {});
  };
  carry_out(drawing::set_limits(b, added.id, limits("12 H7").dimension, "2026-01-02T10:00:00Z"),
            "Limits of dimension 1");
  EXPECT_TRUE(b.find<Dimension>(added.id)->history.empty()); // it was nothing before
  carry_out(drawing::set_limits(b, added.id, limits("12 H8").dimension, "2026-01-03T10:00:00Z"),
            "Limits of dimension 1");
  ASSERT_EQ(b.find<Dimension>(added.id)->history.size(), 1U);
  EXPECT_EQ(b.find<Dimension>(added.id)->history[0].was, "12 mm H7");
  EXPECT_TRUE(drawing::set_limits(b, added.id, limits("12 H8").dimension, "x").empty());
  EXPECT_FALSE(limits("12 Q7").ok());
  // The drawing gives way at its upper limit.
  carry_out(drawing::widen(b, added.id, 0.010, "the pin", "2026-01-04T10:00:00Z"),
            "Departure from the drawing of dimension 1");
  EXPECT_NEAR(b.find<Dimension>(added.id)->most(), 12 + 0.027 + 0.010, 1e-12); // H8 at 12 mm: ISO 286-2
  EXPECT_NEAR(b.find<Dimension>(added.id)->least(), 12, 1e-12);
}

TEST_F(NamedEdits, TouchesAreBookedInOrderChangedAndTakenBack) {
  for (int k = 0; k < 3; ++k) take(book_touch(b, touch_on(plane, {1.0 * k, 0, 0})), "Touch on plane");
  const auto touches = b.touches_of(piece);
  EXPECT_LT(touches[0].second.order, touches[2].second.order);
  auto moved = touches[1].second;
  moved.centre.x() = 7;
  carry_out(change_touch(b, touches[1].first, moved), "Change touch 2");
  auto aside = touches[0].second;
  aside.standing = TouchStanding::set_aside;
  carry_out(change_touch(b, touches[0].first, aside), "Change touch 1");
  carry_out(count_again(b, piece), count_again(b, piece).label);
  EXPECT_EQ(b.touches_of(piece)[0].second.standing, TouchStanding::counted);
  EXPECT_TRUE(count_again(b, piece).empty());
  carry_out(remove_touches(b, {touches[0].first, touches[2].first}), "Remove 2 touches");
  ASSERT_EQ(b.touches_of(piece).size(), 1U);
  EXPECT_EQ(b.touches_of(piece)[0].second.centre.x(), 7);
}

// A survey with marks says the casting was moved: each setting it names has a frame of its own, the first
// that of the survey.
TEST_F(NamedEdits, ASurveyWithMarksBringsItsSettings) {
  auto first = touch_on(plane), second = touch_on(bore, {0, 0, 4});
  first.setting = "as it lies";
  second.setting = "on its side";
  Mark mark;
  mark.piece = piece;
  mark.name = "A";
  mark.setting = "on its side";
  Mark same = mark;
  same.setting = "as it lies";
  const auto edit = take_survey(b, piece, {first, second}, {mark, same});
  carry_out(edit, edit.label);
  EXPECT_EQ(b.touches_of(piece).size(), 2U);
  EXPECT_EQ(b.marks_of(piece).size(), 2U);
  SettingFrame lies{}, side{};
  for (const auto& [id, s] : b.settings_of(piece)) (s.name == "as it lies" ? lies : side) = s.frame;
  EXPECT_EQ(lies, SettingFrame::survey);
  EXPECT_EQ(side, SettingFrame::own);
  carry_out(frame_setting(b, piece, "on its side", SettingFrame::heights),
            frame_setting(b, piece, "on its side", SettingFrame::heights).label);
}

TEST_F(NamedEdits, AMarkIsReadOnceInASettingUnderAName) {
  Mark mark;
  mark.piece = piece;
  EXPECT_FALSE(book_mark(b, mark).ok());
  mark.name = "A";
  ASSERT_TRUE(b.apply(book_mark(b, mark).edit));
  EXPECT_FALSE(book_mark(b, mark).ok());
  mark.setting = "turned";
  EXPECT_TRUE(book_mark(b, mark).ok());
}

TEST_F(NamedEdits, CutsAreLoggedAndTheLastIsTakenBack) {
  EXPECT_TRUE(take_back_cut(b, piece, bore).empty());
  for (const double left : {1.0, 0.4}) {
    Cut cut;
    cut.piece = piece;
    cut.surface = bore;
    cut.left = left;
    cut.at = "2026-02-03T09:00:00Z";
    const auto edit = log_cut(b, cut);
    carry_out(edit, edit.label);
  }
  ASSERT_EQ(b.cuts_of(piece, bore).size(), 2U);
  const auto back = take_back_cut(b, piece, bore);
  carry_out(back, back.label);
  ASSERT_EQ(b.cuts_of(piece, bore).size(), 1U);
  EXPECT_EQ(b.cuts_of(piece, bore).front().second.left, 1.0);
}

TEST_F(NamedEdits, SetupsChangePlacesAndRoles) {
  const Id one = b.next_id();
  ASSERT_TRUE(b.apply(add_setup(b, part).edit));
  const Id two = b.next_id();
  ASSERT_TRUE(b.apply(add_setup(b, part).edit));
  EXPECT_EQ(b.setups_of(part).front().first, one);
  EXPECT_TRUE(move_setup(b, one, -1).empty());
  const auto moved = move_setup(b, one, 1);
  carry_out(moved, moved.label);
  EXPECT_EQ(b.setups_of(part).front().first, two);
  // What is to be machined: locates, is cut, is a reference, nothing; and round again.
  std::vector<std::string> seen;
  for (int k = 0; k < 4; ++k) {
    const auto role = next_role(b, one, plane);
    carry_out(role, role.label);
    const auto& s = *b.find<build::Setup>(one);
    const auto in = [&](const std::vector<Id>& list) {
      return std::find(list.begin(), list.end(), plane) != list.end();
    };
    seen.push_back(in(s.datums) ? "locates" : in(s.cuts) ? "cut" : in(s.marks) ? "reference" : "nothing");
  }
  EXPECT_EQ(seen.back(), "nothing");
  EXPECT_EQ(seen.front(), "locates");
  EXPECT_NE(std::find(seen.begin(), seen.end(), "cut"), seen.end());
}

TEST_F(NamedEdits, UnclampingIsKeptWithWhatWasMissing) {
  const Id setup = b.next_id();
  ASSERT_TRUE(b.apply(add_setup(b, part).edit));
  const auto off = unclamp(b, piece, setup, "bore is not measured", "2026-02-03T09:00:00Z");
  carry_out(off, off.label);
  ASSERT_TRUE(b.release_of(piece, setup));
  EXPECT_EQ(b.release_of(piece, setup)->second.missing, "bore is not measured");
  const auto on = clamp_again(b, piece, setup);
  carry_out(on, on.label);
  EXPECT_FALSE(b.release_of(piece, setup));
}

TEST_F(NamedEdits, ChainsTakeLinksAndAGapThatCanBe) {
  const Id dimension = b.next_id();
  ASSERT_TRUE(b.apply(add_dimension(b, part).edit));
  const auto stated = state_chain(b);
  ASSERT_TRUE(stated.ok());
  carry_out(stated.edit, stated.edit.label);
  const auto link = add_link(b, stated.id, dimension, -0.5, "-1/2");
  carry_out(link, link.label);
  ASSERT_EQ(b.find<Chain>(stated.id)->terms.size(), 1U);
  EXPECT_EQ(b.find<Chain>(stated.id)->terms[0].coefficient, -0.5);
  EXPECT_FALSE(set_gap(b, stated.id, 0.3, 0.2).ok());
  const auto gap = set_gap(b, stated.id, 0.1, 0.2);
  ASSERT_TRUE(gap.ok());
  carry_out(gap.edit, gap.edit.label);
  const auto off = remove_link(b, stated.id, 0);
  carry_out(off, off.label);
  EXPECT_TRUE(b.find<Chain>(stated.id)->terms.empty());
  EXPECT_TRUE(remove_link(b, stated.id, 5).empty());
}

TEST_F(NamedEdits, TheShopKeepsItsOrder) {
  for (const char* name : {"lathe", "mill", "shaper"}) {
    Machine m;
    m.name = name;
    const auto added = add_machine(b, m);
    carry_out(added.edit, added.edit.label);
  }
  std::vector<std::string> names;
  for (const auto& [id, m] : b.machines()) names.push_back(m.name);
  EXPECT_EQ(names, (std::vector<std::string>{"lathe", "mill", "shaper"}));
}
