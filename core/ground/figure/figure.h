// The shared vocabulary of answers: a figure with its working, a caution with its place, a choice with what
// it gains and loses. Steps make them, the slip shows them, the sheet prints them, the shell emits them.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/ground/geometry/geometry.h"
#include "core/ground/measure/measure.h"

namespace yb {

/// A step of the order of work, by its key. The steps there are, their order and names stand in core/shop/job/steps.cpp; each
/// room declares its own.
struct Step {
    std::string_view key{};
    bool operator==(const Step&) const = default;
};

namespace step_key {
inline constexpr Step rack{"rack"};  ///< what slabs say belongs to no room of its own
}

/// One number that went into a figure, and where it came from ("tape at 1.20 m", "starting value").
struct Given {
    std::string name;
    Quantity value;
    std::string from;
};

/// How a figure was reached: formula in words or symbols, the numbers put in, and the formula's source.
struct Working {
    std::string formula;
    std::vector<Given> given;
    std::string source;
};

/// One answer of a step.
struct Figure {
    std::string key;    ///< stable name for tests, JSON and sheets, e.g. `flat.thickness`
    std::string label;  ///< what the maker reads above the number
    Quantity value;
    std::optional<Quantity> second{};  ///< shown after a stroke: "948 / 951"
    Phrase note{};                     ///< a few quiet words below, may be empty
    Working working{};
};

enum class Severity { note, watch, stop };

const char* name_of(Severity severity);

/// What the program can do itself about a caution: an edit of core/shop/edit, by its key, with the numbers it takes.
struct Mend {
    std::string edit;             ///< e.g. `evened_ends`; mended() in core/shop/edit does it
    Phrase label;                 ///< what it does and what it costs: "Rip the wedge · −6 mm"
    std::vector<double> takes{};  ///< as the edit says
    bool operator==(const Mend&) const = default;
};

/// Something to mind: a headline, one sentence that says what happens and what to do and a place; what the
/// program can do about it itself is looked for when it is asked (core/shop/edit/mends.h).
struct Caution {
    std::string key;  ///< stable name, e.g. `flat.stickout`
    Severity severity = Severity::note;
    Step step = step_key::rack;
    Phrase says;
    std::optional<Vec2> at{};  ///< the place it points at, in the frame of the slab as laid
    std::string of{};          ///< the leaf it is said of, by name; empty: of all there is
    std::string field{};       ///< path of the field to type anew, where one is wrong: `under.bolt_mm`
    /// What a mend needs to know beside the sentence, by name: `{"further_in", 34}`.
    std::vector<std::pair<const char*, double>> asks{};
    /// One of them; nothing where it is not told.
    std::optional<double> ask(std::string_view name) const;
};

/// What a caution says in a few words: at most seven.
struct Headline {
    std::string_view key;  ///< the caution's
    const char* says;
};
/// The caution's sentence as the maker reads it, the leaf it is said of first.
std::string render(const Caution& caution, const Units& units);

/// One school of thought that can be chosen, with what it gains and loses in numbers.
struct Option {
    std::string key;
    std::string label;
    Phrase consequence;
    bool chosen = false;
    bool advised = false;
};

struct Choice {
    std::string key;  ///< e.g. `flat.aim`; set_choice() in core/shop/edit takes it with an option's key
    std::string label;
    std::vector<Option> options;
    std::string of{};  ///< the leaf it is about, by name; empty: the whole
};

/// What every step's plan says to the maker. Not ready: the steps before it lack something.
struct StepPlan {
    bool ready = false;
    std::vector<Figure> figures;
    std::vector<Caution> cautions;  ///< worst first
    std::vector<Choice> choices;
};

/// Worst first, otherwise as found.
void sort_by_severity(std::vector<Caution>& cautions);

/// A thing on the bench that can be picked: a leaf, a joint, a void, a shim, a plate, a hole. What the slip says while it is.
struct Thing {
    std::string key;   ///< "void 2": its kind and its number, one of its kind in its step
    std::string kind;  ///< "void": what actions ask for
    std::size_t index = 0;
    Phrase title;                        ///< what the slip calls it: "Void 2, crack"
    std::vector<Figure> figures{};       ///< hero first; none: what the step says holds for it
    std::vector<std::string> choices{};  ///< keys of the step's choices that are about it alone
    Ring area{};                         ///< where it lies, in the frame of what lies on the bench
    std::string of{};                    ///< the leaf it is, by name, as cautions name theirs
};

/// True when a caution is about a thing: it names it, or lies on it or within 20 mm of it.
bool concerns(const Caution& caution, const Thing& thing);

/// The figure of that key; throws std::out_of_range when there is none.
const Figure& figure(const std::vector<Figure>& figures, const std::string& key);

/// The caution of that key, or nullptr.
const Caution* find_caution(const std::vector<Caution>& cautions, const std::string& key);

}  // namespace yb
