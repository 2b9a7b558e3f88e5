#include "app/batch/batch_model.h"

#include "app/marks/length_edit.h"
#include "app/theme.h"
#include "build/now.h"
#include "drawing/dimension_limits.h"
#include "quantity/angle.h"
#include "readings/measure.h"
#include "sheets/figures.h"

#include <algorithm>
#include <cmath>

namespace datrin::app {

using batch::CellVerdict;
using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

BatchModel::BatchModel(Document& document, TargetsState& targets, QObject* parent)
    : QAbstractTableModel(parent), document_(document), targets_(targets) {}

void BatchModel::show_sheet(batch::BatchSheet sheet) {
  const auto same_shape = [&] {
    const auto rows = std::equal(sheet.rows.begin(), sheet.rows.end(), sheet_.rows.begin(), sheet_.rows.end(),
                                 [](const auto& a, const auto& b) { return a.piece == b.piece; });
    return rows && std::equal(sheet.columns.begin(), sheet.columns.end(), sheet_.columns.begin(),
                              sheet_.columns.end(),
                              [](const auto& a, const auto& b) { return a.dimension == b.dimension; });
  };
  if (same_shape() && rowCount() > 0 && columnCount() > 0) { // whoever types in it goes on
    sheet_ = std::move(sheet);
    emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
    emit headerDataChanged(Qt::Horizontal, 0, columnCount() - 1);
    emit headerDataChanged(Qt::Vertical, 0, rowCount() - 1);
    return;
  }
  beginResetModel();
  sheet_ = std::move(sheet);
  endResetModel();
}

int BatchModel::rowCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(sheet_.rows.size());
}

int BatchModel::columnCount(const QModelIndex& parent) const {
  return parent.isValid() ? 0 : static_cast<int>(sheet_.columns.size());
}

build::Made BatchModel::made(const QModelIndex& index) const {
  return {sheet_.columns[static_cast<std::size_t>(index.column())].dimension,
          sheet_.rows[static_cast<std::size_t>(index.row())].piece};
}

QString BatchModel::size(const QModelIndex& index, double value) const {
  return sheet_.columns[static_cast<std::size_t>(index.column())].angle ? qt(angle_text(value))
                                                                        : fit_figure(value, document_.unit());
}

QString BatchModel::past(const QModelIndex& index, double over) const {
  const auto unit = document_.unit();
  if (sheet_.columns[static_cast<std::size_t>(index.column())].angle) return qt(angle_text(std::abs(over)));
  const auto by = fine_figure(std::abs(over), unit);
  return by == fine_figure(0, unit) ? QString() : QString("%1\u202F%2").arg(by, sheets::fine_unit(unit));
}

QString BatchModel::shown(const QModelIndex& index) const {
  const auto& cell =
      sheet_.rows[static_cast<std::size_t>(index.row())].cells[static_cast<std::size_t>(index.column())];
  const auto make = cell.make ? size(index, *cell.make) : QString();
  if (cell.verdict == CellVerdict::empty) return cell.make ? "make " + make : QString();
  auto text = (cell.now.bound == build::Bound::below   ? QString("< ")
               : cell.now.bound == build::Bound::above ? QString("> ")
                                                       : QString()) +
              size(index, cell.now.value);
  if (cell.verdict == CellVerdict::metal_on) return make.isEmpty() ? text : text + " \u2192 " + make;
  if (cell.verdict == CellVerdict::undecided) return text + "  ?";
  if (cell.verdict != CellVerdict::out) return text;
  const auto by = past(index, cell.over);
  if (by.isEmpty()) return text + (cell.over > 0 ? "  just over" : "  just under");
  return text + "  " + (cell.over > 0 ? QString("+") : QString(QChar(0x2212))) + by;
}

