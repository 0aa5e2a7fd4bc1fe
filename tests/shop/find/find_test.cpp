// Find: small racks whose best answer is known, and its manners.
#include <catch2/catch.hpp>

#include "core/material/tree/saw.h"
#include "core/shop/find/find.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/lay/place.h"
#include "core/steps/pour/pour.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

Slab plank(const char* id, double length, double width, double thick, const char* tree = "", std::optional<int> number = {}) {
    Slab s;
    s.id = s.name = id;
    s.species = "butternut";
    s.tree = tree;
    s.sequence = number;
    s.moisture_pct = 9;
    s.tape.stations = {{0, width / 2, width / 2, {}, {}, thick, {}}, {length, width / 2, width / 2, {}, {}, thick, {}}};
    return s;
}

}  // namespace

TEST_CASE("the slab that fits with least waste comes first, what does not fit last", "[find]") {
    Documents d;
    for (const Slab& s :
         {plank("wide", 3000, 1400, 50), plank("right", 2000, 850, 50), plank("short", 1500, 900, 50), plank("thin", 2100, 860, 30)})
        d.slabs[s.id] = s;
    FindOrder o;
    o.top = {1900, 800, 42, 740, LiveEdges::none, 0};
    int told = 0;
    const auto found = find_tops(d, o, {}, [&](const std::vector<Found>&) { ++told; });
    REQUIRE(found.size() == 4);
    CHECK(told >= 1);
    CHECK(found[0].slabs == std::vector<std::string>{"right"});
    CHECK(found[0].fits);
    CHECK(found.back().slabs == std::vector<std::string>{"short"});
    CHECK_FALSE(found.back().fits);
    CHECK(found.back().lack_mm > 399);
    CHECK(found[0].thickness_mm == Approx(50).margin(0.01));
    CHECK_FALSE(found[0].gains.empty());
    for (const Found& f : found)
        if (f.slabs[0] == "thin") CHECK(f.costs.front().pattern.find("too thin") != std::string::npos);
}

TEST_CASE("narrow slabs of one tree make what none gives alone", "[find]") {
    Documents d;
    for (int i = 1; i <= 4; ++i) {
        const std::string id = "b" + std::to_string(i);
        d.slabs[id] = plank(id.c_str(), 2400, 380, 55, "one log", i);
    }
    d.slabs["other"] = plank("other", 2400, 380, 55, "another log", 1);
    FindOrder o;
    o.top = {2200, 700, 45, 740, LiveEdges::both, 0};
    auto found = find_tops(d, o);
    REQUIRE_FALSE(found.empty());
    CHECK(found[0].fits);
    CHECK(found[0].slabs.size() >= 2);
    for (const Found& f : found)
        if (f.fits)
            for (const std::string& id : f.slabs) CHECK(id != "other");
    // Neighbours in the log before those with slabs between, where likeness is all that counts.
    o.weights = {0, 0, 1, 0, 0, 0, 0, 0};
    o.boards = o.rivers = o.singles = false;
    found = find_tops(d, o);
    REQUIRE(found.size() >= 3);
    CHECK(found[0].apart_mm == Approx(4));
    CHECK(found[0].kind == MakeUp::book);
    // A find taken becomes the job's.
    Job j;
    take_find(j, found[0]);
    CHECK(j.leaves.size() == 2);
    j.top = o.top;
    const Plan p = plan_job(j, d);
    for (const Shortfall& s : p.lay->short_at) UNSCOPED_INFO(name_of(s.side) << " " << s.mm);
    for (const JointPlan& k : p.makeup->joints) UNSCOPED_INFO("joint " << k.worst_mm);
    CHECK(found[0].fits);
    CHECK(p.lay->fits);
}

TEST_CASE("a pair is listed once: opened where its faces are near, drawn out where whole slabs lie between", "[find]") {
    Documents d;
    for (const int n : {1, 2, 6}) {
        const std::string id = "b" + std::to_string(n);
        d.slabs[id] = plank(id.c_str(), 2400, 380, 55, "one log", n);
    }
    FindOrder o;
    o.top = {2200, 700, 45, 740, LiveEdges::both, 0};
    o.weights = {0, 0, 1, 0, 0, 0, 0, 0};
    o.boards = o.rivers = o.singles = false;
    const auto found = find_tops(d, o);
    REQUIRE(found.size() == 3);
    for (const Found& f : found) {
        const bool near = f.slabs == std::vector<std::string>{"b1", "b2"} || f.slabs == std::vector<std::string>{"b2", "b1"};
        INFO(f.slabs[0] << " " << f.slabs[1]);
        CHECK(f.kind == (near ? MakeUp::book : MakeUp::slip));
    }
}

