// datrin-cli sum, and length with the whole grammar: ids, keys and units as the exchange format fixes them.

#include "tests/cli/call.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

using datrin::test::call;
using nlohmann::json;

TEST(CliSum, ListsEverySumWithItsFields) {
  const auto all = json::parse(call({"sum", "--list"}).out);
  ASSERT_TRUE(all.is_array());
  const auto fields = [&](const std::string& id) {
    std::vector<std::string> keys;
    for (const auto& sum : all)
      if (sum["id"] == id)
        for (const auto& field : sum["fields"]) keys.push_back(field["field"]);
    return keys;
  };
  using Keys = std::vector<std::string>;
  EXPECT_EQ(fields("creep"), (Keys{"mate", "clearance", "of", "step"}));
  EXPECT_EQ(fields("bolt-circle"), (Keys{"circle", "holes", "start", "x", "y"}));
  EXPECT_EQ(fields("taper"), (Keys{"large", "small", "length", "per_foot", "one_in", "included", "side"}));
  EXPECT_EQ(fields("sine-bar"), (Keys{"length", "angle"}));
  for (const char* key : {"diameter", "m_per_min", "ft_per_min", "rpm", "speeds"}) {
    const auto keys = fields("speed");
    EXPECT_NE(std::find(keys.begin(), keys.end(), key), keys.end()) << key;
  }
}

// By hand: 1.25 in falls by 1 in 20 over 2 in to 1.15 in.
TEST(CliSum, AnswersInTheUnitAskedFor) {
  const auto run = call({"sum", "taper", "large=1 1/4", "length=2", "one_in=20", "--unit", "in"});
  ASSERT_EQ(run.status, 0) << run.err;
  const auto result = json::parse(run.out);
  EXPECT_EQ(result["id"], "taper");
  EXPECT_NEAR(result["answers"]["small"].get<double>(), 1.15, 1e-12);
  EXPECT_NEAR(result["answers"]["per_foot"].get<double>(), 0.6, 1e-12);
  EXPECT_NEAR(result["answers"]["included"].get<double>(), 2.8642, 1e-4); // degrees
  EXPECT_EQ(result["how"]["small"], "large \u2212 taper \u00B7 length");
  const auto mm = json::parse(call({"sum", "taper", "large=1 1/4 in", "length=2 in", "one_in=20"}).out);
  EXPECT_NEAR(mm["answers"]["small"].get<double>(), 1.15 * 25.4, 1e-9);
  const auto creep =
      json::parse(call({"sum", "creep", "mate=20", "clearance=0.04", "of=shaft", "step=0.01"}).out);
  EXPECT_NEAR(creep["answers"]["try_1"].get<double>(), 20.01, 1e-9);
  EXPECT_NEAR(creep["answers"]["try_6"].get<double>(), 19.96, 1e-9);
  const auto speed = json::parse(call({"sum", "speed", "diameter=25", "rpm=380", "speeds=95 380"}).out);
  EXPECT_NEAR(speed["answers"]["m_per_min"].get<double>(), 29.845, 1e-3);
  EXPECT_EQ(speed["answers"]["nearest"], 380);
  EXPECT_FALSE(speed["answers"].contains("rpm"));
  EXPECT_NE(call({"sum", "taper", "one_in=20", "--text"}).out.find("included angle"), std::string::npos);
}

TEST(CliSum, RefusesInOneLineAndPrintsNothing) {
  const std::pair<std::vector<std::string>, std::string> refusals[] = {
      {{"sum", "tapr"},
       "sum: there is no sum \"tapr\" (did you mean \"taper\"?); datrin-cli sum --list has them all\n"},
      {{"sum", "sine-bar", "length=5 in", "angel=10"},
       "sum: sine-bar: \"angel=10\" is not field=value with a field of it; they are length, angle\n"},
      {{"sum", "sine-bar", "length=5 in"}, "sum: sine-bar: Angle is missing\n"},
      {{"sum", "sine-bar", "length=5 in", "length=6 in"}, "sum: sine-bar: length is given twice\n"},
      {{"sum", "sine-bar", "length=2 in * 3 in", "angle=10"},
       "sum: sine-bar: length: that is an area; a length is wanted\n"},
      {{"sum", "creep", "mate=20", "of=key"}, "sum: creep: What is cut: write hole or shaft\n"},
      {{"sum", "taper", "one_in=20", "--unit", "furlong"},
       "sum: --unit: there is no unit called \"furlong\"; it is \"mm\" or \"in\"\n"},
  };
  for (const auto& [arguments, message] : refusals) {
    const auto run = call(arguments);
    EXPECT_EQ(run.status, 2) << message;
    EXPECT_EQ(run.out, "");
    EXPECT_EQ(run.err, message);
  }
}

// 5/16-18 is tapped 17/64 in the usual list; half of it and 5 in at an eighth to the foot.
TEST(CliLength, TheWholeGrammar) {
  const auto inches = [](const std::string& text) {
    const auto run = call({"length", text});
    EXPECT_EQ(run.status, 0) << text << ": " << run.err;
    return run.status == 0 ? json::parse(run.out)["in"].get<double>() : 0;
  };
  EXPECT_NEAR(inches("0.125 in/ft \u00D7 5 in"), 0.125 * 5 / 12, 1e-12);
  EXPECT_NEAR(inches("sqrt((3 in)^2 + (4 in)^2)"), 5, 1e-12);
  EXPECT_NEAR(inches("(1 3/8 in - 12 thou) / 2"), 0.6815, 1e-12);
  EXPECT_NEAR(inches("2 x 1/4-20 tap"), 2 * 0.201, 1e-9); // no. 7
  EXPECT_NEAR(inches("1 in x sin(30)"), 0.5, 1e-12);
  EXPECT_EQ(call({"length", "2 in \u00D7 3 in"}).err,
            "length: column 1: that is an area; a length is wanted\n");
  EXPECT_EQ(call({"length", "2 in / 1 in"}).err,
            "length: column 1: that is a bare number, 2.0000; a length is wanted\n");
}
