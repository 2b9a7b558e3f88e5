#include "demo/small_work.h"

#include "build/edit_drawing.h"
#include "build/edits.h"
#include "drawing/dimension_limits.h"
#include "solid/body_edits.h"
#include "solid/follow.h"
#include "solid/quick_start.h"
#include "stock/part_stock.h"

#include <string>

namespace datrin::demo {

using namespace build;

namespace {

class SmallWork {
public:
  DemoBuild run() {
    Info info;
    info.name = "Small work";
    keep(replace(out_.build, Build::info_id, info, "Name the build"));
    axlebox();
    arbor();
    return std::move(out_);
  }

private:
  void keep(const Edit& edit) {
    if (out_.build.apply(edit)) out_.edits.push_back(edit);
  }
  Id named_body(const std::string& name) const {
    for (const auto& [id, body] : out_.build.bodies_of(part_))
      if (body.name == name) return id;
    return 0;
  }
  Id named(const std::string& name) const {
    for (const auto& [id, dimension] : out_.build.dimensions_of(part_))
      if (dimension.name == name) return id;
    return 0;
  }
  void limits(const char* name, double lower, double upper, const char* tolerance,
              DimensionClass importance) {
    auto d = *out_.build.find<Dimension>(named(name));
    d.lower = lower;
    d.upper = upper;
    d.tolerance = tolerance;
    d.importance = importance;
    keep(change(out_.build, named(name), d, "Limits"));
  }
  void begin(solid::QuickShape shape, const char* name, const char* material, int quantity,
             const std::vector<double>& sizes) {
    const auto made = solid::add_quick_part(out_.build, name, solid::quick_drawing(shape, sizes));
    part_ = made.id;
    keep(made.edit);
    auto part = *out_.build.find<Part>(part_);
    part.material = material;
    keep(replace(out_.build, part_, part, std::string("Material of ") + name));
    if (quantity > 1) keep(set_quantity(out_.build, part_, quantity));
  }
  void made_from(StockForm form, double width, double length, const Vec3& along, const Vec3& across) {
    Stock stock;
    stock.part = part_;
    stock.form = form;
    stock.width = width;
    stock.length = length;
    stock.along = along;
    stock.across = across;
    keep(stock::set_stock(out_.build, stock, "Stock"));
  }
  void read(int piece, const char* name, double value) {
    Measurement m;
    m.piece = out_.build.pieces_of(part_)[static_cast<std::size_t>(piece)].first;
    m.dimension = named(name);
    m.value = value;
    m.uncertainty = 0.005;
    m.at = "2026-11-20T10:00:00Z";
    keep(add(out_.build, m, std::string("Measure ") + name));
  }

  /// Sawn from 50 mm square bar, slotted at both sides for the horns, bored for its axle, oil holes above.
  void axlebox() {
    begin(solid::QuickShape::axlebox, "Axlebox", "mild steel", 4, {44, 48, 30, 20, 22});
    for (const char* side : {"left", "right"}) {
      const auto face = std::string(side) == "left" ? BodyFace::left : BodyFace::right;
      const auto slot = solid::add_body(
          out_.build, part_,
          {BodyShape::block, true, named_body("box"), face, std::string("horn slot, ") + side});
      keep(slot.edit);
      for (const auto& [role, value] :
           {std::pair{BodyRole::length, 18.0}, {BodyRole::width, 48.0}, {BodyRole::height, 3.0}})
        keep(solid::set_body_size(out_.build, slot.id, role, value, ""));
    }
    const auto oil = solid::add_body(out_.build, part_,
                                     {BodyShape::hole, true, named_body("box"), BodyFace::top, "oil hole"});
    keep(oil.edit);
    keep(solid::set_body_size(out_.build, oil.id, BodyRole::diameter, 2.5, ""));
    keep(solid::set_body_size(out_.build, oil.id, BodyRole::depth, 17, ""));
    auto bore = *out_.build.find<Body>(named_body("bore"));
    bore.making = HoleMaking::bored;
    keep(solid::set_body(out_.build, named_body("bore"), bore, "Making"));
    limits("bore", 0, 0.021, "H7", DimensionClass::fit);
    limits("bore above the bottom", -0.02, 0.02, "typed", DimensionClass::critical);
    made_from(StockForm::square, 50, 33, Vec3::UnitY(), Vec3::UnitX());
    read(0, "box, width", 30.02);
  }

  /// Turned between centres from 6 mm silver steel: body, pivots, and the seat of the wheel's collet.
  void arbor() {
    begin(solid::QuickShape::stepped_shaft, "Centre arbor", "silver steel", 1, {6, 48, 1.5, 3});
    const auto seat = solid::add_body(
        out_.build, part_, {BodyShape::groove, true, named_body("body"), BodyFace::top, "collet seat"});
    keep(seat.edit);
    for (const auto& [role, value] : {std::pair{BodyRole::outside_diameter, 6.0},
                                      {BodyRole::diameter, 5.0},
                                      {BodyRole::width, 6.0},
                                      {BodyRole::off, -8.0}})
      keep(solid::set_body_size(out_.build, seat.id, role, value, ""));
    for (const auto& [id, surface] : out_.build.surfaces_of(part_))
      if (surface.name == "body") { // as it came, ground
        auto ground = surface;
        ground.machined = false;
        ground.required = 0;
        keep(change(out_.build, id, ground, "Finish"));
        break;
      }
    limits("journal A", -0.014, -0.006, "f6", DimensionClass::fit);
    limits("journal B", -0.014, -0.006, "f6", DimensionClass::fit);
    made_from(StockForm::round, 6, 60, Vec3::UnitX(), Vec3::UnitY());
  }

  DemoBuild out_;
  Id part_ = 0;
};

} // namespace

DemoBuild small_work() {
  return SmallWork().run();
}

} // namespace datrin::demo
