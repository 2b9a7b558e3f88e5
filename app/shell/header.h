#pragma once
// The line above: the build (and its menu), the piece, the path, the unit on the dial, and the reckoner.

#include "app/document.h"
#include "app/shell/path_ruler.h"

#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPointer>
#include <QPushButton>

namespace datrin::app {

/// Reckons a line: any sum of lengths, answered in both units. Ctrl+Enter puts the answer into the field one
/// came from.
class Reckoner : public QWidget {
  Q_OBJECT
public:
  explicit Reckoner(Document& document, QWidget* parent = nullptr);
  void call(); ///< takes the keyboard, remembering who had it
  QLineEdit* edit() const { return edit_; }
  QString answer() const { return answer_; }

signals:
  void answered(const QString& words, bool wrong);

private:
  void reckon();

  Document& document_;
  QLineEdit* edit_;
  QPointer<QLineEdit> from_;
  QString answer_;
  double mm_ = 0;
};

class Header : public QWidget {
  Q_OBJECT
public:
  Header(Document& document, QMenu* menu, QWidget* parent = nullptr);
  void refresh();
  void set_place(const QString& place) {
    place_ = place;
  } ///< a page of the whole build; empty: the piece is named
  PathRuler* path() const { return path_; }
  Reckoner* reckoner() const { return reckoner_; }
  QPushButton* build_button() const { return build_; }
  QPushButton* unit_button() const { return unit_; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  Document& document_;
  QPushButton* build_;
  QLabel* piece_;
  QString place_;
  PathRuler* path_;
  QPushButton* unit_;
  Reckoner* reckoner_;
};

} // namespace datrin::app
