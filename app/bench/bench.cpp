#include "app/bench/bench.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QWheelEvent>

#include <algorithm>
#include <array>
#include <cmath>

#include "app/bench/wood_face.h"
#include "app/session/pictures.h"
#include "app/slip/measure_field.h"
#include "app/theme/theme.h"

namespace yb {

Bench::Bench(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent), session_(session), pictures_(pictures), tops_(pictures) {
    setObjectName("bench");
    setAccessibleName(tr("Bench: plan, strip and end view"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAttribute(Qt::WA_OpaquePaintEvent);  // it paints every pixel itself
    connect(&session, &Session::changed, this, [this] {
        lay_out();
        update();
    });
    connect(&pictures, &Pictures::arrived, this, [this] {
        ++pictures_version_;
        tops_.forget();
        update();
    });
    connect(&session, &Session::gauge_moved, this, [this] {
        map_.gauge_mm = session_.gauge_mm();
        update();
    });
}

void Bench::set_step_view(StepView* view) {
    view_ = view;
    picked_.clear();
    drawn_ = nullptr;
    close_editor();
    lay_out();
    update();
}

void Bench::set_plan_only(bool only) {
    plan_only_ = only;
    Q_EMIT plan_only_changed(only);
    lay_out();
    update();
}

bool Bench::only() const { return plan_only_ || height() < theme::grown(250); }

void Bench::resizeEvent(QResizeEvent*) { lay_out(); }

void Bench::lay_out() {
    const double w = width();
    const double h = height();
    const double left = 56;
    const double right = 40;
    const double grown = theme::grown(26) - 26;  // room that larger text needs
    map_.ruler = {left, 26 + grown, w - left - right, 26};
    const double top = 78 + grown;
    const double below = only() ? 12 : std::clamp(h * 0.36, 150.0, 260.0);
    map_.plan = {left, top, w - left - right, std::max(60.0, h - top - below)};
    const double strip_top = map_.plan.bottom() + 26 + grown;
    const double each = std::max(30.0, (h - strip_top - 48) / 2);
    map_.strip = {left, strip_top, w - left - right, each * 0.86};
    map_.end = {left, map_.strip.bottom() + 30 + grown, w - left - right, std::max(30.0, h - map_.strip.bottom() - 42 - grown)};
    map_.gauge_mm = session_.gauge_mm();
    const Plan* plan = session_.plan();
    if (!plan || plan->shape.ring_a.empty()) return;
    if (session_.whole() && session_.previewing() && map_.scale > 0 && whole_before_) return;  // nothing jumps under the hand
    whole_before_ = session_.whole();
    const auto [x0, x1, y0, y1] = extent();
    const double length = std::max(1.0, x1 - x0);
    const double room = 46;  // for dimensions beside the slab
    map_.scale = std::min(map_.plan.width() / length, std::max(20.0, map_.plan.height() - room) / std::max(1.0, y1 - y0));
    // A slab shorter than the bench lies in its middle; stations still start where it does.
    const double spare = map_.plan.width() - length * map_.scale;
    map_.x0_mm = x0 - spare / 2 / map_.scale;
    map_.y_mid_mm = (y0 + y1) / 2;
    map_.end_rise = view_ ? view_->end_rise() : 1;
    const double thickness = 95;
    map_.end_scale = std::min(map_.end.width() * 0.72 / std::max(1.0, y1 - y0), map_.end.height() / (thickness * map_.end_rise));
    map_.end_base_px = map_.end.bottom() - 6;
}

/// What has to find room on the plan: the slab, or the whole top with all that its leaves reach beyond it.
std::array<double, 4> Bench::extent() const {
    const Plan& plan = *session_.plan();
    const Box a = bounds(plan.shape.ring_a);
    const Box b = bounds(plan.shape.ring_b);
    std::array<double, 4> e{plan.shape.x0, plan.shape.x1, std::min(a.low.y, b.low.y), std::max(a.high.y, b.high.y)};
    if (!session_.whole()) return e;
    const double half = session_.job()->top.length_mm / 2;
    for (const LeafPart& l : plan.makeup.leaves) {
        const Box k = bounds(l.show);
        // A leaf drawn far away does not make the rest too small to see.
        e[0] = std::max(-0.6 * half, std::min(e[0], k.low.x + half));
        e[1] = std::min(2.6 * half, std::max(e[1], k.high.x + half));
        e[2] = std::max(-1.5 * session_.job()->top.width_mm, std::min(e[2], k.low.y));
        e[3] = std::min(1.5 * session_.job()->top.width_mm, std::max(e[3], k.high.y));
    }
    return e;
}

double Bench::station_step() const {
    const bool metric = session_.units().metric_length();
    const double pixels = theme::grown(70);
    static constexpr std::array metric_steps{50.0, 100.0, 200.0, 250.0, 500.0, 1000.0, 2000.0};
    static constexpr std::array inch_steps{76.2, 152.4, 304.8, 609.6, 1219.2};
    const auto pick = [&](const auto& steps) {
        for (const double s : steps)
            if (s * map_.scale >= pixels) return s;
        return steps.back();
    };
    return metric ? pick(metric_steps) : pick(inch_steps);
}

void Bench::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    const Plan* plan = session_.plan();
    if (!plan || plan->shape.ring_a.empty() || !view_) {
        p.fillRect(rect(), c.bench);
        p.setPen(c.pencil);
        p.setFont(theme::figures(15, true));
        p.drawText(rect(), Qt::AlignCenter, view_ ? view_->empty_text(session_) : QString());
        return;
    }
    draw_still(p);
    if (session_.whole()) draw_leaves(p);
    draw_patches(p);
    view_->draw_plan(p, map_, session_);
    if (!only() && plan->shape.usable) {
        p.setFont(theme::text(10));
        p.setPen(c.pencil);
        p.drawText(
            QPointF(map_.strip.left(), map_.strip.top() - 7),
            p.fontMetrics().elidedText(view_->strip_title(session_), Qt::ElideRight, static_cast<int>(width() - map_.strip.left() - 8)));
        p.setPen(QPen(c.rule, 1));
        p.drawLine(map_.strip.bottomLeft(), map_.strip.bottomRight());
        view_->draw_strip(p, map_, session_);
        draw_section(p);
    }
    draw_dimensions(p);
    draw_handles(p);
    draw_outline_so_far(p);
    draw_gauge(p);
}

void Bench::draw_still(QPainter& p) {
    const StillKey key{session_.slab_version(), size(), map_.scale,        map_.x0_mm,
                       devicePixelRatioF(),     0,      pictures_version_, session_.units()};
    if (!(key == still_for_)) {
        still_for_ = key;
        still_ = QPixmap(size() * key.ratio);
        still_.setDevicePixelRatio(key.ratio);
        still_.fill(theme::colours().bench);
        QPainter q(&still_);
        q.setRenderHint(QPainter::Antialiasing);
        draw_ruler(q);
        if (!session_.whole()) draw_slab(q);
    }
    p.drawPixmap(0, 0, still_);
}

void Bench::draw_dimensions(QPainter& p) {
    dimensions_.clear();
    for (const Dimension& d : view_->dimensions(map_, session_)) {
        const auto value = d.field.get(session_);
        if (!value) continue;
        if (only() && !map_.plan.contains((d.a + d.b) / 2)) continue;
        const QPolygonF place = draw::dimension(p, d.a, d.b, in_units({*value, d.field.kind}, session_), d.off);
        if (!place.isEmpty()) dimensions_.emplace_back(place, d);
    }
}

QPolygonF Bench::dimension_place(const QString& field) const {
    for (const auto& [place, d] : dimensions_)
        if (d.field.name == field) return place;
    return {};
}

bool Bench::type_dimension() {
    if (dimensions_.empty()) return false;
    std::size_t next = 0;
    for (std::size_t i = 0; editor_ && i < dimensions_.size(); ++i)  // from the one that is open to the next
        if (dimensions_[i].second.field.name == last_typed_) next = (i + 1) % dimensions_.size();
    open_editor(dimensions_[next].second.field, dimensions_[next].first.boundingRect().center());
    return true;
}

void Bench::close_editor() {
    if (!editor_) return;
    // What is on its way out is not to be found any more.
    for (QWidget* w : editor_->findChildren<QWidget*>()) w->setObjectName({});
    editor_->hide();
    editor_->deleteLater();
    editor_ = nullptr;
}

void Bench::open_editor(const Field& field, QPointF middle) {
    close_editor();
    last_typed_ = field.name;
    editor_ = new MeasureField("dimension", field.kind, this);
    editor_->setAutoFillBackground(true);
    editor_->line()->setAccessibleName(field.label);
    editor_->set_range(field.low, field.high);
    editor_->show_value(field.get(session_), session_.units());
    connect(editor_, &MeasureField::committed, this, [this, set = field.set](std::optional<double> v) {
        close_editor();
        setFocus();
        set(session_, v);
    });
    editor_->line()->installEventFilter(this);
    editor_->resize(150, editor_->sizeHint().height());
    QPoint at = (middle - QPointF(75, editor_->height() / 2.0)).toPoint();
    at.setX(std::clamp(at.x(), 0, std::max(0, width() - 150)));
    at.setY(std::clamp(at.y(), 0, std::max(0, height() - editor_->height())));
    editor_->move(at);
    editor_->show();
    editor_->line()->setFocus();
    editor_->line()->selectAll();
    Q_EMIT say(tr("%1: type it in any unit. Enter keeps it, Esc leaves it as it was.").arg(field.label));
}

bool Bench::eventFilter(QObject* watched, QEvent* e) {
    if (!editor_ || watched != editor_->line()) return QWidget::eventFilter(watched, e);
    const bool escape = e->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(e)->key() == Qt::Key_Escape;
    const bool kept =
        e->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(e)->key() == Qt::Key_Return && !editor_->line()->isModified();
    if (!escape && !kept) {
        // A hint below the line needs room.
        if (e->type() == QEvent::LayoutRequest || e->type() == QEvent::KeyRelease) editor_->resize(150, editor_->sizeHint().height());
        return QWidget::eventFilter(watched, e);
    }
    close_editor();
    Q_EMIT say({});
    setFocus();
    return true;
}

void Bench::draw_ruler(QPainter& p) {
    const auto& c = theme::colours();
    const Plan& plan = *session_.plan();
    p.setPen(QPen(c.pencil, 1));
    const double y = map_.ruler.bottom();
    const double x0 = map_.px(plan.shape.x0);
    const double x1 = map_.px(plan.shape.x1);
    p.drawLine(QPointF(x0, y), QPointF(x1, y));
    p.setFont(theme::figures(9, true));
    const double step = station_step();
    const int minor = 5;
    for (int i = 0;; ++i) {
        const double x = plan.shape.x0 + i * step / minor;
        if (x > plan.shape.x1 + 0.5) break;
        const bool major = i % minor == 0;
        p.drawLine(QPointF(map_.px(x), y), QPointF(map_.px(x), y - (major ? 8 : 4)));
        if (!major) continue;
        const QString text = QString::fromStdString(print(along(x), session_.units()).number);
        p.drawText(QRectF(map_.px(x) - 60, y - 10 - theme::grown(16), 120, theme::grown(16)), Qt::AlignCenter, text);
    }
    if (session_.units().metric_length()) p.drawText(QPointF(x1 + 24, y - 12), "m");
}

void Bench::draw_slab(QPainter& p) {
    const Plan& plan = *session_.plan();
    draw::slab(p, map_, pictures_, plan.slab, plan.shape, devicePixelRatioF(), false);
}

/// The leaves of a whole top, each where it lies.
void Bench::draw_leaves(QPainter& p) {
    const Plan& plan = *session_.plan();
    const Job& job = *session_.job();
    const double half = job.top.length_mm / 2;
    for (const JointPlan& j : plan.makeup.joints) {
        if (!j.river || job.makeup.kind != MakeUp::river) continue;
        QPolygonF water;
        for (const Vec2 q : j.water) water << map_.px(q + Vec2{half, 0});
        p.setPen(Qt::NoPen);
        p.setBrush(theme::colours().resin);
        p.drawPolygon(water);
    }
    const auto px = [&](Vec2 uv) { return map_.px(uv + Vec2{half, 0}); };
    const auto leaf = [&](std::size_t i) {
        tops_.leaf(p, plan.leaves[i].slab, plan.leaves[i].shape, job.leaves[i].placement, map_.scale, devicePixelRatioF(), false, px,
                   !session_.previewing());  // under the hand quick, at rest fine
    };
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) leaf(i);
    if (is_river(job.makeup.kind)) return;
    // Outside the top whole slabs, inside it only what each has in it.
    p.setPen(Qt::NoPen);
    p.setBrush(theme::colours().bench);
    p.drawPolygon(draw::fewer(map_.px(plan.lay.outline)));
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        QPolygonF part;
        for (const Vec2 q : plan.makeup.leaves[i].part) part << px(q);
        QPainterPath clip;
        clip.addPolygon(draw::fewer(part));
        clip.closeSubpath();
        p.save();
        p.setRenderHint(QPainter::Antialiasing, false);  // else the bench shines through between two leaves
        p.setClipPath(clip);
        leaf(i);
        p.restore();
    }
}

