// Solids beside the library they are made with, called plainly, in the same run: a plate with 60 features
// made, its views, triangles and thinnest metal; a click on a face; a frame of the turning view.
//   build/release/bin/bench-solid

#include "build/edits.h"
#include "demo/mill_engine.h"
#include "sheets/shade.h"
#include "sheets/solid_picture.h"
#include "solid/follow.h"
#include "solid/thickness.h"

#include <BRepAlgoAPI_Cut.hxx>
#include <BRepPrimAPI_MakeBox.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <TopTools_ListOfShape.hxx>
#include <benchmark/benchmark.h>

using namespace datrin;
using namespace datrin::build;

namespace {

constexpr int features = 60;

/// A plate with 59 holes, each a feature of its own.
Build plate() {
  Build b;
  b.load(2, Part{"Plate", "steel", 1, 0});
  const auto body = [&](Id id, BodyShape shape, std::vector<BodySize> sizes, Id on) {
    Body one;
    one.part = 2;
    one.name = "body " + std::to_string(id);
    one.shape = shape;
    one.sizes = std::move(sizes);
    one.on = on;
    one.face = on == 0 ? BodyFace::middle : BodyFace::top;
    one.through = true;
    one.order = static_cast<double>(id);
    b.load(id, one);
  };
  body(100, BodyShape::block,
       {{BodyRole::length, 0, 200}, {BodyRole::width, 0, 120}, {BodyRole::height, 0, 12}}, 0);
  for (int k = 0; k < features - 1; ++k)
    body(101 + k, BodyShape::hole,
         {{BodyRole::diameter, 0, 6},
          {BodyRole::along, 0, -90.0 + 20 * (k % 10)},
          {BodyRole::across, 0, -50.0 + 20 * (k / 10)}},
         100);
  return b;
}

void BM_SixtyFeatures(benchmark::State& state) {
  const auto placed = solid::place_bodies(plate(), 2);
  for (auto _ : state) benchmark::DoNotOptimize(solid::make_solid(placed).volume);
}
BENCHMARK(BM_SixtyFeatures)->Unit(benchmark::kMillisecond);

/// The library alone: the same plate by as many cuts.
void BM_SixtyCutsByTheLibraryAlone(benchmark::State& state) {
  for (auto _ : state) {
    TopoDS_Shape shape = BRepPrimAPI_MakeBox(gp_Pnt(-100, -60, 0), gp_Pnt(100, 60, 12)).Shape();
    for (int k = 0; k < features - 1; ++k)
      shape =
          BRepAlgoAPI_Cut(
              shape,
              BRepPrimAPI_MakeCylinder(
                  gp_Ax2(gp_Pnt(-90.0 + 20 * (k % 10), -50.0 + 20 * (k / 10), -1), gp_Dir(0, 0, 1)), 3, 14)
                  .Shape())
              .Shape();
    benchmark::DoNotOptimize(shape.IsNull());
  }
}
BENCHMARK(BM_SixtyCutsByTheLibraryAlone)->Unit(benchmark::kMillisecond);

void BM_FollowADimension(benchmark::State& state) {
  const auto demo = demo::mill_engine();
  for (const auto& [id, part] : demo.build.parts())
    if (part.name == "Main pedestal")
      for (const auto& [d, dimension] : demo.build.dimensions_of(id))
        if (dimension.name == "centre height") {
          auto changed = dimension;
          changed.nominal += 1;
          const auto edit = replace(demo.build, d, changed, "Nominal");
          for (auto _ : state) benchmark::DoNotOptimize(solid::followed(demo.build, edit).changes.size());
        }
}
BENCHMARK(BM_FollowADimension)->Unit(benchmark::kMillisecond);

struct Cylinder {
  std::shared_ptr<const sheets::SolidPicture> picture;
  Cylinder() {
    const auto demo = demo::mill_engine();
    for (const auto& [id, part] : demo.build.parts())
      if (part.name == "Flywheel")
        picture = sheets::picture_of(solid::make_solid(solid::place_bodies(demo.build, id)));
  }
};

void BM_FrameOfTheTurningView(benchmark::State& state) {
  const Cylinder c;
  double yaw = 0;
  for (auto _ : state) {
    sheets::ShadeInput in;
    in.axes = sheets::turned_axes(yaw += 0.05, 0.4);
    in.width = 700;
    in.height = 420;
    in.scale = 2;
    benchmark::DoNotOptimize(sheets::shade(c.picture->solid, in).face.size());
  }
  state.counters["triangles"] = static_cast<double>(c.picture->solid.mesh.triangles.size());
}
BENCHMARK(BM_FrameOfTheTurningView)->Unit(benchmark::kMillisecond);

void BM_ClickOnAFace(benchmark::State& state) {
  const Cylinder c;
  for (auto _ : state)
    benchmark::DoNotOptimize(sheets::face_seen(c.picture->solid, sheets::turned_axes(0.5, 0.4), {1, 2}));
}
BENCHMARK(BM_ClickOnAFace)->Unit(benchmark::kMillisecond);

void BM_Thinnest(benchmark::State& state) {
  const Cylinder c;
  for (auto _ : state) benchmark::DoNotOptimize(solid::thinnest(c.picture->solid).least);
}
BENCHMARK(BM_Thinnest)->Unit(benchmark::kMillisecond);

/// Every part of the demo engine with its views.
void BM_AllPartsOfTheDemo(benchmark::State& state) {
  const auto demo = demo::mill_engine();
  for (auto _ : state)
    for (const auto& [id, part] : demo.build.parts())
      benchmark::DoNotOptimize(
          sheets::picture_of(solid::make_solid(solid::place_bodies(demo.build, id))).get());
}
BENCHMARK(BM_AllPartsOfTheDemo)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
