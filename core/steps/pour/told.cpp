#include "core/steps/pour/told.h"

#include <algorithm>
#include <cmath>

#include "core/ground/figure/choice.h"
#include "core/steps/fill/fill.h"

namespace yb {

namespace {

/// Not what soaks in, nor what comes as a stick, nor what is spread thin.
bool pours_a_river(const Resin& r) { return !r.solid && !r.soaks && r.deepest_mm >= 5; }

class Teller {
  public:
    Teller(const PourInputs& in, const Resin& resin, PourPlan& p) : in_(in), resin_(resin), p_(p) {}

    void tell() {
        figures();
        heat();
        form();
        others();
        choices();
    }

  private:
    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {}) {
        p_.cautions.push_back(
            {std::move(key), s, step_key::pour, std::move(says), at ? std::optional(in_.top.bench.to_slab(*at)) : std::nullopt});
    }

    const LiftForecast& hottest() const {
        return *std::max_element(p_.lifts.begin(), p_.lifts.end(),
                                 [](const PourLift& a, const PourLift& b) { return a.peak_high_c < b.peak_high_c; });
    }

    void figures() {
        const auto& c = in_.choices;
        std::vector<Given> given;
        double net = 0;
        double guess = 0;
        for (const Compartment& k : p_.compartments) {
            net += k.net_l + k.voids_l, guess += k.guess_l;
            given.push_back({"river, between the finished planes", litres(k.net_l), "ruled banks, Simpson's rule"});
            if (k.voids_l > 0) given.push_back({"voids that open into it", litres(k.voids_l), "Fill"});
            given.push_back({"sawn off with the ends", litres(k.ends_l), "the form is as long as the blank"});
            if (k.wedge_l > 0) given.push_back({"the form out of level", litres(k.wedge_l), "face × how much deeper it stands on average"});
            given.push_back({"upper face", square_metres(area(k.poured) * 1e-6), "bank to bank, to the ends of the form"});
            given.push_back({"soaks in", litres(k.soak_l), "both banks × what a square metre drinks"});
        }
        given.push_back({"overfill", fine(in_.fill.overfill_mm), "the maker's"});
        given.push_back({"planed off after", fine(c.after_mm), "the maker's"});
        given.push_back({"reserve", percent(in_.fill.reserve_pct), "the maker's"});
        given.push_back({"stays in the cup", percent(c.cup_loss_pct), "the maker's"});
        p_.figures.push_back({"pour.mix",
                              "Resin to mix",
                              litres(p_.mix_l),
                              {},
                              say("{} stays in the top; length × width × thickness would guess {}", litres(net), litres(guess)),
                              {"(net + voids + ends + wedge + face × (overfill + planed off) + soak-in) × (1 + reserve) × (1 + cup)", given,
                               "docs/methods.md, Pour"}});
        const double a = resin_.volume_a() / (resin_.volume_a() + resin_.volume_b());
        p_.figures.push_back(
            {"pour.batches",
             "Batches, each",
             count(static_cast<double>(p_.batches.size())),
             litres(p_.batches.empty() ? 0 : p_.batches.front().volume_l),
             p_.batches.empty() ? Phrase()
                                : say("A {} and B {} · by weight {} and {}", litres(p_.batches.front().a_l), litres(p_.batches.front().b_l),
                                      kg(p_.batches.front().a_g / 1000), kg(p_.batches.front().b_g / 1000)),
             {"each lift's mix / ceil(mix / largest cup); all alike, of one total",
              {{"largest cup", litres(c.cup_l), "the maker's"}, {"part A by volume", percent(100 * a), resin_.label}},
              "the label stands above it"}});
        const LiftForecast& hot = hottest();
        p_.figures.push_back(
            {"pour.peak",
             "Peak, and with the air 1 °C warmer",
             celsius(hot.peak_c),
             celsius(hot.peak_high_c),
             say("{} h after it is poured; {} with the air 1 °C cooler", count(hot.peak_h), celsius(hot.peak_low_c)),
             {"dα/dt = A·exp(−E/RT)·(α₀ + α^m)(1 − α)^n, heat through resin, board and air, in one dimension: a narrow river stays cooler",
              {{"air", celsius(p_.air_c), "shop, that month"},
               {"gels at 25 °C in", hours(kinetics_of(resin_).gel_25_h), resin_.pot_life_h ? "fitted to the pot life" : "the resin's"},
               {"heat, kJ/kg", number(resin_.heat_kj_kg), "the resin's"},
               {"limit", celsius(c.peak_limit_c), "the maker's"}},
              "docs/methods.md, Pour"}});
        p_.figures.push_back({"pour.lifts",
                              "Lifts, each",
                              count(static_cast<double>(p_.lifts.size())),
                              fine(p_.lifts.front().depth_mm),
                              p_.lifts.size() > 1 ? say("the next from {} to {} after the one before: gelled, still tacky",
                                                        hours(p_.lifts.front().clock.next_from_h), hours(p_.lifts.front().clock.next_to_h))
                                                  : say("gels in {}", hours(p_.lifts.front().model.gel_h)),
                              {"as few as stay below the limit with the air 1 °C warmer, none deeper than the label allows",
                               {{"label allows", fine(resin_.deepest_mm), resin_.label}},
                               "each simulated on those below it"}});
        if (p_.second)
            p_.figures.push_back({"pour.second",
                                  "Second colour, from, to",
                                  hours(p_.second->from_h),
                                  hours(p_.second->to_h),
                                  say("{} of it, after the last lift is poured", litres(p_.second->litres)),
                                  {"α 0.25 at the middle of the top; to half-way from there to its gel",
                                   {{"of the last lift", percent(c.second_pct), "the maker's"}},
                                   "simulated; docs/methods.md, Pour"}});
        p_.figures.push_back({"pour.wait",
                              "Waiting, at least",
                              hours(p_.wait_h),
                              {},
                              say("until it is hard and comes out of its form"),
                              {"last lift poured + until it is hard: as the label says, brought to this air, or 95 % cured",
                               {{"last poured after", hours(p_.lifts.back().poured_h), ""},
                                {"hard after", hours(p_.clock.hard_h), p_.clock.hard_by_label ? resin_.label : "simulated"}},
                               "docs/methods.md, Pour"}});
        double force = 0;
        int clamps = 0;
        for (const FloatUp& f : p_.floats) force += f.force_n, clamps += f.clamps;
        p_.figures.push_back({"pour.float",
                              "Floats up, N, and clamps",
                              number(std::round(force)),
                              count(clamps),
                              say("a margin of two; {} N each", number(c.clamp_n)),
                              {"(ρ_resin·V_wet − ρ_wood·V)·g, each leaf over all its width and length in the form",
                               {{"resin, kg/L", number(resin_.mixed_density()), resin_.label}},
                               "Archimedes; an estimate"}});
    }

