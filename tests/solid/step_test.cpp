// STEP out and in again; files that are none.

#include "bodies.h"

#include "solid/step_file.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <sstream>

#include <sys/stat.h>
#include <unistd.h>

namespace datrin::solid_test {
namespace {

using R = BodyRole;
using S = BodyShape;
namespace fs = std::filesystem;

class Step : public testing::Test {
protected:
  Step()
      : path_(
            (fs::temp_directory_path() / ("datrin-step-" + std::to_string(::getpid()) + ".step")).string()) {}
  ~Step() override { fs::remove(path_); }

  Solid pedestal() {
    Bodies b;
    b.add("foot", S::block, {{R::length, 80}, {R::width, 36}, {R::height, 12}});
    auto& boss = b.add("boss", S::round, {{R::diameter, 34}, {R::height, 40}, {R::off, 28}}, Bodies::id(0));
    boss.lie = BodyLie::across;
    b.add("pillar", S::block, {{R::length, 34}, {R::width, 30}, {R::height, 20}}, Bodies::id(0)).order = 0.5;
    b.add("bore", S::hole, {{R::diameter, 20}}, Bodies::id(1)).through = true;
    auto& bolts = b.add("bolts", S::hole, {{R::diameter, 6}, {R::pitch, 60}}, Bodies::id(0));
    bolts.through = true;
    bolts.pattern = BodyPattern::pair;
    b.add("socket", S::cone, {{R::diameter, 8}, {R::top_diameter, 6}, {R::height, 5}}, Bodies::id(0),
          BodyFace::left)
        .cut = true;
    auto solid = b.made();
    EXPECT_EQ(solid.message, "");
    return solid;
  }
  std::string text() {
    std::ifstream file(path_);
    std::stringstream all;
    all << file.rdbuf();
    return all.str();
  }
  void write(const std::string& text) { std::ofstream(path_) << text; }
  std::string path_;
};

TEST_F(Step, OutAndInAgainIsTheSame) {
  const auto solid = pedestal();
  ASSERT_EQ(write_step(solid, "Pedestal", path_), "");
  const auto read = read_step(path_);
  ASSERT_TRUE(read.ok()) << read.message;
  EXPECT_EQ(read.unit, Unit::mm);
  const auto& again = read.solid;
  EXPECT_EQ(again.bodies, 1);
  EXPECT_TRUE(again.closed);
  EXPECT_NEAR(again.volume, solid.volume, solid.volume * 1e-9);
  EXPECT_NEAR(again.area, solid.area, solid.area * 1e-9);
  EXPECT_LT((again.centroid - solid.centroid).norm(), 1e-8);
  EXPECT_LT((again.inertia - solid.inertia).norm(), 1e-8 * solid.inertia.norm());
  ASSERT_EQ(again.faces.size(), solid.faces.size());
  const auto key = [](const SolidFace& f) {
    return std::tuple(static_cast<int>(f.kind), std::round(f.area * 1e4), std::round(f.shape.diameter * 1e4));
  };
  std::vector<std::tuple<int, double, double>> a, b;
  for (const auto& f : solid.faces) a.push_back(key(f));
  for (const auto& f : again.faces) b.push_back(key(f));
  std::sort(a.begin(), a.end());
  std::sort(b.begin(), b.end());
  EXPECT_EQ(a, b);
}

TEST_F(Step, InInchesTheSolidIsInMillimetresAndTheUnitIsKept) {
  ASSERT_EQ(write_step(pedestal(), "Pedestal", path_), "");
  // The same numbers, now inches (ISO 10303-41: conversion_based_unit on 25.4 millimetres).
  auto changed = text();
  const std::string unit = "( LENGTH_UNIT() NAMED_UNIT(*) SI_UNIT(.MILLI.,.METRE.) )";
  const auto at = changed.find(unit);
  ASSERT_NE(at, std::string::npos);
  changed.replace(at, unit.size(), "( CONVERSION_BASED_UNIT('INCH',#9001) LENGTH_UNIT() NAMED_UNIT(#9003) )");
  const auto end = changed.find("ENDSEC;", changed.find("DATA;"));
  changed.insert(end, "#9001 = LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#9002);\n"
                      "#9002 = ( LENGTH_UNIT() NAMED_UNIT(*) SI_UNIT(.MILLI.,.METRE.) );\n"
                      "#9003 = DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.);\n");
  write(changed);
  const auto read = read_step(path_);
  ASSERT_TRUE(read.ok()) << read.message;
  EXPECT_EQ(read.unit, Unit::inch);
  EXPECT_NEAR(read.solid.box.size().x(), 80 * 25.4, 1e-5);
}

TEST_F(Step, WhatIsNoneIsToldInWords) {
  const auto message = [&] { return read_step(path_).message; };
  EXPECT_NE(message().find(": cannot be read"), std::string::npos);
  write("solid cube\nendsolid\n");
  EXPECT_EQ(message(), path_ + ": is no STEP file (it does not begin with ISO-10303-21)");
  write("");
  EXPECT_EQ(message(), path_ + ": is no STEP file (it does not begin with ISO-10303-21)");
  ASSERT_EQ(write_step(pedestal(), "Pedestal", path_), "");
  const auto whole = text();
  for (const double part : {0.05, 0.3, 0.7, 0.99}) {
    write(whole.substr(0, static_cast<std::size_t>(part * static_cast<double>(whole.size()))));
    const auto read = read_step(path_);
    EXPECT_FALSE(read.ok() && std::abs(read.solid.volume - pedestal().volume) > 1)
        << part; // never a part of it as if it were all
  }
  EXPECT_EQ(read_step(fs::temp_directory_path().string()).message,
            fs::temp_directory_path().string() + ": is a folder, not a file");
}

std::string corpus(const std::string& name) {
  std::ifstream file(std::string(DATRIN_TEST_CASES) + "/../fuzz/corpus/step/" + name);
  return {std::istreambuf_iterator<char>(file), {}};
}
std::string with(std::string text, const std::string& was, const std::string& is) {
  const auto at = text.find(was);
  EXPECT_NE(at, std::string::npos) << was;
  return at == std::string::npos ? text : text.replace(at, was.size(), is);
}

/// Each of these ended the program that read it, or never ended.
TEST_F(Step, AHostileFileEndsNobody) {
  const auto wedge = corpus("wedge.step");
  write(wedge);
  const auto read = read_step(path_);
  ASSERT_TRUE(read.ok()) << read.message;
  EXPECT_NEAR(read.solid.volume, 1000. / 6, 1e-9); // a corner of a cube: a³/6
  EXPECT_NEAR(read.solid.area, 3 * 50 + std::sqrt(3.) / 2 * 100, 1e-9);

  write(corpus("line_to_nothing.step"));
  EXPECT_EQ(read_step(path_).message, path_ + ": is damaged: what it says of its part leads nowhere");
  write(with(wedge, "DATA;\n", "DATA;\n#9000=X(" + std::string(500000, '(') + ");\n"));
  EXPECT_EQ(read_step(path_).message, path_ + ": nests its brackets more than 100 deep: it is damaged");
  write(with(wedge, "CARTESIAN_POINT('',(10.,0.,0.))", "CARTESIAN_POINT('',(1.E8,0.,0.))"));
  EXPECT_NE(read_step(path_).message, "");
  auto far = wedge; // all of it so far off
  for (const std::string was : {"(0.,", "(10.,"})
    for (auto at = far.find("CARTESIAN_POINT('',"); at != std::string::npos;
         at = far.find("CARTESIAN_POINT('',", at + 1))
      if (far.compare(at + 19, was.size(), was) == 0)
        far.replace(at + 19, was.size(), was == "(0.," ? "(20000000.," : "(20000010.,");
  write(far);
  EXPECT_EQ(read_step(path_).message, path_ + ": its coordinates go beyond 10 km: look at its unit");
}

TEST_F(Step, WhatHasNoEndIsGivenUpInTimeOrWhenAsked) {
  EXPECT_EQ(read_step("/dev/zero").message, "/dev/zero: is no file that can be read from end to end");
  ASSERT_EQ(::mkfifo((path_ + ".fifo").c_str(), 0600), 0);
  EXPECT_EQ(read_step(path_ + ".fifo").message, path_ + ".fifo: is no file that can be read from end to end");
  fs::remove(path_ + ".fifo");
  ASSERT_EQ(write_step(pedestal(), "Pedestal", path_), "");
  EXPECT_EQ(read_step(path_, {.stop = [] { return true; }}).message, path_ + ": reading it was stopped");
  EXPECT_NE(read_step(path_, {.seconds = 0}).message, "");
}

TEST_F(Step, TextInsideABuildIsReadShieldedToo) {
  Bodies b;
  b.add("imported", S::imported, {{R::length, 60}}).step = corpus("line_to_nothing.step");
  const auto solid = b.made();
  EXPECT_FALSE(solid.usable());
  EXPECT_NE(solid.message.find("is damaged: what it says of its part leads nowhere"), std::string::npos)
      << solid.message;
  EXPECT_NE(add_imported({}, "Wedge", corpus("line_to_nothing.step")).wrong, "");
}

} // namespace
} // namespace datrin::solid_test
