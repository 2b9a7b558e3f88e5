#include "fits/joint_edits.h"

#include "build/words.h"
#include "drawing/dimension_limits.h"
#include "fits/fit.h"
#include "quantity/text.h"
#include "threads/threads.h"

#include <fmt/format.h>

#include <algorithm>

namespace datrin::fits {

using namespace build;

namespace {

/// The limits for the joint as it is now, at the size of its hole; without one they stay.
void follow(const Build& build, Joint& joint, bool same_basis) {
  if (const auto* hole = build.find<Dimension>(joint.hole)) take_limits(joint, hole->nominal, same_basis);
}

/// A part whose only dimension is a typed size: `made` gets part, piece and dimension; the id of the last.
Id typed_part(const Joint& joint, const char* side, const LimitsResult& size, double order, Id next,
              std::vector<Record>& made) {
  Part part;
  part.name = joint.name + ", " + side;
  part.order = order;
  Dimension d;
  d.part = next;
  d.name = "size";
  d.nominal = size.nominal;
  d.lower = size.lower;
  d.upper = size.upper;
  d.tolerance = size.tolerance;
  d.importance = DimensionClass::fit;
  d.source = DimensionSource::chosen;
  made.emplace_back(part);
  made.emplace_back(Piece{next, 1});
  made.emplace_back(d);
  return next + 2;
}

} // namespace

StatedJoint state_joint(const Build& build, const JointInput& in, const LimitsOptions& options) {
  const auto refuse = [](JointField at, std::string why) { return StatedJoint{{0, {}, std::move(why)}, at}; };
  const bool over_thread = is_over_a_thread(in.purpose);
  Joint joint;
  joint.purpose = in.purpose;
  joint.name = std::string(trimmed(in.name));
  if (joint.name.empty()) joint.name = shown_word(in.purpose);
  if (over_thread) {
    if (const auto found = threads::find(in.thread); found.thread == nullptr)
      return refuse(JointField::thread, found.message);
    joint.thread = std::string(trimmed(in.thread));
  }
  std::vector<Record> made;
  double nominal = 0, order = next_order(build.parts());
  struct Side {
    const JointSide& typed;
    const char* name;
    JointField field;
    Id Joint::*into;
  };
  std::vector<Side> sides{{in.hole, "hole", JointField::hole, &Joint::hole}};
  if (!over_thread) sides.push_back({in.shaft, "shaft", JointField::shaft, &Joint::shaft});
  for (const auto& side : sides) {
    double size = 0;
    if (side.typed.dimension != 0) {
      const auto* d = build.find<Dimension>(side.typed.dimension);
      if (d == nullptr) return refuse(side.field, fmt::format("The {} is no dimension any more.", side.name));
      joint.*side.into = side.typed.dimension;
      size = d->nominal;
    } else {
      const auto read = parse_limits(side.typed.size, options);
      if (!read.ok) return refuse(side.field, fmt::format("The {}: {}", side.name, read.message));
      if (!(read.nominal > 0)) return refuse(side.field, fmt::format("The {} must be above 0.", side.name));
      joint.*side.into =
          typed_part(joint, side.name, read, order++, build.next_id() + static_cast<Id>(made.size()), made);
      size = read.nominal;
    }
    if (nominal == 0) nominal = size;
  }
  if (!over_thread && joint.hole == joint.shaft)
    return refuse(JointField::shaft, "Hole and shaft are the same dimension.");
  std::string why;
  if (!take_limits(joint, nominal, false, &why))
    return refuse(over_thread ? JointField::thread : JointField::hole, why);
  joint.order = next_order(build.joints());
  const auto label = "State the joint " + joint.name;
  const Id id = build.next_id() + static_cast<Id>(made.size());
  made.emplace_back(joint);
  return {{id, add_all(build, std::move(made), label), {}}, JointField::none};
}

ChangedJoint with_thread(const Build& build, Joint joint, const std::string& thread) {
  if (const auto found = threads::find(thread); found.thread == nullptr) return {joint, found.message};
  joint.thread = std::string(trimmed(thread));
  follow(build, joint, true);
  return {joint, {}};
}

ChangedJoint with_purpose(const Build& build, Joint joint, JointPurpose purpose) {
  joint.purpose = purpose;
  if (is_over_a_thread(purpose)) joint.shaft = 0;
  follow(build, joint, false);
  return {joint, {}};
}

ChangedJoint with_hole(const Build& build, Joint joint, Id dimension) {
  if (dimension != 0 && dimension == joint.shaft) return {joint, "Hole and shaft are the same dimension."};
  joint.hole = dimension;
  joint.pairs.clear();
  follow(build, joint, true);
  return {joint, {}};
}

ChangedJoint with_shaft(Joint joint, Id dimension) {
  if (dimension != 0 && dimension == joint.hole) return {joint, "Hole and shaft are the same dimension."};
  joint.shaft = dimension;
  joint.pairs.clear();
  return {joint, {}};
}

ChangedJoint with_clearance(Joint joint, double least, double most) {
  if (least > most) return {joint, "The least clearance is above the most: nothing could be right."};
  joint.least = least;
  joint.most = most;
  joint.basis.clear();
  return {joint, {}};
}

ChangedJoint with_fit(const Build& build, Joint joint, const std::string& code) {
  const auto* hole = build.find<Dimension>(joint.hole);
  if (hole == nullptr) return {joint, "Choose the hole first: a class means nothing without a size."};
  const auto read = fit_of(hole->nominal, code);
  if (!read.ok) return {joint, read.message};
  joint.least = read.fit.least();
  joint.most = read.fit.most();
  const auto& fit = read.fit;
  joint.basis = fit.basis();
  return {joint, {}, FitLimits{hole->nominal, fit.hole, fit.shaft, fit.hole_class(), fit.shaft_class()}};
}

ChangedJoint with_proposal(const Build& build, Joint joint, const Proposal& proposal) {
  joint.least = proposal.least;
  joint.most = proposal.most;
  joint.basis = proposal.basis;
  ChangedJoint out{joint, {}};
  const auto* hole = build.find<Dimension>(joint.hole);
  if (proposal.has_limits && hole != nullptr)
    out.limits = {hole->nominal, proposal.hole, proposal.shaft, proposal.hole_class, proposal.shaft_class};
  return out;
}

Edit keep_joint(const Build& build, Id id, const ChangedJoint& changed, const std::string& what,
                const std::string& at) {
  auto edit = change(build, id, changed.joint, what);
  if (!changed.limits) return edit;
  const auto& limits = *changed.limits;
  const auto give = [&](Id dimension, const Deviations& to, const std::string& name) {
    const auto* now = build.find<Dimension>(dimension);
    if (now == nullptr) return;
    const auto taken =
        drawing::set_limits(build, dimension,
                            drawing::with_limits(*now, limits.nominal + to.lower, limits.nominal + to.upper,
                                                 name, limits.nominal),
                            at);
    edit.changes.insert(edit.changes.end(), taken.changes.begin(), taken.changes.end());
    if (edit.label.empty()) edit.label = what + " of " + changed.joint.name;
  };
  give(changed.joint.hole, limits.hole, limits.hole_class);
  give(changed.joint.shaft, limits.shaft, limits.shaft_class);
  return edit;
}

} // namespace datrin::fits
