#include "app/ground/probe.h"

#include <cerrno>
#include <cstring>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <QInputDialog>
#include <QMenu>
#include <QSerialPortInfo>

namespace yb {

Probe::Probe(QObject* parent) : QObject(parent) {
    connect(&port_, &QSerialPort::readyRead, this, [this] { take(); });
    tail_.setInterval(50);
    connect(&tail_, &QTimer::timeout, this, [this] {
        char bytes[4096];
        const ssize_t n = ::read(file_.handle(), bytes, sizeof bytes);
        if (n > 0) take(QByteArray(bytes, static_cast<qsizetype>(n)));
    });
    connect(&port_, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError e) {
        if (e != QSerialPort::ResourceError && e != QSerialPort::ReadError) return;
        let_go();
        Q_EMIT said(tr("The gauge is gone: its line was pulled or it was switched off. What was read is kept."), true);
    });
}

void Probe::choose_line(QWidget* below, const QString& title, const std::function<void(const QString&)>& listen_to) {
    QMenu menu;
    for (const QString& line : lines()) menu.addAction(line, below, [&, line] { listen_to(line); });
    if (!menu.isEmpty()) menu.addSeparator();
    menu.addAction(tr("Another line…"), below, [&] {
        bool ok = false;
        const QString line = QInputDialog::getText(below->window(), title, tr("Its line, as /dev/ttyUSB0; the stand-in prints its own"),
                                                   QLineEdit::Normal, {}, &ok);
        if (ok && !line.trimmed().isEmpty()) listen_to(line.trimmed());
    });
    menu.exec(below->mapToGlobal(QPoint(0, below->height())));
}

QStringList Probe::lines() {
    QStringList out;
    for (const QSerialPortInfo& p : QSerialPortInfo::availablePorts()) out << p.systemLocation();
    return out;
}

QString Probe::listen(const QString& line) {
    let_go();
    struct stat is{};
    if (::stat(QFile::encodeName(line).constData(), &is) == 0 && (S_ISREG(is.st_mode) || S_ISFIFO(is.st_mode))) {
        // A pipe is opened without waiting for whoever writes to it.
        const int fd = ::open(QFile::encodeName(line).constData(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
        path_ = line;
        if (fd < 0 || !file_.open(fd, QIODevice::ReadOnly | QIODevice::Unbuffered, QFileDevice::AutoCloseHandle)) return tr("%1 can't be read: %2.").arg(line, QString::fromLocal8Bit(std::strerror(errno)));
        tail_.start();
        return {};
    }
    port_.setPortName(line);
    port_.setBaudRate(QSerialPort::Baud9600);
    if (!port_.open(QIODevice::ReadOnly))
        return tr("The line %1 can't be opened: %2. Is the gauge plugged in, and may you read its line?").arg(line, port_.errorString());
    return {};
}

void Probe::let_go() {
    if (port_.isOpen()) port_.close();
    tail_.stop();
    if (file_.isOpen()) file_.close();
    reader_ = {};
    name_.clear();
}

void Probe::take() { take(port_.readAll()); }

void Probe::take(const QByteArray& bytes) {
    for (const ProbeMessage& m : reader_.take(bytes.toStdString())) {
        const QString words = QString::fromStdString(m.words);
        switch (m.kind) {
            case ProbeMessage::Kind::hello:
                name_ = words;
                Q_EMIT said(tr("%1 is listening in: press its button at each place.").arg(words), false);
                break;
            case ProbeMessage::Kind::reading: Q_EMIT reading(m.value); break;
            case ProbeMessage::Kind::temperature: Q_EMIT temperature(m.value); break;
            case ProbeMessage::Kind::moisture: Q_EMIT moisture(m.value); break;
            case ProbeMessage::Kind::humidity: Q_EMIT humidity(m.value); break;
            case ProbeMessage::Kind::mass: Q_EMIT mass(m.value); break;
            case ProbeMessage::Kind::zeroed: Q_EMIT said(tr("The gauge was zeroed."), false); break;
            case ProbeMessage::Kind::trouble: Q_EMIT said(tr("The gauge says: %1.").arg(words), true); break;
            case ProbeMessage::Kind::not_understood: Q_EMIT said(words, true); break;
        }
    }
}

}  // namespace yb