QString BatchModel::said(const QModelIndex& index) const {
  const auto& row = sheet_.rows[static_cast<std::size_t>(index.row())];
  const auto& cell = row.cells[static_cast<std::size_t>(index.column())];
  const auto& column = sheet_.columns[static_cast<std::size_t>(index.column())];
  const auto with_unit = [&](double value) {
    return size(index, value) + (column.angle ? QString() : " " + qt(unit_name(document_.unit())));
  };
  auto name = filled("No. %1, %2: ", row.number, name_words(column.name));
  if (const auto found = refused_.find({made(index).dimension, row.piece}); found != refused_.end())
    return filled("%1\"%2\" is not kept: %3", name, found->second.text, found->second.why);
  if (!row.rejected.empty()) return name + "rejected, " + name_words(row.rejected);
  const auto make = cell.make ? "; make " + with_unit(*cell.make) : QString();
  switch (cell.verdict) {
  case CellVerdict::empty:
    return name + "not read" + make;
  case CellVerdict::good:
    return name + with_unit(cell.now.value) + ", as it should be";
  case CellVerdict::metal_on:
    return name + with_unit(cell.now.value) + ", metal still on" + make;
  case CellVerdict::out: {
    const auto by = past(index, cell.over);
    return filled("%1%2, out: %3 too %4", name, with_unit(cell.now.value), by.isEmpty() ? "just" : by,
                  cell.over > 0 ? "large" : "small");
  }
  case CellVerdict::undecided: {
    const auto& band = cell.band;
    const auto between = std::isfinite(band.low) && std::isfinite(band.high)
                             ? filled("between %1 and %2", with_unit(band.low), with_unit(band.high))
                         : std::isfinite(band.low) ? "above " + with_unit(band.low)
                                                   : "below " + with_unit(band.high);
    return filled("%1%2: cannot be decided, it is %3", name, with_unit(cell.now.value), between);
  }
  case CellVerdict::unknown:
    return name + with_unit(cell.now.value) + ", it has no limits";
  }
  return name;
}

Reckoning BatchModel::why(const QModelIndex& index) const {
  if (!index.isValid()) return {};
  const auto& cell =
      sheet_.rows[static_cast<std::size_t>(index.row())].cells[static_cast<std::size_t>(index.column())];
  if (sheet_.columns[static_cast<std::size_t>(index.column())].angle) return {}; // a card adds lengths
  if (cell.now.read()) return readings::reading_sum(document_.build(), made(index));
  const auto& targets = targets_.now();
  const int k = targets.index_of(made(index));
  return cell.make && k >= 0 ? chains::target_sum(targets.input, targets.result, k) : Reckoning{};
}

void BatchModel::forget_refused() {
  refused_.clear();
}

QVariant BatchModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid()) return {};
  const auto& row = sheet_.rows[static_cast<std::size_t>(index.row())];
  const auto& cell = row.cells[static_cast<std::size_t>(index.column())];
  const auto found = refused_.find({made(index).dimension, row.piece});
  const bool is_refused = found != refused_.end();
  switch (role) {
  case Qt::DisplayRole:
    return is_refused ? found->second.text : shown(index);
  case Qt::EditRole:
    if (is_refused) return found->second.text;
    if (!cell.now.read()) return QString();
    return cell.now.measurement && !cell.now.measurement->read.empty() ? qt(cell.now.measurement->read)
                                                                       : size(index, cell.now.value);
  case Qt::TextAlignmentRole:
    return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
  case Qt::ToolTipRole:
  case Qt::AccessibleTextRole:
    return said(index);
  case Qt::ForegroundRole:
    if (is_refused || cell.verdict == CellVerdict::out) return theme().gone;
    if (!row.rejected.empty() || cell.verdict == CellVerdict::empty) return theme().muted;
    if (cell.verdict == CellVerdict::metal_on || cell.verdict == CellVerdict::undecided) return theme().brass;
    return cell.verdict == CellVerdict::good ? theme().good : theme().ink;
  case Qt::FontRole:
    if (!row.rejected.empty()) {
      auto font = theme().text();
      font.setStrikeOut(true);
      return font;
    }
    return {};
  default:
    return {};
  }
}

