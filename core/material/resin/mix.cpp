#include "core/material/resin/mix.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <tuple>

#include "core/ground/work/kept.h"

namespace yb {

Mixed mixed(const Resin& r, double litres) {
    Mixed m;
    m.volume_l = litres;
    m.a_l = litres * r.volume_a() / (r.volume_a() + r.volume_b());
    m.b_l = litres - m.a_l;
    m.a_kg = m.a_l * r.density_a;
    m.b_kg = m.b_l * r.density_b;
    return m;
}

Phrase parts_of(const Resin& r) {
    if (r.solid || r.parts_b <= 0) return {};
    return r.by_mass ? say("{} to {} by weight", number(r.parts_a), number(r.parts_b))
                     : say("{} to {} by volume", number(r.parts_a), number(r.parts_b));
}

Kinetics kinetics_of(const Resin& r) {
    Kinetics k;
    k.heat_kj_kg = r.heat_kj_kg;
    k.gel_25_h = r.gel_25_h;
    if (r.pot_life_h) {
        static Kept<std::tuple<double, double, double>, double> fitted(32);
        k.gel_25_h = fitted.answer({*r.pot_life_h, r.pot_g, r.heat_kj_kg}, [&] {
            return gel_25_for(*r.pot_life_h, {r.pot_g, 0, 25}, r.heat_kj_kg);
        });
    }
    return k;
}

double gel_hours(const Resin& r, double temp_c) { return isothermal_gel_h(kinetics_of(r), temp_c); }

const Resin& river_resin(const std::vector<Resin>& resins, const std::string& chosen) {
    if (resins.empty()) throw std::invalid_argument("there is no resin to pour a river of");
    if (const Resin* r = chosen.empty() ? nullptr : find_resin(resins, chosen)) return *r;
    const auto deep = [](const Resin& r) { return r.solid || r.soaks ? 0 : r.deepest_mm; };
    return *std::max_element(resins.begin(), resins.end(), [&](const Resin& a, const Resin& b) { return deep(a) < deep(b); });
}

const Resin* find_resin(const std::vector<Resin>& resins, const std::string& key) {
    const auto it = std::find_if(resins.begin(), resins.end(), [&](const Resin& r) { return r.key == key; });
    return it == resins.end() ? nullptr : &*it;
}

}  // namespace yb
