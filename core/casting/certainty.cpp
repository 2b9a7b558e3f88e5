#include "casting/certainty.h"

#include "geometry/best_fit.h"
#include "geometry/solve.h"
#include "quantity/unit.h"

#include <Eigen/Geometry>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
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

/// The arc of a round surface between the touches farthest apart: where it starts (radians) and how long it
/// is.
std::pair<double, double> touched_arc(const std::vector<Vec2>& touched) {
  std::vector<double> angles;
  angles.reserve(touched.size());
  for (const auto& c : touched) angles.push_back(c.x());
  std::sort(angles.begin(), angles.end());
  double gap = angles.front() + 2 * pi - angles.back(), start = angles.front();
  for (std::size_t k = 1; k < angles.size(); ++k)
    if (angles[k] - angles[k - 1] > gap) {
      gap = angles[k] - angles[k - 1];
      start = angles[k];
    }
  return {start, 2 * pi - gap};
}

/// Whether a hole comes out of the face `s` at `at`.
bool over_a_hole(const SeatInput& in, const SeatSurface& s, const Vec3& at) {
  return std::any_of(in.surfaces.begin(), in.surfaces.end(), [&](const SeatSurface& other) {
    if (!is_hole(other.shape.kind) || std::abs(other.shape.direction.dot(s.shape.direction)) < 0.999)
      return false;
    const Vec3 off = at - other.shape.point;
    const double along = off.dot(other.shape.direction);
    return (off - along * other.shape.direction).norm() < radius_at(other.shape, along);
  });
}

/// Points all over a surface, in rows and columns on its chart. A round surface that stays as cast is only
/// known to be free metal where it was touched (`whole` false).
std::vector<Vec3> make_net(const SeatInput& in, const Chart& chart, const SeatSurface& s,
                           const SurfaceReach& reach, const std::vector<Vec3>& touched, int count,
                           bool whole) {
  Vec2 low = Vec2::Constant(1e300), high = -low;
  std::vector<Vec2> places;
  for (const auto& at : touched) {
    places.push_back(chart.coordinates(at));
    low = low.cwiseMin(places.back());
    high = high.cwiseMax(places.back());
  }
  if (reach.height > 0) {
    low.y() = -reach.height / 2;
    high.y() = reach.height / 2;
  }
  if (chart.closes()) {
    const auto [start, arc] = whole ? std::pair(0.0, 2 * pi) : touched_arc(places);
    low.x() = start;
    high.x() = start + arc;
  } else if (reach.width > 0) {
    low.x() = -reach.width / 2;
    high.x() = reach.width / 2;
  }
  const Vec2 span = high - low;
  const double wide = std::max(1e-3, span.x() * chart.first_scale()), tall = std::max(1e-3, span.y());
  const int rows = std::clamp(static_cast<int>(std::lround(std::sqrt(count * tall / wide))), 2, count / 2);
  const int columns = std::max(chart.closes() ? 6 : 2, count / rows);
  std::vector<Vec3> net;
  for (int r = 0; r < rows; ++r)
    for (int c = 0; c < columns; ++c) {
      // Round the axis the last column stands beside the first, not on it.
      const double part =
          chart.closes() ? (c + (whole ? 0.0 : 0.5)) / columns : static_cast<double>(c) / (columns - 1);
      const Vec3 at = chart.place({low.x() + span.x() * part, low.y() + tall * r / (rows - 1)});
      if (chart.closes() || !over_a_hole(in, s, at)) net.push_back(at);
    }
  return net;
}

struct Seen {
  std::vector<Vec3> foot;
  Vector margin; ///< stock or wall, less what is needed
  Vector noise;  ///< variance
};

/// Which lean, roughness and length.
struct Kind {
  std::size_t lean = 0, roughness = 0, length = 0;
};

/// Draws whole surfaces given what was seen.
class Field {
public:
  Field(const Surface& surface, const Seen& seen, const std::vector<Vec3>& net)
      : seen_(seen), near_(distances(seen.foot, seen.foot)), cross_(distances(net, seen.foot)),
        far_(distances(net, net)) {
    for (std::size_t kind = 0; kind < leans.size(); ++kind) {
      seen_leans_[kind] = lean_rows(surface, seen.foot, kind);
      net_leans_[kind] = lean_rows(surface, net, kind);
    }
  }

