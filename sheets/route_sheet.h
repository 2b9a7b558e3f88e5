#pragma once
// The route card and its setup sheets: one A4 page a setup with the picture of the part as it is held, what
// locates it, the operations with their tools and numbers, what is measured, what to look out for.

#include "route/card.h"
#include "sheets/scene.h"

#include <QPainter>
#include <QString>

namespace datrin::sheets {

struct RouteSheet {
  QString build, made_at;
  Unit unit = Unit::mm;
  bool third_angle = false;
  route::RouteCard card;
  SceneInput part;                   ///< extents filled in
  std::vector<std::vector<int>> lit; ///< of each setup: surfaces of `part` that are cut in it
};

/// Page `page` (from 0, of as many as setups), painted in tenths of a millimetre: 2100 by 2970.
void paint_route_page(QPainter& painter, const RouteSheet& sheet, std::size_t page);

/// Writes all of them as one PDF; the message is empty when it was written.
QString write_route_pdf(const QString& path, const RouteSheet& sheet);

} // namespace datrin::sheets
