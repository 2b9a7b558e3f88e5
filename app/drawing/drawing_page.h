#pragma once
// The drawing step: the finished part, stated surface by surface, seen in three views as it is typed; its
// dimensions with their limits; how it is cast, or what else it is made from; the bodies it is a solid of.

#include "app/drawing/bodies_panel.h"
#include "app/drawing/dimension_panel.h"
#include "app/drawing/foundry_panel.h"
#include "app/drawing/stock_panel.h"
#include "app/drawing/surface_form.h"
#include "app/drawing/surface_model.h"
#include "app/drawing/wall_list.h"
#include "app/marks/message_line.h"
#include "app/marks/part_canvas.h"
#include "app/page/page.h"

#include <QPushButton>
#include <QSpinBox>
#include <QStackedWidget>
#include <QTableView>

#include <functional>

namespace datrin::app {

class DrawingPage : public Page {
  Q_OBJECT
public:
  explicit DrawingPage(Document& document);
  ~DrawingPage() override;
  void refresh() override;
  QWidget* first_focus() override { return table_; }

  QTableView* table() const { return table_; }
  SurfaceForm* form() const { return form_; }
  PartCanvas* canvas() const { return canvas_; }
  WallList* walls() const { return walls_; }
  DimensionPanel* dimensions() const { return dimensions_; }
  FoundryPanel* foundry() const { return foundry_; }
  StockPanel* stock() const { return stock_; }
  BodiesPanel* bodies() const { return bodies_; }
  QLineEdit* material_edit() const { return material_; }
  QPushButton* take_material_button() const { return take_material_; }
  QComboBox* condition_box() const { return condition_; }
  QPushButton* instead_button() const { return instead_; }
  QLineEdit* drawn_edit() const { return drawn_material_; }
  QLineEdit* why_edit() const { return why_; }
  QString consequences() const { return consequences_->text(); }
  QString material_words() const { return material_words_->text(); }

public slots:
  void add_surface(datrin::SurfaceKind kind);
  void remove_surface();

private:
  enum Face { surfaces_face, dimensions_face, casting_face, stock_face, solid_face }; ///< of the room column
  void make_picture();
  void make_table();
  void connect_picture();
  void connect_faces();
  void make_surfaces_face();
  void connect_part();
  void keep_part(const std::function<void(build::Part&)>& change, const char* what);
  void connect_material();
  void show_material(const build::Part& part);
  void choose_row(int row);
  void point_at(int face);
  void show_canvas(const build::PartSurface* preview = nullptr);

  PartCanvas* canvas_;
  QTableView* table_;
  SurfaceModel* model_;
  SurfaceForm* form_;
  WallList* walls_;
  QLineEdit *part_name_, *material_;
  MessageLine* material_words_; ///< what an unknown material leaves unsaid
  QPushButton* take_material_;  ///< the name most like it
  QComboBox* condition_;        ///< of the material; hidden where it has only one
  QPushButton* instead_;        ///< another is taken than the drawing says
  QLineEdit *drawn_material_, *why_;
  MessageLine* consequences_;
  QSpinBox* quantity_;
  QWidget* drawn_;
  DimensionPanel* dimensions_;
  FoundryPanel* foundry_;
  StockPanel* stock_;
  BodiesPanel* bodies_;
  QStackedWidget* tables_;
  build::Id chosen_ = 0, shown_part_ = 0;
  build::Id instead_of_ = 0; ///< the part whose drawing's material is being typed
};

} // namespace datrin::app
