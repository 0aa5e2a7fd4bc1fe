#include "app/bench/bench.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QSettings>
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
        tops_.forget();
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

void Bench::resizeEvent(QResizeEvent*) {
    lay_out();
    touch();
}

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
    map_.ruler = {left, 14 + grown, w - left - right, 26};
    const double top = 66 + grown;
    const double below = h - top - (only() ? 12 : std::clamp(h * 0.36, 150.0, 260.0));  // of the plan, the end view below it
    const double beside = h - top - 84 - 2 * grown;                                     // … or at its side
    map_.plan = {left, top, w - left - right, std::max(60.0, below)};
    map_.end_on_edge = false;
    map_.gauge_mm = session_.gauge_mm();
    const Plan* plan = session_.plan();
    const bool drawn = plan && plan->drawable();
    const auto [x0, x1, y0, y1] = drawn ? extent() : std::array{0.0, 1.0, 0.0, 1.0};
    const double length = std::max(1.0, x1 - x0);
    const double across = std::max(1.0, y1 - y0);
    constexpr double room = 46;  // for dimensions beside the slab
    constexpr double thickness = 95;
    const auto scale_of = [&](const QRectF& r) { return std::min(r.width() / length, std::max(20.0, r.height() - room) / across); };
    map_.end_rise = view_ ? view_->end_rise() : 1;
    const auto on_edge = [&](double height) {
        return 44 + std::min(150.0, thickness * map_.end_rise * std::max(20.0, height - room) / across);
    };
    // A squat top has the end view at its side, on edge on the same heights: the wood below it is worth more.
    if (drawn && !only() && view_ && !view_->end_upright()) {
        const QRectF at_side(left, top, map_.plan.width() - on_edge(beside) - 24, std::max(60.0, beside));
        map_.end_on_edge = scale_of(at_side) > 1.06 * scale_of(map_.plan);
    }
    // Where the hand set a split it stays, as far as what it parts keeps some room.
    if (plan_share_ && !only()) map_.plan.setHeight(std::clamp(h * *plan_share_ - top, 60.0, std::max(60.0, h - top - 100 - 2 * grown)));
    else if (map_.end_on_edge) map_.plan.setHeight(std::max(60.0, beside));
    const double strip_top = map_.plan.bottom() + 26 + grown;
    const std::optional<double>& share = end_share_[map_.end_on_edge ? 1 : 0];
    if (map_.end_on_edge) {
        double wide = on_edge(map_.plan.height());
        if (share) {
            wide = std::clamp(*share, 0.08, 0.5) * map_.plan.width();
        } else {
            // What is nearly as wide as long leaves room beside it: its section is drawn thicker there, heights the taller.
            const double scale = scale_of({0, 0, map_.plan.width() - wide - 24, map_.plan.height()});
            const double spare = map_.plan.width() - 24 - wide - length * scale - 40;
            const double rises = std::clamp(std::floor((wide - 44 + spare) / (thickness * scale * map_.end_rise)), 1.0, 5.0);
            if (rises > 1) map_.end_rise *= rises, wide = 44 + thickness * map_.end_rise * scale;
        }
        map_.plan.setWidth(map_.plan.width() - wide - 24);
        map_.ruler.setWidth(map_.plan.width());
        map_.strip = {left, strip_top, map_.plan.width(), std::max(24.0, h - strip_top - 18)};
        map_.end = {map_.plan.right() + 24, top, wide, map_.plan.height()};
    } else {
        const double rest = std::max(60.0, h - strip_top - 48);
        map_.strip = {left, strip_top, map_.plan.width(),
                      rest * (1 - std::clamp(share.value_or(1 - (view_ ? view_->strip_share() : 0.43)), 0.2, 0.8))};
        map_.end = {left, map_.strip.bottom() + 30 + grown, map_.plan.width(), std::max(30.0, h - map_.strip.bottom() - 42 - grown)};
    }
    if (!drawn) return;
    whole_before_ = session_.whole();
    map_.scale = scale_of(map_.plan);
    // A slab shorter than the bench lies in its middle; stations still start where it does.
    map_.x0_mm = x0 - (map_.plan.width() - length * map_.scale) / 2 / map_.scale;
    map_.y_mid_mm = (y0 + y1) / 2;
    if (map_.end_on_edge) {
        map_.end_scale = map_.scale;
        map_.end_base_px = map_.end.left() + 30;
        return;
    }
    map_.end_scale = std::min(map_.end.width() * 0.72 / across, map_.end.height() / (thickness * map_.end_rise));
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

QRectF Bench::dial_line() const {
    if (only() || !view_ || !session_.plan() || !session_.plan()->drawable() || !view_->dial(session_)) return {};
    const double wide = theme::grown(120);
    const double right = map_.end_on_edge ? map_.strip.right() : width() - 24.0;
    return {right - wide, map_.strip.top() - theme::grown(16), wide, 1.0 * theme::grown(12)};
}

void Bench::turn_dial(double to_px) {
    const QRectF line = dial_line();
    if (line.width() > 0) session_.set_dial((to_px - line.left()) / line.width());
}

Bench::Split Bench::split_at(QPointF p) const {
    if (only() || drawn_ || !session_.plan() || !session_.plan()->drawable()) return Split::none;
    constexpr double near = 4;
    if (map_.end_on_edge && std::abs(p.x() - (map_.plan.right() + 12)) < near && p.y() > map_.plan.top() && p.y() < map_.plan.bottom())
        return Split::at_end;
    if (std::abs(p.y() - (map_.plan.bottom() + 5)) < near) return Split::below_plan;
    if (!map_.end_on_edge && std::abs(p.y() - (map_.strip.bottom() + 8)) < near) return Split::at_end;
    return Split::none;
}

void Bench::drag_split(Split which, QPointF to) {
    if (which == Split::below_plan) plan_share_ = std::clamp((to.y() - 5) / height(), 0.15, 0.95);
    else if (map_.end_on_edge) end_share_[1] = std::clamp((map_.end.right() - to.x() - 12) / (width() - 96.0), 0.08, 0.5);
    else end_share_[0] = std::clamp((height() - to.y() - 12) / std::max(60.0, height() - map_.strip.top() - 48), 0.2, 0.8);
    lay_out();
    touch();
}

void Bench::keep_splits() const {
    QSettings settings;
    for (const auto& [key, share] : {std::pair("bench/plan", plan_share_), std::pair("bench/end_below", end_share_[0]),
                                     std::pair("bench/end_beside", end_share_[1])}) {
        if (share) settings.setValue(key, *share);
        else settings.remove(key);
    }
}

void Bench::more_for_plan(bool more) {
    drag_split(Split::below_plan, {0, map_.plan.bottom() + 5 + (more ? 20 : -20)});
    keep_splits();
}

void Bench::share_room() {
    plan_share_.reset();
    end_share_ = {};
    keep_splits();
    lay_out();
    touch();
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
