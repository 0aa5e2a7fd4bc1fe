// Typing into the tape table, and other edits of slabs and of the shop, without a table.
#include <catch2/catch.hpp>

#include "core/shop/edit/shop_edits.h"
#include "core/shop/edit/tape_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "demo/demo.h"
#include "tests/everything.h"
#include "tests/planks.h"

using namespace yb;

namespace {
std::string refused(const std::function<void()>& what) {
    try {
        what();
    } catch (const Refusal& e) {
        return e.what();
    }
    return {};
}
}  // namespace

TEST_CASE("stations that are not there yet are made so far apart, and the lean is repeated until it is measured", "[edit]") {
    Slab s;
    type_reading(s, TapeSheet::edges, 2, 1, 410.0, 250);
    REQUIRE(s.tape.stations.size() == 3);
    CHECK(s.tape.stations[0].x_mm == 0);
    CHECK(s.tape.stations[1].x_mm == 250);
    CHECK(s.tape.stations[2].x_mm == 500);
    CHECK(s.tape.stations[2].left_mm == 410.0);
    CHECK_FALSE(s.tape.stations[2].other_left_mm);  // nothing was read before it
    type_reading(s, TapeSheet::edges, 1, 1, 400.0, 250);
    type_reading(s, TapeSheet::edges, 1, 3, 412.0, 250);
    type_reading(s, TapeSheet::edges, 2, 1, 405.0, 250);
    CHECK(s.tape.stations[2].other_left_mm == 417.0);  // 12 outside, as at the station before
    type_reading(s, TapeSheet::edges, 2, 3, 420.0, 250);
    type_reading(s, TapeSheet::edges, 2, 1, 300.0, 250);
    CHECK(s.tape.stations[2].other_left_mm == 420.0);  // measured: it stays
    type_reading(s, TapeSheet::edges, 2, 5, 61.5, 250);
    type_reading(s, TapeSheet::edges, 2, 6, 60.0, 250);
    CHECK(s.tape.stations[2].thickness_mm == 61.5);
    CHECK(s.tape.stations[2].thickness_right_mm == 60.0);
    type_reading(s, TapeSheet::edges, 2, 5, {}, 250);
    CHECK_FALSE(s.tape.stations[2].thickness_mm);
    type_reading(s, TapeSheet::edges, 2, 0, {}, 250);
    CHECK(s.tape.stations[2].x_mm == 500);  // a place can't be emptied
    const Slab before = s;
    CHECK(refused([&] { type_reading(s, TapeSheet::edges, 2, 7, 1.0, 250); }) == "a station has 6 readings");
    CHECK(s == before);
}

TEST_CASE("stations are spaced from one of them on", "[edit]") {
    Slab s;
    for (int i = 0; i < 4; ++i) type_reading(s, TapeSheet::edges, static_cast<std::size_t>(i), 1, 400.0, 300);
    space_stations(s, 2, 500);
    CHECK(s.tape.stations[1].x_mm == 300);
    CHECK(s.tape.stations[2].x_mm == 800);
    CHECK(s.tape.stations[3].x_mm == 1300);
    space_stations(s, 0, 200);
    CHECK(s.tape.stations[0].x_mm == 0);
    CHECK(s.tape.stations[3].x_mm == 600);
    for (const double odd : {9.0, 3001.0, -300.0, std::numeric_limits<double>::quiet_NaN()})
        CHECK(refused([&] { space_stations(s, 0, odd); }) == "stations stand from 10 mm to 3000 mm apart.");
    CHECK(s.tape.stations[3].x_mm == 600);
}

TEST_CASE("a flaw's row takes first letters, a face, a depth and a share", "[edit]") {
    Slab s;
    add_flaw(s, FlawKind::void_, {{0, 0}, {50, 0}, {50, 30}}, false);
    type_flaw_word(s, 0, 0, "  Kn ");
    CHECK(s.flaws[0].kind == FlawKind::knot);
    type_flaw_word(s, 0, 1, "B");
    CHECK(s.flaws[0].face == Face::b);
    type_reading(s, TapeSheet::flaws, 0, 2, 22.0, 300);
    CHECK(s.flaws[0].depth_mm == 22.0);
    CHECK_FALSE(s.flaws[0].through);
    type_reading(s, TapeSheet::flaws, 0, 2, {}, 300);
    CHECK(s.flaws[0].through);
    type_reading(s, TapeSheet::flaws, 0, 3, 0.4, 300);
    CHECK(s.flaws[0].floor_share == 0.4);
    const Slab before = s;
    CHECK(refused([&] { type_flaw_word(s, 0, 0, "hole"); }).find("‘hole’: the first letters") == 0);
    CHECK(refused([&] { type_flaw_word(s, 0, 0, " "); }).find("crack, ") != std::string::npos);
    CHECK(refused([&] { type_flaw_word(s, 0, 1, "c"); }) == "‘c’: write A for the face that was up when it was measured, or B.");
    CHECK(refused([&] { type_reading(s, TapeSheet::flaws, 0, 3, 1.2, 300); }).find("A share from 0") == 0);
    CHECK(s == before);
    type_flaw_word(s, 7, 0, "knot");  // a row that has gone
    drop_flaw(s, 7);
    CHECK(s == before);
    drop_flaw(s, 0);
    CHECK(s.flaws.empty());
}