/// The wood of each patch where it is let in, as it lies on the slab it is cut from.
void Bench::draw_patches(QPainter& p) {
    const Plan& plan = *session_.plan();
    if (!session_.job() || !plan.lay.ready) return;
    const Frame top = plan.placement.frame();
    for (std::size_t i = 0; i < std::min(plan.patches.size(), session_.job()->makeup.patches.size()); ++i) {
        if (!plan.patches[i]) continue;
        const Patch& patch = session_.job()->makeup.patches[i];
        QPainterPath clip;
        clip.addPolygon(map_.px(top.to_slab(patch.outline)));
        clip.closeSubpath();
        p.save();
        p.setClipPath(clip);
        tops_.leaf(
            p, plan.patches[i]->up, plan.patches[i]->shape_up, on_patch_slab(patch), map_.scale, devicePixelRatioF(), false,
            [&](Vec2 uv) { return map_.px(top.to_slab(uv)); }, true);
        p.restore();
    }
}

QPolygonF Bench::section() const {
    const Plan& plan = *session_.plan();
    const double x = std::clamp(map_.gauge_mm, plan.shape.x0 + 0.01, plan.shape.x1 - 0.01);
    return section_of(
        plan.shape,
        [x](double y) {
            return Vec2{x, y};
        },
        cut_at_x(plan.shape.ring_a, x), cut_at_x(plan.shape.ring_b, x));
}

