#include "store/survey_csv.h"

#include "demo/mill_engine.h"

#include <gtest/gtest.h>

using namespace datrin;
using namespace datrin::store;

namespace {

const SurfaceNames names{{1, "foot"}, {2, "Cheek left"}, {3, "bore"}};

SurveyCsv read(const std::string& text) {
  return read_survey_csv(text, "s.csv", names);
}

} // namespace

// One touch of 1e308 was taken; undo then failed and the next opening called the file damaged.
TEST(SurveyCsv, ALengthBeyondTenKilometresIsABadLine) {
  const auto survey =
      read("surface,x_mm,y_in,z_mm,uncertainty_mm\nfoot,1e308,2,3,0\nfoot,1,4e5,3,0\nfoot,1,2,3,1e25\n"
           "foot,1,2,3,0.01\n");
  ASSERT_EQ(survey.bad.size(), 3U);
  EXPECT_EQ(survey.bad[0].message, "line 2, x_mm: must be at most 10 km");
  EXPECT_EQ(survey.bad[1].message, "line 3, y_in: must be at most 10 km"); // 10.16 km
  EXPECT_EQ(survey.bad[2].message, "line 4, uncertainty_mm: must be at most 10 km");
  EXPECT_EQ(survey.good.size(), 1U);
}

TEST(SurveyCsv, ReadsMillimetresAndInches) {
  const auto survey = read("surface,x_mm,y_in,z_mm\nfoot,1.5,2,-3\n# a comment\n\nCHEEK_LEFT,0,0,0\n");
  ASSERT_FALSE(survey.refused) << survey.message;
  ASSERT_EQ(survey.good.size(), 2U);
  EXPECT_EQ(survey.good[0].touch.centre, Vec3(1.5, 50.8, -3));
  EXPECT_EQ(survey.good[0].line, 2U);
  EXPECT_EQ(survey.good[1].surface, 2);
}

TEST(SurveyCsv, SeparatorsAndTheDecimalComma) {
  EXPECT_EQ(read("surface\tx_mm\ty_mm\tz_mm\nfoot\t1\t2\t3\n").good.size(), 1U);
  const auto comma = read("surface;x_mm;y_mm;z_mm\nfoot;1,5;2.25;-3\n");
  ASSERT_EQ(comma.good.size(), 1U);
  EXPECT_EQ(comma.good[0].touch.centre, Vec3(1.5, 2.25, -3));
  const auto tab = read("surface\tx_mm\ty_mm\tz_mm\nfoot\t1,5\t2\t3\n");
  ASSERT_EQ(tab.bad.size(), 1U);
  EXPECT_EQ(tab.bad[0].message, "line 2, x_mm: \"1,5\" is not a number");
}

TEST(SurveyCsv, OptionalColumnsQuotesAndNotes) {
  const auto survey =
      read("\xEF\xBB\xBFsurface,x_mm,y_mm,z_mm,tip_radius_mm,toward_x,toward_y,toward_z,uncertainty_mm,"
           "setting,note,operator,temp\r\n"
           "bore,1,2,3,1.5,0,0,-1,0.02,\"on its side, clamped\",\"a \"\"pore\"\" here\",K,21\r\n");
  ASSERT_FALSE(survey.refused) << survey.message;
  ASSERT_EQ(survey.good.size(), 1U);
  const auto& touch = survey.good[0].touch;
  EXPECT_EQ(touch.tip_radius, 1.5);
  EXPECT_EQ(touch.toward, Vec3(0, 0, -1));
  EXPECT_EQ(touch.uncertainty, 0.02);
  EXPECT_EQ(touch.setting, "on its side, clamped");
  EXPECT_EQ(touch.note, "a \"pore\" here; operator: K; temp: 21");
  EXPECT_EQ(survey.kept_as_notes, (std::vector<std::string>{"operator", "temp"}));
}

TEST(SurveyCsv, BadLinesAreListedWithPlaceAndReason) {
  const auto survey = read("surface,x_mm,y_mm,z_mm,tip_radius_mm\n"
                           "foot,1,2,3,\n"
                           "boor,1,2,3,\n"
                           "foot,one,2,3,\n"
                           "foot,1,2,,\n"
                           "foot,1,2,3,4,5\n"
                           "foot,1,2,3,1\n"
                           "foot,nan,2,3,\n"
                           "foot,1,2,3,-1\n"
                           ",1,2,3,\n"
                           "foot,1,2,\"3,\n");
  EXPECT_EQ(survey.good.size(), 1U);
  std::vector<std::string> messages;
  for (const auto& line : survey.bad) messages.push_back(line.message);
  EXPECT_EQ(messages,
            (std::vector<std::string>{
                "line 3, surface: no surface is called \"boor\" (did you mean \"bore\"?)",
                "line 4, x_mm: \"one\" is not a number", "line 5, z: is empty",
                "line 6: there are 6 fields under 5 columns",
                "line 7, toward_x: a tip radius needs the direction the tip travelled (toward_x, toward_y, "
                "toward_z)",
                "line 8, x_mm: \"nan\" is not a number", "line 9, tip_radius_mm: must not be negative",
                "line 10, surface: is empty", "line 11: a quote is not closed"}));
}

