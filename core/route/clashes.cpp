#include "route/clashes.h"

#include "fits/solids.h"
#include "quantity/length_text.h"
#include "route/features.h"
#include "route/propose.h"
#include "route/stiffness.h"
#include "route/travel.h"
#include "solid/place.h"
#include "solid/sweep.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace datrin::route {

using namespace build;

namespace {

bool is_chuck(Workholding holding) {
  return holding == Workholding::three_jaw || holding == Workholding::four_jaw ||
         holding == Workholding::six_jaw || holding == Workholding::collet;
}
bool is_vise(Workholding holding) {
  return holding == Workholding::vise || holding == Workholding::soft_rod;
}
/// The part stands on something a drill can run into.
bool stands_on_something(Workholding holding) {
  return is_vise(holding) || holding == Workholding::clamps || holding == Workholding::angle_plate ||
         holding == Workholding::fixture || holding == Workholding::tape;
}

class Clashes {
public:
  Clashes(const Build& build, Id part, const ClashOptions& options)
      : build_(build), part_(part), options_(options), features_(features_to_make(build, part)),
        shape_(stock::shape_of(build, part)) {
    const auto* p = build.find<Part>(part);
    material_ = p ? p->material : std::string();
    solid_ = fits::find_solid(material_).solid;
    force_ = cutting_force(material_, options.cut_depth, options.feed);
    for (const auto& body : solid::place_bodies(build, part)) placed_.push_back(body);
  }

  std::vector<Clash> all() {
    for (const auto& [id, setup] : build_.setups_of(part_)) {
      setup_id_ = id;
      setup_ = &setup;
      machine_ = build_.find<Machine>(setup.machine);
      way_ = way_of_setup(build_, setup);
      if (way_.isZero()) way_ = Vec3::UnitZ();
      measure();
      bool any = false;
      for (const auto& [operation_id, o] : build_.operations_of(part_)) {
        if (o.setup != id) continue;
        operation_id_ = operation_id;
        operation_ = &o;
        tool_ = build_.find<Tool>(o.tool);
        any = true;
        for (const auto& feature : features_)
          if (makes(o, feature)) one(feature);
        tool_and_machine();
      }
      operation_id_ = 0;
      if (any) {
        held();
        travels();
      }
    }
    return std::move(out_);
  }

private:
  std::string text(double mm, int decimals = 1) const {
    return length_text(mm, build_.info().unit, {.decimals_mm = decimals, .show_unit = true});
  }
  void add(ClashKind kind, bool certain, std::string words, std::vector<std::string> ways_out) {
    out_.push_back({kind, certain, setup_id_, operation_id_, std::move(words), std::move(ways_out)});
  }

  /// How the part lies in this setup, along the way of the tool.
  void measure() {
    stock::StockAxes axes;
    axes.along = way_;
    axes.across = across(way_);
    axes.through = way_.cross(axes.across);
    box_ = stock::finished_box(shape_, axes);
    low_ = box_.low.x();
    high_ = box_.high.x();
    wide_ = std::max(box_.size().y(), box_.size().z());
    if (const auto stock = build_.stock_of(part_);
        stock && !stock::is_raw(stock->second.form) && stock::sizes_wrong(stock->second).empty()) {
      const stock::StockBody body(stock->second, stock::finished_box(shape_, stock::axes_of(stock->second)));
      low_ = std::min(low_, -body.reach(-way_));
      high_ = std::max(high_, body.reach(way_));
      wide_ = std::max(wide_, std::max(stock->second.width, stock->second.thick));
    }
  }

  void one(const Feature& f) {
    const auto kind = operation_->kind;
    const bool hole = f.shape == FeatureShape::hole || f.shape == FeatureShape::taper_hole;
    if (hole && kind == OperationKind::drill) {
      under(f);
      deep_drill(f);
    }
    if (hole && kind == OperationKind::bore) boring_bar(f);
    if (kind == OperationKind::turn) jaws_round(f);
    if (kind == OperationKind::face || kind == OperationKind::mill) {
      jaws_of_vise(f);
      wall(f);
    }
    corner(f);
    if (options_.finished) swept(f);
  }

