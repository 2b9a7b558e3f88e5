#include "store/seat_case.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::store;

namespace {

const std::string good = R"({ "format": "datrin-seat-case", "version": 1, "unit": "mm", "title": "t",
  "surfaces": [
    { "id": "foot", "kind": "plane", "point": [0,0,0], "normal": [0,0,-2], "finish": "machined", "required": 0.6 },
    { "id": "bore", "kind": "bore", "point": [0,0,38], "axis": [0,1,0], "diameter": 24.0, "finish": "machined", "required": 0.75 },
    { "id": "boss", "kind": "boss", "point": [0,0,38], "axis": [0,1,0], "diameter": 38.0, "finish": "as-cast" } ],
  "points": [ { "surface": "foot", "xyz": [1,2,3] }, { "surface": "bore", "xyz": [4,5,6], "uncertainty": 0.1 } ],
  "walls": [ { "from": "boss", "to": "bore", "least": 5.5 } ] })";

std::string with(const std::string& from, const std::string& to) {
  auto text = good;
  const auto at = text.find(from);
  EXPECT_NE(at, std::string::npos) << from;
  return text.replace(at, from.size(), to);
}

std::string message(const std::string& text) {
  return read_seat_case(text, "seat.json").message;
}

} // namespace

TEST(SeatCase, ReadsTheFormat) {
  const auto seat_case = read_seat_case(good, "seat.json");
  ASSERT_TRUE(seat_case.ok()) << seat_case.message;
  EXPECT_TRUE(seat_case.warnings.empty());
  ASSERT_EQ(seat_case.input.surfaces.size(), 3U);
  EXPECT_EQ(seat_case.input.surfaces[0].shape.direction, Vec3(0, 0, -1));
  EXPECT_FALSE(seat_case.input.surfaces[2].machined);
  EXPECT_EQ(seat_case.input.points[1].uncertainty, 0.1);
  EXPECT_EQ(seat_case.input.walls[0].to, 1);
}

TEST(SeatCase, InchesAreConvertedAtTheEdge) {
  const auto seat_case = read_seat_case(with("\"unit\": \"mm\"", "\"unit\": \"in\""), "seat.json");
  ASSERT_TRUE(seat_case.ok());
  EXPECT_DOUBLE_EQ(seat_case.input.surfaces[1].shape.diameter, 24 * 25.4);
  EXPECT_DOUBLE_EQ(seat_case.input.points[0].xyz.z(), 3 * 25.4);
  EXPECT_DOUBLE_EQ(seat_case.input.surfaces[0].required, 0.6 * 25.4);
}

TEST(SeatCase, EveryRefusalNamesFilePlaceAndRule) {
  const std::pair<std::string, std::string> refusals[] = {
      {with("\"surface\": \"bore\"", "\"surface\": \"boor\""),
       "seat.json: /points/1/surface: no surface is called \"boor\" (did you mean \"bore\"?)"},
      {with("[1,2,3]", "[1,\"2\",3]"), "seat.json: /points/0/xyz/1: must be a number"},
      {with("[1,2,3]", "[1,null,3]"), "seat.json: /points/0/xyz/1: must be a number"},
      {with("[1,2,3]", "[1,2]"), "seat.json: /points/0/xyz: must be three numbers"},
      {with("[1,2,3]", "[1,2,3,4]"), "seat.json: /points/0/xyz: must be three numbers"},
      {with("\"unit\": \"mm\"", "\"unit\": \"cm\""),
       "seat.json: /unit: there is no unit called \"cm\"; it is \"mm\" or \"in\""},
      {with("[0,0,-2]", "[0,0,0]"), "seat.json: /surfaces/0/normal: must not have zero length"},
      {with("\"axis\": [0,1,0]", "\"axis\": [0,0,0]"),
       "seat.json: /surfaces/1/axis: must not have zero length"},
      {with("\"id\": \"boss\"", "\"id\": \"bore\""),
       "seat.json: /surfaces/2/id: two surfaces are called \"bore\""},
      {with("24.0", "-24.0"), "seat.json: /surfaces/1/diameter: must be above 0"},
      {with("24.0", "0"), "seat.json: /surfaces/1/diameter: must be above 0"},
      {with("\"uncertainty\": 0.1", "\"uncertainty\": -0.1"),
       "seat.json: /points/1/uncertainty: must not be negative"},
      {with("\"kind\": \"bore\"", "\"kind\": \"boar\""),
       "seat.json: /surfaces/1/kind: there is no kind called \"boar\" (did you mean \"bore\"?); it is one of "
       "\"plane\", \"bore\", \"boss\", \"taper bore\", \"taper shank\""},
      {with("\"machined\"", "\"polished\""), "seat.json: /surfaces/0/finish: there is no finish called "
                                             "\"polished\"; it is \"machined\" or \"as-cast\""},
      {with(", \"required\": 0.6", ""), "seat.json: /surfaces/0/required: is missing"},
      {with("\"version\": 1", "\"version\": 2"), "seat.json: /version: must be 1, the only version there is"},
      {with("datrin-seat-case", "datrin-chain-case"), "seat.json: /format: must be \"datrin-seat-case\""},
      {with("\"title\"", "\"titel\""),
       "seat.json: /titel: there is no key called \"titel\" here (did you mean \"title\"?)"},
      {with("\"to\": \"bore\"", "\"to\": \"boss\""),
       "seat.json: /walls/0: a wall must run from one surface to another"},
      {with("\"from\": \"boss\"", "\"from\": \"bos\""),
       "seat.json: /walls/0/from: no surface is called \"bos\" (did you mean \"boss\"?)"},
      {"", "seat.json: line 1, column 1: the file is empty"},
      {"[]", "seat.json: /: must be an object"},
      {"{\"format\": \"a\", \"format\": \"b\"}", "seat.json: the key \"format\" stands twice in one object"},
  };
  for (const auto& [text, expected] : refusals) EXPECT_EQ(message(text), expected);
}

