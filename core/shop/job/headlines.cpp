// Headlines of cautions by their keys, and those of what is minded of the whole.
#include "core/shop/job/headlines.h"

#include "core/shop/job/steps.h"

namespace yb {

std::span<const Headline> whole_headlines() {
    static constexpr Headline all[] = {
        {"days.air", "Moved into other air"},
        {"days.circle", "An operation waits for itself"},
        {"days.damp", "Wanted before it is dry"},
        {"days.late", "Later than it is wanted"},
        {"days.no_helper", "A helper who is never there"},
        {"days.no_hours", "Some of it is never done"},
        {"days.odd_date", "A day that is none"},
        {"plan.endless", "Hours without end"},
        {"plan.long_day", "Longer than any working day"},
        {"plan.failed", "This step can't be planned"},
        {"plan.many", "More than a top has"},
        {"plan.range", "A number no shop could meet"},
        {"record.broken", "Not what was agreed"},
        {"record.not_agreed", "Nothing agreed in writing"},
    };
    return all;
}

const char* headline_of(const std::string& key) {
    for (const StepRow& row : steps())
        if (row.headlines)
            for (const Headline& h : row.headlines())
                if (h.key == key) return h.says;
    return key.c_str();
}

std::vector<std::string> headline_keys() {
    std::vector<std::string> out;
    for (const StepRow& row : steps())
        if (row.headlines)
            for (const Headline& h : row.headlines()) out.emplace_back(h.key);
    return out;
}

}  // namespace yb
