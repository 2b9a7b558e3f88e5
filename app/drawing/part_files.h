#pragma once
// A part going out as a file for other programs, and one drawn elsewhere coming in.

#include "app/document.h"

#include <QString>
#include <QStringList>

namespace datrin::app {

enum class PartFile { step, stl, pattern_stl, views_dxf, face_dxf };

/// "STEP (*.step)" and the like, in the order of PartFile, for a file dialog.
QStringList part_file_filters();

/// Writes the chosen part. `face`: of its solid, for the outline. Empty when written; else what was wrong.
QString export_part(Document& document, PartFile kind, const QString& path, int face = -1);
/// Every part that is a solid, as one STEP file.
QString export_build_step(Document& document, const QString& path);

/// What a STEP file holds, read by a program of its own within limits of time and memory, so that no file can
/// take the window down.
struct StepContents {
  QString wrong;   ///< empty: it was read
  QByteArray step; ///< the solid as a STEP file in mm
  int solids = 0;  ///< in the file
};
struct StepLimits {
  int seconds = 60;
  qint64 memory = qint64{3} << 30; ///< bytes of address space
};
StepContents read_step_aside(const QString& path, int only = 0, const StepLimits& limits = {});

} // namespace datrin::app
