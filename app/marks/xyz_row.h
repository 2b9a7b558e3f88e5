#pragma once
// Three coordinate fields in a row; Enter goes on to the next, and past the last calls `last`.

#include "app/marks/length_edit.h"

#include <QHBoxLayout>

#include <array>
#include <functional>

namespace datrin::app {

/// `what` begins their accessible names: "Mark" gives "Mark, x".
std::array<LengthEdit*, 3> add_xyz_row(QBoxLayout* to, const QString& what, std::function<void()> last);

} // namespace datrin::app
