#pragma once
// How two surfaces stand to each other, and one surface to a direction: distances, as drawings give them,
// facing, lying level.

#include "geometry/patch.h"

#include <optional>

namespace datrin {

/// The direction in which the distance between two surfaces is taken, its largest component positive (one
/// sign for one line), and how far `to` lies beyond `from` along it.
struct Between {
  Vec3 direction = Vec3::Zero();
  double signed_distance = 0; ///< mm
};

/// Of parallel planes; of a plane and an axis that runs along it; of parallel axes that are not one. Nothing
/// for any others. `parallel_within`: the sine that still counts as parallel.
std::optional<Between> between(const Surface& from, const Surface& to, double parallel_within = 1e-6);

/// How far along unit vector `way` one goes for 1 mm of the distance between the surfaces, which is taken at
/// a right angle to them; 0 where it hardly goes that way at all.
double along_per_distance(const Surface& from, const Surface& to, const Vec3& way);

/// Whether it looks along `way` (unit): a plane whose normal makes an angle with it whose cosine is above
/// `cosine`. A round surface looks no one way.
bool faces(const Surface& surface, const Vec3& way, double cosine);

/// Whether it says where a thing is along `way` from that side: a plane facing it; a round surface lying
/// across it, from both.
bool places_along(const Surface& surface, const Vec3& way);

/// Whether it lies level when `up` (unit) is up: a plane square to it, a round surface with its axis square
/// to it.
bool lies_level(const Surface& surface, const Vec3& up, double within);

/// Where a line can be scribed for it: a plane itself, a round surface its centre line.
bool has_centre_line(SurfaceKind kind);

/// Of a plane width × height; of a round surface diameter × length, mm².
double seen_area(const Patch& patch);

} // namespace datrin