QVariant BatchModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation == Qt::Vertical) {
    const auto& row = sheet_.rows[static_cast<std::size_t>(section)];
    if (role == Qt::DisplayRole) return filled("%1%2", row.number, row.rejected.empty() ? "" : " \u2715");
    if (role == Qt::ToolTipRole && !row.rejected.empty()) return "Rejected: " + name_words(row.rejected);
    return {};
  }
  if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
  const auto& column = sheet_.columns[static_cast<std::size_t>(section)];
  const auto* d = document_.build().find<build::Dimension>(column.dimension);
  const auto limits = d ? qt(drawing::dimension_text(*d, document_.unit())) : QString();
  return name_words(column.name) + "\n" + limits;
}

Qt::ItemFlags BatchModel::flags(const QModelIndex& index) const {
  auto flags = QAbstractTableModel::flags(index);
  if (index.isValid() && sheet_.rows[static_cast<std::size_t>(index.row())].rejected.empty())
    flags |= Qt::ItemIsEditable;
  return flags;
}

bool BatchModel::setData(const QModelIndex& index, const QVariant& value, int role) {
  if (role != Qt::EditRole || !index.isValid()) return false;
  const auto text = value.toString();
  if (text == data(index, Qt::EditRole).toString()) return true; // nothing typed
  return keep({{index, text}}) == 1;
}

std::size_t BatchModel::keep(const std::vector<std::pair<QModelIndex, QString>>& cells) {
  std::vector<batch::TypedReading> typed;
  for (const auto& [index, text] : cells) {
    typed.push_back({made(index), text.toStdString()});
    refused_.erase({typed.back().made.dimension, typed.back().made.piece});
  }
  const batch::ReadingsContext context{instrument_, build::utc_now(), entry_options(document_.unit()),
                                       angle_options()};
  auto kept = batch::keep_readings(document_.build(), typed, context);
  QString why;
  for (const auto& r : kept.refused) {
    const auto& m = typed[r.at].made;
    const auto text = cells[r.at].second;
    refused_[{m.dimension, m.piece}] = {text, qt(r.why)};
    if (why.isEmpty())
      why = filled("%1: \"%2\" is not kept: %3", name_words(build::made_name(document_.build(), m)), text,
                   qt(r.why));
  }
  if (!kept.edit.empty()) document_.apply(kept.edit); // shows the sheet anew
  emit dataChanged(index(0, 0),
                   index(rowCount() - 1, columnCount() - 1)); // words that were refused come and go
  if (!why.isEmpty()) {
    emit refused(kept.refused.size() == 1 ? why : filled("%1 And %2 more.", why, kept.refused.size() - 1));
  }
  return kept.kept;
}

QString BatchModel::paste(const QModelIndex& at, const QString& block) {
  if (!at.isValid()) return "Choose the cell where it begins.";
  std::vector<std::pair<QModelIndex, QString>> cells;
  int beyond = 0;
  int row = at.row();
  const auto lines = block.split('\n');
  for (const auto& line : lines) {
    if (line.trimmed().isEmpty()) {
      ++row;
      continue;
    }
    int column = at.column();
    for (const auto& text : line.split('\t')) {
      const auto cell = index(row, column++);
      if (text.trimmed().isEmpty()) continue; // an empty cell says nothing, it takes nothing back
      if (cell.isValid() && flags(cell).testFlag(Qt::ItemIsEditable))
        cells.emplace_back(cell, text.trimmed());
      else
        ++beyond;
    }
    ++row;
  }
  const auto kept = keep(cells);
  auto words = filled("%1 of %2 readings taken.", kept, cells.size());
  if (beyond > 0) words += filled(" %1 had no place: beyond the sheet, or of a rejected piece.", beyond);
  return words;
}

QString BatchModel::block_text(int top, int left, int bottom, int right) const {
  QStringList lines;
  for (int r = top; r <= bottom; ++r) {
    QStringList cells;
    for (int c = left; c <= right; ++c) {
      const auto& cell = sheet_.rows[static_cast<std::size_t>(r)].cells[static_cast<std::size_t>(c)];
      // Spreadsheets read a hyphen, not the true minus of the screen.
      cells << (cell.now.read() ? size(index(r, c), cell.now.value).replace(QChar(0x2212), '-') : QString());
    }
    lines << cells.join('\t');
  }
  return lines.join('\n') + '\n';
}

} // namespace datrin::app
