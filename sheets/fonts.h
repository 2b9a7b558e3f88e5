#pragma once
#include <QFont>

namespace datrin::sheets {

/// Makes the shipped typeface (B612) known to this process; harmless to call twice. Needs a QGuiApplication.
void load_fonts();

/// The shipped typeface with upright tabular figures, `pixels` high.
QFont font(double pixels, bool bold = false);

} // namespace datrin::sheets
