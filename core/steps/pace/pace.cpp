#include "core/steps/pace/pace.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace yb {

const std::vector<PaceKind>& pace_kinds() {
    static const std::vector<PaceKind> all{
        {"lay", "Laying out and sawing"},
        {"flat", "Making flat"},
        {"form", "Making the form"},
        {"pour", "Pouring, and after it"},
        {"fill", "Filling voids"},
        {"glue", "Gluing up"},
        {"ties", "Bow ties"},
        {"edge", "Shaping the edge"},
        {"under", "Holes and pockets"},
        {"base", "Making the base"},
        {"sand", "Sanding"},
        {"coats", "Putting finish on"},
        {"end", "Putting together and setting up"},
        {"sand_felt", "Sanding, the first grit where lanes can be felt", "m²/h", true},
        {"sand_first", "Sanding, the first grit on a planed face", "m²/h", true},
        {"sand_after", "Sanding, each grit after", "m²/h", true},
        {"sand_edge", "Sanding edges, each grit", "m/h", true},
        {"lane", "Lanes of the sled, each a metre", "passes/h", true},
        {"layer", "Setting a layer", "min"},
        {"mix", "Mixing a batch", "min"},
        {"glue_spread", "Spreading glue", "m²/h", true},
        {"glue_pieces", "Setting tenons, dowels", "pieces/h", true},
        {"glue_set", "Bringing a joint together", "min"},
        {"glue_clamp", "Setting clamps", "clamps/h", true},
        {"coat_on", "Putting a coat on", "m²/h", true},
        {"coat_off", "Wiping it off", "m²/h", true},
        {"resin_lost", "Resin that is lost", "%", false, 0.06, 0.03},
        {"finish_drunk", "Finish, the first coat", "mL/m²", false, 0.3, 0.1},
        {"drying", "Drying, from green", "days per 25 mm", false, 0.5, 0.2},
    };
    return all;
}

const PaceKind* find_pace_kind(const std::string& key) {
    for (const PaceKind& k : pace_kinds())
        if (key == k.key) return &k;
    return nullptr;
}

PaceFigure learn(const std::string& kind, std::vector<Took>& took) {
    PaceFigure p;
    p.key = kind;
    const PaceKind* of = find_pace_kind(kind);
    const double prior = of ? of->prior : pace_prior, noise = of ? of->noise : pace_noise;
    std::vector<std::pair<double, Took*>> xs;
    std::set<std::string> tables;
    for (Took& t : took) {
        t.outlier = false;
        if (t.kind != kind || !(t.took > 0) || !(t.starting > 0) || !std::isfinite(t.took / t.starting)) continue;
        xs.emplace_back(std::log(t.took / t.starting), &t);
        tables.insert(t.job);
    }
    p.tables = static_cast<int>(tables.size());
    if (xs.empty()) return p;
    std::vector<double> sorted;
    for (const auto& [x, t] : xs) sorted.push_back(x);
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
    double mu = sorted[sorted.size() / 2], s2 = noise * noise;
    const double n = static_cast<double>(xs.size()), held = 3;  // the noise begins as if three had been seen with it
    double weights = n;
    for (int round = 0; round < 40; ++round) {
        double sum = 0, square = 0;
        weights = 0;
        for (const auto& [x, t] : xs) {
            const double w = (pace_freedom + 1) / (pace_freedom + (x - mu) * (x - mu) / s2);
            weights += w, sum += w * x;
        }
        mu = sum / s2 / (weights / s2 + 1 / (prior * prior));
        for (const auto& [x, t] : xs) {
            const double w = (pace_freedom + 1) / (pace_freedom + (x - mu) * (x - mu) / s2);
            square += w * (x - mu) * (x - mu);
        }
        s2 = (square + held * noise * noise) / (n + held);
    }
    constexpr double nine_tenths = 1.9;  // 1.645, and a little for ticks that were forgotten and drag it along
    // However often one table was ticked, the next is of another wood.
    const double of_tables = between_tables * noise, scatter = s2 / weights + of_tables * of_tables / static_cast<double>(tables.size());
    const double sigma = std::sqrt(1 / (1 / scatter + 1 / (prior * prior)));
    p.times = std::clamp(std::exp(mu), 0.05, 20.0);
    p.spread = p.times * nine_tenths * sigma * (1 + 1 / n);
    for (const auto& [x, t] : xs) t->outlier = std::abs(x - mu) > 3 * std::sqrt(s2);
    return p;
}

bool is_used(const PaceFigure& f) {
    const bool sure = f.tables >= least_tables || (f.tables > 0 && std::abs(f.times - 1) > f.spread);
    return sure && !f.put_back && f.times > 0;
}

