#pragma once
// A solid shaded, with what is hidden hidden: a picture with depth, worked out here; only its colours are
// Qt's. Pixels count down from the top left corner.

#include "sheets/scene.h"
#include "sheets/turning.h"
#include "solid/solid.h"

#include <cstdint>
#include <optional>
#include <vector>

namespace datrin::sheets {

struct ShadeInput {
  ViewAxes axes;
  Vec2 middle_mm = Vec2::Zero(); ///< on the paper: in the middle of the picture
  double scale = 1;              ///< pixels a mm
  int width = 0, height = 0;
  std::optional<SectionPlane> section;
};

struct Shaded {
  static constexpr std::int32_t nothing = -1, cut = -2; ///< no metal there; metal cut through
  int width = 0, height = 0;
  std::vector<std::int32_t> face;  ///< index into Solid::faces
  std::vector<std::uint8_t> light; ///< 0 … 255: how squarely it faces the light
  std::vector<std::uint8_t> edge;  ///< 255: a sharp edge; less: where faces run into each other
  std::vector<float> depth;        ///< mm towards the eye

  std::int32_t face_at(int x, int y) const {
    return x < 0 || y < 0 || x >= width || y >= height
               ? nothing
               : face[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                      static_cast<std::size_t>(x)];
  }
};

Shaded shade(const solid::Solid& solid, const ShadeInput& input);

} // namespace datrin::sheets
