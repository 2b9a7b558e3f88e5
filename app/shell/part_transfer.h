#pragma once
// Parts going out and coming in, with the questions asked for it.

#include "app/document.h"

#include <QString>
#include <QWidget>

namespace datrin::app {

/// What came of it, in words; empty: it was called off.
struct Transfer {
  QString words;
  bool wrong = false;
};

/// Asks where to and as what, and writes the chosen part. `face`: the one pointed at, of its solid.
Transfer send_out_part(QWidget* parent, Document& document, int face);
/// Asks where to, and writes every part that is a solid.
Transfer send_out_build(QWidget* parent, Document& document);
/// A part out of a STEP file is added and chosen; of several solids the person says which.
Transfer bring_in_part(QWidget* parent, Document& document, const QString& path);

} // namespace datrin::app
