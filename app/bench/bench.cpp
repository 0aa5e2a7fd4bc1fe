#include "app/bench/bench.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QWheelEvent>

#include <algorithm>
#include <array>
#include <cmath>

#include "app/session/pictures.h"
#include "app/slip/measure_field.h"
#include "app/theme/theme.h"
#include "core/lay/lay.h"
#include "core/makeup/makeup.h"
#include "core/slab/slab.h"

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
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        if (!key.isEmpty() && !shows_picture(key.toStdString())) return;  // one of the rack's: nothing here looks other
        ++pictures_version_;
        tops_.forget();
        update();
    });
    connect(&session, &Session::gauge_moved, this, [this] {
        map_.gauge_mm = session_.gauge_mm();
        update();
    });
}

bool Bench::shows_picture(const std::string& key) const {
    const auto is = [&](const Slab* s) {
        return s && ((s->picture_a && s->picture_a->key == key) || (s->picture_b && s->picture_b->key == key));
    };
    if (is(session_.slab())) return true;
    if (!session_.leaves()) return false;
    const std::vector<Leaf>& leaves = *session_.leaves();
    const std::vector<Patch>& patches = session_.makeup()->patches;
    const auto& slabs = session_.slabs();
    const auto is_named = [&](const std::string& id) {
        const auto it = slabs.find(id);
        return it != slabs.end() && is(&it->second);
    };
    return std::any_of(leaves.begin(), leaves.end(), [&](const Leaf& l) { return is_named(l.slab); }) ||
           std::any_of(patches.begin(), patches.end(), [&](const Patch& q) { return is_named(q.slab); });
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
    if (session_.whole() && session_.previewing() && map_.scale > 0 && whole_before_) {
        map_.gauge_mm = session_.gauge_mm();
        return;  // nothing jumps under the hand
    }
    const double w = width();
    const double h = height();
    const double left = 56;
    const double right = 40;
    const double grown = theme::grown(26) - 26;  // room that larger text needs
    map_.ruler = {left, 26 + grown, w - left - right, 26};
    const double top = 78 + grown;
    const double below = only() ? 12 : std::clamp(h * 0.36, 150.0, 260.0);
    map_.plan = {left, top, w - left - right, std::max(60.0, h - top - below)};
    map_.end_on_edge = false;
    const double strip_top = map_.plan.bottom() + 26 + grown;
    const double each = std::max(30.0, (h - strip_top - 48) / 2);
    map_.strip = {left, strip_top, w - left - right, each * 0.86};
    map_.end = {left, map_.strip.bottom() + 30 + grown, w - left - right, std::max(30.0, h - map_.strip.bottom() - 42 - grown)};
    map_.gauge_mm = session_.gauge_mm();
    const Plan* plan = session_.plan();
    if (!plan || !plan->drawable()) return;
    whole_before_ = session_.whole();
    const auto [x0, x1, y0, y1] = extent();
    const double length = std::max(1.0, x1 - x0);
    const double room = 46;  // for dimensions beside the slab
    const double across = std::max(1.0, y1 - y0);
    const auto scale_of = [&](const QRectF& r) { return std::min(r.width() / length, std::max(20.0, r.height() - room) / across); };
    map_.scale = scale_of(map_.plan);
    map_.end_rise = view_ ? view_->end_rise() : 1;
    const double thickness = 95;
    // A squat top has the end view at its side, on edge on the same heights: the wood below it is worth more.
    if (!only() && view_ && !view_->end_upright()) {
        QRectF plan_beside = map_.plan;
        plan_beside.setHeight(std::max(60.0, h - top - 118 - 2 * grown));
        const double on_edge = 44 + std::min(150.0, thickness * map_.end_rise * scale_of(plan_beside));
        plan_beside.setWidth(map_.plan.width() - on_edge - 24);
        if (const double scale = scale_of(plan_beside); scale > 1.06 * map_.scale) {
            map_.end_on_edge = true;
            map_.plan = plan_beside;
            map_.scale = scale;
            map_.ruler.setWidth(map_.plan.width());
            map_.strip = {left, map_.plan.bottom() + 26 + grown, map_.plan.width(), h - map_.plan.bottom() - 26 - grown - 22};
            map_.end = {map_.plan.right() + 24, map_.plan.top(), on_edge, map_.plan.height()};
        }
    }
    // A slab shorter than the bench lies in its middle; stations still start where it does.
    const double spare = map_.plan.width() - length * map_.scale;
    map_.x0_mm = x0 - spare / 2 / map_.scale;
    map_.y_mid_mm = (y0 + y1) / 2;
    if (map_.end_on_edge) {
        map_.end_scale = map_.scale;
        map_.end_base_px = map_.end.left() + 30;
        return;
    }
    map_.end_scale = std::min(map_.end.width() * 0.72 / std::max(1.0, y1 - y0), map_.end.height() / (thickness * map_.end_rise));
    map_.end_base_px = map_.end.bottom() - 6;
}

/// What has to find room on the plan: the slab, or the whole top with all that its leaves reach beyond it.
std::array<double, 4> Bench::extent() const {
    const Plan& plan = *session_.plan();
    if (const SlabShape* shape = plan.shape()) {
        const Box a = bounds(shape->ring_a);
        const Box b = bounds(shape->ring_b);
        return {shape->x0, shape->x1, std::min(a.low.y, b.low.y), std::max(a.high.y, b.high.y)};
    }
    const Box top = bounds(plan.lay->outline);
    std::array<double, 4> e{plan.stations().from, plan.stations().to, top.low.y, top.high.y};
    const double half = session_.top()->length_mm / 2;
    for (const LeafPart& l : plan.makeup->leaves) {
        const Box k = bounds(l.show);
        // A leaf drawn far away does not make the rest too small to see.
        e[0] = std::max(-0.6 * half, std::min(e[0], k.low.x + half));
        e[1] = std::min(2.6 * half, std::max(e[1], k.high.x + half));
        e[2] = std::max(-1.5 * session_.top()->width_mm, std::min(e[2], k.low.y));
        e[3] = std::min(1.5 * session_.top()->width_mm, std::max(e[3], k.high.y));
    }
    return e;
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
    if (e->button() != Qt::LeftButton || !plan || !plan->drawable() || !view_) return;
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
        if (map_.strip.contains(at) || (!map_.end_on_edge && map_.end.contains(at)) || map_.plan.contains(at)) session_.set_gauge(from_.x);
        update();
    }
}

void Bench::contextMenuEvent(QContextMenuEvent* e) {
    if (!view_ || drawn_) return;
    if (e->reason() == QContextMenuEvent::Mouse) {
        // What lies under the hand is what it is about.
        const auto all = view_->handles(map_, session_);
        if (const Handle* h = handle_at(all, e->pos())) picked_ = h->name;
        if (map_.plan.contains(e->pos())) session_.set_gauge(map_.mm_at(QPointF(e->pos())).x);
        update();
    }
    auto* menu = new QMenu(this);
    menu->setObjectName("bench_menu");
    menu->setAttribute(Qt::WA_DeleteOnClose);
    for (const Action& a : view_->actions(session_)) {
        if (!a.enabled || a.strong) continue;
        QAction* one = menu->addAction(a.label, this, [run = a.run] { run(); });
        one->setObjectName(a.name);
        one->setToolTip(a.tip);
    }
    if (menu->isEmpty()) delete menu;
    else menu->popup(e->globalPos());
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
