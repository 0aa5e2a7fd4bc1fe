#include "core/shop/days/season.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <stdexcept>

#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/money/money.h"
#include "core/steps/pour/pour.h"
#include "core/steps/rack/settle.h"

namespace yb {

namespace {

/// What somebody else brings: it is asked for by a day.
bool is_ordered(const Operation& o) { return o.who == Who::outside || o.ordered; }

/// It is on the rule: not put away, not delivered, and no other way of a job that is there.
bool on_the_rule(const Documents& docs, const Job& job) {
    return !job.put_away && job.record.delivered.empty() && (job.way_of.empty() || !docs.jobs.count(job.way_of));
}

}  // namespace

bool can_be_planned(const Documents& docs, const Job& job) {
    const auto ids = job.slabs();
    return !job.first().slab.empty() && std::all_of(ids.begin(), ids.end(), [&](const std::string& s) { return docs.slabs.count(s) > 0; });
}

std::vector<std::string> job_order(const Documents& docs) {
    std::vector<std::string> out;
    for (const auto& [id] : docs.shop.job_order)
        if (const auto it = docs.jobs.find(id);
            it != docs.jobs.end() && on_the_rule(docs, it->second) && std::find(out.begin(), out.end(), id) == out.end())
            out.push_back(id);
    std::vector<std::string> rest;
    for (const auto& [id, job] : docs.jobs)
        if (on_the_rule(docs, job) && std::find(out.begin(), out.end(), id) == out.end()) rest.push_back(id);
    std::stable_sort(rest.begin(), rest.end(),
                     [&](const std::string& a, const std::string& b) { return docs.jobs.at(a).start < docs.jobs.at(b).start; });
    out.insert(out.end(), rest.begin(), rest.end());
    return out;
}

Net net_of(const std::string& id, const Job& job, const Plan& plan, const std::string& start) {
    Net net;
    net.job = id;
    net.operations = plan.days->operations;
    const std::string first = is_date(job.start) ? job.start : start;
    const double offset = days_between(start, first).value_or(0) * 24;
    net.from_h = std::max(0.0, offset);
    if (is_date(job.days.wanted)) net.wanted_h = hours_to(start, job.days.wanted).value_or(0) + 24;
    tick_and_pin(net.operations, job.days, start);  // as they are now: the plan may be of a moment ago
    for (Operation& o : net.operations) {
        // A card that was run to its end, not for practice, ticks its operation.
        const CardRow* card = o.done_h || job.runs.empty() ? nullptr : card_for(o.part_of.empty() ? o.key : o.part_of);
        if (card && !o.part_of.empty() && !card->all_parts) continue;
        if (!card) continue;
        for (const CardRun& r : job.runs)
            if (r.card == card->key && run_to_its_end(r)) o.done_h = hours_to(start, r.ticks.back().at.substr(0, 16));
    }
    return net;
}

double air_of(const Season& season, const Job& job, const Operation& o, const Climate& shop) {
    for (const OpChange& c : job.days.changes)
        if (c.key == o.key && c.air_c) return *c.air_c;
    return shop.months[static_cast<std::size_t>(month_of(season.date(o.start_h)))].temp_c;
}

namespace {

/// A job is planned for the air of the days it would have alone; where the others move it into another, what was planned of heat, windows
/// and waits no longer holds.
void tell_air(Season& s, const JobDays& j, const Job& job, const Plan& plan, const Climate& shop) {
    constexpr double told_from_c = 3;
    std::set<std::string_view> said;
    for (const Operation& o : j.operations) {
        if (!o.in_air || o.aside || o.done_h || said.count(o.step.key)) continue;
        const double then = air_of(s, job, o, shop);
        const StepAir planned = plan.air_of(o.step);
        if (then <= planned.warmest_c + told_from_c && then >= planned.coldest_c - told_from_c) continue;
        said.insert(o.step.key);
        s.cautions.push_back({"days.air",
                              Severity::watch,
                              {},
                              say("{}: other jobs move ‘{}’ to {}, at {} in place of {}. Lifts, windows, waits and what the wood settles "
                                  "at are planned for the other air: start the job then, or move it up.",
                                  j.name, o.label, s.date(o.start_h), celsius(then), celsius(planned.day.temp_c))});
    }
}

}  // namespace

Season season_of(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask) {
    Season s;
    std::vector<std::string> ids;
    for (const std::string& id : job_order(docs))
        if (ask.only.empty() || std::find(ask.only.begin(), ask.only.end(), id) != ask.only.end()) ids.push_back(id);
    s.today = is_date(ask.today) ? ask.today : std::string();
    s.week = docs.shop.workday;
    for (const std::string& id : ids)
        if (const std::string& day = docs.jobs.at(id).start; is_date(day) && (s.start.empty() || day < s.start)) s.start = day;
    // What was done before the first day counts from there.
    for (const std::string& id : ids)
        for (const OpDone& d : docs.jobs.at(id).days.done)
            if (const std::string day = d.at.substr(0, 10); is_date(day) && (s.start.empty() || day < s.start)) s.start = day;
    if (s.start.empty()) s.start = s.today.empty() ? "2001-01-01" : s.today;
    if (!s.today.empty() && s.today < s.start) s.start = s.today;
    s.now_h = s.today.empty() ? 0 : days_between(s.start, s.today).value_or(0) * 24;
    std::vector<Net> nets;
    for (const std::string& id : ids) {
        const auto it = plans.find(id);
        if (it != plans.end() && it->second) nets.push_back(net_of(id, docs.jobs.at(id), *it->second, s.start));
        else nets.push_back({id, 0, {}, {}});
    }
    s.said = schedule(nets, Hands(s.start, docs.shop.workday, &docs.shop.air), s.now_h, docs.shop.all_soonest ? Rule::soonest : ask.rule);
    s.end_h = s.said.end_h;
    for (Net& n : nets) {
        JobDays j{n.job, docs.jobs.at(n.job).name, std::move(n.operations), 0, n.wanted_h};
        for (const Operation& o : j.operations) j.ready_h = std::max(j.ready_h, o.end_h);
        std::stable_sort(j.operations.begin(), j.operations.end(),
                         [](const Operation& a, const Operation& b) { return a.start_h < b.start_h; });
        if (j.wanted_h && !j.operations.empty() && j.ready_h > *j.wanted_h) {
            const double days = std::ceil((j.ready_h - *j.wanted_h) / 24);
            s.cautions.push_back(
                {"days.late",
                 Severity::stop,
                 {},
                 say("{} is ready {} after the day it is wanted: look at what could give.", j.name, counted(days, "day", "days"))});
        }
        for (const Operation& o : j.operations)
            if (o.key == "dry" && j.wanted_h && !o.done_h && o.end_h > *j.wanted_h)
                s.cautions.push_back({"days.damp",
                                      Severity::stop,
                                      {},
                                      say("{} is wanted before its wood is dry, about {}: a drier slab, a kiln, or a later day. Damp wood "
                                          "moves after it is made.",
                                          j.name, s.date(o.end_h))});
        if (const auto plan = plans.find(j.id); plan != plans.end() && plan->second)
            tell_air(s, j, docs.jobs.at(j.id), *plan->second, docs.shop.air);
        s.jobs.push_back(std::move(j));
    }
    // Days that are none, and ticks of days that have not come.
    for (const std::string& id : ids) {
        const Job& job = docs.jobs.at(id);
        const auto odd = [&](const std::string& text, const char* what, bool ticked) {
            if (text.empty()) return;
            const auto h = hours_to(s.start, text);
            if (!h)
                s.cautions.push_back(
                    {"days.odd_date",
                     Severity::watch,
                     {},
                     say("{}: ‘{}’ is no day ({}): write it as 2026-12-18. Until then it is left out.", job.name, text, what)});
            else if (ticked && !s.today.empty() && *h > s.now_h + 48)
                s.cautions.push_back(
                    {"days.odd_date", Severity::watch, {}, say("{}: something is ticked for {}, which has not come yet.", job.name, text)});
        };
        odd(job.days.wanted, "the day it is wanted", false);
        for (const OpDone& d : job.days.done) odd(d.at, "what is done", true);
        for (const OpPin& p : job.days.pins) odd(p.on, "what is kept for a day", false);
    }
    for (const std::string& c : s.said.circular)
        s.cautions.push_back({"days.circle",
                              Severity::stop,
                              {},
                              say("{} waits for itself: take one of its ties away. Until then it waits for none of them.", c)});
    if (s.said.no_hands)
        s.cautions.push_back({"days.no_helper",
                              Severity::watch,
                              {},
                              say("A second pair of hands is asked for and never there: set the helper's days in the shop. Until then it "
                                  "is planned alone.")});
    if (s.said.endless)
        s.cautions.push_back({"days.no_hours",
                              Severity::stop,
                              {},
                              say("Some of it is never done: nobody works then, or hours were typed far too large. Look at working hours, "
                                  "days off and hours that were typed.")});
    return s;
}

std::map<std::string, std::shared_ptr<const Plan>> plans_of(const Documents& docs, const std::vector<std::string>& only, const Work& work) {
    std::vector<std::string> ids;
    for (const std::string& id : job_order(docs))
        if (only.empty() || std::find(only.begin(), only.end(), id) != only.end()) ids.push_back(id);
    std::vector<std::shared_ptr<const Plan>> all(ids.size());
    in_parallel(
        ids.size(),
        [&](std::size_t i) {
            if (const Job& job = docs.jobs.at(ids[i]); can_be_planned(docs, job)) all[i] = std::make_shared<Plan>(plan_job(job, docs));
        },
        work);
    std::map<std::string, std::shared_ptr<const Plan>> out;
    for (std::size_t i = 0; i < ids.size(); ++i)
        if (all[i]) out[ids[i]] = all[i];
    return out;
}

namespace {
std::map<std::string, const Plan*> bare(const std::map<std::string, std::shared_ptr<const Plan>>& plans) {
    std::map<std::string, const Plan*> out;
    for (const auto& [id, plan] : plans) out[id] = plan.get();
    return out;
}
}  // namespace

Season season_of(const Documents& docs, const SeasonAsk& ask, const Work& work) {
    return season_of(docs, bare(plans_of(docs, ask.only, work)), ask);
}

Today today_of(const Season& s, const std::string& day) {
    Today t;
    t.date = day;
    const double from = days_between(s.start, day).value_or(0) * 24;
    const double to = from + 24;
    const Hands hands(s.start, s.week);
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) {
            if (o.done_h || o.end_h < from || o.start_h > to + 7 * 24) continue;
            const WorkClock& clock = hands.of(o.who);
            const double begins = clock.next(std::max(o.start_h, from));
            const double done = clock.between(begins, std::min(o.hands_end_h, to));
            const TodayLine line{j.name, o.key,       o.label, begins - from,   clock.after(begins, done) - from,
                                 done,   o.waiting_h, o.who,   o.start_h < from};
            if (o.hands_on_h > 0 && done > 0.01 && begins < to) t.hands.push_back(line), t.hands_h += o.who == Who::helper ? 0 : done;
            // Whatever waits over the night and longer, and is put to wait that day.
            if (o.waiting_h >= 8 && o.hands_end_h > from && o.hands_end_h <= to) t.set_going.push_back(line);
            if (is_ordered(o) && o.latest_h >= from && o.start_h < from + 7 * 24) {
                t.order_by.push_back(line);
                t.order_by.back().by = s.date(std::max(o.start_h, o.latest_h));
            }
        }
    const auto sooner = [](const TodayLine& a, const TodayLine& b) { return a.from_h < b.from_h; };
    std::stable_sort(t.hands.begin(), t.hands.end(), sooner);
    std::stable_sort(t.set_going.begin(), t.set_going.end(), [](const TodayLine& a, const TodayLine& b) { return a.to_h < b.to_h; });
    return t;
}

