// What is printed says what the window says: card, marking-out sheet and pattern are written as PDF and read
// back as text by another program (poppler's pdftotext).

#include "app/casting/marking_page.h"
#include "app/drawing/drawing_page.h"
#include "app/overview/overview_page.h"
#include "build/edit_drawing.h"
#include "tests/app/bench.h"

#include "quantity/length_text.h"

#include <QProcess>
#include <QRegularExpression>

#include <cmath>

using namespace datrin;
using namespace datrin::test;
using app::MainWindow;

namespace {

QString text_of(const QString& pdf) {
  QProcess reader;
  reader.start("pdftotext", {"-layout", pdf, "-"});
  EXPECT_TRUE(reader.waitForFinished(20000)) << "pdftotext (poppler-utils) is needed";
  return QString::fromUtf8(reader.readAllStandardOutput()).replace(QChar(0x202F), ' ');
}

/// The numbers of a text, as they stand, with a true minus read as one.
std::vector<double> numbers_in(QString text) {
  std::vector<double> numbers;
  static const QRegularExpression number("-?\\d+\\.\\d+");
  text.replace(QChar(0x2212), '-');
  for (auto found = number.globalMatch(text); found.hasNext();)
    numbers.push_back(found.next().captured().toDouble());
  return numbers;
}

bool says(const std::vector<double>& numbers, double value, double within) {
  return std::any_of(numbers.begin(), numbers.end(), [&](double n) { return std::abs(n - value) <= within; });
}

class Printed : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    open_demo();
  }
  const build::Build& b() { return window->document().build(); }
  QString path(const char* name) { return folder.filePath(name); }
};

} // namespace

TEST_F(Printed, TheMarkingOutSheetHasEveryJackLineAndCheckInBothUnits) {
  window->go_to(MainWindow::seat);
  seat_best();
  window->go_to(MainWindow::marking);
  auto* page = window->marking_page();
  ASSERT_TRUE(page->can_print());
  ASSERT_EQ(page->save_sheet(path("sheet.pdf")), QString());
  const auto text = text_of(path("sheet.pdf"));
  const auto numbers = numbers_in(text);
  const auto& result = page->result();
  std::vector<double> heights;
  for (const auto& jack : result.jacks) heights.push_back(jack.height);
  for (const auto& line : result.lines) heights.push_back(line.height);
  for (const auto& check : result.checks) heights.push_back(check.height);
  ASSERT_GE(heights.size(), 8U);
  for (const double height : heights) {
    EXPECT_TRUE(says(numbers, height, 0.006)) << height << "\n" << text;
    EXPECT_TRUE(says(numbers, height / 25.4, 0.0006)) << height << " in inches";
  }
  EXPECT_TRUE(text.contains("Main pedestal")) << text;
  EXPECT_TRUE(text.contains("Tarnbeck mill engine"));
  for (const auto& surface : {"foot", "bore"}) EXPECT_TRUE(text.contains(surface)) << surface;
  EXPECT_FALSE(text.contains(QChar(0x2026))) << "something printed is cut short:\n" << text;
}

TEST_F(Printed, TheCardHasTheNextNumbersOfTheOverview) {
  window->go_to(MainWindow::overview);
  ASSERT_EQ(window->overview_page()->save_card(path("card.pdf")), QString());
  const auto text = text_of(path("card.pdf"));
  const auto numbers = numbers_in(text);
  const auto rows = window->overview_page()->next();
  ASSERT_GE(rows.size(), 5U);
  int on_card = 0;
  for (const auto* row : rows) on_card += says(numbers, row->value(), 0.0006) && text.contains(row->name());
  EXPECT_GE(on_card, 5) << text;
  EXPECT_TRUE(text.contains("Next numbers to cut"));
  EXPECT_TRUE(text.contains("in \u00B7 hold \u00B1")) << text;
  EXPECT_FALSE(text.contains(QChar(0x2026))) << "something printed is cut short:\n" << text;
}

TEST_F(Printed, ACardInInchesLeadsWithInches) {
  window->document().apply(build::work_in(b(), Unit::inch));
  window->go_to(MainWindow::overview);
  ASSERT_EQ(window->overview_page()->save_card(path("card.pdf")), QString());
  const auto text = text_of(path("card.pdf"));
  EXPECT_TRUE(text.contains(QRegularExpression("\\d\\.\\d{4} in\\b"))) << text;
  EXPECT_TRUE(text.contains("mm \u00B7 hold \u00B1")) << text;
}

// By hand: every size of the pattern is the raw size and 1 % more.
TEST_F(Printed, ThePatternHasEverySurfaceAndItsSize) {
  window->go_to(MainWindow::drawing);
  ASSERT_EQ(window->drawing_page()->foundry()->write_pattern(path("pattern.pdf")), QString());
  const auto text = text_of(path("pattern.pdf"));
  const auto numbers = numbers_in(text);
  const auto part = window->document().part();
  const auto pattern = casting::make_pattern(b(), part, casting::foundry_or_usual(b(), part));
  ASSERT_TRUE(pattern.usable()) << pattern.message;
  for (const auto& s : pattern.surfaces) {
    if (s.solid || s.size <= 0) continue;
    EXPECT_TRUE(text.contains(QString::fromStdString(s.shape.name))) << s.shape.name;
    EXPECT_TRUE(says(numbers, s.size, 0.006)) << s.shape.name << " " << s.size << "\n" << text;
    EXPECT_TRUE(says(numbers, s.size / 25.4, 0.0001)) << s.shape.name;
  }
  EXPECT_TRUE(text.contains("Molten metal")); // the caution stands on the sheet
  EXPECT_FALSE(text.contains(QChar(0x2026))) << "something printed is cut short:\n" << text;
}

TEST_F(Printed, WhatCannotBeWrittenIsSaid) {
  for (const auto& wrong : {window->overview_page()->save_card("/nowhere/card.pdf"),
                            window->drawing_page()->foundry()->write_pattern("/nowhere/pattern.pdf")}) {
    EXPECT_TRUE(wrong.contains("/nowhere")) << wrong;
  }
}
