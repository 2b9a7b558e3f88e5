#pragma once
// What the parts weigh by their solids and metals, where they are named in a sum.

#include "app/document.h"

#include <string>

namespace datrin::app {

/// `text` with the names of parts as grams of one piece each; what has no solid or no known metal stays a
/// name.
std::string masses_named(Document& document, const std::string& text);

} // namespace datrin::app