double pace_of(const std::vector<PaceFigure>& paces, std::string_view kind) {
    for (const PaceFigure& f : paces)
        if (f.key == kind && is_used(f)) return f.times;
    return 1;
}

void with_pace(std::vector<Operation>& operations, const std::vector<PaceFigure>& paces) {
    for (const PaceFigure& f : paces) {
        if (!is_used(f)) continue;
        for (Operation& o : operations)
            if (f.key == o.pace) o.hands_on_h *= f.times, o.alone_h *= f.times, o.paced = f.times;
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
            bool by_itself = !o.implied;
            for (const OpDone& d : jobs[j].done)
                if (d.key == o.key) typed = d.took_h, by_itself = true;
            if (!by_itself) continue;  // its hours were in what was ticked
            ticks.push_back({*o.done_h, j, &o, typed});
        }
    std::stable_sort(ticks.begin(), ticks.end(), [](const Tick& a, const Tick& b) { return a.at < b.at; });
    std::vector<Took> out;
    for (std::size_t i = 0; i < ticks.size(); ++i) {
        const Tick& t = ticks[i];
        if (t.op->pace.empty()) continue;
        double took = t.typed.value_or(0);
        if (!t.typed) {
            // Nobody does two things at once: it began after the tick before it, and after what it waited for.
            std::optional<double> from;
            if (i > 0) from = ticks[i - 1].at;
            for (const Operation& o : jobs[t.job].operations)
                if (o.done_h && std::find(t.op->after.begin(), t.op->after.end(), o.key) != t.op->after.end() &&
                    *o.done_h + o.waiting_h <= t.at)
                    from = std::max(from.value_or(-most_hours), *o.done_h + o.waiting_h);
            if (!from) continue;
            took = clock.between(*from, t.at);
        }
        const double factor = t.op->paced > 0 ? t.op->paced : 1;
        // What was one operation when it was ticked: the hours of those of its kind before it that nobody ticked are in it.
        double starting = t.op->hands_on_h;
        const DoneJob& job = jobs[t.job];
        const auto ticked = [&](const Operation& o) {
            return o.done_h &&
                   (!o.implied || std::any_of(job.done.begin(), job.done.end(), [&](const OpDone& d) { return d.key == o.key; }));
        };
        for (const Operation& o : job.operations) {
            if (!o.implied || ticked(o) || o.pace != t.op->pace || o.order >= t.op->order) continue;
            const bool in_another = std::any_of(job.operations.begin(), job.operations.end(), [&](const Operation& b) {
                return ticked(b) && b.pace == o.pace && b.order > o.order && b.order < t.op->order;
            });
            if (!in_another) starting += o.hands_on_h;
        }
        out.push_back({std::string(t.op->pace), jobs[t.job].job, t.op->key, starting / factor, took, "h", !t.typed, false});
    }
    return out;
}

std::vector<Took> took_of_card(const std::string& job, const std::vector<CardStep>& steps, const CardRun& run,
                               const std::vector<PaceFigure>& paces, const std::string& mixing) {
    std::vector<Took> out;
    if (run.fast != 1) return out;
    std::map<std::string, double> at;
    const auto step_of = [&](const std::string& key) {
        const auto it = std::find_if(steps.begin(), steps.end(), [&](const CardStep& s) { return s.key == key; });
        return it == steps.end() ? nullptr : &*it;
    };
    double before = 0, planned = 0, mixed = 0;
    bool told = false;
    for (const CardTick& t : run.ticks) {
        const CardStep* s = step_of(t.step);
        // It began after the tick before it, and after what it waited for.
        double from = before;
        if (s && s->from_s > 0) {
            const auto it = at.find(s->after);
            from = std::max(from, (it == at.end() ? before : it->second) + s->from_s);
        }
        if (s && !s->pace.empty() && s->takes_s > 0 && t.after_s > from)
            out.push_back({s->pace, job, run.card + ": " + s->key, s->takes_s / pace_of(paces, s->pace) / 3600, (t.after_s - from) / 3600,
                           "h", true, false});
        if (s && s->mixed_l > 0) planned += s->mixed_l, mixed += t.mixed_l.value_or(s->mixed_l), told = told || t.mixed_l;
        if (t.left_l) mixed -= *t.left_l, told = true;
        at[t.step] = before = t.after_s;
    }
    double all = 0;
    for (const CardStep& s : steps) all += s.mixed_l;
    if (!mixing.empty() && told && planned > 0 && planned > all - 1e-9 && mixed > 0)
        out.push_back({mixing, job, run.card, planned / pace_of(paces, mixing), mixed, "l", false, false});
    return out;
}

}  // namespace yb
