#pragma once
// A room column with more than one face: words in a row, the chosen one underlined in brass.

#include <QButtonGroup>
#include <QGridLayout>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <QWidget>

namespace datrin::app {

class Tabs : public QWidget {
  Q_OBJECT
public:
  explicit Tabs(QWidget* parent = nullptr);
  void add(const QString& name, QWidget* page);
  void set_name(int k, const QString& name);
  void choose(int k);
  int chosen() const { return pages_->currentIndex(); }
  QPushButton* button(int k) const { return static_cast<QPushButton*>(group_.button(k)); }

signals:
  void changed(int k);

private:
  void as_high_as_shown();
  QGridLayout* row_; ///< one row; two where the text is large
  QStackedWidget* pages_;
  QButtonGroup group_;
};

} // namespace datrin::app
