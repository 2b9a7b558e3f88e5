#pragma once
// The command line called as a program would be: its words in, its answer and its exit status out.

#include "commands.h"

#include <sstream>
#include <string>
#include <vector>

namespace datrin::test {

struct Run {
  int status;
  std::string out, err;
};

inline Run call(const std::vector<std::string>& words) {
  std::vector<const char*> argv{"datrin-cli"};
  for (const auto& word : words) argv.push_back(word.c_str());
  std::ostringstream out, err;
  const int status = cli::run(static_cast<int>(argv.size()), argv.data(), out, err);
  return {status, out.str(), err.str()};
}

} // namespace datrin::test
