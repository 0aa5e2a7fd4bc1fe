// Lay as a row of the table: one slab or several laid together, and what is told of them once they are flattened.
#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/ground/calendar/calendar.h"
#include "core/ground/figure/choice.h"
#include "core/ground/work/kept.h"
#include "core/shop/edit/edits.h"
#include "core/shop/rows/row.h"
#include "core/steps/join/join.h"
#include "core/steps/lay/place.h"
#include "core/steps/makeup/cuts.h"
#include "core/steps/makeup/makeup_told.h"
#include "core/steps/match/likeness.h"
#include "core/steps/patch/patch.h"
#include "core/steps/top/told.h"

namespace yb {

namespace of_lay {

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
Choice makeup_choice(const Planning& w) {
    std::vector<std::shared_ptr<const BothWays>> boards;
    for (const auto& p : w.slabs.leaves) boards.push_back(p->ways);
    // Asked at every plan, and nothing of it changes while leaves are moved.
    using Question = std::tuple<MakeUp, std::vector<std::shared_ptr<const BothWays>>, WantedTop, MakeUpChoices>;
    static Kept<Question, Arrangement> kept(8);
    const auto says = [&](MakeUp kind) {
        const Arrangement a =
            kept.answer({kind, boards, w.job.top, w.job.makeup}, [&] { return arrange(kind, boards, w.job.top, w.job.makeup); });
        if (!a.possible) return a.why_not;
        return is_river(kind)
                   ? say("{} wide, ends differ by {}, river {}", mm(a.width_mm), mm(a.taper_mm), mm(w.job.makeup.river_mm))
                   : say("{} wide, ends differ by {}, {} given up at the rips", mm(a.width_mm), mm(a.taper_mm), mm(a.given_up_mm));
    };
    const std::size_t n = boards.size();
    std::vector<Phrase> all;
    for (const MakeUp kind : make_ups.values) {
        const bool offered = is_river(kind)                                 ? n >= 2
                             : kind == MakeUp::book || kind == MakeUp::slip ? n == 2
                                                                            : kind == MakeUp::boards && n > 2 && n <= 4;
        all.push_back(offered ? says(kind) : Phrase{});
    }
    return choice_of(make_ups, w.job.makeup, std::move(all));
}

/// Soft wood on the faces that an arrangement shows, inside the wanted top, mm².
double rot_shown(const Arrangement& a, const std::vector<std::shared_ptr<const BothWays>>& boards, const WantedTop& top) {
    double sum = 0;
    for (std::size_t i = 0; i < a.order.size(); ++i) {
        const Slab& s = boards[a.order[i]]->slab(a.placements[i].turned_over);
        const Frame f = a.placements[i].frame();
        for (const Flaw& flaw : s.flaws)
            if (flaw.kind == FlawKind::soft && flaw.outline.size() > 2 && (flaw.through || flaw.face == Face::a))
                sum += intersection_area(f.from_slab(flaw.outline), box_ring({0, 0}, top.length_mm, a.width_mm));
    }
    return sum;
}

/// The set as it lies, and turned over: what of rot shows, what of the width is left, how far apart the figures that meet.
void faces_choice(const Planning& w, LayPlan& lay) {
    std::vector<std::shared_ptr<const BothWays>> boards;
    for (const auto& p : w.slabs.leaves) boards.push_back(p->ways);
    using Question = std::tuple<MakeUp, std::vector<std::shared_ptr<const BothWays>>, WantedTop, MakeUpChoices>;
    static Kept<Question, Arrangement> kept(4);
    MakeUpChoices m = w.job.makeup;
    const bool matched = m.kind == MakeUp::book || m.kind == MakeUp::boards;
    std::vector<Phrase> all;
    for (const bool outer : faces_shown.values) {
        m.outer_faces = outer;
        const Arrangement a = kept.answer({m.kind, boards, w.job.top, m}, [&] { return arrange(m.kind, boards, w.job.top, m); });
        if (!a.possible) {
            all.push_back(a.why_not);
            continue;
        }
        double thick = 0;
        for (const auto& p : w.slabs.leaves) thick += p->thickness_mm / static_cast<double>(w.slabs.leaves.size());
        const Quantity rot = count(std::round(rot_shown(a, boards, w.job.top) / 100));
        all.push_back(matched ? say("{} cm² of rot shows, {} wide; in the log the figures that meet lay {} apart", rot, mm(a.width_mm),
                                    fine(m.mill_kerf_mm + (outer ? 2 * thick : 0)))
                              : say("{} cm² of rot shows, {} wide", rot, mm(a.width_mm)));
    }
    lay.choices.push_back(choice_of(faces_shown, w.job.makeup, std::move(all)));
}

void several_choices(const Planning& w, LayPlan& lay) {
    const MakeUpChoices& m = w.job.makeup;
    lay.choices.insert(lay.choices.begin(), makeup_choice(w));
    if (m.kind == MakeUp::book || m.kind == MakeUp::boards)
        lay.choices.push_back(choice_of(
            rip_lines, m, {say("the mirror holds; the narrower leaf decides"), say("keeps more width; the figure no longer meets")}));
    if (m.kind == MakeUp::boards)
        lay.choices.push_back(
            choice_of(outer_boards, m, {say("the sequence stays"), say("the width comes out even; the sequence is given up")}));
    faces_choice(w, lay);
    if (m.kind == MakeUp::river)
        lay.choices.push_back(choice_of(
            river_colours, m,
            {say("poured in one go"),
             say("{} of divider, taken out when the first has gelled; each its own litres and batches in Pour", mm(w.job.top.length_mm))}));
}

/// Nothing can be laid on what is not measured: which slab that is.
void unmeasured(Planning& w) {
    for (std::size_t i = 0; i < w.leaves.size(); ++i)
        if (!w.slab(i).shape.usable)
            w.lay->cautions.push_back({"lay.unmeasured", Severity::stop, step_key::lay,
                                       say("{} is not measured yet, or no longer in the shop. Measure it on the rack, or choose another.",
                                           w.slab(i).slab.name.empty() ? std::string("A slab of this top") : w.slab(i).slab.name)});
    w.leaves.clear();
}

void lay_several(Planning& w) {
    MakeUpInputs in{w.leaves, w.job.top, w.job.makeup, w.quick, w.shop.bushings_mm};
    const Plan* b = w.before();
    bool same_slabs = b && b->leaves.size() == w.leaves.size() && b->makeup->leaves.size() == w.leaves.size();
    for (std::size_t i = 0; same_slabs && i < w.leaves.size(); ++i) same_slabs = b->leaves[i].made == w.slabs.leaves[i];
    if (same_slabs) in.before = b->makeup.get();
    LaidTogether laid = plan_makeup(in);
    const auto makeup = std::make_shared<MakeUpPlan>(std::move(laid.plan));
    w.p.makeup = makeup;
    *w.lay = std::move(laid.lay);
    w.p.placement = whole_placement(w.job.top);
    if (!w.lay->ready) return unmeasured(w);
    for (std::size_t i = 0; i < w.leaves.size(); ++i) {
        w.p.leaves[i].lay = std::shared_ptr<const LayPlan>(makeup, &makeup->leaves[i].lay);
        w.lays.push_back(w.p.leaves[i].lay.get());
    }
}

void plan(Planning& w) {
    w.lay = std::make_shared<LayPlan>();
    for (std::size_t i = 0; i < w.slabs.leaves.size(); ++i)
        w.leaves.push_back({w.slab(i).slab, w.slab(i).shape, w.job.leaves.at(i).placement});
    if (w.several()) {
        lay_several(w);
    } else {
        w.p.placement = w.leaves[0].placement;
        *w.lay = plan_lay({w.leaves[0].slab, w.leaves[0].shape, w.job.top, w.leaves[0].placement});
        w.p.leaves[0].lay = std::make_shared<LayPlan>(*w.lay);
        w.lays.push_back(w.p.leaves[0].lay.get());
        if (!w.lay->ready) unmeasured(w);
    }
    if (w.job.start.empty() || !is_date(w.job.start))
        w.lay->cautions.push_back({"lay.no_date",
                                   Severity::note,
                                   step_key::lay,
                                   say("The job's first day is not said: its days are counted, not dated. Type it as 2026-11-30."),
                                   {},
                                   {},
                                   "start"});
    w.p.lay = w.lay;
}

/// What this slab would give where the wanted top is short: it hangs on the slab and the top, not on where it lies now.
Trade trade(std::shared_ptr<const PreparedSlab> slab, const WantedTop& top) {
    static Kept<std::pair<std::shared_ptr<const PreparedSlab>, WantedTop>, Trade> kept(4);
    return kept.answer({slab, top}, [&] { return trade_of(slab->shape, top); });
}

void tell_trade(const Planning& w) {
    const WantedTop& top = w.job.top;
    if (w.several() || w.quick || w.lay->short_at.empty() || top.shape != TopShape::rectangle) return;
    const Trade t = trade(w.slabs.leaves[0], top);
    const double wide = std::floor(t.wide_mm);
    Phrase says = t.fits ? say("It lies whole elsewhere in this slab, at {} from the left end.",
                               along(t.at_length.placement.x_mm - w.slabs.leaves[0]->shape.x0))
                  : wide > 0 && t.length_mm > 0
                      ? say("Nowhere in this slab {} by {}: {} long gives {} wide, {} wide gives {} long.", mm(top.length_mm),
                            mm(top.width_mm), mm(top.length_mm), mm(wide), mm(top.width_mm), mm(t.length_mm))
                  : wide > 0        ? say("Nowhere in this slab {} by {}: {} long gives {} wide, so wide it is nowhere.", mm(top.length_mm),
                                          mm(top.width_mm), mm(top.length_mm), mm(wide))
                  : t.length_mm > 0 ? say("Nowhere in this slab {} by {}: it is too short; {} wide gives {} long.", mm(top.length_mm),
                                          mm(top.width_mm), mm(top.width_mm), mm(t.length_mm))
                                    : say("Nowhere in this slab {} by {}, nor one of the two alone.", mm(top.length_mm), mm(top.width_mm));
    w.lay->cautions.push_back({"lay.trade", Severity::note, step_key::lay, std::move(says)});
}

void told(Planning& w) {
    if (!w.lay || !w.lay->ready || w.lays.empty()) return;
    const Job& job = w.job;
    tell_trade(w);
    if (w.several()) {
        auto seams = std::make_shared<std::vector<Likeness>>();
        const auto side = [&](std::size_t i) {
            return SeamSide{w.slab(i).slab, w.slab(i).shape, w.p.leaves[i].flat.get(), job.leaves[i].placement, w.slab(i).thickness_mm};
        };
        for (const JointPlan& j : w.p.makeup->joints)
            if (!j.river) seams->push_back(likeness_of(side(j.right), side(j.left), j, job.makeup.mill_kerf_mm));
        // The opened pair is what is told: it is the middle one.
        if (!seams->empty()) {
            const std::size_t k = seams->size() / 2;
            tell_likeness((*seams)[k], w.p.makeup->joints[k], job.makeup, *w.lay, job.top.length_mm / 2);
        }
        w.p.seams = seams;
        if (!w.quick) several_choices(w, *w.lay);
    }
    if (w.several() && is_river(job.makeup.kind)) tell_rivers(*w.p.top, *w.p.makeup, job.makeup, *w.lay);
    const PatchInputs patches{job.makeup, w.p.patches, w.leaves, w.lays, w.shop.bushings_mm, w.p.flat->thickness_mm, w.p.placement.frame(),
                              w.top.get()};
    tell_patches(patches, *w.lay);
    auto cuts = std::make_shared<CutList>(
        cuts_of(w.leaves, w.lays, *w.p.makeup, job.top, job.makeup, job.join.spring == Spring::hollow ? job.join.spring_mm : 0));
    add_patch_cuts(patches, *cuts);
    w.lay->figures.push_back(cuts_figure(*cuts, job.makeup, w.shop.units));
    w.p.cuts = cuts;
    // What was sawn for this very job has left the rack by right.
    if (w.job.cuts_done) std::erase_if(w.lay->cautions, [](const Caution& c) { return c.key == "lay.retired"; });
    sort_by_severity(w.lay->cautions);
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"lay", "lay", {{"dry"}, {"settle"}}},
        {"rough", "lay", {{"lay"}}, {"base_order", "buy_resin", "buy_finish"}},
        {"bark", "lay", {}, {"rough"}},
        {"rip", "lay", {{"flat1", "T1"}, {"flat2", "T1"}, {"last", "T1"}}},  // straight edges are sawn on flat faces
        {"rods", "lay", {}, {"rip"}},
        {"cut", "lay", {{"topup", "T39"}, {"touchup", "T39"}}, {"inner"}},
    };
    return all;
}

