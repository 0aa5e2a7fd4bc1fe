// The whole set turned over: the other faces show, the mirror stays one.
#include <catch2/catch.hpp>

#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "tests/planks.h"

using namespace yb;

namespace {

/// Two sisters whose left edges, as they lay in the log, are the wavier ones.
Documents sisters() {
    Documents d;
    for (int i = 1; i <= 2; ++i) {
        Slab s = plank("s" + std::to_string(i), 2400, 500, 55);
        s.sequence = i;
        s.tape.stations = {{0, 260, 240, {}, {}, 55, {}}, {1200, 230, 245, {}, {}, 55, {}}, {2400, 255, 240, {}, {}, 55, {}}};
        d.slabs[s.id] = s;
    }
    return d;
}

Flaw rot(Face face, double x, double y) {
    Flaw f;
    f.id = "r";
    f.kind = FlawKind::soft;
    f.face = face;
    f.outline = box(x - 50, y - 40, x + 50, y + 40);
    f.depth_mm = 10;
    return f;
}

const Choice* faces(const Plan& p) {
    for (const Choice& c : p.lay->choices)
        if (c.key == "makeup.faces") return &c;
    return nullptr;
}

}  // namespace

TEST_CASE("turned over as a set, each leaf shows its other face and stays on its side of the mirror", "[makeup][over]") {
    const Documents d = sisters();
    const WantedTop top{2200, 800, 40, 740, LiveEdges::both, 6, TopShape::rectangle, {}};
    for (const MakeUp kind : {MakeUp::book, MakeUp::slip, MakeUp::open_river}) {
        Job j = on(d.slabs.at("s1"), top);
        REQUIRE(laid_together(j, kind, {d.slabs.at("s1"), d.slabs.at("s2")}).empty());
        Job over = j;
        over.makeup.outer_faces = true;
        REQUIRE(laid_together(over, kind, {d.slabs.at("s1"), d.slabs.at("s2")}).empty());
        for (const Leaf& l : j.leaves)
            for (const Leaf& o : over.leaves)
                if (l.slab == o.slab) CHECK(l.placement.turned_over != o.placement.turned_over);
        const Plan a = plan_job(j, d);
        const Plan b = plan_job(over, d);
        REQUIRE(b.lay->ready);
        for (const JointPlan& joint : b.makeup->joints)
            if (!joint.river) CHECK(joint.worst_mm <= 0.5);
        // These planks have straight sides: nothing of the width is lost by it.
        CHECK(b.lay->narrowest_mm == Approx(a.lay->narrowest_mm).margin(1));
    }
}

TEST_CASE("rot is weighed on the faces that would show, side by side", "[makeup][over]") {
    Documents d = sisters();
    const WantedTop top{2200, 700, 40, 740, LiveEdges::both, 6, TopShape::rectangle, {}};
    // The parted faces of a pair: the lower one's A, the upper one's B. Rot of 80 cm² on the lower one's A.
    d.slabs.at("s1").flaws = {rot(Face::a, 1200, 0)};
    Job j = on(d.slabs.at("s1"), top);
    REQUIRE(laid_together(j, MakeUp::book, {d.slabs.at("s1"), d.slabs.at("s2")}).empty());
    const Plan p = plan_job(j, d);
    const Choice* c = faces(p);
    REQUIRE(c);
    REQUIRE(c->options.size() == 2);
    CHECK(c->options[0].chosen);
    CHECK(c->options[0].consequence.value(0) == 80);
    CHECK(c->options[1].consequence.value(0) == 0);
    CHECK(c->options[0].consequence.value(2) == Approx(4));             // the kerf of the mill
    CHECK(c->options[1].consequence.value(2) == Approx(4 + 2 * 55.0));  // and both slabs besides
    // A hole right through shows either way.
    d.slabs.at("s1").flaws[0].through = true;
    CHECK(faces(plan_job(j, d))->options[1].consequence.value(0) == 80);
}
