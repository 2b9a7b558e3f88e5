#include "casting/certainty.h"

#include "geometry/fit.h"
#include "quantity/unit.h"

#include <Eigen/Cholesky>
#include <Eigen/Geometry>

#include <algorithm>
#include <array>
#include <cmath>
#include <random>

namespace datrin::casting {

namespace {

constexpr double sure_part = 0.95, likely_part = 2.0 / 3;
constexpr std::array lengths{5.0, 8.0, 12.7, 20.0, 32.0};                                 // mm
constexpr std::array roughnesses{0.04, 0.055, 0.075, 0.10, 0.14, 0.19, 0.26, 0.36, 0.50}; // mm

// How far a surface leans from where the seat has it: drawn straight, or on a draft of a degree or so.
// Standard deviations, radians; and how far a core stands off its place, mm.
constexpr std::array leans{0.003, 0.015};
constexpr std::array shifts{0.1, 0.5};

/// What rough castings usually are, before a touch is taken (common practice): about an eighth of a
/// millimetre.
double usual(double roughness) {
  const double z = std::log(roughness / 0.13) / 0.55;
  return std::exp(-z * z / 2);
}

Standing standing_of(double clean) {
  return clean >= sure_part ? Standing::sure : clean >= likely_part ? Standing::likely : Standing::doubtful;
}

double quantile(std::vector<double> values, double part) {
  if (values.empty()) return 0;
  const auto k = static_cast<std::size_t>(
      std::clamp(part * static_cast<double>(values.size()), 0.0, static_cast<double>(values.size() - 1)));
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(k), values.end());
  return values[k];
}

/// A surface unrolled: where a point lies on it, and the trend its metal may have.
class Chart {
public:
  explicit Chart(const Surface& shape) : shape_(shape) {
    if (shape.round()) {
      u_ = across(shape.direction);
      v_ = shape.direction.cross(u_);
    } else {
      const auto [u, v] = patch_directions(shape.direction);
      u_ = u;
      v_ = v;
    }
  }
  int terms() const { return shape_.round() ? 5 : 2; }
  double angle(const Vec3& at) const {
    return std::atan2((at - shape_.point).dot(v_), (at - shape_.point).dot(u_));
  }
  double depth(const Vec3& at) const { return (at - shape_.point).dot(shape_.direction); }
  Vec2 across_plane(const Vec3& at) const {
    return {(at - shape_.point).dot(u_), (at - shape_.point).dot(v_)};
  }
  Vec3 on_plane(double a, double b) const { return shape_.point + a * u_ + b * v_; }
  Vec3 on_round(double angle, double depth) const {
    return shape_.point + depth * shape_.direction +
           shape_.diameter / 2 * (std::cos(angle) * u_ + std::sin(angle) * v_);
  }
  /// What a lean (or shift) of one standard deviation does at a place: columns, each with a weight of its
  /// own.
  void lean(const Vec3& foot, std::size_t lean_kind, Eigen::Ref<Eigen::VectorXd> row) const {
    const double slope = leans[lean_kind], shift = shifts[lean_kind];
    if (!shape_.round()) {
      const auto p = across_plane(foot);
      row << slope * p.x(), slope * p.y();
      return;
    }
    const double t = angle(foot), z = depth(foot);
    row << shift * std::cos(t), shift * std::sin(t), slope * z, slope * z * std::cos(t),
        slope * z * std::sin(t);
  }
  /// The same place on the finished surface.
  Vec3 foot(const Vec3& at) const {
    if (!shape_.round()) return at - (at - shape_.point).dot(shape_.direction) * shape_.direction;
    return on_round(angle(at), depth(at));
  }

private:
  Surface shape_;
  Vec3 u_, v_;
};

std::vector<Vec3> make_net(const SeatInput& in, const Chart& chart, const SeatSurface& s,
                           const SurfaceReach& reach, const std::vector<Vec3>& touched, int count,
                           bool whole) {
  std::vector<Vec3> net;
  if (s.shape.round()) {
    double low = 1e300, high = -1e300;
    for (const auto& at : touched) {
      low = std::min(low, chart.depth(at));
      high = std::max(high, chart.depth(at));
    }
    if (reach.height > 0) {
      low = -reach.height / 2;
      high = reach.height / 2;
    }
    // A round surface that stays as cast is only known to be free metal where it was touched.
    double start = 0, arc = 2 * pi;
    if (!whole) {
      std::vector<double> angles;
      for (const auto& at : touched) angles.push_back(chart.angle(at));
      std::sort(angles.begin(), angles.end());
      double gap = angles.front() + 2 * pi - angles.back();
      start = angles.front();
      for (std::size_t k = 1; k < angles.size(); ++k)
        if (angles[k] - angles[k - 1] > gap) {
          gap = angles[k] - angles[k - 1];
          start = angles[k];
        }
      arc = 2 * pi - gap;
    }
    const double round = arc * s.shape.diameter / 2, length = std::max(1e-3, high - low);
    const int rows =
        std::max(2, static_cast<int>(std::lround(std::sqrt(count * length / std::max(1e-3, round)))));
    const int columns = std::max(6, count / rows);
    for (int r = 0; r < rows; ++r)
      for (int c = 0; c < columns; ++c)
        net.push_back(
            chart.on_round(start + arc * (c + (whole ? 0.0 : 0.5)) / columns, low + length * r / (rows - 1)));
    return net;
  }
  Vec2 low(1e300, 1e300), high(-1e300, -1e300);
  for (const auto& at : touched) {
    low = low.cwiseMin(chart.across_plane(at));
    high = high.cwiseMax(chart.across_plane(at));
  }
  if (reach.width > 0) {
    low.x() = -reach.width / 2;
    high.x() = reach.width / 2;
  }
  if (reach.height > 0) {
    low.y() = -reach.height / 2;
    high.y() = reach.height / 2;
  }
  const double wide = std::max(1e-3, high.x() - low.x()), tall = std::max(1e-3, high.y() - low.y());
  const int rows = std::clamp(static_cast<int>(std::lround(std::sqrt(count * tall / wide))), 2, count / 2);
  const int columns = std::max(2, count / rows);
  for (int r = 0; r < rows; ++r)
    for (int c = 0; c < columns; ++c) {
      const Vec3 at = chart.on_plane(low.x() + wide * c / (columns - 1), low.y() + tall * r / (rows - 1));
      // Not over a hole that comes out of this face.
      const bool hole = std::any_of(in.surfaces.begin(), in.surfaces.end(), [&](const SeatSurface& other) {
        if (other.shape.kind != SurfaceKind::bore ||
            std::abs(other.shape.direction.dot(s.shape.direction)) < 0.999)
          return false;
        const Vec3 off = at - other.shape.point;
        return (off - off.dot(other.shape.direction) * other.shape.direction).norm() <
               other.shape.diameter / 2;
      });
      if (!hole) net.push_back(at);
    }
  return net;
}

struct Seen {
  std::vector<Vec3> foot;
  Eigen::VectorXd margin; ///< stock or wall, less what is needed
  Eigen::VectorXd noise;  ///< variance
};

/// Which lean, roughness and length.
struct Kind {
  std::size_t lean = 0, roughness = 0, length = 0;
};

/// Draws whole surfaces given what was seen.
class Field {
public:
  Field(const Chart& chart, const Seen& seen, const std::vector<Vec3>& net)
      : seen_(seen), near_(distances(seen.foot, seen.foot)), cross_(distances(net, seen.foot)),
        far_(distances(net, net)) {
    for (std::size_t kind = 0; kind < leans.size(); ++kind) {
      seen_leans_[kind] = lean_rows(chart, seen.foot, kind);
      net_leans_[kind] = lean_rows(chart, net, kind);
    }
  }

