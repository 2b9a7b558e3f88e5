#include "casting/marking_out.h"

#include "casting/jacks.h"
#include "geometry/between.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

class Marking {
public:
  Marking(const MarkingInput& input, const MarkingOptions& options) : in_(input), options_(options) {}

  MarkingResult run() {
    if (auto wrong = check(); !wrong.empty()) return end(MarkingStatus::refused, std::move(wrong));
    across_ = across(in_.up);
    along_ = in_.up.cross(across_);
    at_.reserve(in_.part.points.size());
    for (const auto& point : in_.part.points) {
      at_.push_back(in_.seat.apply(point.xyz));
      centre_ += at_.back();
    }
    centre_ /= static_cast<double>(std::max<std::size_t>(1, at_.size()));
    if (!in_.underside && !place_jacks()) return std::move(out_);
    set_heights();
    list_lines();
    choose_checks();
    note_cautions();
    return end(MarkingStatus::ok, {});
  }

private:
  void say(MarkingStatus status, std::string message) {
    out_.status = status;
    out_.message = std::move(message);
  }
  MarkingResult end(MarkingStatus status, std::string message) {
    say(status, std::move(message));
    return std::move(out_);
  }

  std::string check() const {
    const bool touched = !in_.underside || !in_.part.points.empty(); // of known stock nothing need be
    if (auto wrong = touched ? validate(in_.part) : std::string(); !wrong.empty()) return wrong;
    if (std::abs(in_.up.norm() - 1) > 1e-6) return "the upward direction is not of unit length";
    if (in_.reference >= static_cast<int>(in_.part.surfaces.size()))
      return "the reference surface is not there";
    if (in_.reference >= 0) {
      const auto& shape = in_.part.surfaces[static_cast<std::size_t>(in_.reference)].shape;
      if (!level(shape)) return "the reference surface does not lie level this way up";
    }
    if (!std::isfinite(in_.underside.value_or(0)) || !std::isfinite(in_.top.value_or(0)))
      return "where it stands is not a number";
    if (!std::isfinite(in_.base_height)) return "the base height is not a number";
    for (const int jack : in_.jacks)
      if (jack >= static_cast<int>(in_.part.points.size()))
        return "a jack stands under a touch that is not there";
    return {};
  }

  bool level(const Surface& shape) const { return lies_level(shape, in_.up, options_.parallel_within); }

  const Vec3& at(int point) const { return at_[static_cast<std::size_t>(point)]; }
  Vec2 from_above(const Vec3& place) const { return {place.dot(across_), place.dot(along_)}; }
  Vec2 above(int point) const { return from_above(at(point)); }

  bool place_jacks() {
    const auto places =
        choose_jacks({in_.part, in_.seat, in_.up, in_.jacks}, {options_.underside, options_.flat_triangle});
    if (places.status != JackStatus::chosen) {
      say(places.status == JackStatus::in_line ? MarkingStatus::jacks_in_line
                                               : MarkingStatus::too_few_underneath,
          places.message);
      return false;
    }
    out_.stands = places.stands;
    for (const int touch : places.touches) out_.jacks.push_back({touch, 0, at(touch), {}});
    return true;
  }

  void set_heights() {
    if (in_.reference >= 0) {
      const auto& shape = in_.part.surfaces[static_cast<std::size_t>(in_.reference)].shape;
      reference_name_ = in_.part.surfaces[static_cast<std::size_t>(in_.reference)].id;
      reference_along_ = in_.up.dot(shape.point);
    } else if (in_.underside) {
      reference_name_ = "underside";
      reference_along_ = *in_.underside;
    } else {
      reference_name_ = "lowest jack";
      reference_along_ = std::min(
          {in_.up.dot(out_.jacks[0].at), in_.up.dot(out_.jacks[1].at), in_.up.dot(out_.jacks[2].at)});
    }
    out_.height_zero = in_.base_height - reference_along_;
    if (in_.underside) out_.bottom_height = *in_.underside + out_.height_zero;
    if (in_.top) out_.top_height = *in_.top + out_.height_zero;
    for (auto& jack : out_.jacks) {
      const double along = in_.up.dot(jack.at);
      jack.height = along + out_.height_zero;
      const auto& p = in_.part.points[static_cast<std::size_t>(jack.point)];
      jack.reckoning = column(fmt::format("jack under touch {}", jack.point + 1), along,
                              fmt::format("touch {} on {}, seated", jack.point + 1,
                                          in_.part.surfaces[static_cast<std::size_t>(p.surface)].id));
    }
  }

  /// base height, plus how much higher than the reference the thing stands on the drawing.
  Reckoning column(std::string title, double along, std::string source) const {
    if (in_.underside && in_.reference < 0)
      return {std::move(title),
              {{"underside stands at", in_.base_height, "chosen"},
               {"underside to the drawing's origin", -*in_.underside, "metal on it as it is now"},
               {"from there up", along, std::move(source)}}};
    return {std::move(title),
            {{fmt::format("{} stands at", reference_name_), in_.base_height, "chosen"},
             {fmt::format("above {}", reference_name_), along - reference_along_, std::move(source)}}};
  }