    void heat() {
        const auto& c = in_.choices;
        const LiftForecast& hot = hottest();
        if (hot.peak_high_c > c.peak_limit_c && p_.lifts.size() >= most_lifts) never_cool(hot);
        else if (hot.peak_high_c > c.peak_limit_c)
            add("pour.hot", Severity::stop,
                say("A lift of {} gets to {} in this air, {} with 1 °C more: it boils, yellows and cracks. Pour it in more lifts, in the "
                    "cool, "
                    "or with air moving over it.",
                    fine(hot.depth_mm), celsius(hot.peak_c), celsius(hot.peak_high_c)));
        else if (hot.peak_high_c - hot.peak_low_c > 10)
            add("pour.near", Severity::watch,
                say("This lift is near to running away: from {} to {} hang on 1 °C of air to either side. Keep the shop even, or take one "
                    "lift "
                    "more.",
                    celsius(hot.peak_low_c), celsius(hot.peak_high_c)));
        if (p_.lifts.front().depth_mm > resin_.deepest_mm + 0.05)
            add("pour.label", Severity::stop,
                say("Lifts of {} are deeper than the {} its label allows. The label stands above the figures: take {}.",
                    fine(p_.lifts.front().depth_mm), fine(resin_.deepest_mm),
                    counted(std::ceil(p_.compartments.front().depth_mm / resin_.deepest_mm), "lift", "lifts")));
        if (p_.air_c < resin_.low_c || p_.air_c > resin_.high_c)
            add("pour.air", Severity::watch,
                say("The shop's air of {} lies outside the {} to {} its label wants. Warm or cool the shop, or wait.", celsius(p_.air_c),
                    celsius(resin_.low_c), celsius(resin_.high_c)));
        if (c.night_c > 5)
            add("pour.night", Severity::note,
                say("With the heater off it is {} °C colder by night: cures stretch. Leave it on until it has gelled.", number(c.night_c)));
    }

