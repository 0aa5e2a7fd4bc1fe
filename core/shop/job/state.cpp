#include "core/shop/job/state.h"

#include <algorithm>

#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/headlines.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/work_order.h"
#include "core/steps/days/days.h"
#include "core/steps/lay/lay.h"

namespace yb {

namespace {

/// The last kind of operation in the order of work that the job says is done; empty: none.
std::string_view done_up_to(const Job& job) {
    return job.makeup.ripped ? "rods" : job.makeup.faces_flat ? "last" : job.cuts_done ? "rough" : "";
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
    if (!plan->lay->ready && done_up_to(job).empty()) {
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
    const WorkOrder order;
    const std::string_view last = done_up_to(job);
    // What lies as it should is laid.
    const int done = !last.empty() ? order.order_of(last) : plan->lay->fits ? order.order_of("lay") : -1;
    const Operation* next = nullptr;
    for (const Operation& o : plan->days->operations)
        if (o.order > done && !o.done_h && (!next || o.order < next->order)) next = &o;
    out.next = stop != plan->sheets.cautions.end() ? say("{}", headline_of(stop->key)) : next ? say("{}", next->label) : say("the finish");
    return out;
}

}  // namespace yb
