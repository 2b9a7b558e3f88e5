#include "fits/purpose.h"

#include "build/words.h"
#include "fits/bearing.h"
#include "joint_purposes_csv.h"
#include "quantity/length_text.h"
#include "quantity/table.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::fits {

using build::Tool;
using build::ToolKind;

namespace {

const Table& table() {
  static const auto t = read_table(data::joint_purposes_csv);
  return t;
}

std::size_t row_of(JointPurpose purpose) {
  const auto& rows = table().rows;
  const auto found = std::find_if(rows.begin(), rows.end(),
                                  [&](const auto& row) { return row.front() == build::shown_word(purpose); });
  return static_cast<std::size_t>(found - rows.begin());
}

std::string cell(JointPurpose purpose, const char* column) {
  const auto& row = table().rows[row_of(purpose)];
  const auto c = static_cast<std::size_t>(table().column(column));
  return c < row.size() ? row[c] : std::string();
}

double rule(JointPurpose purpose, const char* thou, const char* per_inch, double nominal) {
  const auto r = row_of(purpose);
  return (table().number(r, table().column(thou)).value_or(0) +
          table().number(r, table().column(per_inch)).value_or(0) * from_mm(nominal, Unit::inch)) *
         mm_per_thou;
}

/// The drill of the shop for a hole over a thread, between `low` and `high`; else which of a full drawer to
/// buy. (A drill cuts some hundredths over: for a fit between hole and shaft it is too coarse.)
std::string reach_drill(const std::vector<Tool>& shop, double low, double high, const std::string& to_buy,
                        bool& owned) {
  for (const auto& tool : shop)
    if (tool.kind == ToolKind::drill && tool.size >= low - 1e-9 && tool.size <= high + 1e-9) {
      owned = true;
      return "drill " + tool.name;
    }
  return fmt::format("no drill of it in the list; {} suits", to_buy);
}

/// What reaches a hole between `low` and `high`: a reamer of the shop, else the nearest, else what to buy.
std::string reach_hole(const std::vector<Tool>& shop, double nominal, double low, double high, Unit unit,
                       bool& owned) {
  const Tool* nearest = nullptr;
  for (const auto& tool : shop) {
    if (tool.kind != ToolKind::reamer || !(tool.size > 0)) continue;
    // A reamer cuts up to a few hundredths over: its own H7 is where it is taken to land.
    const double cuts = tool.size + 0.4 * it_grade(tool.size, 7).value_or(0);
    if (cuts >= low - 1e-9 && cuts <= high + 1e-9) {
      owned = true;
      return "reamer " + tool.name;
    }
    if (nearest == nullptr || std::abs(tool.size - nominal) < std::abs(nearest->size - nominal))
      nearest = &tool;
  }
  if (nearest != nullptr && std::abs(nearest->size - nominal) < 0.06 * nominal)
    return fmt::format(
        "no reamer of it; {} is {} away: bore it, or let the other follow", nearest->name,
        length_text(nearest->size - nominal, unit, {.decimals_mm = 3, .show_unit = true, .show_plus = true}));
  return fmt::format("no reamer: bore it, or buy one of {} H7",
                     length_text(nominal, unit, {.show_unit = true}));
}

std::string reach_shaft(const std::vector<Tool>& shop, double low, double high, bool& owned) {
  for (const auto& tool : shop) {
    if (tool.kind != ToolKind::ground_bar || !(tool.size > 0)) continue;
    const double it = it_grade(tool.size, 6).value_or(0); // ground bar comes h6
    if (tool.size <= high + 1e-9 && tool.size - it >= low - 1e-9) {
      owned = true;
      return "ground bar " + tool.name;
    }
  }
  return {};
}

void add_reach(Proposal& p, const ProposeInput& in) {
  if (in.purpose == JointPurpose::bearing_shaft || in.purpose == JointPurpose::bearing_housing) return;
  bool hole = false, shaft = false;
  const double hole_low = in.nominal + (p.has_limits ? p.hole.lower : 0),
               hole_high =
                   in.nominal + (p.has_limits ? p.hole.upper : it_grade(in.nominal, 7).value_or(0.02));
  p.reach = reach_hole(in.shop, in.nominal, hole_low, hole_high, in.unit, hole);
  const auto bar = reach_shaft(in.shop, in.nominal + (p.has_limits ? p.shaft.lower : -p.most),
                               in.nominal + (p.has_limits ? p.shaft.upper : -p.least), shaft);
  p.reach += bar.empty() ? "; shaft turned" : "; " + bar;
  p.owned = hole;
}

void add_fit(ProposeResult& out, const ProposeInput& in, const std::string& code, const std::string& name) {
  const auto read = fit_of(in.nominal, code);
  if (!read.ok) return;
  Proposal p;
  p.name = name;
  p.basis = read.fit.basis();
  p.has_limits = true;
  p.hole_class = read.fit.hole_class();
  p.shaft_class = read.fit.shaft_class();
  p.hole = read.fit.hole;
  p.shaft = read.fit.shaft;
  p.least = read.fit.least();
  p.most = read.fit.most();
  add_reach(p, in);
  out.proposals.push_back(std::move(p));
}

/// A bolt's hole by ISO 273: fine, medium and coarse with the tolerance classes it names, H12, H13 and H14.
void add_clearance_holes(ProposeResult& out, const ProposeInput& in) {
  const auto found = threads::find(in.thread);
  if (found.thread == nullptr) return;
  const auto holes = threads::clearance_holes(*found.thread);
  const struct {
    const char* name;
    double size;
    int grade;
  } series[] = {{"medium", holes.medium, 13}, {"fine", holes.fine, 12}, {"coarse", holes.coarse, 14}};
  for (const auto& s : series) {
    Proposal p;
    p.basis = p.name = fmt::format("{} {}, {}", holes.source, s.name, found.thread->name);
    p.least = s.size - found.thread->major;
    p.most = p.least + it_grade(s.size, s.grade).value_or(0);
    p.reach = reach_drill(in.shop, s.size, s.size + it_grade(s.size, s.grade).value_or(0),
                          length_text(s.size, in.unit, {.show_unit = true}), p.owned);
    out.proposals.push_back(std::move(p));
  }
}

/// A ring's own limits stand for the class that is missing.
void add_bearing(ProposeResult& out, const ProposeInput& in) {
  const bool housing = in.purpose == JointPurpose::bearing_housing;
  const double size = in.bearing_size > 0 ? in.bearing_size : in.nominal;
  const auto under = housing ? bearing_outside_under(size) : bearing_bore_under(size);
  if (!under) {
    out.message =
        fmt::format("limits of rolling bearings are tabled for bores and outsides up to {} mm; take "
                    "them from the maker's list",
                    number_text(largest_bearing(), 0));
    return;
  }
  const Deviations ring{-*under, 0};
  const auto code = cell(in.purpose, housing ? "hole" : "shaft");
  const auto own = iso_286(in.nominal, code);
  if (!own) return;
  Proposal p;
  p.basis = p.name = fmt::format("ISO 286 {} with a bearing of the normal class", code);
  p.has_limits = true;
  p.hole = housing ? *own : ring;
  p.shaft = housing ? ring : *own;
  (housing ? p.hole_class : p.shaft_class) = code;
  p.least = p.hole.lower - p.shaft.upper;
  p.most = p.hole.upper - p.shaft.lower;
  out.proposals.push_back(std::move(p));
}

/// The class at `at` of a fit made tighter until no hole and shaft within it have clearance: H7/p6 at 3 mm
/// may drop through, H7/r6 does not.
std::string without_clearance(double nominal, std::string code, std::size_t at) {
  static constexpr std::string_view tighter = "prstuvxyz";
  const bool capital = code[at] < 'a';
  const auto as_is = code;
  auto place = tighter.find(static_cast<char>(capital ? code[at] - 'A' + 'a' : code[at]));
  for (; place < tighter.size(); ++place) {
    code[at] = static_cast<char>(capital ? tighter[place] - 'a' + 'A' : tighter[place]);
    if (const auto read = fit_of(nominal, code); read.ok && read.fit.most() <= 1e-9) return code;
  }
  return as_is;
}

} // namespace

