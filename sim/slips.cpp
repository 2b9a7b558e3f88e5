#include "sim/slips.h"

#include "quantity/unit.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace datrin::sim {

using casting::MistakeKind;

casting::MistakesInput booked(const Pedestal& pedestal, double tip_radius) {
  casting::MistakesInput input;
  input.surfaces = pedestal.input.surfaces;
  input.extent = pedestal.extent;
  for (const auto& point : pedestal.input.points) {
    casting::MistakeTouch touch;
    touch.surface = point.surface;
    touch.tip_radius = tip_radius;
    // The tip comes from outside the metal: against the direction in which stock grows.
    const auto& shape = input.surfaces[static_cast<std::size_t>(point.surface)].shape;
    const Vec3 out = stock_direction(shape, pedestal.truth.apply(point.xyz));
    touch.toward = -pedestal.truth.inverse().turn(out);
    touch.centre = point.xyz - touch.toward * tip_radius;
    input.touches.push_back(touch);
  }
  return input;
}

Slip put_in_slip(casting::MistakesInput& input, MistakeKind kind, std::uint64_t seed) {
  std::mt19937_64 random(seed * 31 + static_cast<std::uint64_t>(kind));
  std::uniform_int_distribution<std::size_t> any(0, input.touches.size() - 1);
  for (int attempt = 0; attempt < 200; ++attempt) {
    const auto i = any(random);
    auto& touch = input.touches[i];
    int axis = 0;
    touch.toward.cwiseAbs().maxCoeff(&axis);
    const double value = touch.centre[axis];
    auto moved = touch;
    switch (kind) {
    case MistakeKind::dial_turn:
      moved.centre[axis] += random() % 2 == 0 ? 1.0 : -1.0;
      break;
    case MistakeKind::sign:
      moved.centre[axis] = -value;
      break;
    case MistakeKind::inch_for_mm:
      moved.centre[axis] = value / mm_per_inch;
      break;
    case MistakeKind::mm_for_inch:
      moved.centre[axis] = value * mm_per_inch;
      break;
    case MistakeKind::radius:
      moved.toward = -touch.toward;
      break;
    case MistakeKind::wrong_surface: {
      std::uniform_int_distribution<int> other(0, static_cast<int>(input.surfaces.size()) - 1);
      moved.surface = other(random);
      if (moved.surface == touch.surface) continue;
      break;
    }
    case MistakeKind::unexplained:
      moved.centre[axis] += 1.7;
      break;
    }
    const double by = (moved.centre - touch.centre).norm();
    if ((kind == MistakeKind::sign || kind == MistakeKind::inch_for_mm || kind == MistakeKind::mm_for_inch) &&
        by < 1.0)
      continue;
    touch = moved;
    return {static_cast<int>(i), kind};
  }
  return {};
}

} // namespace datrin::sim
