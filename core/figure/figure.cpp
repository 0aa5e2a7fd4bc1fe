#include "core/figure/figure.h"

#include <algorithm>
#include <stdexcept>

namespace yb {

const char* name_of(Severity severity) {
    switch (severity) {
        case Severity::note: return "Note";
        case Severity::watch: return "Watch";
        case Severity::stop: return "Stop";
    }
    return "";
}

std::string render(const Caution& c, const Units& units) {
    const std::string sentence = render(c.says, units);
    return c.of.empty() ? sentence : c.of + ": " + sentence;
}

void sort_by_severity(std::vector<Caution>& cautions) {
    std::stable_sort(cautions.begin(), cautions.end(), [](const Caution& a, const Caution& b) { return a.severity > b.severity; });
}

const Figure& figure(const std::vector<Figure>& figures, const std::string& key) {
    const auto it = std::find_if(figures.begin(), figures.end(), [&](const Figure& f) { return f.key == key; });
    if (it == figures.end()) throw std::out_of_range("no figure named " + key);
    return *it;
}

const Caution* find_caution(const std::vector<Caution>& cautions, const std::string& key) {
    const auto it = std::find_if(cautions.begin(), cautions.end(), [&](const Caution& c) { return c.key == key; });
    return it == cautions.end() ? nullptr : &*it;
}

}  // namespace yb
