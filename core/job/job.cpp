#include "core/job/job.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/lay/arrange.h"
#include "core/rack/rack.h"

namespace yb {

Shop::Shop() : air(generic_climates().back()) {}
Job::Job() : room(generic_climates().front()) {}

int month_of(const std::string& iso) { return is_date(iso) ? std::stoi(iso.substr(5, 2)) - 1 : 0; }

bool Job::uses(const std::string& slab) const {
    return std::any_of(leaves.begin(), leaves.end(), [&](const Leaf& l) { return l.slab == slab; });
}

std::vector<std::string> Job::slabs() const {
    std::vector<std::string> out;
    const auto take = [&](const std::string& one) {
        if (!one.empty() && std::find(out.begin(), out.end(), one) == out.end()) out.push_back(one);
    };
    for (const Leaf& l : leaves) take(l.slab);
    for (const Patch& p : makeup.patches) take(p.slab);
    return out;
}

std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool over) {
    auto p = std::make_shared<PreparedSlab>();
    p->ways = both_ways(slab);
    p->slab = p->ways->slab(over);
    p->shape = p->ways->shape(over);
    if (p->shape.usable) p->thickness_mm = means_of(p->shape).thickness_mm;
    p->figures = figures_of(p->slab, p->shape);
    return p;
}

namespace {

constexpr double dry_enough_pct = 10;  ///< for a heated room: a starting value

Figure drying_figure(const DryingForecast& f, const Slab& slab) {
    const auto days = [](double v) { return number(std::round(v)); };
    Figure out{"rack.drying", "Days until it is dry", days(f.days.value_or(0)), {}, {}, {}};
    if (!f.days) {
        out.label = "Moisture by now";
        out.value = percent(f.moisture_pct);
    }
    if (f.days)
        out.note = say("to {}, from the reading of " + slab.moisture_on + "; between {} and {}" +
                           (f.fitted ? "" : " – a guess until there are two readings"),
                       percent(dry_enough_pct), days(*f.soonest_days), days(*f.latest_days));
    else if (f.moisture_pct <= dry_enough_pct) out.note = say("it reads {}: dry enough for a heated room", percent(f.moisture_pct));
    else out.note = say("it settles at {} in this air and gets no drier: bring it into a warm room", percent(f.settles_pct));
    out.working = {"M(t) = Me + (M0 − Me)·e^(−t/τ)",
                   {{"M0", percent(f.moisture_pct), "last reading"},
                    {"Me", percent(f.settles_pct), "mean of the shop's air through the year"},
                    {"τ, days", days(f.tau_days),
                     f.fitted         ? "fitted to this slab's readings"
                     : slab.cross_cut ? "prior: about a season per 25 mm of a cross-cut"
                                      : "prior: about a year per 25 mm"}},
                   "Wood Handbook eq. 4-5 for Me; docs/methods.md, Drying"};
    return out;
}

}  // namespace

Plan plan_job(const Job& job, const Slab& slab, const Shop& shop) {
    return plan_job(job, JobSlabs{{prepare(slab, job.first().placement.turned_over)}}, shop);
}

Plan plan_job(const Job& job, const Documents& docs, int on_bench) {
    JobSlabs slabs;
    for (const Leaf& l : job.leaves) slabs.leaves.push_back(prepare(docs.slabs.at(l.slab), l.placement.turned_over));
    for (const Patch& p : job.makeup.patches) {
        const auto it = docs.slabs.find(p.slab);
        slabs.patches.push_back(it == docs.slabs.end() ? nullptr : both_ways(it->second));
    }
    return plan_job(job, slabs, docs.shop, {on_bench, {}, nullptr});
}

