#pragma once
// Which records a record refers to, by its description.

#include "build/build.h"

#include <functional>
#include <string>
#include <vector>

namespace datrin::build {

/// Ids of the records without which `record` means nothing; 0 is left out. What it only points to (a
/// marking's jacks, a judgement's favours) is not among them.
std::vector<Id> needs(const Record& record);

/// `record` without the names of what is `gone` (sorted) where it only points to it; nothing when it names
/// none of it. An element of a list goes when what it needs is gone.
std::optional<Record> without(const Record& record, const std::vector<Id>& gone);

/// The first record that needs one that is not there, or is of the wrong kind, as "record 12 needs record 7,
/// which is not there"; empty when all stand.
std::string first_dangling(const Build& build);

/// The same of one record, where `standing` gives the record of an id; null: there is none.
std::string dangling(Id id, const Record& record, const std::function<const Record*(Id)>& standing);

} // namespace datrin::build
