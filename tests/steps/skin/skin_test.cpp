// Skin: areas, grits, coats, zones and what is to be minded, by hand and against a fine grid.
#include <catch2/catch.hpp>

#include <geos_c.h>

#include <cmath>
#include <map>
#include <numbers>
#include <random>

#include "core/shop/edit/skin_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/job/work_order.h"
#include "core/steps/join/join.h"
#include "core/steps/skin/look.h"
#include "demo/demo.h"
#include "tests/planks.h"
#include "tests/sane.h"

using namespace yb;

namespace {

/// The handbook's top: 2000 by 900 by 45, two live edges that lean 20° outward below.
Top leaning() {
    Top top;
    top.ready = true;
    top.wanted = {2000, 900, 45, 740, LiveEdges::both, 6, TopShape::rectangle, {}};
    const double out = 45 * std::tan(20 * std::numbers::pi / 180);
    top.above = box(-1000, -450, 1000, 450);
    top.below = box(-1000, -450 - out, 1000, 450 + out);
    top.thickness_mm = 45;
    Region leaf;
    leaf.above = top.above, leaf.below = top.below, leaf.high_mm = 45;
    leaf.species = find_species("sycamore, American");
    top.regions = {leaf};
    top.leaves = 1;
    return top;
}

SkinInputs inputs(const Top& top) {
    SkinInputs in{top, {}, {20, 50}, generic_climates().front()};
    in.sled_step_mm = 0.2;
    return in;
}

const SkinFacePlan& face(const SkinPlan& p, const std::string& key) {
    for (const SkinFacePlan& f : p.faces)
        if (f.face.key == key) return f;
    FAIL(key);
    throw 0;
}
bool has(const SkinPlan& p, const std::string& key) {
    return std::any_of(p.faces.begin(), p.faces.end(), [&](const SkinFacePlan& f) { return f.face.key == key; });
}
std::vector<double> grits_of(const SkinFacePlan& f) {
    std::vector<double> out;
    for (const GritStep& g : f.grits) out.push_back(g.grit);
    return out;
}

}  // namespace

TEST_CASE("faces of a top with leaning edges are what a tape says", "[skin]") {
    const Top top = leaning();
    const SkinPlan p = plan_skin(inputs(top));
    CHECK(face(p, "upper").face.m2 == Approx(1.800).margin(5e-5));
    CHECK(face(p, "under").face.m2 == Approx(1.8655).margin(5e-5));
    for (const char* e : {"edge left", "edge right"}) {
        CHECK(face(p, e).face.m2 == Approx(0.0958).margin(5e-5));
        CHECK(face(p, e).face.lean_deg == Approx(20).margin(0.01));
        CHECK(face(p, e).face.kind == SkinFace::Kind::live_edge);
    }
    for (const char* e : {"end left", "end right"}) CHECK(face(p, e).face.m2 == Approx(0.0412).margin(5e-5));
}

TEST_CASE("areas of every demo top agree with a fine grid – resin apart from wood, air left out", "[skin]") {
    const Documents d = demo_shop();
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        const Plan plan = plan_job(job, d);
        const SkinPlan& p = skin_of(plan);
        if (!p.ready) continue;
        const Top& top = *plan.top;
        const Box b = bounds(top.above);
        const double step = 4;
        double wood = 0;
        double glass = 0;
        for (double u = b.low.x + step / 2; u < b.high.x; u += step)
            for (double v = b.low.y + step / 2; v < b.high.y; v += step) {
                if (!contains(top.above, {u, v})) continue;
                const Region* r = top.at({u, v}, top.thickness_mm - 0.01);
                if (!r || r->kind == RegionKind::air) continue;
                (r->kind == RegionKind::resin ? glass : wood) += step * step * 1e-6;
            }
        CHECK(face(p, "upper").face.m2 == Approx(wood).epsilon(0.006).margin(0.002));
        CHECK((has(p, "resin above") ? face(p, "resin above").face.m2 : 0) == Approx(glass).epsilon(0.05).margin(0.002));
    }
}

namespace {
/// GEOS by itself: a region of the plane, made and asked without the program's geometry.
class Plane {
  public:
    Plane() : h_(GEOS_init_r()), g_(GEOSGeom_createEmptyPolygon_r(h_)) {}
    ~Plane() { GEOSGeom_destroy_r(h_, g_), GEOS_finish_r(h_); }
    Plane(const Plane&) = delete;
    Plane& operator=(const Plane&) = delete;
    void add(const Ring& r) { with(r, GEOSUnion_r); }
    void take(const Ring& r) { with(r, GEOSDifference_r); }
    void keep(const Ring& r) { with(r, GEOSIntersection_r); }
    double m2() const {
        double mm2 = 0;
        GEOSArea_r(h_, g_, &mm2);
        return mm2 * 1e-6;
    }