namespace {

using Prepared = std::vector<std::shared_ptr<const PreparedSlab>>;

/// What the rack says of the slab on the bench.
StepPlan rack_plan(const PreparedSlab& prepared, const Shop& shop) {
    StepPlan rack{prepared.shape.usable, prepared.figures, prepared.shape.cautions, {}};
    for (const Caution& c : look_over(prepared.slab, prepared.shape))
        if (!find_caution(rack.cautions, "rack" + c.key.substr(4))) rack.cautions.push_back(c);
    if (prepared.shape.usable)
        if (const auto dry =
                drying_of(prepared.slab, means_of(prepared.shape).thickness_mm, shop.air, dry_enough_pct, prepared.slab.moisture_on))
            rack.figures.push_back(drying_figure(*dry, prepared.slab));
    sort_by_severity(rack.cautions);
    return rack;
}

/// Every leaf flattened to one thickness, its voids filled.
/// @param fill_too false: fillings stay as they were.
std::vector<LeafPlan> leaf_plans(const Job& job, const Prepared& prepared, const MakeUpPlan& laid, const Shop& shop, double shop_c,
                                 const Plan* before, bool fill_too) {
    std::vector<LeafPlan> out;
    WantedTop top = job.top;
    FlatChoices flat = job.flat;
    double thickest = 1e300;
    for (std::size_t i = 0; i < prepared.size(); ++i) {
        out.push_back({prepared[i]->slab, prepared[i]->shape, laid.leaves[i].lay, {}, {}, {}});
        if (out[i].lay.ready) thickest = std::min(thickest, thickest_inside(out[i].shape, out[i].lay.outline).value_or(thickest));
    }
    // Leaves are matched: all come to what the thinnest can give.
    const double together = flat.finish == FinishTo::thickest ? thickest : std::min(top.thickness_mm, thickest);
    if (thickest < 1e299 && together > 0) {
        top.thickness_mm = together;
        flat.finish = FinishTo::wanted;
    }
    for (std::size_t i = 0; i < out.size(); ++i) {
        LeafPlan& l = out[i];
        l.flat_from = {prepared[i], l.lay.outline, l.lay.rough, top.thickness_mm, flat, shop.sled, job.leaves[i].supports};
        if (before && i < before->leaves.size() && before->leaves[i].flat_from == l.flat_from) l.flat = before->leaves[i].flat;
        else l.flat = plan_flat({l.slab, l.shape, l.lay, top, flat, shop.sled, job.leaves[i].supports});
        // Each is planned to the common thickness; the school that is chosen stays the job's.
        for (Choice& c : l.flat.choices)
            if (c.key == "flat.finish")
                for (Option& o : c.options) o.chosen = (o.key == "thickest") == (job.flat.finish == FinishTo::thickest);
        if (fill_too) l.fill = plan_fill({l.slab, l.shape, l.lay, l.flat, job.fill, shop.resins, shop_c, job.leaves[i].voids});
        else l.fill = before->leaves[i].fill;
    }
    return out;
}

void take_cautions(std::vector<Caution>& into, const std::vector<Caution>& from, const std::string& name, const Placement& leaf,
                   double half) {
    for (Caution c : from) {
        // What is the same for several leaves, like care with the router, is told once and of none.
        const auto told = std::find_if(into.begin(), into.end(), [&](const Caution& e) {
            const std::string& p = e.says.pattern;
            return !c.at && e.key == c.key && e.says.values == c.says.values && p.size() >= c.says.pattern.size() &&
                   p.compare(p.size() - c.says.pattern.size(), std::string::npos, c.says.pattern) == 0;
        });
        if (told != into.end()) {
            told->says.pattern = c.says.pattern;
            continue;
        }
        c.says.pattern = name + ": " + c.says.pattern;
        if (c.at) c.at = leaf.frame().from_slab(*c.at) + Vec2{half, 0};
        into.push_back(std::move(c));
    }
}

/// Flattening of all leaves told as that of one slab: the finished thickness, the hours in all.
FlatPlan whole_flat(const std::vector<LeafPlan>& leaves, const Job& job) {
    FlatPlan w;
    w.ready = std::all_of(leaves.begin(), leaves.end(), [](const LeafPlan& l) { return l.flat.ready; });
    w.thickness_mm = w.thickest_mm = 1e300;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const FlatPlan& f = leaves[i].flat;
        if (!f.ready) continue;
        w.thickness_mm = std::min(w.thickness_mm, f.thickness_mm);
        w.thickest_mm = std::min(w.thickest_mm, f.thickest_mm);
        w.hours += f.hours;
        for (std::size_t k = 0; k < 2; ++k) {
            w.faces[k].face = f.faces[k].face;
            w.faces[k].hours += f.faces[k].hours;
            w.faces[k].last_hours += f.faces[k].last_hours;
            w.faces[k].passes_cut += f.faces[k].passes_cut;
            w.faces[k].passes_all += f.faces[k].passes_all;
            w.faces[k].most_off_mm = std::max(w.faces[k].most_off_mm, f.faces[k].most_off_mm);
        }
        take_cautions(w.cautions, f.cautions, leaves[i].slab.name, job.leaves[i].placement, job.top.length_mm / 2);
    }
    if (!w.ready) w.thickness_mm = w.thickest_mm = 0;
    w.tilt.top_mm = w.tilt.thickness_mm = w.thickness_mm;
    const Surface none({0, job.top.length_mm}, {-job.top.width_mm / 2, job.top.width_mm / 2}, {0, 0, 0, 0});
    w.off_top = w.off_bottom = none;
    sort_by_severity(w.cautions);
    return w;
}

