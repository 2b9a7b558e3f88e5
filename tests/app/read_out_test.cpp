// At the machine with a read-out that reads by itself: lines sent over the network by the test, and the
// simulated one that comes with the program.

#include "app/bench/bench_view.h"
#include "tests/app/own_build.h"

#include <QTcpServer>
#include <QTcpSocket>

using namespace datrin;
using namespace datrin::test;
using namespace datrin::build;
using app::MainWindow;

namespace {

/// A plate 80 by 50 by 12 with four holes 64 by 34 apart, cut to size all round, on the mill.
class ReadOutAtTheBench : public OwnBuild {
protected:
  void SetUp() override {
    OwnBuild::SetUp();
    const Id of = part("Plate");
    Stock stock;
    stock.part = of;
    stock.form = StockForm::flat;
    put(stock);
    Body plate;
    plate.part = of, plate.name = "plate", plate.shape = BodyShape::block;
    plate.set_size({BodyRole::length, 0, 80});
    plate.set_size({BodyRole::width, 0, 50});
    plate.set_size({BodyRole::height, 0, 12});
    Body hole;
    hole.part = of, hole.name = "hole", hole.shape = BodyShape::hole, hole.on = put(plate),
    hole.face = BodyFace::top;
    hole.through = true, hole.pattern = BodyPattern::grid, hole.count = hole.count_across = 2, hole.order = 1;
    hole.set_size({BodyRole::diameter, 0, 5.5});
    hole.set_size({BodyRole::pitch, 0, 64});
    hole.set_size({BodyRole::pitch_across, 0, 34});
    const Id holes = put(hole);
    const auto face = [&](const char* name, const Vec3& at, const Vec3& looks) {
      PartSurface s;
      s.part = of, s.name = name, s.kind = SurfaceKind::plane, s.point = at, s.direction = looks;
      s.width = s.height = 12;
      const Id id = put(s);
      Cut cut;
      cut.piece = b().pieces_of(of).front().first, cut.surface = id;
      put(cut);
      return id;
    };
    Machine mill;
    mill.name = "mill";
    mill.kind = MachineKind::mill;
    machine = put(mill);
    build::Setup s;
    s.part = of, s.name = "on its underside", s.way = Vec3::UnitZ(), s.holding = Workholding::vise;
    s.machine = machine;
    s.datums = {face("underside", {0, 0, 0}, -Vec3::UnitZ()), face("left", {-40, 0, 6}, -Vec3::UnitX()),
                face("front", {0, -25, 6}, -Vec3::UnitY())};
    setup = put(s);
    Operation o;
    o.part = of, o.kind = OperationKind::drill, o.setup = setup, o.bodies = {holes}, o.size = 5.5;
    put(o);
  }
  void reads_at(const std::string& where) {
    auto m = *b().find<Machine>(machine);
    m.read_out = where;
    ASSERT_TRUE(window->document().apply(replace(b(), machine, m, "Reads at")));
  }
  void to_the_bench() {
    choose(0);
    QTest::keyClick(window.get(), Qt::Key_F11);
    ASSERT_TRUE(bench().is_open()) << window->message().toStdString();
  }
  void choose(int piece) { choose_piece(piece); }
  /// Enter until the step of that key is at hand.
  void on_to(const std::string& key) {
    for (int n = 0; n < 20 && bench().step() && !bench().step()->key.starts_with(key); ++n) pad(field(), "");
    ASSERT_TRUE(bench().step() && bench().step()->key.starts_with(key)) << bench().title().toStdString();
  }
  static constexpr int a_moment = 50, an_age = 600000; // ms of silence until what it shows is old
  /// At the bench, reading what the test sends down the line that comes back.
  QTcpSocket* read_from(QTcpServer& server, int silence) {
    EXPECT_TRUE(server.listen(QHostAddress::LocalHost));
    reads_at("127.0.0.1:" + std::to_string(server.serverPort()));
    to_the_bench();
    bench().set_sound(false);
    bench().read_out()->set_silence(silence);
    return server.waitForNewConnection(patience(5000)) ? server.nextPendingConnection() : nullptr;
  }
  app::BenchView& bench() { return *window->bench(); }
  QLineEdit* field() { return bench().reading(); }
  Id machine = 0, setup = 0;
};

} // namespace

