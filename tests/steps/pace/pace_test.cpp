// Pace on simulated makers, and what it does to a plan.
#include <catch2/catch.hpp>

#include <cmath>
#include <random>

#include <utility>

#include "core/shop/edit/days_edits.h"
#include "core/shop/job/cards.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/job/steps.h"
#include "core/shop/pace/learned.h"
#include "core/steps/days/days.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "core/steps/rack/rack.h"
#include "core/steps/skin/skin.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// What a maker whose true factor that is ticks over some tables: woods differ, times scatter, one tick in ten is left until the next
/// morning.
std::vector<Took> ticked(std::mt19937& dice, const PaceKind& kind, double truth, int tables, int each, bool forgets) {
    std::normal_distribution<double> noise(0, 0.8 * kind.noise), of_wood(0, 0.5 * kind.noise);
    std::uniform_real_distribution<double> any(0, 1);
    std::vector<Took> out;
    for (int t = 0; t < tables; ++t) {
        const double wood = of_wood(dice);
        for (int k = 0; k < each; ++k) {
            const double starting = 1 + 4 * any(dice);
            double took = starting * truth * std::exp(wood + noise(dice));
            if (forgets && any(dice) < 0.1) took += 9;  // a working day later
            out.push_back({kind.key, "j" + std::to_string(t), "op", starting, took, "h", true, false});
        }
    }
    return out;
}

}  // namespace

TEST_CASE("two hundred makers: the truth lies within the stated spread in 90 of 100, and the figure beats the starting value", "[pace]") {
    std::mt19937 dice(11);
    // Hours of operations, a card's many ticks, what is read once a table.
    for (const auto& [key, each] :
         {std::pair{"sand", 2}, {"sand_after", 12}, {"lane", 6}, {"resin_lost", 1}, {"finish_drunk", 2}, {"drying", 1}}) {
        const PaceKind& kind = *find_pace_kind(key);
        std::normal_distribution<double> makers(0, kind.prior);
        for (const bool forgets : {false, true})
            for (const int tables : {1, 2, 3, 5, 8}) {
                int within = 0;
                double error = 0, starting_error = 0;
                for (int m = 0; m < 200; ++m) {
                    const double truth = std::exp(makers(dice));
                    auto took = ticked(dice, kind, truth, tables, each, forgets && each > 1);
                    const PaceFigure f = learn(key, took);
                    CHECK(f.tables == tables);
                    within += std::abs(f.times - truth) <= f.spread;
                    error += std::abs(std::log(f.times / truth)), starting_error += std::abs(std::log(truth));
                }
                INFO(key << ", " << tables << " tables, forgets " << forgets << ": within " << within << ", off by " << error / 200
                         << " against " << starting_error / 200);
                CHECK(within >= 180);
                if (tables >= 3) CHECK(error < 0.6 * starting_error);
            }
    }
}