    /// More lifts do not help any more: what would, another resin of the shelf, or lifts so thin as this one wants them.
    void never_cool(const LiftForecast& hot) {
        const double deep = p_.compartments.front().depth_mm + in_.fill.overfill_mm + in_.choices.after_mm;
        const auto worst = [&](const Resin& r, double depth, int lifts) {
            PourChoices c = in_.choices;
            c.lifts = lifts;
            double peak = 0;
            for (const LiftForecast& l : forecast_lifts(r, depth, p_.air_c, c)) peak = std::max(peak, l.peak_high_c);
            return peak;
        };
        for (const Resin& r : in_.resins) {
            if (r.key == resin_.key || !pours_a_river(r)) continue;
            PourChoices c = in_.choices;
            c.lifts = 0;
            const auto lifts = forecast_lifts(r, deep, p_.air_c, c);
            const double peak = worst(r, deep, static_cast<int>(lifts.size()));
            if (lifts.empty() || lifts.size() >= most_lifts || peak > c.peak_limit_c) continue;
            add("pour.hot", Severity::stop,
                say("Even in {} of {} it gets to {} in this air: no more lifts cool it. {} would do, in {} of {} at {} at most.",
                    counted(static_cast<double>(p_.lifts.size()), "lift", "lifts"), fine(hot.depth_mm), celsius(hot.peak_high_c), r.label,
                    counted(static_cast<double>(lifts.size()), "lift", "lifts"), fine(lifts.front().depth_mm), celsius(peak)));
            return;
        }
        double low = 0;
        double high = hot.depth_mm;
        for (int i = 0; i < 10; ++i) (worst(resin_, (low + high) / 2, 1) <= in_.choices.peak_limit_c ? low : high) = (low + high) / 2;
        add("pour.hot", Severity::stop,
            low > 0.5 ? say("Even in {} of {} it gets to {} in this air, and no resin of the shop stays cooler. Lifts of {} would do, or a "
                            "slower resin, or a colder shop.",
                            counted(static_cast<double>(p_.lifts.size()), "lift", "lifts"), fine(hot.depth_mm), celsius(hot.peak_high_c),
                            fine(low))
                      : say("Even in {} of {} it gets to {} in this air, and no lift of it stays cool. Take a slower resin, or a colder "
                            "shop.",
                            counted(static_cast<double>(p_.lifts.size()), "lift", "lifts"), fine(hot.depth_mm), celsius(hot.peak_high_c)));
    }

    void form() {
        const auto& c = in_.choices;
        const Form& f = p_.form;
        add("pour.leaks", Severity::note,
            say("Before you mix: caulk {} of seams, tape {} m, and go over corners, ends and bearers as if water stood in them. A "
                "slit of "
                "0.1 mm lets this resin creep {} before it gels.",
                along(f.caulk_m * 1000), number(f.tape_m),
                mm(creep_mm(0.1, p_.compartments.front().depth_mm, resin_.pa_s, p_.lifts.front().model.gel_h,
                            resin_.mixed_density() * 1000))));
        if (f.sag_mm > 0.5) {
            const double closer = std::floor(c.bearers_mm * std::pow(0.4 / f.sag_mm, 0.25) / 10) * 10;
            add("pour.sags", Severity::watch,
                say("Between bearers {} apart the form's bottom hangs {}: set them closer, {} or less.", mm(c.bearers_mm), fine(f.sag_mm),
                    mm(closer)));
            p_.cautions.back().asks = {{"bearers_mm", closer}};
        }
        if (f.overhang_sag_mm > 0.5)
            add("pour.overhang", f.overhang_sag_mm > 3 ? Severity::stop : Severity::watch,
                say("Where the form hangs {} over its bench its end goes down {}: put a leg or a board under it.", mm(c.overhang_mm),
                    fine(f.overhang_sag_mm)));
        if (!f.pack_mm.empty()) {
            if (const double most = *std::max_element(f.pack_mm.begin(), f.pack_mm.end()); most > 0.5)
                add("pour.level", Severity::watch,
                    say("The form's corners stand {} apart: {} more resin at the low ones. Pack up {} left near, {} right near, {} right "
                        "far, {} left far.",
                        fine(most), litres(f.wedge_l), fine(f.pack_mm[0]), fine(f.pack_mm[1]), fine(f.pack_mm[2]), fine(f.pack_mm[3])));
        } else if (c.slope_mm_m > 0.5)
            add("pour.slope", Severity::watch,
                say("The form stands {} mm a metre out of level: a wedge of {} more at one end, mixed with the rest and planed off after. "
                    "Level it.",
                    number(c.slope_mm_m), litres(f.wedge_l)));
        for (const FloatUp& up : p_.floats)
            if (up.force_n > 1)
                add("pour.float", Severity::watch,
                    say("{} floats up with {} N: hold it down with {} of {} N, on blocks of scrap.", in_.top.regions[up.leaf].name,
                        number(std::round(up.force_n)), counted(up.clamps, "clamp", "clamps"), number(c.clamp_n)),
                    centroid(in_.top.regions[up.leaf].above));
        for (const Dam& d : p_.dams)
            if (d.length_mm > 1)
                add("pour.dam", Severity::note,
                    say("The river runs out at the end, {} wide: the form's end dams it. Caulk it there.", mm(d.length_mm)), d.at);
        if (f.inside_length_mm < in_.top.wanted.length_mm || f.inside_width_mm < 50)
            add("pour.form", Severity::stop, say("The form would be smaller than what goes into it. Lay the leaves first."));
    }

