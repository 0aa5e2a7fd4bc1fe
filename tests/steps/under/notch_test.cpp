// A pedestal let into the top, parts finished first, a base that has to come, an insert that lets go before the wood.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/steps/join/join.h"
#include "tests/steps/under/table.h"

using namespace yb;

namespace {

Plan planned(const Table& t) { return plan_job(t.job, t.slab, t.shop); }

const Operation* operation(const Plan& p, const std::string& key) {
    for (const Operation& o : p.days->operations)
        if (o.key == key) return &o;
    return nullptr;
}

Table pedestal() {
    Table t;
    t.job.under.base = BaseKind::pedestal;
    t.job.under.plates = {{0, 0, 300, 300, 3, 1}};
    t.job.under.channels.clear();
    t.job.under.foot_across_mm = 500, t.job.under.foot_along_mm = 600;
    t.job.under.leg_thick_mm = 40;
    return t;
}

}  // namespace

TEST_CASE("a pedestal's notch is in the stack of depth, longer panels and on the drilling template", "[under][depth]") {
    Table t = pedestal();
    const Plan flat = planned(t);
    t.job.under.notch_mm = 12;
    const Plan p = planned(t);
    REQUIRE(p.under->base.parts.size() == 2);
    CHECK(p.under->leg_mm == Approx(flat.under->leg_mm));
    CHECK(p.under->base.parts[0].length_mm == Approx(flat.under->base.parts[0].length_mm + 12));
    double high = 0;
    for (const Vec3 q : p.under->base.pieces[0].corners) high = std::max(high, q.z);
    CHECK(high == Approx(p.under->leg_mm + 12));
    int notches = 0;
    for (const LetIn& l : p.join->let_in)
        if (l.what.rfind("notch", 0) == 0) {
            ++notches;
            CHECK(l.low_mm == 0);
            CHECK(l.high_mm == 12);
            CHECK(area(l.at) == Approx(notches == 1 ? 40.0 * 500 : 600.0 * 40));
        }
    CHECK(notches == 2);
    // The two cross: that is how a pedestal is made. An insert in its way is none of it.
    const bool own = std::any_of(p.join->clashes.begin(), p.join->clashes.end(),
                                 [](const Clash& c) { return c.one.rfind("notch", 0) == 0 && c.other.rfind("notch", 0) == 0; });
    CHECK_FALSE(own);
    const bool insert = std::any_of(p.join->clashes.begin(), p.join->clashes.end(),
                                    [](const Clash& c) { return (c.one.rfind("insert", 0) == 0) != (c.other.rfind("insert", 0) == 0); });
    CHECK(insert);  // its plate's bolts stand on the crossing
    int drawn = 0;
    for (const DrawnPath& d : drawn_drilling(p, t.job)) drawn += d.layer == "notch";
    CHECK(drawn == 2);
    // So deep that nothing is left above it.
    t.job.under.notch_mm = p.top->thickness_mm - 1;
    const Plan deep = planned(t);
    CHECK(std::any_of(deep.join->cautions.begin(), deep.join->cautions.end(), [](const Caution& c) {
        return c.severity == Severity::stop && render(c.says, Units::metric()).find("notch") != std::string::npos;
    }));
    // Other bases are not let in.
    t.job.under.base = BaseKind::legs;
    CHECK(notches_of(t.job.under).empty());
}

TEST_CASE("parts finished first are an operation with their glue faces masked", "[under][base]") {
    Table t = pedestal();
    CHECK_FALSE(operation(planned(t), "base_parts"));
    t.job.under.parts_first = true;
    const Plan p = planned(t);
    CHECK(p.under->base.glue_faces == 4);  // two panels, both ends
    const Operation* o = operation(p, "base_parts");
    REQUIRE(o);
    CHECK(o->hands_on_h == Approx(0.25 + 0.4));
    CHECK(o->waiting_h == 24);
    const bool told = std::any_of(p.under->base.notes.begin(), p.under->base.notes.end(), [](const Phrase& n) {
        return render(n, Units::metric()).find("tape over 4 glue faces") != std::string::npos;
    });
    CHECK(told);
}

TEST_CASE("what is ordered comes beside the work, and what needs it waits", "[under][days]") {
    Table t;
    t.job.start = "2026-11-30";
    const Plan at_hand = planned(t);
    CHECK_FALSE(operation(at_hand, "base_order"));
    t.job.under.lead_days = 60;
    const Plan p = planned(t);
    const Operation* order = operation(p, "base_order");
    const Operation* fit = operation(p, "pockets");
    REQUIRE(order);
    REQUIRE(fit);
    CHECK(fit->start_h >= order->hands_end_h + 60 * 24);
    CHECK(fit->start_h < order->hands_end_h + 63 * 24);  // the next working hour after it
    // What lies between goes on meanwhile.
    const Operation* flat = operation(p, "flat_a") ? operation(p, "flat_a") : operation(p, "first");
    for (const Operation& o : p.days->operations)
        if (o.order > order->order && o.order < fit->order && o.key != "base_look") CHECK(o.start_h < order->hands_end_h + 60 * 24);
    (void)flat;
    // What is there before it is needed delays nothing.
    t.job.under.lead_days = 0.5;
    const Plan soon = planned(t);
    CHECK(soon.days->end_h <= at_hand.days->end_h + 24);
}

TEST_CASE("an insert that lets go before the wood decides, and what a channel pulls is held against a fifth of it", "[under]") {
    Table t;
    const UnderPlan wood = t.plan();
    REQUIRE(wood.slots.front().made.pull_n);
    CHECK_FALSE(wood.slots.front().made.insert_decides);
    t.job.under.insert_n = 900;
    const UnderPlan weak = t.plan();
    CHECK(*weak.slots.front().made.pull_n == 900);
    CHECK(weak.slots.front().made.insert_decides);
    REQUIRE(weak.held);
    CHECK(*weak.held->holds_n == Approx(180));
    CHECK((t.says("under.held") != nullptr) == (weak.held->bolt_n > 180));
    t.job.under.insert_n = 1e5;  // the wood lets go first
    CHECK(*t.plan().slots.front().made.pull_n == Approx(*wood.slots.front().made.pull_n));
    t.job.under.insert_n = 900;
    t.job.under.inserts = InsertKind::wood_screw;  // no insert
    CHECK(*t.plan().slots.front().made.pull_n > 900);
}

TEST_CASE("a clip is drawn 1:1 with its tongue set back as told", "[under]") {
    Table t;
    CHECK(drawn_fixing(planned(t), t.job).empty());
    t.job.under.fixing = Fixing::clips;
    const Plan p = planned(t);
    const auto all = drawn_fixing(p, t.job);
    REQUIRE(all.size() == 5);
    double furthest = 0;
    double gap = 0;
    for (const Slot& s : p.under->slots)
        if (!s.round && s.part.kind == "plate" && s.length_mm > furthest) furthest = s.length_mm, gap = s.made.gap_mm;
    const auto kerf = std::find_if(all.begin(), all.end(), [](const DrawnPath& d) { return d.layer == "kerf"; });
    const auto tongue = std::find_if(all.begin(), all.end(), [](const DrawnPath& d) { return d.layer == "tongue, on the day"; });
    REQUIRE(kerf != all.end());
    REQUIRE(tongue != all.end());
    CHECK(bounds(kerf->points).high.x - bounds(tongue->points).high.x == Approx(gap));
    CHECK(bounds(tongue->points).width() == Approx(tongue_mm));
    for (const Slot& s : p.under->slots) CHECK(held_by(s, t.job.under) == (s.part.kind == "channel" ? Fixing::slots : Fixing::clips));
}
