#include "app/ground/probe.h"

#include <QInputDialog>
#include <QMenu>
#include <QSerialPortInfo>

namespace yb {

Probe::Probe(QObject* parent) : QObject(parent) {
    connect(&port_, &QSerialPort::readyRead, this, &Probe::take);
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
    port_.setPortName(line);
    port_.setBaudRate(QSerialPort::Baud9600);
    if (!port_.open(QIODevice::ReadOnly))
        return tr("The line %1 can't be opened: %2. Is the gauge plugged in, and may you read its line?").arg(line, port_.errorString());
    return {};
}

void Probe::let_go() {
    if (port_.isOpen()) port_.close();
    reader_ = {};
    name_.clear();
}

void Probe::take() {
    for (const ProbeMessage& m : reader_.take(port_.readAll().toStdString())) {
        const QString words = QString::fromStdString(m.words);
        switch (m.kind) {
            case ProbeMessage::Kind::hello:
                name_ = words;
                Q_EMIT said(tr("%1 is listening in: press its button at each place.").arg(words), false);
                break;
            case ProbeMessage::Kind::reading: Q_EMIT reading(m.value); break;
            case ProbeMessage::Kind::temperature: Q_EMIT temperature(m.value); break;
            case ProbeMessage::Kind::zeroed: Q_EMIT said(tr("The gauge was zeroed."), false); break;
            case ProbeMessage::Kind::trouble: Q_EMIT said(tr("The gauge says: %1.").arg(words), true); break;
            case ProbeMessage::Kind::not_understood: Q_EMIT said(words, true); break;
        }
    }
}

}  // namespace yb