    /// Voids beside a river show where they are not tinted like it.
    void voids_tinted() {
        const auto by_itself = [](const Region& r) { return r.let_in && r.kind == RegionKind::resin && !r.river; };
        if (std::none_of(in_.top.regions.begin(), in_.top.regions.end(), by_itself)) return;
        const double river = p_.compartments.front().pigment_g_kg;
        if (std::abs(river - in_.fill.pigment_g_kg) < 0.05) return;
        add("pour.tint", Severity::watch,
            say("The river takes {} g of tint in a kilogram and the voids {}: beside it they show. Give both the same dose, weighed, on "
                "whatever day.",
                number(river), number(in_.fill.pigment_g_kg)));
        p_.cautions.back().asks = {{"pigment_g_kg", river}};
    }

    void others() {
        voids_tinted();
        const auto& c = in_.choices;
        if (c.degas && c.cup_l > c.pot_l / 2)
            add("pour.pot", Severity::watch,
                say("Under vacuum the mix rises: fill the pot to half. Batches are {} at most, not {}.", litres(c.pot_l / 2),
                    litres(c.cup_l)));
        if (p_.batches.size() > 1)
            add("pour.colour", Severity::note,
                c.pigment_g_kg > 0
                    ? say("In {}: {} g of pigment in each, weighed, of one total of {} g. Keep a cup of it, labelled.",
                          counted(static_cast<double>(p_.batches.size()), "batch", "batches"),
                          number(std::round(p_.batches.front().pigment_g * 10) / 10), number(std::round(total_pigment() * 10) / 10))
                    : say("{}: what colours them goes into each by weight, of one total, or the colour steps.",
                          counted(static_cast<double>(p_.batches.size()), "batch", "batches")));
        if (resin_.left_l && *resin_.left_l < p_.mix_l)
            add("pour.short", Severity::stop,
                say("{} is on the shelf and {} is to be mixed: get {} more before the first cup is opened.", litres(*resin_.left_l),
                    litres(p_.mix_l), litres(p_.mix_l - *resin_.left_l)));
        if (const Kinetics k = kinetics_of(resin_); !p_.batches.empty() && p_.batches.front().a_g + p_.batches.front().b_g > 0) {
            const double grams = p_.batches.front().a_g + p_.batches.front().b_g;
            const CupLife life = pot_life(k, {grams, 0, p_.air_c});
            if (life.temp_c > 80)
                add("pour.cup", Severity::watch,
                    say("A cup of {} left standing gels after {} at {}: pour it out at once, shallow. A hot cup goes outside, never in a "
                        "closed "
                        "bin.",
                        kg(grams / 1000), hours(life.pot_life_h), celsius(life.temp_c)));
        }
        const LiftForecast& last = p_.lifts.back();
        add("pour.syrup", p_.second ? Severity::watch : Severity::note,
            say("A second colour goes in when it is a syrup, from {} to {} after the last lift is poured: earlier it sinks and spreads, "
                "later "
                "it sits on top.",
                hours(last.syrup_h), hours((last.syrup_h + last.model.gel_h) / 2)));
        for (const Phrase& fault : sheet_faults(resin_)) add("pour.sheet", Severity::stop, fault);
        for (const Divider& d : c.dividers) {
            bool met = false;
            for (const Compartment& k : p_.compartments)
                met = met || (static_cast<int>(k.joint) + 1 == std::max(1, d.river) && std::abs(bounds(k.above).low.x - d.u_mm) < 1);
            if (!met)
                add("pour.divider", Severity::watch,
                    say("A divider at {} stands in no river: set it between the river's ends, or take it away.",
                        along(d.u_mm + in_.top.wanted.length_mm / 2)));
        }
        if (p_.shopping.kits > 0)
            add("pour.buy", Severity::note,
                say("To buy: {} of {}; {} stays on the shelf.", counted(p_.shopping.kits, "kit", "kits"), litres(*resin_.kit_l),
                    litres(p_.shopping.remains_l)));
        add("pour.after", Severity::note,
            say("Afterwards: soft, from {} on, what stands proud or crept over a live edge is shaved, warm, with a sharp scraper. Hard, "
                "after {}, "
                "it is unmoulded, planed and sanded, and topped up where it shrank. Fully cured after {}.",
                hours(p_.clock.shave_from_h), hours(p_.clock.hard_h), hours(p_.clock.full_h)));
        add("pour.safe", Severity::note,
            say("Resin: gloves, eyes, moving air – it sensitises. Torch and heat gun: away from what burns, no solvent open or wet rag "
                "near. Do not sand what is not cured. The label and "
                "local "
                "rules stand above this."));
        for (Caution c2 : of_every_pour(p_.air_c))
            if (c2.key == "fill.cold") c2.step = step_key::pour, p_.cautions.push_back(std::move(c2));
    }

