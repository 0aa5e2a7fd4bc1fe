#include "core/steps/money/choices.h"

namespace yb {

void fields(FieldVisitor& v, Prices& p) {
    constexpr Range price{0, 1e6};
    v.number({"glue_l", "Glue, a litre", Kind::number, price}, p.glue_l);
    v.number({"glued_piece", "A loose tenon, dowel or biscuit", Kind::number, price}, p.glued_piece);
    v.number({"panel", "A panel of the form", Kind::number, price}, p.panel);
    v.number({"tape_roll", "A roll of tape", Kind::number, price}, p.tape_roll);
    v.number({"caulk_m", "Caulk, a metre of it", Kind::number, price}, p.caulk_m);
    v.number({"cutter_m2", "A cutter's wear, a square metre", Kind::number, price}, p.cutter_m2);
    v.number({"pigment_kg", "Pigment, a kilogram", Kind::number, price}, p.pigment_kg);
    v.number({"bolt", "A bolt with its washer", Kind::number, price}, p.bolt);
    v.number({"insert", "An insert", Kind::number, price}, p.insert);
    v.number({"channel_m", "Steel channel, a metre", Kind::number, price}, p.channel_m);
    v.number({"plate", "A leg plate", Kind::number, price}, p.plate);
    v.number({"base_l", "Wood of a base, a litre", Kind::number, price}, p.base_l);
}

void fields(FieldVisitor& v, ShopMoney& m) {
    constexpr Range price{0, 1e6};
    v.text({"currency", "Currency, a word or sign"}, m.currency);
    v.number({"hour", "The maker's hour", Kind::number, price}, m.hour);
    v.number({"helper_hour", "The helper's hour", Kind::number, price}, m.helper_hour);
    v.number({"overhead_pct", "Rent, power, insurance, on the cost", Kind::percent, {0, 500}}, m.overhead_pct);
    v.number({"margin_pct", "Margin, of the offer", Kind::percent, {0, 95}}, m.margin_pct);
    v.number({"tax_pct", "Tax, on the offer", Kind::percent, {0, 100}}, m.tax_pct);
    v.number({"order_days", "What is ordered comes after, days", Kind::number, {0, 365}}, m.order_days);
    v.number({"valid_days", "An offer stands, days", Kind::number, {1, 3650}}, m.valid_days);
    v.object({"prices", "Prices"}, m.prices);
}

void fields(FieldVisitor& v, ExtraCost& e) {
    v.text({"what", "What", true}, e.what);
    v.number({"amount", "How many", Kind::number, {0, 1e6}}, e.amount);
    v.number({"price", "Each", Kind::number, {0, 1e7}}, e.price);
}

void fields(FieldVisitor& v, JobMoney& m) {
    v.school(slab_costs, m);
    v.number({"base_price", "The base, bought", Kind::number, {0, 1e7}}, m.base_price);
    v.number({"hour", "The maker's hour, for this job", Kind::number, {0, 1e6}}, m.hour);
    v.number({"margin_pct", "Margin, for this job", Kind::percent, {0, 95}}, m.margin_pct);
    v.list({"extra", "What else is paid"}, m.extra);
    v.text({"not_included", "Not included"}, m.not_included);
}

}  // namespace yb