/// A slab cut across: `at` tells the place on it for a place across the end view.
QPolygonF Bench::section_of(const SlabShape& shape, const std::function<Vec2(double)>& at, const std::vector<Span1>& a,
                            const std::vector<Span1>& b) const {
    QPolygonF out;
    if (a.empty() || b.empty()) return out;
    constexpr int n = 24;
    for (int i = 0; i <= n; ++i) {
        const double y = a.front().from + (a.back().to - a.front().from) * i / n;
        out << map_.end_px(y, shape.top.at(at(y)));
    }
    for (int i = n; i >= 0; --i) {
        const double y = b.front().from + (b.back().to - b.front().from) * i / n;
        out << map_.end_px(y, shape.bottom.at(at(y)));
    }
    return out;
}

/// The leaves of a whole top cut across at the gauge, as thick as they are now.
void Bench::draw_leaf_sections(QPainter& p) {
    const Plan& plan = *session_.plan();
    const Job& job = *session_.job();
    const double u = map_.gauge_mm - job.top.length_mm / 2;
    for (std::size_t i = 0; i < plan.leaves.size(); ++i) {
        const LeafPlan& l = plan.leaves[i];
        const LeafPart& part = plan.makeup.leaves[i];
        const Frame f = job.leaves[i].placement.frame();
        const QPolygonF cut = section_of(
            l.shape,
            [&](double v) {
                return f.to_slab({u, v});
            },
            cut_at_x(part.show, u), cut_at_x(part.under, u));
        if (cut.isEmpty()) continue;
        const WoodTone tone = tone_of(l.slab.species);
        p.setPen(QPen(tone.edge, 1.4));
        p.setBrush(tone.early);
        p.drawPolygon(draw::fewer(cut));
    }
}

