#pragma once
// The exchange format of make-to targets: "datrin-targets-case" in, "datrin-targets-result" out.
// (store uses chains here, because a file of a computation is that computation's inputs and results written
// down.)

#include "chains/targets.h"
#include "store/case_header.h"

#include <nlohmann/json.hpp>

namespace datrin::store {

struct TargetsCase {
  ReadStatus status = ReadStatus::not_run;
  std::string message;               ///< why it was refused: "file: place: rule"
  std::vector<std::string> warnings; ///< keys that were left out
  Unit unit = Unit::mm;              ///< the case's own; `input` is in mm
  std::string title;
  chains::TargetsInput input;

  bool ok() const { return status == ReadStatus::ok; }
};

/// Reads a case from JSON text; `label` (the file's name) begins every message.
TargetsCase read_targets_case(std::string_view text, const std::string& label);
TargetsCase read_targets_case_file(const std::string& path);

/// The result in the case's unit.
nlohmann::ordered_json targets_result_json(const TargetsCase& targets_case,
                                           const chains::TargetsResult& result);

/// The same as a table for people.
std::string targets_result_text(const TargetsCase& targets_case, const chains::TargetsResult& result);

} // namespace datrin::store
