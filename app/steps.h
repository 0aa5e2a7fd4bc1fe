// The table of step views: one row each, beside the row of core/job/steps.cpp.
#pragma once

#include <functional>
#include <memory>
#include <span>

#include "app/bench/step_view.h"

namespace yb {

class Bench;
class LongWork;
class Pictures;
class TapePanel;

/// What a view may be made with.
struct StepParts {
    Bench& bench;
    TapePanel& tape;
    LongWork& work;
    Pictures& pictures;
    std::function<void()> print, pdf;
};

struct StepViewRow {
    Step step;
    int key;  ///< Qt::Key_…
    std::unique_ptr<StepView> (*make)(const StepParts&);
};

/// In the order of core/job/steps.h.
std::span<const StepViewRow> step_views();

}  // namespace yb
