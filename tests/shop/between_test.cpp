// What one room tells and another takes: hands, parts of an operation, what is paid, what was agreed, figures told twice.
#include <set>

#include <catch2/catch.hpp>

#include "core/shop/days/season.h"
#include "core/shop/edit/money_edits.h"
#include "core/shop/job/needs.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/money/money.h"
#include "core/shop/record/agreement.h"
#include "core/steps/days/days.h"
#include "core/steps/fill/fill.h"
#include "core/steps/flat/flat.h"
#include "core/steps/join/join.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/pour/pour.h"
#include "core/steps/skin/skin.h"
#include "core/steps/under/under.h"
#include "tests/demo_job.h"
#include "tests/sane.h"

using namespace yb;

namespace {

const Operation* operation(const Plan& p, const std::string& key) {
    const auto& all = p.days->operations;
    const auto it = std::find_if(all.begin(), all.end(), [&](const Operation& o) { return o.key == key; });
    return it == all.end() ? nullptr : &*it;
}

/// Hands inside the shop's hours: a working day and hour by the clock of the workday.
void within_hours(const Plan& p, const Shop& shop, const Operation& o) {
    const Hands hands(p.days->start, shop.workday);
    INFO(o.key << " at " << o.start_h);
    CHECK(hands.of(o.works()).next(o.start_h) == Approx(o.start_h).margin(1e-6));
    CHECK(hands.of(o.works()).between(o.start_h, o.hands_end_h) == Approx(o.hands_on_h).margin(1e-6));
}

}  // namespace

TEST_CASE("a lift that falls after the one before has lost its tack says so, and one in time does not", "[days][pour]") {
    DemoJob f("job-tarn-river");
    Job& job = f.job();
    job.pour.lifts = 2;
    int late = 0, in_time = 0;
    for (int day = 1; day <= 14; ++day) {
        job.days.pins = {{"pour", "2026-12-" + std::string(day < 10 ? "0" : "") + std::to_string(day)}};
        const Plan p = f.plan();
        const Operation *first = operation(p, "pour"), *second = operation(p, "pour_2");
        REQUIRE((first && second));
        const double tack_h = p.pour->lifts.front().clock.next_to_h;
        const bool told =
            std::any_of(p.pour->cautions.begin(), p.pour->cautions.end(), [](const Caution& c) { return c.key == "pour.no_tack"; });
        INFO("poured on the " << day << ", the next after " << second->start_h - first->hands_end_h << " of " << tack_h);
        CHECK(told == (second->start_h - first->hands_end_h > tack_h + 1e-6));
        (told ? late : in_time) += 1;
    }
    CHECK(in_time > 0);
    // Ten days later.
    const Plan planned = f.plan();
    const Operation* first = operation(planned, "pour");
    REQUIRE(first);
    job.days.pins.push_back({"pour_2", planned.days->date(first->start_h + 240)});
    const Plan p = f.plan();
    CHECK(std::any_of(p.pour->cautions.begin(), p.pour->cautions.end(), [](const Caution& c) { return c.key == "pour.no_tack"; }));
}

