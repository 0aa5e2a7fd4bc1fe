#include "core/steps/skin/skin.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

#include "core/material/wood/cup.h"
#include "core/steps/skin/told.h"

namespace yb {

namespace {

/// A first grit this coarse is for lanes that can be felt.
bool on_lanes(double grit) { return grit < 80; }

class Planner {
  public:
    explicit Planner(const SkinInputs& in) : in_(in), c_(in.choices), of_(in.shelf.of(in.choices.finish)) {}

    SkinPlan run() {
        p_.finish = c_.finish, p_.label = of_;
        if (!in_.top.ready) return p_;
        p_.air_c = in_.shop_air.temp_c;
        const double slow = stretched(p_.air_c);
        p_.used = {c_.finish};
        if (in_.before && in_.before->ready)
            for (const SkinFacePlan& f : in_.before->faces) face(f.face);
        else
            for (SkinFace& f : skin_faces(in_.top, in_.pockets, in_.base, in_.ties)) face(std::move(f));
        if (std::none_of(p_.faces.begin(), p_.faces.end(), [&](const SkinFacePlan& f) { return !f.left_out && f.finish == c_.finish; }) &&
            p_.used.size() > 1)
            p_.used.erase(p_.used.begin());  // every face has one of its own
        for (const char* key : {"upper", "under"})
            if (const SkinFacePlan* f = treated(p_, key); f && p_.now_face.empty())
                p_.now_face = key, p_.finish = f->finish, p_.label = f->label;
        const FinishClass& now = p_.label;
        p_.window_min = now.window_min * slow;
        p_.usable_min = std::max(now.window_min, now.parts_b > 0 ? 2 * now.window_min : 60.0) * slow;
        p_.zone_most_m2 = most_m2(now);
        // Another finish on some faces: all is handled when the slowest of them can be.
        for (const Finish f : p_.used) {
            const FinishClass& k = in_.shelf.of(f);
            p_.recoat_h = std::max(p_.recoat_h, k.recoat_h * slow), p_.handle_h = std::max(p_.handle_h, k.handle_h * slow);
            p_.cure_h = std::max(p_.cure_h, k.cure_h * slow);
            p_.coats = std::max(p_.coats, coats_of(f));
            if (k.recoat_to_h > 0)
                p_.recoat_to_h = p_.recoat_to_h > 0 ? std::min(p_.recoat_to_h, k.recoat_to_h * slow) : k.recoat_to_h * slow;
        }
        if (in_.zoned) zones();
        one_face();
        p_.ready = !p_.faces.empty();
        tell_skin(in_, p_);
        return p_;
    }

  private:
    double hands() const { return c_.hands == SkinHands::two_people ? 2 : 1; }
    double most_m2(const FinishClass& k) const {
        const double slow = stretched(p_.air_c);
        return zone_m2(k.soak_min * slow, k.window_min * slow, k.on_min_m2 / hands(), k.off_min_m2 / hands());
    }
    /// The maker's number is of the finish that was chosen for the whole.
    int coats_of(Finish f) const { return f == c_.finish ? c_.coats.value_or(of_.coats) : in_.shelf.of(f).coats; }

    /// From the first grit to the last: of wood, of resin further.
    std::vector<double> grits_for(const SkinFace& f) const {
        if (!c_.grits.empty()) return c_.grits;
        const Finish on = finish_of_face(c_, f.key);
        const double last = f.resin() ? c_.resin_grit.value_or(resin_stops_at(on)) : c_.stop_grit.value_or(wood_stops_at(on, c_.figured));
        double first = c_.first_grit.value_or(begins_at(in_.sled_step_mm, in_.planed));
        // Sawn edges and the base come from the saw, not from the sled; end grain begins a grit coarser than they do.
        if (!c_.first_grit && f.edge()) first = f.kind == SkinFace::Kind::end ? 60 : 80;
        if (!c_.first_grit && f.kind == SkinFace::Kind::base) first = 80;
        return ladder(std::clamp(first, 36.0, 2000.0), std::clamp(last, 36.0, 2000.0));
    }

