// Money to the last cent, its sums, what choices cost, ways side by side.
#include <catch2/catch.hpp>

#include <random>
#include <set>

#include "core/shop/days/season.h"
#include "core/shop/edit/edits.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"
#include "core/shop/ways/costs.h"
#include "core/shop/ways/ways.h"
#include "core/steps/days/days.h"
#include "demo/demo.h"

using namespace yb;

namespace {

/// The demo's jobs planned once for all of these tests.
const std::map<std::string, Plan>& plans() {
    static const std::map<std::string, Plan> all = [] {
        std::map<std::string, Plan> out;
        for (const auto& [id, job] : demo_shop().jobs) out.emplace(id, plan_job(job, demo_shop()));
        return out;
    }();
    return all;
}

/// What a long multiplication on paper gives: amount in thousandths, price in so many decimals; half up.
Cents by_hand(long long thousandths, long long price, int decimals) {
    long long product = thousandths * price;
    long long unit = 10;  // thousandths and hundredths
    for (int i = 0; i < decimals; ++i) unit *= 10;
    const bool negative = product < 0;
    if (negative) product = -product;
    const long long cents = (product + unit / 2) / unit;
    return static_cast<Cents>(negative ? -cents : cents);
}

}  // namespace

TEST_CASE("amounts times prices, percents and sums as paper has them", "[money]") {
    CHECK(in_decimals(128450) == "1284.50");
    CHECK(in_decimals(-5) == "-0.05");
    CHECK(in_decimals(0) == "0.00");
    CHECK(times_price(2.5, 12.35) == 3088);  // 30.875
    CHECK(times_price(1, 0.005) == 1);       // half up
    CHECK(times_price(3, 0.335) == 101);     // 1.005: as binary it is less
    CHECK(times_price(1.005, 1000) == 100500);
    CHECK(times_price(-0.3, 540) == -16200);
    CHECK(times_price(0.0004, 1e6) == 0);    // less than a thousandth is none
    CHECK(percent_of(100, 0.5) == 1);        // half a cent
    CHECK(percent_of(342690, 12) == 41123);  // 411.228
    CHECK_THROWS_AS(times_price(std::nan(""), 1), std::invalid_argument);
    CHECK_THROWS_AS(times_price(9e12, 9e12), std::invalid_argument);
    std::mt19937 dice(3);
    std::uniform_int_distribution<long long> amount(-5'000'000, 5'000'000), price(0, 9'999'999);
    for (int i = 0; i < 3000; ++i) {
        const long long a = amount(dice), p = price(dice);
        const int decimals = static_cast<int>(p % 4) + 1;
        CHECK(times_price(static_cast<double>(a) / 1000, static_cast<double>(p) / std::pow(10, decimals)) == by_hand(a, p, decimals));
    }
}

TEST_CASE("three offers by hand, to the last cent", "[money]") {
    // Every operation one hour, its hands at 40.00 an hour; the slab 740.00; a base bought for 333.33; glass twice at 61.15.
    const auto offer = [](const char* id, double overhead, double margin, double tax) {
        Documents d = demo_shop();
        Job& j = d.jobs.at(id);
        for (Slab* s : {&d.slabs.at(j.first().slab)}) s->price = 740;
        d.shop.money = {};
        d.shop.money.hour = 40, d.shop.money.overhead_pct = overhead, d.shop.money.margin_pct = margin, d.shop.money.tax_pct = tax;
        for (Resin& r : d.shop.resins) r.price_l.reset();
        for (FinishClass& f : d.shop.finishes.labels) f.price_l.reset();
        d.shop.sanding.disc_price.reset();
        j.money.slabs = SlabCost::whole;
        j.money.extra = {{"glass", 2, 61.15}};
        const DaysPlan days = *plan_job(j, d).days;
        for (const Operation& o : days.operations) j.days.changes.push_back({o.key, 1.0, {}, false});
        const Plan p = plan_job(j, d);
        Money m = money_of(p, j, d.shop);
        Cents back = 0;
        for (const MoneyLine& l : m.lines)
            if (l.key.rfind("back ", 0) == 0) back += l.sum;
        // On paper: the slab, what goes back, an hour each, two panes.
        const Cents parts = 74000 + back + static_cast<Cents>(days.operations.size()) * 4000 + 12230;
        CHECK(m.parts == parts);
        CHECK_FALSE(m.missing.empty());  // finish, bolts …: they have no price, and are named
        return std::pair(m, parts);
    };
    {
        const auto [m, parts] = offer("job-hall-table", 0, 0, 0);
        CHECK(m.offer == parts);
        REQUIRE(m.hour_earns);
        CHECK(*m.hour_earns == 4000);  // no margin: an hour earns its rate
    }
    {
        const auto [m, parts] = offer("job-hall-table", 12, 20, 25);
        const Cents cost = parts + (parts * 12 + 50) / 100;
        const Cents net = (cost * 100 * 2 + 80) / 160;  // cost / 0.80, half up
        CHECK(m.cost == cost);
        CHECK(m.net == net);
        CHECK(m.offer == net + (net * 25 + 50) / 100);
    }
    {
        const auto [m, parts] = offer("job-landing-bench", 7.5, 33, 19);
        const Cents cost = parts + (parts * 75 + 500) / 1000;
        const Cents net = (cost * 100 * 2 + 67) / 134;
        CHECK(m.cost == cost);
        CHECK(m.net == net);
        CHECK(m.offer == net + (net * 19 + 50) / 100);
    }
}