  private:
    template <class F>
    void with(const Ring& r, F how) {
        GEOSCoordSequence* line = GEOSCoordSeq_create_r(h_, static_cast<unsigned>(r.size() + 1), 2);
        for (unsigned i = 0; i <= r.size(); ++i) GEOSCoordSeq_setXY_r(h_, line, i, r[i % r.size()].x, r[i % r.size()].y);
        GEOSGeometry* raw = GEOSGeom_createPolygon_r(h_, GEOSGeom_createLinearRing_r(h_, line), nullptr, 0);
        GEOSGeometry* other = GEOSMakeValid_r(h_, raw);
        GEOSGeometry* out = how(h_, g_, other);
        GEOSGeom_destroy_r(h_, raw), GEOSGeom_destroy_r(h_, other), GEOSGeom_destroy_r(h_, g_);
        g_ = out;
    }
    GEOSContextHandle_t h_;
    GEOSGeometry* g_;
};
}  // namespace

TEST_CASE("areas of every demo top's faces agree with a polygon library to a thousandth", "[skin]") {
    const Documents d = demo_shop();
    int tops = 0;
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        const Plan plan = plan_job(job, d);
        const SkinPlan& p = skin_of(plan);
        if (!p.ready) continue;
        ++tops;
        const Top& top = *plan.top;
        for (const bool above : {true, false}) {
            const Ring& all = above || top.below.size() < 3 ? top.above : top.below;
            Plane wood, glass, pieces;
            for (const Region& r : top.regions) {
                const Ring& at = above ? r.above : r.below;
                if (at.size() < 3) continue;
                if (r.kind == RegionKind::resin) glass.add(at);
                if (r.kind == RegionKind::patch) pieces.add(at);
            }
            glass.keep(all);
            wood.add(all);
            for (const Region& r : top.regions)
                if (const Ring& at = above ? r.above : r.below; at.size() > 2 && r.kind != RegionKind::leaf) wood.take(at);
            for (const BowTie& t : job.join.ties)
                if (t.from_above == above) wood.take(outline_of(t)), pieces.add(outline_of(t));
            if (!above)
                for (const SkinFacePlan& f : p.faces)
                    if (f.face.kind == SkinFace::Kind::pocket) wood.take(f.face.at.front()), glass.take(f.face.at.front());
            const std::string side = above ? "upper" : "under";
            INFO(side);
            CHECK(face(p, side).face.m2 == Approx(wood.m2()).epsilon(0.001));
            const std::string resin = above ? "resin above" : "resin below";
            CHECK((has(p, resin) ? face(p, resin).face.m2 : 0) == Approx(glass.m2()).epsilon(0.001).margin(1e-6));
            pieces.keep(all);
            double let_in = 0;
            for (const SkinFacePlan& f : p.faces)
                if ((f.face.kind == SkinFace::Kind::patch && f.face.key.ends_with(above ? "above" : "below")) ||
                    (f.face.kind == SkinFace::Kind::tie &&
                     job.join.ties[static_cast<std::size_t>(std::stoi(f.face.key.substr(4)) - 1)].from_above == above))
                    let_in += f.face.m2;
            CHECK(let_in == Approx(pieces.m2()).epsilon(0.001).margin(1e-6));
        }
    }
    CHECK(tops >= 8);
}

TEST_CASE("the base piece by piece: a face a row of its cut list, all of it left out at once or one alone", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.base.parts = {{"leg", 4, 700, 80, 60}, {"rail", 2, 900, 100, 30}};
    SkinPlan p = plan_skin(in);
    // By hand: 4 · 2·(0.7·0.08 + 0.7·0.06 + 0.08·0.06), 2 · 2·(0.9·0.1 + 0.9·0.03 + 0.1·0.03).
    CHECK(face(p, "base 1").face.m2 == Approx(0.8224));
    CHECK(face(p, "base 2").face.m2 == Approx(0.48));
    const double all = p.m2;
    in.choices.faces = {{"base 1", true}};
    p = plan_skin(in);
    CHECK(p.m2 == Approx(all - 0.8224));
    CHECK_FALSE(face(p, "base 2").left_out);
    in.choices.faces = {{"base", true}};
    CHECK(plan_skin(in).m2 == Approx(all - 0.8224 - 0.48));
    in.base.parts.clear();
    in.choices.faces.clear();
    p = plan_skin(in);
    CHECK(p.m2 == Approx(all - 0.8224 - 0.48));
    CHECK_FALSE(has(p, "base 1"));
}

