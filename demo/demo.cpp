#include "demo/demo.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <numbers>
#include <random>
#include <tuple>

#include "core/ground/calendar/calendar.h"
#include "core/ground/card/card.h"
#include "core/ground/picture/picture.h"
#include "core/material/tree/saw.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/steps/makeup/arrange.h"
#include "core/steps/under/under.h"

namespace yb {
namespace {

/// To half a millimetre, as a tape or a feeler is read.
double read(double v) { return std::round(v * 2) / 2; }

Ring blob(Vec2 c, double along, double across, double turn_deg, int points, double rough, unsigned seed) {
    std::mt19937 random(seed);
    const auto jitter = [&] { return 1 + rough * (static_cast<double>(random() % 2001) / 1000 - 1); };
    const Frame f{c, turn_deg};
    Ring r;
    for (int i = 0; i < points; ++i) {
        const double t = 2 * std::numbers::pi * i / points;
        const double k = jitter();
        const Vec2 p = f.to_slab({along / 2 * std::cos(t) * k, across / 2 * std::sin(t) * k});
        r.push_back({read(p.x), read(p.y)});
    }
    return r;
}

Flaw flaw(const char* id, FlawKind kind, Face face, Ring outline, std::optional<double> depth, double floor_share, const char* note) {
    return {id, kind, face, std::move(outline), !depth, depth, floor_share, note};
}

}  // namespace

Slab make_slab(const SlabRecipe& r) {
    std::mt19937 random(r.seed);
    const auto uniform = [&] { return static_cast<double>(random() >> 5) / static_cast<double>(1U << 27); };
    std::array<double, 8> phase{};
    for (double& p : phase) p = 2 * std::numbers::pi * uniform();
    const auto middle = [&](double s) { return r.sweep_mm * std::sin(std::numbers::pi * s); };
    const auto half = [&](double s, int side) {
        const double base = (r.width_mm + r.taper_mm * (0.5 - s)) / 2;
        const auto k = static_cast<std::size_t>(side) * 3;
        return base + r.wave_mm * (0.6 * std::sin(2 * std::numbers::pi * (0.9 * s) + phase[k]) +
                                   0.3 * std::sin(2 * std::numbers::pi * (2.1 * s) + phase[k + 1]) +
                                   0.16 * std::sin(2 * std::numbers::pi * (4.7 * s) + phase[k + 2]));
    };
    Slab slab;
    slab.id = r.id, slab.name = r.name, slab.species = r.species, slab.tree = r.tree;
    slab.tape.lean_left_mm = r.lean_left_mm;
    slab.tape.lean_right_mm = r.lean_right_mm;
    const auto face_a = [&](double s, double t) {  // t runs from -1 to 1 across
        return -r.bow_mm * std::sin(std::numbers::pi * s) - r.cup_mm * (1 - t * t) + r.twist_mm * (s - 0.5) * t;
    };
    const auto face_b = [&](double s, double t) {
        return -0.8 * r.bow_mm * std::sin(std::numbers::pi * s) - 0.7 * r.cup_mm * (1 - t * t) + 0.9 * r.twist_mm * (s - 0.5) * t -
               r.thickness_mm - 1.5 * std::sin(3 * s + phase[6]);
    };
    for (double x = 0;; x = std::min(x + r.station_mm, r.length_mm)) {
        const double s = x / r.length_mm;
        Station st;
        st.x_mm = x;
        st.left_mm = read(half(s, 0) + middle(s));
        st.right_mm = read(half(s, 1) - middle(s));
        st.thickness_mm = read(face_a(s, 1) - face_b(s, 1));
        st.thickness_right_mm = read(face_a(s, -1) - face_b(s, -1));
        slab.tape.stations.push_back(st);
        if (x >= r.length_mm) break;
    }
    const auto grid = [&](bool top) {
        HeightGrid g;
        for (double x = 50; x <= r.length_mm - 40; x += r.grid_x_mm) g.x_mm.push_back(x);
        const int n = std::max(2, static_cast<int>(r.width_mm * 0.8 / r.grid_y_mm) + 1);
        for (int j = 0; j < n; ++j) g.y_mm.push_back(read((j - (n - 1) / 2.0) * r.grid_y_mm));
        for (const double x : g.x_mm)
            for (const double y : g.y_mm) {
                const double s = x / r.length_mm;
                const double t = 2 * y / r.width_mm;
                const double z = top ? -face_a(s, t) + r.twist_mm : face_b(s, t) + r.thickness_mm + 0.9 * r.twist_mm + r.bow_mm;
                g.gap_mm.emplace_back(read(std::max(0.0, z + r.noise_mm * (2 * uniform() - 1))));
            }
        return g;
    };
    slab.heights_a = grid(true);
    slab.heights_b = grid(false);
    return slab;
}

namespace {

/// The grown part of the demo rack: which logs, how sawn, what they are called.
struct DemoLog {
    LogRecipe recipe;
    SawPlan saw;
    const char *stem, *name, *tree;
    double moisture_pct, price;
    std::vector<int> boards;  ///< numbers kept, from the first
};

std::vector<DemoLog> demo_logs() {
    std::vector<DemoLog> out;
    DemoLog plane{drawn_recipe(7, "sycamore, American", 2900, 640),
                  {},
                  "sycamore-log",
                  "Tarn sycamore",
                  "the tarn-side sycamore",
                  9.8,
                  540,
                  {2, 3, 4, 5, 6, 7}};
    plane.saw.thickness_mm = 62;
    out.push_back(plane);
    DemoLog nut{drawn_recipe(23, "butternut", 2500, 520),
                {},
                "butternut-log",
                "Ferry butternut",
                "the ferry-lane butternut",
                11.2,
                390,
                {1, 2, 3, 4}};
    nut.recipe.spalting = 0.12;
    nut.saw.thickness_mm = 56;
    nut.saw.turn_deg = 30;
    out.push_back(nut);
    DemoLog berry{drawn_recipe(61, "hackberry", 2300, 540),
                  {},
                  "hackberry-log",
                  "Landing hackberry",
                  "the landing hackberry",
                  10.4,
                  310,
                  {1, 2, 3, 4, 5, 6}};
    berry.saw.thickness_mm = 58;
    out.push_back(berry);
    DemoLog disc{
        drawn_recipe(41, "maple, bigleaf", 700, 1020), {}, "maple-round", "Quarry maple round", "the quarry maple", 12.4, 480, {3}};
    disc.saw.pattern = SawPattern::round;
    disc.saw.thickness_mm = 70;
    disc.recipe.branches.clear();
    disc.recipe.curl = 0.6;
    out.push_back(disc);
    return out;
}

/// Calls with each kept board of the demo's logs.
template <class F>
void each_board(const DemoLog& d, const GrownLog& log, F one) {
    for (const Board& b : boards_of(log, d.saw))
        if (std::find(d.boards.begin(), d.boards.end(), b.number) != d.boards.end()) one(b);
}

SawnSlab sawn(const DemoLog& d, const GrownLog& log, const Board& b, bool paint, const Work& work) {
    DryPlan dry;
    dry.moisture_pct = d.moisture_pct;
    SawnSlab s = make_slab(log, b, d.saw, dry, {2, paint}, work);
    const std::string number = std::to_string(b.number);
    s.slab.id = "slab-" + std::string(d.stem) + "-" + number;
    s.slab.name = d.boards.size() > 1 ? std::string(d.name) + " " + number : d.name;
    s.slab.tree = d.tree;
    s.slab.moisture_on = "2026-11-19";
    s.slab.price = d.price;
    return s;
}

void grow_demo(Documents& docs) {
    for (const DemoLog& d : demo_logs()) {
        const GrownLog log(d.recipe);
        each_board(d, log, [&](const Board& b) {
            SawnSlab s = sawn(d, log, b, false, {});
            s.slab.picture_a->key = s.slab.id + "/a";
            s.slab.picture_b->key = s.slab.id + "/b";
            docs.slabs[s.slab.id] = s.slab;
        });
    }
}

}  // namespace

namespace {

/// A base made here, of bars so wide and so thick.
void stand_on(Job& j, BaseKind kind, double wide, double thick) {
    j.under.base = kind;
    j.under.leg_wide_mm = wide;
    j.under.leg_thick_mm = thick;
}

/// Bolts near both edges, two rows of them: none in the middle, where the river runs.
void clear_of_the_river(Job& j) {
    for (LegPlate& p : j.under.plates) p.bolts_across = 2, p.bolts_along = 2, p.along_mm = 120;
    for (Channel& c : j.under.channels) c.bolts = 2;
}

/// What the shop pays; what stands on its shelf.
void priced(Documents& d) {
    ShopMoney& m = d.shop.money;
    m.currency = "crowns";
    m.hour = 44, m.helper_hour = 26;
    m.overhead_pct = 12, m.margin_pct = 15, m.tax_pct = 20;
    m.prices = {14.5, 0.35, 58, 6.9, 0.8, 3.2, 95, 0.75, 1.1, 11.4, 34, 3.9};
    d.shop.sanding.disc_price = 0.62;
    for (Resin& r : d.shop.resins)
        if (!r.price_l) r.price_l = r.solid ? 30 : 24.5;
    for (FinishClass& f : d.shop.finishes.labels)
        if (!f.price_l) f.price_l = f.film ? 38 : 64;
    d.jobs.at("job-open-river").money.extra = {{"Delivery across the tarn", 1, 85.0}};
}

/// Two jobs laid out otherwise too: a narrower river, a thinner top.
void other_ways(Documents& d) {
    const auto way = [&](const char* of, const char* id, const char* name) -> Job& {
        Job j = d.jobs.at(of);
        j.id = id, j.way_of = of, j.way = name;
        return d.jobs[id] = j;
    };
    Job& narrow = way("job-tarn-river", "job-tarn-river-narrow", "narrower river");
    narrow.makeup.river_mm = 110;
    std::vector<Slab> slabs;
    for (const Leaf& l : narrow.leaves) slabs.push_back(d.slabs.at(l.slab));
    make_up(narrow, narrow.makeup.kind, slabs);
    way("job-reading-table", "job-reading-table-thin", "thinner").top.thickness_mm = 42;
}

/// A card that was run to its end: of each step its key and the minutes since the one before it.
CardRun run_of(const char* card, const char* started, std::string_view steps) {
    CardRun run{card, started, 1, true, {}, {}};
    double s = 0;
    while (!steps.empty()) {
        const std::string step(steps.substr(0, steps.find('|')));
        steps.remove_prefix(std::min(steps.size(), step.size() + 1));
        const std::size_t minutes = step.rfind(' ');
        s += 60 * std::stod(step.substr(minutes + 1));
        run.ticks.push_back({step.substr(0, minutes), utc_text(*utc_seconds(started) + s), s, {}, {}, ""});
    }
    return run;
}

/// A side table that stands where it was made for: what it really took is in the book, and its wood is used up.
void delivered(Documents& d) {
    for (const auto& [id, name, seed] :
         {std::tuple{"slab-outflow-1", "Outflow sycamore 1", 51U}, {"slab-outflow-2", "Outflow sycamore 2", 52U}}) {
        Slab s = make_slab(
            {id, name, "sycamore, American", "the outflow sycamore", 1650, 460, 54, 6, 14, 12, 3, 2, 4, 10, 12, 300, 200, 110, 0.3, seed});
        // Both stood in the same stack, the second a little nearer to the wall.
        const double damper = seed == 52U ? 0.4 : 0;
        s.moisture_pct = 11.9 + damper / 2, s.moisture_on = "2026-08-31";
        s.moisture_log = {{"2026-03-02", 15.6 + damper}, {"2026-04-20", 13.6 + damper}, {"2026-06-15", 12.5 + damper}};
        s.price = 95;
        s.retired = true;  // used up, kept for the record
        d.slabs[s.id] = s;
    }
    Job j;
    j.id = "job-outflow-side";
    j.name = "Side table, outflow house";
    j.client = "the house by the outflow";
    j.start = "2026-09-07";
    j.top = {1150, 480, 40, 460, LiveEdges::none, 2};
    j.makeup.river_mm = 60;
    j.room = generic_climates()[1];
    j.under = starting_under(j.top);
    j.under.helpers = 2;
    clear_of_the_river(j);
    j.under.channels.clear();  // so small a top stays flat without
    stand_on(j, BaseKind::frames, 45, 45);
    j.makeup.kind = MakeUp::river;
    make_up(j, MakeUp::river, {d.slabs.at("slab-outflow-1"), d.slabs.at("slab-outflow-2")});
    j.cuts_done = true;
    j.days.done = {{"lay", "2026-09-07T10:30", "Lay", 0.4},
                   {"rough", "2026-09-07T11:15", "Rough-cut", 0.3},
                   {"form", "2026-09-08T12:00", "Form", 1.7},
                   {"flat1", "2026-09-07T15:10", "Face one", 2.6},
                   {"flat2", "2026-09-08T10:40", "Face two", 2.4},
                   {"last", "2026-09-10T09:50", "Last pass", 2.7},
                   {"pour", "2026-09-10T12:30", "Resin in", 0.9},
                   {"shave", "2026-09-12T08:40", "Shave warm", 0.2},
                   {"unmould", "2026-09-15T08:40", "Unmould", 0.5},
                   {"scrape", "2026-09-15T09:00", "Scrape", 0.3},
                   {"again", "2026-09-15T10:30", "Flatten again", 1.4},
                   {"topup", "2026-09-15T11:00", "Top up", 0.3},
                   {"touchup", "2026-09-18T09:10", "Touch up", 0.3},
                   {"cut", "2026-09-18T09:50", "To size", 0.4},
                   {"sand_rough", "2026-09-18T12:00", "Sand, rough", 1.9},
                   {"pockets", "2026-09-18T16:00", "Under", 1.1},
                   {"under_jig", "2026-09-11T10:00", "Drilling template", 0.5},
                   {"base_make", "2026-09-11T16:40", "Make the base", 7.4},
                   {"dryfit", "2026-09-21T09:20", "Dry-fit", 0.2},
                   {"sand", "2026-09-21T16:10", "Sand, fine", 0.7},
                   {"last_grit", "2026-09-22T09:00", "Last grit", 0.7},
                   {"coat_1", "2026-09-22T10:10", "First coat", 0.4},
                   {"coat_2", "2026-09-25T10:00", "Second coat", 0.4},
                   {"assemble", "2026-09-28T10:00", "Put together", 0.4},
                   {"set_up", "2026-09-28T12:00", "Carry in, set up", 1.0}};
    // The cards as they were ticked: lanes (one tick was left over the midday break), the pour with its cups, sanding, both coats.
    CardRun lanes = run_of("flat_one", "2026-09-07T10:30:00Z",
                           "down 1a 6.0|set 1a.1 2.4|run 1a.1 3.4|set 1a.2 2.5|run 1a.2 9.3|set 1a.3 2.3|run 1a.3 10.0|down 2a 6.0|"
                           "set 2a.1 2.4|run 2a.1 0.3|set 2a.2 2.5|run 2a.2 6.1|set 2a.3 2.3|run 2a.3 71|set 2a.4 2.5|run 2a.4 9.7");
    CardRun pour =
        run_of("pour", "2026-09-10T08:20:00Z", "set out 16|leaks 6|level 7|mix 1 8.7|pour 1 5.2|sample 1 2|bubbles 1 13|gelled 2810");
    pour.ticks[3].mixed_l = 3.15, pour.ticks[6].left_l = 0.06;
    const double poured_s = pour.ticks[4].after_s;
    for (CardTick& t : pour.ticks) t.air_c = 19.5;
    // What the thermocouple read in the middle of the resin.
    for (int k = 0; k <= 60; ++k) {
        const double h = k * 0.8;
        const double rise = 17 * std::exp(-std::pow((h - 19) / 9.5, 2));
        pour.readings.push_back({poured_s + h * 3600, std::round((19.5 + rise + 0.3 * std::sin(k * 2.1)) * 10) / 10});
    }
    CardRun sand = run_of("sand", "2026-09-21T07:30:00Z",
                          "ready 6.0|sand 1 at 60 33.3|sand 1 at 80 6.6|sand 2 at 80 14.7|sand 3 at 80 7.0|sand 4 at 60 3.3|sand 4 at 80 "
                          "3.1|sand 5 at 60 9.3|sand 5 at 80 1.8|"
                          "sand 5 at 120 1.9|sand 5 at 180 2.0|sand 5 at 240 1.8|sand 5 at 320 2.1|sand 5 at 400 1.7|sand 6 at 60 6.5|sand "
                          "6 at 80 1.4|sand 6 at 120 1.5|"
                          "sand 6 at 180 1.3|sand 6 at 240 1.4|sand 6 at 320 1.5|sand 6 at 400 1.3|sand 7 at 60 33.6|sand 7 at 80 6.0|wet "
                          "6.2|sand 1 at 120 126.7|sand 2 at 120 8.6|"
                          "sand 3 at 120 7.2|sand 4 at 120 3.2|sand 7 at 120 7.1|look 5.7");
    CardRun first =
        run_of("finish", "2026-09-22T07:15:00Z",
               "ready 6.0|mix under 1 2.6|on under 1 1.5|off under 1 3.8|mix upper 1 2.2|on upper 1 1.6|off upper 1 3.2|end 6.6");
    first.ticks[1].mixed_l = 0.024, first.ticks[4].mixed_l = 0.023, first.ticks[7].left_l = 0.001;
    CardRun second =
        run_of("finish_again", "2026-09-25T07:20:00Z",
               "ready 5.0|mix under 1 2.2|on under 1 1.4|off under 1 3.3|mix upper 1 2.0|on upper 1 1.5|off upper 1 2.9|end 6.0");
    second.ticks[1].mixed_l = 0.011, second.ticks[4].mixed_l = 0.010;
    j.runs = {lanes, pour, sand, first, second};
    j.first().rounds = {{"2026-09-09", 0.2, 0.3, 0.4, 42.6}, {"2026-09-10", 0.3, 0.5, 0.5, 42.5}};
    j.record.photos = {{"photo/outflow-slabs", "2026-08-31", "both slabs, before the first cut", ""},
                       {"photo/outflow-table", "2026-10-02", "delivered, on its frames", ""}};
    j.record.number = "2026-01";
    j.record.delivered = "2026-10-02";
    j.record.agreed = {
        {"2026-09-01",
         "",
         {{"size", "1150 mm long, 480 mm wide where it is narrowest, 40 mm thick"}, {"edges", "live edges: None, all sawn"}}}};
    d.jobs[j.id] = j;
}

/// The jobs of several leaves, and a round.
void made_up(Documents& d) {
    const auto lay = [&](Job& j, MakeUp kind, std::initializer_list<const char*> ids) {
        std::vector<Slab> slabs;
        for (const char* id : ids) slabs.push_back(d.slabs.at(id));
        j.makeup.kind = kind;
        make_up(j, kind, slabs);
        d.jobs[j.id] = j;
    };
    Job boards;
    boards.id = "job-seed-cabinet";
    boards.name = "Sorting table, seed library";
    boards.client = "the village seed library";
    boards.start = "2027-01-18";
    boards.top = {2200, 1250, 40, 740, LiveEdges::both, 10};
    boards.room = generic_climates()[2];
    boards.under = starting_under(boards.top);
    boards.under.helpers = 4;
    stand_on(boards, BaseKind::trestle, 80, 60);
    boards.under.corners = BarJoint::tenon;
    lay(boards, MakeUp::boards, {"slab-butternut-log-1", "slab-butternut-log-2", "slab-butternut-log-3", "slab-butternut-log-4"});

    Job river;
    river.id = "job-tarn-river";
    river.name = "River table, tarn house";
    river.client = "the house by the outflow";
    river.start = "2027-02-01";
    river.top = {2000, 900, 40, 740, LiveEdges::none, 6};
    river.makeup.river_mm = 140;
    river.room = generic_climates()[1];
    river.under = starting_under(river.top);
    river.under.helpers = 3;
    clear_of_the_river(river);
    stand_on(river, BaseKind::frames, 60, 70);
    river.under.corners = BarJoint::half_lap;
    lay(river, MakeUp::river, {"slab-sycamore-log-2", "slab-sycamore-log-7"});

    Job open;
    open.id = "job-open-river";
    open.name = "Council table, open river";
    open.client = "the ferry office";
    open.start = "2027-02-15";
    open.top = {2100, 1050, 40, 740, LiveEdges::both, 8};
    open.makeup.river_mm = 70;
    open.room = generic_climates()[3];
    open.under = starting_under(open.top);
    open.under.helpers = 3;
    clear_of_the_river(open);
    stand_on(open, BaseKind::trestle, 70, 60);
    lay(open, MakeUp::open_river, {"slab-sycamore-log-3", "slab-sycamore-log-5"});

    Job pair;
    pair.id = "job-opened-pair";
    pair.name = "Map desk, opened pair";
    pair.client = "the ferry office";
    pair.start = "2027-03-15";
    pair.top = {1900, 820, 42, 740, LiveEdges::both, 6};
    pair.room = generic_climates()[1];
    pair.under = starting_under(pair.top);
    pair.under.helpers = 2;
    stand_on(pair, BaseKind::cross, 70, 50);
    lay(pair, MakeUp::book, {"slab-hackberry-log-3", "slab-hackberry-log-4"});

    // Two that do not work as they lie: more is wanted of the slabs than they give, and banks that meet below.
    Job thin;
    thin.id = "job-drawing-table";
    thin.name = "Drawing table, seed library";
    thin.client = "the village seed library";
    thin.start = "2027-03-22";
    thin.top = {2000, 850, 60, 760, LiveEdges::both, 6};
    thin.room = generic_climates()[2];
    thin.under = starting_under(thin.top);
    thin.under.helpers = 3;
    stand_on(thin, BaseKind::frames, 60, 60);
    lay(thin, MakeUp::slip, {"slab-hackberry-log-1", "slab-hackberry-log-2"});

    Job counter;
    counter.id = "job-boathouse-counter";
    counter.name = "Counter, boathouse";
    counter.client = "the boathouse by the tarn";
    counter.start = "2027-04-05";
    counter.top = {1900, 720, 42, 900, LiveEdges::both, 6};
    counter.makeup.river_mm = 60;
    counter.room = generic_climates()[4];
    counter.under = starting_under(counter.top);
    clear_of_the_river(counter);
    counter.under.splay_deg = 6;
    counter.under.helpers = 2;
    stand_on(counter, BaseKind::legs, 70, 70);
    lay(counter, MakeUp::river, {"slab-hackberry-log-5", "slab-hackberry-log-6"});
    Leaf& left = d.jobs.at(counter.id).leaves.back();
    move_by(left.placement, {0, -46});  // drawn together by eye, from above

    Job round;
    round.id = "job-round-hall";
    round.name = "Round hall table";
    round.client = "a house above the tarn";
    round.start = "2027-03-01";
    round.top = {860, 860, 45, 730, LiveEdges::none, 4, TopShape::round, {}};
    round.room = generic_climates()[0];
    round.under.plates = {{0, 0, 360, 360, 3, 3}};
    stand_on(round, BaseKind::pedestal, 60, 36);
    round.under.foot_across_mm = round.under.foot_along_mm = 560;
    give_slab(round, d.slabs.at("slab-maple-round-3"));
    d.jobs[round.id] = round;
}

}  // namespace

std::vector<std::pair<std::string, std::string>> demo_pictures(const Work& work) {
    const auto logs = demo_logs();
    std::vector<std::unique_ptr<GrownLog>> grown;
    std::vector<std::pair<std::size_t, Board>> boards;
    for (std::size_t i = 0; i < logs.size(); ++i) {
        grown.push_back(std::make_unique<GrownLog>(logs[i].recipe));
        each_board(logs[i], *grown.back(), [&](const Board& b) { boards.emplace_back(i, b); });
    }
    std::vector<std::pair<std::string, std::string>> out(boards.size() * 2);
    in_parallel(
        boards.size(),
        [&](std::size_t k) {
            const auto& [i, b] = boards[k];
            const SawnSlab s = sawn(logs[i], *grown[i], b, true, {{}, work.stop, 1});
            out[2 * k] = {s.slab.id + "/a", to_jpeg(s.face_a)};
            out[2 * k + 1] = {s.slab.id + "/b", to_jpeg(s.face_b)};
        },
        work);
    return out;
}

namespace {
Documents made_demo() {
    Documents d;
    d.shop.name = "Tarnside workshop";
    // The label of the can that stands there.
    Resin& can = d.shop.resins.front();
    can.recoat_from_h = 36, can.recoat_to_h = 72, can.sand_h = 96, can.cured_h = 168, can.kit_l = 6;
    for (Resin& r : d.shop.resins) r.price_l = r.key == "slow-deep" ? 21 : r.key == "medium" ? 24 : 30;

    d.shop.finishes.labels.front().price_l = 85;
    d.shop.sanding.disc_price = 0.6;

    SlabRecipe plane{"slab-sycamore-3",
                     "Sycamore 3",
                     "sycamore, American",
                     "the mill-lane sycamore",
                     2720,
                     1010,
                     62,
                     22,
                     70,
                     24,
                     7,
                     3.5,
                     11,
                     14,
                     18,
                     300,
                     200,
                     150,
                     0.3,
                     7};
    Slab sycamore = make_slab(plane);
    sycamore.sequence = 3;
    sycamore.pith_mm = 120;
    sycamore.moisture_pct = 9.5;
    sycamore.moisture_on = "2026-11-20";
    sycamore.price = 620;
    sycamore.notes = "Air-dried under the lean-to, four weeks in the shop.";
    sycamore.flaws.push_back(flaw("crack-1", FlawKind::crack, Face::a,
                                  {{0, -8}, {180, -3}, {300, 12}, {430, 22}, {300, 20}, {170, 6}, {0, 4}}, std::nullopt, 0.5, "end crack"));
    sycamore.flaws.push_back(flaw("void-1", FlawKind::void_, Face::a, blob({1640, 175}, 210, 64, 12, 14, 0.12, 3), std::nullopt, 0.55,
                                  "where a limb rotted out"));
    sycamore.flaws.push_back(flaw("knot-1", FlawKind::knot, Face::a, blob({980, -210}, 90, 70, 30, 12, 0.06, 5), 9, 0.7, "loose rim"));
    d.slabs[sycamore.id] = sycamore;

    Slab hackberry = make_slab({"slab-hackberry-1",
                                "Hackberry 1",
                                "hackberry",
                                "the ferry-landing hackberry",
                                1950,
                                520,
                                52,
                                -14,
                                40,
                                16,
                                4,
                                2.5,
                                7,
                                9,
                                7,
                                250,
                                180,
                                110,
                                0.3,
                                11});
    hackberry.moisture_pct = 13.5;
    hackberry.moisture_on = "2026-11-20";
    hackberry.price = 180;
    hackberry.flaws.push_back(
        flaw("pocket-1", FlawKind::pocket, Face::a, blob({620, -150}, 150, 40, 4, 10, 0.15, 2), 14, 0.4, "bark pocket"));
    d.slabs[hackberry.id] = hackberry;

    Slab maple = make_slab({"slab-maple-2",
                            "Bigleaf maple 2",
                            "maple, bigleaf",
                            "the quarry maple",
                            1480,
                            1180,
                            66,
                            10,
                            -50,
                            30,
                            5,
                            5,
                            8,
                            20,
                            22,
                            240,
                            170,
                            160,
                            0.3,
                            23});
    maple.moisture_pct = 8.6;
    maple.moisture_on = "2026-11-18";
    maple.sequence = 2;
    maple.price = 740;
    maple.flaws.push_back(flaw("soft-1", FlawKind::soft, Face::b, blob({300, 250}, 160, 110, 0, 12, 0.1, 9), 12, 0.6, "punky"));
    d.slabs[maple.id] = maple;

    Slab butternut = make_slab({"slab-butternut-5",
                                "Butternut 5",
                                "butternut",
                                "the orchard butternut",
                                2250,
                                640,
                                48,
                                30,
                                80,
                                20,
                                9,
                                2,
                                6,
                                11,
                                13,
                                300,
                                220,
                                130,
                                0.3,
                                31});
    butternut.moisture_pct = 10.2;
    butternut.moisture_on = "2026-11-20";
    butternut.heights_a = {};
    butternut.heights_b = {};
    butternut.price = 260;
    d.slabs[butternut.id] = butternut;
    grow_demo(d);

    Job table;
    table.id = "job-reading-table";
    table.name = "Reading table, seed library";
    table.client = "the village seed library";
    table.first().slab = sycamore.id;
    table.start = "2026-11-30";
    table.top = {2200, 930, 48, 740, LiveEdges::both, 8};
    table.first().placement = {1370, 12, 0.4, false, 30};
    table.room = generic_climates()[2];
    table.under = starting_under(table.top);
    table.under.helpers = 2;
    table.under.base = BaseKind::frames;
    table.under.splay_deg = 3;
    table.under.leg_wide_mm = 60;
    table.under.leg_thick_mm = 80;
    table.first().voids.push_back({"crack-1", "slow-deep", false});
    d.jobs[table.id] = table;

    Job bench;
    bench.id = "job-landing-bench";
    bench.name = "Bench, ferry landing";
    bench.client = "the ferry landing";
    bench.first().slab = hackberry.id;
    bench.start = "2026-12-07";
    bench.top = {1700, 520, 42, 450, LiveEdges::left, 3};
    bench.first().placement = {975, -8, 0, false, 25};
    bench.room = generic_climates()[4];
    bench.under = starting_under(bench.top);
    bench.under.base = BaseKind::legs;
    bench.under.splay_deg = 5;
    bench.under.leg_wide_mm = bench.under.leg_thick_mm = 65;
    d.jobs[bench.id] = bench;

    Job hall;
    hall.id = "job-hall-table";
    hall.name = "Hall table";
    hall.client = "a house above the tarn";
    hall.first().slab = maple.id;
    hall.start = "2027-01-11";
    hall.top = {1100, 900, 50, 760, LiveEdges::none, 4};
    hall.first().placement = {740, 0, 0, false, 25};
    hall.room = generic_climates()[0];
    // A drum of five panels, flat towards the wall.
    hall.under = starting_under(hall.top);
    hall.under.plates = {{-160, 0, 120, 560, 3, 1}, {160, 0, 120, 560, 3, 1}};
    hall.under.channels = {{-340, 0, 600, 40, 12, 3, 3}, {340, 0, 600, 40, 12, 3, 3}};
    stand_on(hall, BaseKind::panels, 30, 30);
    hall.under.outline = {{-400, -350}, {400, -350}, {440, 140}, {0, 400}, {-440, 140}};
    hall.under.helpers = 2;
    // Its long sides were sawn; a live edge is carved again along the grain.
    hall.join.edge = EdgeShape::carved;
    hall.join.edge_mm = 18;
    // Roughed on a Friday; over the weekend it moved, and was read twice.
    hall.first().rounds = {{"2027-01-15", 0.2, 0.4, 0.5, 54.4}, {"2027-01-18", 0.6, 1.5, 1.6, 54.2}};
    d.jobs[hall.id] = hall;
    made_up(d);
    delivered(d);
    priced(d);
    other_ways(d);
    return d;
}
}  // namespace

std::vector<BookEntry> demo_book() {
    // What the store itself would have written, had it been there: of the delivered job alone, before and after.
    const std::string id = "job-outflow-side";
    const Documents& all = demo_shop();
    Documents before, after;
    after.jobs[id] = all.jobs.at(id);
    before.jobs[id] = after.jobs[id];
    Job& was = before.jobs[id];
    was.days.done.clear(), was.runs.clear(), was.record = {};
    for (Leaf& l : was.leaves) l.rounds.clear();
    for (const char* slab : {"slab-outflow-1", "slab-outflow-2"}) {
        after.slabs[slab] = before.slabs[slab] = all.slabs.at(slab);
        before.slabs[slab].moisture_pct.reset(), before.slabs[slab].moisture_log.clear();
    }
    auto out = happened(before, after, "2026-10-02T17:00:00+02:00");
    // Readings of the thermocouple have their time by the run's own clock.
    const std::string poured = "2026-09-10";
    for (BookEntry& e : out)
        if (e.what == "temperature")
            if (const auto at = e.of.rfind(' ', e.of.size() - 3); at != std::string::npos)
                e.at = wall_clock(poured, 10 + 20 / 60.0 + std::atof(e.of.c_str() + at) / 3600) + ":00+02:00";
    // The shop lies in one zone, wherever the demo is written: ticks of cards are told by its clock.
    for (BookEntry& e : out)
        if (const auto moment = moment_of(e.at))
            e.at = wall_clock("2026-01-01", std::floor((*moment - *moment_of("2026-01-01T00:00:00+02:00")) / 60) / 60) +
                   e.at.substr(16, 3) + "+02:00";
    // What was agreed and photographed on a day stands on it.
    for (BookEntry& e : out) {
        if (e.kind == book::agreement) e.at = e.of + "T18:20:00+02:00";
        for (const JobPhoto& p : all.jobs.at(id).record.photos)
            if (e.kind == book::photo && e.value == p.key) e.at = p.on + "T09:00:00+02:00";
    }
    // Air of the shop, a reading a week; what was said and seen.
    for (int week = 0; week < 28; ++week) {
        const std::string day = date_after("2026-03-23", week * 7 * 24.0);
        const std::string at = day + (week == 0 ? "T08:05:00+01:00" : "T08:05:00+02:00");  // clocks go on at the end of March
        out.push_back({0, at, "", "rack", book::reading, "air", std::to_string(14 + week / 3), "°C", "shop"});
        out.push_back({0, at, "", "rack", book::reading, "humidity", std::to_string(64 - week / 2), "%", "shop"});
    }
    out.push_back({0, "2026-09-12T08:45:00+02:00", id, "pour", book::note, "",
                   "A bubble by the left end; warmed out with the gun, gone after a minute.", "", ""});
    out.push_back({0, "2026-09-22T10:15:00+02:00", id, "skin", book::note, "",
                   "Took more than the label says on the end grain; went over it once more.", "", "face end_left"});
    out.push_back({0, "2026-10-02T16:30:00+02:00", id, "", book::note, "Delivered",
                   "Stands by the window; told about the stove and the wet months.", "", ""});
    std::stable_sort(out.begin(), out.end(), [](const BookEntry& a, const BookEntry& b) { return moment_of(a.at) < moment_of(b.at); });
    return out;
}

const Documents& demo_shop() {
    static const Documents grown = made_demo();  // its logs are grown once in a program
    return grown;
}

}  // namespace yb
