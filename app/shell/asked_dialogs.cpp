#include "app/shell/asked_dialogs.h"

#include "app/bench/crank_dialog.h"
#include "app/drawing/part_mass.h"
#include "app/marks/fields.h"
#include "app/shop/sums_dialog.h"
#include "app/shop/threads_dialog.h"
#include "build/edit_drawing.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"
#include "shop/sheet.h"

#include <QApplication>
#include <QClipboard>
#include <QPointer>

namespace datrin::app {

using sheets::qt;

Told ask_crank(Document& document, QWidget* window) {
  if (!document.is_open() || document.piece() == 0)
    return {"Choose the piece first: the crank, or the wheels on their axle.", true};
  CrankDialog(document, window).exec();
  return {};
}

void ask_threads(const Document& document, QWidget* window) {
  std::vector<Drill> owned;
  for (const auto& [id, tool] : document.build().tools())
    if (tool.kind == build::ToolKind::drill) owned.push_back({tool.name, tool.size});
  ThreadsDialog(document.is_open() ? document.unit() : Unit::mm, std::move(owned), window).exec();
}

Told ask_sums(Document& document, QWidget* window) {
  const QPointer<QLineEdit> from = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  const Unit unit = document.is_open() ? document.unit() : Unit::mm;
  const auto* part = document.is_open() ? document.build().find<build::Part>(document.part()) : nullptr;
  SumsDialog dialog(unit, part ? name_words(part->name) : QString(), window);
  QObject::connect(&dialog, &SumsDialog::keep_wanted, window,
                   [&](const QString& name, double mm, const QString& how) {
                     const auto kept = build::keep_reckoned(document.build(), document.part(),
                                                            name.toStdString(), mm, how.toStdString());
                     if (!kept.ok()) return dialog.show_kept(sheets::sentence(kept.wrong));
                     if (document.apply(kept.edit)) dialog.show_kept(qt(kept.edit.label) + ".");
                   });
  if (document.is_open()) {
    dialog.name_masses([&](const std::string& text) { return masses_named(document, text); });
    const auto blocks = [&](build::ToolKind kind, Unit in) {
      return qt(shop::sizes_of(document.build(), kind, in));
    };
    dialog.own_blocks({{"gauge-stack", blocks(build::ToolKind::gauge_block, unit)},
                       {"angle-blocks", blocks(build::ToolKind::angle_block, Unit::mm)}});
  }
  if (dialog.exec() != QDialog::Accepted || !dialog.taken()) return {};
  const auto answer = qt(length_entry_text(*dialog.taken(), unit));
  if (from && !from->isReadOnly()) {
    type_into(*from, answer);
    return {};
  }
  QApplication::clipboard()->setText(answer);
  return {filled("%1 is copied.", answer), false};
}

} // namespace datrin::app
