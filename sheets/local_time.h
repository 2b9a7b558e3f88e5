#pragma once
// When something was done, as the person's clock had it.

#include "sheets/figures.h"
#include "sheets/shown.h"

#include <QDateTime>
#include <QString>

#include <string>

namespace datrin::sheets {

/// "2026-01-02 11:00" for "2026-01-02T10:00:00Z" where the clock is an hour ahead; as it is where it is no
/// time.
inline QString local_time(const std::string& utc) {
  const auto at = QDateTime::fromString(qt(utc), Qt::ISODate);
  return at.isValid() ? at.toLocalTime().toString("yyyy-MM-dd hh:mm") : qt(utc);
}

} // namespace datrin::sheets
