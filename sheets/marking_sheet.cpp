#include "sheets/marking_sheet.h"

#include "sheets/figures.h"
#include "sheets/fonts.h"
#include "sheets/page_file.h"

#include <QBuffer>
#include <QSvgGenerator>

#include <algorithm>
#include <cmath>

namespace datrin::sheets {
namespace {

/// Spreads label positions so that none is nearer than `step` to the next; `y` sorted downwards on screen.
std::vector<double> spread(std::vector<double> y, double step, double lowest) {
  for (std::size_t i = 1; i < y.size(); ++i) y[i] = std::min(y[i], y[i - 1] - step);
  (void)lowest;
  return y;
}

struct Elevation {
  ViewAxes axes;
  Scene scene;
  ViewFrame frame;
};

/// The first eye looks along a bore that lies level, so that its circle shows.
Vec3 first_eye(const MarkingPicture& picture) {
  for (const auto& s : picture.part.surfaces)
    if (is_hole(s.shape.kind) && std::abs(s.shape.direction.dot(picture.up)) < 1e-3) {
      const Vec3 d = s.shape.direction;
      return std::abs(d.y()) > 0.9 ? Vec3(-Vec3::UnitY()) : d;
    }
  return std::abs(picture.up.y()) < 0.9 ? Vec3(-Vec3::UnitY()) : Vec3(Vec3::UnitX());
}

void paint_jack(QPainter& painter, const QPointF& top, double plate_y, const Ink& ink, double text) {
  const double high = plate_y - top.y(), wide = std::clamp(0.55 * high, 0.5 * text, 1.6 * text);
  painter.setPen(QPen(ink.print ? ink.line : ink.brass, 0.12 * text));
  painter.setBrush(ink.ground);
  const double body = std::max(top.y() + 0.35 * high, plate_y - 3.2 * text);
  painter.drawLine(top, QPointF(top.x(), body));
  painter.drawPolygon(QPolygonF({QPointF(top.x() - 0.35 * wide, body), QPointF(top.x() + 0.35 * wide, body),
                                 QPointF(top.x() + wide, plate_y), QPointF(top.x() - wide, plate_y)}));
  painter.setBrush(ink.print ? ink.line : ink.brass);
  painter.drawEllipse(top, 0.16 * text, 0.16 * text);
}

/// The outline of what they are places on, counter-clockwise (A. M. Andrew's monotone chain, 1979).
QPolygonF hull(std::vector<QPointF> at) {
  std::sort(at.begin(), at.end(), [](const QPointF& a, const QPointF& b) {
    return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y();
  });
  const auto turns = [](const QPointF& o, const QPointF& a, const QPointF& b) {
    return (a.x() - o.x()) * (b.y() - o.y()) - (a.y() - o.y()) * (b.x() - o.x());
  };
  QPolygonF out;
  for (const bool back : {false, true}) {
    const auto begun = out.size();
    for (const auto& p : at) {
      while (out.size() >= begun + 2 && turns(out[out.size() - 2], out.back(), p) <= 0) out.pop_back();
      out << p;
    }
    if (!out.isEmpty()) out.pop_back();
    if (!back) std::reverse(at.begin(), at.end());
  }
  return out;
}

void paint_plate(QPainter& painter, double left, double right, double y, const Ink& ink, double text) {
  painter.setPen(QPen(ink.line, 0.14 * text));
  painter.drawLine(QPointF(left, y), QPointF(right, y));
  painter.setPen(QPen(ink.dim, 0.07 * text));
  for (double x = left + 0.4 * text; x < right; x += 0.8 * text)
    painter.drawLine(QPointF(x, y), QPointF(x - 0.4 * text, y + 0.4 * text));
}

} // namespace

QString jack_name(int k) {
  return QString(QChar('A' + k));
}

void paint_marking(QPainter& painter, const QRectF& area, const MarkingPicture& picture, const Ink& ink,
                   double text) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  const Vec3 eye = first_eye(picture);
  Elevation views[2];
  views[0].axes = elevation(picture.up, eye);
  views[1].axes = elevation(picture.up, -views[0].axes.right);
  const double c = picture.marking.height_zero;
  double top = 0, bottom = 0;
  for (auto& view : views) {
    view.scene = make_scene(picture.part, view.axes);
    for (const auto& at : picture.stock) {
      const Vec2 p = view.axes.on_paper(at);
      view.scene.low = view.scene.low.cwiseMin(p);
      view.scene.high = view.scene.high.cwiseMax(p);
    }
    top = std::max(top, view.scene.high.y() + c);
  }
  for (const auto& line : picture.marking.lines) {
    top = std::max(top, line.height);
    bottom = std::min(bottom, line.height);
  }
  const bool tight = area.width() < 34 * text;       // large text in a small window
  const double figures = (tight ? 4.4 : 6.2) * text; // room for the heights at the left
  const double beside = (tight ? 4.6 : 5) * text;
  const double wide_mm =
      views[0].scene.high.x() - views[0].scene.low.x() + views[1].scene.high.x() - views[1].scene.low.x();
  const double gap = (tight ? 2.2 : 4.5) * text, below = 2.4 * text;
  const double scale =
      std::max(0.01, std::min((area.width() - figures - gap - beside) / std::max(1.0, wide_mm),
                              (area.height() - below - 2.2 * text) / std::max(1.0, top - bottom)));
  const double spare_height = std::max(0.0, area.height() - below - 2.2 * text - (top - bottom) * scale);
  const double plate_y = area.bottom() - below + bottom * scale - spare_height / 2;
  double left = area.left() + figures + 2.5 * text;
  const double spare = area.right() - 2 * text - (left + wide_mm * scale + gap);
  if (spare > 0) left += spare / 2;
  const double lines_from = left - 2 * text;
  for (auto& view : views) {
    const double wide = (view.scene.high.x() - view.scene.low.x()) * scale;
    const double middle = (view.scene.low.x() + view.scene.high.x()) / 2;
    view.frame = {{middle, -c}, {left + wide / 2, plate_y}, scale};
    left += wide + gap;
  }
  const double lines_to = left - gap + 2 * text;