/// Metres of the cuts before the faces are flat, or after.
double cut_m(const CutList& list, bool after_flat) {
    double mm = 0;
    for (const Cut& c : list.cuts) mm += c.after_flat == after_flat && c.kind != CutKind::rip ? c.length_mm : 0;
    return mm / 1000;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    const StepPlan& says = *w.p.lay;
    const Labour& l = w.shop.labour;
    const WantedTop& top = w.job.top;
    const double leaves = static_cast<double>(w.job.leaves.size()), m2 = top.length_mm * top.width_mm * 1e-6;
    give(out, says, "lay", "Lay", step_key::lay,
         Task().set_up(l.lay_min).add("slab", leaves, l.lay_slab_min).add("m² of top", m2, l.lay_m2_min), 0);
    if (w.job.flat.by != FlatBy::bought_flat)  // what came flat is cut to size at once
        give(out, says, "rough", "Rough-cut", step_key::lay,
             Task().set_up(l.saw_set_min).add("m of cut", w.p.cuts ? cut_m(*w.p.cuts, false) : 0, l.saw_m_min), 0);
    if (const double bark = w.p.join ? w.p.join->bark_mm : 0; bark > 0 && !w.job.join.bark_kept)
        give(out, says, "bark", "Bark off", step_key::lay, Task().add("m of bark", bark / 1000, l.bark_m_min), 0);
    const std::size_t joints = w.p.makeup->joints.size();
    const double n = static_cast<double>(joints), long_m = top.length_mm / 1000;
    if (joints > 0 && !is_river(w.job.makeup.kind)) {
        give(out, says, "rip", "Rip", step_key::lay,
             Task().add("joint set up", n, l.rip_set_min).add("m of edge", 2 * n * long_m, l.rip_m_min), 0);
    } else if (joints > 0 && w.job.makeup.kind != MakeUp::river) {
        double rods = 0;
        if (w.top)
            for (const RiverRun& r : w.top->rivers) rods += static_cast<double>(r.rods.size());
        give(out, says, "rods", "Rods", step_key::lay, Task().add("joint set up", n, l.rod_set_min).add("rod", rods, l.rod_min), 0);
    }
    give(out, says, "cut", "To size", step_key::lay,
         Task().set_up(l.saw_set_min).add("m of cut", w.p.cuts ? cut_m(*w.p.cuts, true) : 0, l.saw_m_min), 0);
}