  /// Where the tip of the tool comes to, from the side of this setup: at the bottom of every copy, or its far
  /// end.
  std::vector<Vec3> tips(const Feature& f) const {
    auto at = mouths_of(build_, part_, f);
    if (f.way.dot(way_) > 0)
      for (auto& tip : at) tip -= f.deep * f.way;
    return at;
  }
  void swept(const Feature& f) {
    const bool hole = f.shape == FeatureShape::hole || f.shape == FeatureShape::taper_hole;
    const bool sunk = f.shape == FeatureShape::slot || f.shape == FeatureShape::pocket;
    const auto kind = operation_->kind;
    const bool by_a_spindle = kind == OperationKind::drill || kind == OperationKind::ream ||
                              kind == OperationKind::tap || kind == OperationKind::mill ||
                              kind == OperationKind::bore || kind == OperationKind::slit;
    if (!by_a_spindle || (!hole && !sunk) || std::abs(f.way.dot(way_)) < 0.99 || is_chuck(setup_->holding))
      return;
    // Of a slot its width is what the cutter is; a slit's saw lies across it and is not judged.
    if (kind == OperationKind::slit) return;
    solid::SweepHit worst;
    for (const Vec3& tip : tips(f)) {
      solid::SweptTool tool{tip, way_, {{f.deep, f.across / 2}}}; // past its mouth
      if (tool_ && tool_->reach > 0) tool.steps.push_back({tool_->reach, options_.holder});
      const auto hit = solid::sweep(*options_.finished, tool);
      if (hit.hits() && (!worst.hits() || hit.into > worst.into)) worst = hit;
    }
    if (!worst.hits()) return;
    if (worst.step == 0)
      add(ClashKind::covered, true,
          fmt::format("{} of metal stand over {} from this side: the tool does not come to it",
                      text(worst.into), f.name),
          {"make it from the other side", "make it before that metal is there",
           "a longer way round: by hand"});
    else
      add(ClashKind::holder, false, // how thick the chuck is was not said
          fmt::format("{} stands out {}: its chuck, {} across, would come {} down into the part at {}",
                      tool_->name, text(tool_->reach), text(2 * options_.holder, 0), text(worst.into),
                      f.name),
          {fmt::format("a tool that stands out {} or more", text(tool_->reach + worst.into)),
           "a collet or an extension thinner than the chuck", "make it from the other side"});
  }

  void under(const Feature& f) {
    if (!f.both_ways || !stands_on_something(setup_->holding) || !setup_->packing.empty()) return;
    const double across = operation_->size > 0 ? operation_->size : f.across;
    // Its far end, along the way the drill goes.
    const double end = f.at.dot(way_) - (f.way.dot(way_) > 0 ? f.deep : 0);
    const double gap = end - box_.low.x(); // over what it stands on
    const double through = options_.point * across + options_.clear;
    if (gap >= through || f.deep <= 0) return;
    add(ClashKind::under, true,
        fmt::format("{} comes out {} under the part, into what it stands on (point {} of a diameter, and {})",
                    f.name, text(through - gap), options_.point, text(options_.clear)),
        {fmt::format("parallels or a spacer at least {} high, clear of the hole", text(through - gap)),
         "a backing piece that may be drilled", "drill it from the other side"});
  }

  void deep_drill(const Feature& f) {
    const double across = operation_->size > 0 ? operation_->size : f.across;
    if (tool_ && tool_->reach > 0 && tool_->reach < f.deep)
      add(ClashKind::reach, true,
          fmt::format("{} reaches {}, {} is {} deep", tool_->name, text(tool_->reach), f.name, text(f.deep)),
          {"a longer drill", "half from each side: the two meet within what the drift allows",
           "a deeper counterbore"});
    if (across <= 0 || f.deep <= options_.deep_hole * across) return;
    const bool special = f.deep > 2 * options_.deep_hole * across;
    add(ClashKind::slender, special, fmt::format("{} is {:.1f} diameters deep", f.name, f.deep / across),
        special ? std::vector<std::string>{"half from each side", "a D-bit or a gun drill",
                                           "a larger hole part of the way"}
                : std::vector<std::string>{"peck: out for chips every half diameter",
                                           "start with a short drill, then the long one"});
  }

