// A dial gauge or depth probe on a serial line: each press of its button is a reading.
#pragma once

#include <functional>

#include <QFile>
#include <QObject>
#include <QSerialPort>
#include <QTimer>
#include <QWidget>

#include "devices/probe.h"

namespace yb {

class Probe : public QObject {
    Q_OBJECT
  public:
    explicit Probe(QObject* parent = nullptr);
    /// Listens on a line such as /dev/ttyUSB0, or reads the same lines from a file as it grows, or from a pipe. Returns what is wrong, or
    /// nothing.
    QString listen(const QString& line);
    void let_go();
    bool listening() const { return port_.isOpen() || file_.isOpen(); }
    /// What it called itself, or its line.
    QString name() const { return !name_.isEmpty() ? name_ : file_.isOpen() ? path_ : port_.portName(); }
    /// Lines that the machine has.
    static QStringList lines();
    /// Offers them below a button, and any other by its name; what is chosen is listened to.
    static void choose_line(QWidget* below, const QString& title, const std::function<void(const QString&)>& listen_to);

  Q_SIGNALS:
    void reading(double mm);
    void temperature(double c);
    void moisture(double pct);
    void humidity(double pct);
    void mass(double g);
    void said(const QString& sentence, bool trouble);

  private:
    void take();
    void take(const QByteArray& bytes);
    /// Of a file or pipe of which nothing more comes: whether it is still the one that was opened, and somebody writes to it. Each is said
    /// once.
    void look_at_file();

    QSerialPort port_;
    QFile file_;  ///< … or a file or pipe of the same lines
    QTimer tail_;
    QString path_;
    bool came_ = false;  ///< something, since it was opened or its writer went
    bool gone_ = false;  ///< said of a file that is no longer there
    ProbeReader reader_;
    QString name_;
};

}  // namespace yb
