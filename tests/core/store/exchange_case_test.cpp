// The targets and chain cases as files: what is refused, and where.
#include "store/chain_case.h"
#include "store/targets_case.h"

#include <gtest/gtest.h>

using namespace datrin;

namespace {

nlohmann::json good_targets() {
  return nlohmann::json::parse(R"({"format":"datrin-targets-case","version":1,"unit":"in","title":"t",
    "dimensions":[{"id":"bore","nominal":1,"lower":1,"upper":1.001,"measured":1.002,"uncertainty":0.0001},
                  {"id":"pin","nominal":1,"lower":0.99,"upper":1.01,"capability":0.0002}],
    "conditions":[{"id":"run","terms":[{"dimension":"bore","coefficient":1},{"dimension":"pin","coefficient":-1}],"min":0.001,"max":0.002}]})");
}

nlohmann::json good_chain() {
  return nlohmann::json::parse(R"({"format":"datrin-chain-case","version":1,"unit":"in",
    "terms":[{"id":"a","coefficient":1,"nominal":1,"plus":0.01,"minus":0.01,"distribution":"uniform"}],
    "lower":0.99,"upper":1.01,"samples":1000,"seed":3})");
}

std::string refusal(const nlohmann::json& c) {
  const auto text = c.dump();
  return c["format"] == "datrin-chain-case" ? store::read_chain_case(text, "f").message
                                            : store::read_targets_case(text, "f").message;
}

} // namespace

TEST(ExchangeCase, InchesGoInAndComeOut) {
  const auto read = store::read_targets_case(good_targets().dump(), "f");
  ASSERT_TRUE(read.ok()) << read.message;
  const auto result = chains::targets(read.input);
  const auto json = store::targets_result_json(read, result);
  EXPECT_NEAR(json["targets"][0]["make"].get<double>(), 1.0005, 1e-9);
  EXPECT_NEAR(json["targets"][0]["hold"].get<double>(), 0.0002 * (0.0005 / 0.0003), 1e-9);
  EXPECT_NEAR(json["conditions"][0]["expected"].get<double>(), 0.0015, 1e-9);
  EXPECT_EQ(json["unit"], "in");
  EXPECT_NE(store::targets_result_text(read, result).find("It can be made"), std::string::npos);
  const auto chain = store::read_chain_case(good_chain().dump(), "f");
  ASSERT_TRUE(chain.ok()) << chain.message;
  const auto out = store::chain_result_json(chain, chains::chain(chain.input, chain.options));
  EXPECT_NEAR(out["worst_case"][0].get<double>(), 0.99, 1e-12);
  EXPECT_NE(store::chain_result_text(chain, chains::chain(chain.input, chain.options)).find("of 1000 tries"),
            std::string::npos);
}

TEST(ExchangeCase, EveryRuleNamesItsPlace) {
  auto c = good_targets();
  c["dimensions"][1].erase("capability");
  EXPECT_EQ(refusal(c).substr(0, 28), "f: /dimensions/1/capability:");
  c = good_targets();
  c["dimensions"][1]["capability"] = 0;
  EXPECT_EQ(refusal(c), "f: /dimensions/1/capability: must be above 0");
  c = good_targets();
  c["dimensions"][1]["id"] = "bore";
  EXPECT_EQ(refusal(c), "f: /dimensions/1/id: two dimensions are called \"bore\"");
  c = good_targets();
  c["dimensions"][0]["lower"] = 2;
  EXPECT_EQ(refusal(c), "f: /dimensions/0/lower: must not be above upper");
  c = good_targets();
  c["conditions"][0]["terms"][1]["dimension"] = "pim";
  EXPECT_EQ(refusal(c),
            "f: /conditions/0/terms/1/dimension: no dimension is called \"pim\" (did you mean \"pin\"?)");
  c = good_targets();
  c["conditions"][0]["min"] = 0.003;
  EXPECT_EQ(refusal(c), "f: /conditions/0/min: must not be above max");
  c = good_targets();
  c["conditions"][0].erase("min");
  c["conditions"][0].erase("max");
  EXPECT_EQ(refusal(c), "f: /conditions/0: must have a min or a max");
  c = good_targets();
  c["conditions"][0]["terms"] = nlohmann::json::array();
  EXPECT_EQ(refusal(c), "f: /conditions/0/terms: must have at least one term");
  c = good_targets();
  c["dimensions"] = nlohmann::json::array();
  EXPECT_EQ(refusal(c), "f: /dimensions: must have at least one dimension");
  c = good_targets();
  c["unit"] = "furlong";
  EXPECT_EQ(refusal(c), "f: /unit: there is no unit called \"furlong\"; it is \"mm\" or \"in\"");
  c = good_targets();
  c["extra"] = 1;
  EXPECT_NE(refusal(c).find("extra"), std::string::npos);
  c = good_chain();
  c["terms"][0]["plus"] = -1;
  EXPECT_EQ(refusal(c).substr(0, 17), "f: /terms/0/plus:");
  c = good_chain();
  c["terms"][0]["distribution"] = "flat";
  EXPECT_NE(refusal(c).find("there is no distribution called \"flat\""), std::string::npos);
  c = good_chain();
  c["lower"] = 2;
  EXPECT_EQ(refusal(c), "f: /lower: must not be above upper");
  c = good_chain();
  c["samples"] = 1.5;
  EXPECT_NE(refusal(c).find("/samples: must be a whole number"), std::string::npos);
  c["samples"] = 0; // was answered "it closes in 0 %"
  EXPECT_NE(refusal(c).find("/samples: must be a whole number from 1 to 1000000000"), std::string::npos);
  c = good_chain();
  c["terms"].push_back(c["terms"][0]);
  EXPECT_EQ(refusal(c), "f: /terms/1/id: two terms are called \"a\"");
  c = good_chain();
  c["version"] = 2;
  EXPECT_EQ(refusal(c), "f: /version: must be 1, the only version there is");
}

TEST(ExchangeCase, HalfAFileIsRefused) {
  const auto whole = good_targets().dump();
  for (std::size_t cut = 0; cut < whole.size(); cut += 7)
    EXPECT_FALSE(store::read_targets_case(whole.substr(0, cut), "f").ok());
  EXPECT_FALSE(store::read_targets_case_file("/nowhere/x.json").ok());
  EXPECT_FALSE(store::read_chain_case(std::string("\xFF\xFE"), "f").ok());
}
