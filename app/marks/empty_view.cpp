#include "app/marks/empty_view.h"

#include "app/theme.h"

namespace datrin::app {

void paint_empty(QPainter& p, const QRectF& area, const EmptyWords& empty) {
  const auto& t = theme();
  const QRectF text = area.adjusted(40, area.height() * 0.3, -40, 0);
  p.setPen(t.blue.line);
  p.setFont(t.title());
  p.drawText(text, Qt::AlignLeft | Qt::AlignTop, empty.title);
  p.setFont(t.text());
  p.setPen(t.blue.label);
  p.drawText(text.adjusted(0, t.px(32), 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, empty.words);
}

} // namespace datrin::app
