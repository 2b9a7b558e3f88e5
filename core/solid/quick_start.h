#pragma once
// Drawings begun from a few sizes: the parts that models are full of, as closed solids whose sizes are
// dimensions and whose working faces are surfaces; to be edited freely afterwards.

#include "build/edits.h"
#include "solid/place.h"

#include <string>
#include <vector>

namespace datrin::solid {

enum class QuickShape {
  pedestal,
  cylinder_block,
  cover,
  flange,
  wheel,
  bracket,
  angle_plate,
  axlebox,
  plain_block,
  crank_web,
  stepped_shaft,
  connecting_rod,
  eccentric_sheave,
  eccentric_strap,
  slide_valve,
  gear_blank,
  bush,
  plug,
  stand
};

struct QuickSize {
  std::string name; ///< "foot, length"
  double mm = 0;    ///< what it begins with, where the build is in millimetres

  /// What it begins with, mm, round in that unit.
  double begins(Unit unit) const;
};

struct QuickStart {
  QuickShape shape;
  std::string name;  ///< "Pedestal"
  std::string words; ///< what it is, in one line
  std::vector<QuickSize> sizes;
};

/// The shapes on offer, with their sizes.
const std::vector<QuickStart>& quick_starts();

/// A drawing: bodies in order, the surfaces that are faces of them, and walls between surfaces by index.
struct QuickDrawing {
  std::string message;                      ///< which size does not fit; empty when the drawing can be made
  std::vector<build::Body> bodies;          ///< part is left 0; `on` counts from 1
  std::vector<build::PartSurface> surfaces; ///< part is left 0; `body` counts from 1
  struct QuickWall {
    std::size_t from = 0, to = 0;
    double least = 0;
  };
  std::vector<QuickWall> walls;
  /// A size that is the same dimension as one of another body.
  struct Shared {
    build::Id body = 0;
    BodyRole role = BodyRole::length;
    build::Id of = 0;
    BodyRole of_role = BodyRole::length;
  };
  std::vector<Shared> shared;
  /// What the dimension of a size is called, where not after its body.
  struct Named {
    build::Id body = 0;
    BodyRole role = BodyRole::length;
    std::string name;
  };
  std::vector<Named> names;

  /// The bodies where they lie, for a picture before anything is made.
  std::vector<PlacedBody> placed() const;
};

/// The drawing of `shape` with these sizes (mm, in the order of its QuickStart).
QuickDrawing quick_drawing(QuickShape shape, const std::vector<double>& sizes);

/// Adds a part with that drawing and its first piece, in one edit; a name that is taken gets a number.
build::Added add_quick_part(const build::Build& build, const std::string& name, const QuickDrawing& drawing);

} // namespace datrin::solid
