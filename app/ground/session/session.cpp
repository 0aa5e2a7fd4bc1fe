#include "app/ground/session/session.h"

#include <algorithm>

#include <QFile>
#include <QFileInfo>

#include "app/ground/session/whole_file.h"
#include "app/ground/slow/runner.h"
#include "core/files/store/check.h"
#include "core/ground/file/text.h"
#include "core/shop/days/season.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/mends.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/prepared.h"
#include "core/shop/job/things.h"
#include "core/shop/ways/costs.h"

namespace yb {

Session::Session(QObject* parent) : QObject(parent), all_(std::make_unique<Documents>()), docs_(*all_) {
    connect(&ready_, &ReadySlabs::finer, this, [this] {
        replan();
        Q_EMIT changed();
    });
    connect(&ready_, &ReadySlabs::trouble, this, &Session::trouble);
    beside_.setInterval(1500);
    connect(&beside_, &QTimer::timeout, this, &Session::look_beside);
    beside_.start();
    follow_.setSingleShot(true);
    follow_.setInterval(90);
    connect(&follow_, &QTimer::timeout, this, &Session::follow_picked);
    cost_soon_.setSingleShot(true);
    cost_soon_.setInterval(700);
    connect(&cost_soon_, &QTimer::timeout, this, &Session::tell_cost);
}
Session::~Session() = default;

void Session::open(const QString& path) {
    Store store = Store::open(path.toStdString());
    store_.emplace(std::move(store));
    book_.clear();
    settle();
    look_after();
}

void Session::create(const QString& path, const Documents& documents) {
    Store store = Store::create(path.toStdString(), documents, "New shop");
    store_.emplace(std::move(store));
    book_.clear();
    settle();
    look_after();
}

void Session::look_after() {
    run_beside(
        this,
        [this, path = store_->path(), make = !store_->read_only()](const Work& w) -> std::function<void()> {
            const Work quiet{{}, w.stop, 1};  // the interface keeps the other cores
            const CheckReport report = check_shop(path, quiet);
            if (report.ok) {
                if (make) backup_once_a_day(path, quiet);
                return {};
            }
            return [this, path, what = report.problems.front(), version = report.version] {
                if (!store_ || store_->path() != path || store_->newer()) return;
                Q_EMIT damaged(QString::fromStdString(what));
            };
        },
        [this](const QString& sentence) { Q_EMIT trouble(tr("The file could not be looked through: %1.").arg(sentence)); });
}

QString Session::why_read_only() const { return store_ ? QString::fromStdString(store_->why_read_only()) : QString(); }

QString Session::path() const { return store_ ? QString::fromStdString(store_->path()) : QString(); }

void Session::settle() {
    docs_ = store_->documents();
    open_ = true;
    unsaved_ = false;
    away_.reset();
    forget_preview();
    looked_at_.clear();
    leaf_ = 0;
    ready_.open(store_->path());
    // The one that began first of those that are still made.
    const std::vector<std::string> made = job_order(docs_);
    job_id_ = !made.empty() ? made.front() : docs_.jobs.empty() ? "" : docs_.jobs.begin()->first;
    for (const std::string& id : made)
        if (const std::string& start = docs_.jobs.at(id).start; !start.empty() && start < docs_.jobs.at(job_id_).start) job_id_ = id;
    replan();
    if (plan_ && plan_->drawable()) gauge_mm_ = (plan_->stations().from + plan_->stations().to) / 2;
    Q_EMIT opened();
    Q_EMIT changed();
    Q_EMIT gauge_moved();
}

const Job* Session::job() const {
    if (shown_) return shown_.get();
    const auto it = docs_.jobs.find(job_id_);
    return it == docs_.jobs.end() ? nullptr : &it->second;
}

const Shop& Session::shop() const { return docs_.shop; }
const std::map<std::string, Slab>& Session::slabs() const { return docs_.slabs; }

bool Session::uses(const std::string& slab) const { return job() && job()->uses(slab); }
const WantedTop* Session::top() const { return job() ? &job()->top : nullptr; }
const MakeUpChoices* Session::makeup() const { return job() ? &job()->makeup : nullptr; }
const JoinChoices* Session::join() const { return job() ? &job()->join : nullptr; }
const FillChoices* Session::fill() const { return job() ? &job()->fill : nullptr; }
const FlatChoices* Session::flat() const { return job() ? &job()->flat : nullptr; }
const UnderChoices* Session::under() const { return job() ? &job()->under : nullptr; }
const SkinChoices* Session::skin() const { return job() ? &job()->skin : nullptr; }
const Climate* Session::room() const { return job() ? &job()->room : nullptr; }
std::string Session::job_id() const { return job() ? job()->id : std::string(); }
QString Session::client() const { return job() ? QString::fromStdString(job()->client) : QString(); }
QString Session::first_day() const { return job() ? QString::fromStdString(job()->start) : QString(); }
bool Session::cuts_done() const { return job() && job()->cuts_done; }
const PourChoices* Session::pour() const { return job() ? &job()->pour : nullptr; }
const std::vector<Leaf>* Session::leaves() const { return job() ? &job()->leaves : nullptr; }

std::vector<CardStep> Session::card_steps(const std::string& card) const {
    const Job* j = job();
    return j && plan_ ? card_of(card, *j, *plan_, shop()) : std::vector<CardStep>();
}

const CardRun* Session::running(const std::string& card) const {
    const Job* j = job();
    const int i = j ? running_card(*j, card) : -1;
    return i >= 0 ? &j->runs[static_cast<std::size_t>(i)] : nullptr;
}

QString Session::job_name() const { return job() ? QString::fromStdString(job()->name) : QString(); }

std::map<std::string, QString> Session::job_names() const {
    std::map<std::string, QString> out;
    for (const auto& [id, j] : docs_.jobs)
        out[id] = j.way_of.empty() ? QString::fromStdString(j.name)
                                   : QStringLiteral("%1 · %2").arg(QString::fromStdString(j.name), QString::fromStdString(j.way));
    return out;
}

const Slab* Session::slab() const {
    if (shown_slab_) return &*shown_slab_;
    const Job* j = job();
    const auto leaf = [&]() -> const std::string& {
        static const std::string none;
        if (!j) return none;
        const auto i = static_cast<std::size_t>(std::clamp(leaf_, 0, static_cast<int>(j->leaves.size()) - 1));
        return j->leaves[i].slab;
    };
    const std::string& id = step_ == step_key::rack && !looked_at_.empty() ? looked_at_ : !leaf().empty() ? leaf() : looked_at_;
    const auto it = docs_.slabs.find(id);
    return it == docs_.slabs.end() ? nullptr : &it->second;
}

JobSlabs Session::made_ready(const Job& job) {
    JobSlabs slabs;
    for (const Leaf& l : job.leaves) {
        const auto it = docs_.slabs.find(l.slab);
        const Slab* slab_of = shown_slab_ && shown_slab_->id == l.slab ? &*shown_slab_ : it == docs_.slabs.end() ? nullptr : &it->second;
        static const Slab none;
        slabs.leaves.push_back(ready_.get(slab_of ? *slab_of : none, l.placement.turned_over));
    }
    for (const Patch& p : job.makeup.patches) {
        const auto it = docs_.slabs.find(p.slab);
        slabs.patches.push_back(it == docs_.slabs.end() ? nullptr : ways_of(*ready_.get(it->second, false)));
    }
    return slabs;
}

std::optional<Plan> Session::plan_of_whole() {
    if (!job()) return {};
    if (plan_ && plan_->on_bench == whole_top && uses(plan_->slab() ? plan_->slab()->id : job()->first().slab)) return plan_;
    return plan_job(*job(), made_ready(*job()), docs_.shop, {whole_top, {}, nullptr});
}

void Session::replan() {
    things_.reset();
    const Slab* s = slab();
    const Job* j = job();
    if (!s && !(j && j->several())) {
        plan_.reset();
        return;
    }
    ready_.begin();
    std::shared_ptr<const PreparedSlab> before = on_bench_;
    const int bench_before = plan_ ? plan_->on_bench : whole_top;
    // A slab that is only looked at lies as it was measured, and has no top to plan.
    const bool own = j && (!s || j->uses(s->id));
    if (!own) {
        static const Job none;
        on_bench_ = ready_.get(*s, none.first().placement.turned_over);
        plan_ = plan_job(none, JobSlabs{{on_bench_}}, docs_.shop, {.slab_alone = true});
    } else {
        const JobSlabs slabs = made_ready(*j);
        int on_bench = whole_top;
        for (std::size_t i = 0; i < j->leaves.size(); ++i)
            if (step_ == step_key::rack && j->several() && s && j->leaves[i].slab == s->id) on_bench = static_cast<int>(i);
        if (j->several() && step_ != step_key::rack && row_of(step_).on == StepRow::On::leaf)
            on_bench = std::clamp(leaf_, 0, static_cast<int>(j->leaves.size()) - 1);
        on_bench_ = slabs.leaves[static_cast<std::size_t>(std::max(0, on_bench))];
        plan_ = plan_job(*j, slabs, docs_.shop, {on_bench, previewing() ? std::optional(step_) : std::nullopt, plan_ ? &*plan_ : nullptr});
    }
    ready_.end();
    if (on_bench_ != before || plan_->on_bench != bench_before) ++slab_version_;
    // On another, shorter slab the gauge stands on the wood.
    if (const Span1 at = plan_->stations(); !previewing() && plan_->drawable() && (gauge_mm_ < at.from || gauge_mm_ > at.to))
        gauge_mm_ = (at.from + at.to) / 2;
}

void Session::mind(const StoreError& e) {
    const bool gone = e.kind() == StoreError::Kind::gone || e.kind() == StoreError::Kind::replaced;
    const bool known = gone && away_ == e.kind();
    if (gone) away_ = e.kind();
    if (!known) Q_EMIT trouble(QString::fromStdString(e.what()));
}

Session::Written Session::write(const QString& label) {
    const auto held = [&] {
        unsaved_ = true;
        unsaved_label_ = label;
        return Written::held;
    };
    try {
        if (store_->append(label.toStdString(), docs_)) {
            docs_ = store_->documents();
            Q_EMIT news(tr("Another program works on this shop too; what it changed is here now, with yours."));
        }
        unsaved_ = false;
        away_.reset();
        return Written::yes;
    } catch (const StoreError& e) {
        if (e.kind() == StoreError::Kind::unwritable) {
            Q_EMIT trouble(QString::fromStdString(e.what()));
            return Written::refused;
        }
        away_.reset();  // so that it is said again: something was typed meanwhile
        mind(e);
        return held();
    } catch (const std::exception& e) {
        Q_EMIT trouble(tr("The file did not take it (%1). Nothing typed is lost here: try again, or save a copy.")
                           .arg(QString::fromStdString(sentence_of(e))));
        return held();
    }
}

QString Session::write_book(BookEntry e) {
    if (!store_) return tr("No shop is open.");
    for (std::string* text : {&e.what, &e.value, &e.unit, &e.of}) *text = plain_text(*text);
    if (e.job.empty()) e.job = job_id_;
    try {
        store_->write(e);
    } catch (const StoreError& wrong) {
        mind(wrong);
        Q_EMIT changed();
        return QString::fromStdString(wrong.what());
    }
    Q_EMIT book_written();
    return {};
}

bool Session::edit(const QString& label, const std::function<void(Documents&)>& change) {
    if (!open_) return false;
    Documents next = docs_;
    try {
        change(next);
    } catch (const Refusal& e) {
        Q_EMIT trouble(tr("It stays as it was: %1.").arg(QString::fromStdString(render(e.says, units()))));
        Q_EMIT changed();  // what was chosen or typed shows what holds
        return false;
    }
    if (next == docs_ && !unsaved_) return true;
    if (!job_id_.empty() && docs_.jobs.count(job_id_) && !cost_from_) cost_from_ = std::make_unique<Documents>(alone(job_id_));
    std::swap(docs_, next);
    const bool held_before = unsaved_;
    if (write(label) == Written::refused) {
        docs_ = std::move(next);
        unsaved_ = held_before;
        Q_EMIT changed();
        return false;
    }
    cost_soon_.start();
    if (!docs_.jobs.count(job_id_)) job_id_ = docs_.jobs.empty() ? "" : docs_.jobs.begin()->first;
    forget_preview();
    replan();
    if (!picked_.isEmpty() && !picked_thing()) pick({});  // it went
    Q_EMIT changed();
    return true;
}

bool Session::edit_shop(const QString& label, const std::function<void(Shop&)>& change) {
    return edit(label, [&](Documents& d) { change(d.shop); });
}

bool Session::edit_job(const QString& label, const std::function<void(Job&)>& change) {
    if (!docs_.jobs.count(job_id_)) return false;
    return edit(label, [&](Documents& d) { change(d.jobs[job_id_]); });
}

bool Session::edit_slab(const QString& label, const std::function<void(Slab&)>& change) {
    const Slab* s = slab();
    if (!s) return false;
    const std::string id = s->id;
    return edit(label, [&](Documents& d) { change(d.slabs[id]); });
}

bool Session::edit_leaf(const QString& label, const std::function<void(Leaf&)>& change) {
    return edit_job(
        label, [&](Job& j) { change(j.leaves[static_cast<std::size_t>(std::clamp(leaf_, 0, static_cast<int>(j.leaves.size()) - 1))]); });
}

void Session::turn(bool over) {
    double v = 0;
    if (whole()) {
        const Ring& part = plan_->makeup->leaves[static_cast<std::size_t>(std::max(0, leaf_))].part;
        if (part.size() > 2) v = centroid(part).y;
    }
    edit_job(over ? tr("Turn over") : tr("End for end"), [&](Job& j) { over ? turn_over(j, leaf_, v) : end_for_end(j, leaf_, v); });
}

std::vector<Slab> Session::slabs_of(const std::vector<std::string>& ids) const {
    std::vector<Slab> out;
    for (const std::string& id : ids)
        if (const auto it = docs_.slabs.find(id); it != docs_.slabs.end()) out.push_back(it->second);
    return out;
}

void Session::make_up(const QString& label, MakeUp kind, const std::vector<std::string>& ids) {
    const auto slabs = slabs_of(ids);
    if (edit_job(label, [&](Job& j) { yb::make_up(j, kind, slabs); })) leaf_ = 0;
}

void Session::new_job() {
    const Slab* chosen = slab();
    if (!chosen) return;
    std::string id;
    edit(tr("New job"),
         [&, on = *chosen](Documents& d) { id = add_job_on(d, on, QDate::currentDate().toString(Qt::ISODate).toStdString()); });
    set_job(QString::fromStdString(id));
    set_step(step_key::lay);
}

void Session::choose(const QString& label, const std::string& choice, const std::string& option) {
    edit_job(label, [&](Job& j) { take_choice(j, docs_.slabs, choice, option, leaf_); });
}

/// What a job's plan is made of, and no more: a shop can hold hundreds of slabs.
Documents Session::alone(const std::string& id) const {
    Documents of;
    of.shop = docs_.shop;
    const Job& job = docs_.jobs.at(id);
    of.jobs[id] = job;
    for (const std::string& slab : job.slabs())
        if (const auto it = docs_.slabs.find(slab); it != docs_.slabs.end()) of.slabs[slab] = it->second;
    return of;
}

std::shared_ptr<Running> Session::look_for_costs(const std::string& choice, QObject* owner,
                                                 std::function<void(std::vector<ChoiceCost>)> came) const {
    if (!plan_ || !plan_->drawable() || job_id_.empty() || !docs_.jobs.count(job_id_) || previewing()) return {};
    return run_beside(
        owner,
        [of = alone(job_id_), id = job_id_, step = step_, choice, came](const Work& w) -> std::function<void()> {
            const Plan whole = plan_job(of.jobs.at(id), of);
            auto found = choice_costs(of, id, whole, step, w, choice);
            return [came, found = std::move(found)] { came(found); };
        },
        [](const QString&) {});
}

std::shared_ptr<Running> Session::look_for_mend(const Caution& caution, QObject* owner,
                                                std::function<void(std::optional<Mend>)> came) const {
    if (!plan_ || job_id_.empty() || read_only()) return {};
    Documents of = alone(job_id_);
    return run_beside(
        owner,
        [caution, of = std::move(of), id = job_id_, plan = *plan_, came](const Work& w) -> std::function<void()> {
            return [came, mend = mend_of(caution, of, id, plan, w)] { came(mend); };
        },
        [came](const QString&) { came({}); });
}

void Session::mend(const Mend& mend) {
    edit(QString::fromStdString(render(mend.label, units())), [&](Documents& d) { mended(d, job_id_, mend); });
}

bool Session::still_open(const Begun& where, const QString& what) {
    if (open_ && where.shop == path()) return true;
    Q_EMIT news(tr("%1: begun in another shop, and left. Open that one and begin it there again.").arg(what));
    return false;
}

bool Session::edit_begun(const Begun& where, const QString& label, const std::function<void(Job&)>& change) {
    if (!still_open(where, label)) return false;
    if (!docs_.jobs.count(where.job)) {
        Q_EMIT news(tr("%1: the job it was begun for is gone; nothing was changed.").arg(label));
        return false;
    }
    return edit(label, [&](Documents& d) { change(d.jobs.at(where.job)); });
}

QString Session::undo_label() const { return can_undo() ? QString::fromStdString(store_->undo_label()) : QString(); }
QString Session::redo_label() const { return can_redo() ? QString::fromStdString(store_->redo_label()) : QString(); }

void Session::undo() {
    if (can_undo()) walk(&Store::undo);
}

void Session::redo() {
    if (can_redo()) walk(&Store::redo);
}

void Session::look_beside() {
    if (!store_ || previewing()) return;
    if (unsaved_ && !away_) return;  // it is tried again by hand
    const bool was_away = away();
    try {
        // Put back, it is taken for what it was: what was typed meanwhile is written.
        const bool moved_on = store_->changed_beside();
        if (was_away) {
            away_.reset();
            Q_EMIT news(tr("The shop's file is back."));
            if (unsaved_) return try_again();
        }
        if (!moved_on || !store_->catch_up()) {
            if (was_away) Q_EMIT changed();
            return;
        }
        docs_ = store_->documents();
        Q_EMIT news(tr("Another program works on this shop too; what it changed is here now."));
    } catch (const StoreError& e) {
        mind(e);
        if (away() != was_away) Q_EMIT changed();
        return;
    }
    if (!docs_.jobs.count(job_id_)) job_id_ = docs_.jobs.empty() ? "" : docs_.jobs.begin()->first;
    replan();
    Q_EMIT changed();
}

void Session::walk(bool (Store::*way)()) {
    try {
        if (((*store_).*way)())
            Q_EMIT news(tr("Another program changed this shop meanwhile. Nothing was taken back; look what it did, then try again."));
        docs_ = store_->documents();
    } catch (const StoreError& e) {
        mind(e);
    }
    forget_preview();
    replan();
    Q_EMIT changed();
}

void Session::try_again() {
    if (unsaved_ && write(unsaved_label_) == Written::yes) Q_EMIT changed();
}

void Session::take_what_is_there() {
    if (!store_) return;
    const QString at = path();
    if (unsaved_) {
        const QString kept = free_shop_name(QFileInfo(at).path() + '/' + QFileInfo(at).completeBaseName() + tr("-kept"));
        Store::create(kept.toStdString(), docs_, "Saved from memory");
        Q_EMIT news(tr("What the file would not take is kept as %1.").arg(kept));
        unsaved_ = false;
    }
    // The old one goes first: the journal that lies there is its own, and all that is in it was in its file.
    store_.reset();
    if (QFile::exists(at + QStringLiteral("-wal"))) Store::set_journal_aside(at.toStdString());
    open(at);
}

void Session::save_copy(const QString& path) {
    // What the file would not take has to be in the copy too.
    if (store_ && !unsaved_ && !other_there()) store_->save_copy(path.toStdString());
    else Store::create(path.toStdString(), docs_, "Saved from memory");
}

std::string Session::restore(const std::string& backup) {
    const QString at = path();
    store_.reset();  // nothing may have it open while it is moved
    std::string kept;
    try {
        kept = Store::restore_backup(at.toStdString(), backup);
    } catch (const StoreError&) {
        open(at);
        throw;
    }
    open(at);
    return kept;
}

const std::vector<Thing>& Session::things() const {
    if (!things_) {
        static const Job none;
        things_ = plan_ ? things_of(*plan_, job() ? *job() : none, shop(), step_) : std::vector<Thing>();
    }
    return *things_;
}

void Session::preview(const std::function<void(Job&)>& change) {
    const auto it = docs_.jobs.find(job_id_);
    if (it == docs_.jobs.end()) return;
    Job j = it->second;
    change(j);
    shown_ = std::make_unique<Job>(std::move(j));
    replan();
    Q_EMIT changed();
}

void Session::keep(const QString& label) {
    const std::optional<Job> j = shown_ ? std::optional(*shown_) : std::nullopt;
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

void Session::preview_leaf(const std::function<void(Leaf&)>& change) {
    preview([&](Job& j) { change(j.leaves[static_cast<std::size_t>(std::clamp(leaf_, 0, static_cast<int>(j.leaves.size()) - 1))]); });
}

}  // namespace yb
