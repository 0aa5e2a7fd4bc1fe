// Pour worked out another way: volumes level by level, banks walked in strips, heat by the plainest explicit scheme.
#pragma once

#include "core/steps/pour/pour.h"
#include "tests/ground/cure/plain.h"
#include "tests/truth/volumes.h"

namespace yb::truth {

struct Poured {
    double pour_l = 0, mix_l = 0, deep_mm = 0;
    int lifts = 0;
    Plain mean, warm;
};
inline const Poured& poured(const Case& c) {
    static std::map<std::string, Poured> known;
    if (const auto it = known.find(c.name); it != known.end()) return it->second;
    Poured p;
    if (c.job.makeup.kind != MakeUp::river) return known[c.name] = p;
    const auto& choices = c.job.pour;
    const double t = c.plan.flat->thickness_mm;
    p.deep_mm = t + c.job.fill.overfill_mm + choices.after_mm;
    // Between the blanks' banks, to the ends they were rough-cut to.
    const double half = c.job.top.length_mm / 2 + c.job.leaves.front().placement.oversize_mm;
    for (std::size_t k = 0; k + 1 < c.slabs.size(); ++k) {
        constexpr int levels = 40;
        double water = 0;
        double surface = 0;
        std::array<double, 2> banks{};
        for (int n = 0; n < levels; ++n) {
            const Ring right = c.level(k, (n + 0.5) / levels);
            const Ring left = c.level(k + 1, (n + 0.5) / levels);
            for (double u = -half + 1; u < half; u += 2)
                if (const double high = highest(right, u, 1e9), low = lowest(left, u, -1e9); high < 1e8 && low > -1e8)
                    water += std::max(0.0, low - high) * 2 * t / levels * 1e-6;
        }
        const std::array<Ring, 4> faces{c.level(k, 1), c.level(k, 0), c.level(k + 1, 1), c.level(k + 1, 0)};
        const auto bank = [&](std::size_t b, bool above, double u) {
            const Ring& r = faces[2 * b + (above ? 0 : 1)];
            return b == 0 ? highest(r, u, 0) : lowest(r, u, 0);
        };
        for (double u = -half + 1; u < half - 2; u += 2) {
            surface += std::max(0.0, bank(1, true, u) - bank(0, true, u)) * 2;
            for (std::size_t b = 0; b < 2; ++b)
                for (const bool above : {true, false})
                    banks[b] +=
                        std::hypot(2, bank(b, above, u + 2) - bank(b, above, u)) / 2 * std::hypot(t, bank(b, true, u) - bank(b, false, u));
        }
        p.pour_l +=
            water + surface * (c.job.fill.overfill_mm + choices.after_mm) * 1e-6 + (banks[0] + banks[1]) * 1e-6 * choices.soak_ml_m2 / 1000;
    }
    p.mix_l = p.pour_l * (1 + c.job.fill.reserve_pct / 100) * (1 + choices.cup_loss_pct / 100);
    // The slow class, in the month the job starts.
    const double air = c.plan.air_of(step_key::pour).day.temp_c;
    for (p.lifts = static_cast<int>(std::ceil(p.deep_mm / 50));; ++p.lifts) {
        p.warm = plainly(40, 300, p.deep_mm / p.lifts, air + 1, choices.sheet_mm, 8, 160);
        if (p.warm.peak_c <= choices.peak_limit_c || p.lifts > 11) break;
    }
    p.mean = plainly(40, 300, p.deep_mm / p.lifts, air, choices.sheet_mm, 8, 420);
    return known[c.name] = p;
}

inline std::map<std::string, Recompute> of_pour() {
    return {
        {"pour.mix",
         [](const Case& c, const Figure&) {
             return Expected{poured(c).mix_l, 0, 0.01, 0.006, 0};
         }},
        {"pour.batches",
         [](const Case& c, const Figure&) {
             const Poured& p = poured(c);
             const double n = p.lifts * std::ceil(p.mix_l / p.lifts / c.job.pour.cup_l);
             return Expected{n, p.mix_l / n, 1e-9, 0.006, 0.02};
         }},
        {"pour.peak",
         [](const Case& c, const Figure&) {
             return Expected{poured(c).mean.peak_c, poured(c).warm.peak_c, 0.3, 0.015, 0.5};
         }},
        {"pour.lifts",
         [](const Case& c, const Figure&) {
             return Expected{static_cast<double>(poured(c).lifts), poured(c).deep_mm / poured(c).lifts, 1e-9, 1e-6, 0.01};
         }},
        {"pour.wait",
         [](const Case& c, const Figure&) {
             REQUIRE(poured(c).lifts == 1);  // of one lift alone it can be told so plainly
             // Until the whole of it is 95 % cured, or as its label says, at this air.
             const Resin* slow = nullptr;
             for (const Resin& r : c.docs.shop.resins)
                 if (r.key == c.plan.pour->resin) slow = &r;
             REQUIRE(slow);
             const double air = c.plan.air_of(step_key::pour).day.temp_c + 273.15;
             if (slow->sand_h) return Expected{*slow->sand_h * std::exp(55000 / 8.314462618 * (1 / air - 1 / 298.15)), 0, 1, 0.002, 0};
             return Expected{poured(c).mean.cured_h, 0, 1, 0.02, 0};
         }},
        {"pour.float",
         [](const Case& c, const Figure&) {
             double force = 0;
             double clamps = 0;
             for (std::size_t i = 0; i < c.slabs.size(); ++i) {
                 const Species* wood = nullptr;
                 for (const Species& s : all_species())
                     if (s.name == c.slabs[i].species) wood = &s;
                 // The whole blank, slice by slice.
                 const double end = c.job.top.length_mm / 2 + c.job.leaves[i].placement.oversize_mm;
                 double l = 0;
                 for (int n = 0; n < 40; ++n) {
                     const Ring level = c.level(i, (n + 0.5) / 40);
                     for (double u = -end + 1; u < end; u += 2)
                         l += std::max(0.0, highest(level, u, 0) - lowest(level, u, 0)) * 2 * c.plan.flat->thickness_mm / 40 * 1e-6;
                 }
                 const double m = c.slabs[i].moisture_pct.value_or(12);
                 const double lift = (l * (2 * 1.12 + 0.97) / 3 - l * *wood->specific_gravity_12 * (1 + m / 100)) * 9.80665;
                 force += lift, clamps += std::ceil(2 * lift / c.job.pour.clamp_n);
             }
             return Expected{force, clamps, 4, 0.02, 0.01};
         }},
    };
}

}  // namespace yb::truth
