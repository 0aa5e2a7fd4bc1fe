#include "core/steps/flat/told.h"
#include "core/ground/measure/lift.h"
#include "core/steps/flat/rest.h"

#include <algorithm>
#include <cmath>

#include "core/ground/figure/choice.h"
#include "core/material/wood/cup.h"

namespace yb {

namespace {

class Teller {
  public:
    Teller(const FlatInputs& in, const Tried& tried, FlatPlan& plan) : in_(in), tried_(tried), p_(plan) {}

    void tell() {
        figures();
        cautions();
        choices();
    }

  private:
    void figures() {
        const Tilt& t = p_.tilt;
        const std::string heights = in_.shape.heights_a || in_.shape.heights_b ? "straightedge and caliper" : "caliper only: a guess";
        const std::string method = "linear program, exact on the readings (docs/methods.md, Flattening)";
        Working thick{"t(a,b) = min(z_top − ax − by) − max(z_bottom − ax − by), over √(1 + a² + b²)",
                      {{"tilt along", number(t.a * 1000), "mm per m, solved"},
                       {"tilt across", number(t.b * 1000), "mm per m, solved"},
                       {"readings inside the top", count(static_cast<double>(tried_.top.size() + tried_.bottom.size())), heights},
                       {"wanted", fine(in_.top.thickness_mm), "wanted top"},
                       {"best tilt, before it rests", fine(tried_.best.thickness_mm), "solved"},
                       {"this tilt, before it rests", fine(before_the_rest_mm()), "solved"}},
                      method};
        if (p_.rest && p_.rest->known) {
            thick.formula +=
                "; less what a cup takes while it rests: roughed to what is left for the last pass, bent by cup·v², tilted anew";
            thick.given.push_back({"expected cup", fine(std::abs(p_.rest->cup_mm)), "by its rings, until it has settled"});
            thick.given.push_back({"the rest takes", fine(p_.rest->mm), "solved"});
        }
        p_.figures.push_back({"flat.thickness", "Finishes at", fine(p_.thickness_mm), {}, most_says(), thick});
        p_.figures.push_back({"flat.whole",
                              "Whole slab would finish at",
                              fine(p_.whole_mm),
                              {},
                              say("cutting to length first keeps {} more", fine(p_.thickest_mm - p_.whole_mm)),
                              {"the same over the whole uncut slab",
                               {{"inside the top", fine(p_.thickest_mm), "solved"}, {"whole", fine(p_.whole_mm), "solved"}},
                               method}});
        const FacePlan& top = p_.face(Face::a);
        const FacePlan& low = p_.face(Face::b);
        p_.figures.push_back({"flat.off",
                              "Off show face, underside",
                              fine(top.most_off_mm),
                              fine(low.most_off_mm),
                              say("at the worst places; {} and {} on average", fine(top.mean_off_mm), fine(low.mean_off_mm)),
                              {"height − finished plane, inside the top",
                               {{"show face, most", fine(top.most_off_mm), heights}, {"underside, most", fine(low.most_off_mm), heights}},
                               ""}});
        double tallest = 0;
        for (const Shim& s : p_.shims) tallest = std::max(tallest, s.height_mm);
        p_.figures.push_back({"flat.gain",
                              "Shims gain",
                              fine(tried_.best.thickness_mm - tried_.lies.thickness_mm),
                              {},
                              p_.stacks.pieces > 0 ? say("tallest shim {}; {} of the stock under all", fine(tallest),
                                                         counted(p_.stacks.pieces, "piece", "pieces"))
                                                   : say("tallest shim {}", fine(tallest)),
                              {"best tilt − no tilt, inside the top",
                               {{"best tilt", fine(tried_.best.thickness_mm), "solved"},
                                {"as it lies", fine(tried_.lies.thickness_mm), "readings"},
                                {"pieces under all shims", count(p_.stacks.pieces), "chosen together"},
                                {"each shim's nearest stack", count(p_.stacks.alone), "pieces in all"},
                                {"whole slab raised for it", fine(p_.stacks.raised_mm), "2 mm at most"},
                                {"then rocks by", fine(p_.stacks.rocks_mm), "0.1 mm at most"},
                                {"and gives up", fine(p_.stacks.loses_mm), "of what it finishes at"}},
                               method}});
        work();
        if (p_.under_stays)
            p_.figures.push_back({"flat.stays",
                                  "Stays below the plane",
                                  fine(p_.stays_mm),
                                  {},
                                  say("at most; {} of wood in all", litres(p_.stays_l)),
                                  {"highest wood below the plane, inside the top",
                                   {{"wood that stays", litres(p_.stays_l), "∫ of it over the top"}},
                                   "the underside is left as it is: weight, legs and packing know it"}});
        settled();
    }

