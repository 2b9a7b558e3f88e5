// A build of years in the window (sim/large_build.h): how long it takes to open it and see the first page, to
// go to each page, to have an edit shown on each page and on disk, and to take it back. Runs on Qt's
// offscreen platform, so painting is by the processor, as it is on a plain desktop.
//
//   bench-pages [PARTS PIECES TOUCHES JOINTS]
//
// Each figure is the middle one of several; beside it stands the same with only 5 parts, which shows what is
// Qt laying out and painting the page, whatever is in the build.

#include "app/shell/main_window.h"
#include "app/theme.h"
#include "build/edit_casting.h"
#include "sim/large_build.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QTemporaryDir>

#include <algorithm>
#include <cstdio>
#include <functional>

using namespace datrin;

namespace {

double milliseconds(const std::function<void()>& work) {
  QElapsedTimer timer;
  timer.start();
  work();
  QApplication::processEvents(); // layout and paint, as the event loop would
  return static_cast<double>(timer.nsecsElapsed()) / 1e6;
}

double middle(std::vector<double> values) {
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2),
                   values.end());
  return values[values.size() / 2];
}

struct PageTimes {
  std::string name;
  double shown = 0, edit = 0, undo = 0;
};

struct Times {
  double make = 0, open_file = 0, first_page = 0;
  std::vector<PageTimes> pages;
};

/// An edit of what the page is about: the first record of that kind which belongs to the part shown.
build::Edit edit_for(const build::Build& b, build::Id part, build::Id piece, app::Step page, int n) {
  using Window = app::MainWindow;
  const double by = n % 2 == 0 ? 0.001 : -0.001;
  const auto change = [&](build::Id id, auto record, auto alter) {
    alter(record);
    return build::replace(b, id, record, "Change " + std::to_string(n));
  };
  switch (page) {
  case Window::drawing: {
    const auto [id, s] = b.surfaces_of(part).front();
    return change(id, s, [&](auto& r) { r.required += by; });
  }
  case Window::touches: {
    const auto [id, t] = b.touches_of(piece).front();
    return change(id, t, [&](auto& r) { r.centre.x() += by; });
  }
  case Window::seat: {
    Pose pose;
    pose.translation = Vec3(0.01 * (n % 7), 0, 0);
    return build::set_seat(b, piece, pose, false, "Move the part");
  }
  case Window::marking: {
    build::Marking marking;
    marking.piece = piece;
    marking.base_height = 25 + n % 9;
    return build::set_marking(b, marking, "Base height");
  }
  case Window::allowance: {
    build::Allowance allowance;
    allowance.piece = piece;
    allowance.surface = b.surfaces_of(part).front().first;
    allowance.finish = 0.2 + 0.01 * (n % 7);
    if (const auto old = b.allowance_of(piece, allowance.surface))
      return build::replace(b, old->first, allowance, "Finish");
    return build::add(b, allowance, "Finish");
  }
  case Window::route: {
    const auto [id, s] = b.setups_of(part).front();
    return change(id, s, [&](auto& r) { r.name = "setup " + std::to_string(n % 5); });
  }
  default: { // joints, chains, overview: a reading of a size that mates
    const auto joint = b.joints().front().second;
    const auto shaft_piece = b.pieces_of(b.find<build::Dimension>(joint.shaft)->part).front().first;
    build::Measurement m{shaft_piece, joint.shaft, b.find<build::Dimension>(joint.shaft)->nominal - 0.02 + by,
                         0.002,       "",          "2027"};
    if (const auto old = b.measurement_of(shaft_piece, joint.shaft))
      return build::replace(b, old->first, m, "Read");
    return build::add(b, m, "Read");
  }
  }
}

Times measure(const sim::LargeBuildOptions& options) {
  QTemporaryDir folder;
  const auto path = folder.filePath("large.datrin");
  Times times;
  store::FileOutcome outcome;
  build::Build made;
  times.make = milliseconds([&] { made = sim::large_build(options); });
  (void)store::BuildFile::create(path.toStdString(), made, {}, outcome);
  times.open_file = milliseconds([&] { (void)store::BuildFile::open(path.toStdString(), outcome); });
  app::MainWindow window(std::make_unique<QSettings>(folder.filePath("s.ini"), QSettings::IniFormat));
  window.resize(1280, 800);
  window.show();
  QApplication::processEvents();
  times.first_page = milliseconds([&] { window.open_build(path); });
  auto& document = window.document();
  for (const auto& row : app::steps()) {
    const auto page = row.step;
    PageTimes t{row.name.toStdString()};
    window.go_to(app::MainWindow::drawing);
    QApplication::processEvents();
    t.shown = milliseconds([&] { window.go_to(page); });
    std::vector<double> edits, undos;
    for (int n = 0; n < 9; ++n) {
      edits.push_back(milliseconds(
          [&] { document.apply(edit_for(document.build(), document.part(), document.piece(), page, n)); }));
      if (n % 3 == 2) undos.push_back(milliseconds([&] { document.undo(); }));
    }
    t.edit = middle(edits);
    t.undo = middle(undos);
    times.pages.push_back(t);
  }
  return times;
}

} // namespace

int main(int argc, char** argv) {
  if (qgetenv("QT_QPA_PLATFORM").isEmpty()) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  sim::LargeBuildOptions large;
  int* const to[] = {&large.parts, &large.pieces, &large.touches, &large.joints};
  for (int k = 1; k < argc && k <= 4; ++k) *to[k - 1] = std::max(1, QString(argv[k]).toInt());
  sim::LargeBuildOptions small = large;
  small.parts = std::min(5, large.parts);
  small.joints = std::min(8, large.joints);
  const auto few = measure(small), all = measure(large);
  std::printf("%d parts, %d pieces, %d touches, %d joints; beside it %d parts\n\n", large.parts,
              large.parts * large.pieces, large.parts * large.pieces * large.touches, large.joints,
              small.parts);
  std::printf("%-22s %10s %10s   ms\n", "opened, from disk", "", "");
  std::printf("%-22s %10.1f %10.1f\n%-22s %10.1f %10.1f\n\n", "  into memory", all.open_file, few.open_file,
              "  and the first page", all.first_page, few.first_page);
  std::printf("%-14s %8s %8s   %8s %8s   %8s %8s\n", "page", "shown", "", "edit", "", "undo", "");
  for (std::size_t k = 0; k < all.pages.size(); ++k) {
    const auto &a = all.pages[k], &f = few.pages[k];
    std::printf("%-14s %8.1f %8.1f   %8.1f %8.1f   %8.1f %8.1f\n", a.name.c_str(), a.shown, f.shown, a.edit,
                f.edit, a.undo, f.undo);
  }
  return 0;
}
