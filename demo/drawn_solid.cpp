#include "demo/drawn_solid.h"

#include "solid/follow.h"

#include <string>
#include <utility>
#include <vector>

namespace datrin::demo {

using namespace build;

namespace {

using R = BodyRole;
using S = BodyShape;
using F = BodyFace;

class SolidDrawer {
public:
  SolidDrawer(const Build& build, const std::function<void(const Edit&)>& keep)
      : build_(build), keep_(keep) {}

  /// What follows is of that part, and is kept with the next one or the end.
  void part(const std::string& name) {
    finish();
    for (const auto& [id, p] : build_.parts())
      if (p.name == name) part_ = id;
    name_ = name;
  }
  Body& body(const char* name, S shape, const std::vector<std::pair<R, double>>& sizes,
             const char* on = nullptr, F face = F::top) {
    Body b;
    b.part = part_;
    b.name = name;
    b.shape = shape;
    b.cut = shape == S::hole || shape == S::slot || shape == S::pocket || shape == S::groove;
    b.face = on ? face : F::middle;
    b.order = static_cast<double>(bodies_.size());
    for (std::size_t k = 0; on && k < bodies_.size(); ++k)
      if (bodies_[k].name == on) b.on = static_cast<Id>(k) + 1; // its number, until ids are known
    for (const auto& [role, value] : sizes) b.set_size({role, 0, value});
    bodies_.push_back(std::move(b));
    return bodies_.back();
  }
  Body& across(const char* name, S shape, const std::vector<std::pair<R, double>>& sizes) {
    auto& b = body(name, shape, sizes);
    b.lie = BodyLie::across;
    return b;
  }
  Body& along(const char* name, S shape, const std::vector<std::pair<R, double>>& sizes) {
    auto& b = body(name, shape, sizes);
    b.lie = BodyLie::along;
    return b;
  }
  Body& hole(const char* name, double diameter, const char* on, F face,
             HoleMaking making = HoleMaking::drilled) {
    auto& b = body(name, S::hole, {{R::diameter, diameter}}, on, face);
    b.through = true;
    b.making = making;
    return b;
  }
  Body& cut(const char* name, S shape, const std::vector<std::pair<R, double>>& sizes, const char* on,
            F face) {
    auto& b = body(name, shape, sizes, on, face);
    b.cut = true;
    return b;
  }
  void finish() {
    if (bodies_.empty()) return;
    Edit edit{"Draw " + name_ + " as a solid", {}};
    const Id first = build_.next_id();
    for (std::size_t k = 0; k < bodies_.size(); ++k) {
      if (bodies_[k].on != 0) bodies_[k].on += first - 1;
      edit.changes.push_back({first + static_cast<Id>(k), std::nullopt, bodies_[k]});
    }
    bodies_.clear();
    keep_(solid::followed(build_, edit));
  }

private:
  const Build& build_;
  const std::function<void(const Edit&)>& keep_;
  Id part_ = 0;
  std::string name_;
  std::vector<Body> bodies_;
};

void castings(SolidDrawer& d) {
  d.part("Main pedestal");
  d.body("base", S::block, {{R::length, 98}, {R::width, 42}, {R::height, 16}});
  d.body("column", S::block, {{R::length, 46}, {R::width, 42}, {R::height, 46}});
  d.across("boss", S::round, {{R::diameter, 46}, {R::height, 48}, {R::off, 46}});
  d.hole("bore", 27, "boss", F::bottom, HoleMaking::cored);

  d.part("Cylinder block");
  d.body("foot", S::block, {{R::length, 78}, {R::width, 40}, {R::height, 9}});
  d.body("saddle", S::block, {{R::length, 50}, {R::width, 20}, {R::height, 12}}, "foot");
  d.along("barrel", S::round, {{R::diameter, 45}, {R::height, 62}, {R::off, 34}});
  d.body("flange A", S::round, {{R::diameter, 58}, {R::height, 10}}, "barrel", F::bottom);
  d.body("flange B", S::round, {{R::diameter, 58}, {R::height, 10}}, "barrel", F::top);
  d.across("chest", S::block,
           {{R::length, 34}, {R::width, 52}, {R::height, 14}, {R::across, 26}, {R::off, 34}});
  d.hole("bore", 31, "flange A", F::top, HoleMaking::cored);

  d.part("Cylinder cover");
  d.body("rim", S::round, {{R::diameter, 58}, {R::height, 8}});
  d.body("spigot", S::round, {{R::diameter, 31}, {R::height, 3}}, "rim", F::bottom);
  d.hole("gland hole", 12, "rim", F::top, HoleMaking::bored);
  auto& studs = d.hole("stud hole", 4.5, "rim", F::top);
  studs.pattern = BodyPattern::circle;
  studs.count = 6;
  studs.set_size({R::circle, 0, 46});

  d.part("Flywheel");
  d.across("rim", S::tube, {{R::diameter, 160}, {R::bore, 136}, {R::height, 22}});
  d.across("hub", S::round, {{R::diameter, 38}, {R::height, 30}});
  d.across("spokes", S::spokes,
           {{R::inside_diameter, 24}, {R::outside_diameter, 148}, {R::width, 10}, {R::height, 12}});
  d.hole("bore", 16, "hub", F::bottom, HoleMaking::bored);
  d.cut("keyway", S::block, {{R::length, 5}, {R::width, 6}, {R::across, 7.5}}, "hub", F::bottom).through =
      true;

  d.part("Bed plate");
  d.body("plate", S::block,
         {{R::length, 320}, {R::width, 110}, {R::height, 28}, {R::along, 100}, {R::off, -28}});
  d.body("cylinder seat", S::block, {{R::length, 12}, {R::width, 60}, {R::height, 76}, {R::along, 213}});
  auto& bolts = d.hole("holding-down hole", 5.5, "plate", F::top);
  bolts.pattern = BodyPattern::grid;
  bolts.count = bolts.count_across = 2;
  bolts.set_size({R::pitch, 0, 280});
  bolts.set_size({R::pitch_across, 0, 80});

  d.part("Valve chest");
  d.body("box", S::block, {{R::length, 52}, {R::width, 28}, {R::height, 34}, {R::off, -17}});
  d.body("inside", S::pocket, {{R::length, 40}, {R::width, 24}, {R::depth, 23}}, "box", F::front);
  auto& rod = d.body("rod hole", S::hole, {{R::diameter, 4}, {R::depth, 12}}, "box", F::left);
  rod.making = HoleMaking::reamed;

  d.part("Eccentric sheave");
  d.across("sheave", S::round, {{R::diameter, 24}, {R::height, 9}, {R::along, 3}});
  d.hole("bore", 17, "sheave", F::bottom, HoleMaking::bored).set_size({R::across, 0, 3});

  d.part("Eccentric strap");
  d.across("ring", S::round, {{R::diameter, 36}, {R::height, 9}});
  d.along("lug", S::block, {{R::length, 9}, {R::width, 10}, {R::height, 29}}).from_along =
      PlaceFrom::low_to_edge;
  d.hole("bore", 24, "ring", F::bottom, HoleMaking::bored);
  d.body("rod hole", S::hole, {{R::diameter, 4}, {R::depth, 14}}, "lug", F::top);

  d.part("Governor bracket");
  d.body("boss", S::round, {{R::diameter, 20}, {R::height, 14}, {R::off, -7}});
  d.body("arm", S::block, {{R::length, 40}, {R::width, 12}, {R::height, 8}, {R::off, -7}}).from_along =
      PlaceFrom::low_to_edge;
  d.body("housing", S::hole, {{R::diameter, 13}, {R::depth, 9.5}}, "boss", F::top).making = HoleMaking::bored;
}

void cylinder_parts(SolidDrawer& d) {
  d.part("Piston rod");
  d.along("rod", S::round, {{R::diameter, 6.35}, {R::height, 128}});
  d.body("seat", S::round, {{R::diameter, 5}, {R::height, 14}}, "rod", F::top);

  d.part("Piston");
  d.along("piston", S::round, {{R::diameter, 31}, {R::height, 14}});
  d.hole("rod hole", 5, "piston", F::bottom, HoleMaking::reamed);
  d.body("groove", S::groove, {{R::outside_diameter, 31}, {R::diameter, 26}, {R::width, 3}, {R::off, -5.5}},
         "piston", F::top);

  d.part("Piston ring");
  d.along("ring", S::tube, {{R::diameter, 31}, {R::bore, 28}, {R::height, 3}});

  d.part("Gland");
  d.along("barrel", S::round, {{R::diameter, 12}, {R::height, 14}});
  d.body("flange", S::round, {{R::diameter, 26}, {R::height, 4}}, "barrel", F::top);
  d.hole("rod hole", 6.4, "flange", F::top, HoleMaking::reamed);

  d.part("Cylinder stud");
  d.body("stud", S::round, {{R::diameter, 4}, {R::height, 26}}).thread = "M4";

  d.part("Valve rod");
  d.along("rod", S::round, {{R::diameter, 4}, {R::height, 86}});

  d.part("Slide valve");
  d.body("valve", S::block, {{R::length, 26}, {R::width, 12}, {R::height, 20}, {R::off, -10}});
  d.body("cavity", S::pocket, {{R::length, 14}, {R::width, 12}, {R::depth, 4}}, "valve", F::front);
  d.cut("slot", S::block, {{R::length, 5}, {R::width, 20}, {R::height, 6}}, "valve", F::back);

  d.part("Valve nut");
  d.body("nut", S::block, {{R::length, 5}, {R::width, 12}, {R::height, 8}, {R::off, -4}});
  auto& tapped = d.hole("tapped hole", 3.3, "nut", F::left, HoleMaking::tapped);
  tapped.thread = "M4";

  d.part("Eccentric rod");
  d.along("rod", S::round, {{R::diameter, 4}, {R::height, 92}, {R::along, 1}});
  d.across("eye end", S::round, {{R::diameter, 9}, {R::height, 6}, {R::along, 50}});
  d.hole("eye", 4, "eye end", F::bottom, HoleMaking::reamed);

  d.part("Valve pin");
  d.across("pin", S::round, {{R::diameter, 4}, {R::height, 14}});
}

void running_gear(SolidDrawer& d) {
  d.part("Pedestal bush");
  d.across("sleeve", S::round, {{R::diameter, 27}, {R::height, 48}});
  d.body("flange", S::round, {{R::diameter, 34}, {R::height, 4}}, "sleeve", F::top);
  d.hole("bore", 18, "flange", F::top, HoleMaking::bored);

  d.part("Crankshaft");
  d.across("middle", S::round, {{R::diameter, 22}, {R::height, 84}});
  d.body("journal A", S::round, {{R::diameter, 18}, {R::height, 55}}, "middle", F::bottom);
  d.body("journal B", S::round, {{R::diameter, 18}, {R::height, 55}}, "middle", F::top);
  d.body("eccentric seat", S::round, {{R::diameter, 17}, {R::height, 14}}, "journal A", F::top);
  d.body("crank seat", S::round, {{R::diameter, 14}, {R::height, 14}}, "eccentric seat", F::top);
  d.body("wheel seat", S::round, {{R::diameter, 16}, {R::height, 26}}, "journal B", F::top);
  d.body("keyway", S::slot, {{R::length, 20}, {R::width, 5}, {R::depth, 3}}, "wheel seat", F::side);

  d.part("Crank web");
  d.across("boss", S::round, {{R::diameter, 26}, {R::height, 12}});
  d.across("pin boss", S::round, {{R::diameter, 18}, {R::height, 12}, {R::along, 22}});
  d.across("web", S::block, {{R::length, 18}, {R::width, 22}, {R::height, 12}, {R::along, 11}});
  d.hole("shaft hole", 14, "boss", F::bottom, HoleMaking::bored);
  d.hole("pin hole", 8, "pin boss", F::bottom, HoleMaking::reamed);

  d.part("Crank pin");
  d.across("journal", S::round, {{R::diameter, 11}, {R::height, 13}, {R::across, -4.5}});
  d.body("seat", S::round, {{R::diameter, 8}, {R::height, 12}}, "journal", F::top);
  d.body("head", S::round, {{R::diameter, 15}, {R::height, 3}}, "journal", F::bottom);

  d.part("Flywheel key");
  d.body("key", S::block, {{R::length, 26}, {R::width, 5}, {R::height, 5}, {R::off, -2.5}});

  d.part("Connecting rod");
  d.across("big end", S::round, {{R::diameter, 24}, {R::height, 12.5}});
  d.across("small end", S::round, {{R::diameter, 15}, {R::height, 9}, {R::along, 96}});
  d.along("shank", S::block, {{R::length, 6}, {R::width, 10}, {R::height, 96}}).from_along =
      PlaceFrom::low_to_edge;
  d.hole("big end bore", 11, "big end", F::bottom, HoleMaking::bored);
  d.hole("small end bore", 7, "small end", F::bottom, HoleMaking::reamed);

  d.part("Crosshead");
  d.body("block", S::block, {{R::length, 34}, {R::width, 24}, {R::height, 16}, {R::off, -8}});
  auto& slot = d.cut("slot", S::block, {{R::length, 22}, {R::width, 9.1}}, "block", F::top);
  slot.through = true;
  slot.from_along = PlaceFrom::low_to_edge;
  d.hole("pin hole", 7, "block", F::front, HoleMaking::reamed);
  d.body("rod hole", S::hole, {{R::diameter, 6.35}, {R::depth, 10}}, "block", F::right).making =
      HoleMaking::reamed;

  d.part("Crosshead pin");
  d.across("pin", S::round, {{R::diameter, 7}, {R::height, 26}});

  d.part("Slide bars");
  d.body("lower bar", S::block, {{R::length, 90}, {R::width, 16}, {R::height, 6}, {R::off, -14}});
  d.body("upper bar", S::block, {{R::length, 90}, {R::width, 16}, {R::height, 6}, {R::off, 8}});
  auto& posts =
      d.body("distance piece", S::block, {{R::length, 8}, {R::width, 16}, {R::height, 16}, {R::pitch, 82}},
             "lower bar", F::top);
  posts.pattern = BodyPattern::pair;

  d.part("Ball bearing 4 × 13");
  d.body("rings", S::tube, {{R::diameter, 13}, {R::bore, 4}, {R::height, 5}, {R::off, -2.5}});

  d.part("Governor spindle");
  d.body("seat", S::round, {{R::diameter, 4}, {R::height, 8}, {R::off, -4}});
  d.body("middle", S::round, {{R::diameter, 6}, {R::height, 20}}, "seat");
  d.body("pulley seat", S::round, {{R::diameter, 5}, {R::height, 12}}, "middle");

  d.part("Governor pulley");
  d.body("rim", S::round, {{R::diameter, 30}, {R::height, 10}, {R::off, -5}});
  d.hole("bore", 5, "rim", F::top, HoleMaking::reamed);
  d.body("belt groove", S::groove,
         {{R::outside_diameter, 30}, {R::diameter, 26}, {R::width, 3}, {R::off, -3.5}}, "rim", F::top);
}

} // namespace

void add_solids(const Build& build, const std::function<void(const Edit&)>& keep) {
  SolidDrawer d(build, keep);
  castings(d);
  cylinder_parts(d);
  running_gear(d);
  d.finish();
}

} // namespace datrin::demo
