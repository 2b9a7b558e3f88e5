#include "bench/sum_lists.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/text.h"
#include "stock/choose.h"
#include "stock/cut_list.h"
#include "stock/nest.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::bench {

namespace {

/// "4 off 60, 2 x 45, 118" as lengths, each so often; nothing, and why in `wrong_at`, where one is none.
std::optional<std::vector<double>> counted_lengths(const std::string& text, Unit unit,
                                                   std::string& wrong_at) {
  std::vector<double> out;
  LengthOptions options;
  options.bare_unit = unit;
  std::string_view rest = text;
  while (!rest.empty()) {
    const auto comma = rest.find(',');
    std::string item(trimmed(rest.substr(0, comma)));
    rest = comma == std::string_view::npos ? std::string_view{} : rest.substr(comma + 1);
    if (item.empty()) continue;
    // "4 off 60", "4 x 60", "4x60": so many of them, in a list never a product.
    std::int64_t count = 1;
    const auto digits = item.find_first_not_of("0123456789");
    const auto after =
        digits == std::string::npos ? std::string_view{} : trimmed(std::string_view(item).substr(digits));
    for (const std::string_view mark : {"off ", "x", "\u00D7", "*"}) {
      if (digits == 0 || !after.starts_with(mark)) continue;
      count = whole_from(std::string_view(item).substr(0, digits)).value_or(0);
      item = std::string(trimmed(after.substr(mark.size())));
      if (count > 0) break;
      wrong_at = fmt::format("\"{}\": how many?", item);
      return std::nullopt;
    }
    const auto length = parse_length(item, options);
    if (!length.ok()) {
      wrong_at = fmt::format("\"{}\": {}", item, length.message);
      return std::nullopt;
    }
    constexpr std::int64_t most = 1000;
    if (count > most || out.size() > static_cast<std::size_t>(most)) {
      wrong_at = "at most 1000 pieces";
      return std::nullopt;
    }
    out.insert(out.end(), static_cast<std::size_t>(count), length.mm);
  }
  return out;
}

/// "60 x 40, 4 off 30 x 25, 6 x 20 x 20" as pieces, each so often; nothing, and why in `wrong_at`, where one
/// is none.
std::optional<std::vector<stock::NestPiece>> counted_pieces(const std::string& text, Unit unit,
                                                            std::string& wrong_at) {
  std::vector<stock::NestPiece> out;
  LengthOptions options;
  options.bare_unit = unit;
  std::string_view rest = text;
  while (!rest.empty()) {
    const auto comma = rest.find(',');
    const std::string item(trimmed(rest.substr(0, comma)));
    rest = comma == std::string_view::npos ? std::string_view{} : rest.substr(comma + 1);
    if (item.empty()) continue;
    std::vector<std::string> parts;
    std::string_view left = item;
    if (const auto off = left.find("off "); off != std::string_view::npos) {
      parts.emplace_back(trimmed(left.substr(0, off)));
      left = left.substr(off + 4);
    }
    while (true) {
      const auto ascii = left.find('x'), sign = left.find("\u00D7");
      const auto at = std::min(ascii, sign);
      parts.emplace_back(trimmed(left.substr(0, at)));
      if (at == std::string_view::npos) break;
      left = left.substr(at + (at == ascii ? 1 : std::string_view("\u00D7").size()));
    }
    std::int64_t count = 1;
    if (parts.size() == 3) {
      count = whole_from(parts[0]).value_or(0);
      parts.erase(parts.begin());
    }
    if (parts.size() != 2 || count < 1) {
      wrong_at = fmt::format("\"{}\": write 60 x 40, or 4 off 60 x 40", item);
      return std::nullopt;
    }
    double side[2] = {};
    for (int k = 0; k < 2; ++k) {
      const auto length = parse_length(parts[static_cast<std::size_t>(k)], options);
      if (!length.ok()) {
        wrong_at = fmt::format("\"{}\": {}", item, length.message);
        return std::nullopt;
      }
      side[k] = length.mm;
    }
    constexpr std::int64_t most = 500;
    if (count > most || out.size() > static_cast<std::size_t>(most)) {
      wrong_at = "at most 500 pieces";
      return std::nullopt;
    }
    out.insert(out.end(), static_cast<std::size_t>(count), stock::NestPiece{side[0], side[1]});
  }
  return out;
}

SumAnswer answer_sheet_list(const SumValues& v, Unit unit) {
  std::string why;
  const auto pieces = counted_pieces(v.text("Pieces"), unit, why);
  if (!pieces) return wrong("Pieces: " + why);
  stock::NestInput in;
  in.pieces = *pieces;
  in.sheet_length = v("Sheet, length");
  in.sheet_width = v("Sheet, width");
  if (v.given("Saw cut")) in.kerf = v("Saw cut");
  if (v.given("Edge not used")) in.edge = v("Edge not used");
  const auto r = stock::nest(in);
  if (!r.usable()) return wrong(r.message);
  const auto length = [&](double mm) {
    return length_text(mm, unit, {.decimals_mm = 1, .decimals_inch = 3});
  };
  std::vector<SumLine> lines{
      {"sheets", Quantity::count, static_cast<double>(r.sheets),
       r.sheets == r.least_sheets ? "no layout needs fewer" : fmt::format("at least {}", r.least_sheets)},
      {"left of the last, whole", Quantity::length, r.longest_left,
       "from the furthest piece and its cut to the end"},
      {"becomes pieces", Quantity::number, 100 * r.used, "per cent of the sheets"}};
  for (int sheet = 0; sheet < r.sheets; ++sheet) {
    std::string where;
    int count = 0;
    constexpr int most_told = 40;
    for (const auto& n : r.placed) {
      if (n.sheet != sheet) continue;
      ++count;
      const auto& piece = in.pieces[static_cast<std::size_t>(n.piece)];
      if (count <= most_told)
        where += fmt::format("{}{} x {} at {}, {}", where.empty() ? "" : "; ",
                             length(n.turned ? piece.width : piece.length),
                             length(n.turned ? piece.length : piece.width), length(n.x), length(n.y));
    }
    if (count > most_told) where += "; \u2026";
    lines.push_back(
        {fmt::format("pieces on sheet {}", sheet + 1), Quantity::count, static_cast<double>(count), where});
  }
  return right(lines);
}

SumAnswer answer_cut_list(const SumValues& v, Unit unit) {
  std::string why;
  const auto pieces = counted_lengths(v.text("Pieces"), unit, why);
  if (!pieces) return wrong("Pieces: " + why);
  const auto offcuts =
      counted_lengths(v.given("Offcuts at hand") ? v.text("Offcuts at hand") : "", unit, why);
  if (!offcuts) return wrong("Offcuts at hand: " + why);
  stock::CutListInput in;
  in.pieces = *pieces;
  in.offcuts = *offcuts;
  in.bar = v("Bar");
  if (v.given("Saw cut")) in.kerf = v("Saw cut");
  const auto r = stock::cut_list(in);
  if (!r.usable()) return wrong(r.message);
  std::vector<SumLine> lines{{"new bars", Quantity::count, static_cast<double>(r.new_bars),
                              r.proved ? "no cutting needs fewer" : fmt::format("at least {}", r.least_bars)},
                             {"longest left of them", Quantity::length, r.longest_left, "after the last cut"},
                             {"lost in saw cuts", Quantity::length, r.lost, "all of them"}};
  int number = 0;
  for (const auto& bar : r.bars) {
    std::string cuts;
    for (const int p : bar.pieces)
      cuts += (cuts.empty() ? "" : " + ") + length_text(in.pieces[static_cast<std::size_t>(p)], unit,
                                                        {.decimals_mm = 1, .decimals_inch = 3});
    lines.push_back({bar.offcut ? fmt::format("left of the offcut of {}",
                                              length_text(bar.length, unit, {.show_unit = true}))
                                : fmt::format("left of bar {}", ++number),
                     Quantity::length, bar.left, cuts});
  }
  return right(lines);
}

} // namespace

