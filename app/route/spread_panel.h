#pragma once
// What the setups leave of the limits: every distance with limits, how far pieces will come to scatter, which
// setup that comes from, and what cutting both its faces in one setup would give.

#include "app/document.h"
#include "app/marks/figure_row.h"
#include "app/route/spread_bar.h"
#include "route/part_spread.h"

#include <QLabel>
#include <QTableWidget>

namespace datrin::app {

class SpreadPanel : public QWidget {
public:
  explicit SpreadPanel(Document& document, QWidget* parent = nullptr);
  void refresh();

  QTableWidget* table() const { return table_; } ///< stands in the centre of the page
  FigureRow* allowed() const { return allowed_; }
  FigureRow* expected() const { return expected_; }
  const route::PartSpread& spread() const { return spread_; }
  QString words() const { return words_->text(); }
  QString remarks() const { return remarks_->text(); }

private:
  void show_chosen();
  QString taken_words() const;

  Document& document_;
  QTableWidget* table_;
  SpreadBar* bar_;
  QLabel *words_, *remarks_, *taken_;
  FigureRow *allowed_, *expected_; ///< of the chosen distance
  route::PartSpread spread_;
};

} // namespace datrin::app