TEST_CASE("every lift of a pour has hands of its own, inside hours, when the one before lets it", "[days][pour]") {
    DemoJob f("job-tarn-river");
    f.job().pour.lifts = 3;
    const Plan p = f.plan();
    REQUIRE(p.pour->visits.size() == 3);
    const Operation* before = operation(p, "pour");
    REQUIRE(before);
    double hands = before->hands_on_h, wait = before->waiting_h;
    for (const char* key : {"pour_2", "pour_3"}) {
        const Operation* o = operation(p, key);
        REQUIRE(o);
        CHECK(o->part_of == "pour");
        within_hours(p, f.docs.shop, *o);
        CHECK(o->start_h >= before->end_h - 1e-6);
        hands += o->hands_on_h, wait += o->waiting_h;
        before = o;
    }
    // Each lift half an hour of setting out, each batch mixed as the maker does and eight minutes to pour.
    const double batches = static_cast<double>(p.pour->batches.size());
    CHECK(hands * 60 == Approx(3 * 30 + batches * (f.job().pour.mix_min + 8)));
    // All that waits, the shaving's own half hour and its wait counted, is what the pour waits.
    const Operation* shave = operation(p, "shave");
    if (shave) wait += shave->waiting_h + shave->hands_on_h;
    CHECK(wait == Approx(p.pour->wait_h).epsilon(0.2));  // waits follow the air of their own days
    CHECK(operation(p, "unmould")->start_h >= before->end_h - 1e-6);
    // Money counts them all.
    const Money m = money_of(p, f.job(), f.docs.shop);
    double pour_h = 0, ops_h = 0;
    for (const MoneyLine& l : m.lines)
        if (l.key == "hours pour") pour_h = l.amount;
    for (const Operation& o : p.days->operations)
        if (o.step == step_key::pour) ops_h += o.hands_on_h;
    CHECK(pour_h == Approx(ops_h).margin(0.001));
}

TEST_CASE("a pour that was ticked before it was told lift by lift stays done", "[days][pour]") {
    DemoJob f("job-tarn-river");
    f.job().pour.lifts = 2;
    f.job().days.done = {{"lay", "2026-12-01T09:00", "Lay", {}}, {"pour", "2026-12-10T12:00", "Resin in", {}}};
    CHECK_FALSE(operation(f.plan(), "pour_2")->done_h);
    f.job().days.done.push_back({"unmould", "2026-12-21T12:00", "Unmould", {}});
    const Plan p = f.plan();
    REQUIRE(operation(p, "pour_2")->done_h);
    CHECK(*operation(p, "pour_2")->done_h == *operation(p, "pour")->done_h);
}

TEST_CASE("rounds of a filling and stages of a glue-up have their hands when they fall", "[days][fill][join]") {
    DemoJob f("job-reading-table");
    const Plan p = f.plan();
    // A round is ten minutes, a resin in it six, a void three; the first time three more, eight where it is taped below.
    double hands = 0;
    std::vector<std::set<std::string>> resins;
    for (const VoidPlan& v : p.fill->voids) {
        if (v.left_open || v.river) continue;
        resins.resize(std::max(resins.size(), v.lifts.size()));
        for (std::size_t k = 0; k < v.lifts.size(); ++k) resins[k].insert(v.resin), hands += (k == 0 ? v.through ? 14 : 6 : 3) / 60.0;
    }
    for (const auto& r : resins) hands += (10 + 6 * static_cast<double>(r.size())) / 60;
    REQUIRE(p.fill->rounds >= 1);
    double told = 0;
    for (const Operation& o : p.days->operations)
        if (o.key == "fill" || o.part_of == "fill") told += o.hands_on_h, within_hours(p, f.docs.shop, o);
    CHECK(told == Approx(hands));
    // A void that is full waits beside those that are filled again: by hand, a deep one twice and a slow one once.
    VoidPlan deep, slow;
    deep.lifts.resize(2), slow.lifts.resize(1);
    deep.lifts[0].wait_h = 10, deep.lifts[1].wait_h = 24, slow.lifts[0].wait_h = 100;
    const auto rounds = rounds_of({deep, slow});
    REQUIRE(rounds.size() == 2);
    CHECK(rounds[0].wait_h == 10);
    CHECK(rounds[1].wait_h == 90);  // 100 after the first
    CHECK(rounds[0].places == 2);
    CHECK(rounds[1].places == 1);
    DemoJob g("job-seed-cabinet");
    g.job().join.two_stages = true;
    const Plan q = g.plan();
    REQUIRE(q.join->joints.size() > 1);
    const Operation* one = operation(q, "glue");
    const Operation* two = operation(q, "glue_2");
    REQUIRE((one && two));
    within_hours(q, g.docs.shop, *two);
    CHECK(two->start_h >= one->end_h - 1e-6);
    CHECK(one->waiting_h == 12);
}

