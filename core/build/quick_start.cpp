#include "build/quick_start.h"

#include "build/edit_drawing.h"

#include <fmt/format.h>

#include <cmath>

namespace datrin::build {
namespace {

const Vec3 x = Vec3::UnitX(), y = Vec3::UnitY(), z = Vec3::UnitZ();

constexpr double usual_stock = 0.8; // mm, skin and least cut on a small sand casting
constexpr double bore_stock = 1.0;

class Drawer {
public:
  Drawer(QuickDrawing& out, const std::vector<double>& sizes) : out_(out), sizes_(sizes) {}

  double operator[](std::size_t k) const { return k < sizes_.size() ? sizes_[k] : 0; }

  std::size_t face(const char* name, const Vec3& at, const Vec3& out, double width, double height,
                   bool machined = true) {
    PartSurface s;
    s.name = name;
    s.kind = SurfaceKind::plane;
    s.point = at;
    s.direction = out;
    s.width = width;
    s.height = height;
    s.machined = machined;
    s.required = machined ? usual_stock : 0;
    return put(s);
  }
  std::size_t round(const char* name, SurfaceKind kind, const Vec3& at, const Vec3& axis, double diameter,
                    double length, bool machined) {
    PartSurface s;
    s.name = name;
    s.kind = kind;
    s.point = at;
    s.direction = axis;
    s.diameter = diameter;
    s.height = length;
    s.machined = machined;
    s.required = machined ? bore_stock : 0;
    return put(s);
  }
  std::size_t bore(const char* name, const Vec3& at, const Vec3& axis, double diameter, double length) {
    return round(name, SurfaceKind::bore, at, axis, diameter, length, true);
  }
  std::size_t boss(const char* name, const Vec3& at, const Vec3& axis, double diameter, double length,
                   bool machined = false) {
    return round(name, SurfaceKind::boss, at, axis, diameter, length, machined);
  }
  /// Two thirds of the wall as drawn is to stay, whatever the core did.
  void wall(std::size_t from, std::size_t to) {
    const double drawn = (out_.surfaces[from].diameter - out_.surfaces[to].diameter) / 2;
    out_.walls.push_back({from, to, std::round(drawn * 2 / 3 * 10) / 10});
  }
  void must(bool holds, std::string otherwise) {
    if (!holds && out_.message.empty()) out_.message = std::move(otherwise);
  }

private:
  std::size_t put(PartSurface s) {
    s.order = static_cast<double>(out_.surfaces.size());
    out_.surfaces.push_back(std::move(s));
    return out_.surfaces.size() - 1;
  }
  QuickDrawing& out_;
  const std::vector<double>& sizes_;
};

void pedestal(Drawer& d) {
  const double length = d[0], width = d[1], thick = d[2], centre = d[3], bore = d[4], boss = d[5],
               over = d[6];
  d.must(boss > bore + 2, "the boss must be wider than the bore");
  d.must(centre > boss / 2, "the centre height must be more than half the boss");
  d.must(length > boss, "the foot must be longer than the boss is wide");
  d.face("foot", {0, 0, 0}, -z, length, width);
  d.face("end A", {-length / 2, 0, thick / 2}, -x, width, thick);
  d.face("end B", {length / 2, 0, thick / 2}, x, width, thick);
  d.face("cheek front", {0, -over / 2, centre}, -y, boss, boss);
  d.face("cheek back", {0, over / 2, centre}, y, boss, boss);
  const auto hole = d.bore("bore", {0, 0, centre}, y, bore, over);
  d.wall(d.boss("boss", {0, 0, centre}, y, boss, over), hole);
}

void cylinder_block(Drawer& d) {
  const double length = d[0], bore = d[1], barrel = d[2], flange = d[3], thick = d[4], centre = d[5],
               port = d[6];
  d.must(barrel > bore + 2, "the barrel must be wider than the bore");
  d.must(flange >= barrel, "the flanges must be as wide as the barrel at least");
  d.must(centre >= flange / 2, "the centre height must be half the flange at least");
  d.must(length > 2 * thick, "the flanges are thicker than the block is long");
  d.face("foot", {0, 0, 0}, -z, 0.9 * length, 0.7 * flange);
  d.face("end A", {-length / 2, 0, centre}, -x, flange, flange);
  d.face("end B", {length / 2, 0, centre}, x, flange, flange);
  d.face("port face", {0, port, centre}, y, 0.6 * length, 0.6 * flange);
  const auto hole = d.bore("bore", {0, 0, centre}, x, bore, length);
  d.wall(d.boss("barrel", {0, 0, centre}, x, barrel, length - 2 * thick), hole);
  d.boss("flange A", {-(length - thick) / 2, 0, centre}, x, flange, thick);
  d.boss("flange B", {(length - thick) / 2, 0, centre}, x, flange, thick);
}

void cover(Drawer& d) {
  const double rim = d[0], thick = d[1], spigot = d[2], depth = d[3];
  d.must(spigot < rim, "the spigot must be smaller than the rim");
  d.face("joint face", {0, 0, 0}, -z, rim, rim);
  d.face("outside", {0, 0, thick}, z, rim, rim);
  d.boss("spigot", {0, 0, -depth / 2}, z, spigot, depth, true);
  d.boss("rim", {0, 0, thick / 2}, z, rim, thick);
}

void flange(Drawer& d) {
  const double rim = d[0], thick = d[1], bore = d[2];
  d.must(bore < rim - 2, "the bore must be smaller than the rim");
  d.face("face", {0, 0, thick}, z, rim, rim);
  d.face("back", {0, 0, 0}, -z, rim, rim);
  const auto hole = d.bore("bore", {0, 0, thick / 2}, z, bore, thick);
  d.wall(d.boss("rim", {0, 0, thick / 2}, z, rim, thick), hole);
}

void wheel(Drawer& d) {
  const double rim = d[0], wide = d[1], hub = d[2], hub_long = d[3], bore = d[4];
  d.must(hub < rim, "the hub must be smaller than the rim");
  d.must(bore < hub - 2, "the bore must be smaller than the hub");
  d.boss("rim", {0, 0, 0}, y, rim, wide, true);
  d.face("rim front", {0, -wide / 2, 0}, -y, rim, rim);
  d.face("rim back", {0, wide / 2, 0}, y, rim, rim);
  d.face("hub front", {0, -hub_long / 2, 0}, -y, hub, hub);
  d.face("hub back", {0, hub_long / 2, 0}, y, hub, hub);
  const auto hole = d.bore("bore", {0, 0, 0}, y, bore, hub_long);
  d.wall(d.boss("hub", {0, 0, 0}, y, hub, hub_long), hole);
}

void bracket(Drawer& d) {
  const double length = d[0], width = d[1], thick = d[2], high = d[3], boss = d[4], bore = d[5];
  d.must(bore < boss - 2, "the bore must be smaller than the boss");
  d.must(high > thick + boss / 2, "the bore lies in the foot: raise it");
  d.face("foot", {0, 0, 0}, -z, length, width);
  d.face("back", {-length / 2, 0, high / 2}, -x, width, high);
  d.face("boss front", {0, -width / 2, high}, -y, boss, boss);
  d.face("boss back", {0, width / 2, high}, y, boss, boss);
  d.face("foot top", {thick / 2, 0, thick}, z, length - thick, width, false);
  d.face("web A", {-0.4 * boss, 0, (thick + high) / 2}, -x, 0.8 * width, high - thick, false);
  d.face("web B", {0.4 * boss, 0, (thick + high) / 2}, x, 0.8 * width, high - thick, false);
  d.face("back inside", {-length / 2 + thick, 0, (high + thick) / 2}, x, width, high - thick, false);
  const auto hole = d.bore("bore", {0, 0, high}, y, bore, width);
  d.wall(d.boss("boss", {0, 0, high}, y, boss, width), hole);
}

void angle_plate(Drawer& d) {
  const double length = d[0], deep = d[1], high = d[2], thick = d[3];
  d.must(thick < deep && thick < high, "it must be thinner than it is deep and high");
  d.face("base", {0, 0, 0}, -z, length, deep);
  d.face("upright", {0, -deep / 2, high / 2}, -y, length, high);
  d.face("end A", {-length / 2, 0, high / 2}, -x, deep, high);
  d.face("end B", {length / 2, 0, high / 2}, x, deep, high);
  d.face("inside floor", {0, thick / 2, thick}, z, length, deep - thick, false);
  d.face("inside wall", {0, -deep / 2 + thick, (high + thick) / 2}, y, length, high - thick, false);
}

void axlebox(Drawer& d) {
  const double wide = d[0], high = d[1], thick = d[2], bore = d[3], up = d[4];
  d.must(bore < wide - 4, "the bore must leave metal at the sides");
  d.must(up > bore / 2 && up < high - bore / 2, "the bore must lie within the box");
  d.face("side A", {-wide / 2, 0, high / 2}, -x, thick, high);
  d.face("side B", {wide / 2, 0, high / 2}, x, thick, high);
  d.face("front", {0, -thick / 2, high / 2}, -y, wide, high);
  d.face("back", {0, thick / 2, high / 2}, y, wide, high);
  d.face("top", {0, 0, high}, z, wide, thick);
  d.face("bottom", {0, 0, 0}, -z, wide, thick);
  d.bore("bore", {0, 0, up}, y, bore, thick);
}

void plain_block(Drawer& d) {
  const double l = d[0], w = d[1], h = d[2];
  d.face("bottom", {0, 0, 0}, -z, l, w);
  d.face("top", {0, 0, h}, z, l, w);
  d.face("left", {-l / 2, 0, h / 2}, -x, w, h);
  d.face("right", {l / 2, 0, h / 2}, x, w, h);
  d.face("front", {0, -w / 2, h / 2}, -y, l, h);
  d.face("back", {0, w / 2, h / 2}, y, l, h);
}

} // namespace

const std::vector<QuickStart>& quick_starts() {
  static const std::vector<QuickStart> list{
      {QuickShape::pedestal,
       "Pedestal",
       "a bearing boss on a foot",
       {{"foot, length", 80},
        {"foot, width", 36},
        {"foot, thickness", 12},
        {"centre height", 40},
        {"bore", 20},
        {"boss", 34},
        {"over the cheeks", 40}}},
      {QuickShape::cylinder_block,
       "Cylinder block",
       "a bored barrel between two flanges, with a port face",
       {{"length", 80},
        {"bore", 30},
        {"barrel", 44},
        {"flanges", 56},
        {"flange thickness", 8},
        {"centre height", 32},
        {"port face from centre", 30}}},
      {QuickShape::cover,
       "Cover",
       "a disc with a spigot",
       {{"rim", 56}, {"thickness", 8}, {"spigot", 30}, {"spigot, depth", 3}}},
      {QuickShape::flange, "Flange", "a disc with a hole", {{"rim", 50}, {"thickness", 8}, {"bore", 20}}},
      {QuickShape::wheel,
       "Wheel",
       "a rim and a hub on one bore",
       {{"rim", 160}, {"rim, width", 20}, {"hub", 36}, {"hub, length", 28}, {"bore", 14}}},
      {QuickShape::bracket,
       "Bracket",
       "a foot, a back and a bored boss",
       {{"foot, length", 60},
        {"width", 30},
        {"foot, thickness", 10},
        {"centre height", 45},
        {"boss", 28},
        {"bore", 14}}},
      {QuickShape::angle_plate,
       "Angle plate",
       "two plates square to each other",
       {{"length", 80}, {"depth", 60}, {"height", 60}, {"thickness", 12}}},
      {QuickShape::axlebox,
       "Axlebox",
       "a block with a bore, sliding between horns",
       {{"width", 40}, {"height", 48}, {"thickness", 28}, {"bore", 18}, {"bore above the bottom", 24}}},
      {QuickShape::plain_block, "Plain block", "six faces", {{"length", 60}, {"width", 40}, {"height", 30}}},
  };
  return list;
}

QuickDrawing quick_drawing(QuickShape shape, const std::vector<double>& sizes) {
  QuickDrawing drawing;
  const auto& start = quick_starts()[static_cast<std::size_t>(shape)];
  for (std::size_t k = 0; k < start.sizes.size(); ++k)
    if (k >= sizes.size() || !(sizes[k] > 0) || !std::isfinite(sizes[k])) {
      drawing.message = fmt::format("{} must be above 0", start.sizes[k].name);
      return drawing;
    }
  Drawer draw(drawing, sizes);
  static constexpr void (*draw_it[])(Drawer&) = {pedestal, cylinder_block, cover,   flange,     wheel,
                                                 bracket,  angle_plate,    axlebox, plain_block};
  draw_it[static_cast<std::size_t>(shape)](draw);
  return drawing;
}

Added add_quick_part(const Build& build, const std::string& name, const QuickDrawing& drawing) {
  if (!drawing.message.empty() || drawing.surfaces.empty()) return {0, {}, drawing.message};
  auto made = add_part(build, name, true);
  auto& edit = made.edit;
  const Id part = made.id;
  Id id = part + static_cast<Id>(edit.changes.size());
  const Id first = id;
  for (auto surface : drawing.surfaces) {
    surface.part = part;
    edit.changes.push_back({id++, std::nullopt, surface});
  }
  for (const auto& wall : drawing.walls)
    edit.changes.push_back(
        {id++, std::nullopt,
         Wall{part, first + static_cast<Id>(wall.from), first + static_cast<Id>(wall.to), wall.least}});
  return made;
}

} // namespace datrin::build
