// Sheets as a row of the table: beside the order of work, it plans nothing.
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"

namespace yb {

StepRow sheets_row() {
    return {
        .step = step_key::sheets,
        .name = "Sheets",
        .coming = "the bench sheet",
        .on = StepRow::On::beside,
        .says = [](const Plan& p) -> const StepPlan* { return &p.sheets; },
        .own = [](Plan& p) { return &p.sheets; },
    };
}

}  // namespace yb
