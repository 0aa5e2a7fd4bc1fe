#include "app/steps/rack/rack_row.h"

#include <QComboBox>
#include <QDate>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>
#include <QWheelEvent>

#include <algorithm>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/kit/bench/step_view.h"
#include "app/kit/bench/wood_face.h"
#include "core/shop/job/documents.h"
#include "core/steps/pace/pace.h"

namespace yb {

namespace {
constexpr int at_once = 60;  ///< so many slabs are looked over without going off the interface thread
QString today() { return QDate::currentDate().toString(Qt::ISODate); }
}  // namespace

RackRow::RackRow(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent),
      session_(session),
      pictures_(pictures),
      filter_(new QLineEdit(this)),
      order_(new QComboBox(this)),
      count_(new QLabel(this)),
      reading_(
          this, [](const Asked& a, const Work& w) { return rack_of(a.ask(), w); },
          [this](const Asked&, const std::vector<RackEntry>& entries) { take(entries); },
          [this](const QString& sentence) { count_->setText(tr("The rack can't be read over: %1.").arg(sentence)); }) {
    setObjectName("rack_row");
    setFixedHeight(std::max(110, 290 - theme::grown(114)) + theme::grown(76));  // larger text leaves less for the slabs
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Slabs on the rack; left and right choose"));
    filter_->setObjectName("rack_filter");
    filter_->setProperty("measure", true);
    filter_->setPlaceholderText(tr("butternut length>2m moisture<10 fits"));
    filter_->setToolTip(
        tr("Words of a name, wood or tree; length, width, thickness, moisture, price, weight, age (years) with < or >; fits, free, dry"));
    filter_->setAccessibleName(tr("Which slabs to show"));
    connect(filter_, &QLineEdit::textChanged, this, &RackRow::choose);
    order_->setObjectName("rack_order");
    order_->addItems({tr("by name"), tr("by wood"), tr("by tree"), tr("by length"), tr("by width"), tr("by thickness"), tr("by moisture"),
                      tr("by price"), tr("by age"), tr("by weight")});
    order_->setAccessibleName(tr("Order of the slabs"));
    connect(order_, &QComboBox::currentIndexChanged, this, &RackRow::choose);
    count_->setObjectName("rack_count");
    count_->setFont(theme::text(9.5));
    connect(&session, &Session::changed, this, [this] {
        // While the tape stands in its place the row waits.
        stale_ = window()->isVisible() && !isVisible();
        if (!stale_) rebuild();
    });
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        if (key.isEmpty()) drawn_.clear();
        for (const Standing& s : slabs_) {
            const auto it = built_for_.find(s.entry.id);
            if (it != built_for_.end() && it->second.picture_a && it->second.picture_a->key == key.toStdString()) drawn_.erase(s.entry.id);
        }
        update();
    });
    connect(&session, &Session::opened, this, [this] {
        scroll_ = 0;
        drawn_.clear();
    });
    rebuild();
}

void RackRow::resizeEvent(QResizeEvent*) {
    const int h = theme::grown(26);
    filter_->setGeometry(24, 6, std::min(420, width() / 2), h);
    order_->setGeometry(filter_->geometry().right() + 18, 6, theme::grown(130), h);
    count_->setGeometry(order_->geometry().right() + 18, 6, std::max(10, width() - order_->geometry().right() - 30), h);
    drawn_.clear();
    lay_out();
}

double RackRow::floor() const { return height() - theme::grown(48); }

void RackRow::showEvent(QShowEvent* e) {
    QWidget::showEvent(e);
    if (std::exchange(stale_, false)) rebuild();
}

