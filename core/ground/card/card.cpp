#include "core/ground/card/card.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>

#include <fmt/format.h>

namespace yb {

void fields(FieldVisitor& v, CardTick& t) {
    v.text({"step", "Step", true}, t.step);
    v.text({"at", "Ticked at"}, t.at);
    v.number({"after_s", "Seconds after the start", Kind::number, {0, 1e9}}, t.after_s);
    v.number({"air_c", "Shop air", Kind::temperature, {-40, 60}}, t.air_c);
    v.number({"mixed_l", "Really mixed", Kind::volume, {0, 10000}}, t.mixed_l);
    v.text({"note", "Note"}, t.note);
    v.number({"left_l", "Left over", Kind::volume, {0, 10000}}, t.left_l);
}

void fields(FieldVisitor& v, CardReading& r) {
    v.number({"after_s", "Seconds after the start", Kind::number, {0, 1e9}}, r.after_s);
    v.number({"temp_c", "In the pour", Kind::temperature, {-40, 250}}, r.temp_c);
}

void fields(FieldVisitor& v, CardRun& r) {
    v.text({"card", "Card", true}, r.card);
    v.text({"started", "Started"}, r.started);
    v.number({"fast", "Clock runs, times", Kind::number, {1, 10000}}, r.fast);
    v.flag({"over", "Put away"}, r.over);
    v.list({"ticks", "Ticks"}, r.ticks);
    v.list({"readings", "In the pour"}, r.readings);
}

std::optional<double> utc_seconds(const std::string& iso) {
    using namespace std::chrono;
    int y = 0, mo = 0, d = 0, h = 0, mi = 0, s = 0;
    char z = 0;
    char rest = 0;
    if (std::sscanf(iso.c_str(), "%4d-%2d-%2dT%2d:%2d:%2d%c%c", &y, &mo, &d, &h, &mi, &s, &z, &rest) != 7 || z != 'Z') return {};
    const year_month_day day{year(y), month(static_cast<unsigned>(mo)), std::chrono::day(static_cast<unsigned>(d))};
    if (!day.ok() || h < 0 || h > 23 || mi < 0 || mi > 59 || s < 0 || s > 60) return {};
    return static_cast<double>(sys_days(day).time_since_epoch().count()) * 86400 + h * 3600 + mi * 60 + s;
}

std::string utc_text(double seconds) {
    using namespace std::chrono;
    const auto whole = static_cast<long long>(std::floor(seconds));
    const long long days_since = whole >= 0 ? whole / 86400 : (whole - 86399) / 86400;
    const long long left = whole - days_since * 86400;
    const year_month_day day{sys_days(days(days_since))};
    return fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}:{:02}Z", static_cast<int>(day.year()), static_cast<unsigned>(day.month()),
                       static_cast<unsigned>(day.day()), left / 3600, left / 60 % 60, left % 60);
}

std::optional<double> card_clock(const CardRun& run, double now) {
    const auto start = utc_seconds(run.started);
    if (!start) return {};
    return std::max(0.0, now - *start) * std::max(1.0, run.fast);
}

std::vector<double> planned_starts(const std::vector<CardStep>& steps) {
    std::vector<double> begin;
    std::vector<double> end;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const CardStep& s = steps[i];
        double from = i == 0 ? 0 : end[i - 1];
        double since = from;
        for (std::size_t k = 0; k < i; ++k)
            if (!s.after.empty() && steps[k].key == s.after) since = end[k];
        from = std::max(from, since + s.from_s);
        begin.push_back(from);
        end.push_back(from + s.takes_s);
    }
    return begin;
}

std::optional<CardNow> card_now(const std::vector<CardStep>& steps, const CardRun& run, double now) {
    const auto clock = card_clock(run, now);
    if (!clock) return {};
    CardNow out;
    out.elapsed_s = *clock;
    const auto ticked = [&](const std::string& key) -> std::optional<double> {
        for (const CardTick& t : run.ticks)
            if (t.step == key) return t.after_s;
        return {};
    };
    // Steps are done in their order; a tick of a step that a new plan no longer has is kept and passed over.
    out.next = steps.size();
    for (std::size_t i = 0; i < steps.size(); ++i)
        if (!ticked(steps[i].key)) {
            out.next = i;
            break;
        }
    const double before = out.next == 0 ? 0 : ticked(steps[out.next - 1].key).value_or(0);
    out.in_step_s = std::max(0.0, *clock - before);
    if (out.next >= steps.size()) {
        if (!steps.empty()) out.planned_s = planned_starts(steps).back() + steps.back().takes_s;
        return out;
    }
    const CardStep& s = steps[out.next];
    const double since = s.after.empty() ? before : ticked(s.after).value_or(before);
    if (const double wait = since + s.from_s - *clock; s.from_s > 0 && wait > 0) out.wait_s = wait;
    if (s.until_s > 0) out.left_s = since + s.until_s - *clock;
    out.planned_s = planned_starts(steps)[out.next];
    return out;
}

bool tick(const std::vector<CardStep>& steps, CardRun& run, double now) {
    const auto at = card_now(steps, run, now);
    if (!at || at->next >= steps.size()) return false;
    CardTick t;
    t.step = steps[at->next].key;
    t.at = utc_text(now);
    t.after_s = at->elapsed_s;
    run.ticks.push_back(std::move(t));
    return true;
}

bool untick(CardRun& run) {
    if (run.ticks.empty()) return false;
    run.ticks.pop_back();
    return true;
}

}  // namespace yb
