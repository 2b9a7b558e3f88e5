#pragma once
// An entry field for a length as people write it. Shows what it understood in the other unit; what it does
// not understand is marked in place with what was expected, and the value stays what it was.

#include "app/marks/length_edit.h"

#include <QLabel>
#include <QWidget>

namespace datrin::app {

class LengthField : public QWidget {
  Q_OBJECT
public:
  explicit LengthField(const QString& name, QWidget* parent = nullptr);
  ~LengthField() override;

  double value() const { return mm_; }
  /// Shows what a record says. Words still being typed, or refused, stay as long as it is the same record
  /// (`of`, its number; 0 where the field only ever shows one): a refresh takes nothing from the person.
  void set_value(double mm, Unit unit, qint64 of = 0);
  void set_rule(LengthRule rule) { edit_->set_rule(std::move(rule)); }
  void set_label_width(int pixels);
  void set_compact(); ///< without the other unit beside it; the tool tip has it
  LengthEdit* edit() const { return edit_; }
  QString message() const; ///< what is wrong with what stands in the field; empty when nothing
  bool commit();           ///< takes what stands in the field; false when it is not understood
  /// Takes back what was just committed: whoever keeps it says no. The words stay, with why.
  void refuse(const QString& why);

signals:
  void committed(double mm); ///< the value is another one now
  void previewed(double mm); ///< what stands in the field would be this

protected:
  void keyPressEvent(QKeyEvent* event) override; ///< Escape puts the value back over what was typed

private:
  void show_value();
  QString refusal(const TypedLength& typed) const;
  void mark(const QString& wrong);
  void show_other(double mm);

  QLabel* label_;
  LengthEdit* edit_;
  QLabel* other_;
  QLabel* wrong_;
  double mm_ = 0;
  Unit unit_ = Unit::mm;
  qint64 of_ = 0;
  struct {
    double mm = 0;
    QString typed;
  } before_;        ///< the value that was committed last, and the words for it
  QString refused_; ///< why the words in the field cannot be, though they are a length
};

} // namespace datrin::app
