#pragma once
// What a part of a build is made from, and the metal that leaves over each of its surfaces. What was read
// across the piece before anything was cut counts at once. Lengths mm.

#include "build/edits.h"
#include "quantity/reckoning.h"
#include "stock/stock_body.h"

#include <optional>
#include <string>

namespace datrin::stock {

/// Of a part without one: a casting.
StockForm form_of(const build::Build& build, build::Id part);

/// Whether the metal over its surfaces is known by touches; else by the sizes of its stock.
bool needs_touches(const build::Build& build, build::Id part);

/// Whether nothing of a surface is there before it is cut: said of it, or a hole in bar, plate or block,
/// which has none but the bore of a tube.
bool made_from_solid(const build::Build& build, build::Id surface);

/// Whether a face is a shoulder of its part: it comes about when what stands on it is cut.
bool is_shoulder(const build::Build& build, build::Id surface);

/// What there is over a surface of a piece before anything is cut.
struct RawMetal {
  double least = 0, most = 0; ///< mm a side
  bool read = false;          ///< from a reading across the piece; else from the sizes of the stock
  Reckoning sum;              ///< of `most`
};

/// Nothing where the part is cast or bought, its sizes are not all stated, or the surface is made from solid
/// or a shoulder. A reading across two faces (the dimension between them, or a size read across) gives the
/// metal of both: it is shared as the stock's is, all to the one that is machined where the other is not.
std::optional<RawMetal> raw_metal(const build::Build& build, build::Id piece, build::Id surface);

/// Surfaces with extents, in drawing order; then, under no id, the faces of bodies that are none: what the
/// part fills.
std::vector<std::pair<build::Id, Patch>> patches_of(const build::Build& build, build::Id part);

/// The same without ids: what must be held.
std::vector<Patch> shape_of(const build::Build& build, build::Id part);

/// The stock of a part kept: "Made from 25 mm round: Spindle".
build::Edit set_stock(const build::Build& build, const Stock& stock, const std::string& what);

/// How a part is put in its stock, along one of its three directions.
enum class Put { centred, against_low, against_high, shared };

/// The stock with the part put so along direction `k` (0 length, 1 width, 2 thickness): against a side no
/// metal is left there; shared: `low` mm on the low side.
Stock put_in(const build::Build& build, Stock stock, int k, Put put, double low = 0);

/// The metal on the low and the high side along each direction of the stock: what `put_in` shares out.
struct Sides {
  Vec3 low = Vec3::Zero(), high = Vec3::Zero();
  bool known = false;
};
Sides sides_of(const build::Build& build, const Stock& stock);

/// "25 mm round bar, 60 mm long".
std::string stock_text(const Stock& stock, Unit unit);

} // namespace datrin::stock
