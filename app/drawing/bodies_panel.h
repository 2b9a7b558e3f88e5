#pragma once
// The part as a solid: its bodies in the order they are added and taken away, each with its sizes, where it
// is put and how it is repeated; what the solid weighs, where its middle is and where it is thinnest.

#include "app/document.h"
#include "app/drawing/bodies_list.h"
#include "app/drawing/profile_table.h"
#include "app/drawing/solid_figures.h"
#include "app/marks/length_field.h"
#include "app/marks/message_line.h"
#include "solid/body_edits.h"

#include <QCheckBox>
#include <QComboBox>
#include <QPushButton>
#include <QSpinBox>

#include <map>
#include <vector>

namespace datrin::app {

class BodiesPanel : public QWidget {
  Q_OBJECT
public:
  explicit BodiesPanel(Document& document, QWidget* parent = nullptr);
  ~BodiesPanel() override;
  void refresh();
  /// A face of the solid was pointed at; −1: none.
  void point_at(int face);

  BodiesList* list() const { return list_; } ///< stands in the centre of the page, below the picture
  QTableWidget* table() const { return list_->table(); }
  QLineEdit* name_edit() const { return name_; }
  QComboBox* on_box() const { return on_; }
  QComboBox* lie_box() const { return lie_; }
  QComboBox* from_box(bool along) const { return along ? from_along_ : from_across_; }
  QComboBox* mouth_box() const { return mouth_; }
  QComboBox* making_box() const { return making_; }
  QComboBox* pattern_box() const { return pattern_; }
  QCheckBox* through_box() const { return through_; }
  QSpinBox* count_box() const { return count_; }
  LengthField* field(solid::BodyRole role) const;
  QLineEdit* angle_edit(solid::BodyRole role) const;
  QLineEdit* thread_edit() const { return thread_; }
  ProfileTable* profile() const { return profile_; }
  QPushButton* face_button() const { return face_button_; }
  QPushButton* keep_button() const { return keep_button_; } ///< keeps what was read off as a dimension
  QString message() const { return message_->text(); }
  SolidFigures* figures() const { return figures_; }
  build::Id chosen() const { return chosen_; }
  bool busy() const { return figures_->busy(); }
  void choose(build::Id body);
  void add(solid::BodyShape shape, bool cut);
  void remove();
  void move(int by);

signals:
  void face_lit(int face);                ///< index into the faces of the solid; −1: none
  void surface_chosen(qlonglong surface); ///< to be seen among the surfaces

private:
  struct Row {
    QWidget* row = nullptr;
    LengthField* length = nullptr;
    QLineEdit* angle = nullptr;
    QLabel* label = nullptr;
  };
  void connect_list();
  void make_column();
  void add_size(QVBoxLayout* column, solid::BodyRole role);
  void connect_choices();
  const build::Body* body() const;
  const solid::SolidFace* face_at(int face) const;
  const solid::SolidFace* pointed() const { return face_at(pointed_); }
  const solid::SolidFace* pointed_before() const { return face_at(before_); }
  void keep(const build::Body& changed, const char* what);
  void keep_angle(solid::BodyRole role);
  void keep_thread();
  void show_body();
  void show_sizes(const build::Body& body);
  void show_on(const build::Body& body);
  void show_message();
  void light();
  void begin(const build::Added& added);

  Document& document_;
  BodiesList* list_;
  QWidget* form_;
  QLineEdit *name_, *thread_;
  QComboBox *on_, *lie_, *from_along_, *from_across_, *mouth_, *making_, *pattern_;
  QWidget *lie_row_, *from_along_row_, *from_across_row_, *mouth_row_, *making_row_, *thread_row_,
      *pattern_row_, *count_row_, *sides_row_;
  QCheckBox *cut_, *through_;
  QSpinBox *count_, *count_across_, *sides_;
  std::map<solid::BodyRole, Row> sizes_;
  ProfileTable* profile_;
  QLabel* profile_hint_;
  MessageLine* message_;
  QPushButton *face_button_, *keep_button_;
  SolidFigures* figures_;
  build::Id chosen_ = 0, shown_part_ = 0;
  solid::FaceOf face_;                  ///< of the chosen body, pointed at
  int pointed_ = -1, before_ = -1;      ///< faces of the solid: pointed at, and the one before
  std::shared_ptr<const PartSolid> of_; ///< whose faces are pointed at
};

} // namespace datrin::app
