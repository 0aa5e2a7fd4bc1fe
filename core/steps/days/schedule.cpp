#include "core/steps/days/schedule.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <map>
#include <random>

namespace yb {

namespace {

constexpr double eps = 1e-9;
constexpr std::size_t none = static_cast<std::size_t>(-1);

/// What there is one of: two pairs of hands, four places.
constexpr std::size_t things = 2 + 4;
std::size_t thing_of(Place p) { return 1 + static_cast<std::size_t>(p); }  // after the two hands

struct Taken {
    double from = 0, to = 0;
    std::size_t by = none;
};

struct Node {
    Operation* op = nullptr;
    std::size_t job = 0;
    std::vector<std::size_t> before, after;
    Who who = Who::maker;
    double wait_h = 0, at_c = 20;  ///< as given, and at which air
    double tail = 0;               ///< hours that hang on it, its own counted
    std::size_t by = none;         ///< what kept it from beginning sooner
};

class Scheduler {
  public:
    Scheduler(std::vector<Net>& jobs, const Hands& hands, double now) : jobs_(jobs), hands_(hands), now_(now) {}

    Schedule run(Rule rule) {
        nodes();
        edges();
        break_circles();
        tails();
        std::vector<double> key(nodes_.size());
        const auto by_rank = [&](double noise, std::mt19937& dice) {
            std::uniform_real_distribution<double> any(1 - noise, 1 + noise);
            for (std::size_t i = 0; i < nodes_.size(); ++i) key[i] = nodes_[i].tail * (noise > 0 ? any(dice) : 1);
        };
        std::mt19937 dice(7);
        by_rank(0, dice);
        place(rule == Rule::ranks, key);
        if (rule == Rule::soonest && nodes_.size() > 1) {
            std::vector<std::array<double, 3>> best = times();
            double end = said_.end_h;
            const auto better = [&] {
                if (said_.end_h >= end - eps) return;
                end = said_.end_h;
                best = times();
            };
            place(true, key), better();
            // Long tails first is right most often; by lot near it finds what is left.
            const int tries = std::clamp(static_cast<int>(6000 / nodes_.size()), 8, 400);
            for (int k = 0; k < tries; ++k) by_rank(k % 3 == 0 ? 0.9 : 0.35, dice), place(false, key), better();
            for (std::size_t i = 0; i < nodes_.size(); ++i)
                nodes_[i].op->start_h = best[i][0], nodes_[i].op->hands_end_h = best[i][1], nodes_[i].op->end_h = best[i][2];
            said_.end_h = end;
            again();
        }
        that_days_waits();
        latest();
        deciding();
        return said_;
    }

  private:
    void nodes() {
        for (std::size_t j = 0; j < jobs_.size(); ++j)
            for (Operation& o : jobs_[j].operations) {
                if (o.hands_on_h > most_hours || o.waiting_h > most_hours) said_.endless = true;
                o.hands_on_h = std::max(0.0, held_hours(o.hands_on_h)), o.waiting_h = std::max(0.0, held_hours(o.waiting_h));
                Node n;
                n.op = &o;
                n.wait_h = o.waiting_h, n.at_c = o.air_c;
                n.job = j;
                if (o.who != Who::outside && o.who != Who::maker && hands_.of(o.who).never()) {
                    o.lacks = o.lacks || o.hands_on_h > 0;
                    if (o.alone_h > 0) o.hands_on_h = std::max(0.0, held_hours(o.alone_h)), o.alone_h = 0;
                } else {
                    o.lacks = false;
                }
                said_.no_hands = said_.no_hands || (o.lacks && o.pace != "end");  // at the client's somebody lends a hand
                n.who = o.works();
                nodes_.push_back(std::move(n));
            }
    }

    void edges() {
        std::map<std::pair<std::size_t, std::string>, std::size_t> by_key;
        for (std::size_t i = 0; i < nodes_.size(); ++i) by_key[{nodes_[i].job, nodes_[i].op->key}] = i;
        for (std::size_t i = 0; i < nodes_.size(); ++i)
            for (const std::string& k : nodes_[i].op->after)
                if (const auto it = by_key.find({nodes_[i].job, k}); it != by_key.end() && it->second != i) {
                    nodes_[i].before.push_back(it->second);
                    nodes_[it->second].after.push_back(i);
                }
    }

