#include "sim/large_build.h"

#include <fmt/format.h>

#include <array>
#include <random>

namespace datrin::sim {

using namespace build;

namespace {

constexpr int rounds = 3; ///< bores, and as many bosses, on every part

struct MadePart {
  Id part = 0;
  std::vector<Id> pieces;
  std::vector<Id> surfaces; ///< four planes, bores, bosses
  std::array<Id, rounds> bore_sizes{}, boss_sizes{};
};

class Maker {
public:
  explicit Maker(const LargeBuildOptions& options) : options_(options), random_(options.seed) {}

  Build run() {
    Info info;
    info.name = "Large build";
    build_.load(Build::info_id, info);
    put(Machine{"lathe", true, Unit::mm, 0.02, "", 0});
    put(Instrument{"micrometer", 0.001, 0.003, 0, 20, "", 0});
    for (int k = 0; k < options_.parts; ++k) part(k);
    for (int k = 0; k < options_.joints; ++k) joint(k);
    return std::move(build_);
  }

private:
  Id put(Record record) {
    const Id id = build_.next_id();
    build_.load(id, std::move(record));
    return id;
  }
  double noise(double sigma) { return std::normal_distribution<double>(0, sigma)(random_); }
  bool of_ten(int n) { return std::uniform_int_distribution<int>(0, 9)(random_) < n; }

  Id plane(const MadePart& made, const char* name, const Vec3& at, const Vec3& normal, bool machined,
           int order) {
    PartSurface s;
    s.part = made.part;
    s.name = name;
    s.point = at;
    s.direction = normal;
    s.width = 60;
    s.height = 40;
    s.machined = machined;
    s.required = machined ? 0.6 : 0;
    s.order = order;
    return put(s);
  }

  Id round(const MadePart& made, SurfaceKind kind, int n, int order) {
    PartSurface s;
    s.part = made.part;
    s.kind = kind;
    s.name = fmt::format("{} {}", surface_kind_name(kind), n + 1);
    s.point = Vec3(-20 + 20 * n, kind == SurfaceKind::bore ? 0 : 12, 20);
    s.direction = Vec3::UnitY();
    s.diameter = (kind == SurfaceKind::bore ? 10 : 12) + 2 * n;
    s.height = 30;
    s.machined = true;
    s.required = 0.5;
    s.order = order;
    return put(s);
  }

  void part(int k) {
    MadePart made;
    Part p;
    p.name = fmt::format("Part {}", k + 1);
    p.material = "cast iron";
    p.quantity = options_.pieces;
    p.order = k;
    made.part = put(p);
    for (int n = 0; n < options_.pieces; ++n) made.pieces.push_back(put(Piece{made.part, n + 1}));
    made.surfaces = {plane(made, "foot", {0, 0, 0}, -Vec3::UnitZ(), true, 0),
                     plane(made, "top", {0, 0, 40}, Vec3::UnitZ(), true, 1),
                     plane(made, "left", {-30, 0, 20}, -Vec3::UnitX(), false, 2),
                     plane(made, "right", {30, 0, 20}, Vec3::UnitX(), true, 3)};
    for (int n = 0; n < rounds; ++n) {
      made.surfaces.push_back(round(made, SurfaceKind::bore, n, 4 + n));
      made.bore_sizes[static_cast<std::size_t>(n)] = size(made, made.surfaces.back(), n, 10 + 2 * n, 0, 0.02);
    }
    for (int n = 0; n < rounds; ++n) {
      made.surfaces.push_back(round(made, SurfaceKind::boss, n, 7 + n));
      made.boss_sizes[static_cast<std::size_t>(n)] =
          size(made, made.surfaces.back(), 3 + n, 10 + 2 * n, -0.03, -0.01);
    }
    Dimension height;
    height.part = made.part;
    height.name = "height";
    height.kind = DimensionKind::distance;
    height.surface = made.surfaces[0];
    height.other = made.surfaces[1];
    height.nominal = 40;
    height.lower = -0.1;
    height.upper = 0.1;
    height.order = 6;
    put(height);
    put(Wall{made.part, made.surfaces[2], made.surfaces[4], 4});
    if (options_.allowances) {
      put(Setup{made.part, "first", {made.surfaces[2]}, {made.surfaces[0]}, {}, {}, 0});
      put(Setup{
          made.part, "turned over", {made.surfaces[0]}, {made.surfaces[1], made.surfaces[4]}, {}, {}, 1});
    }
    for (const Id piece : made.pieces) survey(made, piece);
    parts_.push_back(std::move(made));
  }

