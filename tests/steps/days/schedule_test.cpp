// The schedule by hand, against a check of its own, and against every order there is.
#include <catch2/catch.hpp>

#include <numeric>
#include <random>

#include "core/shop/days/season.h"
#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/work_order.h"
#include "demo/demo.h"
#include "tests/planks.h"

using namespace yb;

namespace {

const std::string monday = "2026-11-30";

Operation op(std::string key, double hands, double wait, std::vector<std::string> after = {}, bool aside = true) {
    Operation o;
    o.key = o.label = std::move(key);
    o.hands_on_h = hands, o.waiting_h = wait;
    o.after = std::move(after);
    o.aside = aside;
    return o;
}

const Operation& of(const Net& n, const std::string& key) {
    for (const Operation& o : n.operations)
        if (o.key == key) return o;
    FAIL(key);
    throw 0;
}

/// Whether somebody works at a moment, asked of the week itself.
bool works(const Workday& w, Crew hand, const std::string& start, double h) {
    const std::string day = date_after(start, h);
    if (is_off(w, day)) return false;
    const double hour = h - std::floor(h / 24) * 24;
    for (const auto& [from, to] : stretches_on(w, hand, weekday_of(day)))
        if (hour >= from - 1e-9 && hour < to - 1e-9) return true;
    return false;
}

/// Hours somebody works between two moments, counted in minutes.
double worked(const Workday& w, Crew hand, const std::string& start, double from, double to) {
    int minutes = 0;
    for (double m = std::round(from * 60); m < std::round(to * 60); ++m) minutes += works(w, hand, start, m / 60 + 1e-6);
    return minutes / 60.0;
}

/// What is wrong with a schedule, checked apart from whatever made it; empty: nothing.
std::string wrong(const std::vector<Net>& jobs, const Workday& w, const std::string& start, double now, bool count_minutes) {
    struct Stretch {
        double from, to;
        std::string who;
    };
    std::map<std::string, std::vector<Stretch>> taken;
    // Who is never there does not keep the work from being done: the maker does it alone.
    const auto there = [&](Crew crew) {
        for (int day = 0; day < 7; ++day)
            if (!stretches_on(w, crew, day).empty()) return true;
        return false;
    };
    for (const Net& n : jobs)
        for (const Operation& o : n.operations) {
            const std::string name = n.job + "/" + o.key;
            if (o.hands_end_h < o.start_h - 1e-6 || std::abs(o.end_h - o.hands_end_h - o.waiting_h) > 1e-6)
                return name + " ends before it began";
            if (o.done_h) continue;
            if (o.start_h < std::max({now, n.from_h, o.not_before_h}) - 1e-6) return name + " begins too soon";
            for (const std::string& k : o.after)
                for (const Operation& b : n.operations)
                    if (b.key == k && b.end_h > o.start_h + 1e-6) return name + " begins before " + k + " has ended";
            if (o.hands_on_h > 0) {
                const Who who =
                    (o.who == Who::helper && there(Crew::helper)) || (o.who == Who::both && there(Crew::both)) ? o.who : Who::maker;
                const Crew hand = who == Who::helper ? Crew::helper : who == Who::both ? Crew::both : Crew::maker;
                if (!works(w, hand, start, o.start_h)) return name + " begins out of hours";
                double longest = 0;
                for (int day = 0; day < 7; ++day) {
                    double sum = 0;
                    for (const auto& [from, to] : stretches_on(w, hand, day)) sum += to - from;
                    longest = std::max(longest, sum);
                }
                if (o.in_one_go && o.hands_on_h <= longest - 1e-6 &&
                    std::floor((o.start_h + 1e-6) / 24) != std::floor((o.hands_end_h - 1e-6) / 24))
                    return name + " is left over night";
                if (count_minutes && std::abs(worked(w, hand, start, o.start_h, o.hands_end_h) - o.hands_on_h) > 0.02)
                    return name + " is not worked on for its hours";
                if (who != Who::helper) taken["maker"].push_back({o.start_h, o.hands_end_h, name});
                if (who == Who::helper || who == Who::both) taken["helper"].push_back({o.start_h, o.hands_end_h, name});
            }
            if (o.at != Place::none)
                taken["place " + std::to_string(static_cast<int>(o.at))].push_back({o.start_h, o.keeps ? o.end_h : o.hands_end_h, name});
        }
    for (auto& [thing, all] : taken) {
        std::sort(all.begin(), all.end(), [](const Stretch& a, const Stretch& b) { return a.from < b.from; });
        for (std::size_t i = 1; i < all.size(); ++i)
            if (all[i].from < all[i - 1].to - 1e-6 && all[i].to > all[i].from + 1e-9 && all[i - 1].to > all[i - 1].from + 1e-9)
                return thing + " is at " + all[i - 1].who + " and at " + all[i].who;
    }
    return {};
}

double end_of(const std::vector<Net>& jobs) {
    double end = 0;
    for (const Net& n : jobs)
        for (const Operation& o : n.operations) end = std::max(end, o.end_h);
    return end;
}

std::vector<Net> random_nets(std::mt19937& dice, int jobs, int most) {
    std::uniform_real_distribution<double> any(0, 1);
    std::vector<Net> out;
    for (int j = 0; j < jobs; ++j) {
        Net n;
        n.job = "j" + std::to_string(j);
        n.from_h = std::floor(any(dice) * 4) * 24;
        const int count = 2 + static_cast<int>(any(dice) * (most - 1));
        for (int i = 0; i < count; ++i) {
            Operation o = op("o" + std::to_string(i), std::round(any(dice) * 20) / 4 * (any(dice) < 0.9),
                             any(dice) < 0.5 ? 0 : std::round(any(dice) * 60));
            for (int b = 0; b < i; ++b)
                if (any(dice) < 0.3) o.after.push_back("o" + std::to_string(b));
            const double who = any(dice);
            o.who = who < 0.8 ? Who::maker : who < 0.9 ? Who::helper : Who::both;
            const double at = any(dice);
            o.at = at < 0.5 ? Place::none : at < 0.7 ? Place::bench : at < 0.8 ? Place::form : at < 0.9 ? Place::clamps : Place::spray;
            o.keeps = any(dice) < 0.5;
            n.operations.push_back(std::move(o));
        }
        out.push_back(std::move(n));
    }
    return out;
}

Workday random_week(std::mt19937& dice) {
    std::uniform_real_distribution<double> any(0, 1);
    Workday w;
    w.saturdays = any(dice) < 0.3;
    if (any(dice) < 0.5)
        for (int d = 0; d < 6; ++d) {
            if (any(dice) < 0.2) continue;
            w.week.push_back({d, 8, 12});
            if (any(dice) < 0.7) w.week.push_back({d, 13, 16.5});
        }
    if (any(dice) < 0.6)
        for (int d = 0; d < 6; ++d)
            if (any(dice) < 0.5) w.helper.push_back({d, 9, 15});
    if (any(dice) < 0.5) w.off.push_back({date_after(monday, 24 * std::floor(any(dice) * 14)), {}, "a day off"});
    if (any(dice) < 0.3) w.off.push_back({"2026-12-24", "2027-01-03", "holidays"});
    return w;
}

}  // namespace

