#pragma once
// The JSON schema (draft 2020-12) of a build as one JSON file, made from the records' descriptions.
// docs/build.schema.json is what this says; a test holds them together.

#include <string>

namespace datrin::store {

std::string build_schema();

} // namespace datrin::store
