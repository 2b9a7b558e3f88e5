#pragma once
// STEP files are read by a program of its own (datrin-step, beside this one), within limits of time and
// memory: no file, however it is made, can take down who asked for it.

#include "solid/brep.h"
#include "solid/step_file.h"

#include <string>

namespace datrin::solid {

struct StepShape {
  std::string wrong;  ///< why there is none, without the file's name; empty: there is one
  TopoDS_Shape shape; ///< mm
  Unit unit = Unit::mm;
  int solids = 0; ///< in the file
  bool stopped = false;
};

/// Reads the file open for reading as `file` from its beginning on. Ends when `options.stop` says so.
StepShape read_shielded(int file, const StepOptions& options);
StepShape read_shielded(const std::string& text, const StepOptions& options);

} // namespace datrin::solid
