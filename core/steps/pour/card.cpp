// The day of the pour: what is set out, the card that is run, and what a thermocouple says of the model.
#include <algorithm>
#include <cmath>

#include <boost/math/tools/minima.hpp>

#include "core/steps/pour/pour.h"
#include "core/steps/pour/told.h"

namespace yb {

namespace {

Quantity grams(double g) { return number(g < 100 ? std::round(g * 10) / 10 : std::round(g)); }

/// A cup is poured out before two thirds of the time in which it would gel in itself.
double cup_s(const Resin& resin, const Batch& b, double air_c) {
    const double g = std::max(1.0, b.a_g + b.b_g);
    return pot_life(kinetics_of(resin), {g, 0, air_c}).pot_life_h * 3600 * 2 / 3;
}

}  // namespace

Phrase label_of(const PourPlan& p, std::size_t compartment, const Resin& resin) {
    const Compartment& c = p.compartments.at(compartment);
    Phrase out = named(resin.label);
    if (Phrase parts = parts_of(resin); !parts.empty()) out.then.push_back(std::move(parts));
    if (c.pigment_g_kg > 0)
        out.then.push_back(say("{}, {} g in each kg of mix", c.colour.empty() ? std::string("pigment") : c.colour, number(c.pigment_g_kg)));
    else out.then.push_back(say("no pigment"));
    return out;
}

void prepare_list(const PourInputs& in, const Resin& resin, PourPlan& p) {
    const auto& c = in.choices;
    double a = 0;
    double b = 0;
    for (const Batch& one : p.batches) a += one.a_l, b += one.b_l;
    p.set_out.push_back(
        say("{}: {} of part A, {} of part B, stirred in their cans and as warm as the shop", resin.label, litres(a), litres(b)));
    p.set_out.push_back(say("{} of {}, a scale or marks for both parts, {}", counted(static_cast<double>(p.batches.size()), "cup", "cups"),
                            litres(c.cup_l), counted(static_cast<double>(p.batches.size()), "stirring stick", "stirring sticks")));
    for (const Compartment& k : p.compartments) {
        double dose = 0;
        for (const Batch& one : p.batches)
            if (&p.compartments[p.lifts[one.lift].compartment] == &k) dose += one.pigment_g;
        if (dose > 0)
            p.set_out.push_back(say("{} g of {}, weighed in one go and shared out by weight", grams(dose),
                                    k.colour.empty() ? std::string("pigment") : k.colour));
    }
    if (p.second)
        p.set_out.push_back(say("{}: {} of the mix, in a cup of its own",
                                c.second_colour.empty() ? std::string("the second colour") : c.second_colour, litres(p.second->litres)));
    if (c.degas) p.set_out.push_back(say("the vacuum pot, never more than half full: {}", litres(c.pot_l / 2)));
    int clamps = 0;
    for (const FloatUp& f : p.floats) clamps += f.clamps;
    p.set_out.push_back(say("{} and blocks of scrap with release tape below, all set before mixing", counted(clamps, "clamp", "clamps")));
    p.set_out.push_back(say("a torch or heat gun, a thermometer for the air, an empty metal tin for hot leftovers, outside"));
    p.set_out.push_back(say("gloves, goggles, moving air"));

    p.leaks.push_back(say("the four corners, caulked to the rim, {} high", mm(p.form.side_mm)));
    p.leaks.push_back(say("the seam round the bottom, {}", along(p.form.caulk_m * 1000)));
    for (const Dam& d : p.dams)
        if (d.length_mm > 1) p.leaks.push_back(say("the end where the river runs out, {} wide", mm(d.length_mm)));
    for (std::size_t k = 0; k < c.dividers.size(); ++k)
        p.leaks.push_back(say("divider {}, both banks and its foot", count(static_cast<double>(k) + 1)));
    p.leaks.push_back(say("cracks and holes in the banks and below, taped and pressed down: a slit of 0.1 mm lets it creep {}",
                          mm(creep_mm(0.1, p.compartments.front().depth_mm, resin.pa_s, p.lifts.empty() ? 1 : p.lifts.front().model.gel_h,
                                      resin.mixed_density() * 1000))));
}

std::vector<CardStep> pour_card(const PourPlan& p, const PourChoices& c, const Resin& resin) {
    std::vector<CardStep> out;
    if (p.lifts.empty()) return out;
    out.push_back({"set out", say("Set everything out"), p.set_out.empty() ? Phrase() : p.set_out.front(), 900});
    out.push_back({"leaks", say("Look for leaks once more"), say("corners, seams, ends, tape underneath"), 300});
    out.push_back({"level", say("Level and clamped down"), say("level at all four corners; every clamp set"), 300});
    std::string poured_before;
    for (std::size_t i = 0; i < p.lifts.size(); ++i) {
        const PourLift& l = p.lifts[i];
        // Compartments of one river are poured on the same day, one after another: their lifts of a height come together.
        int n = 0;
        for (std::size_t k = 0; k < p.batches.size(); ++k) {
            const Batch& b = p.batches[k];
            if (b.lift != i) continue;
            CardStep mix{key_of({mix_step, k}),
                         say("Mix batch {}: {} of A, {} of B", count(static_cast<double>(k) + 1), litres(b.a_l), litres(b.b_l)),
                         b.pigment_g > 0 ? say("by weight {} g and {} g; pigment {} g", grams(b.a_g), grams(b.b_g), grams(b.pigment_g))
                                         : say("by weight {} g and {} g", grams(b.a_g), grams(b.b_g)),
                         c.mix_min * 60};
            mix.mixed_l = b.volume_l;
            mix.pace = "mix";
            if (n++ == 0 && i > 0 && l.compartment == p.lifts[i - 1].compartment) {
                // The lift before has gelled and is still tacky.
                mix.after = poured_before;
                mix.from_s = p.lifts[i - 1].clock.next_from_h * 3600;
                mix.until_s = p.lifts[i - 1].clock.next_to_h * 3600;
                mix.late = say("It is no longer tacky: let it cure, sand it, wipe it, then pour");
            }
            out.push_back(std::move(mix));
            if (c.degas) out.push_back({key_of({"degas", k}), say("Degas it"), say("it rises: half a pot at most"), 60 * degas_min});
            CardStep pour{key_of({pour_step, k}), say("Pour batch {}", count(static_cast<double>(k) + 1)),
                          say("lift {}, from the middle, shallow at first", count(static_cast<double>(i) + 1)), 240};
            pour.after = key_of({mix_step, k});
            pour.until_s = cup_s(resin, b, p.air_c);
            pour.late = say("This cup is about to gel in itself: out of the shop with it, mix another");
            out.push_back(std::move(pour));
            poured_before = key_of({pour_step, k});
            // One cup of each colour, from its first batch: it settles later what the colour was.
            if (n == 1 && (i == 0 || l.compartment != p.lifts[i - 1].compartment))
                out.push_back(
                    {key_of({"sample", l.compartment}), say("A sample cup, and on its label:"), label_of(p, l.compartment, resin), 90});
        }
        CardStep torch{key_of({"bubbles", i}), say("Bubbles: torch it, lightly"), say("keep the flame moving; nothing that burns near it"),
                       120};
        torch.after = poured_before;
        torch.from_s = 600;
        torch.left = i + 1 == p.lifts.size();
        out.push_back(std::move(torch));
    }
    if (p.second) {
        CardStep second{"second colour", say("Stir the second colour in: {}", litres(p.second->litres)),
                        say("it is a syrup; it goes on moving until it sets"), 600};
        second.after = poured_before;
        second.from_s = p.second->from_h * 3600;
        second.until_s = p.second->to_h * 3600;
        second.late = say("It is too thick by now: what goes in sits on top");
        out.push_back(std::move(second));
    }
    const PourLift& last = p.lifts.back();
    CardStep gel{"gelled", say("Gelled: clamps off, blocks out"),
                 say("what crept over a live edge is shaved now, soft, with a scraper; sanded only once it is hard"), 900};
    gel.after = poured_before;
    gel.from_s = last.clock.shave_from_h * 3600;
    out.push_back(std::move(gel));
    CardStep out_of_it{"unmould", say("Unmould"), say("it is hard now; then let it lie with air on both faces"), 1800};
    out_of_it.after = poured_before;
    out_of_it.from_s = p.clock.hard_h * 3600;
    out.push_back(std::move(out_of_it));
    return out;
}

std::vector<CardStep> at_pace(std::vector<CardStep> steps, double factor) {
    for (CardStep& s : steps) {
        const bool cures = index_of(s.key, mix_step) || s.key == "second colour" || s.key == "gelled" || s.key == "unmould";
        if (cures) s.from_s *= factor, s.until_s *= factor;
    }
    return steps;
}

std::optional<std::vector<CardReading>> readings_since_pour(const CardRun& run, const std::vector<CardReading>& unkept) {
    const auto poured =
        std::find_if(run.ticks.begin(), run.ticks.end(), [](const CardTick& t) { return index_of(t.step, pour_step).has_value(); });
    if (poured == run.ticks.end()) return {};
    std::vector<CardReading> out;
    for (const auto* some : {&run.readings, &unkept})
        for (const CardReading& r : *some)
            if (r.after_s >= poured->after_s) out.push_back({r.after_s - poured->after_s, r.temp_c});
    if (out.size() > 10) out.resize(out.size() / 10 * 10);
    return out;
}

std::optional<Corrected> corrected_by(const std::vector<CardReading>& readings, const Resin& resin, const Section& section) {
    std::vector<CardReading> used;
    for (const CardReading& r : readings)
        if (r.after_s >= 0 && r.after_s <= 48 * 3600) used.push_back(r);
    if (used.size() < 3) return {};
    std::sort(used.begin(), used.end(), [](const CardReading& a, const CardReading& b) { return a.after_s < b.after_s; });
    // Readings by the second need no more than a hundred of them.
    if (used.size() > 100) {
        std::vector<CardReading> fewer;
        for (std::size_t i = 0; i < 100; ++i) fewer.push_back(used[i * (used.size() - 1) / 99]);
        used = std::move(fewer);
    }
    Section one = section;
    one.width_mm = 0;  // the middle of it, in one dimension
    const Kinetics base = kinetics_of(resin);
    const auto run = [&](double factor) {
        Kinetics k = base;
        k.gel_25_h *= factor;
        return cure(k, one, {3, 160});
    };
    const auto misses = [&](const Cured& c) {
        double sum = 0;
        for (const CardReading& r : used) {
            const double h = r.after_s / 3600;
            std::size_t i = 0;
            while (i + 2 < c.frames.size() && c.frames[i + 1].h < h) ++i;
            double t = resin_hottest_c(c, one, i);
            if (i + 1 < c.frames.size()) {
                const double a = c.frames[i].h;
                const double b = c.frames[i + 1].h;
                const double s = b > a ? std::clamp((h - a) / (b - a), 0.0, 1.0) : 0;
                t = t * (1 - s) + resin_hottest_c(c, one, i + 1) * s;
            }
            sum += (t - r.temp_c) * (t - r.temp_c);
        }
        return std::sqrt(sum / static_cast<double>(used.size()));
    };
    // Over the logarithm of the factor, to a thousandth.
    std::uintmax_t tries = 16;
    const double at = boost::math::tools::brent_find_minima([&](double log) { return misses(run(std::exp(log))); }, std::log(0.5),
                                                            std::log(2.0), 10, tries)
                          .first;
    const double factor = std::exp(at);
    const Cured best = run(factor);
    return Corrected{base.gel_25_h * factor, misses(best), best.gel_h, best.tacky_h, best.cured_h, best.peak_c, best.peak_h};
}

}  // namespace yb