    void face(SkinFace f) {
        SkinFacePlan out;
        const FaceChoice* otherwise = choice_of_face(c_, f.key);
        const bool pocket = f.kind == SkinFace::Kind::pocket;
        out.sealed = otherwise ? otherwise->sealed : false;
        out.left_out = otherwise ? otherwise->left_out : pocket && !out.sealed;
        const bool below = f.kind == SkinFace::Kind::under || f.kind == SkinFace::Kind::resin_below;
        if (c_.one_face && below) out.left_out = true;
        if (f.kind == SkinFace::Kind::base && in_.base_first) out.left_out = true;
        out.finish = finish_of_face(c_, f.key);
        out.label = in_.shelf.of(out.finish);
        out.face = std::move(f);
        if (!out.left_out) {
            if (std::find(p_.used.begin(), p_.used.end(), out.finish) == p_.used.end()) p_.used.push_back(out.finish);
            if (!out.sealed) sand(out);
            coat(out);
            p_.m2 += out.face.m2;
        }
        p_.faces.push_back(std::move(out));
    }

    void sand(SkinFacePlan& out) {
        const SkinFace& f = out.face;
        const auto grits = grits_for(f);
        // A second sander in the other hand is for flat faces; edges are done by hand.
        const double hands = c_.hands == SkinHands::two_people || (c_.hands == SkinHands::two_sanders && !f.edge()) ? 2 : 1;
        for (std::size_t i = 0; i < grits.size(); ++i) {
            GritStep g{grits[i], 0, 0, false};
            const Sanding& pace = in_.sanding;
            double per_m2 = i > 0 ? pace.after_min_m2 : on_lanes(grits[i]) ? pace.felt_min_m2 : pace.planed_min_m2;
            if (f.resin()) per_m2 *= pace.resin_times;
            if (pace.disc_sander && on_lanes(grits[i])) per_m2 *= pace.disc_times;
            // Edges are sanded by hand along them, a live one with a brush.
            g.minutes = (f.edge() ? pace.edge_min_m * f.long_mm / 1000 : per_m2 * f.m2) / hands;
            g.discs = f.edge() ? 0 : f.m2 / pace.disc_m2;
            g.wetted = c_.raise_grain && !f.resin() && i + 1 == grits.size() && i > 0;
            out.sanding_min += g.minutes;
            (f.edge() ? p_.edges_alone_min : p_.faces_alone_min) += g.minutes * hands;
            p_.discs += g.discs;
            out.grits.push_back(g);
        }
        p_.sanding_min += out.sanding_min;
    }

    void coat(SkinFacePlan& out) {
        const SkinFace& f = out.face;
        const FinishClass& k = out.label;
        // End grain drinks half as much again; resin takes nothing in.
        const double drinks = f.resin() ? (k.film ? 1 : 0.3) : f.kind == SkinFace::Kind::end && !k.film ? 1.5 * c_.thirst : c_.thirst;
        const double most = most_m2(k);
        const bool large = f.kind == SkinFace::Kind::upper || f.kind == SkinFace::Kind::under;
        const auto cut = large && !c_.seams_mm.empty() ? zones_at(f.at, c_.seams_mm) : std::vector<ZonePiece>();
        const int zones = !cut.empty() ? cut.back().order
                          : most > 0   ? std::clamp(static_cast<int>(std::ceil(f.m2 / most - 1e-9)), 1, 400)
                                       : 1;
        const int n = out.sealed ? 1 : coats_of(out.finish);
        for (int i = 1; i <= n; ++i) {
            SkinCoat s;
            s.coat = i;
            s.ml = (i == 1 ? k.first_ml_m2 : k.more_ml_m2) * f.m2 * drinks;
            s.mix_ml = s.ml * (1 + c_.rags_pct / 100);
            const double parts = k.parts_a + k.parts_b;
            if (k.parts_b > 0) s.a_ml = s.mix_ml * k.parts_a / parts, s.b_ml = s.mix_ml * k.parts_b / parts;
            s.minutes = (k.on_min_m2 + k.off_min_m2) * f.m2 / hands();
            s.zones = zones;
            s.recoat_h = k.recoat_h * stretched(p_.air_c);
            p_.coating_min += s.minutes;
            p_.ml_in_all += s.mix_ml;
            out.coats.push_back(s);
        }
    }