void add_stock_sums(std::vector<Sum>& list) {
  const std::string group = "Stock and blanks";
  list.push_back(
      {"square-from-round",
       group,
       "Square, hexagon, rectangle from round bar",
       "The largest each a round bar gives: D / \u221A2, D \u00B7 \u221A3 / 2, and the rectangle so many "
       "times as "
       "wide as thick.",
       {{"Bar diameter"}, {"Wide over thick", Quantity::number, true, "2"}},
       [](const SumValues& v, Unit) {
         const double d = v("Bar diameter");
         const double ratio = v.given("Wide over thick") ? v("Wide over thick") : 2;
         if (!(d > 0)) return wrong("Bar diameter: must be above 0");
         if (!(ratio > 0)) return wrong("Wide over thick: must be above 0");
         const double wide = stock::largest_width(d, ratio);
         return right(
             {{"square", Quantity::length, stock::largest_square(d), "D / \u221A2"},
              {"hexagon, across flats", Quantity::length, stock::largest_hexagon(d), "D \u00B7 \u221A3 / 2"},
              {"rectangle, width", Quantity::length, wide, "its diagonal is D"},
              {"rectangle, thickness", Quantity::length, wide / ratio, "width / proportion"}});
       }});
  list.push_back(
      {"cut-list",
       group,
       "Pieces from bars",
       "How many bars a list of pieces takes, which go on which, and what is left; offcuts at hand first.",
       {{"Pieces", Quantity::lengths, false, "4 off 60, 2 off 45, 118"},
        {"Bar"},
        {"Saw cut", Quantity::length, true, "2 mm"},
        {"Offcuts at hand", Quantity::lengths, true, "250, 2 off 90"}},
       answer_cut_list});
  list.push_back({"sheet-list",
                  group,
                  "Pieces from sheets",
                  "Rectangles laid out on the fewest sheets with the saw's cut between them: each by its "
                  "lower left corner.",
                  {{"Sheet, length"},
                   {"Sheet, width"},
                   {"Pieces", Quantity::lengths, false, "60 x 40, 4 off 30 x 25"},
                   {"Saw cut", Quantity::length, true, "2"},
                   {"Edge not used", Quantity::length, true, "0"}},
                  answer_sheet_list});
  list.push_back({"round-from-square",
                  group,
                  "Bar for a square",
                  "The least round bar a square comes out of, and the round a square bar gives.",
                  {{"Square across flats"}},
                  [](const SumValues& v, Unit) {
                    if (v("Square across flats") <= 0) return wrong("Square across flats: must be above 0");
                    return right({{"bar, at least", Quantity::length,
                                   v("Square across flats") * std::sqrt(2.0), "square \u00B7 \u221A2"},
                                  {"largest round from the square", Quantity::length,
                                   v("Square across flats"), "across flats"}});
                  }});
  list.push_back(
      {"facets",
       group,
       "Rounding by facets",
       "How far the corners of a blank with so many flats stand over its round: R (1 / cos(180\u00B0 / n) "
       "\u2212 1).",
       {{"Flats", Quantity::count}, {"Finished radius", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         if (v("Flats") < 3) return wrong("Flats: at least 3");
         const double over = 1 / std::cos(pi / v("Flats")) - 1;
         std::vector<SumLine> lines{
             {"corners over the round, %", Quantity::number, 100 * over, "1 / cos(180\u00B0 / n) \u2212 1"}};
         if (v.given("Finished radius"))
           lines.push_back(
               {"corners stand over by", Quantity::length, over * v("Finished radius"), "of the radius"});
         return right(lines);
       }});
  list.push_back(
      {"sawn-blank",
       group,
       "Near-round blank",
       "What a sawn blank leaves a side, and how far its centre may be off before it no longer cleans up.",
       {{"Blank, across"},
        {"Finished diameter"},
        {"Flats", Quantity::count, true, "0: round"},
        {"Least cut a side", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         if (v("Finished diameter") <= 0) return wrong("Finished diameter: must be above 0");
         if (v("Blank, across") <= v("Finished diameter"))
           return wrong("Blank, across: must be more than the finished diameter");
         const double side = (v("Blank, across") - v("Finished diameter")) / 2;
         const double least = v.given("Least cut a side") ? v("Least cut a side") : 0;
         std::vector<SumLine> lines{
             {"metal a side", Quantity::length, side, "(blank \u2212 finished) / 2"},
             {"centre may be off by", Quantity::length, side - least, "metal a side less the least cut"}};
         if (v.given("Flats") && v("Flats") >= 3)
           lines.push_back({"corners stand over by", Quantity::length,
                            v("Blank, across") / 2 * (1 / std::cos(pi / v("Flats")) - 1),
                            "first cuts are interrupted"});
         return right(lines, side - least < 0 ? "It does not clean up even dead on centre." : "");
       }});
  list.push_back(
      {"bar-length",
       group,
       "Is the bar long enough",
       "Finished length, facing both ends, holding and parting off, against the bar there is.",
       {{"Finished length"},
        {"Facing, each end"},
        {"Held in the chuck", Quantity::length, true},
        {"Parting or saw cut", Quantity::length, true},
        {"Bar there is", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         const double need = v("Finished length") + 2 * v("Facing, each end") + v("Held in the chuck") +
                             v("Parting or saw cut");
         std::vector<SumLine> lines{
             {"length needed", Quantity::length, need, "length + 2 facings + held + cut"}};
         if (v.given("Bar there is"))
           lines.push_back({"over", Quantity::length, v("Bar there is") - need, "bar \u2212 needed"});
         return right(lines,
                      v.given("Bar there is") && v("Bar there is") < need ? "The bar is too short." : "");
       }});
  list.push_back({"bushing",
                  group,
                  "Offset bush",
                  "Outside diameter of a bush that holds a bar off centre: bar + 2 offset + 2 walls.",
                  {{"Bar diameter"}, {"Offset"}, {"Least wall"}},
                  [](const SumValues& v, Unit) {
                    if (v("Bar diameter") <= 0 || v("Offset") < 0 || v("Least wall") < 0)
                      return wrong("Bar must be above 0, offset and wall not negative");
                    return right({{"outside diameter, at least", Quantity::length,
                                   v("Bar diameter") + 2 * v("Offset") + 2 * v("Least wall"),
                                   "bar + 2 \u00B7 offset + 2 \u00B7 wall"}});
                  }});
  list.push_back(
      {"nest",
       group,
       "Several from one piece",
       "Strips sawn from one piece: widths and kerfs against what there is.",
       {{"Width of one"}, {"How many", Quantity::count}, {"Kerf"}, {"Piece there is"}},
       [](const SumValues& v, Unit) {
         const double n = v("How many"), need = n * v("Width of one") + (n - 1) * v("Kerf");
         const double most =
             v("Width of one") + v("Kerf") > 0
                 ? std::floor((v("Piece there is") + v("Kerf")) / (v("Width of one") + v("Kerf")) + 1e-9)
                 : 0;
         return right(
             {{"needed", Quantity::length, need, fmt::format("{:.0f} widths + {:.0f} kerfs", n, n - 1)},
              {"left over", Quantity::length, v("Piece there is") - need, "piece \u2212 needed"},
              {"most that come out", Quantity::number, std::max(0.0, most), ""}},
             need > v("Piece there is") + 1e-9 ? "They do not come out of it." : "They come out of it.");
       }});
  list.push_back({"chain-drill",
                  group,
                  "Chain drilling",
                  "Holes in a row with a thin web between: n d + (n \u2212 1) web.",
                  {{"Drill"},
                   {"Web between", Quantity::length, true, "0.005 in"},
                   {"Holes", Quantity::count, true},
                   {"Length to free", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    if (v("Drill") <= 0) return wrong("Drill: must be above 0");
                    const double web = v.given("Web between") ? v("Web between") : 5 * mm_per_thou;
                    if (web < 0) return wrong("Web between: must not be negative");
                    if (!v.given("Holes") && !v.given("Length to free"))
                      return wrong("Holes or Length to free: give one");
                    const double n = v.given("Holes")
                                         ? v("Holes")
                                         : std::ceil((v("Length to free") + web) / (v("Drill") + web) - 1e-9);
                    const double length = n * v("Drill") + (n - 1) * web;
                    return right({{"holes", Quantity::count, n, ""},
                                  {"row is long", Quantity::length, length, "n d + (n \u2212 1) web"},
                                  {"pitch", Quantity::length, v("Drill") + web, "d + web"}});
                  }});
  list.push_back({"protrusion",
                  group,
                  "Screw length",
                  "What a screw or stud stands out beyond what it grips.",
                  {{"Length of the screw"}, {"Grip"}, {"Nut", Quantity::length, true}},
                  [](const SumValues& v, Unit) {
                    const double out = v("Length of the screw") - v("Grip");
                    std::vector<SumLine> lines{{"stands out", Quantity::length, out, "length \u2212 grip"}};
                    if (v.given("Nut"))
                      lines.push_back({"beyond the nut", Quantity::length, out - v("Nut"), ""});
                    return right(lines, out < v("Nut") ? "Too short." : "");
                  }});
  list.push_back(
      {"edge-margin",
       group,
       "Metal at the edge of a hole",
       "Metal between a hole and the edge, and as a part of the hole.",
       {{"Width over the edges"},
        {"Hole, or row of holes, across"},
        {"Hole diameter", Quantity::length, true}},
       [](const SumValues& v, Unit) {
         const double left = (v("Width over the edges") - v("Hole, or row of holes, across")) / 2;
         std::vector<SumLine> lines{{"metal a side", Quantity::length, left, "(width \u2212 across) / 2"}};
         if (v.given("Hole diameter") && v("Hole diameter") > 0)
           lines.push_back({"in hole diameters", Quantity::number, left / v("Hole diameter"), ""});
         return right(lines, left <= 0 ? "No metal is left." : "");
       }});
}

} // namespace datrin::bench
