#pragma once
// The fields of one surface. Every field keeps its value when left; a preview follows each key.

#include "app/document.h"
#include "app/marks/length_field.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>

#include <vector>

namespace datrin::app {

class SurfaceForm : public QWidget {
  Q_OBJECT
public:
  explicit SurfaceForm(Document& document, QWidget* parent = nullptr);
  ~SurfaceForm() override;

  void show_surface(build::Id id); ///< 0: none
  build::Id surface() const { return id_; }
  QLineEdit* name_edit() const { return name_; }
  LengthField* field(const QString& name) const;
  QComboBox* kind_box() const { return kind_; }
  QComboBox* finish_box() const { return finish_; }
  QComboBox* direction_box() const { return direction_; }
  QLineEdit* taper_edit() const { return taper_; }
  QString taper_words() const { return taper_words_->text(); }

signals:
  void previewed(const datrin::build::PartSurface& surface); ///< as it would be with what is being typed

private:
  void add_place();
  void add_sizes();
  void connect_fields();
  using Setter = void (*)(build::PartSurface&, double);
  struct Entry {
    LengthField* field;
    Setter set;
    double (*get)(const build::PartSurface&);
    bool for_plane, for_round;
  };
  void add(const QString& name, Setter set, double (*get)(const build::PartSurface&), bool for_plane,
           bool for_round, LengthRule rule = {});
  void keep(const build::PartSurface& changed, const QString& what);
  void keep_direction();
  void keep_taper();
  void show_taper(const build::PartSurface& surface, bool another);
  const build::PartSurface* current() const;

  Document& document_;
  build::Id id_ = 0;
  QLineEdit* name_;
  QComboBox *kind_, *finish_, *direction_;
  QLabel *direction_label_, *direction_wrong_;
  QLineEdit* taper_;
  MessageLine* taper_words_;
  QWidget* taper_row_ = nullptr;
  std::vector<Entry> entries_;
};

} // namespace datrin::app
