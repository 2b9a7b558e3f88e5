#pragma once
// Dialogs one may ask for from anywhere: the sums of the bench, threads, a pressed crank. Each stays open
// until it is closed.

#include "app/document.h"

#include <QString>

class QWidget;

namespace datrin::app {

struct Told {
  QString words; ///< empty: nothing
  bool wrong = false;
};

/// An answer that is taken goes into the field one came from, else to be pasted.
Told ask_sums(Document& document, QWidget* window);
void ask_threads(const Document& document, QWidget* window);
Told ask_crank(Document& document, QWidget* window);

} // namespace datrin::app
