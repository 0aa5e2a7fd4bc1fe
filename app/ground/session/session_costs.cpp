// What a change of the job did to money and days, both plans made whole beside the work; what the book says of what is picked.
#include "app/ground/session/session.h"
#include "app/ground/slow/runner.h"
#include "app/ground/words.h"
#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/ways/costs.h"

namespace yb {

void Session::tell_cost() {
    if (!cost_from_) return;
    const std::unique_ptr<Documents> from = std::move(cost_from_);
    const std::string id = job_id_;
    if (costing_) costing_->stop.request_stop();
    if (!from->jobs.count(id) || !docs_.jobs.count(id) || from->jobs.at(id) == docs_.jobs.at(id) ||
        !can_be_planned(*from, from->jobs.at(id)) || !can_be_planned(docs_, docs_.jobs.at(id)))
        return Q_EMIT cost_told({});
    costing_ = run_beside(
        this,
        [this, before = *from, after = alone(id), id](const Work& w) -> std::function<void()> {
            const Plan was = plan_job(before.jobs.at(id), before);
            w.check();
            const Plan is = plan_job(after.jobs.at(id), after);
            w.check();
            return [this, c = change_between(before, was, after, is, id)] { Q_EMIT cost_told(told(yb::render(said_of(c), units()))); };
        },
        [this](const QString&) { Q_EMIT cost_told({}); });
}

std::vector<BookEntry> Session::of_picked() const {
    const Thing* thing = picked_thing();
    if (!thing || !store_) return {};
    try {
        for (BookEntry& e : store_->book(book_.empty() ? 0 : book_.back().id)) book_.push_back(std::move(e));
    } catch (const StoreError&) {
        return {};  // the book's own page says what is wrong
    }
    std::vector<BookEntry> out;
    for (auto e = book_.rbegin(); e != book_.rend() && out.size() < 3; ++e) {
        const bool told = e->kind == book::note || e->kind == book::reading || e->kind == book::photo || e->kind == book::correction;
        if (told && e->job == job_id_ && e->step == step_.key && is_of(*e, thing->key)) out.push_back(*e);
    }
    return out;
}

}  // namespace yb
