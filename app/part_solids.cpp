#include "app/part_solids.h"

#include <QEventLoop>
#include <QSemaphore>

namespace datrin::app {

namespace {

constexpr int twinkling_ms = 45; // less than one notices

std::shared_ptr<const PartSolid> made_of(const std::vector<solid::PlacedBody>& bodies) {
  auto solid = std::make_shared<PartSolid>();
  solid->picture = sheets::picture_of(bodies);
  if (!solid->picture)
    solid->problems = solid::make_solid(bodies, {.mesh = false}).problems;
  else
    solid->problems = solid->picture->solid.problems;
  return solid;
}

} // namespace

PartSolids::PartSolids(QObject* parent)
    : QObject(parent), aside_(this, [this](const Made& made) {
        const bool news = under_way_ == made.part;
        take(made);
        if (news) emit this->made();
      }) {}

std::shared_ptr<const PartSolid> PartSolids::of(const build::Build& build, build::Id part) {
  const auto bodies = build.bodies_of(part);
  if (bodies.empty()) {
    kept_.erase(part);
    return nullptr;
  }
  const auto found = kept_.find(part);
  if (found != kept_.end() && found->second.bodies == bodies) return found->second.solid;
  if (under_way_ == 0)
    begin(build, part, bodies);
  else if (!(under_way_ == part && making_ == bodies))
    waiting_.insert_or_assign(part, build);
  const auto now = kept_.find(part);
  return now != kept_.end() ? now->second.solid : nullptr;
}

void PartSolids::begin(const build::Build& build, build::Id part, const build::List<build::Body>& bodies) {
  under_way_ = part;
  making_ = bodies;
  auto done = std::make_shared<QSemaphore>();
  auto result = std::make_shared<Made>();
  aside_.start([placed = solid::place_bodies(build, part), part, bodies, done, result](const auto&) {
    *result = {part, bodies, made_of(placed)};
    done->release();
    return *result;
  });
  if (done->tryAcquire(1, twinkling_ms)) {
    aside_.forget();
    take(*result);
  }
}

void PartSolids::take(const Made& made) {
  kept_[made.part] = {made.bodies, made.solid};
  under_way_ = 0;
  if (waiting_.empty()) return;
  const auto wanted = waiting_.find(preferred_);
  const auto next = waiting_.extract(wanted != waiting_.end() ? wanted : waiting_.begin());
  const auto bodies = next.mapped().bodies_of(next.key());
  if (!bodies.empty()) begin(next.mapped(), next.key(), bodies);
}

void PartSolids::wait() {
  while (under_way_ != 0) {
    QEventLoop loop;
    connect(this, &PartSolids::made, &loop, &QEventLoop::quit);
    loop.exec();
  }
}

void PartSolids::forget() {
  aside_.forget();
  kept_.clear();
  waiting_.clear();
  under_way_ = 0;
}

} // namespace datrin::app
