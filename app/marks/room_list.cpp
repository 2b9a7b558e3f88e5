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
    if (e.made == chains::MadeSoFar::nothing) ring.setDashPattern({2, 2});
    p->setPen(ring);
    p->drawEllipse(middle, r, r);
    ring.setStyle(e.made == chains::MadeSoFar::all ? Qt::SolidLine : Qt::DashLine);
    p->setPen(ring);
    p->setBrush(e.made == chains::MadeSoFar::all ? QBrush(t.track) : QBrush(Qt::NoBrush));
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

void RoomModel::show_entries(std::vector<RoomEntry> entries) {
  const bool same = entries.size() == entries_.size() &&
                    std::equal(entries.begin(), entries.end(), entries_.begin(),
                               [](const auto& a, const auto& b) { return a.id == b.id; });
  if (!same) beginResetModel();
  entries_ = std::move(entries);
  if (!same)
    endResetModel();
  else if (!entries_.empty())
    emit dataChanged(index(0), index(rowCount() - 1));
}

int RoomModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(entries_.size());
}

QVariant RoomModel::data(const QModelIndex& at, int role) const {
  if (at.row() < 0 || at.row() >= rowCount()) return {};
  const auto& e = entries_[static_cast<std::size_t>(at.row())];
  if (role == Qt::DisplayRole) return e.name;
  if (role != Qt::AccessibleTextRole && role != Qt::ToolTipRole) return {};
  return QString("%1, %2, %3: room %4")
      .arg(e.name, e.what, e.below,
           e.known ? QString("%1, %2").arg(sheets::qt(number_text(e.room, 1, true)),
                                           room_state_name(room_state(e.room, e.limiting, 1)))
                   : QString("not known"));
}

RoomList::RoomList(const QString& name, QWidget* parent) : QListView(parent), model_(new RoomModel(this)) {
  setAccessibleName(name);
  setProperty("painted", true); // the chosen row shows the focus
  setModel(model_);
  setItemDelegate(new RoomDelegate(*this, this));
  setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setUniformItemSizes(true);
}

void RoomList::currentChanged(const QModelIndex& now, const QModelIndex& before) {
  QListView::currentChanged(now, before);
  if (!filling_ && now.isValid()) emit chosen_by_hand(chosen());
}

qlonglong RoomList::show_entries(std::vector<RoomEntry> entries, qlonglong chosen) {
  std::stable_sort(entries.begin(), entries.end(), [](const auto& first, const auto& second) {
    return first.known != second.known ? second.known : first.known && first.room < second.room;
  });
  auto found = std::find_if(entries.begin(), entries.end(), [&](const auto& e) { return e.id == chosen; });
  if (found == entries.end()) found = entries.begin();
  const int row = static_cast<int>(found - entries.begin());
  chosen = entries.empty() ? 0 : found->id;
  filling_ = true;
  model_->show_entries(std::move(entries));
  if (const auto at = model_->index(row); at != currentIndex()) setCurrentIndex(at);
  filling_ = false;
  return chosen;
}

qlonglong RoomList::chosen() const {
  const int row = currentIndex().row();
  return row >= 0 && row < count() ? entries()[static_cast<std::size_t>(row)].id : 0;
}

} // namespace datrin::app
