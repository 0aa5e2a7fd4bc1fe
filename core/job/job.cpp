#include "core/job/job.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/rack/rack.h"

namespace yb {

Shop::Shop() : air(generic_climates().back()) {}
Job::Job() : room(generic_climates().front()) {}

int month_of(const std::string& iso) { return is_date(iso) ? std::stoi(iso.substr(5, 2)) - 1 : 0; }

std::shared_ptr<const PreparedSlab> prepare(const Slab& slab, bool over) {
    auto p = std::make_shared<PreparedSlab>();
    p->slab = over ? turned_over(slab) : slab;
    p->shape = shape_of(p->slab);
    p->figures = figures_of(p->slab, p->shape);
    return p;
}

namespace {

constexpr double dry_enough_pct = 10;  ///< for a heated room: a starting value

Figure drying_figure(const DryingForecast& f, const Slab& slab) {
    const auto days = [](double v) { return number(std::round(v)); };
    Figure out{"rack.drying", "Days until it is dry", days(f.days.value_or(0)), {}, {}, {}};
    if (f.days)
        out.note = say("to {}, from the reading of " + slab.moisture_on + "; between {} and {}" +
                           (f.fitted ? "" : " – a guess until there are two readings"),
                       percent(dry_enough_pct), days(*f.soonest_days), days(*f.latest_days));
    else if (f.moisture_pct <= dry_enough_pct) out.note = say("it reads {}: dry enough for a heated room", percent(f.moisture_pct));
    else out.note = say("it settles at {} in this air and gets no drier: bring it into a warm room", percent(f.settles_pct));
    out.working = {"M(t) = Me + (M0 − Me)·e^(−t/τ)",
                   {{"M0", percent(f.moisture_pct), "last reading"},
                    {"Me", percent(f.settles_pct), "mean of the shop's air through the year"},
                    {"τ, days", days(f.tau_days), f.fitted ? "fitted to this slab's readings" : "prior: about a year per 25 mm"}},
                   "Wood Handbook eq. 4-5 for Me; docs/methods.md, Drying"};
    return out;
}

}  // namespace

Plan plan_job(const Job& job, const Slab& slab, const Shop& shop) { return plan_job(job, *prepare(slab, job.placement.turned_over), shop); }

Plan plan_job(const Job& job, const PreparedSlab& prepared, const Shop& shop) {
    Plan p;
    p.slab = prepared.slab;
    p.shape = prepared.shape;
    p.rack = {prepared.shape.usable, prepared.figures, prepared.shape.cautions, {}};
    p.shop_air = shop.air.months[static_cast<std::size_t>(month_of(job.start))];
    p.shop_settles_pct = equilibrium_moisture(p.shop_air.temp_c, p.shop_air.rh_pct);
    for (const Caution& c : look_over(p.slab, p.shape))
        if (!find_caution(p.rack.cautions, "rack" + c.key.substr(4))) p.rack.cautions.push_back(c);
    if (p.shape.usable)
        if (const auto dry = drying_of(p.slab, means_of(p.shape).thickness_mm, shop.air, dry_enough_pct, p.slab.moisture_on))
            p.rack.figures.push_back(drying_figure(*dry, p.slab));
    sort_by_severity(p.rack.cautions);
    p.lay = plan_lay({p.slab, p.shape, job.top, job.placement});
    p.flat = plan_flat({p.slab, p.shape, p.lay, job.top, job.flat, shop.sled});
    p.fill = plan_fill({p.slab, p.shape, p.lay, p.flat, job.fill, shop.resins, p.shop_air.temp_c});
    p.under = plan_under({p.slab, p.shape, p.lay, p.flat, p.fill, job.top, job.placement, job.under, job.room, p.shop_air});
    p.days = plan_days({p.lay, p.flat, p.fill, p.under, job.flat, job.start, shop.workday});
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

namespace {

template <class T>
T one_of(const std::string& option, std::initializer_list<std::pair<const char*, T>> known) {
    for (const auto& [key, value] : known)
        if (option == key) return value;
    throw std::invalid_argument("there is no option ‘" + option + "’ here");
}

void set_void(Job& job, const std::string& flaw, const std::string& option) {
    auto& voids = job.fill.voids;
    auto it = std::find_if(voids.begin(), voids.end(), [&](const VoidFill& v) { return v.flaw_id == flaw; });
    if (it == voids.end()) it = voids.insert(voids.end(), VoidFill{flaw, {}, false});
    it->leave_open = option == "open";
    it->resin = it->leave_open ? "" : option;
}

}  // namespace

void set_choice(Job& job, const std::string& choice, const std::string& option) {
    if (choice == "lay.live")
        job.top.live = one_of<LiveEdges>(
            option, {{"both", LiveEdges::both}, {"left", LiveEdges::left}, {"right", LiveEdges::right}, {"none", LiveEdges::none}});
    else if (choice == "flat.aim")
        job.flat.aim = one_of<FlatAim>(
            option, {{"share_out", FlatAim::share_out}, {"spare_show", FlatAim::spare_show}, {"as_it_lies", FlatAim::as_it_lies}});
    else if (choice == "flat.finish")
        job.flat.finish = one_of<FinishTo>(option, {{"wanted", FinishTo::wanted}, {"thickest", FinishTo::thickest}});
    else if (choice == "flat.first")
        job.flat.first = one_of<FirstFace>(option, {{"show", FirstFace::show}, {"underside", FirstFace::underside}});
    else if (choice == "flat.air") job.flat.both_faces_to_air = one_of<bool>(option, {{"both", true}, {"down", false}});
    else if (choice == "under.fixed")
        job.under.fixed =
            one_of<FixedLine>(option, {{"middle", FixedLine::middle}, {"left", FixedLine::left}, {"right", FixedLine::right}});
    else if (choice == "under.let_in") job.under.plate_let_in = one_of<bool>(option, {{"on", false}, {"in", true}});
    else if (choice.rfind("fill.", 0) == 0) set_void(job, choice.substr(5), option);
    else throw std::invalid_argument("there is no choice ‘" + choice + "’");
}

namespace {
LiveEdges swapped(LiveEdges l) {
    if (l == LiveEdges::left) return LiveEdges::right;
    if (l == LiveEdges::right) return LiveEdges::left;
    return l;
}
}  // namespace

void give_slab(Job& job, const Slab& slab) {
    job.slab = slab.id;
    job.placement.turned_over = false;
    if (const SlabShape shape = shape_of(slab); shape.usable) job.placement = middle_of(shape);
    job.flat.supports.clear();
    job.fill.voids.clear();
}

void turn_over(Job& job) {
    job.placement.turned_over = !job.placement.turned_over;
    job.placement.y_mm = -job.placement.y_mm;
    job.placement.angle_deg = -job.placement.angle_deg;
    job.top.live = swapped(job.top.live);
    for (Support& s : job.flat.supports) s.y_mm = -s.y_mm;
}

void end_for_end(Job& job) {
    double a = std::fmod(job.placement.angle_deg + 180, 360);
    if (a > 180) a -= 360;
    job.placement.angle_deg = a;
    job.top.live = swapped(job.top.live);
}

}  // namespace yb
