#include "core/steps/days/days.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/ground/cure/cure.h"
#include "core/steps/days/schedule.h"

namespace yb {

double longer(AirWait how, double at_c, double than_at_c) {
    if (how == AirWait::none || !std::isfinite(at_c) || !std::isfinite(than_at_c)) return 1;
    const double at = std::clamp(at_c, -40.0, 100.0), than = std::clamp(than_at_c, -40.0, 100.0);
    return how == AirWait::cures ? cure_rate_at(than) / cure_rate_at(at) : std::exp2((than - at) / 10);
}

void mark(Operation& op, const StepPlan& says) {
    for (const Caution& c : says.cautions) {
        if (c.severity > op.worst) op.worst = c.severity;
        if (c.severity != Severity::note) op.knot = true;
    }
    op.unmet = !says.ready;
}

void tie(std::vector<Operation>& operations) {
    std::stable_sort(operations.begin(), operations.end(), [](const Operation& a, const Operation& b) { return a.order < b.order; });
    std::set<std::string> there;
    for (const Operation& o : operations) there.insert(o.key);
    std::string before;
    for (Operation& o : operations) {
        if (!o.aside) {
            if (!before.empty()) o.after.push_back(before);
            before = o.key;
        }
        std::erase_if(o.after, [&](const std::string& k) { return k == o.key || !there.count(k); });
        std::sort(o.after.begin(), o.after.end());
        o.after.erase(std::unique(o.after.begin(), o.after.end()), o.after.end());
    }
}

void with_choices(std::vector<Operation>& operations, const DaysChoices& c, const std::string& start) {
    const auto op = [&](const std::string& key) {
        return std::find_if(operations.begin(), operations.end(), [&](const Operation& o) { return o.key == key; });
    };
    for (std::size_t i = 0; i < c.own.size(); ++i) {
        const OwnOp& own = c.own[i];
        Operation o;
        o.key = key_of({own_operation, i});
        o.label = own.name;
        o.hands_on_h = own.hands_h, o.waiting_h = own.wait_h;
        o.who = own.who;
        o.aside = true;
        if (!own.after.empty()) o.after.push_back(own.after);
        const auto before = op(own.before);
        const auto after = op(own.after);
        if (after != operations.end()) o.step = after->step, o.order = after->order;
        else if (before != operations.end()) o.step = before->step, o.order = before->order;
        if (before != operations.end()) before->after.push_back(o.key);
        operations.push_back(std::move(o));
    }
    for (const OpChange& k : c.changes)
        if (const auto it = op(k.key); it != operations.end()) {
            if (k.hands_h) it->hands_on_h = *k.hands_h, it->alone_h = 0;       // whoever types it knows who works
            if (k.wait_h) it->waiting_h = *k.wait_h, it->air = AirWait::none;  // whoever types it knows the air
            if (k.air_c && it->air != AirWait::none) {
                it->waiting_h *= longer(it->air, *k.air_c, it->air_c);
                it->air_c = *k.air_c, it->air = AirWait::none;  // whatever day it falls on
            }
        }
    tick_and_pin(operations, c, start);
}

void tick_and_pin(std::vector<Operation>& operations, const DaysChoices& c, const std::string& start) {
    for (Operation& o : operations) {
        o.done_h.reset(), o.not_before_h = 0;
        for (const OpChange& k : c.changes)
            if (k.key == o.key && k.by_helper) {
                if (o.who == Who::both && o.alone_h > 0) o.hands_on_h = o.alone_h, o.alone_h = 0;
                o.who = Who::helper;
            }
        for (const OpDone& d : c.done)
            if (d.key == o.key) o.done_h = hours_to(start, d.at);
        for (const OpPin& p : c.pins)
            if (p.key == o.key) o.not_before_h = std::max(0.0, hours_to(start, p.on).value_or(0));
    }
    // Older shops never ticked what was no operation then: it is done where something after it on the wood is.
    for (Operation& o : operations) {
        if (!o.implied || o.done_h) continue;
        for (const Operation& later : operations)
            if (later.done_h && !later.aside && later.order > o.order && (!o.done_h || *later.done_h < *o.done_h)) o.done_h = later.done_h;
    }
    // What was ticked before it was told part by part: a part is done where its first is, and something that comes after it.
    for (Operation& o : operations) {
        if (o.part_of.empty() || o.done_h) continue;
        const auto first = std::find_if(operations.begin(), operations.end(), [&](const Operation& f) { return f.key == o.part_of; });
        if (first == operations.end() || !first->done_h) continue;
        const bool passed = std::any_of(operations.begin(), operations.end(), [&](const Operation& later) {
            return later.done_h && !later.aside && later.part_of != o.part_of && later.order > o.order;
        });
        if (passed) o.done_h = first->done_h;
    }
}

DaysPlan plan_days(std::vector<Operation> operations, const std::string& start, const Workday& workday, const Climate* air) {
    DaysPlan p;
    if (is_date(start)) p.start = start;
    tie(operations);
    std::vector<Net> one(1);
    one[0].operations = std::move(operations);
    const Schedule s = schedule(one, Hands(p.start, workday, air));
    p.operations = std::move(one[0].operations);
    p.end_h = s.end_h;
    p.endless = s.endless;
    p.ready = p.date(s.end_h);
    return p;
}

}  // namespace yb
