#include "chains/build_targets.h"

#include "fits/purpose.h"
#include "quantity/length_text.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::chains {

using namespace build;

namespace {

/// mm a dimension without limits may be from its nominal: further than anybody lets one go, so that no room
/// is ever less for it.
double free_width(double nominal) {
  return std::max(10.0, 0.4 * std::abs(nominal));
}

/// Gathers dimensions as they are first named.
struct Gather {
  const Build& build;
  BuildTargets& out;
  std::unordered_map<Made, int, MadeHash>& index;

  int dimension(const Made& m) {
    const auto found = index.find(m);
    if (found != index.end()) return found->second;
    const auto* d = build.find<Dimension>(m.dimension);
    TargetDimension t;
    t.id = made_name(build, m);
    t.nominal = d->nominal;
    t.limited = d->has_limits();
    t.lower = d->has_limits() ? d->least() : d->nominal - free_width(d->nominal);
    t.upper = d->has_limits() ? d->most() : d->nominal + free_width(d->nominal);
    t.capability = capability_of(*d);
    auto now = readings::size_now(build, m);
    if (now.settled()) {
      t.measured = now.value;
      t.uncertainty = now.uncertainty;
    }
    const int at = static_cast<int>(out.input.dimensions.size());
    out.input.dimensions.push_back(std::move(t));
    out.made.push_back(m);
    out.sizes.push_back(std::move(now));
    index.emplace(m, at);
    return at;
  }
};

/// Finds the targets, and what of that which was read is not finished: see the header.
class Settling {
public:
  Settling(const Build& build, BuildTargets& out, TargetsMemory* memory)
      : build_(build), out_(out), memory_(memory), settled_(out.made.size(), 0) {}

  void work_out() {
    constexpr int most_rounds = 6;
    for (int round = 0; round < most_rounds; ++round) {
      constexpr double held = 1; // room: at the end of everybody's capability still
      auto parted = targets_by_parts(out_.input, held, memory_);
      out_.result = std::move(parted.result);
      out_.function_first = parted.function_first;
      if (!out_.result.usable()) return;
      const bool changed = settle_what_went_too_far();
      if (!free_what_can_be_cut_on() && !changed) return;
    }
  }

private:
  Side side(std::size_t k) const { return side_of(build_, out_.made[k].dimension); }

  /// What has metal on by its drawing, but is as its mates want it, or past that, is as it will be.
  bool settle_what_went_too_far() {
    bool changed = false;
    for (const auto& target : out_.result.targets) {
      const auto k = static_cast<std::size_t>(target.dimension);
      auto& now = out_.sizes[k];
      if (settled_[k] || !now.read() || now.bound != Bound::exact) continue;
      const auto left = readings::left_to(side(k), now.value, target.make);
      constexpr double as_read = 0.001; // mm: as fine as anybody reads
      if (left && *left > std::max(as_read, target.hold)) continue;
      settled_[k] = 1;
      out_.input.dimensions[k].measured = now.value;
      out_.input.dimensions[k].uncertainty = now.uncertainty;
      now.standing = readings::Standing::made;
      changed = true;
    }
    return changed;
  }

  /// Where a condition is too tight, and would not be with something cut on within its limits.
  bool free_what_can_be_cut_on() {
    bool changed = false;
    for (std::size_t c = 0; c < out_.input.conditions.size(); ++c) {
      const auto& room = out_.result.conditions[c];
      if (room.room >= -1e-9) continue;
      const auto& condition = out_.input.conditions[c];
      const double short_by =
          room.room_least < room.room_most ? condition.least - room.expected : condition.most - room.expected;
      int newest = -1;
      for (const auto& term : condition.terms)
        if (helps(term, out_.sources[c], short_by) && (newest < 0 || later(term.dimension, newest)))
          newest = term.dimension;
      if (newest < 0) continue;
      const auto k = static_cast<std::size_t>(newest);
      settled_[k] = 1;
      out_.input.dimensions[k].measured.reset();
      out_.sizes[k].standing = readings::Standing::metal_on;
      changed = true;
    }
    return changed;
  }