    double total_pigment() const {
        double sum = 0;
        for (const Batch& b : p_.batches) sum += b.pigment_g;
        return sum;
    }

    void choices() {
        const auto& c = in_.choices;
        const auto with = [&](bool fans) {
            PourChoices other = c;
            other.fans = fans;
            const auto lifts =
                forecast_lifts(resin_, p_.compartments.front().depth_mm + in_.fill.overfill_mm + c.after_mm, p_.air_c, other);
            double peak = 0;
            for (const LiftForecast& l : lifts) peak = std::max(peak, l.peak_high_c);
            return say("{}, {} at most", counted(static_cast<double>(lifts.size()), "lift", "lifts"), celsius(peak));
        };
        p_.choices.push_back(choice_of(pour_airs, c, {with(false), with(true)}));
        p_.choices.push_back(choice_of(pour_degas, c,
                                       {say("batches of {}, bubbles rise by themselves", litres(c.cup_l)),
                                        say("batches of {} at most", litres(std::min(c.cup_l, c.pot_l / 2)))}));
        Choice river{"fill.river", "Resin", {}};
        for (const Resin& r : in_.resins) {
            if (!pours_a_river(r)) continue;
            const auto lifts = forecast_lifts(r, p_.compartments.front().depth_mm + in_.fill.overfill_mm + c.after_mm, p_.air_c, c);
            if (lifts.empty()) continue;
            double peak = 0;
            for (const LiftForecast& l : lifts) peak = std::max(peak, l.peak_high_c);
            river.options.push_back({r.key, r.label,
                                     say(lifts.size() == 1 ? "{}, {} at most, gels in {}" : "{}, {} at most, {} in all",
                                         counted(static_cast<double>(lifts.size()), "lift", "lifts"), celsius(peak),
                                         hours(lifts.back().poured_h + lifts.back().model.gel_h)),
                                     r.key == p_.resin});
        }
        p_.choices.push_back(std::move(river));
    }

    const PourInputs& in_;
    const Resin& resin_;
    PourPlan& p_;
};

}  // namespace

void tell_pour(const PourInputs& in, const Resin& resin, PourPlan& plan) { Teller(in, resin, plan).tell(); }