    /// Passes and hours: the sled's lanes, or what another way asks for.
    void work() {
        const FacePlan& top = p_.face(Face::a);
        const FacePlan& low = p_.face(Face::b);
        const Sled& s = in_.sled;
        if (in_.choices.by != FlatBy::sled && p_.work.possible) {
            if (in_.choices.by == FlatBy::bought_flat) return;  // nothing is left to do
            p_.figures.push_back(
                hours_figure(p_.work.hands_on_h, top.removed_l + low.removed_l, s, {{"by", count(1), name_of(in_.choices.by)}},
                             "passes × length / feed, of the way that is chosen; ∫ max(height − plane, 0) over the rough piece × loose"));
            p_.figures.back().label = "Hands-on time, loose chips";
            return;
        }
        const int cut = top.passes_cut + low.passes_cut;
        const int all = top.passes_all + low.passes_all;
        p_.figures.push_back(
            {"flat.passes",
             "Lane passes, both faces",
             count(cut),
             {},
             all == 0 ? say("both faces are flat enough: sanding takes the rest")
             : p_.faces[1].layers == 0
                 ? say("{}; {} through air skipped", counted(p_.faces[0].layers, "layer", "layers"), counted(all - cut, "pass", "passes"))
                 : say("{} and {}; {} through air skipped", counted(p_.faces[0].layers, "layer", "layers"),
                       counted(p_.faces[1].layers, "layer", "layers"), counted(all - cut, "pass", "passes")),
             {"lanes = ceil(length / (cutter × (1 − overlap))) + 1; layers = ceil((highest − allowance) / depth) + ceil(allowance / depth)",
              {{"lanes a layer", count(top.lanes), "rough-cut length"},
               {"cutter", fine(s.cutter_mm), "shop"},
               {"overlap", percent(s.overlap * 100), "shop"},
               {"depth", fine(s.depth_mm), "shop"},
               {"left on the show face for after the rest", fine(top.left_mm), "what you set, and what the rest will take"},
               {"left on the underside", fine(low.left_mm), "the same"},
               {"all lanes × layers", count(all), ""}},
              "lanes with no wood above the layer are skipped"}});
        p_.figures.push_back(
            hours_figure(p_.hours, p_.faces[0].removed_l + p_.faces[1].removed_l, s,
                         {{"length cut, m", number(std::round((top.cut_mm + low.cut_mm) / 100) / 10), "lanes"},
                          {"feed, mm/s", number(s.feed_mm_s), "shop"},
                          {"turn, s", number(s.turn_s), "shop"},
                          {"setting a layer, s", number(s.layer_s), "shop"}},
                         "length cut / feed + passes × turn + layers × setting; ∫ max(height − plane, 0) over the rough piece × loose"));
    }

    /// What the chosen tilt leaves as the slab is today.
    double before_the_rest_mm() const { return p_.most_mm + (p_.rest && p_.rest->known ? p_.rest->mm : 0); }

    /// The most there is, and what the rest does to it: taken off where the cup is known, told where it is not and there is nothing to
    /// spare.
    Phrase most_says() const {
        const auto& rest = p_.rest;
        if (rest && rest->known && rest->mm > 0.05)
            return in_.together ? say("{} at most: it is expected to cup {} while it rests, and that takes {}", fine(p_.most_mm),
                                      fine(std::abs(rest->cup_mm)), fine(rest->mm))
                                : say("{} is the most this top can have: it is expected to cup {} while it rests, and that takes {}",
                                      fine(p_.most_mm), fine(std::abs(rest->cup_mm)), fine(rest->mm));
        if (rest && !rest->known && p_.most_mm - p_.thickness_mm < rest->mm)
            return say("{} at most if it stays flat while it rests: {} of cup takes {}", fine(p_.most_mm), fine(rest->cup_mm),
                       fine(rest->mm));
        return in_.together ? say("{} at most; all come to the thinnest", fine(p_.most_mm))
                            : say("{} is the most this top can have",
                                  fine(std::max(p_.most_mm, in_.choices.aim == FlatAim::share_out ? 0.0 : p_.thickest_mm)));
    }