std::vector<std::optional<double>> drifts(const Plan& plan) {
    std::vector<std::optional<double>> out;
    if (!plan.makeup || !plan.seams) return out;
    std::size_t seam = 0;
    for (const JointPlan& j : plan.makeup->joints)
        out.push_back(j.river || seam >= plan.seams->size() ? std::nullopt : std::optional((*plan.seams)[seam++].worst_mm));
    return out;
}

void things(const ThingsAsk& a, std::vector<Thing>& out) {
    if (!a.plan.whole()) add(out, flaw_things(*a.plan.slab(), *a.plan.shape()));
    if (a.plan.makeup) add(out, joint_things(*a.plan.makeup, a.job.makeup, a.bench, drifts(a.plan)));
}

void fields_of(FieldVisitor& v, Job& j) {
    v.object({"top", "Wanted top"}, j.top);
    v.list({"leaves", "Leaves, from the right"}, j.leaves);
    v.object({"makeup", "Make-up"}, j.makeup);
}

void hold(Held& h) {
    h.at_most(h.job.leaves, most_leaves, counted(0, "leaf", "leaves"), step_key::lay);
    h.at_most(h.job.makeup.patches, 60, counted(0, "patch", "patches"), step_key::lay);
    for (Patch& patch : h.job.makeup.patches) h.fewer_points(patch.outline, "A patch", step_key::lay);
    h.fewer_points(h.job.top.free_form, "The top's free form", step_key::lay);
}

