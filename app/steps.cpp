// One row a step.
#include "app/steps.h"

#include "app/fill/fill_view.h"
#include "app/flat/flat_view.h"
#include "app/join/join_view.h"
#include "app/lay/lay_view.h"
#include "app/pour/pour_view.h"
#include "app/rack/rack_view.h"
#include "app/sheets/sheets_view.h"
#include "app/under/under_view.h"
#include "core/join/choices.h"
#include "core/pour/choices.h"
#include "core/under/choices.h"

namespace yb {

namespace {

using Made = std::unique_ptr<StepView>;

const StepViewRow table[] = {
    {step_key::rack, Qt::Key_1, [](const StepParts& p) -> Made { return std::make_unique<RackView>(p.bench, p.tape); }},
    {step_key::lay, Qt::Key_2, [](const StepParts& p) -> Made { return std::make_unique<LayView>(p.bench, p.work, p.pictures); }},
    {step_key::flat, Qt::Key_3, [](const StepParts&) -> Made { return std::make_unique<FlatView>(); }},
    {step_key::fill, Qt::Key_4, [](const StepParts&) -> Made { return std::make_unique<FillView>(); }},
    {step_key::pour, Qt::Key_5, [](const StepParts& p) -> Made { return std::make_unique<PourView>(p.bench); }},
    {step_key::join, Qt::Key_6, [](const StepParts&) -> Made { return std::make_unique<JoinView>(); }},
    {step_key::under, Qt::Key_7, [](const StepParts&) -> Made { return std::make_unique<UnderView>(); }},
    {step_key::sheets, Qt::Key_P, [](const StepParts& p) -> Made { return std::make_unique<SheetsStep>(p.print, p.pdf); }},
};

}  // namespace

std::span<const StepViewRow> step_views() { return table; }

}  // namespace yb
