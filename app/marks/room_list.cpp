#include "app/marks/room_list.h"

#include "app/marks/room_mark.h"
#include "app/theme.h"
#include "quantity/length_text.h"
#include "sheets/figures.h"

#include <QPainter>
#include <QStyledItemDelegate>

#include <algorithm>

namespace datrin::app {

namespace {

constexpr double full_room = 3; ///< that fills the mark

class RoomDelegate : public QStyledItemDelegate {
public:
  RoomDelegate(const RoomList& list, QObject* parent) : QStyledItemDelegate(parent), list_(list) {}

  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
    return {100, theme().ipx(66)};
  }

  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto row = static_cast<std::size_t>(index.row());
    if (row >= list_.entries().size()) return;
    const auto& e = list_.entries()[row];
    const auto& t = theme();
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    const QRectF area = QRectF(option.rect).adjusted(0.5, 1.5, -0.5, -1.5);
    const bool here = option.state & QStyle::State_Selected;
    if (here) {
      p->setPen(QPen(list_.hasFocus() ? t.brass : t.hairline, 1));
      p->setBrush(t.raised);
      p->drawRoundedRect(area, 5, 5);
    }
    // Two rings, hole and shaft: dashed while nothing is made, the inner one filled when all is.
    const double r = t.picture_px(13);
    const QPointF middle(area.left() + t.picture_px(20), area.top() + t.px(21));
    QPen ring(here ? t.ink : t.muted, 1.4);
    p->setBrush(Qt::NoBrush);
    p->setPen(ring);
    if (e.made == 0) ring.setDashPattern({2, 2});
    p->setPen(ring);
    p->drawEllipse(middle, r, r);
    ring.setStyle(e.made == 2 ? Qt::SolidLine : Qt::DashLine);
    p->setPen(ring);
    p->setBrush(e.made == 2 ? QBrush(t.track) : QBrush(Qt::NoBrush));
    p->drawEllipse(middle, r * 0.72, r * 0.72);
    const double left = area.left() + t.picture_px(41), right = area.right() - t.px(8);
    p->setFont(t.text(here));
    p->setPen(t.ink);
    p->drawText(QRectF(left, area.top() + t.px(4), right - left, t.px(20)), Qt::AlignLeft | Qt::AlignVCenter,
                p->fontMetrics().elidedText(e.name, Qt::ElideRight, static_cast<int>(right - left)));
    p->setFont(t.small());
    p->setPen(t.muted);
    p->drawText(QRectF(left, area.top() + t.px(24), right - left, t.px(17)), Qt::AlignLeft | Qt::AlignVCenter,
                p->fontMetrics().elidedText(e.what + " \u00B7 " + e.below, Qt::ElideRight,
                                            static_cast<int>(right - left)));
    const double figure_width = t.px(44);
    const auto state = e.known ? room_state(e.room, e.limiting, 1) : RoomState::unknown;
    paint_room(*p, QRectF(left, area.top() + t.px(44), right - left - figure_width - 6, t.px(12)), e.room,
               full_room, state);
    p->setFont(t.text());
    p->setPen(state == RoomState::gone ? t.gone : t.ink);
    p->drawText(QRectF(right - figure_width, area.top() + t.px(41), figure_width, t.px(18)),
                Qt::AlignRight | Qt::AlignVCenter,
                e.known ? sheets::qt(number_text(e.room, 1, true)) : QString("\u2013"));
    p->restore();
  }

private:
  const RoomList& list_;
};

} // namespace

RoomList::RoomList(const QString& name, QWidget* parent) : QListWidget(parent) {
  setAccessibleName(name);
  setProperty("painted", true); // the chosen row shows the focus
  setItemDelegate(new RoomDelegate(*this, this));
  setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setUniformItemSizes(true);
  connect(this, &QListWidget::currentRowChanged, this, [this](int row) {
    if (filling_ || row < 0 || row >= static_cast<int>(entries_.size())) return;
    emit chosen_by_hand(entries_[static_cast<std::size_t>(row)].id);
  });
}

qlonglong RoomList::show_entries(std::vector<RoomEntry> entries, qlonglong chosen) {
  std::stable_sort(entries.begin(), entries.end(), [](const auto& first, const auto& second) {
    return first.known != second.known ? second.known : first.known && first.room < second.room;
  });
  const auto is_there = [&](const RoomEntry& e) { return e.id == chosen; };
  if (std::none_of(entries.begin(), entries.end(), is_there))
    chosen = entries.empty() ? 0 : entries.front().id;
  filling_ = true;
  entries_ = entries;
  while (count() > static_cast<int>(entries.size())) delete takeItem(count() - 1);
  while (count() < static_cast<int>(entries.size())) addItem(new QListWidgetItem);
  for (int k = 0; k < count(); ++k) {
    const auto& e = entries[static_cast<std::size_t>(k)];
    const auto words =
        QString("%1, %2, %3: room %4")
            .arg(e.name, e.what, e.below,
                 e.known ? QString("%1, %2").arg(sheets::qt(number_text(e.room, 1, true)),
                                                 room_state_name(room_state(e.room, e.limiting, 1)))
                         : QString("not known"));
    if (item(k)->data(Qt::AccessibleTextRole).toString() != words) {
      item(k)->setData(Qt::AccessibleTextRole, words);
      item(k)->setToolTip(words);
    }
    if (e.id == chosen) setCurrentRow(k);
  }
  if (entries.empty()) setCurrentRow(-1);
  filling_ = false;
  viewport()->update();
  return chosen;
}

qlonglong RoomList::chosen() const {
  const int row = currentRow();
  return row >= 0 && row < static_cast<int>(entries_.size()) ? entries_[static_cast<std::size_t>(row)].id : 0;
}

} // namespace datrin::app
