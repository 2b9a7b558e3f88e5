#include "sheets/page_file.h"

#include "sheets/fonts.h"

#include "sheets/shown.h"
#include "store/text_file.h"

#include <QBuffer>
#include <QHashFunctions>
#include <QPageSize>
#include <QPdfWriter>

namespace datrin::sheets {

QString write_bytes(const QString& path, const QByteArray& bytes) {
  return shown(store::write_text_file(
      path.toStdString(), std::string_view(bytes.data(), static_cast<std::size_t>(bytes.size()))));
}

namespace {

/// Fonts are written in the order of a hash table: one and the same for the same page.
class SameOrder {
public:
  SameOrder() { QHashSeed::setDeterministicGlobalSeed(); }
  ~SameOrder() { QHashSeed::resetRandomGlobalSeed(); }
  SameOrder(const SameOrder&) = delete;
  SameOrder& operator=(const SameOrder&) = delete;
};

/// When it was made goes out of the file, so that the same page gives the same bytes; blanks may stand
/// anywhere between the entries of a dictionary (ISO 32000-1, 7.2.2), and every place in the file stays where
/// it is.
void take_out_date(QByteArray& pdf) {
  const auto from = pdf.indexOf("/CreationDate (");
  const auto to = from < 0 ? -1 : pdf.indexOf(')', from);
  if (to > from) pdf.replace(from, to + 1 - from, QByteArray(to + 1 - from, ' '));
}

} // namespace

void page_words(QPainter& p, double x, double y, double size, bool bold, const QString& text, bool right,
                double room) {
  p.setFont(font(size, bold));
  const QFontMetricsF metrics(p.font());
  const auto shown = metrics.elidedText(text, Qt::ElideRight, room);
  p.drawText(QPointF(right ? x - metrics.horizontalAdvance(shown) : x, y), shown);
}

void page_rule(QPainter& p, double y) {
  p.setPen(QPen(Qt::black, 3));
  p.drawLine(QPointF(page_left, y), QPointF(page_right, y));
}

QString write_page_pdf(const QString& path, const QString& title,
                       const std::function<void(QPainter&)>& paint) {
  return write_pages_pdf(path, title, 1, [&](QPainter& painter, std::size_t) { paint(painter); });
}

QString write_pages_pdf(const QString& path, const QString& title, std::size_t pages,
                        const std::function<void(QPainter&, std::size_t)>& paint) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  {
    const SameOrder order;
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(254); // a tenth of a millimetre a dot
    writer.setTitle(title);
    writer.setCreator("Datrin");
    QPainter painter(&writer);
    for (std::size_t page = 0; page < pages; ++page) {
      if (page > 0) writer.newPage();
      paint(painter, page);
    }
  }
  take_out_date(bytes);
  return write_bytes(path, bytes);
}

} // namespace datrin::sheets