TEST_F(ReadOutAtTheBench, TheZeroIsTouchedTwiceByThePadAndFoundAgain) {
  to_the_bench();
  on_to("zero-x");
  EXPECT_EQ(bench().picture()->shown().view, sheets::View::plan);
  EXPECT_GT(bench().picture()->shown().finder, 0);
  pad(field(), "20.5");
  EXPECT_TRUE(bench().title().contains("once more")) << bench().title().toStdString();
  pad(field(), "21.5");
  EXPECT_TRUE(bench().message().contains("1.000 mm apart") ||
              bench().message().contains("1.000\u202Fmm apart"))
      << bench().message().toStdString();
  EXPECT_TRUE(bench().words().contains("burr"));
  pad(field(), "21.5");
  EXPECT_TRUE(bench().message().contains("24.500")) << bench().message().toStdString();
  on_to("go");
  EXPECT_EQ(bench().number(), "32.500"); // 24.5 and 8
  EXPECT_EQ(bench().picture()->shown().figure, "32.500");
  // A slash in the empty field finds it again; within a fraction it is typed.
  QTest::keyClick(field(), Qt::Key_Slash, Qt::KeypadModifier);
  EXPECT_TRUE(bench().step()->key == "zero-x") << bench().step()->key;
  EXPECT_TRUE(bench().message().contains("found again"));
  EXPECT_EQ(b().all<BenchZero>().size(), 2U); // X, lost, and Y
  QTest::keyClicks(field(), "3");
  QTest::keyClick(field(), Qt::Key_Slash, Qt::KeypadModifier);
  EXPECT_EQ(field()->text(), "3/");
  field()->clear();
  window->document().undo();
  EXPECT_EQ(bench().number(), "32.500");
}

// Askew by 4 in 3, its corner at 100, 50, the finder 6 (worked by hand in the tests of the steps): + in the
// empty field is enough, and the numbers follow.
TEST_F(ReadOutAtTheBench, APartThatLiesAskewByThePadAlone) {
  to_the_bench();
  on_to("zero-x");
  const auto* hint = bench().findChild<QLabel*>("hint");
  ASSERT_TRUE(hint);
  EXPECT_TRUE(hint->text().contains("+ Enter: it lies askew")) << hint->text();
  pad(field(), "+");
  EXPECT_TRUE(bench().title().contains("askew: touch 1 of 2")) << bench().title();
  for (const auto* read : {"94.6", "52.2", "76.6", "76.2"}) pad(field(), read);
  EXPECT_TRUE(bench().title().contains("front")) << bench().title();
  for (const auto* read : {"109.8", "53.6", "141.8", "77.6"}) pad(field(), read);
  EXPECT_TRUE(bench().message().contains("36.87")) << bench().message();
  on_to("go");
  // The first hole 8 from the left, 8 from the front: 100 + 8 × 0.8 − 8 × 0.6.
  EXPECT_EQ(bench().number(), "101.600");
  EXPECT_TRUE(bench().words().contains("the corner of left and front")) << bench().words();
  pad(field(), "101.6");
  EXPECT_EQ(bench().number(), "61.200"); // 50 + 8 × 0.6 + 8 × 0.8
  window->document().undo();
  EXPECT_EQ(bench().number(), "101.600");
}