  paint_plate(painter, lines_from - 0.5 * text, lines_to, plate_y, ink, text);
  SceneStyle style;
  style.ink = ink;
  style.pen = 0.085 * text;
  style.show_touches = false;
  for (const auto& view : views) paint_scene(painter, view.scene, view.frame, style);

  // What it is cut from, as it is now.
  for (const auto& view : views) {
    std::vector<QPointF> outline;
    for (const auto& at : picture.stock) {
      Vec2 p = view.axes.on_paper(at);
      const double high = picture.marking.top_height.value_or(p.y() + c) - c;
      p.y() = std::clamp(p.y(), std::min(picture.marking.bottom_height - c, high), high);
      outline.push_back(point(view.frame.to_px(p)));
    }
    QPen pen(ink.print ? ink.line : ink.label, 0.085 * text);
    pen.setDashPattern({8, 5});
    painter.setPen(pen);
    painter.setBrush(Qt::NoBrush);
    painter.drawPolygon(hull(std::move(outline)));
  }

  // Jacks, in both elevations.
  for (const auto& view : views)
    for (std::size_t k = 0; k < picture.marking.jacks.size(); ++k) {
      const auto px = view.frame.to_px(view.axes.on_paper(picture.marking.jacks[k].at));
      paint_jack(painter, point(px), plate_y, ink, text);
    }
  painter.setFont(font(text, true));
  for (const auto& view : views) {
    // Two jacks seen one behind the other share a place: "A B".
    std::vector<std::pair<double, QString>> names;
    for (std::size_t k = 0; k < picture.marking.jacks.size(); ++k)
      names.emplace_back(view.frame.to_px(view.axes.on_paper(picture.marking.jacks[k].at)).x(),
                         jack_name(static_cast<int>(k)));
    std::sort(names.begin(), names.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    for (std::size_t k = 1; k < names.size();)
      if (names[k].first - names[k - 1].first < 1.3 * text) {
        names[k - 1] = {(names[k].first + names[k - 1].first) / 2,
                        names[k - 1].second + " " + names[k].second};
        names.erase(names.begin() + static_cast<std::ptrdiff_t>(k));
      } else {
        ++k;
      }
    painter.setPen(ink.print ? ink.line : ink.brass);
    for (const auto& [x, name] : names)
      painter.drawText(QRectF(x - 4 * text, plate_y + 0.55 * text, 8 * text, 1.4 * text),
                       Qt::AlignHCenter | Qt::AlignTop, name);
  }

  // Lines to scribe, and their heights at the left.
  std::vector<double> y;
  for (const auto& line : picture.marking.lines) y.push_back(plate_y - line.height * scale);
  const auto label_y = spread(y, 1.25 * text, plate_y);
  for (std::size_t i = 0; i < y.size(); ++i) {
    QPen pen(ink.print ? ink.line : ink.brass, 0.11 * text);
    if (picture.marking.lines[i].centre_line) pen.setDashPattern({12, 3, 2, 3});
    painter.setPen(pen);
    painter.drawLine(QPointF(lines_from, y[i]), QPointF(lines_to, y[i]));
    painter.setPen(QPen(ink.dim, 0.07 * text));
    painter.drawLine(QPointF(lines_from, y[i]), QPointF(lines_from - 0.8 * text, label_y[i]));
    painter.setPen(ink.print ? ink.line : ink.brass);
    painter.setFont(font(text, true));
    painter.drawText(
        QRectF(area.left(), label_y[i] - 0.8 * text, lines_from - 1.1 * text - area.left(), 1.6 * text),
        Qt::AlignRight | Qt::AlignVCenter, figure(picture.marking.lines[i].height, picture.unit));
  }

  // Touches to read first: a ring each.
  int number = 1;
  for (const auto& check : picture.marking.checks) {
    const auto& at = picture.part.touches[static_cast<std::size_t>(check.point)].at;
    paint_ring(painter, views[0].frame.to_px(views[0].axes.on_paper(at)), number++, ink, 0.42 * text);
  }
  painter.restore();
}

namespace {

constexpr double left_edge = 150, right_edge = 1950, figure_edge = 1480, page_bottom = 2970;

class SheetPainter {
public:
  SheetPainter(QPainter& painter, const SheetInput& input)
      : p_(painter), in_(input), unit_(input.picture.unit) {}

