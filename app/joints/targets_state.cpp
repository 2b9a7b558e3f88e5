#include "app/joints/targets_state.h"

namespace datrin::app {

TargetsState::TargetsState(Document& document, QObject* parent) : QObject(parent), document_(document) {
  connect(&document_, &Document::changed, this, [this] { stale_ = true; });
}

void TargetsState::bring_up_to_date() {
  if (!stale_) return;
  stale_ = false;
  now_ = chains::build_targets(document_.build());
  last_ = chains::last_reading(document_.build(), now_);
}

const chains::BuildTargets& TargetsState::now() {
  bring_up_to_date();
  return now_;
}

const chains::LastReading& TargetsState::last() {
  bring_up_to_date();
  return last_;
}

int made_so_far(const chains::BuildTargets& targets, build::Id joint, build::Id chain) {
  int measured = 0, open = 0;
  for (std::size_t c = 0; c < targets.sources.size(); ++c) {
    if (joint != 0 ? targets.sources[c].joint != joint : targets.sources[c].chain != chain) continue;
    for (const auto& term : targets.input.conditions[c].terms)
      ++(targets.input.dimensions[static_cast<std::size_t>(term.dimension)].measured ? measured : open);
  }
  return open == 0 && measured > 0 ? 2 : measured > 0 ? 1 : 0;
}

} // namespace datrin::app
