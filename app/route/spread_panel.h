#pragma once
// What the setups leave of the limits: every distance with limits, how far pieces will come to scatter, which
// setup that comes from, and what cutting both its faces in one setup would give.

#include "app/document.h"
#include "app/marks/figure_row.h"
#include "app/route/spread_bar.h"
#include "route/other_datum.h"
#include "route/part_spread.h"

#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class SpreadPanel : public QWidget {
  Q_OBJECT
public:
  explicit SpreadPanel(Document& document, QWidget* parent = nullptr);
  void refresh();

  QTableWidget* table() const { return table_; } ///< stands in the centre of the page
  FigureRow* allowed() const { return allowed_; }
  FigureRow* expected() const { return expected_; }
  const route::PartSpread& spread() const { return spread_; }
  QString words() const { return words_->text(); }
  QString remarks() const { return remarks_->text(); }
  QString other_datum() const { return other_words_->text(); }
  QPushButton* take_datum() const { return take_; }
  QPushButton* tolerances_button() const { return tolerances_; }

private:
  void show_chosen();
  void show_allowed(const route::DimensionSpread& d);
  void show_other(const route::DimensionSpread* d);
  QString taken_words() const;

  Document& document_;
  QTableWidget* table_;
  SpreadBar* bar_;
  QLabel *words_, *remarks_, *taken_, *other_words_;
  QPushButton *take_, *tolerances_;
  std::optional<route::OtherDatum> other_; ///< what it would give for the chosen figure
  FigureRow *allowed_, *expected_;         ///< of the chosen distance
  route::PartSpread spread_;
};

} // namespace datrin::app
