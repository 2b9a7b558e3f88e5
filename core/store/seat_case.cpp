#include "store/seat_case.h"

#include "quantity/length_text.h"
#include "quantity/text.h"
#include "store/json_reader.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace datrin::store {

using nlohmann::ordered_json;

namespace {

class CaseReader {
public:
  explicit CaseReader(SeatCase& out) : out_(out) {}

  void read(const JsonAt& root) {
    root.only_keys({"format", "version", "unit", "title", "surfaces", "points", "walls"});
    only_format(root, "datrin-seat-case");
    out_.unit = unit_from(root.at("unit"));
    if (root.has("title")) out_.title = root.at("title").text();
    const auto surfaces = root.at("surfaces");
    if (surfaces.size() == 0) surfaces.refuse("must have at least one surface");
    for (std::size_t i = 0; i < surfaces.size(); ++i) surface(surfaces.at(i));
    const auto points = root.at("points");
    if (points.size() == 0) points.refuse("must have at least one point");
    for (std::size_t i = 0; i < points.size(); ++i) point(points.at(i));
    if (!root.has("walls")) return;
    const auto walls = root.at("walls");
    for (std::size_t i = 0; i < walls.size(); ++i) wall(walls.at(i));
  }

private:
  double mm(double value) const { return to_mm(value, out_.unit); }

  void surface(const JsonAt& at) {
    const auto kind_at = at.at("kind");
    const std::vector<std::string> words(surface_kind_words().first,
                                         surface_kind_words().first + surface_kind_words().second);
    const auto kind = surface_kind_from_name(kind_at.text());
    if (!kind)
      kind_at.refuse(fmt::format(
          "there is no kind called \"{}\"{}; it is one of \"{}\"", one_line(kind_at.text()),
          did_you_mean(kind_at.text(), {words.begin(), words.end()}), fmt::join(words, "\", \"")));
    const bool plane = !is_round(*kind), cone = is_cone(*kind);
    std::vector<std::string> keys{"id", "kind", "point", plane ? "normal" : "axis", "finish", "required"};
    if (!plane) keys.emplace_back("diameter");
    if (cone) keys.emplace_back("half_angle_deg");
    at.only_keys(keys);
    casting::SeatSurface surface;
    surface.id = at.at("id").name();
    if (!index_.emplace(surface.id, static_cast<int>(out_.input.surfaces.size())).second)
      at.at("id").refuse(fmt::format("two surfaces are called \"{}\"", one_line(surface.id)));
    ids_.push_back(surface.id);
    surface.shape.kind = *kind;
    surface.shape.point = at.at("point").vector() * mm(1);
    surface.shape.direction = at.at(plane ? "normal" : "axis").direction();
    if (!plane) surface.shape.diameter = mm(at.at("diameter").positive());
    if (cone) surface.shape.half_angle = radians(at.at("half_angle_deg").positive());
    if (const auto wrong = shape_wrong(surface.shape); !wrong.empty()) at.refuse(wrong);
    const auto finish = at.at("finish");
    if (finish.text() != "machined" && finish.text() != "as-cast")
      finish.refuse(fmt::format("there is no finish called \"{}\"; it is \"machined\" or \"as-cast\"",
                                one_line(finish.text())));
    surface.machined = finish.text() == "machined";
    if (surface.machined)
      surface.required = mm(at.at("required").number());
    else if (at.has("required")) {
      at.at("required").number();
      at.at("required").warn("an as-cast surface is not machined, so its required stock is left out");
    }
    out_.input.surfaces.push_back(std::move(surface));
  }

  int surface_named(const JsonAt& at) const {
    const auto name = at.text();
    const auto found = index_.find(name);
    if (found == index_.end())
      at.refuse(fmt::format("no surface is called \"{}\"{}", one_line(name), did_you_mean(name, ids_)));
    return found->second;
  }

  void point(const JsonAt& at) {
    at.only_keys({"surface", "xyz", "uncertainty"});
    casting::SeatPoint point;
    point.surface = surface_named(at.at("surface"));
    point.xyz = at.at("xyz").vector() * mm(1);
    if (at.has("uncertainty")) point.uncertainty = mm(at.at("uncertainty").not_negative());
    out_.input.points.push_back(point);
  }

  void wall(const JsonAt& at) {
    at.only_keys({"from", "to", "least"});
    casting::SeatWall wall;
    wall.from = surface_named(at.at("from"));
    wall.to = surface_named(at.at("to"));
    wall.least = mm(at.at("least").number());
    if (wall.from == wall.to) at.refuse("a wall must run from one surface to another");
    if (!walls_.emplace(wall.from, wall.to).second) at.refuse("this wall was stated before");
    if (out_.input.surfaces[static_cast<std::size_t>(wall.from)].machined)
      at.at("from").warn("the wall is counted from touches on a surface that is to be machined away");
    out_.input.walls.push_back(wall);
  }

  SeatCase& out_;
  std::map<std::string, int> index_;
  std::set<std::pair<int, int>> walls_;
  std::vector<std::string> ids_;
};

std::string wall_name(const casting::SeatInput& input, const casting::SeatWall& wall) {
  return input.surfaces[static_cast<std::size_t>(wall.from)].id + " to " +
         input.surfaces[static_cast<std::size_t>(wall.to)].id;
}

} // namespace

