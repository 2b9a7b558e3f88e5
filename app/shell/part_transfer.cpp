#include "app/shell/part_transfer.h"

#include "app/drawing/part_files.h"
#include "app/marks/waiting.h"
#include "sheets/figures.h"
#include "solid/step_file.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QInputDialog>

#include <algorithm>

namespace datrin::app {

using sheets::qt;

namespace {

Transfer written(const QString& path, const QString& wrong) {
  return wrong.isEmpty() ? Transfer{"Written to " + path + ".", false}
                         : Transfer{sheets::sentence(wrong.toStdString()), true};
}

struct CameIn {
  QString wrong; ///< empty: it was read
  build::Added added;
  int solids = 0; ///< in the file
};

/// Read aside, while the window says so; `only`: of several solids that one, 0: all.
CameIn read_in(QWidget* parent, const Document& document, const QString& path, int only) {
  QString thrown;
  const auto name = QFileInfo(path).completeBaseName().toStdString();
  const auto came =
      wait_for(parent, filled("Reading %1\u2026", QFileInfo(path).fileName()), thrown,
               [&, build = document.build()](const store::ReadOptions& options) {
                 CameIn in;
                 const auto read =
                     solid::read_step(path.toStdString(),
                                      {.only = only, .solid = {.mesh = false}, .stop = options.should_stop});
                 in.solids = read.solids;
                 if (read.ok())
                   in.added = solid::add_imported(build, name, solid::step_text(read.solid, "part"));
                 in.wrong = qt(read.ok() ? sheets::sentence(in.added.wrong).toStdString() : read.message);
                 return in;
               });
  return came ? *came : CameIn{path + ": " + thrown, {}, 0};
}

} // namespace

Transfer send_out_part(QWidget* parent, Document& document, int face) {
  const auto* part = document.is_open() ? document.build().find<build::Part>(document.part()) : nullptr;
  if (!part) return {"Choose a part first.", true};
  const auto filters = part_file_filters();
  QString chosen = filters.front();
  auto path = QFileDialog::getSaveFileName(parent, "Export the part", name_words(part->name) + ".step",
                                           filters.join(";;"), &chosen);
  if (path.isEmpty()) return {};
  const auto kind = static_cast<PartFile>(std::max<qsizetype>(0, filters.indexOf(chosen)));
  const QString endings[] = {"step", "stl", "stl", "dxf", "dxf"};
  const auto& ending = endings[static_cast<std::size_t>(kind)];
  if (const auto suffix = QFileInfo(path).suffix(); suffix.isEmpty()) {
    path += "." + ending;
    if (QFileInfo::exists(path))
      return {filled("%1 is there already: choose another name, or write .%2 behind it.", path, ending),
              true};
  } else if (suffix.compare(ending, Qt::CaseInsensitive) != 0) {
    return {filled("Not written: the name ends in .%1, what was chosen in .%2.", suffix, ending), true};
  }
  return written(path, export_part(document, kind, path, face));
}

Transfer send_out_build(QWidget* parent, Document& document) {
  const auto path = QFileDialog::getSaveFileName(
      parent, "Export the build", QFileInfo(document.path()).completeBaseName() + ".step", "STEP (*.step)");
  return path.isEmpty() ? Transfer{} : written(path, export_build_step(document, path));
}

Transfer bring_in_part(QWidget* parent, Document& document, const QString& path) {
  if (!document.is_open()) return {"Open a build first, or begin one: the part is added to it.", true};
  auto came = read_in(parent, document, path, 0);
  if (came.solids > 1) {
    QStringList which{"all of them, as one part"};
    for (int k = 1; k <= came.solids; ++k) which << filled("solid %1", QString::number(k));
    bool ok = false;
    const auto name = QInputDialog::getItem(parent, "Which part?",
                                            filled("The file holds %1 solids.", QString::number(came.solids)),
                                            which, 0, false, &ok);
    if (!ok) return {};
    if (const auto k = which.indexOf(name); k > 0)
      came = read_in(parent, document, path, static_cast<int>(k));
  }
  if (!came.wrong.isEmpty()) return {came.wrong, true};
  const auto& added = came.added;
  if (!document.apply(added.edit)) return {};
  document.choose(added.id, document.build().pieces_of(added.id).front().first);
  return {"Point at the faces that matter: a click makes one a surface.", false};
}

} // namespace datrin::app
