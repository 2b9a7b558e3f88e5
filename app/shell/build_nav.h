#pragma once
// The pages of the whole build, above the shelf of its parts.

#include <QButtonGroup>
#include <QStringList>
#include <QWidget>

namespace datrin::app {

class BuildNav : public QWidget {
  Q_OBJECT
public:
  BuildNav(const QStringList& names, int first_step, QWidget* parent = nullptr);
  void set_step(int step); ///< the page shown; one that is not here: none is marked
  QAbstractButton* button(int k) const { return group_.button(k); }

signals:
  void chosen(int step);

private:
  QButtonGroup group_;
  int first_step_;
};

} // namespace datrin::app
