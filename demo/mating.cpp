#include "demo/mating.h"

#include "batch/batch_edits.h"
#include "build/edits.h"
#include "fits/purpose.h"
#include "quantity/limits.h"
#include "readings/trials.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <map>
#include <stdexcept>

namespace datrin::demo {

using namespace build;

namespace {

const Vec3 along = Vec3::UnitX(), across = Vec3::UnitY(),
           upright = Vec3::UnitZ(); // of the engine, cylinder along

/// A surface and, when it has one, the limits of its size.
struct Feature {
  const char* name;
  SurfaceKind kind;
  Vec3 at, direction;
  double diameter, wide, high;
  const char* limits; ///< of the diameter, as it is typed; null: none
};

Feature bore(const char* name, const Vec3& at, const Vec3& axis, double diameter, double length,
             const char* limits = nullptr) {
  return {name, SurfaceKind::bore, at, axis, diameter, 0, length, limits};
}
Feature shaft(const char* name, const Vec3& at, const Vec3& axis, double diameter, double length,
              const char* limits = nullptr) {
  return {name, SurfaceKind::boss, at, axis, diameter, 0, length, limits};
}
Feature face(const char* name, const Vec3& at, const Vec3& normal, double wide, double high) {
  return {name, SurfaceKind::plane, at, normal, 0, wide, high, nullptr};
}

struct Between {
  const char *name, *from, *to, *limits;
};

class Mating {
public:
  Mating(const Build& build, const std::function<void(const Edit&)>& keep) : build_(build), keep_(keep) {}

  void run() {
    shop();
    turned_parts();
    frame_parts();
    small_parts();
    old_parts();
    joints();
    chains();
    keep_(add_all(build_, std::move(stated_), "State joints and chains"));
    tried();
    made();
    studs();
  }

private:
  void shop() {
    std::vector<Record> records;
    double order = 10;
    const auto tool = [&](const char* name, double size, ToolKind kind) {
      Tool t;
      t.name = name;
      t.size = size;
      t.kind = kind;
      t.order = order++;
      records.emplace_back(t);
    };
    tool("11 mm", 11, ToolKind::reamer);
    tool("7 mm", 7, ToolKind::reamer);
    tool("1/4 in", 6.35, ToolKind::reamer);
    tool("18 mm", 18, ToolKind::reamer);
    tool("5 mm", 5, ToolKind::reamer);
    tool("11 mm silver steel", 11, ToolKind::ground_bar);
    tool("7 mm silver steel", 7, ToolKind::ground_bar);
    tool("4 mm stainless", 4, ToolKind::ground_bar);
    tool("gauge pins 6.00 to 8.00", 7, ToolKind::gauge_pin);
    records.emplace_back(Instrument{"micrometer 0\u201325", 0.001, 0.003, 0.002, 20, "reads a hair over", 0});
    records.emplace_back(Instrument{"telescopic gauge", 0.005, 0.008, 0, 20, "with the micrometer", 1});
    records.emplace_back(Instrument{"calliper", 0.01, 0.03, 0, 20, "", 2});
    keep_(add_all(build_, std::move(records), "Reamers, bar and instruments"));
  }

