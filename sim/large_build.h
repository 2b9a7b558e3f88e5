#pragma once
// A stand-in for years of work in one file: as many parts, pieces, touches and joints as are asked for, each
// like the others. For asking how long a page takes, not for looking at.

#include "build/build.h"

namespace datrin::sim {

struct LargeBuildOptions {
  int parts = 300;
  int pieces = 2;          ///< of each part
  int touches = 100;       ///< on each piece
  int joints = 800;        ///< between bores and bosses of neighbouring parts
  int measured_of_ten = 4; ///< of the sizes that mate
  int seated_of_ten = 5;   ///< of the pieces
  bool allowances = true;  ///< and a cut or two on every fifth piece, two setups for every part
  unsigned seed = 1;
};

build::Build large_build(const LargeBuildOptions& options = {});

} // namespace datrin::sim