void Bench::draw_section(QPainter& p) {
    const auto& c = theme::colours();
    const Plan& plan = *session_.plan();
    p.setFont(theme::text(10));
    p.setPen(c.pencil);
    QString title = tr("end view at %1").arg(in_units(along(map_.gauge_mm), session_));
    if (map_.end_rise != 1) title += tr(" · heights ×%1").arg(map_.end_rise);
    const QString note = view_->end_note(session_);
    if (!note.isEmpty()) title += " · " + note;
    p.drawText(QPointF(map_.end.left(), map_.end.top() - 4), title);
    if (session_.whole() && view_->shows_leaves()) {
        draw_leaf_sections(p);
        return view_->draw_end(p, map_, session_);
    }
    const QPolygonF cut = section();
    if (cut.isEmpty()) return;
    const StillKey key{session_.slab_version(), size(), map_.end_scale, map_.end_base_px, devicePixelRatioF(), map_.end_rise, 0, {}};
    if (!(key == end_for_) || end_gauge_ != map_.gauge_mm) {
        end_for_ = key;
        end_gauge_ = map_.gauge_mm;
        end_grain_ = QPixmap(map_.end.size().toSize() * key.ratio);
        end_grain_.setDevicePixelRatio(key.ratio);
        end_grain_.fill(Qt::transparent);
        QPainter q(&end_grain_);
        q.setRenderHint(QPainter::Antialiasing);
        q.translate(-map_.end.topLeft());
        draw_end_grain(q, plan.slab, plan.shape, map_, cut);
    }
    p.drawPixmap(map_.end.topLeft(), end_grain_);
    p.setPen(QPen(tone_of(plan.slab.species).edge, 1.4));
    p.setBrush(Qt::NoBrush);
    p.drawPolygon(draw::fewer(cut));
    view_->draw_end(p, map_, session_);
}

