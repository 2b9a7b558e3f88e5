#include "route_command.h"

#include "commands.h"
#include "store/route_case.h"

#include <fmt/format.h>
#include <fmt/ostream.h>

#include <ostream>

namespace datrin::cli {

namespace {

/// Reads, works out, prints: `solve(input)` gives a result with `usable()` and `message`.
template <class Case, class Solve, class Text, class Json>
int run_case(const std::string& path, const Case& read, Solve solve, Text text, Json json, bool as_text,
             std::ostream& out, std::ostream& err) {
  for (const auto& warning : read.warnings) fmt::print(err, "{}\n", warning);
  if (!read.ok()) {
    fmt::print(err, "{}\n", read.message);
    return refused;
  }
  const auto result = solve(read.input);
  if (!result.usable()) {
    fmt::print(err, "{}: {}\n", path, result.message);
    return refused;
  }
  if (as_text)
    out << text(read, result);
  else
    out << json(read, result).dump(2) << '\n';
  return answer_yes;
}

} // namespace

int run_route(const std::string& path, bool as_text, std::ostream& out, std::ostream& err) {
  return run_case(
      path, store::read_route_case_file(path), [](const auto& in) { return route::best_order(in); },
      store::route_result_text, store::route_result_json, as_text, out, err);
}

int run_spread(const std::string& path, bool as_text, std::ostream& out, std::ostream& err) {
  return run_case(
      path, store::read_spread_case_file(path), [](const auto& in) { return route::spread(in); },
      store::spread_result_text, store::spread_result_json, as_text, out, err);
}

} // namespace datrin::cli
