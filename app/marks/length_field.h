#pragma once
// An entry field for a length as people write it. Shows what it understood in the other unit; what it does
// not understand is marked in place with what was expected, and the value stays what it was.

#include "quantity/angle.h"
#include "quantity/length.h"

#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include <functional>
#include <optional>

namespace datrin::app {

class LengthField : public QWidget {
  Q_OBJECT
public:
  /// `rule` says what is wrong with an understood value ("must be above 0"), or nothing.
  using Rule = std::function<QString(double mm)>;

  explicit LengthField(const QString& name, QWidget* parent = nullptr);

  double value() const { return mm_; }
  void set_value(double mm, Unit unit);
  void set_rule(Rule rule) { rule_ = std::move(rule); }
  void set_label_width(int pixels);
  void set_compact(); ///< without the other unit beside it; the tool tip has it
  QLineEdit* edit() const { return edit_; }
  QString message() const; ///< what is wrong with what stands in the field; empty when nothing
  bool commit();           ///< takes what stands in the field; false when it is not understood

signals:
  void committed(double mm); ///< the value is another one now
  void previewed(double mm); ///< what stands in the field would be this

private:
  struct Read {
    bool ok = false;
    double mm = 0;
    QString message;
  };
  Read read() const;
  void mark(const QString& wrong);
  void show_other(double mm);

  QLabel* label_;
  QLineEdit* edit_;
  QLabel* other_;
  QLabel* wrong_;
  Rule rule_;
  double mm_ = 0;
  Unit unit_ = Unit::mm;
};

/// Options for reading lengths typed on screen: a bare number is in `unit`; a decimal comma is read where the
/// person's locale writes one.
LengthOptions entry_options(Unit unit);

/// The same for angles; `taper` says what "1 in 12" is of where the words do not.
AngleOptions angle_options(TaperOf taper = TaperOf::slope);

/// A number typed on screen, with a comma where the person's locale writes one; nothing when it is none.
std::optional<double> typed_number(const QString& text);

QString must_be_positive(double mm);
QString must_not_be_negative(double mm);

} // namespace datrin::app