    /// Of every coat on the two large faces, the underside first.
    void zones() {
        const double slow = stretched(p_.air_c);
        for (const char* key : {"under", "upper"})
            for (const SkinFacePlan& f : p_.faces) {
                if (f.face.key != key || f.left_out) continue;
                const FinishClass& of = f.label;
                const auto pieces = c_.seams_mm.empty() ? zones_of(f.face.at, f.face.m2, most_m2(of)) : zones_at(f.face.at, c_.seams_mm);
                double whole = 0;
                for (const ZonePiece& z : pieces) whole += area(z.ring);
                std::map<int, double> share;
                for (const ZonePiece& z : pieces) share[z.order] += area(z.ring) / std::max(1e-9, whole);
                for (const SkinCoat& s : f.coats)
                    for (const ZonePiece& z : pieces) {
                        const double m2 = f.face.m2 * share[z.order];
                        const double on = of.on_min_m2 / hands() * m2;
                        const double soak = of.off_min_m2 > 0 ? std::max(of.soak_min * slow, on) : on;
                        p_.zones.push_back({f.face.key, s.coat, z.order, z.ring, m2, soak + of.off_min_m2 / hands() * m2,
                                            of.window_min * slow, s.mix_ml * share[z.order]});
                    }
            }
        const auto first =
            std::find_if(p_.zones.begin(), p_.zones.end(), [&](const Zone& z) { return z.face == p_.now_face && z.coat == 1; });
        if (first == p_.zones.end()) return;
        p_.now_ml = first->ml, p_.now_m2 = first->m2;
        const double parts = p_.label.parts_a + p_.label.parts_b;
        if (p_.label.parts_b > 0) p_.now_a_ml = p_.now_ml * p_.label.parts_a / parts, p_.now_b_ml = p_.now_ml * p_.label.parts_b / parts;
    }

    /// One face shut, the other open to the room's year: half of what the wood would settle by is on one side only.
    void one_face() {
        const Region* leaf = in_.top.leaves > 0 ? &in_.top.regions.front() : nullptr;
        if (!c_.one_face || !leaf || !leaf->species) return;
        const MoistureRange room = moisture_range(in_.room);
        const auto widest = in_.top.widest();
        if (widest.width_mm > 0 && in_.top.thickness_mm > 0)
            if (const auto cup = face_cup_mm(*leaf->species, widest.width_mm, in_.top.thickness_mm, (room.low_pct + room.high_pct) / 2,
                                             (room.high_pct - room.low_pct) / 2))
                p_.cup_mm = std::abs(*cup);
    }

