#include "fits/trial.h"

#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace datrin::fits {

using build::Felt;

Along along(const std::vector<FormReading>& readings, bool is_hole) {
  std::map<double, double> by_depth;
  for (const auto& r : readings) {
    const auto [at, first] = by_depth.emplace(r.depth, r.diameter);
    if (!first) at->second = is_hole ? std::min(at->second, r.diameter) : std::max(at->second, r.diameter);
  }
  Along out;
  for (const auto& [depth, size] : by_depth) {
    out.depth.push_back(depth);
    out.size.push_back(size);
  }
  return out;
}

double Along::at(double x) const {
  const auto next = std::lower_bound(depth.begin(), depth.end(), x) - depth.begin();
  if (next == 0) return size.front();
  const auto k = static_cast<std::size_t>(next);
  if (k == depth.size()) return size.back();
  const double t = (x - depth[k - 1]) / (depth[k] - depth[k - 1]);
  return size[k - 1] + t * (size[k] - size[k - 1]);
}

namespace {

constexpr double told = 0.0005; ///< mm: less than that is not said to come off

/// Where along a length things are looked at: at every reading of either, and close between.
std::vector<double> places(const Along& of, const Along& mate, double length) {
  constexpr int steps = 200;
  std::vector<double> out;
  for (int k = 0; k <= steps; ++k) out.push_back(length * k / steps);
  for (const double d : of.depth)
    if (d > 0 && d < length) out.push_back(d);
  for (const double d : mate.depth)
    if (d > 0 && d < length) out.push_back(length - d);
  std::sort(out.begin(), out.end());
  return out;
}

class Judge {
public:
  explicit Judge(const TrialInput& in)
      : in_(in), hole_(along(in.hole, true)), shaft_(along(in.shaft, false)) {}