TEST_CASE("a face has a finish of its own: its grits, coats and mix, and what it warns of", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.finish = Finish::brushed;
    const SkinPlan before = plan_skin(in);
    CHECK_FALSE(find_caution(before.cautions, "skin.rags"));
    in.choices.faces = {{"under", false, false, FaceFinish::drying_oil}};
    const SkinPlan p = plan_skin(in);
    const FinishClass& oil = class_of(Finish::drying_oil);
    CHECK(find_caution(p.cautions, "skin.rags"));  // one oily face is enough
    CHECK(p.used == std::vector<Finish>{Finish::brushed, Finish::drying_oil});
    CHECK(face(p, "under").coats.size() == static_cast<std::size_t>(oil.coats));
    CHECK(face(p, "under").coats.front().ml == Approx(face(p, "under").face.m2 * oil.first_ml_m2));
    CHECK(face(p, "under").grits.back().grit == wood_stops_at(Finish::drying_oil, false));
    CHECK(face(p, "upper").coats.size() == face(before, "upper").coats.size());
    CHECK(face(p, "upper").coats.front().ml == face(before, "upper").coats.front().ml);
    CHECK(p.handle_h == Approx(std::max(before.handle_h, oil.handle_h)));
    CHECK(p.now_ml == before.now_ml);
    // Its zones are wiped in the oil's window, the others kept wet in the film's.
    for (const Zone& z : p.zones) CHECK(z.window_min == (z.face == "under" ? oil.window_min : before.label.window_min));
    // The card mixes for each side what goes on it.
    const auto card = finish_card(p, 1);
    CHECK(std::any_of(card.begin(), card.end(), [](const CardStep& c) { return c.key == "off under 1"; }) == oil.wiped);
    CHECK(std::none_of(card.begin(), card.end(), [](const CardStep& c) { return c.key == "off upper 1"; }));
}

TEST_CASE("one face told of twice: what stands first is planned, told, and mended", "[skin][hostile]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.faces = {{"under", false, false, FaceFinish::soap}, {"upper", true}, {"under", false, false, FaceFinish::shellac}};
    const SkinPlan p = plan_skin(in);
    CHECK(face(p, "under").finish == Finish::soap);
    const Caution* c = find_caution(p.cautions, "skin.two_ways");
    REQUIRE(c);
    CHECK(c->severity == Severity::stop);
    CHECK(render(c->says, Units::metric()).find("Underside") == 0);
    Job job;
    job.skin = in.choices;
    treat_once(job);
    CHECK(job.skin.faces == std::vector<FaceChoice>{{"under", false, false, FaceFinish::soap}, {"upper", true}});
    in.choices = job.skin;
    CHECK_FALSE(find_caution(plan_skin(in).cautions, "skin.two_ways"));
}

TEST_CASE("seams between zones are moved: they stay between their neighbours, cover the face, and say when one is too large",
          "[skin][T37]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    SkinPlan p = plan_skin(in);
    std::vector<double> seams = seams_of(p, "upper");
    const int n = face(p, "upper").coats.front().zones;
    REQUIRE(n >= 1);
    if (seams.empty()) seams = {0};
    Job job;
    move_seam(job, seams, 0, 300);
    CHECK(job.skin.seams_mm[0] == Approx(seams[0] + 300));
    move_seam(job, {-200, 100, 400}, 1, 5000);  // as far as its neighbour lets it
    CHECK(job.skin.seams_mm == std::vector<double>{-200, 380, 400});
    CHECK_THROWS_AS(move_seam(job, {0}, 3, 1), std::out_of_range);
    in.choices.seams_mm = job.skin.seams_mm;
    p = plan_skin(in);
    CHECK(seams_of(p, "upper") == std::vector<double>{-200, 380, 400});
    double sum = 0;
    std::map<int, double> by_order;
    for (const Zone& z : p.zones)
        if (z.face == "upper" && z.coat == 1) sum += area(z.ring) * 1e-6, by_order[z.order] = z.m2;
    CHECK(sum == Approx(1.8));
    // Of 2 m by 0.9: 0.8, 0.58, 0.02 and 0.6 m along.
    CHECK(by_order[1] == Approx(0.72));
    CHECK(by_order[2] == Approx(0.522));
    CHECK(by_order[3] == Approx(0.018));
    CHECK(by_order[4] == Approx(0.54));
    CHECK_FALSE(find_caution(p.cautions, "skin.zone_large"));
    in.shop_air.temp_c = 27;  // windows are short
    in.choices.seams_mm = {-990};
    const SkinPlan tacky = plan_skin(in);
    CHECK(find_caution(tacky.cautions, "skin.zone_large"));
    in.choices.seams_mm = {5000};  // beyond the top: nothing is cut
    CHECK(seams_of(plan_skin(in), "upper").empty());
}

TEST_CASE("ruled surfaces: a cylinder's mantle, a slanting plane", "[skin]") {
    std::vector<Vec2> round;
    for (int i = 0; i <= 720; ++i)
        round.push_back({300 * std::cos(i * std::numbers::pi / 360), 300 * std::sin(i * std::numbers::pi / 360)});
    CHECK(ruled_m2(round, round, 40) == Approx(2 * std::numbers::pi * 0.3 * 0.04).epsilon(1e-4));
    CHECK(ruled_m2({{0, 0}, {1000, 0}}, {{0, 30}, {1000, 30}}, 40) == Approx(0.05));
    CHECK(ruled_m2({}, {}, 40) == 0);
}

