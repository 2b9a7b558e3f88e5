#pragma once
// The sheet of a part made in numbers as a table one types in: a row for each piece, a column for each
// dimension. What was refused stays in its cell, with why, until it is mended.

#include "app/document.h"
#include "app/joints/targets_state.h"
#include "batch/batch_edits.h"
#include "batch/batch_sheet.h"

#include <QAbstractTableModel>

#include <map>

namespace datrin::app {

class BatchModel : public QAbstractTableModel {
  Q_OBJECT
public:
  BatchModel(Document& document, TargetsState& targets, QObject* parent = nullptr);

  void show_sheet(batch::BatchSheet sheet);
  void set_instrument(build::Id instrument) { instrument_ = instrument; }
  const batch::BatchSheet& sheet() const { return sheet_; }
  Unit unit() const { return document_.unit(); }
  void forget_refused();                         ///< the words are of another build
  Reckoning why(const QModelIndex& index) const; ///< how a reading came about, or the number to make
  /// Keeps what was typed or pasted, in one edit; what is refused stays in its cell. How many were kept.
  std::size_t keep(const std::vector<std::pair<QModelIndex, QString>>& cells);
  /// A block of cells as spreadsheets have it, from `at` on, right and down. Says what came of it.
  QString paste(const QModelIndex& at, const QString& block);
  /// Sizes of a block as a spreadsheet takes them, in the build's unit.
  QString block_text(int top, int left, int bottom, int right) const;

  int rowCount(const QModelIndex& parent = {}) const override;
  int columnCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
  bool setData(const QModelIndex& index, const QVariant& value, int role = Qt::EditRole) override;
  QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  Qt::ItemFlags flags(const QModelIndex& index) const override;

signals:
  void refused(const QString& why);

private:
  build::Made made(const QModelIndex& index) const;
  QString shown(const QModelIndex& index) const;
  QString size(const QModelIndex& index, double value) const; ///< without its unit; an angle with its sign
  QString past(const QModelIndex& index,
               double over) const;              ///< "3 µm", "0.25°"; empty: too little to be seen
  QString said(const QModelIndex& index) const; ///< a cell in words
  struct Refused {
    QString text, why;
  };

  Document& document_;
  TargetsState& targets_;
  build::Id instrument_ = 0;
  batch::BatchSheet sheet_;
  std::map<std::pair<build::Id, build::Id>, Refused> refused_; ///< by dimension and piece
};

} // namespace datrin::app
