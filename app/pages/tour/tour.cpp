#include "app/pages/tour/tour.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

Tour::Tour(std::vector<TourStop> stops, QWidget* over)
    : QWidget(over),
      stops_(std::move(stops)),
      note_(new QWidget(this)),
      title_(new QLabel),
      text_(new QLabel),
      which_(new QLabel),
      next_(new QPushButton),
      leave_(new QPushButton(tr("Leave the tour"))) {
    setObjectName("tour");
    setFocusPolicy(Qt::StrongFocus);
    setGeometry(over->rect());
    over->installEventFilter(this);
    note_->setObjectName("tour_note");
    note_->setAttribute(Qt::WA_StyledBackground);
    note_->setStyleSheet(QStringLiteral("#tour_note { background: %1; border: 2px solid %2; }")
                             .arg(theme::colours().slip.name(), theme::colours().brass.name()));
    note_->setFixedWidth(theme::grown(330));
    auto* box = new QVBoxLayout(note_);
    box->setContentsMargins(16, 12, 16, 12);
    title_->setObjectName("tour_title");
    title_->setFont(theme::figures(14));
    text_->setObjectName("tour_text");
    text_->setFont(theme::text(11));
    text_->setWordWrap(true);
    which_->setObjectName("tour_which");
    which_->setFont(theme::text(9.5));
    box->addWidget(title_);
    box->addWidget(text_);
    auto* row = new QHBoxLayout;
    row->addWidget(which_, 1);
    leave_->setObjectName("tour_leave");
    leave_->setProperty("quiet", true);
    next_->setObjectName("tour_next");
    next_->setProperty("next", true);
    row->addWidget(leave_);
    row->addWidget(next_);
    box->addLayout(row);
    connect(next_, &QPushButton::clicked, this, [this] { go_to(stop_ + 1); });
    connect(leave_, &QPushButton::clicked, this, &Tour::leave);
    show();
    raise();
    go_to(0);
}

void Tour::go_to(int stop) {
    if (stop >= static_cast<int>(stops_.size())) return leave();
    stop_ = stop;
    const TourStop& s = stops_[static_cast<std::size_t>(stop)];
    if (s.about) s.about();
    title_->setText(s.title);
    text_->setText(s.text);
    which_->setText(tr("%1 of %2").arg(stop + 1).arg(stops_.size()));
    next_->setText(stop + 1 == static_cast<int>(stops_.size()) ? tr("Done") : tr("Next stop"));
    place();
    raise();
    next_->setFocus();
    update();
}

/// The note stands beside what it is about, inside the window.
void Tour::place() {
    note_->adjustSize();
    const auto& about = stops_.at(static_cast<std::size_t>(stop_)).about;
    QWidget* of = about ? about() : nullptr;
    QRect target = of ? QRect(of->mapTo(parentWidget(), QPoint(0, 0)), of->size()) : rect();
    const QSize size = note_->size();
    QPoint at;
    if (target.left() > size.width() + 30) at = {target.left() - size.width() - 16, target.center().y() - size.height() / 2};
    else if (width() - target.right() > size.width() + 30) at = {target.right() + 16, target.center().y() - size.height() / 2};
    else if (target.top() > size.height() + 30) at = {target.center().x() - size.width() / 2, target.top() - size.height() - 16};
    else if (height() - target.bottom() > size.height() + 30) at = {target.center().x() - size.width() / 2, target.bottom() + 16};
    else at = target.center() - QPoint(size.width() / 2, size.height() / 2);
    note_->move(std::clamp(at.x(), 8, std::max(8, width() - size.width() - 8)),
                std::clamp(at.y(), 8, std::max(8, height() - size.height() - 8)));
}

void Tour::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    QPainterPath dim;
    dim.addRect(rect());
    const auto& about = stops_.at(static_cast<std::size_t>(stop_)).about;
    if (QWidget* of = about ? about() : nullptr) {
        const QRectF clear = QRectF(QRect(of->mapTo(parentWidget(), QPoint(0, 0)), of->size())).adjusted(-3, -3, 3, 3);
        QPainterPath hole;
        hole.addRoundedRect(clear, 3, 3);
        dim = dim.subtracted(hole);
        p.setPen(QPen(theme::colours().brass, 2));
        p.drawRoundedRect(clear, 3, 3);
    }
    QColor veil = theme::colours().ink;
    veil.setAlpha(60);
    p.fillPath(dim, veil);
}

void Tour::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape) return leave();
    QWidget::keyPressEvent(e);
}

bool Tour::eventFilter(QObject*, QEvent* e) {
    if (e->type() == QEvent::Resize) {
        setGeometry(parentWidget()->rect());
        place();
    }
    return false;
}

void Tour::leave() {
    hide();
    deleteLater();
    Q_EMIT left();
}

}  // namespace yb
