#pragma once
// What edits are made of: records made, replaced, removed with all that needs them. The edits a person makes
// have names of their own beside their subject: build/edit_drawing.h, edit_casting.h, edit_making.h,
// edit_mating.h. Each is a function from a build to the rows that change; none alters the build itself.

#include "build/build.h"

#include <algorithm>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace datrin::build {

/// An edit that makes a record, and the id it will have; or why it cannot be made.
struct Added {
  Id id = 0;
  Edit edit;
  std::string wrong; ///< in words for the screen; empty: it can be made
  bool ok() const { return wrong.empty(); }
};

/// Makes `record` new. The id it will have is Build::next_id().
Edit add(const Build& build, Record record, std::string label);

/// The same, with that id.
Added added(const Build& build, Record record, std::string label);

/// Replaces the record `id`. Empty when nothing differs or there is no such record.
Edit replace(const Build& build, Id id, Record record, std::string label);

/// Replaces `old` where there is one, else makes `record` new: of what there is one of.
template <class T>
Edit keep_one(const Build& build, const Found<T>& old, T record, std::string label) {
  return old ? replace(build, old->first, std::move(record), std::move(label))
             : add(build, std::move(record), std::move(label));
}

/// Makes several new records at once, ids counting up from Build::next_id().
Edit add_all(const Build& build, std::vector<Record> records, std::string label);

/// Removes `id` and everything that refers to it: a part with its surfaces, walls, pieces and their touches;
/// a surface with its walls and touches; a piece with its touches, seat and marking.
Edit remove(const Build& build, Id id, std::string label);

/// Removes several records and everything that refers to them.
Edit remove_all(const Build& build, const std::vector<Id>& ids, std::string label);

/// What a record is called where it has a name of its own ("bore"); else its kind ("wall").
std::string name_of(const Record& record);

/// What the surface is called; "?" when it is there no more.
std::string surface_name(const Build& build, Id surface);

/// Changes one record; named "`what` of bore". Empty when nothing differs or there is no such record.
Edit change(const Build& build, Id id, Record changed, std::string_view what);

/// Removes one record and everything that refers to it; named "Remove bore", "Remove a wall".
Edit take_away(const Build& build, Id id);

/// One past the largest place in `list`: where a new entry goes.
template <class T>
double next_order(const List<T>& list) {
  return list.empty() ? 0 : std::max(0.0, list.back().second.order + 1);
}

/// "plane", or with the first number that makes it a name no entry of `list` has yet: "plane 2".
template <class T>
std::string free_name(const List<T>& list, const std::string& base, int first_number = 2) {
  std::string name = base;
  const auto taken = [&](const auto& entry) { return entry.second.name == name; };
  for (int n = first_number; std::any_of(list.begin(), list.end(), taken); ++n)
    name = base + " " + std::to_string(n);
  return name;
}

} // namespace datrin::build
