#pragma once
// A turned profile as one cuts it with the slides of a lathe: lengths of one diameter, tapers by the top
// slide, and arcs as stairs that are rounded off after. Depths from the end the tool comes to, mm; angles
// radians.

#include "build/body.h"

#include <string>
#include <vector>

namespace datrin::solid {

struct ProfileStairsInput {
  std::vector<build::ProfilePoint> profile;
  bool from_last = true; ///< the tool comes to its last place; else to its first
};

struct ProfileStairsOptions {
  double proud = 0.25; ///< mm a side a stair may stand over the arc at most (common practice: 0.010 in)
  int most = 200;      ///< about so many stairs of one arc; of a larger one each stands more proud
};

/// Nearer than `to` nothing stands deeper than `diameter`, from `from` on.
struct TurnedStair {
  int place = 0;            ///< of the profile, to which this leads, from 1
  double from = 0, to = 0;  ///< depth, from < to
  double diameter = 0;      ///< at `to`; of an arc the widest of the stair, so that none of it is cut away
  double diameter_from = 0; ///< at `from`; another where it is a taper
  double half_angle = 0;    ///< of a taper, above 0 where it widens with depth; else 0
  bool of_arc = false;
};

enum class ProfileStairsStatus { not_run, found, refused };

struct ProfileStairs {
  ProfileStairsStatus status = ProfileStairsStatus::not_run;
  std::string message;
  std::vector<TurnedStair> stairs; ///< the deepest first
  double length = 0;               ///< of the profile
  double proud = 0;                ///< mm a side the stairs of its arcs stand over them at most
  bool usable() const { return status == ProfileStairsStatus::found; }
};

/// An arc in stairs of even steps of the radius, each within `proud` of it.
ProfileStairs profile_stairs(const ProfileStairsInput& input, const ProfileStairsOptions& options = {});

} // namespace datrin::solid
