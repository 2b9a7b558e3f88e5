#include "steps/jaw_steps.h"

#include "build/rows.h"
#include "quantity/text.h"
#include "steps/bench_place.h"
#include "stock/part_stock.h"
#include "truing/runout.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <optional>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double raw_is_true = 0.12; // mm of whole runout: 4 to 5 thou (common practice)
constexpr double cut_is_true = 0.05; // 2 thou

/// Signs begin a reading, blanks end one; the first may have no sign.
std::vector<std::string> readings_in(std::string_view typed) {
  std::vector<std::string> words{""};
  for (const char c : typed) {
    const bool sign = c == '+' || c == '-';
    if ((sign || c == ' ') && !words.back().empty() && words.back() != "-") words.emplace_back();
    if (c != ' ' && c != '+') words.back() += c;
  }
  if (words.back().empty()) words.pop_back();
  return words;
}

/// Whether what it is trued by is a bore: pushed in there is towards the spindle's axis.
bool read_in_bore(const Build& build, const BenchInput& in) {
  const auto* setup = build.find<Setup>(in.setup);
  bool bore = false;
  for (const Id id : setup->datums)
    if (const auto* s = build.find<PartSurface>(id); s && s->round()) {
      if (s->kind != SurfaceKind::bore && s->kind != SurfaceKind::taper_bore) return false;
      bore = true;
    }
  return bore;
}

/// Metal a side over what is turned here, the least of them; nothing where none is known.
std::optional<double> least_metal(const BenchInput& in, const Setup& setup) {
  std::optional<double> least;
  for (const auto& plan : in.plans) {
    const bool open =
        plan.state == allowance::SurfaceState::as_cast || plan.state == allowance::SurfaceState::roughed;
    const bool known =
        plan.source != allowance::StockSource::none && !plan.from_solid; // in the solid there is enough
    if (!open || !known || !plan.drawn.round() || !contains(setup.cuts, plan.surface)) continue;
    const double metal =
        std::max(0.0, (plan.state == allowance::SurfaceState::as_cast ? plan.least : plan.now) - plan.aim);
    least = std::min(least.value_or(metal), metal);
  }
  return least;
}

} // namespace

void JawSteps::true_up(std::vector<BenchStep>& out) const {
  if (setup_.holding != Workholding::four_jaw) return;
  auto step = plain("true-up", StepKind::true_up, "True it in the four-jaw");
  const bool raw = stock::needs_touches(build_, setup_.part) &&
                   std::any_of(in_.plans.begin(), in_.plans.end(), [&](const auto& p) {
                     return contains(setup_.datums, p.surface) && p.state == allowance::SurfaceState::as_cast;
                   });
  double allowed = raw ? raw_is_true : cut_is_true;
  std::string why = raw ? "usual of raw work" : "usual of machined work";
  for (const auto& [id, t] : build_.tolerances_of(setup_.part)) {
    if (t.what != Characteristic::coaxial || !contains(setup_.cuts, t.surface) || t.within <= 0) continue;
    const bool from_here =
        std::any_of(t.datums.begin(), t.datums.end(), [&](Id d) { return !contains(setup_.cuts, d); });
    if (!from_here || (t.within >= allowed && why.starts_with("coaxial"))) continue;
    allowed = t.within;
    why = "coaxial, " + surface_name(build_, t.surface);
  }
  if (const auto metal = least_metal(in_, setup_); metal && 2 * *metal < allowed) {
    allowed = 2 * *metal;
    why = "the metal there is, a side";
  }
  step.number = allowed;
  step.sum = {"whole runout", {{why, allowed, "at most"}}, {}};
  step.words = fmt::format("Turn it by hand, take the chuck key out. The indicator at jaws 1 to 4, plus for "
                           "pushed in: {}. Over a turn no more than",
                           unit_ == Unit::inch ? "0.002+0.001-0.001+0" : "0.05+0.02-0.03+0");
  step.ask = "What does it read at the four jaws? Enter: it is true";
  step.lit = setup_.datums;
  const bool done = step.done;
  out.push_back(std::move(step));
  // Held short it cannot lean by what matters.
  auto far = plain("true-out", StepKind::true_up, "And further out");
  far.number = allowed;
  far.sum = out.back().sum;
  far.words =
      "As far out along it as the indicator goes, jaw by jaw again: what it shows there it leans. Over a "
      "turn no more than";
  far.ask = "What does it read there? Enter: it is short, or true";
  far.lit = setup_.datums;
  far.done = far.done && done;
  out.push_back(std::move(far));
}

