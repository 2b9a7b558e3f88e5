#include "sheets/fonts.h"

#include <QFontDatabase>

#include <cmath>

// Resources of a static library must be drawn in by name, outside any namespace.
static void init_font_resources() {
  Q_INIT_RESOURCE(fonts);
}

namespace datrin::sheets {

void load_fonts() {
  static const bool loaded = [] {
    init_font_resources();
    QFontDatabase::addApplicationFont(":/datrin/fonts/B612-Regular.otf");
    QFontDatabase::addApplicationFont(":/datrin/fonts/B612-Bold.otf");
    return true;
  }();
  (void)loaded;
}

QFont font(double pixels, bool bold) {
  QFont f("Datrin B612");
  f.setPixelSize(std::max(1, static_cast<int>(std::lround(pixels))));
  f.setBold(bold);
  f.setHintingPreference(QFont::PreferNoHinting);
  return f;
}

} // namespace datrin::sheets
