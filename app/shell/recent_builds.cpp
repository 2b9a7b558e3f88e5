#include "app/shell/recent_builds.h"

#include "app/marks/fields.h"

#include <QFileInfo>

namespace datrin::app {

RecentBuilds::RecentBuilds(QSettings& settings, QWidget* parent)
    : QMenu("Recent builds", parent), settings_(settings) {
  setAccessibleName("Recent builds");
  connect(this, &QMenu::aboutToShow, this, [this] { fill(); });
}

void RecentBuilds::remember(const QString& path) {
  auto recent = settings_.value("recent").toStringList();
  const auto whole = QFileInfo(path).absoluteFilePath();
  recent.removeAll(whole);
  recent.prepend(whole);
  while (recent.size() > 8) recent.removeLast();
  settings_.setValue("recent", recent);
}

void RecentBuilds::fill() {
  clear();
  for (const auto& path : settings_.value("recent").toStringList()) {
    auto* action = addAction(literal(shown(QFileInfo(path).fileName().toStdString(), 80)));
    action->setToolTip(path);
    action->setEnabled(QFileInfo::exists(path));
    connect(action, &QAction::triggered, this, [this, path] { emit chosen(path); });
  }
  if (isEmpty()) addAction("none yet")->setEnabled(false);
}

} // namespace datrin::app