TEST_CASE("a river is evened before it is judged, as it would be when it is taken", "[find]") {
    const Documents d = demo_shop();
    FindOrder o;
    o.top = {1900, 900, 40, 740, LiveEdges::none, 0};
    o.choices.river_mm = 140;
    o.singles = o.pairs = o.boards = false;
    o.for_job = "job-tarn-river";
    const auto found = find_tops(d, o);
    REQUIRE_FALSE(found.empty());
    Job j = d.jobs.at("job-tarn-river");
    j.top = o.top;
    std::vector<Slab> slabs;
    for (const std::string& id : found[0].slabs) slabs.push_back(d.slabs.at(id));
    REQUIRE(laid_together(j, MakeUp::river, slabs).empty());
    const Plan made = plan_job(j, d);
    take_find(j, found[0]);
    const Plan taken = plan_job(j, d);
    REQUIRE(made.makeup->joints.size() == 1);
    CHECK(taken.makeup->joints[0].above.mean_mm == Approx(140).margin(3));
    CHECK(taken.makeup->joints[0].above.widest_mm - taken.makeup->joints[0].above.narrowest_mm ==
          Approx(made.makeup->joints[0].above.widest_mm - made.makeup->joints[0].above.narrowest_mm).margin(1));
}

TEST_CASE("reserved and retired slabs are left out", "[find]") {
    Documents d;
    for (const Slab& s : {plank("a", 2000, 900, 50), plank("b", 2000, 900, 50), plank("c", 2000, 900, 50)}) d.slabs[s.id] = s;
    d.slabs["a"].retired = true;
    Job other;
    other.id = "other";
    other.first().slab = "b";
    d.jobs["other"] = other;
    FindOrder o;
    o.top = {1800, 800, 40, 740, LiveEdges::none, 0};
    o.for_job = "mine";
    const auto found = find_tops(d, o);
    REQUIRE(found.size() == 1);
    CHECK(found[0].slabs[0] == "c");
    o.for_job = "other";
    CHECK(find_tops(d, o).size() == 2);
}

TEST_CASE("no better way is lost to the bound: all of the demo's rack worked out", "[find]") {
    const Documents d = demo_shop();
    FindOrder o;
    o.top = {1700, 700, 40, 740, LiveEdges::both, 0};
    o.for_job = "job-reading-table";
    o.keep = 5;
    const auto few = find_tops(d, o);
    o.keep = 500;  // nothing can be left out then
    const auto all = find_tops(d, o);
    REQUIRE(few.size() == 5);
    REQUIRE(all.size() >= 5);
    for (std::size_t i = 0; i < few.size(); ++i) {
        INFO(i);
        CHECK(few[i].score == Approx(all[i].score).margin(1e-9));
    }
    std::stop_source stop;
    stop.request_stop();
    CHECK_THROWS_AS(find_tops(d, o, {{}, stop.get_token(), 0}), Cancelled);
}

TEST_CASE("a single slab is laid the way up and round that fits and shows least", "[find]") {
    // Rot on face A only: the other face is shown.
    Slab s = plank("rotten", 2000, 800, 50);
    s.flaws.push_back({"rot", FlawKind::soft, Face::a, {{900, -50}, {1000, -50}, {1000, 50}, {900, 50}}, false, 10, 1, ""});
    Documents d;
    d.slabs["rotten"] = s;
    FindOrder o;
    o.top = {1700, 700, 40, 740, LiveEdges::none, 0};
    auto found = find_tops(d, o);
    REQUIRE(found.size() == 1);
    CHECK(found[0].placements[0].turned_over);
    CHECK(found[0].fits);
}