TEST_CASE("the ladder of grits: the fewest steps, none too wide, ending where the finish says", "[skin][T36]") {
    CHECK(ladder(40, 240) == std::vector<double>{40, 60, 80, 120, 180, 240});
    CHECK(ladder(60, 150) == std::vector<double>{60, 80, 120, 150});
    CHECK(ladder(150, 120) == std::vector<double>{120});
    CHECK(grit_um(120) == 125);
    CHECK(grit_um(110) < grit_um(100));
    CHECK(grit_um(110) > grit_um(120));
    CHECK_THROWS_AS(grit_um(0), std::invalid_argument);
    CHECK_THROWS_AS(ladder(0, 120), std::invalid_argument);
    CHECK_FALSE(steps_hold({80, 180}));
    CHECK(steps_hold({40, 60, 80, 120, 180, 240}));
    std::mt19937 dice(3);
    for (int i = 0; i < 500; ++i) {
        const double first = 36 + static_cast<double>(dice() % 300);
        const double last = 60 + static_cast<double>(dice() % 900);
        const auto all = ladder(first, last);
        INFO(first << " to " << last);
        CHECK(all.back() == last);
        CHECK(std::is_sorted(all.begin(), all.end()));
        if (first < last) CHECK(all.front() == first);
        CHECK(steps_hold(all));
        // No shorter one holds: leaving any one out leaves too wide a step.
        for (std::size_t k = 1; k + 1 < all.size(); ++k) {
            auto fewer = all;
            fewer.erase(fewer.begin() + static_cast<std::ptrdiff_t>(k));
            CHECK_FALSE(steps_hold(fewer));
        }
    }
    // Penetrating ones stop coarser than films, figured wood a grit finer; resin goes on.
    const Top top = leaning();
    SkinInputs in = inputs(top);
    CHECK(grits_of(face(plan_skin(in), "upper")).back() == 120);
    in.choices.figured = true;
    CHECK(grits_of(face(plan_skin(in), "upper")).back() == 150);
    in.choices.finish = Finish::brushed;
    in.choices.figured = false;
    CHECK(grits_of(face(plan_skin(in), "upper")).back() == 180);
}

TEST_CASE("minutes at the sander by hand: a sledded face of 1.8 m² through 60, 80, 120, 150", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.first_grit = 60;
    in.choices.stop_grit = 150;
    const SkinPlan p = plan_skin(in);
    CHECK(grits_of(face(p, "upper")) == std::vector<double>{60, 80, 120, 150});
    CHECK(face(p, "upper").sanding_min == Approx(126));
    in.choices.hands = SkinHands::two_people;
    CHECK(face(plan_skin(in), "upper").sanding_min == Approx(63));
    // A planed face begins at 80 and is quicker.
    in.choices = {};
    in.planed = true;
    CHECK(face(plan_skin(in), "upper").grits.front().minutes == Approx(15 * 1.8));
    // The last grit waits for the wetted grain; resin takes no water.
    CHECK(face(p, "upper").grits.back().wetted);
    in.choices.raise_grain = false;
    CHECK_FALSE(face(plan_skin(in), "upper").grits.back().wetted);
}

TEST_CASE("zones can be wiped in time: the formula, and 500 tops by lot", "[skin][T37]") {
    CHECK(zone_m2(5, 15, 2.5, 4) == Approx(2.308).margin(5e-4));
    CHECK(zone_m2(5, 15, 5, 8) == Approx(1.154).margin(5e-4));
    CHECK(zone_m2(0, 12, 6, 0) == Approx(2));
    CHECK(zone_m2(5, 0, 2.5, 4) == 0);
    CHECK(zone_m2(20, 15, 2.5, 4) == 0);
    CHECK_THROWS_AS(zone_m2(5, 15, 0, 4), std::invalid_argument);
    std::mt19937 dice(7);
    std::uniform_real_distribution<double> any(0, 1);
    for (int i = 0; i < 500; ++i) {
        Ring ring;
        const double l = 400 + 2600 * any(dice);
        const double w = 200 + 900 * any(dice);
        for (int k = 0; k <= 12; ++k) ring.push_back({-l / 2 + l * k / 12, -w / 2 - 60 * any(dice)});
        for (int k = 12; k >= 0; --k) ring.push_back({-l / 2 + l * k / 12, w / 2 + 60 * any(dice)});
        const double m2 = area(ring) * 1e-6;
        const double most = 0.1 + 2 * any(dice);
        const auto pieces = zones_of({ring}, m2, most);
        double sum = 0;
        int last = 0;
        for (const ZonePiece& z : pieces) {
            CHECK(area(z.ring) * 1e-6 <= most * 1.002);
            CHECK(z.order >= last);
            last = z.order;
            sum += area(z.ring) * 1e-6;
        }
        CHECK(sum == Approx(m2).epsilon(1e-5));
        CHECK(last == static_cast<int>(std::ceil(m2 / most - 1e-9)));
        for (std::size_t a = 1; a < pieces.size(); ++a) CHECK(intersection_area(pieces[a - 1].ring, pieces[a].ring) < 1);
    }
    // On the plan: every zone within its window, each coat covers its face.
    const Top top = leaning();
    SkinInputs in = inputs(top);
    const SkinPlan p = plan_skin(in);
    double coat_1 = 0;
    for (const Zone& z : p.zones) {
        CHECK(z.minutes <= p.window_min + 1e-6);
        if (z.face == "upper" && z.coat == 1) coat_1 += area(z.ring) * 1e-6;
    }
    CHECK(coat_1 == Approx(1.8).epsilon(1e-6));
}

