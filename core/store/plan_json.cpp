#include "store/plan_json.h"

#include "store/record_fields.h"

namespace datrin::store {

using namespace build;

namespace {

constexpr std::string_view dimension_kinds[] = {"size",          "distance", "edge radius",
                                                "corner radius", "angle",    "length"};
constexpr std::string_view classes[] = {"critical", "fit", "free", "looks"};
constexpr std::string_view sources[] = {"drawing", "mate", "chosen", "borrowed", "assumed"};
constexpr std::string_view last_steps[] = {"none", "ream", "lap", "trial"};

std::vector<Id> ids_from(const JsonAt& at) {
  std::vector<Id> ids;
  for (std::size_t k = 0; k < at.size(); ++k) ids.push_back(id_from(at.at(k)));
  return ids;
}

} // namespace

json plan_body(const Dimension& r) {
  json history = json::array();
  for (const auto& old : r.history) history.push_back({{"was", old.was}, {"at", old.at}});
  return {{"part", r.part},
          {"name", r.name},
          {"kind", word(dimension_kinds, r.kind)},
          {"surface", r.surface},
          {"other", r.other},
          {"nominal", r.nominal},
          {"lower", r.lower},
          {"upper", r.upper},
          {"tolerance", r.tolerance},
          {"class", word(classes, r.importance)},
          {"source", word(sources, r.source)},
          {"reason", r.reason},
          {"capability", r.capability},
          {"cutter", r.cutter},
          {"run", r.run},
          {"rise", r.rise},
          {"sum", r.sum},
          {"history", history},
          {"order", r.order}};
}

json plan_body(const Measurement& r) {
  return {{"piece", r.piece},           {"dimension", r.dimension},
          {"value", r.value},           {"uncertainty", r.uncertainty},
          {"instrument", r.instrument}, {"at", r.at}};
}

json plan_body(const Foundry& r) {
  return {{"part", r.part},           {"metal", r.metal},
          {"process", r.process},     {"tolerance_grade", r.tolerance_grade},
          {"allowance", r.allowance}, {"shrinkage", r.shrinkage},
          {"draft", r.draft},         {"draw", vector_json(r.draw)}};
}

json plan_body(const Machine& r) {
  return {{"name", r.name},
          {"reads_diameter", r.reads_diameter ? 1 : 0},
          {"unit", unit_name(r.unit)},
          {"resolution", r.resolution},
          {"note", r.note},
          {"order", r.order}};
}

json plan_body(const Tool& r) {
  return {{"name", r.name},   {"size", r.size}, {"corner", r.corner}, {"least_cut", r.least_cut},
          {"reach", r.reach}, {"note", r.note}, {"order", r.order}};
}

json plan_body(const Allowance& r) {
  return {{"piece", r.piece},         {"surface", r.surface},
          {"machine", r.machine},     {"tool", r.tool},
          {"skin", r.skin},           {"rough", r.rough},
          {"semi", r.semi},           {"finish", r.finish},
          {"last", r.last},           {"last_step", word(last_steps, r.last_step)},
          {"even", r.even ? 1 : 0},   {"batch", r.batch ? 1 : 0},
          {"spare_end", r.spare_end}, {"announced", r.announced}};
}

json plan_body(const Cut& r) {
  return {{"piece", r.piece},
          {"surface", r.surface},
          {"planned", r.planned},
          {"left", r.left},
          {"uncertainty", r.uncertainty},
          {"read", r.read},
          {"note", r.note},
          {"at", r.at},
          {"order", r.order},
          {"place", vector_json(r.place)}};
}

json plan_body(const Setup& r) {
  return {{"part", r.part},   {"name", r.name},   {"datums", r.datums}, {"cuts", r.cuts},
          {"sizes", r.sizes}, {"marks", r.marks}, {"order", r.order}};
}

json plan_body(const Release& r) {
  return {{"piece", r.piece}, {"setup", r.setup}, {"at", r.at}, {"missing", r.missing}};
}

namespace {

Dimension dimension_from(const JsonAt& at) {
  Dimension r;
  r.part = id_from(at.at("part"));
  r.name = at.at("name").text();
  r.kind = value_of<DimensionKind>(dimension_kinds, at.at("kind"));
  r.surface = id_from(at.at("surface"));
  r.other = id_from(at.at("other"));
  r.nominal = at.at("nominal").number();
  r.lower = at.at("lower").number();
  r.upper = at.at("upper").number();
  if (r.lower > r.upper) at.at("lower").refuse("must not be above upper");
  r.tolerance = at.at("tolerance").text();
  r.importance = value_of<DimensionClass>(classes, at.at("class"));
  r.source = value_of<DimensionSource>(sources, at.at("source"));
  r.reason = at.at("reason").text();
  r.capability = at.at("capability").not_negative();
  r.cutter = at.at("cutter").not_negative();
  r.run = at.at("run").not_negative();
  r.rise = at.at("rise").not_negative();
  r.sum = at.at("sum").text();
  const auto history = at.at("history");
  for (std::size_t k = 0; k < history.size(); ++k)
    r.history.push_back({history.at(k).at("was").text(), history.at(k).at("at").text()});
  r.order = at.at("order").number();
  return r;
}

Foundry foundry_from(const JsonAt& at) {
  Foundry r;
  r.part = id_from(at.at("part"));
  r.metal = at.at("metal").text();
  r.process = at.at("process").text();
  const double grade = at.at("tolerance_grade").number();
  if (grade < 1 || grade > 16 || grade != std::floor(grade))
    at.at("tolerance_grade").refuse("must be a whole number from 1 to 16");
  r.tolerance_grade = static_cast<int>(grade);
  r.allowance = at.at("allowance").text();
  r.shrinkage = at.at("shrinkage").number();
  r.draft = at.at("draft").not_negative();
  r.draw = at.at("draw").direction();
  return r;
}

Machine machine_from(const JsonAt& at) {
  Machine r;
  r.name = at.at("name").text();
  r.reads_diameter = bool_from(at.at("reads_diameter"));
  const auto unit = unit_from_name(at.at("unit").text());
  if (!unit) at.at("unit").refuse("must be \"mm\" or \"in\"");
  r.unit = *unit;
  r.resolution = at.at("resolution").positive();
  r.note = at.at("note").text();
  r.order = at.at("order").number();
  return r;
}

Allowance allowance_from(const JsonAt& at) {
  Allowance r;
  r.piece = id_from(at.at("piece"));
  r.surface = id_from(at.at("surface"));
  r.machine = id_from(at.at("machine"));
  r.tool = id_from(at.at("tool"));
  r.skin = at.at("skin").not_negative();
  r.rough = at.at("rough").positive();
  r.semi = at.at("semi").not_negative();
  r.finish = at.at("finish").not_negative();
  r.last = at.at("last").not_negative();
  r.last_step = value_of<LastStep>(last_steps, at.at("last_step"));
  r.even = bool_from(at.at("even"));
  r.batch = bool_from(at.at("batch"));
  r.spare_end = at.at("spare_end").not_negative();
  r.announced = at.at("announced").text();
  return r;
}

Cut cut_from(const JsonAt& at) {
  return {id_from(at.at("piece")),
          id_from(at.at("surface")),
          at.at("planned").number(),
          at.at("left").number(),
          at.at("uncertainty").not_negative(),
          at.at("read").text(),
          at.at("note").text(),
          at.at("at").text(),
          at.at("order").number(),
          at.at("place").vector()};
}

} // namespace

std::optional<Record> plan_from_json(std::string_view kind, const JsonAt& at) {
  if (kind == "dimension") return dimension_from(at);
  if (kind == "measurement")
    return Measurement{id_from(at.at("piece")),    id_from(at.at("dimension")),
                       at.at("value").number(),    at.at("uncertainty").not_negative(),
                       at.at("instrument").text(), at.at("at").text()};
  if (kind == "foundry") return foundry_from(at);
  if (kind == "machine") return machine_from(at);
  if (kind == "tool")
    return Tool{at.at("name").text(),           at.at("size").not_negative(),
                at.at("corner").not_negative(), at.at("least_cut").not_negative(),
                at.at("reach").not_negative(),  at.at("note").text(),
                at.at("order").number()};
  if (kind == "allowance") return allowance_from(at);
  if (kind == "cut") return cut_from(at);
  if (kind == "setup")
    return Setup{id_from(at.at("part")),  at.at("name").text(),     ids_from(at.at("datums")),
                 ids_from(at.at("cuts")), ids_from(at.at("sizes")), ids_from(at.at("marks")),
                 at.at("order").number()};
  if (kind == "release")
    return Release{id_from(at.at("piece")), id_from(at.at("setup")), at.at("at").text(),
                   at.at("missing").text()};
  return std::nullopt;
}

} // namespace datrin::store