void Bench::draw_gauge(QPainter& p) {
    const auto& c = theme::colours();
    const double x = map_.px(map_.gauge_mm);
    const double y = map_.ruler.bottom();
    p.setPen(QPen(c.brass, 1.6));
    p.drawLine(QPointF(x, y + 12), QPointF(x, only() ? map_.plan.bottom() : map_.strip.bottom() + 6));
    p.setBrush(c.brass);
    p.setPen(QPen(c.brass_dark, 1));
    p.drawRoundedRect(QRectF(x - 32, y + 1, 64, 12), 1.5, 1.5);
    p.setBrush(c.slip);
    p.setPen(Qt::NoPen);
    for (const double d : {-22.0, 22.0}) p.drawEllipse(QPointF(x + d, y + 7), 2, 2);
    const QString text = in_units(along(map_.gauge_mm), session_);
    p.setFont(theme::figures(10));
    const double w = std::max(64.0, QFontMetricsF(p.font()).horizontalAdvance(text) + 14);
    const double tall = theme::grown(22);
    const QRectF label(x - w / 2, y - 2 - tall, w, tall);
    p.setBrush(c.slip);
    p.setPen(QPen(c.brass, 1));
    p.drawRoundedRect(label, 2, 2);
    p.setPen(c.ink);
    p.drawText(label, Qt::AlignCenter, text);
}

void Bench::draw_handles(QPainter& p) {
    if (!hasFocus() && hover_.isEmpty()) return;
    const auto& c = theme::colours();
    for (const Handle& h : view_->handles(map_, session_)) {
        const bool picked = hasFocus() && h.name == picked_;
        if (!picked && h.name != hover_) continue;
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(picked ? c.brass : c.chalk, picked ? 2.2 : 1.4, picked ? Qt::SolidLine : Qt::DotLine));
        p.drawPolygon(h.area);
    }
}

