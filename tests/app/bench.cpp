#include "tests/app/bench.h"

#include "app/casting/seat_page.h"
#include "app/shell/shelf.h"

namespace datrin::test {

void WindowTest::choose_piece(std::size_t k) {
  ASSERT_LT(static_cast<int>(k), window->shelf()->model()->rowCount());
  window->shelf()->choose(static_cast<int>(k));
}

void WindowTest::seat_best() {
  auto* page = window->seat_page();
  ASSERT_TRUE(QTest::qWaitFor([&] { return !page->busy(); }, patience(5000)));
  QSignalSpy settled(page, &app::SeatPage::settled);
  page->canvas()->setFocus();
  QTest::keyClick(page->canvas(), Qt::Key_S);
  ASSERT_TRUE(settled.wait(patience(5000)));
}

} // namespace datrin::test