    const SkinInputs& in_;
    const SkinChoices& c_;
    const FinishClass& of_;
    SkinPlan p_;
};

}  // namespace

SkinPlan plan_skin(const SkinInputs& in) { return Planner(in).run(); }

const SkinFacePlan* treated(const SkinPlan& p, const std::string& key) {
    const auto it = std::find_if(p.faces.begin(), p.faces.end(), [&](const SkinFacePlan& f) { return f.face.key == key; });
    return it == p.faces.end() || it->left_out ? nullptr : &*it;
}

std::vector<double> seams_of(const SkinPlan& p, const std::string& face) {
    std::map<int, double> begins;
    for (const Zone& z : p.zones) {
        if (z.face != face || z.coat != 1) continue;
        const double u = bounds(z.ring).low.x;
        const auto [it, is_new] = begins.emplace(z.order, u);
        if (!is_new) it->second = std::min(it->second, u);
    }
    std::vector<double> out;
    for (const auto& [order, u] : begins)
        if (order > 1) out.push_back(u);
    return out;
}

std::vector<CardStep> finish_card(const SkinPlan& p, int coat) {
    std::vector<CardStep> out;
    if (!p.ready || p.zones.empty()) return out;
    const bool oily = std::any_of(p.faces.begin(), p.faces.end(), [](const SkinFacePlan& f) { return !f.left_out && f.label.oily; });
    CardStep ready{"ready", say("Set out: finish, cups, pads, gloves, moving air, the tin for rags")};
    ready.more =
        oily ? say("rags with this finish can set themselves alight: spread flat outside to dry, or under water in a closed metal tin")
             : say("no dust in the air from now on");
    ready.takes_s = 300;
    out.push_back(ready);
    std::string before = "ready";
    for (const char* face : {"under", "upper"}) {
        int done = 0;
        const SkinFacePlan* on_it = treated(p, face);
        if (!on_it) continue;
        const FinishClass& of = on_it->label;
        for (const Zone& z : p.zones) {
            if (z.face != face || z.coat != coat || z.order <= done) continue;
            done = z.order;
            const std::string key = std::string(face) + " " + std::to_string(z.order);
            const Phrase name =
                std::string(face) == "under" ? say("underside, zone {}", count(z.order)) : say("upper face, zone {}", count(z.order));
            CardStep mix{"mix " + key,
                         say("Mix {} for the {}", litres(z.ml / 1000), std::string(face) == "under" ? "underside" : "upper face")};
            if (of.parts_b > 0)
                mix.more = say("{} of the finish, {} of its hardener", litres(z.ml / 1000 * of.parts_a / (of.parts_a + of.parts_b)),
                               litres(z.ml / 1000 * of.parts_b / (of.parts_a + of.parts_b)));
            mix.takes_s = of.parts_b > 0 ? 120 : 30;
            mix.mixed_l = z.ml / 1000;
            out.push_back(mix);
            CardStep on{"on " + key, name};
            on.says = of.wiped ? say("Put it on: {} of wood, thin", square_metres(z.m2))
                               : say("Put it on: {}, one wet edge", square_metres(z.m2));
            on.more = name;
            on.takes_s = 60 * of.on_min_m2 * z.m2;
            on.after = mix.key;
            on.pace = "coat_on";
            out.push_back(on);
            if (!of.wiped) continue;
            CardStep off{"off " + key, say("Wipe all of it off again")};
            off.more = say("one can wipe off too little, never too much");
            off.takes_s = 60 * of.off_min_m2 * z.m2;
            off.after = on.key;
            off.pace = "coat_off";
            off.until_s = std::max(60.0, 60 * z.window_min - on.takes_s);
            off.late = say("It gets tacky: wet it with a little fresh finish, wait a minute, and wipe at once.");
            out.push_back(off);
        }
    }
    CardStep end{"end", oily ? say("Rags flat outside, or under water in the tin") : say("Clean the gun or brush; shut the can")};
    end.more = coat < p.coats ? say("the next coat from {} on", hours(p.recoat_h))
                              : say("handled after {}, cured after {}", hours(p.handle_h), hours(p.cure_h));
    end.takes_s = 300;
    end.left = true;
    out.push_back(end);
    return out;
}

namespace {

/// Faces that are sanded in one go: their name, minutes at each grit.
struct SandedTogether {
    Phrase name;
    bool edges = false;
    std::vector<GritStep> grits;
};

/// Faces of a kind with the same ladder are one; the underside first, the upper face last.
std::vector<SandedTogether> sanded_together(const SkinPlan& p) {
    const auto place = [](const SkinFace& f) {
        return f.kind == SkinFace::Kind::under   ? 0
               : f.kind == SkinFace::Kind::base  ? 1
               : f.edge()                        ? 2
               : f.kind == SkinFace::Kind::upper ? 4
                                                 : 3;
    };
    std::vector<const SkinFacePlan*> faces;
    for (const SkinFacePlan& f : p.faces)
        if (!f.left_out && !f.grits.empty()) faces.push_back(&f);
    std::stable_sort(faces.begin(), faces.end(),
                     [&](const SkinFacePlan* a, const SkinFacePlan* b) { return place(a->face) < place(b->face); });
    std::vector<SandedTogether> out;
    const SkinFacePlan* before = nullptr;
    for (const SkinFacePlan* f : faces) {
        const bool base = f->face.kind == SkinFace::Kind::base;
        const bool same = before && place(f->face) == place(before->face) && (base || f->face.edge()) &&
                          f->grits.size() == before->grits.size() && f->grits.front().grit == before->grits.front().grit &&
                          f->grits.back().grit == before->grits.back().grit;
        if (same) {
            out.back().name = base ? say("The base") : say("The edges");
            for (std::size_t i = 0; i < f->grits.size(); ++i) out.back().grits[i].minutes += f->grits[i].minutes;
        } else {
            out.push_back({f->face.name, f->face.edge(), f->grits});
        }
        before = f;
    }
    return out;
}

}  // namespace

std::vector<CardStep> sand_card(const SkinPlan& p) {
    std::vector<CardStep> out;
    if (!p.ready) return out;
    const auto all = sanded_together(p);
    if (all.empty()) return out;
    CardStep ready{"ready", say("Set out: discs of every grit, extraction, a lamp that grazes, pencil"),
                   say("a respirator that fits, ears and eyes covered; extraction on before the sander"), 300};
    out.push_back(std::move(ready));
    const auto put = [&](std::size_t i, const GritStep& g, bool first, std::string after, double from_s) {
        CardStep step{"sand " + std::to_string(i + 1) + " at " + std::to_string(static_cast<int>(std::lround(g.grit))), all[i].name,
                      first ? say("pencil all over, sand until it is gone") : say("until the scratches of the grit before are gone"),
                      60 * g.minutes};
        step.says.then.push_back(say("grit {}", number(g.grit)));
        step.pace = all[i].edges ? "sand_edge" : !first ? "sand_after" : on_lanes(g.grit) ? "sand_felt" : "sand_first";
        step.after = std::move(after), step.from_s = from_s;
        out.push_back(std::move(step));
    };
    bool wets = false;
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t k = 0; k < all[i].grits.size(); ++k) {
            if (all[i].grits[k].wetted) wets = true;
            else put(i, all[i].grits[k], k == 0, {}, 0);
        }
    if (wets) {
        out.push_back({"wet", say("Wet the grain, all of it"), say("a damp sponge, evenly; then let it dry"), 300});
        bool waits = true;
        for (std::size_t i = 0; i < all.size(); ++i)
            for (const GritStep& g : all[i].grits)
                if (g.wetted) put(i, g, false, waits ? "wet" : "", std::exchange(waits, false) ? dries_h * 3600 : 0);
    }
    out.push_back(
        {"look", say("Wipe it with spirits and look along the light"), say("scratches show while it is wet; no flame near"), 300});
    return out;
}

