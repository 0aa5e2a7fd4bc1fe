#include "core/shop/job/state.h"

#include <algorithm>

#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/days/days.h"
#include "core/steps/lay/lay.h"

namespace yb {

namespace {

/// In the order of work: what lies before this is done (core/steps/days, Operation::order).
int done_up_to(const Job& job) {
    if (job.makeup.ripped) return 40;
    if (job.makeup.faces_flat) return 39;
    return job.cuts_done ? 20 : 0;
}

}  // namespace

JobState state_of(const Job& job, const Plan* plan) {
    JobState out;
    if (!plan) {
        out.key = "no slab";
        out.says = say("no slab is given to it");
        out.next = say("choose a slab on the rack");
        out.worst = Severity::stop;
        return out;
    }
    if (!job.record.delivered.empty()) {
        out.key = "delivered";
        out.says = say("delivered on {}", job.record.delivered);
        out.next = say("what it taught stands in the book");
        out.ready = job.record.delivered;
        return out;
    }
    for (const Caution& c : plan->sheets.cautions) {
        out.worst = std::max(out.worst, c.severity);
        out.stops += c.severity == Severity::stop;
    }
    if (!plan->days->operations.empty()) out.ready = plan->days->ready;
    if (!plan->lay->ready && done_up_to(job) == 0) {
        out.key = "not measured";
        out.says = say("its slab is not measured yet");
        out.next = say("tape the slab");
        return out;
    }
    out.key = job.makeup.ripped       ? "ripped"
              : job.makeup.faces_flat ? "flat"
              : job.cuts_done         ? "rough-cut"
              : plan->lay->fits       ? "laid"
                                      : "does not fit";
    out.says = job.makeup.ripped       ? say("faces flat, joints ripped")
               : job.makeup.faces_flat ? say("both faces flat")
               : job.cuts_done         ? say("rough-cut")
               : plan->lay->fits       ? say("laid out, nothing cut yet")
                                       : say("laid out, and sticks out of the wood");
    const bool running = std::any_of(job.runs.begin(), job.runs.end(), [&](const CardRun& r) { return running_card(job, r.card) >= 0; });
    if (running) out.says = say("a card is under way");
    // What stops it comes first, then the next thing in the order of work.
    const auto stop = std::find_if(plan->sheets.cautions.begin(), plan->sheets.cautions.end(),
                                   [](const Caution& c) { return c.severity == Severity::stop; });
    const int done = std::max(done_up_to(job), plan->lay->fits ? 10 : 0);  // what lies as it should is laid
    const Operation* next = nullptr;
    for (const Operation& o : plan->days->operations)
        if (o.order > done && !o.done_h && (!next || o.order < next->order)) next = &o;
    out.next = stop != plan->sheets.cautions.end() ? say("{}", headline_of(stop->key)) : next ? say("{}", next->label) : say("the finish");
    return out;
}

}  // namespace yb
