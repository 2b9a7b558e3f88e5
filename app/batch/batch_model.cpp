#include "app/batch/batch_model.h"

#include "app/marks/length_edit.h"
#include "app/theme.h"
#include "build/now.h"
#include "drawing/dimension_limits.h"
#include "quantity/angle.h"
#include "sheets/figures.h"

#include <algorithm>
#include <cmath>

namespace datrin::app {

using batch::CellVerdict;
using sheets::fine_figure;
using sheets::fit_figure;
using sheets::qt;

BatchModel::BatchModel(Document& document, QObject* parent)
    : QAbstractTableModel(parent), document_(document) {}

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

QString BatchModel::shown(const batch::BatchCell& cell) const {
  const auto unit = document_.unit();
  if (cell.verdict == CellVerdict::empty)
    return cell.make ? QString("make %1").arg(fit_figure(*cell.make, unit)) : QString();
  auto text = (cell.now.bound == build::Bound::below   ? QString("< ")
               : cell.now.bound == build::Bound::above ? QString("> ")
                                                       : QString()) +
              fit_figure(cell.now.value, unit);
  if (cell.verdict == CellVerdict::metal_on)
    return cell.make ? QString("%1 \u2192 %2").arg(text, fit_figure(*cell.make, unit)) : text + " \u2192";
  if (cell.verdict == CellVerdict::out) {
    const auto by = fine_figure(std::abs(cell.over), unit);
    if (by == fine_figure(0, unit)) return text + (cell.over > 0 ? "  just over" : "  just under");
    return QString("%1  %2%3\u2009%4")
        .arg(text, cell.over > 0 ? "+" : QString(QChar(0x2212)), by, sheets::fine_unit(unit));
  }
  return text;
}

QString BatchModel::said(const QModelIndex& index) const {
  const auto& row = sheet_.rows[static_cast<std::size_t>(index.row())];
  const auto& cell = row.cells[static_cast<std::size_t>(index.column())];
  const auto unit = document_.unit();
  const auto size = [&](double mm) { return fit_figure(mm, unit) + " " + qt(unit_name(unit)); };
  auto name = filled("No. %1, %2: ", row.number,
                     name_words(sheet_.columns[static_cast<std::size_t>(index.column())].name));
  if (const auto found = refused_.find({made(index).dimension, row.piece}); found != refused_.end())
    return filled("%1\"%2\" is not kept: %3", name, found->second.text, found->second.why);
  if (!row.rejected.empty()) return name + "rejected, " + name_words(row.rejected);
  switch (cell.verdict) {
  case CellVerdict::empty:
    return name + (cell.make ? "not read; make " + size(*cell.make) : QString("not read"));
  case CellVerdict::good:
    return name + size(cell.now.value) + ", as it should be";
  case CellVerdict::metal_on:
    return name + size(cell.now.value) + ", metal still on" +
           (cell.make ? "; make " + size(*cell.make) : QString());
  case CellVerdict::out:
    return filled("%1%2, out: %3 %4 %5 its limit", name, size(cell.now.value),
                  fine_figure(std::abs(cell.over), unit), sheets::fine_unit(unit),
                  cell.over > 0 ? "over" : "under");
  case CellVerdict::unknown:
    return name + size(cell.now.value) + ", it has no limits";
  }
  return name;
}

QVariant BatchModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid()) return {};
  const auto& row = sheet_.rows[static_cast<std::size_t>(index.row())];
  const auto& cell = row.cells[static_cast<std::size_t>(index.column())];
  const auto found = refused_.find({made(index).dimension, row.piece});
  const bool is_refused = found != refused_.end();
  switch (role) {
  case Qt::DisplayRole:
    return is_refused ? found->second.text : shown(cell);
  case Qt::EditRole:
    if (is_refused) return found->second.text;
    if (!cell.now.read()) return QString();
    return cell.now.measurement && !cell.now.measurement->read.empty()
               ? qt(cell.now.measurement->read)
               : fit_figure(cell.now.value, document_.unit());
  case Qt::TextAlignmentRole:
    return static_cast<int>(Qt::AlignRight | Qt::AlignVCenter);
  case Qt::ToolTipRole:
  case Qt::AccessibleTextRole:
    return said(index);
  case Qt::ForegroundRole:
    if (is_refused || cell.verdict == CellVerdict::out) return theme().gone;
    if (!row.rejected.empty() || cell.verdict == CellVerdict::empty) return theme().muted;
    if (cell.verdict == CellVerdict::metal_on) return theme().brass;
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
  if (!why.isEmpty()) {
    emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
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
      cells << (cell.now.read() ? fit_figure(cell.now.value, document_.unit()).replace(QChar(0x2212), '-')
                                : QString());
    }
    lines << cells.join('\t');
  }
  return lines.join('\n') + '\n';
}

} // namespace datrin::app
