// Flattening of all leaves told as one: what they come to, what comes off, passes and hours in all.
#include "core/steps/flat/whole.h"

#include <algorithm>
#include <array>

#include "core/ground/figure/place.h"

namespace yb {

namespace {

/// Adds what is said of a leaf to what is said of the whole. What is the same for every leaf is told once, of none.
void take_cautions(std::vector<Caution>& into, const std::vector<Caution>& from, const std::string& name, const WholeFlatInputs& w,
                   const Placement& leaf) {
    for (Caution c : from) {
        const auto told = std::find_if(into.begin(), into.end(), [&](const Caution& e) {
            return !c.at && e.key == c.key && render(e.says, w.units) == render(c.says, w.units);
        });
        if (told != into.end()) {
            told->of.clear();
            continue;
        }
        c.of = name;
        if (c.at) show_at(c, w.bench.to_slab(leaf.frame().from_slab(*c.at)));
        into.push_back(std::move(c));
    }
}

/// The figures of all leaves together, each with what every leaf adds to it, and the choices that are the job's.
void tell_together(const WholeFlatInputs& w, FlatPlan& all) {
    const auto& leaves = w.leaves;
    const WholeFlatInputs::Of* least = &leaves.front();
    for (const WholeFlatInputs::Of& l : leaves)
        if (l.flat.most_mm < least->flat.most_mm) least = &l;
    const auto of_each = [&](auto&& value) {
        std::vector<Given> out;
        for (const WholeFlatInputs::Of& l : leaves) out.push_back({l.slab.name, value(l.flat), "its own figures, with it on the bench"});
        return out;
    };
    auto most = of_each([](const FlatPlan& f) { return fine(f.most_mm); });
    most.push_back({"wanted", fine(w.wanted_mm), "wanted top"});
    all.figures.push_back({"flat.thickness",
                           "Finishes at",
                           fine(all.thickness_mm),
                           {},
                           say("{} is the most these leaves can have together: {} gives no more", fine(all.most_mm), least->slab.name),
                           {"the least of what each leaf can have, or the wanted thickness", most, "docs/methods.md, Several leaves"}});
    all.figures.push_back({"flat.whole",
                           "Whole slabs would finish at",
                           fine(all.whole_mm),
                           {},
                           say("cutting to length first keeps {} more", fine(all.thickest_mm - all.whole_mm)),
                           {"the least of the whole uncut slabs", of_each([](const FlatPlan& f) { return fine(f.whole_mm); }), ""}});
    const FacePlan& show = all.face(Face::a);
    const FacePlan& low = all.face(Face::b);
    auto off = of_each([](const FlatPlan& f) { return fine(f.face(Face::a).most_off_mm); });
    for (Given& g : of_each([](const FlatPlan& f) { return fine(f.face(Face::b).most_off_mm); })) {
        g.name += ", underside";
        off.push_back(g);
    }
    all.figures.push_back({"flat.off",
                           "Off show face, underside",
                           fine(show.most_off_mm),
                           fine(low.most_off_mm),
                           say("at the worst places of all leaves; {} and {} on average", fine(show.mean_off_mm), fine(low.mean_off_mm)),
                           {"the most of any leaf", off, ""}});
    const bool sled = w.choices.by == FlatBy::sled || !all.work.possible;
    if (sled)
        all.figures.push_back(
            {"flat.passes",
             "Lane passes, both faces",
             count(show.passes_cut + low.passes_cut),
             {},
             say("{}", counted(static_cast<double>(leaves.size()), "leaf", "leaves")),
             {"Σ of the leaves", of_each([](const FlatPlan& f) { return count(f.faces[0].passes_cut + f.faces[1].passes_cut); }), ""}});
    if (sled)
        all.figures.push_back(hours_figure(all.hours, show.removed_l + low.removed_l, w.sled,
                                           of_each([](const FlatPlan& f) { return hours(f.hours); }), "Σ of the leaves"));
    else if (w.choices.by != FlatBy::bought_flat) {
        all.figures.push_back(hours_figure(all.work.hands_on_h, show.removed_l + low.removed_l, w.sled,
                                           of_each([](const FlatPlan& f) { return hours(f.work.hands_on_h); }), "Σ of the leaves"));
        all.figures.back().label = "Hands-on time, loose chips";
    }
    // What is decided for the job and says the same whichever leaf is looked at.
    FlatAsks asks = leaves.front().flat.asks;
    for (std::size_t i = 1; i < leaves.size(); ++i) asks.add(leaves[i].flat.asks);
    auto summed = flat_work_choices(asks, w.choices);
    for (const Choice& c : leaves.front().flat.choices) {
        if (c.key == flat_aims.choice) continue;
        const auto whole = std::find_if(summed.begin(), summed.end(), [&](const Choice& s) { return s.key == c.key; });
        all.choices.push_back(whole == summed.end() ? c : *whole);
    }
    all.asks = asks;
}

}  // namespace

FlatPlan plan_whole_flat(const WholeFlatInputs& w) {
    FlatPlan all;
    const auto& leaves = w.leaves;
    all.ready = std::all_of(leaves.begin(), leaves.end(), [](const WholeFlatInputs::Of& l) { return l.flat.ready; });
    all.thickness_mm = all.thickest_mm = all.most_mm = all.whole_mm = all.as_it_lies_mm = 1e300;
    std::array<double, 2> weighted{};
    double area_mm2 = 0;
    for (std::size_t i = 0; i < leaves.size(); ++i) {
        const FlatPlan& f = leaves[i].flat;
        if (!f.ready) continue;
        all.thickness_mm = std::min(all.thickness_mm, f.thickness_mm);
        all.thickest_mm = std::min(all.thickest_mm, f.thickest_mm);
        all.most_mm = std::min(all.most_mm, f.most_mm);
        all.whole_mm = std::min(all.whole_mm, f.whole_mm);
        all.as_it_lies_mm = std::min(all.as_it_lies_mm, f.as_it_lies_mm);
        all.hours += f.hours;
        all.step_mm = f.step_mm;
        all.work.by = f.work.by;
        all.work.possible = all.work.possible && f.work.possible;
        all.work.hands_on_h += f.work.hands_on_h, all.work.cost += f.work.cost;
        all.work.wait_h = std::max(all.work.wait_h, f.work.wait_h);
        all.work.leaves_mm = std::max(all.work.leaves_mm, f.work.leaves_mm);
        const double own = area(leaves[i].lay.outline);
        area_mm2 += own;
        for (std::size_t k = 0; k < 2; ++k) {
            FacePlan& to = all.faces[k];
            const FacePlan& of = f.faces[k];
            to.face = of.face;
            for (int FacePlan::*sum :
                 {&FacePlan::layers, &FacePlan::last_layers, &FacePlan::lanes, &FacePlan::passes_all, &FacePlan::passes_cut})
                to.*sum += of.*sum;
            for (double FacePlan::*sum : {&FacePlan::hours, &FacePlan::last_hours, &FacePlan::cut_mm, &FacePlan::removed_l})
                to.*sum += of.*sum;
            for (double FacePlan::*most :
                 {&FacePlan::highest_mm, &FacePlan::plane_mm, &FacePlan::stickout_mm, &FacePlan::spacer_mm, &FacePlan::most_off_mm})
                to.*most = std::max(to.*most, of.*most);
            weighted[k] += of.mean_off_mm * own;
        }
        take_cautions(all.cautions, f.cautions, leaves[i].slab.name, w, leaves[i].placement);
    }
    if (!all.ready) {
        all.thickness_mm = all.thickest_mm = all.most_mm = all.whole_mm = all.as_it_lies_mm = 0;
    } else {
        for (std::size_t k = 0; k < 2; ++k) all.faces[k].mean_off_mm = weighted[k] / std::max(1.0, area_mm2);
        tell_together(w, all);
    }
    all.tilt.top_mm = all.tilt.thickness_mm = all.thickness_mm;
    sort_by_severity(all.cautions);
    return all;
}

}  // namespace yb
