#pragma once
// What is turned by a profile: its places, the faces between them, its sizes. Places count from 1; the face
// of place k leads to it from the place before. (radius, z) in the body's own frame, mm.

#include "solid/body_form.h"

#include <optional>
#include <string>
#include <vector>

namespace datrin::solid {

/// Middle of the arc of radius |arc| from one place of a profile to the next, as (radius, z); nothing where
/// it is straight or the radius is too small to reach.
std::optional<Vec2> arc_centre(const Vec2& from, const Vec2& to, double arc);

/// The place to which the side leads that `at`, in the own frame, lies on; 0: it does not lie on the side
/// (on an end, or not at all).
int place_on_profile(const BodyForm& form, const Vec3& at, double within);

/// How it goes from the place before to `place`.
enum class ProfileStep { none, cylinder, cone, shoulder, arc };
ProfileStep step_to(const std::vector<build::ProfilePoint>& profile, int place);

/// Half of what it is across at its widest, bulging arcs too.
double widest_radius(const std::vector<build::ProfilePoint>& profile);

/// What is wrong with it ("its profile needs two places at least"); empty: nothing.
std::string profile_wrong(const std::vector<build::ProfilePoint>& profile);

/// Every size it is stated by, as it is: a diameter a place, how far each lies from the start, the radius of
/// each arc. Of those `body` holds with their dimensions, else without.
std::vector<build::BodySize> profile_sizes(const build::Body& body);

/// Puts the sizes `body` holds into its profile.
void take_profile(build::Body& body);

/// The place before whose size of that role is the same by nature: the diameter of a cylinder, the length at
/// a shoulder. 0: none.
int like_before(const std::vector<build::ProfilePoint>& profile, BodyRole role, int place);

/// Where each place of `was` is in `now`, both counted from 1: what is the same at the start and at the end
/// stays; 0: it went. Entry 0 is 0.
std::vector<int> where_places_went(const std::vector<build::ProfilePoint>& was,
                                   const std::vector<build::ProfilePoint>& now);

} // namespace datrin::solid
