#include "core/edit/mends.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <vector>

#include "core/edit/edits.h"
#include "core/fields/walk.h"
#include "core/fill/fill.h"
#include "core/flat/flat.h"
#include "core/job/documents.h"
#include "core/job/plan.h"
#include "core/job/steps.h"
#include "core/join/join.h"
#include "core/makeup/arrange.h"
#include "core/makeup/makeup.h"
#include "core/top/top.h"
#include "core/under/under.h"

namespace yb {

namespace {

/// One edit: what it changes, given the numbers of its mend.
using Edit = std::function<void(Documents&, Job&, const std::vector<double>&)>;

std::size_t index(double v) { return static_cast<std::size_t>(std::max(0.0, v)); }

const std::map<std::string, Edit>& edits() {
    static const std::map<std::string, Edit> all{
        {"end_further_in", [](Documents&, Job& j, const auto& n) { shorten(j, n.at(0), n.at(1)); }},
        {"narrower", [](Documents&, Job& j, const auto& n) { j.top.width_mm = n.at(0); }},
        {"shorter", [](Documents&, Job& j, const auto& n) { j.top.length_mm = n.at(0); }},
        {"apart",
         [](Documents&, Job& j, const auto& n) {
             // Half of it to either side, so that the river stays in the middle.
             for (std::size_t i = 0; i < j.leaves.size(); ++i)
                 move_by(j.leaves[i].placement, {0, (i <= index(n.at(1)) ? -0.5 : 0.5) * n.at(0)});
         }},
        {"rip_mark_away", [](Documents&, Job& j, const auto&) { j.makeup.ripped = false; }},
        {"thickness", [](Documents&, Job& j, const auto& n) { j.top.thickness_mm = n.at(0); }},
        {"shared_out", [](Documents&, Job& j, const auto&) { j.flat.aim = FlatAim::share_out; }},
        {"rested",
         [](Documents&, Job& j, const auto& n) {
             j.flat.rest_h = n.at(0);
             j.flat.allowance_mm = std::max(1.0, j.flat.allowance_mm);
         }},
        {"air_on_both", [](Documents&, Job& j, const auto&) { j.flat.both_faces_to_air = true; }},
        {"rails", [](Documents& d, Job&, const auto& n) { d.shop.sled.rail_mm = n.at(0); }},
        {"usual_supports",
         [](Documents&, Job& j, const auto&) {
             for (Leaf& l : j.leaves) l.supports.clear();
         }},
        {"void_resin",
         [](Documents& d, Job& j, const auto& n) {
             const Flaw& flaw = d.slabs.at(j.leaves.at(index(n.at(0))).slab).flaws.at(index(n.at(1)));
             set_choice(j, "fill." + flaw.id, d.shop.resins.at(index(n.at(2))).key, static_cast<int>(n.at(0)));
         }},
        {"usual_plates", [](Documents&, Job& j, const auto&) { j.under.plates = starting_under(j.top).plates; }},
        {"channel_to", [](Documents&, Job& j, const auto& n) { j.under.channels.at(index(n.at(0))).u_mm = n.at(1); }},
        {"channel_long", [](Documents&, Job& j, const auto& n) { j.under.channels.at(index(n.at(0))).length_mm = n.at(1); }},
        {"plate_across", [](Documents&, Job& j, const auto& n) { j.under.plates.at(index(n.at(0))).across_mm = n.at(1); }},
        {"channel_bolts", [](Documents&, Job& j, const auto& n) { j.under.channels.at(index(n.at(0))).bolts = static_cast<int>(n.at(1)); }},
        {"plate_bolts",
         [](Documents&, Job& j, const auto& n) { j.under.plates.at(index(n.at(0))).bolts_across = static_cast<int>(n.at(1)); }},
        {"plate_one_row", [](Documents&, Job& j, const auto& n) { j.under.plates.at(index(n.at(0))).bolts_along = 1; }},
        {"panels_round_plates", [](Documents&, Job& j, const auto&) { j.under.outline.clear(); }},
        {"insert", [](Documents&, Job& j, const auto& n) { j.under.insert_mm = n.at(0); }},
        {"helpers", [](Documents&, Job& j, const auto& n) { j.under.helpers = static_cast<int>(n.at(0)); }},
        {"odd_bolts",
         [](Documents&, Job& j, const auto&) {
             for (LegPlate& p : j.under.plates) p.bolts_across |= 1;
             for (Channel& c : j.under.channels) c.bolts |= 1;
         }},
        {"in_range",
         [](Documents& d, Job& j, const auto&) {
             hold_in_range(walk_of(j));
             hold_in_range(walk_of(d.shop));
         }},
        {"back_on_the_rack", [](Documents& d, Job& j, const auto& n) { d.slabs.at(j.leaves.at(index(n.at(0))).slab).retired = false; }},
        {"rod_depth", [](Documents&, Job& j, const auto& n) { j.makeup.rod_depth_mm = n.at(0); }},
        {"rod", [](Documents&, Job& j, const auto& n) { j.makeup.rod_mm = n.at(0); }},
        {"beam_high", [](Documents& d, Job&, const auto& n) { d.shop.sled.beam_high_mm = n.at(0); }},
        {"turn_all_over",
         [](Documents&, Job& j, const auto& n) {
             for (std::size_t i = 0; i < j.leaves.size(); ++i) turn_over(j, static_cast<int>(i), n.at(i));
         }},
        {"patch_depth", [](Documents&, Job& j, const auto& n) { j.makeup.patches.at(index(n.at(0))).depth_mm = n.at(1); }},
        {"patch_along", [](Documents&, Job& j, const auto& n) { j.makeup.patches.at(index(n.at(0))).turn_deg = 0; }},
        {"channel_deep", [](Documents&, Job& j, const auto& n) { j.under.channels.at(index(n.at(0))).depth_mm = n.at(1); }},
        {"plate_to", [](Documents&, Job& j, const auto& n) { j.under.plates.at(index(n.at(0))).u_mm = n.at(1); }},
        {"helped", [](Documents&, Job& j, const auto&) { j.join.helped = true; }},
        {"slow_glue", [](Documents&, Job& j, const auto&) { j.join.slow_glue = true; }},
        {"two_stages", [](Documents&, Job& j, const auto&) { j.join.two_stages = true; }},
        {"thin_tenon", [](Documents&, Job& j, const auto& n) { j.join.loose_thick_mm = n.at(0); }},
        {"pitch", [](Documents&, Job& j, const auto& n) { j.join.pitch_mm = n.at(0); }},
        {"cauls", [](Documents&, Job& j, const auto&) { j.join.cauls = true; }},
        {"tie_to",
         [](Documents&, Job& j, const auto& n) {
             j.join.ties.at(index(n.at(0))).u_mm = n.at(1);
             j.join.ties.at(index(n.at(0))).v_mm = n.at(2);
         }},
        {"tie_across", [](Documents&, Job& j, const auto& n) { j.join.ties.at(index(n.at(0))).turn_deg = 90; }},
        {"tie_deep", [](Documents&, Job& j, const auto& n) { j.join.ties.at(index(n.at(0))).deep_mm = n.at(1); }},
        {"lifts_as_needed", [](Documents&, Job& j, const auto&) { j.pour.lifts = 0; }},
        {"fans", [](Documents&, Job& j, const auto&) { j.pour.fans = true; }},
        {"bearers", [](Documents&, Job& j, const auto& n) { j.pour.bearers_mm = n.at(0); }},
        {"level_form", [](Documents&, Job& j, const auto&) { j.pour.slope_mm_m = 0, j.pour.corners_mm.clear(); }},
        {"bench_to_the_end", [](Documents&, Job& j, const auto&) { j.pour.overhang_mm = 0; }},
        {"smaller_cups", [](Documents&, Job& j, const auto& n) { j.pour.cup_l = n.at(0); }},
        {"screw_in", [](Documents&, Job& j, const auto&) { j.under.inserts = InsertKind::screw_in; }},
        {"allowance",
         [](Documents&, Job& j, const auto& n) {
             j.flat.allowance_mm = n.at(0);
             if (j.flat.rest_h <= 0) j.flat.rest_h = 24;
         }},
        {"by_sled", [](Documents&, Job& j, const auto&) { j.flat.by = FlatBy::sled; }},
        {"shallow_layers", [](Documents& d, Job&, const auto& n) { d.shop.sled.depth_mm = n.at(0); }},
        {"side_sawn", [](Documents&, Job& j, const auto& n) { j.top.live = n.at(0) > 0 ? LiveEdges::right : LiveEdges::left; }},
    };
    return all;
}

/// What might help, the gentlest first.
std::vector<Mend> ways(const Caution& c, const Documents& docs, const Job& job, const Plan& plan) {
    const auto& u = job.under;
    std::vector<Mend> out;
    const auto offer = [&](const char* edit, Phrase label, std::vector<double> takes = {}) {
        out.push_back({edit, std::move(label), std::move(takes)});
    };
    const Frame bench = plan.placement.frame();
    const std::optional<Vec2> uv = c.at ? std::optional(bench.from_slab(*c.at)) : std::nullopt;
    if (const auto in = c.ask("further_in_mm"); c.key == "lay.end_crack" && in && uv)
        for (const double by : {*in, *in + 10})
            offer("end_further_in", say("Cut {} further in · {} long", mm(by), mm(job.top.length_mm - by)), {by, uv->x > 0 ? 1.0 : -1.0});
    if (c.key == "lay.short" && !plan.lay->short_at.empty()) {
        double sides = 0;
        double ends = 0;
        for (const Shortfall& s : plan.lay->short_at) (is_end(s.side) ? ends : sides) += s.mm;
        if (sides > 0) {
            const double least = std::floor(job.top.width_mm - 2 * std::ceil(sides));
            for (const double w : {std::floor(job.top.width_mm - sides), least})
                if (w > 100) offer("narrower", say("Make it {} wide · −{}", mm(w), mm(job.top.width_mm - w)), {w});
        }
        if (ends > 0)
            for (const double l : {std::floor(job.top.length_mm - ends), std::floor(job.top.length_mm - 2 * ends)})
                if (l > 100) offer("shorter", say("Make it {} long · −{}", mm(l), mm(job.top.length_mm - l)), {l});
    }
    if (c.key == "lay.taper") {
        offer("side_sawn", say("Saw the right side straight"), {-1});
        offer("side_sawn", say("Saw the left side straight"), {1});
    }
    if (c.key == "lay.overlap" || c.key == "lay.banks_meet" || c.key == "lay.river_thin")
        for (const JointPlan& j : plan.makeup->joints) {
            const double least = std::min(j.above.narrowest_mm, j.below.narrowest_mm);
            if (!j.river || least >= 8) continue;
            const double by = std::ceil(8.5 - least);
            offer("apart", say("Draw the leaves apart · river {} wider", mm(by)), {by, static_cast<double>(j.right)});
        }
    if (c.key == "lay.rip_order") offer("rip_mark_away", say("Take the mark away: not ripped yet"));
    if (c.key == "lay.retired")
        for (std::size_t i = 0; i < job.leaves.size(); ++i)
            if (const auto it = docs.slabs.find(job.leaves[i].slab); it != docs.slabs.end() && it->second.retired)
                offer("back_on_the_rack", say("Bring it back to the rack"), {static_cast<double>(i)});
    if (c.key == "lay.rod_deep") {
        double depth = job.makeup.rod_depth_mm;
        for (int i = 0; i < 12 && depth > 20; ++i) {
            depth = std::floor(depth * 0.85);
            offer("rod_depth", say("Drill {} deep", mm(depth)), {depth});
        }
    }
    if (c.key == "lay.rod_thick")
        offer("rod", say("Take rods of {}", fine(std::floor(plan.flat->thickness_mm / 2))), {std::floor(plan.flat->thickness_mm / 2)});
    if (c.key == "flat.thin" && plan.flat->thickness_mm > 5) {
        double least = plan.flat->most_mm;
        for (const LeafPlan& l : plan.leaves) least = std::min(least, l.flat->most_mm);
        const double agreed = std::floor(least * 2) / 2;
        offer("thickness", say("Agree on {} · −{}", fine(agreed), fine(job.top.thickness_mm - agreed)), {agreed});
        offer("shared_out", say("Share it out with shims"));
    }
    if (c.key == "flat.unshimmed") offer("shared_out", say("Shim it: share it out"));
    if (c.key == "flat.rest") offer("rested", say("Let it rest · +{}", hours(24 - job.flat.rest_h)), {24});
    if (c.key == "flat.airtight") offer("air_on_both", say("Stand it with air on both faces"));
    if (c.key == "flat.rails") {
        double highest = 0;
        for (const LeafPlan& l : plan.leaves)
            for (const FacePlan& f : l.flat->faces) highest = std::max(highest, f.highest_mm);
        offer("rails", say("Raise the rails to {}", mm(std::ceil(highest))), {std::ceil(highest)});
    }
    if (c.key == "flat.stickout") {
        double over = 0;
        double highest = 0;
        for (const LeafPlan& l : plan.leaves)
            for (const FacePlan& f : l.flat->faces) {
                over = std::max(over, f.stickout_mm - docs.shop.sled.stickout_mm);
                highest = std::max(highest, f.highest_mm);
            }
        const double lower = std::floor(docs.shop.sled.rail_mm - over);
        if (lower >= highest) offer("rails", say("Lower the rails to {}", mm(lower)), {lower});
    }
    if (c.key == "flat.sag") {
        const double high = std::ceil(docs.shop.sled.beam_high_mm * std::cbrt(sled_sag_mm(docs.shop.sled) / 0.15));
        offer("beam_high", say("Build its beams {} high", mm(high)), {high});
    }
    if (c.key == "lay.not_parted") {
        std::vector<double> about;
        for (const LeafPart& l : plan.makeup->leaves) about.push_back(l.show.size() > 2 ? centroid(l.show).y : 0);
        if (about.size() == job.leaves.size()) offer("turn_all_over", say("Turn all leaves over"), about);
    }
    for (std::size_t i = 0; i < job.makeup.patches.size(); ++i) {
        const double which = static_cast<double>(i);
        if (c.key == "lay.patch_deep" || c.key == "lay.patch_thin")
            for (const double d : {12.0, 10.0, 8.0, 6.0, 4.0})
                if (d < job.makeup.patches[i].depth_mm) offer("patch_depth", say("Let it in {}", fine(d)), {which, d});
        if (c.key == "lay.patch_grain" && std::abs(job.makeup.patches[i].turn_deg) > 1)
            offer("patch_along", say("Turn its grain along"), {which});
    }
    if (c.key == "under.deep_channel")
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (const double half = std::floor(plan.top->thickness_mm / 2); u.channels[i].depth_mm > half && half > 5)
                offer("channel_deep", say("Take one {} deep", fine(half)), {static_cast<double>(i), half});
    if (c.key.rfind("under.hole_in_", 0) == 0 && uv)
        for (const double by : {30.0, 60.0, 90.0, 130.0, 180.0})
            for (const double side : {-1.0, 1.0}) {
                for (std::size_t i = 0; i < u.plates.size(); ++i)
                    if (contains(footprint(u.plates[i]), *uv))
                        offer("plate_to", say("Move the plate {} along", mm(by)), {static_cast<double>(i), u.plates[i].u_mm + side * by});
                for (std::size_t i = 0; i < u.channels.size(); ++i)
                    if (contains(footprint(u.channels[i]), *uv))
                        offer("channel_to", say("Slide the channel {} along", mm(by)),
                              {static_cast<double>(i), u.channels[i].u_mm + side * by});
            }
    if (c.key == "join.skins" || c.key == "join.close") {
        offer("helped", say("Get a helper"));
        offer("two_stages", say("Glue in two stages · +{}", hours(12)));
        offer("slow_glue", say("Take a slower glue"));
    }
    if (c.key == "join.cauls") offer("cauls", say("Saw cauls from the offcut"));
    if (c.key == "join.through" || c.key == "join.thick")
        for (const double t : {8.0, 6.0, 5.0, 4.0})
            if (t < job.join.loose_thick_mm) offer("thin_tenon", say("Take {} {} thick", pieces_name(job.join.loose), fine(t)), {t});
    if (c.key == "join.clash" && uv) {
        for (std::size_t i = 0; i < job.join.ties.size(); ++i)
            if (contains(outline_of(job.join.ties[i]), *uv))
                for (const double by : {30.0, 60.0, 100.0})
                    for (const double side : {-1.0, 1.0})
                        offer("tie_to", say("Move the bow tie {} along", mm(by)),
                              {static_cast<double>(i), job.join.ties[i].u_mm + side * by, job.join.ties[i].v_mm});
        for (const double by : {20.0, -20.0, 45.0, -45.0, 80.0})
            if (job.join.pitch_mm + by > 60) offer("pitch", say("One every {}", mm(job.join.pitch_mm + by)), {job.join.pitch_mm + by});
    }
    for (std::size_t i = 0; i < job.join.ties.size(); ++i) {
        const double which = static_cast<double>(i);
        if (c.key == "join.tie_along") offer("tie_across", say("Turn the bow tie across"), {which});
        if (const double third = std::round(plan.top->thickness_mm / 3); c.key == "join.tie_shallow" && job.join.ties[i].deep_mm < third)
            offer("tie_deep", say("Let it in {}", fine(third)), {which, third});
    }
    if (c.key == "pour.hot" || c.key == "pour.near" || c.key == "pour.label") {
        if (job.pour.lifts > 0) offer("lifts_as_needed", say("As many lifts as it needs"));
        if (!job.pour.fans) offer("fans", say("Set fans over it"));
    }
    if (const auto apart = c.ask("bearers_mm"); c.key == "pour.sags" && apart)
        offer("bearers", say("Bearers {} apart", mm(*apart)), {*apart});
    if (c.key == "pour.slope" || c.key == "pour.level") offer("level_form", say("Level the form"));
    if (c.key == "pour.overhang") offer("bench_to_the_end", say("Let its end lie on the bench"));
    if (c.key == "pour.pot" || c.key == "pour.cup") {
        const double l = c.key == "pour.pot" ? job.pour.pot_l / 2 : job.pour.cup_l / 2;
        for (const double cup : {l, l / 2, l / 4}) offer("smaller_cups", say("Batches of {}", litres(cup)), {cup});
    }
    if (c.key == "under.hammer_in") offer("screw_in", say("Take screw-in inserts"));
    if (const auto leave = c.ask("allowance_mm"); c.key == "flat.moves" && leave)
        offer("allowance", say("Leave {} on each face", fine(*leave)), {*leave});
    if (c.key == "flat.way") offer("by_sled", say("Take the sled"));
    if (c.key == "flat.deep" || c.key == "flat.power")
        for (const double d : {std::floor(docs.shop.sled.cutter_mm / 8), docs.shop.sled.depth_mm / 2})
            if (d >= 0.5 && d < docs.shop.sled.depth_mm) offer("shallow_layers", say("Layers of {}", fine(d)), {d});
    if (c.key == "flat.supports" || c.key == "flat.rocks" || c.key == "flat.support_off")
        offer("usual_supports", say("Lay four supports, a fifth in"));
    if (c.key == "fill.leak" && c.at)
        for (std::size_t i = 0; i < plan.leaves.size(); ++i)
            for (const VoidPlan& v : plan.leaves[i].fill->voids)
                for (std::size_t k = 0; k < docs.shop.resins.size(); ++k)
                    if (v.through && docs.shop.resins[k].key == v.advised && v.resin != v.advised)
                        offer("void_resin", say("Take {} · as advised", docs.shop.resins[k].label),
                              {static_cast<double>(i), static_cast<double>(v.flaw), static_cast<double>(k)});
    if (c.key == "under.no_plates") offer("usual_plates", say("Lay two plates, a fifth in"));
    if (c.key == "under.no_fixed") offer("odd_bolts", say("Take an odd number of bolts"));
    if (c.key == "under.few_bolts")
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (u.channels[i].bolts < 3) offer("channel_bolts", say("Take three bolts"), {static_cast<double>(i), 3});
    if (c.key == "under.bolts_near") {
        const auto fewer = [&](const char* edit, std::size_t i, int now) {
            for (int n = now - 1; n >= 1; --n)
                offer(edit, say("Take {} across", counted(n, "bolt", "bolts")), {static_cast<double>(i), double(n)});
        };
        for (std::size_t i = 0; i < u.plates.size(); ++i)
            if (uv && contains(footprint(u.plates[i]), *uv)) {
                fewer("plate_bolts", i, u.plates[i].bolts_across);
                if (u.plates[i].bolts_along > 1) offer("plate_one_row", say("Take one row of bolts"), {static_cast<double>(i)});
            }
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (uv && contains(footprint(u.channels[i]), *uv)) fewer("channel_bolts", i, u.channels[i].bolts);
    }
    if (c.key == "under.misses") {
        if (u.base == BaseKind::panels && !u.outline.empty()) offer("panels_round_plates", say("Stand the panels round the plates"));
        for (const Carries& k : plan.under->carries)
            if (k.misses_mm > 1)
                offer("plate_to", say("Move plate {} over the base", count(static_cast<double>(k.plate) + 1)),
                      {static_cast<double>(k.plate), k.nearest.x});
    }
    if (c.key == "under.channel_end")
        for (std::size_t i = 0; i < u.channels.size(); ++i) {
            const double most = job.top.length_mm / 2 - 200;
            if (std::abs(u.channels[i].u_mm) <= most || most < 0) continue;
            offer("channel_to", say("Move it in to {} from the end", mm(200)),
                  {static_cast<double>(i), std::copysign(most, u.channels[i].u_mm)});
        }
    if (c.key == "under.clash")
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            for (const LegPlate& p : u.plates)
                for (const double side : {-1.0, 1.0}) {
                    const double to = p.u_mm + side * (p.along_mm / 2 + u.channels[i].width_mm / 2 + 20);
                    if (intersection_area(footprint(u.channels[i]), footprint(p)) < 1) continue;
                    offer("channel_to", say("Slide the channel {} along", mm(std::abs(to - u.channels[i].u_mm))),
                          {static_cast<double>(i), to});
                }
    if (c.key == "under.outside")
        for (int k = 1; k <= 10; ++k) {
            for (std::size_t i = 0; i < u.plates.size(); ++i)
                if (intersection_area(footprint(u.plates[i]), plan.top->below) < area(footprint(u.plates[i])) - 1)
                    offer("plate_across", say("Take a plate {} across", mm(std::floor(u.plates[i].across_mm * (1 - 0.07 * k)))),
                          {static_cast<double>(i), std::floor(u.plates[i].across_mm * (1 - 0.07 * k))});
            for (std::size_t i = 0; i < u.channels.size(); ++i)
                if (intersection_area(footprint(u.channels[i]), plan.top->below) < area(footprint(u.channels[i])) - 1)
                    offer("channel_long", say("Take a channel {} long", mm(std::floor(u.channels[i].length_mm * (1 - 0.07 * k)))),
                          {static_cast<double>(i), std::floor(u.channels[i].length_mm * (1 - 0.07 * k))});
        }
    if (c.key == "under.through") {
        // From the highest floor that one starts at.
        double floor = 0;
        for (const Slot& s : plan.under->slots) floor = std::max(floor, s.floor_mm);
        const double deep = std::floor(plan.top->thickness_mm - u.least_above_mm - floor);
        if (deep >= u.bolt_mm) offer("insert", say("Take an insert {} deep", fine(deep)), {deep});
        for (std::size_t i = 0; i < u.channels.size(); ++i)
            if (const double pocket = std::floor(plan.top->thickness_mm - u.least_above_mm - u.insert_mm);
                pocket >= 5 && pocket < u.channels[i].depth_mm)
                offer("channel_deep", say("Take a channel {} deep", fine(pocket)), {static_cast<double>(i), pocket});
    }
    if (c.key == "under.lift") {
        const double people = std::ceil(plan.under->top_kg / 25);
        offer("helpers", say("Have {} there", counted(people, "person", "people")), {people});
    }
    if (c.key == "plan.range") offer("in_range", say("Take what it is planned with"));
    return out;
}

/// What a plan says of one key, and its stops in all.
struct Weight {
    int worst = -1, told = 0, stops = 0;
};
Weight weigh(const Plan& plan, const std::string& key) {
    Weight w;
    for (const StepRow& row : steps()) {
        if (row.on == StepRow::On::beside) continue;
        for (const Caution& c : row.says(plan)->cautions) {
            w.stops += c.severity == Severity::stop;
            if (c.key != key) continue;
            ++w.told, w.worst = std::max(w.worst, static_cast<int>(c.severity));
        }
    }
    return w;
}

}  // namespace

void mended(Documents& docs, const std::string& job, const Mend& mend) {
    const auto edit = edits().find(mend.edit);
    const auto it = docs.jobs.find(job);
    if (edit == edits().end() || it == docs.jobs.end())
        throw Refusal(say("This can't be mended any more. Look the job over; nothing was changed."));
    Documents tried = docs;  // half a mend is none
    try {
        edit->second(tried, tried.jobs.at(job), mend.takes);
    } catch (const std::exception&) {
        throw Refusal(say("This can't be mended any more: what it was about is gone. Nothing was changed."));
    }
    docs = std::move(tried);
}

std::optional<Mend> mend_of(const Caution& caution, const Documents& docs, const std::string& job, const Plan& plan, const Work& work) {
    const auto it = docs.jobs.find(job);
    if (it == docs.jobs.end()) return {};
    const auto all = ways(caution, docs, it->second, plan);
    if (all.empty()) return {};
    const Weight now = weigh(plan, caution.key);
    for (const Mend& m : all) {
        work.check();
        Documents tried;  // only what the plan needs
        tried.shop = docs.shop;
        tried.jobs[job] = it->second;
        for (const std::string& id : it->second.slabs())
            if (const auto s = docs.slabs.find(id); s != docs.slabs.end()) tried.slabs[id] = s->second;
        try {
            mended(tried, job, m);
            const Weight then = weigh(plan_job(tried.jobs.at(job), tried, plan.on_bench), caution.key);
            if ((then.worst < now.worst || then.told < now.told) && then.stops <= now.stops) return m;
        } catch (const std::exception&) {
            continue;
        }
    }
    return {};
}

}  // namespace yb