    /// How far the wood has settled when the rest is over.
    void settled() {
        if (in_.choices.rest_h <= 0 || p_.thickness_mm <= 0 || in_.choices.by == FlatBy::bought_flat) return;
        const RestDoes d = does(in_.choices.rests);
        p_.figures.push_back({"flat.settled",
                              "Settled when the rest is over",
                              percent(100 * d.settles),
                              {},
                              in_.choices.rests == Rests::wrapped ? say("wrapped: nothing of it, it moves after")
                              : in_.choices.rests == Rests::face_down && d.cup_mm
                                  ? say("of what it still moves, and cups {} by lying on one face", fine(std::abs(*d.cup_mm)))
                                  : say("of what it still moves in the shop's air"),
                              {"1 − e^(−rest/τ), τ = L²/(π²·D) + (L/2)·R; one face shut: L twice the thickness; wrapped: none",
                               {{"rest", hours(in_.choices.rest_h), "what you set"}, {"thick", fine(p_.thickness_mm), "this plan"}},
                               "core/material/wood/lag: bare faces, an estimate"}});
    }

    void add(std::string key, Severity s, Phrase says, std::optional<Vec2> at = {}) {
        p_.cautions.push_back({std::move(key), s, step_key::flat, std::move(says), at});
    }

    void cautions() {
        const Vec2 middle = centroid(in_.lay.outline);
        if (p_.thickness_mm <= 0)
            add("flat.no_wood", Severity::stop, say("No wood is left between the two planes. Choose a smaller top or another slab."),
                middle);
        else if (p_.most_mm < in_.top.thickness_mm - 0.05)
            add("flat.thin", Severity::stop,
                in_.together
                    ? say("It gives {}, {} less than the {} wanted; all leaves come to {}. Take a shorter or narrower top, another "
                          "slab, or agree on {}.",
                          fine(p_.most_mm), fine(in_.top.thickness_mm - p_.most_mm), fine(in_.top.thickness_mm), fine(p_.thickness_mm),
                          fine(p_.thickness_mm))
                    : too_thin(),
                thinnest_place());
        if (in_.choices.aim == FlatAim::as_it_lies && tried_.best.thickness_mm - tried_.lies.thickness_mm > 1)
            add("flat.unshimmed", Severity::watch,
                say("Without shims one corner gives everything: the best tilt keeps {} more.",
                    fine(tried_.best.thickness_mm - tried_.lies.thickness_mm)),
                thinnest_place());
        // Rails, stick-out, tram and the bed are a sled's; who planes it otherwise has none of them.
        if (in_.choices.by == FlatBy::sled) {
            reach();
            sled();
            bed();
        }
        ways();
        const double most = std::max(p_.faces[0].most_off_mm, p_.faces[1].most_off_mm);
        if (most > 3 && in_.choices.rest_h < 24 && in_.choices.by != FlatBy::bought_flat)
            add("flat.rest", Severity::watch,
                say("Up to {} comes off one face, and wood moves after cutting. Rough both faces leaving {}, rest "
                    "a day or more, take the last of it then.",
                    fine(most), fine(std::max(1.0, in_.choices.allowance_mm))));
        resting();
        settling();
        if (p_.needs_mm > p_.thickness_mm + 0.05 && p_.thickness_mm > 0)
            add("flat.needs", Severity::watch,
                say("{} wants {} of wood and this finishes at {}. Take a shallower one, or keep more.", in_.needs.what, fine(p_.needs_mm),
                    fine(p_.thickness_mm)));
        if (p_.under_stays && tried_.uneven_mm > 0.5)
            add("flat.uneven", Severity::watch,
                say("The underside stays as it is: under a plate it is uneven by {}. Let the plates in, or plane their places.",
                    fine(tried_.uneven_mm)));
        moved();
        turning();
        rocking();
        if (tried_.best.at_bound)
            add("flat.steep", Severity::stop,
                say("The best tilt would be steeper than 1:2, further than any slab lies: one of its heights is misread. Look them over on "
                    "the rack; what is told here is not the best."),
                middle);
        if (in_.choices.by == FlatBy::sled)
            add("flat.feed", Severity::note,
                say("Router: move it against the cutter's turning, {} at a time, the slab held fast. Dust: extraction and a respirator.",
                    fine(in_.sled.depth_mm)));
        const Species* species = find_species(in_.slab.species);
        if (species && !species->dust.empty())
            add("flat.dust", Severity::note,
                say("Dust of {} {}. Extraction at the cutter and a fitted respirator, for helpers too; a vacuum, no broom. Your local "
                    "limits "
                    "stand above this.",
                    species->name,
                    species->dust == "cancer"      ? "is known to cause cancer of the nose after years"
                    : species->dust == "suspected" ? "is suspected to cause cancer, and many skins do not bear it"
                                                   : "sensitises: asthma that stays"));
    }

