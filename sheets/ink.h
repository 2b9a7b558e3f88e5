#pragma once
// The colours of the look, by the part they play.

#include <QColor>

namespace datrin::sheets {

/// Colours of a drawn part: scribed on marking blue, or printed on paper.
struct Ink {
  QColor ground, plate, line, dim, brass, label;
  bool print = false;
};

Ink blued_metal(); ///< on screen
Ink paper_print(); ///< on a sheet: black on white

} // namespace datrin::sheets
