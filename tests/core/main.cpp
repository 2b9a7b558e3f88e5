#include "tests/locale.h"

#include <gtest/gtest.h>

int main(int argc, char** argv) {
  testing::InitGoogleTest(&argc, argv);
  return datrin::test::locale_of_environment() ? RUN_ALL_TESTS() : 1;
}