    /// How long a top in the same place the wanted thickness can be had for; nothing where no shorter one gives it.
    std::optional<double> length_that_gives(double thickness) const {
        if (in_.top.shape != TopShape::rectangle || in_.lay.rectangle.size() != 4) return {};
        const Ring& r = in_.lay.rectangle;
        const Vec2 middle = (r[0] + r[2]) * 0.5;
        const Vec2 along_it = (r[1] - r[0]) * 0.5;
        const Vec2 across_it = (r[3] - r[0]) * 1.5;  // past the live edges
        const auto gives = [&](double share) {
            const Vec2 a = along_it * share;
            const Ring strip{middle - a - across_it, middle + a - across_it, middle + a + across_it, middle - a + across_it};
            LayPlan lay = in_.lay;
            lay.outline = largest(intersection(strip, in_.lay.outline));
            FlatInputs shorter{in_.slab, in_.shape, lay, in_.top, in_.choices, in_.sled};
            shorter.settles_pct = in_.settles_pct;
            const auto most = most_of(shorter, solved_inside(in_.shape, lay.outline));
            return most && most->mm >= thickness;
        };
        double low = 0.1;
        double high = 1;
        if (!gives(low)) return {};
        for (int i = 0; i < 12; ++i) (gives((low + high) / 2) ? low : high) = (low + high) / 2;
        return std::floor(low * in_.top.length_mm / 5) * 5;
    }

    Phrase too_thin() const {
        const auto shorter = length_that_gives(in_.top.thickness_mm);
        return shorter
                   ? say("It finishes {} thinner than the {} wanted. {} long, in the same place, it gives them; or a narrower top, another "
                         "tilt, or agree on {}.",
                         fine(in_.top.thickness_mm - p_.most_mm), fine(in_.top.thickness_mm), mm(*shorter), fine(p_.most_mm))
                   : say("It finishes {} thinner than the {} wanted. Take a shorter or narrower top, another tilt, or "
                         "agree on {}.",
                         fine(in_.top.thickness_mm - p_.most_mm), fine(in_.top.thickness_mm), fine(p_.most_mm));
    }

    static const char* word(const FacePlan& f) { return f.face == Face::a ? "show face" : "underside"; }

    /// Rails and stick-out, of both faces in one word where they say the same.
    void reach() {
        const Sled& s = in_.sled;
        const FacePlan* worst = nullptr;
        for (const FacePlan& f : p_.faces) {
            if (f.layers == 0) continue;
            if (f.highest_mm > s.rail_mm + 1e-9)
                add("flat.rails", Severity::stop,
                    say("On the {} the wood stands {} above the rails. Raise them to {} at least.", word(f), fine(f.highest_mm - s.rail_mm),
                        mm(std::ceil(f.highest_mm))));
            if (f.spacer_mm != 0 && (!worst || f.spacer_mm < 0 || (worst->spacer_mm >= 0 && f.stickout_mm > worst->stickout_mm)))
                worst = &f;
        }
        if (!worst) return;
        const FacePlan& f = *worst;
        if (f.spacer_mm < 0) {
            add("flat.stickout", Severity::stop,
                say("For the last pass of the {} the bit would stand out {}; {} is the limit, and no board at hand lifts the slab enough. "
                    "Lower the rails by {}.",
                    word(f), fine(f.stickout_mm), fine(s.stickout_mm), fine(f.stickout_mm - s.stickout_mm)));
            return;
        }
        const bool clears = f.highest_mm + f.spacer_mm <= s.rail_mm;
        Caution c{
            "flat.stickout", Severity::watch, step_key::flat,
            say(clears ? "For the last pass of the {} the bit would stand out {}; {} is the limit. Put a flat {} board under the slab."
                       : "For the last pass of the {} the bit would stand out {}; {} is the limit. Put a flat {} board under the slab "
                         "once the high places are down: it does not clear the rails before.",
                word(f), fine(f.stickout_mm), fine(s.stickout_mm), fine(f.spacer_mm))};
        const FacePlan& other = &f == &p_.faces[0] ? p_.faces[1] : p_.faces[0];
        if (other.spacer_mm > 0) c.says.then.push_back(say("For the {} it is {}.", word(other), fine(other.spacer_mm)));
        p_.cautions.push_back(std::move(c));
    }