std::vector<DayLoad> loads_of(const Season& s, double to_h) {
    std::vector<DayLoad> out;
    const WorkClock clock(s.start, s.week);
    const int days = static_cast<int>(std::ceil(std::clamp(to_h, 0.0, most_hours) / 24));
    for (int d = 0; d < days; ++d) out.push_back({s.date(d * 24.0), 0, clock.between(d * 24.0, d * 24.0 + 24)});
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) {
            if (o.who == Who::helper || !(o.hands_on_h > 0)) continue;
            const int last = std::min(days - 1, static_cast<int>(o.hands_end_h / 24));
            for (int d = std::max(0, static_cast<int>(o.start_h / 24)); d <= last; ++d)
                out[static_cast<std::size_t>(d)].hands_h +=
                    clock.between(std::max(o.start_h, d * 24.0), std::min(o.hands_end_h, d * 24.0 + 24));
        }
    return out;
}

namespace {

struct Change {
    const char* key;
    const char* says;
    enum { nothing, jobs, shop } replans;  ///< what has to be planned anew
    void (*make)(Documents&, const std::string& job);
};

/// The job that is asked about, or all.
template <class F>
void each_job(Documents& d, const std::string& job, F change) {
    for (auto& [id, j] : d.jobs)
        if (job.empty() || id == job) change(j);
}

/// A second pair of hands on those days, for what is made aside of the top.
void helper_comes(Documents& d, const std::string& job, const std::vector<int>& days) {
    Workday& w = d.shop.workday;
    for (const int day : days)
        if (stretches_on(w, Crew::helper, day).empty()) w.helper.push_back({day, 8, 17});
    static constexpr const char* aside[] = {"form", "base_make", "base_parts", "under_jig", "tie_jig"};
    each_job(d, job, [&](Job& j) {
        for (const char* key : aside) {
            const auto it = std::find_if(j.days.changes.begin(), j.days.changes.end(), [&](const OpChange& c) { return c.key == key; });
            if (it == j.days.changes.end()) j.days.changes.push_back({key, {}, {}, true});
            else it->by_helper = true;
        }
    });
}

/// The resin on the shelf that gets a river hard soonest, without a stop more than there is.
void quicker_resin(Documents& d, const std::string& job) {
    each_job(d, job, [&](Job& j) {
        if (j.makeup.kind != MakeUp::river || !can_be_planned(d, j)) return;
        const auto stops = [](const Plan& p) {
            return std::count_if(p.pour->cautions.begin(), p.pour->cautions.end(),
                                 [](const Caution& c) { return c.severity == Severity::stop; });
        };
        const Plan now = plan_job(j, d);
        if (now.pour->lifts.empty()) return;
        double soonest = now.pour->wait_h;
        std::string best;
        for (const Resin& r : d.shop.resins) {
            if (r.solid || r.soaks || r.key == now.pour->resin) continue;
            Job other = j;
            other.fill.river = r.key;
            const Plan then = plan_job(other, d);
            if (!then.pour->lifts.empty() && stops(then) <= stops(now) && then.pour->wait_h < soonest - 0.5)
                soonest = then.pour->wait_h, best = r.key;
        }
        if (!best.empty()) j.fill.river = best;
    });
}

const std::vector<Change>& changes() {
    static const std::vector<Change> all{
        {"saturdays", "Work on Saturdays", Change::nothing,
         [](Documents& d, const std::string&) {
             Workday& w = d.shop.workday;
             if (w.week.empty()) w.saturdays = true;
             else if (stretches_on(w, Crew::maker, 5).empty())
                 for (const auto& [from, to] : stretches_on(w, Crew::maker, 4)) w.week.push_back({5, from, to});
         }},
        {"helper_saturdays", "A helper on Saturdays, for base, form and jigs", Change::shop,
         [](Documents& d, const std::string& job) { helper_comes(d, job, {5}); }},
        {"helper_days", "A helper every day, for base, form and jigs", Change::shop,
         [](Documents& d, const std::string& job) {
             helper_comes(d, job, {0, 1, 2, 3, 4});
         }},
        {"quicker_resin", "A quicker resin that stays cool", Change::jobs, quicker_resin},
        {"kiln", "The slab dried in a kiln first: ten days, then a week to settle", Change::jobs,
         [](Documents& d, const std::string& job) {
             each_job(d, job, [&](Job& j) {
                 const double dry = settles_at(j.room);
                 for (const std::string& id : j.slabs())
                     if (const auto it = d.slabs.find(id);
                         it != d.slabs.end() && it->second.moisture_pct && *it->second.moisture_pct > dry_enough_pct(j.room, d.shop)) {
                         Slab& slab = it->second;
                         slab.moisture_log.clear();  // its own drying in the shop says nothing of a kiln
                         slab.moisture_pct = std::max(6.0, std::round(dry));
                         slab.dried = Dried::kiln;
                         slab.came_on = date_after(is_date(j.start) ? j.start : std::string("2001-01-01"), 240);
                         slab.settle_days = settle_kiln_days + 10;
                     }
             });
         }},
        {"warmer", "The shop five degrees warmer", Change::shop,
         [](Documents& d, const std::string&) {
             for (Month& m : d.shop.air.months) m.temp_c += 5;
         }},
        {"colder", "The shop five degrees colder", Change::shop,
         [](Documents& d, const std::string&) {
             for (Month& m : d.shop.air.months) m.temp_c -= 5;
         }},
        {"no_rest", "No rest between the faces", Change::jobs,
         [](Documents& d, const std::string& job) { each_job(d, job, [](Job& j) { j.flat.rest_h = 0; }); }},
        {"machine_shop", "A machine shop makes it flat", Change::jobs,
         [](Documents& d, const std::string& job) { each_job(d, job, [](Job& j) { j.flat.by = FlatBy::machine_shop; }); }},
        {"first", "Its turn comes before the others", Change::nothing,
         [](Documents& d, const std::string& job) {
             std::vector<std::string> order = job_order(d);
             if (std::erase(order, job) == 0) return;
             order.insert(order.begin(), job);
             d.shop.job_order.clear();
             for (const std::string& id : order) d.shop.job_order.push_back({id});
         }},
        {"soonest", "Whatever lets all be done soonest", Change::nothing,
         [](Documents& d, const std::string&) { d.shop.all_soonest = true; }},
    };
    return all;
}

}  // namespace

