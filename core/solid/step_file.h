#pragma once
// STEP files (ISO 10303-21; AP203 and AP214), read and written.

#include "build/edits.h"
#include "quantity/unit.h"
#include "solid/solid.h"

#include <functional>
#include <string>
#include <vector>

namespace datrin::solid {

struct StepRead {
  std::string message;  ///< why it cannot be used, naming the file; empty: it can
  Solid solid;          ///< mm whatever the file's unit
  Unit unit = Unit::mm; ///< of the file
  int solids = 0;       ///< in the file
  bool ok() const { return message.empty(); }
};

struct StepOptions {
  std::size_t most_bytes = std::size_t{256} << 20;
  int only = 0; ///< of several solids that one, from 1; 0: all together
  SolidOptions solid = {};
  // Of the program that reads it (step_shield.h):
  int seconds = 60;                          ///< of work; twice as many by the clock
  std::size_t memory = std::size_t{3} << 30; ///< bytes of address space
  std::function<bool()> stop = {};           ///< asked now and then whether to give it up
};

StepRead read_step(const std::string& path, const StepOptions& options = {});

/// Both are read by a program of its own: no file can take down who asks.
/// The same of a text that is a STEP file; `name` names it in messages.
StepRead read_step_text(const std::string& text, const std::string& name, const StepOptions& options = {});

/// What is wrong with the first imported part of a build that cannot be read, named; empty: all can.
std::string unreadable_import(const build::Build& build, const std::function<bool()>& stop = {});

/// A part with that solid as its one body, and its first piece. `step`: a STEP file, in mm.
build::Added add_imported(const build::Build& build, const std::string& name, std::string step);

/// A solid under its name.
struct NamedSolid {
  std::string name;
  const Solid* solid = nullptr;
};

/// Writes solids as AP214, in mm, each a product of its own. What went wrong, in words; empty: it is there.
std::string write_step(const std::vector<NamedSolid>& solids, const std::string& path);
std::string write_step(const Solid& solid, const std::string& name, const std::string& path);

/// Such a file as text; empty when it cannot be made.
std::string step_text(const Solid& solid, const std::string& name);

} // namespace datrin::solid