  void turned_parts() {
    part("Pedestal bush", "gunmetal", 2,
         {shaft("outside", {0, 0, 0}, across, 27, 48, "27 p6"),
          bore("bore", {0, 0, 0}, across, 18, 48, "18 H7"), shaft("flange", {0, 26, 0}, across, 34, 4),
          face("flange face", {0, 28, 0}, across, 34, 34), face("inner end", {0, -24, 0}, -across, 27, 27)},
         {{"length", "inner end", "flange face", "52 \u00B10.1"}});
    part("Crankshaft", "steel", 1,
         {shaft("journal A", {0, -70, 0}, across, 18, 54, "18 f6"),
          shaft("journal B", {0, 70, 0}, across, 18, 54, "18 f6"), shaft("middle", {0, 0, 0}, across, 22, 84),
          shaft("eccentric seat", {0, -104, 0}, across, 17, 14, "17 g6"),
          shaft("wheel seat", {0, 110, 0}, across, 16, 26, "16 g6"),
          shaft("crank seat", {0, -118, 0}, across, 14, 14, "14 s6"),
          face("shoulder A", {0, -42, 0}, -across, 22, 22), face("shoulder B", {0, 42, 0}, across, 22, 22)},
         {{"between shoulders", "shoulder A", "shoulder B", "84 \u00B10.1"}});
    length("Crankshaft", "keyway", "5 N9");
    part("Crank web", "steel", 1,
         {bore("shaft hole", {0, 0, 0}, across, 14, 12, "14 H7"),
          bore("pin hole", {22, 0, 0}, across, 8, 12, "8 H7"), face("front", {11, -6, 0}, -across, 44, 26),
          face("back", {11, 6, 0}, across, 44, 26), shaft("boss", {0, 0, 0}, across, 26, 12),
          shaft("pin boss", {22, 0, 0}, across, 18, 12)},
         {{"throw", "shaft hole", "pin hole", "22 \u00B10.05"}});
    part("Crank pin", "steel", 1,
         {shaft("seat", {0, 8, 0}, across, 8, 12, "8 s6"),
          shaft("journal", {0, -4.5, 0}, across, 11, 13, "11 f7"),
          shaft("head", {0, -12.5, 0}, across, 15, 3), face("shoulder", {0, 2, 0}, across, 11, 11),
          face("under the head", {0, -11, 0}, across, 15, 15)},
         {{"journal length", "under the head", "shoulder", "13 +0.1/0"}});
    part("Piston rod", "stainless steel", 1,
         {shaft("rod", {0, 0, 0}, along, 6.35, 128, "6.35 f7"),
          shaft("seat", {71, 0, 0}, along, 5, 14, "5 h6"), face("piston shoulder", {64, 0, 0}, along, 6, 6),
          face("crosshead end", {-64, 0, 0}, -along, 6, 6)},
         {{"length", "crosshead end", "piston shoulder", "128 \u00B10.2"}});
    part("Piston", "cast iron", 1,
         {shaft("outside", {0, 0, 0}, along, 31, 14, "31 f7"),
          bore("rod hole", {0, 0, 0}, along, 5, 14, "5 H7"), face("front", {-7, 0, 0}, -along, 31, 31),
          face("back", {7, 0, 0}, along, 31, 31), shaft("groove", {0, 0, 0}, along, 26, 3)},
         {{"height", "front", "back", "14 \u00B10.05"}});
    length("Piston", "groove width", "3 H8");
    part("Piston ring", "cast iron", 2,
         {shaft("outside", {0, 0, 0}, along, 31, 3), bore("inside", {0, 0, 0}, along, 28, 3),
          face("side A", {-1.5, 0, 0}, -along, 31, 31), face("side B", {1.5, 0, 0}, along, 31, 31)},
         {{"width", "side A", "side B", "3 g6"}});
    part("Gland", "gunmetal", 1,
         {shaft("outside", {0, 0, 0}, along, 12, 14, "12 f7"),
          bore("rod hole", {0, 0, 0}, along, 6.4, 18, "6.4 H8"), shaft("flange", {9, 0, 0}, along, 26, 4)},
         {});
    part("Flywheel", "cast iron", 1,
         {bore("bore", {0, 0, 0}, across, 16, 30, "16 H7"), shaft("rim", {0, 0, 0}, across, 160, 22),
          shaft("hub", {0, 0, 0}, across, 38, 30)},
         {});
    length("Flywheel", "keyway", "5 N9");
    part("Flywheel key", "steel", 1,
         {face("side A", {0, -2.5, 0}, -across, 26, 5), face("side B", {0, 2.5, 0}, across, 26, 5)},
         {{"width", "side A", "side B", "5 h9"}});
  }

