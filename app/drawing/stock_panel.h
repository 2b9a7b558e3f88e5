#pragma once
// What a part is made from: the form, its sizes, how the part is put in it, and what is sold that holds it;
// the metal that leaves over every face.

#include "app/document.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "stock/choose.h"
#include "stock/offcuts.h"
#include "stock/part_stock.h"

#include <QComboBox>
#include <QListWidget>
#include <QTableWidget>

#include <array>

namespace datrin::app {

class StockPanel : public QWidget {
  Q_OBJECT
public:
  explicit StockPanel(Document& document, QWidget* parent = nullptr);
  void refresh();

  QTableWidget* table() const {
    return table_;
  } ///< metal over the surfaces; stands in the centre of the page
  QComboBox* form_box() const { return form_; }
  QComboBox* way_box() const { return way_; }
  LengthField* width_field() const { return width_; }
  LengthField* thick_field() const { return thick_; }
  LengthField* bore_field() const { return bore_; }
  LengthField* length_field() const { return length_; }
  QComboBox* put_box(int k) const { return puts_[static_cast<std::size_t>(k)].box; }
  LengthField* share_field(int k) const { return puts_[static_cast<std::size_t>(k)].low; }
  QListWidget* sold() const { return sold_; }
  QString message() const { return message_->text(); }

private:
  struct PutRow {
    QWidget* row = nullptr;
    QLabel* name = nullptr;
    QComboBox* box = nullptr;
    LengthField* low = nullptr;
    bool sharing = false; ///< "shared" was chosen: its field stays, whatever stands in it
  };
  build::Stock stock() const; ///< of the part shown, as kept or to begin with
  void keep(const build::Stock& stock, const QString& what);
  void make_column();
  void connect_fields();
  void put(int k, stock::Put how, double low = 0);
  void take_sold();
  void show_put(const build::Stock& stock);
  void show_metal();
  void show_sold();
  void ask_why();
  void ask_length();

  Document& document_;
  QTableWidget* table_;
  std::vector<build::Id> rows_; ///< surface per row of the table
  QComboBox *form_, *way_;
  LengthField *width_, *thick_, *bore_, *length_;
  std::array<PutRow, 3> puts_;
  build::Id shown_ = 0; ///< the part the rows are of
  QWidget *way_row_, *put_part_, *sold_part_;
  MessageLine* message_;
  QListWidget* sold_;
  std::vector<stock::OffcutChoice> offcuts_; ///< of the first rows
  std::vector<stock::StockChoice> choices_;  ///< per row
};

} // namespace datrin::app
