// The shared vocabulary of answers: a figure with its working, a caution with its place, a choice with what
// it gains and loses. Steps make them, the slip shows them, the sheet prints them, the shell emits them.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/geometry/geometry.h"
#include "core/measure/measure.h"

namespace yb {

/// The steps of the order of work that this program knows, in that order.
enum class Step { rack, lay, flat, fill, under, sheets };

const char* name_of(Step step);

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

/// Something to mind: one sentence that says what happens and what to do.
struct Caution {
    std::string key;  ///< stable name, e.g. `flat.stickout`
    Severity severity = Severity::note;
    Step step = Step::rack;
    Phrase says;
    std::optional<Vec2> at{};  ///< the place it points at, in the frame of the slab as laid
};

/// One school of thought that can be chosen, with what it gains and loses in numbers.
struct Option {
    std::string key;
    std::string label;
    Phrase consequence;
    bool chosen = false;
};

struct Choice {
    std::string key;  ///< e.g. `flat.aim`; set_choice() in core/job takes it with an option's key
    std::string label;
    std::vector<Option> options;
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

/// The figure of that key; throws std::out_of_range when there is none.
const Figure& figure(const std::vector<Figure>& figures, const std::string& key);

/// The caution of that key, or nullptr.
const Caution* find_caution(const std::vector<Caution>& cautions, const std::string& key);

}  // namespace yb