bool is_over_a_thread(JointPurpose purpose) {
  return purpose == JointPurpose::thread || purpose == JointPurpose::bolt_clearance;
}

bool is_over_a_thread(const build::Joint& joint) {
  return is_over_a_thread(joint.purpose) ||
         (joint.purpose == JointPurpose::shoulder_clearance && joint.shaft == 0 && !joint.thread.empty());
}

bool is_pressed(JointPurpose purpose) {
  return purpose == JointPurpose::light_press || purpose == JointPurpose::press ||
         purpose == JointPurpose::shrink;
}

ProposeResult propose(const ProposeInput& in) {
  ProposeResult out;
  if (!(in.nominal > 0) || in.nominal > 500) {
    out.message = "the size of the joint must be above 0, and at most 500 mm";
    return out;
  }
  if (in.purpose == JointPurpose::thread) {
    const auto found = threads::find(in.thread);
    if (found.thread == nullptr) {
      out.message = found.message;
      return out;
    }
    // "Clearance" of a tapped hole: how far the hole is under the major diameter, as a hole over a screw.
    Proposal p;
    p.basis = p.name = fmt::format("{}: 60 to 85 % of thread", found.thread->name);
    p.least = found.thread->hole(85) - found.thread->major;
    p.most = found.thread->hole(60) - found.thread->major;
    p.reach = reach_drill(in.shop, found.thread->hole(85), found.thread->hole(60),
                          threads::tapping_drill(*found.thread).name, p.owned);
    out.proposals.push_back(std::move(p));
    out.ok = true;
    return out;
  }
  if (in.purpose == JointPurpose::bearing_housing || in.purpose == JointPurpose::bearing_shaft) {
    add_bearing(out, in);
    if (!out.message.empty()) return out;
  } else if (in.purpose == JointPurpose::bolt_clearance) {
    add_clearance_holes(out, in);
  } else {
    const auto hole_basis = cell(in.purpose, "hole"), shaft_basis = cell(in.purpose, "hole_shaft_basis");
    if (!hole_basis.empty()) {
      auto first = hole_basis + "/" + cell(in.purpose, "shaft");
      auto second = shaft_basis + "/" + cell(in.purpose, "shaft_shaft_basis");
      if (is_pressed(in.purpose)) {
        first = without_clearance(in.nominal, first, first.find('/') + 1);
        second = without_clearance(in.nominal, second, 0);
      }
      add_fit(out, in, first, "ISO 286 " + first + (first == second ? "" : ", hole basis"));
      if (first != second) add_fit(out, in, second, "ISO 286 " + second + ", shaft basis");
    }
    if (const auto b41 = cell(in.purpose, "b41"); !b41.empty()) add_fit(out, in, b41, "ANSI B4.1 " + b41);
  }
  Proposal p;
  p.basis = "shop's rule";
  p.least = rule(in.purpose, "least_thou", "least_per_inch", in.nominal);
  p.most = rule(in.purpose, "most_thou", "most_per_inch", in.nominal);
  p.name = "shop's rule of thumb";
  if (is_over_a_thread(in.purpose) || in.purpose == JointPurpose::shoulder_clearance) {
    const auto found = threads::find(in.thread);
    if (found.thread != nullptr) {
      p.reach = reach_drill(
          in.shop, found.thread->major + p.least, found.thread->major + p.most,
          length_text(threads::clearance_holes(*found.thread, true).fine, in.unit, {.show_unit = true}),
          p.owned);
    }
  } else {
    add_reach(p, in);
  }
  out.proposals.push_back(std::move(p));
  out.ok = true;
  return out;
}

