#pragma once
// `datrin-cli sum`: the sums of the bench by their ids and the keys of their fields.

#include <iosfwd>
#include <string>
#include <vector>

namespace datrin::cli {

struct SumCall {
  std::string id, unit;
  std::vector<std::string> values; ///< "field=text"
  bool list = false, as_text = false;
};

int run_sum(const SumCall& call, std::ostream& out, std::ostream& err);

} // namespace datrin::cli
