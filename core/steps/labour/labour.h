// What a task is made of: each part an amount of the plan and the minutes each of it takes.
#pragma once

#include <string>
#include <vector>

#include "core/ground/figure/figure.h"
#include "core/steps/labour/choices.h"

namespace yb {

/// "3 voids, 3 min each".
struct LabourTerm {
    const char* what;     ///< "void", "metre of tape"; for setting up: "setting up"
    double amount = 1;    ///< in units of what it is: pieces, m, m², dm²
    double each_min = 0;  ///< of one pair of hands
    double minutes() const { return amount * each_min; }
    bool operator==(const LabourTerm&) const = default;
};

class Task {
  public:
    /// Adds a part; one of nothing, or that takes no time, is left out.
    Task& add(const char* what, double amount, double each_min);
    Task& set_up(double minutes) { return add("setting up", 1, minutes); }
    double hours() const;
    const std::vector<LabourTerm>& terms() const { return terms_; }
    bool operator==(const Task&) const = default;

  private:
    std::vector<LabourTerm> terms_;
};

}  // namespace yb
