#include "app/kit/slip/side.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"

namespace yb {

QPushButton* quiet_button(const QString& name, const QString& text, const QString& tip) {
    auto* b = new QPushButton(text);
    b->setObjectName(name);
    b->setProperty("quiet", true);
    b->setToolTip(tip);
    return b;
}

QLabel* named_label(const QString& name, const QFont& font, bool wraps) {
    auto* l = new QLabel;
    l->setObjectName(name);
    l->setFont(font);
    l->setWordWrap(wraps);
    return l;
}

QWidget* side_slip(const QString& name) {
    auto* side = new QWidget;
    side->setObjectName(name);
    side->setFixedWidth(theme::grown(306));
    side->setAutoFillBackground(true);
    QPalette slip = side->palette();
    slip.setColor(QPalette::Window, theme::colours().slip);
    side->setPalette(slip);
    return side;
}

PageFrame::PageFrame(QWidget* page, const QString& name, const QString& title, QLabel* about)
    : room(new QVBoxLayout), slip(nullptr), leave(new QPushButton(QObject::tr("Back to the bench"))) {
    auto* all = new QHBoxLayout(page);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    room->setContentsMargins(20, 12, 14, 8);
    room->setSpacing(6);
    auto* head = new QHBoxLayout;
    auto* words = new QLabel(title);
    words->setFont(theme::figures(20));
    head->addWidget(words);
    head->addSpacing(14);
    about->setWordWrap(false);
    head->addWidget(about, 1);
    room->addLayout(head);
    all->addLayout(room, 1);
    auto* side = side_slip(name + QStringLiteral("_side"));
    slip = new QVBoxLayout(side);
    slip->setContentsMargins(18, 14, 16, 14);
    slip->setSpacing(7);
    leave->setObjectName(name + QStringLiteral("_back"));
    leave->setProperty("next", true);
    all->addWidget(side);
}

}  // namespace yb
