#pragma once
// A read-out or instrument that reads by itself: on a serial port, over the network, or the simulated one
// that comes with the program and is turned by keys.

#include "readings/read_out_line.h"

#include <QIODevice>
#include <QObject>
#include <QProcess>
#include <QTimer>

#include <map>
#include <optional>

namespace datrin::app {

class ReadOut : public QObject {
  Q_OBJECT

public:
  explicit ReadOut(QObject* parent = nullptr);
  ~ReadOut() override;

  /// "simulated", "localhost:7117", "/dev/ttyUSB0"; empty: none. The same again leaves it as it is. One that
  /// is not there yet, or goes away, is looked for again every two seconds.
  void listen(const QString& where, Unit bare);
  QString where() const { return where_; }
  bool reads() const { return !places_.empty(); }
  bool is_simulated() const { return where_ == simulated; }
  QString trouble() const { return trouble_; } ///< why it does not read; empty: it does, or may yet

  /// What it shows of an axis now, mm; of "": a bare number it sent. Nothing while it is silent or sends what
  /// is not understood.
  std::optional<double> at(const QString& axis) const;
  /// What it showed last, also when that is old.
  std::optional<double> last(const QString& axis) const;
  bool is_old() const { return old_; }    ///< it has sent nothing for `silence`
  qint64 taken() const { return taken_; } ///< bytes it sent and were looked at
  void set_silence(int ms) { silence_.setInterval(ms); }

  /// Turns a wheel of the simulated one.
  void turn(char axis, double mm);

  static constexpr auto simulated = "simulated";

signals:
  void moved();

private:
  void open();
  void close();
  void start_simulated();
  void connect_to(const QString& host, quint16 port);
  void take_lines();
  void say(const QString& trouble, bool try_again);

  QString where_, trouble_;
  Unit bare_ = Unit::mm;
  QIODevice* device_ = nullptr;
  QProcess* stand_in_ = nullptr;
  QTimer retry_, silence_;
  bool old_ = false;
  qint64 taken_ = 0;
  QByteArray half_; ///< of a line still to come
  std::map<char, double> places_;
};

} // namespace datrin::app
