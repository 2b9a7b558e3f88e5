#pragma once
// Work done aside, so that the window stays awake: one piece of it at a time. Starting another, or the end of
// its owner, stops the one under way.

#include <QFutureWatcher>
#include <QtConcurrentRun>

#include <atomic>
#include <functional>
#include <memory>

namespace datrin::app {

template <class Result>
class Aside {
public:
  using ShouldStop = std::function<bool()>;

  /// `ended` is called in the window's thread with what came of it, also of work that was stopped and gave
  /// what it had; not of work another replaced.
  Aside(QObject* owner, std::function<void(Result)> ended) : ended_(std::move(ended)) {
    QObject::connect(&watcher_, &QFutureWatcher<Result>::finished, owner, [this] {
      if (!wanted_) return;
      wanted_ = false;
      ended_(watcher_.result());
    });
  }
  ~Aside() { forget(); }
  Aside(const Aside&) = delete;
  Aside& operator=(const Aside&) = delete;

  /// `work(should_stop)` runs aside. What is under way is stopped first, and waited for.
  template <class Work>
  void start(Work work) {
    forget();
    stop_ = std::make_shared<std::atomic<bool>>(false);
    wanted_ = true;
    watcher_.setFuture(QtConcurrent::run([work = std::move(work), stop = stop_]() mutable -> Result {
      return work([stop] { return stop->load(); });
    }));
  }
  /// Asks it to end with what it has.
  void stop() {
    if (stop_) stop_->store(true);
  }
  /// Ends it; `ended` is not called.
  void forget() {
    stop();
    wanted_ = false;
    watcher_.waitForFinished();
  }
  bool busy() const { return wanted_; }

private:
  std::function<void(Result)> ended_;
  std::shared_ptr<std::atomic<bool>> stop_;
  QFutureWatcher<Result> watcher_;
  bool wanted_ = false;
};

} // namespace datrin::app
