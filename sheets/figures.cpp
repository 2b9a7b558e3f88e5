#include "sheets/figures.h"

namespace datrin::sheets {

QString figure(double mm, Unit unit, bool plus) {
  return qt(length_text(mm, unit, {.show_plus = plus}));
}

QString figure_with_unit(double mm, Unit unit, bool plus) {
  return qt(length_text(mm, unit, {.show_unit = true, .show_plus = plus}));
}

QString fit_figure(double mm, Unit unit, bool plus) {
  return qt(length_text(mm, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_plus = plus}));
}

QString fit_with_unit(double mm, Unit unit) {
  return qt(length_text(mm, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true}));
}

QString fine_figure(double mm, Unit unit, bool plus) {
  return qt(unit == Unit::mm ? number_text(mm * 1000, 0, plus) : number_text(mm / mm_per_thou, 1, plus));
}

QString fine_unit(Unit unit) {
  return unit == Unit::mm ? QString("\u00B5m") : QString("thou");
}

} // namespace datrin::sheets