TEST_CASE("working time is what a clock that ticks through the week says, there and back", "[days][workclock]") {
    std::mt19937 dice(11);
    std::uniform_real_distribution<double> any(0, 1);
    for (int round = 0; round < 120; ++round) {
        const Workday w = random_week(dice);
        for (const Crew hand : {Crew::maker, Crew::helper, Crew::both}) {
            const WorkClock c(monday, w, hand);
            INFO(round << " " << static_cast<int>(hand));
            if (c.never()) {
                CHECK(c.next(3) == most_hours);
                CHECK(c.after(3, 1) == most_hours);
                continue;
            }
            const double h = std::round(any(dice) * 300 * 4) / 4;
            const double work = std::round(any(dice) * 60) / 4;
            const double begins = c.next(h);
            CHECK(works(w, hand, monday, begins));
            CHECK(worked(w, hand, monday, h, begins) == Approx(0).margin(1e-9));
            const double ends = c.after(h, work);
            CHECK(worked(w, hand, monday, begins, ends) == Approx(work).margin(0.02));
            CHECK(c.between(begins, ends) == Approx(work).margin(1e-6));
            if (work > 0) {
                const double latest = c.before(ends, work);
                CHECK(c.after(latest, work) == Approx(ends).margin(1e-6));
                CHECK(latest >= begins - 1e-6);
                // Begun a quarter of an hour later it is not done by then.
                CHECK(c.after(latest + 0.25, work) > ends + 0.2);
            }
        }
    }
}

TEST_CASE("summer time moves no hour of work: a day has the hours its clock shows", "[days][workclock]") {
    // In most of Europe the clocks change on 28 March and 31 October 2027.
    for (const char* start : {"2027-03-26", "2027-10-29"}) {
        const WorkClock c(start, Workday());
        // Friday four in the afternoon and two hours: Monday at nine, whatever the night between was.
        CHECK(wall_clock(start, c.after(16, 2)) == date_after(start, 72) + "T09:00");
        CHECK(*hours_to(start, wall_clock(start, 81)) == 81);
    }
    CHECK(wall_clock("2026-11-30", 23.999) == "2026-12-01T00:00");
    CHECK_FALSE(hours_to("2026-11-30", "2026-11-30T25:00"));
    CHECK_FALSE(hours_to("2026-11-30", "soon"));
}