  Id size(const MadePart& made, Id surface, int order, double nominal, double lower, double upper) {
    Dimension d;
    d.part = made.part;
    d.name = fmt::format("size {}", order + 1);
    d.kind = DimensionKind::size;
    d.surface = surface;
    d.nominal = nominal;
    d.lower = lower;
    d.upper = upper;
    d.importance = DimensionClass::fit;
    d.capability = 0.005;
    d.order = order;
    return put(d);
  }

  void survey(const MadePart& made, Id piece) {
    for (int n = 0; n < options_.touches; ++n) {
      const Id id = made.surfaces[static_cast<std::size_t>(n) % made.surfaces.size()];
      const auto shape = build_.find<PartSurface>(id)->shape();
      const Chart chart(shape);
      const double a = n * 0.618, b = std::fmod(n * 0.382, 1.0) - 0.5;
      const Vec3 foot = chart.place(chart.closes() ? Vec2(2 * 3.14159 * a, 20 * b)
                                                   : Vec2(40 * (std::fmod(a, 1.0) - 0.5), 30 * b));
      Touch t;
      t.piece = piece;
      t.surface = id;
      t.centre = foot + (1.2 + noise(0.1)) * stock_direction(shape, foot);
      t.uncertainty = 0.03;
      t.setting = "on its foot";
      t.order = n;
      put(t);
    }
    put(Setting{piece, "on its foot", SettingFrame::survey, 0});
    if (of_ten(options_.seated_of_ten)) put(Seat{piece, {}, true});
    if (options_.allowances && of_ten(2)) {
      Cut cut;
      cut.piece = piece;
      cut.surface = made.surfaces[0];
      cut.planned = 0.3;
      cut.left = 0.32;
      cut.place = Vec3(0, 0, -0.32);
      cut.at = "2026-01-01T08:00:00Z";
      put(cut);
    }
  }

  void joint(int k) {
    const auto n = parts_.size();
    const auto row = static_cast<std::size_t>(k) / n % rounds;
    const auto& hole = parts_[static_cast<std::size_t>(k) % n];
    const auto& shaft = parts_[(static_cast<std::size_t>(k) + 1 + row) % n];
    Joint j;
    j.name = fmt::format("Joint {}", k + 1);
    j.purpose = JointPurpose::runs_freely;
    j.hole = hole.bore_sizes[row];
    j.shaft = shaft.boss_sizes[(row + static_cast<std::size_t>(k) % 2) % rounds];
    j.least = 0.01;
    j.most = 0.06;
    j.order = k;
    const double drawn = build_.find<Dimension>(j.hole)->nominal - build_.find<Dimension>(j.shaft)->nominal;
    j.least += drawn;
    j.most += drawn;
    put(j);
    const auto read = [&](const MadePart& made, Id dimension) {
      const auto* d = build_.find<Dimension>(dimension);
      for (const Id piece : made.pieces)
        if (of_ten(options_.measured_of_ten) && !build_.measurement_of(piece, dimension))
          put(Measurement{piece, dimension, d->nominal + (d->lower + d->upper) / 2 + noise(0.002), 0.002,
                          "micrometer", fmt::format("2026-01-{:02}T08:00:00Z", 1 + k % 28)});
    };
    read(hole, j.hole);
    read(shaft, j.shaft);
  }

  LargeBuildOptions options_;
  std::mt19937 random_;
  Build build_;
  std::vector<MadePart> parts_;
};

} // namespace

Build large_build(const LargeBuildOptions& options) {
  return Maker(options).run();
}

} // namespace datrin::sim
