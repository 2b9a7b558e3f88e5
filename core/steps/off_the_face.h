#pragma once
// A hole drawn where there is no metal, or wider than what it is in: asked about before anything is drilled.

#include "solid/place.h"

#include <string>
#include <vector>

namespace datrin::steps {

/// `placed`: the bodies of its part. What is odd about a hole of body `hole` whose mouth is at `mouth`
/// (drawing frame), `across` wide: "its centre lies outside of plate". Empty: nothing is, or it stands on no
/// flat face of a body.
std::string off_the_face(const std::vector<solid::PlacedBody>& placed, build::Id hole, const Vec3& mouth,
                         double across);

} // namespace datrin::steps