    /// What the sled and its cutter can't do, or leave.
    void sled() {
        const Sled& s = in_.sled;
        if (s.reach_mm <= s.floor_mm)
            add("flat.reach", Severity::stop,
                say("The cutter reaches {} below the router's base and the sled's floor is {} thick: it does not come through. Take a "
                    "longer "
                    "cutter or a thinner floor.",
                    fine(s.reach_mm), fine(s.floor_mm)));
        const Box rough = bounds(in_.lay.rough);
        if (s.cutter_mm >= std::min(rough.width(), rough.height()))
            add("flat.cutter_wide", Severity::stop,
                say("The cutter of {} is wider than the piece. Set its diameter on the shop's page.", fine(s.cutter_mm)));
        if (const double sag = sled_sag_mm(s); sag > 0.25)
            add("flat.sag", Severity::watch,
                say("Between rails {} apart the sled sags {} under the router: lanes come out that much hollow in the middle. Beams {} "
                    "high instead of {} hold it to {}.",
                    mm(s.span_mm), fine(sag), mm(std::ceil(s.beam_high_mm * std::cbrt(sag / 0.15))), mm(s.beam_high_mm), fine(0.15)));
        if (p_.step_mm > 0.05)
            add("flat.tram", Severity::watch,
                say("The sled is out of tram: every lane leaves a step of {}. Shim the sled's base under the low "
                    "side by {}.",
                    fine(p_.step_mm), fine(s.tram_mm)));
        if (const double hollow = lane_hollow_mm(s); hollow > 0.03)
            add("flat.hollow", Severity::note,
                say("Out of tram along the feed by {} over the cutter: each lane comes out {} hollow. Shim the router's base at its front "
                    "or "
                    "back.",
                    fine(s.tram_feed_mm), number(std::round(hollow * 1000) / 1000)));
        const Species* species = find_species(in_.slab.species);
        const double g = species && species->specific_gravity_12 ? *species->specific_gravity_12 : 0.6;
        if (const double w = cutting_w(s, g); w > 0.5 * s.router_w)
            add("flat.power", Severity::watch,
                say("A layer of {} at this feed takes about {} W at the cutter; a router that draws {} W gives half of it. Go slower, or "
                    "take {} "
                    "at a time.",
                    fine(s.depth_mm), number(std::round(w)), number(s.router_w),
                    fine(std::floor(s.depth_mm * 0.5 * s.router_w / w * 2) / 2)));
        if (s.depth_mm > s.cutter_mm / 4)
            add("flat.deep", Severity::watch,
                say("Layers of {} with a cutter of {}: it grabs. Take {} at most by hand.", fine(s.depth_mm), fine(s.cutter_mm),
                    fine(std::floor(s.cutter_mm / 8))));
    }

    void bed() {
        const auto check = check_bed(in_.sled.bed);
        if (!check || check->worst_mm <= flat_enough_mm) return;
        add("flat.bed", Severity::watch,
            say("The bed is not flat: its {} lies {} low, corner to corner it is twisted by {}. Shim it there; it has to be flat, not "
                "level.",
                name_of_bed_place(check->lowest), fine(check->worst_mm), fine(std::abs(check->twist_mm))));
    }

    void ways() {
        if (!in_.shape.heights_a && !in_.shape.heights_b)
            add("flat.guess", Severity::watch,
                say("No heights are read: the slab is taken as flat, and {} is a guess. Lay a straightedge over it and read the gaps.",
                    fine(p_.thickness_mm)));
        const FlatWork& w = p_.work;
        if (!w.there)
            add("flat.no_tool", Severity::stop,
                say("The shop has no such machine: choose another way to make it flat, or say on the shop's page that it is there."));
        else if (!w.possible) {
            const Box rough = bounds(in_.lay.rough);
            const FlatTools& t = in_.sled.tools;
            if (w.by == FlatBy::machine_shop)
                add("flat.way", Severity::stop,
                    say("The piece is {} by {}, the machine shop's table {} by {}. Ask another, or take the sled.", mm(rough.width()),
                        mm(rough.height()), mm(t.machine_long_mm), mm(t.machine_wide_mm)));
            else
                add("flat.way", Severity::stop,
                    say("The piece is {} wide and the machine takes {}. Take the sled, or rip the piece.", mm(rough.height()),
                        mm(w.by == FlatBy::planer ? t.planer_mm : t.drum_mm)));
        }
        if (w.by == FlatBy::planer && w.possible)
            add("flat.way", Severity::watch,
                say("A planer makes faces parallel, not flat: face one wants its shims under it on a carrier board."));
        if (w.by == FlatBy::bought_flat && p_.as_it_lies_mm < p_.thickest_mm - 1)
            add("flat.way", Severity::watch,
                say("Bought flat it should not read as it does: by these heights {} are lost without shims. Read it again when it comes, a "
                    "small twist leaves little to correct.",
                    fine(p_.thickest_mm - p_.as_it_lies_mm)));
        if (w.by == FlatBy::machine_shop && w.possible)
            add("flat.way", Severity::note,
                say("The machine shop has it for {}: bring it first, and let it rest before the last of it comes off.", hours(w.wait_h)));
    }

