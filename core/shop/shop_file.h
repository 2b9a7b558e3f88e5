#pragma once
// A shop by itself, to be taken into another build: JSON (format datrin-shop) and CSV, one thing a row under
// the names of what is said of it; lengths mm.

#include "build/edits.h"

#include <string>
#include <string_view>

namespace datrin::shop {

std::string shop_json(const build::Build& build);

/// Columns: sheet ("machine", "tool"), then every field of any of them: as a sheet shows it, to the last
/// digit; what no sheet shows (the place in the list, the sizes a tool made) as JSON. Taken again, nothing
/// differs.
std::string shop_csv(const build::Build& build);

/// What a file says taken into the build: of the same kind and name what is there is changed to it, else it
/// is added. The build keeps what it had besides. `wrong` names the place of what cannot be read; then
/// nothing is taken.
struct ShopRead {
  build::Edit edit;
  int added = 0, changed = 0, same = 0;
  std::string wrong;
  bool ok() const { return wrong.empty(); }
};
ShopRead take_shop(const build::Build& build, std::string_view text, const std::string& label);

} // namespace datrin::shop
