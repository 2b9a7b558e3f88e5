#pragma once
// STEP files (ISO 10303-21; AP203 and AP214), read and written.

#include "quantity/unit.h"
#include "solid/solid.h"

#include <string>

namespace datrin::solid {

struct StepRead {
  std::string message;  ///< why it cannot be used, naming the file; empty: it can
  Solid solid;          ///< mm whatever the file's unit
  Unit unit = Unit::mm; ///< of the file
  bool ok() const { return message.empty(); }
};

struct StepOptions {
  std::size_t most_bytes = std::size_t{256} << 20;
  SolidOptions solid;
};

StepRead read_step(const std::string& path, const StepOptions& options = {});

/// Writes the solid as AP214, in mm. What went wrong, in words; empty: it is there.
std::string write_step(const Solid& solid, const std::string& name, const std::string& path);

} // namespace datrin::solid
