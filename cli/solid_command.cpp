#include "solid_command.h"

#include "commands.h"

#include "quantity/angle.h"
#include "quantity/length.h"
#include "quantity/length_text.h"
#include "solid/step_file.h"
#include "solid/thickness.h"
#include "solid/views.h"

#include <fmt/format.h>
#include <fmt/ostream.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <optional>
#include <ostream>

namespace datrin::cli {

namespace {

struct Plane {
  char axis = 'x';
  double at = 0; ///< mm
};

/// "x=0", "z = 1/2": the length as people write it, without a unit in that of the file.
std::optional<Plane> read_plane(const std::string& text, Unit unit, std::string& wrong) {
  const auto equals = text.find('=');
  const auto axis = text.find_first_of("xyz");
  if (equals == std::string::npos || axis == std::string::npos || axis > equals ||
      text.find_first_not_of(" xyz") != equals || text.find_first_of("xyz", axis + 1) < equals) {
    wrong = fmt::format("--section: \"{}\" is no plane: write x=, y= or z= and a length", text);
    return std::nullopt;
  }
  const auto length = parse_length(text.substr(equals + 1), {.bare_unit = unit});
  if (!length.ok()) {
    wrong = fmt::format("--section: {}", length.message);
    return std::nullopt;
  }
  return Plane{text[axis], length.mm};
}

nlohmann::ordered_json triple(const Vec3& v, double scale = 1) {
  return {v.x() * scale, v.y() * scale, v.z() * scale};
}

} // namespace

int run_solid(const SolidCall& call, std::ostream& out, std::ostream& err) {
  const auto read = solid::read_step(call.path, {.only = call.only, .solid = {.mesh = false}});
  if (!read.ok()) {
    fmt::print(err, "{}\n", read.message);
    return refused;
  }
  const auto& s = read.solid;
  std::error_code error;
  if (!call.to.empty() && std::filesystem::exists(call.to, error)) {
    fmt::print(err, "{} is there already; choose another name\n", call.to);
    return refused;
  }
  if (!call.to.empty())
    if (const auto wrong = solid::write_step(s, "part", call.to); !wrong.empty()) {
      fmt::print(err, "{}\n", wrong);
      return refused;
    }
  const double per = from_mm(1, read.unit);
  nlohmann::ordered_json json{{"unit", unit_name(read.unit)}, {"bodies", s.bodies},
                              {"closed", s.closed},           {"volume", s.volume * per * per * per},
                              {"area", s.area * per * per},   {"centroid", triple(s.centroid, per)}};
  const double per5 = per * per * per * per * per;
  for (int row = 0; row < 3; ++row) json["inertia"].push_back(triple(s.inertia.row(row).transpose(), per5));
  json["faces"] = nlohmann::ordered_json::array();
  for (const auto& face : s.faces) {
    nlohmann::ordered_json one{{"kind", solid::face_kind_name(face.kind)},
                               {"point", triple(face.shape.point, per)},
                               {"direction", triple(face.shape.direction)}};
    if (face.shape.diameter > 0) one["diameter"] = face.shape.diameter * per;
    if (face.shape.half_angle > 0) one["half_angle_deg"] = degrees(face.shape.half_angle);
    one["area"] = face.area * per * per;
    json["faces"].push_back(std::move(one));
  }
  if (!call.section.empty()) {
    std::string wrong;
    const auto plane = read_plane(call.section, read.unit, wrong);
    if (!plane) {
      fmt::print(err, "{}\n", wrong);
      return refused;
    }
    const Vec3 normal = Vec3::Unit(plane->axis - 'x');
    const auto cut = solid::section(s, normal * plane->at, normal);
    json["section"] = {{"at", fmt::format("{}={:.9g}", plane->axis, plane->at * per)},
                       {"area", cut.area * per * per}};
  }
  if (call.thinnest) {
    const auto thin = solid::thinnest(s);
    if (thin.status == solid::ThicknessStatus::found)
      json["thinnest"] = {
          {"thickness", thin.least * per}, {"from", triple(thin.from, per)}, {"to", triple(thin.to, per)}};
    else
      json["thinnest"] = nullptr;
  }
  if (!call.as_text) {
    out << json.dump(2) << '\n';
    return answer_yes;
  }
  const auto unit = unit_name(read.unit);
  fmt::print(out, "{} {}, {}, {} faces\n", s.bodies, s.bodies == 1 ? "body" : "bodies",
             s.closed ? "closed" : "not closed", s.faces.size());
  fmt::print(out, "{:<10} {:.4f} {}³\n{:<10} {:.4f} {}²\n", "volume", s.volume * per * per * per, unit,
             "area", s.area * per * per, unit);
  if (json.contains("section"))
    fmt::print(out, "{:<10} {:.4f} {}²\n", json["section"]["at"].get<std::string>(),
               json["section"]["area"].get<double>(), unit);
  if (json.contains("thinnest") && !json["thinnest"].is_null())
    fmt::print(out, "{:<10} {:.4f} {}\n", "thinnest", json["thinnest"]["thickness"].get<double>(), unit);
  return answer_yes;
}

} // namespace datrin::cli
