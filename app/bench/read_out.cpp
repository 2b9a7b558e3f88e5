#include "app/bench/read_out.h"

#include "sheets/shown.h"

#include <QCoreApplication>
#include <QSerialPort>
#include <QTcpSocket>

namespace datrin::app {

namespace {

constexpr int longest_line = 400;
constexpr int looked_for_again = 2000; // ms
constexpr int silent_after = 1500;     // ms: a read-out sends some ten lines a second

} // namespace

ReadOut::ReadOut(QObject* parent) : QObject(parent) {
  retry_.setSingleShot(true);
  retry_.setInterval(looked_for_again);
  connect(&retry_, &QTimer::timeout, this, [this] { open(); });
  silence_.setSingleShot(true);
  silence_.setInterval(silent_after);
  connect(&silence_, &QTimer::timeout, this, [this] {
    old_ = true;
    emit moved();
  });
}

ReadOut::~ReadOut() {
  close();
}

void ReadOut::close() {
  if (device_ != nullptr) {
    device_->disconnect(this);
    device_->close();
    device_->deleteLater();
    device_ = nullptr;
  }
  if (stand_in_ != nullptr) {
    stand_in_->disconnect(this);
    stand_in_->kill();
    stand_in_->waitForFinished(500);
    stand_in_->deleteLater();
    stand_in_ = nullptr;
  }
  retry_.stop();
  silence_.stop();
  old_ = false;
  half_.clear();
  places_.clear();
}

void ReadOut::listen(const QString& where, Unit bare) {
  bare_ = bare;
  if (where.trimmed() == where_) return;
  close();
  where_ = where.trimmed();
  trouble_.clear();
  if (!where_.isEmpty()) open();
}

void ReadOut::open() {
  close();
  if (is_simulated()) return start_simulated();
  if (where_.startsWith('/')) {
    auto* port = new QSerialPort(where_, this);
    port->setBaudRate(QSerialPort::Baud9600);
    device_ = port;
    connect(port, &QIODevice::readyRead, this, &ReadOut::take_lines);
    connect(port, &QSerialPort::errorOccurred, this, [this, port](QSerialPort::SerialPortError error) {
      if (error != QSerialPort::NoError) say(QString("%1: %2").arg(where_, port->errorString()), true);
    });
    port->open(QIODevice::ReadOnly);
    return;
  }
  const int colon = static_cast<int>(where_.lastIndexOf(':'));
  const auto port = colon > 0 ? where_.mid(colon + 1).toUShort() : quint16(0);
  if (port == 0)
    return say(QString("\"%1\" is no read-out: write \"localhost:7117\", \"/dev/ttyUSB0\" or \"simulated\"")
                   .arg(where_),
               false);
  connect_to(where_.left(colon), port);
}

void ReadOut::connect_to(const QString& host, quint16 port) {
  auto* socket = new QTcpSocket(this);
  device_ = socket;
  connect(socket, &QIODevice::readyRead, this, &ReadOut::take_lines);
  connect(socket, &QAbstractSocket::errorOccurred, this,
          [this, socket] { say(QString("%1: %2").arg(where_, socket->errorString()), true); });
  socket->connectToHost(host, port);
}

/// The stand-in says on which port it is.
void ReadOut::start_simulated() {
  stand_in_ = new QProcess(this);
  connect(stand_in_, &QProcess::readyReadStandardOutput, this, [this] {
    const auto port = stand_in_->readAllStandardOutput().trimmed().toUShort();
    if (port != 0 && device_ == nullptr) connect_to("127.0.0.1", port);
  });
  connect(stand_in_, &QProcess::errorOccurred, this,
          [this] { say("The simulated read-out: " + stand_in_->errorString(), false); });
  stand_in_->start(QCoreApplication::applicationDirPath() + "/datrin-readout", QStringList());
}

void ReadOut::say(const QString& trouble, bool try_again) {
  trouble_ = trouble;
  places_.clear();
  if (try_again) retry_.start();
  emit moved();
}

/// Whole lines only: the last may still be on its way. Of what has piled up the newest counts.
void ReadOut::take_lines() {
  const auto came = device_->readAll();
  half_ += came;
  taken_ += came.size();
  bool any = false;
  QByteArray strange;
  for (qsizetype end = half_.indexOf('\n'); end >= 0; end = half_.indexOf('\n')) {
    const auto line = half_.left(end);
    half_.remove(0, end + 1);
    const auto read =
        readings::read_out_line({line.constData(), static_cast<std::size_t>(line.size())}, bare_);
    if (!read.understood) {
      strange = line.trimmed();
      continue;
    }
    strange.clear();
    for (const auto& place : read.places) places_[place.axis] = place.mm;
    any = true;
  }
  if (half_.size() > longest_line) half_.clear(); // no read-out: something that never ends a line
  if (any) {
    old_ = false;
    silence_.start();
  }
  if (any || !strange.isEmpty()) {
    trouble_ = strange.isEmpty()
                   ? QString()
                   : filled("It sends \"%1\", which is not understood: one line a reading, such as "
                            "\"X +12.345\", with a point for the decimals and no other mark.",
                            shown(strange.toStdString(), 40));
    emit moved();
  }
}

std::optional<double> ReadOut::at(const QString& axis) const {
  return old_ || !trouble_.isEmpty() ? std::nullopt : last(axis);
}

std::optional<double> ReadOut::last(const QString& axis) const {
  const auto found = places_.find(axis.isEmpty() ? '\0' : axis[0].toLatin1());
  return found == places_.end() ? std::nullopt : std::optional(found->second);
}

void ReadOut::turn(char axis, double mm) {
  if (is_simulated() && device_ != nullptr)
    device_->write(filled("turn %1 %2\n", QString(QChar(axis)), QString::number(mm, 'f', 4)).toLatin1());
}

} // namespace datrin::app
