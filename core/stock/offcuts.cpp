#include "stock/offcuts.h"

#include "build/words.h"
#include "fits/solids.h"
#include "quantity/length_text.h"
#include "stock/part_stock.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::stock {

using namespace build;

namespace {

constexpr double too_short = 10; // mm: nothing can be held by it

bool same_metal(const std::string& a, const std::string& b) {
  if (a.empty() || b.empty() || a == b) return true;
  const auto *one = fits::find_solid(a).solid, *other = fits::find_solid(b).solid;
  return one && one == other;
}

} // namespace

std::string offcut_text(const Offcut& o, Unit unit) {
  const auto length = [&](double mm) { return length_text(mm, unit, {.show_unit = true}); };
  auto text = length(o.width);
  if (o.thick > 0) text += " \u00D7 " + length(o.thick);
  if (o.bore > 0) text += ", bore " + length(o.bore);
  text += fmt::format(" {}, {}", shown_word(o.form), length(o.length));
  if (!o.material.empty()) text += ", " + o.material;
  return text;
}

std::vector<OffcutChoice> offcuts_for(const Build& build, Id part, const std::vector<StockChoice>& choices) {
  std::vector<OffcutChoice> found;
  const auto* of = build.find<Part>(part);
  constexpr double near = 0.05; // mm: 25 is as good as 25.0
  for (const auto& [id, offcut] : build.offcuts()) {
    if (of && !same_metal(of->material, offcut.material)) continue;
    for (const auto& choice : choices) {
      const auto& s = choice.stock;
      if (s.form != offcut.form || offcut.width < s.width - near || offcut.thick < s.thick - near ||
          offcut.length < choice.takes - near ||
          (s.form == StockForm::tube && !(offcut.bore > 0 && offcut.bore <= s.bore + near)))
        continue;
      OffcutChoice one{id, choice, std::max(0.0, offcut.length - choice.takes)};
      const double grows = (offcut.width / s.width) * (s.thick > 0                  ? offcut.thick / s.thick
                                                       : s.form == StockForm::round ? offcut.width / s.width
                                                                                    : 1);
      one.choice.stock.width = offcut.width;
      one.choice.stock.thick = offcut.thick;
      one.choice.stock.bore = offcut.bore;
      one.choice.volume *= grows;
      found.push_back(std::move(one));
      break; // the first is the one with least metal
    }
  }
  std::sort(found.begin(), found.end(),
            [](const OffcutChoice& a, const OffcutChoice& b) { return a.choice.volume < b.choice.volume; });
  return found;
}

Edit take_offcut(const Build& build, Id part, const OffcutChoice& taken) {
  const auto* offcut = build.find<Offcut>(taken.offcut);
  if (!offcut || !build.find<Part>(part)) return build::is_gone();
  auto stock = taken.choice.stock;
  stock.part = part;
  auto edit = set_stock(build, stock, "Made from the offcut " + offcut_text(*offcut, build.info().unit));
  Offcut rest = *offcut;
  rest.length = taken.left;
  if (rest.length < too_short)
    edit.changes.push_back({taken.offcut, *offcut, std::nullopt});
  else
    edit.changes.push_back({taken.offcut, *offcut, rest});
  return edit;
}

Added put_by(const Build& build, const Offcut& offcut) {
  if (!(offcut.width > 0)) return {0, {}, "say how large it is across"};
  if (!(offcut.length > 0)) return {0, {}, "say how long it is"};
  if (offcut.form == StockForm::tube && !(offcut.bore > 0)) return {0, {}, "say what bore the tube has"};
  Offcut kept = offcut;
  kept.order = next_order(build.offcuts());
  return added(build, kept, "Put by " + offcut_text(kept, build.info().unit));
}

} // namespace datrin::stock
