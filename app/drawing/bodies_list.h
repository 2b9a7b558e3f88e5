#pragma once
// The bodies of a part in the order they are added and taken away, and what can be added to them. It stands
// in the centre of the page, below the picture.

#include "app/document.h"
#include "solid/body_form.h"

#include <QTableWidget>
#include <QVBoxLayout>

#include <vector>

namespace datrin::app {

class BodiesList : public QWidget {
  Q_OBJECT
public:
  explicit BodiesList(QWidget* parent = nullptr);
  /// The bodies of the chosen part, with `chosen` among them.
  void show_bodies(const Document& document, build::Id chosen);
  void choose(build::Id body);
  QTableWidget* table() const { return table_; }

signals:
  void wanted(datrin::solid::BodyShape shape, bool cut); ///< one more
  void chosen(qlonglong body);
  void entered();           ///< the chosen one is to be changed
  void move_wanted(int by); ///< the chosen one, in the order
  void remove_wanted();

private:
  void make_bar(QVBoxLayout* column);

  QTableWidget* table_;
  std::vector<build::Id> rows_;
};

} // namespace datrin::app