void empty(Plan& p) {
    p.lay = no<LayPlan>(), p.makeup = no<MakeUpPlan>(), p.seams = no<std::vector<Likeness>>(), p.cuts = no<CutList>();
    for (LeafPlan& l : p.leaves) l.lay = p.lay;
}

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"end_further_in", [](Documents&, Job& j, const Takes& n) { shorten(j, n.at(0), n.at(1)); }},
        {"narrower", [](Documents&, Job& j, const Takes& n) { j.top.width_mm = n.at(0); }},
        {"shorter", [](Documents&, Job& j, const Takes& n) { j.top.length_mm = n.at(0); }},
        {"lay_anew",
         [](Documents&, Job& j, const Takes& n) {
             j.top.length_mm = n.at(0), j.top.width_mm = n.at(1);
             Placement& p = j.leaves.front().placement;
             p.x_mm = n.at(2), p.y_mm = n.at(3), p.angle_deg = n.at(4);
         }},
        {"apart",
         [](Documents&, Job& j, const Takes& n) {
             // Half of it to either side, so that the river stays in the middle.
             for (std::size_t i = 0; i < j.leaves.size(); ++i)
                 move_by(j.leaves[i].placement, {0, (i <= index(n.at(1)) ? -0.5 : 0.5) * n.at(0)});
         }},
        {"rip_mark_away", [](Documents&, Job& j, const Takes&) { j.makeup.ripped = false; }},
        {"back_on_the_rack", [](Documents& d, Job& j, const Takes& n) { d.slabs.at(j.leaves.at(index(n.at(0))).slab).retired = false; }},
        {"rod_depth", [](Documents&, Job& j, const Takes& n) { j.makeup.rod_depth_mm = n.at(0); }},
        {"rod", [](Documents&, Job& j, const Takes& n) { j.makeup.rod_mm = n.at(0); }},
        {"turn_all_over",
         [](Documents&, Job& j, const Takes& n) {
             for (std::size_t i = 0; i < j.leaves.size(); ++i) turn_over(j, static_cast<int>(i), n.at(i));
         }},
        {"patch_depth", [](Documents&, Job& j, const Takes& n) { j.makeup.patches.at(index(n.at(0))).depth_mm = n.at(1); }},
        {"patch_along", [](Documents&, Job& j, const Takes& n) { j.makeup.patches.at(index(n.at(0))).turn_deg = 0; }},
        {"side_sawn", [](Documents&, Job& j, const Takes& n) { j.top.live = n.at(0) > 0 ? LiveEdges::right : LiveEdges::left; }},
    };
    return all;
}

