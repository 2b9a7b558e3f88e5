#include "chains/conflicts.h"

#include "chains/targets_parts.h"
#include "margin/least.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::chains {

namespace {

constexpr double as_held = 1e-9;       ///< mm: nearer than anybody could say
constexpr std::size_t most_named = 12; ///< conflicts of one part: whoever has more mends some first

/// One side of a condition or of a dimension, as a margin in mm over the numbers still to be made.
struct Row {
  ConflictWay limit;
  double offset = 0;
  std::vector<std::pair<int, double>> terms;
};

std::vector<Row> rows_of(const TargetsInput& in, const JoinedPart& part, int& columns) {
  std::map<int, int> column_of;
  for (const int d : part.dimensions)
    if (!in.dimensions[static_cast<std::size_t>(d)].measured)
      column_of.emplace(d, static_cast<int>(column_of.size()));
  columns = static_cast<int>(column_of.size());
  std::vector<Row> rows;
  for (const int k : part.conditions) {
    const auto& c = in.conditions[static_cast<std::size_t>(k)];
    double known = 0;
    std::map<int, double> sum; // a dimension may stand in several terms
    for (const auto& t : c.terms) {
      const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)];
      if (d.measured)
        known += t.coefficient * *d.measured;
      else
        sum[column_of.at(t.dimension)] += t.coefficient;
    }
    const std::vector<std::pair<int, double>> terms(sum.begin(), sum.end());
    auto less = terms;
    for (auto& term : less) term.second = -term.second;
    if (std::isfinite(c.least)) rows.push_back({{k, -1, false, 0}, known - c.least, terms});
    if (std::isfinite(c.most)) rows.push_back({{k, -1, true, 0}, c.most - known, less});
  }
  for (const auto& [d, column] : column_of) {
    const auto& dimension = in.dimensions[static_cast<std::size_t>(d)];
    if (!dimension.limited) continue;
    rows.push_back({{-1, d, false, 0}, -dimension.lower, {{column, 1}}});
    rows.push_back({{-1, d, true, 0}, dimension.upper, {{column, -1}}});
  }
  return rows;
}

/// Those of conditions with each other first (whoever wants something wants that mended, whatever the drawing
/// says), then those with the drawing's limits as well.
void name_conflicts(std::vector<Row>& rows, int columns, bool with_drawing, std::vector<Conflict>& out) {
  margin::LeastSolver solver;
  for (std::size_t round = 0; round < most_named; ++round) {
    margin::LinearMargins margins(columns);
    std::vector<std::size_t> row_of;
    for (std::size_t k = 0; k < rows.size(); ++k) {
      if (rows[k].limit.dimension >= 0 && !with_drawing) continue;
      margins.add_row(static_cast<int>(row_of.size()), rows[k].offset, rows[k].terms);
      row_of.push_back(k);
    }
    const auto best = solver.solve({&margins});
    if (!best.usable() || best.least >= -as_held) return;
    Conflict conflict;
    Row* eased = nullptr;
    double by = 0;
    for (std::size_t k = 0; k < row_of.size(); ++k) {
      const double share = best.multipliers[k];
      if (!(share > 1e-9)) continue;
      auto way = rows[row_of[k]].limit;
      way.by = -best.least / share;
      if (eased == nullptr || way.by < by - as_held) {
        eased = &rows[row_of[k]];
        by = way.by;
      }
      conflict.ways.push_back(way);
    }
    if (eased == nullptr) return;
    eased->offset += by;
    std::stable_sort(conflict.ways.begin(), conflict.ways.end(),
                     [](const auto& a, const auto& b) { return a.by < b.by - as_held; });
    out.push_back(std::move(conflict));
  }
}

} // namespace

bool Conflict::concerns_condition(int condition) const {
  return condition >= 0 &&
         std::any_of(ways.begin(), ways.end(), [&](const auto& way) { return way.condition == condition; });
}

bool Conflict::concerns_dimension(int dimension) const {
  return dimension >= 0 &&
         std::any_of(ways.begin(), ways.end(), [&](const auto& way) { return way.dimension == dimension; });
}

