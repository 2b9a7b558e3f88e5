#pragma once
// Where one can be in the window: the steps of a part, and the pages of the whole build. The one table of
// them: what each is called, the key that goes there, and the faces its room column has. A page more is a row
// more here, and its page in the window.

#include <QString>
#include <QStringList>

#include <vector>

namespace datrin::app {

enum class Step { drawing, touches, seat, marking, allowance, route, overview, joints, chains, batch, shop };

struct StepRow {
  Step step;
  QString name;
  QString key;
  bool of_part = false; ///< a step of one part; else a page of the whole build
  QStringList faces;    ///< of the room column; none: it has only one
};

/// In the order they are shown.
const std::vector<StepRow>& steps();

const StepRow& row_of(Step step);

/// Those of a part, or those of the whole build.
std::vector<StepRow> steps_of(bool part);

} // namespace datrin::app