std::vector<Phrase> care_of(const SkinPlan& p) {
    std::vector<Phrase> out;
    const FinishClass& of = p.label;
    switch (p.finish) {
        case Finish::hardwax:
        case Finish::tinted:
            out.push_back(say("It is finished with a hardwax oil that has gone into the wood; you touch wood, not a skin."));
            break;
        case Finish::drying_oil:
            out.push_back(say("It is finished with an oil that has dried in the wood; it darkens a little with the years."));
            break;
        case Finish::wiping:
        case Finish::brushed:
        case Finish::sprayed: out.push_back(say("It is finished with a clear film that lies on the wood.")); break;
        case Finish::flood: out.push_back(say("It is finished with a thick clear coat of resin.")); break;
        case Finish::oil_hardcoat: out.push_back(say("It is oiled, with a clear hard coat on top.")); break;
        case Finish::soap: out.push_back(say("It is soaped: the wood is nearly bare, and pale.")); break;
        case Finish::shellac: out.push_back(say("It is finished with shellac.")); break;
    }
    out.push_back(say("Let it cure for {} before wet glasses stand on it.", hours(p.cure_h)));
    out.push_back(
        p.finish == Finish::soap      ? say("Water and wine leave marks at once; wash it with soap flakes and they grow pale.")
        : p.finish == Finish::shellac ? say("It minds hot cups, spirits and standing water; scratches are rubbed out with fresh shellac.")
        : of.film
            ? say("It stands water, wine and coffee for hours; hot pans want a mat. A scratch shows and is mended by whoever made it.")
            : say("It stands water and wine for an hour or two; hot pans want a mat. A mark is sanded lightly and oiled again where it "
                  "is."));
    out.push_back(say("Clean it with a damp cloth and dry it after; no scouring, no strong cleaner."));
    if (of.maintain_months > 0)
        out.push_back(say("Every {} or so, thinly again with the same: about {} for the upper face, wiped off at once.",
                          counted(of.maintain_months, "month", "months"), litres(std::max(1.0, of.maintain_ml_m2 * p.m2 / 2) / 1000)));
    if (of.oily)
        out.push_back(
            say("Cloths with oil on them can set themselves alight: dry them flat outside, or keep them under water in a closed tin."));
    return out;
}

