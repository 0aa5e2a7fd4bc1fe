#include "core/shop/job/shop.h"

#include "core/ground/calendar/calendar.h"

#include "core/ground/fields/fields.h"

namespace yb {

Shop::Shop() : air(generic_climates().back()), store(generic_climates().back()) {}

double Shop::settles_pct(const std::string& on) const {
    const Month& m = air.months[static_cast<std::size_t>(month_of(on))];
    return equilibrium_moisture(m.temp_c, m.rh_pct);
}

double dry_enough_pct(const Climate& room, const Shop& shop) { return settles_at(room) + shop.dry_allowed_pct; }

namespace {
constexpr auto lengths = school(
    nullptr, "length", "Length in", &Units::length, Way{LengthStyle::millimetres, "millimetres", "millimetres"},
    Way{LengthStyle::inches_16, "inches_16", "inches, 1/16"}, Way{LengthStyle::inches_32, "inches_32", "inches, 1/32"},
    Way{LengthStyle::inches_decimal, "inches_decimal", "inches, decimal"}, Way{LengthStyle::feet_inches, "feet_inches", "feet and inches"});
}  // namespace

void fields(FieldVisitor& v, Units& u) {
    v.school(lengths, u);
    v.flag({"litres", "Litres"}, u.litres);
    v.flag({"kilograms", "Kilograms"}, u.kilograms);
    v.flag({"celsius", "Celsius"}, u.celsius);
}

void fields(FieldVisitor& v, JobRank& r) { v.text({"id", "Job", true}, r.id); }

void fields(FieldVisitor& v, Shop& s) {
    v.text({"name", "The shop is called"}, s.name);
    v.object({"units", "Units"}, s.units);
    v.object({"sled", "Sled"}, s.sled);
    v.list({"resins", "Resins"}, s.resins);
    v.object({"finishes", "Finishes"}, s.finishes);
    v.object({"sanding", "Sanders and discs"}, s.sanding);
    v.object({"labour", "Labour"}, s.labour);
    v.object({"air", "Air of the shop"}, s.air);
    v.object({"store", "Air of the store"}, s.store);
    v.number({"dry_allowed_pct", "Dry enough: above the room by", Kind::percent, {0, 20}}, s.dry_allowed_pct);
    v.object({"workday", "Working hours"}, s.workday);
    v.flag({"all_soonest", "All jobs done soonest, whatever their order"}, s.all_soonest);
    v.list({"job_order", "Jobs, whose turn comes first"}, s.job_order);
    v.numbers({"bushings_mm", "Guide bushings at hand", Kind::fine, {1, 300}}, s.bushings_mm);
    v.list({"sections", "Channel sections"}, s.sections);
    v.object({"money", "Money"}, s.money);
    v.list({"meter", "The moisture meter's booklet"}, s.meter);
    v.list({"paces", "The maker's pace"}, s.paces);
    v.flag({"letter", "Sheets on Letter"}, s.letter);
}

}  // namespace yb
