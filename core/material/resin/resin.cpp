#include "core/material/resin/resin.h"

namespace yb {

const std::vector<Resin>& starting_resins() {
    const auto resin = [](const char* key, const char* label, double gel, double deep, double a, double b, double da, double db, bool thin,
                          double heat, double pa_s, double pot_g, double low_c, double high_c) {
        Resin r{key, label, gel, deep, a, b, da, db, thin, {}};
        r.heat_kj_kg = heat, r.pa_s = pa_s, r.pot_g = pot_g, r.low_c = low_c, r.high_c = high_c;
        return r;
    };
    const auto soaking = [](Resin r) {
        r.soaks = true;
        return r;
    };
    const auto solid = [](Resin r) {
        r.solid = true;
        return r;
    };
    static const std::vector<Resin> all{resin("slow-deep", "Slow deep casting", 40, 50, 2, 1, 1.12, 0.97, true, 300, 0.3, 1000, 15, 25),
                                        resin("medium", "Medium casting", 14, 13, 2, 1, 1.13, 0.98, false, 350, 1, 500, 15, 28),
                                        resin("coating", "Coating", 5, 6, 1, 1, 1.15, 0.98, false, 400, 0.8, 200, 18, 28),
                                        resin("quick", "Quick structural", 2.5, 3, 1, 1, 1.17, 1.02, false, 420, 10, 100, 10, 30),
                                        soaking(resin("penetrating", "Penetrating", 8, 2, 2, 1, 1.05, 0.95, true, 250, 0.1, 200, 15, 30)),
                                        resin("thin-glue", "Thin glue and accelerator", 0.1, 2, 1, 0, 1.05, 1, true, 200, 0.02, 20, 10, 30),
                                        solid(resin("stick", "Filler stick", 0.2, 15, 1, 0, 1.1, 1, false, 50, 900, 20, 0, 35)),
                                        solid(resin("filler", "Wood filler", 3, 5, 1, 0, 1.4, 1, false, 50, 500, 50, 10, 30))};
    return all;
}

void fields(FieldVisitor& v, Resin& r) {
    v.text({"key", "Key", true}, r.key);
    v.text({"label", "Called", true}, r.label);
    v.number({"gel_25_h", "Gels at 25 °C in", Kind::hours, {0.05, 500}, true}, r.gel_25_h);
    v.number({"deepest_mm", "Deepest lift", Kind::fine, {0.5, 300}, true}, r.deepest_mm);
    v.number({"parts_a", "Parts A, by volume", Kind::number, {0.01, 1000}, true}, r.parts_a);
    v.number({"parts_b", "Parts B, by volume", Kind::number, {0, 1000}, true}, r.parts_b);
    v.number({"density_a", "Density A, g/mL", Kind::number, {0.5, 3}, true}, r.density_a);
    v.number({"density_b", "Density B, g/mL", Kind::number, {0.5, 3}, true}, r.density_b);
    v.flag({"thin", "Runs through gaps in tape"}, r.thin);
    v.number({"price_l", "Price of a litre", Kind::number, {0, 10000}}, r.price_l);
    v.number({"heat_kj_kg", "Heat of its cure, kJ/kg", Kind::number, {10, 1000}}, r.heat_kj_kg);
    v.number({"pa_s", "Thick as, Pa·s", Kind::number, {0.01, 1000}}, r.pa_s);
    v.number({"pot_life_h", "Pot life", Kind::hours, {0.02, 500}}, r.pot_life_h);
    v.number({"pot_g", "… of a cup of, g", Kind::number, {5, 20000}}, r.pot_g);
    v.number({"low_c", "Air, from", Kind::temperature, {-10, 60}}, r.low_c);
    v.number({"high_c", "Air, to", Kind::temperature, {-10, 60}}, r.high_c);
    v.number({"kit_l", "A kit makes", Kind::volume, {0.01, 1000}}, r.kit_l);
    v.number({"left_l", "On the shelf", Kind::volume, {0, 10000}}, r.left_l);
    v.flag({"by_mass", "Parts are by mass"}, r.by_mass);
    v.number({"recoat_from_h", "Next lift bonds, from", Kind::hours, {0, 2000}}, r.recoat_from_h);
    v.number({"recoat_to_h", "… to", Kind::hours, {0, 2000}}, r.recoat_to_h);
    v.number({"sand_h", "Can be sanded after", Kind::hours, {0, 5000}}, r.sand_h);
    v.number({"cured_h", "Cured after", Kind::hours, {0, 5000}}, r.cured_h);
    v.text({"colour", "Colour as it comes"}, r.colour);
    v.flag({"soaks", "Soaks into soft wood"}, r.soaks);
    v.flag({"solid", "A stick or paste"}, r.solid);
}

}  // namespace yb
