#include "core/shop/edit/days_edits.h"

#include <algorithm>

#include "core/shop/days/season.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"

namespace yb {

namespace {

/// The entry of a key, put in where there is none; gone where its text is empty.
template <class T>
void keep(std::vector<T>& all, const std::string& key, std::string T::*text, const std::string& value) {
    const auto it = std::find_if(all.begin(), all.end(), [&](const T& t) { return t.key == key; });
    if (value.empty()) {
        if (it != all.end()) all.erase(it);
    } else if (it != all.end()) {
        (*it).*text = value;
    } else {
        all.push_back({key, value});
    }
}

std::optional<std::size_t> own_index(const std::string& key) { return index_of(key, own_operation); }

}  // namespace

void tick(Job& job, const std::string& key, const std::string& at, const std::string& name) {
    keep(job.days.done, key, &OpDone::at, at);
    for (OpDone& d : job.days.done)
        if (d.key == key && !name.empty()) d.name = name;
}
void set_took(Job& job, const std::string& key, std::optional<double> hours) {
    for (OpDone& d : job.days.done)
        if (d.key == key) d.took_h = hours;
}
void pin(Job& job, const std::string& key, const std::string& on) { keep(job.days.pins, key, &OpPin::on, on); }

namespace {
OpChange& change_of(Job& job, const std::string& key) {
    auto& all = job.days.changes;
    const auto it = std::find_if(all.begin(), all.end(), [&](const OpChange& c) { return c.key == key; });
    if (it != all.end()) return *it;
    all.push_back({key, {}, {}, false});
    return all.back();
}
/// A change that changes nothing is none.
void tidy(Job& job) {
    std::erase_if(job.days.changes, [](const OpChange& c) { return !c.hands_h && !c.wait_h && !c.by_helper && !c.air_c; });
}
}  // namespace

void set_hours(Job& job, const std::string& key, std::optional<double> hands_h, std::optional<double> wait_h) {
    if (const auto own = own_index(key); own && *own < job.days.own.size()) {
        OwnOp& o = job.days.own[*own];
        o.hands_h = hands_h.value_or(o.hands_h), o.wait_h = wait_h.value_or(o.wait_h);
        return;
    }
    OpChange& c = change_of(job, key);
    c.hands_h = hands_h, c.wait_h = wait_h;
    tidy(job);
}

void set_air(Job& job, const std::string& key, std::optional<double> air_c) {
    change_of(job, key).air_c = air_c;
    tidy(job);
}

void give_to_helper(Job& job, const std::string& key, bool helper) {
    if (const auto own = own_index(key); own && *own < job.days.own.size()) job.days.own[*own].who = helper ? Who::helper : Who::maker;
    else change_of(job, key).by_helper = helper, tidy(job);
}

std::string again_after(Job& job, const Operation& o, const std::string& name) {
    return add_own(job, {name, o.key, {}, o.hands_on_h, o.waiting_h, o.who == Who::outside ? Who::maker : o.who});
}

std::string split(Job& job, const Operation& o, const std::string& name, const std::string& next) {
    set_hours(job, o.key, o.hands_on_h / 2, 0);
    return add_own(job, {name, o.key, next, o.hands_on_h / 2, o.waiting_h, o.who == Who::outside ? Who::maker : o.who});
}

std::string add_own(Job& job, const OwnOp& own) {
    job.days.own.push_back(own);
    return key_of({own_operation, job.days.own.size() - 1});
}

void drop_own(Job& job, const std::string& key) {
    const auto i = own_index(key);
    if (!i || *i >= job.days.own.size()) return;
    tick(job, key, {}), pin(job, key, {});
    std::erase_if(job.days.changes, [&](const OpChange& c) { return c.key == key; });
    job.days.own.erase(job.days.own.begin() + static_cast<std::ptrdiff_t>(*i));
    const auto lower = [&](std::string& k) {
        if (const auto n = own_index(k); n && *n > *i) k = key_of({own_operation, *n - 1});
    };
    for (OpDone& d : job.days.done) lower(d.key);
    for (OpPin& p : job.days.pins) lower(p.key);
    for (OwnOp& o : job.days.own) {
        for (std::string* k : {&o.after, &o.before}) {
            if (*k == key) k->clear();
            lower(*k);
        }
    }
}

void want_on(Job& job, const std::string& on) { job.days.wanted = on; }

void move_turn(Documents& docs, const std::string& job, int by) {
    std::vector<std::string> order = job_order(docs);
    const auto it = std::find(order.begin(), order.end(), job);
    if (it == order.end()) return;
    const auto from = it - order.begin();
    const auto to = std::clamp<std::ptrdiff_t>(from + by, 0, static_cast<std::ptrdiff_t>(order.size()) - 1);
    order.erase(it);
    order.insert(order.begin() + to, job);
    docs.shop.all_soonest = false;
    docs.shop.job_order.clear();
    for (std::string& id : order) docs.shop.job_order.push_back({std::move(id)});
}

void helper_on(Shop& shop, int weekday, bool there) {
    Workday& w = shop.workday;
    std::erase_if(w.helper, [&](const DayHours& d) { return d.day == weekday; });
    if (!there) return;
    auto hours = stretches_on(w, Crew::maker, weekday);
    if (hours.empty()) hours = stretches_on(w, Crew::maker, 0);
    if (hours.empty()) hours = {{w.from_h, w.to_h}};
    for (const auto& [from, to] : hours) w.helper.push_back({weekday, from, to});
    std::stable_sort(w.helper.begin(), w.helper.end(), [](const DayHours& a, const DayHours& b) { return a.day < b.day; });
}

void day_off(Shop& shop, const std::string& on, bool off, const std::string& name) {
    Workday& w = shop.workday;
    if (off == is_off(w, on)) return;
    if (off) {
        w.off.push_back({on, {}, name});
    } else {
        std::vector<DayOff> rest;
        for (const DayOff& o : w.off) {
            const std::string last = o.to.empty() ? o.from : o.to;
            if (on < o.from || on > last) {
                rest.push_back(o);
                continue;
            }
            if (o.from < on) rest.push_back({o.from, date_after(on, -24), o.name});
            if (last > on) rest.push_back({date_after(on, 24), last, o.name});
        }
        w.off = std::move(rest);
    }
    std::stable_sort(w.off.begin(), w.off.end(), [](const DayOff& a, const DayOff& b) { return a.from < b.from; });
}

}  // namespace yb
