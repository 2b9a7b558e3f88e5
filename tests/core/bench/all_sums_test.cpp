// Every sum of the bench, asked with nothing, nought, less than nothing and nonsense: it answers with figures
// that are some, or refuses by the name of a field.

#include "bench/sums.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace datrin;
using namespace datrin::bench;

namespace {

void ask_all(double value, const char* text, bool given) {
  for (const auto unit : {Unit::mm, Unit::inch})
    for (const auto& sum : sums()) {
      std::vector<SumValue> values(sum.fields.size());
      for (std::size_t k = 0; k < values.size(); ++k) {
        const auto kind = sum.fields[k].quantity;
        if (kind == Quantity::choice) continue;
        values[k].given = given;
        values[k].value = value;
        values[k].text = text;
      }
      const auto found = answer(sum, values, unit);
      if (!found.ok) {
        EXPECT_NE(found.message, "") << sum.id << ' ' << value;
        EXPECT_TRUE(found.lines.empty()) << sum.id << ' ' << value;
        continue;
      }
      for (const auto& line : found.lines) {
        EXPECT_TRUE(std::isfinite(line.value)) << sum.id << ' ' << line.label << ' ' << value;
        if (line.quantity == Quantity::length) {
          EXPECT_TRUE(is_length(line.value)) << sum.id << ' ' << line.label << ' ' << line.value;
        }
      }
    }
}

} // namespace

TEST(AllSums, NothingGiven) {
  ask_all(0, "", false);
}
TEST(AllSums, Nought) {
  ask_all(0, "0", true);
  ask_all(0, "", true);
}
TEST(AllSums, LessThanNothing) {
  for (const double value : {-3.0, -1e-9, -90.0, -1e7}) ask_all(value, "-3 -3", true);
}
TEST(AllSums, Absurd) {
  for (const double value :
       {1e-300, 1.5707963267948966, 3.14159265358979, 400.0, 1e6, 1e7, 1.0000001e7, 1e12, 1e300})
    ask_all(value, "1e9 99999999999999999999 x", true);
}
TEST(AllSums, Small) {
  for (const double value : {1.0, 2.0, 3.0, 7.5}) ask_all(value, "1 2 3", true);
}

// −3 was taken for a size in some twenty sums.
TEST(AllSums, NoSizeIsBelowNothing) {
  for (const char* id : {"over-pin", "web", "ball", "split", "metal-a-side", "drill-point",
                         "square-from-round", "held-true", "edge-margin", "bushing", "gear"}) {
    const auto* sum = sum_called(id);
    ASSERT_NE(sum, nullptr) << id;
    for (std::size_t one = 0; one < sum->fields.size(); ++one) {
      if (sum->fields[one].quantity != Quantity::length) continue;
      std::vector<SumValue> values(sum->fields.size());
      for (std::size_t k = 0; k < values.size(); ++k)
        if (sum->fields[k].quantity != Quantity::choice && (k == one || !sum->fields[k].may_be_empty))
          values[k] = {true, k == one ? -3.0 : 10.0, "1"};
      const auto found = answer(*sum, values, Unit::mm);
      EXPECT_FALSE(found.ok) << id << ' ' << sum->fields[one].name;
    }
  }
}