  void frame_parts() {
    part("Connecting rod", "steel", 1,
         {bore("big end bore", {0, 0, 0}, across, 11, 12.5, "11 H7"),
          bore("small end bore", {96, 0, 0}, across, 7, 9, "7 H7"),
          shaft("big end", {0, 0, 0}, across, 24, 12.5), shaft("small end", {96, 0, 0}, across, 15, 9),
          face("big end front", {0, -6.25, 0}, -across, 24, 24),
          face("big end back", {0, 6.25, 0}, across, 24, 24),
          face("eye front", {96, -4.5, 0}, -across, 15, 15), face("eye back", {96, 4.5, 0}, across, 15, 15)},
         {{"centres", "big end bore", "small end bore", "96 \u00B10.1"},
          {"big end width", "big end front", "big end back", "12.8 0/-0.05"},
          {"eye width", "eye front", "eye back", "9 e8"}});
    part("Crosshead", "gunmetal", 1,
         {bore("pin hole", {0, 0, 0}, across, 7, 24, "7 H7"),
          bore("rod hole", {20, 0, 0}, along, 6.35, 16, "6.35 H7"), face("top", {0, 0, 8}, upright, 34, 24),
          face("bottom", {0, 0, -8}, -upright, 34, 24), face("slot front", {-6, -4.55, 0}, across, 22, 16),
          face("slot back", {-6, 4.55, 0}, -across, 22, 16), face("rod face", {17, 0, 0}, along, 16, 24)},
         {{"over the slides", "bottom", "top", "16 g6"},
          {"slot", "slot front", "slot back", "9 H9"},
          {"pin to rod face", "pin hole", "rod face", "17 \u00B10.05"}});
    part("Crosshead pin", "steel", 1, {shaft("pin", {0, 0, 0}, across, 7, 26, "7 f6")}, {});
    part("Slide bars", "steel", 1,
         {face("lower face", {0, 0, -8}, upright, 90, 16), face("upper face", {0, 0, 8}, -upright, 90, 16)},
         {{"between", "lower face", "upper face", "16 H7"}});
    part("Bed plate", "cast iron", 1,
         {face("cylinder seat face", {207, 0, 46}, -along, 60, 60),
          bore("shaft line", {0, 0, 46}, across, 30, 60), face("top", {100, 0, 0}, upright, 320, 110),
          face("underside", {100, 0, -28}, -upright, 320, 110),
          bore("holding-down hole", {-40, 40, -14}, upright, 5.5, 28, "5.5 H13")},
         {{"shaft to cylinder face", "shaft line", "cylinder seat face", "207 \u00B10.2"}});
  }

  void small_parts() {
    part("Valve chest", "cast iron", 1,
         {bore("rod hole", {0, 0, 0}, along, 4, 12, "4 H8"), face("joint face", {0, -14, 0}, -across, 52, 34),
          face("cover face", {0, 14, 0}, across, 52, 34)},
         {{"depth", "joint face", "cover face", "28 \u00B10.1"}});
    part("Valve rod", "stainless steel", 1, {shaft("rod", {0, 0, 0}, along, 4, 86, "4 f7")}, {});
    part("Slide valve", "gunmetal", 1,
         {face("slot A", {-2.5, 0, 0}, along, 16, 8), face("slot B", {2.5, 0, 0}, -along, 16, 8),
          face("valve face", {0, -6, 0}, -across, 26, 20), face("back", {0, 6, 0}, across, 26, 20)},
         {{"slot", "slot A", "slot B", "5 H7"}});
    part("Valve nut", "gunmetal", 1,
         {face("side A", {-2.5, 0, 0}, -along, 12, 8), face("side B", {2.5, 0, 0}, along, 12, 8),
          bore("tapped hole", {0, 0, 0}, along, 3.3, 5, "3.3 H10")},
         {{"width", "side A", "side B", "5 g6"}});
    part("Eccentric sheave", "cast iron", 1,
         {shaft("outside", {3, 0, 0}, across, 24, 9, "24 f7"),
          bore("bore", {0, 0, 0}, across, 17, 9, "17 H7")},
         {{"eccentricity", "bore", "outside", "3 \u00B10.05"}});
    part("Eccentric strap", "gunmetal", 1,
         {bore("bore", {0, 0, 0}, across, 24, 9, "24 H7"), shaft("outside", {0, 0, 0}, across, 36, 9),
          bore("rod hole", {22, 0, 0}, along, 4, 14, "4 H7")},
         {});
    part("Eccentric rod", "steel", 1,
         {shaft("rod", {0, 0, 0}, along, 4, 90, "4 p6"), bore("eye", {50, 0, 0}, across, 4, 6, "4 H7"),
          shaft("eye outside", {50, 0, 0}, across, 9, 6)},
         {});
    part("Valve pin", "steel", 1, {shaft("pin", {0, 0, 0}, across, 4, 14, "4 f6")}, {});
    part("Governor bracket", "gunmetal", 1,
         {bore("housing", {0, 0, 0}, upright, 13, 5, "13 H7"), shaft("boss", {0, 0, 0}, upright, 20, 14)},
         {});
    part("Ball bearing 4 \u00D7 13", "steel", 1,
         {bore("bore", {0, 0, 0}, upright, 4, 5, "4 0/-0.008"),
          shaft("outside", {0, 0, 0}, upright, 13, 5, "13 0/-0.008")},
         {});
    part("Governor spindle", "steel", 1,
         {shaft("seat", {0, 0, 0}, upright, 4, 8, "4 k5"),
          shaft("pulley seat", {0, 0, 30}, upright, 5, 12, "5 g6")},
         {});
    part("Governor pulley", "brass", 1,
         {bore("bore", {0, 0, 0}, upright, 5, 10, "5 H7"), shaft("rim", {0, 0, 0}, upright, 30, 10)}, {});
  }

