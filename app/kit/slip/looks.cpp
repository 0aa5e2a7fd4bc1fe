#include "app/kit/slip/looks.h"

#include <algorithm>

#include <QGridLayout>
#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

#include "app/ground/theme/theme.h"
#include "app/ground/words.h"
#include "app/kit/slip/lines.h"

namespace yb {

LookLine::LookLine(QWidget* parent) : QPushButton(parent) {
    setProperty("line", true);
    setCursor(Qt::PointingHandCursor);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

QSize LookLine::sizeHint() const { return {theme::grown(120), theme::grown(20)}; }

void LookLine::show(const Look& look) {
    known_ = look.known;
    label_ = look.label;
    setObjectName("look_" + look.name);
    setProperty("known", look.known);
    setAccessibleName(tr("%1: %2").arg(look.label, look.known ? look.says : tr("not looked at yet")));
    setToolTip(look.known ? look.says : tr("Not looked at yet: %1").arg(look.says));
    update();
}

void LookLine::paintEvent(QPaintEvent*) {
    const auto& c = theme::colours();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (underMouse()) p.fillRect(rect(), c.paper);
    const double s = theme::grown(10);
    const QRectF box(1.5, (height() - s) / 2, s, s);
    p.setPen(QPen(hasFocus() ? c.brass : known_ ? c.moss : c.pencil, hasFocus() ? 2 : 1.1));
    p.setBrush(known_ ? c.moss_wash : QColor(Qt::transparent));
    p.drawRect(box);
    if (known_) {
        p.setPen(QPen(c.moss, 1.8));
        p.drawPolyline(
            QPolygonF{box.topLeft() + QPointF(2, s * 0.5), box.topLeft() + QPointF(s * 0.42, s - 2), box.topRight() + QPointF(-1, 1)});
    }
    p.setFont(theme::text(10));
    p.setPen(known_ ? c.pencil : c.chalk);
    const QRectF at(s + 7, 0, width() - s - 8, height());
    p.drawText(at, Qt::AlignLeft | Qt::AlignVCenter, what_fits(label_, p.fontMetrics(), at.width()));
}

Looks::Looks(QWidget* parent) : QWidget(parent), heading_(words({}, 9.5, theme::colours().pencil)), grid_(new QGridLayout) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 3, 0, 3);
    box->setSpacing(1);
    heading_->setObjectName("looked_at");
    box->addWidget(heading_);
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setHorizontalSpacing(8);
    grid_->setVerticalSpacing(0);
    grid_->setColumnStretch(0, 1);
    grid_->setColumnStretch(1, 1);
    box->addLayout(grid_);
}

Looks::Line Looks::make() {
    const std::size_t i = lines_.size();
    Line l{new LookLine, new QPushButton};
    l.none->setProperty("plain", true);
    l.none->setText(tr("none"));
    l.none->setCursor(Qt::PointingHandCursor);
    l.none->setFont(theme::text(9));
    auto* cell = new QHBoxLayout;
    cell->setSpacing(2);
    cell->addWidget(l.line, 1);
    cell->addWidget(l.none);
    grid_->addLayout(cell, static_cast<int>(i) / 2, static_cast<int>(i) % 2);
    connect(l.line, &QPushButton::clicked, this, [this, i] {
        if (const auto write = i < looks_.size() ? looks_[i].write : nullptr) write();
    });
    connect(l.none, &QPushButton::clicked, this, [this, i] {
        if (const auto none = i < looks_.size() ? looks_[i].none : nullptr) none();
    });
    return l;
}

void Looks::show(std::vector<Look> looks) {
    looks_ = std::move(looks);
    // What does not count is in the list only while it is missing.
    std::erase_if(looks_, [](const Look& l) { return !l.counted && l.known; });
    setVisible(!looks_.empty());
    const auto counted = std::count_if(looks_.begin(), looks_.end(), [](const Look& l) { return l.counted; });
    const auto known = std::count_if(looks_.begin(), looks_.end(), [](const Look& l) { return l.counted && l.known; });
    set_words(heading_, known == counted ? tr("All %1 looked at").arg(counted) : tr("%1 of %2 looked at").arg(known).arg(counted));
    while (lines_.size() < looks_.size()) lines_.push_back(make());
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        const Line& l = lines_[i];
        const bool needed = i < looks_.size();
        l.line->setVisible(needed);
        l.none->setVisible(needed && looks_[i].none);
        if (!needed) {
            l.line->setObjectName({});
            l.none->setObjectName({});
            continue;
        }
        l.line->show(looks_[i]);
        l.none->setObjectName("none_" + looks_[i].name);
        l.none->setAccessibleName(tr("%1: looked, none").arg(looks_[i].label));
    }
}

}  // namespace yb
