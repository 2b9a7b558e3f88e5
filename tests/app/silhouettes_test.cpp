// How parts look on the shelf, kept with the file.

#include "tests/app/solids.h"

#include "app/silhouettes.h"

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;
using solid::BodyRole;
using solid::BodyShape;

using SilhouettesKept = Solids;

/// How the parts looked is kept with the file: opened again, the shelf has them without a solid being made;
/// one that is drawn otherwise by now has none. A file that is only looked at is left as it is.
TEST_F(SilhouettesKept, SilhouettesAreKeptWithTheFile) {
  open_demo();
  choose_piece(0);
  const Id pedestal = window->document().part();
  const auto shown = [&](Id part) { return !window->document().silhouettes().of(b(), part).isNull(); };
  const auto paint = [&] {
    QTest::qWait(20);
    window->grab();
  };
  paint();
  window->document().solids().wait();
  paint();
  EXPECT_TRUE(shown(pedestal));
  const auto read = [](const QString& path) {
    QFile file(path);
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    return file.readAll();
  };
  open_window(); // and with it the file is let go of
  const auto looked_at = read(demo_path());
  open_demo();
  EXPECT_FALSE(shown(pedestal)); // nothing was edited: nothing was written
  open_window();
  EXPECT_EQ(read(demo_path()), looked_at);
  open_demo();
  paint();
  window->document().solids().wait();
  paint();
  auto named = *b().find<build::Part>(pedestal);
  named.name = "Pedestal";
  ASSERT_TRUE(window->document().apply(change(b(), pedestal, named, "Name")));
  open_window();
  open_demo();
  EXPECT_TRUE(shown(pedestal));
  EXPECT_EQ(b().find<build::Part>(pedestal)->name, "Pedestal");
  for (const auto& [id, body] : b().bodies_of(pedestal)) {
    auto wider = body;
    wider.count = 2;
    ASSERT_TRUE(window->document().apply(change(b(), id, wider, "Number")));
    break;
  }
  EXPECT_FALSE(shown(pedestal));
}

TEST_F(SilhouettesKept, SilhouettesThatCannotBeReadAreLeftOut) {
  app::Silhouettes kept;
  QImage picture(126, 102, QImage::Format_ARGB32_Premultiplied);
  picture.fill(QColor(0, 255, 0));
  kept.keep(b(), 7, picture);
  const auto text = kept.text();
  app::Silhouettes again;
  again.read(text);
  EXPECT_EQ(again.of(b(), 7), picture);
  for (const std::string& spoilt :
       {std::string("7"), std::string("7 zz AAAA"), text.substr(0, text.size() / 2), "x" + text,
        std::string("7 1 AAAA\n\n \n")}) {
    again.read(spoilt);
    EXPECT_TRUE(again.of(b(), 7).isNull()) << spoilt.substr(0, 20);
  }
}
