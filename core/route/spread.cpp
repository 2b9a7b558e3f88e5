#include "route/spread.h"

#include "geometry/surface.h"

#include <Eigen/Dense>
#include <fmt/format.h>

#include <cmath>
#include <numbers>
#include <optional>

namespace datrin::route {

namespace {

using Vec6 = Eigen::Matrix<double, 6, 1>;
using Mat6 = Eigen::Matrix<double, 6, 6>;
using Linear = Eigen::Matrix<double, 6, Eigen::Dynamic>; ///< a displacement, over the independent causes

/// d · (t + w × a) as a row over (t, w).
Vec6 row_at(const Vec3& direction, const Vec3& at) {
  Vec6 row;
  row << direction, at.cross(direction);
  return row;
}

std::string input_wrong(const SpreadInput& in) {
  const auto feature = [&](int k) { return k >= 0 && k < static_cast<int>(in.features.size()); };
  const auto number = [](double v) { return std::isfinite(v) && v >= 0; };
  const auto unit = [](const Vec3& v) { return std::abs(v.norm() - 1) < 1e-6; };
  for (const auto& f : in.features) {
    if (!unit(f.direction)) return f.id + ": its direction is not of unit length";
    if (!number(f.raw_sigma)) return f.id + ": raw sigma must not be below 0";
  }
  for (const auto& s : in.setups) {
    if (s.locators.size() != 6)
      return fmt::format("{}: six locators are wanted, there are {}", s.id, s.locators.size());
    for (const auto& l : s.locators) {
      if (!feature(l.feature)) return s.id + ": a locator touches a feature that is not there";
      if (!unit(l.direction)) return s.id + ": the direction of a locator is not of unit length";
      if (!number(l.sigma)) return s.id + ": a locator's sigma must not be below 0";
    }
    for (const auto& c : s.cuts) {
      if (!feature(c.feature)) return s.id + ": cuts a feature that is not there";
      if (!number(c.sigma)) return s.id + ": a cut's sigma must not be below 0";
    }
  }
  for (const auto& r : in.requirements) {
    if (!feature(r.from) || !feature(r.to)) return r.id + ": is between features that are not there";
    if (!unit(r.along)) return r.id + ": its direction is not of unit length";
  }
  return {};
}

/// How the six locators of each setup turn what they feel into a displacement.
std::optional<std::vector<Mat6>> solved(const SpreadInput& in, const SpreadOptions& options,
                                        std::string& message) {
  std::vector<Mat6> inverse;
  for (const auto& setup : in.setups) {
    double reach = 1; // mm: turning is weighed by it, so that the unit does not matter
    for (const auto& l : setup.locators) reach = std::max(reach, l.at.norm());
    Mat6 rows;
    for (int k = 0; k < 6; ++k) {
      const auto& l = setup.locators[static_cast<std::size_t>(k)];
      rows.row(k) = row_at(l.direction, l.at).transpose();
    }
    Mat6 weighed = rows;
    weighed.rightCols<3>() /= reach;
    const Eigen::JacobiSVD<Mat6> svd(weighed);
    if (svd.singularValues()(5) <= options.fixed_within * svd.singularValues()(0)) {
      message = setup.id + ": its six locators do not fix the part";
      return std::nullopt;
    }
    inverse.push_back(rows.inverse());
  }
  return inverse;
}

/// What a requirement asks of the displacement of a feature.
Vec6 asked(const SpreadRequirement& r) {
  Vec6 row = row_at(r.along, r.at);
  if (r.lean_from) row -= row_at(r.along, *r.lean_from);
  return row;
}

/// The ways a cut shifts its feature of its own.
std::vector<Vec3> shifts_of(const SpreadFeature& feature) {
  if (!feature.axis) return {feature.direction};
  const Vec3 side = across(feature.direction);
  return {side, feature.direction.cross(side)};
}

class Spreader {
public:
  Spreader(const SpreadInput& in, const std::vector<Mat6>& inverse) : in_(in), inverse_(inverse) {
    for (const auto& setup : in.setups) {
      causes_ += 2 * setup.locators.size();
      for (const auto& cut : setup.cuts) causes_ += shifts_of(feature(cut.feature)).size();
    }
    own_.resize(in.features.size());
  }

