#include "quantity/angle.h"
#include "route/propose.h"
#include "solid/place.h"
#include "solid/profile_stairs.h"
#include "steps/place_steps.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::steps {

using namespace build;

namespace {

constexpr double along_spindle = 0.99; // cosine

} // namespace

/// Where the tool touches it, above the axis as it is seen from the front.
Vec3 PlaceSteps::at_its_side(const ToolPlace& place, double diameter) const {
  return place.at + diameter / 2 * route::machine_axes(held_).row(2).transpose();
}

BenchStep PlaceSteps::slide(const ToolPlace& place, std::size_t axis, double diameter) const {
  auto step = plain(fmt::format("go-{}-{}-{}", place.operation, place.key, axis == 0 ? "x" : "z"),
                    StepKind::go, place.name);
  step.operation = place.operation;
  step.done = step.done || place.done;
  step.lit = place.lit;
  step.axis = axis_names[axis];
  step.at = at_its_side(place, diameter);
  step.ask = "What does it read?";
  return step;
}

/// X by the diameter, or half of it where the machine counts a side.
BenchStep PlaceSteps::turn_to(const ToolPlace& place, const Operation& o, double diameter) const {
  auto step = slide(place, 0, diameter);
  const bool whole = machine_.reads_diameter;
  step.sum = {
      "X", {{place.name, whole ? diameter : diameter / 2, whole ? "drawing" : "drawing: half of it"}}, {}};
  step.number = step.sum.total();
  step.words = fmt::format("{} across. X counts {}; in by cuts the tool bears, until it reads",
                           text(diameter, 3), whole ? "the diameter" : "a side");
  step.also = joined(turn_at(o, diameter), by_the_screw(*step.number));
  return step;
}

/// Z from the end face, as it is now.
BenchStep PlaceSteps::along_to(const ToolPlace& place, const Height& height, double diameter, double from,
                               double to) const {
  auto step = slide(place, 2, diameter);
  step.from = height.at;
  step.sum = {"Z", {{place.name, to, "drawing"}}, {}};
  step.words = from > 0 ? fmt::format("From {} behind the end on, until Z reads", text(from, 3))
                        : std::string("From the end on, until Z reads");
  metal_in_the_way(step, height.face);
  as_height(step.sum, height, place.operation);
  step.number = step.sum.total();
  return step;
}

void PlaceSteps::turned(Id id, const Operation& o, const route::Feature& f, bool done,
                        std::vector<BenchStep>& work) {
  const auto placed = solid::place_bodies(build_, setup_.part);
  const auto body =
      std::find_if(placed.begin(), placed.end(), [&](const auto& one) { return one.id == f.body; });
  if (body == placed.end() || body->copies.empty()) return;
  const auto& pose = body->copies.front();
  const Vec3 axis = pose.rotation * Vec3::UnitZ();
  if (std::abs(axis.dot(held_.way)) < along_spindle) return;
  solid::ProfileStairsInput in;
  in.profile = body->form.profile;
  in.from_last = axis.dot(held_.way) > 0;
  solid::ProfileStairsOptions how;
  how.proud = options_.proud;
  const auto path = solid::profile_stairs(in, how);
  ToolPlace place;
  place.operation = id;
  place.key = "1";
  place.name = f.name;
  place.done = done;
  place.lit = f.surfaces;
  place.out = held_.way;
  if (!path.usable()) return work.push_back(told(place, "profile", path.message));
  const double end = in.from_last ? in.profile.back().at : in.profile.front().at;
  place.at = pose.apply(Vec3(0, 0, end));
  const Vec3 mouth = place.at;
  ToolPlace faced = place;
  faced.name = f.name + ", its end as it is faced";
  const auto& height = height_of(faced, o, work);
  work.push_back(
      told(place, "touch-off",
           fmt::format("Skim it as far as it is to be turned, measure, and set X to {} it measures",
                       machine_.reads_diameter ? "what" : "half of what")));
  for (std::size_t k = 0; k < path.stairs.size(); ++k) {
    const auto& stair = path.stairs[k];
    place.key = fmt::format("{}", k + 1);
    place.name = fmt::format("{}, {} of {}", f.name, k + 1, path.stairs.size());
    place.at = mouth - stair.to * place.out;
    if (stair.half_angle != 0) {
      auto note = told(place, "taper",
                       fmt::format("By the top slide, from {} across at {} behind the end to {} at {}: it "
                                   "{} towards the chuck. Half of the angle between the sides",
                                   text(stair.diameter_from, 3), text(stair.from, 3), text(stair.diameter, 3),
                                   text(stair.to, 3), stair.half_angle > 0 ? "widens" : "narrows"));
      note.number = std::abs(stair.half_angle);
      note.is_angle = true;
      note.sum = {"top slide",
                  {{"wider a side", std::abs(stair.diameter - stair.diameter_from) / 2, "drawing"},
                   {"over a length of", 0, "drawing", text(stair.to - stair.from, 3)}},
                  angle_text(*note.number)};
      work.push_back(std::move(note));
      continue;
    }
    work.push_back(turn_to(place, o, stair.diameter));
    work.push_back(along_to(place, height, stair.diameter, stair.from, stair.to));
  }
  if (std::any_of(path.stairs.begin(), path.stairs.end(), [](const auto& s) { return s.of_arc; }))
    work.push_back(
        told(place, "round-off",
             fmt::format("The stairs of its arcs stand up to {} proud: filed and polished off, with a "
                         "handle on the file and the sleeves tied",
                         text(path.proud))));
}

} // namespace datrin::steps