TEST_CASE("nets by hand: waiting runs on, the base goes into it, two tables share one pair of hands", "[days][schedule]") {
    // Monday 8 to 17. Flatten 4 h, rest a day, last pass 2 h; a base of 6 h beside.
    std::vector<Net> one(1);
    one[0].job = "a";
    one[0].operations = {op("flat", 4, 24), op("last", 2, 0, {"flat"}), op("base", 6, 0), op("fit", 1, 0, {"last", "base"})};
    const Schedule s = schedule(one, Hands(monday, Workday()));
    CHECK(of(one[0], "flat").start_h == 8);
    CHECK(of(one[0], "flat").end_h == 36);
    // Monday 12 to 17 and Tuesday 8 to 9: in the waiting.
    CHECK(of(one[0], "base").start_h == 12);
    CHECK(of(one[0], "base").hands_end_h == 33);
    CHECK(of(one[0], "last").start_h == 36);
    CHECK(of(one[0], "fit").start_h == 38);
    CHECK(s.end_h == 39);
    // Flat, last and fit decide; the base has three hours: until noon on Tuesday it can end.
    CHECK(of(one[0], "flat").decides);
    CHECK(of(one[0], "last").decides);
    CHECK(of(one[0], "fit").decides);
    CHECK_FALSE(of(one[0], "base").decides);
    CHECK(of(one[0], "flat").slack_h() == Approx(0));
    CHECK(of(one[0], "base").latest_h == Approx(15));  // six hours back from Tuesday at twelve: Monday at three
    // A second table takes the hands when the first leaves them; the first stands as it stood.
    std::vector<Net> two(2);
    two[0] = one[0];
    two[1].job = "b";
    two[1].operations = {op("flat", 4, 24), op("last", 2, 0, {"flat"})};
    schedule(two, Hands(monday, Workday()));
    CHECK(of(two[0], "fit").start_h == 38);
    CHECK(of(two[1], "flat").start_h == 39);  // Tuesday at three; nothing before is four hours long
    // Where the second comes first it is begun at eight, and the first waits.
    std::swap(two[0], two[1]);
    schedule(two, Hands(monday, Workday()));
    CHECK(of(two[0], "flat").start_h == 8);
    CHECK(of(two[1], "flat").start_h == 12);
    // Wanted on Tuesday evening: counted backward, the first's flattening can begin on Monday at eight at the latest … it ends an hour
    // before five.
    one[0].wanted_h = 24 + 17;
    schedule(one, Hands(monday, Workday()));
    CHECK(of(one[0], "fit").latest_h == Approx(24 + 16));
    CHECK(of(one[0], "last").latest_h == Approx(24 + 14));
    CHECK(of(one[0], "flat").latest_h == Approx(10));
    // With a helper on Tuesdays alone, what wants both waits for Tuesday.
    Workday helped;
    helped.helper = {{1, 8, 12}};
    std::vector<Net> glue(1);
    glue[0].operations = {op("glue", 2, 12)};
    glue[0].operations[0].who = Who::both;
    CHECK_FALSE(schedule(glue, Hands(monday, helped)).no_hands);
    CHECK(glue[0].operations[0].start_h == 32);
    CHECK(schedule(glue, Hands(monday, Workday())).no_hands);
    CHECK(glue[0].operations[0].start_h == 8);
    // One form: the second pour waits until the first is hard.
    std::vector<Net> forms(2);
    for (Net& n : forms) {
        n.operations = {op("pour", 1, 48)};
        n.operations[0].at = Place::form, n.operations[0].keeps = true;
    }
    schedule(forms, Hands(monday, Workday()));
    CHECK(forms[0].operations[0].end_h == 57);
    CHECK(forms[1].operations[0].start_h == 57);
}

TEST_CASE("a thousand shops by lot: nobody in two places, nothing before what it needs, nothing out of hours, nothing held twice",
          "[days][schedule]") {
    std::mt19937 dice(3);
    for (int round = 0; round < 1000; ++round) {
        const Workday w = random_week(dice);
        std::vector<Net> jobs = random_nets(dice, 1 + round % 4, 12);
        const double now = round % 3 == 0 ? 30 : 0;
        if (round % 5 == 0) jobs[0].operations[0].done_h = 5;
        if (round % 7 == 0) jobs[0].operations.back().not_before_h = 24 * 9;
        const Rule rule = round % 10 == 0 ? Rule::soonest : Rule::ranks;
        const Hands hands(monday, w);
        if (hands.maker.never()) continue;
        const Schedule s = schedule(jobs, hands, now, rule);
        INFO(round);
        CHECK(wrong(jobs, w, monday, now, round % 20 == 0) == "");
        CHECK(s.end_h == Approx(end_of(jobs)));
        for (const Net& n : jobs) {
            double end = 0;
            for (const Operation& o : n.operations) end = std::max(end, o.end_h);
            for (const Operation& o : n.operations) {
                INFO(n.job << " " << o.key);
                CHECK(o.latest_h >= o.start_h - 1e-6);  // nothing has to begin before it does
                CHECK(o.latest_h <= end + 1e-6);
            }
            CHECK(std::any_of(n.operations.begin(), n.operations.end(), [](const Operation& o) { return o.decides; }));
        }
    }
}

