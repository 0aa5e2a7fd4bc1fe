// Skin: areas, grits, coats, zones and what is to be minded, by hand and against a fine grid.
#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

#include "core/shop/edit/skin_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/skin_of.h"
#include "demo/demo.h"
#include "tests/planks.h"

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

TEST_CASE("areas of every demo top agree with a fine grid; resin apart from wood, air left out", "[skin]") {
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

TEST_CASE("ruled surfaces: a cylinder's mantle, a slanting plane", "[skin]") {
    std::vector<Vec2> round;
    for (int i = 0; i <= 720; ++i) round.push_back({300 * std::cos(i * std::numbers::pi / 360), 300 * std::sin(i * std::numbers::pi / 360)});
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
    comes("skin.before_tie", [](SkinInputs& in) { in.ties = {{0, 0}}; });
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
        const auto lines = care_of(plan_skin(other), c);
        CHECK(lines.size() >= 4);
        const bool oily = std::any_of(lines.begin(), lines.end(), [](const Phrase& l) { return render(l, Units::metric()).find("alight") != std::string::npos; });
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
        CHECK(p.days->operations.back().step == step_key::skin);
        CHECK(p.days->operations.back().waiting_h == Approx(s.handle_h));
        for (const SkinFacePlan& f : s.faces)
            for (std::size_t i = 1; i < f.grits.size(); ++i) CHECK(grit_um(f.grits[i - 1].grit) / grit_um(f.grits[i].grit) <= widest_step + 1e-9);
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
