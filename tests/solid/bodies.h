#pragma once
// Bodies put together for tests, as a person would.

#include "build/edits.h"
#include "solid/place.h"
#include "solid/solid.h"

#include <numbers>
#include <utility>
#include <vector>

namespace datrin::solid_test {

using namespace build;
using namespace solid;

inline constexpr double pi = std::numbers::pi;

class Bodies {
public:
  Bodies() { build_.load(part, Part{"Part", "cast iron", 1, 0}); }

  Body& add(std::string name, BodyShape shape, std::vector<std::pair<BodyRole, double>> sizes, Id on = 0,
            BodyFace face = BodyFace::top) {
    Body body;
    body.part = part;
    body.name = std::move(name);
    body.shape = shape;
    body.on = on;
    body.face = on == 0 ? BodyFace::middle : face;
    for (const auto& [role, value] : sizes) body.set_size({role, 0, value});
    body.order = static_cast<double>(bodies_.size());
    bodies_.push_back(body);
    return bodies_.back();
  }
  /// The id the n-th body has, from 0.
  static Id id(std::size_t n) { return static_cast<Id>(100 + n); }

  const Build& build() const { return build_; } ///< with the bodies that were placed

  std::vector<PlacedBody> placed() {
    for (std::size_t k = 0; k < bodies_.size(); ++k) build_.load(id(k), bodies_[k]);
    return place_bodies(build_, part);
  }
  Solid made(const SolidOptions& options = {}) { return make_solid(placed(), options); }

  static constexpr Id part = 2;

private:
  Build build_;
  std::vector<Body> bodies_ = [] {
    std::vector<Body> v;
    v.reserve(200); // references given out stay good
    return v;
  }();
};

} // namespace datrin::solid_test
