#include "casting/scan_doubts.h"

#include "casting/survey.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace datrin::casting {

using namespace build;

namespace {

/// The two surfaces a place lies nearest to, each where its metal usually lies: mm over the finished face.
struct TwoNearest {
  std::size_t first = 0, second = 0;
  double off = 1e300, next = 1e300;
};

class Doubter {
public:
  Doubter(const Build& build, Id piece, const ScanDoubtOptions& options)
      : build_(build), piece_(piece), options_(options) {
    const auto input = piece_input(build, piece);
    pose_ = seat_or_start(build, piece, input);
    std::vector<Patch> patches;
    for (const auto& [id, s] : build.surfaces_of(build.find<Piece>(piece)->part)) {
      ids_.push_back(id);
      patches.push_back(s.patch());
    }
    patches_ = with_extents(std::move(patches));
    for (const auto& patch : patches_) edges_.emplace_back(patch);
    find_usual(input);
  }

  std::vector<ScanDoubt> run() const {
    std::vector<ScanDoubt> all;
    for (const auto& [id, scan] : build_.scans_of(piece_)) {
      if (!scan.points || ids_.size() < 2) continue;
      std::map<std::pair<std::size_t, std::size_t>, ScanDoubt> between;
      for (std::size_t k = 0; k < scan.points->at.size(); ++k) {
        if (scan.points->surface[k] != ScanPoints::no_surface) continue;
        const auto& p = scan.points->at[k];
        const Vec3 at = scan.pose.apply(Vec3(p[0], p[1], p[2]));
        const auto near = nearest(pose_.apply(at));
        if (near.off > options_.reach || near.next > options_.reach) continue;
        auto& doubt = between[{std::min(near.first, near.second), std::max(near.first, near.second)}];
        doubt.points.push_back(k);
        doubt.middle += at;
      }
      for (auto& [pair, doubt] : between) {
        doubt.scan = id;
        doubt.first = ids_[pair.first];
        doubt.second = ids_[pair.second];
        doubt.middle /= static_cast<double>(doubt.points.size());
        const auto near = nearest(pose_.apply(doubt.middle));
        if (near.first == pair.second) std::swap(doubt.first, doubt.second);
        all.push_back(std::move(doubt));
      }
    }
    std::stable_sort(all.begin(), all.end(), [](const ScanDoubt& a, const ScanDoubt& b) {
      return a.points.size() > b.points.size();
    });
    return all;
  }

private:
  /// The metal that stands over each surface on the whole, by the points that are given to it.
  void find_usual(const PieceInput& input) {
    std::map<Id, std::pair<double, int>> sums;
    for (const auto& point : input.seat.points) {
      const auto s = static_cast<std::size_t>(point.surface);
      auto& [sum, count] = sums[input.surface_ids[s]];
      sum += stock_at(input.seat.surfaces[s].shape, pose_.apply(point.xyz));
      ++count;
    }
    for (const Id id : ids_) {
      const auto at = sums.find(id);
      usual_.push_back(at == sums.end() ? 0 : at->second.first / at->second.second);
    }
  }

  TwoNearest nearest(const Vec3& at) const {
    TwoNearest near;
    for (std::size_t s = 0; s < ids_.size(); ++s) {
      const double off = std::hypot(stock_at(patches_[s].shape, at) - usual_[s], edges_[s].beyond(at));
      if (off < near.off) {
        near.second = near.first;
        near.next = near.off;
        near.first = s;
        near.off = off;
      } else if (off < near.next) {
        near.second = s;
        near.next = off;
      }
    }
    return near;
  }

  const Build& build_;
  Id piece_;
  const ScanDoubtOptions& options_;
  Pose pose_; ///< survey → drawing
  std::vector<Id> ids_;
  std::vector<Patch> patches_;
  std::vector<Edges> edges_;
  std::vector<double> usual_;
};

} // namespace

std::vector<ScanDoubt> scan_doubts(const Build& build, Id piece, const ScanDoubtOptions& options) {
  if (!build.find<Piece>(piece) || build.scans_of(piece).empty()) return {};
  return Doubter(build, piece, options).run();
}

Edit give_points(const Build& build, const ScanDoubt& doubt, Id surface) {
  const auto* scan = build.find<Scan>(doubt.scan);
  const auto* to = build.find<PartSurface>(surface);
  const auto* piece = scan ? build.find<Piece>(scan->piece) : nullptr;
  if (!piece || !to || !scan->points) return build::is_gone();
  if (to->part != piece->part) return build::cannot("that surface is of another part");
  auto points = std::make_shared<ScanPoints>(*scan->points);
  auto at = std::find(points->surfaces.begin(), points->surfaces.end(), surface);
  if (at == points->surfaces.end()) {
    points->surfaces.push_back(surface);
    at = points->surfaces.end() - 1;
  }
  const auto index = static_cast<std::uint16_t>(at - points->surfaces.begin());
  for (const auto k : doubt.points)
    if (k < points->surface.size()) points->surface[k] = index;
  Scan changed = *scan;
  changed.points = std::move(points);
  return replace(build, doubt.scan, changed,
                 fmt::format("Give {} points of the scan to {}", doubt.points.size(), to->name));
}

} // namespace datrin::casting