TEST_CASE("what to mix now, by hand: 1.8 m² of oil, three parts to one", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.rags_pct = 0;
    const SkinPlan p = plan_skin(in);
    const SkinCoat& first = face(p, "upper").coats.front();
    CHECK(first.mix_ml == Approx(63));
    CHECK(first.a_ml == Approx(47.25));
    CHECK(first.b_ml == Approx(15.75));
    CHECK(face(p, "upper").coats.at(1).mix_ml == Approx(27));
    CHECK(p.now_ml == Approx(63));  // 1.8 m² is one zone at 20 °C
    // Rags and thirst are counted on top.
    in.choices.rags_pct = 10, in.choices.thirst = 1.5;
    CHECK(face(plan_skin(in), "upper").coats.front().mix_ml == Approx(63 * 1.5 * 1.1));
    // Two hands make larger zones; a warm shop smaller ones, and shorter waits.
    SkinInputs hot = inputs(top);
    hot.shop_air.temp_c = 30;
    const SkinPlan warm = plan_skin(hot);
    CHECK(warm.zone_most_m2 < p.zone_most_m2);
    CHECK(warm.recoat_h == Approx(18));
    CHECK(stretched(10) == Approx(2));
    double sum = 0;
    for (const SkinFacePlan& f : p.faces)
        for (const SkinCoat& s : f.coats) sum += s.mix_ml;
    CHECK(p.ml_in_all == Approx(sum));
}

TEST_CASE("faces are left out, pockets are sealed or left", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.pockets = {{box(-100, -200, -60, 200), 12}};
    SkinPlan p = plan_skin(in);
    REQUIRE(has(p, "pocket 1"));
    CHECK(face(p, "pocket 1").left_out);
    CHECK(face(p, "under").face.m2 == Approx(1.8655 - 0.016).margin(1e-4));
    CHECK(face(p, "pocket 1").face.m2 == Approx(0.016 + 0.88 * 0.012).margin(1e-6));
    in.choices.faces = {{"pocket 1", false, true}, {"end left", true, false}};
    p = plan_skin(in);
    CHECK(face(p, "pocket 1").sealed);
    CHECK(face(p, "pocket 1").coats.size() == 1);
    CHECK(face(p, "pocket 1").grits.empty());
    CHECK(face(p, "end left").left_out);
    CHECK(face(p, "end left").coats.empty());
    Job j;
    seal_face(j, "pocket 1", true);
    leave_face_out(j, "upper", true);
    leave_face_out(j, "upper", false);
    REQUIRE(j.skin.faces.size() == 2);
    CHECK(choice_of_face(j.skin, "pocket 1")->sealed);
    CHECK_FALSE(choice_of_face(j.skin, "upper")->left_out);
}

