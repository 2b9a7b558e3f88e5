#pragma once
// A table typed downwards, by the number pad: Enter keeps what was typed and goes to the cell below, from the
// last row to the top of the next column. Ctrl+V and Ctrl+C take and give blocks as spreadsheets do; Delete
// takes readings back.

#include "app/batch/batch_model.h"

#include <QTableView>

namespace datrin::app {

class BatchTable : public QTableView {
  Q_OBJECT
public:
  explicit BatchTable(BatchModel* model);
  void go_down();

signals:
  void told(const QString& words);

protected:
  void keyPressEvent(QKeyEvent* event) override;
  void closeEditor(QWidget* editor, QAbstractItemDelegate::EndEditHint hint) override;

private:
  void copy() const;
  void take_back();
  BatchModel* model_;
};

} // namespace datrin::app