TEST_CASE("whatever Find says fits does fit once it is taken", "[find]") {
    const Documents d = demo_shop();
    for (const double width : {700.0, 840.0, 900.0}) {
        FindOrder o;
        o.top = {1900, width, 42, 740, LiveEdges::both, 0};
        o.keep = 60;
        int fitting = 0;
        for (const Found& f : find_tops(d, o)) {
            Job j;
            j.top = o.top;
            j.makeup = o.choices;
            take_find(j, f);
            const Plan p = plan_job(j, d);
            std::string slabs;
            for (const std::string& s : f.slabs) slabs += s + " ";
            INFO(name_of(f.kind) << " of " << slabs << "at " << width << ", lack " << f.lack_mm);
            for (const Shortfall& s : p.lay->short_at) UNSCOPED_INFO(name_of(s.side) << " short by " << s.mm);
            for (const JointPlan& k : p.makeup->joints) UNSCOPED_INFO("joint lacks " << k.worst_mm << ", river " << k.above.narrowest_mm);
            CHECK(p.lay->fits == f.fits);
            fitting += f.fits;
        }
        CHECK(fitting > 0);
    }
}

TEST_CASE("a river that is found tells the litres and the weight of its real top", "[find]") {
    Documents d;
    for (int i = 1; i <= 2; ++i) {
        const std::string id = "b" + std::to_string(i);
        d.slabs[id] = plank(id.c_str(), 2400, 380, 55, "one log", i);
    }
    FindOrder o;
    o.top = {2200, 700, 45, 740, LiveEdges::both, 0};
    o.choices.river_mm = 60;
    o.resin_price_l = 20;
    o.singles = o.pairs = o.boards = false;
    const auto found = find_tops(d, o);
    REQUIRE_FALSE(found.empty());
    REQUIRE(found[0].kind == MakeUp::river);
    // Square edges 60 apart: 2200 × 60 × 45 mm, and what of 700 is left is wood.
    Job j;
    j.top = o.top, j.makeup = o.choices;
    take_find(j, found[0]);
    const Plan p = plan_job(j, d);
    CHECK(p.top->river_l() == Approx(2200 * 60 * 45 * 1e-6).epsilon(0.001));
    CHECK(found[0].resin_l == Approx(p.pour->mix_l).epsilon(1e-9));  // what is mixed, as the pour says
    CHECK(found[0].resin_l > p.top->river_l());
    CHECK(found[0].weight_kg == Approx(p.top->mass_kg).epsilon(1e-9));
    double price = found[0].resin_l * 20;
    for (const auto& [id, s] : d.slabs) price += s.price.value_or(0);
    CHECK(found[0].price == Approx(price));
}

TEST_CASE("with one live edge a top fits wherever a grid of all places says it does, and short by is all that lacks", "[find][grown]") {
    // The other way: every place along, angle and way up, edges cut station by station.
    const auto most_wide = [](const SlabShape& s, double length, bool high) {
        double best = 0;
        for (double angle = -5; angle <= 5; angle += 0.25) {
            const Frame f{centroid(s.ring_a), angle};
            const Ring a = f.from_slab(s.ring_a);
            const Ring b = f.from_slab(s.ring_b);
            const Box box = bounds(a);
            for (double from = box.low.x; from + length <= box.high.x; from += 15) {
                double live = 1e9;
                double sawn = 1e9;
                for (int i = 0; i <= 60 && live + sawn > best; ++i) {
                    const double u = from + length * std::clamp(i / 60.0, 1e-6, 1 - 1e-6);
                    const auto ca = cut_at_x(a, u);
                    const auto cb = cut_at_x(b, u);
                    if (ca.empty() || cb.empty()) {
                        live = sawn = -1e9;
                        break;
                    }
                    live = std::min(live, high ? ca.back().to : -ca.front().from);
                    sawn = std::min(sawn, high ? -std::max(ca.front().from, cb.front().from) : std::min(ca.back().to, cb.back().to));
                }
                best = std::max(best, live + sawn);
            }
        }
        return best;
    };
    int fitting = 0;
    int short_of = 0;
    for (std::uint64_t seed = 300; seed < 306; ++seed) {
        SawPlan saw;
        saw.thickness_mm = 60;
        const GrownLog log(drawn_recipe(seed, "butternut", 1800, 430));
        int one_of = 0;
        for (const SawnSlab& sawn : make_slabs(log, saw, {}, {0, false})) {
            if (++one_of % 2) continue;
            Documents d;
            d.slabs[sawn.slab.id] = sawn.slab;
            const double length = 1300;
            const Slab turned = turned_over(sawn.slab);
            const SlabShape up = shape_of(sawn.slab);
            const SlabShape down = shape_of(turned);
            double most = 0;
            for (const SlabShape* s : {&up, &down})
                for (const bool high : {true, false}) most = std::max(most, most_wide(*s, length, high));
            for (const double more : {-12.0, 25.0}) {
                FindOrder order;
                order.top.length_mm = length;
                order.top.width_mm = std::round(most + more);
                order.top.thickness_mm = 30;
                order.top.live = seed % 2 ? LiveEdges::left : LiveEdges::right;
                order.pairs = order.rivers = order.boards = false;
                const auto found = find_tops(d, order);
                REQUIRE(found.size() == 1);
                INFO("seed " << seed << " " << sawn.slab.id << " wanted " << order.top.width_mm << ", the grid has " << most);
                CHECK(found[0].fits == (more < 0));
                // Of the ways that fit the one that shows least is taken; where none does, the widest.
                CHECK(found[0].narrowest_mm <= most + 3);
                CHECK(found[0].narrowest_mm >= (more < 0 ? order.top.width_mm : most) - 3);
                if (more > 0) CHECK(found[0].lack_mm == Approx(order.top.width_mm - most).margin(3));
                ++(more < 0 ? fitting : short_of);
            }
        }
    }
    CHECK(fitting >= 10);
    CHECK(short_of >= 10);
}