namespace {

/// What the label says of it beside what the fitted model says.
Figure label_figure(const Resin& resin) {
    std::vector<Given> rows;
    double worst = 0;
    for (const LabelRow& r : label_against_model(resin)) {
        rows.push_back({std::string(r.what) + ": label", hours(r.label_h), resin.label});
        rows.push_back({std::string(r.what) + ": model", hours(r.model_h), "fitted"});
        if (r.label_h > 0 && std::abs(r.model_h / r.label_h - 1) > std::abs(worst)) worst = r.model_h / r.label_h - 1;
    }
    const auto n = static_cast<double>(rows.size() / 2);
    return {"resin.label",
            "Model beside label, worst",
            percent(100 * worst),
            {},
            n > 0 ? say("of {} on the label, which stands above the model", counted(n, "time", "times"))
                  : say("its label gave no times: type them on the shop's page"),
            {"model / label − 1, at 25 °C; pot life in the cup it was measured in", rows, "docs/methods.md, Pour"}};
}

Thing resin_thing(const PourPlan& p, const Resin& resin) {
    Thing t{"resin 1", "resin", 0, say("Resin: {}", resin.label)};
    const Shopping& buy = p.shopping;
    t.figures = {{"resin.buy",
                  "To buy, and what stays over",
                  litres(buy.buys_l),
                  litres(buy.remains_l),
                  buy.kits > 0 ? say("{} of {}", counted(buy.kits, "kit", "kits"), litres(*resin.kit_l))
                               : say("sold by the litre, as far as the shelf says"),
                  {"ceil((to mix − on the shelf) / kit) × kit",
                   {{"to mix", litres(buy.wanted_l), "Pour"},
                    {"on the shelf", litres(buy.left_l), "the shop's page"},
                    {"it costs", number(std::round(buy.cost)), "price of a litre × what is bought"}},
                   "the shop's page"}},
                 label_figure(resin)};
    const PourLift& last = p.lifts.back();
    const CureClock& c = p.clock;
    t.figures.push_back({"resin.after",
                         "Soft, and hard after",
                         hours(c.shave_from_h),
                         hours(c.hard_h),
                         say("soft it is shaved, warm, with a scraper; hard it comes out of the form, is planed and sanded"),
                         {"soft from its gel; hard as the label says, brought to this air, or 95 % cured",
                          {{"gels after", hours(last.model.gel_h), "simulated"},
                           {"95 % cured, at least, after", hours(last.model.cured_h.value_or(600)), "simulated"},
                           {"label: sand after, at 25 °C", hours(resin.sand_h.value_or(0)), resin.sand_h ? resin.label : "not said"},
                           {"fully cured after", hours(c.full_h), c.full_by_label ? resin.label : "simulated"}},
                          "docs/methods.md, Pour"}});
    return t;
}

Thing form_thing(const PourPlan& p, const Frame& to_bench) {
    const Form& f = p.form;
    Thing t{"form 1", "form", 0, say("The form")};
    const double l = f.inside_length_mm / 2 + f.thick_mm;
    const double w = f.inside_width_mm / 2 + f.thick_mm;
    t.area = to_bench.to_slab(Ring{f.middle + Vec2{-l, -w}, f.middle + Vec2{l, -w}, f.middle + Vec2{l, w}, f.middle + Vec2{-l, w}});
    std::vector<Given> cut;
    for (const FormPart& part : f.parts) {
        cut.push_back({std::string(part.name) + ", how many", count(part.count), "cut list"});
        cut.push_back({std::string(part.name) + ", long", mm(part.length_mm), "cut list"});
        cut.push_back({std::string(part.name) + ", wide", mm(part.width_mm), "cut list"});
    }
    double used = 0;
    for (const FormPart& part : f.parts) used += part.count * part.length_mm * part.width_mm;
    t.figures = {{"form.inside",
                  "Inside, long and wide",
                  mm(f.inside_length_mm),
                  mm(f.inside_width_mm),
                  say("sides {} high, out of sheets of {}", mm(f.side_mm), mm(f.thick_mm)),
                  {"the blank and its leaves; sides: the pour + rim", cut, "docs/methods.md, Pour"}},
                 {"form.panels",
                  "Panels",
                  count(static_cast<double>(f.sheets.size())),
                  square_metres(used * 1e-6),
                  say("parts too long are butted, the seam caulked"),
                  {"parts nested in rows of falling height, a saw kerf between them; their area", cut, "panels as you set them"}},
                 {"form.tape",
                  "Tape, and its rolls",
                  along(f.tape_m * 1000),
                  count(f.rolls),
                  say("caulk {}; {}", along(f.caulk_m * 1000), counted(f.screws, "screw", "screws")),
                  {"(inside area + sides) / width of the tape × 1.05", {}, "rolls as you set them"}},
                 {"form.wall",
                  "Presses on its sides, N a metre",
                  number(std::round(f.wall_n_m)),
                  {},
                  say("a stiffener or block every {}", mm(std::floor(f.stiffeners_mm / 10) * 10)),
                  {"ρ·g·h²/2; pitch: 5·w·L⁴/(384·E·I) ≤ 0.5 mm", {}, "hydrostatic; an estimate"}},
                 {"form.sag",
                  "Bottom hangs between bearers",
                  fine(f.sag_mm),
                  {},
                  f.overhang_sag_mm > 0.05 ? say("and its end past the bench {}", fine(f.overhang_sag_mm)) : Phrase(),
                  {"5·q·L⁴/(384·E·I), a strip as wide as it is thick", {}, "an estimate"}}};
    return t;
}

}  // namespace

