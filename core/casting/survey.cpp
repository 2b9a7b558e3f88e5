#include "casting/survey.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

using build::Id;

namespace {

int index_of(const std::vector<Id>& ids, Id id) {
  const auto found = std::find(ids.begin(), ids.end(), id);
  return found == ids.end() ? -1 : static_cast<int>(found - ids.begin());
}

} // namespace

std::optional<Vec3> touched_point(const build::Touch& touch) {
  if (touch.tip_radius == 0) return touch.centre;
  const double length = touch.toward.norm();
  if (!(length > 1e-12)) return std::nullopt;
  return Vec3(touch.centre + touch.toward * (touch.tip_radius / length));
}

int PieceInput::surface_index(Id id) const {
  return index_of(surface_ids, id);
}
int PieceInput::touch_index(Id id) const {
  return index_of(touch_ids, id);
}

namespace {

/// Puts everything read on the piece into the input, in order: what has coordinates first.
class Gatherer {
public:
  Gatherer(const build::Build& build, Id piece, PieceInput& input)
      : build_(build), piece_(piece), in_(input) {}

  void run() {
    in_.settings = join_settings(build_, piece_);
    std::vector<std::pair<Id, build::Touch>> heights;
    for (const auto& [id, touch] : build_.touches_of(piece_)) {
      const int surface = in_.surface_index(touch.surface);
      if (surface < 0) continue;
      if (touch.standing == build::TouchStanding::set_aside) {
        ++in_.set_aside;
        continue;
      }
      const auto* setting = in_.settings.find(touch.setting);
      if (setting != nullptr && !setting->joined) {
        in_.not_joined.push_back(id);
        continue;
      }
      if (setting != nullptr && setting->frame == build::SettingFrame::heights) {
        heights.emplace_back(id, touch);
        continue;
      }
      const auto at = touched_point(touch);
      if (!at) {
        in_.uncorrected.push_back(id);
        continue;
      }
      const bool own = setting != nullptr && !setting->base;
      const Vec3 xyz = own ? setting->pose().apply(*at) : *at;
      const double added = own ? registration_spread(setting->registration, xyz) : 0.0;
      add(surface, xyz, added > 0 ? std::hypot(touch.uncertainty, added) : touch.uncertainty, id,
          PointSource::touch);
    }
    const auto sizes = build_.sizes_of(piece_);
    if (!heights.empty() || !sizes.empty()) {
      pose_ = seat_or_start(build_, piece_, in_);
      for (const auto& [id, touch] : heights) add_height(id, touch);
      for (const auto& [id, size] : sizes) add_size(id, size);
    }
    for (const auto& [id, scan] : build_.scans_of(piece_)) add_scan(id, scan);
  }

private:
  void add(int surface, const Vec3& xyz, double uncertainty, Id id, PointSource source) {
    in_.seat.points.push_back({surface, xyz, uncertainty});
    in_.touch_ids.push_back(id);
    in_.sources.push_back(source);
  }

  const SeatSurface& surface(int i) const { return in_.seat.surfaces[static_cast<std::size_t>(i)]; }