TEST_CASE("each thing to be minded comes by what it warns of and goes by what mends it", "[skin][cautions][T36][T37][T38][T48]") {
    const Top top = leaning();
    const auto says = [&](const SkinInputs& in, const char* key) { return find_caution(plan_skin(in).cautions, key) != nullptr; };
    const auto comes = [&](const char* key, const std::function<void(SkinInputs&)>& provoke) {
        INFO(key);
        SkinInputs in = inputs(top);
        CHECK_FALSE(says(in, key));
        provoke(in);
        CHECK(says(in, key));
    };
    comes("skin.grit_gap", [](SkinInputs& in) { in.choices.grits = {80, 180}; });
    comes("skin.too_fine", [](SkinInputs& in) { in.choices.stop_grit = 320; });
    comes("skin.too_coarse", [](SkinInputs& in) { in.choices.stop_grit = 60; });
    comes("skin.raise", [](SkinInputs& in) { in.choices.raise_grain = false; });
    comes("skin.cold", [](SkinInputs& in) { in.shop_air.temp_c = 6; });
    comes("skin.warm", [](SkinInputs& in) { in.shop_air.temp_c = 34; });
    comes("skin.spray", [](SkinInputs& in) { in.choices.finish = Finish::sprayed; });
    comes("skin.drips", [](SkinInputs& in) { in.choices.finish = Finish::flood; });
    comes("skin.sheen", [](SkinInputs& in) { in.choices.finish = Finish::brushed; });
    comes("skin.film_on_oil", [](SkinInputs& in) { in.choices.finish = Finish::oil_hardcoat; });
    comes("skin.early", [](SkinInputs& in) { in.choices.wait_h = 4; });
    comes("skin.late", [](SkinInputs& in) { in.choices.finish = Finish::brushed, in.choices.wait_h = 90; });
    comes("skin.one_face", [](SkinInputs& in) { in.choices.one_face = true; });
    comes("skin.damp", [](SkinInputs& in) { in.moisture_pct = 19; });
    comes("skin.before_tie", [](SkinInputs& in) { in.ties = {{box(-50, -20, 50, 20), true}}; });
    SkinInputs plain = inputs(top);
    CHECK(says(plain, "skin.rags"));  // an oil
    CHECK(says(plain, "skin.window"));
    CHECK(says(plain, "skin.order"));
    CHECK(says(plain, "skin.sample"));
    plain.choices.finish = Finish::brushed;
    CHECK_FALSE(says(plain, "skin.rags"));
    plain.choices.sample_signed = true;
    CHECK_FALSE(says(plain, "skin.sample"));
    // With resin in it: it is taken further, and wiped of what release tape leaves.
    Top river = leaning();
    Region resin;
    resin.kind = RegionKind::resin;
    resin.above = resin.below = box(-1000, -50, 1000, 50);
    resin.high_mm = 45;
    river.regions.push_back(resin);
    SkinInputs glass = inputs(river);
    SkinPlan p = plan_skin(glass);
    CHECK(face(p, "upper").face.m2 == Approx(1.6));
    CHECK(face(p, "resin above").face.m2 == Approx(0.2));
    CHECK(grits_of(face(p, "resin above")).back() == 400);
    CHECK(find_caution(p.cautions, "skin.release"));
    CHECK_FALSE(find_caution(p.cautions, "skin.resin_coarse"));
    glass.choices.resin_grit = 150;
    CHECK(find_caution(plan_skin(glass).cautions, "skin.resin_coarse"));
    // Resin takes twice the minutes of wood, grit by grit.
    CHECK(face(p, "resin above").grits.front().minutes == Approx(2 * 40 * 0.2));
    // A wood whose dust is worse says so.
    Top irritant = leaning();
    for (const Species& s : all_species())
        if (!s.dust.empty()) irritant.regions[0].species = &s;
    REQUIRE_FALSE(irritant.regions[0].species->dust.empty());
    CHECK(says(inputs(irritant), "skin.dust"));
}

TEST_CASE("what a finish does to the look of wood: wet it is darker and warmer, soap makes it paler, gloss shines", "[skin][look]") {
    CHECK(left_of_light({}) == std::array<double, 3>{1, 1, 1});
    for (const Finish f : finishes.values) {
        const FinishLook look = look_of(f, Sheen::satin);
        const auto left = left_of_light(look);
        INFO(static_cast<int>(f));
        CHECK((f == Finish::soap) == (left[1] > 1));
        if (f == Finish::soap) continue;
        CHECK(left[0] > left[2]);  // blue goes before red
        CHECK(left[1] < 1);
        CHECK(left[2] > 0.5);
    }
    CHECK(look_of(Finish::tinted, Sheen::matt).darker > look_of(Finish::hardwax, Sheen::matt).darker);
    for (const Finish f : {Finish::brushed, Finish::sprayed}) {
        CHECK(look_of(f, Sheen::gloss).shine > look_of(f, Sheen::satin).shine);
        CHECK(look_of(f, Sheen::satin).shine > look_of(f, Sheen::matt).shine);
    }
    CHECK(look_of(Finish::hardwax, Sheen::gloss).shine == look_of(Finish::hardwax, Sheen::matt).shine);
}

TEST_CASE("one face finished alone cups by what the core's cup says by hand", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.one_face = true;
    const SkinPlan p = plan_skin(in);
    CHECK(face(p, "under").left_out);
    REQUIRE(p.cup_mm);
    // κ = c·ΔM/t, hollow κ·w²/8, c the tangential shrinkage a percent at the mean moisture (Wood Handbook eq. 13-3).
    const MoistureRange room = moisture_range(in.room);
    const double dm = (room.high_pct - room.low_pct) / 2;
    const double c = 1 / (3000 / *top.regions[0].species->shrink_tangential_pct - 30 + (room.high_pct + room.low_pct) / 2);
    const double w = top.widest().width_mm;
    CHECK(*p.cup_mm == Approx(c * dm / 45 * w * w / 8).epsilon(0.03));
}

TEST_CASE("a top all of resin, windows and thirsts of nothing, far too many coats: planned and told", "[skin][hostile]") {
    Top glass = leaning();
    glass.regions[0].kind = RegionKind::resin;
    SkinPlan p = plan_skin(inputs(glass));
    CHECK(p.ready);
    CHECK_FALSE(has(p, "upper"));
    CHECK(p.now_ml == 0);
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.coats = 12;
    in.shop_air.temp_c = -40;
    in.choices.thirst = 10;
    p = plan_skin(in);
    for (const Figure& f : p.figures) CHECK(std::isfinite(f.value.value));
    in.choices.grits = {80, 80, 36};
    CHECK(plan_skin(in).ready);
    Top none;
    CHECK_FALSE(plan_skin(inputs(none)).ready);
    CHECK(finish_card(plan_skin(inputs(none)), 1).empty());
}

