#include "casting/settings.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace datrin::casting {

using build::SettingFrame;

const SettingState* Settings::find(const std::string& name) const {
  const auto found =
      std::find_if(list.begin(), list.end(), [&](const SettingState& s) { return s.name == name; });
  return found == list.end() ? nullptr : &*found;
}

namespace {

struct KnownMark {
  Vec3 at = Vec3::Zero();
  double uncertainty = 0;
};

class Joiner {
public:
  Joiner(const build::Build& build, build::Id piece, const RegistrationOptions& options) : options_(options) {
    for (const auto& [id, mark] : build.marks_of(piece)) marks_.push_back(mark);
    for (const auto& [id, touch] : build.touches_of(piece)) ++touches_[touch.setting];
    std::map<std::string, bool> has_record;
    for (const auto& [id, setting] : build.settings_of(piece)) has_record[setting.name] = true;
    for (const auto& [name, count] : touches_)
      if (!has_record.contains(name)) add({0, name, SettingFrame::survey, true, true, {}, {}, {}, count, {}});
    for (const auto& [id, setting] : build.settings_of(piece)) {
      SettingState state;
      state.id = id;
      state.name = setting.name;
      state.frame = setting.frame;
      state.touches = touches_[setting.name];
      state.base = state.joined = setting.frame == SettingFrame::survey;
      add(std::move(state));
    }
  }

  Settings run() {
    choose_base();
    for (const auto& state : result_.list)
      if (state.base) learn(state);
    for (const auto& mark : marks_) // read while no setting was named
      if (mark.setting.empty() && !result_.find("")) know(mark.name, mark.at, mark.uncertainty);
    for (bool more = true; more;) {
      more = false;
      for (auto& state : result_.list)
        if (!state.joined && state.frame == SettingFrame::own && join(state)) more = true;
    }
    for (auto& state : result_.list) {
      if (!state.joined && state.frame == SettingFrame::heights) join_heights(state);
      if (!state.joined && state.message.empty()) state.message = join_message(state);
    }
    for (const auto& [name, mark] : known_) result_.marks[name] = mark.at;
    return std::move(result_);
  }

private:
  void add(SettingState state) { result_.list.push_back(std::move(state)); }

  /// Nothing is in the survey frame itself: the first setting with coordinates lends it its own.
  void choose_base() {
    const bool have = std::any_of(result_.list.begin(), result_.list.end(),
                                  [](const SettingState& s) { return s.base && s.touches > 0; }) ||
                      std::any_of(marks_.begin(), marks_.end(), [&](const build::Mark& m) {
                        const auto* s = result_.find(m.setting);
                        return s == nullptr || s->base;
                      });
    if (have) return;
    for (auto& state : result_.list)
      if (state.frame == SettingFrame::own) {
        state.base = state.joined = true;
        state.message = "its frame is the survey's";
        return;
      }
  }

  void know(const std::string& name, const Vec3& at, double uncertainty) {
    known_.try_emplace(name, KnownMark{at, uncertainty});
  }

  void learn(const SettingState& state) {
    for (const auto& mark : marks_)
      if (mark.setting == state.name) {
        const Vec3 at = state.pose().apply(mark.at);
        const double added = state.base ? 0.0 : registration_spread(state.registration, at);
        know(mark.name, at, std::hypot(mark.uncertainty, added));
      }
  }

  bool join(SettingState& state) {
    std::vector<PointPair> pairs;
    for (const auto& mark : marks_)
      if (const auto known = known_.find(mark.name); mark.setting == state.name && known != known_.end())
        pairs.push_back(
            {mark.name, mark.at, known->second.at, std::hypot(mark.uncertainty, known->second.uncertainty)});
    if (pairs.size() < 3) return false;
    state.registration = register_points(pairs, options_);
    state.message = state.registration.message;
    if (!state.registration.usable()) return false;
    state.joined = true;
    for (const auto& pair : pairs) state.marks.push_back(pair.name);
    learn(state);
    return true;
  }

  void join_heights(SettingState& state) {
    std::vector<HeightPair> pairs;
    for (const auto& mark : marks_)
      if (const auto known = known_.find(mark.name); mark.setting == state.name && known != known_.end())
        pairs.push_back({mark.name, known->second.at, mark.at.z(),
                         std::hypot(mark.uncertainty, known->second.uncertainty)});
    if (pairs.empty()) return;
    state.heights = register_heights(pairs, options_);
    state.message = state.heights.message;
    state.joined = state.heights.usable();
    for (const auto& pair : pairs) state.marks.push_back(pair.name);
  }

  std::string join_message(const SettingState& state) const {
    int here = 0, common = 0;
    for (const auto& mark : marks_)
      if (mark.setting == state.name) {
        ++here;
        if (known_.contains(mark.name)) ++common;
      }
    return fmt::format("not joined, its touches are left out: read {} reference marks here and in another "
                       "setting ({} so far, {} of them known elsewhere)",
                       3, here, common);
  }

  RegistrationOptions options_;
  std::vector<build::Mark> marks_;
  std::map<std::string, int> touches_;
  std::map<std::string, KnownMark> known_;
  Settings result_;
};

} // namespace

Settings join_settings(const build::Build& build, build::Id piece, const RegistrationOptions& options) {
  return Joiner(build, piece, options).run();
}

bool gives_heights(const build::Build& build, build::Id piece, const std::string& name) {
  for (const auto& [id, setting] : build.settings_of(piece))
    if (setting.name == name) return setting.frame == build::SettingFrame::heights;
  return false;
}

} // namespace datrin::casting
