// The sheet on the screen, page by page.
#include <QKeyEvent>
#include <QWheelEvent>

#include <algorithm>

#include "app/ground/theme/theme.h"
#include "app/steps/sheets/sheet.h"

namespace yb {

SheetView::SheetView(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName("sheet_view");
    setAccessibleName(tr("The bench sheet"));
    setFocusPolicy(Qt::StrongFocus);
    connect(&session, &Session::changed, this, [this] {
        look_.reset();
        update();
    });
}

void SheetView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), theme::colours().bench);
    if (!session_.plan() || !session_.job()) {
        p.setFont(theme::figures(15, true));
        p.setPen(theme::colours().pencil);
        p.drawText(rect(), Qt::AlignCenter, tr("No job is on the bench yet."));
        return;
    }
    const QSizeF size = sheet_size_mm(session_.shop());
    const double k = std::min((width() - 40) / size.width(), (height() - 30) / size.height());
    p.translate((width() - size.width() * k) / 2, (height() - size.height() * k) / 2);
    p.scale(k, k);
    p.fillRect(QRectF(QPointF(0.8, 0.8), size), theme::colours().page_shadow);
    p.fillRect(QRectF(QPointF(0, 0), size), Qt::white);
    // Every page is drawn, the one that is looked at is seen.
    int n = 0;
    const auto begin = [&] { p.setClipRect(n == page_ ? QRectF(QPointF(0, 0), size) : QRectF()); };
    begin();
    if (!look_) look_ = look_of(*session_.job(), *session_.plan(), session_.shop());
    draw_sheet(p, size, *session_.job(), *session_.plan(), session_.shop(), *look_, [&] {
        ++n;
        begin();
    });
    pages_ = n + 1;
    if (page_ >= pages_) {
        page_ = pages_ - 1;
        update();
    }
    p.setClipping(false);
    p.resetTransform();
    if (pages_ < 2) return;
    p.setFont(theme::text(10));
    p.setPen(theme::colours().pencil);
    p.drawText(QRectF(16, 12, (width() - size.width() * k) / 2 - 24, height() - 20), Qt::TextWordWrap,
               tr("page %1 of %2").arg(page_ + 1).arg(pages_) + "\n" + tr("click, PgDn and PgUp turn"));
}

void SheetView::turn_to(int page) {
    page_ = std::clamp(page, 0, pages_ - 1);
    update();
}

void SheetView::mousePressEvent(QMouseEvent*) { turn_to((page_ + 1) % pages_); }

void SheetView::wheelEvent(QWheelEvent* e) { turn_to(page_ + (e->angleDelta().y() < 0 ? 1 : -1)); }

void SheetView::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_PageDown) turn_to(page_ + 1);
    else if (e->key() == Qt::Key_PageUp) turn_to(page_ - 1);
    else QWidget::keyPressEvent(e);
}

}  // namespace yb
