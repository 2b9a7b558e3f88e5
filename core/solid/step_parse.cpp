#include "solid/step_parse.h"

#include "quantity/unit.h"
#include "solid/brep.h"

#include <BRepBndLib.hxx>
#include <BRep_Builder.hxx>
#include <BinTools.hxx>
#include <Bnd_Box.hxx>
#include <IFSelect_ReturnStatus.hxx>
#include <STEPControl_Reader.hxx>
#include <TColStd_SequenceOfAsciiString.hxx>
#include <TopExp_Explorer.hxx>

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <istream>
#include <locale>
#include <ostream>
#include <sstream>

namespace datrin::solid {

namespace {

constexpr int most_nested = 100; // a spline's lists are four deep

/// How deep its brackets go, outside of what is quoted.
int nesting(const std::string& text) {
  int depth = 0, deepest = 0;
  bool quoted = false;
  for (const char c : text) {
    if (c == '\'') quoted = !quoted;
    if (quoted) continue;
    if (c == '(') deepest = std::max(deepest, ++depth);
    if (c == ')') --depth;
  }
  return deepest;
}

std::string far_off(const TopoDS_Shape& shape) {
  Bnd_Box box;
  BRepBndLib::AddClose(shape, box);
  if (box.IsVoid()) return "there is nothing in its solid";
  Standard_Real low[3], high[3];
  box.Get(low[0], low[1], low[2], high[0], high[1], high[2]);
  for (int k = 0; k < 3; ++k)
    if (!is_length(low[k]) || !is_length(high[k])) return "its coordinates go beyond 10 km: look at its unit";
  return {};
}

/// The solids of a reader that has read.
std::string take(STEPControl_Reader& reader, int only, int& count, Unit& unit, TopoDS_Shape& shape) {
  TColStd_SequenceOfAsciiString lengths, angles, solids;
  reader.FileUnits(lengths, angles, solids);
  if (lengths.Length() > 0) {
    std::string name = lengths.First().ToCString();
    std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return std::tolower(c); });
    if (name.find("inch") != std::string::npos) unit = Unit::inch;
  }
  reader.TransferRoots();
  const auto all_there = reader.OneShape();
  if (all_there.IsNull()) return "there is no part in it";
  // Only what is solid counts; of shells and sheets it is told that they enclose nothing.
  TopoDS_Compound all;
  BRep_Builder builder;
  builder.MakeCompound(all);
  for (TopExp_Explorer e(all_there, TopAbs_SOLID); e.More(); e.Next()) {
    ++count;
    if (only != 0 && count != only) continue;
    builder.Add(all, e.Current());
    shape = e.Current();
  }
  if (count == 0)
    return TopExp_Explorer(all_there, TopAbs_FACE).More()
               ? "its faces enclose nothing: it is an open shell, not a solid"
               : "there is no solid in it";
  if (only < 0 || only > count) return fmt::format("there are {} solids in it, no number {}", count, only);
  if (count > 1 && only == 0) shape = all;
  return far_off(shape);
}

std::string all_of(std::istream& in, std::size_t most_bytes, std::string& text) {
  constexpr std::size_t piece = 1 << 16;
  for (char bytes[piece]; in.read(bytes, piece) || in.gcount() > 0;) {
    text.append(bytes, static_cast<std::size_t>(in.gcount()));
    if (text.size() > most_bytes) return fmt::format("is over {} MiB", most_bytes >> 20);
  }
  return {};
}

} // namespace

std::string parse_step(std::istream& in, std::ostream& out, const StepParse& wanted) {
  quiet();
  std::string text;
  if (auto wrong = all_of(in, wanted.most_bytes, text); !wrong.empty()) return wrong;
  constexpr std::size_t head = 256;
  if (text.substr(0, head).find("ISO-10303-21") == std::string::npos)
    return "is no STEP file (it does not begin with ISO-10303-21)";
  if (nesting(text) > most_nested)
    return fmt::format("nests its brackets more than {} deep: it is damaged", most_nested);
  try {
    STEPControl_Reader reader;
    std::stringbuf bytes(text, std::ios::in);
    std::istream stream(&bytes);
    stream.imbue(std::locale::classic());
    if (reader.ReadStream("part", stream) != IFSelect_RetDone) return "is no whole STEP file";
    TopoDS_Shape shape;
    int solids = 0;
    auto unit = Unit::mm;
    if (auto wrong = take(reader, wanted.only, solids, unit, shape); !wrong.empty()) return wrong;
    {
      Solid tried; // what ends badly when it is read off and meshed ends here
      read_off(tried, shape, {});
      if (!std::isfinite(tried.volume) || tried.mesh.triangles.empty()) return "its solid cannot be measured";
    }
    out << solids << ' ' << (unit == Unit::inch ? "inch" : "mm") << '\n';
    BinTools::Write(shape, out, Standard_False, Standard_False, BinTools_FormatVersion_CURRENT);
  } catch (const Standard_Failure& failure) {
    return "cannot be read (" + words_of(failure) + ")";
  }
  return out.flush() ? "" : "cannot be read (no room for what came of it)";
}

} // namespace datrin::solid
