#include "app/shell/shelf_model.h"

#include "readings/size_now.h"

#include "quantity/text.h"
#include "sheets/figures.h"

#include <algorithm>
#include <utility>

namespace datrin::app {

using sheets::qt;

ShelfModel::ShelfModel(Document& document, QObject* parent)
    : QAbstractListModel(parent), document_(document) {}

void ShelfModel::refresh() {
  const auto& b = document_.build();
  const auto parts = b.parts();
  const auto pieces = b.all<build::Piece>();
  const bool same_part = std::exchange(unfolded_, document_.part()) == document_.part();
  const bool same_rows = same_part && parts.same_ids(parts_) && pieces == pieces_;
  parts_ = parts;
  pieces_ = pieces;
  if (same_rows) {
    if (!rows_.empty()) emit dataChanged(index(0), index(rowCount() - 1));
    return;
  }
  beginResetModel();
  rows_.clear();
  for (const auto& [part, p] : parts)
    for (const auto& [piece, one] : b.pieces_of(part)) {
      rows_.emplace_back(part, piece);
      if (folded(part)) break;
    }
  endResetModel();
}

bool ShelfModel::folded(build::Id part) const {
  constexpr std::size_t most = 8; // pieces one may want to tell apart at a glance
  return part != document_.part() && document_.build().pieces_of(part).size() > most;
}

int ShelfModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(rows_.size());
}

build::Id ShelfModel::part_at(int row) const {
  return row >= 0 && row < rowCount() ? rows_[static_cast<std::size_t>(row)].first : 0;
}

build::Id ShelfModel::piece_at(int row) const {
  return row >= 0 && row < rowCount() ? rows_[static_cast<std::size_t>(row)].second : 0;
}

int ShelfModel::row_of(build::Id piece) const {
  const auto found =
      std::find_if(rows_.begin(), rows_.end(), [&](const auto& r) { return r.second == piece; });
  return found == rows_.end() ? -1 : static_cast<int>(found - rows_.begin());
}

std::pair<int, int> ShelfModel::read_of(build::Id part, build::Id piece) const {
  const auto& b = document_.build();
  std::pair<int, int> count{0, 0};
  for (const auto& [id, d] : b.dimensions_of(part)) {
    ++count.second;
    count.first += readings::size_now(b, {id, piece}).read() ? 1 : 0;
  }
  return count;
}

QString ShelfModel::below(build::Id part, build::Id piece) const {
  const auto& b = document_.build();
  if (folded(part)) {
    const auto pieces = b.pieces_of(part);
    std::size_t read = 0;
    for (const auto& [id, one] : pieces) read += read_of(part, id).first > 0 ? 1 : 0;
    return filled("%1 pieces \u00B7 %2 begun", static_cast<int>(pieces.size()), static_cast<int>(read));
  }
  const auto touches = b.touches_of(piece).size();
  const auto* one = b.find<build::Piece>(piece);
  const auto read = read_of(part, piece);
  const QString state = one && !one->rejected.empty() ? QString("rejected")
                        : b.seat_of(piece)            ? QString("seated")
                        : touches > 0                 ? qt(counted(touches, "touch", "touches"))
                        : read.first > 0              ? filled("%1 of %2 read", read.first, read.second)
                                                      : QString("not begun");
  return one && b.pieces_of(part).size() > 1 ? filled("no. %1 \u00B7 %2", one->number, state) : state;
}

double ShelfModel::done(build::Id part, build::Id piece) const {
  const auto& b = document_.build();
  constexpr double third = 1.0 / 3;
  if (folded(part)) {
    const auto pieces = b.pieces_of(part);
    double read = 0, all = 0;
    for (const auto& [id, one] : pieces) {
      const auto count = read_of(part, id);
      read += count.first;
      all += count.second;
    }
    return all > 0 ? third + 2 * third * read / all : 0;
  }
  const auto read = read_of(part, piece);
  if (b.touches_of(piece).empty() && read.first > 0) // no casting: what is read of it
    return (b.surfaces_of(part).empty() ? 0 : third) + 2 * third * read.first / read.second;
  return (b.surfaces_of(part).empty() ? 0 : third) + (b.touches_of(piece).empty() ? 0 : third) +
         (b.seat_of(piece) ? third : 0);
}

QVariant ShelfModel::data(const QModelIndex& at, int role) const {
  const auto part = part_at(at.row()), piece = piece_at(at.row());
  const auto* p = document_.build().find<build::Part>(part);
  if (p == nullptr) return {};
  switch (role) {
  case Qt::DisplayRole:
    return name_words(p->name);
  case Qt::AccessibleTextRole:
    return QString("%1, %2").arg(name_words(p->name), below(part, piece));
  case part_role:
    return QVariant::fromValue<qlonglong>(part);
  case piece_role:
    return QVariant::fromValue<qlonglong>(piece);
  case below_role:
    return below(part, piece);
  case done_role:
    return done(part, piece);
  default:
    return {};
  }
}

} // namespace datrin::app
