#include "app/part_solids.h"

#include <QEventLoop>
#include <QSemaphore>

namespace datrin::app {

namespace {

constexpr int twinkling_ms = 45; // less than one notices

std::shared_ptr<const PartSolid> made_of(const std::vector<solid::PlacedBody>& bodies,
                                         const Running& running) {
  auto made = std::make_shared<PartSolid>();
  auto solid = solid::make_solid(bodies, {.stop = [running] { return running(); }});
  made->problems = solid.problems;
  made->picture = sheets::picture_of(std::move(solid));
  return made;
}

} // namespace

PartSolids::PartSolids(QObject* parent)
    : QObject(parent), aside_(
                           this, [this] { return under_way_.part; }, [this](const Made& made) { end(made); },
                           [this](const QString& why) {
                             auto none = under_way_;
                             auto solid = std::make_shared<PartSolid>();
                             solid->problems.push_back({0, why.toStdString()});
                             none.solid = std::move(solid);
                             end(none);
                           }) {}

void PartSolids::end(const Made& made) {
  keep(made);
  emit this->made(made.part);
  next();
}

std::shared_ptr<const PartSolid> PartSolids::of(const build::Build& build, build::Id part, bool wanted_now) {
  if (wanted_now) wanted_ = part;
  const auto bodies = build.bodies_of(part);
  if (bodies.empty()) {
    kept_.erase(part);
    waiting_.erase(part);
    return nullptr;
  }
  const auto found = kept_.find(part);
  if (found != kept_.end() && found->second.bodies == bodies) return found->second.solid;
  const auto last = found != kept_.end() ? found->second.solid : nullptr;
  if (under_way_.part == part && under_way_.bodies == bodies) return last;
  if (busy()) {
    waiting_.insert_or_assign(part, build);
    return last;
  }
  return begin(build, part, wanted_now ? twinkling_ms : 0) ? kept_[part].solid : last;
}

bool PartSolids::is_made(const build::Build& build, build::Id part) const {
  const auto found = kept_.find(part);
  return found != kept_.end() && found->second.bodies == build.bodies_of(part);
}

bool PartSolids::begin(const build::Build& build, build::Id part, int wait_ms) {
  under_way_ = {part, build.bodies_of(part), nullptr};
  auto done = std::make_shared<QSemaphore>();
  auto result = std::make_shared<Made>(under_way_);
  aside_.start([placed = solid::place_bodies(build, part), done, result](const auto& running) {
    result->solid = made_of(placed, running);
    done->release();
    return *result;
  });
  if (wait_ms == 0 || !done->tryAcquire(1, wait_ms)) return false;
  aside_.forget(); // it has ended: nobody need be told
  keep(*result);
  next();
  return true;
}

void PartSolids::keep(const Made& made) {
  kept_[made.part] = {made.bodies, made.solid};
  under_way_ = {};
}

/// Goes on with what waits, what is looked at first; aside, whatever it takes.
void PartSolids::next() {
  while (!busy() && !waiting_.empty()) {
    const auto wanted = waiting_.find(wanted_);
    const auto node = waiting_.extract(wanted != waiting_.end() ? wanted : waiting_.begin());
    const auto bodies = node.mapped().bodies_of(node.key());
    const auto kept = kept_.find(node.key());
    if (bodies.empty() || (kept != kept_.end() && kept->second.bodies == bodies)) continue;
    begin(node.mapped(), node.key(), 0);
  }
}

void PartSolids::wait_while(const std::function<bool()>& wanting) {
  while (busy() && wanting()) {
    QEventLoop loop;
    connect(this, &PartSolids::made, &loop, &QEventLoop::quit);
    loop.exec(QEventLoop::ExcludeUserInputEvents);
  }
}

void PartSolids::wait() {
  wait_while([] { return true; });
}

void PartSolids::wait_for(const build::Build& build, build::Id part) {
  of(build, part, true);
  wait_while([&] { return !is_made(build, part); });
}

void PartSolids::forget() {
  aside_.forget();
  kept_.clear();
  waiting_.clear();
  under_way_ = {};
}

} // namespace datrin::app
