#include "core/days/days.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <stdexcept>

#include <fmt/format.h>

namespace yb {
namespace {

using std::chrono::sys_days;

std::optional<sys_days> read_date(const std::string& iso) {
    int y = 0;
    unsigned m = 0;
    unsigned d = 0;
    int used = 0;
    if (iso.size() != 10 || std::sscanf(iso.c_str(), "%4d-%2u-%2u%n", &y, &m, &d, &used) != 3 || used != 10) return {};
    const std::chrono::year_month_day date{std::chrono::year(y), std::chrono::month(m), std::chrono::day(d)};
    if (!date.ok()) return {};
    return sys_days(date);
}

bool works_on(sys_days day, const Workday& w) {
    const std::chrono::weekday wd(day);
    if (wd == std::chrono::Sunday) return false;
    return wd != std::chrono::Saturday || w.saturdays;
}

}  // namespace

bool is_date(const std::string& iso) { return read_date(iso).has_value(); }

std::string date_after(const std::string& start, double h) {
    const auto d = read_date(start);
    if (!d) throw std::invalid_argument("‘" + start + "’ is not a date: write it as 2026-11-30");
    const std::chrono::year_month_day date(*d + std::chrono::days(static_cast<int>(std::floor(h / 24))));
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(date.year()), static_cast<unsigned>(date.month()),
                       static_cast<unsigned>(date.day()));
}

namespace {
/// Hours that end before they begin are read as open until midnight.
double closing(const Workday& w) { return w.to_h > w.from_h ? w.to_h : 24; }
}  // namespace

double next_working_hour(const std::string& start, double h, const Workday& w) {
    const auto first = read_date(start).value_or(sys_days{});
    for (int guard = 0; guard < 30; ++guard) {
        const double day = std::floor(h / 24);
        const double hour = h - day * 24;
        const bool works = works_on(first + std::chrono::days(static_cast<int>(day)), w);
        if (works && hour < w.from_h) return day * 24 + w.from_h;
        if (works && hour < closing(w) - 1e-9) return h;
        h = (day + 1) * 24;
    }
    return h;
}

double after_work(const std::string& start, double h, double left, const Workday& w) {
    h = next_working_hour(start, h, w);
    while (left > 1e-9) {
        const double until = std::floor(h / 24) * 24 + closing(w);
        const double now = std::min(left, until - h);
        h += now;
        left -= now;
        if (left > 1e-9) h = next_working_hour(start, h, w);
    }
    return h;
}

namespace {

/// The worst of a step's cautions lands on its operations as a knot.
template <class P>
void mark(Operation& op, const P& plan) {
    for (const Caution& c : plan.cautions) {
        if (c.severity > op.worst) op.worst = c.severity;
        if (c.severity != Severity::note) op.knot = true;
    }
    op.unmet = !plan.ready;
}

}  // namespace

DaysPlan plan_days(const DaysInputs& in) {
    DaysPlan p;
    p.start = is_date(in.start) ? in.start : "2026-01-05";
    const auto add = [&](const char* key, const char* label, Step step, double hands, double wait, const auto& plan) {
        Operation op{key, label, step, hands, wait, 0, 0, 0, Severity::note, false, false};
        mark(op, plan);
        p.operations.push_back(op);
    };
    constexpr double turn_slab = 0.5;  // with a helper, wedges and time to look
    add("lay", "Lay", Step::lay, 2, 0, in.lay);
    add("rough", "Rough-cut", Step::lay, 0.5, 0, in.lay);
    add("flat1", "Face one", Step::flat, turn_slab + in.flat.faces[0].hours - in.flat.faces[0].last_hours, 0, in.flat);
    add("flat2", "Face two", Step::flat, turn_slab + in.flat.faces[1].hours - in.flat.faces[1].last_hours, in.flat_choices.rest_h, in.flat);
    if (const double last = in.flat.faces[0].last_hours + in.flat.faces[1].last_hours; last > 0)
        add("last", "Last pass", Step::flat, 2 * turn_slab + last, 0, in.flat);
    // Starting values, until joining and pouring are planned step by step.
    const double n = static_cast<double>(in.joints);
    if (in.joints > 0 && !is_river(in.kind)) {
        add("rip", "Rip", Step::lay, 0.5 * n, 0, in.lay);
        add("glue", "Glue", Step::lay, 0.5 + 0.5 * n, 12, in.lay);
    } else if (in.joints > 0 && in.kind == MakeUp::river) {
        add("form", "Form", Step::lay, 3, 0, in.lay);
        add("pour", "Pour", Step::lay, 1.5 * n, 72, in.lay);
    } else if (in.joints > 0) {
        add("rods", "Rods", Step::lay, 2 * n, 0, in.lay);
    }
    if (in.fill.rounds > 0) {
        add("fill", "Fill", Step::fill, in.fill.hands_on_h, in.fill.wait_h, in.fill);
        add("level", "Level", Step::fill, 1, 0, in.fill);
    }
    add("cut", "To size", Step::lay, 1, 0, in.lay);
    if (!in.under.slots.empty() || !in.under.ready) {
        const double holes = static_cast<double>(in.under.slots.size());
        add("pockets", "Under", Step::under, 0.15 * holes + 0.75 * static_cast<double>(in.under.pockets.size()), 0, in.under);
        add("dryfit", "Dry-fit", Step::under, 1, 0, in.under);
    }
    double h = 0;
    for (Operation& op : p.operations) {
        op.start_h = next_working_hour(p.start, h, in.workday);
        op.hands_end_h = after_work(p.start, op.start_h, op.hands_on_h, in.workday);
        op.end_h = op.hands_end_h + op.waiting_h;
        h = op.end_h;
    }
    p.end_h = h;
    p.ready = date_after(p.start, h);
    return p;
}

}  // namespace yb
