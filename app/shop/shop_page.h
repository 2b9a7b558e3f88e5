#pragma once
// The shop: machines, tools, instruments, supplies and offcuts as sheets to type in; what operations want and
// is not there; taken from and written to a file of its own.

#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "app/page/page.h"
#include "shop/sheet.h"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QStackedWidget>

#include <QTableWidget>
#include <map>

namespace datrin::app {

/// One sheet; a new row is begun by its name in the last one.
class ShopSheet : public QTableWidget {
  Q_OBJECT
public:
  ShopSheet(Document& document, int kind, QWidget* parent = nullptr);
  void show_rows();
  build::Id chosen() const;
  void choose(build::Id id);
  int kind() const { return kind_; }
  /// Types into a cell as a person does; the last row begins another.
  void type(int row, int column, const QString& text);

signals:
  void told(const QString& why); ///< what was typed cannot be; empty: it was kept

private:
  void take(QTableWidgetItem* item);

  Document& document_;
  int kind_;
  std::vector<build::Id> ids_;
};

class ShopPage : public Page {
  Q_OBJECT
public:
  explicit ShopPage(Document& document);
  void refresh() override;
  QWidget* first_focus() override { return sheet(); }

  ShopSheet* sheet() const;
  ShopSheet* sheet_of(int kind) const;
  QString message() const { return message_->text(); }
  QListWidget* missing() const { return missing_; }
  QPushButton* buy_button() const { return buy_; }
  LengthField* wanted_field() const { return wanted_; }
  LengthField* made_field() const { return made_; }
  QPushButton* log_button() const { return log_; }
  QString log_text() const { return log_words_->text(); }
  QString cost_words(int kind) const { return cost_.at(kind)->text(); }
  void keep_own();
  void take_own();
  /// .json or .csv; the message is empty when it was done.
  QString save_shop(const QString& path) const;
  QString take_shop(const QString& path);

private:
  QWidget* face(int kind);
  void show_tool();
  void show_missing();
  void show_cost();
  void show_own();
  void remove_chosen();

  std::vector<ShopSheet*> sheets_;
  QStackedWidget* stack_;
  QLabel* title_;
  MessageLine* message_;
  QListWidget* missing_;
  QPushButton *buy_, *log_;
  LengthField *wanted_, *made_;
  QLabel* log_words_;
  std::map<int, QLabel*> cost_;        ///< by sheet: what an edge costs
  std::vector<QLabel*> own_words_;     ///< a face each
  std::vector<QPushButton*> take_own_; ///< the same
};

} // namespace datrin::app
