#include "store/scan_file.h"

#include <gtest/gtest.h>

#include <cstring>

using namespace datrin;
using namespace datrin::store;

namespace {

const std::string ascii_ply =
    "ply\nformat ascii 1.0\ncomment made by hand\nelement vertex 3\nproperty float x\n"
    "property float y\nproperty float z\nend_header\n1 2 3\n4 5 6\n-7 8.5 9\n";
const std::string ascii_stl =
    "solid block\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 10 0 0\nvertex 0 10 0\n"
    "endloop\nendfacet\nfacet normal 0 0 1\nouter loop\nvertex 10 0 0\nvertex 10 10 0\n"
    "vertex 0 10 0\nendloop\nendfacet\nendsolid block\n";

std::string binary_stl(std::uint32_t promised) {
  std::string bytes(80, ' ');
  bytes.append(reinterpret_cast<const char*>(&promised), 4);
  const float triangle[12] = {0, 0, 1, 1, 2, 3, 4, 5, 6, 7, 8, 9};
  bytes.append(reinterpret_cast<const char*>(triangle), sizeof triangle);
  bytes.append(2, '\0');
  return bytes;
}

} // namespace

// Formats: PLY 1.0 as published by its authors (1994); STL, common practice.
TEST(ScanFile, ReadsPlyPoints) {
  const auto scan = read_scan(ascii_ply, "ply", "s.ply", Unit::mm);
  ASSERT_TRUE(scan.ok) << scan.message;
  ASSERT_EQ(scan.at.size(), 3U);
  EXPECT_FALSE(scan.triangles);
  EXPECT_EQ(scan.at[2], (std::array<float, 3>{-7, 8.5F, 9}));
  const auto inches = read_scan(ascii_ply, "PLY", "s.ply", Unit::inch);
  EXPECT_FLOAT_EQ(inches.at[0][0], 25.4F);
}

TEST(ScanFile, ReadsBinaryPly) {
  std::string bytes =
      "ply\nformat binary_little_endian 1.0\nelement vertex 2\nproperty float x\nproperty float y\n"
      "property float z\nend_header\n";
  const float at[6] = {1, 2, 3, 4, 5, 6};
  bytes.append(reinterpret_cast<const char*>(at), sizeof at);
  const auto scan = read_scan(bytes, "ply", "s.ply", Unit::mm);
  ASSERT_TRUE(scan.ok) << scan.message;
  EXPECT_EQ(scan.at[1], (std::array<float, 3>{4, 5, 6}));
}

TEST(ScanFile, ReadsTrianglesEachCornerOnce) {
  const auto scan = read_scan(ascii_stl, "stl", "s.stl", Unit::mm);
  ASSERT_TRUE(scan.ok) << scan.message;
  EXPECT_TRUE(scan.triangles);
  EXPECT_EQ(scan.at.size(), 4U);
  const auto binary = read_scan(binary_stl(1), "stl", "s.stl", Unit::mm);
  ASSERT_TRUE(binary.ok) << binary.message;
  EXPECT_EQ(binary.at.size(), 3U);
}

TEST(ScanFile, RefusesWithTheReason) {
  const auto why = [](const std::string& bytes, const char* ending) {
    return read_scan(bytes, ending, "s", Unit::mm).message;
  };
  EXPECT_EQ(why("", "ply"), "s: is not a PLY file: it does not begin with \"ply\" and a header");
  EXPECT_EQ(why("x", "obj"), "s: \".obj\" is not read; scans are PLY or STL files");
  EXPECT_EQ(why("solid nothing\nendsolid\n", "stl"), "s: is not an STL file: it holds no triangles");
  EXPECT_EQ(why(binary_stl(4000000000U), "stl"), "s: its header promises 4000000000 triangles, 200000000084 "
                                                 "bytes; there are 134: it is cut short or not an "
                                                 "STL file");
  auto many = ascii_ply;
  many.replace(many.find("vertex 3"), 8, "vertex 900000000");
  EXPECT_EQ(why(many, "ply"),
            "s: its header promises 900000000 of \"vertex\", more than the file holds: it is cut short");
  EXPECT_EQ(read_scan_file("/nowhere/s.ply", Unit::mm).message,
            "/nowhere/s.ply: cannot be read: No such file or directory");
}

// Found by fuzzing: the scan library believes a header that is not one, and reads beyond the file.
TEST(ScanFile, AHeaderThatIsNotOneIsRefusedBeforeTheLibrarySeesIt) {
  const auto why = [](std::string text) { return read_scan(text, "ply", "s", Unit::mm).message; };
  const std::string head = "ply\nformat binary_little_endian 1.0\n";
  EXPECT_EQ(why(head + "element vertex 2\nprop\xff\xff\xff\xffrty float x\nend_header\n12345678"),
            "s: line 4 of its header begins with \"prop\xff\xff\xff\xffrty\"");
  EXPECT_EQ(why(head + "element vertex 2\nproperty float x\nend_header\n12345678"),
            "s: has points without x, y and z");
  EXPECT_EQ(
      why(head +
          "element vertex 2\nproperty float x\nproperty float y\nproperty float z\nend_header\n12345678"),
      "s: its header promises 2 of \"vertex\", more than the file holds: it is cut short");
  EXPECT_EQ(why(head + "property float x\n"), "s: line 3 of its header has a property of no element");
  EXPECT_EQ(why(head + "element vertex 1\nproperty list float float x\nend_header\n"),
            "s: line 4 of its header counts a list by no whole number");
  EXPECT_EQ(why(head), "s: has a header without an end");
  EXPECT_EQ(why("ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nproperty float "
                "z\nend_header\n"
                "1 2 three\n"),
            "s: line 1 of \"vertex\" is not what its header says");
}

// Found by fuzzing: the scan library takes what stands in notes and odd names for counts, and asked for a
// hundred gigabytes.
TEST(ScanFile, NotesAndOddNamesInTheHeaderMeanNothing) {
  const auto scan = read_scan("ply\nformat ascii 1.0\nobj_info float 9 element vertex 900000000\n"
                              "element 6000000000000ertex 1\nproperty float x\nobj_info element face 99\n"
                              "element vertex 2\nproperty float confidence\nproperty float x\nobj_info x\n"
                              "property float y\nproperty float z\nproperty uchar 7red\nend_header\n"
                              "5\n0.5 1 2 3 255\n0.5 4 5 6 255\n",
                              "ply", "s.ply", Unit::mm);
  ASSERT_TRUE(scan.ok) << scan.message;
  ASSERT_EQ(scan.at.size(), 2U);
  EXPECT_EQ(scan.at[1], (std::array<float, 3>{4, 5, 6}));
}