std::vector<Thing> skin_things(const SkinPlan& p, const Frame& to_bench) {
    std::vector<Thing> out;
    std::size_t i = 0;
    for (const SkinFacePlan& f : p.faces) {
        Thing t{"face " + std::to_string(i + 1), "face", i, f.face.name};
        ++i;
        for (const Ring& r : f.face.at) {
            const Ring at = to_bench.to_slab(r);
            if (t.area.empty() || area(at) > area(t.area)) t.area = at;
        }
        t.figures.push_back({"face.area",
                             "Area",
                             square_metres(f.face.m2),
                             {},
                             f.left_out ? say("left out")
                             : f.sealed ? say("sealed, not sanded")
                                        : Phrase(),
                             f.face.working});
        if (!f.coats.empty()) {
            const SkinCoat& first = f.coats.front();
            t.figures.push_back(
                {"face.mix",
                 "To mix, first coat",
                 litres(first.mix_ml / 1000),
                 {},
                 say("in {}", counted(first.zones, "zone", "zones")),
                 {"area × what the label says × thirst, and what rags keep", {{"on the wood", litres(first.ml / 1000), "coats"}}, ""}});
        }
        if (!f.grits.empty())
            t.figures.push_back({"face.sanding",
                                 "On the sander",
                                 hours(f.sanding_min / 60),
                                 {},
                                 say("{} to {}", number(f.grits.front().grit), number(f.grits.back().grit)),
                                 {"Σ of the grits", {}, "a maker's minutes a square metre: change them"}});
        out.push_back(std::move(t));
    }
    std::size_t k = 0;
    for (const Zone& z : p.zones) {
        if (z.coat != 1) continue;
        Thing t{"zone " + std::to_string(k + 1), "zone", k,
                z.face == "under" ? say("Underside, zone {}", count(z.order)) : say("Upper face, zone {}", count(z.order))};
        ++k;
        t.area = to_bench.to_slab(z.ring);
        t.figures.push_back({"zone.mix",
                             "To mix for it",
                             litres(z.ml / 1000),
                             {},
                             {},
                             {"its share of the coat", {{"area", square_metres(z.m2), "its ring"}}, ""}});
        t.figures.push_back({"zone.minutes",
                             "From the first of it to wiped",
                             hours(z.minutes / 60),
                             {},
                             say("of {} there are", hours(z.window_min / 60)),
                             {"soak or put on, the longer, + wipe", {}, ""}});
        out.push_back(std::move(t));
    }
    // Grits and coats over all faces: what the strip shows.
    struct Sum {
        double minutes = 0, discs = 0, m2 = 0;
    };
    std::map<double, Sum> grits;
    for (const SkinFacePlan& f : p.faces)
        for (const GritStep& g : f.grits) grits[g.grit].minutes += g.minutes, grits[g.grit].discs += g.discs, grits[g.grit].m2 += f.face.m2;
    std::size_t n = 0;
    for (const auto& [grit, sum] : grits) {
        Thing t{"grit " + std::to_string(n + 1), "grit", n, say("Grit {}", number(grit))};
        ++n;
        t.figures.push_back({"grit.minutes",
                             "At the sander with it",
                             hours(sum.minutes / 60),
                             {},
                             say("over {}", square_metres(sum.m2)),
                             {"Σ of the faces that are sanded with it",
                              {{"faces", square_metres(sum.m2), "the top and its base"}},
                              "a maker's minutes a square metre: change them"}});
        t.figures.push_back(
            {"grit.discs",
             "Discs of it",
             count(std::ceil(sum.discs)),
             {},
             {},
             {"flat faces ÷ what a disc lasts for", {{"discs", number(sum.discs), "before they are whole ones"}}, "a maker's: change it"}});
        out.push_back(std::move(t));
    }
    for (int c = 1; c <= p.coats; ++c) {
        double ml = 0, minutes = 0, m2 = 0;
        for (const SkinFacePlan& f : p.faces)
            for (const SkinCoat& one : f.coats)
                if (one.coat == c) ml += one.mix_ml, minutes += one.minutes, m2 += f.face.m2;
        Thing t{"coat " + std::to_string(c), "coat", static_cast<std::size_t>(c - 1), say("Coat {} of {}", count(c), count(p.coats))};
        t.figures.push_back({"coat.mix",
                             "To mix for all of it",
                             litres(ml / 1000),
                             {},
                             say("over {}, zone by zone", square_metres(m2)),
                             {"Σ of the faces that get it", {{"faces", square_metres(m2), "the top and its base"}}, ""}});
        t.figures.push_back({"coat.minutes",
                             "Hands on it",
                             hours(minutes / 60),
                             {},
                             {},
                             {"(put on + wipe) × area, of each face", {}, "a maker's: change it"}});
        t.figures.push_back({"coat.wait",
                             c < p.coats ? "Then the next from" : "Then handled after",
                             hours(c < p.coats ? p.recoat_h : p.handle_h),
                             {},
                             {},
                             {"label × 2^((20 − T)/10)", {{"shop", celsius(p.air_c), "the month's air"}}, "estimate"}});
        out.push_back(std::move(t));
    }
    return out;
}

}  // namespace yb