    RestDoes does(Rests how) const {
        return rest_does(how, find_species(in_.slab.species), bounds(in_.lay.rough).height(), p_.thickness_mm, in_.choices.rest_h);
    }

    void resting() {
        if (in_.choices.rests == Rests::face_down) {
            const auto cup = does(Rests::face_down).cup_mm;
            add("flat.airtight", Severity::watch,
                cup ? say("One face left down airtight dries alone: {} between the faces cup it by {}. Stand the slab on sticks with air "
                          "on both faces.",
                          percent(face_down_pct), fine(std::abs(*cup)))
                    : say("One face left down airtight dries alone and cups. Stand the slab on sticks with air on both faces."));
        }
        if (in_.choices.rests == Rests::wrapped && in_.slab.moisture_pct && in_.settles_pct &&
            std::abs(*in_.slab.moisture_pct - *in_.settles_pct) > 1)
            add("flat.wrapped", Severity::watch,
                say("Wrapped it stays at {}, and the shop settles it at {}: what it has to move it moves once it is unwrapped. Stand it on "
                    "sticks with air on both faces.",
                    percent(*in_.slab.moisture_pct), percent(*in_.settles_pct)));
    }

    /// What each way of resting does to the cup and the wait.
    std::vector<Phrase> with_each_rest() const {
        std::vector<Phrase> out;
        for (const Rests how : flat_airs.values) {
            const RestDoes d = does(how);
            const Phrase settles = say("{} of what it still moves is over by then", percent(100 * d.settles));
            if (how == Rests::to_air) out.push_back(settles);
            else if (how == Rests::wrapped) out.push_back(say("no cup, and nothing settles: what it still moves comes after"));
            else if (d.cup_mm)
                out.push_back(
                    say("cups {}, and takes {} times as long to settle", fine(std::abs(*d.cup_mm)), number(std::round(d.times * 10) / 10)));
            else out.push_back(say("it cups, and takes {} times as long to settle", number(std::round(d.times * 10) / 10)));
        }
        return out;
    }

    /// What the rings will do until the wood has settled, and what to leave for it.
    void settling() {
        if (!p_.cup_mm || in_.rounds.size() > 0 || in_.choices.by == FlatBy::bought_flat) return;
        const double wanted = std::ceil(std::abs(*p_.cup_mm) / 2 * 2) / 2;
        const bool rests = in_.choices.rest_h > 0;
        if (wanted < 1 || (rests && in_.choices.allowance_mm >= wanted)) return;
        add("flat.moves", Severity::watch,
            say("It reads {} and the shop settles it at {}: by its rings it will cup {}. Leave {} on each face for after the rest.",
                percent(*in_.slab.moisture_pct), percent(*in_.settles_pct), fine(std::abs(*p_.cup_mm)), fine(wanted)));
        p_.cautions.back().asks = {{"allowance_mm", wanted}};
    }

    /// What is turned over, and what it takes.
    void turning() {
        const auto density = density_of(in_.slab);
        if (!density || in_.choices.by == FlatBy::bought_flat) return;
        const double before = area(in_.lay.rough) * in_.shape.thickness_at(centroid(in_.lay.rough)) * 1e-9 * *density;
        const double after = std::max(0.0, before - (p_.faces[0].removed_l + p_.faces[1].removed_l) / 1000 * *density);
        int turns = 0;
        for (const FacePlan& f : p_.faces) turns += (f.layers > f.last_layers) + (f.last_layers > 0);
        if (in_.choices.by != FlatBy::sled) turns = in_.choices.rest_h > 0 ? 4 : 2;
        if (before < 2 * one_lifts_kg || turns == 0) return;
        add("flat.turn", Severity::note,
            say("It is turned over {} here: about {} the first time, {} the last. {}, or a hoist rated for twice that; feet clear. "
                "An "
                "estimate.",
                counted(turns, "time", "times"), kg(before), kg(after), counted(people_to_lift(before), "person", "people")));
    }

