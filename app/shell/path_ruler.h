#pragma once
// The path: the steps of a part as the graduations of a steel rule, a brass pointer at where one is.

#include <QStringList>
#include <QWidget>

namespace datrin::app {

class PathRuler : public QWidget {
  Q_OBJECT
public:
  explicit PathRuler(const QStringList& steps, QWidget* parent = nullptr);
  void set_step(int step);
  int step() const { return step_; }
  QSize sizeHint() const override;

signals:
  void chosen(int step);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  QStringList steps_;
  int step_ = 0;
};

} // namespace datrin::app