SeatCase read_seat_case(std::string_view text, const std::string& label) {
  SeatCase result;
  read_case(result, text, label, [&](const JsonAt& root) { CaseReader(result).read(root); });
  return result;
}

SeatCase read_seat_case_file(const std::string& path) {
  return read_case_file(path, read_seat_case);
}

ordered_json seat_result_json(const SeatCase& seat_case, const casting::SeatResult& result) {
  const auto& input = seat_case.input;
  const auto number = [&](double mm) {
    return std::isfinite(mm) ? ordered_json(from_mm(mm, seat_case.unit)) : ordered_json(nullptr);
  };
  const auto vector = [](const Vec3& v) { return ordered_json::array({v.x(), v.y(), v.z()}); };
  const bool known = result.usable();
  ordered_json out{{"format", "datrin-seat-result"}, {"version", 1}, {"unit", unit_name(seat_case.unit)}};
  out["cleans_up"] = result.cleans_up();
  out["least_margin"] = known ? number(result.margins.least) : ordered_json(nullptr);
  out["pose"] = {{"rotation_vector_deg", vector(vector_from_rotation(result.pose.rotation) * degrees(1))},
                 {"translation", vector(result.pose.translation / to_mm(1, seat_case.unit))}};
  out["surfaces"] = ordered_json::array();
  out["walls"] = ordered_json::array();
  for (const auto& group : result.margins.groups) {
    const bool counted = known && group.touches > 0;
    const auto figure = [&](double mm) { return counted ? number(mm) : ordered_json(nullptr); };
    ordered_json row;
    if (group.wall < 0) {
      row["id"] = input.surfaces[static_cast<std::size_t>(group.surface)].id;
      row["stock_least"] = figure(group.stock_least);
      row["stock_most"] = figure(group.stock_most);
      row["required"] = number(group.required);
    } else {
      const auto& wall = input.walls[static_cast<std::size_t>(group.wall)];
      row["from"] = input.surfaces[static_cast<std::size_t>(wall.from)].id;
      row["to"] = input.surfaces[static_cast<std::size_t>(wall.to)].id;
      row["wall_least"] = figure(group.stock_least);
      row["least"] = number(group.required);
    }
    row["margin"] = figure(group.margin);
    row["limiting"] = counted && group.limiting;
    out[group.wall < 0 ? "surfaces" : "walls"].push_back(std::move(row));
  }
  out["held_by"] = ordered_json::array();
  for (const auto& hold : result.held_by) {
    ordered_json row{{"point", hold.point},
                     {"surface", input.surfaces[static_cast<std::size_t>(hold.surface)].id}};
    if (hold.wall_to >= 0) row["wall_to"] = input.surfaces[static_cast<std::size_t>(hold.wall_to)].id;
    row["share"] = hold.share;
    out["held_by"].push_back(std::move(row));
  }
  out["undetermined"] = ordered_json::array();
  for (const auto& motion : result.undetermined) out["undetermined"].push_back(motion.name());
  return out;
}

std::string seat_result_text(const SeatCase& seat_case, const casting::SeatResult& result) {
  const auto& input = seat_case.input;
  const auto unit = seat_case.unit;
  const LengthTextOptions figures{.decimals_mm = 3, .decimals_inch = 5, .show_plus = true};
  const LengthTextOptions plain{.decimals_mm = 3, .decimals_inch = 5};
  std::string text = seat_case.title.empty() ? std::string{} : seat_case.title + "\n";
  if (!result.usable()) return text + result.message + "\n";
  text += fmt::format("{}: the least margin is {} {}\n\n",
                      result.cleans_up() ? "It cleans up" : "It does not clean up",
                      length_text(result.margins.least, unit, figures), unit_name(unit));
  text += fmt::format("{:<24} {:>9} {:>9} {:>9} {:>9}\n", "", "least", "most", "needed", "margin");
  for (const auto& group : result.margins.groups) {
    const auto name = group.wall < 0
                          ? input.surfaces[static_cast<std::size_t>(group.surface)].id
                          : "wall " + wall_name(input, input.walls[static_cast<std::size_t>(group.wall)]);
    if (group.touches == 0) {
      text += fmt::format("{:<24} not touched\n", name);
      continue;
    }
    text +=
        fmt::format("{:<24} {:>9} {:>9} {:>9} {:>9}{}\n", name, length_text(group.stock_least, unit, plain),
                    length_text(group.stock_most, unit, plain), length_text(group.required, unit, plain),
                    length_text(group.margin, unit, figures), group.limiting ? "  limits" : "");
  }
  text += "\nHeld by\n";
  for (const auto& hold : result.held_by)
    text += fmt::format(
        "{:<24} touch {:<6} {:>5.1f} %\n",
        input.surfaces[static_cast<std::size_t>(hold.surface)].id +
            (hold.wall_to < 0
                 ? ""
                 : " (wall to " + input.surfaces[static_cast<std::size_t>(hold.wall_to)].id + ")"),
        hold.point, 100 * hold.share);
  for (const auto& motion : result.undetermined)
    text += (motion.one_way ? "Nothing limits: " : "Left as it was: ") + motion.name() + "\n";
  text += result.check.holds ? "Checked: what holds it is in balance\n"
                             : "NOT PROVED: " + result.check.message + "\n";
  return text;
}

} // namespace datrin::store