namespace {

/// How it would be with some changes made.
WhatIf tried(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask, const std::string& job,
             const std::vector<const Change*>& made, const Season& now, const Work& work) {
    const auto ends = [&](const Season& s) {
        const auto it = std::find_if(s.jobs.begin(), s.jobs.end(), [&](const JobDays& j) { return j.id == job; });
        return it == s.jobs.end() ? s.end_h : it->ready_h;
    };
    const auto hands = [](const Season& s) {
        double h = 0;
        for (const JobDays& j : s.jobs)
            for (const Operation& o : j.operations)
                if (!o.done_h && o.who != Who::helper && o.who != Who::outside) h += o.hands_on_h;
        return h;
    };
    Documents other = docs;
    auto replans = Change::nothing;
    WhatIf w;
    for (const Change* c : made) {
        work.check();
        c->make(other, job);
        replans = std::max(replans, c->replans);
        w.key += (w.key.empty() ? "" : "+") + std::string(c->key);
        w.says = say("{}", c->says);
    }
    std::map<std::string, std::shared_ptr<const Plan>> anew;
    if (replans == Change::shop) anew = plans_of(other, ask.only, work);
    // What changes nothing of a job plans nothing anew.
    if (replans == Change::jobs && !(other.jobs == docs.jobs && other.slabs == docs.slabs))
        anew = plans_of(other, job.empty() ? ask.only : std::vector{job}, work);
    std::map<std::string, const Plan*> with = plans;
    for (const auto& [id, plan] : anew) with[id] = plan.get();
    const Season s = season_of(other, with, ask);
    w.end_h = s.end_h;
    w.gains_h = ends(now) - ends(s);
    w.hands_h = hands(s) - hands(now);
    for (const JobDays& j : s.jobs) w.ready_h[j.id] = j.ready_h;
    for (const auto& [id, plan] : anew)
        if (const auto it = plans.find(id); it != plans.end() && it->second)
            w.money += money_of(*plan, other.jobs.at(id), other.shop).offer - money_of(*it->second, docs.jobs.at(id), docs.shop).offer;
    return w;
}

const Change& change_of(const std::string& key) {
    const auto it = std::find_if(changes().begin(), changes().end(), [&](const Change& c) { return key == c.key; });
    if (it == changes().end()) throw std::invalid_argument("nobody knows the change ‘" + key + "’");
    return *it;
}

/// Keys told apart by "+".
std::vector<const Change*> changes_of(const std::string& keys) {
    std::vector<const Change*> out;
    for (std::size_t at = 0; at <= keys.size();) {
        const std::size_t end = std::min(keys.find('+', at), keys.size());
        out.push_back(&change_of(keys.substr(at, end - at)));
        at = end + 1;
    }
    return out;
}

}  // namespace

