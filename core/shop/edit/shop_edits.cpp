#include "core/shop/edit/shop_edits.h"

#include <algorithm>

#include "core/ground/fields/walk.h"
#include "core/ground/measure/measure.h"
#include "core/material/resin/mix.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/documents.h"

namespace yb {

void other_units(Shop& s) { s.units = s.units.metric_length() ? Units::imperial() : Units::metric(); }
void set_length_style(Shop& s, LengthStyle style) { s.units.length = style; }
void other_volume_unit(Shop& s) { s.units.litres = !s.units.litres; }
void other_mass_unit(Shop& s) { s.units.kilograms = !s.units.kilograms; }
void other_temperature_unit(Shop& s) { s.units.celsius = !s.units.celsius; }
void other_paper(Shop& s) { s.letter = !s.letter; }
void name_shop(Shop& s, const std::string& name) { s.name = name; }
void set_shop_air(Shop& s, const Climate& air) { s.air = air; }
void set_store_air(Shop& s, const Climate& air) { s.store = air; }

namespace {
Resin* resin_of(Shop& s, const std::string& key) {
    const auto it = std::find_if(s.resins.begin(), s.resins.end(), [&](const Resin& r) { return r.key == key; });
    return it == s.resins.end() ? nullptr : &*it;
}
}  // namespace

void name_resin(Shop& s, const std::string& key, const std::string& name) {
    if (Resin* r = resin_of(s, key)) set_name(r->label, name);
}

void set_resin_number(Shop& s, const std::string& key, const std::string& field, std::optional<double> value) {
    if (Resin* r = resin_of(s, key)) set_number(walk_of(*r), field, value);
}

std::size_t add_days_off(Shop& shop, const std::vector<DayOff>& off) {
    auto& all = shop.workday.off;
    const std::size_t before = all.size();
    for (const DayOff& o : off)
        if (std::find(all.begin(), all.end(), o) == all.end()) all.push_back(o);
    std::stable_sort(all.begin(), all.end(), [](const DayOff& a, const DayOff& b) { return a.from < b.from; });
    return all.size() - before;
}

std::string add_resin(Shop& shop, const std::string& like) {
    const Resin* of = find_resin(starting_resins(), like);
    Resin r = of ? *of : starting_resins().at(1);
    const std::string stem = "own";
    r.key = first_free(stem, [&](const std::string& key) {
        return std::any_of(shop.resins.begin(), shop.resins.end(), [&](const Resin& o) { return o.key == key; });
    });
    r.label = "own resin " + r.key.substr(stem.size() + 1);
    shop.resins.push_back(r);
    return r.key;
}

}  // namespace yb