  /// Only up · x + offset = height is known. A plane is taken to have been touched where the person says, to
  /// within `placed_within`, else at its middle, a round surface at its highest point (touched from above) or
  /// its lowest; what a lean of the plane against the setting adds over half its width, or over that, goes
  /// into the uncertainty.
  void add_height(Id id, const build::Touch& touch) {
    const int s = in_.surface_index(touch.surface);
    const auto& setting = *in_.settings.find(touch.setting);
    Vec3 up = setting.heights.up;
    double offset = setting.heights.offset;
    const auto& shape = surface(s).shape;
    const auto stock_of = [&](const Vec3& way, double above) {
      const Vec3 n = pose_.turn(way), p = pose_.inverse().apply(shape.point);
      const double level = touch.centre.z() - above - way.dot(p);
      return shape.round() ? std::abs(level) - shape.diameter / 2 : level * n.dot(shape.direction);
    };
    if (setting.heights.other_up &&
        std::abs(stock_of(*setting.heights.other_up, setting.heights.other_offset)) <
            std::abs(stock_of(up, offset))) {
      up = *setting.heights.other_up;
      offset = setting.heights.other_offset;
    }
    const Vec3 n = pose_.turn(up); // drawing frame
    double height = touch.centre.z() - offset;
    const double toward = touch.toward.z() != 0 ? touch.toward.z() : touch.toward.x() + touch.toward.y();
    if (touch.tip_radius > 0) height += (toward > 0 ? 1 : -1) * touch.tip_radius;
    const Pose to_survey = pose_.inverse();
    Vec3 at; // drawing frame: the point whose height along n is known
    double lean = 0;
    if (!shape.round()) {
      const double facing = n.dot(shape.direction);
      if (std::abs(facing) < 0.5) {
        in_.remarks.push_back(surface(s).id + " stands too steep in \"" + touch.setting +
                              "\" for a height to say where it is");
        return;
      }
      const auto on_face = patch_directions(shape.direction);
      const Vec3 foot = shape.point + on_face.width * touch.right + on_face.height * touch.up;
      const double level = height - up.dot(to_survey.apply(foot));
      at = foot + shape.direction * (level / facing);
      constexpr double placed_within = 3; // mm: a place pointed out with a rule
      const bool placed = touch.right != 0 || touch.up != 0;
      const auto* drawn = build_.find<build::PartSurface>(touch.surface);
      const double half = placed  ? placed_within
                          : drawn ? std::max({drawn->width, drawn->height, 10.0}) / 2
                                  : 20.0;
      lean = half * n.cross(shape.direction).norm();
    } else {
      const Vec3 across_axis = n - shape.direction * n.dot(shape.direction);
      if (across_axis.norm() < 0.7) {
        in_.remarks.push_back(surface(s).id + " stands on end in \"" + touch.setting +
                              "\": a height says nothing of it");
        return;
      }
      const double level = height - up.dot(to_survey.apply(shape.point));
      at = shape.point + across_axis * (level / across_axis.squaredNorm());
    }
    add(s, to_survey.apply(at), std::hypot(touch.uncertainty, lean), id, PointSource::height);
  }

  /// A thickness sets a point opposite every touch of the one surface on the other that has none.
  void add_size(Id id, const build::SizeReading& size) {
    const int a = in_.surface_index(size.surface), b = in_.surface_index(size.other);
    if (a < 0 || (size.other != 0 && b < 0)) return;
    const auto points_on = [&](int s) {
      std::vector<std::size_t> found;
      for (std::size_t i = 0; i < in_.seat.points.size(); ++i)
        if (in_.seat.points[i].surface == s && in_.sources[i] != PointSource::size) found.push_back(i);
      return found;
    };
    const auto on_a = points_on(a), on_b = b >= 0 ? points_on(b) : std::vector<std::size_t>{};
    if (b >= 0) {
      if (on_a.empty() == on_b.empty()) {
        if (!on_a.empty()) compare_thickness(size, a, b, on_a, on_b);
        return;
      }
      const int from = on_a.empty() ? b : a, to = on_a.empty() ? a : b;
      const Vec3 n = pose_.inverse().turn(surface(from).shape.direction);
      for (const auto i : on_a.empty() ? on_b : on_a) {
        const auto point = in_.seat.points[i];
        add(to, point.xyz - n * size.size, std::hypot(point.uncertainty, size.uncertainty), id,
            PointSource::size);
      }
      return;
    }
    round_size(id, size, a, on_a);
  }

  void round_size(Id id, const build::SizeReading& size, int s, const std::vector<std::size_t>& touched) {
    const auto& shape = surface(s).shape;
    const double stock = stock_of_size(shape, size.size).value_or(0);
    if (touched.empty()) {
      in_.remarks.push_back(fmt::format(
          "{}: at most {:.2f} mm a side, by its diameter; touch it to know where", surface(s).id, stock));
      return;
    }
    if (touched.size() <= 2) { // opposite each touch, across the axis of the drawing
      const Pose to_survey = pose_.inverse();
      for (const auto i : touched) {
        const auto point = in_.seat.points[i];
        // Towards the axis, and on to the other side.
        const Vec3 in = -metal_sign(shape.kind) * stock_direction(shape, pose_.apply(point.xyz));
        add(s, point.xyz + to_survey.turn(in) * size.size, std::hypot(point.uncertainty, size.uncertainty),
            id, PointSource::size);
      }
      return;
    }
    double sum = 0;
    for (const auto i : touched) sum += stock_at(shape, pose_.apply(in_.seat.points[i].xyz));
    const double touched_stock = sum / static_cast<double>(touched.size());
    if (std::abs(touched_stock - stock) > 0.5 + size.uncertainty)
      in_.remarks.push_back(fmt::format("{}: its diameter was read as {:.2f} mm, its touches say {:.2f}",
                                        surface(s).id, size.size,
                                        size_with_stock(shape, touched_stock).value_or(0)));
  }