  bool later(int a, int b) const {
    const auto& one = out_.sizes[static_cast<std::size_t>(a)];
    const auto& other = out_.sizes[static_cast<std::size_t>(b)];
    return std::pair(std::string_view(one.at), one.record) >
           std::pair(std::string_view(other.at), other.record);
  }

  /// Whether the dimension of `term`, which is made, can still be cut so that its condition gains `wanted`
  /// mm.
  bool helps(const TargetTerm& term, const ConditionSource& source, double wanted) const {
    const auto k = static_cast<std::size_t>(term.dimension);
    const auto& now = out_.sizes[k];
    if (settled_[k] || term.coefficient == 0 || !out_.input.dimensions[k].measured ||
        now.standing != readings::Standing::made)
      return false;
    const double by = wanted / term.coefficient;
    const auto way = side(k);
    if (way == Side::unknown || (way == Side::hole) != (by > 0)) return false;
    // Nobody cuts a rolling bearing.
    if (const auto* joint = build_.find<Joint>(source.joint))
      if ((joint->purpose == JointPurpose::bearing_housing && joint->shaft == out_.made[k].dimension) ||
          (joint->purpose == JointPurpose::bearing_shaft && joint->hole == out_.made[k].dimension))
        return false;
    const auto* d = build_.find<Dimension>(out_.made[k].dimension);
    return d != nullptr && d->kind != DimensionKind::angle && d->allows(now.value + by);
  }

  const Build& build_;
  BuildTargets& out_;
  TargetsMemory* memory_;
  std::vector<char> settled_; ///< decided here, once
};

Id first_piece(const Build& build, Id part) {
  const auto pieces = build.pieces_of(part);
  return pieces.empty() ? 0 : pieces.front().first;
}

} // namespace

double capability_of(const Dimension& d) {
  return d.capability > 0 ? d.capability : std::max(0.005, (d.upper - d.lower) / 8);
}

int BuildTargets::index_of(const Made& m) const {
  const auto found = index_.find(m);
  return found == index_.end() ? -1 : found->second;
}

const Target* BuildTargets::target(const Made& m) const {
  const int at = index_of(m);
  return at < 0 ? nullptr : result.target(at);
}

const readings::SizeNow* BuildTargets::size(const Made& m) const {
  const int at = index_of(m);
  if (at < 0 || !input.dimensions[static_cast<std::size_t>(at)].measured) return nullptr;
  return &sizes[static_cast<std::size_t>(at)];
}

const std::vector<int>& BuildTargets::conditions_of(Id joint_or_chain) const {
  static const std::vector<int> none;
  const auto found = conditions_.find(joint_or_chain);
  return found == conditions_.end() ? none : found->second;
}

int BuildTargets::tightest_of_joint(Id joint) const {
  int best = -1;
  for (const int c : conditions_of(joint)) {
    const auto k = static_cast<std::size_t>(c);
    if (k < result.conditions.size() &&
        (best < 0 || result.conditions[k].room < result.conditions[static_cast<std::size_t>(best)].room))
      best = c;
  }
  return best;
}

int BuildTargets::condition_of_chain(Id chain) const {
  const auto& found = conditions_of(chain);
  return found.empty() ? -1 : found.front();
}

MadeSoFar BuildTargets::made_so_far(Id joint_or_chain) const {
  int measured = 0, open = 0;
  for (const int c : conditions_of(joint_or_chain))
    for (const auto& term : input.conditions[static_cast<std::size_t>(c)].terms)
      ++(input.dimensions[static_cast<std::size_t>(term.dimension)].measured ? measured : open);
  return measured == 0 ? MadeSoFar::nothing : open == 0 ? MadeSoFar::all : MadeSoFar::some;
}

