#include "store/plan_json.h"

#include "store/record_fields.h"

namespace datrin::store {

using namespace build;

namespace {

constexpr std::string_view dimension_kinds[] = {"size",          "distance", "edge radius",
                                                "corner radius", "angle",    "length"};
constexpr std::string_view classes[] = {"critical", "fit", "free", "looks"};
constexpr std::string_view sources[] = {"drawing", "mate", "chosen", "borrowed", "assumed"};
constexpr std::string_view tool_kinds[] = {"cutter", "drill", "reamer", "ground bar", "gauge pin"};
/// As data/joint_purposes.csv and the window name them (a test holds them together).
constexpr std::string_view purposes[] = {"runs freely",
                                         "runs true",
                                         "slides",
                                         "locates",
                                         "slip for retaining compound",
                                         "light press",
                                         "press",
                                         "shrink",
                                         "spring-on taper",
                                         "rolling bearing in housing",
                                         "rolling bearing on shaft",
                                         "clearance for a bolt",
                                         "clearance for a shoulder",
                                         "key in keyway",
                                         "tongue in slot",
                                         "thread"};
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
  json places = json::array();
  for (const auto& p : r.places)
    places.push_back({{"depth", p.depth}, {"direction", p.direction}, {"value", p.value}});
  return {{"piece", r.piece},
          {"dimension", r.dimension},
          {"value", r.value},
          {"uncertainty", r.uncertainty},
          {"instrument", r.instrument},
          {"at", r.at},
          {"read", r.read},
          {"mate", r.mate},
          {"mate_piece", r.mate_piece},
          {"difference", r.difference},
          {"places", places}};
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
          {"reach", r.reach}, {"note", r.note}, {"order", r.order},   {"kind", word(tool_kinds, r.kind)}};
}

json plan_body(const Instrument& r) {
  return {{"name", r.name},  {"resolution", r.resolution},   {"uncertainty", r.uncertainty},
          {"zero", r.zero},  {"temperature", r.temperature}, {"note", r.note},
          {"order", r.order}};
}

json plan_body(const Joint& r) {
  json pairs = json::array();
  for (const auto& [hole, shaft] : r.pairs) pairs.push_back({{"hole", hole}, {"shaft", shaft}});
  return {{"name", r.name},
          {"purpose", word(purposes, r.purpose)},
          {"hole", r.hole},
          {"shaft", r.shaft},
          {"least", r.least},
          {"most", r.most},
          {"basis", r.basis},
          {"thread", r.thread},
          {"length", r.length},
          {"hub_outside", r.hub_outside},
          {"shaft_bore", r.shaft_bore},
          {"temperature", r.temperature},
          {"comes_apart", r.comes_apart ? 1 : 0},
          {"through", r.through ? 1 : 0},
          {"looks", r.looks ? 1 : 0},
          {"method", r.method},
          {"pairs", pairs},
          {"reason", r.reason},
          {"order", r.order}};
}

json plan_body(const Chain& r) {
  json terms = json::array();
  for (const auto& t : r.terms)
    terms.push_back(
        {{"dimension", t.dimension}, {"piece", t.piece}, {"coefficient", t.coefficient}, {"why", t.why}});
  return {{"name", r.name}, {"terms", terms},     {"least", r.least},
          {"most", r.most}, {"reason", r.reason}, {"order", r.order}};
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

Measurement measurement_from(const JsonAt& at) {
  Measurement r;
  r.piece = id_from(at.at("piece"));
  r.dimension = id_from(at.at("dimension"));
  r.value = at.at("value").number();
  r.uncertainty = at.at("uncertainty").not_negative();
  r.instrument = at.at("instrument").text();
  r.at = at.at("at").text();
  if (!at.has("places")) return r; // as format 3 wrote it
  r.read = at.at("read").text();
  r.mate = id_from(at.at("mate"));
  r.mate_piece = id_from(at.at("mate_piece"));
  r.difference = at.at("difference").number();
  const auto places = at.at("places");
  for (std::size_t k = 0; k < places.size(); ++k)
    r.places.push_back({places.at(k).at("depth").number(), places.at(k).at("direction").number(),
                        places.at(k).at("value").number()});
  return r;
}

Tool tool_from(const JsonAt& at) {
  Tool r{at.at("name").text(),           at.at("size").not_negative(),
         at.at("corner").not_negative(), at.at("least_cut").not_negative(),
         at.at("reach").not_negative(),  at.at("note").text(),
         at.at("order").number(),        ToolKind::cutter};
  if (at.has("kind")) r.kind = value_of<ToolKind>(tool_kinds, at.at("kind")); // format 3 had cutters only
  return r;
}

Joint joint_from(const JsonAt& at) {
  Joint r;
  r.name = at.at("name").text();
  r.purpose = value_of<JointPurpose>(purposes, at.at("purpose"));
  r.hole = id_from(at.at("hole"));
  r.shaft = id_from(at.at("shaft"));
  r.least = at.at("least").number();
  r.most = at.at("most").number();
  if (r.least > r.most) at.at("least").refuse("must not be above most");
  r.basis = at.at("basis").text();
  r.thread = at.at("thread").text();
  r.length = at.at("length").not_negative();
  r.hub_outside = at.at("hub_outside").not_negative();
  r.shaft_bore = at.at("shaft_bore").not_negative();
  r.temperature = at.at("temperature").number();
  r.comes_apart = bool_from(at.at("comes_apart"));
  r.through = bool_from(at.at("through"));
  r.looks = bool_from(at.at("looks"));
  r.method = at.at("method").text();
  const auto pairs = at.at("pairs");
  for (std::size_t k = 0; k < pairs.size(); ++k)
    r.pairs.emplace_back(id_from(pairs.at(k).at("hole")), id_from(pairs.at(k).at("shaft")));
  r.reason = at.at("reason").text();
  r.order = at.at("order").number();
  return r;
}

Chain chain_from(const JsonAt& at) {
  Chain r;
  r.name = at.at("name").text();
  const auto terms = at.at("terms");
  for (std::size_t k = 0; k < terms.size(); ++k)
    r.terms.push_back({id_from(terms.at(k).at("dimension")), id_from(terms.at(k).at("piece")),
                       terms.at(k).at("coefficient").number(), terms.at(k).at("why").text()});
  r.least = at.at("least").number();
  r.most = at.at("most").number();
  if (r.least > r.most) at.at("least").refuse("must not be above most");
  r.reason = at.at("reason").text();
  r.order = at.at("order").number();
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
  if (kind == "measurement") return measurement_from(at);
  if (kind == "foundry") return foundry_from(at);
  if (kind == "machine") return machine_from(at);
  if (kind == "tool") return tool_from(at);
  if (kind == "allowance") return allowance_from(at);
  if (kind == "cut") return cut_from(at);
  if (kind == "setup")
    return Setup{id_from(at.at("part")),  at.at("name").text(),     ids_from(at.at("datums")),
                 ids_from(at.at("cuts")), ids_from(at.at("sizes")), ids_from(at.at("marks")),
                 at.at("order").number()};
  if (kind == "release")
    return Release{id_from(at.at("piece")), id_from(at.at("setup")), at.at("at").text(),
                   at.at("missing").text()};
  if (kind == "instrument")
    return Instrument{
        at.at("name").text(),   at.at("resolution").positive(), at.at("uncertainty").not_negative(),
        at.at("zero").number(), at.at("temperature").number(),  at.at("note").text(),
        at.at("order").number()};
  if (kind == "joint") return joint_from(at);
  if (kind == "chain") return chain_from(at);
  return std::nullopt;
}

} // namespace datrin::store
