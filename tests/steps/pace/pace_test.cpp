// Pace on simulated makers, and what it does to a plan.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include "core/shop/edit/days_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/pace/learned.h"
#include "core/steps/days/days.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// What a maker whose true factor that is ticks over some tables: hours scatter, one tick in ten is left until the next morning.
std::vector<Took> ticked(std::mt19937& dice, double truth, int tables, int each, bool forgets) {
    std::normal_distribution<double> noise(0, 0.2);
    std::uniform_real_distribution<double> any(0, 1);
    std::vector<Took> out;
    for (int t = 0; t < tables; ++t)
        for (int k = 0; k < each; ++k) {
            const double starting = 1 + 4 * any(dice);
            double took = starting * truth * std::exp(noise(dice));
            if (forgets && any(dice) < 0.1) took += 9;  // a working day later
            out.push_back({"sand", "j" + std::to_string(t), "sand", starting, took, true, false});
        }
    return out;
}

}  // namespace

TEST_CASE("two hundred makers: the truth lies within the stated spread in 90 of 100, and the figure beats the starting value", "[pace]") {
    std::mt19937 dice(11);
    std::normal_distribution<double> makers(0, pace_prior);
    for (const bool forgets : {false, true})
        for (const int tables : {3, 5, 8}) {
            int within = 0;
            double error = 0, starting_error = 0;
            for (int m = 0; m < 200; ++m) {
                const double truth = std::exp(makers(dice));
                auto took = ticked(dice, truth, tables, 2, forgets);
                const PaceFigure f = learn("sand", took);
                CHECK(f.tables == tables);
                within += std::abs(f.times - truth) <= f.spread;
                error += std::abs(std::log(f.times / truth)), starting_error += std::abs(std::log(truth));
            }
            INFO(tables << " tables, forgets " << forgets << ": within " << within << ", off by " << error / 200 << " against " << starting_error / 200);
            CHECK(within >= 180);
            CHECK(error < 0.6 * starting_error);
        }
}

TEST_CASE("a tick that was left over night is shown and hardly counted; nothing, nought and nonsense teach nothing", "[pace][hostile]") {
    std::vector<Took> took;
    for (int t = 0; t < 9; ++t) took.push_back({"sand", "j" + std::to_string(t), "sand", 2, 2.4 + 0.02 * t, true, false});
    const double without = learn("sand", took).times;
    took.push_back({"sand", "j9", "sand", 2, 19, true, false});
    const PaceFigure with = learn("sand", took);
    CHECK(with.times == Approx(without).epsilon(0.05));
    CHECK(took.back().outlier);
    CHECK(std::count_if(took.begin(), took.end(), [](const Took& t) { return t.outlier; }) == 1);
    std::vector<Took> none;
    CHECK(learn("sand", none).tables == 0);
    CHECK(learn("sand", none).times == 1);
    std::vector<Took> odd{{"sand", "a", "sand", 0, 3}, {"sand", "a", "sand", 3, 0}, {"sand", "a", "sand", -1, 2}, {"glue", "a", "glue", 1, 5}, {"sand", "b", "sand", 1, std::nan("")}};
    CHECK(learn("sand", odd).tables == 0);
    // One table is used only where the starting value lies outside of what it may be.
    std::vector<Took> sure{{"sand", "a", "sand", 2, 5}, {"sand", "a", "last_grit", 1, 2.4}, {"sand", "a", "sand", 3, 7.6}};
    CHECK(is_used(learn("sand", sure)));
    std::vector<Took> unsure{{"sand", "a", "sand", 2, 2.2}};
    CHECK_FALSE(is_used(learn("sand", unsure)));
    PaceFigure back = learn("sand", sure);
    back.put_back = true;
    CHECK_FALSE(is_used(back));
}

TEST_CASE("hours from the clock: working time since the tick before, waits left out; typed hours stand above it", "[pace]") {
    const std::string monday = "2026-11-30";
    const auto op = [](const char* key, double hands, double wait, std::vector<std::string> after, std::optional<double> done) {
        Operation o;
        o.key = o.label = key;
        o.hands_on_h = hands, o.waiting_h = wait, o.after = std::move(after), o.done_h = done;
        return o;
    };
    std::vector<DoneJob> jobs(1);
    jobs[0].job = "a";
    jobs[0].operations = {op("lay", 2, 0, {}, 10.5), op("flat1", 3, 0, {"lay"}, 16), op("flat2", 3, 24, {"flat1"}, 24 + 12), op("pour", 2, 0, {"flat2"}, 24 * 3 + 10), op("sand", 4, 0, {}, std::nullopt)};
    jobs[0].done = {{"lay", "", "", 2.2}};
    const auto took = took_of(jobs, WorkClock(monday, Workday()));
    REQUIRE(took.size() == 4);
    CHECK(took[0].took_h == 2.2);
    CHECK_FALSE(took[0].by_clock);
    CHECK(took[1].took_h == Approx(5.5));
    CHECK(took[2].took_h == Approx(1 + 4));  // Monday 16 to 17, Tuesday 8 to 12
    CHECK(took[3].took_h == Approx(5 + 2));  // waited until Wednesday noon, Wednesday 12 to 17, Thursday 8 to 10
}

TEST_CASE("a pace that is used changes the hours of its work alone, says so, and goes back with one click", "[pace]") {
    Documents d = demo_shop();
    const Learned l = learned_paces(d);
    REQUIRE_FALSE(l.figures.empty());
    for (const Took& t : l.took) CHECK(t.job == "job-outflow-side");
    const Job& job = d.jobs.at("job-hall-table");
    const DaysPlan before = *plan_job(job, d).days;
    CHECK(take_paces(d.shop, l.figures));
    CHECK_FALSE(take_paces(d.shop, l.figures));
    const DaysPlan after = *plan_job(job, d).days;
    int changed = 0;
    for (std::size_t i = 0; i < before.operations.size(); ++i) {
        const Operation &a = before.operations[i], &b = after.operations[i];
        REQUIRE(a.key == b.key);
        const PaceKind* k = pace_kind_of(a.key);
        double times = 1;
        for (const PaceFigure& f : d.shop.paces)
            if (k && f.key == k->key && is_used(f)) times = f.times;
        CHECK(b.hands_on_h == Approx(a.hands_on_h * times));
        CHECK(b.paced == Approx(times));
        changed += times != 1;
    }
    CHECK(changed > 0);
    for (const PaceFigure& f : l.figures) put_back(d.shop, f.key, true);
    const DaysPlan back = *plan_job(job, d).days;
    for (std::size_t i = 0; i < before.operations.size(); ++i) CHECK(back.operations[i].hands_on_h == Approx(before.operations[i].hands_on_h));
    // What was learned with a pace in use is learned of the starting value all the same.
    for (const PaceFigure& f : l.figures) put_back(d.shop, f.key, false);
    const Learned again = learned_paces(d);
    for (std::size_t i = 0; i < l.figures.size(); ++i) CHECK(again.figures[i].times == Approx(l.figures[i].times));
}