TEST_CASE("who works alone takes the hours of one, where two were meant to", "[days][join][skin]") {
    DemoJob f("job-seed-cabinet");
    f.job().join.helped = true;
    f.job().skin.hands = SkinHands::two_people;
    f.docs.shop.workday.helper.clear();
    const Plan nobody = f.plan();
    DemoJob alone("job-seed-cabinet");
    alone.docs.shop.workday.helper.clear();
    alone.job().join.helped = false;
    alone.job().skin.hands = SkinHands::alone;
    const Plan one = alone.plan();
    for (const char* key : {"glue", "sand", "last_grit", "coat_1", "coat_2"}) {
        INFO(key);
        if (!operation(one, key)) continue;
        CHECK(operation(nobody, key)->hands_on_h == Approx(operation(one, key)->hands_on_h));
        CHECK(operation(nobody, key)->works() == Who::maker);
        CHECK(operation(nobody, key)->lacks);
    }
    // … and is paid as one: no second pair of hands in the money.
    const Money m = money_of(nobody, f.job(), f.docs.shop);
    for (const MoneyLine& l : m.lines) CHECK(l.key.rfind("helper ", 0) != 0);
    const std::map<std::string, const Plan*> plans{{"job-seed-cabinet", &nobody}};
    SeasonAsk ask;
    ask.only = {"job-seed-cabinet"};
    const Season s = season_of(f.docs, plans, ask);
    CHECK(find_caution(s.cautions, "days.no_helper"));
    // With a helper there, both are scheduled, for less time each.
    for (int day = 0; day < 5; ++day) f.docs.shop.workday.helper.push_back({day, 8, 17});
    const Plan both = f.plan();
    CHECK(operation(both, "glue")->who == Who::both);
    CHECK(operation(both, "glue")->hands_on_h < operation(one, "glue")->hands_on_h);
}

TEST_CASE("a helper that is there is not offered again", "[join][T40]") {
    DemoJob f("job-seed-cabinet");
    f.job().join.open_min = 4;
    const auto skins = [&] {
        const Plan p = f.plan();
        const Caution* c = find_caution(p.join->cautions, "join.skins");
        REQUIRE(c);
        return render(c->says, Units::metric());
    };
    CHECK(skins().find("A helper makes it") != std::string::npos);
    f.job().join.helped = true;
    CHECK(skins().find("A helper makes it") == std::string::npos);
    f.job().join.two_stages = true;
    CHECK(skins().find("Two stages") == std::string::npos);
    f.job().join.slow_glue = true;
    f.job().join.open_min = 1;
    CHECK(skins().find("leaves") == std::string::npos);
}

TEST_CASE("an offer stays what it was when the hours really taken are told", "[money]") {
    DemoJob f("job-reading-table");
    const Plan p = f.plan();
    const Money planned = money_of(p, f.job(), f.docs.shop);
    RealHours real;
    for (const Operation& o : p.days->operations) real[o.key] = 2 * o.hands_on_h;
    const Money really = money_of(p, f.job(), f.docs.shop, &real);
    CHECK(really.cost > planned.cost);
    CHECK(really.net == planned.net);
    CHECK(really.offer == planned.offer);
    REQUIRE((planned.hour_earns && really.hour_earns));
    CHECK(*really.hour_earns < *planned.hour_earns);
    // By hand: what is left of the offer before tax once all but the maker's own hours is paid, over those hours.
    Cents maker = 0;
    for (const MoneyLine& l : really.lines)
        if (l.key.rfind("hours ", 0) == 0) maker += l.sum;
    CHECK(static_cast<double>(*really.hour_earns) ==
          Approx(static_cast<double>(planned.net - really.cost + maker) / really.hands_h).margin(1));
}