    /// What was read after the last rest.
    void moved() {
        if (p_.rounds.empty()) return;
        const RoundPlan& last = p_.rounds.back();
        const FlatRound& r = in_.rounds.at(last.round);
        if (r.thickness_mm <= 0) {
            add("flat.moved", Severity::watch, say("Nobody calipered it on {}: type how thick it is now.", r.on));
            return;
        }
        const double wanted = in_.top.thickness_mm;
        if (last.thickest_mm < wanted - 0.05)
            add("flat.moved", Severity::stop,
                say("On {} it had moved {} along, {} across, twisted {}: flat again it comes to {}, {} less than wanted.", r.on,
                    fine(r.bow_mm), fine(r.cup_mm), fine(r.twist_mm), fine(last.thickest_mm), fine(wanted - last.thickest_mm)));
        else if (last.thickest_mm < p_.thickness_mm - 0.05)
            add("flat.moved", Severity::watch,
                say("On {} it had moved {} along, {} across, twisted {}: flat again it comes to {}, still more than wanted, {} less than "
                    "planned.",
                    r.on, fine(r.bow_mm), fine(r.cup_mm), fine(r.twist_mm), fine(last.thickest_mm),
                    fine(p_.thickness_mm - last.thickest_mm)));
        if (last.still_moving)
            add("flat.moving", Severity::watch,
                last.days_more && *last.days_more > 0.2
                    ? say("It still moves {} a day. By its readings it rests in about {}: wait, then take the last of it.",
                          fine(*last.mm_a_day), hours(24 * *last.days_more))
                    : say("It still moves {} a day. Let it rest and read it again before the last pass.", fine(*last.mm_a_day)));
    }

    /// Supports must hold the slab's weight between them.
    void rocking() {
        if (p_.shims.size() < 3) {
            add("flat.supports", Severity::stop,
                say("{} cannot keep the slab from rocking. Lay three at least, four for a long slab.",
                    counted(static_cast<double>(p_.shims.size()), "support", "supports")));
            return;
        }
        if (in_one_line(p_.shims)) {
            add("flat.supports", Severity::stop, say("All supports stand in one line: the slab tips over it. Move one of them across."));
            return;
        }
        if (in_.choices.held == HeldBy::hold_downs && p_.faces[0].layers > 0)
            add("flat.hold", p_.faces[0].plane_mm < 15 ? Severity::stop : Severity::note,
                p_.faces[0].plane_mm < 15
                    ? say("The last pass runs {} above the bench: no hold-down stays clear of the cutter there. Take hot glue or wedges, "
                          "or "
                          "lift the slab on a board.",
                          fine(std::max(0.0, p_.faces[0].plane_mm)))
                    : say("Hold-downs no higher than {} over the bench; the cutter's lanes run {} past the piece on each side.",
                          fine(p_.faces[0].plane_mm - 3), fine(in_.sled.cutter_mm / 2)));
        if (in_.sled.shims_mm.empty())
            add("flat.no_shims", Severity::watch,
                say("The shim stock is empty: nothing can be laid together. Type its sizes on the shop's page."));
        else if (p_.stacks.rocks_mm > 0.1 + 1e-6)
            add("flat.shims_rock", Severity::watch,
                say("With these shims it rocks by {}: drive a wedge at the loose one, or hold it with hot glue.",
                    fine(p_.stacks.rocks_mm)));
        else if (p_.stacks.loses_mm > 0.1 + 1e-6)
            add("flat.shims_lose", Severity::watch,
                say("The stock cannot be laid together nearer: the slab lies askew and gives up {}. A thinner piece in the stock mends it.",
                    fine(p_.stacks.loses_mm)));
        if (p_.hangs_mm > 0.3)
            add("flat.hangs", Severity::watch,
                say("Between its supports the slab hangs through {} by its own weight and springs back when it is off them: set one more "
                    "in "
                    "the middle.",
                    fine(p_.hangs_mm)));
        Ring pts;
        for (const Shim& s : p_.shims) pts.push_back({s.at.x_mm, s.at.y_mm});
        const Vec2 c = centroid(in_.lay.rough);
        // Sorted around their own middle, supports form the polygon the weight has to stand over.
        Vec2 mid;
        for (const Vec2 p : pts) mid = mid + p * (1.0 / static_cast<double>(pts.size()));
        std::sort(pts.begin(), pts.end(),
                  [&](Vec2 a, Vec2 b) { return std::atan2(a.y - mid.y, a.x - mid.x) < std::atan2(b.y - mid.y, b.x - mid.x); });
        if (!contains(pts, c))
            add("flat.rocks", Severity::watch,
                say("The slab's balance point at {} lies outside the supports: it tips. Move one out past it.", along(c.x)), c);
        for (const Shim& s : p_.shims)
            if (!contains(in_.lay.rough, {s.at.x_mm, s.at.y_mm}))
                add("flat.support_off", Severity::watch,
                    say("A support at {} stands outside the piece. Move it under the wood.", along(s.at.x_mm)), Vec2{s.at.x_mm, s.at.y_mm});
    }

    Vec2 thinnest_place() const {
        Vec2 at = centroid(in_.lay.outline);
        double least = 1e300;
        for (const Vec3& q : tried_.top)
            if (const double t = in_.shape.thickness_at({q.x, q.y}); t < least) least = t, at = {q.x, q.y};
        return at;
    }

