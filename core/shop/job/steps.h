// The table of steps: one row each, in the order of work. Menus, keys, stick, slip, sheets, files and the tests that press
// everything walk it. Adding a step: docs/architecture.md.
#pragma once

#include <span>
#include <string_view>
#include <vector>

#include "core/ground/figure/figure.h"

namespace yb {

class FieldVisitor;
struct CardRow;
struct Held;
struct Job;
struct MendAsk;
struct MendEdit;
struct Need;
struct Operation;
struct OperationKind;
struct Plan;
struct Planning;
struct Shop;
struct TemplateRow;
struct ThingsAsk;

namespace step_key {
inline constexpr Step sheets{"sheets"};
}

/// All that the house asks of a step. Where a column has nothing it is left out; nobody else keeps a list of steps.
struct StepRow {
    Step step;
    const char* name = "";
    const char* coming = "";  ///< what is done next when one comes to it, as the button that leads here says: "flatten it"
    /// What lies on the bench in it: a single leaf, the whole top, or nothing (beside the order of work).
    enum class On { leaf, top, beside } on = On::top;
    const StepPlan* (*says)(const Plan&) = nullptr;
    /// The same to be added to: a copy of the plan's own, for what steps say is shared between plans.
    StepPlan* (*own)(Plan&) = nullptr;
    std::span<const Headline> (*headlines)() = nullptr;  ///< of its cautions
    void (*empty)(Plan&) = nullptr;                      ///< puts plans that say nothing in, so that nobody meets a null pointer
    void (*plan)(Planning&) = nullptr;                   ///< none for steps that plan nothing
    void (*told)(Planning&) = nullptr;                   ///< what it says once later steps are planned
    void (*operations)(const Planning&, std::vector<Operation>& out) = nullptr;  ///< given to Days
    std::span<const OperationKind> (*kinds)() = nullptr;                         ///< of them: what each comes after, whose pace it tells
    void (*dated)(Planning&) = nullptr;                                          ///< what it says once the days are known
    void (*needs)(const ThingsAsk&, std::vector<Need>& out) = nullptr;           ///< what it takes beside hands, given to Money and Days
    void (*things)(const ThingsAsk&, std::vector<Thing>& out) = nullptr;         ///< what of it can be picked on the bench
    std::span<const CardRow> (*cards)() = nullptr;                               ///< to run at the bench
    void (*fields)(FieldVisitor&, Job&) = nullptr;                               ///< what the maker decides in it
    std::string_view shop = "";                            ///< fields of the shop that are its own, told in it when they are out of range
    void (*hold)(Held&) = nullptr;                         ///< lists longer than any top has, outlines of too many points
    std::span<const MendEdit> (*edits)() = nullptr;        ///< what its mends change
    void (*mends)(const MendAsk&) = nullptr;               ///< … offered for its cautions
    std::span<const TemplateRow> (*drawings)() = nullptr;  ///< drawn 1:1, in the order of the menu
    const char* done = "";  ///< what the work is ready for once it is done; the last step that says it is told on the stick
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
/// What the work is ready for when all of it is done.
const char* ready_for();
/// The step a field of the shop belongs to, by its path; the first where no row names it.
Step step_of_shop_field(std::string_view path);

/// A row more, the last in the order of work, for as long as this lives: how a test sees a step of its own walk through the house.
/// Not while another thread plans.
class StepMore {
  public:
    explicit StepMore(const StepRow& row);
    ~StepMore();
    StepMore(const StepMore&) = delete;
    StepMore& operator=(const StepMore&) = delete;

  private:
    Step step_;
};

}  // namespace yb
