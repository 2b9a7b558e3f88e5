#pragma once
// The one mark for room: a bar from a zero tick to the room left. Its end says the state by its shape: round
// = comfortable, arrow = tight or what limits, cross = gone. Colour only repeats it.

#include "app/marks/spoken.h"
#include "quantity/reckoning.h"
#include "quantity/unit.h"

#include <QPainter>
#include <QWidget>

#include <functional>

namespace datrin::app {

enum class RoomState { comfortable, tight, gone, unknown };

/// The state of a margin in mm: gone below 0; tight when it limits or is under `comfortable` mm.
RoomState room_state(double margin_mm, bool limiting, double comfortable_mm);
QString room_state_name(RoomState state);

/// Paints bar and end into `area`; `full` is the margin that fills it.
void paint_room(QPainter& painter, const QRectF& area, double margin, double full, RoomState state);

/// A named row with mark and figure. F1 or a click asks where the figure came from.
class RoomRow : public QWidget, public Spoken {
  Q_OBJECT
public:
  explicit RoomRow(QWidget* parent = nullptr);
  void show_room(const QString& name, double margin, bool limiting, double full, Unit unit, Reckoning why);
  /// The same for a room counted in what can be held: 1 is comfortable.
  void show_ratio(const QString& name, double room, bool limiting, double full, Reckoning why);
  QString name() const { return name_; }
  double margin() const { return margin_; }
  RoomState state() const { return state_; }
  const Reckoning& why() const { return why_; }
  QSize sizeHint() const override;
  QAccessible::Role spoken_role() const override { return QAccessible::Indicator; }
  QString spoken_value() const override;
  QStringList spoken_actions() const override { return {"Go there"}; }
  void do_spoken(const QString& /*action*/) override { emit asked(); }

signals:
  void asked(); ///< the row was clicked or Enter pressed on it

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  void focusInEvent(QFocusEvent*) override { update(); }
  void focusOutEvent(QFocusEvent*) override { update(); }

private:
  QString name_;
  double margin_ = 0, full_ = 1;
  RoomState state_ = RoomState::unknown;
  Unit unit_ = Unit::mm;
  QString figure_;
  bool ratio_ = false;
  Reckoning why_;
};

} // namespace datrin::app
