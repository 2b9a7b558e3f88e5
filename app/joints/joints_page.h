#pragma once
// Joints: every fit of the build, tightest first; the one chosen on blued metal, with the number to make
// next.

#include "app/joints/clearance_view.h"
#include "app/joints/fit_panel.h"
#include "app/joints/make_panel.h"
#include "app/joints/pairs_panel.h"
#include "app/joints/targets_state.h"
#include "app/joints/try_panel.h"
#include "app/joints/work_panel.h"
#include "app/joints/zone_view.h"
#include "app/marks/room_list.h"
#include "app/page/page.h"

#include <QStackedWidget>

#include <map>

namespace datrin::app {

class JointsPage : public Page {
  Q_OBJECT
public:
  JointsPage(Document& document, TargetsState& targets);
  void refresh() override;
  QWidget* first_focus() override { return list_; }
  QWidget* left() const override { return left_; }
  void choose(build::Id joint);

  RoomList* list() const { return list_; }
  ZoneView* zones() const { return zones_; }
  ClearanceView* clearance() const { return clearance_; }
  MakePanel* make() const { return make_; }
  FitPanel* fit() const { return fit_; }
  WorkPanel* work() const { return work_; }
  PairsPanel* pairs() const { return pairs_; }
  TryPanel* trying() const { return try_; }
  TrialView* trial_view() const { return trial_; }
  const JointState& state() const { return state_; }
  QPushButton* add_button() const { return add_; }

public slots:
  void state_joint();

signals:
  void card_wanted();

private:
  enum Face { make_face, fit_face, work_face, pairs_face, try_face }; ///< of the room column
  int condition_of_pair();
  void choose_pair(int condition);
  void show_panel();
  void show_pictures();
  void keep_temperature(double celsius);

  TargetsState& targets_;
  JointState state_;
  build::Id chosen_ = 0;
  /// The pair of pieces each joint is looked at for: the first it was shown with, until another is chosen.
  std::map<build::Id, build::PiecePair> pairs_of_;
  QString path_; ///< of the build they are of
  double temperature_ = 20;
  QWidget* left_;
  QLabel* heading_;
  RoomList* list_;
  QPushButton* add_;
  ZoneView* zones_;
  ClearanceView* clearance_;
  MakePanel* make_;
  FitPanel* fit_;
  WorkPanel* work_;
  PairsPanel* pairs_;
  TryPanel* try_;
  TrialView* trial_; ///< below, instead of the clearance, while trials are entered
  QStackedWidget* below_;
};

} // namespace datrin::app
