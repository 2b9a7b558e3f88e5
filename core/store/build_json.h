#pragma once
// A whole build as one JSON file, for git and for other programs ("datrin-build", docs/format.md and
// docs/build.schema.json). One record a line, by id, so that two versions compare line by line.

#include "store/build_file.h"
#include "store/read_options.h"

#include <string>
#include <string_view>

namespace datrin::store {

struct BuildJson {
  bool ok = false;
  std::string message; ///< why it was refused: "file: place: rule"
  build::Build build;
  std::vector<LogLine> log; ///< oldest first
};

/// Every record and the log. Read again it gives the same build.
std::string write_build_json(const build::Build& build, const std::vector<LogLine>& log_oldest_first);

/// Reads it; `label` (the file's name) begins every message. Nothing is taken from a file that breaks a rule.
BuildJson read_build_json(std::string_view text, const std::string& label, const ReadOptions& options = {});
BuildJson read_build_json_file(const std::string& path, const ReadOptions& options = {});

} // namespace datrin::store
