#include "app/casting/touch_model.h"

#include "app/marks/length_field.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "casting/settings.h"
#include "geometry/direction_text.h"
#include "quantity/text.h"
#include "sheets/figures.h"

namespace datrin::app {

using sheets::figure;
using sheets::qt;

TouchModel::TouchModel(Document& document, QObject* parent)
    : QAbstractTableModel(parent), document_(document) {}

void TouchModel::refresh() {
  auto touches = document_.build().touches_of(document_.piece());
  if (touches.same_ids(touches_)) {
    touches_ = std::move(touches);
    if (!touches_.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, column_count - 1));
    return;
  }
  beginResetModel();
  touches_ = std::move(touches);
  endResetModel();
}

void TouchModel::set_flagged(std::set<build::Id> flagged) {
  if (flagged == flagged_) return;
  flagged_ = std::move(flagged);
  if (!touches_.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, column_count - 1));
}

build::Id TouchModel::id_at(int row) const {
  return row >= 0 && row < static_cast<int>(touches_.size()) ? touches_[static_cast<std::size_t>(row)].first
                                                             : 0;
}
int TouchModel::row_of(build::Id id) const {
  for (std::size_t i = 0; i < touches_.size(); ++i)
    if (touches_[i].first == id) return static_cast<int>(i);
  return -1;
}
int TouchModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(touches_.size());
}
int TouchModel::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : column_count;
}

bool TouchModel::height_only(const build::Touch& touch) const {
  return casting::gives_heights(document_.build(), touch.piece, touch.setting);
}

QString TouchModel::text(const build::Touch& touch, int column) const {
  const auto unit = document_.unit();
  switch (column) {
  case surface: {
    const auto* s = document_.build().find<build::PartSurface>(touch.surface);
    return s ? name_words(s->name) : QString("?");
  }
  case x:
  case y: {
    if (!height_only(touch)) return figure(column == x ? touch.centre.x() : touch.centre.y(), unit);
    const double place = column == x ? touch.right : touch.up;
    return touch.right == 0 && touch.up == 0
               ? QString("\u2013")
               : (column == x ? "\u2192\u202F" : "\u2191\u202F") + figure(place, unit);
  }
  case z:
    return figure(touch.centre.z(), unit);
  case tip_radius:
    return touch.tip_radius > 0 ? figure(touch.tip_radius, unit) : QString();
  case toward:
    return touch.toward.norm() > 0 ? qt(direction_text(touch.toward.normalized())) : QString();
  case uncertainty:
    return touch.uncertainty > 0 ? figure(touch.uncertainty, unit) : QString();
  case setting:
    return name_words(touch.setting);
  case note:
    return qt(touch.note);
  default:
    return {};
  }
}

QVariant TouchModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid() || index.row() >= rowCount()) return {};
  const auto& touch = touches_[static_cast<std::size_t>(index.row())].second;
  const int c = index.column();
  if (role == Qt::DisplayRole && c == note) {
    QStringList words;
    if (touch.standing == build::TouchStanding::set_aside) words << "set aside";
    if (!touch.corrected.empty()) words << qt(touch.corrected);
    if (!touch.note.empty()) words << qt(touch.note);
    return words.join("; ");
  }
  if (role == Qt::DisplayRole && c == number)
    return (flagged_.contains(id_at(index.row())) ? QString("? ") : QString()) +
           QString::number(index.row() + 1);
  if (role == Qt::DisplayRole) return text(touch, c);
  if (role == Qt::EditRole) {
    if ((c == x || c == y) && height_only(touch))
      return qt(length_entry_text(c == x ? touch.right : touch.up, document_.unit()));
    if (c >= x && c <= z) return qt(length_entry_text(touch.centre[c - x], document_.unit()));
    if (c == tip_radius) return qt(length_entry_text(touch.tip_radius, document_.unit()));
    if (c == uncertainty) return qt(length_entry_text(touch.uncertainty, document_.unit()));
    if (c == setting) return whole(touch.setting);
    if (c == note) return whole(touch.note);
    if (const auto* s = document_.build().find<build::PartSurface>(touch.surface);
        c == surface && s != nullptr)
      return whole(s->name);
    return text(touch, c);
  }
  if (role == Qt::ForegroundRole && touch.standing == build::TouchStanding::set_aside) return theme().muted;
  if (role == Qt::ForegroundRole && flagged_.contains(id_at(index.row()))) return theme().gone;
  if (role == Qt::ToolTipRole && (c == x || c == y) && height_only(touch))
    return "Only its height is read. Where on its face: to the right of its middle, and up it.";
  if (role == Qt::ToolTipRole && !touch.corrected.empty()) return qt(touch.corrected);
  if (role == Qt::TextAlignmentRole && (c == number || (c >= x && c <= tip_radius) || c == uncertainty))
    return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
  return {};
}

