#include "app/ground/slow/long_work.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>

#include "app/ground/theme/theme.h"

namespace yb {

LongWork::LongWork(QWidget* parent) : QWidget(parent), what_(new QLabel), bar_(new QProgressBar) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    what_->setObjectName("work_what");
    what_->setFont(theme::text(9.5));
    bar_->setRange(0, 1000);
    bar_->setTextVisible(false);
    bar_->setFixedSize(theme::grown(120), 8);
    bar_->setAccessibleName(tr("How far the work is"));
    auto* stop_button = new QPushButton(tr("stop"));
    stop_button->setObjectName("work_stop");
    stop_button->setProperty("plain", true);
    connect(stop_button, &QPushButton::clicked, this, &LongWork::stop);
    row->addWidget(what_);
    row->addWidget(bar_);
    row->addWidget(stop_button);
    connect(&tick_, &QTimer::timeout, this, [this] { bar_->setValue(running_ ? static_cast<int>(running_->share * 1000) : 0); });
    tick_.setInterval(60);
    hide();
}

void LongWork::begin(const QString& what) {
    if (running_) running_->stop.request_stop();
    what_->setText(what);
    busy_ = true;
    tick_.start();
    show();
}

void LongWork::stop() {
    if (running_) running_->stop.request_stop();
    rest();
}

void LongWork::rest() {
    busy_ = false;
    tick_.stop();
    hide();
}

void LongWork::wait() {
    while (busy_) QApplication::processEvents(QEventLoop::AllEvents, 20);
}

}  // namespace yb
