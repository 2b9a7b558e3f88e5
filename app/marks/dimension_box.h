#pragma once
// A choice among the dimensions of every part.

#include "build/build.h"

#include <QComboBox>

namespace datrin::app {

/// Fills a box with every length of the build, "Part, dimension  12 H7"; data is its id. `first` chooses
/// none. What was chosen stays so.
void fill_dimensions(QComboBox* box, const build::Build& build, const QString& first);

} // namespace datrin::app