void RackRow::rebuild() {
    if (session_.previewing()) return;
    const auto& docs = session_.documents();
    std::string jobs;
    const auto taken = taken_slabs(docs);
    for (const auto& [slab, name] : taken) jobs += slab + ":" + name + ";";
    const double times = pace_of(docs.shop.paces, "drying");
    jobs += std::to_string(times);
    const Climate* room = session_.room();
    if (room)
        jobs += room->name + std::to_string(settles_at(*room)) + std::to_string(docs.shop.dry_allowed_pct) +
                std::to_string(session_.top()->length_mm) + "x" + std::to_string(session_.top()->width_mm) + "x" +
                std::to_string(session_.top()->thickness_mm);
    if (docs.slabs == built_for_ && jobs == built_jobs_) return choose();  // units may be others, or the slab looked at
    for (const auto& [id, slab] : built_for_)
        if (const auto it = docs.slabs.find(id); it == docs.slabs.end() || !(it->second == slab)) drawn_.erase(id);
    built_for_ = docs.slabs;
    built_jobs_ = jobs;
    const std::optional<WantedTop> top = room ? std::optional(*session_.top()) : std::nullopt;
    const double dry = dry_enough_pct(room ? *room : generic_climates().front(), docs.shop);
    const std::string day = today().toStdString();
    Asked asked{docs.slabs, taken, docs.shop.air, dry, top, day, times};
    if (docs.slabs.size() <= at_once) return take(rack_of(asked.ask()));
    reading_.ask(std::move(asked));
}

void RackRow::take(std::vector<RackEntry> entries) {
    all_ = std::move(entries);
    choose();
}

void RackRow::choose() {
    const auto read = read_filter(filter_->text().toStdString(), session_.units());
    if (const auto* e = std::get_if<ParseError>(&read)) {
        // What was shown stays until the text can be read.
        count_->setText(QString::fromStdString(e->sentence()));
        count_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().madder.name()));
        return;
    }
    std::vector<RackEntry> chosen;
    for (const RackEntry& e : all_)
        if (!e.retired && passes(e, std::get<0>(read))) chosen.push_back(e);
    sort_rack(chosen, static_cast<RackOrder>(order_->currentIndex()));
    slabs_.clear();
    for (RackEntry& e : chosen) {
        Standing s;
        s.box = bounds(e.outline);
        s.about = e.outline.empty() ? tr("not measured")
                                    : in_units(along(s.box.width()), session_) + " × " + in_units(mm(s.box.height()), session_);
        QStringList state;
        if (e.moisture_pct) state << in_units(percent(*e.moisture_pct), session_);
        if (e.weight_kg) state << in_units(kg(*e.weight_kg), session_);
        if (!e.reserved_for.empty()) state << tr("taken");
        s.state = state.join(" · ");
        s.tip = tip_of(e);
        s.entry = std::move(e);
        slabs_.push_back(std::move(s));
    }
    count_->setStyleSheet(QStringLiteral("color: %1").arg(theme::colours().pencil.name()));
    const auto there = static_cast<std::size_t>(std::count_if(all_.begin(), all_.end(), [](const RackEntry& e) { return !e.retired; }));
    count_->setText(slabs_.size() == there ? tr("%1 slabs").arg(there) : tr("%1 of %2 slabs").arg(slabs_.size()).arg(there));
    lay_out();
    if (const Slab* now = session_.slab(); now && in_sight_ != now->id) {
        in_sight_ = now->id;
        bring_in_sight(now->id);
    }
}

/// All that the rack knows of a slab, for the hand that rests on it.
QString RackRow::tip_of(const RackEntry& e) const {
    QStringList lines{QString::fromStdString(e.name + (e.tree.empty() ? "" : ", " + e.tree))};
    if (e.measured)
        lines << tr("%1 long, %2 to %3 wide, %4 thick")
                     .arg(in_units(along(e.length_mm), session_), in_units(mm(e.narrowest_mm), session_),
                          in_units(mm(e.widest_mm), session_), in_units(fine(e.thickness_mm), session_));
    if (e.weight_kg)
        lines << tr("%1: %2 people to lift it, 25 kg each – an estimate").arg(in_units(kg(*e.weight_kg), session_)).arg(e.people);
    const auto cents = [](double v) { return QString::number(v, 'f', 2); };
    if (const auto foot = e.price_per_board_foot()) lines << tr("%1 a board foot").arg(cents(*foot));
    if (const auto metre = e.price_per_m2()) lines << tr("%1 a usable square metre").arg(cents(*metre));
    if (e.drying && e.drying->days)
        lines << tr("dry in about %1 days, between %2 and %3")
                     .arg(std::lround(*e.drying->days))
                     .arg(std::lround(*e.drying->soonest_days))
                     .arg(std::lround(*e.drying->latest_days));
    if (e.age_days) lines << tr("sawn %1 years ago").arg(*e.age_days / 365.25, 0, 'f', 1);
    if (!e.reserved_for.empty()) lines << tr("taken for %1").arg(QString::fromStdString(e.reserved_for));
    return lines.join('\n');
}

