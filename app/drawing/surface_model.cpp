#include "app/drawing/surface_model.h"

#include "geometry/direction_text.h"
#include "quantity/angle.h"
#include "sheets/figures.h"

namespace datrin::app {

using sheets::figure;
using sheets::qt;

void SurfaceModel::set_surfaces(build::List<build::PartSurface> surfaces, Unit unit, bool cast) {
  cast_ = cast;
  // The same surfaces in the same order keep the selection; anything else starts afresh.
  const bool same_rows = surfaces.size() == surfaces_.size() &&
                         std::equal(surfaces.begin(), surfaces.end(), surfaces_.begin(),
                                    [](const auto& a, const auto& b) { return a.first == b.first; });
  if (same_rows) {
    surfaces_ = std::move(surfaces);
    unit_ = unit;
    if (!surfaces_.empty())
      emit dataChanged(index(0, 0), index(static_cast<int>(surfaces_.size()) - 1, column_count - 1));
    return;
  }
  beginResetModel();
  surfaces_ = std::move(surfaces);
  unit_ = unit;
  endResetModel();
}

build::Id SurfaceModel::id_at(int row) const {
  return row >= 0 && row < static_cast<int>(surfaces_.size()) ? surfaces_[static_cast<std::size_t>(row)].first
                                                              : 0;
}

int SurfaceModel::row_of(build::Id id) const {
  for (std::size_t i = 0; i < surfaces_.size(); ++i)
    if (surfaces_[i].first == id) return static_cast<int>(i);
  return -1;
}

int SurfaceModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(surfaces_.size());
}
int SurfaceModel::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : column_count;
}

QString SurfaceModel::text(const build::PartSurface& s, int column, Unit unit) const {
  switch (column) {
  case name:
    return name_words(s.name);
  case kind:
    return qt(surface_kind_name(s.kind));
  case finish:
    return s.from_solid ? "from solid" : s.machined ? "machined" : cast_ ? "as cast" : "as it comes";
  case x:
    return figure(s.point.x(), unit);
  case y:
    return figure(s.point.y(), unit);
  case z:
    return figure(s.point.z(), unit);
  case facing:
    return qt(direction_text(s.direction));
  case size:
    if (s.round())
      return "\u00F8\u202F" + figure(s.diameter, unit) +
             (s.height > 0 ? " \u00D7 " + figure(s.height, unit) : QString()) +
             (is_cone(s.kind) ? ", " + qt(taper_text(2 * s.half_angle)) : QString());
    return s.width > 0 && s.height > 0 ? figure(s.width, unit) + " \u00D7 " + figure(s.height, unit)
                                       : QString();
  case stock:
    return s.machined && !s.from_solid ? figure(s.required, unit) : QString();
  default:
    return {};
  }
}

QVariant SurfaceModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid() || index.row() >= static_cast<int>(surfaces_.size())) return {};
  const auto& surface = surfaces_[static_cast<std::size_t>(index.row())].second;
  const bool figures = index.column() >= x && index.column() != facing;
  if (role == Qt::DisplayRole) return text(surface, index.column(), unit_);
  if (role == Qt::ToolTipRole && figures)
    return text(surface, index.column(), sheets::other(unit_)) + "\u202F" +
           qt(unit_name(sheets::other(unit_)));
  if (role == Qt::TextAlignmentRole && figures) return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
  return {};
}

QVariant SurfaceModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation != Qt::Horizontal) return {};
  static const char* const names[] = {"Surface", "Kind", "Finish", "x", "y", "z", "Facing", "Size", "Stock"};
  if (role == Qt::DisplayRole && section < column_count) return QString(names[section]);
  if (role == Qt::TextAlignmentRole)
    return static_cast<int>((section >= x && section != facing ? Qt::AlignRight : Qt::AlignLeft) |
                            Qt::AlignVCenter);
  return {};
}

} // namespace datrin::app
