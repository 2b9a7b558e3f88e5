#include "sheets/ink.h"

namespace datrin::sheets {

Ink blued_metal() {
  return {QColor("#17304F"), QColor("#1D3B60"), QColor("#DCEBFF"),
          QColor("#7FA3CC"), QColor("#E9C877"), QColor("#9DBBDD")};
}

Ink paper_print() {
  return {QColor("#FFFFFF"),
          QColor("#F1F1EF"),
          QColor("#000000"),
          QColor("#6A6A6A"),
          QColor("#7A4E00"),
          QColor("#333333"),
          true};
}

} // namespace datrin::sheets
