#include "core/steps/fill/choices.h"

namespace yb {

namespace {
constexpr std::string_view about_void = "fill.", about_soak = "fill.soak.";
}

std::string key_of(const VoidChoice& c) { return std::string(c.soak ? about_soak : about_void) + c.id; }

std::optional<VoidChoice> read_void_choice(std::string_view choice) {
    for (const bool soak : {true, false}) {
        const std::string_view front = soak ? about_soak : about_void;
        if (choice.size() > front.size() && choice.starts_with(front)) return VoidChoice{soak, std::string(choice.substr(front.size()))};
    }
    return {};
}

std::pair<std::optional<std::size_t>, std::string> leaf_of_void(const std::string& id) {
    const auto slash = id.find('/');
    if (slash == std::string::npos || slash == 0 || slash > 3 || id.find_first_not_of("0123456789") != slash) return {{}, id};
    return {static_cast<std::size_t>(std::stoi(id.substr(0, slash))) - 1, id.substr(slash + 1)};
}

void fields(FieldVisitor& v, VoidFill& f) {
    v.text({"flaw_id", "Flaw", true}, f.flaw_id);
    v.text({"resin", "Resin"}, f.resin);
    v.flag({"leave_open", "Left open"}, f.leave_open);
    v.school(soaks, f);
}

void fields(FieldVisitor& v, FillChoices& c) {
    v.number({"overfill_mm", "Overfill", Kind::fine, {0, 20}}, c.overfill_mm);
    v.number({"reserve_pct", "Reserve", Kind::percent, {0, 200}}, c.reserve_pct);
    v.number({"tape_mm", "Tape below, wide", Kind::length, {10, 300}}, c.tape_mm);
    v.number({"pigment_g_kg", "Tint, g in a kg of mix", Kind::number, {0, 200}}, c.pigment_g_kg);
    v.text({"colour", "Tint"}, c.colour);
    v.text({"river", "Resin of a river"}, c.river);
}

}  // namespace yb
