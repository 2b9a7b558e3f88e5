#include "solid/step_file.h"

#include "build/edit_drawing.h"
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
#include <functional>
#include <iterator>
#include <list>
#include <locale>
#include <mutex>
#include <sstream>
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

namespace {

/// The solids of a reader that has read; `refuse` says why there is none.
std::string take(STEPControl_Reader& reader, int only, StepRead& read, TopoDS_Shape& shape) {
  TColStd_SequenceOfAsciiString lengths, angles, solids;
  reader.FileUnits(lengths, angles, solids);
  if (lengths.Length() > 0) {
    std::string name = lengths.First().ToCString();
    std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return std::tolower(c); });
    if (name.find("inch") != std::string::npos) read.unit = Unit::inch;
  }
  reader.TransferRoots();
  const auto all_there = reader.OneShape();
  if (all_there.IsNull()) return "there is no part in it";
  // Only what is solid counts; of shells and sheets it is told that they enclose nothing.
  TopoDS_Compound all;
  BRep_Builder builder;
  builder.MakeCompound(all);
  int count = 0;
  for (TopExp_Explorer e(all_there, TopAbs_SOLID); e.More(); e.Next()) {
    ++count;
    if (only != 0 && count != only) continue;
    builder.Add(all, e.Current());
    shape = e.Current();
  }
  read.solids = count;
  if (count == 0)
    return TopExp_Explorer(all_there, TopAbs_FACE).More()
               ? "its faces enclose nothing: it is an open shell, not a solid"
               : "there is no solid in it";
  if (only < 0 || only > count) return fmt::format("there are {} solids in it, no number {}", count, only);
  if (count > 1 && only == 0) shape = all;
  return {};
}

template <class ReadIt>
StepRead read_with(const std::string& name, const StepOptions& options, ReadIt&& read_it) {
  quiet();
  StepRead read;
  std::string wrong;
  try {
    STEPControl_Reader reader;
    TopoDS_Shape shape;
    if (read_it(reader) != IFSelect_RetDone)
      wrong = "is no whole STEP file";
    else
      wrong = take(reader, options.only, read, shape);
    if (wrong.empty()) {
      read_off(read.solid, shape, options.solid);
      read.solid.status = SolidStatus::made;
    }
  } catch (const Standard_Failure& failure) {
    wrong = "cannot be read (" + words_of(failure) + ")";
  }
  if (!wrong.empty()) read.message = fmt::format("{}: {}", name, wrong);
  return read;
}

std::string written(const std::vector<NamedSolid>& solids,
                    const std::function<IFSelect_ReturnStatus(STEPControl_Writer&)>& out) {
  quiet();
  if (std::none_of(solids.begin(), solids.end(),
                   [](const NamedSolid& s) { return s.solid && s.solid->brep; }))
    return "there is no solid to write";
  try {
    STEPControl_Writer writer;
    Interface_Static::SetCVal("write.step.schema", "AP214IS");
    Interface_Static::SetCVal("write.step.unit", "MM");
    for (const auto& [name, solid] : solids) {
      if (!solid || !solid->brep || solid->brep->shape.IsNull()) continue;
      Interface_Static::SetCVal("write.step.product.name", name.c_str());
      if (writer.Transfer(solid->brep->shape, STEPControl_AsIs) != IFSelect_RetDone)
        return fmt::format("{} cannot be written", name);
    }
    if (out(writer) != IFSelect_RetDone) return "the file cannot be written";
  } catch (const Standard_Failure& failure) {
    return "the solid cannot be written (" + words_of(failure) + ")";
  }
  return {};
}

} // namespace

StepRead read_step(const std::string& path, const StepOptions& options) {
  if (const auto wrong = begins_wrong(path, options.most_bytes); !wrong.empty()) {
    StepRead read;
    read.message = fmt::format("{}: {}", path, wrong);
    return read;
  }
  return read_with(path, options, [&](STEPControl_Reader& reader) { return reader.ReadFile(path.c_str()); });
}

StepRead read_step_text(const std::string& text, const std::string& name, const StepOptions& options) {
  std::stringbuf bytes(text, std::ios::in);
  std::istream stream(&bytes);
  stream.imbue(std::locale::classic());
  return read_with(name, options,
                   [&](STEPControl_Reader& reader) { return reader.ReadStream(name.c_str(), stream); });
}

std::string write_step(const std::vector<NamedSolid>& solids, const std::string& path) {
  auto wrong = written(solids, [&](STEPControl_Writer& writer) { return writer.Write(path.c_str()); });
  return wrong.empty() ? wrong : fmt::format("{}: {}", path, wrong);
}

std::string write_step(const Solid& solid, const std::string& name, const std::string& path) {
  return write_step({{name, &solid}}, path);
}

build::Added add_imported(const build::Build& build, const std::string& name, std::string step) {
  const auto read = read_step_text(step, name, {.solid = {.mesh = false}});
  if (!read.ok()) return {0, {}, read.message};
  auto made = build::add_part(build, name, true);
  build::Body body;
  body.part = made.id;
  body.name = "imported";
  body.shape = BodyShape::imported;
  body.face = BodyFace::middle;
  body.step = std::move(step);
  const auto& box = read.solid.box;
  body.set_size({BodyRole::length, 0, box.low.cwiseAbs().cwiseMax(box.high.cwiseAbs()).norm()});
  made.edit.changes.push_back(
      {made.id + static_cast<build::Id>(made.edit.changes.size()), std::nullopt, body});
  return made;
}

std::string step_text(const Solid& solid, const std::string& name) {
  // The library writes to files only.
  const auto path = (std::filesystem::temp_directory_path() /
                     fmt::format("datrin-{}.step", static_cast<const void*>(&solid)))
                        .string();
  std::string text;
  if (write_step(solid, name, path).empty()) {
    std::ifstream file(path, std::ios::binary);
    text.assign(std::istreambuf_iterator<char>(file), {});
  }
  std::error_code ignored;
  std::filesystem::remove(path, ignored);
  return text;
}

TopoDS_Shape imported(const std::string& step) {
  // Kept by content: every other body of the part is taken anew, this one is as it was.
  static std::mutex guard;
  static std::list<std::pair<std::string, TopoDS_Shape>> kept;
  constexpr std::size_t most_kept = 4;
  {
    const std::lock_guard lock(guard);
    for (auto at = kept.begin(); at != kept.end(); ++at)
      if (at->first == step) {
        kept.splice(kept.begin(), kept, at);
        return kept.front().second;
      }
  }
  const auto read = read_step_text(step, "the imported part", {.solid = {.mesh = false}});
  if (!read.ok()) throw Standard_Failure(read.message.c_str());
  const std::lock_guard lock(guard);
  kept.emplace_front(step, read.solid.brep->shape);
  if (kept.size() > most_kept) kept.pop_back();
  return kept.front().second;
}

} // namespace datrin::solid
