#pragma once
// The first datums: which as-cast surfaces to stand and locate the casting on, how well it then repeats; and
// how it will really rest on the first.

#include "app/casting/piece_state.h"
#include "app/document.h"
#include "casting/first_datum.h"
#include "casting/resting.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class DatumPanel : public QWidget {
  Q_OBJECT
public:
  explicit DatumPanel(Document& document, QWidget* parent = nullptr);
  void show_state(const PieceState& state);

  QTableWidget* table() const { return table_; } ///< choices; stands in the centre of the page
  QPushButton* take_button() const { return take_; }
  QString words() const { return words_->text(); }
  QString rest_words() const { return rest_->text(); }
  QString spread_words() const { return spreads_->text(); }
  const casting::FirstDatumResult& result() const { return result_; }
  std::vector<sheets::SceneSpot>
  target_spots() const; ///< of the chosen choice, numbered 1 to 6, drawing frame

signals:
  void chosen();                           ///< another choice is shown
  void take(const std::vector<long>& ids); ///< these surfaces as first datums

private:
  void show_choice();
  void show_rest();
  const casting::DatumChoice* current() const;

  Document& document_;
  QTableWidget* table_;
  QLabel *words_, *spreads_, *rest_;
  QPushButton* take_;
  PieceState state_;
  std::vector<build::Id> ids_;
  casting::FirstDatumInput input_;
  casting::FirstDatumResult result_;
};

} // namespace datrin::app
