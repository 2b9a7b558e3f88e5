#include "stock/part_stock.h"

#include "build/words.h"
#include "quantity/length_text.h"
#include "solid/follow.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

namespace datrin::stock {

using namespace build;

namespace {

/// The size of the stock along one of its directions, mm.
double size_along(const Stock& s, int k) {
  if (k == 0) return s.length;
  const bool round = s.form == StockForm::round || s.form == StockForm::tube;
  if (k == 1 || round || s.form == StockForm::square) return s.width;
  return s.form == StockForm::hexagon ? s.width * 2 / std::sqrt(3.0) : s.thick; // over its corners
}

/// A part in its stock: made once for what is asked of a surface.
struct InStock {
  Stock stock;
  std::vector<Patch> patches;
  Patch wanted;
  FinishedBox box;
};

/// Nothing where the sizes of the stock leave nothing to be worked out.
std::optional<InStock> in_stock(const Build& build, Id part, Id surface) {
  const auto kept = build.stock_of(part);
  if (!kept || is_raw(kept->second.form) || kept->second.form == StockForm::bought ||
      !sizes_wrong(kept->second).empty())
    return std::nullopt;
  InStock out;
  out.stock = kept->second;
  bool there = false;
  for (const auto& [id, patch] : patches_of(build, part)) {
    out.patches.push_back(patch);
    if (id != surface) continue;
    out.wanted = patch;
    there = true;
  }
  out.box = finished_box(out.patches, axes_of(out.stock));
  return there && out.box.known ? std::optional(std::move(out)) : std::nullopt;
}

/// Metal that the sizes of the stock leave.
std::optional<MetalOver> by_sizes(const Build& build, Id part, Id surface) {
  const auto in = in_stock(build, part, surface);
  if (!in || is_shoulder(in->wanted, in->patches)) return std::nullopt;
  return metal_over(StockBody(in->stock, in->box), in->wanted, in->patches);
}

/// What two opposite faces were read apart, over the drawing's distance.
struct ReadAcross {
  Id other = 0;
  double over = 0; ///< metal on both
};

/// Nothing was cut on it when that was read: what is read then is what it was made from. `at` empty: it is a
/// reading of the rough piece, whenever it was taken.
bool whole_then(const Build& build, Id piece, Id surface, const std::string& at) {
  const auto cuts = build.cuts_of(piece, surface);
  return cuts.empty() || at.empty() || cuts.front().second.at > at;
}

std::optional<ReadAcross> read_across(const Build& build, Id piece, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  if (s == nullptr || s->round()) return std::nullopt;
  const auto over = [&](Id other, double read, const std::string& at) -> std::optional<ReadAcross> {
    const auto* face = build.find<PartSurface>(other);
    if (face == nullptr || face->round()) return std::nullopt;
    if (face->direction.dot(s->direction) > -0.999) return std::nullopt; // not the other side of it
    if (!whole_then(build, piece, surface, at) || !whole_then(build, piece, other, at)) return std::nullopt;
    return ReadAcross{other, read - std::abs((s->point - face->point).dot(s->direction))};
  };
  for (const auto& [id, d] : build.dimensions_of(s->part)) {
    if (d.kind != DimensionKind::distance || (d.surface != surface && d.other != surface)) continue;
    const auto m = build.measurement_of(piece, id);
    if (!m || m->second.bound != Bound::exact) continue;
    if (auto found = over(d.surface == surface ? d.other : d.surface, m->second.value, m->second.at))
      return found;
  }
  for (const auto& [id, size] : build.sizes_of(piece)) // read across the rough piece
    if (size.other != 0 && (size.surface == surface || size.other == surface))
      if (auto found = over(size.surface == surface ? size.other : size.surface, size.size, {})) return found;
  return std::nullopt;
}

} // namespace

bool is_shoulder(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  if (s == nullptr) return false;
  std::vector<Patch> patches;
  Patch wanted;
  for (const auto& [id, patch] : patches_of(build, s->part)) {
    if (id == surface) wanted = patch;
    patches.push_back(patch);
  }
  return is_shoulder(wanted, patches);
}

StockForm form_of(const Build& build, Id part) {
  const auto kept = build.stock_of(part);
  return kept ? kept->second.form : StockForm::casting;
}

bool needs_touches(const Build& build, Id part) {
  return is_raw(form_of(build, part));
}

bool made_from_solid(const Build& build, Id surface) {
  const auto* s = build.find<PartSurface>(surface);
  if (s == nullptr) return false;
  const auto form = form_of(build, s->part);
  if (s->from_solid) return true;
  if (!is_hole(s->kind) || is_raw(form) || form == StockForm::bought) return false;
  if (form != StockForm::tube) return true;
  const auto in = in_stock(build, s->part, surface);
  return in && !StockBody(in->stock, in->box)
                    .over_bore(in->wanted.shape); // of a tube without sizes nothing is known
}

std::vector<std::pair<Id, Patch>> patches_of(const Build& build, Id part) {
  std::vector<Id> ids;
  std::vector<Patch> patches;
  for (const auto& [id, s] : build.surfaces_of(part)) {
    ids.push_back(id);
    patches.push_back(s.patch());
  }
  patches = with_extents(std::move(patches));
  std::vector<std::pair<Id, Patch>> out;
  for (std::size_t k = 0; k < ids.size(); ++k) out.emplace_back(ids[k], patches[k]);
  if (build.bodies_of(part).empty()) return out;
  std::set<std::pair<Id, solid::FaceOf>> named;
  for (const auto& [id, s] : build.surfaces_of(part))
    if (s.body != 0) named.insert({s.body, s.face_of()});
  for (const auto& body : solid::place_bodies(build, part)) {
    if (body.form.cut || solid::works_edges(body.form.shape) || solid::is_mark(body.form.shape)) continue;
    for (const auto& face : solid::faces_of(body))
      if (face.face != BodyFace::middle && !named.contains({body.id, face.face_of()}))
        out.emplace_back(0, solid::lying_on({}, face, body.form).patch());
  }
  return out;
}

std::vector<Patch> shape_of(const Build& build, Id part) {
  std::vector<Patch> shape;
  for (const auto& [id, patch] : patches_of(build, part)) shape.push_back(patch);
  return shape;
}

std::optional<RawMetal> raw_metal(const Build& build, Id piece, Id surface) {
  const auto* of = build.find<Piece>(piece);
  const auto* s = build.find<PartSurface>(surface);
  if (of == nullptr || s == nullptr || needs_touches(build, of->part) || made_from_solid(build, surface))
    return std::nullopt;
  const auto sized = by_sizes(build, of->part, surface);
  if (const auto read = read_across(build, piece, surface)) {
    const auto* other = build.find<PartSurface>(read->other);
    double share = other->machined ? 0.5 : 1;
    if (const auto there = by_sizes(build, of->part, read->other); sized && there && other->machined) {
      const double here = std::max(0.0, sized->most), both = here + std::max(0.0, there->most);
      if (both > 0) share = here / both;
    }
    RawMetal out;
    out.read = true;
    out.most = out.least = share * read->over;
    out.sum.title = "metal on " + s->name;
    const double apart = std::abs((s->point - other->point).dot(s->direction));
    out.sum.lines = {{fmt::format("read across to {}", other->name), read->over + apart, "reading"},
                     {"less the finished distance", -apart, "drawing"}};
    if (share < 1)
      out.sum.lines.push_back({"less the share of " + other->name, -(1 - share) * read->over, "stock"});
    return out;
  }
  if (!sized) return std::nullopt;
  RawMetal out{sized->least, sized->most, false, {}};
  out.sum.title = "metal on " + s->name;
  out.sum.lines = {{"from the finished surface to the outside of the stock", sized->most, "stock"}};
  return out;
}

Edit set_stock(const Build& build, const Stock& stock, const std::string& what) {
  const auto* part = build.find<Part>(stock.part);
  if (part == nullptr) return build::is_gone();
  return keep_one(build, build.stock_of(stock.part), stock, what + " of " + part->name);
}

Sides sides_of(const Build& build, const Stock& stock) {
  const auto box = finished_box(shape_of(build, stock.part), axes_of(stock));
  Sides out;
  out.known = box.known;
  for (int k = 0; k < 3; ++k) {
    const double spare = size_along(stock, k) - box.size()[k];
    out.low[k] = spare / 2 - stock.shift[k];
    out.high[k] = spare / 2 + stock.shift[k];
  }
  return out;
}

Stock put_in(const Build& build, Stock stock, int k, Put put, double low) {
  if (k < 0 || k > 2) return stock;
  stock.shift[k] = 0;
  const double half = sides_of(build, stock).low[k]; // what each side has when centred
  switch (put) {
  case Put::centred:
    break;
  case Put::against_low:
    stock.shift[k] = half;
    break;
  case Put::against_high:
    stock.shift[k] = -half;
    break;
  case Put::shared:
    stock.shift[k] = half - low;
    break;
  }
  return stock;
}

std::string stock_text(const Stock& s, Unit unit) {
  const auto form = std::string(shown_word(s.form));
  if (is_raw(s.form) || s.form == StockForm::bought) return form;
  const auto text = [unit](double mm) { return length_entry_text(mm, unit); };
  std::string size = text(s.width);
  if (s.form == StockForm::tube) size += fmt::format(" \u00D7 {} bore", text(s.bore));
  if (s.thick > 0 && !(s.form == StockForm::round || s.form == StockForm::square ||
                       s.form == StockForm::hexagon || s.form == StockForm::tube))
    size += fmt::format(" \u00D7 {}", text(s.thick));
  return fmt::format("{} {}, {} long", size, form, text(s.length));
}

} // namespace datrin::stock
