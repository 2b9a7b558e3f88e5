#include "chains/targets_parts.h"

#include <algorithm>
#include <cmath>
#include <future>
#include <numeric>
#include <thread>

namespace datrin::chains {

namespace {

class Joined {
public:
  explicit Joined(std::size_t n) : parent_(n) { std::iota(parent_.begin(), parent_.end(), 0); }
  int find(int k) {
    while (parent_[static_cast<std::size_t>(k)] != k)
      k = parent_[static_cast<std::size_t>(k)] =
          parent_[static_cast<std::size_t>(parent_[static_cast<std::size_t>(k)])];
    return k;
  }
  void join(int a, int b) { parent_[static_cast<std::size_t>(find(a))] = find(b); }

private:
  std::vector<int> parent_;
};

bool is_open(const TargetsInput& in, int d) {
  return !in.dimensions[static_cast<std::size_t>(d)].measured;
}

/// `local`: per dimension of the whole, its number in the part.
TargetsInput input_of(const TargetsInput& in, const JoinedPart& share, const std::vector<int>& local) {
  TargetsInput part;
  for (const int d : share.dimensions) part.dimensions.push_back(in.dimensions[static_cast<std::size_t>(d)]);
  for (const int k : share.conditions) {
    part.conditions.push_back(in.conditions[static_cast<std::size_t>(k)]);
    for (auto& t : part.conditions.back().terms) t.dimension = local[static_cast<std::size_t>(t.dimension)];
  }
  return part;
}

/// Everything a part's answer depends on, as bytes.
std::string content_of(const TargetsInput& in, const JoinedPart& share, const std::vector<int>& local) {
  std::string bytes;
  bytes.reserve(80 * (share.dimensions.size() + share.conditions.size()));
  const auto number = [&bytes](double v) { bytes.append(reinterpret_cast<const char*>(&v), sizeof v); };
  const auto text = [&](const std::string& t) {
    number(static_cast<double>(t.size()));
    bytes += t;
  };
  for (const int k : share.dimensions) {
    const auto& d = in.dimensions[static_cast<std::size_t>(k)];
    text(d.id);
    for (const double v :
         {d.nominal, d.lower, d.upper, d.capability, d.measured.value_or(NAN), d.uncertainty})
      number(v);
  }
  for (const int k : share.conditions) {
    const auto& c = in.conditions[static_cast<std::size_t>(k)];
    text(c.id);
    for (const double v : {c.least, c.most, c.spread, static_cast<double>(c.terms.size())}) number(v);
    for (const auto& t : c.terms) {
      number(local[static_cast<std::size_t>(t.dimension)]);
      number(t.coefficient);
    }
  }
  return bytes;
}

TargetsMemory::Part work_out(const TargetsInput& part, double enough) {
  TargetsMemory::Part done{targets(part), false};
  if (done.result.usable() && !done.result.feasible) {
    auto first = targets(part, {true, enough});
    if (first.usable()) done = {std::move(first), true};
  }
  return done;
}

/// A part whose answer is wanted.
struct Asked {
  std::string content;
  TargetsInput input; ///< of one that is not answered yet
  std::shared_ptr<const TargetsMemory::Part> done;
};

/// Works out those that are not answered yet, many of them on all cores: none depends on another. How many
/// there were.
int answer(std::vector<Asked>& asked, double enough) {
  std::vector<Asked*> open;
  for (auto& a : asked)
    if (!a.done) open.push_back(&a);
  constexpr std::size_t worth_sharing = 16;
  const std::size_t cores =
      open.size() < worth_sharing ? 1 : std::max<std::size_t>(1, std::thread::hardware_concurrency());
  const auto every = [&](std::size_t first) {
    for (std::size_t k = first; k < open.size(); k += cores)
      open[k]->done = std::make_shared<const TargetsMemory::Part>(work_out(open[k]->input, enough));
  };
  std::vector<std::future<void>> others;
  for (std::size_t k = 1; k < cores; ++k) others.push_back(std::async(std::launch::async, every, k));
  every(0);
  for (auto& other : others) other.get();
  return static_cast<int>(open.size());
}

/// Puts a part's answer in its place.
void take(TargetsResult& whole, const TargetsResult& part, const JoinedPart& share) {
  for (auto target : part.targets) {
    target.dimension = share.dimensions[static_cast<std::size_t>(target.dimension)];
    whole.targets.push_back(target);
  }
  for (std::size_t k = 0; k < share.conditions.size(); ++k)
    whole.conditions[static_cast<std::size_t>(share.conditions[k])] = part.conditions[k];
  whole.programmes += part.programmes;
  whole.proved = whole.proved && part.proved;
  if (part.least_room < whole.least_room) { // what holds the least of all is what holds it there
    whole.held_by = part.held_by;
    for (auto& hold : whole.held_by) {
      if (hold.condition >= 0) hold.condition = share.conditions[static_cast<std::size_t>(hold.condition)];
      if (hold.dimension >= 0) hold.dimension = share.dimensions[static_cast<std::size_t>(hold.dimension)];
    }
    whole.least_room = part.least_room;
  }
}

} // namespace

std::vector<JoinedPart> joined_parts(const TargetsInput& in) {
  const auto n = in.dimensions.size();
  Joined joined(n);
  for (const auto& c : in.conditions) {
    int first = -1;
    for (const auto& t : c.terms) {
      if (!is_open(in, t.dimension)) continue;
      if (first >= 0) joined.join(first, t.dimension);
      first = t.dimension;
    }
  }
  std::vector<JoinedPart> shares;
  std::vector<int> share_of(n, -1);
  for (int d = 0; d < static_cast<int>(n); ++d) {
    if (!is_open(in, d)) continue;
    auto& at = share_of[static_cast<std::size_t>(joined.find(d))];
    if (at < 0) {
      at = static_cast<int>(shares.size());
      shares.emplace_back();
    }
    shares[static_cast<std::size_t>(at)].dimensions.push_back(d);
  }
  for (int k = 0; k < static_cast<int>(in.conditions.size()); ++k) {
    const auto& terms = in.conditions[static_cast<std::size_t>(k)].terms;
    const auto open =
        std::find_if(terms.begin(), terms.end(), [&](const auto& t) { return is_open(in, t.dimension); });
    const int share = open == terms.end() ? static_cast<int>(shares.size())
                                          : share_of[static_cast<std::size_t>(joined.find(open->dimension))];
    if (open == terms.end()) shares.emplace_back(); // all measured: a part of its own
    shares[static_cast<std::size_t>(share)].conditions.push_back(k);
  }
  // A measured dimension belongs to every part that counts with it.
  std::vector<int> seen(n, -1);
  for (int s = 0; s < static_cast<int>(shares.size()); ++s) {
    auto& share = shares[static_cast<std::size_t>(s)];
    for (const int k : share.conditions)
      for (const auto& t : in.conditions[static_cast<std::size_t>(k)].terms)
        if (!is_open(in, t.dimension) && std::exchange(seen[static_cast<std::size_t>(t.dimension)], s) != s)
          share.dimensions.push_back(t.dimension);
    std::sort(share.dimensions.begin(), share.dimensions.end());
  }
  return shares;
}

std::shared_ptr<const TargetsMemory::Part> TargetsMemory::find(const std::string& content) const {
  const auto found = parts_.find(content);
  return found == parts_.end() ? nullptr : found->second;
}

PartedTargets targets_by_parts(const TargetsInput& in, double enough, TargetsMemory* memory) {
  PartedTargets out;
  for (const auto& c : in.conditions)
    for (const auto& t : c.terms)
      if (t.dimension < 0 || t.dimension >= static_cast<int>(in.dimensions.size())) {
        out.result = targets(in); // refused there, in its words
        return out;
      }
  const auto shares = joined_parts(in);
  auto& whole = out.result;
  whole.status = TargetsStatus::computed;
  whole.proved = true;
  whole.conditions.resize(in.conditions.size());
  std::vector<Asked> asked;
  std::vector<int> local(in.dimensions.size(), -1);
  for (const auto& share : shares) {
    for (std::size_t k = 0; k < share.dimensions.size(); ++k)
      local[static_cast<std::size_t>(share.dimensions[k])] = static_cast<int>(k);
    asked.push_back({content_of(in, share, local), {}, nullptr});
    if (memory != nullptr) asked.back().done = memory->find(asked.back().content);
    if (!asked.back().done) asked.back().input = input_of(in, share, local);
  }
  out.worked_out = answer(asked, enough);
  std::unordered_map<std::string, std::shared_ptr<const TargetsMemory::Part>> used;
  for (std::size_t s = 0; s < shares.size(); ++s) {
    auto& [content, input, done] = asked[s];
    if (!done->result.usable()) {
      whole = {};
      whole.status = done->result.status;
      whole.message = done->result.message;
      return out;
    }
    take(whole, done->result, shares[s]);
    out.function_first = out.function_first || done->function_first;
    used.emplace(std::move(content), std::move(done));
  }
  std::sort(whole.targets.begin(), whole.targets.end(),
            [](const Target& a, const Target& b) { return a.dimension < b.dimension; });
  whole.feasible = whole.least_room >= -1e-9;
  for (auto& room : whole.conditions) room.limiting = room.room <= whole.least_room + limiting_band;
  if (memory != nullptr) memory->keep(std::move(used));
  return out;
}

} // namespace datrin::chains
