// The demo engine made a thousand times by simulated hands, every size to the middle of its drawing limits,
// and every size to its target in the order of making: how many joints and chains come right each way.
//   build/release/bin/trial-targets [engines]

#include "chains/build_targets.h"
#include "chains/next_number.h"
#include "demo/mill_engine.h"
#include "sim/hands.h"

#include <fmt/format.h>

#include <cstdlib>
#include <numeric>
#include <thread>

using namespace datrin;
using namespace datrin::chains;

namespace {

/// The dimensions that conditions join, and those conditions, as a problem of their own.
struct Group {
  TargetsInput input;
  std::vector<int> order; ///< of making
};

std::vector<Group> groups(const TargetsInput& whole, const std::vector<int>& order) {
  std::vector<int> root(whole.dimensions.size());
  std::iota(root.begin(), root.end(), 0);
  const auto find = [&](int d) {
    while (root[static_cast<std::size_t>(d)] != d) d = root[static_cast<std::size_t>(d)];
    return d;
  };
  for (const auto& c : whole.conditions)
    for (const auto& t : c.terms)
      root[static_cast<std::size_t>(find(t.dimension))] = find(c.terms.front().dimension);
  std::vector<Group> list;
  std::vector<int> group_of(root.size(), -1), place(root.size(), 0);
  for (std::size_t d = 0; d < root.size(); ++d) {
    auto& g = group_of[static_cast<std::size_t>(find(static_cast<int>(d)))];
    if (g < 0) {
      g = static_cast<int>(list.size());
      list.emplace_back();
    }
    auto& in = list[static_cast<std::size_t>(g)].input;
    place[d] = static_cast<int>(in.dimensions.size());
    in.dimensions.push_back(whole.dimensions[d]);
  }
  for (auto c : whole.conditions) {
    const auto g =
        static_cast<std::size_t>(group_of[static_cast<std::size_t>(find(c.terms.front().dimension))]);
    for (auto& t : c.terms) t.dimension = place[static_cast<std::size_t>(t.dimension)];
    list[g].input.conditions.push_back(c);
  }
  for (const int d : order)
    list[static_cast<std::size_t>(group_of[static_cast<std::size_t>(find(d))])].order.push_back(
        place[static_cast<std::size_t>(d)]);
  return list;
}

/// How many conditions hold for what was truly made.
int right(const TargetsInput& in, const std::vector<double>& made) {
  int count = 0;
  for (const auto& c : in.conditions) {
    double gap = 0;
    for (const auto& t : c.terms) gap += t.coefficient * made[static_cast<std::size_t>(t.dimension)];
    count += gap >= c.least - 1e-9 && gap <= c.most + 1e-9;
  }
  return count;
}

int make_to_drawing(const Group& group, sim::Hands& hands) {
  std::vector<double> made(group.input.dimensions.size());
  for (const int d : group.order) {
    const auto& x = group.input.dimensions[static_cast<std::size_t>(d)];
    made[static_cast<std::size_t>(d)] = hands.make((x.lower + x.upper) / 2, x.capability);
  }
  return right(group.input, made);
}

int make_to_target(const Group& group, sim::Hands& hands, double reading) {
  auto in = group.input;
  std::vector<double> made(in.dimensions.size());
  for (const int d : group.order) {
    auto& x = in.dimensions[static_cast<std::size_t>(d)];
    auto result = targets(in);
    if (result.usable() && !result.feasible) result = targets(in, {true, 1.0});
    const auto* target = result.target(d);
    auto& size = made[static_cast<std::size_t>(d)];
    size = hands.make(target ? target->make : (x.lower + x.upper) / 2, x.capability);
    x.measured = hands.read(size);
    x.uncertainty = reading;
  }
  return right(group.input, made);
}

} // namespace

int main(int argc, char** argv) {
  const int engines = argc > 1 ? std::atoi(argv[1]) : 1000;
  auto demo = demo::mill_engine();
  auto build = demo.build;
  for (const auto& [id, record] : demo.build.records()) // nothing is made yet
    if (record.as<build::Measurement>() != nullptr) build.apply({"", {{id, record, std::nullopt}}});
  const auto whole = build_targets(build);
  std::vector<int> order;
  for (const auto& n : order_of_making(build, whole)) order.push_back(whole.index_of(n.made));
  const auto all = groups(whole.input, order);
  const auto conditions = static_cast<int>(whole.input.conditions.size());
  fmt::print("{} sizes, {} joints and chains, {} groups that do not see each other\n",
             whole.input.dimensions.size(), conditions, all.size());
  for (const double scale : {1.0, 1.5, 2.0}) {
    std::vector<int> drawing(static_cast<std::size_t>(engines)), target(drawing);
    const auto work = [&](int first) {
      for (int k = first; k < engines; k += 2) {
        sim::HandsOptions options;
        options.seed = 4000 + static_cast<std::uint64_t>(k);
        sim::Hands a(options), b(options);
        for (auto group : all) {
          for (auto& d : group.input.dimensions) d.capability *= scale;
          drawing[static_cast<std::size_t>(k)] += make_to_drawing(group, a);
          target[static_cast<std::size_t>(k)] += make_to_target(group, b, options.reading);
        }
      }
    };
    std::thread other(work, 1);
    work(0);
    other.join();
    const auto report = [&](const char* name, const std::vector<int>& counts) {
      const auto sum = std::accumulate(counts.begin(), counts.end(), 0LL);
      int perfect = 0;
      for (const int c : counts) perfect += c == conditions;
      fmt::print(
          "capability × {:.1f}, {:<11} {:6.2f} % of joints and chains right, {:5.1f} % of engines wholly\n",
          scale, name, 100.0 * static_cast<double>(sum) / (static_cast<double>(conditions) * engines),
          100.0 * perfect / engines);
    };
    report("to drawing:", drawing);
    report("to target:", target);
  }
}