TEST_CASE("a tick that was left over night is shown and hardly counted – nothing, nought and nonsense teach nothing", "[pace][hostile]") {
    std::vector<Took> took;
    for (int t = 0; t < 9; ++t) took.push_back({"sand", "j" + std::to_string(t), "sand", 2, 2.4 + 0.02 * t, "h", true, false});
    const double without = learn("sand", took).times;
    took.push_back({"sand", "j9", "sand", 2, 19, "h", true, false});
    const PaceFigure with = learn("sand", took);
    CHECK(with.times == Approx(without).epsilon(0.05));
    CHECK(took.back().outlier);
    CHECK(std::count_if(took.begin(), took.end(), [](const Took& t) { return t.outlier; }) == 1);
    std::vector<Took> none;
    CHECK(learn("sand", none).tables == 0);
    CHECK(learn("sand", none).times == 1);
    std::vector<Took> odd{{"sand", "a", "sand", 0, 3},
                          {"sand", "a", "sand", 3, 0},
                          {"sand", "a", "sand", -1, 2},
                          {"glue", "a", "glue", 1, 5},
                          {"sand", "b", "sand", 1, std::nan("")}};
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

TEST_CASE("hours from the clock: working time since the tick before, waits left out – typed hours stand above it", "[pace]") {
    const std::string monday = "2026-11-30";
    const auto op = [](const char* key, double hands, double wait, std::vector<std::string> after, std::optional<double> done) {
        Operation o;
        o.key = o.label = key;
        o.hands_on_h = hands, o.waiting_h = wait, o.after = std::move(after), o.done_h = done, o.pace = "lay";
        return o;
    };
    std::vector<DoneJob> jobs(1);
    jobs[0].job = "a";
    jobs[0].operations = {op("lay", 2, 0, {}, 10.5), op("flat1", 3, 0, {"lay"}, 16), op("flat2", 3, 24, {"flat1"}, 24 + 12),
                          op("pour", 2, 0, {"flat2"}, 24 * 3 + 10), op("sand", 4, 0, {}, std::nullopt)};
    jobs[0].done = {{"lay", "", "", 2.2}};
    const auto took = took_of(jobs, WorkClock(monday, Workday()));
    REQUIRE(took.size() == 4);
    CHECK(took[0].took == 2.2);
    CHECK_FALSE(took[0].by_clock);
    CHECK(took[1].took == Approx(5.5));
    CHECK(took[2].took == Approx(1 + 4));  // Monday 16 to 17, Tuesday 8 to 12
    CHECK(took[3].took == Approx(5 + 2));  // waited until Wednesday noon, Wednesday 12 to 17, Thursday 8 to 10
}

TEST_CASE("what was ticked before it was two operations keeps its pace", "[pace]") {
    Documents d = demo_shop();
    Job& job = d.jobs.at("job-hall-table");
    d.shop.paces.clear();
    job.days.done = {{"dryfit", "2027-03-01T12:00", "Dry-fit", 0.2}, {"sand", "2027-03-03T12:00", "Sand", 6.0}};
    const Plan p = plan_job(job, d);
    double both = 0;
    for (const Operation& o : p.days->operations) {
        if (o.key == "sand" || o.key == "sand_rough") both += o.hands_on_h;
        if (o.key == "sand_rough") CHECK(o.done_h);
    }
    std::vector<DoneJob> jobs{{"a", p.days->operations, job.days.done}};
    const auto took = took_of(jobs, WorkClock(job.start, Workday()));
    const auto sanded = std::find_if(took.begin(), took.end(), [](const Took& t) { return t.operation == "sand"; });
    REQUIRE(sanded != took.end());
    CHECK(sanded->took == 6);
    CHECK(sanded->starting == Approx(both));
    job.days.done.erase(job.days.done.begin());
    const Plan whole = plan_job(job, d);
    const auto all = took_of({{"a", whole.days->operations, job.days.done}}, WorkClock(job.start, Workday()));
    REQUIRE(all.size() == 1);
    CHECK(all[0].starting == Approx(both));
}

TEST_CASE("a pace that is used changes the hours of its work alone, says so, and goes back with one click", "[pace]") {
    Documents d = demo_shop();
    const Job& job = d.jobs.at("job-hall-table");
    const DaysPlan before = *plan_job(job, d).days;
    const std::vector<PaceFigure> hours{{"sand", 1.4, 0.1, 4}, {"base", 0.8, 0.1, 3}, {"pour", 1.5, 0.6, 1}};
    CHECK(take_paces(d.shop, hours));
    CHECK_FALSE(take_paces(d.shop, hours));
    const DaysPlan after = *plan_job(job, d).days;
    int changed = 0;
    for (std::size_t i = 0; i < before.operations.size(); ++i) {
        const Operation &a = before.operations[i], &b = after.operations[i];
        REQUIRE(a.key == b.key);
        double times = 1;
        for (const PaceFigure& f : d.shop.paces)
            if (f.key == a.pace && is_used(f)) times = f.times;
        CHECK(b.hands_on_h == Approx(a.hands_on_h * times));
        CHECK(b.paced == Approx(times));
        changed += times != 1;
    }
    CHECK(changed > 2);
    for (const PaceFigure& f : hours) put_back(d.shop, f.key, true);
    const DaysPlan back = *plan_job(job, d).days;
    for (std::size_t i = 0; i < before.operations.size(); ++i)
        CHECK(back.operations[i].hands_on_h == Approx(before.operations[i].hands_on_h));
}

TEST_CASE("what was learned with a pace in use is learned of the starting value all the same", "[pace]") {
    Documents d = demo_shop();
    const Learned l = learned_paces(d);
    REQUIRE(l.figures.size() > 12);
    for (const Took& t : l.took) CHECK(t.job.find("outflow") != std::string::npos);
    take_paces(d.shop, l.figures);
    const Learned again = learned_paces(d);
    REQUIRE(again.figures.size() == l.figures.size());
    for (std::size_t i = 0; i < l.figures.size(); ++i) {
        INFO(l.figures[i].key);
        CHECK(again.figures[i].times == Approx(l.figures[i].times).epsilon(1e-6));
        CHECK(again.figures[i].spread == Approx(l.figures[i].spread).epsilon(1e-6));
    }
}

TEST_CASE("a card's ticks: waits and practice left out, a pace in use taken out, what is left over taken off", "[pace]") {
    const auto step = [](const char* key, double takes_s, const char* pace) {
        CardStep s{key, {}};
        s.takes_s = takes_s, s.pace = pace;
        return s;
    };
    std::vector<CardStep> steps{step("ready", 300, ""), step("a at 80", 600, "sand_first"), step("wet", 60, ""),
                                step("a at 120", 240, "sand_after")};
    steps[3].after = "wet", steps[3].from_s = 7200;
    CardStep mix{"mix 1", {}}, pour{"pour 1", {}};
    mix.mixed_l = 2, pour.left = true;
    CardRun run{"sand",
                "2026-11-30T08:00:00Z",
                1,
                true,
                {{"ready", "", 400, {}, {}, ""},
                 {"a at 80", "", 1300, {}, {}, ""},
                 {"wet", "", 1400, {}, {}, ""},
                 {"a at 120", "", 1400 + 7200 + 300, {}, {}, ""}},
                {}};
    const auto took = took_of_card("j", steps, run, {{"sand_first", 2, 0.1, 5}}, "");
    REQUIRE(took.size() == 2);
    CHECK(took[0].kind == "sand_first");
    CHECK(took[0].took == Approx(0.25));
    CHECK(took[0].starting == Approx(300 / 3600.0));  // it was planned with twice the starting value
    CHECK(took[1].took == Approx(300 / 3600.0));
    CHECK(took[1].starting == Approx(240 / 3600.0));
    run.fast = 60;
    CHECK(took_of_card("j", steps, run, {}, "").empty());

    CardRun cups{"pour", "2026-11-30T08:00:00Z", 1, false, {{"mix 1", "", 100, {}, 2.3, ""}, {"pour 1", "", 200, {}, {}, "", 0.2}}, {}};
    const auto lost = took_of_card("j", {mix, pour}, cups, {}, "resin_lost");
    REQUIRE(lost.size() == 1);
    CHECK(lost[0].took == Approx(2.1));
    CHECK(lost[0].starting == 2);
    // A batch that is not mixed yet, or nothing read: nothing is told.
    CardStep more = mix;
    more.key = "mix 2";
    CHECK(took_of_card("j", {mix, pour, more}, cups, {}, "resin_lost").empty());
    cups.ticks = {{"mix 1", "", 100, {}, {}, ""}};
    CHECK(took_of_card("j", {mix, pour}, cups, {}, "resin_lost").empty());
}

TEST_CASE("a figure that is used changes what it is of, by as much, and says where", "[pace]") {
    Documents d = demo_shop();
    const Job& job = d.jobs.at("job-landing-bench");  // a void to fill, no river
    const Job& river = d.jobs.at("job-tarn-river");
    const Plan plain = plan_job(river, d), bench = plan_job(job, d);
    const auto used = [&](const char* key, double times) {
        d.shop.paces = {{key, times, 0.05, 4}};
        return plan_job(river, d);
    };
    const auto says = [](const std::vector<Figure>& figures, const char* key) {
        for (const Given& g : figure(figures, key).working.given)
            if (g.from.rfind("yours, from 4 tables: ", 0) == 0) return g.from;
        return std::string();
    };
    const auto hours = [](const Plan& p) { return p.flat->hours; };
    Plan p = used("lane", 0.8);
    double layers = 0;
    for (const LeafPlan& l : p.leaves)
        for (const FacePlan& f : l.flat->faces) layers += f.layers;
    const double setting = layers * d.shop.sled.layer_s / 3600;
    CHECK(hours(p) - setting == Approx(0.8 * (hours(plain) - setting)));
    CHECK(says(p.flat->figures, "flat.hours").find("passes/h") != std::string::npos);
    p = used("layer", 1.5);
    CHECK(hours(p) == Approx(hours(plain) + 0.5 * setting));
    p = used("resin_lost", 1.03);
    CHECK(p.pour->mix_l == Approx(1.03 * plain.pour->mix_l));
    CHECK(says(p.pour->figures, "pour.mix") == "yours, from 4 tables: 5.1 ± 5.1 %");  // 1.02 × 1.03; 0.05 of 1.02
    p = used("mix", 2);
    const auto poured_h = [](const Plan& of) {
        double h = 0;
        for (const Operation& o : of.days->operations) h += o.key == "pour" || o.part_of == "pour" ? o.hands_on_h : 0;
        return h;
    };
    CHECK(poured_h(p) - poured_h(plain) == Approx(static_cast<double>(p.pour->batches.size()) * river.pour.mix_min / 60));
    const auto skin = [](const Plan& of) -> const SkinPlan& { return skin_of(of); };
    p = used("finish_drunk", 1.2);
    const auto on_wood = [&](const Plan& of) {  // resin takes nothing in, whatever the wood drinks
        double ml = 0;
        for (const SkinFacePlan& f : skin(of).faces)
            for (const SkinCoat& c : f.coats) ml += f.face.resin() ? 0 : c.mix_ml;
        return ml;
    };
    CHECK(on_wood(p) == Approx(1.2 * on_wood(plain)));
    CHECK(says(skin(p).figures, "skin.mix").find("mL/m²") != std::string::npos);
    // The first grit on a planed face and the one on lanes that can be felt are two figures.
    for (const double begins : {60.0, 80.0}) {
        d.jobs.at("job-tarn-river").skin.first_grit = begins;
        const bool lanes = begins < 80;
        double all = 0, first = 0;
        for (const double times : {1.0, 1.5}) {
            p = used(lanes ? "sand_felt" : "sand_first", times);
            const double before = std::exchange(all, skin(p).sanding_min);
            double now = 0;
            for (const SkinFacePlan& f : skin(p).faces)
                if (!f.grits.empty() && !f.face.edge() && (f.grits.front().grit < 80) == lanes) now += f.grits.front().minutes;
            REQUIRE(now > 0);
            if (times > 1) {
                CHECK(now == Approx(1.5 * first));
                CHECK(all - before == Approx(now - first));
            }
            first = now;
        }
    }
    d.jobs.at("job-tarn-river").skin.first_grit.reset();
    p = used("coat_off", 2);
    CHECK(skin(p).zone_most_m2 < skin(plain).zone_most_m2);
    d.shop.paces = {{"glue_clamp", 2, 0.1, 3}, {"glue_spread", 0.5, 0.1, 3}};
    const Job& boards = d.jobs.at("job-seed-cabinet");
    const Plan glued = plan_job(boards, d);
    d.shop.paces.clear();
    const Plan unglued = plan_job(boards, d);
    for (const GlueStep& s : glued.join->steps)
        for (const GlueStep& t : unglued.join->steps)
            if (s.what == t.what)
                CHECK(s.minutes == Approx(t.minutes * (s.what == std::string("clamp") || s.what == std::string("across") ? 2
                                                       : s.what == std::string("spread")                                 ? 0.5
                                                                                                                         : 1)));
    // Drying: as slabs before it have dried, where its own readings say nothing.
    Slab slab;
    slab.moisture_pct = 30, slab.moisture_on = "2026-11-01";
    const auto rule = drying_of(slab, 50, d.shop.air, 14, "2026-11-02"), own = drying_of(slab, 50, d.shop.air, 14, "2026-11-02", 0.5);
    REQUIRE((rule && own && rule->days));
    CHECK(*own->days == Approx(0.5 * *rule->days).epsilon(0.01));
    CHECK(own->yours);
    // Put back, all is as it was; the bench's plan never minded the river's figures.
    d.shop.paces = {{"resin_lost", 1.03, 0.05, 4, true}, {"lane", 0.8, 0.05, 4, true}};
    CHECK(plan_job(river, d).pour->mix_l == plain.pour->mix_l);
    d.shop.paces = {{"resin_lost", 1.03, 0.05, 4}};
    CHECK(plan_job(job, d).flat->hours == bench.flat->hours);
}

TEST_CASE("cards of lanes and sanding are as long as the plan says, and the demo's were really theirs", "[pace][card]") {
    const Documents& d = demo_shop();
    for (const char* id : {"job-outflow-side", "job-hall-table", "job-seed-cabinet"}) {
        const Job& job = d.jobs.at(id);
        const Plan p = plan_job(job, d);
        INFO(id);
        double lanes = 0, sanding = 0;
        for (const char* card : {"flat_one", "flat_two", "flat_last"})
            for (const CardStep& s : card_of(card, job, p, d.shop))
                if (!s.pace.empty()) lanes += s.takes_s / 3600;
        CHECK(lanes == Approx(p.flat->hours));
        for (const CardStep& s : card_of("sand", job, p, d.shop))
            if (!s.pace.empty()) sanding += s.takes_s / 60;
        CHECK(sanding == Approx(skin_of(p).sanding_min));
        CHECK(std::string(card_for("sand")->key) == "sand");
        CHECK(step_of_card("flat_two") == "flat");
    }
    // What a tick tells of is known, on every card there is.
    for (const auto& [id, job] : d.jobs) {
        const Plan p = plan_job(job, d);
        for (const StepRow& row : steps())
            for (const CardRow& card : row.cards ? row.cards() : std::span<const CardRow>()) {
                INFO(id << ": " << card.key);
                CHECK((*card.mixes == 0 || find_pace_kind(card.mixes)));
                for (const CardStep& s : card_of(card.key, job, p, d.shop)) CHECK((s.pace.empty() || find_pace_kind(s.pace)));
            }
    }
    const Job& made = d.jobs.at("job-outflow-side");
    const Plan p = plan_job(made, d);
    for (const CardRun& run : made.runs) {
        const auto steps = card_of(run.card, made, p, d.shop);
        for (const CardTick& t : run.ticks) {
            INFO(run.card << ": " << t.step);
            CHECK(std::any_of(steps.begin(), steps.end(), [&](const CardStep& s) { return s.key == t.step; }));
        }
    }
    const Learned l = learned_paces(d);
    CHECK(std::count_if(l.took.begin(), l.took.end(), [](const Took& t) { return t.outlier && t.operation == "flat_one: run 2a.3"; }) == 1);
    int used = 0;
    for (const PaceFigure& f : l.figures) used += is_used(f) && find_pace_kind(f.key)->unit;
    CHECK(used >= 3);
}