bool TouchModel::setData(const QModelIndex& index, const QVariant& value, int role) {
  if (role != Qt::EditRole || !index.isValid() || index.row() >= rowCount()) return false;
  const auto id = id_at(index.row());
  const auto* now = document_.build().find<build::Touch>(id);
  if (now == nullptr) return false;
  auto touch = *now;
  const auto typed = value.toString().trimmed();
  const auto refuse = [&](const QString& why) {
    emit not_understood(filled("Touch %1, %2: %3. It stays as it was.", index.row() + 1,
                               headerData(index.column(), Qt::Horizontal, Qt::DisplayRole).toString(), why));
    return false;
  };
  const int c = index.column();
  if ((c >= x && c <= tip_radius) || c == uncertainty) {
    const auto length = typed_length(typed, document_.unit(), c > z ? must_not_be_negative : LengthRule());
    if (!length.ok()) return refuse(length.wrong);
    if (c < z && height_only(touch))
      (c == x ? touch.right : touch.up) = length.mm;
    else if (c <= z)
      touch.centre[c - x] = length.mm;
    else if (c == tip_radius)
      touch.tip_radius = length.mm;
    else
      touch.uncertainty = length.mm;
  } else if (c == toward) {
    const auto direction =
        typed.isEmpty() ? std::optional(Vec3(Vec3::Zero())) : parse_direction(typed.toStdString());
    if (!direction)
      return refuse("\"" + typed + "\" is not a direction; write +x, \u2212z, or three numbers");
    touch.toward = *direction;
  } else if (c == surface) {
    build::Id found = 0;
    std::vector<std::string> names;
    for (const auto& [surface_id, s] : document_.build().surfaces_of(document_.part())) {
      names.push_back(s.name);
      if (slug(s.name) == slug(typed.toStdString())) found = surface_id;
    }
    if (found == 0)
      return refuse(
          QString("no surface is called \"%1\"%2").arg(typed, qt(did_you_mean(typed.toStdString(), names))));
    touch.surface = found;
  } else if (c == setting) {
    touch.setting = typed.toStdString();
  } else if (c == note) {
    touch.note = typed.toStdString();
  }
  return document_.apply(build::change_touch(document_.build(), id, touch));
}

QVariant TouchModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation != Qt::Horizontal) return {};
  static const char* const names[] = {"No.",        "Surface", "x",      "y",       "z",
                                      "Tip radius", "Toward",  "\u00B1", "Setting", "Note"};
  if (role == Qt::DisplayRole && section < column_count) return whole(names[section]);
  if (role == Qt::TextAlignmentRole)
    return static_cast<int>(
        (section == number || (section >= x && section <= tip_radius) || section == uncertainty
             ? Qt::AlignRight
             : Qt::AlignLeft) |
        Qt::AlignVCenter);
  return {};
}

Qt::ItemFlags TouchModel::flags(const QModelIndex& index) const {
  auto flags = QAbstractTableModel::flags(index);
  if (index.isValid() && index.column() != number) flags |= Qt::ItemIsEditable;
  return flags;
}

} // namespace datrin::app
