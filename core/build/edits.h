#pragma once
// The edits a person makes, each a function from a build to the rows that change. None alters the build
// itself.

#include "build/build.h"

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

namespace datrin::build {

/// Makes `record` new. The id it will have is Build::next_id().
Edit add(const Build& build, Record record, std::string label);

/// Replaces the record `id`. Empty when nothing differs or there is no such record.
Edit replace(const Build& build, Id id, Record record, std::string label);

/// Makes several new records at once, ids counting up from Build::next_id().
Edit add_all(const Build& build, std::vector<Record> records, std::string label);

/// Adds a part and its first piece.
Edit add_part(const Build& build, const std::string& name);

/// Changes how many of the part there are: pieces are added, or those without touches removed from the end.
/// Pieces with touches stay.
Edit set_quantity(const Build& build, Id part, int quantity);

/// Removes `id` and everything that refers to it: a part with its surfaces, walls, pieces and their touches;
/// a surface with its walls and touches; a piece with its touches, seat and marking.
Edit remove(const Build& build, Id id, std::string label);

/// Removes several records and everything that refers to them.
Edit remove_all(const Build& build, const std::vector<Id>& ids, std::string label);

/// Removes several touches.
Edit remove_touches(const Build& build, const std::vector<Id>& touches);

/// Sets the seat of a piece.
Edit set_seat(const Build& build, Id piece, const Pose& pose, bool best, std::string label);

/// Sets what is wanted of the seat of a piece.
Edit set_judgement(const Build& build, const Judgement& judgement, std::string label);

/// Sets how a piece is marked out.
Edit set_marking(const Build& build, const Marking& marking, std::string label);

/// One past the largest place in `list`: where a new entry goes.
template <class T>
double next_order(const List<T>& list) {
  return list.empty() ? 0 : std::max(0.0, list.back().second.order + 1);
}

} // namespace datrin::build
