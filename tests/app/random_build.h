#pragma once
// A small build by chance that makes sense: parts with faces, bores and shafts, limits of every kind, pieces
// read in every way a reading is typed, joints, a chain, setups, trials. Names hold no figures, so that every
// figure in a text is one the program put there.

#include "build/edits.h"
#include "quantity/limits.h"
#include "readings/measure.h"
#include "readings/trials.h"

#include <fmt/format.h>

#include <functional>
#include <random>
#include <string>
#include <vector>

namespace datrin::test {

class RandomBuild {
public:
  RandomBuild(unsigned seed, const build::Build& b, std::function<void(const build::Edit&)> keep)
      : random_(seed), b_(b), keep_(std::move(keep)) {}

  std::vector<build::Id> parts; ///< made

  void make() {
    for (const char* name : {"Frame", "Spindle", "Collar"}) part(name);
    joints();
    chain();
    read();
    setups();
    trials();
  }

private:
  double real(double low, double high) { return std::uniform_real_distribution<double>(low, high)(random_); }
  int whole(int low, int high) { return std::uniform_int_distribution<int>(low, high)(random_); }
  bool one_in(int n) { return whole(1, n) == 1; }

  build::Id put(build::Record record) {
    const auto id = b_.next_id();
    keep_(build::add(b_, std::move(record), "Make"));
    return id;
  }

  void part(const std::string& name) {
    using namespace build;
    const auto id = put(Part{name, one_in(2) ? "cast iron" : "brass", whole(1, 3), next_order(b_.parts())});
    parts.push_back(id);
    for (int n = 1; n <= b_.find<Part>(id)->quantity; ++n) put(Piece{id, n});
    const double high = real(20, 60);
    std::vector<Id> faces;
    for (const auto& [what, at, way] : {std::tuple("foot", 0.0, -1.0), std::tuple("top", high, 1.0)}) {
      PartSurface s;
      s.part = id;
      s.name = what;
      s.point = {0, 0, at};
      s.direction = {0, 0, way};
      s.width = s.height = 80;
      s.machined = !one_in(4);
      s.required = one_in(2) ? real(0.5, 1.5) : 0;
      s.order = static_cast<double>(faces.size());
      faces.push_back(put(s));
    }
    for (const auto kind : {SurfaceKind::bore, SurfaceKind::boss}) {
      PartSurface s;
      s.part = id;
      s.name = kind == SurfaceKind::bore ? "bore" : "outside";
      s.kind = kind;
      s.point = {0, 0, high / 2};
      s.diameter = kind == SurfaceKind::bore ? 20 : 45;
      s.height = high;
      s.order = 2;
      Dimension d;
      d.part = id;
      d.name = kind == SurfaceKind::bore ? "bore size" : "outside size";
      d.kind = DimensionKind::size;
      d.surface = put(s);
      d.nominal = s.diameter;
      const char* limits[] = {"H7", "g6", "+0.02/-0.01", "\u00B10.05", ""};
      const auto read = parse_limits(fmt::format("{} {}", s.diameter, limits[whole(0, 4)]));
      d.lower = read.lower;
      d.upper = read.upper;
      d.tolerance = read.tolerance;
      d.importance = static_cast<DimensionClass>(whole(0, 3));
      (kind == SurfaceKind::bore ? holes_ : shafts_).push_back(put(d));
    }
    Dimension d;
    d.part = id;
    d.name = "over all";
    d.kind = DimensionKind::distance;
    d.surface = faces[0];
    d.other = faces[1];
    d.nominal = high;
    d.lower = -real(0.02, 0.2);
    d.upper = real(0.02, 0.2);
    lengths_.push_back(put(d));
    if (one_in(2)) {
      Foundry f;
      f.part = id;
      f.metal = "grey iron";
      f.own_pattern = one_in(2);
      put(f);
    }
  }