bool RackRow::event(QEvent* e) {
    if (e->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(e);
        for (const Standing& s : slabs_)
            if (place_of(QString::fromStdString(s.entry.id)).contains(help->pos())) QToolTip::showText(help->globalPos(), s.tip, this);
        return true;
    }
    return QWidget::event(e);
}

void RackRow::bring_in_sight(const std::string& id) {
    for (const Standing& s : slabs_) {
        if (s.entry.id != id) continue;
        if (s.x < scroll_) scroll_to(s.x - 20);
        if (s.x + s.width > scroll_ + width()) scroll_to(s.x + s.width - width() + 20);
    }
}

void RackRow::lay_out() {
    double longest = 1;
    for (const Standing& s : slabs_) longest = std::max(longest, s.box.width());
    const double scale = (floor() - theme::grown(26) - 16) / longest;
    if (scale != scale_) drawn_.clear();
    scale_ = scale;
    double x = 24;
    for (Standing& s : slabs_) {
        const auto words = [](const QString& text, const QFont& font) { return QFontMetricsF(font).horizontalAdvance(text) + 12; };
        s.width = std::max({double(theme::grown(118)), s.box.height() * scale_ + 26,
                            words(QString::fromStdString(s.entry.name), theme::text(9.5, true)), words(s.about, theme::text(8.5)),
                            words(s.state, theme::text(8.5))});
        s.x = x;
        x += s.width;
    }
    length_ = x + 24;
    scroll_ = std::clamp(scroll_, 0.0, std::max(0.0, length_ - width()));
    update();
}

QRectF RackRow::place_of(const QString& id) const {
    for (const Standing& s : slabs_)
        if (s.entry.id == id.toStdString()) return QRectF(s.x - scroll_, theme::grown(36), s.width, height() - theme::grown(40));
    return {};
}

QStringList RackRow::shown() const {
    QStringList out;
    for (const Standing& s : slabs_) out << QString::fromStdString(s.entry.id);
    return out;
}

void RackRow::scroll_to(double px) {
    scroll_ = std::clamp(px, 0.0, std::max(0.0, length_ - width()));
    update();
}

