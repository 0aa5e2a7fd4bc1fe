#include "app/pages/start/start_card.h"

#include <algorithm>

#include <QCryptographicHash>
#include <QDateTime>
#include <QFileInfo>
#include <QKeyEvent>
#include <QLocale>
#include <QPainter>
#include <QPainterPath>
#include <QSettings>
#include <QVBoxLayout>

#include "app/ground/slow/runner.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/wood_face.h"
#include "core/files/store/store.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"

namespace yb {

namespace {

void frame(QPainter& p, const QRectF& box, const QColor& line, double wide) {
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(line, wide));
    p.setBrush(theme::colours().slip);
    p.drawRoundedRect(box.adjusted(1, 1, -1, -1), 4, 4);
}

/// Of a shop, read beside: how much is in it, and the face of a slab.
struct Holds {
    std::size_t slabs = 0, jobs = 0;
    std::string name;
    QImage face;
};

Holds holds_of(const QString& path, QSize px) {
    const Documents d = Store::open(path.toStdString()).documents();
    Holds out;
    out.name = d.shop.name;
    out.jobs = d.jobs.size();
    const Slab* first = nullptr;
    for (const auto& [id, slab] : d.slabs) {
        if (slab.retired) continue;
        ++out.slabs;
        if (!first || (!first->cross_cut && first->tape.stations.size() < slab.tape.stations.size())) first = &slab;
    }
    if (!first) return out;
    const SlabShape shape = shape_of(*first);
    if (shape.ring_a.size() < 3) return out;
    out.face = draw_face(*first, shape, map_of(bounds(shape.ring_a), QRectF(QPointF(0, 0), px), 8));
    return out;
}

/// Enter presses it as Space does; what a field in it did not take is not for it.
bool entered(QAbstractButton& b, const QKeyEvent* e) {
    if (!b.hasFocus() || (e->key() != Qt::Key_Return && e->key() != Qt::Key_Enter) || e->modifiers() != Qt::NoModifier) return false;
    b.click();
    return true;
}

}  // namespace

BenchMap map_of(const Box& all, const QRectF& picture, double margin_px) {
    BenchMap map;
    map.plan = picture;
    map.scale =
        std::min((picture.width() - margin_px) / std::max(1.0, all.width()), (picture.height() - margin_px) / std::max(1.0, all.height()));
    map.x0_mm = (all.low.x + all.high.x) / 2 - picture.width() / 2 / map.scale;
    map.y_mid_mm = (all.low.y + all.high.y) / 2;
    return map;
}

QString last_open_key(const QString& path) {
    return "open/" + QString::fromLatin1(QCryptographicHash::hash(path.toUtf8(), QCryptographicHash::Sha1).toHex());
}

void StartCard::keyPressEvent(QKeyEvent* e) {
    if (!entered(*this, e)) QAbstractButton::keyPressEvent(e);
}

void RecentCard::keyPressEvent(QKeyEvent* e) {
    if (!entered(*this, e)) QAbstractButton::keyPressEvent(e);
}

StartCard::StartCard(const QString& name, const QString& title, const QString& text, Draw picture, int picture_high, QWidget* parent)
    : QAbstractButton(parent), line_(text), picture_(std::move(picture)), high_(picture_high) {
    setObjectName(name);
    setText(title);
    setAccessibleName(title);
    setAccessibleDescription(text);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setMinimumHeight(picture_high + theme::grown(130));
    setMinimumWidth(260);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    below_ = new QVBoxLayout(this);
    below_->setContentsMargins(18, picture_high + theme::grown(66), 18, 14);
}

void StartCard::paintEvent(QPaintEvent*) {
    const auto& c = theme::colours();
    QPainter p(this);
    const bool marked = next_ || hasFocus() || underMouse();
    frame(p, rect(), marked ? c.brass : c.rule, hasFocus() || next_ ? 2.4 : 1.2);
    const QRectF box(3, 3, width() - 6, high_);
    p.save();
    p.setClipRect(box);
    p.fillRect(box, c.bench);
    if (picture_) picture_(p, box);
    p.restore();
    const double x = 18;
    p.setPen(c.ink);
    p.setFont(theme::figures(15));
    p.drawText(QRectF(x, high_ + 12, width() - 2 * x, theme::grown(26)), Qt::AlignVCenter | Qt::AlignLeft, text());
    p.setPen(c.pencil);
    p.setFont(theme::text(10.5));
    p.drawText(QRectF(x, high_ + 14 + theme::grown(26), width() - 2 * x, theme::grown(36)), Qt::TextWordWrap | Qt::AlignTop, line_);
}

RecentCard::RecentCard(const QString& name, const QString& path, QWidget* parent) : QAbstractButton(parent), path_(path) {
    setObjectName(name);
    setText(QFileInfo(path).completeBaseName());
    setAccessibleName(text());
    setToolTip(path);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setFixedHeight(theme::grown(88));
    setMinimumWidth(260);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    gone_ = !QFile::exists(path);
    if (gone_) holds_ = tr("its file is not where it was");
    else {
        const QDate open = QSettings().value(last_open_key(path)).toDate();
        when_ = open.isValid()
                    ? tr("last open %1").arg(QLocale().toString(open, QStringLiteral("d MMMM yyyy")))
                    : tr("last changed %1").arg(QLocale().toString(QFileInfo(path).lastModified().date(), QStringLiteral("d MMMM yyyy")));
    }
    setAccessibleDescription(holds_);
    if (!gone_) read();
}

void RecentCard::read() {
    run_beside(
        this,
        [this, path = path_](const Work&) -> std::function<void()> {
            return [this, held = holds_of(path, QSize(112, 68))] {
                if (!held.name.empty()) setText(QString::fromStdString(held.name));
                holds_ =
                    tr("%n slab(s)", nullptr, static_cast<int>(held.slabs)) + " · " + tr("%n job(s)", nullptr, static_cast<int>(held.jobs));
                setAccessibleDescription(holds_);
                picture_ = held.face;
                update();
            };
        },
        [this](const QString& why) {
            holds_ = tr("it can't be opened");
            setToolTip(why);
            setAccessibleDescription(why);
            update();
        });
}

void RecentCard::paintEvent(QPaintEvent*) {
    const auto& c = theme::colours();
    QPainter p(this);
    frame(p, rect(), hasFocus() || underMouse() ? c.brass : c.rule, hasFocus() ? 2.4 : 1.2);
    const QRectF box(10, (height() - 68) / 2.0, 112, 68);
    p.fillRect(box, c.bench);
    if (!picture_.isNull()) p.drawImage(box.topLeft(), picture_);
    if (gone_) {
        p.setPen(QPen(c.faint, 1, Qt::DashLine));
        p.setBrush(Qt::NoBrush);
        p.drawRect(box);
    }
    const double x = 134;
    const auto line = [&](const QString& text, double y, const QFont& font, const QColor& ink) {
        p.setFont(font);
        p.setPen(ink);
        const QRectF at(x, y, width() - x - 10, theme::grown(22));
        p.drawText(at, Qt::AlignVCenter | Qt::AlignLeft, p.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(at.width())));
    };
    line(text(), theme::grown(10), theme::figures(12), c.ink);
    line(holds_, theme::grown(32), theme::text(10), gone_ ? c.madder : c.pencil);
    line(gone_ ? tr("look for it…") : when_, theme::grown(54), theme::text(10), gone_ ? c.madder : c.pencil);
}

}  // namespace yb
