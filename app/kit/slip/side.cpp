#include "app/kit/slip/side.h"

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

}  // namespace yb