TEST_CASE("small nets against every order there is: within 5 % of the soonest in 95 of 100", "[days][schedule]") {
    std::mt19937 dice(17);
    int good = 0;
    for (int round = 0; round < 100; ++round) {
        std::vector<Net> jobs = random_nets(dice, 2, 4);
        Workday w;
        w.helper = {{0, 8, 17}, {1, 8, 17}, {2, 8, 17}, {3, 8, 17}, {4, 8, 17}};
        const Hands hands(monday, w);
        // Every order in which operations can be placed, each as early as it goes: the soonest of all is among them.
        struct At {
            std::size_t job, op;
        };
        std::vector<At> all;
        for (std::size_t j = 0; j < jobs.size(); ++j)
            for (std::size_t o = 0; o < jobs[j].operations.size(); ++o) all.push_back({j, o});
        std::vector<std::size_t> order(all.size());
        std::iota(order.begin(), order.end(), std::size_t{0});
        double best = 1e9;
        do {
            std::map<std::pair<std::size_t, std::string>, double> ended;
            std::map<std::string, std::vector<std::pair<double, double>>> taken;
            double end = 0;
            bool possible = true;
            for (const std::size_t k : order) {
                const Operation& o = jobs[all[k].job].operations[all[k].op];
                double t = jobs[all[k].job].from_h;
                for (const std::string& b : o.after) {
                    const auto it = ended.find({all[k].job, b});
                    if (it == ended.end()) {
                        possible = false;
                        break;
                    }
                    t = std::max(t, it->second);
                }
                if (!possible) break;
                std::vector<std::string> needs;
                if (o.who != Who::helper) needs.push_back("maker");
                if (o.who == Who::helper || o.who == Who::both) needs.push_back("helper");
                const WorkClock& c = hands.of(o.who);
                for (bool moved = true; moved;) {
                    moved = false;
                    if (o.hands_on_h > 0) t = c.next(t);
                    const double off = o.hands_on_h > 0 ? c.after(t, o.hands_on_h) : t;
                    const auto clash = [&](const std::string& thing, double until) {
                        for (const auto& [a, b] : taken[thing])
                            if (until > t + 1e-9 && a < until - 1e-9 && b > t + 1e-9) {
                                t = b;
                                return true;
                            }
                        return false;
                    };
                    for (const std::string& n : needs) moved = moved || (o.hands_on_h > 0 && clash(n, off));
                    if (!moved && o.at != Place::none)
                        moved = clash("at" + std::to_string(static_cast<int>(o.at)), o.keeps ? off + o.waiting_h : off);
                }
                const double off = o.hands_on_h > 0 ? c.after(t, o.hands_on_h) : t;
                if (o.hands_on_h > 0)
                    for (const std::string& n : needs) taken[n].emplace_back(t, off);
                if (o.at != Place::none)
                    taken["at" + std::to_string(static_cast<int>(o.at))].emplace_back(t, o.keeps ? off + o.waiting_h : off);
                ended[{all[k].job, o.key}] = off + o.waiting_h;
                end = std::max(end, off + o.waiting_h);
                if (end >= best) possible = false;
                if (!possible) break;
            }
            if (possible) best = std::min(best, end);
        } while (std::next_permutation(order.begin(), order.end()));
        const double ours = schedule(jobs, hands, 0, Rule::soonest).end_h;
        INFO(round << ": " << ours << " against " << best);
        CHECK(ours >= best - 1e-6);
        good += ours <= best * 1.05 + 1e-6;
    }
    CHECK(good >= 95);
}