    /// Operations that wait for themselves wait for nothing; the rest stands.
    void break_circles() {
        std::vector<std::size_t> waits(nodes_.size());
        for (std::size_t i = 0; i < nodes_.size(); ++i) waits[i] = nodes_[i].before.size();
        order_.clear();
        for (std::size_t i = 0; i < nodes_.size(); ++i)
            if (waits[i] == 0) order_.push_back(i);
        for (std::size_t k = 0; k < order_.size(); ++k)
            for (const std::size_t s : nodes_[order_[k]].after)
                if (--waits[s] == 0) order_.push_back(s);
        if (order_.size() == nodes_.size()) return;
        std::vector<bool> out(nodes_.size(), true);
        for (const std::size_t i : order_) out[i] = false;
        // What only hangs on a circle is in none.
        for (bool fewer = true; fewer;) {
            fewer = false;
            for (std::size_t i = 0; i < nodes_.size(); ++i)
                if (out[i] && std::none_of(nodes_[i].after.begin(), nodes_[i].after.end(), [&](std::size_t s) { return out[s]; }))
                    out[i] = false, fewer = true;
        }
        // What the maker tied by hand gives first: the steps' own order stands.
        const auto own = [&](std::size_t i) { return index_of(nodes_[i].op->key, own_operation).has_value(); };
        bool by_hand = false;
        for (std::size_t i = 0; i < nodes_.size(); ++i) by_hand = by_hand || (out[i] && own(i));
        if (by_hand)
            for (std::size_t i = 0; i < nodes_.size(); ++i)
                if (out[i] && !own(i)) {
                    for (const std::size_t b : nodes_[i].before)
                        if (own(b) && out[b]) std::erase(nodes_[b].after, i);
                    std::erase_if(nodes_[i].before, [&](std::size_t b) { return own(b) && out[b]; });
                    out[i] = false;
                }
        for (std::size_t i = 0; i < nodes_.size(); ++i) {
            if (!out[i]) continue;
            said_.circular.push_back(jobs_[nodes_[i].job].job + "/" + nodes_[i].op->key);
            for (const std::size_t b : nodes_[i].before)
                if (out[b]) std::erase(nodes_[b].after, i);
            std::erase_if(nodes_[i].before, [&](std::size_t b) { return out[b]; });
        }
        break_circles();
    }

    void tails() {
        for (std::size_t k = order_.size(); k-- > 0;) {
            Node& n = nodes_[order_[k]];
            double longest = 0;
            for (const std::size_t s : n.after) longest = std::max(longest, nodes_[s].tail);
            // Of a day somebody works about a third: an hour of hands weighs three of waiting.
            n.tail = longest + n.op->waiting_h + 3 * n.op->hands_on_h + 0.01;
        }
    }

    /// Until when somebody or something is taken that an operation needs, placed so; and by whom. Nothing: it is free.
    const Taken* taken(const Node& n, double from, double hands_end, double end) const {
        const Taken* worst = nullptr;
        const auto look = [&](std::size_t thing, double a, double b) {
            if (b <= a + eps) return;
            const auto& all = taken_[thing];
            const auto it = std::partition_point(all.begin(), all.end(), [&](const Taken& t) { return t.to <= a + eps; });
            if (it != all.end() && it->from < b - eps && (!worst || it->to > worst->to)) worst = &*it;
        };
        if (n.who != Who::helper) look(0, from, hands_end);
        if (n.who == Who::helper || n.who == Who::both) look(1, from, hands_end);
        if (n.op->at != Place::none) look(thing_of(n.op->at), from, n.op->keeps ? end : hands_end);
        return worst;
    }

    void take(std::size_t thing, double a, double b, std::size_t by) {
        if (b <= a + eps) return;
        auto& all = taken_[thing];
        const auto it = std::partition_point(all.begin(), all.end(), [&](const Taken& t) { return t.from < a; });
        all.insert(it, {a, b, by});
    }

    void settle(std::size_t i) {
        const Node& n = nodes_[i];
        const Operation& o = *n.op;
        if (n.who != Who::helper) take(0, o.start_h, o.hands_end_h, i);
        if (n.who == Who::helper || n.who == Who::both) take(1, o.start_h, o.hands_end_h, i);
        if (o.at != Place::none) take(thing_of(o.at), o.start_h, o.keeps ? o.end_h : o.hands_end_h, i);
    }

    /// What is done stands where it was done; hands were on it in the working hours before.
    void stand(std::size_t i) {
        Operation& o = *nodes_[i].op;
        o.hands_end_h = held_hours(*o.done_h);
        o.start_h = hands_.of(nodes_[i].who).before(o.hands_end_h, o.hands_on_h);
        o.end_h = o.hands_end_h + wait_of(nodes_[i], o.hands_end_h);
    }

