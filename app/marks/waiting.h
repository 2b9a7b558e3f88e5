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
/// nothing else be done; where `can_stop`, it asks the work to stop. What `work` threw, in words; empty:
/// nothing.
[[nodiscard]] QString wait_until_done(QWidget* over, const QString& words, bool can_stop,
                                      const std::function<void(const store::ReadOptions&)>& work);

/// The same for work that gives something; nothing where it threw, which `wrong` says.
template <class Work>
auto wait_for(QWidget* over, const QString& words, QString& wrong, Work work) {
  std::optional<decltype(work(store::ReadOptions{}))> result;
  wrong = wait_until_done(over, words, true,
                          [&](const store::ReadOptions& options) { result.emplace(work(options)); });
  return result;
}

} // namespace datrin::app
