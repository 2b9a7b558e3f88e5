#pragma once
// A drawing from a few sizes: a shape is chosen, its sizes typed, and it is drawn as they are.

#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "app/marks/part_canvas.h"
#include "solid/quick_start.h"

#include <QDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace datrin::app {

class QuickStartDialog : public QDialog {
public:
  QuickStartDialog(Unit unit, QWidget* parent);
  QListWidget* shapes() const { return shapes_; }
  std::vector<LengthField*> fields() const { return fields_; }
  PartCanvas* canvas() const { return canvas_; }
  QPushButton* draw_button() const { return draw_; }
  QString message() const { return message_->text(); }

  QString part_name() const;
  solid::QuickDrawing drawing() const;

private:
  void choose(int row);
  void show_drawing();

  Unit unit_;
  QListWidget* shapes_;
  QVBoxLayout* fields_box_;
  std::vector<LengthField*> fields_;
  PartCanvas* canvas_;
  MessageLine* message_;
  QPushButton* draw_;
};

} // namespace datrin::app
