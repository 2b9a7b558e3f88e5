#include "app/marks/waiting.h"

#include "app/aside.h"
#include "app/theme.h"
#include "sheets/shown.h"

#include <QEventLoop>
#include <QLabel>
#include <QProgressBar>
#include <QProgressDialog>
#include <QTimer>

#include <atomic>
#include <chrono>
#include <future>

namespace datrin::app {

QString wait_until_done(QWidget* over, const QString& words, bool can_stop,
                        const std::function<void(const store::ReadOptions&)>& work) {
  using namespace std::chrono_literals;
  constexpr auto moment = 300ms, look_again = 50ms;
  constexpr int most = 1000, unknown = -1;
  std::atomic<int> so_far{unknown};
  std::atomic<bool> stop{false};
  store::ReadOptions options;
  options.progress = [&so_far](double part) { so_far = static_cast<int>(most * part); };
  options.should_stop = [&stop] { return stop.load(); };
  auto done = std::async(std::launch::async, [&] { work(options); });
  const auto is_done = [&done](auto time) { return done.wait_for(time) == std::future_status::ready; };
  if (!is_done(moment)) {
    QProgressDialog dialog(words, can_stop ? "Stop" : QString(), 0, 0, over);
    dialog.setWindowTitle("Datrin");
    dialog.setMinimumWidth(theme().ipx(400));
    dialog.findChild<QLabel*>()->setAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    auto* bar = new QProgressBar;
    bar->setRange(0, 0);
    bar->setTextVisible(false);
    bar->setAccessibleName("Progress");
    dialog.setBar(bar);
    dialog.setWindowModality(Qt::WindowModal);
    dialog.setAutoClose(false);
    dialog.setAutoReset(false);
    dialog.setMinimumDuration(0);
    QEventLoop until_done;
    QTimer timer;
    QObject::connect(&timer, &QTimer::timeout, &until_done, [&] {
      if (is_done(0ms)) return until_done.quit();
      if (so_far == unknown || dialog.wasCanceled()) return;
      dialog.setMaximum(most);
      dialog.setValue(so_far);
      dialog.setLabelText(filled("%1 %2 %", words, 100 * so_far / most));
    });
    QObject::connect(&dialog, &QProgressDialog::canceled, &until_done, [&] {
      stop = true;
      dialog.setLabelText("Stopping\u2026");
      dialog.setRange(0, 0);
      dialog.show(); // until it has stopped, nothing else can be done
    });
    timer.start(look_again);
    dialog.show();
    until_done.exec();
  }
  try {
    done.get();
  } catch (...) {
    return failed_words(std::current_exception());
  }
  return {};
}

} // namespace datrin::app
