#pragma once
// What the turn-overs of a part cost: how far its features come to lie off each other when every setup
// locates the part from what was there before.
//
// Small displacements, everything independent and normal. A part stands on six locators; at each it touches a
// feature, whose own error there and the locator's move it:
//   d · (p(a) + u(a)) = e,   p(a) = t + w × a the part's displacement at the locator's place a,
// d the locator's direction, u the displacement of the feature in the part's frame, e the locator's own
// error. Six of these give p. A feature cut there lies where the machine puts it: in the part's frame −p, and
// a shift of its own along its direction (an axis: along two directions across it). A feature not cut yet is
// off by its raw sigma, anew at every locator. Every displacement is kept as a sum over the independent
// causes, so that shares of variance come out exactly.

#include "geometry/pose.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace datrin::route {

struct SpreadFeature {
  std::string id;
  bool axis = false; ///< else a plane
  Vec3 point = Vec3::Zero();
  Vec3 direction = Vec3::UnitZ(); ///< unit: out of the metal; along the axis
  double raw_sigma = 0;           ///< mm: how far it lies off before it is cut
};

struct SpreadLocator {
  int feature = -1;
  Vec3 at = Vec3::Zero();
  Vec3 direction = Vec3::UnitZ(); ///< unit
  double sigma = 0;               ///< mm
};

struct SpreadCut {
  int feature = -1;
  double sigma = 0; ///< mm
};

struct SpreadSetup {
  std::string id;
  std::vector<SpreadLocator> locators; ///< six
  std::vector<SpreadCut> cuts;
};

/// The distance between two features along a direction, at a place; or by how much it is another one there
/// than at `lean_from`: how far the one leans against the other over that span.
struct SpreadRequirement {
  std::string id;
  int from = -1, to = -1;
  Vec3 along = Vec3::UnitZ(); ///< unit
  Vec3 at = Vec3::Zero();
  std::optional<Vec3> lean_from{};
};

struct SpreadInput {
  std::vector<SpreadFeature> features;
  std::vector<SpreadSetup> setups; ///< in the order of work
  std::vector<SpreadRequirement> requirements;
};

struct SpreadOptions {
  double fixed_within = 1e-9; ///< least singular value over the largest: less does not fix the part
};

enum class SpreadStatus { not_run, ok, loose, refused };

/// Shares of the variance of a requirement that come from one setup.
struct SpreadShare {
  double locating = 0; ///< its locators, and what was raw where they touched
  double cutting = 0;
};

struct RequirementSpread {
  double sigma = 0;                ///< mm
  std::vector<SpreadShare> shares; ///< per setup
  double raw = 0;                  ///< share of features that are never cut
};

struct SpreadResult {
  SpreadStatus status = SpreadStatus::not_run;
  std::string message;
  std::vector<RequirementSpread> requirements;

  bool usable() const { return status == SpreadStatus::ok; }
};

/// Loose: six locators of a setup do not fix the part; the message names it.
SpreadResult spread(const SpreadInput& input, const SpreadOptions& options = {});

/// The same by trial: so many parts are made, their errors drawn by a generator that counts (every part its
/// own numbers, whatever the order they are made in). Sigmas of the requirements, mm; empty where `spread`
/// refuses.
std::vector<double> spread_by_trial(const SpreadInput& input, int parts, std::uint64_t seed);

} // namespace datrin::route