TEST_CASE("a height typed by hand cuts the tie to the scan, one of the other face only where both share a grid", "[edit]") {
    Slab s = demo_shop().slabs.begin()->second;
    s.heights_a = {{0, 300}, {-100, 100}, std::vector<std::optional<double>>(4)};
    s.heights_b = {{0, 200}, {0}, std::vector<std::optional<double>>(2)};
    s.scan = "sha256-0";
    type_reading(s, TapeSheet::heights_b, 1, 1, 2.5, 300);
    CHECK(s.heights_b.at(1, 0) == 2.5);
    CHECK(s.scan == "sha256-0");
    type_reading(s, TapeSheet::heights_a, 0, 2, 1.25, 300);
    CHECK(s.heights_a.at(0, 1) == 1.25);
    CHECK(s.scan.empty());
    type_reading(s, TapeSheet::heights_a, 1, 0, 320.0, 300);
    CHECK(s.heights_a.x_mm[1] == 320.0);
    CHECK(refused([&] { type_reading(s, TapeSheet::heights_a, 2, 1, 1.0, 300); }) ==
          "The grid has 2 stations and 2 places across; there is no room for this reading.");
    CHECK_FALSE(refused([&] { type_reading(s, TapeSheet::heights_a, 0, 3, 1.0, 300); }).empty());
}

TEST_CASE("slabs of a log are numbered from the lowest, those that have gone leave their number out", "[edit]") {
    Documents d;
    const std::string a = add_slab(d, {});
    const std::string b = add_slab(d, {});
    number_slabs(d, {{b, true, false}, {"gone", false, false}, {a, false, true}});
    CHECK(d.slabs.at(b).sequence == 1);
    CHECK(d.slabs.at(b).face_b_up);
    CHECK_FALSE(d.slabs.at(b).ends_swapped);
    CHECK(d.slabs.at(a).sequence == 3);
    CHECK(d.slabs.at(a).ends_swapped);
    Slab& s = d.slabs.at(a);
    name_slab(s, "Hall board"), set_tree(s, "the one by the slip"), set_species(s, "butternut"), set_cross_cut(s, true);
    CHECK((s.name == "Hall board" && s.tree == "the one by the slip" && s.species == "butternut" && s.cross_cut));
    set_sawn_on(s, "2025-03-30");
    CHECK(refused([&] { set_sawn_on(s, "last spring"); }) == "‘last spring’ is not a date. Write it as 2025-03-30, or leave it empty");
    CHECK(s.sawn_on == "2025-03-30");
    set_sawn_on(s, "");
    CHECK(s.sawn_on.empty());
    retire(d.slabs.at(a));
    CHECK(d.slabs.at(a).retired);
}

TEST_CASE("the other face's picture is turned over where it meets the outline", "[edit]") {
    Slab s;
    TracedOutline both, seen;
    both.b = {{0, -200}, {1000, -200}, {1000, 220}, {0, 220}};
    seen.a = {{0, -190}, {1000, -190}, {1000, 230}, {0, 230}};
    FacePicture place;
    place.corner = {-40, 300};
    place.key = "sha256-1";
    take_other_face(s, both, seen, place);
    REQUIRE(s.picture_b);
    CHECK(s.picture_b->mirrored != place.mirrored);
    // A point of the photograph at y lies on the slab at −y, slid by what both middles differ: 10 + 20.
    CHECK(s.picture_b->corner.y == Approx(-300 + 10 + 20));
    CHECK(s.outline->b == both.b);
}

TEST_CASE("what belongs to the shop is set by name", "[edit]") {
    Shop s;
    other_units(s);
    CHECK(s.units == Units::imperial());
    set_length_style(s, LengthStyle::feet_inches);
    CHECK(s.units.length == LengthStyle::feet_inches);
    other_units(s);
    CHECK(s.units == Units::metric());
    other_volume_unit(s), other_mass_unit(s), other_temperature_unit(s), other_paper(s);
    CHECK((!s.units.litres && !s.units.kilograms && !s.units.celsius && s.letter));
    const std::string key = add_resin(s);
    name_resin(s, key, "  river clear \t");
    CHECK(s.resins.back().label == "river clear");
    name_resin(s, key, "   ");
    CHECK(s.resins.back().label == "river clear");
    set_resin_number(s, key, "deepest_mm", 35);
    CHECK(s.resins.back().deepest_mm == 35);
    const Shop before = s;
    name_resin(s, "gone", "x"), set_resin_number(s, "gone", "deepest_mm", 1);
    CHECK(s == before);
}

