#include "casting/scan_assign.h"

#include "casting/seat_groups.h"
#include "casting/seat_start.h"
#include "geometry/patch.h"
#include "geometry/solve.h"

#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {
namespace {

constexpr std::uint16_t none = 0xFFFF;

/// The 24 turns that carry axes onto axes.
std::vector<Mat3> axis_turns() {
  std::vector<Mat3> turns;
  for (int x = 0; x < 3; ++x)
    for (int y = 0; y < 3; ++y)
      for (const double sx : {1.0, -1.0})
        for (const double sy : {1.0, -1.0}) {
          if (x == y) continue;
          Mat3 m;
          m.col(0) = sx * Vec3::Unit(x);
          m.col(1) = sy * Vec3::Unit(y);
          m.col(2) = Vec3(m.col(0)).cross(Vec3(m.col(1)));
          turns.push_back(m);
        }
  return turns;
}

double median(std::vector<double>& values) {
  if (values.empty()) return 0;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

class Assigner {
public:
  Assigner(const ScanInput& input, const ScanOptions& options) : in_(input), options_(options) {
    usual_.assign(in_.surfaces.size(), 0.0);
    for (std::size_t s = 0; s < usual_.size(); ++s) usual_[s] = in_.surfaces[s].machined ? 1.5 : 0.0;
    for (std::size_t s = 0; s < usual_.size(); ++s) edges_.emplace_back(patch(s));
  }

  ScanResult run() {
    ScanResult result;
    if (in_.surfaces.empty() || in_.points == nullptr || in_.points->size() < 20) {
      result.status = ScanStatus::refused;
      result.message = in_.surfaces.empty() ? "state the drawing first: a scan is given to its surfaces"
                                            : "a scan needs twenty points at least";
      return result;
    }
    take_sample();
    Pose best;
    double least = std::numeric_limits<double>::infinity();
    std::vector<double> usual = usual_, best_usual = usual_;
    for (const auto& start : starts()) {
      if (stopped()) break;
      usual_ = usual;
      const Pose pose = improved(start, 6);
      const double cost = cost_at(pose);
      if (cost >= least) continue;
      least = cost;
      best = pose;
      best_usual = usual_;
    }
    usual_ = best_usual;
    result.pose = improved(best, 25);
    result.spread = spread_at(result.pose);
    give_all(result);
    if (stopped()) {
      result.status = ScanStatus::stopped;
      result.message = "stopped; nothing was taken from the scan";
    } else if (static_cast<double>(result.given) < 0.3 * static_cast<double>(in_.points->size())) {
      result.status = ScanStatus::no_fit;
      result.message =
          fmt::format("the scan does not fit the drawing: only {} of its {} points lie near a surface; is "
                      "its unit right, and is this the part?",
                      result.given, in_.points->size());
    } else {
      result.status = ScanStatus::assigned;
    }
    return result;
  }

private:
  bool stopped() const { return options_.should_stop && options_.should_stop(); }

  void take_sample() {
    const auto n = in_.points->size();
    const auto step = std::max<std::size_t>(1, n / static_cast<std::size_t>(options_.sample));
    for (std::size_t i = 0; i < n; i += step) sample_.push_back(point(i));
  }

  Vec3 point(std::size_t i) const {
    const auto& p = (*in_.points)[i];
    return {p[0], p[1], p[2]};
  }

  std::vector<Pose> starts() const {
    if (in_.start) return {*in_.start};
    const Vec3 mean = middle_of(Mat3::Identity());
    Mat3 scatter = Mat3::Zero();
    std::vector<double> squares;
    for (const auto& p : sample_) squares.push_back((p - mean).squaredNorm());
    const double reach = 6 * median(squares); // a table or a clamp scanned along does not turn the axes
    for (const auto& p : sample_)
      if ((p - mean).squaredNorm() <= reach) scatter += (p - mean) * (p - mean).transpose();
    const Mat3 own = symmetric_eigen(scatter).vectors;
    const Vec3 middle = drawing_middle();
    std::vector<Pose> list;
    for (const auto& turn : axis_turns()) {
      list.push_back({turn, middle - middle_of(turn)});
      Mat3 axes = own;
      if (axes.col(0).cross(axes.col(1)).dot(axes.col(2)) < 0) axes.col(0) = -axes.col(0);
      const Mat3 rotation = turn * axes.transpose();
      list.push_back({rotation, middle - middle_of(rotation)});
    }
    return list;
  }

  /// Middle of the box around the turned sample, what sticks out far left aside.
  Vec3 middle_of(const Mat3& turn) const {
    Vec3 middle;
    for (int k = 0; k < 3; ++k) {
      std::vector<double> along;
      for (const auto& p : sample_) along.push_back(turn.row(k).dot(p));
      std::sort(along.begin(), along.end());
      const auto at = [&](double f) {
        return along[static_cast<std::size_t>(f * static_cast<double>(along.size() - 1))];
      };
      middle[k] = (at(0.03) + at(0.97)) / 2;
    }
    return middle;
  }

  Patch patch(std::size_t s) const { return {in_.surfaces[s].shape, in_.extent[s].x(), in_.extent[s].y()}; }

  Vec3 drawing_middle() const {
    std::vector<Patch> patches;
    for (std::size_t i = 0; i < in_.surfaces.size(); ++i) patches.push_back(patch(i));
    const auto box = box_of(patches);
    return (box.low + box.high) / 2;
  }

  struct Nearest {
    int surface = -1;
    double off = 1e30, next = 1e30; ///< mm to it and to the next nearest
  };

  /// How far `at` (drawing frame) is from each surface as it usually lies: across it, and beyond its edges.
  Nearest nearest(const Vec3& at) const {
    Nearest found;
    for (std::size_t s = 0; s < in_.surfaces.size(); ++s) {
      const double across_it = std::abs(stock_at(in_.surfaces[s].shape, at) - usual_[s]);
      if (across_it >= found.next) continue;
      // A little past the edge is still the surface: rough metal stands over there too.
      const double beyond = edges_[s].beyond(at) - 2.0;
      const double off = beyond > 0 ? std::sqrt(across_it * across_it + beyond * beyond) : across_it;
      if (off < found.off) {
        found.next = found.off;
        found.off = off;
        found.surface = static_cast<int>(s);
      } else if (off < found.next) {
        found.next = off;
      }
    }
    return found;
  }

  Pose improved(Pose pose, int rounds) {
    SeatInput seat;
    seat.surfaces = in_.surfaces;
    for (auto& s : seat.surfaces) s.machined = true;
    for (int round = 0; round < rounds; ++round) {
      const double reach = std::max(2 * options_.reach, 30.0 / (1 + round));
      seat.points.clear();
      std::vector<std::vector<double>> stocks(in_.surfaces.size());
      for (const auto& p : sample_) {
        const Vec3 at = pose.apply(p);
        const auto near = nearest(at);
        if (near.off > reach) continue;
        seat.points.push_back({near.surface, p, 0});
        stocks[static_cast<std::size_t>(near.surface)].push_back(
            stock_at(in_.surfaces[static_cast<std::size_t>(near.surface)].shape, at));
      }
      for (std::size_t s = 0; s < stocks.size(); ++s) {
        if (round > 2 && stocks[s].size() >= 5) usual_[s] = std::clamp(median(stocks[s]), -2.0, 5.0);
        seat.surfaces[s].required = usual_[s];
      }
      const auto groups = make_groups(seat);
      if (groups.empty()) break;
      const Pose next = least_squares_start(seat, groups, pose).pose;
      const double moved_by = (next.translation - pose.translation).norm() +
                              20 * vector_from_rotation(next.rotation * pose.rotation.transpose()).norm();
      pose = next;
      if (moved_by < 1e-3 && round > 4) break;
    }
    return pose;
  }

  double cost_at(const Pose& pose) const {
    double cost = 0;
    for (const auto& p : sample_) cost += std::min(nearest(pose.apply(p)).off, 2 * options_.reach);
    return cost;
  }

  double spread_at(const Pose& pose) const {
    std::vector<double> off;
    for (const auto& p : sample_) off.push_back(nearest(pose.apply(p)).off);
    return median(off);
  }

  void give_all(ScanResult& result) const {
    const auto n = in_.points->size();
    result.surface.assign(n, none);
    for (std::size_t i = 0; i < n; ++i) {
      if (i % 65536 == 0 && stopped()) return;
      const auto near = nearest(result.pose.apply(point(i)));
      if (near.off > options_.reach)
        ++result.elsewhere;
      else if (near.next - near.off < options_.apart)
        ++result.doubtful;
      else {
        result.surface[i] = static_cast<std::uint16_t>(near.surface);
        ++result.given;
      }
    }
  }

  const ScanInput& in_;
  const ScanOptions& options_;
  std::vector<double> usual_; ///< stock each surface has on the whole, mm
  std::vector<Vec3> sample_;
  std::vector<Edges> edges_; ///< of the surfaces
};

} // namespace

ScanResult assign_scan(const ScanInput& input, const ScanOptions& options) {
  return Assigner(input, options).run();
}

} // namespace datrin::casting
