#include "app/ground/probe.h"

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
        if (n > 0) came_ = true, take(QByteArray(bytes, static_cast<qsizetype>(n)));
        else look_at_file();
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
    struct stat is {};
    if (::stat(QFile::encodeName(line).constData(), &is) == 0 && (S_ISREG(is.st_mode) || S_ISFIFO(is.st_mode))) {
        // A pipe is opened without waiting for whoever writes to it.
        const int fd = ::open(QFile::encodeName(line).constData(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
        path_ = line;
        if (fd < 0 || !file_.open(fd, QIODevice::ReadOnly | QIODevice::Unbuffered, QFileDevice::AutoCloseHandle))
            return tr("%1 can't be read: look whether you may, and choose it again.").arg(line);
        tail_.start();
        return {};
    }
    port_.setPortName(line);
    port_.setBaudRate(QSerialPort::Baud9600);
    if (!port_.open(QIODevice::ReadOnly))
        return tr("The line %1 can't be opened. Is the gauge plugged in, and may you read its line?").arg(line);
    return {};
}

void Probe::look_at_file() {
    struct stat open {
    }, there{};
    if (::fstat(file_.handle(), &open) != 0) return;
    if (S_ISFIFO(open.st_mode)) {
        // A read of nothing at all, not even of waiting: nobody has it open for writing.
        char byte = 0;
        if (came_ && ::read(file_.handle(), &byte, 1) == 0) {
            came_ = false, reader_ = {};
            Q_EMIT said(tr("Whoever wrote to %1 is gone. What was read is kept; what is written to it later is taken.").arg(path_), true);
        }
        return;
    }
    const bool is_there = ::stat(QFile::encodeName(path_).constData(), &there) == 0;
    if (!is_there || there.st_ino != open.st_ino || there.st_dev != open.st_dev) {
        if (is_there) {
            // Written anew under its name, as a log that is turned over: on with the new one.
            const int fd = ::open(QFile::encodeName(path_).constData(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
            file_.close();
            if (fd >= 0 && file_.open(fd, QIODevice::ReadOnly | QIODevice::Unbuffered, QFileDevice::AutoCloseHandle)) {
                reader_ = {}, gone_ = false;
                Q_EMIT said(tr("Another file stands as %1: it is read from its beginning. What was read is kept.").arg(path_), true);
                return;
            }
            let_go();
        }
        if (!gone_) Q_EMIT said(tr("The file %1 was removed. What was read is kept; connect again once it is there.").arg(path_), true);
        gone_ = true;
        return;
    }
    gone_ = false;
    if (open.st_size >= ::lseek(file_.handle(), 0, SEEK_CUR)) return;
    ::lseek(file_.handle(), 0, SEEK_SET);
    reader_ = {};
    Q_EMIT said(tr("The file %1 was cut or written anew: it is read from its beginning. What was read is kept.").arg(path_), true);
}

void Probe::let_go() {
    if (port_.isOpen()) port_.close();
    tail_.stop();
    if (file_.isOpen()) file_.close();
    came_ = gone_ = false;
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