TEST_F(ReadOutAtTheBench, CountsDownByWhatIsSentAndSaysWhenItIsThere) {
  QTcpServer server;
  auto* line = read_from(server, an_age);
  ASSERT_TRUE(line);
  const auto send = [&](const QByteArray& text) {
    const auto before = bench().read_out()->taken();
    line->write(text);
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return bench().read_out()->taken() >= before + text.size(); }, patience(5000)));
  };
  on_to("zero-x");
  send("X -3.0");
  EXPECT_EQ(bench().to_go(), "no reading yet"); // a line still on its way is none
  send("00 Y 12.5 Z 40\n");
  EXPECT_EQ(bench().to_go(), "X reads \u22123.000");
  pad(field(), "");
  pad(field(), "");
  ASSERT_EQ(bench().step()->key, "zero-y");
  send("garbage\nX 0.2in Y -3 Z 40\n"); // what is no reading is left; another unit is read as such
  pad(field(), "");
  pad(field(), "");
  on_to("go");
  EXPECT_EQ(bench().to_go(), "to go 2.920"); // 8 less 5.08
  EXPECT_EQ(bench().chimes(), 0);
  pad(field(), ""); // not there yet: refused
  EXPECT_TRUE(bench().message().contains("to go")) << bench().message().toStdString();
  send("X 8.00 Y -3 Z 40\n");
  EXPECT_TRUE(bench().to_go().contains("there")) << bench().to_go().toStdString();
  EXPECT_EQ(bench().chimes(), 1);
  send("X 8.01 Y -3 Z 40\nX 8.00 Y -3 Z 40\n"); // trembling about it is not told again
  EXPECT_EQ(bench().chimes(), 1);
  pad(field(), "");
  EXPECT_EQ(bench().step()->axis, "Y");
  line->disconnectFromHost();
  server.pauseAccepting();
  EXPECT_TRUE(QTest::qWaitFor([&] { return bench().to_go().contains("127.0.0.1"); }, patience(5000)))
      << bench().to_go().toStdString(); // it says what is wrong
  EXPECT_FALSE(bench().read_out()->reads());
  pad(field(), "8"); // and one types
  EXPECT_EQ(bench().step()->key.substr(0, 6), "zero-z");
  // Switched on again it is found again by itself.
  server.resumeAccepting();
  ASSERT_TRUE(QTest::qWaitFor([&] { return server.hasPendingConnections(); }, 8000));
  line = server.nextPendingConnection();
  send("X 8.00 Y 8.00 Z 40\n");
  EXPECT_TRUE(QTest::qWaitFor([&] { return bench().read_out()->reads(); }, 3000));
  EXPECT_EQ(bench().to_go(), "Z reads 40.000");
}

// What fell silent was shown, and taken by Enter, as if it were now.
TEST_F(ReadOutAtTheBench, WhatFellSilentIsOldAndNotTaken) {
  QTcpServer server;
  auto* line = read_from(server, a_moment);
  ASSERT_TRUE(line);
  on_to("zero-x");
  const auto says = [&](const QString& words) {
    return QTest::qWaitFor([&] { return bench().to_go().contains(words); }, patience(5000));
  };
  line->write("X -3.000 Y 0 Z 0\n");
  ASSERT_TRUE(says("old: X read \u22123.000")) << bench().to_go().toStdString();
  EXPECT_FALSE(bench().read_out()->at("X"));
  EXPECT_EQ(field()->placeholderText(), "");
  const auto* hint = bench().findChild<QLabel*>("hint");
  ASSERT_TRUE(hint);
  EXPECT_TRUE(hint->text().startsWith("What it shows is old"))
      << hint->text(); // it went on "Enter takes what it shows"
  pad(field(), "");
  EXPECT_EQ(bench().step()->key, "zero-x");
  EXPECT_TRUE(bench().message().contains("old")) << bench().message().toStdString();
  bench().read_out()->set_silence(an_age);
  line->write("X -3.000 Y 0 Z 0\n");
  ASSERT_TRUE(says("X reads \u22123.000")) << bench().to_go().toStdString();
  line->write("X 1,234.5\n");
  ASSERT_TRUE(says("\"X 1,234.5\", which is not understood")) << bench().to_go().toStdString();
  EXPECT_FALSE(bench().read_out()->at("X"));
  line->write("X -3.000\n");
  ASSERT_TRUE(says("X reads")) << bench().to_go().toStdString();
  pad(field(), "");
  EXPECT_EQ(bench().step()->key, "zero-x-again");
}

