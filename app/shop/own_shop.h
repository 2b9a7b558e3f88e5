#pragma once
// The shop of the person at this computer, kept beside the builds so that each can take it: a file in the
// format a shop is written in (docs/route.md).

#include <QString>

namespace datrin::app {

/// Where it is kept: shop.json in the data folder of this program.
QString own_shop_path();

/// When it was kept last, in local time; empty: none is.
QString own_shop_kept();

} // namespace datrin::app
