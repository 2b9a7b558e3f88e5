#include "route_command.h"

#include "case_call.h"
#include "store/route_case.h"

namespace datrin::cli {

int run_route(const std::string& path, bool as_text, std::ostream& out, std::ostream& err) {
  return answer_case(
      path, store::read_route_case_file(path), [](const auto& read) { return route::best_order(read.input); },
      store::route_result_text, store::route_result_json, as_text, out, err);
}

int run_spread(const std::string& path, bool as_text, std::ostream& out, std::ostream& err) {
  return answer_case(
      path, store::read_spread_case_file(path), [](const auto& read) { return route::spread(read.input); },
      store::spread_result_text, store::spread_result_json, as_text, out, err);
}

} // namespace datrin::cli