  /// log of the restricted likelihood: the mean height has a flat prior.
  double likelihood(const Kind& kind) const {
    const auto given = condition(kind);
    const Eigen::VectorXd r = seen_.margin.array() - given.mean;
    const double det =
        2 * Eigen::MatrixXd(given.k.matrixL()).diagonal().array().log().sum() + std::log(given.weight);
    return -0.5 * (det + r.dot(given.k.solve(r)));
  }

  /// `count` surfaces, one a column.
  Eigen::MatrixXd draw(const Kind& kind, int count, std::mt19937_64& random) const {
    const auto given = condition(kind);
    const Eigen::MatrixXd c = covariance(cross_, kind, net_leans_[kind.lean], seen_leans_[kind.lean]);
    const Eigen::MatrixXd kc = given.k.solve(c.transpose());
    const Eigen::VectorXd mean =
        given.mean + (kc.transpose() * (seen_.margin.array() - given.mean).matrix()).array();
    // What the touches do not say about the mean height: universal kriging with one flat term.
    const Eigen::RowVectorXd t = Eigen::RowVectorXd::Ones(c.rows()) - given.ones.transpose() * c.transpose();
    Eigen::MatrixXd rest = covariance(far_, kind, net_leans_[kind.lean], net_leans_[kind.lean]);
    rest.noalias() -= c * kc;
    rest.noalias() += t.transpose() * t / given.weight;
    rest.diagonal().array() += 1e-9 + 1e-6 * roughnesses[kind.roughness] * roughnesses[kind.roughness];
    const Eigen::LLT<Eigen::MatrixXd> root(rest);
    std::normal_distribution<double> normal;
    Eigen::MatrixXd z(c.rows(), count);
    for (Eigen::Index j = 0; j < z.cols(); ++j)
      for (Eigen::Index i = 0; i < z.rows(); ++i) z(i, j) = normal(random);
    Eigen::MatrixXd out = root.matrixL() * z;
    out.colwise() += mean;
    return out;
  }

private:
  struct Given {
    Eigen::LLT<Eigen::MatrixXd> k;
    Eigen::VectorXd ones; ///< K⁻¹ 1
    double weight = 1;    ///< 1ᵀ K⁻¹ 1
    double mean = 0;
  };
  Given condition(const Kind& kind) const {
    Eigen::MatrixXd k = covariance(near_, kind, seen_leans_[kind.lean], seen_leans_[kind.lean]);
    k.diagonal() += seen_.noise;
    Given given{Eigen::LLT<Eigen::MatrixXd>(k), {}, 1, 0};
    given.ones = given.k.solve(Eigen::VectorXd::Ones(k.rows()));
    given.weight = given.ones.sum();
    given.mean = given.ones.dot(seen_.margin) / given.weight;
    return given;
  }
  static Eigen::MatrixXd lean_rows(const Chart& chart, const std::vector<Vec3>& at, std::size_t kind) {
    Eigen::MatrixXd rows(static_cast<Eigen::Index>(at.size()), chart.terms());
    Eigen::VectorXd row(chart.terms());
    for (std::size_t i = 0; i < at.size(); ++i) {
      chart.lean(at[i], kind, row);
      rows.row(static_cast<Eigen::Index>(i)) = row.transpose();
    }
    return rows;
  }
  static Eigen::MatrixXd distances(const std::vector<Vec3>& a, const std::vector<Vec3>& b) {
    Eigen::MatrixXd d(static_cast<Eigen::Index>(a.size()), static_cast<Eigen::Index>(b.size()));
    for (std::size_t i = 0; i < a.size(); ++i)
      for (std::size_t j = 0; j < b.size(); ++j)
        d(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j)) = (a[i] - b[j]).norm();
    return d;
  }
  static Eigen::MatrixXd covariance(const Eigen::MatrixXd& d, const Kind& kind,
                                    const Eigen::MatrixXd& a_leans, const Eigen::MatrixXd& b_leans) {
    const double sigma = roughnesses[kind.roughness];
    const Eigen::ArrayXXd a = d.array() * (std::sqrt(3.0) / lengths[kind.length]);
    Eigen::MatrixXd k = (sigma * sigma * (1 + a) * (-a).exp()).matrix();
    k.noalias() += a_leans * b_leans.transpose();
    return k;
  }

