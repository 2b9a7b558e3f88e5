#pragma once
// A plate on the mill, gone through step by step.

#include "steps/take_step.h"

#include "tests/core/drawn_part.h"

#include <gtest/gtest.h>

#include <string>
#include <utility>
#include <vector>

namespace datrin::test {

using namespace datrin::build;
using namespace datrin::steps;

inline TakeOptions read_in(Unit unit) {
  TakeOptions options;
  options.lengths.bare_unit = unit;
  options.at = "2026-11-27T10:00:00Z";
  return options;
}

/// A plate of bar, its two holes drilled on the mill from two edges that are cut.
class OnTheMill : public DrawnPart {
protected:
  OnTheMill() {
    part = make(Part{"Plate", "mild steel", 1, 0});
    piece = make(Piece{part, 1});
    Stock stock;
    stock.part = part;
    stock.form = StockForm::flat;
    make(stock);
    foot = face("foot", {0, 0, 0}, -Vec3::UnitZ(), 60, 40);
    left = face("left", {-30, 0, 5}, -Vec3::UnitX(), 40, 10);
    front = face("front", {0, -20, 5}, -Vec3::UnitY(), 60, 10);
    holes = make(two_holes(plate_solid(60, 40), 5, 30));
    build::Setup s;
    s.part = part;
    s.name = "on its foot";
    s.datums = {foot, left, front};
    s.way = Vec3::UnitZ();
    s.holding = Workholding::vise;
    setup = make(s);
    Operation o;
    o.part = part;
    o.kind = OperationKind::drill;
    o.setup = setup;
    o.bodies = {holes};
    o.size = 5;
    drill = make(o);
    in.piece = piece;
    in.setup = setup;
    for (const Id id : {foot, left, front}) at_size(id);
  }
  /// It is cut to the drawing.
  Id at_size(Id surface) {
    Cut cut;
    cut.piece = piece;
    cut.surface = surface;
    cut.place = b.find<PartSurface>(surface)->point;
    return make(cut);
  }
  /// Put on the top of the plate, or cut into it, in the middle.
  Body on_top(const char* name, BodyShape shape, std::vector<std::pair<BodyRole, double>> sizes) const {
    Body body;
    body.part = part, body.name = name, body.shape = shape, body.on = b.find<Body>(holes)->on;
    body.face = BodyFace::top, body.order = 8;
    for (const auto& [role, value] : sizes) body.set_size({role, 0, value});
    return body;
  }
  /// An operation like the drilling one, of another kind, on another body.
  Operation making(OperationKind kind, Id body, double size) const {
    auto o = *b.find<Operation>(drill);
    o.kind = kind, o.bodies = {body}, o.size = size;
    return o;
  }
  void gone(Id id) { EXPECT_TRUE(b.apply(remove(b, id, "x"))); }
  void uncut(Id surface) {
    for (const auto& [id, cut] : b.cuts_of(piece, surface)) gone(id);
  }
  void refresh() { in.plans = allowance::surface_plans(b, piece, casting::piece_input(b, piece), {}); }
  std::vector<BenchStep> steps() {
    refresh();
    return bench_steps(b, in);
  }
  BenchStep step(const std::string& key) {
    for (const auto& one : steps())
      if (one.key == key) return one;
    ADD_FAILURE() << key;
    return {};
  }
  StepTaken take(const BenchStep& one, const std::string& typed = {}, Unit unit = Unit::mm) {
    auto taken = take_step(b, in, one, typed, read_in(unit));
    EXPECT_TRUE(!taken.ok() || b.apply(taken.edit)) << one.key;
    return taken;
  }
  BenchInput in;
  Id piece = 0, foot = 0, left = 0, front = 0, holes = 0, setup = 0, drill = 0;
};

} // namespace datrin::test