/// What might help, the gentlest first.
void mends(const MendAsk& a) {
    const Caution& c = a.caution;
    if (const auto in = c.ask("further_in_mm"); c.key == "lay.end_crack" && in && a.uv)
        for (const double by : {*in, *in + 10})
            a.offer("end_further_in", say("Cut {} further in · {} long", mm(by), mm(a.job.top.length_mm - by)),
                    {by, a.uv->x > 0 ? 1.0 : -1.0});
    if (c.key == "lay.short" && !a.plan.lay->short_at.empty()) {
        double sides = 0;
        double ends = 0;
        for (const Shortfall& s : a.plan.lay->short_at) (is_end(s.side) ? ends : sides) += s.mm;
        if (sides > 0) {
            const double least = std::floor(a.job.top.width_mm - 2 * std::ceil(sides));
            for (const double w : {std::floor(a.job.top.width_mm - sides), least})
                if (w > 100) a.offer("narrower", say("Make it {} wide · −{}", mm(w), mm(a.job.top.width_mm - w)), {w});
        }
        if (ends > 0)
            for (const double l : {std::floor(a.job.top.length_mm - ends), std::floor(a.job.top.length_mm - 2 * ends)})
                if (l > 100) a.offer("shorter", say("Make it {} long · −{}", mm(l), mm(a.job.top.length_mm - l)), {l});
    }
    if (c.key == "lay.trade" && a.plan.on) {
        const WantedTop& top = a.job.top;
        const Trade t = trade(a.plan.on, top);
        const auto lie = [&](double length, double width, const Placement& p, Phrase label) {
            a.offer("lay_anew", std::move(label), {length, width, p.x_mm, p.y_mm, p.angle_deg});
        };
        const double wide = std::floor(t.wide_mm - 2);  // its stations stand some millimetres apart
        if (t.fits) lie(top.length_mm, top.width_mm, t.at_length.placement, say("Lay it there"));
        else if (wide > 100) lie(top.length_mm, wide, t.at_length.placement, say("Lay it {} long, {} wide", mm(top.length_mm), mm(wide)));
        if (t.length_mm > 100)
            lie(t.length_mm - 5, top.width_mm, t.at_width.placement, say("Lay it {} long, {} wide", mm(t.length_mm - 5), mm(top.width_mm)));
    }
    if (c.key == "lay.taper") {
        a.offer("side_sawn", say("Saw the right side straight"), {-1});
        a.offer("side_sawn", say("Saw the left side straight"), {1});
    }
    if (c.key == "lay.overlap" || c.key == "lay.banks_meet" || c.key == "lay.river_thin")
        for (const JointPlan& j : a.plan.makeup->joints) {
            const double least = std::min(j.above.narrowest_mm, j.below.narrowest_mm);
            if (!j.river || least >= 8) continue;
            const double by = std::ceil(8.5 - least);
            a.offer("apart", say("Draw the leaves apart · river {} wider", mm(by)), {by, static_cast<double>(j.right)});
        }
    if (c.key == "lay.rip_order") a.offer("rip_mark_away", say("Take the mark away: not ripped yet"));
    if (c.key == "lay.retired")
        for (std::size_t i = 0; i < a.job.leaves.size(); ++i)
            if (const auto it = a.docs.slabs.find(a.job.leaves[i].slab); it != a.docs.slabs.end() && it->second.retired)
                a.offer("back_on_the_rack", say("Bring it back to the rack"), {static_cast<double>(i)});
    if (c.key == "lay.rod_deep") {
        double depth = a.job.makeup.rod_depth_mm;
        for (int i = 0; i < 12 && depth > 20; ++i) {
            depth = std::floor(depth * 0.85);
            a.offer("rod_depth", say("Drill {} deep", mm(depth)), {depth});
        }
    }
    if (c.key == "lay.rod_thick")
        a.offer("rod", say("Take rods of {}", fine(std::floor(a.plan.flat->thickness_mm / 2))),
                {std::floor(a.plan.flat->thickness_mm / 2)});
    if (c.key == "lay.not_parted") {
        std::vector<double> about;
        for (const LeafPart& l : a.plan.makeup->leaves) about.push_back(l.show.size() > 2 ? centroid(l.show).y : 0);
        if (about.size() == a.job.leaves.size()) a.offer("turn_all_over", say("Turn all leaves over"), about);
    }
    for (std::size_t i = 0; i < a.job.makeup.patches.size(); ++i) {
        const double which = static_cast<double>(i);
        if (c.key == "lay.patch_deep" || c.key == "lay.patch_thin")
            for (const double d : {12.0, 10.0, 8.0, 6.0, 4.0})
                if (d < a.job.makeup.patches[i].depth_mm) a.offer("patch_depth", say("Let it in {}", fine(d)), {which, d});
        if (c.key == "lay.patch_grain" && std::abs(a.job.makeup.patches[i].turn_deg) > 1)
            a.offer("patch_along", say("Turn its grain along"), {which});
    }
}