  void joints() {
    using namespace build;
    for (std::size_t k = 0; k < holes_.size(); ++k) {
      // The shaft of the next part is made to the bore of this one.
      const auto shaft = shafts_[(k + 1) % shafts_.size()];
      auto d = *b_.find<Dimension>(shaft);
      d.nominal = 20;
      auto s = *b_.find<PartSurface>(d.surface);
      s.diameter = 20;
      keep_(replace(b_, d.surface, s, "Fit"));
      keep_(replace(b_, shaft, d, "Fit"));
      Joint j;
      j.name = fmt::format("{} joint", k == 0 ? "front" : k == 1 ? "middle" : "back");
      j.purpose = static_cast<JointPurpose>(whole(0, 5));
      j.hole = holes_[k];
      j.shaft = shaft;
      j.least = one_in(3) ? -real(0.005, 0.02) : real(0, 0.01);
      j.most = j.least + real(0.01, 0.04);
      j.length = one_in(3) ? 0 : real(8, 30);
      if (one_in(3)) j.temperature = real(40, 200);
      joints_.push_back(put(j));
    }
  }

  void chain() {
    using namespace build;
    Chain c;
    c.name = "float";
    for (std::size_t k = 0; k < lengths_.size(); ++k)
      c.terms.push_back({lengths_[k], 0, k == 0 ? 1.0 : -1.0, "along the way"});
    c.least = -200;
    c.most = 200;
    put(c);
  }

  /// Every way a reading is typed.
  void read() {
    using namespace build;
    for (const auto part : parts)
      for (const auto& [id, d] : b_.dimensions_of(part))
        for (const auto& [piece, p] : b_.pieces_of(part)) {
          if (one_in(3)) continue;
          readings::MeasureInput in;
          in.made = {id, piece};
          in.at = "2026-02-03T10:00:00Z";
          const double size = d.nominal + real(-0.2, 0.2);
          const auto plain = fmt::format("{:.4f} mm", size);
          const bool round = d.kind == DimensionKind::size;
          const int way = whole(0, 4);
          const std::string text =
              way == 1 && round    ? fmt::format("go {:.3f} mm no-go {:.3f} mm", size,
                                                 size + (side_of(b_, id) == Side::shaft ? -0.02 : 0.02))
              : way == 2           ? fmt::format("{:.4f} mm \u00B10.003 mm", size)
              : way == 3 && !round ? fmt::format("{:.4f} mm over 6 mm pin in 6.01 mm", size + 3)
                                   : plain;
          in.text = text;
          if (way == 4 && round) in.place = readings::Place{real(0, 20), 0};
          auto one = readings::measure(b_, in, {});
          if (!one.ok) continue;
          keep_(readings::keep_measurement(b_, one.measurement));
        }
  }

  void setups() {
    using namespace build;
    for (const auto part : parts) {
      Setup s;
      s.part = part;
      s.name = "first way up";
      for (const auto& [id, surface] : b_.surfaces_of(part))
        (surface.name == "foot" ? s.datums : s.cuts).push_back(id);
      for (const auto& [id, d] : b_.dimensions_of(part)) s.sizes.push_back(id);
      put(s);
    }
  }

  void trials() {
    using namespace build;
    for (const auto id : joints_) {
      const auto& joint = *b_.find<Joint>(id);
      Trial t;
      t.joint = id;
      t.hole_piece = b_.pieces_of(b_.find<Dimension>(joint.hole)->part).front().first;
      t.shaft_piece = b_.pieces_of(b_.find<Dimension>(joint.shaft)->part).front().first;
      t.felt = static_cast<Felt>(whole(0, 5));
      t.depth = t.felt == Felt::jams ? real(1, 8) : 0;
      keep_(readings::keep_trial(b_, readings::try_now(b_, t, "2026-02-03T11:00:00Z")));
    }
  }

  std::mt19937 random_;
  const build::Build& b_;
  std::function<void(const build::Edit&)> keep_;
  std::vector<build::Id> holes_, shafts_, lengths_, joints_;
};

} // namespace datrin::test
