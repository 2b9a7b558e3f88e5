#pragma once
// The path: the steps of a part as the graduations of a steel rule, a brass pointer at where one is.

#include "app/marks/spoken.h"
#include "app/page/steps.h"

#include <QWidget>

namespace datrin::app {

class PathRuler : public QWidget, public Spoken {
  Q_OBJECT
public:
  explicit PathRuler(QWidget* parent = nullptr);
  void set_step(Step step); ///< a page of the whole build: no step is marked
  QSize sizeHint() const override;
  QAccessible::Role spoken_role() const override { return QAccessible::PageTabList; }
  QString spoken_value() const override;
  QStringList spoken_actions() const override; ///< the steps: each goes there
  void do_spoken(const QString& step) override;

signals:
  void chosen(datrin::app::Step step);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  std::vector<StepRow> steps_;
  int at_ = 0; ///< −1: none
};

} // namespace datrin::app