TEST_CASE("every mistake of order is a rule that holds in every demo job and in jobs by lot",
          "[days][rules][T1][T16][T18][T38][T39][T40][T41]") {
    const Documents d = demo_shop();
    std::map<std::string, int> met;
    const auto holds = [&](const Job& job, const Documents& docs) {
        const DaysPlan p = *plan_job(job, docs).days;
        const WorkOrder order;
        for (const OperationKind* kind : order.kinds())
            for (const Before& r : kind->after)
                for (const Operation& before : p.operations)
                    for (const Operation& after : p.operations) {
                        if (kind_key(before.key) != r.key || kind_key(after.key) != kind->key) continue;
                        INFO(job.id << ": " << before.key << " before " << after.key);
                        CHECK(before.end_h <= after.start_h + 1e-6);
                        ++met[r.trouble];
                    }
        std::vector<Net> one(1);
        one[0].operations = p.operations;
        CHECK(wrong(one, docs.shop.workday, p.start, 0, true) == "");
    };
    for (const auto& [id, job] : d.jobs) {
        if (!job.days.done.empty()) continue;  // what is done stands where it was done
        holds(job, d);
        Job other = job;
        other.flat.rest_h = 72, other.under.lead_days = 20, other.under.parts_first = true, other.skin.finish = Finish::tinted;
        other.under.base = BaseKind::trestle;
        holds(other, d);
    }
    for (const char* t : {"T1", "T16", "T38", "T39", "T40", "T41"}) {
        INFO(t);
        CHECK(met[t] > 0);
    }
    // What is ordered outside begins before the wood is flat, and nothing waits for it sooner than it must.
    Job ordered = d.jobs.at("job-reading-table");
    ordered.under.lead_days = 20;
    const DaysPlan p = *plan_job(ordered, d).days;
    double order_h = -1, flat_h = -1;
    for (const Operation& o : p.operations) (o.key == "base_order" ? order_h : o.key == "flat1" ? flat_h : flat_h) = o.start_h;
    for (const Operation& o : p.operations)
        if (o.key == "flat1") flat_h = o.start_h;
    CHECK(order_h >= 0);
    CHECK(order_h <= flat_h);
}

TEST_CASE("waits are those of that day's air: resin by its law, coats by halves, what was typed stands", "[days][air]") {
    CHECK(longer(AirWait::none, 5, 25) == 1);
    CHECK(longer(AirWait::dries, 10, 20) == Approx(2));
    CHECK(longer(AirWait::dries, 25, 20) == Approx(std::exp2(-0.5)));
    // exp(E/R · (1/T − 1/T₀)), E = 55 kJ/mol: 25 to 15 °C by hand.
    CHECK(longer(AirWait::cures, 15, 25) == Approx(std::exp(55000 / 8.314462618 * (1 / 288.15 - 1 / 298.15))));
    CHECK(longer(AirWait::cures, std::nan(""), 20) == 1);
    Climate year("a cold new year", {});
    for (std::size_t m = 0; m < 12; ++m) year.months[m].temp_c = m == 0 ? 10 : 20;
    const auto one = [&](const char* start, AirWait air) {
        std::vector<Net> net(1);
        net[0].operations = {op("coat", 1, 40)};
        net[0].operations[0].air = air, net[0].operations[0].air_c = 20;
        schedule(net, Hands(start, Workday(), &year));
        return net[0].operations[0];
    };
    CHECK(one("2026-12-01", AirWait::dries).waiting_h == Approx(40));
    CHECK(one("2027-01-04", AirWait::dries).waiting_h == Approx(80));
    CHECK(one("2027-01-04", AirWait::dries).air_c == 10);
    CHECK(one("2027-01-04", AirWait::none).waiting_h == 40);
    CHECK(one("2027-01-04", AirWait::cures).end_h == Approx(9 + 40 * longer(AirWait::cures, 10, 20)));
    // Said twice, worked out once: a schedule of a schedule is the same.
    std::vector<Net> again(1);
    again[0].operations = {one("2027-01-04", AirWait::dries)};
    schedule(again, Hands("2027-01-04", Workday(), &year));
    CHECK(again[0].operations[0].waiting_h == Approx(80));
    Job typed = demo_shop().jobs.at("job-reading-table");
    set_hours(typed, "fill", {}, 11.0);
    for (const Operation& o : plan_job(typed, demo_shop()).days->operations)
        if (o.key == "fill") CHECK((o.waiting_h == 11 && o.air == AirWait::none));
}

TEST_CASE("wood that is not dry is waited for by its own readings – a date before it says so – a kiln could give", "[days][dry]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-landing-bench");
    Slab& slab = d.slabs.at(job.first().slab);
    const auto has_dry = [&] {
        const auto ops = plan_job(job, d).days->operations;
        return std::find_if(ops.begin(), ops.end(), [](const Operation& o) { return o.key == "dry"; }) != ops.end();
    };
    CHECK_FALSE(has_dry());
    const double settles = settles_at(d.shop.air);
    slab.moisture_log = {{"2026-08-01", settles + 12}, {"2026-10-01", settles + 8}};
    slab.moisture_pct = settles + 5.5, slab.moisture_on = "2026-12-01";
    job.room = d.shop.air;
    REQUIRE(has_dry());
    job.days.wanted = "2026-12-12";
    const SeasonAsk ask{"2026-12-07", Rule::ranks, {job.id}};
    const Season s = season_of(d, ask);
    CHECK(find_caution(s.cautions, "days.damp"));
    for (const Operation& o : s.jobs[0].operations)
        if (o.key == "lay") CHECK(o.start_h > 24 * 20);
    std::map<std::string, const Plan*> bare;
    const auto plans = plans_of(d, {job.id});
    for (const auto& [id, plan] : plans) bare[id] = plan.get();
    const WhatIf kiln = what_if(d, bare, ask, job.id, "kiln");
    CHECK(kiln.gains_h > 24);
    const WhatIf both = what_if(d, bare, ask, job.id, "kiln+saturdays");
    CHECK(both.gains_h >= kiln.gains_h - 1e-6);
    CHECK_THROWS_AS(what_if(d, bare, ask, job.id, "kiln+wishing"), std::invalid_argument);
}

