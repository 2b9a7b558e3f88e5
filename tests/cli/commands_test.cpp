#include "tests/cli/call.h"

#include "store/build_json.h"

#include <fmt/format.h>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>
#include <fstream>

#include <unistd.h>

using nlohmann::json;

namespace {

using datrin::test::call;

std::string case_path(const std::string& name) {
  return std::string(DATRIN_TEST_CASES) + "/" + name + ".json";
}

} // namespace

TEST(CliSeat, YesAndNoByExitStatus) {
  const auto yes = call({"seat", case_path("seat-1-clean")});
  EXPECT_EQ(yes.status, 0);
  EXPECT_TRUE(yes.err.empty()) << yes.err;
  const auto result = json::parse(yes.out);
  EXPECT_EQ(result["format"], "datrin-seat-result");
  EXPECT_EQ(result["cleans_up"], true);
  EXPECT_NEAR(result["least_margin"].get<double>(), 0.965875, 1e-5);
  EXPECT_EQ(result["undetermined"], json::array());

  const auto no = call({"seat", case_path("seat-3-short-stock")});
  EXPECT_EQ(no.status, 1);
  EXPECT_EQ(json::parse(no.out)["cleans_up"], false);
}

TEST(CliSeat, TextForPeople) {
  const auto text = call({"seat", "--text", case_path("seat-3-short-stock")});
  EXPECT_EQ(text.status, 1);
  EXPECT_NE(text.out.find("It does not clean up: the least margin is \u22120.229 mm"), std::string::npos)
      << text.out;
  EXPECT_NE(text.out.find("Checked: what holds it is in balance"), std::string::npos);
}

TEST(CliSeat, RefusedInputPrintsNothingOnStandardOutput) {
  const auto path = std::filesystem::temp_directory_path() / "datrin-cli-bad.json";
  std::ofstream(path)
      << R"({"format":"datrin-seat-case","version":1,"unit":"furlong","surfaces":[],"points":[]})";
  const auto run = call({"seat", path.string()});
  std::filesystem::remove(path);
  EXPECT_EQ(run.status, 2);
  EXPECT_TRUE(run.out.empty());
  EXPECT_EQ(run.err,
            path.string() + ": /unit: there is no unit called \"furlong\"; it is \"mm\" or \"in\"\n");
}

TEST(CliSeat, TwoTouchesAreJudgedUndetermined) {
  const auto path = std::filesystem::temp_directory_path() / "datrin-cli-two.json";
  std::ofstream(path) << R"({"format":"datrin-seat-case","version":1,"unit":"mm","surfaces":[
    {"id":"foot","kind":"plane","point":[0,0,0],"normal":[0,0,-1],"finish":"machined","required":0.5}],
    "points":[{"surface":"foot","xyz":[0,0,-1]},{"surface":"foot","xyz":[30,0,-1]}]})";
  const auto run = call({"seat", path.string()});
  std::filesystem::remove(path);
  EXPECT_EQ(run.status, 1);
  const auto result = json::parse(run.out);
  EXPECT_TRUE(result["least_margin"].is_null());
  EXPECT_EQ(result["cleans_up"], false);
  const auto free = result["undetermined"].get<std::vector<std::string>>();
  EXPECT_NE(std::find(free.begin(), free.end(), "moving along x"), free.end());
  EXPECT_NE(std::find(free.begin(), free.end(), "turning about z"), free.end());
  EXPECT_NE(std::find(free.begin(), free.end(), "moving along z"), free.end());
}

TEST(CliLength, PrintsBothUnits) {
  const auto run = call({"length", "1 3/8 in"});
  EXPECT_EQ(run.status, 0);
  EXPECT_EQ(json::parse(run.out), (json{{"mm", 34.925}, {"in", 1.375}}));
  EXPECT_DOUBLE_EQ(json::parse(call({"length", "3 mm + 9/16 in + 3.5 mm"}).out)["mm"].get<double>(), 20.7875);
  EXPECT_DOUBLE_EQ(json::parse(call({"length", "--unit", "in", "1/2"}).out)["mm"].get<double>(), 12.7);
  EXPECT_DOUBLE_EQ(json::parse(call({"length", "--", "-0.5 mm"}).out)["mm"].get<double>(), -0.5);
}

