#include "allowance/passes.h"

#include "quantity/length.h"
#include "quantity/length_text.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::allowance {

namespace {

constexpr double nothing = 1e-9; // mm
constexpr double most_passes = 1000;
// Roughing less than this is no pass of its own: it goes with the next.
constexpr double worth_a_pass = 0.05;   // mm
constexpr double worth_of_a_pass = 0.1; // of what a roughing pass takes

std::string figure(double v, Unit unit) {
  return length_text(v, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
}

/// What is wrong with the numbers; empty when nothing.
std::string wrong_with(const PassInput& in) {
  for (const double v :
       {in.most, in.least, in.skin, in.rough, in.semi, in.finish, in.last, in.least_cut, in.taken})
    if (!std::isfinite(v)) return "a number is missing";
  if (in.least > in.most + std::max(0.0, in.taken) + nothing) return "the least metal is more than the most";
  if (in.rough <= 0) return "a roughing pass must take more than 0";
  if (in.skin < 0 || in.taken < 0 || in.semi < 0 || in.finish < 0 || in.last < 0 || in.least_cut < 0)
    return "an allowance must not be negative";
  if (in.most < in.last - nothing)
    return fmt::format("only {} is left, less than the {} kept for the last step", figure(in.most, in.unit),
                       figure(in.last, in.unit));
  const double roughing = in.most - in.last - in.finish - in.semi;
  if (const double passes = std::ceil(roughing / in.rough - 1e-9); passes > most_passes)
    return fmt::format(
        "{} to rough off at {} a pass are {} passes, more than the {} that are planned; take more "
        "at a pass",
        figure(roughing, in.unit),
        in.rough < 0.001
            ? length_text(in.rough, in.unit, {.decimals_mm = 6, .decimals_inch = 7, .show_unit = true})
            : figure(in.rough, in.unit),
        passes < 1e9 ? grouped(static_cast<std::size_t>(passes)) : "over a thousand million",
        grouped(static_cast<std::size_t>(most_passes)));
  return {};
}

/// The metal that comes off by cutting, shared out among the cuts.
class Cuts {
public:
  Cuts(const PassInput& in, std::vector<std::string>& remarks) : in_(in), remarks_(remarks) {
    share();
    rough_out();
    for (auto& depth : roughing_) cuts_.push_back(&depth);
    if (semi_ > nothing) cuts_.push_back(&semi_);
    if (finish_ > nothing) cuts_.push_back(&finish_);
    join_thin_ones();
    get_under_the_skin();
  }

  template <class Add>
  void each(Add add) const {
    for (const double depth : roughing_) add(PassKind::rough, depth);
    add(PassKind::semi, semi_);
    add(PassKind::finish, finish_);
  }

private:
  std::string mm(double v) const { return figure(v, in_.unit); }
  bool thin(double depth) const { return depth < in_.least_cut - nothing; }

  /// Finishing and semi-finishing first; what they leave is for roughing.
  void share() {
    finish_ = in_.finish;
    semi_ = in_.semi;
    if (finish_ > 0 && thin(finish_)) {
      remarks_.push_back(fmt::format("a finishing cut of {} is thinner than the tool can take; {} is planned",
                                     mm(finish_), mm(in_.least_cut)));
      finish_ = in_.least_cut;
    }
    if (semi_ > 0 && thin(semi_)) {
      remarks_.push_back(fmt::format(
          "a semi-finishing cut of {} is thinner than the tool can take; it is left out", mm(semi_)));
      semi_ = 0;
    }
    above_ = in_.most - in_.last;
    if (thin(above_))
      remarks_.push_back(fmt::format("only {} is left to cut, thinner than the tool can take", mm(above_)));
    finish_ = std::min(finish_, above_);
    semi_ = std::min(semi_, above_ - finish_);
  }

  void rough_out() {
    double rough = above_ - finish_ - semi_;
    // A sliver over is given to the cut below it rather than rubbed off.
    const double worth = std::min(worth_a_pass, in_.rough * worth_of_a_pass);
    if (rough > 0 && (thin(rough) || (rough < worth && semi_ + finish_ > 0))) {
      (semi_ > 0 ? semi_ : finish_) += rough;
      rough = 0;
    }
    if (rough <= nothing) return;
    int count = std::max(1, static_cast<int>(std::ceil(rough / in_.rough - 1e-9)));
    if (count > 1 && !in_.even && rough - (count - 1) * in_.rough < worth) --count; // goes with the first
    const double first = in_.even ? rough / count : rough - (count - 1) * in_.rough;
    for (int k = 0; k < count; ++k)
      roughing_.push_back(k == 0 ? first : in_.even ? rough / count : in_.rough);
  }

  /// What is thinner than the tool can take goes to the cut beside it.
  void join_thin_ones() {
    for (std::size_t k = 0; k < cuts_.size(); ++k) {
      if (!thin(*cuts_[k]) || cuts_.size() == 1) continue;
      double& beside = k + 1 < cuts_.size() ? *cuts_[k + 1] : *cuts_[k - 1];
      if (k + 1 < roughing_.size()) {
        *cuts_[k] = beside = (*cuts_[k] + beside) / 2;
      } else {
        beside += *cuts_[k];
        *cuts_[k] = 0;
        cuts_.erase(cuts_.begin() + static_cast<std::ptrdiff_t>(k--));
      }
    }
  }

  /// The first cut of all must get under the skin: it is deepened at the cost of the next ones.
  void get_under_the_skin() {
    const double under_skin = in_.skin - in_.taken;
    if (under_skin <= 0 || cuts_.empty() || *cuts_[0] >= under_skin - nothing) return;
    if (above_ < under_skin - nothing)
      remarks_.push_back(fmt::format("all there is to come off, {}, is less than the skin of {}", mm(above_),
                                     mm(under_skin)));
    double missing = std::min(under_skin, above_) - *cuts_[0];
    bool thinned = false;
    for (std::size_t k = 1; k < cuts_.size() && missing > nothing; ++k) {
      const bool finishing = cuts_[k] == &semi_ || cuts_[k] == &finish_;
      double give = std::min(missing, *cuts_[k]);
      // What would be left over is no cut: it goes along.
      if (*cuts_[k] - give > nothing && thin(*cuts_[k] - give)) give = *cuts_[k];
      *cuts_[k] -= give;
      missing -= give;
      *cuts_[0] += give;
      thinned = thinned || (finishing && give > nothing);
    }
    if (*cuts_[0] > in_.rough + nothing)
      remarks_.push_back(
          fmt::format("the first cut takes {} to get under the skin, more than a roughing pass is to take",
                      mm(*cuts_[0])));
    if (thinned)
      remarks_.emplace_back("getting under the skin takes from the finishing cuts: there is little metal");
  }

  const PassInput& in_;
  std::vector<std::string>& remarks_;
  double above_ = 0, semi_ = 0, finish_ = 0; ///< mm: to come off by cutting, and of it
  std::vector<double> roughing_;
  std::vector<double*> cuts_; ///< all of them, in order
};

} // namespace

const char* pass_name(PassKind kind) {
  static constexpr const char* names[] = {"rough", "semi-finish", "finish", "to size"};
  return names[static_cast<std::size_t>(kind)];
}

PassPlan plan_passes(const PassInput& in) {
  PassPlan out;
  if (auto wrong = wrong_with(in); !wrong.empty()) {
    out.status = PassStatus::refused;
    out.message = std::move(wrong);
    return out;
  }
  double left = in.most;
  if (in.most > in.last + nothing)
    Cuts(in, out.remarks).each([&](PassKind kind, double depth) {
      if (depth <= nothing) return;
      left -= depth;
      if (std::abs(left) < nothing) left = 0;
      out.passes.push_back({kind, depth, left, in.least - left >= in.skin - nothing});
    });
  out.total = in.most - left;
  // The lowest place is clean when its skin, from the raw face down, has come off.
  out.short_by = std::max(0.0, in.skin - (in.least - left));
  out.cleans_up = out.short_by <= nothing;
  out.status = PassStatus::planned;
  return out;
}

double usual_graduation(Unit unit) {
  return usual_length(unit, 0.01, 0.001);
}

double dial_figure(double depth, const Dial& dial) {
  const double moved = depth * (dial.reads_diameter ? 2 : 1);
  const double graduations =
      dial.resolution > 0 ? std::round(moved / dial.resolution) * dial.resolution : moved;
  return from_mm(graduations, dial.unit);
}

std::string dial_text(double depth, const Dial& dial) {
  const double graduation = from_mm(dial.resolution, dial.unit);
  const auto shows = [graduation](int decimals) {
    const double whole = graduation * std::pow(10, decimals);
    return std::abs(whole - std::round(whole)) < 1e-6 * std::max(1.0, whole);
  };
  constexpr int most = 5; // a graduation in fractions of an inch has no end
  int decimals = dial.unit == Unit::mm ? 2 : 3;
  while (dial.resolution > 0 && decimals < most && !shows(decimals)) ++decimals;
  return number_text(dial_figure(depth, dial), decimals);
}

Announced check_announced(const std::string& text, double there_is, Unit bare, bool on_diameter,
                          double agree_within) {
  Announced out;
  LengthOptions reading;
  reading.bare_unit = bare;
  const auto sum = parse_length(text, reading);
  if (!sum.ok()) {
    out.message = sum.message;
    return out;
  }
  for (const auto& term : sum.terms) out.passes.push_back(term.mm / (on_diameter ? 2 : 1));
  out.total = sum.mm / (on_diameter ? 2 : 1);
  out.off = out.total - there_is;
  if (std::abs(out.off) <= agree_within) out.off = 0;
  const auto both = [&](double v) {
    return length_text(v, bare, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  out.verdict =
      out.off == 0 ? fmt::format("The passes announced add up: {}.", both(out.total))
      : out.off > 0
          ? fmt::format(
                "The passes announced add up to {}, {} more than there is: the last would go past size.",
                both(out.total), both(out.off))
          : fmt::format("The passes announced add up to {}, {} less than there is.", both(out.total),
                        both(-out.off));
  out.ok = true;
  return out;
}

std::vector<double> trial_steps(double allowance) {
  std::vector<double> steps;
  double left = allowance;
  const double thou = mm_per_thou;
  if (left > 5 * thou + nothing) {
    left = 5 * thou;
    steps.push_back(left);
  } else if (left > nothing) {
    steps.push_back(left);
  }
  while (left > 2 * thou + nothing) steps.push_back(left = std::max(2 * thou, left - thou));
  if (left > nothing) steps.push_back(0);
  return steps;
}

} // namespace datrin::allowance