TEST_CASE("what the shelf does not hold is ordered while the work goes on, before what wants it [T41]", "[days][order][T41]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-tarn-river");
    const auto orders = [&](const char* key) {
        const auto ops = plan_job(job, d).days->operations;
        return std::count_if(ops.begin(), ops.end(), [&](const Operation& o) { return o.key == key; });
    };
    for (Resin& r : d.shop.resins) r.left_l.reset();
    CHECK(orders("buy_resin") == 0);  // what is there is not said
    for (Resin& r : d.shop.resins) r.left_l = 0.1;
    for (FinishClass& f : d.shop.finishes.labels) f.left_l = 0.01;
    CHECK(orders("buy_resin") == 1);
    CHECK(orders("buy_finish") == 1);
    d.shop.money.order_days = 21;
    const Plan p = plan_job(job, d);
    double there = 0;
    for (const Operation& o : p.days->operations)
        if (o.key == "buy_resin") there = o.end_h;
    CHECK(there >= 21 * 24);
    for (const Operation& o : p.days->operations)
        if (o.key == "pour" || o.key == "fill") CHECK(o.start_h >= there - 1e-6);
    const Season s = season_of(d, {job.start, Rule::ranks, {job.id}});
    const Today t = today_of(s, job.start);
    REQUIRE(t.order_by.size() == 2);
    for (const TodayLine& l : t.order_by) CHECK(is_date(l.by));
    for (Resin& r : d.shop.resins) r.left_l = 500;
    CHECK(orders("buy_resin") == 0);
}

TEST_CASE("a quicker resin and a helper are tried among what could give, each as planning it whole has it", "[days][whatif]") {
    Documents d = demo_shop();
    const std::string id = "job-tarn-river";
    const SeasonAsk ask{"2027-02-01", Rule::ranks, {id}};
    const auto plans = plans_of(d, {id});
    std::map<std::string, const Plan*> bare;
    for (const auto& [i, plan] : plans) bare[i] = plan.get();
    const double now = season_of(d, bare, ask).jobs[0].ready_h;
    for (const char* key : {"quicker_resin", "helper_days", "helper_saturdays", "no_rest+saturdays"}) {
        INFO(key);
        const WhatIf w = what_if(d, bare, ask, id, key);
        Documents taken = d;
        take_what_if(taken, key, id);
        const Season then = season_of(taken, ask);
        CHECK(now - then.jobs[0].ready_h == Approx(w.gains_h).margin(1e-6));
        CHECK(w.ready_h.at(id) == Approx(then.jobs[0].ready_h));
    }
}

TEST_CASE("circles, weeks without a day, dates that are none: told, and what can be planned is", "[days][hostile]") {
    std::vector<Net> one(1);
    one[0].job = "a";
    one[0].operations = {op("x", 1, 0, {"z"}), op("y", 1, 0, {"x"}), op("z", 1, 0, {"y"}), op("free", 2, 0)};
    Schedule s = schedule(one, Hands(monday, Workday()));
    CHECK(s.circular == std::vector<std::string>{"a/x", "a/y", "a/z"});
    CHECK(s.end_h == 13);
    Workday never;
    never.week = {{6, 12, 12.5}};
    never.off = {{"2026-01-01", "2060-01-01", "for ever"}};
    s = schedule(one, Hands(monday, never));
    CHECK(s.endless);
    CHECK(std::isfinite(s.end_h));
    Workday closed;
    closed.from_h = 8, closed.to_h = 8;  // read as open until midnight
    CHECK(WorkClock(monday, closed).after(8, 16) == 24);
    // Half an hour a week still gets there.
    Workday little;
    little.week = {{2, 10, 10.5}};
    one[0].operations = {op("x", 2, 0)};
    s = schedule(one, Hands(monday, little));
    CHECK(one[0].operations[0].hands_end_h == Approx(2 * 24 + 3 * 7 * 24 + 10.5));
    one[0].operations = {op("x", 1e300, -5), op("y", std::nan(""), 1e300)};
    s = schedule(one, Hands("soon", Workday()));
    CHECK(s.endless);
    for (const Operation& o : one[0].operations) CHECK((std::isfinite(o.start_h) && std::isfinite(o.end_h) && std::isfinite(o.latest_h)));
    std::vector<Net> empty;
    CHECK(schedule(empty, Hands(monday, Workday())).end_h == 0);
}

