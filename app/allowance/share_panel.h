#pragma once
// How the metal between two opposite faces is shared, pulled by hand: by the seat, half each, all to one
// side, or so that a defect is cut away; and what each does to everything else.

#include "allowance/plan.h"
#include "allowance/shares.h"
#include "app/casting/piece_state.h"
#include "app/document.h"

#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

namespace datrin::app {

class SharePanel : public QWidget {
public:
  explicit SharePanel(Document& document, QWidget* parent = nullptr);
  void show_plan(const PieceState& state, const std::vector<allowance::SurfacePlan>& plans,
                 const allowance::SurfacePlan* plan);

  QTableWidget* table() const { return table_; }
  QPushButton* take_button() const { return take_; }
  QString words() const { return words_->text(); }

private:
  struct Row {
    QString name;
    allowance::ShareResult result;
    Pose pose;
    double least = 0; ///< least room over everything with it
  };
  void take();
  void show_words();

  Document& document_;
  QTableWidget* table_;
  QLabel *heading_, *words_;
  QPushButton* take_;
  std::vector<Row> rows_;
  build::Id piece_ = 0;
  QString title_;
};

} // namespace datrin::app
