#include "sheets/page_file.h"

#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>
#include <QSaveFile>

namespace datrin::sheets {

QString write_bytes(const QString& path, const QByteArray& bytes) {
  QSaveFile file(path);
  if (!file.open(QIODevice::WriteOnly) || file.write(bytes) != bytes.size() || !file.commit())
    return QString("%1 could not be written: %2").arg(path, file.errorString());
  return {};
}

QString write_page_pdf(const QString& path, const QString& title,
                       const std::function<void(QPainter&)>& paint) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(254); // a tenth of a millimetre a dot
    writer.setTitle(title);
    writer.setCreator("Datrin");
    QPainter painter(&writer);
    paint(painter);
  }
  return write_bytes(path, bytes);
}

} // namespace datrin::sheets