  void boring_bar(const Feature& f) {
    if (!tool_ || tool_->size <= 0 || f.deep <= 0) return;
    if (tool_->size >= f.across)
      add(ClashKind::reach, true,
          fmt::format("{}, {} thick, does not go into {} of {}", tool_->name, text(tool_->size), f.name,
                      text(f.across)),
          {"a thinner bar", "drill and ream"});
    const double ratio = f.deep / tool_->size;
    if (ratio <= options_.bar_overhang) return;
    constexpr double steel = 206000; // N/mm²
    add(ClashKind::slender, true,
        fmt::format("{} stands out {:.1f} of its diameters in {}: it gives {} at a cut of {} × {}",
                    tool_->name, ratio, f.name, text(bar_gives(force_, f.deep, tool_->size, steel), 3),
                    text(options_.cut_depth, 2), text(options_.feed, 2)),
        {fmt::format("a bar of at least {}", text(f.deep / options_.bar_overhang)), "a bar held at both ends",
         "fine cuts, the last one repeated at the same setting"});
  }

  /// Where along the way a feature begins and ends.
  std::pair<double, double> span(const Feature& f) const {
    const double at = f.at.dot(way_);
    double half = 0;
    if (!f.surfaces.empty())
      if (const auto* s = build_.find<PartSurface>(f.surfaces.front())) half = s->height / 2;
    return {at - half, at + half};
  }

  void jaws_round(const Feature& f) {
    if (!is_chuck(setup_->holding) || setup_->grip <= 0 || f.surfaces.empty()) return;
    const auto [begin, end] = span(f);
    const double from_end = begin - low_;
    if (from_end >= setup_->grip - 1e-6 || end <= begin) return;
    add(ClashKind::jaws, true,
        fmt::format("{} are gripped, and {} begins {} from that end: the jaws are in the way",
                    text(setup_->grip), f.name, text(std::max(0.0, from_end))),
        {fmt::format("stock {} longer", text(setup_->grip - std::max(0.0, from_end))),
         "another setup, turned round", "a mandrel, or between centres"});
  }

  void jaws_of_vise(const Feature& f) {
    if (!is_vise(setup_->holding) || setup_->grip <= 0 || setup_->datums.size() < 2 || f.surfaces.empty())
      return;
    const auto* against = build_.find<PartSurface>(setup_->datums[1]);
    const auto* s = build_.find<PartSurface>(f.surfaces.front());
    if (!against || !s || s->round() || std::abs(s->direction.dot(against->direction)) < 0.9) return;
    double begin = f.at.dot(way_);
    for (const auto& [id, patch] : stock::patches_of(build_, part_))
      if (id == f.surfaces.front()) {
        const auto [u, v] = patch_directions(patch.shape.direction);
        begin -= std::abs(u.dot(way_)) * patch.width / 2 + std::abs(v.dot(way_)) * patch.height / 2;
      }
    const double free_from = low_ + setup_->grip;
    if (begin >= free_from - 1e-6) return;
    add(ClashKind::jaws, true,
        fmt::format("{} lies between the jaws: {} of it are held", f.name, text(free_from - begin)),
        {"higher parallels", "hold it across the other way", "another setup for that side"});
  }

  /// A wall that stands on something: a block or rib on another body, cut on its side.
  void wall(const Feature& f) {
    const auto* body = build_.find<Body>(f.body);
    if (!body || body->on == 0 || !solid_ || f.surfaces.empty()) return;
    const auto* s = build_.find<PartSurface>(f.surfaces.front());
    for (const auto& placed : placed_) {
      if (placed.id != f.body || !s || placed.copies.empty()) continue;
      const Vec3 up = placed.copies.front().turn(Vec3::UnitZ());
      if (std::abs(up.dot(s->direction)) > 0.3) return; // its top: no side
      for (const auto& face : solid::faces_of(placed))
        if (face.face_of() == s->face_of() && face.stands > 0) {
          const bool upright = std::abs(face.frame.rotation.col(1).dot(up)) > 0.7;
          const double high = upright ? face.height : face.width, wide = upright ? face.width : face.height;
          const double gives = wall_gives(force_, high, wide, face.stands, solid_->modulus, solid_->poisson);
          if (gives <= options_.gives) return;
          add(ClashKind::wall, true,
              fmt::format("{} is the side of a wall {} thick and {} high: its edge bends away by {} at a cut "
                          "of {} × {} ({:.0f} N)",
                          f.name, text(face.stands), text(high), text(gives, 3), text(options_.cut_depth, 2),
                          text(options_.feed, 2), force_),
              {"pack it from behind", "both sides in turn, downwards in steps",
               "a sharp cutter and light cuts"});
          return;
        }
    }
  }

