#pragma once
// The exchange format of an order of operations: "datrin-route-case" in, "datrin-route-result" out; and of
// what turn-overs cost: "datrin-spread-case" in, "datrin-spread-result" out. (store uses route here, because
// a file of a computation is that computation's inputs and results written down.)

#include "route/order.h"
#include "route/spread.h"
#include "store/case_header.h"

#include <nlohmann/json.hpp>

namespace datrin::store {

struct RouteCase {
  ReadStatus status = ReadStatus::not_run;
  std::string message;               ///< why it was refused: "file: place: rule"
  std::vector<std::string> warnings; ///< keys that were left out
  route::OrderInput input;

  bool ok() const { return status == ReadStatus::ok; }
};

/// Reads a case from JSON text; `label` (the file's name) begins every message.
RouteCase read_route_case(std::string_view text, const std::string& label);
RouteCase read_route_case_file(const std::string& path);
nlohmann::ordered_json route_result_json(const RouteCase& route_case, const route::OrderResult& result);
/// The same as lines for people.
std::string route_result_text(const RouteCase& route_case, const route::OrderResult& result);

struct SpreadCase {
  ReadStatus status = ReadStatus::not_run;
  std::string message;
  std::vector<std::string> warnings;
  route::SpreadInput input; ///< in the case's own unit: sigmas come out in it

  bool ok() const { return status == ReadStatus::ok; }
};

SpreadCase read_spread_case(std::string_view text, const std::string& label);
SpreadCase read_spread_case_file(const std::string& path);
nlohmann::ordered_json spread_result_json(const SpreadCase& spread_case, const route::SpreadResult& result);
std::string spread_result_text(const SpreadCase& spread_case, const route::SpreadResult& result);

} // namespace datrin::store
