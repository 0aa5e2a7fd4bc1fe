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

Working working_of(const Task& task, double paced) {
    Working w{"Σ amount × minutes each", {}, "starting values of the shop: Shop, Labour"};
    for (const LabourTerm& t : task.terms())
        w.given.push_back({t.what, hours(t.minutes() / 60),
                           render(t.amount == 1 ? say("{} min", number(t.each_min))
                                                : say("{} × {} min", number(std::round(t.amount * 100) / 100), number(t.each_min)),
                                  Units::metric())});
    if (paced != 1) w.given.push_back({"the maker's pace", number(std::round(paced * 100) / 100), "times the starting values"});
    return w;
}

}  // namespace yb
