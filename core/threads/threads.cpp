#include "threads/threads.h"

#include "quantity/drills.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "quantity/text.h"
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

/// The names a thread answers to: with its series, without, with - or x before the pitch.
bool answers(const Thread& thread, const std::string& wanted) {
  const auto whole = plain(thread.name);
  if (whole == wanted) return true;
  const auto bare = plain(std::string_view(thread.name).substr(0, thread.name.find(' ')));
  auto swapped = bare;
  for (auto& c : swapped)
    if (c == '-' || c == 'x') c = c == 'x' ? '-' : 'x';
  const auto series = plain(thread.series);
  if (thread.series == "M") return wanted == fmt::format("{}x{:g}", whole, thread.pitch);
  const bool counts = bare.find_first_of("-x") != std::string::npos; // the name says its pitch
  if (counts && (wanted == bare || wanted == swapped || wanted == swapped + series)) return true;
  if (thread.series == "BSW" || thread.series == "BSF") {
    const auto turns = fmt::format("{:g}", std::round(thread.per_inch()));
    for (const char* mark : {"-", "x"})
      if (wanted == bare + mark + turns || wanted == bare + mark + turns + series) return true;
  }
  return false;
}

} // namespace

double percent(double major, double pitch, double hole, double depth) {
  return 100 * (major - hole) / (2 * depth * pitch);
}

const std::vector<Thread>& all() {
  static const auto list = [] {
    std::vector<Thread> threads;
    const auto table = read_table(data::threads_csv);
    for (std::size_t r = 0; r < table.rows.size(); ++r)
      threads.push_back({table.rows[r][0], table.rows[r][1], table.number(r, 2).value_or(0),
                         table.number(r, 3).value_or(0), table.number(r, 4).value_or(0)});
    return threads;
  }();
  return list;
}

Found find(std::string_view text) {
  const auto wanted = plain(text);
  if (wanted.empty()) return {nullptr, "name a thread, such as M6, 4BA, 5/16-18 or 3/8 BSF"};
  const Thread* found = nullptr;
  for (const auto& thread : all())
    if (answers(thread, wanted) && (found == nullptr || thread.series == "UNC" || thread.series == "UNF"))
      found = &thread;
  if (found != nullptr) return {found, {}};
  std::vector<std::string> names;
  for (const auto& thread : all()) names.push_back(thread.name);
  return {nullptr, fmt::format("\"{}\" is not in the table of threads{}", trimmed(text),
                               did_you_mean(trimmed(text), names))};
}

std::optional<double> tap_drill(std::string_view name) {
  const auto found = find(name);
  if (found.thread == nullptr) return std::nullopt;
  TapInput in{*found.thread};
  in.percent = 77;
  const auto& series = found.thread->series;
  in.drawer = series.front() == 'M' && series != "ME" ? Unit::mm : series == "BA" ? Unit::mm : Unit::inch;
  const auto plan = plan_tap(in);
  return plan.ok ? std::optional(plan.drill_size) : std::nullopt;
}

TapPlan plan_tap(const TapInput& in) {
  TapPlan out;
  const auto& t = in.thread;
  if (!(t.major > 0) || !(t.pitch > 0) || t.pitch >= t.major) {
    out.message = "the pitch must be above 0 and less than the diameter";
    return out;
  }
  if (!(in.percent >= 30 && in.percent <= 100)) {
    out.message = "the thread wanted must be between 30 and 100 %";
    return out;
  }
  if (!(in.full_thread >= 0) || !(in.engaged >= 0) || !(in.lead >= 0) ||
      !(in.point_degrees > 60 && in.point_degrees <= 180)) {
    out.message = "depths must not be negative, and the point angle between 60 and 180 degrees";
    return out;
  }
  const auto& drawer = drill_drawer(in.drawer);
  const double wanted = t.hole(in.percent);
  const Drill* best = nullptr;
  for (const auto& d : drawer)
    if (d.size < t.major && (best == nullptr || std::abs(d.size - wanted) < std::abs(best->size - wanted)))
      best = &d;
  if (best == nullptr) {
    out.message = "no drill of the drawer is under this thread";
    return out;
  }
  out.drill = best->name;
  out.drill_size = best->size;
  out.percent = percent(t.major, t.pitch, best->size, t.depth);
  const double clear = t.major * 1.04 + 0.05;
  for (const auto& d : drawer)
    if (d.size >= clear) {
      out.clearance_drill = d.name;
      out.clearance_size = d.size;
      break;
    }
  out.point = best->size / 2 / std::tan(radians(in.point_degrees) / 2);
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
  if (out.percent > 85)
    out.verdict +=
        (out.verdict.empty() ? "" : " ") + std::string("Over 85 % of thread: a small tap may break.");
  out.ok = true;
  return out;
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
