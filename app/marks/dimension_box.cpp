#include "app/marks/dimension_box.h"

#include "drawing/dimension_limits.h"
#include "sheets/figures.h"

#include <QSignalBlocker>

namespace datrin::app {

using sheets::qt;

void fill_dimensions(QComboBox* box, const build::Build& b, const QString& first) {
  const QSignalBlocker quiet(box);
  const auto kept = box->currentData();
  box->clear();
  box->addItem(first, 0);
  for (const auto& [part_id, part] : b.parts())
    for (const auto& [id, d] : b.dimensions_of(part_id))
      if (d.kind != build::DimensionKind::angle)
        box->addItem(QString("%1, %2  %3")
                         .arg(name_words(part.name), name_words(d.name),
                              qt(drawing::dimension_text(d, b.info().unit))),
                     static_cast<qlonglong>(id));
  box->setCurrentIndex(std::max(0, box->findData(kept)));
}

} // namespace datrin::app