BuildTargets build_targets(const Build& build, TargetsMemory* memory) {
  BuildTargets out;
  Gather gather{build, out, out.index_};
  const auto leave = [&](const std::string& name, const std::string& why) {
    out.left_out.push_back(name + ": " + why);
  };
  for (const auto& [id, joint] : build.joints()) {
    const auto* hole = build.find<Dimension>(joint.hole);
    const bool alone = fits::is_over_a_thread(joint) && joint.shaft == 0;
    if (hole == nullptr || (!alone && build.find<Dimension>(joint.shaft) == nullptr)) {
      leave(joint.name, "point at two features, or type two sizes");
      continue;
    }
    if (joint.hole == joint.shaft) {
      leave(joint.name, "hole and shaft are the same dimension");
      continue;
    }
    double major = 0;
    if (alone) {
      const auto found = threads::find(joint.thread);
      if (found.thread == nullptr) {
        leave(joint.name, found.message);
        continue;
      }
      major = found.thread->major;
    }
    const auto pairs = joint_pairs(build, joint);
    for (const auto& [hole_piece, shaft_piece] : pairs) {
      TargetCondition c;
      c.id = joint.name;
      if (pairs.size() > 1) // told apart by the piece of which there are several
        for (const Id id_of : {hole_piece, shaft_piece}) {
          const auto* piece = build.find<Piece>(id_of);
          const auto* part = piece ? build.find<Part>(piece->part) : nullptr;
          if (part == nullptr || part->quantity < 2) continue;
          c.id += fmt::format(" no. {}", piece->number);
          break;
        }
      c.terms.push_back({gather.dimension({joint.hole, hole_piece}), 1});
      if (!alone) c.terms.push_back({gather.dimension({joint.shaft, shaft_piece}), -1});
      // The clearance to the very mate it was zeroed on is as sure as the comparison itself.
      for (const auto& [one, other] :
           {std::pair(Made{joint.hole, hole_piece}, Made{joint.shaft, shaft_piece}),
            std::pair(Made{joint.shaft, shaft_piece}, Made{joint.hole, hole_piece})})
        if (const int at = out.index_of(one); at >= 0) {
          const auto& m = out.sizes[static_cast<std::size_t>(at)].measurement;
          if (m && m->mate != 0 && Made{m->mate, m->mate_piece} == other) c.spread = m->uncertainty;
        }
      c.least = joint.least + major;
      c.most = joint.most + major;
      out.input.conditions.push_back(std::move(c));
      out.sources.push_back({id, 0, hole_piece, shaft_piece});
    }
  }
  for (const auto& [id, chain] : build.chains()) {
    TargetCondition c;
    c.id = chain.name;
    for (const auto& term : chain.terms) {
      const auto* d = build.find<Dimension>(term.dimension);
      if (d == nullptr) continue;
      const Id piece = term.piece != 0 ? term.piece : first_piece(build, d->part);
      c.terms.push_back({gather.dimension({term.dimension, piece}), term.coefficient});
    }
    if (c.terms.empty()) {
      leave(chain.name, "it has no terms yet");
      continue;
    }
    c.least = chain.least;
    c.most = chain.most;
    out.input.conditions.push_back(std::move(c));
    out.sources.push_back({0, id, 0, 0});
  }
  for (int c = 0; c < static_cast<int>(out.sources.size()); ++c) {
    const auto& source = out.sources[static_cast<std::size_t>(c)];
    out.conditions_[source.joint != 0 ? source.joint : source.chain].push_back(c);
  }
  Settling(build, out, memory).work_out();
  return out;
}

std::optional<Target> wanted_by_mates(const BuildTargets& targets, int dimension) {
  auto in = targets.input;
  auto& d = in.dimensions[static_cast<std::size_t>(dimension)];
  d.lower = d.nominal - free_width(d.nominal);
  d.upper = d.nominal + free_width(d.nominal);
  d.limited = false;
  const auto free = targets_by_parts(in, 1);
  const auto* target = free.result.usable() ? free.result.target(dimension) : nullptr;
  return target ? std::optional(*target) : std::nullopt;
}

double widening(const BuildTargets& targets, const Target& target) {
  const auto wanted = wanted_by_mates(targets, target.dimension);
  if (target.departs == 0 || !wanted) return target.departs;
  const auto& own = targets.input.dimensions[static_cast<std::size_t>(target.dimension)];
  const double room = own.capability * std::max(0.0, wanted->room);
  return target.departs > 0 ? std::max(target.departs, wanted->make + room - own.upper)
                            : std::min(target.departs, wanted->make - room - own.lower);
}

const Moved* LastReading::of(const Made& m) const {
  const auto found = std::find_if(moved.begin(), moved.end(), [&](const Moved& x) { return x.made == m; });
  return found == moved.end() ? nullptr : &*found;
}

