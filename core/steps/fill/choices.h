// Fill, what the maker decides.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step fill{"fill"};
}

/// A choice about one void, as files and choices name it: "fill.flaw-1", or "fill.soak.flaw-1" of whether it is soaked first.
struct VoidChoice {
    bool soak = false;
    std::string id;  ///< of the void; of a top of several leaves "2/flaw-1"
};
std::string key_of(const VoidChoice& choice);
/// Nothing for a choice of another room.
std::optional<VoidChoice> read_void_choice(std::string_view choice);
/// A void of a top of several leaves: its leaf, from 0, and its own id. Without a leaf in front: none, and the id as it is.
std::pair<std::optional<std::size_t>, std::string> leaf_of_void(const std::string& id);

enum class Soak { advised, first, dry };
/// What is done with one flaw.
struct VoidFill {
    std::string flaw_id;
    std::string resin;  ///< a resin's key; empty takes the advice
    bool leave_open = false;
    Soak soak = Soak::advised;  ///< with a penetrating resin before it is filled
    bool operator==(const VoidFill&) const = default;
};

struct FillChoices {
    double overfill_mm = 1.5;  ///< stands proud for shrinkage and levelling
    double reserve_pct = 10;   ///< stays in the cup and soaks in
    double tape_mm = 50;       ///< width of the tape that shuts what is open below
    double pigment_g_kg = 0;   ///< of the mix, in every round of every void alike
    std::string colour;        ///< what it is called
    std::string river;         ///< the resin a river is poured of, its key; empty: the one that takes the deepest lift
    bool operator==(const FillChoices&) const = default;
};

inline constexpr auto soaks = school(nullptr, "soak", "Soaked before", &VoidFill::soak, Way{Soak::advised, "advised", "As advised"},
                                     Way{Soak::first, "first", "Soaked first"}, Way{Soak::dry, "dry", "Filled dry"});

void fields(FieldVisitor& v, VoidFill& f);
void fields(FieldVisitor& v, FillChoices& c);

}  // namespace yb
