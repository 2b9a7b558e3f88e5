#pragma once
// Waiting for what may take long (a large file) without the window going to sleep.

#include "store/read_options.h"

#include <QString>
#include <QWidget>

#include <functional>
#include <optional>
#include <utility>

namespace datrin::app {

/// Does `work` in a thread of its own and returns when it is done. Within a moment nothing is seen of it;
/// after that a small window over `over` says `words` and how far it is (where `work` tells), and lets
/// nothing else be done; where `can_stop`, it asks the work to stop. What `work` throws is thrown here.
void wait_until_done(QWidget* over, const QString& words, bool can_stop,
                     const std::function<void(const store::ReadOptions&)>& work);

/// The same for work that gives something.
template <class Work>
auto wait_for(QWidget* over, const QString& words, Work work) {
  std::optional<decltype(work(store::ReadOptions{}))> result;
  wait_until_done(over, words, true,
                  [&](const store::ReadOptions& options) { result.emplace(work(options)); });
  return std::move(*result);
}

} // namespace datrin::app
