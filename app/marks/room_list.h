#pragma once
// A list of conditions with their room marks: joints or chains, tightest first.

#include <QListWidget>

#include <vector>

namespace datrin::app {

struct RoomEntry {
  qlonglong id = 0;
  QString name, what, below; ///< what it is for, and between what
  double room = 0;
  bool known = false; ///< room can be told
  bool limiting = false;
  int made = 0; ///< 0 nothing measured, 1 some, 2 all
};

class RoomList : public QListWidget {
  Q_OBJECT
public:
  explicit RoomList(const QString& accessible_name, QWidget* parent = nullptr);
  /// Shows them tightest first, what says nothing yet before all; chooses `chosen`, or the first when it is
  /// not there, and says which that is.
  qlonglong show_entries(std::vector<RoomEntry> entries, qlonglong chosen);
  qlonglong chosen() const;
  const std::vector<RoomEntry>& entries() const { return entries_; }

signals:
  void chosen_by_hand(qlonglong id);

private:
  std::vector<RoomEntry> entries_;
  bool filling_ = false;
};

} // namespace datrin::app
