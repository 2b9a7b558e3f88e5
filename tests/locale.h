#pragma once
// The tests run once more where a comma is the decimal mark, in the locale the environment names
// (tests/CMakeLists.txt).

#include <clocale>
#include <cstdio>
#include <cstdlib>
#include <locale>
#include <stdexcept>

namespace datrin::test {

inline bool in_comma_locale() {
  return std::getenv("DATRIN_TEST_COMMA") != nullptr;
}

/// Takes C's and C++'s locale from the environment where the tests of a comma locale ask for it. False, with
/// a line on standard error, when a comma is not the decimal mark then: the tests would say nothing.
inline bool locale_of_environment() {
  if (!in_comma_locale()) return true;
  const char* name = std::setlocale(LC_ALL, "");
  if (name == nullptr || *std::localeconv()->decimal_point != ',') {
    std::fprintf(stderr, "the locale of the environment has no decimal comma\n");
    return false;
  }
  try {
    std::locale::global(std::locale(""));
  } catch (const std::runtime_error&) {
    std::fprintf(stderr, "the locale of the environment is not there\n");
    return false;
  }
  return true;
}

} // namespace datrin::test
