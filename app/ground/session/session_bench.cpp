// What is looked at, picked, dragged: the bench's half of the session.
#include <algorithm>

#include "app/ground/session/session.h"
#include "core/shop/job/documents.h"

namespace yb {

void Session::follow_picked() {
    const Thing* t = picked_thing();
    if (!t || t->area.size() < 3 || t->kind == "leaf") return;
    const Box box = bounds(t->area);
    if (box.width() < 0.5 * (plan_->stations().to - plan_->stations().from)) set_gauge(centroid(t->area).x);
}

const Thing* Session::picked_thing() const {
    if (picked_.isEmpty()) return nullptr;
    const auto& all = things();
    const auto it = std::find_if(all.begin(), all.end(), [&](const Thing& t) { return t.key == picked_.toStdString(); });
    return it == all.end() ? nullptr : &*it;
}

QString Session::about() const {
    const Thing* t = picked_thing();
    return t && !t->figures.empty() ? QString::fromStdString(t->kind) : QStringLiteral("top");
}

void Session::pick(const QString& key) {
    const QString before = picked_;
    picked_ = key;
    const Thing* t = picked_thing();
    if (!t) picked_.clear();
    const int leaf = t && t->kind == "leaf" ? static_cast<int>(t->index) : leaf_;
    if (picked_ != before) Q_EMIT picked_changed();
    if (leaf != leaf_) set_leaf(leaf);
}

bool Session::pick_next(int by) {
    const auto& all = things();
    const int n = static_cast<int>(all.size());
    const Thing* t = picked_thing();
    // Where a leaf lies on the bench alone the hand is at it already.
    int now = t ? static_cast<int>(t - all.data()) : -1;
    if (now < 0 && by > 0 && n > 0 && all.front().kind == "leaf" && !whole()) now = leaf_;
    const int next = now < 0 ? (by > 0 ? 0 : n - 1) : now + by;
    const bool there = next >= 0 && next < n;
    pick(there ? QString::fromStdString(all[static_cast<std::size_t>(next)].key) : QString());
    follow_.start();
    return there;
}

void Session::set_leaf(int leaf) {
    const auto* all = leaves();
    if (!all || leaf < 0 || leaf >= static_cast<int>(all->size()) || leaf == leaf_) return;
    leaf_ = leaf;
    looked_at_.clear();
    forget_preview();
    if (whole()) return Q_EMIT picked_changed();  // the whole lies there as it lay
    replan();
    Q_EMIT changed();
}

void Session::set_step(Step step) {
    if (step == step_ || !find_step(step.key)) return;
    step_ = step;
    dial_.reset();
    picked_.clear();
    forget_preview();
    replan();
    Q_EMIT step_changed();
    Q_EMIT picked_changed();
    Q_EMIT changed();
}

void Session::set_job(const QString& id) {
    if (!job_names().count(id.toStdString())) return;
    job_id_ = id.toStdString();
    dial_.reset();
    leaf_ = 0;
    picked_.clear();
    looked_at_.clear();
    cost_from_.reset();
    Q_EMIT cost_told({});
    forget_preview();
    replan();
    if (plan_ && plan_->drawable()) set_gauge((plan_->stations().from + plan_->stations().to) / 2);
    Q_EMIT changed();
}

void Session::look_at(const QString& slab_id) {
    if (!docs_.slabs.count(slab_id.toStdString())) return;
    looked_at_ = slab_id.toStdString();
    picked_.clear();
    shown_slab_.reset();
    replan();
    Q_EMIT changed();
}

void Session::set_gauge(double x) {
    if (plan_ && plan_->drawable()) x = std::clamp(x, plan_->stations().from, plan_->stations().to);
    if (x == gauge_mm_) return;
    gauge_mm_ = x;
    Q_EMIT gauge_moved();
}

void Session::set_dial(std::optional<double> at) {
    if (at) at = std::clamp(*at, 0.0, 1.0);
    if (at == dial_) return;
    dial_ = at;
    Q_EMIT dial_moved();
}

void Session::preview_slab(const std::function<void(Slab&)>& change) {
    shown_slab_.reset();
    const Slab* s = slab();
    if (!s) return;
    Slab next = *s;
    change(next);
    shown_slab_ = std::move(next);
    replan();
    Q_EMIT changed();
}

void Session::drop_preview() {
    if (!previewing()) return;
    forget_preview();
    replan();
    Q_EMIT changed();
}

}  // namespace yb
