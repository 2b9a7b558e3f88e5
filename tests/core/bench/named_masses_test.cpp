// Parts named where grams are asked for.

#include "bench/named_masses.h"

#include <gtest/gtest.h>

using datrin::bench::with_masses;

namespace {

const std::vector<std::string> names{"Piston", "Piston rod", "Crank pin", "Ghost"};

std::optional<double> weighs(std::size_t k) {
  if (k == 3) return std::nullopt; // nothing is known of it
  return k == 0 ? 120 : k == 1 ? 35.5 : 8.25;
}

std::string read(const std::string& text) {
  return with_masses(text, names, weighs);
}

} // namespace

TEST(NamedMasses, LongerNamesBeforeShorter) {
  EXPECT_EQ(read("Piston + piston rod"), "120.000 + 35.500");
  EXPECT_EQ(read("2 * CRANK PIN + 5"), "2 * 8.250 + 5");
  EXPECT_EQ(read("120"), "120");
  EXPECT_EQ(read(""), "");
}

TEST(NamedMasses, OnlyWholeWordsAndOnlyWhatIsKnown) {
  EXPECT_EQ(read("Pistons"), "Pistons");
  EXPECT_EQ(read("Ghost + Piston"), "Ghost + 120.000");
  EXPECT_EQ(with_masses("2 * 3", {"2", "3"}, [](std::size_t) { return std::optional(7.0); }), "2 * 3");
}