void take_what_if(Documents& docs, const std::string& key, const std::string& job) {
    for (const Change* c : changes_of(key)) c->make(docs, job);
}

WhatIf what_if(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask, const std::string& job,
               const std::string& key, const Work& work) {
    return tried(docs, plans, ask, job, changes_of(key), season_of(docs, plans, ask), work);
}

std::vector<WhatIf> what_ifs(const Documents& docs, const std::map<std::string, const Plan*>& plans, const SeasonAsk& ask,
                             const std::string& job, const Work& work) {
    const Season now = season_of(docs, plans, ask);
    std::vector<WhatIf> all(changes().size());
    in_parallel(
        all.size(), [&](std::size_t i) { all[i] = tried(docs, plans, ask, job, {&changes()[i]}, now, work); }, work);
    std::vector<WhatIf> out;
    for (WhatIf& w : all)
        if (std::abs(w.gains_h) > 0.5) out.push_back(std::move(w));
    std::stable_sort(out.begin(), out.end(), [](const WhatIf& a, const WhatIf& b) { return a.gains_h > b.gains_h; });
    return out;
}

std::vector<MovedJob> moved_between(const Season& before, const Season& now) {
    const double shift = days_between(before.start, now.start).value_or(0) * 24;
    const auto find = [](const JobDays& in, const std::string& key) -> const Operation* {
        const auto it = std::find_if(in.operations.begin(), in.operations.end(), [&](const Operation& o) { return o.key == key; });
        return it == in.operations.end() ? nullptr : &*it;
    };
    std::vector<MovedJob> out;
    for (const JobDays& j : now.jobs) {
        const auto was = std::find_if(before.jobs.begin(), before.jobs.end(), [&](const JobDays& b) { return b.id == j.id; });
        if (was == before.jobs.end() || j.operations.empty() || was->operations.empty()) continue;
        const double by = j.ready_h + shift - was->ready_h;
        if (std::abs(by) < 1) continue;
        MovedJob moved{j.id, j.name, by, {}};
        for (const Operation& o : j.operations) {
            const Operation* then = find(*was, o.key);
            const bool other = !then || std::abs(o.hands_on_h - then->hands_on_h) > 0.01 ||
                               std::abs(o.waiting_h - then->waiting_h) > 0.01 || o.done_h.has_value() != then->done_h.has_value() ||
                               (o.not_before_h > 0) != (then->not_before_h > 0);
            if (other && moved.since.empty()) moved.since = o.label;
        }
        for (const Operation& o : was->operations)
            if (moved.since.empty() && !find(j, o.key)) moved.since = o.label;
        out.push_back(std::move(moved));
    }
    return out;
}

NextUp next_up(const Season& season) {
    NextUp next;
    for (const JobDays& j : season.jobs)
        for (const Operation& o : j.operations)
            if (!o.done_h && o.hands_on_h > 0 && (!next.operation || o.start_h < next.operation->start_h)) next = {&j, &o};
    return next;
}

}  // namespace yb
