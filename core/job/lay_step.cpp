// Lay as a row of the table: one slab or several laid together, and what is told of them once they are flattened.
#include <algorithm>
#include <cmath>

#include "core/figure/choice.h"
#include "core/calendar/calendar.h"
#include "core/job/planning.h"
#include "core/makeup/cuts.h"
#include "core/match/likeness.h"
#include "core/patch/patch.h"
#include "core/top/told.h"

namespace yb {

namespace {

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
    std::vector<std::shared_ptr<const Board2>> boards;
    for (const auto& p : w.slabs.leaves) boards.push_back(p->ways);
    const auto says = [&](MakeUp kind) {
        const Arrangement a = arrange(kind, boards, w.job.top, w.job.makeup);
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

void several_choices(const Planning& w, LayPlan& lay) {
    const MakeUpChoices& m = w.job.makeup;
    lay.choices.insert(lay.choices.begin(), makeup_choice(w));
    if (m.kind == MakeUp::book || m.kind == MakeUp::boards)
        lay.choices.push_back(choice_of(
            rip_lines, m, {say("the mirror holds; the narrower leaf decides"), say("keeps more width; the figure no longer meets")}));
    if (m.kind == MakeUp::boards)
        lay.choices.push_back(
            choice_of(outer_boards, m, {say("the sequence stays"), say("the width comes out even; the sequence is given up")}));
    if (m.kind == MakeUp::river)
        lay.choices.push_back(
            choice_of(river_colours, m,
                      {say("poured in one go"), say("{} of divider, taken out when the first has gelled", mm(w.job.top.length_mm))}));
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
    if (!w.lay->ready) {
        for (std::size_t i = 0; i < w.leaves.size(); ++i)
            if (!w.slab(i).shape.usable)
                w.lay->cautions.push_back(
                    {"lay.unmeasured", Severity::stop, step_key::lay,
                     say("{} is not measured yet, or no longer in the shop. Measure it on the rack, or choose another.",
                         w.slab(i).slab.name.empty() ? std::string("A slab of this top") : w.slab(i).slab.name)});
        w.leaves.clear();
        return;
    }
    for (std::size_t i = 0; i < w.leaves.size(); ++i) {
        w.p.leaves[i].lay = std::shared_ptr<const LayPlan>(makeup, &makeup->leaves[i].lay);
        w.lays.push_back(w.p.leaves[i].lay.get());
    }
}

}  // namespace

void plan_lay_step(Planning& w) {
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
        if (!w.lay->ready) w.leaves.clear();
    }
    if (w.job.start.empty() || !is_date(w.job.start))
        w.lay->cautions.push_back({"lay.no_date",
                                   Severity::note,
                                   step_key::lay,
                                   say("The job's first day is not said: its days are counted, not dated. Type it as 2026-11-30."),
                                   {},
                                   {},
                                   {},
                                   "start"});
    w.p.lay = w.lay;
}

void tell_lay_step(Planning& w) {
    if (!w.lay || !w.lay->ready || w.lays.empty()) return;
    const Job& job = w.job;
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
    auto cuts = std::make_shared<CutList>(cuts_of(w.leaves, w.lays, *w.p.makeup, job.top, job.makeup));
    add_patch_cuts(patches, *cuts);
    w.lay->figures.push_back(cuts_figure(*cuts, job.makeup, w.shop.units));
    w.p.cuts = cuts;
    sort_by_severity(w.lay->cautions);
}

}  // namespace yb
