#pragma once
// The seat: the finished part inside its casting, taken hold of by hand or seated best, with every margin
// beside it.

#include "app/aside.h"
#include "app/casting/hold_list.h"
#include "app/casting/judge_panel.h"
#include "app/casting/piece_state.h"
#include "app/casting/rescue_panel.h"
#include "app/casting/sure_panel.h"
#include "app/marks/column.h"
#include "app/marks/figure_row.h"
#include "app/marks/part_canvas.h"
#include "app/marks/room_mark.h"
#include "app/marks/stock_comb.h"
#include "app/page/page.h"

#include <QVariantAnimation>

#include <memory>

namespace datrin::app {

class SeatPage : public Page {
  Q_OBJECT
public:
  explicit SeatPage(Document& document);
  void refresh() override;
  FigureRow* wall_row() const { return wall_row_; }
  QWidget* first_focus() override { return canvas_; }

  PartCanvas* canvas() const { return canvas_; }
  StockComb* comb() const { return comb_; }
  HoldList* holds() const { return holds_; }
  std::vector<RoomRow*> room_rows() const { return rows_; }
  QString least_text() const { return least_->text(); }
  QString verdict_text() const { return verdict_->text(); }
  QPushButton* best_button() const { return best_; }
  const PieceState& state() const { return state_; }
  JudgePanel* judge() const { return judge_; }
  RescuePanel* rescue() const { return rescue_; }
  SurePanel* sure() const { return sure_; }
  bool busy() const { return search_.busy() || glide_.state() == QAbstractAnimation::Running; }

public slots:
  void seat_best();
  void nudge(const datrin::Vec3& move, const datrin::Vec3& turn);

signals:
  void settled(); ///< a search has ended and the part has arrived

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  enum Face { room_face, judge_face, rescue_face, sure_face }; ///< of the room column
  void make_picture();
  void make_room_face();
  void connect_hands();
  void make_search();
  enum class Purpose { none, move, explain };
  void show_pose(const Pose& pose);
  void show_margins();
  void show_holds();
  void start_search(Purpose purpose);
  void search_ended(casting::SeatResult found);
  void search_failed(const QString& why);
  void glide_to(const Pose& target);
  void keep(const Pose& pose, bool best, const QString& label);
  void stop_search();
  bool handle_key(int key, Qt::KeyboardModifiers modifiers);
  QString shortfall_words() const;
  QString wall_near(const sheets::SectionPlane& cut) const;
  void show_panels();
  void show_wall();

  PartCanvas* canvas_;
  StockComb* comb_;
  QLabel *least_, *unit_label_, *verdict_, *holds_heading_, *ease_, *check_;
  QWidget* rows_box_;
  FigureRow* wall_row_; ///< the thinnest wall as it lies; hidden: none is known
  std::vector<RoomRow*> rows_;
  HoldList* holds_;
  QPushButton* best_;
  NextButton* next_;
  QWidget* room_;
  JudgePanel* judge_;
  RescuePanel* rescue_;
  SurePanel* sure_;
  build::Judgement shown_judgement_;

  PieceState state_; ///< as kept; pose and margins as shown
  build::Id shown_piece_ = 0;
  Pose picture_;               ///< survey frame → the frame the picture was made in
  Pose grabbed_;               ///< pose when taken hold of
  casting::SeatResult answer_; ///< of the last search, while its pose is the one shown
  bool have_answer_ = false;
  Purpose purpose_ = Purpose::none;
  Aside<casting::SeatResult, PieceAsOf> search_{
      this, [this] { return document_.piece_now(); },
      [this](casting::SeatResult found) { search_ended(std::move(found)); },
      [this](const QString& why) { search_failed(why); }};
  QVariantAnimation glide_;
  Pose glide_from_, glide_target_;
};

} // namespace datrin::app
