#include "app/bench/chime.h"

#include <QApplication>
#include <QDataStream>
#include <QProcess>
#include <QStandardPaths>
#include <QTemporaryFile>

#include <cmath>
#include <memory>
#include <numbers>

namespace datrin::app {

namespace {

/// A sound file (RIFF, 16 bit, one channel): 0.18 s of 880 Hz that dies away.
QByteArray tone() {
  constexpr quint32 rate = 22050, samples = rate * 18 / 100;
  QByteArray bytes;
  QDataStream out(&bytes, QIODevice::WriteOnly);
  out.setByteOrder(QDataStream::LittleEndian);
  out.writeRawData("RIFF", 4);
  out << quint32(36 + 2 * samples);
  out.writeRawData("WAVEfmt ", 8);
  out << quint32(16) << quint16(1) << quint16(1) << rate << quint32(2 * rate) << quint16(2) << quint16(16);
  out.writeRawData("data", 4);
  out << quint32(2 * samples);
  for (quint32 k = 0; k < samples; ++k) {
    const double t = double(k) / rate;
    out << qint16(12000 * std::sin(2 * std::numbers::pi * 880 * t) * std::exp(-t / 0.06));
  }
  return bytes;
}

QString player() {
  for (const auto* name : {"pw-play", "paplay", "aplay"})
    if (const auto path = QStandardPaths::findExecutable(name); !path.isEmpty()) return path;
  return {};
}

} // namespace

void chime() {
  static const QString with = player();
  static std::unique_ptr<QTemporaryFile> file;
  if (with.isEmpty()) return QApplication::beep();
  if (!file) {
    file = std::make_unique<QTemporaryFile>();
    if (!file->open() || file->write(tone()) <= 0 || !file->flush()) {
      file.reset();
      return QApplication::beep();
    }
  }
  if (!QProcess::startDetached(with, {file->fileName()})) QApplication::beep();
}

} // namespace datrin::app
