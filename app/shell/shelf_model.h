#pragma once
// The pieces of the build in the order of their parts, as rows of the shelf: what they are called, how far
// they have got. A row is worked out when it is shown.

#include "app/document.h"

#include <QAbstractListModel>

#include <vector>

namespace datrin::app {

class ShelfModel : public QAbstractListModel {
public:
  enum Role {
    part_role = Qt::UserRole, ///< qlonglong
    piece_role,
    below_role, ///< the smaller line: "no. 2 · seated"
    done_role   ///< 0 to 1: drawn, touched, seated
  };

  explicit ShelfModel(Document& document, QObject* parent = nullptr);

  /// Follows the document: rows come and go with parts and pieces. A part made in numbers stands on one row
  /// until it is the one worked on.
  void refresh();

  int rowCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;
  build::Id part_at(int row) const;
  build::Id piece_at(int row) const;
  int row_of(build::Id piece) const; ///< −1: not on the shelf

private:
  /// Of the dimensions of a piece, how many are read, of how many.
  std::pair<int, int> read_of(build::Id part, build::Id piece) const;
  bool folded(build::Id part) const;
  QString below(build::Id part, build::Id piece) const;
  double done(build::Id part, build::Id piece) const;

  Document& document_;
  build::List<build::Part> parts_;
  build::List<build::Piece> pieces_;
  build::Id unfolded_ = 0;                            ///< the part whose pieces all stand there
  std::vector<std::pair<build::Id, build::Id>> rows_; ///< part, piece
};

} // namespace datrin::app
