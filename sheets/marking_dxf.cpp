#include "sheets/marking_dxf.h"

#include "store/temporary_folder.h"

#include <dxflib/dl_dxf.h>
#include <dxflib/dl_writer_ascii.h>
#include <fmt/format.h>

#include <fstream>
#include <iterator>
#include <memory>

namespace datrin::sheets {
std::string marking_dxf(const MarkingPicture& picture) {
  const store::TemporaryFolder folder; // the library writes to a file only; the text is read back from it
  const auto scratch = folder.path() + "/lines.dxf";
  {
    DL_Dxf dxf;
    const std::unique_ptr<DL_WriterA> out(dxf.out(scratch.c_str(), DL_VERSION_2000));
    if (!out) return {};
    dxf.writeHeader(*out);
    out->dxfString(9, "$INSUNITS");
    out->dxfInt(70, 4); // millimetres
    out->sectionEnd();
    out->sectionTables();
    dxf.writeVPort(*out);
    out->tableLinetypes(1);
    dxf.writeLinetype(*out, DL_LinetypeData("BYBLOCK", "BYBLOCK", 0, 0, 0));
    dxf.writeLinetype(*out, DL_LinetypeData("BYLAYER", "BYLAYER", 0, 0, 0));
    dxf.writeLinetype(*out, DL_LinetypeData("CONTINUOUS", "Continuous", 0, 0, 0));
    out->tableEnd();
    out->tableLayers(5);
    for (const char* layer : {"0", "PLATE", "PART", "LINES", "JACKS"})
      dxf.writeLayer(*out, DL_LayerData(layer, 0), DL_Attributes("", DL_Codes::white, 25, "CONTINUOUS", 1.0));
    out->tableEnd();
    out->tableStyle(1);
    dxf.writeStyle(*out, DL_StyleData("Standard", 0, 2.5, 1, 0, 0, 2.5, "", ""));
    out->tableEnd();
    dxf.writeView(*out);
    dxf.writeUcs(*out);
    out->tableAppid(1);
    dxf.writeAppid(*out, "ACAD");
    out->tableEnd();
    dxf.writeDimStyle(*out, 1, 1, 1, 1, 1);
    dxf.writeBlockRecord(*out);
    out->tableEnd();
    out->sectionEnd();
    out->sectionBlocks();
    for (const char* block : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
      dxf.writeBlock(*out, DL_BlockData(block, 0, 0, 0, 0));
      dxf.writeEndBlock(*out, block);
    }
    out->sectionEnd();
    out->sectionEntities();
    const Vec3 eye = std::abs(picture.up.y()) < 0.9 ? Vec3(-Vec3::UnitY()) : Vec3(Vec3::UnitX());
    const auto view = elevation(picture.up, eye);
    const auto scene = make_scene(picture.part, view);
    const double zero = picture.marking.height_zero;
    const auto line = [&](const char* layer, const Vec2& a, const Vec2& b) {
      dxf.writeLine(*out, DL_LineData(a.x(), a.y() + zero, 0, b.x(), b.y() + zero, 0),
                    DL_Attributes(layer, 256, -1, "BYLAYER", 1.0));
    };
    for (const auto& path : scene.paths) {
      if (path.role != Role::finished && path.role != Role::cast && path.role != Role::rough) continue;
      for (const auto& loop : path.loops) {
        for (std::size_t k = 0; k + 1 < loop.size(); ++k) line("PART", loop[k], loop[k + 1]);
        if (path.closed && loop.size() > 2) line("PART", loop.back(), loop.front());
      }
    }
    const double left = scene.low.x() - 15, right = scene.high.x() + 15;
    line("PLATE", {left, -zero}, {right, -zero});
    for (const auto& mark : picture.marking.lines) {
      line("LINES", {left, mark.height - zero}, {right, mark.height - zero});
      dxf.writeText(*out,
                    DL_TextData(right + 1, mark.height, 0, right + 1, mark.height, 0, 2.5, 1, 0, 0, 0,
                                fmt::format("{:.2f}", mark.height), "Standard", 0),
                    DL_Attributes("LINES", 256, -1, "BYLAYER", 1.0));
    }
    for (const auto& jack : picture.marking.jacks) {
      const Vec2 at = view.on_paper(jack.at);
      dxf.writePoint(*out, DL_PointData(at.x(), jack.height, 0),
                     DL_Attributes("JACKS", 256, -1, "BYLAYER", 1.0));
    }
    out->sectionEnd();
    dxf.writeObjects(*out);
    dxf.writeObjectsEnd(*out);
    out->dxfEOF();
    out->close();
  }
  std::ifstream file(scratch, std::ios::binary);
  return {std::istreambuf_iterator<char>(file), {}};
}

} // namespace datrin::sheets
