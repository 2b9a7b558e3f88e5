#pragma once
// The picture of a casting standing on its jacks with its lines, and the A4 page made of it.

#include "casting/marking_out.h"
#include "sheets/scene_paint.h"

#include <QPainter>
#include <QString>
#include <QStringList>

namespace datrin::sheets {

struct MarkingPicture {
  SceneInput part; ///< extents filled in, touches at the seat
  Vec3 up = Vec3::UnitZ();
  casting::MarkingResult marking; ///< usable
  Unit unit = Unit::mm;
  std::vector<Vec3> stock{}; ///< of a piece that stands flat: places its outline goes round, drawing frame
};

/// Name of jack k (0…2): A, B, C.
QString jack_name(int k);

/// Paints two elevations with plate, jacks and lines into `area`; `text` is the height of its figures in
/// pixels.
void paint_marking(QPainter& painter, const QRectF& area, const MarkingPicture& picture, const Ink& ink,
                   double text);

struct SheetInput {
  MarkingPicture picture;
  QString build, part, way_up; ///< "Mill engine", "Main pedestal, no. 1 of 2", "foot down"
  QString seat_line;           ///< "Least room +0.97 mm · it cleans up"
  QStringList seen;            ///< what is still to be done about what was seen on it
};

/// One A4 page, portrait, painted in tenths of a millimetre: 2100 by 2970.
void paint_sheet(QPainter& painter, const SheetInput& input);

/// Writes the page as PDF; the message is empty when it was written.
QString write_sheet_pdf(const QString& path, const SheetInput& input);

/// The same page as SVG 1.2.
QString write_sheet_svg(const QString& path, const SheetInput& input);

} // namespace datrin::sheets
