#pragma once
// The survey of one rough piece: touches typed or imported, seen where they lie, and what is still missing.

#include "app/casting/piece_state.h"
#include "app/casting/touch_entry.h"
#include "app/casting/touch_model.h"
#include "app/marks/part_canvas.h"
#include "app/shell/column.h"
#include "app/shell/page.h"

#include <QTableView>

namespace datrin::app {

class TouchesPage : public Page {
  Q_OBJECT
public:
  explicit TouchesPage(Document& document);
  void refresh() override;
  QWidget* first_focus() override { return entry_->surface_box(); }

  TouchEntry* entry() const { return entry_; }
  QTableView* table() const { return table_; }
  TouchModel* model() const { return model_; }
  PartCanvas* canvas() const { return canvas_; }
  QString gaps_text() const { return gaps_->text(); }

  /// Reads a survey CSV into the piece shown; with bad lines it asks first. False when nothing was taken.
  bool import_file(const QString& path);
  bool export_file(const QString& path);

private:
  void ask_import();
  void ask_export();
  void remove_chosen();

  PartCanvas* canvas_;
  TouchEntry* entry_;
  QTableView* table_;
  TouchModel* model_;
  QLabel *count_, *gaps_, *counts_;
  NextButton* next_;
  PieceState state_;
};

} // namespace datrin::app