void Bench::draw_outline(std::function<void(Ring)> done, bool line) {
    if (!drawn_) plan_only_before_ = plan_only_;
    drawn_ = std::move(done);
    drawn_line_ = line;
    points_.clear();
    set_plan_only(true);  // all the room for the hand
    setFocus();
    Q_EMIT say(line
                   ? tr("Paint along it with the button held, or click from point to point. Enter or a double click ends it, Esc drops it.")
                   : tr("Paint around it with the button held, or click from point to point. Enter or a double click closes it, Backspace "
                        "takes a point back, Esc drops it."));
    update();
}

void Bench::draw_outline_so_far(QPainter& p) {
    if (!drawn_) return;
    const auto& c = theme::colours();
    QPolygonF line = map_.px(points_);
    for (const QPointF& q : line) {
        p.setBrush(c.chalk);
        p.setPen(Qt::NoPen);
        p.drawEllipse(q, 3.5, 3.5);
    }
    if (!points_.empty()) line << mouse_;
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.chalk, 1.6, Qt::DashLine));
    p.drawPolyline(line);
}

void Bench::finish_outline() {
    if (points_.size() < (drawn_line_ ? 2U : 3U)) {
        Q_EMIT say(drawn_line_ ? tr("A line needs two points at least. Click another.")
                               : tr("An outline needs three points at least. Click another."));
        return;
    }
    const auto done = std::exchange(drawn_, nullptr);
    Q_EMIT say({});
    done(std::exchange(points_, {}));
    set_plan_only(plan_only_before_);
}

const Handle* Bench::handle_at(const std::vector<Handle>& all, QPointF p) const {
    for (auto it = all.rbegin(); it != all.rend(); ++it)
        if (it->area.containsPoint(p, Qt::OddEvenFill)) return &*it;
    return nullptr;
}

void Bench::mousePressEvent(QMouseEvent* e) {
    const Plan* plan = session_.plan();
    if (e->button() != Qt::LeftButton || !plan || plan->shape.ring_a.empty() || !view_) return;
    const QPointF at = e->position();
    if (drawn_) {
        if (!drawn_line_ && points_.size() > 2 && QLineF(map_.px(points_.front()), at).length() < 9) return finish_outline();
        points_.push_back(map_.mm_at(at));
        painted_from_ = points_.size();
        return update();
    }
    for (const auto& [place, d] : dimensions_)
        if (place.containsPoint(at, Qt::OddEvenFill)) return open_editor(d.field, place.boundingRect().center());
    moved_ = false;
    from_ = map_.mm_at(at);
    const QRectF brass(map_.px(map_.gauge_mm) - 36, map_.ruler.top() - 4, 72, 54);
    const auto all = view_->handles(map_, session_);
    if (brass.contains(at) || map_.ruler.adjusted(0, -20, 0, 16).contains(at)) {
        held_gauge_ = true;
        session_.set_gauge(from_.x);
    } else if (const Handle* h = handle_at(all, at)) {
        held_ = *h;
        picked_ = h->name;
        setCursor(Qt::ClosedHandCursor);
        update();
    } else {
        picked_.clear();
        if (map_.strip.contains(at) || map_.end.contains(at) || map_.plan.contains(at)) session_.set_gauge(from_.x);
        update();
    }
}

