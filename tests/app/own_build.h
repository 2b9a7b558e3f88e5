#pragma once
// A window with a new build of its own, drawn record by record: what stories of the bench stand on.

#include "tests/app/bench.h"

#include "build/edits.h"

namespace datrin::test {

/// As the number pad sends them, Enter after.
inline void pad(QWidget* field, const QString& text) {
  for (const QChar c : text) QTest::keyClick(field, c.toLatin1(), Qt::KeypadModifier);
  QTest::keyClick(field, Qt::Key_Enter, Qt::KeypadModifier);
}

class OwnBuild : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    ASSERT_TRUE(window->new_build(folder.filePath("own.datrin"))) << window->message();
  }
  const build::Build& b() { return window->document().build(); }
  build::Id put(build::Record record) {
    const auto id = b().next_id();
    EXPECT_TRUE(window->document().apply(build::add(b(), std::move(record), "Draw")));
    return id;
  }
  /// A part with so many pieces.
  build::Id part(const char* name, int quantity = 1, const char* material = "steel") {
    const auto id = put(build::Part{name, material, quantity, build::next_order(b().parts())});
    for (int n = 1; n <= quantity; ++n) put(build::Piece{id, n});
    return id;
  }
};

} // namespace datrin::test