bool take_limits(build::Joint& joint, double nominal, bool same_basis, std::string* message) {
  if (same_basis && joint.basis.empty()) return true;
  const auto result = propose({joint.purpose, nominal, joint.thread, {}, Unit::mm, 0});
  if (!result.ok || result.proposals.empty()) {
    if (message != nullptr) *message = result.message;
    return false;
  }
  const auto found = std::find_if(result.proposals.begin(), result.proposals.end(),
                                  [&](const Proposal& p) { return same_basis && p.basis == joint.basis; });
  const auto& p = found == result.proposals.end() ? result.proposals.front() : *found;
  joint.least = p.least;
  joint.most = p.most;
  joint.basis = p.basis;
  return true;
}

std::vector<Method> methods(const MethodInput& in) {
  const auto hot = [&](double most, const char* what) {
    return in.temperature > most ? fmt::format("{} lets go above about {:.0f} \u00B0C", what, most)
                                 : std::string();
  };
  const auto first = [](std::initializer_list<std::string> reasons) {
    for (const auto& r : reasons)
      if (!r.empty()) return r;
    return std::string();
  };
  const std::string apart = in.comes_apart ? "it must come apart again" : "";
  const std::string blocked = in.through ? "it would stand in the bore, where something passes through" : "";
  const std::string loose = in.least && *in.least >= 0 ? "the fit has clearance: nothing would press" : "";
  const std::string tight = in.least && *in.least < 0 ? "there is no room for it: the fit presses" : "";
  const std::string seen = in.looks ? "it shows on the face that is looked at" : "";
  return {
      {"press", first({apart, loose}), "in line, with a pilot; measure both first"},
      {"shrink", first({apart, loose}),
       "hot parts burn: tongs, gloves off the machine, and a stop set beforehand"},
      {"retaining compound", first({apart, tight, hot(150, "compound")}),
       fmt::format("a slip fit of {}, clean and dry; heat loosens it; follow the maker's sheet",
                   in.unit == Unit::mm ? "25 to 75\u202F\u00B5m" : "1 to 3\u202Fthou")},
      {"soft solder", first({hot(150, "solder"), seen}), "tin both, flux washed off"},
      {"silver solder", first({apart, seen}), "both go soft and move: before finishing; fumes, ventilate"},
      {"cross pin", first({blocked, seen}), "ream both together; a taper pin comes out again"},
      {"set screw", seen, "onto a flat or a spot; it throws the part off centre by the clearance"},
      {"key", "", "with a slip fit; the keyway weakens thin hubs"},
      {"split clamp", seen, "comes apart, turns to any place"},
      {"nut and shoulder", "", "with a locating fit; the nut must not loosen by the way it turns"},
  };
}

} // namespace datrin::fits
