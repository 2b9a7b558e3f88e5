#include "threads/threads.h"

#include "quantity/drills.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "quantity/text.h"
#include "threads/thread_limits.h"
#include "threads_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>

namespace datrin::threads {

namespace {

/// Letters small, no blanks, no "tap": what two ways of writing a name have in common.
std::string plain(std::string_view text) {
  std::string out = lower_case(text);
  for (const char* word : {"tap", "thread", "no.", "no"}) // "no 4-40" is #4-40
    for (auto at = out.find(word); at != std::string::npos; at = out.find(word))
      out.replace(at, std::string(word).size(), std::string(word).starts_with("no") ? "#" : "");
  std::erase_if(out, [](unsigned char c) { return std::isspace(c); });
  for (const char* times : {"\xC3\x97", "*"})
    for (auto at = out.find(times); at != std::string::npos; at = out.find(times))
      out.replace(at, std::string(times).size(), "x");
  return out;
}

/// How well a name fits a thread: 2 as it is written, 1 with - for x, or with its turns to the inch; 0 not.
int likeness(const Thread& thread, const std::string& wanted) {
  const auto whole = plain(thread.name);
  if (whole == wanted) return 2;
  const auto bare = plain(std::string_view(thread.name).substr(0, thread.name.find(' ')));
  auto swapped = bare;
  for (auto& c : swapped)
    if (c == '-' || c == 'x') c = c == 'x' ? '-' : 'x';
  const auto series = plain(thread.series);
  if (thread.series == "G")
    return wanted == whole.substr(1) + "bsp" || wanted == "bsp" + whole.substr(1) ? 2 : 0;
  if (thread.series == "NPT" && wanted == whole.substr(0, whole.find('-')) + "npt") return 2;
  if (thread.series == "M") return wanted == fmt::format("{}x{:g}", whole, thread.pitch) ? 2 : 0;
  const bool counts = bare.find_first_of("-x") != std::string::npos; // the name says its pitch
  if (counts && wanted == bare) return 2;
  if (counts && (wanted == swapped || wanted == swapped + series)) return 1;
  if (thread.series == "BSW" || thread.series == "BSF" || thread.series == "BSC") {
    const auto turns = fmt::format("{:g}", std::round(thread.per_inch()));
    for (const char* mark : {"-", "x"})
      if (const auto full = fmt::format("{}{}{}", bare, mark, turns);
          wanted == full || wanted == full + series)
        return 1;
  }
  return 0;
}

} // namespace

double Thread::outside_at_hole() const {
  if (taper == 0) return major;
  // E0 = D - (0.05 D + 1.1) p is the pitch diameter at the small end, D and p in inches (ASME B1.20.1); the
  // thread stands half its height over it.
  const double d = from_mm(major, Unit::inch), p = from_mm(pitch, Unit::inch);
  return to_mm(d - (0.05 * d + 1.1) * p, Unit::inch) + depth * pitch;
}

bool Thread::metric() const {
  return !tap.empty() && tap.find_first_not_of("0123456789.") == std::string::npos;
}

const std::vector<Thread>& all() {
  static const auto list = [] {
    std::vector<Thread> threads;
    const auto table = read_table(data::threads_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
      const auto cell = [&](const char* column) { return table.number(r, table.column(column)).value_or(0); };
      threads.push_back({table.rows[r][0], table.rows[r][1], cell("major_mm"), cell("pitch_mm"),
                         cell("depth"), cell("profile"), cell("angle_deg"), cell("taper_one_in"),
                         table.rows[r][static_cast<std::size_t>(table.column("tap"))], cell("clear_fine"),
                         cell("clear_medium"), cell("clear_coarse")});
    }
    return threads;
  }();
  return list;
}

Found find(std::string_view text) {
  const auto wanted = plain(text);
  if (wanted.empty()) return {nullptr, "name a thread, such as M6, 4BA, 5/16-18 or 3/8 BSF"};
  const Thread* found = nullptr;
  int best = 0;
  for (const auto& thread : all()) {
    const int like = likeness(thread, wanted);
    if (like > best || (like > 0 && like == best && thread.series.starts_with("UN"))) {
      found = &thread;
      best = like;
    }
  }
  if (found != nullptr) return {found, {}};
  std::vector<std::string> names;
  for (const auto& thread : all()) names.push_back(thread.name);
  return {nullptr, fmt::format("\"{}\" is not in the table of threads{}", trimmed(text),
                               did_you_mean(trimmed(text), names))};
}

namespace {

TapDrill drill_in(const Thread& thread, const Drill& drill) {
  return {drill.name, drill.size, thread.percent_of(drill.size)};
}

/// Of `drills` the one nearest to `wanted` and under the thread; null when none is.
const Drill* nearest_drill(const std::vector<Drill>& drills, double wanted, double under) {
  const Drill* best = nullptr;
  for (const auto& d : drills)
    if (d.size > 0 && d.size < under &&
        (best == nullptr || std::abs(d.size - wanted) < std::abs(best->size - wanted)))
      best = &d;
  return best;
}

double next_drill(const std::vector<Drill>& drills, double size) {
  const auto found =
      std::find_if(drills.begin(), drills.end(), [&](const Drill& d) { return d.size >= size - 1e-9; });
  return found == drills.end() ? size : found->size;
}

} // namespace

TapDrill tapping_drill(const Thread& thread) {
  LengthOptions reading;
  reading.bare_unit = Unit::mm; // of the metric ones in the table
  const auto size = parse_length(thread.tap, reading);
  if (!size.ok()) return {};
  return drill_in(thread, {thread.metric() ? thread.tap + " mm" : thread.tap, size.mm});
}

ClearanceHoles clearance_holes(const Thread& thread, bool by_trade) {
  if (!by_trade && thread.clear_coarse > 0)
    return {thread.clear_fine, thread.clear_medium, thread.clear_coarse, "ISO 273"};
  const auto& drawer = drill_drawer(thread.metric() ? Unit::mm : Unit::inch);
  ClearanceHoles out;
  out.fine = thread.clear_fine > 0 && thread.clear_coarse == 0
                 ? thread.clear_fine
                 : next_drill(drawer, thread.major + 5 * mm_per_thou);
  out.medium = std::max(out.fine, next_drill(drawer, thread.major * 1.04 + 0.05));
  out.coarse = std::max(out.medium, next_drill(drawer, thread.major * 1.08 + 0.1));
  out.source = "the trade's rule";
  return out;
}

std::optional<double> hole_of(std::string_view name, ThreadHole hole) {
  const auto found = find(name);
  if (found.thread == nullptr) return std::nullopt;
  if (hole == ThreadHole::clearance) return clearance_holes(*found.thread).medium;
  const auto drill = tapping_drill(*found.thread);
  return drill.name.empty() ? std::nullopt : std::optional(drill.size);
}

TapPlan plan_tap(const TapInput& in) {
  TapPlan out;
  const auto& t = in.thread;
  if (!(t.major > 0) || !(t.pitch > 0) || t.pitch >= t.major) {
    out.message = "the pitch must be above 0 and less than the diameter";
    return out;
  }
  if (in.percent != 0 && !(in.percent >= 30 && in.percent <= 100)) {
    out.message = "the thread wanted must be between 30 and 100 %";
    return out;
  }
  if (!(in.full_thread >= 0) || !(in.engaged >= 0) || !(in.lead >= 0) ||
      !(in.point_degrees > 60 && in.point_degrees <= 180)) {
    out.message = "depths must not be negative, and the point angle between 60 and 180 degrees";
    return out;
  }
  out.standard = tapping_drill(t);
  out.drill = out.standard;
  if (in.percent > 0 || out.standard.name.empty()) {
    const auto* best =
        nearest_drill(drill_drawer(in.drawer), t.hole(in.percent > 0 ? in.percent : 75), t.major);
    if (best == nullptr) {
      out.message = "no drill of the drawer is under this thread";
      return out;
    }
    out.drill = drill_in(t, *best);
  }
  if (const auto* own = nearest_drill(in.owned, out.drill.size, t.major)) {
    const auto drill = drill_in(t, *own);
    if (drill.percent >= 55 && drill.percent <= 90) out.owned = drill;
  }
  out.clearance = clearance_holes(t);
  out.point = out.drill.size / 2 / std::tan(radians(in.point_degrees) / 2);
  if (in.full_thread > 0) out.drill_depth = in.full_thread + (in.lead + 1) * t.pitch;
  if (in.engaged > 0) {
    out.engaged_diameters = in.engaged / t.major;
    out.verdict =
        out.engaged_diameters < 0.8
            ? "Short: less than 0.8 diameters engaged; the thread may strip before the screw holds."
        : out.engaged_diameters > 2.5 ? "More than 2.5 diameters engaged adds work, not strength."
        : out.engaged_diameters < 1.5
            ? "Enough in steel; in aluminium or brass 1.5 to 2 diameters is usual (common practice)."
            : "Enough in steel, brass and aluminium.";
  }
  if (out.drill.percent > 85)
    out.verdict +=
        (out.verdict.empty() ? "" : " ") + std::string("Over 85 % of thread: a small tap may break.");
  out.ok = true;
  return out;
}

std::vector<std::string> tap_words(const TapInput& in, const TapPlan& plan, Unit unit) {
  const auto& t = in.thread;
  const auto size = [unit](double mm) {
    return length_text(mm, unit, {.decimals_mm = 2, .decimals_inch = 4, .show_unit = true});
  };
  // What a drill measures: in the other unit where its name says it in this one.
  const auto measures = [unit](const TapDrill& drill) {
    const Unit shown = drill.name.ends_with(" mm")   ? Unit::inch
                       : drill.name.ends_with(" in") ? Unit::mm
                                                     : unit;
    return length_text(drill.size, shown, {.decimals_mm = 2, .decimals_inch = 4, .show_unit = true});
  };
  const auto percent = [](double p) { return number_text(p, 0) + " % of thread"; };
  std::vector<std::string> lines;
  lines.push_back(fmt::format("{}: \u2300 {}, core {}, pitch {} mm ({} to the inch), flanks {}\u00B0{}.",
                              t.name, size(t.major), size(t.core()), number_text(t.pitch, 3),
                              number_text(t.per_inch(), 1),
                              number_text(t.angle, t.angle == std::floor(t.angle) ? 0 : 1),
                              t.taper > 0 ? fmt::format(", taper 1 in {:g} on the diameter", t.taper) : ""));
  if (!plan.standard.name.empty())
    lines.push_back(fmt::format("Tapping drill {} ({}): {}, by the {}.", plan.standard.name,
                                measures(plan.standard), percent(plan.standard.percent),
                                t.series.starts_with('M') && t.series != "ME" ? "standard" : "usual list"));
  if (plan.drill.name != plan.standard.name)
    lines.push_back(fmt::format("For {} % wanted: drill {} ({}), {}.", number_text(in.percent, 0),
                                plan.drill.name, measures(plan.drill), percent(plan.drill.percent)));
  if (!plan.owned.name.empty() && std::abs(plan.owned.size - plan.drill.size) > 1e-6)
    lines.push_back(fmt::format("Of the shop's own: {} ({}), {}.", plan.owned.name, measures(plan.owned),
                                percent(plan.owned.percent)));
  lines.push_back(fmt::format("Clearance hole {} fine, {} medium, {} coarse, by {}.",
                              size(plan.clearance.fine), size(plan.clearance.medium),
                              size(plan.clearance.coarse), plan.clearance.source));
  if (const auto limits = limits_of(t)) {
    const auto both = [&](const DiameterLimits& l) {
      const LengthTextOptions figures{.decimals_mm = 3, .decimals_inch = 4};
      return fmt::format("{} to {}", length_text(l.least, unit, figures), length_text(l.most, unit, figures));
    };
    lines.push_back(
        fmt::format("Screw {}: outside {}, pitch diameter {}. Nut {}: pitch diameter {}, minor {} ({}).",
                    limits->screw_class, both(limits->screw_major), both(limits->screw_pitch),
                    limits->nut_class, both(limits->nut_pitch), both(limits->nut_minor), limits->source));
  }
  if (plan.drill_depth > 0)
    lines.push_back(fmt::format("For {} of full thread drill {} deep to the shoulder, {} to the point.",
                                size(in.full_thread), size(plan.drill_depth),
                                size(plan.drill_depth + plan.point)));
  if (plan.engaged_diameters > 0)
    lines.push_back(fmt::format("{} diameters engaged.", number_text(plan.engaged_diameters, 1)));
  if (!plan.verdict.empty()) lines.push_back(plan.verdict);
  return lines;
}

Identified identify(const IdentifyInput& in) {
  Identified out;
  if (!(in.outside > 0) || !(in.pitch > 0) || in.pitch >= in.outside) {
    out.message = "measure the outside and the pitch, both above 0, the pitch the smaller";
    return out;
  }
  for (const auto& t : all()) {
    Likeness like{&t, in.outside - t.major, in.pitch - t.pitch, 0};
    // A screw's crest is rounded and worn: up to 0.15 mm or 6 % of the pitch under, hardly over.
    const double under = std::max(0.05, 0.13 * t.pitch);
    const double off = like.major_off > 0
                           ? like.major_off / (0.02 + in.uncertainty)
                           : std::max(0.0, -like.major_off - 0.3 * under) / (0.7 * under + in.uncertainty);
    like.score = std::hypot(off, like.pitch_off / std::max(1e-6, in.pitch_uncertainty));
    out.ranked.push_back(like);
  }
  std::stable_sort(out.ranked.begin(), out.ranked.end(),
                   [](const auto& a, const auto& b) { return a.score < b.score; });
  out.ranked.resize(8);
  out.ok = true;
  const auto& best = out.ranked.front();
  if (best.score > 6) {
    out.verdict = fmt::format("Nothing in the table is like it; the nearest is {}.", best.thread->name);
    return out;
  }
  std::string like;
  for (std::size_t k = 1; k < out.ranked.size(); ++k)
    if (out.ranked[k].score < std::max(3.0, best.score + 2.5))
      like += (like.empty() ? "" : ", ") + out.ranked[k].thread->name;
  out.verdict = like.empty() ? fmt::format("{}; nothing else in the table is like it.", best.thread->name)
                             : fmt::format("Most like {}. Could be taken for it: {}. Try it in a known nut "
                                           "before it is trusted.",
                                           best.thread->name, like);
  return out;
}

} // namespace datrin::threads