TEST_CASE("the card of the finish day: every zone mixed, put on and wiped within its window", "[skin][card]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.shop_air.temp_c = 27;  // small zones
    const SkinPlan p = plan_skin(in);
    const auto card = finish_card(p, 1);
    int zones = 0;
    for (const Zone& z : p.zones) zones += z.coat == 1;
    int wiped = 0;
    double mixed = 0;
    for (const CardStep& s : card) {
        mixed += s.mixed_l;
        if (s.key.rfind("off", 0) != 0) continue;
        ++wiped;
        CHECK(s.until_s > 0);
        CHECK_FALSE(s.late.empty());
    }
    CHECK(wiped == zones);
    CHECK(zones > 2);
    double ml = 0;
    for (const Zone& z : p.zones) ml += z.coat == 1 ? z.ml : 0;
    CHECK(mixed == Approx(ml / 1000));
    CHECK(card.back().key == "end");
    // The underside is first.
    CHECK(card.at(1).key == "mix under 1");
    for (const Finish f : finishes.values) {
        SkinChoices c;
        c.finish = f;
        SkinInputs other = inputs(top);
        other.choices = c;
        const auto lines = care_of(plan_skin(other));
        CHECK(lines.size() >= 4);
        const bool oily = std::any_of(lines.begin(), lines.end(),
                                      [](const Phrase& l) { return render(l, Units::metric()).find("alight") != std::string::npos; });
        CHECK(oily == class_of(f).oily);
    }
}

TEST_CASE("every demo job has its finish planned to the day it can be delivered", "[skin][days]") {
    const Documents d = demo_shop();
    CHECK(std::string(ready_for()) == "the client");
    for (const auto& [id, job] : d.jobs) {
        INFO(id);
        const Plan p = plan_job(job, d);
        if (!p.top->ready) continue;
        const SkinPlan& s = skin_of(p);
        REQUIRE(s.ready);
        CHECK(s.figures.front().key == "skin.mix");
        int coats = 0;
        for (const Operation& o : p.days->operations) coats += o.key.rfind("coat_", 0) == 0;
        CHECK(coats == s.coats);
        // At the air of the month it falls into, not that of the job's first.
        const Operation* last_coat = nullptr;
        for (const Operation& o : p.days->operations)
            if (kind_key(o.key) == "coat") last_coat = &o;
        REQUIRE(last_coat);
        const Operation& last = *last_coat;
        const double then_c = d.shop.air.months[static_cast<std::size_t>(month_of(p.days->date(last.hands_end_h)))].temp_c;
        CHECK(last.waiting_h == Approx(s.handle_h * std::exp2((s.air_c - then_c) / 10)));
        for (const SkinFacePlan& f : s.faces)
            for (std::size_t i = 1; i < f.grits.size(); ++i)
                CHECK(grit_um(f.grits[i - 1].grit) / grit_um(f.grits[i].grit) <= widest_step + 1e-9);
    }
}

TEST_CASE("the shop's own labels and sanders are what is planned with", "[skin][shop]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    const SkinPlan before = plan_skin(in);
    in.shelf.labels.at(finishes.index(in.choices.finish)).window_min = 10;
    in.shelf.labels.at(finishes.index(in.choices.finish)).first_ml_m2 *= 2;
    const SkinPlan own = plan_skin(in);
    CHECK(own.zone_most_m2 == Approx(zone_m2(5 * stretched(in.shop_air.temp_c), 10 * stretched(in.shop_air.temp_c), 2.5, 4)));
    CHECK(own.zone_most_m2 < before.zone_most_m2);
    CHECK(face(own, "upper").coats.front().ml == Approx(2 * face(before, "upper").coats.front().ml));
    // A disc sander takes the coarse grits in half the time, and no other.
    SkinInputs coarse = inputs(top);
    coarse.choices.first_grit = 60;
    const SkinPlan orbit = plan_skin(coarse);
    coarse.sanding.disc_sander = true;
    const SkinPlan disc = plan_skin(coarse);
    const auto& a = face(orbit, "upper").grits;
    const auto& b = face(disc, "upper").grits;
    REQUIRE(a.size() == b.size());
    CHECK(b[0].minutes == Approx(a[0].minutes / 2));
    for (std::size_t i = 1; i < a.size(); ++i) CHECK(b[i].minutes == a[i].minutes);
    // Money only where there are prices.
    const auto cost = [](const SkinPlan& p) {
        return std::find_if(p.figures.begin(), p.figures.end(), [](const Figure& f) { return f.key == "skin.cost"; });
    };
    CHECK(cost(disc) == disc.figures.end());
    coarse.sanding.disc_price = 1;
    const SkinPlan priced = plan_skin(coarse);
    REQUIRE(cost(priced) != priced.figures.end());
    CHECK(cost(priced)->value.value == Approx(std::ceil(priced.discs)));
}