  void corner(const Feature& f) {
    const double mine = tool_ ? tool_->corner : 0;
    for (const auto& [id, d] : build_.dimensions_of(part_))
      if (d.kind == DimensionKind::corner_radius && mine > 0 &&
          (contains(f.surfaces, d.surface) || contains(f.surfaces, d.other)) && mine > d.most() + 1e-9)
        add(ClashKind::corner, true,
            fmt::format("{} leaves a corner of {}; {} is at most {}", tool_->name, text(mine, 2), d.name,
                        text(d.most(), 2)),
            {"a tool with a smaller corner for the last cut", "relieve the mate's edge"});
    const auto* body = build_.find<Body>(f.body);
    if (!body || body->shape != BodyShape::pocket || !tool_ || tool_->size <= 0) return;
    const double radius = solid::form_of(*body)[BodyRole::corner];
    if (tool_->size / 2 > radius + 1e-9)
      add(ClashKind::corner, true,
          fmt::format("{} leaves corners of {} in {}, drawn with {}", tool_->name, text(tool_->size / 2, 2),
                      f.name, text(radius, 2)),
          {fmt::format("a cutter of {} or less", text(2 * radius, 2)), "square the corners with a file"});
  }

  void tool_and_machine() {
    if (tool_ && machine_ && tool_->shank > 0 && machine_->shank > 0 && tool_->shank > machine_->shank)
      add(ClashKind::shank, true,
          fmt::format("{} has a shank of {}; {} holds up to {}", tool_->name, text(tool_->shank),
                      machine_->name, text(machine_->shank)),
          {"another holder", "another machine", "a tool with a reduced shank"});
  }

  /// The circle it sweeps about its middle: of what is round its diameter, else over the corners.
  double turned_circle() const {
    const auto form = stock::form_of(build_, part_);
    bool round = form == StockForm::round || form == StockForm::tube;
    for (const auto& patch : shape_)
      round = round || (patch.shape.round() && patch.shape.diameter > wide_ - 1e-6 &&
                        std::abs(patch.shape.direction.dot(way_)) > 0.99);
    return round ? wide_ : std::max(wide_, std::hypot(box_.size().y(), box_.size().z()));
  }

