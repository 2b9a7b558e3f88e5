#include "demo/at_bench.h"

#include "build/edits.h"
#include "route/propose.h"

namespace datrin::demo {

using namespace build;

void add_bench(const Build& build, const std::function<void(const Edit&)>& keep) {
  Id web = 0;
  for (const auto& [id, part] : build.parts())
    if (part.name == "Crank web") web = id;
  const auto surface = [&](const char* name) {
    for (const auto& [id, s] : build.surfaces_of(web))
      if (s.name == name) return id;
    return Id(0);
  };
  const auto mill = build.machines().front();
  auto with_scales = mill.second;
  with_scales.read_out = "simulated";
  keep(replace(build, mill.first, with_scales, "Scales on the mill"));
  Stock plate;
  plate.part = web;
  plate.form = StockForm::flat;
  plate.along = Vec3::UnitX(), plate.across = Vec3::UnitZ();
  plate.width = 26, plate.thick = 12, plate.length = 44;
  keep(add(build, plate, "Crank web from flat bar"));
  Setup setup;
  setup.part = web;
  setup.name = "front up, both holes at one setting";
  setup.datums = {surface("back")};
  setup.cuts = {surface("shaft hole"), surface("pin hole")};
  setup.machine = mill.first;
  setup.holding = Workholding::vise;
  setup.packing = "parallels clear of both holes";
  setup.way = -Vec3::UnitY();
  keep(add(build, setup, "A setup for the crank web"));
  keep(route::propose_operations(build, web));
}

} // namespace datrin::demo
