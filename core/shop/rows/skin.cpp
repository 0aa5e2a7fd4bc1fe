// Skin as a row of the table.
#include "core/steps/skin/skin.h"
#include "core/shop/edit/skin_edits.h"
#include "core/shop/job/skin_of.h"
#include "core/shop/rows/row.h"
#include "core/steps/join/join.h"
#include "core/steps/pour/pour.h"
#include "core/steps/under/under.h"

namespace yb {

namespace of_skin {

/// What is cut from below: channels, plates let in, a pedestal's notches.
std::vector<std::pair<Ring, double>> pockets_of(const Planning& w) {
    std::vector<std::pair<Ring, double>> out;
    const UnderChoices& u = w.job.under;
    for (const Pocket& k : w.p.under->pockets) {
        Channel c = u.channels.at(k.channel);
        c.length_mm = k.length_mm;
        out.emplace_back(footprint(c), c.depth_mm);
    }
    if (u.plate_let_in)
        for (const LegPlate& p : u.plates) out.emplace_back(footprint(p), u.plate_mm);
    for (const Ring& notch : notches_of(u)) out.emplace_back(notch, u.notch_mm);
    return out;
}

void plan(Planning& w) {
    if (!w.asked(step_key::skin)) {
        w.p.more["skin"] = w.before()->more.at("skin");
        return;
    }
    if (!w.top) return;
    const StepAir air = w.air(step_key::skin);
    SkinInputs in{*w.top, w.job.skin, air.day, w.job.room};
    in.coldest_c = air.coldest_c, in.warmest_c = air.warmest_c;
    if (w.p.under->ready) in.pockets = pockets_of(w), in.base = w.p.under->base, in.moisture_pct = w.p.under->read_pct;
    in.base_first = w.job.under.parts_first;
    in.planed = w.p.flat->work.possible && w.job.flat.by != FlatBy::sled && w.job.flat.by != FlatBy::machine_shop;
    in.sled_step_mm = w.p.flat->step_mm;
    in.quick = w.quick;
    if (w.still && *w.wanted.dragged_in == step_key::skin) in.before = &skin_of(*w.before());
    in.shelf = w.shop.finishes, in.sanding = w.shop.sanding;
    for (const BowTie& b : w.job.join.ties) in.ties.push_back({outline_of(b), b.from_above});
    w.p.more["skin"] = std::make_shared<SkinPlan>(plan_skin(in));
}

StepPlan* own(Plan& p) {
    const auto copy = std::make_shared<SkinPlan>(skin_of(p));
    p.more["skin"] = copy;
    return copy.get();
}

/// Of one finish, over all faces and coats, what rags and pot keep counted.
double finish_l(const SkinPlan& s, Finish which) {
    double ml = 0;
    for (const SkinFacePlan& f : s.faces)
        if (!f.left_out && f.finish == which)
            for (const SkinCoat& c : f.coats) ml += c.mix_ml;
    return ml / 1000;
}

std::span<const OperationKind> kinds() {
    static const std::vector<OperationKind> all{
        {"buy_finish", "", {}, {"lay"}, true},
        {"sample", "", {}, {"dryfit"}},
        {"sand_rough", "sand", {{"level", "T39"}, {"ties", "T38"}}, {"edge"}, false, true},
        {"sand", "sand", {{"level", "T39"}, {"ties", "T38"}, {"pockets"}, {"dryfit"}}, {"sample"}},
        {"last_grit", "sand", {{"sand", "T38"}}},
        {"before", "coats", {{"sample"}}, {"last_grit"}},
        {"coat", "coats", {{"sample"}, {"last_grit", "T38"}, {"before"}, {"buy_finish", "T41"}}, {"sand"}},
        {"buff", "coats", {}, {"coat"}},
    };
    return all;
}

/// Minutes at the sander: rough is what is coarser than 100, to where a base can be set out on it; the last waits for wetted grain to dry.
struct Sanded {
    double rough = 0, fine = 0, last = 0;
    double all() const { return rough + fine + last; }
};
Sanded sanded(const SkinPlan& s) {
    Sanded out;
    for (const SkinFacePlan& f : s.faces)
        for (std::size_t i = 0; i < f.grits.size(); ++i)
            (f.grits[i].wetted ? out.last : f.grits[i].grit < 100 ? out.rough : out.fine) += f.grits[i].minutes;
    return out;
}

void operations(const Planning& w, std::vector<Operation>& out) {
    const SkinPlan& s = skin_of(w.p);
    if (!s.ready) return;
    const Labour& l = w.shop.labour;
    // What changes the wood's colour is tried on a board of it first.
    const bool changed = w.job.skin.finish == Finish::tinted || w.job.skin.before != BeforeFinish::nothing;
    if (changed && !w.job.skin.sample_signed) {
        give(out, s, "sample", "A sample, signed", step_key::skin, Task().set_up(l.sample_min), s.recoat_h);
        waits_with(out, AirWait::dries, w);
        out.back().aside = true, out.back().after = {"lay"};
    }
    // Two people at the sanders are two pairs of hands there, on the rule and in the money.
    const bool two = w.job.skin.hands == SkinHands::two_people;
    const Sanded minutes = sanded(s);
    const double alone = minutes.all() > 0 ? (s.faces_alone_min + s.edges_alone_min) / minutes.all() : 1;
    const auto sanding = [&](const char* key, const char* label, double at_it, double hairlines_m2, double wait) {
        if (at_it <= 0) return;
        const auto task = [&](double times) {
            return Task()
                .set_up(l.sand_set_min)
                .add("at the sander", 1, at_it * times)
                .add("m² of pin holes closed", hairlines_m2, l.hairline_m2_min);
        };
        give(out, s, key, label, step_key::skin, task(1), wait);
        if (two) out.back().who = Who::both, out.back().alone_h = task(alone).hours();
    };
    // Rough before anything is set out on it, fine once it has been fitted; the last grit waits for the wetted grain to dry.
    const double upper_m2 = w.top ? area(w.top->above) * 1e-6 : 0;
    const bool filled = w.p.fill->rounds > 0 || !w.p.pour->lifts.empty();
    sanding("sand_rough", "Sand, rough", minutes.rough, 0, 0);
    sanding("sand", "Sand, fine", minutes.fine, filled ? upper_m2 : 0, minutes.last > 0 ? dries_h : 0);
    sanding("last_grit", "Last grit", minutes.last, 0, 0);
    double m2 = 0;
    for (const SkinFacePlan& f : s.faces)
        if (!f.left_out) m2 += f.face.m2;
    if (w.job.skin.before != BeforeFinish::nothing)
        give(out, s, "before", "Bleach, stain, fume", step_key::skin, Task().set_up(l.before_set_min).add("m²", m2, l.before_m2_min), 24);
    static constexpr const char* keys[] = {"coat_1", "coat_2", "coat_3", "coat_4",  "coat_5",  "coat_6",
                                           "coat_7", "coat_8", "coat_9", "coat_10", "coat_11", "coat_12"};
    static constexpr const char* names[] = {"First coat", "Second coat", "Third coat", "Coat 4",  "Coat 5",  "Coat 6",
                                            "Coat 7",     "Coat 8",      "Coat 9",     "Coat 10", "Coat 11", "Coat 12"};
    const int n = std::clamp(s.coats, 1, 12);
    for (int i = 0; i < n; ++i) {
        double putting = 0, rubbed_m2 = 0;
        for (const SkinFacePlan& f : s.faces)
            if (static_cast<std::size_t>(i) < f.coats.size()) {
                putting += f.coats[static_cast<std::size_t>(i)].minutes;
                if (i > 0 && f.label.film) rubbed_m2 += f.face.m2;
            }
        const bool last = i + 1 == n;
        const auto task = [&](double hands) {
            Task t;
            t.set_up(l.coat_set_min).add("putting it on", 1, putting * hands);
            if (rubbed_m2 > 0) t.add("rubbing between", 1, l.rub_set_min).add("m² rubbed", rubbed_m2, l.rub_m2_min);
            return t;
        };
        give(out, s, keys[i], names[i], step_key::skin, task(1), last ? s.handle_h : w.job.skin.wait_h.value_or(s.recoat_h));
        if (last || !w.job.skin.wait_h) waits_with(out, AirWait::dries, w);
        out.back().at = Place::spray, out.back().keeps = true, out.back().in_one_go = true;  // no dust near it
        if (two) out.back().who = Who::both, out.back().alone_h = task(2).hours();
    }
    // What is buffed stands two days first.
    if (s.label.film && w.job.skin.sheen == Sheen::gloss)
        give(out, s, "buff", "Buff", step_key::skin, Task().set_up(l.buff_set_min).add("m²", upper_m2, l.buff_m2_min), 0);
}

void needs(const ThingsAsk& a, std::vector<Need>& out) {
    const SkinPlan& s = skin_of(a.plan);
    if (!s.ready) return;
    for (const Finish used : s.used) {
        const FinishClass& label = a.shop.finishes.of(used);
        const auto i = finishes.index(used);
        out.push_back({NeedKind::finish,
                       std::string("finish ") + finishes.options[i].key,
                       finishes.options[i].label,
                       finish_l(s, used),
                       "l",
                       "coat_1",
                       label.left_l,
                       {},
                       label.price_l});
    }
    out.push_back({NeedKind::consumable, "discs", "Sanding discs", std::ceil(s.discs), "pcs", "sand", {}, {}, a.shop.sanding.disc_price});
}

void things(const ThingsAsk& a, std::vector<Thing>& out) { add(out, skin_things(skin_of(a.plan), a.bench)); }

std::span<const CardRow> cards() {
    static constexpr CardRow all[] = {
        {"sand", "The sanding", "sand", "", [](const CardAsk& a) { return sand_card(skin_of(a.plan)); }},
        {"finish", "The finish", "coat_1", "finish_drunk", [](const CardAsk& a) { return finish_card(skin_of(a.plan), 1); }},
        {"finish_again", "A further coat", "coat_2", "finish_drunk",
         [](const CardAsk& a) { return skin_of(a.plan).coats > 1 ? finish_card(skin_of(a.plan), 2) : std::vector<CardStep>(); }},
    };
    return all;
}

void fields_of(FieldVisitor& v, Job& j) { v.object({"skin", "Skin"}, j.skin); }

void hold(Held& h) {
    h.at_most(h.job.skin.faces, 200, counted(0, "face", "faces"), step_key::skin);
    h.at_most(h.job.skin.seams_mm, 100, counted(0, "seam", "seams"), step_key::skin);
    h.at_most(h.job.skin.grits, 20, counted(0, "grit", "grits"), step_key::skin);
}
void empty(Plan& p) { p.more["skin"] = no<SkinPlan>(); }

std::span<const MendEdit> edits() {
    static constexpr MendEdit all[] = {
        {"skin_ladder", [](Documents&, Job& j, const Takes&) { j.skin.grits.clear(), j.skin.first_grit.reset(); }},
        {"skin_stop", [](Documents&, Job& j, const Takes&) { j.skin.grits.clear(), j.skin.stop_grit.reset(); }},
        {"skin_resin", [](Documents&, Job& j, const Takes&) { j.skin.grits.clear(), j.skin.resin_grit.reset(); }},
        {"skin_raise", [](Documents&, Job& j, const Takes&) { j.skin.raise_grain = true; }},
        {"skin_both", [](Documents&, Job& j, const Takes&) { j.skin.one_face = false; }},
        {"skin_once", [](Documents&, Job& j, const Takes&) { treat_once(j); }},
        {"skin_even", [](Documents&, Job& j, const Takes&) { even_zones(j); }},
        {"skin_wait", [](Documents&, Job& j, const Takes&) { j.skin.wait_h.reset(); }},
    };
    return all;
}

void mends(const MendAsk& a) {
    const std::string& key = a.caution.key;
    if (key == "skin.grit_gap") a.offer("skin_ladder", say("Take the grits in between"));
    if (key == "skin.too_fine" || key == "skin.too_coarse") a.offer("skin_stop", say("Stop where this finish wants it"));
    if (key == "skin.resin_coarse") a.offer("skin_resin", say("Take the resin on by itself"));
    if (key == "skin.raise") a.offer("skin_raise", say("Wet the grain before the last grit · +{}", hours(dries_h)));
    if (key == "skin.one_face") a.offer("skin_both", say("Finish both faces"));
    if (key == "skin.two_ways") a.offer("skin_once", say("Let what stands first hold"));
    if (key == "skin.zone_large") a.offer("skin_even", say("Zones as large as the window asks"));
    if (key == "skin.early" || key == "skin.late") a.offer("skin_wait", say("Wait as the label says"));
}

}  // namespace of_skin

StepRow skin_row() {
    using namespace of_skin;
    return {
        .step = step_key::skin,
        .name = "Skin",
        .coming = "the skin",
        .on = StepRow::On::top,
        .says = [](const Plan& p) -> const StepPlan* { return &skin_of(p); },
        .own = own,
        .headlines = skin_headlines,
        .empty = empty,
        .plan = plan,
        .operations = operations,
        .kinds = kinds,
        .needs = needs,
        .things = things,
        .cards = cards,
        .fields = fields_of,
        .hold = hold,
        .edits = edits,
        .mends = mends,
        .done = "the client",
    };
}

}  // namespace yb