  void compare_thickness(const build::SizeReading& size, int a, int b, const std::vector<std::size_t>& on_a,
                         const std::vector<std::size_t>& on_b) {
    const auto mean = [&](int s, const std::vector<std::size_t>& on) {
      double sum = 0;
      for (const auto i : on) sum += stock_at(surface(s).shape, pose_.apply(in_.seat.points[i].xyz));
      return sum / static_cast<double>(on.size());
    };
    const double drawn = surface(a).shape.direction.dot(surface(a).shape.point - surface(b).shape.point);
    const double touched = drawn + mean(a, on_a) + mean(b, on_b);
    if (std::abs(touched - size.size) > 0.8 + size.uncertainty)
      in_.remarks.push_back(fmt::format("{} to {}: read across as {:.2f} mm, their touches say {:.2f}",
                                        surface(a).id, surface(b).id, size.size, touched));
  }

  void add_scan(Id id, const build::Scan& scan) {
    if (!scan.points) return;
    std::vector<int> index;
    for (const auto surface_id : scan.points->surfaces) index.push_back(in_.surface_index(surface_id));
    in_.seat.points.reserve(in_.seat.points.size() + scan.points->at.size());
    for (std::size_t i = 0; i < scan.points->at.size(); ++i) {
      const auto k = scan.points->surface[i];
      if (k == build::ScanPoints::no_surface || index[k] < 0) continue;
      const auto& p = scan.points->at[i];
      add(index[k], scan.pose.apply(Vec3(p[0], p[1], p[2])), scan.uncertainty, id, PointSource::scan);
    }
  }

  const build::Build& build_;
  Id piece_;
  PieceInput& in_;
  Pose pose_;
};

} // namespace

PieceInput piece_input(const build::Build& build, Id piece_id) {
  PieceInput input;
  const auto* piece = build.find<build::Piece>(piece_id);
  if (piece == nullptr) return input;
  const auto judgement = build.judgement_of(piece_id);
  for (const auto& [id, surface] : build.surfaces_of(piece->part)) {
    if (surface.round() && !(surface.diameter > 0)) continue;
    input.seat.surfaces.push_back({surface.name, surface.shape(), surface.machined, surface.required});
    input.seat.surfaces.back().from_solid = surface.from_solid;
    if (judgement) input.seat.surfaces.back().favour = judgement->second.favour_of(id);
    input.surface_ids.push_back(id);
  }
  for (const auto& [id, wall] : build.walls_of(piece->part)) {
    const int from = input.surface_index(wall.from), to = input.surface_index(wall.to);
    if (from < 0 || to < 0 || from == to) continue;
    input.seat.walls.push_back({from, to, wall.least});
    input.wall_ids.push_back(id);
  }
  Gatherer(build, piece_id, input).run();
  return input;
}

Pose seat_or_start(const build::Build& build, Id piece, const PieceInput& input) {
  if (const auto seat = build.seat_of(piece)) return seat->second.pose;
  Pose start;
  Vec3 touched = Vec3::Zero(), finished = Vec3::Zero();
  for (const auto& point : input.seat.points) {
    touched += point.xyz;
    finished += input.seat.surfaces[static_cast<std::size_t>(point.surface)].shape.point;
  }
  if (!input.seat.points.empty())
    start.translation = (finished - touched) / static_cast<double>(input.seat.points.size());
  return start;
}

build::Marking marking_or_start(const build::Build& build, Id piece, const PieceInput& input) {
  if (const auto marking = build.marking_of(piece)) return marking->second;
  build::Marking marking;
  marking.piece = piece;
  double widest = -1;
  for (std::size_t i = 0; i < input.seat.surfaces.size(); ++i) {
    const auto* surface = build.find<build::PartSurface>(input.surface_ids[i]);
    if (surface == nullptr || surface->round() || !surface->machined) continue;
    const double area = surface->width * surface->height;
    const bool plain = surface->direction.cwiseAbs().maxCoeff() > 1 - 1e-9;
    if (plain && area > widest) {
      widest = area;
      marking.up = -surface->direction;
      marking.reference = input.surface_ids[i];
    }
  }
  return marking;
}

MarkingInput marking_input(const PieceInput& input, const Pose& seat, const build::Marking& marking) {
  MarkingInput result;
  result.part = input.seat;
  result.seat = seat;
  result.up = marking.up;
  result.base_height = marking.base_height;
  result.reference = marking.reference == 0 ? -1 : input.surface_index(marking.reference);
  for (std::size_t k = 0; k < 3; ++k)
    result.jacks[k] = marking.jacks[k] == 0 ? -1 : input.touch_index(marking.jacks[k]);
  return result;
}

} // namespace datrin::casting
