#include "solid/step_file.h"

#include "solid/brep.h"

#include <BRep_Builder.hxx>
#include <IFSelect_ReturnStatus.hxx>
#include <Interface_Static.hxx>
#include <STEPControl_Reader.hxx>
#include <STEPControl_Writer.hxx>
#include <TColStd_SequenceOfAsciiString.hxx>
#include <TopExp_Explorer.hxx>

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <filesystem>
#include <fstream>
#include <string>
#include <system_error>

namespace datrin::solid {

namespace {

constexpr std::string_view magic = "ISO-10303-21";

std::string begins_wrong(const std::string& path, std::size_t most_bytes) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error)) return "is a folder, not a file";
  const auto size = std::filesystem::file_size(path, error);
  if (error) return "cannot be read: " + error.message();
  if (size > most_bytes) return fmt::format("is over {} MiB", most_bytes >> 20);
  std::ifstream file(path, std::ios::binary);
  std::string head(256, '\0');
  file.read(head.data(), static_cast<std::streamsize>(head.size()));
  head.resize(static_cast<std::size_t>(file.gcount()));
  return head.find(magic) == std::string::npos ? "is no STEP file (it does not begin with ISO-10303-21)" : "";
}

} // namespace

StepRead read_step(const std::string& path, const StepOptions& options) {
  quiet();
  StepRead read;
  const auto refuse = [&](const std::string& why) {
    read.message = fmt::format("{}: {}", path, why);
    return read;
  };
  if (const auto wrong = begins_wrong(path, options.most_bytes); !wrong.empty()) return refuse(wrong);
  try {
    STEPControl_Reader reader;
    if (reader.ReadFile(path.c_str()) != IFSelect_RetDone) return refuse("is no whole STEP file");
    TColStd_SequenceOfAsciiString lengths, angles, solids;
    reader.FileUnits(lengths, angles, solids);
    if (lengths.Length() > 0) {
      std::string name = lengths.First().ToCString();
      std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return std::tolower(c); });
      if (name.find("inch") != std::string::npos) read.unit = Unit::inch;
    }
    reader.TransferRoots();
    const auto shape = reader.OneShape();
    if (shape.IsNull()) return refuse("there is no part in it");
    // Only what is solid counts; of shells and sheets it is told that they enclose nothing.
    TopoDS_Compound all;
    BRep_Builder builder;
    builder.MakeCompound(all);
    int count = 0;
    TopoDS_Shape only;
    for (TopExp_Explorer e(shape, TopAbs_SOLID); e.More(); e.Next()) {
      builder.Add(all, e.Current());
      only = e.Current();
      ++count;
    }
    if (count == 0) {
      const bool faces = TopExp_Explorer(shape, TopAbs_FACE).More();
      return refuse(faces ? "its faces enclose nothing: it is an open shell, not a solid"
                          : "there is no solid in it");
    }
    read_off(read.solid, count == 1 ? only : TopoDS_Shape(all), options.solid);
    read.solid.status = SolidStatus::made;
  } catch (const Standard_Failure& failure) {
    return refuse("cannot be read (" + words_of(failure) + ")");
  }
  return read;
}

std::string write_step(const Solid& solid, const std::string& name, const std::string& path) {
  quiet();
  if (!solid.brep || solid.brep->shape.IsNull()) return "there is no solid to write";
  try {
    STEPControl_Writer writer;
    Interface_Static::SetCVal("write.step.schema", "AP214IS");
    Interface_Static::SetCVal("write.step.product.name", name.c_str());
    if (writer.Transfer(solid.brep->shape, STEPControl_AsIs) != IFSelect_RetDone)
      return "the solid cannot be written";
    if (writer.Write(path.c_str()) != IFSelect_RetDone) return fmt::format("{} cannot be written", path);
  } catch (const Standard_Failure& failure) {
    return "the solid cannot be written (" + words_of(failure) + ")";
  }
  return {};
}

} // namespace datrin::solid
