#include "core/shop/job/rates.h"

#include <algorithm>
#include <cmath>

#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/pace/pace.h"
#include "core/steps/rack/rack.h"

namespace yb {

namespace {

/// What a figure of the maker's changes, what it starts with in its unit, and the figure of the plan that tells of it.
struct Rate {
    const char* kind;
    const char* told;
    double (*starting)(const Shop&, const Job&);
    void (*apply)(Shop&, Job&, double times);
};

double of_resin_lost(double loss_pct, double times) { return ((1 + loss_pct / 100) * times - 1) * 100; }

const std::vector<Rate>& rates() {
    using S = Shop&;
    using J = Job&;
    using CS = const Shop&;
    using CJ = const Job&;
    static const std::vector<Rate> all{
        {"sand_felt", "skin.sanding", [](CS s, CJ) { return 60 / s.sanding.felt_min_m2; },
         [](S s, J, double t) { s.sanding.felt_min_m2 *= t; }},
        {"sand_first", "skin.sanding", [](CS s, CJ) { return 60 / s.sanding.planed_min_m2; },
         [](S s, J, double t) { s.sanding.planed_min_m2 *= t; }},
        {"sand_after", "skin.sanding", [](CS s, CJ) { return 60 / s.sanding.after_min_m2; },
         [](S s, J, double t) { s.sanding.after_min_m2 *= t; }},
        {"sand_edge", "skin.sanding", [](CS s, CJ) { return 60 / s.sanding.edge_min_m; },
         [](S s, J, double t) { s.sanding.edge_min_m *= t; }},
        {"lane", "flat.hours", [](CS s, CJ) { return 3600 / (s.sled.turn_s + 1000 / s.sled.feed_mm_s); },
         [](S s, J, double t) { s.sled.turn_s *= t, s.sled.feed_mm_s /= t; }},
        {"layer", "flat.hours", [](CS s, CJ) { return s.sled.layer_s / 60; }, [](S s, J, double t) { s.sled.layer_s *= t; }},
        {"mix", "pour.batches", [](CS, CJ j) { return j.pour.mix_min; }, [](S, J j, double t) { j.pour.mix_min *= t; }},
        {"glue_spread", "join.needed", [](CS, CJ j) { return j.join.spread_m2_min * 60; },
         [](S, J j, double t) { j.join.spread_m2_min /= t; }},
        {"glue_pieces", "join.needed", [](CS, CJ j) { return 3600 / j.join.piece_s; }, [](S, J j, double t) { j.join.piece_s *= t; }},
        {"glue_set", "join.needed", [](CS, CJ j) { return j.join.set_min; }, [](S, J j, double t) { j.join.set_min *= t; }},
        {"glue_clamp", "join.needed", [](CS, CJ j) { return 3600 / j.join.clamp_s; }, [](S, J j, double t) { j.join.clamp_s *= t; }},
        {"coat_on", "skin.zones", [](CS s, CJ j) { return 60 / s.finishes.of(j.skin.finish).on_min_m2; },
         [](S s, J, double t) {
             for (FinishClass& k : s.finishes.labels) k.on_min_m2 *= t;
         }},
        {"coat_off", "skin.zones", [](CS s, CJ j) { return 60 / s.finishes.of(j.skin.finish).off_min_m2; },
         [](S s, J, double t) {
             for (FinishClass& k : s.finishes.labels) k.off_min_m2 *= t;
         }},
        {"resin_lost", "pour.mix", [](CS, CJ j) { return j.pour.cup_loss_pct; },
         [](S, J j, double t) { j.pour.cup_loss_pct = std::max(0.0, of_resin_lost(j.pour.cup_loss_pct, t)); }},
        {"finish_drunk", "skin.mix", [](CS s, CJ j) { return s.finishes.of(j.skin.finish).first_ml_m2 * j.skin.thirst; },
         [](S, J j, double t) { j.skin.thirst *= t; }},
        // Drying is asked for by slab where it is told.
        {"drying", "rack.drying", [](CS, CJ) { return rule_days_25_mm; }, [](S, J, double) {}},
    };
    return all;
}

const Rate* rate_of(const std::string& kind) {
    for (const Rate& r : rates())
        if (kind == r.kind) return &r;
    return nullptr;
}

}  // namespace

void with_rates(Shop& shop, Job& job, const std::vector<PaceFigure>& paces) {
    for (const PaceFigure& f : paces)
        if (const Rate* r = rate_of(f.key); r && is_used(f)) r->apply(shop, job, f.times);
}

std::optional<OwnFigure> own_figure(const PaceFigure& pace, const Shop& shop, const Job& job) {
    const Rate* r = rate_of(pace.key);
    const PaceKind* k = find_pace_kind(pace.key);
    if (!r || !k || !(pace.times > 0)) return {};
    const double start = r->starting(shop, job);
    if (!std::isfinite(start)) return {};
    if (pace.key == "resin_lost") return OwnFigure{std::max(0.0, of_resin_lost(start, pace.times)), (100 + start) * pace.spread};
    const double value = k->per_hour ? start / pace.times : start * pace.times;
    return OwnFigure{value, value * pace.spread / pace.times};
}

Phrase figure_of(const PaceFigure& pace, const Shop& shop, const Job& job) {
    const auto own = own_figure(pace, shop, job);
    if (!own) return say("× {} ± {}", number(std::round(pace.times * 100) / 100), number(std::round(pace.spread * 100) / 100));
    // To as many places as the spread has two figures.
    const double places = own->spread > 0 ? std::pow(10, std::clamp(1 - std::floor(std::log10(own->spread)), -2.0, 3.0)) : 100;
    const auto rounded = [&](double v) { return number(std::round(v * places) / places); };
    return say("{} ± {} {}", rounded(own->value), rounded(own->spread), find_pace_kind(pace.key)->unit);
}

Phrase yours(const PaceFigure& pace, const Shop& shop, const Job& job) {
    return say("yours, from {}: {}", pace.key == "drying" ? counted(pace.tables, "slab", "slabs") : counted(pace.tables, "table", "tables"),
               render(figure_of(pace, shop, job), Units::metric()));
}

bool tell_rates(std::vector<Figure>& figures, const std::vector<PaceFigure>& paces, const Shop& shop, const Job& job) {
    bool any = false;
    // Hours that the rule of days and the money count at the maker's pace of the whole operation.
    static constexpr std::pair<const char*, const char*> whole[] = {{"sand", "skin.sanding"}, {"flat", "flat.hours"}};
    for (const auto& [kind, told] : whole)
        if (const double times = pace_of(paces, kind); times != 1)
            for (Figure& one : figures)
                if (one.key == told) {
                    one.working.given.push_back(
                        {"at your pace, as days and money count it", hours(one.value.value * times), "hours × your pace of it"});
                    one.note.then.push_back(say("{} at your pace", hours(one.value.value * times)));
                    any = true;
                }
    for (const PaceFigure& f : paces) {
        const Rate* r = rate_of(f.key);
        const auto own = r && is_used(f) ? own_figure(f, shop, job) : std::nullopt;
        if (!own) continue;
        for (Figure& one : figures) {
            if (one.key != r->told) continue;
            const PaceKind& k = *find_pace_kind(f.key);
            const auto known =
                std::find_if(one.working.given.begin(), one.working.given.end(), [&](const Given& g) { return g.name == k.label; });
            Given g{k.label, number(own->value), render(yours(f, shop, job), Units::metric())};
            if (known == one.working.given.end()) one.working.given.push_back(std::move(g));
            else *known = std::move(g);
            any = true;
        }
    }
    return any;
}

}  // namespace yb