    double most_off_show(const Tilt& t) const {
        double most = 0;
        for (const Vec3& q : tried_.top) most = std::max(most, q.z - t.top_at({q.x, q.y}));
        return most;
    }

    /// How far an underside that stays strays from a plane inside the top.
    double uneven_below() const {
        double low = 1e300;
        double high = -1e300;
        for (const Vec3& q : tried_.bottom) {
            const double z = q.z - tried_.best.a * q.x - tried_.best.b * q.y;
            low = std::min(low, z), high = std::max(high, z);
        }
        return std::max(0.0, high - low);
    }

    /// What a tilt leaves of it, an expected cup taken off.
    double rested_mm(const Tilt& t, FlatAim aim) const {
        FlatChoices c = in_.choices;
        c.aim = aim;
        const auto rest = rest_takes(in_.slab, in_.shape, in_.lay.outline, in_.lay.rough, t, c, in_.settles_pct, true);
        return t.thickness_mm - (rest ? rest->mm : 0);
    }

    /// What comes off the show face at most with a tilt, brought to what the top comes to.
    double off_show(const Tilt& t, FlatAim aim) const {
        const double to = comes_to_mm(in_, rested_mm(t, aim));
        return most_off_show(t.thickness_mm > to ? thinned(t, aim, to) : t);
    }

    Phrase least_wood_says() const {
        if (in_.choices.aim != FlatAim::least_wood) return say("inside the top every tilt takes as much; beyond it the least");
        return say("{} of wood off both faces", litres(p_.faces[0].removed_l + p_.faces[1].removed_l));
    }

    /// What the chosen aim leaves, of several leaves all of them.
    double most() const { return in_.together ? in_.together->most_mm : p_.most_mm; }

    /// What every way would ask for here.
    FlatAsks asks() const {
        FlatAsks a;
        const Box rough = bounds(in_.lay.rough);
        for (std::size_t i = 0; i < a.by.size(); ++i) a.by[i] = work_by(static_cast<FlatBy>(i), p_, rough, in_.sled);
        a.lanes = {lanes_for(rough.width(), in_.sled), lanes_for(rough.height(), in_.sled)};
        a.path_mm = p_.faces[0].cut_mm + p_.faces[1].cut_mm;
        a.points = static_cast<double>(std::max<std::size_t>(4, p_.shims.size()));
        a.blocks = 2 * std::max(2.0, std::ceil(rough.width() / 600));
        a.plane_mm = p_.faces[0].plane_mm;
        return a;
    }

    void choices() {
        const auto& c = in_.choices;
        p_.choices.push_back(choice_of(flat_aims, c,
                                       {say("{} thick at most, {} off the show face", fine(rested_mm(tried_.best, FlatAim::share_out)),
                                            fine(off_show(tried_.best, FlatAim::share_out))),
                                        say("{} off the show face, {} kept", fine(most_off_show(tried_.spare)),
                                            fine(std::min(in_.top.thickness_mm, tried_.best.thickness_mm))),
                                        least_wood_says(),
                                        say("one face to plane, {} off it; below it stays uneven by {}",
                                            fine(off_show(tried_.best, FlatAim::leave_under)), fine(uneven_below())),
                                        say("{} thick at most, {} off the show face", fine(rested_mm(tried_.lies, FlatAim::as_it_lies)),
                                            fine(off_show(tried_.lies, FlatAim::as_it_lies)))}));
        p_.choices.push_back(
            choice_of(flat_finishes, c, {say("{}", fine(std::min(in_.top.thickness_mm, most()))), say("{}, and heavier", fine(most()))}));
        p_.choices.push_back(choice_of(flat_firsts, c, {say("shims under the underside"), say("shims under the show face")}));
        if (in_.together)
            p_.choices.push_back(
                choice_of(flat_tilts, c,
                          {say("each slab keeps most of its own"),
                           c.aim == FlatAim::share_out ? say("as much comes off each: the figure stays matched")
                                                       : say("only while it is shared out: the aim you set tilts each slab its own way")}));
        p_.asks = asks();
        for (Choice& more : flat_work_choices(p_.asks, c)) p_.choices.push_back(std::move(more));
        p_.choices.push_back(choice_of(flat_airs, c, with_each_rest()));
    }

    const FlatInputs& in_;
    const Tried& tried_;
    FlatPlan& p_;
};

}  // namespace

void tell_flat(const FlatInputs& in, const Tried& tried, FlatPlan& plan) { Teller(in, tried, plan).tell(); }

}  // namespace yb
