// The table of step views: one row each, beside the rows of core/shop/rows.
#pragma once

#include <functional>
#include <memory>
#include <span>

#include "app/kit/bench/step_view.h"

namespace yb {

class Bench;
class Flow;
class LongWork;
class Pictures;
class TapePanel;
struct SheetData;

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
    void (*sheet)(Flow&, const SheetData&) = nullptr;  ///< what of it goes onto the bench sheet
};

/// In the order of core/shop/job/steps.h.
std::span<const StepViewRow> step_views();

/// A row more before those beside the work, for as long as this lives: the window's half of StepMore (core/shop/job/steps.h).
class StepViewMore {
  public:
    explicit StepViewMore(const StepViewRow& row);
    ~StepViewMore();
    StepViewMore(const StepViewMore&) = delete;
    StepViewMore& operator=(const StepViewMore&) = delete;

  private:
    Step step_;
};

}  // namespace yb