    /// How long it waits from an hour on.
    double wait_of(const Node& n, double h) const {
        if (n.op->air == AirWait::none) return n.wait_h;
        const auto c = hands_.air_c(h);
        return c ? held_hours(n.wait_h * longer(n.op->air, *c, n.at_c)) : n.wait_h;
    }

    /// Waits as they came out; where the air is known they are that day's.
    void that_days_waits() {
        for (Node& n : nodes_) {
            Operation& o = *n.op;
            if (o.air == AirWait::none) continue;
            o.waiting_h = wait_of(n, o.hands_end_h);
            o.air_c = hands_.air_c(o.hands_end_h).value_or(n.at_c);
        }
    }

    /// Somebody is there until it can be left, where a day is long enough for that.
    static double begun(const WorkClock& clock, double t, const Operation& o) {
        const double whole = clock.begun_whole(t, o.hands_on_h + o.watched_h);
        if (o.watched_h <= 0 || clock.after(whole, o.hands_on_h + o.watched_h) - whole < 24) return whole;
        return clock.begun_whole(t, o.hands_on_h);
    }

    void put(std::size_t i) {
        Node& n = nodes_[i];
        Operation& o = *n.op;
        const WorkClock& clock = hands_.of(n.who);
        n.by = none;
        double t = std::max({now_, jobs_[n.job].from_h, o.not_before_h, 0.0});
        for (const std::size_t b : n.before)
            if (nodes_[b].op->end_h > t) t = nodes_[b].op->end_h, n.by = b;
        const bool hands = o.hands_on_h > eps;
        for (;;) {
            if (hands) t = o.in_one_go ? begun(clock, t, o) : clock.next(t);
            const double hands_end = hands ? clock.after(t, o.hands_on_h) : t;
            const double end = hands_end + wait_of(n, hands_end);
            const Taken* in_the_way = t < most_hours ? taken(n, t, hands_end, end) : nullptr;
            if (!in_the_way) {
                o.start_h = t, o.hands_end_h = hands_end, o.end_h = end;
                break;
            }
            t = in_the_way->to, n.by = in_the_way->by;
        }
        if (o.end_h >= most_hours) said_.endless = true;
        o.start_h = held_hours(o.start_h), o.hands_end_h = held_hours(o.hands_end_h), o.end_h = held_hours(o.end_h);
        settle(i);
    }

    void place(bool ranks, const std::vector<double>& key) {
        for (auto& t : taken_) t.clear();
        std::vector<std::size_t> waits(nodes_.size());
        std::vector<std::size_t> ready;
        for (std::size_t i = 0; i < nodes_.size(); ++i) waits[i] = nodes_[i].before.size();
        const auto later = [&](std::size_t a, std::size_t b) {
            if (ranks && nodes_[a].job != nodes_[b].job) return nodes_[a].job > nodes_[b].job;
            return key[a] != key[b] ? key[a] < key[b] : a > b;
        };
        const auto free = [&](std::size_t i) {
            ready.push_back(i);
            std::push_heap(ready.begin(), ready.end(), later);
        };
        for (std::size_t i = 0; i < nodes_.size(); ++i)
            if (nodes_[i].op->done_h) stand(i);
        for (std::size_t i = 0; i < nodes_.size(); ++i)
            if (waits[i] == 0) free(i);
        said_.end_h = 0;
        while (!ready.empty()) {
            std::pop_heap(ready.begin(), ready.end(), later);
            const std::size_t i = ready.back();
            ready.pop_back();
            if (!nodes_[i].op->done_h) put(i);
            said_.end_h = std::max(said_.end_h, nodes_[i].op->end_h);
            for (const std::size_t s : nodes_[i].after)
                if (--waits[s] == 0) free(s);
        }
    }

    std::vector<std::array<double, 3>> times() const {
        std::vector<std::array<double, 3>> out;
        for (const Node& n : nodes_) out.push_back({n.op->start_h, n.op->hands_end_h, n.op->end_h});
        return out;
    }

    /// What is taken, and what kept each, worked out from the times that stand.
    void again() {
        for (auto& t : taken_) t.clear();
        for (std::size_t i = 0; i < nodes_.size(); ++i)
            if (!nodes_[i].op->done_h) settle(i);
        for (std::size_t i = 0; i < nodes_.size(); ++i) {
            Node& n = nodes_[i];
            n.by = none;
            double until = -1;
            for (const std::size_t b : n.before)
                if (nodes_[b].op->end_h > until) until = nodes_[b].op->end_h, n.by = b;
            for (std::size_t thing = 0; thing < things; ++thing)
                for (std::size_t k = 1; k < taken_[thing].size(); ++k)
                    if (taken_[thing][k].by == i && taken_[thing][k - 1].to > until)
                        until = taken_[thing][k - 1].to, n.by = taken_[thing][k - 1].by;
        }
    }

