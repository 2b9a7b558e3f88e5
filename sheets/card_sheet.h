#pragma once
// The card for the machine: the next numbers to cut, large, on one A4 page.

#include "quantity/unit.h"

#include <QPainter>
#include <QString>

#include <vector>

namespace datrin::sheets {

struct CardLine {
  QString name;              ///< "Crank pin, journal"
  double make = 0, hold = 0; ///< mm
  QString why;
};

struct CardSheet {
  QString build, made_at; ///< when the card was made
  Unit unit = Unit::mm;
  std::vector<CardLine> lines; ///< at most twelve are painted
};

/// Paints the card on a page of 2100 by 2970 dots.
void paint_card(QPainter& painter, const CardSheet& card);

/// Writes it as PDF; the message is empty when it was written.
QString write_card(const QString& path, const CardSheet& card);

} // namespace datrin::sheets