TEST_CASE("ticks stand where they were, pins and own operations hold, the rest moves", "[days][ticks]") {
    const Documents d = demo_shop();
    Job job = d.jobs.at("job-reading-table");
    const DaysPlan before = *plan_job(job, d).days;
    const auto get = [](const DaysPlan& p, const std::string& key) {
        for (const Operation& o : p.operations)
            if (o.key == key) return o;
        FAIL(key);
        throw 0;
    };
    const double lay_end = get(before, "lay").hands_end_h;
    // Laying took four days longer: all that follows moves, and the date with it.
    job.days.done = {{"lay", wall_clock(job.start, lay_end + 96)}};
    const DaysPlan late = *plan_job(job, d).days;
    CHECK(get(late, "lay").hands_end_h == Approx(lay_end + 96).margin(1.0 / 60));  // ticked to the minute
    CHECK(get(late, "rough").start_h >= get(late, "lay").hands_end_h - 1e-6);
    CHECK(late.end_h > before.end_h);
    job.days.done.clear();
    job.days.pins = {{"flat1", date_after(job.start, 24 * 10)}};
    const DaysPlan pinned = *plan_job(job, d).days;
    CHECK(get(pinned, "flat1").start_h >= 240);
    job.days.pins.clear();
    // Longer than its step says, given to the helper, done again, in two halves.
    set_hours(job, "lay", 5, 10);
    CHECK(get(*plan_job(job, d).days, "lay").hands_on_h == 5);
    CHECK(get(*plan_job(job, d).days, "lay").waiting_h == 10);
    set_hours(job, "lay", {}, {});
    give_to_helper(job, "lay", true);
    CHECK(get(*plan_job(job, d).days, "lay").who == Who::helper);
    give_to_helper(job, "lay", false);
    CHECK(job.days.changes.empty());
    const Operation level = get(before, "level");
    const std::string again = again_after(job, level, "Level again");
    CHECK(get(*plan_job(job, d).days, again).start_h >= get(*plan_job(job, d).days, "level").end_h);
    drop_own(job, again);
    CHECK(job.days.own.empty());
    const Operation fill = get(before, "fill");
    const std::string half = split(job, fill, "Fill, second half", "level");
    const DaysPlan halves = *plan_job(job, d).days;
    CHECK(get(halves, "fill").hands_on_h + get(halves, half).hands_on_h == Approx(fill.hands_on_h));
    CHECK(get(halves, "fill").waiting_h == 0);
    CHECK(get(halves, half).waiting_h == fill.waiting_h);
    CHECK(get(halves, half).start_h >= get(halves, "fill").end_h);
    CHECK(get(halves, "level").start_h >= get(halves, half).end_h);
    job.days = {};
    job.days.own = {{"Draw with the client", "lay", "rough", 2, 48, Who::maker}};
    const DaysPlan own = *plan_job(job, d).days;
    CHECK(get(own, "own 1").start_h >= get(own, "lay").end_h);
    CHECK(get(own, "rough").start_h >= get(own, "own 1").end_h);
    // Something that waits for itself by hand is told, not waited for.
    job.days.own = {{"Round and round", "sand", "lay", 1, 0, Who::maker}};
    Documents docs = d;
    docs.jobs[job.id] = job;
    const Season s = season_of(docs, {"", Rule::ranks, {job.id}});
    REQUIRE(find_caution(s.cautions, "days.circle"));
    // The maker's tie gives, once; the order of the work stands.
    CHECK(s.said.circular == std::vector<std::string>{job.id + "/own 1"});
    double free = 0;
    for (const Operation& o : s.jobs[0].operations) {
        if (o.aside) continue;
        CHECK(o.start_h >= free - 1e-6);
        free = o.end_h;
    }
    // Days that are none, and one that has not come.
    job.days = {};
    job.days.wanted = "2026-13-45", job.days.pins = {{"lay", "never"}}, job.days.done = {{"lay", "2126-01-01T10:00"}};
    docs.jobs[job.id] = job;
    const Season odd = season_of(docs, {"2026-11-30", Rule::ranks, {job.id}});
    CHECK(std::count_if(odd.cautions.begin(), odd.cautions.end(), [](const Caution& c) { return c.key == "days.odd_date"; }) == 3);
}

