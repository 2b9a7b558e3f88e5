#include "sheets/card_sheet.h"

#include "sheets/figures.h"
#include "sheets/fonts.h"
#include "sheets/page_file.h"

#include <algorithm>

namespace datrin::sheets {

namespace {

void words(QPainter& p, const QRectF& area, double size, bool bold, const QString& text,
           Qt::Alignment align) {
  p.setFont(font(size, bold));
  p.drawText(area, align | Qt::AlignVCenter,
             QFontMetricsF(p.font()).elidedText(text, Qt::ElideRight, area.width()));
}

} // namespace

void paint_card(QPainter& p, const CardSheet& card) {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(Qt::black);
  words(p, {page_left, 130, 1200, 90}, 70, true, "Next numbers to cut", Qt::AlignLeft);
  words(p, {page_left + 1000, 130, page_right - page_left - 1000, 50}, 36, false, card.build, Qt::AlignRight);
  words(p, {page_left + 1000, 180, page_right - page_left - 1000, 50}, 32, false, card.made_at,
        Qt::AlignRight);
  const auto n = std::min<std::size_t>(12, card.lines.size());
  const double step = std::min(300.0, 2500.0 / std::max<double>(1, static_cast<double>(n)));
  for (std::size_t k = 0; k < n; ++k) {
    const auto& line = card.lines[k];
    const double y = 260 + step * static_cast<double>(k);
    p.setPen(QPen(Qt::black, 3));
    p.drawLine(QPointF(page_left, y), QPointF(page_right, y));
    p.setPen(Qt::black);
    const double size = std::min(96.0, step * 0.4);
    words(p, {page_left, y + step * 0.06, 1000, step * 0.34}, size * 0.52, true, line.name, Qt::AlignLeft);
    words(p, {page_left, y + step * 0.4, 1000, step * 0.28}, size * 0.38, false, line.why, Qt::AlignLeft);
    words(p, {1150, y + step * 0.05, page_right - 1150, step * 0.5}, size, true,
          QString("%1 %2").arg(fit_figure(line.make, card.unit), qt(unit_name(card.unit))), Qt::AlignRight);
    words(p, {1150, y + step * 0.55, page_right - 1150, step * 0.26}, size * 0.42, false,
          QString("%1 %2 \u00B7 hold \u00B1%3")
              .arg(fit_figure(line.make, other(card.unit)), qt(unit_name(other(card.unit))),
                   fit_figure(std::max(0.0, line.hold), card.unit)),
          Qt::AlignRight);
    // A place for what it did read, to be entered afterwards.
    p.setPen(QPen(Qt::black, 2, Qt::DotLine));
    p.drawLine(QPointF(page_left, y + step * 0.9), QPointF(page_left + 900, y + step * 0.9));
    p.setPen(Qt::black);
    words(p, {page_left, y + step * 0.72, 200, step * 0.18}, size * 0.3, false, "read:", Qt::AlignLeft);
  }
  words(p, {page_left, 2850, page_right - page_left, 60}, 30, false,
        "Measure at 20 \u00B0C and enter what it reads: the numbers that follow move with it. Eyes, guards, "
        "no gloves at the "
        "chuck.",
        Qt::AlignLeft);
  p.restore();
}

QString write_card(const QString& path, const CardSheet& card) {
  return write_page_pdf(path, "Next numbers to cut", [&](QPainter& painter) { paint_card(painter, card); });
}

} // namespace datrin::sheets
