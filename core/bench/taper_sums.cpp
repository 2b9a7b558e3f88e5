#include "bench/sum_lists.h"

#include "quantity/table.h"
#include "sum_words_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

namespace datrin::bench {

namespace {

/// Diameter lost per length, from whichever of the rates is given; all must agree.
struct Rates {
  std::optional<double> rate;
  std::string from, wrong;

  void add(double other, const std::string& name) {
    constexpr double same = 1e-4; // of the rate: as near as people round a taper
    if (!rate) {
      rate = other;
      from = name;
    } else if (std::abs(other - *rate) > same * std::max(std::abs(*rate), 1e-3)) {
      wrong = fmt::format("{} and {} do not agree: leave one of them empty", from, name);
    }
  }
};

SumAnswer taper(const SumValues& v, Unit) {
  constexpr double foot = 12 * mm_per_inch;
  const bool large = v.given("Large end"), small = v.given("Small end"), length = v.given("Length");
  for (const char* field : {"Large end", "Small end", "Length"})
    if (v.given(field) && !(v(field) > 0)) return wrong(fmt::format("{}: must be above 0", field));
  Rates rates;
  if (v.given("Taper per foot")) rates.add(v("Taper per foot") / foot, "Taper per foot");
  if (v.given("1 in n on the diameter")) {
    if (!(v("1 in n on the diameter") > 0)) return wrong("1 in n on the diameter: must be above 0");
    rates.add(1 / v("1 in n on the diameter"), "1 in");
  }
  for (const auto& [field, half] : {std::pair{"Included angle", 0.5}, {"Angle of one side", 1.0}}) {
    if (!v.given(field)) continue;
    if (!(v(field) > 0) || v(field) * half >= pi / 2)
      return wrong(fmt::format("{}: above 0, and less than a right angle a side", field));
    rates.add(2 * std::tan(v(field) * half), field);
  }
  if (large && small && length)
    rates.add((v("Large end") - v("Small end")) / v("Length"), "the ends and the length");
  if (!rates.wrong.empty()) return wrong(rates.wrong);
  if (!rates.rate)
    return wrong("Give two ends and the length, or any two of them and the taper, or the taper alone");
  const double rate = *rates.rate;
  if (!(rate > 0)) return wrong("Large end: must be above the small end");
  double l = v("Large end"), s = v("Small end"), along = v("Length");
  const bool all = (large ? 1 : 0) + (small ? 1 : 0) + (length ? 1 : 0) >= 2;
  if (all && !large) l = s + rate * along;
  if (all && !small) s = l - rate * along;
  if (all && !length) along = (l - s) / rate;
  if (all && s < 0) return wrong("Length: the taper comes to a point before that");
  if (all && along < 0) return wrong("Large end: must be above the small end");
  std::vector<SumLine> lines;
  if (all) {
    lines.push_back(
        {"large end", Quantity::length, l, large ? "as given" : "small + taper \u00B7 length", "large"});
    lines.push_back(
        {"small end", Quantity::length, s, small ? "as given" : "large \u2212 taper \u00B7 length", "small"});
    lines.push_back(
        {"length", Quantity::length, along, length ? "as given" : "(large \u2212 small) / taper", "length"});
  }
  lines.push_back(
      {"taper per foot, on the diameter", Quantity::length, rate * foot, "taper \u00B7 12 in", "per_foot"});
  lines.push_back({"1 in n on the diameter", Quantity::number, 1 / rate, "1 / taper", "one_in"});
  lines.push_back(
      {"included angle", Quantity::angle, 2 * std::atan(rate / 2), "2 atan(taper / 2)", "included"});
  lines.push_back({"angle of one side", Quantity::angle, std::atan(rate / 2),
                   "half of it: what the slide is set to", "side"});
  return right(lines);
}

SumAnswer bolt_circle(const SumValues& v, Unit) {
  if (!(v("Circle, diameter") > 0)) return wrong("Circle, diameter: must be above 0");
  const auto holes = static_cast<int>(v("Holes"));
  if (holes > 200) return wrong("Holes: at most 200");
  const double radius = v("Circle, diameter") / 2;
  std::vector<SumLine> lines;
  for (int k = 0; k < holes; ++k) {
    const double at = v("First hole at") + 2 * pi * k / holes;
    for (const bool across : {true, false}) {
      const double value =
          across ? v("Centre, x") + radius * std::cos(at) : v("Centre, y") + radius * std::sin(at);
      constexpr double no_more_than_rounding = 1e-12; // mm
      lines.push_back({fmt::format("hole {}, {}", k + 1, across ? "x" : "y"), Quantity::length,
                       std::abs(value) < no_more_than_rounding ? 0 : value,
                       fmt::format("R \u00B7 {}({:g}\u00B0)", across ? "cos" : "sin", degrees(at)),
                       fmt::format("{}_{}", across ? "x" : "y", k + 1)});
    }
  }
  lines.push_back({"between neighbours", Quantity::length, holes < 2 ? 0 : 2 * radius * std::sin(pi / holes),
                   "D \u00B7 sin(180\u00B0 / n)", "chord"});
  return right(lines, "Counter-clockwise from +x, looking at the face that is drilled.");
}

} // namespace

void add_taper_sums(std::vector<Sum>& list) {
  const std::string group = "Cutting";
  list.push_back(
      {"taper",
       group,
       "Tapers, every way they are given",
       "Ends and length, per foot, 1 in n, or the angle: give enough of it, the rest follows. All on the "
       "diameter but the angle of one side.",
       {{"Large end", Quantity::length, true, "", "large"},
        {"Small end", Quantity::length, true, "", "small"},
        {"Length", Quantity::length, true, "", "length"},
        {"Taper per foot", Quantity::length, true, "0.6 in", "per_foot"},
        {"1 in n on the diameter", Quantity::number, true, "20", "one_in"},
        {"Included angle", Quantity::angle, true, "", "included", {}, TaperOf::cone},
        {"Angle of one side", Quantity::angle, true, "", "side"}},
       taper});
  list.push_back({"bolt-circle",
                  group,
                  "Holes on a circle",
                  "Where each hole stands, from the middle or from any corner.",
                  {{"Circle, diameter", Quantity::length, false, "", "circle"},
                   {"Holes", Quantity::count, false, "", "holes"},
                   {"First hole at", Quantity::angle, true, "0\u00B0: to the right", "start"},
                   place({"Centre, x", Quantity::length, true, "0", "x"}),
                   place({"Centre, y", Quantity::length, true, "0", "y"})},
                  bolt_circle});
}

void add_trade_words(std::vector<Sum>& list) {
  const auto table = read_table(data::sum_words_csv);
  for (const auto& row : table.rows)
    for (auto& sum : list)
      if (row.size() > 1 && sum.id == row[0]) sum.trade = row[1];
}

} // namespace datrin::bench
