#pragma once
// Judging a seat: motions locked, surfaces favoured, the bore kept central; what holds it, as forces in
// balance; and other seats beside this one, with what each costs.

#include "app/aside.h"
#include "app/casting/piece_state.h"
#include "app/document.h"
#include "app/marks/length_field.h"
#include "casting/judgement.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

#include <array>

namespace datrin::app {

/// A seat that can stand beside the one shown.
struct OtherSeat {
  QString name, how;
  Pose pose;
  casting::SeatMargins margins;
};

class JudgePanel : public QWidget {
  Q_OBJECT
public:
  explicit JudgePanel(Document& document, QWidget* parent = nullptr);
  void show_state(const PieceState& state, const casting::SeatResult* answer);

  QCheckBox* lock(int k) const { return locks_[static_cast<std::size_t>(k)]; }
  QComboBox* favoured() const { return favoured_; }
  LengthField* favour() const { return favour_; }
  QComboBox* central() const { return central_; }
  QTableWidget* table() const { return table_; }
  QPushButton* take_button() const { return take_; }
  QString balance_text() const { return balance_->text(); }
  const std::vector<OtherSeat>& others() const { return others_; }
  bool busy() const { return comparing_.busy(); }

signals:
  void take(const datrin::Pose& pose, const QString& name);

private:
  void make_wishes();
  void connect_wishes();
  void make_others();
  void connect_others();
  void wish(const std::function<void(build::Judgement&)>& change, const QString& label);
  void compare();
  void fill();
  void show_others(std::vector<OtherSeat> others);
  void ask_why(); ///< the sum behind the least room of the chosen row

  Document& document_;
  PieceState state_;
  std::array<QCheckBox*, 6> locks_{};
  QComboBox *favoured_, *central_;
  LengthField* favour_;
  QLabel *balance_, *costs_;
  QTableWidget* table_;
  QPushButton* take_;
  std::vector<OtherSeat> others_;
  Aside<std::vector<OtherSeat>, PieceAsOf> comparing_{this, [this] { return document_.piece_now(); },
                                                      [this](auto others) { show_others(std::move(others)); },
                                                      [this](const QString& why) {
                                                        show_others({});
                                                        costs_->setText(why);
                                                      }};
};

/// What the judgement of a piece says, for the search.
casting::SeatWishes seat_wishes(const build::Build& build, build::Id piece, const casting::PieceInput& input);

} // namespace datrin::app