  /// Dimensions of parts that were drawn before.
  void old_parts() {
    size_of("Cylinder cover", "spigot", "31 g6");
    between("Cylinder cover", {"spigot depth", "joint face", "outside", "8 \u00B10.05"});
    length("Cylinder cover", "stud hole", "4.5 H12");
    length("Cylinder cover", "gland hole", "12 H8");
    length("Cylinder block", "stud hole", "3.3 H10");
    length("Cylinder cover", "spigot height", "3 \u00B10.05");
  }

  void joints() {
    joint("Pedestal bushes", JointPurpose::press, "Main pedestal", "bore", "Pedestal bush", "outside",
          "ISO 286 H7/p6", 40);
    const auto pedestal_a = piece("Pedestal bush", 1), pedestal_b = piece("Pedestal bush", 2);
    joint("Main bearing A", JointPurpose::runs_true, "Pedestal bush", "bore", "Crankshaft", "journal A",
          "ISO 286 H7/f6", 48, {{pedestal_a, piece("Crankshaft", 1)}});
    joint("Main bearing B", JointPurpose::runs_true, "Pedestal bush", "bore", "Crankshaft", "journal B",
          "ISO 286 H7/f6", 48, {{pedestal_b, piece("Crankshaft", 1)}});
    joint("Crank on shaft", JointPurpose::press, "Crank web", "shaft hole", "Crankshaft", "crank seat",
          "ISO 286 H7/s6", 12);
    joint("Crank pin in web", JointPurpose::press, "Crank web", "pin hole", "Crank pin", "seat",
          "ISO 286 H7/s6", 12);
    joint("Big end", JointPurpose::runs_freely, "Connecting rod", "big end bore", "Crank pin", "journal",
          "ISO 286 H7/f7", 12.5);
    joint("Small end", JointPurpose::runs_true, "Connecting rod", "small end bore", "Crosshead pin", "pin",
          "ISO 286 H7/f6", 9);
    joint("Pin in crosshead", JointPurpose::slides, "Crosshead", "pin hole", "Crosshead pin", "pin",
          "ISO 286 H7/f6", 20);
    joint("Rod eye in crosshead", JointPurpose::tongue, "Crosshead", "slot", "Connecting rod", "eye width",
          "ISO 286 H9/e8", 0);
    joint("Crosshead in slides", JointPurpose::slides, "Slide bars", "between", "Crosshead",
          "over the slides", "ISO 286 H7/g6", 34);
    joint("Rod in crosshead", JointPurpose::locates, "Crosshead", "rod hole", "Piston rod", "rod",
          "ISO 286 H7/f7", 16);
    joint("Piston in cylinder", JointPurpose::runs_freely, "Cylinder block", "bore", "Piston", "outside",
          "ISO 286 H7/f7", 14);
    joint("Piston on rod", JointPurpose::locates, "Piston", "rod hole", "Piston rod", "seat", "ISO 286 H7/h6",
          14);
    joint("Rings in groove", JointPurpose::slides, "Piston", "groove width", "Piston ring", "width",
          "ISO 286 H8/g6", 2.5);
    joint("Cover in cylinder", JointPurpose::locates, "Cylinder block", "bore", "Cylinder cover", "spigot",
          "ISO 286 H7/g6", 3);
    joint("Gland in cover", JointPurpose::slides, "Cylinder cover", "gland hole", "Gland", "outside",
          "ISO 286 H8/f7", 12, {{piece("Cylinder cover", 1), piece("Gland", 1)}});
    joint("Rod in gland", JointPurpose::runs_freely, "Gland", "rod hole", "Piston rod", "rod", "", 16, {},
          0.05, 0.12);
    joint("Valve rod in chest", JointPurpose::runs_freely, "Valve chest", "rod hole", "Valve rod", "rod",
          "ISO 286 H8/f7", 12);
    joint("Valve nut in valve", JointPurpose::slides, "Slide valve", "slot", "Valve nut", "width",
          "ISO 286 H7/g6", 0);
    joint("Eccentric on shaft", JointPurpose::slides, "Eccentric sheave", "bore", "Crankshaft",
          "eccentric seat", "ISO 286 H7/g6", 9);
    joint("Strap on sheave", JointPurpose::runs_freely, "Eccentric strap", "bore", "Eccentric sheave",
          "outside", "ISO 286 H7/f7", 9);
    joint("Rod in strap", JointPurpose::light_press, "Eccentric strap", "rod hole", "Eccentric rod", "rod",
          "ISO 286 H7/p6", 12);
    joint("Eccentric eye", JointPurpose::runs_true, "Eccentric rod", "eye", "Valve pin", "pin",
          "ISO 286 H7/f6", 6);
    joint("Flywheel on shaft", JointPurpose::slides, "Flywheel", "bore", "Crankshaft", "wheel seat",
          "ISO 286 H7/g6", 30);
    joint("Key in flywheel", JointPurpose::key, "Flywheel", "keyway", "Flywheel key", "width",
          "ISO 286 N9/h9", 26);
    joint("Key in shaft", JointPurpose::key, "Crankshaft", "keyway", "Flywheel key", "width", "ISO 286 N9/h9",
          26);
    joint("Bearing in bracket", JointPurpose::bearing_housing, "Governor bracket", "housing",
          "Ball bearing 4 \u00D7 13", "outside", "", 5, {}, -0.002, 0.02);
    joint("Bearing on spindle", JointPurpose::bearing_shaft, "Ball bearing 4 \u00D7 13", "bore",
          "Governor spindle", "seat", "", 5, {}, -0.014, 0.001);
    joint("Pulley on spindle", JointPurpose::slip_compound, "Governor pulley", "bore", "Governor spindle",
          "pulley seat", "ISO 286 H7/g6", 10);
    joint("Cover studs", JointPurpose::bolt_clearance, "Cylinder cover", "stud hole", nullptr, nullptr, "", 0,
          {}, 0.2, 0.7, "M4");
    joint("Cylinder studs", JointPurpose::thread, "Cylinder block", "stud hole", nullptr, nullptr, "", 10, {},
          -0.80, -0.52, "M4");
    joint("Valve rod thread", JointPurpose::thread, "Valve nut", "tapped hole", nullptr, nullptr, "", 5, {},
          -0.80, -0.52, "M4");
    joint("Holding-down bolts", JointPurpose::bolt_clearance, "Bed plate", "holding-down hole", nullptr,
          nullptr, "", 0, {}, 0.3, 0.9, "M5");
  }

