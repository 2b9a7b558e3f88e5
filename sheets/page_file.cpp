#include "sheets/page_file.h"

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

QString write_page_pdf(const QString& path, const QString& title,
                       const std::function<void(QPainter&)>& paint) {
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
    paint(painter);
  }
  take_out_date(bytes);
  return write_bytes(path, bytes);
}

} // namespace datrin::sheets