    /// Backward from the day it is wanted, or from the job's own end: through the net, and through who and what comes next.
    void latest() {
        std::vector<double> by(nodes_.size(), 0);  // hands off it and waiting over
        std::vector<double> hands_by(nodes_.size(), most_hours);
        for (std::size_t i = 0; i < nodes_.size(); ++i) {
            const Net& job = jobs_[nodes_[i].job];
            double end = 0;
            for (const Operation& o : job.operations) end = std::max(end, o.end_h);
            by[i] = job.wanted_h.value_or(end);
        }
        // The next of each thing after an operation.
        std::vector<std::vector<std::pair<std::size_t, bool>>> next(nodes_.size());
        for (std::size_t thing = 0; thing < things; ++thing)
            for (std::size_t k = 1; k < taken_[thing].size(); ++k) {
                const std::size_t i = taken_[thing][k - 1].by;
                next[i].emplace_back(taken_[thing][k].by, thing >= 2 && nodes_[i].op->keeps);
            }
        std::vector<std::size_t> all(nodes_.size());
        for (std::size_t i = 0; i < all.size(); ++i) all[i] = i;
        // What lasts no time begins with what follows it: a net's own order stands above the clock's.
        std::vector<std::size_t> place(nodes_.size());
        for (std::size_t k = 0; k < order_.size(); ++k) place[order_[k]] = k;
        std::stable_sort(all.begin(), all.end(), [&](std::size_t a, std::size_t b) {
            const double x = nodes_[a].op->start_h, y = nodes_[b].op->start_h;
            return x != y ? x > y : place[a] > place[b];
        });
        for (const std::size_t i : all) {
            Operation& o = *nodes_[i].op;
            for (const std::size_t s : nodes_[i].after) by[i] = std::min(by[i], nodes_[s].op->latest_h);
            for (const auto& [s, whole] : next[i])
                (whole ? by[i] : hands_by[i]) = std::min(whole ? by[i] : hands_by[i], nodes_[s].op->latest_h);
            const double hands_end = std::min(by[i] - o.waiting_h, hands_by[i]);
            const WorkClock& clock = hands_.of(nodes_[i].who);
            o.latest_h = o.done_h || o.hands_on_h <= eps ? hands_end
                         : o.in_one_go                   ? std::max(o.start_h, clock.begun_whole_before(hands_end, o.hands_on_h))
                                                         : clock.before(hands_end, o.hands_on_h);
            if (o.done_h) o.latest_h = o.start_h;
        }
    }

    void deciding() {
        std::vector<std::size_t> last(jobs_.size(), none);
        for (std::size_t i = 0; i < nodes_.size(); ++i) {
            nodes_[i].op->decides = false;
            std::size_t& l = last[nodes_[i].job];
            if (l == none || nodes_[i].op->end_h > nodes_[l].op->end_h) l = i;
        }
        for (std::size_t i : last)
            for (std::size_t guard = 0; i != none && guard <= nodes_.size(); ++guard) {
                nodes_[i].op->decides = true;
                i = nodes_[i].op->done_h ? none : nodes_[i].by;
            }
    }

    std::vector<Net>& jobs_;
    const Hands& hands_;
    double now_;
    std::vector<Node> nodes_;
    std::vector<std::size_t> order_;  ///< each after what it waits for
    std::array<std::vector<Taken>, things> taken_;
    Schedule said_;
};

}  // namespace

Hands::Hands(const std::string& start, const Workday& week, const Climate* air)
    : maker(start, week, Crew::maker), helper(start, week, Crew::helper), both(start, week, Crew::both) {
    if (!air || !is_date(start)) return;
    using namespace std::chrono;
    sys_days day = *read_date(start);
    for (int i = 0; i < 1461; ++i, day += days{1})
        by_day_.push_back(air->months[static_cast<unsigned>(year_month_day(day).month()) - 1].temp_c);
}

std::optional<double> Hands::air_c(double h) const {
    if (by_day_.empty()) return {};
    return by_day_[static_cast<std::size_t>(std::max(0.0, held_hours(h)) / 24) % by_day_.size()];
}

Schedule schedule(std::vector<Net>& jobs, const Hands& hands, double now, Rule rule) { return Scheduler(jobs, hands, now).run(rule); }

}  // namespace yb