TEST_CASE("all demo jobs over a season with days off: one pair of hands, one form, dates that move with what is late", "[days][season]") {
    Documents d = demo_shop();
    d.shop.workday.off = {{"2026-12-24", "2027-01-03", "between the years"}};
    const Season s = season_of(d, {"2026-11-30", Rule::ranks, {}});
    // One of them is delivered, two are other ways of one that is there.
    CHECK(s.jobs.size() == d.jobs.size() - 3);
    std::vector<Net> nets;
    for (const JobDays& j : s.jobs) nets.push_back({j.id, 0, j.operations, {}});
    CHECK(wrong(nets, d.shop.workday, s.start, s.now_h, true) == "");
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations)
            if (o.hands_on_h > 0) CHECK_FALSE(is_off(d.shop.workday, s.date(o.start_h)));
    // The first is as it would be alone; another that is put first takes its place.
    const std::string last = s.jobs.back().id;
    Documents other = d;
    other.shop.job_order = {{last}};
    const Season moved = season_of(other, {"2026-11-30", Rule::ranks, {}});
    CHECK(moved.jobs.front().id == last);
    CHECK(moved.jobs.front().ready_h <= s.jobs.back().ready_h);
    // Hours of a day never go over those there are.
    for (const DayLoad& l : loads_of(s, s.end_h)) CHECK(l.hands_h <= l.there_h + 1e-6);
    double hands = 0, loaded = 0;
    for (const JobDays& j : s.jobs)
        for (const Operation& o : j.operations) hands += o.who == Who::helper ? 0 : o.hands_on_h;
    for (const DayLoad& l : loads_of(s, s.end_h + 24)) loaded += l.hands_h;
    CHECK(loaded == Approx(hands).epsilon(1e-6));
    // Today: what there is to do, in order, no more than the day has.
    const Today t = today_of(s, "2026-11-30");
    REQUIRE_FALSE(t.hands.empty());
    double sum = 0;
    for (const TodayLine& l : t.hands) {
        sum += l.hands_h;
        CHECK(l.from_h >= 8 - 1e-9);
        CHECK(l.to_h <= 17 + 1e-9);
    }
    CHECK(sum <= 9 + 1e-6);
    CHECK(t.hands_h == Approx(sum));
    // A date it cannot keep says so, and what could give is worked out.
    other = d;
    other.jobs.at("job-reading-table").days.wanted = "2026-12-04";
    const Season wanted = season_of(other, {"2026-11-30", Rule::ranks, {"job-reading-table"}});
    CHECK(find_caution(wanted.cautions, "days.late"));
    const auto plans = plans_of(other);
    std::map<std::string, const Plan*> bare;
    for (const auto& [id, plan] : plans) bare[id] = plan.get();
    const auto ways = what_ifs(other, bare, {"2026-11-30", Rule::ranks, {"job-reading-table"}}, "job-reading-table");
    REQUIRE_FALSE(ways.empty());
    for (const WhatIf& w : ways) {
        INFO(w.key);
        // What it is said to gain is what planning it whole gains.
        Documents taken = other;
        take_what_if(taken, w.key, "job-reading-table");
        CHECK(season_of(taken, {"2026-11-30", Rule::ranks, {"job-reading-table"}}).jobs[0].ready_h ==
              Approx(wanted.jobs[0].ready_h - w.gains_h));
    }
    // A helper who is asked for and never there; years in which nobody works.
    other = d;
    for (auto& [id, j] : other.jobs) j.join.helped = true;
    CHECK(find_caution(season_of(other, {"2026-11-30", Rule::ranks, {}}).cautions, "days.no_helper"));
    for (int day = 0; day < 5; ++day) helper_on(other.shop, day, true);
    CHECK_FALSE(find_caution(season_of(other, {"2026-11-30", Rule::ranks, {}}).cautions, "days.no_helper"));
    CHECK_FALSE(find_caution(s.cautions, "days.no_hours"));
    other.shop.workday.off = {{"2026-01-01", "2080-01-01", "closed"}};
    CHECK(find_caution(season_of(other, {"2026-11-30", Rule::ranks, {}}).cautions, "days.no_hours"));
    // A day off in the midst of a longer stretch is worked again: the stretch is cut in two.
    other.shop.workday.off = {{"2026-12-24", "2027-01-03", "between the years"}};
    day_off(other.shop, "2026-12-28", false);
    REQUIRE(other.shop.workday.off.size() == 2);
    CHECK(other.shop.workday.off[0] == DayOff{"2026-12-24", "2026-12-27", "between the years"});
    CHECK(other.shop.workday.off[1] == DayOff{"2026-12-29", "2027-01-03", "between the years"});
    CHECK_THROWS_AS(take_what_if(other, "wish", ""), std::invalid_argument);
}