void Bench::mouseMoveEvent(QMouseEvent* e) {
    mouse_ = e->position();
    if (drawn_) {
        // Painting: a point every few pixels while the button is held.
        if ((e->buttons() & Qt::LeftButton) && !points_.empty() && QLineF(map_.px(points_.back()), mouse_).length() > 4)
            points_.push_back(map_.mm_at(mouse_));
        return update();
    }
    if (held_gauge_) return session_.set_gauge(map_.mm_at(mouse_.x()));
    if (held_) {
        const Vec2 to = map_.mm_at(mouse_);
        if (!moved_ && length(to - from_) * map_.scale < 2) return;
        moved_ = true;
        held_->drag(session_, from_, to);
        return;
    }
    if (!session_.plan() || !view_) return;
    for (const auto& [place, d] : dimensions_)
        if (place.containsPoint(mouse_, Qt::OddEvenFill)) {
            setCursor(Qt::IBeamCursor);
            setToolTip(tr("%1: click and type (G)").arg(d.field.label));
            return;
        }
    const auto all = view_->handles(map_, session_);
    const Handle* h = handle_at(all, mouse_);
    const QString name = h ? h->name : QString();
    setCursor(h ? h->cursor : Qt::ArrowCursor);
    if (name != hover_) {
        hover_ = name;
        setToolTip(h ? tr("%1: drag, or [ ] to pick and arrows to move").arg(h->name) : QString());
        update();
    }
}

void Bench::mouseReleaseEvent(QMouseEvent*) {
    if (drawn_ && points_.size() >= painted_from_ + 5) return finish_outline();  // it was painted, not clicked
    held_gauge_ = false;
    if (held_ && moved_) session_.keep(held_->label);
    held_.reset();
    setCursor(Qt::ArrowCursor);
}

void Bench::mouseDoubleClickEvent(QMouseEvent* e) {
    if (drawn_) finish_outline();
    else mousePressEvent(e);
}

void Bench::nudge(Vec2 by, double turn) {
    const auto all = view_->handles(map_, session_);
    const auto it = std::find_if(all.begin(), all.end(), [&](const Handle& h) { return h.name == picked_; });
    if (it == all.end()) return;
    if (turn != 0) {
        if (!it->turn) return;
        it->turn(session_, turn);
    } else {
        it->drag(session_, it->at, it->at + by);
    }
    session_.keep(it->label);
}

void Bench::keyPressEvent(QKeyEvent* e) {
    if (drawn_) {
        if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) return finish_outline();
        if (e->key() == Qt::Key_Backspace && !points_.empty()) points_.pop_back();
        if (e->key() == Qt::Key_Escape) {
            drawn_ = nullptr;
            points_.clear();
            set_plan_only(plan_only_before_);
            Q_EMIT say({});
        }
        return update();
    }
    if (!view_ || !session_.plan()) return QWidget::keyPressEvent(e);
    const auto all = view_->handles(map_, session_);
    if ((e->key() == Qt::Key_BracketRight || e->key() == Qt::Key_BracketLeft) && !all.empty()) {
        const auto it = std::find_if(all.begin(), all.end(), [&](const Handle& h) { return h.name == picked_; });
        const auto n = static_cast<std::ptrdiff_t>(all.size());
        std::ptrdiff_t i = it == all.end() ? -1 : it - all.begin();
        i = e->key() == Qt::Key_BracketRight ? (i + 1) % n : (i <= 0 ? n - 1 : i - 1);
        picked_ = all[static_cast<std::size_t>(i)].name;
        Q_EMIT say(tr("%1 is picked. Arrows move it, Shift for ten times, Ctrl with left or right turns it.").arg(picked_));
        return update();
    }
    const double step = session_.units().metric_length() ? 1 : 25.4 / 16;
    const double k = e->modifiers() & Qt::ShiftModifier ? 10 * step : step;
    const bool turning = e->modifiers() & Qt::ControlModifier;
    const double degrees = e->modifiers() & Qt::ShiftModifier ? 1 : 0.1;
    if (picked_.isEmpty()) return QWidget::keyPressEvent(e);
    switch (e->key()) {
        case Qt::Key_Left: return nudge({-k, 0}, turning ? degrees : 0);
        case Qt::Key_Right: return nudge({k, 0}, turning ? -degrees : 0);
        case Qt::Key_Up: return nudge({0, k}, 0);
        case Qt::Key_Down: return nudge({0, -k}, 0);
        case Qt::Key_Escape: picked_.clear(); return update();
        default: QWidget::keyPressEvent(e);
    }
}

void Bench::wheelEvent(QWheelEvent* e) {
    session_.set_gauge(session_.gauge_mm() - e->angleDelta().y() / 8.0);
    e->accept();
}

}  // namespace yb
