#pragma once
// Records as JSON, in the build file and in its log, by their descriptions (build/description.h). Lengths in
// mm, directions and rotations as numbers; flags as 0 and 1; enumerations as words.

#include "build/build.h"

#include <nlohmann/json.hpp>

#include <string>
#include <string_view>

namespace datrin::store {

std::string_view record_kind(const build::Record& record); ///< "build", "part", "surface", …

nlohmann::json record_body(const build::Record& record);

/// The record of `kind` that `body` states. Throws Refusal (store/json_reader.h) naming the field that is
/// off.
build::Record record_from_json(std::string_view kind, const nlohmann::json& body);

/// The rows of an edit, for the log: [{"id":7,"before":{"kind":…,"body":…},"after":null}, …].
nlohmann::json changes_json(const std::vector<build::Change>& changes);
std::vector<build::Change> changes_from_json(const nlohmann::json& rows);

} // namespace datrin::store
