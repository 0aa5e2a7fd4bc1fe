// What every step of every plan keeps to: figures are numbers, cautions are sentences with a headline, worst first.
#pragma once

#include <cmath>

#include <catch2/catch.hpp>

#include "core/files/io/fields_json.h"
#include "core/ground/figure/figure.h"
#include "core/shop/job/headlines.h"

namespace yb {

/// No number in it is nan or infinite.
inline bool finite(const Json& j) {
    if (j.is_number_float()) return std::isfinite(j.get<double>());
    return !j.is_structured() || std::all_of(j.begin(), j.end(), [](const Json& part) { return finite(part); });
}

/// The figure of that key; nullptr where none is told.
inline const Figure* find_figure(const std::vector<Figure>& figures, const std::string& key) {
    const auto it = std::find_if(figures.begin(), figures.end(), [&](const Figure& f) { return f.key == key; });
    return it == figures.end() ? nullptr : &*it;
}

inline void sane(const StepPlan& step, const char* name) {
    INFO(name);
    for (const Figure& f : step.figures) {
        INFO(f.key);
        CHECK(std::isfinite(f.value.value));
        if (f.second) CHECK(std::isfinite(f.second->value));
        for (const Given& g : f.working.given) {
            INFO(g.name);
            CHECK(std::isfinite(g.value.value));
        }
        CHECK_FALSE(f.working.formula.empty());
        CHECK_NOTHROW(render(f.note, {}));
    }
    for (std::size_t i = 0; i < step.cautions.size(); ++i) {
        const Caution& c = step.cautions[i];
        INFO(c.key);
        for (const PhraseArg& a : c.says.values)
            if (const Quantity* q = a.quantity()) CHECK(std::isfinite(q->value));
        CHECK_FALSE(render(c, {}).empty());
        CHECK(headline_of(c.key) != c.key);
        if (c.at) CHECK((std::isfinite(c.at->x) && std::isfinite(c.at->y)));
        if (i > 0) CHECK(step.cautions[i - 1].severity >= c.severity);
    }
    for (const Choice& c : step.choices) {
        INFO(c.key);
        CHECK(c.options.size() >= 2);
        for (const Option& o : c.options) CHECK_NOTHROW(render(o.consequence, {}));
    }
}

}  // namespace yb