  SpreadResult run() {
    for (std::size_t s = 0; s < in_.setups.size(); ++s) setup(s);
    SpreadResult out;
    out.status = SpreadStatus::ok;
    for (const auto& r : in_.requirements) out.requirements.push_back(requirement(r));
    return out;
  }

private:
  struct Cause {
    std::size_t setup = 0;
    bool cutting = false;
  };
  const SpreadFeature& feature(int k) const { return in_.features[static_cast<std::size_t>(k)]; }

  void setup(std::size_t s) {
    const auto& setup = in_.setups[s];
    const auto n = static_cast<Eigen::Index>(causes_);
    Eigen::Matrix<double, 6, Eigen::Dynamic> felt = Eigen::Matrix<double, 6, Eigen::Dynamic>::Zero(6, n);
    for (int k = 0; k < 6; ++k) {
      const auto& l = setup.locators[static_cast<std::size_t>(k)];
      const auto& own = own_[static_cast<std::size_t>(l.feature)];
      if (own.cols() > 0)
        felt.row(k) -= row_at(l.direction, l.at).transpose() * own;
      else
        felt(k, next({s, false})) -= feature(l.feature).raw_sigma;
      felt(k, next({s, false})) += l.sigma;
    }
    const Linear moved = inverse_[s] * felt;
    std::vector<std::pair<int, Linear>> cut;
    for (const auto& c : setup.cuts) {
      Linear own = -moved;
      for (const auto& way : shifts_of(feature(c.feature)))
        own.col(next({s, true})).head<3>() += way * c.sigma;
      cut.emplace_back(c.feature, std::move(own));
    }
    for (auto& [f, own] : cut) own_[static_cast<std::size_t>(f)] = std::move(own);
  }

  Eigen::Index next(Cause cause) {
    of_.push_back(cause);
    return static_cast<Eigen::Index>(of_.size() - 1);
  }

  RequirementSpread requirement(const SpreadRequirement& r) const {
    RequirementSpread out;
    out.shares.resize(in_.setups.size());
    if (r.from == r.to) return out;
    Eigen::RowVectorXd error = Eigen::RowVectorXd::Zero(static_cast<Eigen::Index>(causes_));
    double raw = 0;
    for (const auto& [f, sign] : {std::pair(r.to, 1.0), std::pair(r.from, -1.0)}) {
      const auto& own = own_[static_cast<std::size_t>(f)];
      if (own.cols() > 0)
        error += sign * asked(r).transpose() * own;
      else
        raw += (r.lean_from ? 2 : 1) * feature(f).raw_sigma * feature(f).raw_sigma;
    }
    const double variance = error.squaredNorm() + raw;
    out.sigma = std::sqrt(variance);
    if (variance <= 0) return out;
    out.raw = raw / variance;
    for (std::size_t k = 0; k < of_.size(); ++k) {
      const double share =
          error(static_cast<Eigen::Index>(k)) * error(static_cast<Eigen::Index>(k)) / variance;
      auto& of = out.shares[of_[k].setup];
      (of_[k].cutting ? of.cutting : of.locating) += share;
    }
    return out;
  }

