#pragma once
// What a painted widget tells a screen reader of itself beyond its name: what it is, what it stands at, what
// can be done with it. (QAccessible knows that of Qt's own widgets only.)

#include <QAbstractItemView>
#include <QAccessibleWidget>
#include <QStringList>

namespace datrin::app {

class Spoken {
public:
  virtual ~Spoken() = default;
  virtual QAccessible::Role spoken_role() const = 0;
  virtual QString spoken_value() const { return {}; }
  virtual QStringList spoken_actions() const { return {}; } ///< by the names a person would call them
  virtual void do_spoken(const QString& /*action*/) {}
};

/// A picture: what stands in its description is what it shows.
class SpokenPicture : public Spoken {
public:
  QAccessible::Role spoken_role() const override { return QAccessible::Graphic; }
};

/// Widgets that are Spoken are told of as such from now on; once a program.
void speak_of_spoken();

/// What a screen reader chooses in a list becomes the row one is at, as by a click. For views of one choice.
void follow_selection(QAbstractItemView* view);

} // namespace datrin::app