FillPlan whole_fill(const std::vector<LeafPlan>& leaves, const Job& job, const Shop& shop, double water_mm2, double thickness) {
    FillPlan w;
    w.ready = true;
    std::size_t flaws = 0;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const FillPlan& f = leaves[i].fill;
        for (VoidPlan v : f.voids) {
            v.flaw += flaws;
            v.at = job.leaves[i].placement.frame().from_slab(v.at) + Vec2{job.top.length_mm / 2, 0};
            w.voids.push_back(std::move(v));
        }
        flaws += leaves[i].slab.flaws.size();
        w.volume_l += f.volume_l, w.mixed_l += f.mixed_l, w.open_l += f.open_l, w.mass_kg += f.mass_kg;
        w.hands_on_h += f.hands_on_h, w.wait_h = std::max(w.wait_h, f.wait_h), w.rounds = std::max(w.rounds, f.rounds);
        take_cautions(w.cautions, f.cautions, leaves[i].slab.name, job.leaves[i].placement, job.top.length_mm / 2);
    }
    const double river_l = water_mm2 * thickness * 1e-6;
    if (job.makeup.kind == MakeUp::river) w.volume_l += river_l, w.mass_kg += river_l * river_resin(shop.resins).mixed_density();
    if (job.makeup.kind == MakeUp::open_river) w.open_l += river_l;
    sort_by_severity(w.cautions);
    return w;
}

/// The whole top as one slab lying at whole_placement().
Slab whole_slab(const Job& job, const std::vector<LeafPlan>& leaves) {
    Slab w;
    w.name = std::to_string(leaves.size()) + " leaves, " + leaves.front().slab.tree;
    w.species = leaves.front().slab.species;
    w.tree = leaves.front().slab.tree;
    w.cross_cut = leaves.front().slab.cross_cut;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const Slab& s = leaves[i].slab;
        if (s.moisture_pct) w.moisture_pct = std::max(w.moisture_pct.value_or(0), *s.moisture_pct);
        const Frame f = job.leaves[i].placement.frame();
        for (Flaw flaw : s.flaws) {
            flaw.id = std::to_string(i + 1) + "/" + flaw.id;
            for (Vec2& p : flaw.outline) p = f.from_slab(p) + Vec2{job.top.length_mm / 2, 0};
            w.flaws.push_back(std::move(flaw));
        }
    }
    return w;
}

/// How many cuts there are; its working is the list of them.
Figure cuts_figure(const CutList& list, const MakeUpChoices& choices, const Units& units) {
    Figure f{"lay.cuts",
             "Cuts, and offcuts to keep",
             count(static_cast<double>(list.cuts.size())),
             count(static_cast<double>(list.offcuts.size())),
             say("{} of kerf each; the list is on the sheet", fine(choices.rip_kerf_mm)),
             {"rough cuts first; rips, ends and sides after both faces are flat", {}, ""}};
    for (const Cut& c : list.cuts)
        f.working.given.push_back({std::string(name_of(c.kind)) + ", " + c.slab, mm(c.length_mm), render(c.set, units)});
    for (const Offcut& o : list.offcuts)
        f.working.given.push_back({"keep: " + o.name, mm(o.length_mm), "about " + format(mm(o.width_mm), units) + " wide"});
    return f;
}

/// The ways the same slabs could be laid together, with what each gains and loses.
Choice makeup_choice(const Job& job, const Prepared& prepared) {
    Choice c{"lay.makeup", "Made up as", {}};
    std::vector<std::shared_ptr<const Board2>> boards;
    for (const auto& p : prepared) boards.push_back(p->ways);
    const auto offer = [&](MakeUp kind, const char* key, const char* label) {
        const Arrangement a = arrange(kind, boards, job.top, job.makeup);
        Phrase what =
            a.possible ? is_river(kind)
                             ? say("{} wide, ends differ by {}, river {}", mm(a.width_mm), mm(a.taper_mm), mm(job.makeup.river_mm))
                             : say("{} wide, ends differ by {}, {} given up at the rips", mm(a.width_mm), mm(a.taper_mm), mm(a.given_up_mm))
                       : say(a.why_not);
        c.options.push_back({key, label, std::move(what), job.makeup.kind == kind});
    };
    if (prepared.size() == 2) {
        offer(MakeUp::book, "book", "Opened like a book");
        offer(MakeUp::slip, "slip", "Side by side, same face up");
    } else if (prepared.size() <= 4) {
        offer(MakeUp::boards, "boards", "Middle opened, outer drawn out");
    }
    offer(MakeUp::river, "river", "A resin river");
    offer(MakeUp::open_river, "open_river", "An open river on rods");
    return c;
}

