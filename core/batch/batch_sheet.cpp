#include "batch/batch_sheet.h"

#include <algorithm>
#include <cmath>

namespace datrin::batch {

using namespace build;

namespace {

/// How much too large (above 0) or too small dimension `k` is for the condition that it misses by most; 0:
/// all of its conditions hold.
double past_its_mates(const chains::BuildTargets& targets, int k) {
  double most = 0;
  for (std::size_t c = 0; c < targets.input.conditions.size(); ++c) {
    const auto& condition = targets.input.conditions[c];
    const auto& room = targets.result.conditions[c];
    constexpr double held = -1e-9;
    if (room.room >= held) continue;
    for (const auto& t : condition.terms) {
      if (t.dimension != k || t.coefficient == 0) continue;
      const double limit = room.room_most < room.room_least ? condition.most : condition.least;
      const double by = (room.expected - limit) / t.coefficient;
      if (std::abs(by) > std::abs(most)) most = by;
    }
  }
  return most;
}

BatchCell cell_of(const Build& build, const Made& made, const Dimension& d,
                  const chains::BuildTargets* targets) {
  BatchCell cell;
  cell.now = readings::size_now(build, made);
  if (targets != nullptr) {
    if (const int k = targets->index_of(made);
        k >= 0) { // its mates know better whether it is as it should be
      cell.now = targets->sizes[static_cast<std::size_t>(k)];
      if (const auto* target = targets->result.target(k)) cell.make = target->make;
    }
  }
  if (!cell.now.read()) return cell;
  if (cell.now.standing == readings::Standing::metal_on) {
    cell.verdict = CellVerdict::metal_on;
    return cell;
  }
  if (!d.has_limits()) {
    const int k = targets != nullptr ? targets->index_of(made) : -1;
    cell.over = k >= 0 ? past_its_mates(*targets, k) : 0;
    cell.verdict = k < 0 ? CellVerdict::unknown : cell.over != 0 ? CellVerdict::out : CellVerdict::good;
    return cell;
  }
  const auto fits = readings::fits_limits(d, cell.now);
  cell.band = readings::band_of(cell.now);
  cell.verdict = fits == readings::Fits::yes  ? CellVerdict::good
                 : fits == readings::Fits::no ? CellVerdict::out
                                              : CellVerdict::undecided;
  if (fits != readings::Fits::no) return cell;
  // A gauge says that it is past the limit, not by how much: by a hair at least.
  constexpr double a_hair = 1e-9;
  cell.over = cell.band.high > d.most() ? std::max(cell.now.value - d.most(), a_hair)
                                        : std::min(cell.now.value - d.least(), -a_hair);
  return cell;
}

void sum_up(BatchSheet& sheet, std::size_t k) {
  auto& column = sheet.columns[k];
  std::vector<double> sizes;
  for (const auto& row : sheet.rows) {
    const auto& cell = row.cells[k];
    if (!row.rejected.empty() || cell.verdict == CellVerdict::empty) continue;
    ++column.read;
    column.out += cell.verdict == CellVerdict::out ? 1 : 0;
    column.undecided += cell.verdict == CellVerdict::undecided ? 1 : 0;
    if (!readings::is_of_gauges(cell.now)) sizes.push_back(cell.now.value);
  }
  if (sizes.empty()) return;
  const auto [least, most] = std::minmax_element(sizes.begin(), sizes.end());
  column.least = *least;
  column.most = *most;
  for (const double size : sizes) column.mean += size / static_cast<double>(sizes.size());
  if (sizes.size() < 2) return;
  double squares = 0;
  for (const double size : sizes) squares += (size - column.mean) * (size - column.mean);
  column.sigma = std::sqrt(squares / static_cast<double>(sizes.size() - 1));
}

} // namespace

BatchSheet batch_sheet(const Build& build, Id part, const chains::BuildTargets* targets) {
  BatchSheet sheet;
  const auto dimensions = build.dimensions_of(part);
  for (const auto& [id, d] : dimensions)
    sheet.columns.push_back({id, d.name, d.kind == DimensionKind::angle});
  ProgressInput done;
  for (const auto& [id, piece] : build.pieces_of(part)) {
    BatchRow row{id, piece.number, piece.rejected, {}, 0};
    std::string last;
    for (const auto& [dimension, d] : dimensions) {
      row.cells.push_back(cell_of(build, {dimension, id}, d, targets));
      if (row.cells.back().verdict == CellVerdict::empty) continue;
      ++row.read;
      last = std::max(last, row.cells.back().now.at);
    }
    if (!row.rejected.empty())
      ++done.rejected;
    else if (row.done())
      done.done_at.push_back(last);
    sheet.rows.push_back(std::move(row));
  }
  done.pieces = static_cast<int>(sheet.rows.size());
  sheet.progress = progress(done);
  for (std::size_t k = 0; k < sheet.columns.size(); ++k) sum_up(sheet, k);
  return sheet;
}

std::vector<SizeGroup> groups_of(const BatchSheet& sheet, std::size_t column, double width) {
  std::vector<SizedPiece> pieces;
  if (sheet.columns[column].angle) return {};
  for (const auto& row : sheet.rows)
    if (row.rejected.empty() && row.cells[column].now.read() &&
        !readings::is_of_gauges(row.cells[column].now))
      pieces.push_back({row.piece, row.number, row.cells[column].now.value});
  return size_groups(std::move(pieces), width);
}

} // namespace datrin::batch
