// Work done aside: its answer belongs to what was asked, and nobody waits for work that is given up.

#include "app/aside.h"

#include <QElapsedTimer>
#include <QObject>
#include <QSemaphore>
#include <QTest>
#include <gtest/gtest.h>

#include <memory>
#include <new>

using namespace datrin::app;

namespace {

struct Asker : QObject {
  int question = 1;
  QStringList answers, told;
  Aside<QString, int> aside{this, [this] { return question; }, [this](const QString& a) { answers << a; },
                            [this](const QString& why) { told << why; }};
};

} // namespace

TEST(WorkAside, AnAnswerToAnotherQuestionIsDropped) {
  Asker asker;
  auto go = std::make_shared<QSemaphore>();
  asker.aside.start([go](const Running&) {
    go->acquire();
    return QString("of one");
  });
  asker.question = 2;
  go->release();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !asker.aside.busy(); }, 60000));
  EXPECT_TRUE(asker.answers.isEmpty());
  EXPECT_EQ(asker.told, QStringList{"It has changed meanwhile: ask once more."});
  asker.aside.start([](const Running&) { return QString("of two"); });
  EXPECT_FALSE(asker.aside.forget_other());
  ASSERT_TRUE(QTest::qWaitFor([&] { return !asker.aside.busy(); }, 60000));
  EXPECT_EQ(asker.answers, QStringList{"of two"});
}

TEST(WorkAside, WhatIsThrownIsSaid) {
  Asker asker;
  asker.aside.start([](const Running&) -> QString { throw std::bad_alloc(); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return !asker.aside.busy(); }, 60000));
  EXPECT_EQ(asker.told, QStringList{"It could not be worked out: there is not enough memory."});
}

/// The work ends only when this test has seen that giving it up, and its owner's end, did not wait for it.
TEST(WorkAside, GivingUpDoesNotWait) {
  auto go = std::make_shared<QSemaphore>(), ended = std::make_shared<QSemaphore>();
  {
    Asker asker;
    const auto work = [go, ended](const Running& running) {
      go->acquire();
      if (running()) ended->release();
      return QString("late");
    };
    asker.aside.start(work);
    asker.aside.forget();
    EXPECT_FALSE(asker.aside.busy());
    asker.aside.start(work);
    asker.question = 2;
    EXPECT_TRUE(asker.aside.forget_other());
    EXPECT_TRUE(asker.answers.isEmpty());
  }
  go->release(2);
  EXPECT_TRUE(ended->tryAcquire(2, 60000)); // both were asked to stop
  QCoreApplication::processEvents();
}

TEST(WorkAside, AnotherReplacesIt) {
  Asker asker;
  asker.aside.start([](const Running& running) {
    while (!running()) QThread::yieldCurrentThread();
    return QString("first");
  });
  asker.aside.start([](const Running&) { return QString("second"); });
  ASSERT_TRUE(QTest::qWaitFor([&] { return !asker.aside.busy(); }, 60000));
  EXPECT_EQ(asker.answers, QStringList{"second"});
}

TEST(WorkAside, WhatIsStoppedGivesWhatItHas) {
  Asker asker;
  asker.aside.start([](const Running& running) {
    running.tell(0.5);
    while (!running()) QThread::yieldCurrentThread();
    return QString("half");
  });
  ASSERT_TRUE(QTest::qWaitFor([&] { return asker.aside.percent() == 50; }, 60000));
  asker.aside.stop();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !asker.aside.busy(); }, 60000));
  EXPECT_EQ(asker.answers, QStringList{"half"});
}
