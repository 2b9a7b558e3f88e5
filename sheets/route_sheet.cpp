#include "sheets/route_sheet.h"

#include "sheets/as_held.h"
#include "sheets/figures.h"
#include "sheets/fonts.h"
#include "sheets/page_file.h"
#include "sheets/scene_paint.h"

#include <algorithm>

namespace datrin::sheets {

namespace {

/// Lines of words below each other until the page is full; returns where the next goes.
class Column {
public:
  Column(QPainter& p, double left, double right, double y) : p_(p), left_(left), right_(right), y_(y) {}

  void heading(const QString& text) {
    y_ += 22;
    page_words(p_, left_, y_ += 40, 36, true, text, false, right_ - left_);
    y_ += 6;
  }
  /// In as many lines as it takes.
  void line(const QString& text, bool bold = false) {
    p_.setFont(font(32, bold));
    const QFontMetricsF metrics(p_.font());
    QString rest = text;
    while (!rest.isEmpty() && y_ < bottom) {
      QString now = rest;
      while (metrics.horizontalAdvance(now) > right_ - left_ && now.contains(' '))
        now = now.left(now.lastIndexOf(' '));
      page_words(p_, left_, y_ += 42, 32, bold, now, false, right_ - left_);
      rest = rest.mid(now.size()).trimmed();
    }
  }
  double y() const { return y_; }

  static constexpr double bottom = 2790;

private:
  QPainter& p_;
  double left_, right_, y_;
};

QString after_text(const route::CardOperation& o) {
  QStringList list;
  for (const int number : o.after) list << QString::number(number);
  return list.join(", ");
}

void paint_operations(QPainter& p, const RouteSheet& in, const route::CardSetup& setup, double y) {
  page_rule(p, y);
  p.setPen(Qt::black);
  page_words(p, page_left + 80, y + 46, 34, true, "No.", true);
  page_words(p, page_left + 110, y + 46, 34, true, "Operation");
  page_words(p, 1060, y + 46, 34, true, "With");
  page_words(p, 1530, y + 46, 34, true, "Min", true);
  page_words(p, 1560, y + 46, 34, true, "After");
  page_words(p, page_right, y + 46, 34, true, "Done", true);
  y += 64;
  const double step =
      std::min(76.0, (Column::bottom - y) / std::max<double>(1, double(setup.operations.size())));
  const double size = std::min(36.0, 0.6 * step);
  for (const auto& o : setup.operations) {
    y += step;
    page_words(p, page_left + 80, y, size, true, QString::number(o.number), true);
    const auto what = qt(o.what) + (o.note.empty() ? QString() : "; " + qt(o.note));
    page_words(p, page_left + 110, y, size, false, what, false, 780);
    const auto with = !o.with.empty() ? name_words(o.with)
                      : o.size > 0    ? figure_with_unit(o.size, in.unit)
                                      : QString();
    page_words(p, 1060, y, size, false, with, false, 380);
    if (o.minutes > 0) page_words(p, 1530, y, size, false, QString::number(o.minutes, 'g', 4), true);
    page_words(p, 1560, y, size, false, after_text(o), false, 260);
    // A box to tick at the machine.
    p.setPen(QPen(Qt::black, 3));
    p.drawRect(QRectF(page_right - 40, y - 30, 34, 34));
    if (o.done) {
      p.drawLine(QPointF(page_right - 34, y - 14), QPointF(page_right - 24, y - 2));
      p.drawLine(QPointF(page_right - 24, y - 2), QPointF(page_right - 8, y - 26));
    }
    p.setPen(Qt::black);
  }
}

} // namespace

void paint_route_page(QPainter& p, const RouteSheet& in, std::size_t page) {
  if (page >= in.card.setups.size()) return;
  const auto& setup = in.card.setups[page];
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(Qt::black);
  page_words(p, page_left, 190, 76, true, name_words(in.card.part), false, 1200);
  page_words(p, page_right, 160, 36, false, in.build, true, 600);
  page_words(p, page_right, 206, 32, false, in.made_at, true, 600);
  page_words(p, page_left, 262, 46, true, name_words(setup.name), false, 1200);
  page_words(p, page_right, 262, 36, false, filled("Setup %1 of %2", page + 1, in.card.setups.size()), true);
  QStringList about;
  if (!in.card.material.empty()) about << whole(in.card.material);
  if (!in.card.made_from.empty()) about << qt(in.card.made_from);
  about << filled(in.card.pieces == 1 ? "%1 piece" : "%1 pieces", in.card.pieces);
  if (!setup.machine.empty()) about << "on " + name_words(setup.machine);
  page_words(p, page_left, 316, 34, false, about.join("; "), false, page_right - page_left);

  const PixelRect area{page_left, 350, 1130, 900};
  if (!in.part.empty()) {
    const AsHeld held{setup.way, setup.lathe};
    const auto views = lay_out_held(bounds(in.part), held, area, in.third_angle, 60, 80);
    SceneStyle style;
    style.ink = paper_print();
    style.pen = 3;
    style.show_touches = false;
    if (page < in.lit.size()) style.lit_surfaces = in.lit[page];
    for (const auto view : all_views) {
      const auto v = static_cast<std::size_t>(view);
      paint_scene(p, make_scene(in.part, views.axes[v]), views.frame[v], style);
      p.setPen(Qt::black);
      page_words(p, views.cell[v].left + 10, views.cell[v].top + 34, 30, false, held_view_name(view, held));
    }
  }
  p.setPen(Qt::black);
  Column side(p, 1320, page_right, 330);
  side.heading("Held");
  side.line(setup.held.empty() ? QString("not stated") : qt(setup.held));
  side.heading("Located from");
  if (setup.datums.empty()) side.line("nothing stated");
  for (const auto& datum : setup.datums) side.line(qt(datum));
  if (!setup.measure.empty()) {
    side.heading("Measure before unclamping");
    for (const auto& size : setup.measure) side.line(qt(size));
  }
  if (!setup.leave.empty()) {
    side.heading("Leave for later setups");
    for (const auto& mark : setup.leave) side.line(qt(mark));
  }
  Column cautions(p, page_left, page_right, std::max(1260.0, side.y() + 10));
  cautions.heading("Look out");
  for (const auto& caution : setup.cautions) cautions.line(sentence(caution));
  paint_operations(p, in, setup, cautions.y() + 40);
  page_rule(p, 2830);
  p.setPen(Qt::black);
  page_words(
      p, page_left, 2880, 30, false,
      filled(
          "This setup %1 min a piece, all of them %2 min, without setting up. Tick here, enter afterwards.",
          QString::number(setup.minutes, 'g', 4), QString::number(in.card.minutes, 'g', 4)),
      false, page_right - page_left);
  p.restore();
}

QString write_route_pdf(const QString& path, const RouteSheet& sheet) {
  if (sheet.card.setups.empty()) return "There are no operations yet: propose them first.";
  return write_pages_pdf(
      path, sheet.part.empty() ? QString("Route") : name_words(sheet.card.part) + ", route",
      sheet.card.setups.size(),
      [&](QPainter& painter, std::size_t page) { paint_route_page(painter, sheet, page); });
}

} // namespace datrin::sheets