  /// log of the restricted likelihood: the mean height has a flat prior.
  double likelihood(const Kind& kind) const {
    const auto given = condition(kind);
    const Vector r = seen_.margin.array() - given.mean;
    const double det = 2 * given.k.lower().diagonal().array().log().sum() + std::log(given.weight);
    return -0.5 * (det + r.dot(given.k.solve(r).col(0)));
  }

  /// `count` surfaces, one a column.
  Matrix draw(const Kind& kind, int count, std::mt19937_64& random) const {
    const auto given = condition(kind);
    const Matrix c = covariance(cross_, kind, net_leans_[kind.lean], seen_leans_[kind.lean]);
    const Matrix kc = given.k.solve(c.transpose());
    const Vector mean =
        transposed_product(kc, (seen_.margin.array() - given.mean).matrix()).col(0).array() + given.mean;
    // What the touches do not say about the mean height: universal kriging with one flat term.
    const Matrix t = Vector::Ones(c.rows()) - product(c, given.ones);
    Matrix rest = covariance(far_, kind, net_leans_[kind.lean], net_leans_[kind.lean]);
    rest -= product(c, kc);
    rest += product(t, t.transpose()) / given.weight;
    rest.diagonal().array() += 1e-9 + 1e-6 * roughnesses[kind.roughness] * roughnesses[kind.roughness];
    const Cholesky root(rest);
    std::normal_distribution<double> normal;
    Matrix z(c.rows(), count);
    for (Eigen::Index j = 0; j < z.cols(); ++j)
      for (Eigen::Index i = 0; i < z.rows(); ++i) z(i, j) = normal(random);
    Matrix out = product(root.lower(), z);
    out.colwise() += mean;
    return out;
  }

private:
  struct Given {
    Cholesky k;
    Vector ones;       ///< K⁻¹ 1
    double weight = 1; ///< 1ᵀ K⁻¹ 1
    double mean = 0;
  };
  Given condition(const Kind& kind) const {
    Matrix k = covariance(near_, kind, seen_leans_[kind.lean], seen_leans_[kind.lean]);
    k.diagonal() += seen_.noise;
    Given given{Cholesky(k), {}, 1, 0};
    given.ones = given.k.solve(Vector::Ones(k.rows()));
    given.weight = given.ones.sum();
    given.mean = given.ones.dot(seen_.margin) / given.weight;
    return given;
  }
  /// What a lean (or shift) of one standard deviation does at each place: a column each.
  static Matrix lean_rows(const Surface& surface, const std::vector<Vec3>& at, std::size_t kind) {
    const Chart chart(surface);
    const int terms = lean_terms(surface.kind);
    Matrix rows(static_cast<Eigen::Index>(at.size()), terms);
    Vector row(terms);
    for (std::size_t i = 0; i < at.size(); ++i) {
      lean_row(chart, surface, at[i], row);
      rows.row(static_cast<Eigen::Index>(i)) = row.transpose();
    }
    for (int t = 0; t < terms; ++t) rows.col(t) *= lean_moves(surface.kind, t) ? shifts[kind] : leans[kind];
    return rows;
  }
  static Matrix distances(const std::vector<Vec3>& a, const std::vector<Vec3>& b) {
    Matrix d(static_cast<Eigen::Index>(a.size()), static_cast<Eigen::Index>(b.size()));
    for (std::size_t i = 0; i < a.size(); ++i)
      for (std::size_t j = 0; j < b.size(); ++j)
        d(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j)) = (a[i] - b[j]).norm();
    return d;
  }
  static Matrix covariance(const Matrix& d, const Kind& kind, const Matrix& a_leans, const Matrix& b_leans) {
    const double sigma = roughnesses[kind.roughness];
    const Eigen::ArrayXXd a = d.array() * (std::sqrt(3.0) / lengths[kind.length]);
    Matrix k = (sigma * sigma * (1 + a) * (-a).exp()).matrix();
    k += product(a_leans, b_leans.transpose());
    return k;
  }

  const Seen& seen_;
  Matrix near_, cross_, far_;
  std::array<Matrix, leans.size()> seen_leans_, net_leans_;
};

