#pragma once
// The whole build: what mates with what, what is made, the tightest places and the next numbers to cut.

#include "app/joints/targets_state.h"
#include "app/marks/column.h"
#include "app/marks/figure_row.h"
#include "app/marks/room_mark.h"
#include "app/overview/map_view.h"
#include "app/page/page.h"
#include "sheets/card_sheet.h"

namespace datrin::app {

class OverviewPage : public Page {
  Q_OBJECT
public:
  OverviewPage(Document& document, TargetsState& targets);
  void refresh() override;
  QWidget* first_focus() override { return map_; }

  MapView* map() const { return map_; }
  const std::vector<RoomRow*>& tightest() const { return rows_; }
  const std::vector<FigureRow*>& next() const { return next_; }
  NextButton* card_button() const { return card_; }
  QString words() const { return words_->text(); }
  QString part_words() const { return part_words_->text(); }
  QString left_out() const { return left_out_->text(); }
  sheets::CardSheet card() const; ///< of the numbers that can be cut now
  void ask_card();
  QString save_card(const QString& path) const; ///< empty when written

signals:
  void joint_wanted(qlonglong joint);
  void chain_wanted(qlonglong chain);

private:
  static constexpr std::size_t numbers_shown = 8;
  struct Made {
    int made = 0, all = 0; ///< sizes that mate
  };
  Made made_of(build::Id part) const; ///< of one part; 0: of all
  std::vector<MapPart> map_parts(const std::vector<chains::NextNumber>& list) const;
  std::vector<MapJoint> map_joints(const std::vector<MapPart>& parts) const;
  void show_next(const std::vector<chains::NextNumber>& list);
  void show_tightest();
  QString verdict() const;
  void show_part(const std::vector<chains::NextNumber>& list);

  TargetsState& targets_;
  MapView* map_;
  QLabel *words_, *left_out_, *part_name_, *part_words_;
  QVBoxLayout *tight_box_, *next_box_;
  std::vector<RoomRow*> rows_;
  std::vector<FigureRow*> next_;
  NextButton* card_;
};

} // namespace datrin::app
