#pragma once
// Which records a record cannot stand without.

#include "build/build.h"

#include <string>
#include <vector>

namespace datrin::build {

/// Ids of the records without which `record` means nothing; 0 is left out. What it only points to (a
/// marking's jacks, a judgement's favours) is not among them.
std::vector<Id> needs(const Record& record);

/// Takes the names of what is `gone` out of what only points to it.
bool forget(Record& record, const std::vector<Id>& gone);

/// The first record that needs one that is not there, as "record 12 needs record 7, which is not there";
/// empty when all stand.
std::string first_dangling(const Build& build);

} // namespace datrin::build