  void chains() {
    const auto term = [&](const char* of, const char* name, double coefficient, const char* why) {
      return ChainTerm{dimension(of, name), 0, coefficient, why};
    };
    chain("Clearance, crank end",
          {term("Connecting rod", "centres", 1, "along the way"),
           term("Crosshead", "pin to rod face", 1, "along the way"),
           term("Piston rod", "length", 1, "along the way"),
           term("Crank web", "throw", -1, "away from the cylinder"),
           term("Bed plate", "shaft to cylinder face", -1, "against the way"),
           term("Cylinder cover", "spigot height", -1, "against the way")},
          8.5, 9.5, "steam must not be throttled, nor wasted");
    chain("Clearance, far end",
          {term("Bed plate", "shaft to cylinder face", 1, "along the way"),
           term("Cylinder block", "length", 1, "along the way"),
           term("Cylinder cover", "spigot height", -1, "against the way"),
           term("Crank web", "throw", -1, "towards the cylinder"),
           term("Connecting rod", "centres", -1, "against the way"),
           term("Crosshead", "pin to rod face", -1, "against the way"),
           term("Piston rod", "length", -1, "against the way"),
           term("Piston", "height", -1, "against the way")},
          8.4, 9.8, "");
    chain("Stroke", {term("Crank web", "throw", 2, "2 \u00D7 throw")}, 43.9, 44.1, "port timing");
    chain("Big end float",
          {term("Crank pin", "journal length", 1, "along the way"),
           term("Connecting rod", "big end width", -1, "against the way")},
          0.15, 0.4, "must not bind when warm");
    chain("Valve travel", {term("Eccentric sheave", "eccentricity", 2, "2 \u00D7 eccentricity")}, 5.9, 6.1,
          "");
  }

