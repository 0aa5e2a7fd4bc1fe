// The table of steps: one row each, in the order of work. Menus, keys, stick, slip, sheets, files and the tests that press
// everything walk it. Adding a step: docs/architecture.md.
#pragma once

#include <span>
#include <vector>

#include "core/figure/figure.h"

namespace yb {

class FieldVisitor;
struct Job;
struct Operation;
struct Plan;
struct Planning;

namespace step_key {
inline constexpr Step sheets{"sheets"};
}

struct StepRow {
    Step step;
    const char* name;
    /// What lies on the bench in it: a single leaf, the whole top, or nothing (beside the order of work).
    enum class On { leaf, top, beside } on;
    const StepPlan* (*says)(const Plan&);
    /// The same to be added to: a copy of the plan's own, for what steps say is shared between plans.
    StepPlan* (*own)(Plan&);
    void (*plan)(Planning&);                                           ///< nullptr for steps that plan nothing
    void (*told)(Planning&);                                           ///< what it says once later steps are planned; may be nullptr
    void (*operations)(const Planning&, std::vector<Operation>& out);  ///< given to Days; may be nullptr
    void (*fields)(FieldVisitor&, Job&);                               ///< what the maker decides in it; may be nullptr
};

/// Every step, in the order of work, those beside it last.
std::span<const StepRow> steps();
/// The row of a step. @throws std::out_of_range for one that nobody knows.
const StepRow& row_of(Step step);
/// The step of that key; nothing for one that nobody knows.
const StepRow* find_step(std::string_view key);
const char* name_of(Step step);
/// True when `a` comes before `b` in the order of work.
bool before(Step a, Step b);

}  // namespace yb
