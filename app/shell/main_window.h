#pragma once
// The window: shelf, path, page and room column around one document.

#include "app/document.h"
#include "app/joints/targets_state.h"
#include "app/page/steps.h"
#include "app/shell/asked_dialogs.h"

#include <QMainWindow>
#include <QSettings>

#include <map>
#include <memory>

class QLabel;
class QMenu;
class QStackedWidget;

namespace datrin::app {

class AllowancePage;
class BatchPage;
class BenchView;
class BuildNav;
class ChainsPage;
class DrawingPage;
class Header;
class JointsPage;
class MarkingPage;
class OverviewPage;
class Page;
class RecentBuilds;
class RoutePage;
class SeatPage;
class Shelf;
class ShopPage;
class TouchesPage;

class MainWindow : public QMainWindow {
  Q_OBJECT
public:
  using enum Step;

  /// `settings` keeps theme, text size, window place and recent builds; it may be a file of the tests' own.
  explicit MainWindow(std::unique_ptr<QSettings> settings, QWidget* parent = nullptr);
  ~MainWindow() override;

  bool open_build(const QString& path); ///< false, and the reason on the message line, when it cannot be
  bool new_build(const QString& path);
  bool open_file(const QString& path); ///< by what it is: a build, a build as JSON, a survey, a scan
  bool import_json(const QString& path, const QString& to);
  /// A part drawn elsewhere comes in; of several solids the person says which.
  bool import_step(const QString& path);
  QString export_json(const QString& path); ///< empty when written; else what was wrong
  void go_to(Step step);
  void show_face(int k); ///< of the room column of the page shown, where it has several
  Step step() const { return step_; }

  Document& document() { return document_; }
  Header* header() const { return header_; }
  Shelf* shelf() const { return shelf_; }
  DrawingPage* drawing_page() const { return drawing_; }
  TouchesPage* touches_page() const { return touches_; }
  SeatPage* seat_page() const { return seat_; }
  MarkingPage* marking_page() const { return marking_; }
  AllowancePage* allowance_page() const { return allowance_; }
  RoutePage* route_page() const { return route_; }
  BenchView* bench() const { return bench_; }
  void go_to_bench(); ///< at the setup chosen under Route, else the first the piece has not left
  OverviewPage* overview_page() const { return overview_; }
  JointsPage* joints_page() const { return joints_; }
  ChainsPage* chains_page() const { return chains_; }
  BatchPage* batch_page() const { return batch_; }
  ShopPage* shop_page() const { return shop_; }
  BuildNav* build_nav() const { return nav_; }
  Page* page(Step step) const { return pages_.at(step).page; }
  QString message() const;
  void tell(const QString& words, bool wrong); ///< in the line at the bottom
  QAction* undo_action() const { return undo_; }
  QAction* redo_action() const { return redo_; }
  void set_look(bool dark, double text_scale);

protected:
  void closeEvent(QCloseEvent*) override;
  void dragEnterEvent(QDragEnterEvent*) override;
  void dropEvent(QDropEvent*) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void make_actions();
  void go_round();
  void make_pages();
  void make_interface(); ///< everything that has the theme's sizes in it; made anew when the look changes
  void finish_typing();
  void refresh();
  void add_part();
  void quick_part();
  void ask_name();
  void tell_if(const Told& told);
  void back_to_bench();
  void print();
  void show_file(); ///< its name on the window and among those opened last

  std::unique_ptr<QSettings> settings_;
  Document document_;
  QMenu* menu_ = nullptr;
  RecentBuilds* recent_ = nullptr;
  QAction *undo_ = nullptr, *redo_ = nullptr, *sound_ = nullptr;
  Header* header_ = nullptr;
  Shelf* shelf_ = nullptr;
  QStackedWidget *centre_ = nullptr, *side_ = nullptr;
  QLabel* message_ = nullptr;
  DrawingPage* drawing_ = nullptr;
  TouchesPage* touches_ = nullptr;
  SeatPage* seat_ = nullptr;
  MarkingPage* marking_ = nullptr;
  AllowancePage* allowance_ = nullptr;
  RoutePage* route_ = nullptr;
  TargetsState targets_{document_};
  BenchView* bench_ = nullptr;
  BuildNav* nav_ = nullptr;
  QStackedWidget* left_ = nullptr; ///< the shelf, or a list of what the page is about
  OverviewPage* overview_ = nullptr;
  JointsPage* joints_ = nullptr;
  ChainsPage* chains_ = nullptr;
  BatchPage* batch_ = nullptr;
  ShopPage* shop_ = nullptr;
  struct Place {
    Page* page = nullptr;
    QWidget* side = nullptr; ///< its room column, that scrolls
  };
  std::map<Step, Place> pages_;
  Step step_ = drawing;
};

} // namespace datrin::app
