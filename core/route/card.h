#pragma once
// The route of a part as it is carried to the machine: setup by setup what holds the part, what locates it,
// the operations with their tools and numbers, what is measured, what to look out for.

#include "route/clashes.h"
#include "route/plan_route.h"

#include <string>
#include <vector>

namespace datrin::route {

struct CardOperation {
  int number = 0;   ///< 10, 20, 30
  std::string what; ///< "drill 5 mm bolt holes"
  std::string with; ///< the tool; empty: none named
  double size = 0;  ///< mm, of the tool; 0: not stated
  double minutes = 0;
  std::vector<int> after; ///< numbers of those it waits for
  std::string note;       ///< its note, what is open, when it is back
  bool done = false;      ///< on the piece asked for
};

struct CardSetup {
  build::Id setup = 0; ///< 0: on the bench
  std::string name;
  std::string machine;
  Vec3 way = Vec3::Zero();         ///< where the tool comes from, out of the part; zero: on the bench
  bool lathe = false;              ///< it turns: gripped at one end
  std::string held;                ///< "three-jaw chuck, 12 mm gripped, 40 mm out, against a stop"
  std::vector<std::string> datums; ///< "foot, three targets"
  std::vector<CardOperation> operations;
  std::vector<std::string> measure;  ///< "centre height 46.00 +0.02/0"
  std::vector<std::string> leave;    ///< references later setups locate from
  std::vector<std::string> cautions; ///< clashes first, then what is usual there
  double minutes = 0;
};

struct RouteCard {
  std::string part, material, made_from;
  int pieces = 1;
  double minutes = 0; ///< of one piece, without setting up
  std::vector<CardSetup> setups;
};

/// Neighbours in one setup are one entry: a setup come back to stands twice. `piece`: whose ticks; 0: none.
RouteCard route_card(const build::Build& build, build::Id part, build::Id piece = 0,
                     const ClashOptions& look = {});

/// Whether the part turns in that setup: its machine is a lathe, or what holds it sits on a spindle.
bool is_turned(const build::Build& build, const build::Setup& setup);

/// What the dials of its machine are in; the build's unit where none is chosen.
Unit machine_unit(const build::Build& build, const build::Setup& setup);

/// "three-jaw chuck, 12 mm gripped, 40 mm out": what a setup says of how the part is held.
std::string held_text(const build::Setup& setup, Unit unit);

} // namespace datrin::route