TEST_CASE("five hundred jobs with prices by lot: the parts are the whole, credit is never above what was paid, what has no price is named",
          "[money]") {
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> any(0, 1);
    int jobs = 0;
    while (jobs < 500)
        for (const auto& [id, plan] : plans()) {
            if (!plan.drawable() || ++jobs > 500) continue;
            Documents d = demo_shop();
            const auto price = [&]() -> std::optional<double> {
                return any(dice) < 0.2 ? std::nullopt : std::optional(std::round(any(dice) * 1e5) / 1000);
            };
            Prices& p = d.shop.money.prices;
            for (std::optional<double>* one : {&p.glue_l, &p.glued_piece, &p.panel, &p.tape_roll, &p.caulk_m, &p.cutter_m2, &p.pigment_kg,
                                               &p.bolt, &p.insert, &p.channel_m, &p.plate, &p.base_l})
                *one = price();
            d.shop.money.hour = price(), d.shop.money.helper_hour = price();
            d.shop.money.overhead_pct = std::round(any(dice) * 400) / 10, d.shop.money.margin_pct = std::round(any(dice) * 900) / 10,
            d.shop.money.tax_pct = std::round(any(dice) * 250) / 10;
            for (Resin& r : d.shop.resins)
                r.price_l = price(), r.kit_l = any(dice) < 0.5 ? std::optional(2.0) : std::nullopt,
                r.left_l = any(dice) < 0.5 ? std::optional(std::round(any(dice) * 80) / 10) : std::nullopt;
            Job job = d.jobs.at(id);
            job.money.slabs = any(dice) < 0.5 ? SlabCost::whole : SlabCost::share;
            INFO(id << " " << jobs);
            const Money m = money_of(plan, job, d.shop);
            Cents sum = 0, hours_sum = 0;
            std::map<std::string, Cents> slabs;
            for (const MoneyLine& l : m.lines) {
                sum += l.sum;
                if (l.kind == "hours") hours_sum += l.sum;
                CHECK(l.sum == (l.price ? times_price(l.amount, *l.price) : 0));
                if (!l.price && l.kind != "hours") CHECK(std::find(m.missing.begin(), m.missing.end(), l.what) != m.missing.end());
                if (l.kind == "slab") slabs[l.key.substr(l.key.find("slab "))] += l.sum;
            }
            for (const auto& [slab, paid] : slabs) CHECK(paid >= 0);
            CHECK(m.parts == sum);
            CHECK(m.hours == hours_sum);
            CHECK(m.cost == m.parts + m.overhead);
            CHECK(m.net == m.cost + m.margin);
            CHECK(m.offer == m.net + m.tax);
            CHECK(std::llabs(m.net * static_cast<Cents>(1000 - std::llround(d.shop.money.margin_pct * 10)) - m.cost * 1000) <= 1000);
        }
    // No price at all: nothing is summed, all is named once.
    Documents d = demo_shop();
    d.shop.money = {};
    for (Resin& r : d.shop.resins) r.price_l.reset();
    for (FinishClass& f : d.shop.finishes.labels) f.price_l.reset();
    d.shop.sanding.disc_price.reset();
    for (auto& [id, s] : d.slabs) s.price.reset();
    const Job& bench = d.jobs.at("job-landing-bench");
    const Money none = money_of(plan_job(bench, d), bench, d.shop);
    CHECK(none.offer == 0);
    CHECK(none.missing.size() > 3);
    CHECK(std::set<std::string>(none.missing.begin(), none.missing.end()).size() == none.missing.size());
}

TEST_CASE("every demo job has its money, and a shopping list whose kits are whole", "[money]") {
    const Documents& d = demo_shop();
    for (const auto& [id, plan] : plans()) {
        INFO(id);
        const Job& job = d.jobs.at(id);
        const Money m = money_of(plan, job, d.shop);
        CHECK(m.offer > m.cost);
        for (const std::string& s : m.missing) FAIL_CHECK(s);
        for (const ShoppingLine& l : shopping_list(plan, job, d.shop)) {
            CHECK(l.need.buys() + l.need.left.value_or(0) >= l.need.amount - 1e-9);
            if (l.need.kit) CHECK(std::abs(std::remainder(l.need.buys(), *l.need.kit)) < 1e-6);
        }
        CHECK(shopping_csv(shopping_list(plan, job, d.shop)).rfind("kind,what,needed,unit,on_shelf,to_buy,price,cost\n", 0) == 0);
    }
}

