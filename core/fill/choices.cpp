#include "core/fill/choices.h"

namespace yb {

const std::vector<Resin>& starting_resins() {
    static const std::vector<Resin> all{{"slow-deep", "Slow deep casting", 40, 50, 2, 1, 1.12, 0.97, true, {}},
                                        {"medium", "Medium casting", 14, 13, 2, 1, 1.13, 0.98, false, {}},
                                        {"coating", "Coating", 5, 6, 1, 1, 1.15, 0.98, false, {}},
                                        {"quick", "Quick structural", 1, 3, 1, 1, 1.17, 1.02, false, {}}};
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
}

void fields(FieldVisitor& v, VoidFill& f) {
    v.text({"flaw_id", "Flaw", true}, f.flaw_id);
    v.text({"resin", "Resin"}, f.resin);
    v.flag({"leave_open", "Left open"}, f.leave_open);
}

void fields(FieldVisitor& v, FillChoices& c) {
    v.number({"overfill_mm", "Overfill", Kind::fine, {0, 20}}, c.overfill_mm);
    v.number({"reserve_pct", "Reserve", Kind::percent, {0, 200}}, c.reserve_pct);
    v.text({"river", "Resin of a river"}, c.river);
}

}  // namespace yb
