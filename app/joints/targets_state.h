#pragma once
// The make-to targets of the open build, worked out once a change, and what the last reading moved.

#include "app/document.h"
#include "chains/conflicts.h"
#include "chains/next_number.h"

#include <QObject>

#include <optional>

namespace datrin::app {

class TargetsState : public QObject {
public:
  explicit TargetsState(Document& document, QObject* parent = nullptr);

  const chains::BuildTargets& now();
  const chains::LastReading& last();
  const std::vector<chains::Conflict>& conflicts(); ///< what cannot be held together
  const std::vector<chains::NextNumber>& order();   ///< of making
  const std::vector<chains::NextNumber>& to_cut();  ///< the same, what can be cut now first

private:
  void bring_up_to_date();

  Document& document_;
  std::optional<std::uint64_t> of_; ///< the plan revision it was worked out of
  chains::TargetsMemory memory_;
  chains::BuildTargets now_;
  chains::LastReading last_;
  std::vector<chains::Conflict> conflicts_;
  std::vector<chains::NextNumber> order_, to_cut_;
};

} // namespace datrin::app