TEST_F(ReadOutAtTheBench, TheSimulatedOneIsTurnedByKeys) {
  reads_at("simulated");
  to_the_bench();
  bench().set_sound(false);
  ASSERT_TRUE(QTest::qWaitFor([&] { return bench().read_out()->reads(); }, 8000));
  on_to("zero-x");
  const double before = *bench().read_out()->at("X");
  QTest::keyClick(field(), Qt::Key_Right);
  QTest::keyClick(field(), Qt::Key_Left, Qt::ShiftModifier);
  ASSERT_TRUE(
      QTest::qWaitFor([&] { return std::abs(*bench().read_out()->at("X") - before - 0.99) < 1e-6; }, 4000));
  pad(field(), "");
  EXPECT_NEAR(b().all<BenchZero>().front().second.finder, 6, 1e-9);
  EXPECT_EQ(bench().step()->key, "zero-x-again");
  pad(field(), "");
  EXPECT_NEAR(b().all<BenchZero>().front().second.shows, before + 0.99 + 3, 1e-3);
  bench().leave();
  EXPECT_FALSE(bench().read_out()->reads());
}

TEST_F(ReadOutAtTheBench, WhatIsNoReadOutIsSaid) {
  reads_at("nowhere");
  to_the_bench();
  on_to("zero-x");
  EXPECT_TRUE(bench().to_go().contains("is no read-out")) << bench().to_go().toStdString();
  reads_at("/dev/no-such-port");
  on_to("zero-x");
  EXPECT_TRUE(bench().to_go().contains("no-such-port")) << bench().to_go().toStdString();
  pad(field(), "");
  EXPECT_EQ(bench().step()->key, "zero-x-again");
}

TEST_F(ReadOutAtTheBench, FitsWithTheReadOutAtTwiceTheText) {
  reads_at("simulated");
  window->set_look(true, 2.0);
  to_the_bench();
  bench().set_sound(false);
  ASSERT_TRUE(QTest::qWaitFor([&] { return bench().read_out()->reads(); }, 8000));
  on_to("zero-x");
  pad(field(), "");
  pad(field(), "");
  on_to("zero-y");
  pad(field(), "");
  pad(field(), "");
  ASSERT_EQ(bench().step()->kind, steps::StepKind::go);
  QApplication::processEvents();
  EXPECT_LE(bench().minimumSizeHint().height(), 800);
  EXPECT_LE(bench().minimumSizeHint().width(), 1280);
  EXPECT_GE(QFontMetrics(bench().number_font()).height(), 100);
  for (const auto* widget : bench().findChildren<QWidget*>())
    if (widget->isVisible()) {
      const QRect at(widget->mapTo(&bench(), QPoint(0, 0)), widget->size());
      EXPECT_TRUE(bench().rect().adjusted(-1, -1, 1, 1).contains(at))
          << widget->accessibleName().toStdString();
    }
}

// By Enter alone to the end: the field stays, and one more Enter leaves.
TEST_F(ReadOutAtTheBench, ThroughToTheEndByTheNumberPad) {
  to_the_bench();
  int pressed = 0;
  while (bench().is_open() && steps::step_to_do(bench().steps()) >= 0 && ++pressed < 80) pad(field(), "");
  ASSERT_TRUE(bench().is_open()) << pressed;
  EXPECT_EQ(bench().title(), "All of it is done");
  EXPECT_TRUE(field()->hasFocus());
  const Id piece = window->document().piece();
  EXPECT_TRUE(b().release_of(piece, setup));
  pad(field(), "");
  EXPECT_FALSE(bench().is_open());
}
