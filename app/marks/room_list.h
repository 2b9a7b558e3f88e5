#pragma once
// A list of conditions with their room marks: joints or chains, tightest first.

#include "chains/build_targets.h"

#include <QAbstractListModel>
#include <QListView>

#include <vector>

namespace datrin::app {

struct RoomEntry {
  qlonglong id = 0;
  QString name, what, below; ///< what it is for, and between what
  double room = 0;
  bool known = false; ///< room can be told
  bool limiting = false;
  chains::MadeSoFar made = chains::MadeSoFar::nothing;
};

/// Its rows; what a row says in words is put together when it is asked for.
class RoomModel : public QAbstractListModel {
public:
  using QAbstractListModel::QAbstractListModel;
  void show_entries(std::vector<RoomEntry> entries);
  const std::vector<RoomEntry>& entries() const { return entries_; }
  int rowCount(const QModelIndex& parent = {}) const override;
  QVariant data(const QModelIndex& index, int role) const override;

private:
  std::vector<RoomEntry> entries_;
};

class RoomList : public QListView {
  Q_OBJECT
public:
  explicit RoomList(const QString& accessible_name, QWidget* parent = nullptr);
  /// Shows them tightest first, what says nothing yet before all; chooses `chosen`, or the first when it is
  /// not there, and says which that is.
  qlonglong show_entries(std::vector<RoomEntry> entries, qlonglong chosen);
  qlonglong chosen() const;
  const std::vector<RoomEntry>& entries() const { return model_->entries(); }
  int count() const { return model_->rowCount(); }

signals:
  void chosen_by_hand(qlonglong id);

protected:
  void currentChanged(const QModelIndex& now, const QModelIndex& before) override;

private:
  RoomModel* model_;
  bool filling_ = false;
};

} // namespace datrin::app
