#include "app/joints/targets_state.h"

namespace datrin::app {

TargetsState::TargetsState(Document& document, QObject* parent) : QObject(parent), document_(document) {}

void TargetsState::bring_up_to_date() {
  if (of_ == document_.plan_revision()) return;
  of_ = document_.plan_revision();
  now_ = chains::build_targets(document_.build(), &memory_);
  last_ = chains::last_reading(now_);
  conflicts_ = chains::conflicts(now_.input, now_.result);
  order_ = chains::order_of_making(document_.build(), now_);
  to_cut_ = chains::next_to_cut(order_);
}

const chains::BuildTargets& TargetsState::now() {
  bring_up_to_date();
  return now_;
}

const chains::LastReading& TargetsState::last() {
  bring_up_to_date();
  return last_;
}

const std::vector<chains::Conflict>& TargetsState::conflicts() {
  bring_up_to_date();
  return conflicts_;
}

const std::vector<chains::NextNumber>& TargetsState::order() {
  bring_up_to_date();
  return order_;
}

const std::vector<chains::NextNumber>& TargetsState::to_cut() {
  bring_up_to_date();
  return to_cut_;
}

} // namespace datrin::app