/// What was touched of a group, and what its margin is there.
struct Touched {
  std::vector<Vec3> at; ///< drawing frame
  Seen seen;
  double least = no_margin;
};

Touched touched_of(const SeatInput& in, const Pose& seat, const GroupMargin& group, int most) {
  const auto s = static_cast<std::size_t>(group.surface);
  std::vector<const SeatPoint*> points;
  for (const auto& p : in.points)
    if (p.surface == group.surface) points.push_back(&p);
  // What the margin is measured to: its own finished surface, or for a wall the one it stands over.
  const auto& to =
      group.wall < 0
          ? in.surfaces[s].shape
          : in.surfaces[static_cast<std::size_t>(in.walls[static_cast<std::size_t>(group.wall)].to)].shape;
  const double sign = group.wall < 0 ? 1 : -1;
  const std::size_t stride = std::max<std::size_t>(1, points.size() / static_cast<std::size_t>(most));
  const Chart chart(in.surfaces[s].shape);
  Touched out;
  std::vector<double> margin, noise;
  for (std::size_t k = 0; k < points.size(); k += stride) {
    const Vec3 at = seat.apply(points[k]->xyz);
    out.at.push_back(at);
    out.seen.foot.push_back(chart.foot(at));
    margin.push_back(sign * stock_at(to, at) - group.required);
    out.least = std::min(out.least, margin.back());
    const double deviation = std::max(0.003, points[k]->uncertainty / 2);
    noise.push_back(deviation * deviation);
  }
  out.seen.margin = Eigen::Map<Vector>(margin.data(), static_cast<Eigen::Index>(margin.size()));
  out.seen.noise = Eigen::Map<Vector>(noise.data(), static_cast<Eigen::Index>(noise.size()));
  return out;
}

/// Every lean, roughness and length, with its weight by what was touched and what is usual; the weights sum
/// to 1.
std::vector<std::pair<Kind, double>> weighed_kinds(const Field& field) {
  std::vector<std::pair<Kind, double>> kinds;
  double most = -1e300, sum = 0;
  for (std::size_t k = 0; k < leans.size(); ++k)
    for (std::size_t r = 0; r < roughnesses.size(); ++r)
      for (std::size_t l = 0; l < lengths.size(); ++l) {
        const Kind kind{k, r, l};
        const double w = field.likelihood(kind) + std::log(usual(roughnesses[r]));
        kinds.emplace_back(kind, std::isfinite(w) ? w : -1e300);
        most = std::max(most, kinds.back().second);
      }
  for (auto& [kind, w] : kinds) sum += w = std::exp(w - most);
  for (auto& [kind, w] : kinds) w /= sum;
  return kinds;
}

/// Surfaces drawn, one a column: shared out among the kinds by weight, the rest of a draw by chance, so that
/// no kind is left out for being light. Nothing when it was stopped.
std::optional<Matrix> draw_surfaces(const Field& field, const std::vector<std::pair<Kind, double>>& kinds,
                                    const CertaintyOptions& options, Eigen::Index places,
                                    std::mt19937_64& random) {
  std::vector<Matrix> pieces;
  Eigen::Index columns = 0;
  double carried = std::uniform_real_distribution<double>(0, 1)(random);
  for (const auto& [kind, weight] : kinds) {
    carried += weight * options.draws;
    const int count = static_cast<int>(carried);
    carried -= count;
    if (options.should_stop && options.should_stop()) return std::nullopt;
    if (count > 0) pieces.push_back(field.draw(kind, count, random));
    columns += count;
  }
  Matrix draws(places, columns);
  columns = 0;
  for (const auto& p : pieces) {
    draws.middleCols(columns, p.cols()) = p;
    columns += p.cols();
  }
  return draws;
}

