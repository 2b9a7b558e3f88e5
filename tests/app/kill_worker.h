#pragma once
#include <QString>

namespace datrin::test {

/// Opens the build at `path` in a window and adds parts, writing how many are shown after each, until the
/// process is killed. Comes back only when that is not possible.
int work_until_killed(const QString& path);

} // namespace datrin::test
