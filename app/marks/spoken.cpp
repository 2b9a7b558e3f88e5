#include "app/marks/spoken.h"

#include <QComboBox>
#include <QItemSelectionModel>
#include <QPersistentModelIndex>
#include <QScrollArea>
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

/// A choice has a name and a value: Qt's own says the value for both on this platform, so that nobody hears
/// what is chosen.
class ChoiceAccessible : public QAccessibleWidget {
public:
  explicit ChoiceAccessible(QComboBox* box) : QAccessibleWidget(box, QAccessible::ComboBox) {}

  QString text(QAccessible::Text kind) const override {
    if (kind == QAccessible::Value) return box()->currentText();
    const auto text = QAccessibleWidget::text(kind);
    return kind == QAccessible::Name && !text.isEmpty() ? text + ": " + box()->currentText() : text;
  }
  int childCount() const override { return 1; }
  QAccessibleInterface* child(int k) const override {
    return k == 0 ? QAccessible::queryAccessibleInterface(box()->view()) : nullptr;
  }
  int indexOfChild(const QAccessibleInterface* child) const override {
    return child != nullptr && child->object() == box()->view() ? 0 : -1;
  }
  QAccessible::State state() const override {
    auto state = QAccessibleWidget::state();
    state.expandable = true;
    state.expanded = box()->view()->isVisible();
    state.collapsed = !state.expanded;
    return state;
  }
  QStringList actionNames() const override {
    return QStringList{showMenuAction(), pressAction()} + QAccessibleWidget::actionNames();
  }
  void doAction(const QString& action) override {
    if (action != showMenuAction() && action != pressAction()) return QAccessibleWidget::doAction(action);
    box()->view()->isVisible() ? box()->hidePopup() : box()->showPopup();
  }

private:
  QComboBox* box() const { return static_cast<QComboBox*>(widget()); }
};

/// What scrolls has all its children at any time, seen or not: Qt's own counts only the bars shown, and gives
/// whatever lies behind its list when a reader asks for a bar that was there a moment ago.
class ScrolledAccessible : public QAccessibleWidget {
public:
  explicit ScrolledAccessible(QScrollArea* area) : QAccessibleWidget(area, QAccessible::Client) {}
};

QAccessibleInterface* made(const QString&, QObject* object) {
  auto* widget = qobject_cast<QWidget*>(object);
  if (auto* area = qobject_cast<QScrollArea*>(widget)) return new ScrolledAccessible(area);
  if (auto* box = qobject_cast<QComboBox*>(widget)) return new ChoiceAccessible(box);
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