  /// What is made already: some to drawing, one bore over, so that its pin must follow.
  void made() {
    measure("Connecting rod", "small end bore", 1, 7.006, 0.003);
    measure("Connecting rod", "centres", 1, 96.06, 0.02);
    measure("Connecting rod", "eye width", 1, 8.952, 0.004);
    measure("Crosshead", "pin hole", 1, 7.009, 0.003);
    measure("Crosshead", "over the slides", 1, 15.981, 0.003);
    measure("Crank web", "shaft hole", 1, 14.008, 0.003);
    measure("Crank web", "pin hole", 1, 8.006, 0.003);
    measure("Pedestal bush", "bore", 1, 18.011, 0.003);
    measure("Pedestal bush", "bore", 2, 18.019, 0.003);
    measure("Eccentric strap", "bore", 1, 24.016, 0.004);
    measure("Ball bearing 4 \u00D7 13", "bore", 1, 3.996, 0.002);
    measure("Ball bearing 4 \u00D7 13", "outside", 1, 12.996, 0.002);
    measure("Cylinder cover", "stud hole", 1, 4.5, 0.03);
    measure("Cylinder cover", "stud hole", 2, 4.5, 0.03);
    measure("Valve chest", "rod hole", 1, 4.011, 0.004);
    measure("Slide valve", "slot", 1, 5.007, 0.004);
    measure("Bed plate", "shaft to cylinder face", 1, 207.11, 0.03);
    measure("Connecting rod", "big end bore", 1, 11.024, 0.003);
  }

  /// The piston was tried on its rod: the seat is turned a little tapered.
  void tried() {
    measure("Piston", "rod hole", 1, 5.005, 0.003);
    measure("Piston rod", "seat", 1, 5.009, 0.003, "2026-11-18T17:05:00Z",
            {{1, 0, 4.999}, {7, 0, 5.003}, {13, 0, 5.009}});
    Trial trial;
    for (const auto& [id, joint] : build_.joints())
      if (joint.name == "Piston on rod") trial.joint = id;
    trial.hole_piece = piece("Piston", 1);
    trial.shaft_piece = piece("Piston rod", 1);
    trial.depth = 9.5;
    trial.note = "bright all round near the shoulder";
    keep_(readings::keep_trial(build_, readings::try_now(build_, trial, "2026-11-18T17:10:00Z")));
  }