TEST_CASE("short by is all that a slab lacks, however many sides lack it", "[find]") {
    // A plank 500 wide for a top of 659.5: 159.5 short, with any edges kept.
    for (const LiveEdges live : {LiveEdges::none, LiveEdges::both, LiveEdges::left, LiveEdges::right}) {
        Documents d;
        d.slabs["p"] = plank("p", 2400, 500, 50);
        FindOrder order;
        order.top.length_mm = 2000, order.top.width_mm = 659.5, order.top.thickness_mm = 40, order.top.live = live;
        const auto found = find_tops(d, order);
        REQUIRE_FALSE(found.empty());
        CHECK_FALSE(found[0].fits);
        // Between two live edges a top that lies askew is measured askew: two millimetres here.
        const double askew = live == LiveEdges::both ? 2 : 0.1;
        CHECK(found[0].lack_mm == Approx(159.5).margin(askew));
        CHECK(found[0].narrowest_mm == Approx(500).margin(askew));
    }
}

TEST_CASE("between two live edges the other face is searched on its own", "[find]") {
    // Face B stands further out on one side of one end: turned over, the widest place lies otherwise than the first one mirrored.
    for (unsigned seed = 1; seed <= 6; ++seed) {
        Documents d;
        SlabRecipe r;
        r.id = "p", r.species = "sycamore, American", r.length_mm = 2300, r.width_mm = 640;
        r.sweep_mm = 10.0 * seed, r.lean_left_mm = 30 - 5.0 * seed, r.lean_right_mm = 4.0 * seed;
        d.slabs["p"] = make_slab(r);
        FindOrder order;
        order.top.length_mm = 1900, order.top.width_mm = 2000, order.top.thickness_mm = 30, order.top.live = LiveEdges::both;
        const auto found = find_tops(d, order);
        REQUIRE_FALSE(found.empty());
        // By other code: every turn of a tenth of a degree, every place of 10 mm, either face up.
        double best = 0;
        for (const bool over : {false, true}) {
            const Slab s = over ? turned_over(d.slabs.at("p")) : d.slabs.at("p");
            const SlabShape shape = shape_of(s);
            for (double turn = -5; turn <= 5; turn += 0.5)
                for (double x = 950; x <= 1350; x += 25) {
                    WantedTop top = order.top;
                    top.width_mm = 100;
                    best = std::max(best, plan_lay({s, shape, top, {x, 0, turn, false, 0}}).narrowest_mm);
                }
        }
        INFO("seed " << seed);
        CHECK(found[0].narrowest_mm > best - 2);
    }
}