  void paint() {
    const auto ink = paper_print();
    const auto& marking = in_.picture.marking;
    p_.setPen(Qt::black);
    on_line(left_edge, 200, 74, true, in_.part);
    on_line(left_edge, 268, 46, false, QString("%1 \u00B7 marking out, %2").arg(in_.build, in_.way_up));
    on_line(left_edge, 326, 38, false,
            (marking.jacks.empty()
                 ? "Heights above the plate. Read the checks, then scribe. "
                 : "Heights above the plate. Set the jacks, read the checks, then scribe. ") +
                in_.seat_line);
    rule(352);
    const int rows = static_cast<int>(marking.lines.size() + marking.checks.size()) + 3;
    const double picture_bottom = std::clamp(page_bottom - 430 - 92.0 * rows - 3 * 90, 1000.0, 1480.0);
    paint_marking(p_, QRectF(left_edge, 370, right_edge - left_edge, picture_bottom - 370), in_.picture, ink,
                  44);
    y_ = picture_bottom + 30;
    jacks();
    checks();
    lines();
    foot();
  }

private:
  /// Words whose capitals stand on the line `base`; `x` is their left end, or their right when `right` is
  /// set.
  void on_line(double x, double base, double size, bool bold, const QString& words, bool right = false,
               double room = right_edge - left_edge) {
    p_.setFont(font(size, bold));
    const auto shown = p_.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(room));
    const double width = QFontMetricsF(p_.font()).horizontalAdvance(shown);
    p_.drawText(QPointF(right ? x - width : x, base), shown);
  }
  void rule(double y) {
    p_.setPen(QPen(Qt::black, 3));
    p_.drawLine(QPointF(left_edge, y), QPointF(right_edge, y));
    p_.setPen(Qt::black);
  }
  void heading(const QString& words) {
    rule(y_);
    on_line(left_edge, y_ + 54, 40, true, words);
    on_line(figure_edge, y_ + 54, 38, false, qt(unit_name(unit_)), true);
    on_line(right_edge, y_ + 54, 38, false, qt(unit_name(other(unit_))), true);
    y_ += 74;
  }
  void row(const QString& mark, const QString& words, double mm, const QString& after = {}) {
    const double base = y_ + 70;
    on_line(left_edge, base, 56, true, mark);
    on_line(left_edge + 130, base, 46, false, words, false, 720);
    on_line(figure_edge, base, 68, true, figure(mm, unit_), true);
    on_line(right_edge, base, 52, false, figure(mm, other(unit_)), true);
    if (!after.isEmpty()) on_line(1150, base, 36, false, after, true);
    y_ += 92;
  }
  QString touch_words(int point) const {
    const auto& touch = in_.picture.part.touches[static_cast<std::size_t>(point)];
    return filled("touch %1 on %2", point + 1,
                  name_words(in_.picture.part.surfaces[static_cast<std::size_t>(touch.surface)].name));
  }
  void jacks() {
    if (in_.picture.marking.jacks.empty()) return;
    heading("Jacks");
    int k = 0;
    for (const auto& jack : in_.picture.marking.jacks)
      row(jack_name(k++), "under " + touch_words(jack.point), jack.height);
  }
  void checks() {
    const auto& top = in_.picture.marking.top_height;
    if (in_.picture.marking.checks.empty() && !top) return;
    heading("Read before scribing");
    int k = 1;
    if (top) row(QString::number(k++), "top of the piece", *top);
    for (const auto& check : in_.picture.marking.checks)
      row(QString::number(k++), touch_words(check.point), check.height,
          check.uncertainty > 0 ? "\u00B1" + figure(check.uncertainty, unit_) : QString());
  }
  void lines() {
    heading("Scribe");
    for (const auto& line : in_.picture.marking.lines)
      row(line.centre_line ? "\u2295" : "\u2014",
          name_words(in_.picture.part.surfaces[static_cast<std::size_t>(line.surface)].name) +
              (line.centre_line ? ", centre line" : ""),
          line.height);
  }
  void foot() {
    double y = page_bottom - 190;
    if (!in_.seen.isEmpty()) {
      on_line(left_edge, y - 14, 36, true, "Seen: " + in_.seen.join(" \u00B7 "));
      y -= 54;
      rule(y);
      y += 54;
    }
    rule(y);
    on_line(left_edge, y + 54, 36, false,
            in_.picture.marking.jacks.empty()
                ? "If the top reads more than 0.1 mm (4 thou) off, do not scribe: measure the piece again."
                : "If a check reads more than 0.1 mm (4 thou) off, do not scribe: look at the jacks and "
                  "touches again.");
    const QString tip =
        in_.picture.marking.jacks.empty()
            ? "Burrs off, faces clean; hold it against an angle plate so that it does not slide."
            : "A casting on three jacks can tip: lower it on gently, keep fingers clear, steady it before "
              "scribing.";
    const auto& caution = in_.picture.marking.caution;
    on_line(left_edge, y + 106, 36, false, caution.empty() ? tip : qt(caution) + ". " + tip);
  }

  QPainter& p_;
  const SheetInput& in_;
  Unit unit_;
  double y_ = 0;
};

} // namespace

void paint_sheet(QPainter& painter, const SheetInput& input) {
  painter.save();
  SheetPainter(painter, input).paint();
  painter.restore();
}

QString write_sheet_pdf(const QString& path, const SheetInput& input) {
  return write_page_pdf(path, QString("%1, marking out").arg(input.part),
                        [&](QPainter& painter) { paint_sheet(painter, input); });
}

QString write_sheet_svg(const QString& path, const SheetInput& input) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  {
    QSvgGenerator writer;
    writer.setOutputDevice(&buffer);
    writer.setResolution(254);
    writer.setSize({2100, 2970});
    writer.setViewBox(QRect(0, 0, 2100, 2970));
    writer.setTitle(QString("%1, marking out").arg(input.part).toHtmlEscaped()); // it writes what it is given
    QPainter painter(&writer);
    paint_sheet(painter, input);
  }
  return write_bytes(path, bytes);
}

} // namespace datrin::sheets
