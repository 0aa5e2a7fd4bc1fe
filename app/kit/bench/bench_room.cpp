// How the bench shares its room between plan, strip and end view, and where the slab lies in it.
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

void Bench::resizeEvent(QResizeEvent*) {
    lay_out();
    touch();
}

void Bench::lay_out() {
    if (session_.previewing() && map_.scale > 0 && whole_before_ == session_.whole()) {
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
        std::array<double, 4> e{shape->x0, shape->x1, std::min(a.low.y, b.low.y), std::max(a.high.y, b.high.y)};
        // A top that sticks out of the wood is seen whole, unless it lies far away from it.
        if (session_.job() && session_.step() != step_key::rack && !plan.lay->rectangle.empty()) {
            const Box top = bounds(plan.lay->rectangle);
            const double l = shape->x1 - shape->x0;
            const double w = e[3] - e[2];
            e[0] = std::max(e[0] - 0.6 * l, std::min(e[0], top.low.x)), e[1] = std::min(e[1] + 0.6 * l, std::max(e[1], top.high.x));
            e[2] = std::max(e[2] - 0.6 * w, std::min(e[2], top.low.y)), e[3] = std::min(e[3] + 0.6 * w, std::max(e[3], top.high.y));
        }
        return e;
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

}  // namespace yb
