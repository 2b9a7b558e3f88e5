#include "app/marks/spoken.h"

#include <QItemSelectionModel>
#include <QPersistentModelIndex>
#include <QTimer>

namespace datrin::app {

namespace {

class SpokenAccessible : public QAccessibleWidget {
public:
  SpokenAccessible(QWidget* widget, Spoken* spoken)
      : QAccessibleWidget(widget, spoken->spoken_role()), spoken_(spoken) {}

  QString text(QAccessible::Text kind) const override {
    if (kind != QAccessible::Value) return QAccessibleWidget::text(kind);
    const auto value = spoken_->spoken_value();
    return value.isEmpty() ? widget()->accessibleDescription() : value;
  }
  QStringList actionNames() const override {
    return spoken_->spoken_actions() + QAccessibleWidget::actionNames();
  }
  void doAction(const QString& action) override {
    if (spoken_->spoken_actions().contains(action))
      spoken_->do_spoken(action);
    else
      QAccessibleWidget::doAction(action);
  }

private:
  Spoken* spoken_; ///< the widget itself: this interface goes when it does
};

QAccessibleInterface* made(const QString&, QObject* object) {
  auto* widget = qobject_cast<QWidget*>(object);
  auto* spoken = dynamic_cast<Spoken*>(widget);
  return spoken != nullptr ? new SpokenAccessible(widget, spoken) : nullptr;
}

} // namespace

void speak_of_spoken() {
  static const bool once = [] {
    QAccessible::installFactory(made);
    return true;
  }();
  (void)once;
}

void follow_selection(QAbstractItemView* view) {
  if (view->selectionMode() != QAbstractItemView::SingleSelection || view->selectionModel() == nullptr)
    return;
  QObject::connect(view->selectionModel(), &QItemSelectionModel::selectionChanged, view,
                   [view](const QItemSelection& chosen) {
                     const auto rows = chosen.indexes();
                     if (rows.size() != 1) return;
                     // Keys and clicks select before they move: only what is still apart then was a reader's.
                     QTimer::singleShot(0, view, [view, row = QPersistentModelIndex(rows.front())] {
                       if (!row.isValid() || row == view->currentIndex() ||
                           !view->selectionModel()->isSelected(row))
                         return;
                       view->setCurrentIndex(row);
                       emit view->activated(row);
                     });
                   });
}

} // namespace datrin::app