  void list_lines() {
    for (int i = 0; i < static_cast<int>(in_.part.surfaces.size()); ++i) {
      const auto& surface = in_.part.surfaces[static_cast<std::size_t>(i)];
      if (!surface.machined) continue;
      if (!level(surface.shape)) {
        out_.not_scribed.push_back({i, has_centre_line(surface.shape.kind)
                                           ? "its axis does not lie level this way up"
                                           : "it does not lie level this way up"});
        continue;
      }
      const double along = in_.up.dot(surface.shape.point);
      LineSetting line;
      line.surface = i;
      line.centre_line = has_centre_line(surface.shape.kind);
      line.height = along + out_.height_zero;
      line.reckoning = column(surface.id + (line.centre_line ? ", centre line" : ""), along, "drawing");
      out_.lines.push_back(std::move(line));
    }
    std::stable_sort(out_.lines.begin(), out_.lines.end(),
                     [](const LineSetting& a, const LineSetting& b) { return a.height < b.height; });
  }

  bool faces_up(int touch) const {
    const auto& p = in_.part.points[static_cast<std::size_t>(touch)];
    const auto& shape = in_.part.surfaces[static_cast<std::size_t>(p.surface)].shape;
    return stock_direction(shape, at(touch)).dot(in_.up) > options_.underside;
  }

  /// Touches whose metal faces up, where a gauge can come down, as far apart as they go; then any others.
  void choose_checks() {
    std::vector<int> facing_up;
    for (int i = 0; i < static_cast<int>(at_.size()); ++i)
      if (faces_up(i)) facing_up.push_back(i);
    std::vector<int> chosen;
    while (static_cast<int>(chosen.size()) < options_.checks && chosen.size() < facing_up.size()) {
      int best = -1;
      double best_distance = -1;
      for (const int candidate : facing_up) {
        double distance = 1e300;
        for (const int c : chosen) distance = std::min(distance, (at(candidate) - at(c)).norm());
        if (chosen.empty()) distance = (above(candidate) - from_above(centre_)).norm();
        if (distance > best_distance && std::find(chosen.begin(), chosen.end(), candidate) == chosen.end()) {
          best = candidate;
          best_distance = distance;
        }
      }
      if (best < 0) break;
      chosen.push_back(best);
    }
    for (const int point : chosen)
      out_.checks.push_back({point, in_.up.dot(at(point)) + out_.height_zero,
                             in_.part.points[static_cast<std::size_t>(point)].uncertainty});
  }

  void note_cautions() {
    constexpr double level = 1e-9;
    if (in_.underside) {
      if (*in_.underside + out_.height_zero < -level)
        out_.caution = "its underside would lie below the plate: raise the base height";
      return;
    }
    const auto lowest =
        std::min_element(out_.jacks.begin(), out_.jacks.end(),
                         [](const JackSetting& a, const JackSetting& b) { return a.height < b.height; });
    if (lowest->height <= 0)
      out_.caution = "a jack would have to stand below the plate: raise the base height";
    else if (!out_.lines.empty() && out_.lines.front().height <= 0)
      out_.caution = "a line would lie below the plate: raise the base height";
    else if (!out_.stands)
      out_.caution =
          "the middle of the touches lies outside the three jacks: it may tip; steady it by hand or clamp";
  }

  const MarkingInput& in_;
  const MarkingOptions& options_;
  MarkingResult out_;
  std::vector<Vec3> at_; // touches in the drawing frame
  Vec3 centre_ = Vec3::Zero(), across_, along_;
  std::string reference_name_;
  double reference_along_ = 0;
};

} // namespace

MarkingResult mark_out(const MarkingInput& input, const MarkingOptions& options) {
  return Marking(input, options).run();
}

std::vector<WayUp> ways_up(const SeatInput& part) {
  std::vector<WayUp> ways;
  static constexpr const char* names[] = {"+x", "\u2212x", "+y", "\u2212y", "+z", "\u2212z"};
  for (const int k : {4, 5, 0, 1, 2, 3}) {
    WayUp way;
    way.up = Vec3::Unit(k / 2) * (k % 2 == 0 ? 1.0 : -1.0);
    for (int i = 0; i < static_cast<int>(part.surfaces.size()) && way.down_surface < 0; ++i) {
      const auto& surface = part.surfaces[static_cast<std::size_t>(i)];
      if (surface.machined && faces(surface.shape, -way.up, 1 - 1e-9)) way.down_surface = i;
    }
    way.name = way.down_surface >= 0 ? part.surfaces[static_cast<std::size_t>(way.down_surface)].id + " down"
                                     : std::string(names[k]) + " up";
    ways.push_back(std::move(way));
  }
  return ways;
}

} // namespace datrin::casting
