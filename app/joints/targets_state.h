#pragma once
// The make-to targets of the open build, worked out once a change, and what the last reading moved.

#include "app/document.h"
#include "chains/build_targets.h"

#include <QObject>

namespace datrin::app {

class TargetsState : public QObject {
  Q_OBJECT
public:
  explicit TargetsState(Document& document, QObject* parent = nullptr);

  const chains::BuildTargets& now();
  const chains::LastReading& last();

private:
  void bring_up_to_date();

  Document& document_;
  bool stale_ = true;
  chains::BuildTargets now_;
  chains::LastReading last_;
};

/// Whether every dimension a joint stands on is measured, some, or none: 2, 1, 0.
int made_so_far(const chains::BuildTargets& targets, build::Id joint, build::Id chain);

} // namespace datrin::app