TEST_CASE("what a choice is said to cost is the difference of two full plans", "[money][costs]") {
    const Documents d = demo_shop();
    for (const auto& [id, step] : {std::pair{"job-hall-table", "skin"}, {"job-tarn-river", "pour"}, {"job-seed-cabinet", "join"}}) {
        const Job& job = d.jobs.at(id);
        const Plan& whole = plans().at(id);
        const auto costs = choice_costs(d, id, whole, Step{step});
        REQUIRE_FALSE(costs.empty());
        const Money now = money_of(whole, job, d.shop);
        int differ = 0;
        for (const ChoiceCost& c : costs) {
            INFO(id << " " << c.choice << " " << c.option);
            Documents other = d;
            take_choice(other.jobs.at(id), other.slabs, c.choice, c.option);
            const Plan plan = plan_job(other.jobs.at(id), other);
            CHECK(c.money == money_of(plan, other.jobs.at(id), other.shop).offer - now.offer);
            CHECK(c.days == Approx((plan.days->end_h - whole.days->end_h) / 24));
            differ += c.money != 0;
        }
        CHECK(differ > 0);
    }
}

TEST_CASE("ways of a job: copied whole, compared, one made, others kept – they share wood and no date", "[ways]") {
    Documents d = demo_shop();
    const std::string first = "job-hall-table";
    const std::string id = add_way(d, first, "thinner");
    CHECK(ways_of_job(d, first) == std::vector<std::string>{first, id});
    CHECK(ways_of_job(d, id) == ways_of_job(d, first));
    CHECK(name_of_way(d, id) == "thinner");
    d.jobs.at(id).top.thickness_mm = 40;
    const auto ways = compare_ways(d, id);
    REQUIRE(ways.size() == 2);
    for (const WayLine& w : ways) {
        const Plan p = plan_job(d.jobs.at(w.job), d);
        CHECK(w.planned);
        CHECK(w.offer == money_of(p, d.jobs.at(w.job), d.shop).offer);
        CHECK(w.days == Approx(p.days->end_h / 24));
        CHECK(w.shares.size() == 1);  // one slab, two ways: one of them is made
        CHECK((w.waste_pct >= 0 && w.waste_pct <= 100));
    }
    // It is on no rule of dates, and its wood is not taken twice.
    for (const std::string& j : job_order(d)) CHECK(j != id);
    CHECK(taken_slabs(d, first).count(d.jobs.at(first).first().slab) == 0);
    const std::string client = d.jobs.at(first).client;
    d.jobs.at(first).days.done = {{"lay", "2027-01-11T10:00", "Lay", {}}};
    take_way(d, id);
    CHECK(d.jobs.at(first).top.thickness_mm == 40);
    CHECK(d.jobs.at(first).way_of.empty());
    CHECK(d.jobs.at(first).client == client);
    CHECK(d.jobs.at(first).days.done.size() == 1);  // what happened stays with the piece
    CHECK(d.jobs.at(id).top.thickness_mm == 50);
    CHECK(d.jobs.at(id).way_of == first);
    CHECK(d.jobs.at(id).days.done.empty());
    take_way(d, first);  // it is the first already
    CHECK(d.jobs.at(first).top.thickness_mm == 40);
    put_way_away(d, id, true);
    CHECK(ways_of_job(d, first).size() == 1);
    put_way_away(d, first, true);
    CHECK_FALSE(d.jobs.at(first).put_away);
    // A way whose job has gone stands for itself.
    d.jobs.erase(first);
    put_way_away(d, id, false);
    CHECK(first_of_ways(d, id) == id);
    CHECK_THROWS_AS(add_way(d, "nobody", "x"), std::out_of_range);
}

TEST_CASE("what else is paid is read as it is typed, and bad input says how to mend it", "[money][hostile]") {
    const auto good = [](const char* text) { return std::get<ExtraCost>(read_extra(text)); };
    const auto bad = [](const char* text) { return std::get<std::string>(read_extra(text)); };
    CHECK(good("glass; 2; 61.15") == ExtraCost{"glass", 2, 61.15});
    CHECK(good(" glass ;1; 61,15 ") == ExtraCost{"glass", 1, 61.15});
    CHECK(good("delivery") == ExtraCost{"delivery", 1, {}});
    CHECK(bad("; 2; 3").find("what it is") != std::string::npos);
    CHECK(bad("glass; two; 3").find("‘two’") != std::string::npos);
    CHECK(bad("glass; 2; €61").find("currency sign") != std::string::npos);
    CHECK(bad("glass; 2; -61").find("0 or more") != std::string::npos);
    CHECK(bad("a;1;2;3").find("semicolons") != std::string::npos);
    Job j;
    set_extra(j, {"glass", 2, 61.15});
    set_extra(j, {"glass", 1, 60});
    CHECK(j.money.extra == std::vector<ExtraCost>{{"glass", 1, 60}});
    set_extra(j, {"glass", 0, {}});
    CHECK(j.money.extra.empty());
}
