#include "stock/cut_list.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace datrin::stock {

namespace {

constexpr double close = 1e-9; // mm

struct Open {
  double length = 0, used = 0;
  bool offcut = false;
  std::vector<int> pieces;
};

class Search {
public:
  Search(const CutListInput& in, const CutListOptions& o) : in_(in), o_(o), order_(in.pieces.size()) {
    std::iota(order_.begin(), order_.end(), 0);
    std::stable_sort(order_.begin(), order_.end(), [&](int a, int b) { return piece(a) > piece(b); });
    for (const double offcut : in.offcuts) bars_.push_back({offcut, 0, true, {}});
    rest_.assign(order_.size() + 1, 0);
    for (std::size_t k = order_.size(); k-- > 0;) rest_[k] = rest_[k + 1] + piece(order_[k]);
  }

  bool run() {
    place(0, 0);
    return found_;
  }
  bool complete() const { return steps_ < o_.most_steps; }
  const std::vector<Open>& best() const { return best_; }
  int new_bars() const { return best_new_; }

private:
  double piece(int k) const { return in_.pieces[static_cast<std::size_t>(k)]; }
  /// Whether it goes in yet: the saw's cut is needed unless it ends the bar just so.
  bool fits(const Open& bar, double length) const { return bar.used + length <= bar.length + close; }

  void place(std::size_t k, int made) {
    if (++steps_ >= o_.most_steps) return;
    if (found_ && made > best_new_) return;
    if (k == order_.size()) return keep(made);
    // What is still to come must at least go into what is open and into as many new bars as would not be
    // worse.
    if (found_ && in_.bar > 0) {
      double room = 0;
      for (const auto& bar : bars_) room += std::max(0.0, bar.length - bar.used);
      const double more = std::ceil((rest_[k] - room) / in_.bar - close);
      if (made + std::max(0.0, more) > best_new_) return;
    }
    const int p = order_[k];
    std::vector<std::pair<double, double>> tried; // length and used of bars alike
    // The fullest that takes it first.
    std::vector<std::size_t> places;
    for (std::size_t b = 0; b < bars_.size(); ++b)
      if (fits(bars_[b], piece(p))) places.push_back(b);
    std::stable_sort(places.begin(), places.end(), [&](std::size_t a, std::size_t b) {
      return bars_[a].length - bars_[a].used < bars_[b].length - bars_[b].used;
    });
    for (const auto b : places) {
      const std::pair now(bars_[b].length, bars_[b].used);
      if (std::find(tried.begin(), tried.end(), now) != tried.end()) continue;
      tried.push_back(now);
      const double before = bars_[b].used;
      bars_[b].used = std::min(before + piece(p) + in_.kerf, std::max(before + piece(p), bars_[b].length));
      bars_[b].pieces.push_back(p);
      place(k + 1, made);
      bars_[b].pieces.pop_back();
      bars_[b].used = before;
    }
    if (in_.bar > 0 && piece(p) <= in_.bar + close && !(found_ && made + 1 > best_new_)) {
      bars_.push_back({in_.bar, std::min(piece(p) + in_.kerf, std::max(piece(p), in_.bar)), false, {p}});
      place(k + 1, made + 1);
      bars_.pop_back();
    }
  }

  void keep(int made) {
    double longest = 0;
    for (const auto& bar : bars_)
      if (!bar.offcut) longest = std::max(longest, bar.length - bar.used);
    if (found_ && (made > best_new_ || (made == best_new_ && longest <= best_longest_ + close))) return;
    found_ = true;
    best_ = bars_;
    best_new_ = made;
    best_longest_ = longest;
  }

  const CutListInput& in_;
  const CutListOptions& o_;
  std::vector<int> order_;
  std::vector<double> rest_; ///< length of the pieces from the k-th on
  std::vector<Open> bars_, best_;
  bool found_ = false;
  int best_new_ = 0;
  double best_longest_ = 0;
  long steps_ = 0;
};

} // namespace

CutListResult cut_list(const CutListInput& in, const CutListOptions& options) {
  CutListResult out;
  const auto refuse = [&](std::string why) {
    out.status = CutListStatus::refused;
    out.message = std::move(why);
    return out;
  };
  if (in.pieces.empty()) return refuse("there is nothing to saw yet");
  constexpr std::size_t most = 500;
  if (in.pieces.size() > most) return refuse(fmt::format("at most {} pieces at a time", most));
  if (!(in.kerf >= 0) || !std::isfinite(in.kerf)) return refuse("the saw's cut must be 0 or more");
  if (!(in.bar >= 0) || !std::isfinite(in.bar)) return refuse("the bar must be 0 or longer");
  double longest = in.bar;
  for (const double offcut : in.offcuts) {
    if (!(offcut > 0) || !std::isfinite(offcut)) return refuse("an offcut must be above 0");
    longest = std::max(longest, offcut);
  }
  for (std::size_t k = 0; k < in.pieces.size(); ++k) {
    if (!(in.pieces[k] > 0) || !std::isfinite(in.pieces[k]))
      return refuse(fmt::format("piece {} must be above 0", k + 1));
    if (in.pieces[k] > longest + close) return refuse(fmt::format("piece {} is longer than any bar", k + 1));
  }
  Search search(in, options);
  if (!search.run())
    return refuse(!search.complete()
                      ? "no way was found in the time there is: take a longer bar, or fewer pieces"
                  : in.bar > 0 ? "the offcuts do not hold what is longer than the bar"
                               : "the offcuts do not hold all of it: a bar is needed");
  for (const auto& bar : search.best()) {
    if (bar.pieces.empty()) continue;
    out.bars.push_back({bar.length, bar.offcut, bar.pieces, bar.length - bar.used});
    double cut = bar.used;
    for (const int p : bar.pieces) cut -= in.pieces[static_cast<std::size_t>(p)];
    out.lost += cut;
    if (!bar.offcut) out.longest_left = std::max(out.longest_left, bar.length - bar.used);
  }
  out.new_bars = search.new_bars();
  out.proved = search.complete();
  double all = 0, at_hand = 0;
  for (const double p : in.pieces) all += p;
  for (const double o : in.offcuts) at_hand += o;
  out.least_bars = out.proved   ? out.new_bars
                   : in.bar > 0 ? std::max(0, static_cast<int>(std::ceil((all - at_hand) / in.bar - close)))
                                : 0;
  out.status = CutListStatus::found;
  return out;
}

} // namespace datrin::stock
