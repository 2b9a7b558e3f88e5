#include "solid/step_file.h"

#include "build/edit_drawing.h"
#include "solid/brep.h"
#include "solid/step_shield.h"

#include <IFSelect_ReturnStatus.hxx>
#include <Interface_Static.hxx>
#include <STEPControl_Writer.hxx>

#include <fmt/format.h>

#include <algorithm>
#include <cerrno>
#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <functional>
#include <iterator>
#include <list>
#include <mutex>
#include <string>
#include <sys/mman.h>
#include <system_error>
#include <unistd.h>

namespace datrin::solid {

namespace {

StepRead read_of(StepShape read, const std::string& name, const StepOptions& options) {
  quiet();
  StepRead step;
  step.unit = read.unit;
  step.solids = read.solids;
  if (read.wrong.empty()) {
    try {
      read_off(step.solid, read.shape, options.solid);
      step.solid.status = SolidStatus::made;
    } catch (const Standard_Failure& failure) {
      read.wrong = "cannot be read (" + words_of(failure) + ")";
    }
  }
  if (!read.wrong.empty()) step.message = fmt::format("{}: {}", name, read.wrong);
  return step;
}

/// What a STEP text holds, kept by content: every other body of a part is taken anew, this one is as it was.
/// A refusal is kept too: it may have taken a minute.
StepShape kept_shape(const std::string& step, const std::function<bool()>& stop) {
  static std::mutex guard;
  static std::list<std::pair<std::string, StepShape>> kept;
  constexpr std::size_t most_kept = 4;
  {
    const std::lock_guard lock(guard);
    for (auto at = kept.begin(); at != kept.end(); ++at)
      if (at->first == step) {
        kept.splice(kept.begin(), kept, at);
        return kept.front().second;
      }
  }
  const auto read = read_shielded(step, {.stop = stop});
  if (read.stopped) return read;
  const std::lock_guard lock(guard);
  kept.emplace_front(step, read);
  if (kept.size() > most_kept) kept.pop_back();
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
  StepShape none;
  // A pipe nobody writes to would be waited for: only what is a file is opened for good.
  std::error_code error;
  const auto is = std::filesystem::status(path, error);
  const int file = open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
  const auto why = file < 0 ? std::generic_category().message(errno) : std::string();
  if (std::filesystem::is_directory(is))
    none.wrong = "is a folder, not a file";
  else if (file < 0)
    none.wrong = "cannot be read: " + why;
  else if (!std::filesystem::is_regular_file(is))
    none.wrong = "is no file that can be read from end to end";
  else
    none = read_shielded(file, options);
  if (file >= 0) close(file);
  return read_of(std::move(none), path, options);
}

StepRead read_step_text(const std::string& text, const std::string& name, const StepOptions& options) {
  return read_of(read_shielded(text, options), name, options);
}

std::string write_step(const std::vector<NamedSolid>& solids, const std::string& path) {
  auto wrong = written(solids, [&](STEPControl_Writer& writer) { return writer.Write(path.c_str()); });
  return wrong.empty() ? wrong : fmt::format("{}: {}", path, wrong);
}

std::string write_step(const Solid& solid, const std::string& name, const std::string& path) {
  return write_step({{name, &solid}}, path);
}

std::string unreadable_import(const build::Build& build, const std::function<bool()>& stop) {
  for (const auto& [id, body] : build.all<build::Body>()) {
    if (body.shape != BodyShape::imported) continue;
    const auto* part = build.find<build::Part>(body.part);
    const auto name = fmt::format("record {}, the imported body of {}", id, part ? part->name : "no part");
    if (body.step.empty()) return name + " has no STEP file in it";
    if (const auto read = kept_shape(body.step, stop); !read.wrong.empty())
      return fmt::format("{}: the imported part {}", name, read.wrong);
  }
  return {};
}

build::Added add_imported(const build::Build& build, const std::string& name, std::string step) {
  const auto read = read_of(kept_shape(step, {}), name, {.solid = {.mesh = false}});
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
  // The library writes to files only: to one in memory, which nobody else can open.
  const int file = memfd_create("step", MFD_CLOEXEC);
  if (file < 0) return {};
  const auto path = fmt::format("/proc/self/fd/{}", file);
  std::string text;
  if (write_step(solid, name, path).empty()) {
    std::ifstream back(path, std::ios::binary);
    text.assign(std::istreambuf_iterator<char>(back), {});
  }
  close(file);
  return text;
}

TopoDS_Shape imported(const std::string& step, const std::function<bool()>& stop) {
  const auto read = kept_shape(step, stop);
  if (!read.wrong.empty()) throw Standard_Failure(("the imported part " + read.wrong).c_str());
  return read.shape;
}

} // namespace datrin::solid