Choice line_choice(const Job& job) {
    return {"makeup.line",
            "Rip line",
            {{"same", "The same line in the log", say("the mirror holds; the narrower leaf decides"), job.makeup.same_line},
             {"own", "Each leaf its own", say("keeps more width; the figure no longer meets"), !job.makeup.same_line}}};
}

void plan_several(Plan& p, const Job& job, const Prepared& prepared, const Shop& shop, bool quick, const Plan* before, bool fill_too) {
    MakeUpInputs in{{}, job.top, job.makeup, quick, shop.bushings_mm};
    bool same_slabs = before && before->leaves.size() == prepared.size();
    for (std::size_t i = 0; i < prepared.size(); ++i) {
        in.leaves.push_back({prepared[i]->slab, prepared[i]->shape, job.leaves[i].placement});
        same_slabs = same_slabs && before->leaves[i].flat_from.slab == prepared[i];
    }
    if (same_slabs) in.before = &before->makeup;
    LaidTogether laid = plan_makeup(in);
    p.makeup = std::move(laid.plan);
    p.lay = std::move(laid.lay);
    p.placement = whole_placement(job.top);
    if (!p.lay.ready) {
        for (std::size_t i = 0; i < prepared.size(); ++i)
            if (!prepared[i]->shape.usable)
                p.lay.cautions.push_back({"lay.unmeasured",
                                          Severity::stop,
                                          Step::lay,
                                          say((prepared[i]->slab.name.empty() ? "A slab of this top" : prepared[i]->slab.name) +
                                              " is not measured yet, or no longer in the shop. Measure it on the rack, or choose another."),
                                          {}});
        return;
    }
    p.leaves = leaf_plans(job, prepared, p.makeup, shop, p.shop_air.temp_c, before, fill_too);
    p.flat = whole_flat(p.leaves, job);
    p.fill = whole_fill(p.leaves, job, shop, p.makeup.water_mm2, p.flat.thickness_mm);
    p.slab = whole_slab(job, p.leaves);
    p.shape.ring_a = p.lay.outline;
    p.shape.ring_b = laid.under;
    p.shape.x1 = job.top.length_mm;
    const std::vector<double> xs{0, job.top.length_mm};
    const std::vector<double> ys{-job.top.width_mm / 2, job.top.width_mm / 2};
    p.shape.top = Surface(xs, ys, std::vector<double>(4, std::max(1.0, p.flat.thickness_mm)));
    p.shape.bottom = Surface(xs, ys, std::vector<double>(4, 0.0));
    p.shape.usable = true;
    for (const JointPlan& j : p.makeup.joints) {
        if (j.river) continue;
        const auto side = [&](std::size_t i) {
            return SeamSide{p.leaves[i].slab, p.leaves[i].shape, &p.leaves[i].flat, job.leaves[i].placement, prepared[i]->thickness_mm};
        };
        p.seams.push_back(likeness_of(side(j.right), side(j.left), j, job.makeup.mill_kerf_mm));
    }
    // The opened pair is what is told: it is the middle one.
    if (!p.seams.empty()) {
        const std::size_t k = p.seams.size() / 2;
        tell_likeness(p.seams[k], p.makeup.joints[k], job.makeup, p.lay, job.top.length_mm / 2);
        sort_by_severity(p.lay.cautions);
    }
    if (quick) return;
    p.lay.choices.insert(p.lay.choices.begin(), makeup_choice(job, prepared));
    if (job.makeup.kind == MakeUp::book || job.makeup.kind == MakeUp::boards) p.lay.choices.push_back(line_choice(job));
    if (job.makeup.kind == MakeUp::boards)
        p.lay.choices.push_back(
            {"makeup.ends",
             "Outer boards",
             {{"straight", "Drawn straight out", say("the sequence stays"), !job.makeup.ends_swapped},
              {"swapped", "Turned end for end", say("the width comes out even; the sequence is given up"), job.makeup.ends_swapped}}});
    if (job.makeup.kind == MakeUp::river)
        p.lay.choices.push_back(
            {"makeup.colours",
             "The river",
             {{"one", "One colour", say("poured in one go"), !job.makeup.two_colours},
              {"two", "Two colours, a divider between", say("{} of divider, taken out when the first has gelled", mm(job.top.length_mm)),
               job.makeup.two_colours}}});
}

}  // namespace

