#include "app/batch/batch_table.h"

#include "app/marks/why.h"
#include "app/theme.h"
#include "sheets/shown.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>

namespace datrin::app {

BatchTable::BatchTable(BatchModel* model) : model_(model) {
  setModel(model);
  setAccessibleName("Sheet of the batch");
  setEditTriggers(AnyKeyPressed | DoubleClicked | EditKeyPressed);
  setSelectionMode(ExtendedSelection);
  setAlternatingRowColors(false);
  setShowGrid(true);
  setTabKeyNavigation(false);
  horizontalHeader()->setDefaultAlignment(Qt::AlignRight | Qt::AlignVCenter);
  horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  horizontalHeader()->setMinimumSectionSize(theme().ipx(128)); // room for "make" and a size while it is typed
  horizontalHeader()->setHighlightSections(false);
  verticalHeader()->setDefaultAlignment(Qt::AlignRight | Qt::AlignVCenter);
}

void BatchTable::go_down() {
  auto at = currentIndex();
  if (!at.isValid()) return;
  int row = at.row(), column = at.column();
  const int cells = model_->rowCount() * model_->columnCount();
  for (int k = 0; k < cells; ++k) { // the next that can be typed in
    if (++row >= model_->rowCount()) {
      row = 0;
      column = (column + 1) % model_->columnCount();
    }
    const auto next = model_->index(row, column);
    if (model_->flags(next).testFlag(Qt::ItemIsEditable)) return setCurrentIndex(next);
  }
}

void BatchTable::closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) {
  // Enter ends an editor with "submit": what was typed is kept, and the next piece is asked for.
  QTableView::closeEditor(editor, QAbstractItemDelegate::NoHint);
  if (hint == QAbstractItemDelegate::SubmitModelCache) go_down();
}

void BatchTable::keyPressEvent(QKeyEvent* event) {
  const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (event->matches(QKeySequence::Copy))
    copy();
  else if (event->matches(QKeySequence::Paste))
    emit told(model_->paste(currentIndex(), QApplication::clipboard()->text()));
  else if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace)
    take_back();
  else if (enter && state() != EditingState)
    go_down();
  else if (const auto why = event->key() == Qt::Key_F1 ? model_->why(currentIndex()) : Reckoning{};
           !why.lines.empty())
    show_why(viewport(), why, model_->unit());
  else
    QTableView::keyPressEvent(event);
}

/// The block that is chosen; of one cell alone the whole sheet.
void BatchTable::copy() const {
  const auto chosen = selectionModel()->selection();
  int top = 0, left = 0, bottom = model_->rowCount() - 1, right = model_->columnCount() - 1;
  if (chosen.indexes().size() > 1) {
    top = chosen.first().top();
    left = chosen.first().left();
    bottom = chosen.first().bottom();
    right = chosen.first().right();
    for (const auto& range : chosen) {
      top = std::min(top, range.top());
      left = std::min(left, range.left());
      bottom = std::max(bottom, range.bottom());
      right = std::max(right, range.right());
    }
  }
  QApplication::clipboard()->setText(model_->block_text(top, left, bottom, right));
}

void BatchTable::take_back() {
  std::vector<std::pair<QModelIndex, QString>> cells;
  for (const auto& index : selectionModel()->selectedIndexes())
    if (model_->flags(index).testFlag(Qt::ItemIsEditable)) cells.emplace_back(index, QString());
  if (cells.empty()) return;
  const auto kept = model_->keep(cells);
  emit told(filled(kept == 1 ? "%1 reading taken back." : "%1 readings taken back.", kept));
}

} // namespace datrin::app
