#include "core/steps/labour/labour.h"

#include <cmath>

namespace yb {

Task& Task::add(const char* what, double amount, double each_min) {
    if (std::isfinite(amount) && std::isfinite(each_min) && amount > 0 && each_min > 0) terms_.push_back({what, amount, each_min});
    return *this;
}

double Task::hours() const {
    double sum = 0;
    for (const LabourTerm& t : terms_) sum += t.minutes();
    return sum / 60;
}

}  // namespace yb
