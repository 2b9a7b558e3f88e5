#pragma once
// The touches of a piece as a table one can type in.

#include "app/document.h"

#include <QAbstractTableModel>

#include <set>

namespace datrin::app {

class TouchModel : public QAbstractTableModel {
  Q_OBJECT
public:
  enum Column { number, surface, x, y, z, tip_radius, toward, uncertainty, setting, note, column_count };
  explicit TouchModel(Document& document, QObject* parent = nullptr);

  void refresh();
  void set_flagged(std::set<build::Id> flagged); ///< touches that look like mistakes
  build::Id id_at(int row) const;
  int row_of(build::Id id) const;

  int rowCount(const QModelIndex& parent = {}) const override;
  int columnCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  bool setData(const QModelIndex& index, const QVariant& value, int role) override;
  QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  Qt::ItemFlags flags(const QModelIndex& index) const override;

signals:
  void not_understood(const QString& why); ///< what was typed in a cell; the old value stands

private:
  QString text(const build::Touch& touch, int column) const;
  bool height_only(const build::Touch& touch) const; ///< its x and y are places on its face

  Document& document_;
  build::List<build::Touch> touches_;
  std::set<build::Id> flagged_;
};

} // namespace datrin::app
