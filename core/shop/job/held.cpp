#include "core/shop/job/held.h"

#include "core/ground/fields/walk.h"
#include "core/shop/job/steps.h"

namespace yb {

Caution out_of_range(const OutOfRange& o, Step step) {
    const auto q = [&](double v) { return Quantity{v, o.kind}; };
    return {"plan.range",
            Severity::watch,
            step,
            say("{} is {}: from {} to {} can be planned. It is planned with {}; type it anew.", o.label, q(o.value), q(o.range.low),
                q(o.range.high), q(o.held)),
            {},
            {},
            o.path};
}

Held::Held(const Job& j, const Shop& s) : job(j), shop(s) {
    for (const StepRow& row : steps()) {
        if (!row.fields) continue;
        for (const OutOfRange& o : hold_in_range([&](FieldVisitor& v) { row.fields(v, job); }))
            cautions.emplace_back(row.step, out_of_range(o, row.step));
    }
    for (const OutOfRange& o : hold_in_range(walk_of(shop))) {
        const Step step = step_of_shop_field(o.path);
        cautions.emplace_back(step, out_of_range(o, step));
    }
    for (const StepRow& row : steps())
        if (row.hold) row.hold(*this);
    if (job.leaves.empty()) job.leaves.emplace_back();
}

void Held::many(const Counted& what, std::size_t most, Step step) {
    cautions.emplace_back(
        step, Caution{"plan.many", Severity::watch, step,
                      say("The job has {}: the plan is made with the first {}, all are kept.", what, count(static_cast<double>(most)))});
}

void Held::fewer_points(Ring& ring, const char* what, Step step) {
    if (tangled(ring)) {
        cautions.emplace_back(step, Caution{"plan.many", Severity::watch, step,
                                            say("{} has an outline that crosses itself hundreds of times: the hull round it is planned "
                                                "with. Draw it anew.",
                                                what)});
        ring = convex_hull(ring);
    }
    if (ring.size() <= most_ring_points) return;
    cautions.emplace_back(step, Caution{"plan.many", Severity::watch, step,
                                        say("{} has an outline of {}: the plan is made with every few of them, all are kept.", what,
                                            counted(static_cast<double>(ring.size()), "point", "points"))});
    ring = thinned(ring);
}

}  // namespace yb
