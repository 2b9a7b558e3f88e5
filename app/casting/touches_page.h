#pragma once
// The survey of one rough piece: touches typed or imported, seen where they lie, and what is still missing.

#include "app/aside.h"
#include "app/casting/doubts_panel.h"
#include "app/casting/mistakes_panel.h"
#include "app/casting/piece_state.h"
#include "app/casting/settings_panel.h"
#include "app/casting/spots_panel.h"
#include "app/casting/touch_entry.h"
#include "app/casting/touch_model.h"
#include "app/marks/column.h"
#include "app/marks/part_canvas.h"
#include "app/page/page.h"

#include "casting/scan_assign.h"
#include "store/survey_csv.h"

#include <QTableView>

#include <memory>

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

  /// The same from the clipboard: a spreadsheet's rows, with or without headings.
  bool paste(const QString& text);

  /// Reads a scan and lays it on the drawing, aside; it is taken when `scan_ended` comes. False when the file
  /// was refused.
  bool import_scan(const QString& path, Unit unit);
  bool ask_scan(const QString& path); ///< the same, asking for its unit: neither format states one
  bool scanning() const { return reading_scan_.busy(); }

  SettingsPanel* settings() const { return settings_; }
  MistakesPanel* mistakes() const { return mistakes_; }
  DoubtsPanel* doubts() const { return doubts_; }
  SpotsPanel* spots() const { return spots_; }

signals:
  void scan_ended();

private:
  enum Face { survey_face, settings_face, mistakes_face, spots_face }; ///< of the room column
  struct ScanRead {
    QString name;
    build::Id piece = 0;
    std::vector<build::Id> surface_ids;
    Pose scan_to_survey;
    std::shared_ptr<std::vector<std::array<float, 3>>> points;
    casting::ScanResult result;
  };
  void make_picture();
  void make_survey_face();
  void connect_faces();
  bool take_survey(const store::SurveyCsv& survey, const QString& from);
  void take_scan(ScanRead read);
  void scan_failed(const QString& why);
  bool not_read(const QString& why); ///< tells it; false
  void ask_import();
  void ask_export();
  void remove_chosen();

  PartCanvas* canvas_;
  TouchEntry* entry_;
  QTableView* table_;
  TouchModel* model_;
  QLabel *count_, *gaps_, *counts_;
  NextButton* next_;
  QWidget* survey_;
  SettingsPanel* settings_;
  MistakesPanel* mistakes_;
  SpotsPanel* spots_;
  DoubtsPanel* doubts_;
  PieceState state_;
  QPushButton* scan_button_;
  build::Id scan_for_ = 0; ///< the piece a scan is read for, whichever is looked at meanwhile
  Aside<ScanRead, PieceAsOf> reading_scan_{this,
                                           [this] {
                                             return PieceAsOf{scan_for_, document_.plan_revision()};
                                           },
                                           [this](ScanRead read) { take_scan(std::move(read)); },
                                           [this](const QString& why) { scan_failed(why); }};
};

} // namespace datrin::app