Plan plan_job(const Job& job, const JobSlabs& slabs, const Shop& shop, const PlanFor& wanted) {
    const Prepared& prepared = slabs.leaves;
    const int on_bench = wanted.on_bench;
    const Plan* before = wanted.before;
    // While something is dragged, later steps stand still.
    const bool still = wanted.dragged_in && before && before->on_bench == on_bench && before->lay.ready &&
                       before->leaves.size() == (prepared.size() > 1 ? prepared.size() : 0);
    const auto asked = [&](Step step) { return !still || *wanted.dragged_in >= step; };
    Plan p;
    p.patches = slabs.patches;
    p.patches.resize(job.makeup.patches.size());
    p.on_bench = on_bench;
    p.shop_air = shop.air.months[static_cast<std::size_t>(month_of(job.start))];
    p.shop_settles_pct = equilibrium_moisture(p.shop_air.temp_c, p.shop_air.rh_pct);
    const PreparedSlab& looked_at = *prepared.at(on_bench == whole_top ? 0 : static_cast<std::size_t>(on_bench));
    p.rack = rack_plan(looked_at, shop);
    if (prepared.size() > 1) {
        plan_several(p, job, prepared, shop, wanted.dragged_in.has_value(), before, asked(Step::fill));
    } else {
        const Leaf& leaf = job.first();
        p.slab = looked_at.slab;
        p.shape = looked_at.shape;
        p.placement = leaf.placement;
        p.lay = plan_lay({p.slab, p.shape, job.top, leaf.placement});
        p.flat = plan_flat({p.slab, p.shape, p.lay, job.top, job.flat, shop.sled, leaf.supports});
        if (asked(Step::fill)) p.fill = plan_fill({p.slab, p.shape, p.lay, p.flat, job.fill, shop.resins, p.shop_air.temp_c, leaf.voids});
        else p.fill = before->fill;
    }
    std::vector<LeafIn> in;
    std::vector<const LayPlan*> lays;
    for (std::size_t i = 0; i < prepared.size() && p.lay.ready; ++i) {
        in.push_back({prepared[i]->slab, prepared[i]->shape, job.leaves[i].placement});
        lays.push_back(prepared.size() > 1 ? &p.leaves[i].lay : &p.lay);
    }
    const PatchInputs patches{job.makeup, p.patches, in, lays, shop.bushings_mm, p.flat.thickness_mm, p.placement.frame()};
    if (p.lay.ready) tell_patches(patches, p.lay);
    std::vector<Ring> gaps;
    if (job.makeup.kind == MakeUp::open_river)
        for (const JointPlan& j : p.makeup.joints) {
            gaps.push_back(j.water);
            for (Vec2& q : gaps.back()) q.x += job.top.length_mm / 2;
        }
    if (asked(Step::under))
        p.under = plan_under({p.slab, p.shape, p.lay, p.flat, p.fill, job.top, p.placement, job.under, job.room, p.shop_air, gaps});
    else p.under = before->under;
    if (still) p.days = before->days;
    else p.days = plan_days({p.lay, p.flat, p.fill, p.under, job.flat, job.start, shop.workday, job.makeup.kind, p.makeup.joints.size()});
    if (p.lay.ready) {
        p.cuts = cuts_of(in, lays, p.makeup, job.top, job.makeup);
        add_patch_cuts(patches, p.cuts);
        p.lay.figures.push_back(cuts_figure(p.cuts, job.makeup, shop.units));
    }
    if (on_bench != whole_top && static_cast<std::size_t>(on_bench) < p.leaves.size()) {
        const LeafPlan& l = p.leaves[static_cast<std::size_t>(on_bench)];
        p.slab = l.slab, p.shape = l.shape, p.flat = l.flat, p.fill = l.fill;
        p.placement = job.leaves[static_cast<std::size_t>(on_bench)].placement;
        // What the lay says stays that of the whole; where it lies is the leaf's own.
        StepPlan said = std::move(p.lay);
        p.lay = l.lay;
        p.lay.figures = std::move(said.figures), p.lay.cautions = std::move(said.cautions), p.lay.choices = std::move(said.choices);
    } else if (on_bench != whole_top && prepared.size() > 1) {
        p.slab = looked_at.slab;
        p.shape = looked_at.shape;
    }
    for (const Step s : {Step::rack, Step::lay, Step::flat, Step::fill, Step::under}) {
        const auto& list = p.said(s).cautions;
        p.sheets.cautions.insert(p.sheets.cautions.end(), list.begin(), list.end());
    }
    sort_by_severity(p.sheets.cautions);
    return p;
}

const StepPlan& Plan::said(Step step) const {
    switch (step) {
        case Step::rack: return rack;
        case Step::lay: return lay;
        case Step::flat: return flat;
        case Step::fill: return fill;
        case Step::under: return under;
        case Step::sheets: break;
    }
    return sheets;
}

}  // namespace yb