  void held() {
    const double length = high_ - low_;
    if (setup_->holding == Workholding::not_stated)
      add(ClashKind::grip, false, fmt::format("nothing says what holds the part in \"{}\"", setup_->name),
          {"say it in the setup: then grip and clearances are looked at"});
    if (machine_) {
      const bool lathe = machine_->kind == MachineKind::lathe || is_chuck(setup_->holding);
      if (machine_->chuck > 0 && (is_chuck(setup_->holding) || is_vise(setup_->holding))) {
        const double across = is_vise(setup_->holding) ? std::min(box_.size().y(), box_.size().z()) : wide_;
        if (across > machine_->chuck)
          add(ClashKind::entry, true,
              fmt::format("it is {} across; {} opens to {}", text(across), machine_->name,
                          text(machine_->chuck)),
              {"a faceplate or clamps on the table", "another machine"});
      }
      if (const double turns = turned_circle(); lathe && machine_->swing > 0 && turns > machine_->swing)
        add(ClashKind::swing, true,
            fmt::format("{} across does not turn over the bed of {}: {}", text(turns), machine_->name,
                        text(machine_->swing)),
            {"another machine", "bore it on the mill, with a boring head"});
      if (machine_->reach > 0 && length > machine_->reach)
        add(ClashKind::swing, true,
            fmt::format("{} long; {} takes {}", text(length), machine_->name, text(machine_->reach)),
            {"another machine", "a steady instead of the centre"});
      const double outside = setup_->overhang + setup_->grip;
      if (lathe && machine_->spindle_bore > 0 && outside > 0 && length > outside + 1e-6 &&
          wide_ > machine_->spindle_bore)
        add(ClashKind::entry, true,
            fmt::format("{} of it must go into the spindle, which is {} wide; it is {} across",
                        text(length - outside), text(machine_->spindle_bore), text(wide_)),
            {"saw it to length first", "let it stand out, with a steady"});
    }
    if (!is_chuck(setup_->holding)) return;
    const double across = std::min(box_.size().y(), box_.size().z());
    if (setup_->grip > 0 && setup_->grip < options_.least_grip * across)
      add(ClashKind::grip, true,
          fmt::format("{} gripped of {} across: less than a quarter of its diameter lets go",
                      text(setup_->grip), text(across)),
          {fmt::format("grip {} or more", text(options_.least_grip * across)), "a centre at the other end",
           "light cuts towards the chuck"});
    if (solid_ && setup_->overhang > 0 && across > 0 && setup_->overhang > options_.work_overhang * across) {
      const double modulus = solid_->modulus;
      const double gives = bar_gives(force_, setup_->overhang, across, modulus);
      const double centred = shaft_gives(force_, setup_->overhang, across, modulus);
      add(ClashKind::slender, gives > options_.gives,
          fmt::format("it stands out {:.1f} of its diameters: its end gives {} at a cut of {} × {}",
                      setup_->overhang / across, text(gives, 3), text(options_.cut_depth, 2),
                      text(options_.feed, 2)),
          {fmt::format("a live centre: then {} in its middle", text(centred, 3)), "a steady",
           "grip more of it"});
    }
  }

  void travels() {
    if (!machine_ || (machine_->travel <= 0 && machine_->up_travel <= 0)) return;
    const auto wants = wanted_travel(build_, part_, setup_id_, way_);
    const auto say = [&](const char* which, double wanted, double has) {
      if (has <= 0 || wanted <= has + 1e-6) return;
      add(ClashKind::travel, true,
          fmt::format("what is cut reaches over {} {}; {} goes {}", text(wanted), which, machine_->name,
                      text(has)),
          {"clamp it twice, from one edge that was cut", "another machine", "turn the part on the table"});
    };
    say("along", wants.along, std::max(machine_->travel, machine_->cross_travel));
    say("across", wants.across, std::min(machine_->travel, machine_->cross_travel));
    say("up and down", wants.up, machine_->up_travel);
  }

  static Vec3 across(const Vec3& way) {
    const Vec3 other = std::abs(way.z()) < 0.9 ? Vec3::UnitZ() : Vec3::UnitX();
    return way.cross(other).normalized();
  }

  const Build& build_;
  Id part_;
  ClashOptions options_;
  std::vector<Feature> features_;
  std::vector<Patch> shape_;
  std::vector<solid::PlacedBody> placed_;
  std::string material_;
  const fits::Solid* solid_ = nullptr;
  double force_ = 0;
  // Of the setup looked at.
  Id setup_id_ = 0, operation_id_ = 0;
  const Setup* setup_ = nullptr;
  const Operation* operation_ = nullptr;
  const Machine* machine_ = nullptr;
  const Tool* tool_ = nullptr;
  Vec3 way_ = Vec3::UnitZ();
  stock::FinishedBox box_;
  double low_ = 0, high_ = 0, wide_ = 0; ///< mm: along the way, of the stock where it is known; across it
  std::vector<Clash> out_;
};

} // namespace

std::vector<Clash> clashes(const Build& build, Id part, const ClashOptions& options) {
  return Clashes(build, part, options).all();
}

const char* clash_name(ClashKind kind) {
  static constexpr std::array names{"under", "jaws",   "entry", "swing",  "reach",   "slender", "wall",
                                    "grip",  "corner", "shank", "holder", "covered", "travel"};
  return names[static_cast<std::size_t>(kind)];
}

} // namespace datrin::route
