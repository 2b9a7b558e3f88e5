#pragma once
// `datrin-cli solid`: what a STEP file holds, and what can be asked of a solid.

#include <iosfwd>
#include <string>

namespace datrin::cli {

struct SolidCall {
  std::string path;
  std::string section; ///< "x=0"; empty: none
  std::string to;      ///< where to write its solids as STEP, mm; empty: nowhere
  int only = 0;        ///< of several solids that one, from 1; 0: all
  bool thinnest = false, as_text = false;
};

int run_solid(const SolidCall& call, std::ostream& out, std::ostream& err);

} // namespace datrin::cli
