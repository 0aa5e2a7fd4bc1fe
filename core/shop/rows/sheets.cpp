// Sheets as a row of the table: beside the order of work, it plans nothing.
#include <iterator>

#include "core/shop/job/headlines.h"
#include "core/shop/job/planning.h"
#include "core/shop/job/steps.h"
#include "core/shop/record/agreement.h"

namespace yb {

namespace of_sheets {
void dated(Planning& w) {
    auto minded = agreement_cautions(w.p, w.job, w.shop);
    std::move(minded.begin(), minded.end(), std::back_inserter(w.p.sheets.cautions));
}
}  // namespace of_sheets

StepRow sheets_row() {
    return {
        .step = step_key::sheets,
        .name = "Sheets",
        .coming = "the bench sheet",
        .on = StepRow::On::beside,
        .says = [](const Plan& p) -> const StepPlan* { return &p.sheets; },
        .own = [](Plan& p) { return &p.sheets; },
        .headlines = whole_headlines,
        .dated = of_sheets::dated,
    };
}

}  // namespace yb