  TrialResult judge() {
    if (!understood()) return out_;
    if (in_.hole.empty() || in_.shaft.empty()) return read_first();
    out_.length =
        in_.length > 0 ? in_.length : std::max({hole_.depth.back(), shaft_.depth.back(), in_.depth});
    out_.reach = all_the_way()                      ? out_.length
                 : in_.felt == Felt::will_not_start ? 0
                                                    : std::min(in_.depth, out_.length);
    find_gap();
    find_off();
    decide();
    return out_;
  }

private:
  std::string text(double mm) const {
    return length_text(mm, in_.unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  }
  std::string deep(double mm) const {
    return length_text(mm, in_.unit, {.decimals_mm = 1, .decimals_inch = 2, .show_unit = true});
  }
  std::string fine(double mm) const { return fine_text(mm, in_.unit); }
  bool all_the_way() const { return in_.felt >= Felt::tight; }
  const char* cut() const { return in_.cut_hole ? "hole" : "shaft"; }

  bool refuse(std::string why) {
    out_.status = TrialStatus::bad_input;
    out_.message = std::move(why);
    return false;
  }
  bool understood() {
    for (const auto* list : {&in_.hole, &in_.shaft})
      for (const auto& r : *list)
        if (!(r.diameter > 0) || !(r.depth >= 0) || !std::isfinite(r.depth + r.diameter))
          return refuse("a reading needs a size above 0 and a depth from 0 on");
    if (!(in_.depth >= 0) || !std::isfinite(in_.depth)) return refuse("the depth must not be below 0");
    if (in_.felt == Felt::jams && !(in_.depth > 0)) return refuse("say how far it went in before it jammed");
    if (in_.felt == Felt::jams && in_.length > 0 && in_.depth > in_.length + told)
      return refuse(
          fmt::format("it cannot jam at {}: it is to go {} deep only", deep(in_.depth), deep(in_.length)));
    return true;
  }

  /// Only one of the two was read: the other is known to pass it, or not to.
  TrialResult read_first() {
    out_.status = TrialStatus::read_first;
    const bool shaft = in_.hole.empty() && !in_.shaft.empty();
    const bool none = in_.hole.empty() && in_.shaft.empty();
    if (shaft && in_.felt != Felt::will_not_start)
      out_.words = fmt::format("As a gauge the shaft says: the hole is {} at least, {}. ", text(size_in()),
                               all_the_way() ? "all along" : fmt::format("to {} deep", deep(in_.depth)));
    out_.words += fmt::format("Read {}: what must come off, and where, follows from that.",
                              none    ? "hole and shaft"
                              : shaft ? "the hole at its mouth, middle and end"
                                      : "the shaft");
    return out_;
  }
  /// The thickest of the shaft that went in.
  double size_in() const { return thickest_to(all_the_way() ? shaft_.depth.back() : in_.depth); }
  double thickest_to(double s) const {
    double most = shaft_.at(s);
    for (std::size_t k = 0; k < shaft_.depth.size() && shaft_.depth[k] <= s; ++k)
      most = std::max(most, shaft_.size[k]);
    return most;
  }
  double narrowest_to(double x) const {
    double least = hole_.at(x);
    for (std::size_t k = 0; k < hole_.depth.size() && hole_.depth[k] <= x; ++k)
      least = std::min(least, hole_.size[k]);
    return least;
  }

  void find_gap() {
    out_.gap = std::numeric_limits<double>::infinity();
    for (const double x : places(hole_, shaft_, out_.reach))
      if (const double gap = hole_.at(x) - shaft_.at(out_.reach - x); gap < out_.gap - 1e-12) {
        out_.gap = gap;
        out_.gap_at = x;
      }
  }

  void find_off() {
    const auto& of = in_.cut_hole ? hole_ : shaft_;
    bool any = false;
    const auto all = places(of, in_.cut_hole ? shaft_ : hole_, out_.length);
    double mate = 0;
    for (const double x : all) {
      const double passes = in_.cut_hole ? thickest_to(out_.length - x) : narrowest_to(out_.length - x);
      const double off = in_.cut_hole ? passes + in_.wanted - of.at(x) : of.at(x) + in_.wanted - passes;
      if (off < told) continue;
      if (!any) out_.from = x;
      any = true;
      out_.to = x;
      if (off > out_.off + 1e-12) {
        out_.off = off;
        out_.off_at = x;
        mate = passes;
      }
    }
    constexpr double same = 1e-6;
    out_.all_along = any && out_.from < all.front() + same && out_.to > all.back() - same;
    out_.by_hand = out_.off <= 2 * at_a_go + same;
    if (!any) return;
    out_.sum.title = fmt::format("comes off the {} at {}", cut(), deep(out_.off_at));
    if (in_.cut_hole)
      out_.sum.lines = {{"shaft, the thickest that comes past there", mate, "readings"},
                        {"clearance aimed at", in_.wanted, "joint"},
                        {"less the hole there", -hole_.at(out_.off_at), "readings"}};
    else
      out_.sum.lines = {{"shaft there", shaft_.at(out_.off_at), "readings"},
                        {"clearance aimed at", in_.wanted, "joint"},
                        {"less the narrowest of the hole it comes past", -mate, "readings"}};
  }

  void decide() {
    const double sure = std::max(in_.uncertainty, told);
    const bool goes_by_readings = out_.gap > sure;
    const bool cannot_by_readings = out_.gap < -sure;
    const auto clearance = [&] {
      return out_.gap < 0 ? fmt::format("{} of interference", fine(-out_.gap))
                          : fmt::format("{} of clearance", fine(out_.gap));
    };
    if (in_.felt >= Felt::push && cannot_by_readings) {
      out_.status = TrialStatus::not_the_size;
      out_.words = fmt::format("By the readings it cannot go: {} at {} deep. Read both again, there.",
                               clearance(), deep(out_.gap_at));
    } else if (in_.felt <= Felt::tight && goes_by_readings) {
      out_.status = TrialStatus::not_the_size;
      out_.words = fmt::format(
          "By the readings there is {} where it {}: it is not the size that holds. Before anything is cut "
          "look for "
          "a burr, a lip at the mouth, swarf, a bend; bright marks show where. Then read it there.",
          clearance(), in_.felt == Felt::tight ? "is tightest" : "stops");
    } else if (out_.gap > in_.most + sure) {
      out_.status = TrialStatus::too_loose;
      out_.words =
          fmt::format("{}, {} allowed: nothing comes off any more; its mate is made to suit.", clearance(),
                      in_.most < 0 ? fmt::format("{} of interference", fine(-in_.most))
                                   : fmt::format("at most {}", fine(in_.most)));
    } else if (out_.off < told || (out_.gap >= in_.least && in_.felt >= Felt::push)) {
      out_.status = TrialStatus::finished;
      out_.off = 0;
      out_.words =
          in_.most <= 0 && in_.felt <= Felt::tight
              ? fmt::format("{} by the readings, as wanted: it is pressed together, not tried further.",
                            clearance())
              : fmt::format("It goes as it was meant: {} {}.", clearance(), tightest());
    } else {
      out_.status = TrialStatus::relieve;
      out_.words = stops() + comes_off();
    }
  }

  bool one_reading() const { return hole_.depth.size() == 1 && shaft_.depth.size() == 1; }
  /// Where; of one reading of each nothing tells.
  std::string tightest() const {
    return one_reading() ? "by one reading of each"
                         : fmt::format("where it is tightest, {} deep", deep(out_.gap_at));
  }

  std::string stops() const {
    if (all_the_way())
      return fmt::format(
          "{} {}. ", out_.gap < 0 ? fine(-out_.gap) + " of interference" : fine(out_.gap) + " of clearance",
          tightest());
    return fmt::format("It stops {}: there the hole reads {}, the shaft {}. ",
                       in_.felt == Felt::will_not_start ? "at the mouth" : "at " + deep(out_.reach),
                       text(hole_.at(out_.gap_at)), text(shaft_.at(out_.reach - out_.gap_at)));
  }

  std::string comes_off() const {
    const bool one = one_reading();
    std::string where = out_.all_along || one ? "all along"
                        : in_.cut_hole
                            ? fmt::format("from {} to {} deep", deep(out_.from), deep(out_.to))
                            : fmt::format("from {} to {} from its end", deep(out_.from), deep(out_.to));
    if (!one) where += fmt::format(", most at {}", deep(out_.off_at));
    std::string how;
    const char* hand = in_.cut_hole ? "lap" : "polish";
    const char* capital = in_.cut_hole ? "Lap" : "Polish";
    if (out_.off <= at_a_go + told)
      how = fmt::format("{} it there, and try again", capital);
    else if (out_.by_hand)
      how = fmt::format("{} it there in two goes, trying between", capital);
    else
      how = fmt::format("{} it, {} a side at a time, and leave the last {} on the diameter to {}",
                        in_.cut_hole ? "Bore" : "Turn", fine(at_a_go), fine(at_a_go), hand);
    auto words = fmt::format("Relieve the {} {}: {} on diameter, {} a side. {}.", cut(), where,
                             fine(out_.off), fine(out_.off / 2), how);
    if (one) words += " Read it at several depths, and it is said where.";
    return words;
  }

  const TrialInput& in_;
  Along hole_, shaft_;
  TrialResult out_;
};

} // namespace

TrialResult judge_trial(const TrialInput& input) {
  return Judge(input).judge();
}

} // namespace datrin::fits
