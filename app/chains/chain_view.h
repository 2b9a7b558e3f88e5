#pragma once
// A chain on blued metal: its dimensions laid head to tail, one below the other, and the gap that is left.

#include "app/marks/spoken.h"
#include "quantity/reckoning.h"
#include "quantity/unit.h"

#include <QWidget>

#include <vector>

namespace datrin::app {

struct ChainRow {
  QString name;
  double length = 0; ///< mm, signed: coefficient · value
  double coefficient = 1;
  bool measured = false;
  double share = 0; ///< of the variance
  bool improve = false;
};

class ChainView : public QWidget, public SpokenPicture {
  Q_OBJECT
public:
  explicit ChainView(QWidget* parent = nullptr);
  void show_chain(const QString& title, const std::vector<ChainRow>& rows, double least, double most,
                  bool fits, Unit unit, Reckoning why = {});
  void set_empty_text(const QString& title, const QString& words);
  void set_chosen(int row);
  int chosen() const { return chosen_; }
  const std::vector<ChainRow>& rows() const { return rows_; }
  double gap() const;
  const Reckoning& why() const { return why_; } ///< F1 shows it

signals:
  void row_chosen(int row);

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  double row_height() const;

  QString title_, empty_title_, empty_words_;
  std::vector<ChainRow> rows_;
  double least_ = 0, most_ = 0;
  bool fits_ = true;
  Unit unit_ = Unit::mm;
  int chosen_ = -1;
  Reckoning why_;
};

} // namespace datrin::app
