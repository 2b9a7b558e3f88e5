#pragma once
// A screen reader that walks everything there is: what it asks of each thing is what one over the
// accessibility bus asks.

#include <QAccessible>
#include <QApplication>
#include <QEvent>

#include <utility>
#include <vector>

namespace datrin::test {

/// Things a reader was told of, each with how many children it had then: over the bus it asks for these
/// later, when the form may be another.
using ToldOf = std::vector<std::pair<QAccessible::Id, int>>;

/// Asks all of it and all below; how many things there are. Rows of a long table beyond the first are left
/// out.
inline int read_all(QAccessibleInterface* thing, ToldOf& told, int depth = 0) {
  if (thing == nullptr || !thing->isValid() || depth > 40) return 0;
  told.emplace_back(QAccessible::uniqueId(thing), thing->childCount());
  (void)thing->role();
  (void)thing->state();
  (void)thing->rect();
  for (const auto kind : {QAccessible::Name, QAccessible::Value, QAccessible::Description, QAccessible::Help,
                          QAccessible::Accelerator})
    (void)thing->text(kind);
  if (auto* parent = thing->parent()) (void)parent->indexOfChild(thing);
  for (const auto& [other, how] : thing->relations())
    if (other != nullptr) (void)other->text(QAccessible::Name);
  if (auto* text = thing->textInterface()) (void)text->text(0, text->characterCount());
  if (auto* value = thing->valueInterface()) (void)value->currentValue();
  if (auto* action = thing->actionInterface())
    for (const auto& name : action->actionNames()) (void)action->localizedActionDescription(name);
  if (auto* table = thing->tableInterface()) {
    (void)table->selectedCellCount();
    for (int row = 0; row < std::min(3, table->rowCount()); ++row)
      for (int column = 0; column < table->columnCount(); ++column)
        if (auto* cell = table->cellAt(row, column)) (void)cell->text(QAccessible::Name);
  }
  int count = 1;
  constexpr int most = 120;
  for (int k = 0; k < std::min(most, thing->childCount()); ++k)
    count += read_all(thing->child(k), told, depth + 1);
  return count;
}

/// Every window of the program; then what was told before is asked for once more, as far as it is still
/// known.
inline int read_all() {
  static ToldOf before;
  ToldOf now;
  int count = 0;
  for (auto* window : QApplication::topLevelWidgets())
    if (window->isVisible()) count += read_all(QAccessible::queryAccessibleInterface(window), now);
  for (const auto& [id, children] : std::exchange(before, now))
    if (auto* thing = QAccessible::accessibleInterface(id); thing != nullptr && thing->isValid())
      for (int k = 0; k < children; ++k)
        if (auto* child = thing->child(k); child != nullptr && child->isValid())
          (void)child->text(QAccessible::Name);
  return count;
}

/// Lets happen what was put off: fields thrown away are gone after it.
inline void let_go() {
  QCoreApplication::processEvents();
  QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  QCoreApplication::processEvents();
}

} // namespace datrin::test
