#include "casting/judgement.h"

#include "casting/seat_groups.h"
#include "casting/seat_start.h"
#include "geometry/best_fit.h"
#include "geometry/between.h"

#include <Eigen/Geometry>
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::casting {
namespace {

const SeatSurface& surface_at(const SeatInput& input, int i) {
  return input.surfaces[static_cast<std::size_t>(i)];
}

/// How far across its axis the middle of the touches of round surface `s` stands off the drawing's axis.
std::optional<Vec3> off_centre(const SeatInput& input, int s, const Pose& pose) {
  const auto& shape = surface_at(input, s).shape;
  const Vec3 u = across(shape.direction), v = shape.direction.cross(u);
  std::vector<Vec2> flat;
  for (const auto& point : input.points)
    if (point.surface == s) {
      const Vec3 d = pose.apply(point.xyz) - shape.point;
      flat.push_back({d.dot(u), d.dot(v)});
    }
  const auto circle = fit_circle(flat);
  if (!circle) return std::nullopt;
  return Vec3(u * circle->centre.x() + v * circle->centre.y());
}

/// Whether the surfaces of a rule say where the part is along axis `k` of the drawing: a round one across it,
/// or two planes facing either way.
bool placed_along(const SeatInput& input, int k, const auto& places) {
  bool plus = false, minus = false;
  for (const auto& s : input.surfaces) {
    if (!places(s)) continue;
    plus = plus || places_along(s.shape, Vec3::Unit(k));
    minus = minus || places_along(s.shape, -Vec3::Unit(k));
  }
  return plus && minus;
}

} // namespace

int around(const SeatInput& input, int bore) {
  int best = -1;
  for (int i = 0; i < static_cast<int>(input.surfaces.size()); ++i) {
    const auto& shape = surface_at(input, i).shape;
    if (i == bore || !is_outside(shape.kind) || !coaxial(shape, surface_at(input, bore).shape)) continue;
    if (best < 0 || shape.diameter < surface_at(input, best).shape.diameter) best = i;
  }
  return best;
}

SeatResult wished_seat(const SeatInput& input, const SeatWishes& wishes, const SeatOptions& options) {
  SeatOptions opts = options;
  opts.locked = wishes.locked;
  if (wishes.central_bore < 0) return seat(input, opts);
  const auto refuse = [&](const std::string& why) {
    SeatResult result;
    result.status = SeatStatus::refused;
    result.message = why;
    result.pose = options.start;
    return result;
  };
  const auto& bore = surface_at(input, wishes.central_bore);
  const int boss = around(input, wishes.central_bore);
  if (boss < 0)
    return refuse(fmt::format("{} has no boss around it in the drawing to be central in", bore.id));
  int along = 0;
  if (bore.shape.direction.cwiseAbs().maxCoeff(&along) < 1 - 1e-9)
    return refuse(fmt::format("{} does not run along x, y or z: it cannot be kept central", bore.id));
  SeatResult result = seat(input, opts);
  // Moved onto the boss, locked across its axis, seated again, while turning moves
  // the boss.
  for (int round = 0; round < 10; ++round) {
    const auto off = off_centre(input, boss, result.pose);
    if (!off)
      return refuse(fmt::format("{} needs three touches round it for the bore to be central in it",
                                surface_at(input, boss).id));
    if (round > 0 && off->norm() < 1e-3) break;
    opts.start = moved(result.pose, Vec3::Zero(), -*off, Vec3::Zero());
    for (int k = 0; k < 3; ++k)
      if (k != along) opts.locked[static_cast<std::size_t>(k)] = true;
    result = seat(input, opts);
    if (!result.usable()) break;
  }
  return result;
}

std::vector<HandSeat> hand_seats(const SeatInput& input, const Pose& start,
                                 const std::function<bool()>& should_stop) {
  std::vector<int> touches(input.surfaces.size(), 0);
  for (const auto& point : input.points) ++touches[static_cast<std::size_t>(point.surface)];
  // The rules: which surfaces place the part.
  const auto is_core = [](const SeatSurface& s) { return is_hole(s.shape.kind) && s.machined; };
  const auto is_boss = [](const SeatSurface& s) { return is_outside(s.shape.kind); };
  const auto is_face = [](const SeatSurface& s) { return !s.shape.round(); };
  std::vector<HandSeat> seats;
  const auto rule = [&](std::string name, std::string how, const auto& places) {
    HandSeat result;
    result.name = std::move(name);
    result.how = std::move(how);
    SeatInput all = input;
    all.walls.clear();
    for (std::size_t i = 0; i < all.surfaces.size(); ++i) {
      if (!all.surfaces[i].machined) all.surfaces[i].required = 0;
      all.surfaces[i].machined = all.surfaces[i].machined || touches[i] > 0;
      if (places(input.surfaces[i])) result.possible = result.possible || touches[i] >= 3;
    }
    if (result.possible && !(should_stop && should_stop())) {
      const auto rough = least_squares_start(all, make_groups(all), start);
      SeatInput only = all;
      std::erase_if(only.points, [&](const SeatPoint& p) { return !places(surface_at(input, p.surface)); });
      SeatOptions rest;
      rest.should_stop = should_stop;
      rest.start = least_squares_start(only, make_groups(only), rough.pose).pose;
      rest.locked = {false, false, false, true, true, true};
      for (int k = 0; k < 3; ++k) rest.locked[static_cast<std::size_t>(k)] = placed_along(input, k, places);
      result.pose = seat(input, rest).pose; // what the rule leaves open is evened out
      result.margins = margins_at(input, result.pose);
    }
    seats.push_back(std::move(result));
  };
  rule("from the core", "the cored hole is taken as it is, and the rest follows it", is_core);
  rule("from the boss", "the outside of the boss is taken as it is, and the rest follows it", is_boss);
  rule("from the outside faces", "opposite faces share what is over", is_face);
  return seats;
}

std::vector<std::string> explain_balance(const SeatInput& input, const SeatResult& seat) {
  // A holding touch keeps the metal from coming nearer: its margin grows along its rate, so the part is
  // pushed against it by the others. Said for moving along each axis of the drawing, where it is what is felt
  // most.
  using Side = std::vector<std::string>; // the touches on it
  static constexpr const char* ways[3][2] = {
      {"left", "right"}, {"to the front", "to the back"}, {"down", "up"}};
  std::array<std::array<Side, 2>, 3> sides;
  for (const auto& hold : seat.held_by) {
    const auto& point = input.points[static_cast<std::size_t>(hold.point)];
    const Vec3 at = seat.pose.apply(point.xyz);
    const auto& shape = surface_at(input, hold.wall_to >= 0 ? hold.wall_to : hold.surface).shape;
    // Moving the part by +d moves the casting by −d in the drawing: the margin falls when d goes along this.
    const Vec3 falls = (hold.wall_to >= 0 ? -1.0 : 1.0) * stock_direction(shape, at);
    int axis = 0;
    falls.cwiseAbs().maxCoeff(&axis);
    auto& side = sides[static_cast<std::size_t>(axis)][falls[axis] > 0 ? 1 : 0];
    side.push_back(fmt::format("{}{} {}", hold.wall_to >= 0 ? "wall at " : "",
                               surface_at(input, hold.surface).id, hold.point + 1));
  }
  const auto listed = [](const std::vector<std::string>& names) {
    if (names.size() == 1) return names[0];
    return fmt::format("{} and {}", fmt::join(names.begin(), names.end() - 1, ", "), names.back());
  };
  std::vector<std::string> lines;
  for (std::size_t axis = 0; axis < 3; ++axis) {
    const auto &minus = sides[axis][0], &plus = sides[axis][1];
    if (minus.empty() && plus.empty()) continue;
    std::string line;
    for (int k : {1, 0}) {
      const auto& side = k == 1 ? plus : minus;
      if (side.empty()) continue;
      line += fmt::format("{}{} {} it from going {}", line.empty() ? "" : "; ", listed(side),
                          side.size() == 1 ? "keeps" : "keep", ways[axis][k]);
    }
    lines.push_back(std::move(line));
  }
  return lines;
}

std::vector<Easing> easings(const SeatResult& seat, double eased) {
  std::map<std::pair<int, int>, double> share;
  for (const auto& hold : seat.held_by) share[{hold.surface, hold.wall_to}] += hold.share;
  std::vector<Easing> list;
  for (const auto& [key, sum] : share) {
    if (sum > 0.005) list.push_back({key.first, key.second, eased * sum});
  }
  std::sort(list.begin(), list.end(), [](const Easing& a, const Easing& b) { return a.gain > b.gain; });
  return list;
}

} // namespace datrin::casting
