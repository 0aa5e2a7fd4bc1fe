#include "core/steps/pace/pace.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace yb {

const std::vector<PaceKind>& pace_kinds() {
    static const std::vector<PaceKind> all{
        {"lay", "Laying out and sawing", {"lay", "rough", "bark", "rip", "rods", "cut"}},
        {"flat", "Making flat", {"flat1", "flat2", "last"}},
        {"form", "Making the form", {"form"}},
        {"pour", "Pouring, and after it", {"pour", "shave", "unmould", "scrape", "topup", "bleed", "touchup"}},
        {"fill", "Filling voids", {"soak", "fill", "level"}},
        {"glue", "Gluing up", {"glue", "inner"}},
        {"ties", "Bow ties", {"ties", "tie_jig"}},
        {"edge", "Shaping the edge", {"edge"}},
        {"under", "Holes and pockets", {"pockets", "dryfit", "under_jig"}},
        {"base", "Making the base", {"base_make", "base_parts"}},
        {"sand", "Sanding", {"sand", "last_grit"}},
        {"coats", "Putting finish on", {"before", "coat_"}},
    };
    return all;
}

const PaceKind* pace_kind_of(const std::string& operation) {
    for (const PaceKind& k : pace_kinds())
        for (const std::string_view o : k.operations)
            if (operation == o || (o.back() == '_' && operation.rfind(o, 0) == 0)) return &k;
    return nullptr;
}

PaceFigure learn(const std::string& kind, std::vector<Took>& took) {
    PaceFigure p;
    p.key = kind;
    std::vector<std::pair<double, Took*>> xs;
    std::set<std::string> tables;
    for (Took& t : took) {
        t.outlier = false;
        if (t.kind != kind || !(t.took_h > 0) || !(t.starting_h > 0) || !std::isfinite(t.took_h / t.starting_h)) continue;
        xs.emplace_back(std::log(t.took_h / t.starting_h), &t);
        tables.insert(t.job);
    }
    p.tables = static_cast<int>(tables.size());
    if (xs.empty()) return p;
    std::vector<double> sorted;
    for (const auto& [x, t] : xs) sorted.push_back(x);
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
    double mu = sorted[sorted.size() / 2], s2 = pace_noise * pace_noise;
    const double n = static_cast<double>(xs.size()), held = 3;  // the noise begins as if three had been seen with it
    double weights = n;
    for (int round = 0; round < 40; ++round) {
        double sum = 0, square = 0;
        weights = 0;
        for (const auto& [x, t] : xs) {
            const double w = (pace_freedom + 1) / (pace_freedom + (x - mu) * (x - mu) / s2);
            weights += w, sum += w * x;
        }
        mu = sum / s2 / (weights / s2 + 1 / (pace_prior * pace_prior));
        for (const auto& [x, t] : xs) {
            const double w = (pace_freedom + 1) / (pace_freedom + (x - mu) * (x - mu) / s2);
            square += w * (x - mu) * (x - mu);
        }
        s2 = (square + held * pace_noise * pace_noise) / (n + held);
    }
    constexpr double nine_tenths = 1.9;  // 1.645, and a little for ticks that were forgotten and drag it along
    const double sigma = std::sqrt(1 / (weights / s2 + 1 / (pace_prior * pace_prior)));
    p.times = std::clamp(std::exp(mu), 0.05, 20.0);
    p.spread = p.times * nine_tenths * sigma * (1 + 1 / n);
    for (const auto& [x, t] : xs) t->outlier = std::abs(x - mu) > 3 * std::sqrt(s2);
    return p;
}

bool is_used(const PaceFigure& f) {
    const bool sure = f.tables >= least_tables || (f.tables > 0 && std::abs(f.times - 1) > f.spread);
    return sure && !f.put_back && f.times > 0;
}

void with_pace(std::vector<Operation>& operations, const std::vector<PaceFigure>& paces) {
    for (const PaceFigure& f : paces) {
        if (!is_used(f)) continue;
        for (Operation& o : operations)
            if (const PaceKind* k = pace_kind_of(o.key); k && f.key == k->key) o.hands_on_h *= f.times, o.paced = f.times;
    }
}

std::vector<Took> took_of(const std::vector<DoneJob>& jobs, const WorkClock& clock) {
    struct Tick {
        double at;
        std::size_t job;
        const Operation* op;
        std::optional<double> typed;
    };
    std::vector<Tick> ticks;
    for (std::size_t j = 0; j < jobs.size(); ++j)
        for (const Operation& o : jobs[j].operations) {
            if (!o.done_h) continue;
            std::optional<double> typed;
            for (const OpDone& d : jobs[j].done)
                if (d.key == o.key) typed = d.took_h;
            ticks.push_back({*o.done_h, j, &o, typed});
        }
    std::stable_sort(ticks.begin(), ticks.end(), [](const Tick& a, const Tick& b) { return a.at < b.at; });
    std::vector<Took> out;
    for (std::size_t i = 0; i < ticks.size(); ++i) {
        const Tick& t = ticks[i];
        const PaceKind* kind = pace_kind_of(t.op->key);
        if (!kind) continue;
        double took = t.typed.value_or(0);
        if (!t.typed) {
            // Nobody does two things at once: it began after the tick before it, and after what it waited for.
            std::optional<double> from;
            if (i > 0) from = ticks[i - 1].at;
            for (const Operation& o : jobs[t.job].operations)
                if (o.done_h && std::find(t.op->after.begin(), t.op->after.end(), o.key) != t.op->after.end() && *o.done_h + o.waiting_h <= t.at)
                    from = std::max(from.value_or(-most_hours), *o.done_h + o.waiting_h);
            if (!from) continue;
            took = clock.between(*from, t.at);
        }
        const double factor = t.op->paced > 0 ? t.op->paced : 1;
        out.push_back({kind->key, jobs[t.job].job, t.op->key, t.op->hands_on_h / factor, took, !t.typed, false});
    }
    return out;
}

}  // namespace yb
