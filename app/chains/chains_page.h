#pragma once
// Chains: loops of dimensions across parts that must close with a stated gap.

#include "app/chains/chain_view.h"
#include "app/chains/link_panel.h"
#include "app/joints/clearance_view.h"
#include "app/joints/targets_state.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "app/marks/room_list.h"
#include "app/page/page.h"

namespace datrin::app {

class ChainsPage : public Page {
  Q_OBJECT
public:
  ChainsPage(Document& document, TargetsState& targets);
  void refresh() override;
  QWidget* first_focus() override { return list_; }
  QWidget* left() const override { return left_; }
  void choose(build::Id chain);

  RoomList* list() const { return list_; }
  ChainView* view() const { return view_; }
  ClearanceView* gap_view() const { return gap_view_; }
  LinkPanel* links() const { return links_; }
  QPushButton* add_button() const { return add_; }
  QPushButton* remove_button() const { return remove_; }
  QLineEdit* name_edit() const { return name_; }
  LengthField* least_field() const { return least_; }
  LengthField* most_field() const { return most_; }
  QComboBox* closing_box() const { return closing_; }
  QString figures() const { return figures_->text(); }
  QString advice() const { return advice_->text(); }
  const chains::ChainResult& result() const { return result_; }

public slots:
  void state_chain();

private:
  enum Face { gap_face, links_face }; ///< of the room column
  void make_list();
  void make_picture();
  void make_gap_face();
  void connect_list();
  void connect_gap();
  void keep(const build::Chain& changed, const QString& what);
  void show_gap();

  TargetsState& targets_;
  build::Id chosen_ = 0;
  chains::ChainResult result_;
  QWidget* left_;
  QLabel* heading_;
  RoomList* list_;
  QPushButton *add_, *remove_;
  ChainView* view_;
  ClearanceView* gap_view_;
  QWidget* gap_;
  QLineEdit *name_, *reason_;
  LengthField *least_, *most_;
  QLabel *figures_, *advice_;
  MessageLine* message_;
  QComboBox* closing_;
  LinkPanel* links_;
};

} // namespace datrin::app
