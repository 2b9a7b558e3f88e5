#pragma once
// What a picture on blued metal shows while there is nothing to show: a title and a sentence that teaches.

#include <QPainter>
#include <QString>

namespace datrin::app {

struct EmptyWords {
  QString title, words;
};

/// Paints them into `area`, on marking blue that is there already.
void paint_empty(QPainter& painter, const QRectF& area, const EmptyWords& empty);

} // namespace datrin::app
