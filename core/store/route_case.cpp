#include "store/route_case.h"

#include "quantity/text.h"

#include <fmt/format.h>

#include <cmath>
#include <map>

namespace datrin::store {

using nlohmann::ordered_json;

namespace {

/// Things by their ids, each once.
class Ids {
public:
  explicit Ids(std::string what) : what_(std::move(what)) {}
  std::string take(const JsonAt& at) {
    auto id = at.name();
    if (!index_.emplace(id, static_cast<int>(ids_.size())).second)
      at.refuse(fmt::format("two {}s are called \"{}\"", what_, one_line(id)));
    ids_.push_back(id);
    return id;
  }
  int find(const JsonAt& at) const {
    const auto name = at.text();
    const auto found = index_.find(name);
    if (found == index_.end())
      at.refuse(fmt::format("no {} is called \"{}\"{}", what_, one_line(name), did_you_mean(name, ids_)));
    return found->second;
  }

private:
  std::string what_;
  std::map<std::string, int> index_;
  std::vector<std::string> ids_;
};

void read_route(const JsonAt& root, route::OrderInput& in) {
  root.only_keys(
      {"format", "version", "title", "operations", "setup_minutes", "tool_minutes", "pieces", "manner"});
  only_format(root, "datrin-route-case");
  const auto operations = root.at("operations");
  Ids ids("operation");
  for (std::size_t k = 0; k < operations.size(); ++k) {
    const auto at = operations.at(k);
    at.only_keys({"id", "setup", "tool", "minutes", "after"});
    route::RouteStep o;
    o.id = ids.take(at.at("id"));
    if (!at.at("setup").is_null()) o.setup = at.at("setup").name();
    if (at.has("tool") && !at.at("tool").is_null()) o.tool = at.at("tool").name();
    o.minutes = at.at("minutes").not_negative();
    in.operations.push_back(std::move(o));
  }
  for (std::size_t k = 0; k < operations.size(); ++k) { // when every id is known
    if (!operations.at(k).has("after")) continue;
    const auto after = operations.at(k).at("after");
    for (std::size_t j = 0; j < after.size(); ++j) in.operations[k].after.push_back(ids.find(after.at(j)));
  }
  in.setup_minutes = root.at("setup_minutes").not_negative();
  in.tool_minutes = root.at("tool_minutes").not_negative();
  constexpr double most_pieces = 1e6;
  const double pieces = root.at("pieces").positive();
  if (pieces != std::floor(pieces) || pieces > most_pieces)
    root.at("pieces").refuse("must be a whole number, at most 1000000");
  in.pieces = static_cast<int>(pieces);
  const auto manner = root.at("manner").text();
  if (manner == "operation by operation")
    in.manner = route::Manner::operation_by_operation;
  else if (manner != "part by part")
    root.at("manner").refuse("must be \"part by part\" or \"operation by operation\"");
}

void read_spread(const JsonAt& root, route::SpreadInput& in) {
  root.only_keys({"format", "version", "title", "unit", "features", "setups", "requirements"});
  only_format(root, "datrin-spread-case");
  Ids features("feature"), setups("setup"), requirements("requirement");
  const auto list = root.at("features");
  for (std::size_t k = 0; k < list.size(); ++k) {
    const auto at = list.at(k);
    at.only_keys({"id", "kind", "point", "direction", "raw_sigma"});
    route::SpreadFeature f;
    f.id = features.take(at.at("id"));
    const auto kind = at.at("kind").text();
    if (kind != "plane" && kind != "axis") at.at("kind").refuse("must be \"plane\" or \"axis\"");
    f.axis = kind == "axis";
    f.point = at.at("point").vector();
    f.direction = at.at("direction").direction();
    f.raw_sigma = at.at("raw_sigma").not_negative();
    in.features.push_back(std::move(f));
  }
  const auto order = root.at("setups");
  for (std::size_t k = 0; k < order.size(); ++k) {
    const auto at = order.at(k);
    at.only_keys({"id", "locators", "cuts"});
    route::SpreadSetup s;
    s.id = setups.take(at.at("id"));
    const auto locators = at.at("locators");
    if (locators.size() != 6) locators.refuse(fmt::format("must be six, not {}", locators.size()));
    for (std::size_t j = 0; j < locators.size(); ++j) {
      const auto l = locators.at(j);
      l.only_keys({"feature", "at", "direction", "sigma"});
      s.locators.push_back({features.find(l.at("feature")), l.at("at").vector(),
                            l.at("direction").direction(), l.at("sigma").not_negative()});
    }
    const auto cuts = at.at("cuts");
    for (std::size_t j = 0; j < cuts.size(); ++j) {
      const auto c = cuts.at(j);
      c.only_keys({"feature", "sigma"});
      s.cuts.push_back({features.find(c.at("feature")), c.at("sigma").not_negative()});
    }
    in.setups.push_back(std::move(s));
  }
  const auto wanted = root.at("requirements");
  for (std::size_t k = 0; k < wanted.size(); ++k) {
    const auto at = wanted.at(k);
    at.only_keys({"id", "from", "to", "along", "at"});
    in.requirements.push_back({requirements.take(at.at("id")), features.find(at.at("from")),
                               features.find(at.at("to")), at.at("along").direction(), at.at("at").vector()});
  }
}

} // namespace

RouteCase read_route_case(std::string_view text, const std::string& label) {
  RouteCase out;
  read_case(out, text, label, [&](const JsonAt& root) { read_route(root, out.input); });
  return out;
}

RouteCase read_route_case_file(const std::string& path) {
  return read_case_file(path, read_route_case);
}

ordered_json route_result_json(const RouteCase& route_case, const route::OrderResult& result) {
  ordered_json out{{"format", "datrin-route-result"}, {"version", 1}};
  out["order"] = ordered_json::array();
  for (const int k : result.order)
    out["order"].push_back(route_case.input.operations[static_cast<std::size_t>(k)].id);
  out["setups"] = result.setups;
  out["tool_changes"] = result.tool_changes;
  out["minutes"] = result.minutes;
  out["proved_best"] = result.proved_best;
  out["lower_bound"] = result.lower_bound;
  return out;
}

std::string route_result_text(const RouteCase& route_case, const route::OrderResult& result) {
  std::string out;
  for (const int k : result.order) {
    const auto& o = route_case.input.operations[static_cast<std::size_t>(k)];
    out += fmt::format("{}{}{}\n", one_line(o.id), o.setup.empty() ? "" : ", " + one_line(o.setup),
                       o.tool.empty() ? "" : ", " + one_line(o.tool));
  }
  out += fmt::format("{:g} min for {} piece{}: {} setups, {} tool changes", result.minutes,
                     route_case.input.pieces, route_case.input.pieces == 1 ? "" : "s", result.setups,
                     result.tool_changes);
  out += result.proved_best
             ? ". No order takes less.\n"
             : fmt::format(". None takes less than {:g} min; this is not proved best.\n", result.lower_bound);
  return out;
}

SpreadCase read_spread_case(std::string_view text, const std::string& label) {
  SpreadCase out;
  read_case(out, text, label, [&](const JsonAt& root) { read_spread(root, out.input); });
  return out;
}

SpreadCase read_spread_case_file(const std::string& path) {
  return read_case_file(path, read_spread_case);
}

ordered_json spread_result_json(const SpreadCase& spread_case, const route::SpreadResult& result) {
  ordered_json out{{"format", "datrin-spread-result"}, {"version", 1}};
  out["requirements"] = ordered_json::array();
  for (std::size_t r = 0; r < result.requirements.size(); ++r) {
    const auto& found = result.requirements[r];
    ordered_json one{{"id", spread_case.input.requirements[r].id}, {"sigma", found.sigma}};
    one["contributions"] = ordered_json::array();
    for (std::size_t s = 0; s < found.shares.size(); ++s)
      one["contributions"].push_back({{"setup", spread_case.input.setups[s].id},
                                      {"locating", found.shares[s].locating},
                                      {"cutting", found.shares[s].cutting}});
    one["raw"] = found.raw;
    out["requirements"].push_back(std::move(one));
  }
  return out;
}

std::string spread_result_text(const SpreadCase& spread_case, const route::SpreadResult& result) {
  std::string out;
  constexpr double per_cent = 100;
  for (std::size_t r = 0; r < result.requirements.size(); ++r) {
    const auto& found = result.requirements[r];
    out += fmt::format("{}: sigma {:.6g}\n", one_line(spread_case.input.requirements[r].id), found.sigma);
    for (std::size_t s = 0; s < found.shares.size(); ++s)
      if (const auto& share = found.shares[s]; share.locating + share.cutting > 0)
        out += fmt::format(
            "  {:.1f} % {}: locating {:.1f}, cutting {:.1f}\n", per_cent * (share.locating + share.cutting),
            one_line(spread_case.input.setups[s].id), per_cent * share.locating, per_cent * share.cutting);
    if (found.raw > 0) out += fmt::format("  {:.1f} % stays raw\n", per_cent * found.raw);
  }
  return out;
}

} // namespace datrin::store
