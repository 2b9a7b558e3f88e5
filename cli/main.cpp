#include "commands.h"

#include <iostream>

#include <fcntl.h>

int main(int argc, char** argv) {
  // Where standard output is closed, the next file opened would take its place and be written into.
  for (int file = 0; file <= 2; ++file)
    if (::fcntl(file, F_GETFD) == -1) (void)::open("/dev/null", file == 0 ? O_WRONLY : O_RDONLY);
  return datrin::cli::run(argc, argv, std::cout, std::cerr);
}