TEST(SurveyCsv, RefusesAFileThatCannotBeASurvey) {
  EXPECT_EQ(read("").message,
            "s.csv: the file is empty; its first line names the columns: surface, x_mm, y_mm, z_mm");
  EXPECT_EQ(read("surfice,x_mm,y_mm,z_mm\n").message,
            "s.csv: line 1: there is no column \"surface\" (did you mean \"surfice\"?)");
  EXPECT_EQ(read("surface,x,y_mm,z_mm\n").message, "s.csv: line 1: there is no column \"x_mm\" or \"x_in\"");
  EXPECT_EQ(read("surface,x_mm,x_in,y_mm,z_mm\n").message,
            "s.csv: line 1: the columns \"x_mm\" and \"x_in\" state the same thing; keep one");
  EXPECT_EQ(read("surface,x_mm\xFF\n").message,
            "s.csv: the text is not UTF-8; save it as UTF-8 and try again");
  EXPECT_TRUE(read_survey_csv_file("/no/such/file.csv", names).refused);
}

TEST(SurveyCsv, ExportThenImportGivesTheSameSurvey) {
  const auto demo = demo::mill_engine();
  const auto piece = demo.pieces[0].piece;
  SurfaceNames surfaces;
  for (const auto& [id, s] : demo.build.surfaces_of(demo.build.find<build::Piece>(piece)->part))
    surfaces.emplace_back(id, s.name);
  std::vector<build::Touch> touches;
  for (const auto& [id, taken] : demo.build.touches_of(piece)) {
    auto touch = taken;
    touch.note = touches.empty() ? "flash; \"here\", ground off" : "";
    touch.tip_radius = touches.size() % 2 ? 1.25 : 0;
    touch.toward = touches.size() % 2 ? Vec3(0.6, 0, -0.8) : Vec3(0, 0, 0);
    touches.push_back(touch);
  }
  const auto back = read_survey_csv(write_survey_csv(touches, surfaces), "s.csv", surfaces);
  ASSERT_TRUE(back.bad.empty()) << back.bad.front().message;
  ASSERT_EQ(back.good.size(), touches.size());
  for (std::size_t i = 0; i < touches.size(); ++i) {
    auto again = back.good[i].touch;
    again.piece = touches[i].piece;
    again.order = touches[i].order;
    EXPECT_EQ(again, touches[i]) << i;
  }
}

TEST(SurveyCsv, ThreeBadLinesOfFourHundred) {
  std::string text = "surface,x_mm,y_mm,z_mm\n";
  for (int n = 0; n < 400; ++n) text += n % 150 == 7 ? "foot,?,0,0\n" : "foot,1,2,3\n";
  const auto survey = read(text);
  EXPECT_EQ(survey.bad.size(), 3U);
  EXPECT_EQ(survey.good.size(), 397U);
}

TEST(SurveyCsv, ReferenceMarksComeBackTheSame) {
  const SurfaceNames names{{7, "foot"}};
  const auto read =
      read_survey_csv("surface,x_in,y_in,z_in,setting,uncertainty_mm\nmark A,1,2,-0.5,on its foot,0.02\n"
                      "foot,1,1,1,on its foot,\nMark centre pop 2,0,0,1,\"on its side, clamped\",\n",
                      "s.csv", names);
  ASSERT_FALSE(read.refused) << read.message;
  EXPECT_TRUE(read.bad.empty());
  EXPECT_EQ(read.good.size(), 1U);
  ASSERT_EQ(read.marks.size(), 2U);
  EXPECT_EQ(read.marks[0].name, "A");
  EXPECT_EQ(read.marks[0].setting, "on its foot");
  EXPECT_EQ(read.marks[0].uncertainty, 0.02);
  EXPECT_LT((read.marks[0].at - Vec3(25.4, 50.8, -12.7)).norm(), 1e-12);
  EXPECT_EQ(read.marks[1].name, "centre pop 2");
  const auto again = read_survey_csv(write_survey_csv({}, names, read.marks), "again.csv", names);
  EXPECT_EQ(again.marks, read.marks);
}

