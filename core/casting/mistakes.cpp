#include "casting/mistakes.h"

#include "casting/seat_groups.h"
#include "casting/seat_start.h"
#include "geometry/patch.h"
#include "quantity/length_text.h"
#include "quantity/unit.h"

#include <Eigen/Cholesky>
#include <Eigen/Geometry>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <random>

namespace datrin::casting {
namespace {

using Row = Eigen::Vector3d; // 1, and two terms of the lean or the offset

double median(std::vector<double> values) {
  if (values.empty()) return 0;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

constexpr double mad_to_sigma = 1.4826;
constexpr double small_sample = 1.5; // 1 + 5 / (n − 3) for a dozen touches: least median fits too well
constexpr double looks_smoother = 0.91;
constexpr double most_lean = 0.1; // stock per mm across a plane: some 6°
constexpr double slope_over =
    20; // mm: a slope counts by what it rises over this, so that all terms are about 1
constexpr double most_drift = 6; // mm a round surface stands off its drawing
constexpr int all_triples_up_to = 14;

/// One surface's stock about its own fit.
struct SurfaceFit {
  bool known = false;
  Row value = Row::Zero();
  Eigen::Matrix3d spread = Eigen::Matrix3d::Zero(); ///< (Σ row rowᵀ)⁻¹ of what it was fitted to
};

class Finder {
public:
  Finder(const MistakesInput& input, const MistakesOptions& options) : in_(input), options_(options) {}

  MistakesResult run() {
    MistakesResult result;
    for (const auto& touch : in_.touches) points_.push_back(point_of(touch));
    if (in_.touches.size() < 8) {
      result.status = MistakesStatus::too_few;
      result.message = "eight touches at least are needed to tell a mistake from the casting's own shape";
      return result;
    }
    place();
    fit_all();
    result.status = MistakesStatus::looked;
    result.scatter = sigma_;
    for (int i = 0; i < static_cast<int>(in_.touches.size()); ++i)
      if (const auto mistake = look_at(i)) result.mistakes.push_back(*mistake);
    return result;
  }

private:
  static Vec3 point_of(const MistakeTouch& touch) {
    const double length = touch.toward.norm();
    const Vec3 at = touch.tip_radius > 0 && length > 1e-12
                        ? Vec3(touch.centre + touch.toward * (touch.tip_radius / length))
                        : touch.centre;
    return touch.to_survey.apply(at);
  }

  const SeatSurface& surface(int i) const { return in_.surfaces[static_cast<std::size_t>(i)]; }
  int surface_of(int touch) const { return in_.touches[static_cast<std::size_t>(touch)].surface; }

  // --- Placing the part, whatever stands off being left out in turn ---------------------------------------

  void place() {
    SeatInput seat;
    seat.surfaces = in_.surfaces;
    for (auto& s : seat.surfaces) s.machined = true; // as-cast surfaces place the part as well
    pose_ = in_.start;
    std::vector<char> in(points_.size(), 1);
    middle_.assign(in_.surfaces.size(), 0.0);
    leave_out_the_absurd(in);
    for (int round = 0; round < 8; ++round) {
      seat.points.clear();
      for (std::size_t i = 0; i < points_.size(); ++i)
        if (in[i]) seat.points.push_back({in_.touches[i].surface, points_[i], 0});
      // Each surface is pulled to where it is, not to where its drawing wants it: were all asked for more
      // metal than they have, the part would turn askew to please them.
      if (round > 0)
        for (std::size_t s = 0; s < middle_.size(); ++s) seat.surfaces[s].required = middle_[s];
      const auto groups = make_groups(seat);
      if (groups.empty()) return;
      pose_ = least_squares_start(seat, groups, pose_).pose;
      std::vector<double> off(points_.size()), size;
      for (int s = 0; s < static_cast<int>(in_.surfaces.size()); ++s) {
        std::vector<double> stocks;
        for (std::size_t i = 0; i < points_.size(); ++i)
          if (in_.touches[i].surface == s) stocks.push_back(stock_of(s, points_[i]));
        const double middle = median(stocks);
        middle_[static_cast<std::size_t>(s)] = middle;
        for (std::size_t i = 0; i < points_.size(); ++i)
          if (in_.touches[i].surface == s) off[i] = std::abs(stock_of(s, points_[i]) - middle);
      }
      for (std::size_t i = 0; i < points_.size(); ++i) size.push_back(off[i]);
      const double limit = std::max(4 * mad_to_sigma * median(size), 1.0);
      std::vector<char> next(points_.size());
      for (std::size_t i = 0; i < points_.size(); ++i) next[i] = off[i] <= limit;
      if (next == in && round > 3) break;
      in = std::move(next);
    }
  }

  /// What lies nowhere near the other touches of its surface would drag the whole part along.
  void leave_out_the_absurd(std::vector<char>& in) const {
    for (int s = 0; s < static_cast<int>(in_.surfaces.size()); ++s) {
      std::vector<std::size_t> on;
      for (std::size_t i = 0; i < points_.size(); ++i)
        if (in_.touches[i].surface == s) on.push_back(i);
      if (on.size() < 3) continue;
      Vec3 middle;
      for (int k = 0; k < 3; ++k) {
        std::vector<double> values;
        values.reserve(on.size());
        for (const auto i : on) values.push_back(points_[i][k]);
        middle[k] = median(std::move(values));
      }
      std::vector<double> reach;
      reach.reserve(on.size());
      for (const auto i : on) reach.push_back((points_[i] - middle).norm());
      const double limit = 4 * median(reach) + 10;
      for (const auto i : on) in[i] = (points_[i] - middle).norm() <= limit;
    }
  }

  double stock_of(int s, const Vec3& point) const { return stock_at(surface(s).shape, pose_.apply(point)); }

  /// What the stock of a surface is a linear function of: where on a plane, which way round a bore. The
  /// numbers are scaled to about 1.
  Row row_of(int s, const Vec3& point) const {
    const Chart chart(surface(s).shape);
    const Vec2 c = chart.coordinates(pose_.apply(point));
    if (chart.closes()) return {1, std::cos(c.x()), std::sin(c.x())};
    return {1, c.x() / slope_over, c.y() / slope_over};
  }

  bool sensible(int s, const Row& value) const {
    const bool moves = lean_moves(surface(s).shape.kind, 0); // its first two terms: moving across, or leaning
    return value.tail<2>().norm() < (moves ? most_drift : most_lean * slope_over);
  }

  // --- How each surface lies ------------------------------------------------------------------------------

  void fit_all() {
    const auto n = in_.surfaces.size();
    fits_.assign(n, {});
    std::vector<std::vector<int>> touches(n);
    for (int i = 0; i < static_cast<int>(points_.size()); ++i)
      touches[static_cast<std::size_t>(surface_of(i))].push_back(i);
    for (std::size_t s = 0; s < n; ++s) rough_fit(static_cast<int>(s), touches[s]);
    // One scatter for the casting: its surfaces came from the same sand.
    std::vector<double> off;
    for (std::size_t s = 0; s < n; ++s)
      if (fits_[s].known && touches[s].size() >= 5)
        for (const int i : touches[s])
          off.push_back(std::abs(residual(static_cast<int>(s), points_[static_cast<std::size_t>(i)])));
    sigma_ = std::clamp(mad_to_sigma * median(off) * small_sample, 0.03, 1.0);
    for (int round = 0; round < 3; ++round) {
      inliers_.assign(points_.size(), 0);
      for (std::size_t s = 0; s < n; ++s)
        for (const int i : touches[s])
          inliers_[static_cast<std::size_t>(i)] =
              fits_[s].known &&
              std::abs(residual(static_cast<int>(s), points_[static_cast<std::size_t>(i)])) < 3 * sigma_;
      for (std::size_t s = 0; s < n; ++s) fine_fit(static_cast<int>(s), touches[s], -1, fits_[s]);
      double squares = 0, freedom = 0;
      for (std::size_t s = 0; s < n; ++s) {
        if (!fits_[s].known) continue;
        double count = 0;
        for (const int i : touches[s])
          if (inliers_[static_cast<std::size_t>(i)]) {
            const double r = residual(static_cast<int>(s), points_[static_cast<std::size_t>(i)]);
            squares += r * r;
            ++count;
          }
        freedom += std::max(0.0, count - 3);
      }
      // What was cut off made the rest look smoother than the casting is: by 0.91 in simulated castings.
      if (freedom >= 6) sigma_ = std::clamp(std::sqrt(squares / freedom) / looks_smoother, 0.03, 1.0);
    }
    touches_ = std::move(touches);
  }

  double residual(int s, const Vec3& point) const {
    return stock_of(s, point) - fits_[static_cast<std::size_t>(s)].value.dot(row_of(s, point));
  }

  void rough_fit(int s, const std::vector<int>& touches) {
    auto& fit = fits_[static_cast<std::size_t>(s)];
    if (touches.empty()) return;
    std::vector<double> stocks;
    std::vector<Row> rows;
    for (const int i : touches) {
      stocks.push_back(stock_of(s, points_[static_cast<std::size_t>(i)]));
      rows.push_back(row_of(s, points_[static_cast<std::size_t>(i)]));
    }
    fit.known = touches.size() >= 3;
    fit.value = Row(median(stocks), 0, 0);
    if (touches.size() < 5) return;
    const auto score = [&](const Row& value) {
      std::vector<double> off;
      for (std::size_t i = 0; i < rows.size(); ++i) off.push_back(std::abs(stocks[i] - value.dot(rows[i])));
      return median(std::move(off));
    };
    double best = score(fit.value);
    const auto consider = [&](std::size_t i, std::size_t j, std::size_t k) {
      Eigen::Matrix3d m;
      m << rows[i].transpose(), rows[j].transpose(), rows[k].transpose();
      if (std::abs(m.determinant()) < 0.05) return;
      const Row value = m.inverse() * Row(stocks[i], stocks[j], stocks[k]);
      if (!sensible(s, value)) return;
      if (const double found = score(value); found < best) {
        best = found;
        fit.value = value;
      }
    };
    const auto n = rows.size();
    if (static_cast<int>(n) <= all_triples_up_to) {
      for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = i + 1; j < n; ++j)
          for (std::size_t k = j + 1; k < n; ++k) consider(i, j, k);
    } else {
      std::mt19937 random(1984);
      std::uniform_int_distribution<std::size_t> any(0, n - 1);
      for (int trial = 0; trial < 400; ++trial) consider(any(random), any(random), any(random));
    }
  }

  /// Least squares on what agrees, `without` left out; a little weight on no lean and no offset keeps a
  /// surface touched on one side only from swinging.
  void fine_fit(int s, const std::vector<int>& touches, int without, SurfaceFit& fit) const {
    Eigen::Matrix3d normal = Eigen::Vector3d(0, 0.02, 0.02).asDiagonal();
    Eigen::Vector3d right = Eigen::Vector3d::Zero();
    int count = 0;
    for (const int i : touches) {
      const auto k = static_cast<std::size_t>(i);
      if (i == without || !inliers_[k]) continue;
      const Row row = row_of(s, points_[k]);
      normal += row * row.transpose();
      right += row * stock_of(s, points_[k]);
      ++count;
    }
    fit.known = count >= 3;
    if (!fit.known) return;
    fit.spread = normal.inverse();
    fit.value = fit.spread * right;
  }

  // --- One touch ------------------------------------------------------------------------------------------

  struct Off {
    double off = 0, sigma = 1, beyond = 0;
    double sigmas() const { return std::abs(off) / sigma; }
  };

  /// How a point would stand on surface `s`, judged by the others there.
  std::optional<Off> off_of(int s, const Vec3& point, int without) const {
    SurfaceFit fit;
    fine_fit(s, touches_[static_cast<std::size_t>(s)], without, fit);
    if (!fit.known) return std::nullopt;
    const Row row = row_of(s, point);
    Off found;
    found.off = stock_of(s, point) - fit.value.dot(row);
    found.sigma = sigma_ * std::sqrt(1 + row.dot(fit.spread * row));
    found.beyond = beyond_edge(s, point);
    return found;
  }

  double beyond_edge(int s, const Vec3& point) const {
    if (static_cast<std::size_t>(s) >= in_.extent.size()) return 0;
    const auto& extent = in_.extent[static_cast<std::size_t>(s)];
    return datrin::beyond_edge({surface(s).shape, extent.x(), extent.y()}, pose_.apply(point));
  }

  std::optional<Mistake> look_at(int i) const {
    const auto& touch = in_.touches[static_cast<std::size_t>(i)];
    const auto now = off_of(touch.surface, points_[static_cast<std::size_t>(i)], i);
    if (!now) return std::nullopt;
    const bool far = now->sigmas() > options_.sigmas && std::abs(now->off) > options_.least_off;
    if (!far && now->beyond <= options_.beyond_edge) return std::nullopt;
    Mistake best;
    best.touch = i;
    best.off = best.left = now->off;
    best.centre = touch.centre;
    best.toward = touch.toward;
    best.surface = touch.surface;
    best.reason = far ? fmt::format("stands {} {} the others on {}: touch it again",
                                    length_text(std::abs(now->off), options_.unit, {.show_unit = true}),
                                    now->off > 0 ? "above" : "below", surface(touch.surface).id)
                      : fmt::format("lies {} beyond the edge of {}: look at its coordinates",
                                    length_text(now->beyond, options_.unit, {.show_unit = true}),
                                    surface(touch.surface).id);
    double least_cost = 9; // three standard deviations: a suggestion must make it agree
    const auto consider = [&](MistakeKind kind, int axis, const MistakeTouch& as, double prior,
                              std::string why) {
      const Vec3 point = point_of(as);
      const auto then = off_of(as.surface, point, i);
      if (!then || then->beyond > options_.beyond_edge) return;
      const double cost = then->sigmas() * then->sigmas() + prior;
      if (cost >= least_cost) return;
      least_cost = cost;
      best.kind = kind;
      best.axis = axis;
      best.left = then->off;
      best.centre = as.centre;
      best.toward = as.toward;
      best.surface = as.surface;
      best.reason = std::move(why);
    };
    every_slip(touch, consider);
    return best;
  }

  template <class Consider>
  void every_slip(const MistakeTouch& touch, const Consider& consider) const {
    static constexpr const char* axes = "xyz";
    for (int axis = 0; axis < 3; ++axis) {
      for (const double turn : options_.dial_turns)
        for (const int turns : {-1, 1, -2, 2}) {
          auto as = touch;
          as.centre[axis] += turns * turn;
          consider(MistakeKind::dial_turn, axis, as, std::abs(turns) - 1,
                   fmt::format("{} is {} of the dial ({} mm{}) too {}", axes[axis],
                               std::abs(turns) == 1 ? "one turn" : "two turns",
                               number_text(turn, turn == 1 ? 0 : 2), std::abs(turns) == 1 ? "" : " each",
                               turns < 0 ? "much" : "little"));
        }
      auto as = touch;
      as.centre[axis] = -touch.centre[axis];
      consider(MistakeKind::sign, axis, as, 0, fmt::format("{} has the wrong sign", axes[axis]));
      as.centre[axis] = touch.centre[axis] * mm_per_inch;
      consider(MistakeKind::inch_for_mm, axis, as, 0,
               fmt::format("{} was typed in inches where millimetres were meant", axes[axis]));
      as.centre[axis] = touch.centre[axis] / mm_per_inch;
      consider(MistakeKind::mm_for_inch, axis, as, 0,
               fmt::format("{} was typed in millimetres where inches were meant", axes[axis]));
    }
    auto whole = touch;
    whole.centre = touch.centre * mm_per_inch;
    consider(MistakeKind::inch_for_mm, -1, whole, 0, "it was typed in inches where millimetres were meant");
    whole.centre = touch.centre / mm_per_inch;
    consider(MistakeKind::mm_for_inch, -1, whole, 0, "it was typed in millimetres where inches were meant");
    if (touch.tip_radius > 0 && touch.toward.norm() > 1e-12) {
      auto turned = touch;
      turned.toward = -touch.toward;
      consider(MistakeKind::radius, -1, turned, 0, "the radius of the tip was taken off the wrong way");
    }
    for (int s = 0; s < static_cast<int>(in_.surfaces.size()); ++s) {
      if (s == touch.surface) continue;
      auto as = touch;
      as.surface = s;
      consider(MistakeKind::wrong_surface, -1, as, 1,
               fmt::format("it lies on {}, not on {}", surface(s).id, surface(touch.surface).id));
    }
  }

  const MistakesInput& in_;
  const MistakesOptions& options_;
  std::vector<Vec3> points_; ///< survey frame
  Pose pose_;
  std::vector<double> middle_; ///< stock in the middle of each surface
  std::vector<SurfaceFit> fits_;
  std::vector<std::vector<int>> touches_;
  std::vector<char> inliers_;
  double sigma_ = 0.1;
};

} // namespace

MistakesResult find_mistakes(const MistakesInput& input, const MistakesOptions& options) {
  return Finder(input, options).run();
}

} // namespace datrin::casting