/// A slab standing on its left end: drawn once, then only moved.
QPixmap RackRow::standing_picture(const Standing& s) {
    if (const auto it = drawn_.find(s.entry.id); it != drawn_.end()) return it->second;
    const auto slab = session_.slabs().find(s.entry.id);
    const double ratio = devicePixelRatioF();
    const QSizeF size(s.box.height() * scale_ + 4, s.box.width() * scale_ + 4);
    QPixmap map((size * ratio).toSize().expandedTo({1, 1}).boundedTo({4096, 4096}));
    map.setDevicePixelRatio(ratio);
    map.fill(Qt::transparent);
    QPainter p(&map);
    p.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    const auto px = [&](Vec2 q) { return QPointF(2 + (s.box.high.y - q.y) * scale_, size.height() - 2 - (q.x - s.box.low.x) * scale_); };
    QPolygonF poly;
    for (const Vec2 q : s.entry.outline) poly << px(q);
    const theme::WoodTone tone = theme::tone_of(s.entry.species);
    p.setPen(Qt::NoPen);
    p.setBrush(tone.early);
    p.drawPolygon(poly);
    if (slab != session_.slabs().end() && slab->second.picture_a) {
        const FacePicture& place = *slab->second.picture_a;
        const QImage image = pictures_.thumbnail(place.key);
        if (!image.isNull()) {
            QPainterPath clip;
            clip.addPolygon(poly);
            p.setClipPath(clip);
            // The thumbnail has fewer pixels than the picture and shows the same length of slab.
            const double k = place.mm_per_px * std::max(place.width_px, image.width()) / image.width() * scale_;
            p.translate(px(place.corner));
            p.rotate(-90);
            p.scale(k, place.mirrored ? -k : k);
            p.drawImage(QPointF(0, 0), image);
            p.resetTransform();
            p.setClipping(false);
        }
    }
    p.setPen(QPen(tone.edge, 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(poly);
    drawn_[s.entry.id] = map;
    return map;
}

void RackRow::draw_one(QPainter& p, const Standing& s) {
    const auto& c = theme::colours();
    const Slab* now = session_.slab();
    const bool chosen = now && now->id == s.entry.id;
    const double middle = s.x - scroll_ + s.width / 2;
    if (!s.entry.outline.empty()) {
        const QPixmap map = standing_picture(s);
        const QSizeF size = map.deviceIndependentSize();
        const QPointF at(middle - size.width() / 2, floor() - size.height() + 2);
        p.drawPixmap(at, map);
        if (const WantedTop* top = session_.top()) {
            // The wanted top as a ghost; where it fits its line is whole.
            const double w = top->width_mm * scale_;
            const double h = top->length_mm * scale_;
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(s.entry.fits ? c.moss : c.pencil, s.entry.fits ? 1.6 : 1, s.entry.fits ? Qt::SolidLine : Qt::DotLine));
            p.drawRect(QRectF(middle - w / 2, floor() - std::max(h, (size.height() + h) / 2), w, h));
        }
    }
    if (chosen) {
        p.setPen(QPen(c.brass, 3));
        p.drawLine(QPointF(s.x - scroll_ + 8, floor() + 1), QPointF(s.x - scroll_ + s.width - 8, floor() + 1));
    }
    const auto line = [&](const QString& text, double y, const QFont& font, const QColor& ink) {
        p.setFont(font);
        p.setPen(ink);
        const QRectF box(s.x - scroll_ + 2, floor() + y, s.width - 4, theme::grown(15));
        p.drawText(box, Qt::AlignCenter, text);
    };
    line(QString::fromStdString(s.entry.name), 2, theme::text(9.5, chosen), c.ink);
    line(s.about, theme::grown(16), theme::text(8.5), c.pencil);
    line(s.state, theme::grown(30), theme::text(8.5), c.pencil);
}

void RackRow::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    p.fillRect(rect(), c.bench.darker(104));
    p.setPen(QPen(c.wood_edge, 2));
    p.drawLine(QPointF(16, floor()), QPointF(width() - 16, floor()));
    for (const Standing& s : slabs_)
        if (s.x + s.width > scroll_ && s.x < scroll_ + width()) draw_one(p, s);
    if (slabs_.empty() && !all_.empty()) {
        p.setFont(theme::figures(12, true));
        p.setPen(c.pencil);
        p.drawText(rect(), Qt::AlignCenter, tr("No slab on the rack is like that."));
    }
    if (length_ > width()) {  // where in the row this is
        const double w = width() - 32;
        p.setPen(Qt::NoPen);
        p.setBrush(c.faint);
        p.drawRoundedRect(QRectF(16 + w * scroll_ / length_, height() - 5, w * width() / length_, 3), 1.5, 1.5);
    }
}

void RackRow::mousePressEvent(QMouseEvent* e) {
    setFocus();
    for (const Standing& s : slabs_)
        if (place_of(QString::fromStdString(s.entry.id)).contains(e->position()))
            return session_.look_at(QString::fromStdString(s.entry.id));
}

void RackRow::wheelEvent(QWheelEvent* e) {
    const QPoint d = e->angleDelta();
    scroll_to(scroll_ - (std::abs(d.x()) > std::abs(d.y()) ? d.x() : d.y()));
    e->accept();
}

void RackRow::keyPressEvent(QKeyEvent* e) {
    const int step = e->key() == Qt::Key_Right ? 1 : e->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0 || slabs_.empty()) return QWidget::keyPressEvent(e);
    const Slab* now = session_.slab();
    int i = 0;
    for (std::size_t k = 0; k < slabs_.size(); ++k)
        if (now && slabs_[k].entry.id == now->id) i = static_cast<int>(k) + step;
    const Standing& to = slabs_[static_cast<std::size_t>(std::clamp(i, 0, static_cast<int>(slabs_.size()) - 1))];
    session_.look_at(QString::fromStdString(to.entry.id));
}

}  // namespace yb
