#include "fits/bearing.h"

#include "bearing_clearances_csv.h"
#include "fits/press.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "rolling_bearings_csv.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::fits {

namespace {

const Table& rings() {
  static const auto t = read_table(data::rolling_bearings_csv);
  return t;
}

const Table& clearances() {
  static const auto t = read_table(data::bearing_clearances_csv);
  return t;
}

/// A cell in mm; nothing outside the table.
std::optional<double> cell(const Table& table, double size, const char* column) {
  const int row = table.row_up_to(size);
  if (row < 0 || !(size > 0)) return std::nullopt;
  const auto micrometres = table.number(static_cast<std::size_t>(row), table.column(column));
  if (!micrometres) return std::nullopt;
  return *micrometres * 1e-3;
}

} // namespace

std::optional<double> bearing_bore_under(double bore) {
  return cell(rings(), bore, "bore_under");
}
std::optional<double> bearing_outside_under(double outside) {
  return cell(rings(), outside, "outside_under");
}
double largest_bearing() {
  return rings().number(rings().rows.size() - 1, 0).value_or(0);
}

BearingResult bearing_clearance(const BearingInput& in) {
  BearingResult out;
  if (!(in.bore > 0) || !(in.outside > in.bore * 1.1)) {
    out.message = "a bearing has a bore above 0 and an outside at least a tenth larger";
    return out;
  }
  if (in.shaft == nullptr || in.housing == nullptr) {
    out.message = "the metals of shaft and housing must be known";
    return out;
  }
  static constexpr const char* least[] = {"c2_least", "cn_least", "c3_least"};
  static constexpr const char* most[] = {"c2_most", "cn_most", "c3_most"};
  const auto group = static_cast<std::size_t>(in.group);
  const auto low = cell(clearances(), in.bore, least[group]), high = cell(clearances(), in.bore, most[group]);
  if (!low || !high) {
    out.message =
        fmt::format("clearances are tabled for bores up to {} mm; take them from the maker's list",
                    number_text(clearances().number(clearances().rows.size() - 1, 0).value_or(0), 0));
    return out;
  }
  out.before_least = *low;
  out.before_most = *high;
  const auto& ring = *find_solid("steel").solid;
  const double section = in.outside - in.bore;
  const double inner = in.bore + 0.2 * section, outer = in.outside - 0.2 * section;
  const double hot = in.temperature;
  out.housing_interference_hot =
      in.housing_interference - in.outside * (in.housing->strain_at(hot) - ring.strain_at(hot));
  const double shaft_hot = in.shaft_interference + in.bore * (in.shaft->strain_at(hot) - ring.strain_at(hot));
  // What a raceway moves by for so much interference of its ring; none: nothing.
  const auto grows = [&](double interference, double& by) {
    if (!(interference > 0)) return true;
    const auto fit = press({in.bore, inner, in.shaft_bore, 1, interference, 0, 0, &ring, in.shaft, 0});
    by = fit.hub_grows;
    if (!fit.usable()) out.message = fit.message;
    return fit.usable();
  };
  const auto shrinks = [&](double interference, double& by) {
    if (!(interference > 0)) return true;
    const double thick = in.housing_outside > 0 ? in.housing_outside : 4 * in.outside;
    const auto fit = press({in.outside, thick, outer, 1, interference, 0, 0, in.housing, &ring, 0});
    by = fit.bore_shrinks;
    if (!fit.usable()) out.message = "housing: " + fit.message;
    return fit.usable();
  };
  if (!grows(in.shaft_interference, out.inner_grows) || !grows(shaft_hot, out.inner_grows_hot) ||
      !shrinks(in.housing_interference, out.outer_shrinks) ||
      !shrinks(out.housing_interference_hot, out.outer_shrinks_hot))
    return out;
  out.by_heat = ring.expansion * in.inner_hotter * (inner + outer) / 2;
  const double taken = out.inner_grows + out.outer_shrinks;
  const double taken_hot = out.inner_grows_hot + out.outer_shrinks_hot + out.by_heat;
  out.cold_least = out.before_least - taken;
  out.cold_most = out.before_most - taken;
  out.hot_least = out.before_least - taken_hot;
  out.hot_most = out.before_most - taken_hot;
  const auto fine = [&in](double mm) { return fine_text(mm, in.unit); };
  out.verdict = fmt::format("Left inside: {} to {} cold, {} to {} warm.", fine(out.cold_least),
                            fine(out.cold_most), fine(out.hot_least), fine(out.hot_most));
  if (out.hot_most <= 0)
    out.verdict += " It runs preloaded and will wear: a lighter fit, or a bearing with more clearance (C3).";
  else if (out.hot_least < 0)
    out.verdict += " A tight one may run preloaded when warm: choose by feel, or take C3.";
  if (out.housing_interference_hot < 0 && in.temperature > 21)
    out.verdict +=
        fmt::format(" At {} \u00B0C the outer ring is loose in the {} by {}: it may creep round unless "
                    "it is held.",
                    number_text(in.temperature, 0), in.housing->name, fine(-out.housing_interference_hot));
  out.ok = true;
  return out;
}

} // namespace datrin::fits
