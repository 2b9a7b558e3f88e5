#include "app/drawing/part_files.h"

#include "app/casting/piece_state.h"
#include "build/edit_drawing.h"
#include "sheets/figures.h"
#include "sheets/part_dxf.h"
#include "solid/rough.h"
#include "solid/step_file.h"
#include "solid/stl_file.h"
#include "store/text_file.h"

namespace datrin::app {

using sheets::qt;

namespace {

QString write_bytes(const QString& path, const std::string& bytes) {
  return qt(store::write_text_file(path.toStdString(), bytes));
}

constexpr auto no_solid = "the part is no solid yet: draw its bodies in the Solid face of the Drawing";

std::string part_name(const Document& document, build::Id part) {
  const auto* p = document.build().find<build::Part>(part);
  return p ? p->name : std::string();
}

} // namespace

QStringList part_file_filters() {
  return {"STEP, AP214 (*.step)", "STL of the part (*.stl)",
          "STL of the pattern, with shrinkage and allowance (*.stl)", "DXF of the three views (*.dxf)",
          "DXF of the outline of the face pointed at (*.dxf)"};
}

QString export_part(Document& document, PartFile kind, const QString& path, int face) {
  const auto part = document.part();
  document.solid_of(part);
  document.solids().wait();
  const auto solid = document.solid_of(part);
  if (!solid || !solid->picture) return no_solid;
  if (const auto wrong = document.is_own_file(path); !wrong.isEmpty()) return wrong;
  const auto& b = document.build();
  switch (kind) {
  case PartFile::step:
    return qt(solid::write_step(solid->picture->solid, part_name(document, part), path.toStdString()));
  case PartFile::stl:
    return write_bytes(path, solid::stl_bytes(solid->picture->solid));
  case PartFile::pattern_stl: {
    const auto foundry = b.foundry_of(part);
    const auto rough = solid::make_solid(solid::rough_bodies(b, part));
    if (!rough.usable()) return qt(rough.message);
    return write_bytes(path, solid::stl_bytes(rough, 1 + (foundry ? foundry->second.shrinkage
                                                                  : build::Foundry{}.shrinkage)));
  }
  case PartFile::views_dxf: {
    auto scene = part_scene(b, part);
    scene.solid = solid->picture;
    return write_bytes(path, sheets::views_dxf(scene, b.info().third_angle));
  }
  case PartFile::face_dxf: {
    if (face < 0) return "point at a flat face first: a click in one of the views";
    const auto outline = solid::flat_outline(solid->picture->solid, static_cast<std::size_t>(face));
    if (!outline.message.empty()) return qt(outline.message);
    return write_bytes(path, sheets::outline_dxf(outline));
  }
  }
  return {};
}

QString export_build_step(Document& document, const QString& path) {
  if (const auto wrong = document.is_own_file(path); !wrong.isEmpty()) return wrong;
  std::vector<std::shared_ptr<const PartSolid>> kept;
  std::vector<solid::NamedSolid> named;
  for (const auto& [id, part] : document.build().parts()) {
    document.solid_of(id);
    document.solids().wait();
    auto solid = document.solid_of(id);
    if (!solid || !solid->picture) continue;
    named.push_back({part.name, &solid->picture->solid});
    kept.push_back(std::move(solid));
  }
  if (named.empty()) return "no part of the build is a solid yet";
  return qt(solid::write_step(named, path.toStdString()));
}

} // namespace datrin::app