TEST(SurveyCsv, AMarkReadByABallIsTheTouchedPoint) {
  const auto read = read_survey_csv(
      "surface,x_mm,y_mm,z_mm,tip_radius_mm,toward_x,toward_y,toward_z\nmark A,1,2,3,1.5,0,0,-2\n", "s.csv",
      {});
  ASSERT_EQ(read.marks.size(), 1U);
  EXPECT_LT((read.marks[0].at - Vec3(1, 2, 1.5)).norm(), 1e-12);
}

TEST(SurveyCsv, ASurfaceCalledMarkIsASurface) {
  const auto read =
      read_survey_csv("surface,x_mm,y_mm,z_mm\nmark A,1,2,3\nmark ,1,2,3\n", "s.csv", {{7, "mark A"}});
  EXPECT_EQ(read.good.size(), 1U);
  EXPECT_TRUE(read.marks.empty());
  ASSERT_EQ(read.bad.size(), 1U);
  EXPECT_EQ(read.bad[0].message, "line 3, surface: no surface is called \"mark\" (did you mean \"mark A\"?)");
}

// Opened in a table program, a name that begins like a formula is carried out.
TEST(SurveyCsv, FormulasAreDefusedAndLineEndsQuoted) {
  const SurfaceNames odd{{1, "=1+1"}, {2, "+foot"}, {3, "'-bore"}, {4, "@end, \"A\""}, {5, "5\" boss"}};
  std::vector<build::Touch> touches;
  for (build::Id surface = 1; surface <= 5; ++surface) {
    build::Touch touch;
    touch.surface = surface;
    touch.centre = {-1.5, 2, static_cast<double>(surface)};
    touch.note = surface == 3 ? "two\nlines, \"quoted\"\r\nand a third " : "=HYPERLINK(1)";
    touch.setting = "'quoted'";
    touches.push_back(touch);
  }
  const auto text = write_survey_csv(touches, odd);
  EXPECT_NE(text.find("\n'=1+1,-1.5,2,1,"), std::string::npos) << text; // numbers stay numbers
  EXPECT_NE(text.find("\n''-bore,"), std::string::npos) << text;
  EXPECT_EQ(text.find(",=HYPERLINK"), std::string::npos);
  const auto back = read_survey_csv(text, "s.csv", odd);
  ASSERT_FALSE(back.refused) << back.message;
  ASSERT_TRUE(back.bad.empty()) << back.bad.front().message;
  ASSERT_EQ(back.good.size(), touches.size());
  for (std::size_t k = 0; k < touches.size(); ++k) {
    EXPECT_EQ(back.good[k].surface, touches[k].surface);
    EXPECT_EQ(back.good[k].touch.note, touches[k].note);
    EXPECT_EQ(back.good[k].touch.setting, touches[k].setting);
  }
  EXPECT_EQ(back.good[4].line, 8U); // the third took three lines
}

TEST(SurveyCsv, AQuoteThatIsNotClosedSpoilsItsOwnLine) {
  const auto survey = read("surface,x_mm,y_mm,z_mm,note\nfoot,1,2,3,\"open\nfoot,4,5,6,3\" bar\n# \"also\n"
                           "foot,7,8,9,\"closed\"\nfoot,1,1,1,\n");
  ASSERT_EQ(survey.bad.size(), 1U);
  EXPECT_EQ(survey.bad[0].message, "line 2: a quote is not closed");
  ASSERT_EQ(survey.good.size(), 3U);
  EXPECT_EQ(survey.good[0].touch.note, "3\" bar");
  EXPECT_EQ(survey.good[1].touch.note, "closed");
  EXPECT_EQ(survey.good[1].line, 5U);
}

TEST(SurveyCsv, SaysHowFarItIsAndStopsWhenAsked) {
  std::string text = "surface,x_mm,y_mm,z_mm\n";
  for (int k = 0; k < 5000; ++k) text += "foot,1,2,3\n";
  std::vector<double> told;
  ReadOptions options;
  options.progress = [&told](double so_far) { told.push_back(so_far); };
  EXPECT_EQ(read_survey_csv(text, "s.csv", names, options).good.size(), 5000U);
  ASSERT_EQ(told.size(), 4U); // every 1024 lines of 5001
  for (std::size_t k = 0; k < told.size(); ++k)
    EXPECT_NEAR(told[k], 1024.0 * static_cast<double>(k + 1) / 5001, 0.001);
  options.should_stop = [] { return true; };
  const auto stopped = read_survey_csv(text, "s.csv", names, options);
  EXPECT_TRUE(stopped.refused);
  EXPECT_EQ(stopped.message, "s.csv: reading it was stopped; nothing was taken");
  EXPECT_TRUE(stopped.good.empty());
}
