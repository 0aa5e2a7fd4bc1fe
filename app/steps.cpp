// One row a step.
#include "app/kit/step_views.h"

#include "app/steps/fill/fill_view.h"
#include "app/steps/flat/flat_view.h"
#include "app/steps/join/join_view.h"
#include "app/steps/lay/lay_view.h"
#include "app/steps/pour/pour_view.h"
#include "app/steps/rack/rack_view.h"
#include "app/steps/sheets/sheets.h"
#include "app/steps/sheets/sheets_view.h"
#include "app/steps/skin/skin_view.h"
#include "app/steps/under/under_view.h"
#include "core/steps/join/choices.h"
#include "core/steps/pour/choices.h"
#include "core/steps/skin/choices.h"
#include "core/steps/under/choices.h"

namespace yb {

namespace {

using Made = std::unique_ptr<StepView>;

std::vector<StepViewRow>& table() {
    static std::vector<StepViewRow> all{
        {step_key::rack, Qt::Key_1, [](const StepParts& p) -> Made { return std::make_unique<RackView>(p.bench, p.tape); }},
        {step_key::lay, Qt::Key_2, [](const StepParts& p) -> Made { return std::make_unique<LayView>(p.bench, p.work, p.pictures); }},
        {step_key::flat, Qt::Key_3, [](const StepParts&) -> Made { return std::make_unique<FlatView>(); }, write_bench_sheet},
        {step_key::fill, Qt::Key_4, [](const StepParts&) -> Made { return std::make_unique<FillView>(); }},
        {step_key::pour, Qt::Key_5, [](const StepParts& p) -> Made { return std::make_unique<PourView>(p.bench); }, write_pour_sheet},
        {step_key::join, Qt::Key_6, [](const StepParts&) -> Made { return std::make_unique<JoinView>(); }, write_join_sheet},
        {step_key::under, Qt::Key_7, [](const StepParts&) -> Made { return std::make_unique<UnderView>(); }, write_under_sheet},
        {step_key::skin, Qt::Key_8, [](const StepParts& p) -> Made { return std::make_unique<SkinView>(p.pictures); }, write_skin_sheet},
        {step_key::sheets, Qt::Key_P, [](const StepParts& p) -> Made { return std::make_unique<SheetsStep>(p.print, p.pdf); }},
    };
    return all;
}

}  // namespace

std::span<const StepViewRow> step_views() { return table(); }

StepViewMore::StepViewMore(const StepViewRow& row) : step_(row.step) { table().insert(table().end() - 1, row); }

StepViewMore::~StepViewMore() {
    std::erase_if(table(), [&](const StepViewRow& r) { return r.step == step_; });
}

}  // namespace yb
