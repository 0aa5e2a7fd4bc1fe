#include "app/kit/bench/top_picture.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <utility>

#include "app/ground/session/pictures.h"
#include "app/kit/bench/step_view.h"
#include "app/kit/bench/wood_face.h"

namespace yb {

TopPicture::TopPicture(Pictures& pictures) : TopPicture(pictures, nullptr) {}

TopPicture::TopPicture(Pictures& pictures, std::function<void()> again) : pictures_(pictures), again_(std::move(again)) {
    next_.setSingleShot(true);
    QObject::connect(&next_, &QTimer::timeout, &next_, [this] {
        drew_ = false;
        if (std::exchange(behind_, false)) again_();
    });
}

bool TopPicture::its_turn() {
    if (!again_) return true;
    if (drew_) {
        behind_ = true;
        return false;
    }
    drew_ = true;
    next_.start(0);
    return true;
}

void TopPicture::draw_all(const std::function<void()>& painting) {
    auto again = std::exchange(again_, nullptr);
    painting();
    again_ = std::move(again);
}

void TopPicture::forget(const QString& picture) {
    const auto has = [&](const std::optional<FacePicture>& r) { return r && QString::fromStdString(r->key) == picture; };
    for (const QString& key : drawn_.keys())
        if (const Slab& slab = drawn_.object(key)->slab; picture.isEmpty() || has(slab.picture_a) || has(slab.picture_b))
            drawn_.remove(key);
}

const TopPicture::Drawn* TopPicture::slab(const Slab& slab, const SlabShape& shape, double scale, double ratio, bool small, bool turned) {
    const bool over = slab.picture_a && slab.picture_a->mirrored;
    const QString key = QStringLiteral("%1|%2|%3%4%5|%6")
                            .arg(QString::fromStdString(slab.id), QString::fromStdString(slab.picture_a ? slab.picture_a->key : ""))
                            .arg(over)
                            .arg(small)
                            .arg(turned)
                            .arg(std::lround(scale * 1000 * ratio));
    if (const Kept* there = drawn_.object(key); there && there->slab == slab) return &there->drawn;
    if (!its_turn()) return nullptr;
    auto made = std::make_unique<Kept>();
    Kept& kept = *made;
    kept.slab = slab;
    Drawn& d = kept.drawn;
    const Box a = bounds(shape.ring_a);
    const Box b = bounds(shape.ring_b);
    const Vec2 low{std::min(a.low.x, b.low.x) - 4 / scale, std::min(a.low.y, b.low.y) - 4 / scale};
    const Vec2 high{std::max(a.high.x, b.high.x) + 4 / scale, std::max(a.high.y, b.high.y) + 4 / scale};
    // A slab far larger than what is looked at is drawn coarser, and stretched.
    constexpr double most_px = 4e6;
    constexpr double longest_px = 16000;
    const Vec2 all = high - low;
    scale = std::min({scale, std::sqrt(most_px / std::max(1.0, all.x * all.y)) / ratio, longest_px / std::max(all.x, all.y) / ratio});
    d.corner = {low.x, high.y};
    d.scale = scale;
    const QSizeF size((high.x - low.x) * scale, (high.y - low.y) * scale);
    d.pixels = QPixmap((size * ratio).toSize().expandedTo({1, 1}));
    d.pixels.setDevicePixelRatio(ratio);
    d.pixels.fill(Qt::transparent);
    BenchMap map;
    map.plan = QRectF(QPointF(0, 0), size);
    map.scale = scale;
    map.x0_mm = low.x;
    map.y_mid_mm = (low.y + high.y) / 2;
    QPainter p(&d.pixels);
    p.setRenderHint(QPainter::Antialiasing);
    draw::slab(p, map, pictures_, slab, shape, ratio, small, draw::from_the_window * (turned ? -1.0 : 1.0));
    p.end();
    const qsizetype kilobytes = 1 + qsizetype{4} * d.pixels.width() * d.pixels.height() / 1024;
    drawn_.insert(key, made.release(), std::min(kilobytes, drawn_.maxCost()));
    return &d;
}

}  // namespace yb
