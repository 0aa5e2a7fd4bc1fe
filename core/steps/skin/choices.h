// Skin, what the maker decides: how the wood is finished, how it is sanded for it, what of it is left out.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/ground/fields/fields.h"
#include "core/ground/figure/figure.h"

namespace yb {

namespace step_key {
inline constexpr Step skin{"skin"};
}

/// How the wood is finished: classes, no products.
enum class Finish { hardwax, tinted, drying_oil, wiping, brushed, sprayed, flood, oil_hardcoat, soap, shellac };
/// What is done to the wood before.
enum class BeforeFinish { nothing, bleach, stain, fume };
/// Who sands and wipes.
enum class SkinHands { alone, two_sanders, two_people };
/// In what the last coat ends.
enum class Sheen { matt, satin, gloss };

/// What goes on one face: as on the rest, or a finish of its own (in the order of Finish).
enum class FaceFinish { rest, hardwax, tinted, drying_oil, wiping, brushed, sprayed, flood, oil_hardcoat, soap, shellac };

/// A face that is treated otherwise than the rest.
struct FaceChoice {
    std::string key;        ///< of the face (faces.h); "base": all pieces of it
    bool left_out = false;  ///< nothing goes on it
    bool sealed = false;    ///< a pocket or notch: one coat against damp, not sanded
    FaceFinish finish = FaceFinish::rest;
    bool operator==(const FaceChoice&) const = default;
};

struct SkinChoices {
    Finish finish = Finish::hardwax;
    BeforeFinish before = BeforeFinish::nothing;
    SkinHands hands = SkinHands::alone;
    Sheen sheen = Sheen::matt;
    std::vector<FaceChoice> faces;  ///< those that are otherwise
    std::vector<double>
        seams_mm;          ///< where zones of the large faces end, along the top from its middle; none: as many alike as the window asks
    bool figured = false;  ///< its figure shows every scratch: one grit finer
    std::optional<double> first_grit, stop_grit, resin_grit;  ///< the maker's; empty: as the cut, the finish and the resin ask
    std::vector<double> grits;     ///< the maker's own ladder; empty: the fewest that take out the scratches before
    std::optional<int> coats;      ///< empty: as its class
    double rags_pct = 10;          ///< of each coat stays in rags, pads, pot
    double thirst = 1;             ///< drinks so many times what the class says
    bool raise_grain = true;       ///< wetted and dried before the last grit
    bool one_face = false;         ///< only the upper face is finished
    std::optional<double> wait_h;  ///< the maker means to put the next coat on after so long; empty: as its label
    bool sample_signed = false;    ///< a board from the same wood, seen and signed by the client
    std::string sample_on;         ///< ISO date of that
    std::string sample_picture;    ///< key of its picture
    bool operator==(const SkinChoices&) const = default;
};

inline constexpr auto finishes =
    school("skin.finish", "finish", "Finish", &SkinChoices::finish, Way{Finish::hardwax, "hardwax", "Hardwax oil, two parts"},
           Way{Finish::tinted, "tinted", "Hardwax oil, tinted"}, Way{Finish::drying_oil, "drying_oil", "Drying oil"},
           Way{Finish::wiping, "wiping", "Wiping varnish"}, Way{Finish::brushed, "brushed", "Film, brushed"},
           Way{Finish::sprayed, "sprayed", "Film, sprayed"}, Way{Finish::flood, "flood", "Flood coat of resin"},
           Way{Finish::oil_hardcoat, "oil_hardcoat", "Oil with a hard coat on top"}, Way{Finish::soap, "soap", "Soap"},
           Way{Finish::shellac, "shellac", "Shellac"});
inline constexpr auto befores =
    school("skin.before", "before", "Before it", &SkinChoices::before, Way{BeforeFinish::nothing, "nothing", "Nothing: the wood as it is"},
           Way{BeforeFinish::bleach, "bleach", "Bleached"}, Way{BeforeFinish::stain, "stain", "Stained"},
           Way{BeforeFinish::fume, "fume", "Fumed"});
inline constexpr auto skin_hands = school(
    "skin.hands", "hands", "Hands", &SkinChoices::hands, Way{SkinHands::alone, "alone", "Alone, one sander"},
    Way{SkinHands::two_sanders, "two_sanders", "Alone, a sander in each hand"}, Way{SkinHands::two_people, "two_people", "Two people"});
inline constexpr auto sheens = school("skin.sheen", "sheen", "Sheen", &SkinChoices::sheen, Way{Sheen::matt, "matt", "Matt"},
                                      Way{Sheen::satin, "satin", "Satin"}, Way{Sheen::gloss, "gloss", "Gloss"});
inline constexpr auto raisings = school("skin.raise", "raise_grain", "Grain", &SkinChoices::raise_grain,
                                        Way{true, "raised", "Wetted before the last grit"}, Way{false, "not", "Not wetted"});
inline constexpr auto sides_finished = school("skin.sides", "one_face", "Faces", &SkinChoices::one_face, Way{false, "both", "Both alike"},
                                              Way{true, "one", "The upper face alone"});

inline constexpr auto face_finishes = [] {
    School<FaceChoice, FaceFinish, finishes.values.size() + 1> s{"skin.face_finish", "finish", "Its finish", &FaceChoice::finish, {}, {}};
    s.values[0] = FaceFinish::rest, s.options[0] = {"rest", "As the rest"};
    for (std::size_t i = 0; i < finishes.values.size(); ++i)
        s.values[i + 1] = static_cast<FaceFinish>(i + 1), s.options[i + 1] = finishes.options[i];
    return s;
}();

/// What was chosen for a face, the first where it was chosen twice; nothing where it is as the rest.
const FaceChoice* choice_of_face(const SkinChoices& choices, const std::string& key);
/// What goes on a face.
Finish finish_of_face(const SkinChoices& choices, const std::string& key);
/// The first face that is told of twice; nothing where each is told of once.
const FaceChoice* told_twice(const SkinChoices& choices);

void fields(FieldVisitor& v, FaceChoice& f);
void fields(FieldVisitor& v, SkinChoices& c);

}  // namespace yb