TEST(CliLength, RefusesOnOneLine) {
  const auto run = call({"length", "3"});
  EXPECT_EQ(run.status, 2);
  EXPECT_TRUE(run.out.empty());
  EXPECT_EQ(run.err, "length: column 2: 3 has no unit; write mm or in after it\n");
  EXPECT_EQ(call({"length", "3", "--unit", "ft"}).status, 2);
}

TEST(Cli, CallsThatAreOff) {
  EXPECT_EQ(call({}).status, 2);
  EXPECT_EQ(call({"saet", "x"}).status, 2);
  EXPECT_EQ(call({"seat"}).status, 2);
  EXPECT_EQ(call({"--help"}).status, 0);
  EXPECT_NE(call({"--help"}).out.find("seat"), std::string::npos);
}

TEST(CliBuild, ExportAndImportGiveTheSameBuild) {
  namespace fs = std::filesystem;
  const auto folder = fs::temp_directory_path() / ("datrin-cli-" + std::to_string(::getpid()));
  fs::remove_all(folder);
  fs::create_directories(folder);
  const auto json_path = std::string(DATRIN_TEST_CASES) + "/../fuzz/corpus/build_json/small.json";
  const auto build = (folder / "b.datrin").string(), out = (folder / "b.json").string();
  EXPECT_EQ(call({"import", json_path, build}).status, 0);
  EXPECT_EQ(call({"export", build, out}).status, 0);
  std::ifstream a(json_path), b(out);
  EXPECT_EQ(json::parse(a), json::parse(b));
  const auto again = call({"import", json_path, build});
  EXPECT_EQ(again.status, 2);
  EXPECT_EQ(again.err, build + " is there already; open it, or choose another name\n");
  EXPECT_EQ(call({"import", build, (folder / "c.datrin").string()}).status, 2); // not JSON
  const auto none = call({"export", (folder / "none.datrin").string()});
  EXPECT_EQ(none.status, 2);
  EXPECT_EQ(none.err, (folder / "none.datrin").string() + " is not there\n");
  EXPECT_TRUE(none.out.empty());
  EXPECT_EQ(call({"export", build, "/nowhere/x.json"}).status, 2);

  // It wrote over the build itself, and over any file that was there.
  const auto bytes = [&](const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    return std::string{std::istreambuf_iterator<char>(file), {}};
  };
  const auto whole = bytes(build), before = bytes(out);
  fs::create_symlink("b.datrin", folder / "other-name");
  for (const auto& itself : {build, (folder / "." / "b.datrin").string(), (folder / "other-name").string()})
    for (const auto& words : {std::vector<std::string>{"export", build, itself},
                              std::vector<std::string>{"export", "--force", build, itself}}) {
      const auto over = call(words);
      EXPECT_EQ(over.status, 2);
      EXPECT_EQ(over.err, itself + " is the build itself; choose another name for the JSON file\n");
    }
  EXPECT_EQ(bytes(build), whole);
  std::ofstream(out, std::ios::trunc) << "mine";
  const auto there = call({"export", build, out});
  EXPECT_EQ(there.status, 2);
  EXPECT_EQ(there.err, out + " is there already; choose another name, or write over it with --force\n");
  EXPECT_EQ(bytes(out), "mine");
  EXPECT_EQ(call({"export", "--force", build, out}).status, 0);
  EXPECT_EQ(bytes(out), before);
  fs::remove_all(folder);
}

