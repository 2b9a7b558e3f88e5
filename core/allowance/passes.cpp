#include "allowance/passes.h"

#include "quantity/length.h"
#include "quantity/length_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::allowance {

namespace {

constexpr double nothing = 1e-9; // mm

std::string figure(double v, Unit unit) {
  return length_text(v, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
}

} // namespace

const char* pass_name(PassKind kind) {
  static constexpr const char* names[] = {"rough", "semi-finish", "finish", "to size"};
  return names[static_cast<std::size_t>(kind)];
}

PassPlan plan_passes(const PassInput& in) {
  PassPlan out;
  const auto mm = [&in](double v) { return figure(v, in.unit); };
  const auto refuse = [&](std::string why) {
    out = {};
    out.status = PassStatus::refused;
    out.message = std::move(why);
    return out;
  };
  for (const double v :
       {in.most, in.least, in.skin, in.rough, in.semi, in.finish, in.last, in.least_cut, in.taken})
    if (!std::isfinite(v)) return refuse("a number is missing");
  if (in.least > in.most + std::max(0.0, in.taken) + nothing)
    return refuse("the least metal is more than the most");
  if (in.rough <= 0) return refuse("a roughing pass must take more than 0");
  if (in.skin < 0 || in.taken < 0 || in.semi < 0 || in.finish < 0 || in.last < 0 || in.least_cut < 0)
    return refuse("an allowance must not be negative");
  // The lowest place is clean when its skin, from the raw face down, has come off.
  const auto judge = [&](double at_size) {
    out.short_by = std::max(0.0, in.skin - (in.least - at_size));
    out.cleans_up = out.short_by <= nothing;
  };
  if (in.most <= in.last + nothing) {
    if (in.most < in.last - nothing)
      return refuse(
          fmt::format("only {} is left, less than the {} kept for the last step", mm(in.most), mm(in.last)));
    judge(in.most);
    out.status = PassStatus::planned;
    return out;
  }
  double finish = in.finish, semi = in.semi;
  if (finish > 0 && finish < in.least_cut - nothing) {
    out.remarks.push_back(
        fmt::format("a finishing cut of {} is thinner than the tool can take; {} is planned", mm(finish),
                    mm(in.least_cut)));
    finish = in.least_cut;
  }
  if (semi > 0 && semi < in.least_cut - nothing) {
    out.remarks.push_back(fmt::format(
        "a semi-finishing cut of {} is thinner than the tool can take; it is left out", mm(semi)));
    semi = 0;
  }
  double above = in.most - in.last; // to come off by cutting
  if (above < in.least_cut - nothing)
    out.remarks.push_back(fmt::format("only {} is left to cut, thinner than the tool can take", mm(above)));
  finish = std::min(finish, above);
  semi = std::min(semi, above - finish);
  double rough = above - finish - semi;
  // A sliver over is given to the cut below it rather than rubbed off.
  if (rough > 0 && rough < in.least_cut - nothing) {
    (semi > 0 ? semi : finish) += rough;
    rough = 0;
  }
  std::vector<double> roughing;
  if (rough > nothing) {
    const int count = std::max(1, static_cast<int>(std::ceil(rough / in.rough - 1e-9)));
    const double first = in.even ? rough / count : rough - (count - 1) * in.rough;
    for (int k = 0; k < count; ++k) roughing.push_back(k == 0 ? first : in.even ? rough / count : in.rough);
  }
  std::vector<double*> cuts;
  for (auto& depth : roughing) cuts.push_back(&depth);
  if (semi > nothing) cuts.push_back(&semi);
  if (finish > nothing) cuts.push_back(&finish);
  // What is thinner than the tool can take goes to the cut beside it.
  for (std::size_t k = 0; k < cuts.size(); ++k) {
    if (*cuts[k] >= in.least_cut - nothing || cuts.size() == 1) continue;
    double& beside = k + 1 < cuts.size() ? *cuts[k + 1] : *cuts[k - 1];
    if (k + 1 < roughing.size()) {
      *cuts[k] = beside = (*cuts[k] + beside) / 2;
    } else {
      beside += *cuts[k];
      *cuts[k] = 0;
      cuts.erase(cuts.begin() + static_cast<std::ptrdiff_t>(k--));
    }
  }
  // The first cut of all must get under the skin: it is deepened at the cost of the next ones.
  const double under_skin = in.skin - in.taken;
  if (under_skin > 0 && !cuts.empty() && *cuts[0] < under_skin - nothing) {
    if (above < under_skin - nothing)
      out.remarks.push_back(fmt::format("all there is to come off, {}, is less than the skin of {}",
                                        mm(above), mm(under_skin)));
    const double wanted = std::min(under_skin, above);
    double missing = wanted - *cuts[0];
    bool thinned = false;
    for (std::size_t k = 1; k < cuts.size() && missing > nothing; ++k) {
      const bool finishing = cuts[k] == &semi || cuts[k] == &finish;
      double give = std::min(missing, *cuts[k]);
      // What would be left over is no cut: it goes along.
      if (*cuts[k] - give > nothing && *cuts[k] - give < in.least_cut - nothing) give = *cuts[k];
      *cuts[k] -= give;
      missing -= give;
      *cuts[0] += give;
      thinned = thinned || (finishing && give > nothing);
    }
    if (*cuts[0] > in.rough + nothing)
      out.remarks.push_back(
          fmt::format("the first cut takes {} to get under the skin, more than a roughing pass is to take",
                      mm(*cuts[0])));
    if (thinned)
      out.remarks.emplace_back("getting under the skin takes from the finishing cuts: there is little metal");
  }
  double left = in.most;
  const auto add = [&](PassKind kind, double depth) {
    if (depth <= nothing) return;
    left -= depth;
    if (std::abs(left) < nothing) left = 0;
    out.passes.push_back({kind, depth, left, in.least - left >= in.skin - nothing});
  };
  for (const double depth : roughing) add(PassKind::rough, depth);
  add(PassKind::semi, semi);
  add(PassKind::finish, finish);
  out.total = in.most - left;
  judge(left);
  out.status = PassStatus::planned;
  return out;
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