TEST_CASE("a job is named, dated and roomed – what is no date stays out", "[edit]") {
    Documents d = demo_shop();
    const std::string id = add_job_on(d, d.slabs.begin()->second, "2026-12-01");
    Job& j = d.jobs.at(id);
    CHECK(j.uses(d.slabs.begin()->first));
    rename_job(j, " Sill for the ferry hut ");
    rename_job(j, "  ");
    CHECK(j.name == "Sill for the ferry hut");
    CHECK(refused([&] { set_first_day(j, "next Monday"); }) ==
          "‘next Monday’ is not a date. Write it as 2026-11-30; the job still begins on 2026-12-01");
    set_first_day(j, "2027-01-04");
    CHECK(j.start == "2027-01-04");
    set_room(j, generic_climates().back());
    CHECK(j.room == generic_climates().back());
    mark_done(j, &MakeUpChoices::faces_flat);
    CHECK(j.makeup.faces_flat);
    mark_done(j, &MakeUpChoices::faces_flat);
    CHECK_FALSE(j.makeup.faces_flat);
    const Placement at = j.first().placement;
    set_free_form_over_middle(j, {{1000, 500}, {1600, 500}, {1600, 900}, {1000, 900}});
    CHECK(j.top.length_mm == Approx(600));
    CHECK(j.top.width_mm == Approx(400));
    CHECK(j.first().placement.x_mm == Approx(at.x_mm));
    CHECK(j.first().placement.y_mm == Approx(at.y_mm));
}

TEST_CASE("a patch's place is set where there is one", "[edit]") {
    Job j;
    drop_patch(j, j.makeup.patches.size() - 1);
    add_patch(j, {{0, 0}, {80, 0}, {80, 40}, {0, 40}});
    set_patch_place(j, 0, &Vec2::x, 120);
    set_patch_place(j, 0, &Vec2::y, -30);
    turn_patch(j, 0, 15);
    turn_patch(j, 0, -5);
    CHECK(j.makeup.patches[0].at == Vec2{120, -30});
    CHECK(j.makeup.patches[0].turn_deg == 10);
    j.makeup.patches[0].slab = "slab-1";
    patch_from_nothing(j, 0);
    CHECK(j.makeup.patches[0].slab.empty());
    const Job before = j;
    set_patch_place(j, 3, &Vec2::x, 1), patch_from_nothing(j, 3);
    CHECK(j == before);
    drop_patch(j, j.makeup.patches.size() - 1);
    CHECK(j.makeup.patches.empty());
}

TEST_CASE("a flaw is written down by its measures alone", "[tape]") {
    Slab s = plank("p", 2000, 600, 50);
    type_flaw_word(s, 0, 0, "cra");
    REQUIRE(s.flaws.size() == 1);
    CHECK(s.flaws[0].kind == FlawKind::crack);
    CHECK(bounds(s.flaws[0].outline).width() == Approx(300).margin(0.2));
    CHECK(centroid(s.flaws[0].outline).x == Approx(1000).margin(0.2));
    type_reading(s, TapeSheet::flaws, 0, 4, 180.0, 300);
    type_reading(s, TapeSheet::flaws, 0, 5, -40.0, 300);
    type_reading(s, TapeSheet::flaws, 0, 6, 360.0, 300);
    type_reading(s, TapeSheet::flaws, 0, 7, 8.0, 300);
    const Box b = bounds(s.flaws[0].outline);
    CHECK(b.low.x == Approx(0).margin(0.2));
    CHECK(b.high.x == Approx(360).margin(0.2));
    CHECK((b.low.y + b.high.y) / 2 == Approx(-40).margin(0.1));
    CHECK(b.height() == Approx(8).margin(0.1));
    CHECK_THROWS_AS(type_reading(s, TapeSheet::flaws, 0, 6, -3.0, 300), Refusal);
    type_flaw_word(s, 1, 1, "b");  // a face alone is no flaw
    CHECK(s.flaws.size() == 1);
    type_flaw_word(s, 1, 0, "knot");
    CHECK(s.flaws.size() == 2);
    CHECK(s.flaws[1].id != s.flaws[0].id);
    CHECK_THROWS_AS(type_flaw_word(s, 2, 0, "unicorn"), Refusal);
    CHECK(s.flaws.size() == 2);
}