TEST_CASE("a face with a finish of its own is told with that finish", "[skin]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.faces = {{"upper", false, false, FaceFinish::flood}};
    const SkinPlan p = plan_skin(in);
    REQUIRE(p.ready);
    const FinishClass& flood = in.shelf.of(Finish::flood);
    const SkinFacePlan& upper = face(p, "upper");
    CHECK(p.now_face == "upper");
    CHECK(p.finish == Finish::flood);
    // By hand: a zone is window / minutes a m², and takes its share of the coat, two parts to one.
    const double most = flood.window_min / flood.on_min_m2;
    const int zones = static_cast<int>(std::ceil(upper.face.m2 / most - 1e-9));
    CHECK(p.zone_most_m2 == Approx(most));
    CHECK(upper.coats.front().zones == zones);
    CHECK(p.now_ml == Approx(upper.face.m2 / zones * flood.first_ml_m2 * 1.1).epsilon(1e-3));
    CHECK(p.now_b_ml == Approx(p.now_ml / 3));
    CHECK(p.window_min == Approx(flood.window_min));
    const Figure* mix = find_figure(p.figures, "skin.mix");
    REQUIRE(mix);
    CHECK(render(mix->note, Units::metric()).find("hardener") != std::string::npos);
    CHECK(mix->working.given.at(0).value.value * 1 == Approx(upper.face.m2 / zones).epsilon(1e-3));
    CHECK(mix->working.given.at(1).value.value == flood.first_ml_m2);
    CHECK(find_caution(p.cautions, "skin.drips"));
    CHECK_FALSE(find_caution(p.cautions, "skin.window"));  // nothing of it is wiped
    // 120 is where a flood coat wants the wood; soap on the rest of it wants 150, and is not asked for here.
    in.choices.finish = Finish::brushed;
    CHECK_FALSE(find_caution(plan_skin(in).cautions, "skin.too_coarse"));
    CHECK(upper.grits.back().grit == 120);
    // What comes first of a coat is of the face, not of the rest.
    in.choices.finish = Finish::hardwax;
    in.choices.faces = {{"upper", false, false, FaceFinish::drying_oil}};
    const SkinPlan oil = plan_skin(in);
    CHECK(oil.now_b_ml == 0);
    CHECK(render(find_figure(oil.figures, "skin.mix")->note, Units::metric()).find("as it comes") != std::string::npos);
    for (const Phrase& line : care_of(oil)) CHECK(render(line, Units::metric()).find("hardwax") == std::string::npos);
    // Where the upper face is left out, the underside is what is mixed for.
    in.choices.faces = {{"upper", true}};
    const SkinPlan below = plan_skin(in);
    CHECK(below.now_face == "under");
    CHECK(below.now_ml > 0);
    CHECK(render(find_figure(below.figures, "skin.mix")->note, Units::metric()).find("hardener") != std::string::npos);
}

TEST_CASE("seams of one's own: the working tells the zone that is mixed for", "[skin][T35]") {
    const Top top = leaning();
    SkinInputs in = inputs(top);
    in.choices.seams_mm = {-600, 500};
    const SkinPlan p = plan_skin(in);
    // From the left end to −600: 400 mm of 900, all of it wood.
    CHECK(p.now_m2 == Approx(0.4 * 0.9).margin(1e-6));
    const Figure* mix = find_figure(p.figures, "skin.mix");
    CHECK(mix->working.given.at(0).value.value == Approx(0.36).margin(1e-6));
    CHECK(p.now_ml == Approx(0.36 * in.shelf.of(Finish::hardwax).first_ml_m2 * 1.1).margin(1e-6));
}

TEST_CASE("what every finish would come to is what its plan says", "[skin]") {
    const Top top = leaning();
    for (const bool own : {false, true}) {
        SkinInputs in = inputs(top);
        in.choices.coats = 5;
        if (own) in.choices.faces = {{"under", false, false, FaceFinish::soap}};
        const SkinPlan p = plan_skin(in);
        const auto choice = std::find_if(p.choices.begin(), p.choices.end(), [](const Choice& c) { return c.key == "skin.finish"; });
        REQUIRE(choice != p.choices.end());
        for (std::size_t i = 0; i < finishes.values.size(); ++i) {
            SkinInputs other = in;
            other.choices.finish = finishes.values[i];
            const SkinPlan q = plan_skin(other);
            const std::string said = render(choice->options.at(i).consequence, Units::metric());
            INFO(said);
            CHECK(said.find(render(say("{}, {}", counted(q.coats, "coat", "coats"), litres(q.ml_in_all / 1000)), Units::metric())) == 0);
            CHECK(said.find(render(say("{} until it is handled", hours(24 * q.days())), Units::metric())) != std::string::npos);
            CHECK(said.find(render(say("{} of hands", hours(q.coating_min / 60)), Units::metric())) != std::string::npos);
        }
    }
}
