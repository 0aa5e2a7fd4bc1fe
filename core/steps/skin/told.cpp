#include "core/steps/skin/told.h"

#include <algorithm>
#include <cmath>

#include "core/ground/figure/choice.h"

namespace yb {

namespace {

class Teller {
  public:
    Teller(const SkinInputs& in, SkinPlan& p) : in_(in), c_(in.choices), p_(p) {}

    void tell() {
        if (!p_.ready) return;
        figures();
        sanding();
        coating();
        if (!in_.quick) choices();
        sort_by_severity(p_.cautions);
    }

  private:
    void add(const char* key, Severity s, Phrase says, std::optional<Vec2> uv = {}) {
        p_.cautions.push_back({key, s, step_key::skin, std::move(says), uv ? std::optional(in_.top.bench.to_slab(*uv)) : std::nullopt});
    }
    const SkinFacePlan* face(const char* key) const { return treated(p_, key); }
    bool uses(Finish f) const { return std::find(p_.used.begin(), p_.used.end(), f) != p_.used.end(); }
    /// The first finish in use whose label is so.
    template <class F>
    const FinishClass* in_use(F so) const {
        for (const Finish f : p_.used)
            if (const FinishClass& k = in_.shelf.of(f); so(k)) return &k;
        return nullptr;
    }

    /// Of all finishes in use the longest, at 20 °C.
    double slowest(double FinishClass::*what) const {
        double most = 0;
        for (const Finish f : p_.used) most = std::max(most, in_.shelf.of(f).*what);
        return most;
    }

    void figures() {
        const FinishClass& now = p_.label;
        const SkinFacePlan* on = face(p_.now_face.c_str());
        const int zones = on && !on->coats.empty() ? on->coats.front().zones : 0;
        const char* zone = p_.now_face == "under" ? "the first zone of the underside" : "the first zone of the upper face";
        p_.figures.push_back({"skin.mix",
                              "To mix now",
                              litres(p_.now_ml / 1000),
                              {},
                              now.parts_b > 0 ? say("{} and {} of hardener; usable for {}", litres(p_.now_a_ml / 1000),
                                                    litres(p_.now_b_ml / 1000), hours(p_.usable_min / 60))
                                              : say("as it comes; {}", zone),
                              {"area of the zone × what the label says × thirst × (1 + rags)",
                               {{"first zone", square_metres(p_.now_m2), "its ring"},
                                {"first coat, mL a m²", number(now.first_ml_m2), finishes.options[finishes.index(p_.finish)].label},
                                {"drinks, times", number(c_.thirst), "the maker's"},
                                {"stays in rags and pot", percent(c_.rags_pct), "the maker's"}},
                               "a maker's: change it"}});
        p_.figures.push_back(
            {"skin.zones",
             "Zones, each at most",
             count(zones),
             hours(p_.window_min / 60),
             p_.zone_most_m2 > 0 ? say("{} can be wiped in time", square_metres(p_.zone_most_m2)) : say("nothing can be wiped in no time"),
             {"max(soak, put on × area) + wipe × area = window",
              {{"soak", hours(now.soak_min * stretched(p_.air_c) / 60), "its class, at the shop's air"},
               {"window", hours(p_.window_min / 60), "its class, at the shop's air"},
               {"put on, minutes a m²", number(now.on_min_m2), "a maker's"},
               {"wipe, minutes a m²", number(now.off_min_m2), "a maker's"}},
              "docs/methods.md, Skin"}});
        p_.figures.push_back({"skin.sanding",
                              "On the sander before it",
                              hours(p_.sanding_min / 60),
                              {},
                              say("{}", counted(std::ceil(p_.discs), "disc", "discs")),
                              {"Σ over faces and grits, minutes a m²",
                               {{"where lanes can be felt", number(in_.sanding.felt_min_m2), "first grit"},
                                {"on a planed face", number(in_.sanding.planed_min_m2), "first grit"},
                                {"each grit after", number(in_.sanding.after_min_m2),
                                 "resin " + render(say("{} times that", number(in_.sanding.resin_times)), Units::metric())},
                                {"edges, minutes a metre", number(in_.sanding.edge_min_m), "each grit"}},
                               "a maker's: change it"}});
        p_.figures.push_back({"skin.recoat",
                              "Next coat from",
                              hours(p_.recoat_h),
                              {},
                              say("{} in all", counted(p_.coats, "coat", "coats")),
                              {"label × 2^((20 − T)/10)",
                               {{"label", hours(slowest(&FinishClass::recoat_h)), "the slowest finish on it"},
                                {"shop", celsius(p_.air_c), "the month's air"}},
                               "estimate"}});
        p_.figures.push_back({"skin.handle",
                              "To handle, to use",
                              hours(p_.handle_h),
                              hours(p_.cure_h),
                              say("from the last coat"),
                              {"label × 2^((20 − T)/10)",
                               {{"handle", hours(slowest(&FinishClass::handle_h)), "the slowest finish on it"},
                                {"cured", hours(slowest(&FinishClass::cure_h)), "the slowest finish on it"}},
                               "estimate"}});
        const double finish = cost_of(p_);
        const double discs = std::ceil(p_.discs) * in_.sanding.disc_price.value_or(0);
        if (finish + discs > 0)
            p_.figures.push_back({"skin.cost",
                                  "Finish and discs cost about",
                                  number(std::round(finish + discs)),
                                  {},
                                  say("in the shop's money"),
                                  {"litres × price of a litre + discs × price of a disc",
                                   {{"finish", number(finish), finish > 0 ? "the shop's page" : "no price"},
                                    {"discs", number(discs), in_.sanding.disc_price ? "the shop's page" : "no price"}},
                                   "prices on the shop's page"}});
        Working each{"Σ of the faces that are treated", {}, ""};
        for (const SkinFacePlan& f : p_.faces)
            if (!f.left_out) each.given.push_back({render(f.face.name, Units::metric()), square_metres(f.face.m2), "from the top"});
        p_.figures.push_back({"skin.area",
                              "Treated in all",
                              square_metres(p_.m2),
                              {},
                              say("{} of it for the whole of it", litres(p_.ml_in_all / 1000)),
                              each});
    }