std::vector<Conflict> conflicts(const TargetsInput& in, const TargetsResult& result) {
  std::vector<Conflict> out;
  if (!result.usable()) return out;
  const auto short_of = [&](int c) {
    const auto& room = result.conditions[static_cast<std::size_t>(c)];
    return room.room * room.spread < -as_held;
  };
  const auto departs = [&](int d) {
    const auto* target = result.target(d);
    return target != nullptr && target->departs != 0;
  };
  const bool departed = std::any_of(result.targets.begin(), result.targets.end(),
                                    [](const Target& t) { return t.departs != 0; });
  if (result.feasible && !departed) return out;
  for (const auto& part : joined_parts(in))
    if (std::any_of(part.conditions.begin(), part.conditions.end(), short_of) ||
        std::any_of(part.dimensions.begin(), part.dimensions.end(), departs)) {
      int columns = 0;
      auto rows = rows_of(in, part, columns);
      name_conflicts(rows, columns, false, out);
      name_conflicts(rows, columns, true, out);
    }
  return out;
}

namespace {

/// Rounded up: what is typed as it stands in the sentence ends the conflict.
std::string change_text(double mm, Unit unit) {
  constexpr LengthTextOptions figures{.decimals_mm = 4, .decimals_inch = 5, .show_unit = true};
  const double step = unit == Unit::mm ? 1e-4 : 1e-5 * mm_per_inch;
  constexpr double as_exact = 1e-5; // of a step
  return length_text(std::ceil(mm / step - as_exact) * step, unit, figures);
}

} // namespace

std::string way_words(const TargetsInput& in, const ConflictWay& way, Unit unit) {
  const bool of_condition = way.condition >= 0;
  const auto& name = of_condition ? in.conditions[static_cast<std::size_t>(way.condition)].id
                                  : in.dimensions[static_cast<std::size_t>(way.dimension)].id;
  const char* side =
      of_condition ? (way.upper ? "most" : "least") : (way.upper ? "upper limit" : "lower limit");
  return fmt::format("the {} of {} must {} by {}", side, name, way.upper ? "grow" : "shrink",
                     change_text(way.by, unit));
}

Reckoning conflict_sum(const TargetsInput& in, const Conflict& conflict) {
  Reckoning sum;
  if (conflict.ways.empty()) return sum;
  const auto& least = conflict.ways.front();
  sum.title = "to end it, at the least";
  const auto put = [&](const std::string& label, double mm, double factor, const char* from) {
    const double times = std::abs(factor);
    constexpr double once = 1e-6;
    sum.lines.push_back({std::abs(times - 1) < once ? label : label + fmt::format(" \u00D7 {:.4g}", times),
                         mm * factor, from});
  };
  for (const auto& way :
       conflict.ways) { // each limit weighs as the changes have it: numbers to be made fall out
    const double weight = least.by / way.by * (way.upper ? -1 : 1);
    const char* side = way.upper ? "most" : "least";
    if (way.dimension >= 0) {
      const auto& d = in.dimensions[static_cast<std::size_t>(way.dimension)];
      put(fmt::format("the {} limit of {}", way.upper ? "upper" : "lower", d.id),
          way.upper ? d.upper : d.lower, weight, "drawing");
      continue;
    }
    const auto& c = in.conditions[static_cast<std::size_t>(way.condition)];
    for (const auto& t : c.terms)
      if (const auto& d = in.dimensions[static_cast<std::size_t>(t.dimension)]; d.measured)
        put(d.id, *d.measured, -weight * t.coefficient, "measured");
    put(fmt::format("the {} of {}", side, c.id), way.upper ? c.most : c.least, weight, "condition");
  }
  if (const double rest = least.by - sum.total(); std::abs(rest) > as_held)
    sum.lines.push_back({"less what the changes before it leave", rest, "condition"});
  return sum;
}

std::string conflict_words(const TargetsInput& in, const Conflict& conflict, Unit unit) {
  if (conflict.ways.empty()) return {};
  std::string words;
  for (const auto& way : conflict.ways) {
    if (!words.empty()) words += ", or ";
    words += way_words(in, way, unit);
  }
  return words;
}

} // namespace datrin::chains
