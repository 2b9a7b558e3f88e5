#pragma once
// The look on screen: colours by role, type by size, one style sheet. Light paper or dark.

#include "sheets/fonts.h"
#include "sheets/ink.h"

#include <QColor>
#include <QFont>
#include <QString>

#include <cmath>

class QApplication;

namespace datrin::app {

struct Theme {
  bool dark = false;
  double text_scale = 1.0; ///< 1 to 2
  QColor paper, raised, ink, muted, hairline, brass, gone, good, track;
  sheets::Ink blue = sheets::blued_metal();
  QColor reached = QColor("#7FD1B9"); ///< on the marking blue: where it should be, taken

  /// Text so large that what stood side by side goes below each other.
  bool large() const { return text_scale > 1.4; }
  double px(double pixels) const { return pixels * text_scale; }
  /// For pictures beside text: they need not grow as far as the text does.
  double picture_px(double pixels) const { return pixels * (large() ? 1.0 : text_scale); }
  int ipx(double pixels) const { return static_cast<int>(std::lround(pixels * text_scale)); }
  QFont text(bool bold = false) const { return sheets::font(px(13), bold); }
  QFont small(bool bold = false) const { return sheets::font(px(11.5), bold); }
  QFont heading() const; ///< small capitals' place: headings of groups
  QFont title() const { return sheets::font(px(15), true); }
  QFont figure() const { return sheets::font(px(40), true); }
};

/// The theme in force.
const Theme& theme();

/// Puts a theme in force for the whole application: colours, sizes, palette and font.
void set_theme(QApplication& application, bool dark, double text_scale);

/// The style sheet of the theme in force. A sheet makes every move of a widget into a layout dear: take it
/// off while an interface is being made, and put it on when it stands.
void set_style(QApplication& application);
void clear_style(QApplication& application);

} // namespace datrin::app