// A hostile STEP text in a build was taken, and ended whoever opened it.
TEST(CliBuild, AnImportedPartThatCannotBeReadIsRefused) {
  namespace fs = std::filesystem;
  const auto folder = fs::temp_directory_path() / ("datrin-step-in-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const auto corpus = std::string(DATRIN_TEST_CASES) + "/../fuzz/corpus/";
  std::ifstream file(corpus + "step/line_to_nothing.step");
  const std::string step{std::istreambuf_iterator<char>(file), {}};
  auto build = datrin::store::read_build_json_file(corpus + "build_json/small.json").build;
  datrin::build::Body body;
  body.part = 2;
  body.name = "imported";
  body.shape = datrin::build::BodyShape::imported;
  body.step = step;
  build.load(9002, body);
  const auto path = (folder / "b.json").string(), to = (folder / "b.datrin").string();
  std::ofstream(path) << datrin::store::write_build_json(build, {});
  const auto came = call({"import", path, to});
  EXPECT_EQ(came.status, 2);
  EXPECT_EQ(came.err,
            path + ": record 9002, the imported body of Main pedestal: the imported part is damaged: what it "
                   "says of its part leads nowhere\n");
  EXPECT_FALSE(fs::exists(to));
  fs::remove_all(folder);
}

// Every command answered 0 with a full disk or a closed standard output behind it.
TEST(Cli, AnAnswerThatCannotBeWrittenIsNoSuccess) {
  namespace fs = std::filesystem;
  const auto folder = fs::temp_directory_path() / ("datrin-out-" + std::to_string(::getpid()));
  fs::create_directories(folder);
  const auto build = (folder / "b.datrin").string();
  ASSERT_EQ(call({"import", std::string(DATRIN_TEST_CASES) + "/../fuzz/corpus/build_json/small.json", build})
                .status,
            0);
  const auto size = fs::file_size(build);
  for (const auto& words :
       {std::string("length '1 3/8 in'"), std::string("fit '25 H7/g6'"), std::string("thread M8"),
        std::string("schema"), std::string("--help"), "seat " + case_path("seat-1-clean"),
        "targets " + case_path("targets-1-mill-engine"), "export " + build}) {
    for (const char* to : {">/dev/full", ">&-"}) {
      const auto said = (folder / "said").string();
      const auto line = fmt::format("'{}' {} {} 2>{}", DATRIN_CLI, words, to, said);
      const int status = std::system(line.c_str());
      EXPECT_EQ(WEXITSTATUS(status), 2) << words << to;
      std::ifstream file(said);
      const std::string text{std::istreambuf_iterator<char>(file), {}};
      EXPECT_EQ(std::count(text.begin(), text.end(), '\n'), 1) << text;
    }
  }
  EXPECT_EQ(fs::file_size(build), size);
  fs::remove_all(folder);
}

TEST(CliTargets, YesAndNoByExitStatus) {
  const auto yes = call({"targets", case_path("targets-1-mill-engine")});
  EXPECT_EQ(yes.status, 0) << yes.err;
  const auto result = json::parse(yes.out);
  EXPECT_EQ(result["format"], "datrin-targets-result");
  EXPECT_NEAR(result["least_room"].get<double>(), 1.666667, 1e-5);
  EXPECT_EQ(result["held_by"].size(), 2U);
  const auto no = call({"targets", case_path("targets-3-infeasible")});
  EXPECT_EQ(no.status, 1);
  EXPECT_EQ(json::parse(no.out)["feasible"], false);
  const auto text = call({"targets", "--text", case_path("targets-3-infeasible")});
  EXPECT_NE(text.out.find("What would end it\n"), std::string::npos);
  EXPECT_NE(text.out.find(" must grow by "), std::string::npos) << text.out;
  // Function first: the conditions' least room is no less than with the drawing in the same tier.
  const auto first =
      json::parse(call({"targets", "--function-first", case_path("targets-2-thirty-dimensions")}).out);
  const auto one = json::parse(call({"targets", case_path("targets-2-thirty-dimensions")}).out);
  double least_first = 1e9, least_one = 1e9;
  for (std::size_t k = 0; k < first["conditions"].size(); ++k) {
    least_first = std::min(least_first, first["conditions"][k]["room"].get<double>());
    least_one = std::min(least_one, one["conditions"][k]["room"].get<double>());
  }
  EXPECT_GE(least_first, least_one - 1e-7);
  const auto none = call({"targets", "/nowhere.json"});
  EXPECT_EQ(none.status, 2);
  EXPECT_TRUE(none.out.empty());
  const auto other = call({"targets", case_path("chain-1-six-links")});
  EXPECT_EQ(other.status, 2);
  EXPECT_NE(other.err.find("chain-1-six-links.json: "), std::string::npos) << other.err;
}

TEST(CliChain, WorkedCase) {
  const auto run = call({"chain", case_path("chain-2-eighteen-links")});
  EXPECT_EQ(run.status, 0) << run.err;
  const auto result = json::parse(run.out);
  EXPECT_NEAR(result["sigma"].get<double>(), 0.101125, 1e-6);
  EXPECT_NEAR(result["p_within"].get<double>(), 0.949, 0.002);
  EXPECT_EQ(result["contributions"].size(), 18U);
  EXPECT_EQ(call({"chain", case_path("targets-1-mill-engine")}).status, 2);
}

TEST(CliFit, LimitsClearanceAndHeat) {
  const auto fit = json::parse(call({"fit", "25 H7/g6"}).out);
  EXPECT_NEAR(fit["hole"]["upper"].get<double>(), 0.021, 1e-12);
  EXPECT_NEAR(fit["shaft"]["lower"].get<double>(), -0.020, 1e-12);
  EXPECT_NEAR(fit["clearance"]["min"].get<double>(), 0.007, 1e-12);
  EXPECT_NEAR(fit["clearance"]["max"].get<double>(), 0.041, 1e-12);
  EXPECT_EQ(fit["kind"], "clearance");
  const auto inch = json::parse(call({"fit", "1 RC4", "--unit", "in"}).out);
  EXPECT_NEAR(inch["clearance"]["max"].get<double>(), 0.0028, 1e-12);
  const auto hot = json::parse(
      call({"fit", "25 H7/g6", "--temperature", "90", "--hole", "aluminium", "--shaft", "steel"}).out);
  EXPECT_NEAR(hot["clearance_hot"]["min"].get<double>(), 0.007 + 25 * 12e-6 * 70, 1e-9);
  EXPECT_NE(call({"fit", "--text", "25 H7/s6"}).out.find("interference"), std::string::npos);
  for (const auto& words :
       std::vector<std::vector<std::string>>{{"fit", "25 H7/q6"},
                                             {"fit", "25"},
                                             {"fit", "25 H7/g6", "--unit", "furlong"},
                                             {"fit", "25 H7/g6", "--temperature", "9000"},
                                             {"fit", "25 H7/g6", "--temperature", "90", "--hole", "cheese"},
                                             {"fit"}}) {
    const auto run = call(words);
    EXPECT_EQ(run.status, 2);
    EXPECT_TRUE(run.out.empty());
    EXPECT_FALSE(run.err.empty());
  }
}

// Common practice: the tapping drill of 5/16-18 is the letter F, 0.257 in.
TEST(CliLength, ATapIsItsTappingDrill) {
  EXPECT_NEAR(json::parse(call({"length", "5/16-18 tap"}).out)["in"].get<double>(), 0.257, 1e-9);
  EXPECT_NEAR(json::parse(call({"length", "1 in - 5/16-18 tap"}).out)["in"].get<double>(), 1 - 0.257, 1e-9);
  EXPECT_NEAR(json::parse(call({"length", "M6 tap + 1 mm"}).out)["mm"].get<double>(), 6.0, 1e-9);
  EXPECT_EQ(call({"length", "5/17-18 tap"}).status, 2);
  EXPECT_EQ(call({"length", "tap"}).status, 2);
}
