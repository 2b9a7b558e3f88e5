#pragma once
// The surfaces of a part as a table.

#include "build/build.h"

#include <QAbstractTableModel>

namespace datrin::app {

class SurfaceModel : public QAbstractTableModel {
public:
  enum Column { name, kind, finish, x, y, z, facing, size, stock, column_count };
  using QAbstractTableModel::QAbstractTableModel;

  void set_surfaces(build::List<build::PartSurface> surfaces, Unit unit, bool cast = true);
  build::Id id_at(int row) const;
  int row_of(build::Id id) const; ///< −1 when not there

  int rowCount(const QModelIndex& parent = {}) const override;
  int columnCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
  QString text(const build::PartSurface& surface, int column, Unit unit) const;

  build::List<build::PartSurface> surfaces_;
  bool cast_ = true; ///< the part: else what stays stays as it came
  Unit unit_ = Unit::mm;
};

} // namespace datrin::app
