#include "sheets/dxf_file.h"

#include "quantity/unit.h"
#include "store/temporary_folder.h"

#include <dxflib/dl_dxf.h>
#include <dxflib/dl_writer_ascii.h>

#include <fstream>
#include <iterator>

namespace datrin::sheets {

struct DxfFile::Inside {
  const store::TemporaryFolder folder; // the library writes to a file only; the text is read back from it
  const std::string scratch = folder.path() + "/lines.dxf";
  DL_Dxf dxf;
  std::unique_ptr<DL_WriterA> out;

  static DL_Attributes on(const std::string& layer) { return DL_Attributes(layer, 256, -1, "BYLAYER", 1.0); }
};

DxfFile::DxfFile(const std::vector<std::string>& layers) : inside_(std::make_unique<Inside>()) {
  auto& dxf = inside_->dxf;
  inside_->out.reset(dxf.out(inside_->scratch.c_str(), DL_VERSION_2000));
  if (!inside_->out) return;
  auto& out = *inside_->out;
  dxf.writeHeader(out);
  out.dxfString(9, "$INSUNITS");
  out.dxfInt(70, 4); // millimetres
  out.sectionEnd();
  out.sectionTables();
  dxf.writeVPort(out);
  out.tableLinetypes(3);
  dxf.writeLinetype(out, DL_LinetypeData("BYBLOCK", "BYBLOCK", 0, 0, 0));
  dxf.writeLinetype(out, DL_LinetypeData("BYLAYER", "BYLAYER", 0, 0, 0));
  dxf.writeLinetype(out, DL_LinetypeData("CONTINUOUS", "Continuous", 0, 0, 0));
  double dashes[] = {3, -1.5}, chain[] = {8, -1.5, 1, -1.5};
  dxf.writeLinetype(out, DL_LinetypeData("DASHED", "Dashed", 0, 2, 4.5, dashes));
  dxf.writeLinetype(out, DL_LinetypeData("CENTER", "Centre", 0, 4, 12, chain));
  out.tableEnd();
  out.tableLayers(static_cast<int>(layers.size()) + 1);
  dxf.writeLayer(out, DL_LayerData("0", 0), DL_Attributes("", DL_Codes::white, 25, "CONTINUOUS", 1.0));
  for (const auto& layer : layers)
    dxf.writeLayer(out, DL_LayerData(layer, 0),
                   DL_Attributes("", DL_Codes::white, 25,
                                 layer == "HIDDEN"   ? "DASHED"
                                 : layer == "CENTRE" ? "CENTER"
                                                     : "CONTINUOUS",
                                 1.0));
  out.tableEnd();
  out.tableStyle(1);
  dxf.writeStyle(out, DL_StyleData("Standard", 0, 2.5, 1, 0, 0, 2.5, "", ""));
  out.tableEnd();
  dxf.writeView(out);
  dxf.writeUcs(out);
  out.tableAppid(1);
  dxf.writeAppid(out, "ACAD");
  out.tableEnd();
  dxf.writeDimStyle(out, 1, 1, 1, 1, 1);
  dxf.writeBlockRecord(out);
  out.tableEnd();
  out.sectionEnd();
  out.sectionBlocks();
  for (const char* block : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
    dxf.writeBlock(out, DL_BlockData(block, 0, 0, 0, 0));
    dxf.writeEndBlock(out, block);
  }
  out.sectionEnd();
  out.sectionEntities();
}

DxfFile::~DxfFile() = default;

void DxfFile::line(const std::string& layer, const Vec2& from, const Vec2& to) {
  if (inside_->out)
    inside_->dxf.writeLine(*inside_->out, DL_LineData(from.x(), from.y(), 0, to.x(), to.y(), 0),
                           Inside::on(layer));
}

void DxfFile::circle(const std::string& layer, const Vec2& centre, double radius) {
  if (inside_->out)
    inside_->dxf.writeCircle(*inside_->out, DL_CircleData(centre.x(), centre.y(), 0, radius),
                             Inside::on(layer));
}

void DxfFile::arc(const std::string& layer, const Vec2& centre, double radius, double from, double to) {
  if (inside_->out)
    inside_->dxf.writeArc(*inside_->out,
                          DL_ArcData(centre.x(), centre.y(), 0, radius, degrees(from), degrees(to)),
                          Inside::on(layer));
}

void DxfFile::point(const std::string& layer, const Vec2& at) {
  if (inside_->out)
    inside_->dxf.writePoint(*inside_->out, DL_PointData(at.x(), at.y(), 0), Inside::on(layer));
}

void DxfFile::text(const std::string& layer, const Vec2& at, double height, const std::string& words) {
  if (inside_->out)
    inside_->dxf.writeText(
        *inside_->out,
        DL_TextData(at.x(), at.y(), 0, at.x(), at.y(), 0, height, 1, 0, 0, 0, words, "Standard", 0),
        Inside::on(layer));
}

void DxfFile::path(const std::string& layer, const std::vector<Vec2>& at, bool closed) {
  for (std::size_t k = 0; k + 1 < at.size(); ++k) line(layer, at[k], at[k + 1]);
  if (closed && at.size() > 2) line(layer, at.back(), at.front());
}

std::string DxfFile::finish() {
  if (!inside_->out) return {};
  auto& out = *inside_->out;
  out.sectionEnd();
  inside_->dxf.writeObjects(out);
  inside_->dxf.writeObjectsEnd(out);
  out.dxfEOF();
  out.close();
  inside_->out.reset();
  std::ifstream file(inside_->scratch, std::ios::binary);
  return {std::istreambuf_iterator<char>(file), {}};
}

} // namespace datrin::sheets
