#pragma once
// What every step of a setup is made with: the build, the piece in its setup, what is behind, the unit of the
// machine.

#include "quantity/length_text.h"
#include "quantity/text.h"
#include "route/card.h"
#include "steps/bench_steps.h"

#include <algorithm>
#include <string>
#include <vector>

namespace datrin::steps {

class StepMaker {
public:
  StepMaker(const build::Build& build, const BenchInput& in, const BenchOptions& options)
      : build_(build), in_(in), options_(options), setup_(*build.find<build::Setup>(in.setup)),
        unit_(route::machine_unit(build, setup_)) {
    if (const auto place = build.bench_place_of(in.piece, in.setup))
      for (const auto word : words_of(place->second.passed)) passed_.emplace_back(word);
  }

protected:
  bool passed(const std::string& key) const {
    return std::find(passed_.begin(), passed_.end(), key) != passed_.end();
  }
  std::string text(double mm, int decimals = 2) const {
    return length_text(mm, unit_, {.decimals_mm = decimals, .show_unit = true});
  }
  /// "bolt hole, 2 of 4"
  static std::string numbered(const std::string& name, std::size_t n, std::size_t all) {
    return all > 1 ? name + ", " + std::to_string(n + 1) + " of " + std::to_string(all) : name;
  }
  static std::string joined(const std::string& a, const std::string& b) {
    return a + (a.empty() || b.empty() ? "" : "; ") + b;
  }
  BenchStep plain(std::string key, StepKind kind, std::string title) const {
    BenchStep step;
    step.key = std::move(key);
    step.kind = kind;
    step.title = std::move(title);
    step.done = passed(step.key);
    return step;
  }

  const build::Build& build_;
  const BenchInput& in_;
  BenchOptions options_;
  const build::Setup& setup_;
  Unit unit_; ///< of the machine

private:
  std::vector<std::string> passed_;
};

} // namespace datrin::steps
