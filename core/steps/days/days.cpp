#include "core/steps/days/days.h"

#include <algorithm>
#include <map>

namespace yb {

void mark(Operation& op, const StepPlan& says) {
    for (const Caution& c : says.cautions) {
        if (c.severity > op.worst) op.worst = c.severity;
        if (c.severity != Severity::note) op.knot = true;
    }
    op.unmet = !says.ready;
}

DaysPlan plan_days(std::vector<Operation> operations, const std::string& start, const Workday& workday) {
    DaysPlan p;
    if (is_date(start)) p.start = start;
    const std::string from = p.start.empty() ? "2001-01-01" : start;  // a Monday
    std::stable_sort(operations.begin(), operations.end(), [](const Operation& a, const Operation& b) { return a.order < b.order; });
    p.operations = std::move(operations);
    double h = 0;
    bool endless = false;
    std::map<std::string, double> comes_h;
    for (Operation& op : p.operations) {
        endless = endless || op.hands_on_h > most_hours || op.waiting_h > most_hours || h > most_hours;
        op.hands_on_h = held_hours(op.hands_on_h), op.waiting_h = held_hours(op.waiting_h);
        if (const auto it = comes_h.find(op.waits_for); it != comes_h.end()) h = std::max(h, it->second);
        op.start_h = next_working_hour(from, h, workday);
        op.hands_end_h = after_work(from, op.start_h, op.hands_on_h, workday);
        op.end_h = op.hands_end_h + op.waiting_h;
        h = op.end_h;
        if (op.beside_h > 0) comes_h[op.key] = op.hands_end_h + held_hours(op.beside_h);
    }
    p.end_h = held_hours(h);
    p.endless = endless || h > most_hours;
    p.ready = p.date(h);
    return p;
}

}  // namespace yb