TEST_CASE("a slab paid by its share is paid for all that does not go back to the rack", "[money]") {
    DemoJob f("job-reading-table");
    f.job().money.slabs = SlabCost::share;
    const auto paid = [&] {
        const Plan p = f.plan();
        double back = 0;
        for (const Offcut& o : p.cuts->offcuts) back += o.length_mm * o.width_mm;
        const double whole = std::abs(area(p.leaves[0].shape().ring_a));
        const double used = std::abs(area(p.leaves[0].lay->rough)) / whole;
        for (const MoneyLine& l : money_of(p, f.job(), f.docs.shop).lines)
            if (l.kind == "slab") {
                CHECK(l.amount == Approx(1 - std::clamp(back / whole, 0.0, 1 - used)).margin(0.001));
                return l.amount;
            }
        FAIL("no slab is paid");
        return 0.0;
    };
    CHECK(paid() <= 1);
}

TEST_CASE("resin is shared as it is mixed, and tape is paid by the roll", "[money][fill]") {
    const Documents& docs = demo_shop();
    for (const auto& [id, job] : docs.jobs) {
        const Plan p = plan_job(job, docs);
        if (!p.drawable()) continue;
        INFO(id);
        std::map<std::string, double> mixed;
        for (const VoidPlan& v : p.fill->voids)
            for (const Lift& l : v.lifts)
                if (!v.river && !v.left_open) mixed["resin " + v.resin] += l.volume_l;
        if (!p.pour->lifts.empty()) mixed["resin " + p.pour->resin] += p.pour->mix_l;
        for (const Need& n : needs_of(p, job, docs.shop)) {
            if (n.key == "tape") CHECK(std::fmod(n.buys() + 1e-9, 1.0) < 1e-6);
            if (const auto it = mixed.find(n.key); it != mixed.end() && n.before != "soak") {
                INFO(n.key);
                if (p.fill->soak_l <= 0) CHECK(n.amount == Approx(it->second).margin(1e-9));
            }
        }
        for (const MoneyLine& l : money_of(p, job, docs.shop).lines)
            if (l.key == "tape") CHECK(std::fmod(l.amount + 1e-9, 1.0) < 1e-6);
    }
}

TEST_CASE("what was agreed holds in other units, words and spelling", "[record][T42]") {
    DemoJob f("job-reading-table");
    agree(f.job(), {"2026-11-30", "", to_agree(f.plan(), f.job(), f.docs.shop)});
    for (const LengthStyle length : {LengthStyle::inches_16, LengthStyle::feet_inches, LengthStyle::millimetres}) {
        f.docs.shop.units.length = length;
        f.docs.shop.money.currency = "kr.";
        CHECK(broken(f.plan(), f.job(), f.docs.shop).empty());
    }
    for (AgreedLine& l : f.job().record.agreed.back().lines) l.says += " (as an older program said it)";
    CHECK(broken(f.plan(), f.job(), f.docs.shop).empty());
    f.job().top.length_mm -= 20;
    const auto what = broken(f.plan(), f.job(), f.docs.shop);
    REQUIRE_FALSE(what.empty());
    CHECK(what.front().key == "size");
    // One that was written before keys and quantities were kept is held by its words.
    f.job().top.length_mm += 20;
    for (AgreedLine& l : f.job().record.agreed.back().lines) l.of.clear();
    CHECK_FALSE(broken(f.plan(), f.job(), f.docs.shop).empty());
}

TEST_CASE("one cup is one figure: Flat tells it by the width that Under holds", "[flat][under]") {
    const Documents& docs = demo_shop();
    int told = 0;
    for (const auto& [id, job] : docs.jobs) {
        const Plan p = plan_job(job, docs);
        if (!p.drawable() || job.leaves.size() != 1 || !p.under->held || !p.flat->one_face_mm) continue;
        INFO(id);
        CHECK(std::abs(*p.flat->one_face_mm) == Approx(p.under->held->free_mm).epsilon(1e-9));
        ++told;
    }
    CHECK(told > 0);
}
