#include "commands.h"

#include <iostream>

int main(int argc, char** argv) {
  return datrin::cli::run(argc, argv, std::cout, std::cerr);
}
