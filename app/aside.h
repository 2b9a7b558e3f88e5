#pragma once
// Work done aside, so that the window stays awake: one piece of it at a time, and every answer with what it
// was asked for. An answer to something that is asked no more is dropped. Starting another, or the end of its
// owner, gives up the one under way without waiting for it: work takes copies, and ends by itself.

#include <QFutureWatcher>
#include <QString>
#include <QtConcurrentRun>

#include <atomic>
#include <exception>
#include <functional>
#include <memory>
#include <optional>
#include <utility>

namespace datrin::app {

/// What work threw, as a sentence for people.
QString failed_words(const std::exception_ptr& thrown);

/// What work is given, to look at while it runs. Kept by value: it outlives whoever asked.
class Running {
public:
  bool operator()() const { return state_->stop.load(); } ///< whether to end with what there is
  void tell(double part_done) const { state_->percent = static_cast<int>(100 * part_done); }

private:
  template <class, class>
  friend class Aside;
  struct State {
    std::atomic<bool> stop{false};
    std::atomic<int> percent{0};
  };
  explicit Running(std::shared_ptr<State> state) : state_(std::move(state)) {}
  std::shared_ptr<State> state_;
};

/// `Key` says what is asked, whole: two answers with equal keys are as good as each other.
template <class Result, class Key>
class Aside {
public:
  using Now = std::function<Key()>;
  using Ended = std::function<void(Result)>;
  using Failed = std::function<void(const QString&)>;

  /// `now` is what would be asked at this moment. In the window's thread is called `ended`, with what came of
  /// it, also of work that was stopped and gave what it had; or `failed`, where it threw, or where meanwhile
  /// something else would be asked. Neither is called of work given up.
  Aside(QObject* owner, Now now, Ended ended, Failed failed)
      : owner_(owner), now_(std::move(now)), ended_(std::move(ended)), failed_(std::move(failed)) {}
  ~Aside() { forget(); }
  Aside(const Aside&) = delete;
  Aside& operator=(const Aside&) = delete;

  /// `work(const Running&)` runs aside, asked for `now`. It may hold on to nothing of its owner.
  template <class Work>
  void start(Work work) {
    forget();
    auto job = std::make_shared<Job>(Job{now_(), std::make_shared<Running::State>()});
    job_ = job;
    auto* watcher = new QFutureWatcher<Outcome>(owner_);
    QObject::connect(watcher, &QFutureWatcher<Outcome>::finished, owner_, [this, watcher, job] {
      watcher->deleteLater();
      if (!job->given_up) finish(*job, watcher->future().takeResult());
    });
    watcher->setFuture(
        QtConcurrent::run([work = std::move(work), running = Running(job->state)]() mutable -> Outcome {
          try {
            return {std::optional<Result>(work(running)), nullptr};
          } catch (...) {
            return {std::nullopt, std::current_exception()};
          }
        }));
  }
  /// Asks it to end with what it has.
  void stop() {
    if (job_) job_->state->stop = true;
  }
  /// Gives it up.
  void forget() {
    if (!job_) return;
    stop();
    job_->given_up = true;
    job_.reset();
  }
  /// Gives it up where something else would be asked now. Whether it was.
  bool forget_other() {
    if (!job_ || job_->key == now_()) return false;
    forget();
    return true;
  }
  bool busy() const { return job_ != nullptr; }
  int percent() const { return job_ ? job_->state->percent.load() : 0; }

private:
  struct Job {
    Key key;
    std::shared_ptr<Running::State> state;
    bool given_up = false; ///< looked at in the window's thread only
  };
  struct Outcome {
    std::optional<Result> result;
    std::exception_ptr thrown;
  };

  void finish(const Job& job, Outcome outcome) {
    job_.reset();
    if (outcome.thrown) return failed_(failed_words(outcome.thrown));
    if (!(job.key == now_())) return failed_("It has changed meanwhile: ask once more.");
    ended_(std::move(*outcome.result));
  }

  QObject* owner_;
  Now now_;
  Ended ended_;
  Failed failed_;
  std::shared_ptr<Job> job_; ///< null: none
};

} // namespace datrin::app
