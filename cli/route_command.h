#pragma once
// datrin-cli route and spread: the order of operations, and what turn-overs cost.

#include <iosfwd>
#include <string>

namespace datrin::cli {

int run_route(const std::string& path, bool as_text, std::ostream& out, std::ostream& err);
int run_spread(const std::string& path, bool as_text, std::ostream& out, std::ostream& err);

} // namespace datrin::cli
