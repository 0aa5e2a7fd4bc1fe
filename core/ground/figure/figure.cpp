#include "core/ground/figure/figure.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace yb {

std::optional<double> Caution::ask(std::string_view name) const {
    for (const auto& [named, value] : asks)
        if (named == name) return value;
    return {};
}

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

bool concerns(const Caution& c, const Thing& t) {
    if (!t.of.empty() && c.of == t.of) return true;
    if (!c.at || t.area.empty()) return false;
    if (contains(t.area, *c.at)) return true;
    constexpr double near_mm = 20;
    for (std::size_t i = 0; i < t.area.size(); ++i) {
        const Vec2 a = t.area[i];
        const Vec2 side = t.area[(i + 1) % t.area.size()] - a;
        const double k = dot(side, side) > 0 ? std::clamp(dot(*c.at - a, side) / dot(side, side), 0.0, 1.0) : 0;
        if (length(*c.at - (a + side * k)) < near_mm) return true;
    }
    return false;
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
