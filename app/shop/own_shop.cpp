#include "app/shop/own_shop.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

namespace datrin::app {

QString own_shop_path() {
  return QDir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation)).filePath("shop.json");
}

QString own_shop_kept() {
  const QFileInfo file(own_shop_path());
  return file.exists() ? file.lastModified().toString("yyyy-MM-dd hh:mm") : QString();
}

} // namespace datrin::app
