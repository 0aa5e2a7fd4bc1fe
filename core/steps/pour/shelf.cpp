// The shelf: what is bought of a resin, its label beside the model, what on a sheet can't be; the panels that a form is cut from.
#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/ground/measure/shelf.h"
#include "core/steps/pour/pour.h"
#include "core/steps/pour/told.h"

namespace yb {

Shopping shopping_for(const Resin& r, double wanted) {
    Shopping s;
    s.wanted_l = wanted;
    s.left_l = r.left_l.value_or(0);
    const double kit = r.kit_l.value_or(0);
    s.buys_l = to_buy(wanted, s.left_l, kit);
    if (kit > 0) s.kits = static_cast<int>(std::lround(s.buys_l / kit));
    s.remains_l = s.left_l + s.buys_l - wanted;
    if (r.price_l) s.cost = s.buys_l * *r.price_l;
    return s;
}

std::vector<LabelRow> label_against_model(const Resin& r) {
    std::vector<LabelRow> out;
    const Kinetics k = kinetics_of(r);
    if (r.pot_life_h) out.push_back({"pot life", *r.pot_life_h, pot_life(k, {r.pot_g, 0, 25}).pot_life_h});
    if (r.pot_life_h) out.push_back({"gel", r.gel_25_h, isothermal_gel_h(k, 25)});
    if (r.recoat_from_h) out.push_back({"next lift from", *r.recoat_from_h, isothermal_h(k, gel_alpha, 25)});
    if (r.recoat_to_h) out.push_back({"next lift to", *r.recoat_to_h, isothermal_h(k, tacky_alpha, 25)});
    if (r.cured_h) out.push_back({"cured", *r.cured_h, isothermal_h(k, cured_alpha, 25)});
    return out;
}

std::vector<Phrase> sheet_faults(const Resin& r) {
    std::vector<Phrase> out;
    const auto wrong = [&](bool is, Phrase says) {
        if (is) out.push_back(std::move(says));
    };
    wrong(!(r.parts_a > 0) || (!r.solid && !r.soaks && !(r.parts_b > 0) && r.deepest_mm > 5),
          say("{}: its mix has a part of nothing. Look at its label and type both parts on the shop's page.", r.label));
    wrong(!(r.density_a > 0) || !(r.density_b > 0), say("{}: a density of nothing. Water is 1; resins lie near 1.1.", r.label));
    wrong(r.cured_h && r.gel_25_h > *r.cured_h,
          say("{}: it gels in {} and is cured after {}: one of the two is misread. Look at its sheet.", r.label, hours(r.gel_25_h),
              hours(r.cured_h.value_or(0))));
    wrong(r.recoat_from_h && r.recoat_to_h && *r.recoat_from_h > *r.recoat_to_h,
          say("{}: the next lift bonds from {} to {}: the window ends before it opens. Look at its sheet.", r.label,
              hours(r.recoat_from_h.value_or(0)), hours(r.recoat_to_h.value_or(0))));
    wrong(r.sand_h && *r.sand_h < r.gel_25_h,
          say("{}: it could be sanded after {} and gels in {}: nothing uncured is sanded. Look at its sheet.", r.label,
              hours(r.sand_h.value_or(0)), hours(r.gel_25_h)));
    wrong(r.low_c > r.high_c,
          say("{}: its air goes from {} to {}: the lower one is the higher. Exchange them.", r.label, celsius(r.low_c), celsius(r.high_c)));
    return out;
}

namespace {

/// One piece of a part, the longer side along the panel where it goes so.
std::vector<NestedPart> pieces_of(const FormPart& part, double panel_long, double panel_wide) {
    double length = std::max(part.length_mm, part.width_mm);
    double width = std::min(part.length_mm, part.width_mm);
    const int lengthwise = std::max(1, static_cast<int>(std::ceil(length / panel_long - 1e-9)));
    const int crosswise = std::max(1, static_cast<int>(std::ceil(width / panel_wide - 1e-9)));
    std::vector<NestedPart> out;
    for (int c = 0; c < part.count; ++c)
        for (int i = 0; i < lengthwise * crosswise; ++i) out.push_back({part.name, 0, 0, length / lengthwise, width / crosswise});
    return out;
}

}  // namespace

std::vector<Sheet> nest(const std::vector<FormPart>& parts, double panel_long, double panel_wide, double kerf) {
    if (!(panel_long > 0) || !(panel_wide > 0)) throw std::invalid_argument("a panel has a length and a width");
    std::vector<NestedPart> all;
    for (const FormPart& p : parts) {
        if (!(p.length_mm > 0) || !(p.width_mm > 0)) continue;
        const auto some = pieces_of(p, std::max(panel_long, panel_wide), std::min(panel_long, panel_wide));
        all.insert(all.end(), some.begin(), some.end());
    }
    const double along = std::max(panel_long, panel_wide);
    const double across = std::min(panel_long, panel_wide);
    // The widest first; within a row one beside the other along the panel.
    std::stable_sort(all.begin(), all.end(), [](const NestedPart& a, const NestedPart& b) {
        return a.width_mm != b.width_mm ? a.width_mm > b.width_mm : a.length_mm > b.length_mm;
    });
    struct Row {
        std::size_t sheet = 0;
        double y = 0, high = 0, used = 0;
    };
    std::vector<Row> rows;
    std::vector<Sheet> out;
    std::vector<double> filled;  // of each sheet, across
    for (NestedPart p : all) {
        Row* into = nullptr;
        for (Row& r : rows)
            if (p.width_mm <= r.high + 1e-9 && r.used + p.length_mm <= along + 1e-9) {
                into = &r;
                break;
            }
        if (!into) {
            std::size_t sheet = 0;
            while (sheet < out.size() && filled[sheet] + p.width_mm > across + 1e-9) ++sheet;
            if (sheet == out.size()) out.emplace_back(), filled.push_back(0);
            rows.push_back({sheet, filled[sheet], p.width_mm, 0});
            filled[sheet] += p.width_mm + kerf;
            into = &rows.back();
        }
        p.x_mm = into->used;
        p.y_mm = into->y;
        into->used += p.length_mm + kerf;
        out[into->sheet].parts.push_back(p);
    }
    return out;
}

}  // namespace yb