TEST(SeatCase, RefusesEmptyCases) {
  EXPECT_EQ(message(R"({"format":"datrin-seat-case","version":1,"unit":"mm","surfaces":[],"points":[]})"),
            "seat.json: /surfaces: must have at least one surface");
  auto text = good;
  text.replace(text.find("\"points\": ["), text.find("\"walls\"") - text.find("\"points\": ["),
               "\"points\": [], ");
  EXPECT_EQ(message(text), "seat.json: /points: must have at least one point");
}

TEST(SeatCase, RefusesWhatIsNotJson) {
  for (const char* number : {"NaN", "Infinity", "-Infinity", "1,5e", "0x10", "+1", "01"}) {
    const auto text = message(with("[1,2,3]", std::string("[1,") + number + ",3]"));
    EXPECT_EQ(text.rfind("seat.json: line 6, column ", 0), 0U) << number << ": " << text;
    EXPECT_NE(text.find("this is not JSON"), std::string::npos) << text;
  }
  EXPECT_NE(message(with("[1,2,3]", "[1,1e999,3]")).find("the number is too large"), std::string::npos);
  EXPECT_NE(message(good.substr(0, good.size() / 2)).find("this is not JSON"),
            std::string::npos); // a file cut in half
  EXPECT_EQ(message(with("\"title\": \"t\"", "\"title\": \"\xFF\"")), "seat.json: the text is not UTF-8");
  EXPECT_EQ(message(with("[1,2,3]", "[1,2,3,5]")),
            "seat.json: /points/0/xyz: must be three numbers"); // a decimal comma
}

TEST(SeatCase, UnknownKeysDeeperDownAreWarnedAbout) {
  const auto seat_case =
      read_seat_case(with("\"xyz\": [1,2,3]", "\"xyz\": [1,2,3], \"colour\": \"red\""), "seat.json");
  ASSERT_TRUE(seat_case.ok());
  ASSERT_EQ(seat_case.warnings.size(), 1U);
  EXPECT_EQ(seat_case.warnings[0],
            "seat.json: /points/0: there is no key called \"colour\" here; it was left out");
}

TEST(SeatCase, FilesThatCannotBeRead) {
  EXPECT_EQ(read_seat_case_file("/no/such.json").message,
            "/no/such.json: cannot be opened; check that it is there and may be read");
  EXPECT_EQ(read_seat_case_file("/tmp").message, "/tmp: is a folder, not a file");
}

TEST(SeatCase, ResultIsInTheCasesOwnUnit) {
  const auto path = std::string(DATRIN_TEST_CASES) + "/seat-1-clean.json";
  const auto mm = read_seat_case_file(path);
  auto inch = mm;
  inch.unit = Unit::inch;
  const auto result = casting::seat(mm.input);
  const auto in_mm = seat_result_json(mm, result), in_inch = seat_result_json(inch, result);
  EXPECT_NEAR(in_inch["least_margin"].get<double>() * 25.4, in_mm["least_margin"].get<double>(), 1e-12);
  EXPECT_NEAR(in_inch["pose"]["translation"][1].get<double>() * 25.4,
              in_mm["pose"]["translation"][1].get<double>(), 1e-12);
  EXPECT_EQ(in_inch["pose"]["rotation_vector_deg"], in_mm["pose"]["rotation_vector_deg"]);
  EXPECT_EQ(in_mm["surfaces"].size(), 6U);
  EXPECT_EQ(in_mm["walls"][0]["from"], "boss");
  double shares = 0;
  for (const auto& hold : in_mm["held_by"]) shares += hold["share"].get<double>();
  EXPECT_NEAR(shares, 1, 1e-9);
}
