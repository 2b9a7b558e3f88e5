#pragma once
// The builds opened last, as a menu; kept in the settings.

#include <QMenu>
#include <QSettings>

namespace datrin::app {

class RecentBuilds : public QMenu {
  Q_OBJECT
public:
  RecentBuilds(QSettings& settings, QWidget* parent);
  void remember(const QString& path); ///< the first of them now

signals:
  void chosen(const QString& path);

private:
  void fill();

  QSettings& settings_;
};

} // namespace datrin::app
