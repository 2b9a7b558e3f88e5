#include "store/route_export.h"

#include "store/csv.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace datrin::store {

using nlohmann::ordered_json;

std::string route_json(const route::RouteCard& card) {
  ordered_json out{{"format", "datrin-route"},    {"version", 1},
                   {"part", card.part},           {"material", card.material},
                   {"made_from", card.made_from}, {"pieces", card.pieces},
                   {"minutes", card.minutes}};
  out["setups"] = ordered_json::array();
  for (const auto& setup : card.setups) {
    ordered_json one{{"name", setup.name},         {"machine", setup.machine}, {"held", setup.held},
                     {"datums", setup.datums},     {"measure", setup.measure}, {"leave", setup.leave},
                     {"cautions", setup.cautions}, {"minutes", setup.minutes}};
    one["operations"] = ordered_json::array();
    for (const auto& o : setup.operations)
      one["operations"].push_back({{"number", o.number},
                                   {"operation", o.what},
                                   {"with", o.with},
                                   {"size_mm", o.size},
                                   {"minutes", o.minutes},
                                   {"after", o.after},
                                   {"note", o.note},
                                   {"done", o.done}});
    out["setups"].push_back(std::move(one));
  }
  return out.dump(2) + "\n";
}

std::string route_csv(const route::RouteCard& card) {
  std::string text = "number,operation,setup,machine,held,with,size_mm,minutes,after,note\n";
  for (const auto& setup : card.setups)
    for (const auto& o : setup.operations) {
      std::string after;
      for (const int number : o.after) after += fmt::format("{}{}", after.empty() ? "" : " ", number);
      text += fmt::format("{},{},{},{},{},{},{},{},{},{}\n", o.number, csv_field(o.what),
                          csv_field(setup.name), csv_field(setup.machine), csv_field(setup.held),
                          csv_field(o.with), o.size, o.minutes, after, csv_field(o.note));
    }
  return text;
}

} // namespace datrin::store
