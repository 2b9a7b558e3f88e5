// A simulated read-out of three scales: says on which port it is, sends a line ten times a second to whoever
// listens, and is turned by lines sent to it.

#include "sim/read_out_axes.h"

#include <QCoreApplication>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTimer>

#include <cstdio>

int main(int argc, char** argv) {
  const QCoreApplication program(argc, argv);
  const auto port = QCoreApplication::arguments().value(1).toUShort();
  datrin::sim::ReadOutAxes axes;
  QTcpServer server;
  if (!server.listen(QHostAddress::LocalHost, port)) {
    std::fprintf(stderr, "no port to listen on: %s\n", qPrintable(server.errorString()));
    return 1;
  }
  std::printf("%d\n", server.serverPort());
  std::fflush(stdout);
  QList<QTcpSocket*> listeners;
  const auto send = [&] {
    for (auto* to : listeners) to->write(axes.line().c_str());
  };
  QObject::connect(&server, &QTcpServer::newConnection, &server, [&] {
    auto* to = server.nextPendingConnection();
    listeners << to;
    QObject::connect(to, &QTcpSocket::disconnected, &server, [&listeners, to] {
      listeners.removeAll(to);
      to->deleteLater();
    });
    QObject::connect(to, &QTcpSocket::readyRead, &server, [&axes, &send, to] {
      while (to->canReadLine()) axes.take(to->readLine().trimmed().toStdString());
      send();
    });
  });
  QTimer timer;
  QObject::connect(&timer, &QTimer::timeout, &server, send);
  timer.start(100);
  return QCoreApplication::exec();
}
