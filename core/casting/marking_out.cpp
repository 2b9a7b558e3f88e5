#include "casting/marking_out.h"

#include "geometry/between.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

/// Direction out of the metal at a touch.
Vec3 outward(const SeatInput& part, int point, const Pose& seat) {
  const auto& p = part.points[static_cast<std::size_t>(point)];
  return stock_direction(part.surfaces[static_cast<std::size_t>(p.surface)].shape, seat.apply(p.xyz));
}

Eigen::Vector2d seen_from_above(const Vec3& at, const Vec3& u, const Vec3& v) {
  return {at.dot(u), at.dot(v)};
}

double cross2(const Eigen::Vector2d& a, const Eigen::Vector2d& b) {
  return a.x() * b.y() - a.y() * b.x();
}

bool inside(const Eigen::Vector2d& p, const std::array<Eigen::Vector2d, 3>& t) {
  const double a = cross2(t[1] - t[0], p - t[0]), b = cross2(t[2] - t[1], p - t[1]),
               c = cross2(t[0] - t[2], p - t[2]);
  return (a >= 0 && b >= 0 && c >= 0) || (a <= 0 && b <= 0 && c <= 0);
}

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
    if (!choose_jacks()) return std::move(out_);
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
    if (auto wrong = validate(in_.part); !wrong.empty()) return wrong;
    if (std::abs(in_.up.norm() - 1) > 1e-6) return "the upward direction is not of unit length";
    if (in_.reference >= static_cast<int>(in_.part.surfaces.size()))
      return "the reference surface is not there";
    if (in_.reference >= 0) {
      const auto& shape = in_.part.surfaces[static_cast<std::size_t>(in_.reference)].shape;
      if (!level(shape)) return "the reference surface does not lie level this way up";
    }
    if (!std::isfinite(in_.base_height)) return "the base height is not a number";
    for (const int jack : in_.jacks)
      if (jack >= static_cast<int>(in_.part.points.size()))
        return "a jack stands under a touch that is not there";
    return {};
  }

  bool level(const Surface& shape) const { return lies_level(shape, in_.up, options_.parallel_within); }

  const Vec3& at(int point) const { return at_[static_cast<std::size_t>(point)]; }
  Eigen::Vector2d above(int point) const { return seen_from_above(at(point), across_, along_); }

  bool choose_jacks() {
    out_.jacks.resize(3);
    std::array<int, 3> chosen = in_.jacks;
    if (std::any_of(chosen.begin(), chosen.end(), [](int j) { return j < 0; })) {
      auto underneath = touches_underneath();
      if (underneath.size() < 3) {
        out_.jacks.clear();
        say(MarkingStatus::too_few_underneath,
            fmt::format(
                "only {} of the touches are on the underside this way up; touch at least three places there, "
                "well apart, for the jacks to stand under",
                underneath.size()));
        return false;
      }
      chosen = widest_triangle(underneath);
    }
    std::array<Eigen::Vector2d, 3> corners{above(chosen[0]), above(chosen[1]), above(chosen[2])};
    const double area2 = std::abs(cross2(corners[1] - corners[0], corners[2] - corners[0]));
    const double longest = std::max({(corners[1] - corners[0]).norm(), (corners[2] - corners[1]).norm(),
                                     (corners[0] - corners[2]).norm()});
    if (longest < options_.flat_triangle || area2 / longest < options_.flat_triangle) {
      out_.jacks.clear();
      say(MarkingStatus::jacks_in_line,
          "the three jacks stand nearly in one line; choose touches further apart");
      return false;
    }
    out_.stands = inside(seen_from_above(centre_, across_, along_), corners);
    for (std::size_t k = 0; k < 3; ++k) out_.jacks[k] = {chosen[k], 0, at(chosen[k]), {}};
    return true;
  }

  std::vector<int> touches_underneath() const {
    std::vector<int> found;
    for (int i = 0; i < static_cast<int>(at_.size()); ++i) {
      const auto& p = in_.part.points[static_cast<std::size_t>(i)];
      const auto& shape = in_.part.surfaces[static_cast<std::size_t>(p.surface)].shape;
      if (is_hole(shape.kind)) continue; // a jack does not reach into a hole
      if (outward(in_.part, i, in_.seat).dot(in_.up) < -options_.underside) found.push_back(i);
    }
    // More than these few spread ones would not make a wider triangle worth the wait.
    if (found.size() > 60) {
      std::vector<int> hull;
      for (int k = 0; k < 48; ++k) {
        const double angle = 2 * pi * k / 48;
        const Eigen::Vector2d way(std::cos(angle), std::sin(angle));
        const int best = *std::max_element(
            found.begin(), found.end(), [&](int a, int b) { return above(a).dot(way) < above(b).dot(way); });
        if (std::find(hull.begin(), hull.end(), best) == hull.end()) hull.push_back(best);
      }
      return hull;
    }
    return found;
  }

  /// The largest triangle that has the centre inside it; the largest at all when none has.
  std::array<int, 3> widest_triangle(const std::vector<int>& from) const {
    std::array<int, 3> best{from[0], from[1], from[2]};
    double best_area = -1;
    bool best_inside = false;
    const auto middle = seen_from_above(centre_, across_, along_);
    for (std::size_t a = 0; a < from.size(); ++a)
      for (std::size_t b = a + 1; b < from.size(); ++b)
        for (std::size_t c = b + 1; c < from.size(); ++c) {
          const std::array<Eigen::Vector2d, 3> t{above(from[a]), above(from[b]), above(from[c])};
          const double area = std::abs(cross2(t[1] - t[0], t[2] - t[0]));
          const bool holds = inside(middle, t);
          if ((holds && !best_inside) || (holds == best_inside && area > best_area)) {
            best = {from[a], from[b], from[c]};
            best_area = area;
            best_inside = holds;
          }
        }
    return best;
  }

  void set_heights() {
    if (in_.reference >= 0) {
      const auto& shape = in_.part.surfaces[static_cast<std::size_t>(in_.reference)].shape;
      reference_name_ = in_.part.surfaces[static_cast<std::size_t>(in_.reference)].id;
      reference_along_ = in_.up.dot(shape.point);
    } else {
      reference_name_ = "lowest jack";
      reference_along_ = std::min(
          {in_.up.dot(out_.jacks[0].at), in_.up.dot(out_.jacks[1].at), in_.up.dot(out_.jacks[2].at)});
    }
    out_.height_zero = in_.base_height - reference_along_;
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

  /// Touches whose metal faces up, where a gauge can come down, as far apart as they go; then any others.
  void choose_checks() {
    std::vector<int> facing_up;
    for (int i = 0; i < static_cast<int>(at_.size()); ++i)
      if (outward(in_.part, i, in_.seat).dot(in_.up) > options_.underside) facing_up.push_back(i);
    std::vector<int> chosen;
    while (static_cast<int>(chosen.size()) < options_.checks && chosen.size() < facing_up.size()) {
      int best = -1;
      double best_distance = -1;
      for (const int candidate : facing_up) {
        double distance = 1e300;
        for (const int c : chosen) distance = std::min(distance, (at(candidate) - at(c)).norm());
        if (chosen.empty()) distance = (above(candidate) - seen_from_above(centre_, across_, along_)).norm();
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
