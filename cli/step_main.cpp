// datrin-step: reads a STEP file for the other programs, which start it, within the limits they set.

#include "solid/step_parse.h"

#include <sys/prctl.h>
#include <sys/resource.h>

#include <charconv>
#include <csignal>
#include <cstring>
#include <exception>
#include <iostream>
#include <new>
#include <system_error>

namespace {

bool number(const char* word, unsigned long long& value) {
  const auto* end = word + std::strlen(word);
  const auto read = std::from_chars(word, end, value);
  return read.ec == std::errc() && read.ptr == end;
}

void limit(int what, unsigned long long most) {
  const rlimit both{static_cast<rlim_t>(most), static_cast<rlim_t>(most)};
  setrlimit(static_cast<__rlimit_resource_t>(what), &both);
}

} // namespace

int main(int argc, char** argv) {
  unsigned long long seconds = 0, memory = 0, bytes = 0, only = 0;
  if (argc != 5 || !number(argv[1], seconds) || !number(argv[2], memory) || !number(argv[3], bytes) ||
      !number(argv[4], only)) {
    std::cerr << "datrin-step reads STEP files for datrin and datrin-cli, which start it\n";
    return 2;
  }
  prctl(PR_SET_PDEATHSIG, SIGKILL);
  limit(RLIMIT_CORE, 0);
  limit(RLIMIT_CPU, seconds);
#ifndef __SANITIZE_ADDRESS__ // it takes terabytes of addresses for itself
  limit(RLIMIT_AS, memory);
#endif
  limit(RLIMIT_FSIZE, memory);
  constexpr int too_much = 3;
  try {
    std::ios::sync_with_stdio(false);
    const auto wrong = datrin::solid::parse_step(std::cin, std::cout, {bytes, static_cast<int>(only)});
    if (wrong.empty()) return 0;
    std::cerr << wrong << '\n';
    return 1;
  } catch (const std::bad_alloc&) {
    return too_much;
  } catch (const std::exception& failed) {
    std::cerr << "cannot be read (" << failed.what() << ")\n";
    return 1;
  }
}
