#pragma once
// The drawing for a pattern: the part as it has to be made in wood, three views, and a table of its sizes.

#include "casting/pattern.h"
#include "sheets/scene.h"

#include <QPainter>
#include <QString>

namespace datrin::sheets {

struct PatternSheet {
  QString build, part;
  QString metal, process;   ///< "grey iron", "sand by hand, tolerance grade 12, allowance G"
  casting::Pattern pattern; ///< usable
  double draft = 0;         ///< radians
  Unit unit = Unit::mm;
  bool third_angle = false;
};

/// One A4 page, portrait, painted in tenths of a millimetre: 2100 by 2970.
void paint_pattern(QPainter& painter, const PatternSheet& input);

/// Writes the page as PDF; the message is empty when it was written.
QString write_pattern_pdf(const QString& path, const PatternSheet& input);

} // namespace datrin::sheets
