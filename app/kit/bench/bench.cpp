#include "app/kit/bench/bench.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QSettings>
#include <QWheelEvent>

#include <algorithm>
#include <array>
#include <cmath>

#include "app/ground/session/pictures.h"
#include "app/ground/theme/theme.h"
#include "app/kit/fields/measure_field.h"
#include "core/material/slab/slab.h"
#include "core/steps/lay/lay.h"
#include "core/steps/makeup/makeup.h"

namespace yb {

Bench::Bench(Session& session, Pictures& pictures, QWidget* parent)
    : QWidget(parent), session_(session), pictures_(pictures), tops_(pictures) {
    setObjectName("bench");
    setAccessibleName(tr("Bench: plan, strip and end view"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAttribute(Qt::WA_OpaquePaintEvent);  // it paints every pixel itself
    const QSettings settings;
    const auto kept = [&](const char* key) {
        return settings.contains(key) ? std::optional(settings.value(key).toDouble()) : std::nullopt;
    };
    plan_share_ = kept("bench/plan");
    end_share_ = {kept("bench/end_below"), kept("bench/end_beside")};
    connect(&session, &Session::changed, this, [this] {
        lay_out();
        touch();
    });
    connect(&pictures, &Pictures::arrived, this, [this](const QString& key) {
        if (!key.isEmpty() && !shows_picture(key.toStdString())) return;  // one of the rack's: nothing here looks other
        ++pictures_version_;
        tops_.forget(key);
        touch();
    });
    connect(&session, &Session::picked_changed, this, [this] {
        if (!session_.picked().isEmpty() || !in_hand_whole_) picked_ = session_.picked();
        update();
    });
    connect(&session, &Session::dial_moved, this, &Bench::touch);
    connect(&session, &Session::gauge_moved, this, [this] {
        map_.gauge_mm = session_.gauge_mm();
        touch();
    });
}

bool Bench::shows_picture(const std::string& key) const {
    const auto is = [&](const Slab* s) {
        return s && ((s->picture_a && s->picture_a->key == key) || (s->picture_b && s->picture_b->key == key));
    };
    if (is(session_.slab())) return true;
    if (session_.skin() && session_.skin()->sample_picture == key) return true;
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
    touch();
}

void Bench::set_plan_only(bool only) {
    plan_only_ = only;
    Q_EMIT plan_only_changed(only);
    lay_out();
    touch();
}

bool Bench::only() const { return plan_only_ || height() < theme::grown(250); }

QPolygonF Bench::area_of(const Thing& t) const {
    QPolygonF area = map_.px(t.area);
    const QRectF box = area.boundingRect();
    constexpr double least = 16;
    if (box.width() >= least && box.height() >= least) return area;
    const QSizeF size = box.size().expandedTo({least, least});
    return QRectF(box.center() - QPointF(size.width() / 2, size.height() / 2), size);
}

namespace {
double size_of(const QPolygonF& area) {
    double twice = 0;
    for (int i = 0; i < area.size(); ++i) {
        const QPointF a = area[i];
        const QPointF b = area[(i + 1) % area.size()];
        twice += a.x() * b.y() - a.y() * b.x();
    }
    return std::abs(twice) / 2;
}
}  // namespace

const Thing* Bench::thing_at(QPointF p) const {
    const Thing* best = nullptr;
    double least = 0;
    for (const Thing& t : session_.things()) {
        if (t.area.size() < 3) continue;
        const QPolygonF area = area_of(t);
        if (!area.containsPoint(p, Qt::OddEvenFill)) continue;
        const double size = size_of(area);
        if (!best || size < least) best = &t, least = size;
    }
    return best;
}

void Bench::take(const QString& name) {
    in_hand_whole_ = true;
    session_.pick(name);
    in_hand_whole_ = false;
    picked_ = name;
    update();
}

void Bench::take_at(QPointF p, const Handle* h) {
    const Thing* t = map_.plan.adjusted(0, -10, 0, 10).contains(p) ? thing_at(p) : nullptr;
    if (t && (!h || size_of(area_of(*t)) < size_of(h->area))) return take(QString::fromStdString(t->key));
    take(h ? h->name : QString());
}

bool Bench::focusNextPrevChild(bool next) {
    if (hasFocus() && !drawn_ && !editor_ && session_.pick_next(next ? 1 : -1)) return true;
    return QWidget::focusNextPrevChild(next);
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
    if (const QRectF line = dial_line(); line.adjusted(-10, -7, 10, 7).contains(at)) {
        held_dial_ = true;
        return turn_dial(at.x());
    }
    if (held_split_ = split_at(at); held_split_ != Split::none) return;
    from_ = map_.mm_at(at);
    const QRectF brass(map_.px(map_.gauge_mm) - 36, map_.ruler.top() - 4, 72, 54);
    const auto all = view_->handles(map_, session_);
    if (brass.contains(at) || map_.ruler.adjusted(0, -20, 0, 16).contains(at)) {
        held_gauge_ = true;
        session_.set_gauge(from_.x);
    } else if (const Handle* h = handle_at(all, at)) {
        held_ = *h;  // let go where it is taken it is picked; moved, it shows what comes of that
        setCursor(Qt::ClosedHandCursor);
    } else if (const QString side = map_.end.contains(at) || map_.strip.contains(at) ? view_->side_thing(map_, session_, at) : QString();
               !side.isEmpty()) {
        take(side);
    } else {
        take_at(at, nullptr);
        if (map_.strip.contains(at) || (!map_.end_on_edge && map_.end.contains(at)) || map_.plan.contains(at)) session_.set_gauge(from_.x);
    }
}

void Bench::contextMenuEvent(QContextMenuEvent* e) {
    if (!view_ || drawn_) return;
    if (e->reason() == QContextMenuEvent::Mouse) {
        // What lies under the hand is what it is about.
        const auto all = view_->handles(map_, session_);
        take_at(e->pos(), handle_at(all, e->pos()));
        if (map_.plan.contains(e->pos())) session_.set_gauge(map_.mm_at(QPointF(e->pos())).x);
        update();
    }
    auto* menu = new QMenu(this);
    menu->setObjectName("bench_menu");
    menu->setAttribute(Qt::WA_DeleteOnClose);
    for (const Action& a : applying(view_->actions(session_), session_)) {
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
    if (held_split_ != Split::none) return drag_split(held_split_, mouse_);
    if (held_dial_) return turn_dial(mouse_.x());
    if (held_gauge_) return session_.set_gauge(map_.mm_at(mouse_.x()));
    if (held_) {
        const Vec2 to = map_.mm_at(mouse_);
        if (!moved_ && length(to - from_) * map_.scale < 2) return;
        moved_ = true;
        held_->drag(session_, from_, to);
        return;
    }
    if (!session_.plan() || !view_) return;
    if (dial_line().adjusted(-10, -7, 10, 7).contains(mouse_)) {
        setCursor(Qt::SizeHorCursor);
        setToolTip(tr("Drag it, or Page Up and Page Down"));
        return;
    }
    for (const auto& [place, d] : dimensions_)
        if (place.containsPoint(mouse_, Qt::OddEvenFill)) {
            setCursor(Qt::IBeamCursor);
            setToolTip(tr("%1: click and type (G)").arg(d.field.label));
            return;
        }
    const auto all = view_->handles(map_, session_);
    const Handle* h = handle_at(all, mouse_);
    if (const Split over = split_at(mouse_); over != Split::none) {
        setCursor(over == Split::at_end && map_.end_on_edge ? Qt::SplitHCursor : Qt::SplitVCursor);
        setToolTip(tr("Drag to share the room; a double click gives it back"));
        return;
    }
    const Thing* t = map_.plan.contains(mouse_) ? thing_at(mouse_) : nullptr;
    if (t && h && size_of(area_of(*t)) >= size_of(h->area)) t = nullptr;
    const QString name = t ? QString::fromStdString(t->key) : h ? h->name : QString();
    setCursor(h ? h->cursor : t ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (name != hover_) {
        hover_ = name;
        const QString spoken = t ? QString::fromStdString(yb::render(t->title, session_.units())) : name;
        setToolTip(h   ? tr("%1: drag, or Tab to pick and arrows to move").arg(spoken)
                   : t ? tr("%1: click, or Tab to pick").arg(spoken)
                       : QString());
        update();
    }
}

void Bench::mouseReleaseEvent(QMouseEvent*) {
    if (drawn_ && points_.size() >= painted_from_ + 5) return finish_outline();  // it was painted, not clicked
    held_gauge_ = held_dial_ = false;
    if (std::exchange(held_split_, Split::none) != Split::none) keep_splits();
    if (held_ && moved_) session_.keep(held_->label);
    else if (held_) take_at(map_.px(from_), &*held_);
    held_.reset();
    setCursor(Qt::ArrowCursor);
}

void Bench::mouseDoubleClickEvent(QMouseEvent* e) {
    if (drawn_) return finish_outline();
    if (split_at(e->position()) != Split::none) return share_room();
    mousePressEvent(e);
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
    if (const auto dial = view_->dial(session_); dial && (e->key() == Qt::Key_PageDown || e->key() == Qt::Key_PageUp)) {
        const double step = 1.0 / std::max(1, dial->stops);
        const bool on = e->key() == Qt::Key_PageDown;
        return session_.set_dial(session_.dial() ? *session_.dial() + (on ? step : -step) : on ? 0.0 : 1.0);
    }
    const auto all = view_->handles(map_, session_);
    if ((e->key() == Qt::Key_BracketRight || e->key() == Qt::Key_BracketLeft) && !all.empty()) {
        const auto it = std::find_if(all.begin(), all.end(), [&](const Handle& h) { return h.name == picked_; });
        const auto n = static_cast<std::ptrdiff_t>(all.size());
        std::ptrdiff_t i = it == all.end() ? -1 : it - all.begin();
        i = e->key() == Qt::Key_BracketRight ? (i + 1) % n : (i <= 0 ? n - 1 : i - 1);
        take(all[static_cast<std::size_t>(i)].name);
        Q_EMIT say(tr("%1 is picked. Arrows move it, Shift for ten times, Ctrl with left or right turns it.").arg(picked_));
        return;
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
        case Qt::Key_Escape: return take({});
        default: QWidget::keyPressEvent(e);
    }
}

void Bench::wheelEvent(QWheelEvent* e) {
    session_.set_gauge(session_.gauge_mm() - e->angleDelta().y() / 8.0);
    e->accept();
}

}  // namespace yb