  const Seen& seen_;
  Eigen::MatrixXd near_, cross_, far_;
  std::array<Eigen::MatrixXd, leans.size()> seen_leans_, net_leans_;
};

} // namespace

const char* standing_name(Standing standing) {
  static constexpr const char* names[] = {"not known", "sure", "likely", "doubtful"};
  return names[static_cast<std::size_t>(standing)];
}

CertaintyResult certainty(const SeatInput& in, const Pose& seat, const std::vector<SurfaceReach>& reach,
                          const CertaintyOptions& options) {
  CertaintyResult out;
  const auto refuse = [&](std::string why) {
    out.status = CertaintyStatus::refused;
    out.message = std::move(why);
    return out;
  };
  if (auto wrong = validate(in); !wrong.empty()) return refuse(wrong);
  if (options.draws < 20 || options.net < 16)
    return refuse("at least 20 draws over a net of 16 points are needed");
  const auto margins = margins_at(in, seat);
  std::vector<std::vector<std::size_t>> of_surface(in.surfaces.size());
  for (std::size_t i = 0; i < in.points.size(); ++i)
    of_surface[static_cast<std::size_t>(in.points[i].surface)].push_back(i);
  out.least.assign(static_cast<std::size_t>(options.draws), no_margin);
  bool any = false;
  for (std::size_t g = 0; g < margins.groups.size(); ++g) {
    const auto& group = margins.groups[g];
    GroupCertainty c;
    c.group = static_cast<int>(g);
    c.touches = group.touches;
    const auto s = static_cast<std::size_t>(group.surface);
    // What the margin is measured to: its own finished surface, or for a wall the one it stands over.
    const auto& to =
        group.wall < 0
            ? in.surfaces[s].shape
            : in.surfaces[static_cast<std::size_t>(in.walls[static_cast<std::size_t>(group.wall)].to)].shape;
    const double sign = group.wall < 0 ? 1 : -1;
    const std::size_t stride =
        std::max<std::size_t>(1, of_surface[s].size() / static_cast<std::size_t>(options.most_touches));
    const Chart chart(in.surfaces[s].shape);
    std::vector<Vec3> touched;
    Seen seen;
    std::vector<double> margin, noise;
    for (std::size_t k = 0; k < of_surface[s].size(); k += stride) {
      const auto& p = in.points[of_surface[s][k]];
      const Vec3 at = seat.apply(p.xyz);
      touched.push_back(at);
      seen.foot.push_back(chart.foot(at));
      margin.push_back(sign * stock_at(to, at) - group.required);
      c.seen = std::min(c.seen, margin.back());
      const double deviation = std::max(0.003, p.uncertainty / 2);
      noise.push_back(deviation * deviation);
    }
    if (static_cast<int>(touched.size()) >= (in.surfaces[s].shape.round() ? 6 : 4)) {
      seen.margin = Eigen::Map<Eigen::VectorXd>(margin.data(), static_cast<Eigen::Index>(margin.size()));
      seen.noise = Eigen::Map<Eigen::VectorXd>(noise.data(), static_cast<Eigen::Index>(noise.size()));
      const auto net = make_net(in, chart, in.surfaces[s], s < reach.size() ? reach[s] : SurfaceReach{},
                                touched, options.net, group.wall < 0);
      const Field field(chart, seen, net);
      std::vector<Kind> kinds;
      std::vector<double> weight;
      for (std::size_t k = 0; k < leans.size(); ++k)
        for (std::size_t r = 0; r < roughnesses.size(); ++r)
          for (std::size_t l = 0; l < lengths.size(); ++l) kinds.push_back({k, r, l});
      double most = -1e300, sum = 0;
      for (const auto& kind : kinds) {
        const double w = field.likelihood(kind) + std::log(usual(roughnesses[kind.roughness]));
        weight.push_back(std::isfinite(w) ? w : -1e300);
        most = std::max(most, weight.back());
      }
      for (auto& w : weight) sum += w = std::exp(w - most);
      std::mt19937_64 random(options.seed * 1000003 + g);
      // Draws shared out by weight, the rest of a draw by chance: no pair is left out for being light.
      std::vector<Eigen::MatrixXd> pieces;
      double carried = std::uniform_real_distribution<double>(0, 1)(random);
      for (std::size_t k = 0; k < kinds.size(); ++k) {
        const double w = weight[k] / sum;
        c.roughness += w * roughnesses[kinds[k].roughness];
        c.length += w * lengths[kinds[k].length];
        carried += w * options.draws;
        const int count = static_cast<int>(carried);
        carried -= count;
        if (options.should_stop && options.should_stop()) {
          out.status = CertaintyStatus::stopped;
          out.message = "stopped";
          return out;
        }
        if (count > 0) pieces.push_back(field.draw(kinds[k], count, random));
      }
      Eigen::MatrixXd draws(static_cast<Eigen::Index>(net.size()), 0);
      Eigen::Index columns = 0;
      for (const auto& p : pieces) columns += p.cols();
      draws.resize(static_cast<Eigen::Index>(net.size()), columns);
      columns = 0;
      for (const auto& p : pieces) {
        draws.middleCols(columns, p.cols()) = p;
        columns += p.cols();
      }
      // Surfaces are independent: which draw of one goes with which of another is shuffled.
      std::vector<Eigen::Index> order(static_cast<std::size_t>(columns));
      for (std::size_t k = 0; k < order.size(); ++k) order[k] = static_cast<Eigen::Index>(k);
      std::shuffle(order.begin(), order.end(), random);
      std::vector<int> thin(net.size(), 0);
      int clean = 0;
      for (int k = 0; k < options.draws; ++k) {
        const auto column = draws.col(order[static_cast<std::size_t>(k) % order.size()]);
        Eigen::Index where = 0;
        const double least = column.minCoeff(&where);
        ++thin[static_cast<std::size_t>(where)];
        c.least.push_back(least);
        clean += least >= 0;
        out.least[static_cast<std::size_t>(k)] = std::min(out.least[static_cast<std::size_t>(k)], least);
        if (options.keep_draws)
          for (Eigen::Index i = 0; i < column.size(); ++i) c.draws.push_back(static_cast<float>(column[i]));
      }
      c.thinnest = net[static_cast<std::size_t>(std::max_element(thin.begin(), thin.end()) - thin.begin())];
      if (options.keep_draws) c.net = net;
      c.sure = quantile(c.least, 1 - sure_part);
      c.middle = quantile(c.least, 0.5);
      c.clean = static_cast<double>(clean) / options.draws;
      c.standing = standing_of(c.clean);
      c.known = any = true;
    }
    out.groups.push_back(std::move(c));
    if (options.progress)
      options.progress(static_cast<double>(g + 1) / static_cast<double>(margins.groups.size()));
  }
  if (!any) return refuse("no surface has touches enough to say how rough it is: a plane wants 4, a bore 6");
  out.sure = quantile(out.least, 1 - sure_part);
  out.middle = quantile(out.least, 0.5);
  out.clean = static_cast<double>(
                  std::count_if(out.least.begin(), out.least.end(), [](double m) { return m >= 0; })) /
              options.draws;
  out.standing = standing_of(out.clean);
  out.status = CertaintyStatus::known;
  return out;
}

} // namespace datrin::casting