    void sanding() {
        for (const SkinFacePlan& f : p_.faces) {
            std::vector<double> grits;
            for (const GritStep& g : f.grits) grits.push_back(g.grit);
            std::size_t at = 0;
            if (steps_hold(grits, &at)) continue;
            add("skin.grit_gap", Severity::watch,
                say("From {} to {} is too wide a step: its scratches stay and show once the finish is on. Put {} between.",
                    number(grits[at - 1]), number(grits[at]), number(ladder(grits[at - 1], grits[at])[1])));
            break;
        }
        if (const SkinFacePlan* upper = face(p_.now_face.c_str()); upper && !upper->grits.empty()) {
            const double stops = wood_stops_at(upper->finish, c_.figured);
            const double last = upper->grits.back().grit;
            if (!upper->label.film && last > stops * 1.6)
                add("skin.too_fine", Severity::watch,
                    say("Sanded to {} the wood is shut and takes the oil unevenly: stop at {}.", number(last), number(stops)));
            if (last < stops * 0.75)
                add("skin.too_coarse", Severity::watch,
                    say("Stopped at {} its scratches show under this finish: go to {}.", number(last), number(stops)));
        }
        for (const SkinFacePlan& f : p_.faces)
            if (f.face.resin() && !f.left_out && !f.grits.empty() && f.grits.back().grit < resin_stops_at(f.finish)) {
                add("skin.resin_coarse", Severity::watch,
                    say("Resin stopped at {} stays grey with scratches: go to {} on it, by itself.", number(f.grits.back().grit),
                        number(resin_stops_at(f.finish))),
                    f.face.at.empty() ? std::nullopt : std::optional(centroid(f.face.at.front())));
                break;
            }
        if (!c_.raise_grain &&
            std::any_of(p_.used.begin(), p_.used.end(), [&](Finish f) { return !in_.shelf.of(f).film || f == Finish::shellac; }))
            add("skin.raise", Severity::watch,
                say("The grain is not wetted before the last grit: the first coat raises it, and it stays rough."));
        add("skin.order", Severity::note,
            c_.raise_grain ? say("Underside first. Pencil all over and sand until it is gone; before the last grit wet it, let it dry for "
                                 "{}; spirits show every scratch left. "
                                 "Look along the light after each grit.",
                                 hours(dries_h))
                           : say("Underside first. Pencil all over and sand until it is gone; spirits show every scratch left. Look along "
                                 "the light after each grit."));
        const Region* leaf = in_.top.leaves > 0 ? &in_.top.regions.front() : nullptr;
        if (leaf && leaf->species && !leaf->species->dust.empty())
            add("skin.dust", Severity::note,
                say("The fine dust of this wood is worse than others: extraction at the sander, and a respirator that fits."));
        if (!in_.ties.empty())
            add("skin.before_tie", Severity::note, say("Bow ties, patches and fillings go in before any finish: glue does not hold on it."),
                centroid(in_.ties.front().outline));
        const bool glass =
            std::any_of(p_.faces.begin(), p_.faces.end(), [](const SkinFacePlan& f) { return f.face.resin() && !f.left_out; });
        if (glass)
            add("skin.release", Severity::note,
                say("Release tape and wax leave a film on resin that no finish holds on: wipe it with spirits, and sand it all before the "
                    "first coat."));
    }

