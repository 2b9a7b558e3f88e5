#include "steps/bench_place.h"

#include "quantity/text.h"

#include <algorithm>

namespace datrin::steps {

using namespace build;

BenchPlace place_or_new(const Build& build, const BenchInput& in) {
  if (const auto place = build.bench_place_of(in.piece, in.setup)) return place->second;
  BenchPlace place;
  place.piece = in.piece;
  place.setup = in.setup;
  return place;
}

void keep_place(Rows& rows, const BenchInput& in, const BenchPlace& place) {
  if (const auto old = rows.build().bench_place_of(in.piece, in.setup))
    rows.set(old->first, place);
  else
    rows.add(place);
}

void pass(Rows& rows, const BenchInput& in, const BenchStep& step, const std::string& at) {
  auto place = place_or_new(rows.build(), in);
  const auto words = words_of(place.passed);
  if (std::find(words.begin(), words.end(), step.key) == words.end())
    place.passed += (place.passed.empty() ? "" : " ") + step.key;
  place.step = step.key;
  place.at = at;
  keep_place(rows, in, place);
}

} // namespace datrin::steps
