#include "stock/nest.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>
#include <tuple>

namespace datrin::stock {

namespace {

struct Free {
  double x = 0, y = 0, w = 0, h = 0;
  bool holds(const Free& o) const {
    return o.x >= x - 1e-9 && o.y >= y - 1e-9 && o.x + o.w <= x + w + 1e-9 && o.y + o.h <= y + h + 1e-9;
  }
};

/// One sheet: what is free of it, as rectangles that may overlap.
struct Sheet {
  std::vector<Free> free;

  void take(const Free& used) {
    std::vector<Free> next;
    for (const auto& f : free) {
      if (used.x >= f.x + f.w - 1e-9 || used.x + used.w <= f.x + 1e-9 || used.y >= f.y + f.h - 1e-9 ||
          used.y + used.h <= f.y + 1e-9) {
        next.push_back(f);
        continue;
      }
      if (used.x > f.x + 1e-9) next.push_back({f.x, f.y, used.x - f.x, f.h});
      if (used.x + used.w < f.x + f.w - 1e-9)
        next.push_back({used.x + used.w, f.y, f.x + f.w - used.x - used.w, f.h});
      if (used.y > f.y + 1e-9) next.push_back({f.x, f.y, f.w, used.y - f.y});
      if (used.y + used.h < f.y + f.h - 1e-9)
        next.push_back({f.x, used.y + used.h, f.w, f.y + f.h - used.y - used.h});
    }
    free.clear();
    for (std::size_t k = 0; k < next.size(); ++k) {
      bool within = false;
      for (std::size_t m = 0; m < next.size() && !within; ++m)
        within = m != k && next[m].holds(next[k]) && !(next[k].holds(next[m]) && k < m);
      if (!within) free.push_back(next[k]);
    }
  }
};

class Nester {
public:
  explicit Nester(const NestInput& in) : in_(in) {}

  /// How a piece that fits both ways is laid: whichever fits best, as it is, or turned.
  enum class Turn { best, seldom, mostly };

  NestResult run(const std::vector<int>& order, bool flat, Turn turn) {
    NestResult result;
    std::vector<Sheet> sheets;
    for (const int p : order) {
      NestedPiece best;
      double best_score = 1e300;
      for (std::size_t s = 0; s <= sheets.size(); ++s) {
        if (s == sheets.size()) {
          if (best_score < 1e300) break; // a new one only where no other holds it
          sheets.push_back({{whole()}});
        }
        for (const auto& f : sheets[s].free)
          for (const bool turned : {false, true}) {
            if (turned && !in_.may_turn) continue;
            const auto [w, h] = size(p, turned);
            if (w > f.w + 1e-9 || h > f.h + 1e-9) continue;
            // Short side first; or as near the start of the sheet as it goes, which leaves the longest.
            const double score = flat ? 1e6 * static_cast<double>(s) + (f.x + w) + 1e-3 * f.y
                                      : 1e6 * static_cast<double>(s) + std::min(f.w - w, f.h - h) +
                                            1e-3 * std::max(f.w - w, f.h - h);
            // Kept for where nothing else goes on this sheet.
            const bool unwanted =
                (turn == Turn::seldom && turned) || (turn == Turn::mostly && !turned && in_.may_turn);
            const double counted = score + (unwanted ? 1e5 : 0);
            if (counted >= best_score) continue;
            best_score = counted;
            best = {p, static_cast<int>(s), f.x, f.y, turned};
          }
        if (best_score < 1e300 && best.sheet == static_cast<int>(s)) break;
      }
      const auto [w, h] = size(p, best.turned);
      sheets[static_cast<std::size_t>(best.sheet)].take({best.x, best.y, w, h});
      result.placed.push_back(best);
    }
    result.sheets = static_cast<int>(sheets.size());
    double furthest = 0, area = 0;
    for (const auto& placed : result.placed) {
      const auto& piece = in_.pieces[static_cast<std::size_t>(placed.piece)];
      area += piece.length * piece.width;
      if (placed.sheet == result.sheets - 1)
        furthest = std::max(furthest, placed.x + (placed.turned ? piece.width : piece.length));
    }
    result.longest_left = std::max(0.0, in_.sheet_length - in_.edge - furthest - in_.kerf);
    result.used = area / (result.sheets * in_.sheet_length * in_.sheet_width);
    result.status = NestStatus::nested;
    return result;
  }