namespace {

/// Beside the chuck it runs true, out there it does not: it is knocked over there, and both are read again.
StepTaken leans(const Build& build, const BenchInput& input, const truing::Runout& found,
                const std::function<std::string(double)>& text, const TakeOptions& options) {
  auto place = place_or_new(build, input);
  std::string kept;
  for (const auto word : words_of(place.passed))
    if (word != "true-up") kept += (kept.empty() ? "" : " ") + std::string(word);
  place.passed = kept;
  place.at = options.at;
  Rows rows(build);
  keep_place(rows, input, place);
  // The work's axis lies towards `direction`: it is driven back from there.
  const double turns = found.direction() / (pi / 2);
  const int jaw = static_cast<int>(std::lround(turns)) % 4 + 1;
  const bool between = std::abs(turns - std::lround(turns)) > 0.25;
  const int next = static_cast<int>(std::floor(turns)) % 4 + 1;
  const auto where =
      between ? fmt::format("between jaws {} and {}", next, next % 4 + 1) : fmt::format("at jaw {}", jaw);
  StepTaken out;
  out.told =
      fmt::format("it leans: {} over a turn there. Tap it out there, {}, by {}; then read it beside the "
                  "chuck again",
                  text(found.whole()), where, text(found.offset()));
  out.edit = rows.edit("It leans: read it beside the chuck again");
  return out;
}

} // namespace

StepTaken take_jaws(const Build& build, const BenchInput& input, const BenchStep& step,
                    const std::string& typed, const TakeOptions& options) {
  const auto words = readings_in(trimmed(typed));
  constexpr std::size_t jaws = 4;
  if (words.size() != jaws)
    return StepTaken::refused(
        fmt::format("four readings, one at each jaw, are wanted: {} stand there", words.size()));
  truing::RunoutInput in;
  for (std::size_t k = 0; k < jaws; ++k) {
    const auto read = parse_length(words[k], options.lengths);
    if (!read.ok()) return StepTaken::refused(fmt::format("at jaw {}: {}", k + 1, read.message));
    constexpr double no_indicator = 20; // mm
    if (std::abs(read.mm) > no_indicator)
      return StepTaken::refused(
          fmt::format("at jaw {}: no indicator reads that far: is the unit right?", k + 1));
    in.readings.push_back({pi / 2 * static_cast<double>(k), read.mm});
  }
  in.bore = read_in_bore(build, input);
  const auto found = truing::runout(in);
  if (!found.usable()) return StepTaken::refused(found.message);
  const auto unit = options.lengths.bare_unit.value_or(build.info().unit);
  const auto text = [&](double mm) {
    return length_text(mm, unit, {.decimals_mm = 3, .decimals_inch = 4, .show_unit = true});
  };
  const double allowed = step.number.value_or(cut_is_true);
  if (found.whole() > allowed && step.key == "true-out") return leans(build, input, found, text, options);
  if (found.whole() > allowed) {
    std::string moves;
    const auto jaw = truing::jaw_moves(found);
    constexpr double worth = 0.002; // mm
    for (std::size_t k = 0; k < jaw.size(); ++k)
      if (std::abs(jaw[k]) > worth)
        moves += fmt::format("{}jaw {} {} {}", moves.empty() ? "" : ", ", k + 1, jaw[k] > 0 ? "in" : "out",
                             text(std::abs(jaw[k])));
    return StepTaken::refused(fmt::format(
        "{} over a turn: {}{}. Slacken first, then take up; read it again", text(found.whole()), moves,
        found.rest > found.offset() ? "; most of it is the surface itself, no jaw mends that" : ""));
  }
  Rows rows(build);
  pass(rows, input, step, options.at);
  StepTaken out;
  out.edit = rows.edit(fmt::format("True within {} over a turn", text(found.whole())));
  out.told = fmt::format("{} over a turn, {} allowed: good enough", text(found.whole()), text(allowed));
  if (found.rest > found.offset()) out.told += "; what is left is the surface itself";
  return out;
}

} // namespace datrin::steps
