#include "core/job/job.h"

#include <algorithm>

#include "core/job/steps.h"

namespace yb {

Shop::Shop() : air(generic_climates().back()) {}
Job::Job() : room(generic_climates().front()) {}

bool Job::uses(const std::string& slab) const {
    return std::any_of(leaves.begin(), leaves.end(), [&](const Leaf& l) { return l.slab == slab; });
}

std::vector<std::string> Job::slabs() const {
    std::vector<std::string> out;
    const auto take = [&](const std::string& one) {
        if (!one.empty() && std::find(out.begin(), out.end(), one) == out.end()) out.push_back(one);
    };
    for (const Leaf& l : leaves) take(l.slab);
    for (const Patch& p : makeup.patches) take(p.slab);
    return out;
}

std::map<std::string, std::string> taken_slabs(const Documents& docs, const std::string& but) {
    std::map<std::string, std::string> out;
    for (const auto& [id, j] : docs.jobs)
        if (id != but || but.empty())
            for (const std::string& used : j.slabs()) out[used] = j.name;
    return out;
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

void fields(FieldVisitor& v, Shop& s) {
    v.text({"name", "The shop is called"}, s.name);
    v.object({"units", "Units"}, s.units);
    v.object({"sled", "Sled"}, s.sled);
    v.list({"resins", "Resins"}, s.resins);
    v.object({"air", "Air of the shop"}, s.air);
    v.number({"dry_allowed_pct", "Dry enough: above the room by", Kind::percent, {0, 20}}, s.dry_allowed_pct);
    v.object({"workday", "Working hours"}, s.workday);
    v.numbers({"bushings_mm", "Guide bushings at hand", Kind::fine, {1, 300}}, s.bushings_mm);
    v.flag({"letter", "Sheets on Letter"}, s.letter);
}

void fields(FieldVisitor& v, Leaf& l) {
    v.text({"slab", "Slab"}, l.slab);
    v.object({"placement", "Placement"}, l.placement);
    v.list({"supports", "Supports"}, l.supports);
    v.list({"voids", "Voids"}, l.voids);
}

void fields(FieldVisitor& v, Job& j) {
    v.text({"id", "Id", true}, j.id);
    v.text({"name", "Name"}, j.name);
    v.text({"client", "For"}, j.client);
    v.text({"start", "Begins on"}, j.start);
    v.text({"notes", "Notes"}, j.notes);
    v.flag({"cuts_done", "Rough cuts are done"}, j.cuts_done);
    for (const StepRow& row : steps())
        if (row.fields) row.fields(v, j);
}

}  // namespace yb
