#pragma once
// The pages of the whole build, above the shelf of its parts.

#include "app/page/steps.h"

#include <QButtonGroup>
#include <QWidget>

namespace datrin::app {

class BuildNav : public QWidget {
  Q_OBJECT
public:
  explicit BuildNav(QWidget* parent = nullptr);
  void set_step(Step step); ///< the page shown; one that is not here: none is marked
  QAbstractButton* button(Step step) const { return group_.button(static_cast<int>(step)); }

signals:
  void chosen(datrin::app::Step step);

private:
  QButtonGroup group_;   ///< a button's id is its step
  bool setting_ = false; ///< the page is another already, the buttons follow
};

} // namespace datrin::app
