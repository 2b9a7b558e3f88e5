// Every sum answered in millimetres and in inches gives the same thing: nothing in it depends on the dial.

#include "bench/sums.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

using namespace datrin;
using namespace datrin::bench;

namespace {

SumValue value_for(const SumField& f, std::mt19937& random) {
  std::uniform_real_distribution<double> size(2, 30), angle(0.1, 1.2), number(1, 300);
  std::uniform_int_distribution<int> count(3, 12);
  switch (f.quantity) {
  case Quantity::length:
    return {true, size(random), {}};
  case Quantity::angle:
    return {true, angle(random), {}};
  case Quantity::count:
    return {true, static_cast<double>(count(random)), {}};
  case Quantity::number:
    return {true, number(random), {}};
  case Quantity::choice:
    return {true, 0, f.choices.back()};
  case Quantity::lengths:
    return f.may_be_empty ? SumValue{}
                          : SumValue{true, 0, f.name == "Thread" ? "M6" : "10 mm + 11 mm + 12 mm"};
  }
  return {};
}

} // namespace

TEST(SumsInBothUnits, TheDialChangesNoAnswer) {
  std::mt19937 random(17);
  int answered = 0;
  for (const auto& sum : sums())
    for (int round = 0; round < 20; ++round) {
      std::vector<SumValue> values;
      for (const auto& f : sum.fields) values.push_back(value_for(f, random));
      const auto mm = answer(sum, values, Unit::mm), inch = answer(sum, values, Unit::inch);
      // Sums that choose a drill choose it from the drawer of the dial: there the figures may differ.
      const bool of_the_drawer =
          sum.id.find("drill") != std::string::npos || sum.id.find("ream") != std::string::npos;
      if (of_the_drawer) continue;
      ASSERT_EQ(mm.ok, inch.ok) << sum.id;
      if (!mm.ok) {
        EXPECT_FALSE(mm.message.empty()) << sum.id;
        continue;
      }
      ++answered;
      ASSERT_EQ(mm.lines.size(), inch.lines.size()) << sum.id;
      for (std::size_t k = 0; k < mm.lines.size(); ++k) {
        EXPECT_EQ(mm.lines[k].label, inch.lines[k].label) << sum.id;
        EXPECT_NEAR(mm.lines[k].value, inch.lines[k].value, 1e-9 * std::max(1.0, std::abs(mm.lines[k].value)))
            << sum.id << " " << mm.lines[k].label;
      }
    }
  EXPECT_GT(answered, 200);
}

TEST(SumsInBothUnits, WhatMayStayEmptyMay) {
  std::mt19937 random(18);
  for (const auto& sum : sums()) {
    std::vector<SumValue> values;
    for (const auto& f : sum.fields) values.push_back(f.may_be_empty ? SumValue{} : value_for(f, random));
    const auto a = answer(sum, values);
    EXPECT_EQ(a.message.find("is missing"), std::string::npos) << sum.id << ": " << a.message;
  }
}

TEST(SumsInBothUnits, EveryAnswerSaysHowOrWhat) {
  std::mt19937 random(19);
  for (const auto& sum : sums()) {
    EXPECT_FALSE(sum.group.empty()) << sum.id;
    EXPECT_FALSE(sum.title.empty()) << sum.id;
    std::vector<SumValue> values;
    for (const auto& f : sum.fields) {
      EXPECT_FALSE(f.name.empty()) << sum.id;
      values.push_back(value_for(f, random));
    }
    for (const auto& l : answer(sum, values).lines) {
      EXPECT_FALSE(l.label.empty()) << sum.id;
      EXPECT_TRUE(std::isfinite(l.value)) << sum.id << " " << l.label;
    }
  }
}