std::span<const TemplateRow> drawings() {
    using Asked = const TemplateAsked&;
    static constexpr TemplateRow all[] = {
        {"top", "A template of the top", "No top is laid yet: there is nothing to draw.",
         [](Asked a) { return a.job && a.plan.lay->ready ? drawn_top(a.plan, a.plan.placement, true) : std::vector<DrawnPath>(); }},
        {"joint", "The template of a joint", "There is no joint on the bench: in Lay, a top of two glued leaves or more has one.",
         [](Asked a) {
             return a.job && a.plan.whole() ? drawn_joint(a.plan, a.job->makeup, a.shop.bushings_mm) : std::vector<DrawnPath>();
         }},
        {"patches", "The templates of patches", "There is no patch in this top: in Lay, draw one over a flaw.",
         [](Asked a) { return a.job ? drawn_patches(a.job->makeup, a.shop.bushings_mm) : std::vector<DrawnPath>(); }},
    };
    return all;
}

}  // namespace of_lay

StepRow lay_row() {
    using namespace of_lay;
    return {
        .step = step_key::lay,
        .name = "Lay",
        .coming = "lay a top on it",
        .on = StepRow::On::top,
        .says = says<&Plan::lay>,
        .own = own<&Plan::lay>,
        .headlines = lay_headlines,
        .empty = empty,
        .plan = plan,
        .told = told,
        .operations = operations,
        .kinds = kinds,
        .things = things,
        .fields = fields_of,
        .shop = "bushings_mm",
        .hold = hold,
        .edits = edits,
        .mends = mends,
        .drawings = drawings,
    };
}

}  // namespace yb
