#pragma once
// The demo's cylinder block, begun on the mill: what tests of plans and setups stand on.

#include "casting/survey.h"
#include "demo/mill_engine.h"

#include <gtest/gtest.h>

namespace datrin::test {

class DemoPiece : public testing::Test {
protected:
  void SetUp() override {
    for (const auto& [id, p] : b.parts())
      if (p.name == "Cylinder block") part = id;
    piece = b.pieces_of(part).front().first;
  }
  build::Id surface(const char* name) const {
    for (const auto& [id, s] : b.surfaces_of(part))
      if (s.name == name) return id;
    return 0;
  }
  casting::PieceInput input() const { return casting::piece_input(b, piece); }
  Pose pose() const { return casting::seat_or_start(b, piece, input()); }

  build::Build b = demo::mill_engine().build;
  build::Id part = 0, piece = 0;
};

} // namespace datrin::test
