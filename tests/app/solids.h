#pragma once
// What tests of solids in the window stand on: a build of their own, the Solid face of the Drawing.

#include "app/drawing/drawing_page.h"
#include "tests/app/own_build.h"

#include "solid/quick_start.h"

#include <QAbstractItemView>

#include <memory>
#include <string>
#include <vector>

namespace datrin::test {

inline constexpr int solid_tab = 4; ///< of the Drawing

/// The part as a solid, typed and clicked.
class Solids : public OwnBuild {
protected:
  app::BodiesPanel& bodies() { return *window->drawing_page()->bodies(); }
  void go_to_solid() {
    window->go_to(app::MainWindow::drawing);
    window->show_face(solid_tab);
  }
  build::Id body(const std::string& name) {
    for (const auto& [id, body] : b().bodies_of(window->document().part()))
      if (body.name == name) return id;
    ADD_FAILURE() << name;
    return 0;
  }
  const build::PartSurface* surface(const std::string& name) {
    for (const auto& [id, s] : b().surfaces_of(window->document().part()))
      if (s.name == name) return &s;
    return nullptr;
  }
  /// A body by its keys, and the solid with it.
  void added(Qt::Key key) {
    const auto count = [&] { return b().bodies_of(window->document().part()).size(); };
    const auto before = count();
    press(key, Qt::ControlModifier | Qt::AltModifier);
    ASSERT_TRUE(QTest::qWaitFor([&] { return count() > before; }, patience(5000)));
    made();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !bodies().busy(); }, patience(20000)));
  }
  std::shared_ptr<const app::PartSolid> made() {
    window->document().solid_of(window->document().part());
    window->document().solids().wait();
    return window->document().solid_of(window->document().part());
  }
  void size(solid::BodyRole role, const char* text) { enter(bodies().field(role)->edit(), text); }
  void name(const char* text) { enter(bodies().name_edit(), text); }
  static void pick(QComboBox* box, const QString& words) {
    const int k = box->findText(words);
    ASSERT_GE(k, 0) << words.toStdString();
    // As the keyboard does it: to the first, then down.
    box->setFocus();
    QTest::keyClick(box, Qt::Key_Home);
    for (int n = 0; n < k; ++n) QTest::keyClick(box, Qt::Key_Down);
    EXPECT_EQ(box->currentText(), words);
    emit box->activated(k);
  }
  build::Id quick(solid::QuickShape shape, Unit unit = Unit::mm) {
    std::vector<double> sizes;
    for (const auto& size : solid::quick_starts()[static_cast<std::size_t>(shape)].sizes)
      sizes.push_back(size.begins(unit));
    const auto added = solid::add_quick_part(b(), "Quick", solid::quick_drawing(shape, sizes));
    EXPECT_TRUE(window->document().apply(added.edit));
    window->document().choose(added.id, b().pieces_of(added.id).front().first);
    return added.id;
  }
};

} // namespace datrin::test