    void coating() {
        if (in_use([](const FinishClass& k) { return k.oily; }))
            add("skin.rags", Severity::watch,
                say("Rags with this finish heat up by themselves and can set fire to the shop overnight: spread them flat outside to dry, "
                    "or keep them under water in a "
                    "closed metal tin. Never in a heap, never in the bin."));
        if (uses(Finish::sprayed))
            add("skin.spray", Severity::watch,
                say("Spraying: a booth or a place made for it, no spark, a mask with the right filter, gloves, eyes. Local rules stand "
                    "above this."));
        // The coats may go over a month's end: the coldest day and the warmest.
        const double cold = in_.coldest_c.value_or(p_.air_c), warm = in_.warmest_c.value_or(p_.air_c);
        if (const FinishClass* k = in_use([&](const FinishClass& one) { return cold < one.low_c; }))
            add("skin.cold", Severity::stop,
                say("At {} it does not set as its label says, which wants {} at least. Warm the shop, or wait.", celsius(cold),
                    celsius(k->low_c)));
        else if (const FinishClass* hot = in_use([&](const FinishClass& one) { return warm > one.high_c; }))
            add("skin.warm", Severity::watch,
                say("At {} it is tacky before it is wiped; its label allows {}. Early in the morning, small zones.", celsius(warm),
                    celsius(hot->high_c)));
        if (const FaceChoice* twice = told_twice(c_))
            add("skin.two_ways", Severity::stop,
                say("{} is told of twice, with one treatment and with another: what stands first is planned. Take one away.",
                    name_of_face(twice->key)));
        if (!c_.seams_mm.empty())
            for (const Zone& z : p_.zones)
                if (z.coat == 1 && z.minutes > z.window_min + 1e-6) {
                    add("skin.zone_large", Severity::watch,
                        say("Zone {} of the {} takes {} to the last wiped, and there are {}: it gets tacky. Move its seam, or let zones be "
                            "as large as the window asks.",
                            count(z.order), z.face == "under" ? "underside" : "upper face", hours(z.minutes / 60),
                            hours(z.window_min / 60)),
                        centroid(z.ring));
                    break;
                }
        if (p_.zone_most_m2 <= 0)
            add("skin.no_window", Severity::stop,
                say("There is no time to wipe it in: the window is over while it soaks. Set it by your label."));
        else if (p_.label.wiped)
            add("skin.window", Severity::note,
                say("Put on, left {} to soak, all of it wiped off within {} of the first: mix little, work a zone at a time. One can wipe "
                    "off too little, never too much.",
                    hours(p_.label.soak_min * stretched(p_.air_c) / 60), hours(p_.window_min / 60)));
        if (c_.wait_h && p_.coats > 1) {
            if (*c_.wait_h < p_.recoat_h - 0.01)
                add("skin.early", Severity::stop,
                    say("The next coat after {} goes onto one that has not set: wait {}.", hours(*c_.wait_h), hours(p_.recoat_h)));
            else if (p_.recoat_to_h > 0 && *c_.wait_h > p_.recoat_to_h + 0.01)
                add("skin.late", Severity::watch,
                    say("After {} the next coat no longer melts into the one before: sand it lightly with 400, or put it on before {}.",
                        hours(*c_.wait_h), hours(p_.recoat_to_h)));
        }
        if (uses(Finish::oil_hardcoat))
            add("skin.film_on_oil", Severity::watch,
                say("A film on oil that is not cured peels: {} at this air between the oil and the hard coat, and a try on the sample "
                    "first.",
                    hours(in_.shelf.of(Finish::oil_hardcoat).recoat_h * stretched(p_.air_c))));
        if (c_.one_face)
            add("skin.one_face", Severity::watch,
                p_.cup_mm && *p_.cup_mm > 0.1
                    ? say("Finished above alone, its underside follows the room's year first: it cups by up to {}. Finish both faces "
                          "alike.",
                          fine(*p_.cup_mm))
                    : say("Finished above alone it takes up damp from below, and cups. Finish both faces alike."));
        const MoistureRange room = moisture_range(in_.room);
        if (in_.moisture_pct > room.high_pct + 2)
            add("skin.damp", Severity::stop,
                say("The wood holds {} and settles at {} at most where it goes: a finish on damp wood clouds and lets go. Let it dry "
                    "first.",
                    percent(in_.moisture_pct), percent(room.high_pct)));
        if (in_use([](const FinishClass& k) { return k.drips; }))
            add("skin.drips", Severity::note,
                say("It drips at the edge underneath: tape below the rim, and sand the drops off once it is hard."));
        const bool film = in_use([](const FinishClass& k) { return k.film; });
        if (film && c_.sheen != Sheen::gloss)
            add("skin.sheen", Severity::note,
                say("Build it in gloss and end in the wanted sheen: flatting in every coat makes it cloudy."));
        if (!c_.sample_signed)
            add("skin.sample", Severity::note,
                say("No sample is signed yet: a board from the same wood, sanded and finished just so, seen by the client, decides."));
    }

