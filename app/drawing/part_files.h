#pragma once
// A part going out as a file for other programs.

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

} // namespace datrin::app