LastReading last_reading(const BuildTargets& now) {
  LastReading out;
  int at = -1;
  for (int k = 0; k < static_cast<int>(now.sizes.size()); ++k) {
    const auto when = [&](int of) {
      const auto& size = now.sizes[static_cast<std::size_t>(of)];
      return std::pair(std::string_view(size.at), size.record);
    };
    if (now.input.dimensions[static_cast<std::size_t>(k)].measured && (at < 0 || when(k) > when(at))) at = k;
  }
  if (at < 0) return out;
  out.made = now.made[static_cast<std::size_t>(at)];
  // Only what conditions join to it can have moved: those dimensions as a problem of their own.
  std::vector<char> joined(now.made.size(), 0);
  joined[static_cast<std::size_t>(at)] = 1;
  for (bool more = true; more;) {
    more = false;
    for (const auto& c : now.input.conditions) {
      const auto near = [&](const TargetTerm& t) {
        return joined[static_cast<std::size_t>(t.dimension)] != 0;
      };
      // What is measured passes nothing on, but the reading itself does.
      const bool touches = std::any_of(c.terms.begin(), c.terms.end(), [&](const TargetTerm& t) {
        return near(t) &&
               (t.dimension == at || !now.input.dimensions[static_cast<std::size_t>(t.dimension)].measured);
      });
      if (!touches || std::all_of(c.terms.begin(), c.terms.end(), near)) continue;
      for (const auto& t : c.terms) joined[static_cast<std::size_t>(t.dimension)] = 1;
      more = true;
    }
  }
  TargetsInput input;
  std::vector<int> place(joined.size(), -1), back;
  for (std::size_t d = 0; d < joined.size(); ++d)
    if (joined[d]) {
      place[d] = static_cast<int>(back.size());
      back.push_back(static_cast<int>(d));
      input.dimensions.push_back(now.input.dimensions[d]);
    }
  for (auto c : now.input.conditions) {
    if (!std::all_of(c.terms.begin(), c.terms.end(),
                     [&](const auto& t) { return place[static_cast<std::size_t>(t.dimension)] >= 0; }))
      continue;
    for (auto& t : c.terms) t.dimension = place[static_cast<std::size_t>(t.dimension)];
    input.conditions.push_back(std::move(c));
  }
  input.dimensions[static_cast<std::size_t>(place[static_cast<std::size_t>(at)])].measured.reset();
  const auto was = targets(input, {now.function_first, now.function_first ? 1.0 : margin::infinite});
  if (!was.usable()) return out;
  for (const auto& before : was.targets) {
    const int d = back[static_cast<std::size_t>(before.dimension)];
    if (const auto* t = now.result.target(d); t != nullptr && std::abs(before.make - t->make) > 0.0005)
      out.moved.push_back({now.made[static_cast<std::size_t>(d)], before.make, t->make});
  }
  std::stable_sort(out.moved.begin(), out.moved.end(), [](const auto& a, const auto& b) {
    return std::abs(a.now - a.was) > std::abs(b.now - b.was);
  });
  return out;
}

ChainInput chain_input(const Build& build, const Chain& chain) {
  ChainInput in;
  in.lower = chain.least;
  in.upper = chain.most;
  for (const auto& term : chain.terms) {
    const auto* d = build.find<Dimension>(term.dimension);
    if (d == nullptr) continue;
    const Made made{term.dimension, term.piece != 0 ? term.piece : first_piece(build, d->part)};
    ChainLink link;
    link.id = made_name(build, made);
    link.coefficient = term.coefficient;
    link.nominal = d->nominal;
    link.plus = std::max(0.0, d->upper);
    link.minus = std::max(0.0, -d->lower);
    if (d->upper < 0 || d->lower > 0) { // limits that lie to one side: about their middle
      link.nominal = (d->least() + d->most()) / 2;
      link.plus = link.minus = (d->upper - d->lower) / 2;
    }
    if (const auto now = readings::size_now(build, made); now.settled()) {
      link.measured = now.value;
      link.uncertainty = now.uncertainty;
    }
    in.links.push_back(std::move(link));
  }
  return in;
}

} // namespace datrin::chains