std::vector<Thing> pour_things(const PourPlan& p, const Resin* resin, const Frame& to_bench) {
    std::vector<Thing> out;
    for (std::size_t i = 0; i < p.compartments.size(); ++i) {
        const Compartment& c = p.compartments[i];
        Thing t{"river " + std::to_string(i + 1), "river", i,
                c.colour.empty() ? say("River {}", count(static_cast<double>(i) + 1))
                                 : say("River {}: {}", count(static_cast<double>(i) + 1), c.colour)};
        t.area = to_bench.to_slab(c.above);
        t.figures = {{"river.pour",
                      "Goes into it",
                      litres(c.pour_l),
                      {},
                      say("{} between the finished planes", litres(c.net_l)),
                      {"net + voids + ends + wedge + face × (overfill + planed off) + soak-in",
                       {{"net", litres(c.net_l), "ruled banks"},
                        {"voids that open into it", litres(c.voids_l), "Fill"},
                        {"sawn off with the ends", litres(c.ends_l), "the form is as long as the blank"},
                        {"the form out of level", litres(c.wedge_l), "as it was read"},
                        {"soak-in", litres(c.soak_l), "each bank by its own lean"}},
                       "docs/methods.md, Pour"}},
                     {"river.guess",
                      "Length × width × thickness",
                      litres(c.guess_l),
                      {},
                      say("what the lean of the banks is worth: {}", litres(c.net_l - c.guess_l)),
                      {"length × mean width above × thickness", {}, "the usual guess"}},
                     {"river.width", "Mean width", mm(c.width_mm), {}, {}, {"area half-way down / length", {}, ""}},
                     {"river.deep", "Deep", fine(c.depth_mm), {}, {}, {"finished thickness", {}, "Flat"}}};
        out.push_back(std::move(t));
    }
    for (std::size_t i = 0; i < p.lifts.size(); ++i) {
        const PourLift& l = p.lifts[i];
        Thing t{"lift " + std::to_string(i + 1), "lift", i, say("Lift {}", count(static_cast<double>(i) + 1))};
        double batches = 0;
        for (const Batch& b : p.batches) batches += b.lift == i;
        t.figures = {{"lift.mix",
                      "To mix",
                      litres(l.mix_l),
                      {},
                      say("{} goes in; {}", litres(l.volume_l), counted(batches, "batch", "batches")),
                      {"its share × (1 + reserve) × (1 + cup)", {}, ""}},
                     {"lift.peak",
                      "Peak, 1 °C warmer",
                      celsius(l.peak_c),
                      celsius(l.peak_high_c),
                      say("{} after it is poured", hours(l.peak_h)),
                      {"one dimension, on the lifts below it", {}, "docs/methods.md, Pour"}},
                     {"lift.poured", "Poured after the first", hours(l.poured_h), {}, {}, {"as the one before gels", {}, ""}},
                     {"lift.next",
                      "Next from, to",
                      hours(l.clock.next_from_h),
                      hours(l.clock.next_to_h),
                      say("gelled, still tacky; later it is sanded first"),
                      {"α 0.55 and 0.75 at the surface", {}, ""}}};
        out.push_back(std::move(t));
    }
    if (!p.lifts.empty()) out.push_back(form_thing(p, to_bench));
    if (resin && !p.lifts.empty()) out.push_back(resin_thing(p, *resin));
    return out;
}

}  // namespace yb