    void choices() {
        std::vector<Phrase> all;
        for (const Finish f : finishes.values) {
            // The same faces with that finish: what is said of it is what its plan would say.
            SkinChoices other = c_;
            other.finish = f;
            SkinInputs in = in_;
            in.choices = other, in.quick = true, in.zoned = false, in.before = &p_;
            const SkinPlan would = f == c_.finish ? SkinPlan() : plan_skin(in);
            const SkinPlan& plan = f == c_.finish ? p_ : would;
            const Quantity days_h = hours(24 * plan.days());
            const auto coats = counted(plan.coats, "coat", "coats");
            const double cost = cost_of(plan);
            all.push_back(cost > 0
                              ? say("{}, {} for about {}, {} of hands, {} until it is handled; {}", coats, litres(plan.ml_in_all / 1000),
                                    number(std::round(cost)), hours(plan.coating_min / 60), days_h, character(f))
                              : say("{}, {}, {} of hands, {} until it is handled; {}", coats, litres(plan.ml_in_all / 1000),
                                    hours(plan.coating_min / 60), days_h, character(f)));
        }
        p_.choices.push_back(choice_of(finishes, c_, std::move(all)));
        p_.choices.push_back(choice_of(befores, c_,
                                       {say("colour and figure as they are"), say("paler; a day, then neutralised and dried"),
                                        say("the colour of the sample; figure can blotch: try it"),
                                        say("darkens oak and its like through; ammonia: outside, sealed")}));
        const double one = p_.faces_alone_min + p_.edges_alone_min;
        p_.choices.push_back(
            choice_of(skin_hands, c_,
                      {say("{} at the sander", hours(one / 60)),
                       say("{} at the sander, edges by hand with them", hours((p_.faces_alone_min / 2 + p_.edges_alone_min) / 60)),
                       say("{} at the sander each; zones twice as large", hours(one / 120))}));
        if (in_use([](const FinishClass& k) { return k.film; }))
            p_.choices.push_back(
                choice_of(sheens, c_, {say("hides fingers, shows no lamps"), say("between them"), say("shows depth, and every scratch")}));
        p_.choices.push_back(
            choice_of(raisings, c_, {say("{} more before the last grit, smooth after", hours(dries_h)), say("the first coat raises it")}));
        p_.choices.push_back(
            choice_of(sides_finished, c_, {say("moves as slowly above as below"), say("less finish; it cups with the seasons")}));
    }

    std::string name_of_face(const std::string& key) const {
        const auto it = std::find_if(p_.faces.begin(), p_.faces.end(), [&](const SkinFacePlan& f) { return f.face.key == key; });
        return it == p_.faces.end() ? key : render(it->face.name, Units::metric());
    }

    /// The finish that is mixed for all of it, in the shop's money; 0 where no label has a price.
    static double cost_of(const SkinPlan& p) {
        double out = 0;
        for (const SkinFacePlan& f : p.faces)
            for (const SkinCoat& coat : f.coats) out += coat.mix_ml / 1000 * f.label.price_l.value_or(0);
        return out;
    }

    /// What a finish is like to live with, short.
    static const char* character(Finish f) {
        switch (f) {
            case Finish::hardwax: return "feels like wood, mended where it is worn";
            case Finish::tinted: return "feels like wood, coloured; try it first";
            case Finish::drying_oil: return "warm, slow, oiled again for years";
            case Finish::wiping: return "thin film, easily put on, fair against water";
            case Finish::brushed: return "tough against water and heat; scratches show";
            case Finish::sprayed: return "tough and even; wants a booth";
            case Finish::flood: return "thick as glass; heat and scratches mark it";
            case Finish::oil_hardcoat: return "depth of oil, a film's guard; long to wait";
            case Finish::soap: return "pale and bare; washed often";
            case Finish::shellac: return "quick and warm; spirits and heat mark it";
        }
        return "";
    }

    const SkinInputs& in_;
    const SkinChoices& c_;
    SkinPlan& p_;
};

}  // namespace

void tell_skin(const SkinInputs& in, SkinPlan& plan) { Teller(in, plan).tell(); }

}  // namespace yb
