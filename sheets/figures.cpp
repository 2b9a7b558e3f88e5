#include "sheets/figures.h"

namespace datrin::sheets {

QString figure(double mm, Unit unit, bool plus) {
  return qt(length_text(mm, unit, {.show_plus = plus}));
}

QString figure_with_unit(double mm, Unit unit, bool plus) {
  return qt(length_text(mm, unit, {.show_unit = true, .show_plus = plus}));
}

} // namespace datrin::sheets
