#include "app/rack/rack_row.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

#include "app/bench/step_view.h"
#include "app/bench/wood_face.h"
#include "app/theme/theme.h"

namespace yb {

RackRow::RackRow(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName("rack_row");
    setFixedHeight(114 + theme::grown(34));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Slabs on the rack; left and right choose"));
    connect(&session, &Session::changed, this, &RackRow::rebuild);
    rebuild();
}

void RackRow::rebuild() {
    const auto& slabs = session_.documents().slabs;
    if (!(slabs == built_for_)) {
        built_for_ = slabs;
        slabs_.clear();
        for (const auto& [id, slab] : slabs) {
            const SlabShape shape = shape_of(slab);
            const WoodTone tone = tone_of(slab.species);
            slabs_.push_back({QString::fromStdString(id),
                              QString::fromStdString(slab.name),
                              {},
                              shape.ring_a,
                              bounds(shape.ring_a),
                              tone.early,
                              tone.edge,
                              {}});
        }
    }
    for (Standing& s : slabs_)
        s.about =
            s.ring.empty() ? tr("not measured") : in_units(along(s.box.width()), session_) + " × " + in_units(mm(s.box.height()), session_);
    lay_out();
}

void RackRow::lay_out() {
    double longest = 1;
    double sum = 0;
    for (const Standing& s : slabs_) longest = std::max(longest, s.box.width());
    scale_ = (height() - 44) / longest;
    const auto w = [&](const Standing& s) { return std::max(96.0, s.box.height() * scale_ + 30); };
    for (const Standing& s : slabs_) sum += w(s);
    const double squeeze = sum > width() - 60 ? (width() - 60) / sum : 1;
    double x = 30;
    for (Standing& s : slabs_) {
        s.place = QRectF(x, 4, w(s) * squeeze, height() - 8);
        x += w(s) * squeeze;
    }
    update();
}

QRectF RackRow::place_of(const QString& id) const {
    for (const Standing& s : slabs_)
        if (s.id == id) return s.place;
    return {};
}

void RackRow::paintEvent(QPaintEvent*) {
    lay_out();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    p.fillRect(rect(), c.bench.darker(104));
    const double floor = height() - 34;
    p.setPen(QPen(c.wood_edge, 2));
    p.drawLine(QPointF(20, floor), QPointF(width() - 20, floor));
    const Slab* now = session_.slab();
    for (const Standing& s : slabs_) {
        const bool chosen = now && QString::fromStdString(now->id) == s.id;
        QPolygonF poly;  // standing on its left end
        for (const Vec2 q : s.ring)
            poly << QPointF(s.place.center().x() - (q.y - (s.box.low.y + s.box.high.y) / 2) * scale_, floor - (q.x - s.box.low.x) * scale_);
        p.setBrush(s.fill);
        p.setPen(QPen(chosen ? c.brass : s.edge, chosen ? 3 : 1.2));
        p.drawPolygon(poly);
        p.setPen(c.ink);
        p.setFont(theme::text(9.5, chosen));
        p.drawText(QRectF(s.place.left(), floor + 2, s.place.width(), 15), Qt::AlignCenter, s.name);
        p.setPen(c.pencil);
        p.setFont(theme::text(8.5));
        p.drawText(QRectF(s.place.left(), floor + 16, s.place.width(), 14), Qt::AlignCenter, s.about);
    }
}

void RackRow::mousePressEvent(QMouseEvent* e) {
    for (const Standing& s : slabs_)
        if (s.place.contains(e->position())) return session_.look_at(s.id);
}

void RackRow::keyPressEvent(QKeyEvent* e) {
    const int step = e->key() == Qt::Key_Right ? 1 : e->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0 || slabs_.empty()) return QWidget::keyPressEvent(e);
    const Slab* now = session_.slab();
    int i = 0;
    for (std::size_t k = 0; k < slabs_.size(); ++k)
        if (now && slabs_[k].id == QString::fromStdString(now->id)) i = static_cast<int>(k) + step;
    session_.look_at(slabs_[static_cast<std::size_t>(std::clamp(i, 0, static_cast<int>(slabs_.size()) - 1))].id);
}

}  // namespace yb