/// What the draws say of a group. Surfaces are independent: which draw of one goes with which of another is
/// shuffled.
void read_draws(const Matrix& draws, const std::vector<Vec3>& net, const CertaintyOptions& options,
                std::mt19937_64& random, GroupCertainty& c) {
  std::vector<Eigen::Index> order(static_cast<std::size_t>(draws.cols()));
  for (std::size_t k = 0; k < order.size(); ++k) order[k] = static_cast<Eigen::Index>(k);
  std::shuffle(order.begin(), order.end(), random);
  std::vector<int> thin(net.size(), 0);
  int clean = 0;
  for (int k = 0; k < options.draws; ++k) {
    const auto column = draws.col(order[static_cast<std::size_t>(k) % order.size()]);
    Eigen::Index where = 0;
    c.least.push_back(column.minCoeff(&where));
    ++thin[static_cast<std::size_t>(where)];
    clean += c.least.back() >= 0;
    if (options.keep_draws)
      for (Eigen::Index i = 0; i < column.size(); ++i) c.draws.push_back(static_cast<float>(column[i]));
  }
  c.thinnest = net[static_cast<std::size_t>(std::max_element(thin.begin(), thin.end()) - thin.begin())];
  if (options.keep_draws) c.net = net;
  c.sure = quantile(c.least, 1 - sure_part);
  c.middle = quantile(c.least, 0.5);
  c.clean = static_cast<double>(clean) / options.draws;
  c.standing = standing_of(c.clean);
  c.known = true;
}

} // namespace

const char* standing_name(Standing standing) {
  static constexpr const char* names[] = {"not known", "sure", "likely", "doubtful"};
  return names[static_cast<std::size_t>(standing)];
}

CertaintyResult certainty(const SeatInput& in, const Pose& seat, const std::vector<SurfaceReach>& reach,
                          const CertaintyOptions& options) {
  CertaintyResult out;
  const auto end = [&](CertaintyStatus status, std::string why) {
    out.status = status;
    out.message = std::move(why);
    return out;
  };
  if (auto wrong = validate(in); !wrong.empty()) return end(CertaintyStatus::refused, wrong);
  if (options.draws < 20 || options.net < 16)
    return end(CertaintyStatus::refused, "at least 20 draws over a net of 16 points are needed");
  const auto margins = margins_at(in, seat);
  out.least.assign(static_cast<std::size_t>(options.draws), no_margin);
  bool any = false;
  for (std::size_t g = 0; g < margins.groups.size(); ++g) {
    const auto& group = margins.groups[g];
    const auto s = static_cast<std::size_t>(group.surface);
    const auto& surface = in.surfaces[s];
    const auto touched = touched_of(in, seat, group, options.most_touches);
    GroupCertainty c;
    c.group = static_cast<int>(g);
    c.touches = group.touches;
    c.seen = touched.least;
    if (static_cast<int>(touched.at.size()) >= std::max(4, touch_advice(surface.shape.kind).usual)) {
      const auto net =
          make_net(in, Chart(surface.shape), surface, s < reach.size() ? reach[s] : SurfaceReach{},
                   touched.at, options.net, group.wall < 0);
      const Field field(surface.shape, touched.seen, net);
      const auto kinds = weighed_kinds(field);
      for (const auto& [kind, weight] : kinds) {
        c.roughness += weight * roughnesses[kind.roughness];
        c.length += weight * lengths[kind.length];
      }
      std::mt19937_64 random(options.seed * 1000003 + g);
      const auto draws = draw_surfaces(field, kinds, options, static_cast<Eigen::Index>(net.size()), random);
      if (!draws) return end(CertaintyStatus::stopped, "stopped");
      read_draws(*draws, net, options, random, c);
      for (std::size_t k = 0; k < c.least.size(); ++k) out.least[k] = std::min(out.least[k], c.least[k]);
      any = true;
    }
    out.groups.push_back(std::move(c));
    if (options.progress)
      options.progress(static_cast<double>(g + 1) / static_cast<double>(margins.groups.size()));
  }
  if (!any)
    return end(CertaintyStatus::refused,
               "no surface has touches enough to say how rough it is: a plane wants 4, a bore 6");
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
