#include "store/record_json.h"

#include "store/base64.h"
#include "store/plan_json.h"
#include "store/record_fields.h"

#include <bit>
#include <cstring>
#include <span>

namespace datrin::store {

using namespace build;

namespace {

constexpr std::string_view standings[] = {"counted", "confirmed", "set aside"};
constexpr std::string_view frames[] = {"survey", "own", "heights"};
constexpr std::string_view spot_kinds[] = {"draft", "flash", "pore", "chill", "defect", "repair"};

static_assert(std::endian::native == std::endian::little, "scans are written little-endian");

struct ToJson {
  json operator()(const Info& r) const {
    return {{"name", r.name}, {"unit", unit_name(r.unit)}, {"third_angle", r.third_angle ? 1 : 0}};
  }
  json operator()(const Part& r) const {
    return {{"name", r.name}, {"material", r.material}, {"quantity", r.quantity}, {"order", r.order}};
  }
  json operator()(const PartSurface& r) const {
    return {{"part", r.part},
            {"name", r.name},
            {"kind", surface_kind_name(r.kind)},
            {"point", vector_json(r.point)},
            {"direction", vector_json(r.direction)},
            {"diameter", r.diameter},
            {"width", r.width},
            {"height", r.height},
            {"machined", r.machined ? 1 : 0},
            {"required", r.required},
            {"order", r.order}};
  }
  json operator()(const Wall& r) const {
    return {{"part", r.part}, {"from", r.from}, {"to", r.to}, {"least", r.least}};
  }
  json operator()(const Piece& r) const { return {{"part", r.part}, {"number", r.number}}; }
  json operator()(const Touch& r) const {
    return {{"piece", r.piece},
            {"surface", r.surface},
            {"centre", vector_json(r.centre)},
            {"tip_radius", r.tip_radius},
            {"toward", vector_json(r.toward)},
            {"uncertainty", r.uncertainty},
            {"setting", r.setting},
            {"note", r.note},
            {"order", r.order},
            {"standing", word(standings, r.standing)},
            {"corrected", r.corrected}};
  }
  json operator()(const Seat& r) const {
    return {{"piece", r.piece}, {"pose", pose_json(r.pose)}, {"best", r.best ? 1 : 0}};
  }
  json operator()(const Marking& r) const {
    return {{"piece", r.piece},
            {"up", vector_json(r.up)},
            {"reference", r.reference},
            {"base_height", r.base_height},
            {"jacks", json::array({r.jacks[0], r.jacks[1], r.jacks[2]})}};
  }
  json operator()(const Setting& r) const {
    return {{"piece", r.piece}, {"name", r.name}, {"frame", word(frames, r.frame)}, {"order", r.order}};
  }
  json operator()(const Mark& r) const {
    return {{"piece", r.piece},        {"setting", r.setting},         {"name", r.name},
            {"at", vector_json(r.at)}, {"uncertainty", r.uncertainty}, {"order", r.order}};
  }
  json operator()(const SizeReading& r) const {
    return {{"piece", r.piece}, {"surface", r.surface},         {"other", r.other},
            {"size", r.size},   {"uncertainty", r.uncertainty}, {"note", r.note},
            {"order", r.order}};
  }
  json operator()(const Spot& r) const {
    return {{"piece", r.piece},        {"surface", r.surface}, {"kind", word(spot_kinds, r.kind)},
            {"at", vector_json(r.at)}, {"size", r.size},       {"note", r.note}};
  }
  json operator()(const Scan& r) const {
    json body{{"piece", r.piece},
              {"name", r.name},
              {"pose", pose_json(r.pose)},
              {"uncertainty", r.uncertainty},
              {"surfaces", json::array()},
              {"points", ""},
              {"given_to", ""}};
    if (!r.points) return body;
    body["surfaces"] = r.points->surfaces;
    body["points"] = base64(std::as_bytes(std::span(r.points->at)));
    body["given_to"] = base64(std::as_bytes(std::span(r.points->surface)));
    return body;
  }
  json operator()(const Judgement& r) const {
    json favours = json::array(), locked = json::array();
    for (const auto& [id, favour] : r.favour) favours.push_back({{"surface", id}, {"by", favour}});
    for (const bool is_locked : r.locked) locked.push_back(is_locked ? 1 : 0);
    return {{"piece", r.piece}, {"locked", locked}, {"favours", favours}, {"central_bore", r.central_bore}};
  }
  json operator()(const Decision& r) const {
    return {{"part", r.part}, {"piece", r.piece},   {"surface", r.surface},
            {"what", r.what}, {"reason", r.reason}, {"at", r.at}};
  }
  template <class Plan>
  json operator()(const Plan& r) const {
    return plan_body(r);
  }
};

Info info_from(const JsonAt& at) {
  Info r;
  r.name = at.at("name").text();
  const auto unit = unit_from_name(at.at("unit").text());
  if (!unit) at.at("unit").refuse("must be \"mm\" or \"in\"");
  r.unit = *unit;
  r.third_angle = bool_from(at.at("third_angle"));
  return r;
}

Part part_from(const JsonAt& at) {
  return {at.at("name").text(), at.at("material").text(), static_cast<int>(at.at("quantity").positive()),
          at.at("order").number()};
}

PartSurface surface_from(const JsonAt& at) {
  PartSurface r;
  r.part = id_from(at.at("part"));
  r.name = at.at("name").text();
  const auto kind = surface_kind_from_name(at.at("kind").text());
  if (!kind) at.at("kind").refuse("must be \"plane\", \"bore\" or \"boss\"");
  r.kind = *kind;
  r.point = vector_from(at.at("point"));
  r.direction = vector_from(at.at("direction"));
  if (std::abs(r.direction.norm() - 1) > 1e-6) at.at("direction").refuse("must be of unit length");
  r.diameter = at.at("diameter").not_negative();
  r.width = at.at("width").not_negative();
  r.height = at.at("height").not_negative();
  r.machined = bool_from(at.at("machined"));
  r.required = at.at("required").number();
  r.order = at.at("order").number();
  return r;
}

Touch touch_from(const JsonAt& at) {
  Touch r;
  r.piece = id_from(at.at("piece"));
  r.surface = id_from(at.at("surface"));
  r.centre = vector_from(at.at("centre"));
  r.tip_radius = at.at("tip_radius").not_negative();
  r.toward = vector_from(at.at("toward"));
  r.uncertainty = at.at("uncertainty").not_negative();
  r.setting = at.at("setting").text();
  r.note = at.at("note").text();
  r.order = at.at("order").number();
  if (at.has("standing")) r.standing = value_of<TouchStanding>(standings, at.at("standing"));
  if (at.has("corrected")) r.corrected = at.at("corrected").text();
  return r;
}

Setting setting_from(const JsonAt& at) {
  return {id_from(at.at("piece")), at.at("name").text(), value_of<SettingFrame>(frames, at.at("frame")),
          at.at("order").number()};
}

Mark mark_from(const JsonAt& at) {
  return {id_from(at.at("piece")),
          at.at("setting").text(),
          at.at("name").text(),
          at.at("at").vector(),
          at.at("uncertainty").not_negative(),
          at.at("order").number()};
}

SizeReading size_from(const JsonAt& at) {
  return {id_from(at.at("piece")),  id_from(at.at("surface")),           id_from(at.at("other")),
          at.at("size").positive(), at.at("uncertainty").not_negative(), at.at("note").text(),
          at.at("order").number()};
}

Spot spot_from(const JsonAt& at) {
  return {
      id_from(at.at("piece")), id_from(at.at("surface")),    value_of<SpotKind>(spot_kinds, at.at("kind")),
      at.at("at").vector(),    at.at("size").not_negative(), at.at("note").text()};
}

template <class T>
std::vector<T> numbers_from(const JsonAt& at) {
  const auto bytes = from_base64(at.text());
  if (!bytes) at.refuse("must be base64 (RFC 4648)");
  if (bytes->size() % sizeof(T) != 0) at.refuse("is cut short");
  std::vector<T> values(bytes->size() / sizeof(T));
  if (!values.empty()) std::memcpy(values.data(), bytes->data(), bytes->size());
  return values;
}

Scan scan_from(const JsonAt& at) {
  Scan r;
  r.piece = id_from(at.at("piece"));
  r.name = at.at("name").text();
  r.pose = pose_from(at.at("pose"));
  r.uncertainty = at.at("uncertainty").not_negative();
  auto points = std::make_shared<ScanPoints>();
  points->at = numbers_from<std::array<float, 3>>(at.at("points"));
  points->surface = numbers_from<std::uint16_t>(at.at("given_to"));
  const auto surfaces = at.at("surfaces");
  for (std::size_t k = 0; k < surfaces.size(); ++k) points->surfaces.push_back(id_from(surfaces.at(k)));
  if (points->surface.size() != points->at.size())
    at.at("given_to").refuse("must name a surface for every point");
  for (const auto k : points->surface)
    if (k != ScanPoints::no_surface && k >= points->surfaces.size())
      at.at("given_to").refuse("names a surface that is not listed");
  for (const auto& p : points->at)
    for (const float c : p)
      if (!std::isfinite(c)) at.at("points").refuse("must be finite numbers");
  r.points = std::move(points);
  return r;
}

Judgement judgement_from(const JsonAt& at) {
  Judgement r;
  r.piece = id_from(at.at("piece"));
  const auto locked = at.at("locked");
  if (locked.size() != 6) locked.refuse("must be six");
  for (std::size_t k = 0; k < 6; ++k) r.locked[k] = bool_from(locked.at(k));
  const auto favours = at.at("favours");
  for (std::size_t k = 0; k < favours.size(); ++k)
    r.favour[id_from(favours.at(k).at("surface"))] = favours.at(k).at("by").number();
  r.central_bore = id_from(at.at("central_bore"));
  return r;
}

Decision decision_from(const JsonAt& at) {
  return {id_from(at.at("part")), id_from(at.at("piece")), id_from(at.at("surface")),
          at.at("what").text(),   at.at("reason").text(),  at.at("at").text()};
}

Marking marking_from(const JsonAt& at) {
  Marking r;
  r.piece = id_from(at.at("piece"));
  r.up = at.at("up").direction();
  r.reference = id_from(at.at("reference"));
  r.base_height = at.at("base_height").number();
  const auto jacks = at.at("jacks");
  if (jacks.size() != 3) jacks.refuse("must be three");
  for (std::size_t k = 0; k < 3; ++k) r.jacks[k] = id_from(jacks.at(k));
  return r;
}

} // namespace

std::string_view record_kind(const Record& record) {
  static constexpr std::string_view kinds[] = {
      "build",   "part", "surface",   "wall", "piece",     "touch",    "seat",       "marking",     "setting",
      "mark",    "size", "spot",      "scan", "judgement", "decision", "dimension",  "measurement", "foundry",
      "machine", "tool", "allowance", "cut",  "setup",     "release",  "instrument", "joint",       "chain"};
  static_assert(std::size(kinds) == std::variant_size_v<Record>);
  return kinds[record.index()];
}

json record_body(const Record& record) {
  return std::visit(ToJson{}, record);
}

Record record_from_json(std::string_view kind, const json& body) {
  std::vector<std::string> warnings;
  const JsonAt at(body, std::string(kind), warnings);
  if (kind == "build") return info_from(at);
  if (kind == "part") return part_from(at);
  if (kind == "surface") return surface_from(at);
  if (kind == "wall")
    return Wall{id_from(at.at("part")), id_from(at.at("from")), id_from(at.at("to")),
                at.at("least").number()};
  if (kind == "piece") return Piece{id_from(at.at("part")), static_cast<int>(at.at("number").positive())};
  if (kind == "touch") return touch_from(at);
  if (kind == "seat")
    return Seat{id_from(at.at("piece")), pose_from(at.at("pose")), bool_from(at.at("best"))};
  if (kind == "marking") return marking_from(at);
  if (kind == "setting") return setting_from(at);
  if (kind == "mark") return mark_from(at);
  if (kind == "size") return size_from(at);
  if (kind == "spot") return spot_from(at);
  if (kind == "scan") return scan_from(at);
  if (kind == "judgement") return judgement_from(at);
  if (kind == "decision") return decision_from(at);
  if (auto plan = plan_from_json(kind, at)) return *plan;
  throw Refusal(fmt::format("there is no kind of record called \"{}\"", kind));
}

json changes_json(const std::vector<Change>& changes) {
  const auto side = [](const std::optional<Record>& record) {
    return record ? json{{"kind", record_kind(*record)}, {"body", record_body(*record)}} : json(nullptr);
  };
  json rows = json::array();
  for (const auto& change : changes)
    rows.push_back({{"id", change.id}, {"before", side(change.before)}, {"after", side(change.after)}});
  return rows;
}

std::vector<Change> changes_from_json(const json& rows) {
  std::vector<Change> changes;
  const auto side = [](const json& value) -> std::optional<Record> {
    if (value.is_null()) return std::nullopt;
    return record_from_json(value.at("kind").get<std::string>(), value.at("body"));
  };
  for (const auto& row : rows)
    changes.push_back({row.at("id").get<Id>(), side(row.at("before")), side(row.at("after"))});
  return changes;
}

} // namespace datrin::store