  const SpreadInput& in_;
  const std::vector<Mat6>& inverse_;
  std::size_t causes_ = 0;
  std::vector<Cause> of_;
  std::vector<Linear> own_; ///< of each feature; no columns: not cut yet
};

/// SplitMix64 (G. L. Steele, D. Lea, C. H. Flood, 2014) of a number: any one of its numbers without those
/// before.
std::uint64_t mixed(std::uint64_t x) {
  x += 0x9E3779B97F4A7C15ULL;
  x = (x ^ (x >> 30)) * 0xBF58476D1CE4E5B9ULL;
  x = (x ^ (x >> 27)) * 0x94D049BB133111EBULL;
  return x ^ (x >> 31);
}

/// Normal numbers of one part (G. E. P. Box, M. E. Muller, 1958).
class Normals {
public:
  Normals(std::uint64_t seed, int part) : base_(mixed(mixed(seed) + static_cast<std::uint64_t>(part))) {}
  double next() {
    if (has_spare_) {
      has_spare_ = false;
      return spare_;
    }
    const double u = uniform(), v = uniform();
    const double r = std::sqrt(-2 * std::log(u)), turn = 2 * std::numbers::pi * v;
    spare_ = r * std::sin(turn);
    has_spare_ = true;
    return r * std::cos(turn);
  }

private:
  double uniform() { // above 0, up to 1
    return (static_cast<double>(mixed(base_ + count_++) >> 11) + 1) / 9007199254740992.0;
  }
  std::uint64_t base_, count_ = 0;
  double spare_ = 0; ///< the second of a pair
  bool has_spare_ = false;
};

} // namespace

SpreadResult spread(const SpreadInput& input, const SpreadOptions& options) {
  SpreadResult out;
  if (auto wrong = input_wrong(input); !wrong.empty()) {
    out.status = SpreadStatus::refused;
    out.message = std::move(wrong);
    return out;
  }
  const auto inverse = solved(input, options, out.message);
  if (!inverse) {
    out.status = SpreadStatus::loose;
    return out;
  }
  return Spreader(input, *inverse).run();
}

std::vector<double> spread_by_trial(const SpreadInput& in, int parts, std::uint64_t seed) {
  std::string message;
  if (!input_wrong(in).empty() || parts < 1) return {};
  const auto inverse = solved(in, {}, message);
  if (!inverse) return {};
  std::vector<double> squares(in.requirements.size(), 0.0);
  std::vector<std::optional<Vec6>> own(in.features.size());
  for (int part = 0; part < parts; ++part) {
    Normals normal(seed, part);
    std::fill(own.begin(), own.end(), std::nullopt);
    for (std::size_t s = 0; s < in.setups.size(); ++s) {
      const auto& setup = in.setups[s];
      Vec6 felt;
      for (int k = 0; k < 6; ++k) {
        const auto& l = setup.locators[static_cast<std::size_t>(k)];
        const auto& lies = own[static_cast<std::size_t>(l.feature)];
        const double off = lies ? row_at(l.direction, l.at).dot(*lies)
                                : in.features[static_cast<std::size_t>(l.feature)].raw_sigma * normal.next();
        felt(k) = l.sigma * normal.next() - off;
      }
      const Vec6 moved = (*inverse)[s] * felt;
      std::vector<Vec6> cut;
      for (const auto& c : setup.cuts) {
        Vec6 lies = -moved;
        for (const auto& way : shifts_of(in.features[static_cast<std::size_t>(c.feature)]))
          lies.head<3>() += way * c.sigma * normal.next();
        cut.push_back(lies);
      }
      for (std::size_t k = 0; k < cut.size(); ++k)
        own[static_cast<std::size_t>(setup.cuts[k].feature)] = cut[k];
    }
    for (std::size_t r = 0; r < in.requirements.size(); ++r) {
      const auto& q = in.requirements[r];
      if (q.from == q.to) continue;
      double off = 0;
      for (const auto& [f, sign] : {std::pair(q.to, 1.0), std::pair(q.from, -1.0)}) {
        const auto& lies = own[static_cast<std::size_t>(f)];
        const double raw = in.features[static_cast<std::size_t>(f)].raw_sigma;
        const double there = lies ? asked(q).dot(*lies) : raw * normal.next();
        off += sign * (lies || !q.lean_from ? there : there - raw * normal.next());
      }
      squares[r] += off * off;
    }
  }
  for (auto& s : squares) s = std::sqrt(s / parts);
  return squares;
}

} // namespace datrin::route
