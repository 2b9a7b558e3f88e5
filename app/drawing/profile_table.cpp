#include "app/drawing/profile_table.h"

#include "app/marks/length_edit.h"
#include "app/theme.h"
#include "sheets/figures.h"

#include <QHeaderView>
#include <QSignalBlocker>

namespace datrin::app {

using build::ProfilePoint;
using sheets::qt;

ProfileTable::ProfileTable(QWidget* parent) : QTableWidget(0, 3, parent) {
  horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  horizontalHeader()->setHighlightSections(false);
  verticalHeader()->hide();
  verticalHeader()->setDefaultSectionSize(theme().ipx(24));
  setShowGrid(false);
  setEditTriggers(AnyKeyPressed | DoubleClicked | EditKeyPressed);
  setSelectionMode(SingleSelection);
  setTabKeyNavigation(false);
  setAccessibleName("Profile of what is turned");
  setToolTip("A new place goes into the last row; emptied, a place goes.");
  connect(this, &QTableWidget::itemChanged, this, &ProfileTable::take);
}

void ProfileTable::show_profile(const std::vector<ProfilePoint>& profile, Unit unit) {
  if (profile_ == profile && unit_ == unit && rowCount() > 0) return;
  profile_ = profile;
  unit_ = unit;
  show_rows();
}

void ProfileTable::show_rows() {
  const QSignalBlocker quiet(this);
  const int row = currentRow(), column = currentColumn();
  const auto unit = qt(unit_name(unit_));
  setHorizontalHeaderLabels({"Up, " + unit, "\u2300, " + unit, "Arc, " + unit});
  for (int c = 0; c < 3; ++c) horizontalHeaderItem(c)->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
  horizontalHeaderItem(arc)->setToolTip(
      "Radius of the arc from the place above: bulging; with a minus hollow; empty: straight.");
  setRowCount(static_cast<int>(profile_.size()) + 1);
  const auto cell = [&](int r, int c, const QString& text) {
    auto* item = new QTableWidgetItem(text);
    item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    setItem(r, c, item);
  };
  for (int r = 0; r < rowCount(); ++r) {
    const bool there = r < static_cast<int>(profile_.size());
    const auto p = there ? profile_[static_cast<std::size_t>(r)] : ProfilePoint{};
    cell(r, up, there ? sheets::figure(p.at, unit_) : QString());
    cell(r, diameter, there ? sheets::figure(p.diameter, unit_) : QString());
    cell(r, arc, there && p.arc != 0 ? sheets::figure(p.arc, unit_) : QString());
  }
  constexpr int shown = 7;
  setFixedHeight(horizontalHeader()->sizeHint().height() +
                 std::min(rowCount(), shown) * verticalHeader()->defaultSectionSize() + 4);
  if (row >= 0 && row < rowCount()) setCurrentCell(row, std::max(0, column));
}

void ProfileTable::take(QTableWidgetItem* item) {
  const auto r = static_cast<std::size_t>(item->row());
  const int c = item->column();
  const auto text = item->text().trimmed();
  auto changed = profile_;
  const bool begun = r >= changed.size();
  if (begun) {
    if (text.isEmpty()) return;
    // A new place begins where the last one is.
    changed.push_back(profile_.empty() ? ProfilePoint{} : profile_.back());
    changed.back().arc = 0;
  }
  if (text.isEmpty() && c != arc) {
    changed.erase(changed.begin() + static_cast<std::ptrdiff_t>(r));
  } else {
    const auto length = text.isEmpty()
                            ? TypedLength{}
                            : typed_length(text, unit_, c == arc ? LengthRule() : must_not_be_negative);
    if (!text.isEmpty() && !length.ok()) {
      emit not_understood(filled("Place %1, %2: %3. It stays as it was.", static_cast<int>(r) + 1,
                                 horizontalHeaderItem(c)->text(), length.wrong));
      show_rows();
      return;
    }
    auto& p = changed[r];
    const double mm = text.isEmpty() ? 0 : length.mm;
    (c == up ? p.at : c == diameter ? p.diameter : p.arc) = mm;
  }
  emit typed(changed);
}

} // namespace datrin::app