  /// With the saw's cut at two of its sides; the sheet is so much larger, as none is needed at its edge.
  std::pair<double, double> size(int p, bool turned) const {
    const auto& piece = in_.pieces[static_cast<std::size_t>(p)];
    const double l = piece.length + in_.kerf, w = piece.width + in_.kerf;
    return turned ? std::pair{w, l} : std::pair{l, w};
  }
  Free whole() const {
    return {in_.edge, in_.edge, in_.sheet_length - 2 * in_.edge + in_.kerf,
            in_.sheet_width - 2 * in_.edge + in_.kerf};
  }
  bool fits(int p) const {
    const auto all = whole();
    for (const bool turned : {false, true}) {
      const auto [w, h] = size(p, turned);
      if ((!turned || in_.may_turn) && w <= all.w + 1e-9 && h <= all.h + 1e-9) return true;
    }
    return false;
  }

private:
  const NestInput& in_;
};

} // namespace

NestResult nest(const NestInput& in) {
  NestResult best;
  const auto refuse = [&](std::string why) {
    best.status = NestStatus::refused;
    best.message = std::move(why);
    return best;
  };
  const auto good = [](double v) { return std::isfinite(v) && v > 0; };
  if (!good(in.sheet_length) || !good(in.sheet_width))
    return refuse("say how long and how wide the sheet is");
  if (!(in.kerf >= 0) || !(in.edge >= 0)) return refuse("the saw's cut and the edge must not be below 0");
  if (in.pieces.empty()) return refuse("say which pieces are wanted");
  constexpr std::size_t most = 500;
  if (in.pieces.size() > most) return refuse("at most 500 pieces");
  Nester nester(in);
  double area = 0;
  for (std::size_t k = 0; k < in.pieces.size(); ++k) {
    const auto& p = in.pieces[k];
    if (!good(p.length) || !good(p.width)) return refuse(fmt::format("piece {} has no size", k + 1));
    if (!nester.fits(static_cast<int>(k)))
      return refuse(
          fmt::format("piece {}, {:g} × {:g} mm, is larger than the sheet", k + 1, p.length, p.width));
    area += p.length * p.width;
  }
  const auto longest = [](const NestPiece& p) { return std::max(p.length, p.width); };
  const std::function<double(const NestPiece&)> by[] = {
      [](const NestPiece& p) { return p.length * p.width; }, longest,
      [](const NestPiece& p) { return std::min(p.length, p.width); },
      [](const NestPiece& p) { return p.length; }, [](const NestPiece& p) { return p.width; }};
  for (const auto& key : by)
    for (const bool flat : {false, true}) {
      std::vector<int> order(in.pieces.size());
      std::iota(order.begin(), order.end(), 0);
      std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
        return key(in.pieces[static_cast<std::size_t>(a)]) > key(in.pieces[static_cast<std::size_t>(b)]);
      });
      for (const auto turn : {Nester::Turn::best, Nester::Turn::seldom, Nester::Turn::mostly}) {
        auto result = nester.run(order, flat, turn);
        if (!best.usable() || result.sheets < best.sheets ||
            (result.sheets == best.sheets && result.longest_left > best.longest_left))
          best = std::move(result);
      }
    }
  const double usable = (in.sheet_length - 2 * in.edge) * (in.sheet_width - 2 * in.edge);
  best.least_sheets = std::max(1, static_cast<int>(std::ceil(area / usable - 1e-9)));
  std::sort(best.placed.begin(), best.placed.end(), [](const NestedPiece& a, const NestedPiece& b) {
    return std::tie(a.sheet, a.x, a.y) < std::tie(b.sheet, b.x, b.y);
  });
  return best;
}

} // namespace datrin::stock
