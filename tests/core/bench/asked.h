#pragma once
// A sum asked as the command line asks it.

#include "bench/sum_values.h"

#include <gtest/gtest.h>

#include <cmath>
#include <string>
#include <utility>
#include <vector>

namespace datrin::test {

/// An answer by its fields' and lines' keys, as the command line gives and takes them.
class Asked {
public:
  Asked(const char* id, std::vector<std::pair<std::string, std::string>> typed, Unit unit = Unit::mm) {
    const auto* sum = bench::sum_called(id);
    EXPECT_NE(sum, nullptr) << id;
    if (!sum) return;
    std::vector<bench::SumValue> values(sum->fields.size());
    LengthOptions lengths;
    lengths.bare_unit = unit;
    for (const auto& [key, text] : typed) {
      bool known = false;
      for (std::size_t k = 0; k < sum->fields.size(); ++k)
        if (bench::key_of(sum->fields[k]) == key) {
          const auto read = bench::read_value(sum->fields[k], text, lengths);
          EXPECT_TRUE(read.ok()) << key << ": " << read.wrong;
          values[k] = read.value;
          known = true;
        }
      EXPECT_TRUE(known) << id << " " << key;
    }
    answer = bench::answer(*sum, values, unit);
    keys = bench::keys_of(answer);
  }
  double operator[](const std::string& key) const {
    for (std::size_t k = 0; k < keys.size(); ++k)
      if (keys[k] == key) return answer.lines[k].value;
    ADD_FAILURE() << key << " " << answer.message;
    return NAN;
  }
  bench::SumAnswer answer;
  std::vector<std::string> keys;
};

} // namespace datrin::test
