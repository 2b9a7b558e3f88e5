#pragma once
// Marking out: which way up, on three jacks, what to scribe where; and the page to print.

#include "allowance/standing.h"
#include "app/casting/piece_state.h"
#include "app/marks/column.h"
#include "app/marks/figure_row.h"
#include "app/marks/length_field.h"
#include "app/page/page.h"
#include "sheets/marking_sheet.h"

#include <QComboBox>
#include <QVBoxLayout>

#include <array>

namespace datrin::app {

/// The casting on its jacks, on marking blue.
class MarkingCanvas : public QWidget {
  Q_OBJECT
public:
  explicit MarkingCanvas(QWidget* parent = nullptr);
  void show_picture(sheets::MarkingPicture picture);
  void show_words(const QString& title, const QString& words);
  QSize sizeHint() const override { return {760, 440}; }

protected:
  void paintEvent(QPaintEvent*) override;

private:
  sheets::MarkingPicture picture_;
  QString title_, words_;
};

class MarkingPage : public Page {
  Q_OBJECT
public:
  explicit MarkingPage(Document& document);
  void refresh() override;
  QWidget* first_focus() override { return way_; }

  QComboBox* way_box() const { return way_; }
  QComboBox* reference_box() const { return reference_; }
  LengthField* base_field() const { return base_; }
  QComboBox* jack_box(int k) const { return jacks_[static_cast<std::size_t>(k)]; }
  const casting::MarkingResult& result() const { return result_; }
  std::vector<FigureRow*> figure_rows() const { return rows_; }

  bool can_print() const { return result_.usable(); }
  sheets::SheetInput sheet() const;
  QString save_sheet(const QString& path) const; ///< empty when written

public slots:
  void ask_pdf();
  void ask_print();

private:
  void make_picture();
  void make_side();
  void connect_choices();
  void keep(const build::Marking& marking, const QString& what);
  void fill_boxes();
  void mark_out_stock();
  sheets::MarkingPicture picture() const;
  void show_figures();
  QVBoxLayout* list_column(const QString& heading, int stretch, QBoxLayout* into);

  MarkingCanvas* canvas_;
  QComboBox *way_, *reference_;
  std::array<QComboBox*, 3> jacks_;
  LengthField* base_;
  QWidget* jack_rows_;
  QLabel *words_, *tip_, *caution_, *not_scribed_;
  QPushButton *pdf_, *print_;
  QVBoxLayout *jack_list_, *check_list_, *line_list_;
  std::vector<FigureRow*> rows_;
  PieceState state_;
  build::Marking marking_;
  casting::MarkingResult result_;
  allowance::Standing standing_; ///< of what is not cast
  std::vector<casting::WayUp> ways_;
};

} // namespace datrin::app