  /// A part made in numbers: two thirds of it turned and read, the tool wearing; one spoilt.
  void studs() {
    part("Cylinder stud", "mild steel", 24,
         {shaft("shank", {0, 0, 13}, upright, 4, 26, "4 h9"), face("foot", {0, 0, 0}, -upright, 4, 4),
          face("top", {0, 0, 26}, upright, 4, 4)},
         {{"length", "foot", "top", "26 \u00B10.1"}});
    from_bar("Cylinder stud", stock::StockForm::round, upright, 5, 29);
    from_bar("Piston rod", stock::StockForm::round, along, 8, 0);
    constexpr double shank[] = {3.976, 3.978, 3.977, 3.979, 3.980, 3.979, 3.982, 3.984,
                                3.902, 3.985, 3.986, 3.985, 3.988, 3.990, 3.989, 3.992};
    for (std::size_t k = 0; k < std::size(shank); ++k) {
      const int number = static_cast<int>(k) + 1;
      // Four minutes a stud.
      const auto at = fmt::format("2026-11-19T{:02}:{:02}:00Z", 18 + number * 4 / 60, number * 4 % 60);
      measure("Cylinder stud", "shank", number, shank[k], 0.003, at);
      if (number != 9) measure("Cylinder stud", "length", number, 26 + 0.01 * (number % 5), 0.02, at);
    }
    keep_(batch::reject(build_, piece("Cylinder stud", 9), "turned under, the stop had moved"));
  }

  /// Sawn from bar, 3 mm longer than the part where no length is said.
  void from_bar(const char* of, StockForm form, const Vec3& way, double width, double length) {
    Stock s;
    for (const auto& [id, p] : build_.parts())
      if (p.name == of) s.part = id;
    s.form = form;
    s.along = way;
    s.across = way.cross(across).isZero() ? upright : across;
    s.width = width;
    std::vector<Patch> patches;
    for (const auto& [id, patch] : stock::patches_of(build_, s.part)) patches.push_back(patch);
    constexpr double longer = 3;
    s.length = length > 0 ? length : stock::finished_box(patches, stock::axes_of(s)).size().x() + longer;
    keep_(stock::set_stock(build_, s, "Made from " + stock::stock_text(s, Unit::mm)));
  }

  Id part(const std::string& name, const std::string& material, int quantity,
          const std::vector<Feature>& features, const std::vector<Between>& betweens) {
    // One edit: ids count up in the order of the records.
    const Id id = build_.next_id();
    std::vector<Record> records;
    records.emplace_back(Part{name, material, quantity, next_order(build_.parts())});
    for (int n = 1; n <= quantity; ++n) records.emplace_back(Piece{id, n});
    std::map<std::string, Id> surfaces;
    for (const auto& f : features) {
      PartSurface s;
      s.part = id;
      s.name = f.name;
      s.kind = f.kind;
      s.point = f.at;
      s.direction = f.direction;
      s.diameter = f.diameter;
      s.width = f.wide;
      s.height = f.high;
      s.machined = true;
      s.required = 0.5;
      s.order = static_cast<double>(surfaces.size());
      surfaces[f.name] = id + static_cast<Id>(records.size());
      records.emplace_back(s);
    }
    double order = 0;
    for (const auto& f : features)
      if (f.limits != nullptr)
        records.emplace_back(limits(id, f.name, DimensionKind::size, surfaces[f.name], 0, f.limits, order++));
    for (const auto& b : betweens)
      records.emplace_back(
          limits(id, b.name, DimensionKind::distance, surfaces[b.from], surfaces[b.to], b.limits, order++));
    keep_(add_all(build_, std::move(records), "Draw " + name));
    return id;
  }

