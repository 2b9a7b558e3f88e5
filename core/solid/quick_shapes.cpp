#include "solid/quick_shapes.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <string>
#include <utility>

namespace datrin::solid {

using namespace build;

namespace {

using R = BodyRole;
using S = BodyShape;
using F = BodyFace;

constexpr double usual_stock = 0.8; // mm, skin and least cut on a small sand casting
constexpr double bore_stock = 1.0;

using Sizes = std::vector<std::pair<R, double>>;

class Drawer {
public:
  Drawer(QuickDrawing& out, const std::vector<double>& sizes) : out_(out), sizes_(sizes) {}

  double operator[](std::size_t k) const { return k < sizes_.size() ? sizes_[k] : 0; }

  /// A body on a face of another (0: on the drawing's origin); its number.
  Id body(const char* name, S shape, const Sizes& sizes, Id on = 0, F face = F::top) {
    Body b;
    b.name = name;
    b.shape = shape;
    b.cut = always_cuts(shape);
    b.on = on;
    b.face = on == 0 ? F::middle : face;
    for (const auto& [role, value] : sizes) b.set_size({role, 0, value});
    out_.bodies.push_back(std::move(b));
    return static_cast<Id>(out_.bodies.size());
  }
  Body& at(Id body) { return out_.bodies[static_cast<std::size_t>(body - 1)]; }
  /// That size is the same as one of another body: one dimension says both.
  void same(Id body, R role, Id other, R other_role) {
    at(body).set_size({role, 0, at(other).size(other_role)->value});
    out_.shared.push_back({body, role, other, other_role});
  }
  void same(Id body, R role, Id other) { same(body, role, other, role); }
  void call(Id body, R role, std::string name) { out_.names.push_back({body, role, std::move(name)}); }
  Id across(Id body) {
    at(body).lie = BodyLie::across;
    return body;
  }
  Id along(Id body) {
    at(body).lie = BodyLie::along;
    return body;
  }
  /// A hole all the way through from a face; its wall is a surface of that name.
  Id hole(const char* name, double diameter, Id on, F face, bool cored = true) {
    const Id id = body(name, S::hole, {{R::diameter, diameter}}, on, face);
    at(id).through = true;
    at(id).making = cored ? HoleMaking::cored : HoleMaking::drilled;
    surface(name, id, F::side);
    out_.surfaces.back().from_solid = !cored;
    out_.surfaces.back().required = cored ? bore_stock : 0;
    return id;
  }
  std::size_t surface(const char* name, Id body, F face, bool machined = true) {
    PartSurface s;
    s.name = name;
    s.body = body;
    s.face = face;
    s.machined = machined;
    s.required = machined ? usual_stock : 0;
    out_.surfaces.push_back(std::move(s));
    return out_.surfaces.size() - 1;
  }
  std::size_t last_surface() const { return out_.surfaces.size() - 1; }
  /// Two thirds of the wall as drawn is to stay, whatever the core did.
  void wall(std::size_t from, std::size_t to, double drawn) {
    out_.walls.push_back({from, to, std::round(drawn * 2 / 3 * 10) / 10});
  }
  void must(bool holds, std::string otherwise) {
    if (!holds && out_.message.empty()) out_.message = std::move(otherwise);
  }

private:
  QuickDrawing& out_;
  const std::vector<double>& sizes_;
};

void pedestal(Drawer& d) {
  const double length = d[0], width = d[1], thick = d[2], centre = d[3], bore = d[4], boss = d[5],
               over = d[6];
  d.must(boss > bore + 2, "the boss must be wider than the bore");
  d.must(centre > boss / 2, "the centre height must be more than half the boss");
  d.must(length > boss, "the foot must be longer than the boss is wide");
  d.must(centre > thick, "the centre height must be more than the foot's thickness");
  const Id foot = d.body("foot", S::block, {{R::length, length}, {R::width, width}, {R::height, thick}});
  const Id round =
      d.across(d.body("boss", S::round, {{R::diameter, boss}, {R::height, over}, {R::off, centre}}));
  d.call(round, R::off, "centre height");
  d.call(round, R::height, "over the cheeks");
  const Id pillar =
      d.body("pillar", S::block, {{R::length, 0.9 * boss}, {R::width, 0.8 * std::min(width, over)}});
  d.same(pillar, R::height, round, R::off);
  d.surface("foot", foot, F::bottom);
  d.surface("end A", foot, F::left);
  d.surface("end B", foot, F::right);
  d.surface("cheek front", round, F::bottom);
  d.surface("cheek back", round, F::top);
  d.hole("bore", bore, round, F::bottom);
  const auto hole = d.last_surface();
  d.wall(d.surface("boss", round, F::side, false), hole, (boss - bore) / 2);
}

void cylinder_block(Drawer& d) {
  const double length = d[0], bore = d[1], barrel = d[2], flange = d[3], thick = d[4], centre = d[5],
               port = d[6];
  d.must(barrel > bore + 2, "the barrel must be wider than the bore");
  d.must(flange >= barrel, "the flanges must be as wide as the barrel at least");
  d.must(centre >= flange / 2, "the centre height must be half the flange at least");
  d.must(length > 2 * thick, "the flanges are thicker than the block is long");
  d.must(port > bore / 2 + 1, "the port face lies in the bore");
  const Id middle = d.along(
      d.body("barrel", S::round, {{R::diameter, barrel}, {R::height, length - 2 * thick}, {R::off, centre}}));
  d.call(middle, R::off, "centre height");
  d.call(middle, R::height, "between the flanges");
  const Id foot = d.body("foot", S::block, {{R::length, 0.9 * length}, {R::width, 0.7 * flange}});
  d.same(foot, R::height, middle, R::off);
  const Id a = d.body("flange A", S::round, {{R::diameter, flange}, {R::height, thick}}, middle, F::bottom);
  const Id b = d.body("flange B", S::round, {}, middle, F::top);
  d.same(b, R::diameter, a);
  d.same(b, R::height, a);
  // It lies: its height goes out from the axis to the port face, its middle as high as the barrel's.
  const Id chest = d.across(d.body("port block", S::block,
                                   {{R::length, 0.6 * flange}, {R::width, 0.6 * length}, {R::height, port}}));
  d.same(chest, R::off, middle);
  d.at(chest).from_across = PlaceFrom::low_to_edge;
  d.call(chest, R::height, "port face from centre");
  d.surface("foot", foot, F::bottom);
  d.surface("end A", a, F::top);
  d.surface("end B", b, F::top);
  d.surface("port face", chest, F::top);
  d.hole("bore", bore, a, F::top);
  const auto hole = d.last_surface();
  d.wall(d.surface("barrel", middle, F::side, false), hole, (barrel - bore) / 2);
  d.surface("flange A", a, F::side, false);
  d.surface("flange B", b, F::side, false);
}

void cover(Drawer& d) {
  const double rim = d[0], thick = d[1], spigot = d[2], depth = d[3];
  d.must(spigot < rim, "the spigot must be smaller than the rim");
  const Id disc = d.body("rim", S::round, {{R::diameter, rim}, {R::height, thick}});
  const Id in = d.body("spigot", S::round, {{R::diameter, spigot}, {R::height, depth}}, disc, F::bottom);
  d.surface("joint face", disc, F::bottom);
  d.surface("outside", disc, F::top);
  d.surface("spigot", in, F::side);
  d.surface("rim", disc, F::side, false);
}

void flange(Drawer& d) {
  const double rim = d[0], thick = d[1], bore = d[2], circle = d[3], bolt = d[4];
  d.must(bore < rim - 2, "the bore must be smaller than the rim");
  d.must(circle + bolt < rim, "the bolt holes run out at the rim");
  d.must(circle - bolt > bore, "the bolt holes run into the bore");
  const Id disc = d.body("rim", S::round, {{R::diameter, rim}, {R::height, thick}});
  d.surface("face", disc, F::top);
  d.surface("back", disc, F::bottom);
  d.hole("bore", bore, disc, F::top);
  const auto hole = d.last_surface();
  d.wall(d.surface("rim", disc, F::side, false), hole, (rim - bore) / 2);
  const Id bolts = d.hole("bolt hole", bolt, disc, F::top, false);
  d.at(bolts).pattern = BodyPattern::circle;
  d.at(bolts).count = 6;
  d.at(bolts).set_size({R::circle, 0, circle});
}

void wheel(Drawer& d) {
  const double rim = d[0], wide = d[1], hub = d[2], hub_long = d[3], bore = d[4], deep = d[5], spoke = d[6];
  d.must(hub < rim - 2 * deep, "the hub must be smaller than the inside of the rim");
  d.must(bore < hub - 2, "the bore must be smaller than the hub");
  d.must(spoke < hub, "the spokes are wider than the hub");
  const Id ring =
      d.across(d.body("rim", S::tube, {{R::diameter, rim}, {R::bore, rim - 2 * deep}, {R::height, wide}}));
  const Id middle = d.across(d.body("hub", S::round, {{R::diameter, hub}, {R::height, hub_long}}));
  d.across(d.body("spokes", S::spokes,
                  {{R::inside_diameter, 0.6 * hub},
                   {R::outside_diameter, rim - deep},
                   {R::width, spoke},
                   {R::height, 0.6 * std::min(wide, hub_long)}}));
  d.surface("rim", ring, F::side);
  d.surface("rim front", ring, F::bottom);
  d.surface("rim back", ring, F::top);
  d.surface("hub front", middle, F::bottom);
  d.surface("hub back", middle, F::top);
  d.hole("bore", bore, middle, F::bottom);
  const auto hole = d.last_surface();
  d.wall(d.surface("hub", middle, F::side, false), hole, (hub - bore) / 2);
}

void bracket(Drawer& d) {
  const double length = d[0], width = d[1], thick = d[2], high = d[3], boss = d[4], bore = d[5];
  d.must(bore < boss - 2, "the bore must be smaller than the boss");
  d.must(high > thick + boss / 2, "the bore lies in the foot: raise it");
  const Id foot = d.body("foot", S::block, {{R::length, length}, {R::width, width}, {R::height, thick}});
  const Id round = d.across(d.body("boss", S::round, {{R::diameter, boss}, {R::off, high}}));
  d.same(round, R::height, foot, R::width);
  d.call(round, R::off, "centre height");
  const Id back = d.body("back", S::block, {{R::length, thick}, {R::height, high - thick}}, foot);
  d.same(back, R::width, foot);
  d.at(back).from_along = PlaceFrom::low_to_edge;
  const Id web = d.body("web", S::block, {{R::length, 0.8 * boss}, {R::width, 0.8 * width}});
  d.same(web, R::height, round, R::off);
  d.surface("foot", foot, F::bottom);
  d.surface("back", back, F::left);
  d.surface("boss front", round, F::bottom);
  d.surface("boss back", round, F::top);
  d.surface("foot top", foot, F::top, false);
  d.surface("web A", web, F::left, false);
  d.surface("web B", web, F::right, false);
  d.surface("back inside", back, F::right, false);
  d.hole("bore", bore, round, F::bottom);
  const auto hole = d.last_surface();
  d.wall(d.surface("boss", round, F::side, false), hole, (boss - bore) / 2);
}

void angle_plate(Drawer& d) {
  const double length = d[0], deep = d[1], high = d[2], thick = d[3];
  d.must(thick < deep && thick < high, "it must be thinner than it is deep and high");
  const Id base = d.body("base", S::block, {{R::length, length}, {R::width, deep}, {R::height, thick}});
  const Id upright =
      d.body("upright", S::block, {{R::length, length}, {R::width, thick}, {R::height, high - thick}}, base);
  d.same(upright, R::length, base);
  d.at(upright).from_across = PlaceFrom::low_to_edge;
  d.surface("base", base, F::bottom);
  d.surface("upright", upright, F::front);
  d.surface("end A", base, F::left);
  d.surface("end B", base, F::right);
  d.surface("inside floor", base, F::top, false);
  d.surface("inside wall", upright, F::back, false);
}

void six_faces(Drawer& d, Id block, const char* left, const char* right) {
  d.surface("bottom", block, F::bottom);
  d.surface("top", block, F::top);
  d.surface(left, block, F::left);
  d.surface(right, block, F::right);
  d.surface("front", block, F::front);
  d.surface("back", block, F::back);
}

void axlebox(Drawer& d) {
  const double wide = d[0], high = d[1], thick = d[2], bore = d[3], up = d[4];
  d.must(bore < wide - 4, "the bore must leave metal at the sides");
  d.must(up > bore / 2 && up < high - bore / 2, "the bore must lie within the box");
  const Id box = d.body("box", S::block, {{R::length, wide}, {R::width, thick}, {R::height, high}});
  six_faces(d, box, "side A", "side B");
  const Id bored = d.hole("bore", bore, box, F::front);
  d.at(bored).from_across = PlaceFrom::low_edge;
  d.at(bored).set_size({R::across, 0, up});
  d.call(bored, R::across, "bore above the bottom");
}

void plain_block(Drawer& d) {
  six_faces(d, d.body("block", S::block, {{R::length, d[0]}, {R::width, d[1]}, {R::height, d[2]}}), "left",
            "right");
}

/// Two round ends, `apart`, and what joins them; the first at the origin.
std::pair<Id, Id> two_ends(Drawer& d, const char* first, const char* second, double a, double b, double apart,
                           const char* apart_name, double thick, double width, double bar_thick) {
  const Id one = d.body(first, S::round, {{R::diameter, a}, {R::height, thick}});
  const Id other = d.body(second, S::round, {{R::diameter, b}, {R::along, apart}});
  d.same(other, R::height, one);
  d.call(other, R::along, apart_name);
  // Lying on the first one's middle: centred in its thickness, from axis to axis.
  const Id bar =
      d.along(d.body("bar", S::block, {{R::length, width}, {R::width, bar_thick}}, one, F::middle));
  d.same(bar, R::height, other, R::along);
  if (bar_thick == thick) d.same(bar, R::width, one, R::height);
  d.at(bar).from_along = PlaceFrom::low_to_edge;
  return {one, other};
}

void crank_web(Drawer& d) {
  const double throw_ = d[0], shaft = d[1], pin = d[2], shaft_end = d[3], pin_end = d[4], thick = d[5];
  d.must(shaft < shaft_end - 2, "the shaft's hole must be smaller than its end");
  d.must(pin < pin_end - 2, "the pin's hole must be smaller than its end");
  d.must(throw_ > (shaft + pin) / 2 + 1, "the two holes run into each other");
  const auto [one, other] =
      two_ends(d, "shaft end", "pin end", shaft_end, pin_end, throw_, "throw", thick, pin_end, thick);
  d.surface("face", one, F::top);
  d.surface("back", one, F::bottom);
  d.hole("shaft hole", shaft, one, F::top, false);
  d.hole("pin hole", pin, other, F::top, false);
}

void connecting_rod(Drawer& d) {
  const double centres = d[0], big = d[1], big_bore = d[2], small = d[3], small_bore = d[4], thick = d[5],
               width = d[6], shank = d[7];
  d.must(big_bore < big - 2, "the big end's bore must be smaller than its end");
  d.must(small_bore < small - 2, "the small end's bore must be smaller than its end");
  d.must(centres > (big + small) / 2, "the two ends run into each other");
  d.must(shank <= thick, "the shank must not be thicker than the ends");
  const auto [one, other] =
      two_ends(d, "big end", "small end", big, small, centres, "centres", thick, width, shank);
  d.surface("face", one, F::top);
  d.surface("back", one, F::bottom);
  d.hole("big end bore", big_bore, one, F::top, false);
  d.hole("small end bore", small_bore, other, F::top, false);
}

void stepped_shaft(Drawer& d) {
  const double body = d[0], length = d[1], journal = d[2], journal_long = d[3];
  d.must(journal < body, "the journals must be smaller than the body");
  const Id middle = d.along(d.body("body", S::round, {{R::diameter, body}, {R::height, length}}));
  const Id a =
      d.body("journal A", S::round, {{R::diameter, journal}, {R::height, journal_long}}, middle, F::bottom);
  const Id b =
      d.body("journal B", S::round, {{R::diameter, journal}, {R::height, journal_long}}, middle, F::top);
  d.surface("body", middle, F::side);
  d.surface("journal A", a, F::side);
  d.surface("journal B", b, F::side);
  d.surface("end A", a, F::top);
  d.surface("end B", b, F::top);
  d.surface("shoulder A", middle, F::bottom);
  d.surface("shoulder B", middle, F::top);
}

void eccentric_sheave(Drawer& d) {
  const double sheave = d[0], thick = d[1], bore = d[2], throw_ = d[3];
  d.must(bore / 2 + throw_ < sheave / 2 - 1, "the bore runs out at the side: less throw, or a larger sheave");
  const Id disc = d.body("sheave", S::round, {{R::diameter, sheave}, {R::height, thick}});
  d.surface("sheave", disc, F::side);
  d.surface("face", disc, F::top);
  d.surface("back", disc, F::bottom);
  const Id hole = d.hole("bore", bore, disc, F::top, false);
  d.at(hole).set_size({R::along, 0, throw_});
  d.call(hole, R::along, "throw");
}

void eccentric_strap(Drawer& d) {
  const double outside = d[0], bore = d[1], thick = d[2], lug = d[3];
  d.must(bore < outside - 2, "the bore must be smaller than the outside");
  d.must(lug < outside, "the lug must be narrower than the strap");
  const Id ring = d.body("strap", S::round, {{R::diameter, outside}, {R::height, thick}});
  const Id foot =
      d.body("lug", S::block, {{R::length, outside / 2 + lug / 2}, {R::width, lug}, {R::height, thick}});
  d.same(foot, R::height, ring);
  d.at(foot).from_along = PlaceFrom::low_to_edge;
  d.surface("face", ring, F::top);
  d.surface("back", ring, F::bottom);
  d.surface("lug end", foot, F::right);
  d.hole("bore", bore, ring, F::top);
  const auto hole = d.last_surface();
  d.wall(d.surface("strap", ring, F::side, false), hole, (outside - bore) / 2);
}

void slide_valve(Drawer& d) {
  const double length = d[0], width = d[1], height = d[2], inside = d[3], wide = d[4], deep = d[5];
  d.must(inside < length - 2 && wide < width - 2, "the cavity must leave a face all round");
  d.must(deep < height - 1, "the cavity must leave a roof");
  const Id block = d.body("valve", S::block, {{R::length, length}, {R::width, width}, {R::height, height}});
  d.body("cavity", S::pocket, {{R::length, inside}, {R::width, wide}, {R::depth, deep}, {R::corner, 0}},
         block, F::bottom);
  d.surface("face", block, F::bottom);
  d.surface("end A", block, F::left);
  d.surface("end B", block, F::right);
  d.surface("front", block, F::front);
  d.surface("back", block, F::back);
  d.surface("top", block, F::top);
}

void gear_blank(Drawer& d) {
  const double outside = d[0], wide = d[1], hub = d[2], hub_long = d[3], bore = d[4];
  d.must(hub < outside, "the hub must be smaller than the blank");
  d.must(bore < hub - 2, "the bore must be smaller than the hub");
  const Id disc = d.body("blank", S::round, {{R::diameter, outside}, {R::height, wide}});
  const Id boss = d.body("hub", S::round, {{R::diameter, hub}, {R::height, hub_long}}, disc);
  d.surface("outside", disc, F::side);
  d.surface("face", disc, F::bottom);
  d.surface("inside", disc, F::top);
  d.surface("hub", boss, F::side);
  d.surface("hub end", boss, F::top);
  d.hole("bore", bore, boss, F::top, false);
}

void bush(Drawer& d) {
  const double outside = d[0], bore = d[1], length = d[2], flange = d[3], thick = d[4];
  d.must(bore < outside - 1, "the bore must be smaller than the outside");
  d.must(flange > outside, "the flange must be wider than the outside");
  const Id head = d.body("flange", S::round, {{R::diameter, flange}, {R::height, thick}});
  const Id sleeve = d.body("sleeve", S::round, {{R::diameter, outside}, {R::height, length}}, head);
  d.surface("outside", sleeve, F::side);
  d.surface("end", sleeve, F::top);
  d.surface("shoulder", head, F::top);
  d.surface("flange", head, F::side);
  d.surface("flange face", head, F::bottom);
  d.hole("bore", bore, sleeve, F::top, false);
}

void plug(Drawer& d) {
  const double flats = d[0], head = d[1], thread = d[2], length = d[3];
  d.must(thread < flats, "the thread must be smaller than the hexagon");
  const Id hexagon = d.body("head", S::prism, {{R::flats, flats}, {R::height, head}});
  const Id shank = d.body("shank", S::round, {{R::diameter, thread}, {R::height, length}}, hexagon);
  d.surface("shank", shank, F::side);
  d.surface("end", shank, F::top);
  d.surface("under the head", hexagon, F::top);
  d.surface("top of the head", hexagon, F::bottom);
}

void stand(Drawer& d) {
  const double base = d[0], thick = d[1], column = d[2], height = d[3], top = d[4], top_thick = d[5],
               bolt = d[6];
  d.must(column < base && column < top, "the column must be thinner than base and top");
  d.must(base - column > 4 * bolt, "there is no room for the bolt holes beside the column");
  const Id foot = d.body("base", S::round, {{R::diameter, base}, {R::height, thick}});
  const Id post = d.body("column", S::round, {{R::diameter, column}, {R::height, height}}, foot);
  const Id plate = d.body("top", S::round, {{R::diameter, top}, {R::height, top_thick}}, post);
  d.surface("base", foot, F::bottom);
  d.surface("top", plate, F::top);
  d.surface("column", post, F::side, false);
  const Id bolts = d.hole("bolt hole", bolt, foot, F::bottom, false);
  d.at(bolts).pattern = BodyPattern::circle;
  d.at(bolts).count = 4;
  d.at(bolts).set_size({R::circle, 0, (base + column) / 2});
}

} // namespace

void draw_quickly(QuickShape shape, const std::vector<double>& sizes, QuickDrawing& drawing) {
  Drawer draw(drawing, sizes);
  static constexpr void (*draw_it[])(Drawer&) = {pedestal,
                                                 cylinder_block,
                                                 cover,
                                                 flange,
                                                 wheel,
                                                 bracket,
                                                 angle_plate,
                                                 axlebox,
                                                 plain_block,
                                                 crank_web,
                                                 stepped_shaft,
                                                 connecting_rod,
                                                 eccentric_sheave,
                                                 eccentric_strap,
                                                 slide_valve,
                                                 gear_blank,
                                                 bush,
                                                 plug,
                                                 stand};
  static_assert(std::size(draw_it) == static_cast<std::size_t>(QuickShape::stand) + 1);
  draw_it[static_cast<std::size_t>(shape)](draw);
}

} // namespace datrin::solid
