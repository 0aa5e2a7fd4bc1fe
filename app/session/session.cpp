#include "app/session/session.h"

#include <algorithm>

namespace yb {

Session::Session(QObject* parent) : QObject(parent) {}

void Session::open(const QString& path) {
    Store store = Store::open(path.toStdString());
    store_.emplace(std::move(store));
    settle();
}

void Session::create(const QString& path, const Documents& documents) {
    Store store = Store::create(path.toStdString(), documents, "New shop");
    store_.emplace(std::move(store));
    settle();
}

void Session::show_only(const Documents& documents, const QString& from) {
    store_.reset();
    docs_ = documents;
    from_ = from;
    settle();
}

QString Session::path() const { return store_ ? QString::fromStdString(store_->path()) : from_; }

void Session::settle() {
    if (store_) docs_ = store_->documents();
    open_ = true;
    unsaved_ = false;
    forget_preview();
    looked_at_.clear();
    job_id_ = docs_.jobs.empty() ? "" : docs_.jobs.begin()->first;
    for (const auto& [id, j] : docs_.jobs)
        if (!j.start.empty() && j.start < docs_.jobs[job_id_].start) job_id_ = id;
    replan();
    if (plan_ && plan_->shape.usable) gauge_mm_ = (plan_->shape.x0 + plan_->shape.x1) / 2;
    Q_EMIT opened();
    Q_EMIT changed();
    Q_EMIT gauge_moved();
}

const Job* Session::job() const {
    if (shown_) return &*shown_;
    const auto it = docs_.jobs.find(job_id_);
    return it == docs_.jobs.end() ? nullptr : &it->second;
}

const Slab* Session::slab() const {
    if (shown_slab_) return &*shown_slab_;
    const Job* j = job();
    const std::string& id = step_ == Step::rack && !looked_at_.empty() ? looked_at_ : j && !j->slab.empty() ? j->slab : looked_at_;
    const auto it = docs_.slabs.find(id);
    return it == docs_.slabs.end() ? nullptr : &it->second;
}

void Session::replan() {
    const Slab* s = slab();
    if (!s) {
        plan_.reset();
        return;
    }
    const Job* j = job();
    // A slab that is only looked at lies as it was measured.
    const bool own = j && j->slab == s->id;
    const Job& use = own ? *j : none_;
    if (!prepared_ || !(prepared_for_ == *s) || prepared_over_ != use.placement.turned_over) {
        prepared_for_ = *s;
        prepared_over_ = use.placement.turned_over;
        prepared_ = prepare(*s, prepared_over_);
        ++slab_version_;
    }
    plan_ = plan_job(use, *prepared_, docs_.shop);
}

void Session::set_step(Step step) {
    if (step == step_) return;
    step_ = step;
    forget_preview();
    replan();
    Q_EMIT step_changed();
    Q_EMIT changed();
}

void Session::set_job(const QString& id) {
    if (!docs_.jobs.count(id.toStdString())) return;
    job_id_ = id.toStdString();
    looked_at_.clear();
    forget_preview();
    replan();
    if (plan_ && plan_->shape.usable) set_gauge((plan_->shape.x0 + plan_->shape.x1) / 2);
    Q_EMIT changed();
}

void Session::look_at(const QString& slab_id) {
    if (!docs_.slabs.count(slab_id.toStdString())) return;
    looked_at_ = slab_id.toStdString();
    shown_slab_.reset();
    replan();
    Q_EMIT changed();
}

void Session::set_gauge(double x) {
    if (plan_ && !plan_->shape.ring_a.empty()) x = std::clamp(x, plan_->shape.x0, plan_->shape.x1);
    if (x == gauge_mm_) return;
    gauge_mm_ = x;
    Q_EMIT gauge_moved();
}

bool Session::write(const QString& label) {
    if (!store_) {
        Q_EMIT trouble(tr("This is what could be read of %1; it can't be changed here. File ▸ Save a copy makes a shop of it.").arg(from_));
        return false;
    }
    try {
        store_->append(label.toStdString(), docs_);
        unsaved_ = false;
        return true;
    } catch (const StoreError& e) {
        unsaved_ = true;
        unsaved_label_ = label;
        Q_EMIT trouble(QString::fromStdString(e.what()));
        return false;
    }
}

void Session::edit(const QString& label, const std::function<void(Documents&)>& change) {
    if (!open_) return;
    Documents next = docs_;
    change(next);
    if (next == docs_ && !unsaved_) return;
    if (!store_) {
        write(label);
        Q_EMIT changed();
        return;
    }
    docs_ = std::move(next);
    if (!docs_.jobs.count(job_id_)) job_id_ = docs_.jobs.empty() ? "" : docs_.jobs.begin()->first;
    write(label);
    forget_preview();
    replan();
    Q_EMIT changed();
}

void Session::edit_job(const QString& label, const std::function<void(Job&)>& change) {
    if (!docs_.jobs.count(job_id_)) return;
    edit(label, [&](Documents& d) { change(d.jobs[job_id_]); });
}

void Session::edit_slab(const QString& label, const std::function<void(Slab&)>& change) {
    const Slab* s = slab();
    if (!s) return;
    const std::string id = s->id;
    edit(label, [&](Documents& d) { change(d.slabs[id]); });
}

void Session::preview(const std::function<void(Job&)>& change) {
    const auto it = docs_.jobs.find(job_id_);
    if (it == docs_.jobs.end()) return;
    Job j = it->second;
    change(j);
    shown_ = std::move(j);
    replan();
    Q_EMIT changed();
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

void Session::keep(const QString& label) {
    const auto j = shown_;
    const auto s = shown_slab_;
    if (!j && !s) return;
    edit(label, [&](Documents& d) {
        if (j) d.jobs[j->id] = *j;
        if (s) d.slabs[s->id] = *s;
    });
    drop_preview();
}

void Session::forget_preview() {
    shown_.reset();
    shown_slab_.reset();
}

void Session::drop_preview() {
    if (!previewing()) return;
    forget_preview();
    replan();
    Q_EMIT changed();
}

QString Session::undo_label() const { return can_undo() ? QString::fromStdString(store_->undo_label()) : QString(); }
QString Session::redo_label() const { return can_redo() ? QString::fromStdString(store_->redo_label()) : QString(); }

void Session::undo() {
    if (can_undo()) walk(&Store::undo);
}

void Session::redo() {
    if (can_redo()) walk(&Store::redo);
}

void Session::walk(void (Store::*way)()) {
    try {
        ((*store_).*way)();
        docs_ = store_->documents();
    } catch (const StoreError& e) {
        Q_EMIT trouble(QString::fromStdString(e.what()));
    }
    forget_preview();
    replan();
    Q_EMIT changed();
}

void Session::try_again() {
    if (unsaved_ && write(unsaved_label_)) Q_EMIT changed();
}

void Session::save_copy(const QString& path) {
    // What the file would not take has to be in the copy too.
    if (store_ && !unsaved_) store_->save_copy(path.toStdString());
    else Store::create(path.toStdString(), docs_, "Saved from memory");
}

}  // namespace yb