  Dimension limits(Id part, const char* name, DimensionKind kind, Id from, Id to, const char* text,
                   double order = 0) const {
    LimitsOptions options;
    options.length.bare_unit = Unit::mm;
    const auto read = parse_limits(text, options);
    if (!read.ok) throw std::logic_error(std::string(name) + ": " + read.message);
    Dimension d;
    d.part = part;
    d.name = name;
    d.kind = kind;
    d.surface = from;
    d.other = to;
    d.nominal = read.nominal;
    d.lower = read.lower;
    d.upper = read.upper;
    d.tolerance = read.tolerance;
    d.importance = DimensionClass::fit;
    // Turned and bored by hand: a third of a hundredth; lengths two hundredths.
    d.capability = kind == DimensionKind::size || read.upper - read.lower < 0.06 ? 0.004 : 0.02;
    d.order = order;
    return d;
  }
  void length(const char* of, const char* name, const char* text) {
    auto d = limits(part_id(of), name, DimensionKind::length, 0, 0, text);
    d.order = next_order(build_.dimensions_of(d.part));
    keep_(add(build_, d, std::string("Limits of ") + name));
  }
  void size_of(const char* of, const char* name, const char* text) {
    const Id id = part_id(of);
    auto d = limits(id, name, DimensionKind::size, surface(id, name), 0, text);
    d.order = next_order(build_.dimensions_of(id));
    keep_(add(build_, d, std::string("Limits of ") + name));
  }
  void between(const char* of, const Between& b) {
    const Id id = part_id(of);
    auto d = limits(id, b.name, DimensionKind::distance, surface(id, b.from), surface(id, b.to), b.limits);
    d.order = next_order(build_.dimensions_of(id));
    keep_(add(build_, d, std::string("Limits of ") + b.name));
  }

  Id part_id(const std::string& name) const {
    for (const auto& [id, p] : build_.parts())
      if (p.name == name) return id;
    throw std::logic_error("no part " + name);
  }
  Id surface(Id of, const std::string& name) const {
    for (const auto& [id, s] : build_.surfaces_of(of))
      if (s.name == name) return id;
    throw std::logic_error("no surface " + name);
  }
  Id dimension(const std::string& of, const std::string& name) const {
    for (const auto& [id, d] : build_.dimensions_of(part_id(of)))
      if (d.name == name) return id;
    throw std::logic_error("no dimension " + of + ", " + name);
  }
  Id piece(const std::string& of, int number) const {
    for (const auto& [id, p] : build_.pieces_of(part_id(of)))
      if (p.number == number) return id;
    throw std::logic_error("no piece of " + of);
  }

  void joint(const char* name, JointPurpose purpose, const char* hole_part, const char* hole,
             const char* shaft_part, const char* shaft, const std::string& basis, double engaged,
             const std::vector<std::pair<Id, Id>>& pairs = {}, double least = 0, double most = 0,
             const char* thread = "") {
    Joint j;
    j.name = name;
    j.purpose = purpose;
    j.hole = dimension(hole_part, hole);
    j.shaft = shaft_part != nullptr ? dimension(shaft_part, shaft) : 0;
    j.basis = basis;
    j.least = least;
    j.most = most;
    j.thread = thread;
    j.length = engaged;
    j.pairs = pairs;
    if (!basis.empty()) {
      const auto fit = fits::fit_of(build_.find<Dimension>(j.hole)->nominal, basis.substr(8));
      if (!fit.ok) throw std::logic_error(fit.message);
      j.least = fit.fit.least();
      j.most = fit.fit.most();
    }
    if (fits::is_pressed(purpose)) j.hub_outside = 1.6 * build_.find<Dimension>(j.hole)->nominal;
    j.order = static_cast<double>(stated_.size());
    stated_.emplace_back(j);
  }
  void chain(const char* name, std::vector<ChainTerm> terms, double least, double most, const char* reason) {
    stated_.emplace_back(
        Chain{name, std::move(terms), least, most, reason, static_cast<double>(stated_.size())});
  }
  void measure(const char* of, const char* name, int number, double value, double uncertainty,
               const std::string& at = "2026-11-18T17:20:00Z", std::vector<PlaceReading> places = {}) {
    Measurement m;
    m.piece = piece(of, number);
    m.dimension = dimension(of, name);
    m.value = value;
    m.uncertainty = uncertainty;
    m.instrument = "micrometer 0\u201325";
    m.at = at;
    m.places = std::move(places);
    keep_(add(build_, m, std::string("Measure ") + name));
  }

  const Build& build_;
  const std::function<void(const Edit&)>& keep_;
  std::vector<Record> stated_; ///< joints and chains
};

} // namespace

void add_mating(const Build& build, const std::function<void(const Edit&)>& keep) {
  Mating(build, keep).run();
}

} // namespace datrin::demo
