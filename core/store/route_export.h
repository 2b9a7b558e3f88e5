#pragma once
// The route of a part written for other programs: JSON (format datrin-route) and CSV, one operation a row.
// Lengths mm, minutes.

#include "route/card.h"

#include <string>

namespace datrin::store {

std::string route_json(const route::RouteCard& card);

/// Columns: number, operation, setup, machine, held, with, size_mm, minutes, after, note. UTF-8, commas.
std::string route_csv(const route::RouteCard& card);

} // namespace datrin::store
