#include "core/steps/rack/rack.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <stdexcept>
#include <tuple>

#include "core/ground/geometry/stations.h"

namespace yb {
namespace {

constexpr double kg_each = 25;  ///< that one person lifts with care: a starting value

std::string lower(std::string s) {
    for (char& c : s)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return s;
}

}  // namespace

double rule_tau_days(double thickness_mm, bool cross_cut) {
    // ln(45/2) ≈ 3.1 time constants.
    return rule_days_25_mm * thickness_mm / 25 / 3.1 / (cross_cut ? 4 : 1);
}

std::optional<DryingForecast> drying_of(const Slab& slab, double thickness_mm, const Climate& air, double wanted_pct,
                                        const std::string& today, double times) {
    struct Point {
        double day, pct;
    };
    std::vector<Point> readings;
    for (const MoistureReading& r : slab.moisture_log)
        if (const auto d = days_between(today, r.on)) readings.push_back({*d, r.pct});
    if (slab.moisture_pct)
        if (const auto d = days_between(today, slab.moisture_on);
            d && std::none_of(readings.begin(), readings.end(), [&](const Point& p) { return p.day == *d; }))
            readings.push_back({*d, *slab.moisture_pct});
    if (readings.empty()) return {};
    std::sort(readings.begin(), readings.end(), [](const Point& a, const Point& b) { return a.day < b.day; });
    DryingForecast f;
    f.settles_pct = settles_at(air);
    // Least squares of ln(M − Me) over the days. Readings within half a percent of the air say nothing about τ.
    double n = 0;
    double sx = 0;
    double sy = 0;
    double sxx = 0;
    double sxy = 0;
    for (const Point& p : readings) {
        if (p.pct - f.settles_pct < 0.5) continue;
        const double y = std::log(p.pct - f.settles_pct);
        n += 1, sx += p.day, sy += y, sxx += p.day * p.day, sxy += p.day * y;
    }
    const double spread = n * sxx - sx * sx;
    double slope = 0;
    if (n >= 2 && spread > 1e-9) slope = (n * sxy - sx * sy) / spread;
    f.tau_days = rule_tau_days(thickness_mm, slab.cross_cut) * times;
    if (slope < -1e-5) {
        f.tau_days = -1 / slope;
        f.fitted = true;
    }
    f.yours = !f.fitted && times != 1;
    const Point last = readings.back();
    const auto at = [&](double day, double tau) { return f.settles_pct + (last.pct - f.settles_pct) * std::exp(-(day - last.day) / tau); };
    f.moisture_pct = at(0, f.tau_days);
    const auto until = [&](double tau) -> std::optional<double> {
        const double now = at(0, tau);
        if (now <= wanted_pct || wanted_pct <= f.settles_pct) return {};
        return tau * std::log((now - f.settles_pct) / (wanted_pct - f.settles_pct));
    };
    const double doubt = f.doubt = f.fitted && n >= 3 ? 1.25 : f.fitted || f.yours ? 1.5 : 2;
    f.days = until(f.tau_days);
    f.soonest_days = until(f.tau_days / doubt);
    f.latest_days = until(f.tau_days * doubt);
    return f;
}

Figure drying_figure(const DryingForecast& f, const Slab& slab, double room_pct, double dry_pct) {
    const auto days = [](double v) { return number(std::round(v)); };
    Figure out{"rack.drying", "Days until it is dry", days(f.days.value_or(0)), {}, {}, {}};
    if (!f.days) {
        out.label = "Moisture by now";
        out.value = percent(f.moisture_pct);
    }
    if (f.days)
        out.note = say(f.fitted  ? "to {}, from the reading of {}; between {} and {}"
                       : f.yours ? "to {}, from the reading of {}; between {} and {} – as slabs of yours have dried"
                                 : "to {}, from the reading of {}; between {} and {} – a guess until there are two readings",
                       percent(dry_pct), slab.moisture_on, days(*f.soonest_days), days(*f.latest_days));
    else if (f.moisture_pct <= dry_pct)
        out.note = say("it reads {}: dry enough for a room that settles at {}, {} above it allowed", percent(f.moisture_pct),
                       percent(room_pct), percent(dry_pct - room_pct));
    else out.note = say("it settles at {} in this air and gets no drier: bring it into a warm room", percent(f.settles_pct));
    out.working = {"M(t) = Me + (M0 − Me)·e^(−t/τ)",
                   {{"M0", percent(f.moisture_pct), "last reading"},
                    {"Me", percent(f.settles_pct), "mean of the shop's air through the year"},
                    {"the room settles at", percent(room_pct), "its air through the year"},
                    {"dry enough", percent(dry_pct), "what the room settles at + what the shop allows"},
                    {"τ, days", days(f.tau_days),
                     f.fitted         ? "fitted to this slab's readings"
                     : f.yours        ? "as slabs of yours have dried"
                     : slab.cross_cut ? "prior: about a season per 25 mm of a cross-cut"
                                      : "prior: about a year per 25 mm"}},
                   "Wood Handbook eq. 4-5 for Me; docs/methods.md, Drying"};
    return out;
}

std::optional<double> RackEntry::price_per_board_foot() const {
    if (!price || board_feet <= 0) return {};
    return *price / board_feet;
}

std::optional<double> RackEntry::price_per_m2() const {
    if (!price || usable_m2 <= 0) return {};
    return *price / usable_m2;
}

bool fits_straight(const SlabShape& s, const WantedTop& top) {
    if (s.ring_a.size() < 3 || s.x1 - s.x0 < top.length_mm) return false;
    constexpr int n = 80;
    const double step = (s.x1 - s.x0) / n;
    const int window = static_cast<int>(std::ceil(top.length_mm / step));
    std::array<double, n + 1> low{};
    std::array<double, n + 1> high{};
    for (std::size_t i = 0; i <= n; ++i) {
        const double x = std::clamp(s.x0 + step * static_cast<double>(i), s.x0 + 0.5, s.x1 - 0.5);
        const auto a = cut_at_x(s.ring_a, x);
        const auto b = cut_at_x(s.ring_b, x);
        if (a.empty() || b.empty()) {
            low[i] = 1, high[i] = -1;
            continue;
        }
        low[i] = std::max(a.front().from, b.front().from);
        high[i] = std::min(a.back().to, b.back().to);
    }
    for (int i = 0; i + window <= n; ++i) {
        const auto from = static_cast<std::size_t>(i);
        const auto to = static_cast<std::size_t>(i + window) + 1;
        if (*std::min_element(high.begin() + static_cast<std::ptrdiff_t>(from), high.begin() + static_cast<std::ptrdiff_t>(to)) -
                *std::max_element(low.begin() + static_cast<std::ptrdiff_t>(from), low.begin() + static_cast<std::ptrdiff_t>(to)) >=
            top.width_mm)
            return true;
    }
    return false;
}

std::vector<RackEntry> rack_of(const RackAsk& ask, const Work& work) {
    std::vector<const Slab*> slabs;
    for (const auto& [id, s] : ask.slabs) slabs.push_back(&s);
    std::vector<RackEntry> out(slabs.size());
    in_parallel(
        slabs.size(),
        [&](std::size_t i) {
            const Slab& s = *slabs[i];
            RackEntry& e = out[i];
            e.id = s.id, e.name = s.name, e.species = s.species, e.tree = s.tree;
            e.moisture_pct = s.moisture_pct, e.price = s.price, e.retired = s.retired;
            e.age_days = days_between(s.sawn_on, ask.today);
            if (const auto it = ask.taken.find(s.id); it != ask.taken.end()) e.reserved_for = it->second;
            e.dry = s.moisture_pct && *s.moisture_pct <= ask.dry_pct;
            const SlabShape shape = shape_of(s);
            e.outline = shape.ring_a;
            if (!shape.usable) return;
            e.measured = true;
            const SlabMeans m = means_of(shape, s.cross_cut);
            e.length_mm = shape.x1 - shape.x0, e.narrowest_mm = m.narrowest_mm, e.widest_mm = m.widest_mm, e.thickness_mm = m.thickness_mm;
            e.board_feet = board_feet(shape, m);
            e.usable_m2 = usable_m2(shape, m, s.cross_cut);
            if (const auto rho = density_of(s)) {
                e.weight_kg = litres_of(shape, m) / 1000 * *rho;
                e.people = std::max(1, static_cast<int>(std::ceil(*e.weight_kg / kg_each)));
            }
            if (ask.wanted) e.fits = m.thinnest_mm >= ask.wanted->thickness_mm && fits_straight(shape, *ask.wanted);
            e.drying = drying_of(s, m.thickness_mm, ask.air, ask.dry_pct, ask.today, ask.drying_times);
        },
        work);
    return out;
}

namespace {

std::optional<double> measure_of(const RackEntry& e, RackOrder what) {
    const auto if_measured = [&](double v) { return e.measured ? std::optional<double>(v) : std::nullopt; };
    switch (what) {
        case RackOrder::length: return if_measured(e.length_mm);
        case RackOrder::width: return if_measured(e.narrowest_mm);
        case RackOrder::thickness: return if_measured(e.thickness_mm);
        case RackOrder::moisture: return e.moisture_pct;
        case RackOrder::price: return e.price;
        case RackOrder::age: return e.age_days;
        case RackOrder::weight: return e.weight_kg;
        default: return {};
    }
}

}  // namespace

void sort_rack(std::vector<RackEntry>& entries, RackOrder order) {
    std::stable_sort(entries.begin(), entries.end(), [&](const RackEntry& a, const RackEntry& b) {
        if (order == RackOrder::name) return a.name < b.name;
        if (order == RackOrder::species) return std::tie(a.species, a.name) < std::tie(b.species, b.name);
        if (order == RackOrder::tree) return std::tie(a.tree, a.name) < std::tie(b.tree, b.name);
        const auto x = measure_of(a, order);
        const auto y = measure_of(b, order);
        if (x.has_value() != y.has_value()) return x.has_value();  // what is not known comes last
        return x && *x < *y;
    });
}

std::variant<std::vector<RackTest>, ParseError> read_filter(const std::string& text, const Units& units) {
    struct Name {
        const char* word;
        RackOrder what;
        Kind kind;
    };
    static constexpr std::array names{
        Name{"length", RackOrder::length, Kind::length},       Name{"long", RackOrder::length, Kind::length},
        Name{"width", RackOrder::width, Kind::length},         Name{"wide", RackOrder::width, Kind::length},
        Name{"thickness", RackOrder::thickness, Kind::length}, Name{"thick", RackOrder::thickness, Kind::length},
        Name{"moisture", RackOrder::moisture, Kind::percent},  Name{"price", RackOrder::price, Kind::number},
        Name{"weight", RackOrder::weight, Kind::mass},         Name{"age", RackOrder::age, Kind::number}};
    std::vector<RackTest> out;
    std::size_t at = 0;
    while (at < text.size()) {
        if (text[at] == ' ') {
            ++at;
            continue;
        }
        const std::size_t end = std::min(text.find(' ', at), text.size());
        const std::string token = lower(text.substr(at, end - at));
        const std::size_t sign = token.find_first_of("<>");
        if (sign == std::string::npos) {
            out.push_back({token, RackOrder::name, true, 0});
            at = end;
            continue;
        }
        const std::string name = token.substr(0, sign);
        const auto it = std::find_if(names.begin(), names.end(), [&](const Name& n) { return name == n.word; });
        if (it == names.end())
            return ParseError{at, "‘" + name + "’ is no measure of a slab",
                              "length, width, thickness, moisture, price, weight and age are"};
        // The figure may have a unit of its own after a space: it runs to the next measure or word that is none.
        const auto value = parse(token.substr(sign + 1), it->kind, units);
        if (const auto* e = std::get_if<ParseError>(&value)) return ParseError{at + sign + 1 + e->at, e->what, e->hint};
        double limit = std::get<double>(value);
        if (it->what == RackOrder::age) limit *= 365.25;
        out.push_back({"", it->what, token[sign] == '>', limit});
        at = end;
    }
    return out;
}

bool passes(const RackEntry& e, const std::vector<RackTest>& tests) {
    for (const RackTest& t : tests) {
        if (t.word.empty()) {
            const auto v = measure_of(e, t.what);
            if (!v || (t.above ? *v <= t.limit : *v >= t.limit)) return false;
        } else if (t.word == "fits") {
            if (!e.fits) return false;
        } else if (t.word == "free") {
            if (!e.reserved_for.empty()) return false;
        } else if (t.word == "dry") {
            if (!e.dry) return false;
        } else if (lower(e.name + " " + e.species + " " + e.tree).find(t.word) == std::string::npos) {
            return false;
        }
    }
    return true;
}

namespace {

/// The outline between two cuts, from the first of them on.
Ring between_cuts(const Ring& ring, double from, double to, std::size_t n) {
    Ring out = at_stations(ring, from, to, n);
    for (Vec2& p : out) p = {std::round((p.x - from) * 100) / 100, std::round(p.y * 100) / 100};
    return out;
}

HeightGrid between(const HeightGrid& g, double from, double to) {
    HeightGrid out;
    out.y_mm = g.y_mm;
    for (std::size_t i = 0; i < g.x_mm.size(); ++i) {
        if (g.x_mm[i] < from || g.x_mm[i] > to) continue;
        out.x_mm.push_back(g.x_mm[i] - from);
        for (std::size_t j = 0; j < g.y_mm.size(); ++j) out.gap_mm.push_back(g.at(i, j));
    }
    if (out.x_mm.size() < 2) return {};
    return out;
}

}  // namespace

Slab piece_of(const Slab& slab, double from, double to) {
    const SlabShape shape = shape_of(slab);
    if (shape.ring_a.empty()) throw std::invalid_argument("the slab has no outline yet: it can't be cut");
    from = std::max(from, shape.x0);
    to = std::min(to, shape.x1);
    if (to - from < 20) throw std::invalid_argument("nothing is left between the cuts");
    Slab out = slab;
    out.cut_from = slab.id;
    out.sequence.reset();
    out.price.reset();
    out.scan.clear();
    const auto n = static_cast<std::size_t>(std::max(4.0, (to - from) / 25));
    out.outline = TracedOutline{between_cuts(shape.ring_a, from, to, n), between_cuts(shape.ring_b, from, to, n),
                                slab.outline ? slab.outline->error_mm : 0, slab.outline ? slab.outline->from : "tape"};
    out.heights_a = between(slab.heights_a, from, to);
    out.heights_b = between(slab.heights_b, from, to);
    out.tape.stations.clear();
    for (Station s : slab.tape.stations) {
        if (s.x_mm <= from || s.x_mm >= to) continue;
        s.x_mm -= from;
        s.left_mm = s.right_mm = s.other_left_mm = s.other_right_mm = std::nullopt;
        if (s.thickness_mm || s.thickness_right_mm) out.tape.stations.push_back(s);
    }
    if (shape.usable)  // the new ends are as thick as the slab is there
        for (const double x : {from, to}) {
            Station s;
            s.x_mm = x - from;
            const auto cut = cut_at_x(shape.ring_a, std::clamp(x, shape.x0 + 0.5, shape.x1 - 0.5));
            if (cut.empty()) continue;
            const auto t = [&](double y) { return std::round(shape.thickness_at({x, y}) * 10) / 10; };
            s.thickness_mm = t(cut.back().to - 10);
            s.thickness_right_mm = t(cut.front().from + 10);
            out.tape.stations.push_back(s);
        }
    std::sort(out.tape.stations.begin(), out.tape.stations.end(), [](const Station& a, const Station& b) { return a.x_mm < b.x_mm; });
    out.flaws.clear();
    const Box box = bounds(shape.ring_b);
    const Box top = bounds(shape.ring_a);
    const double y0 = std::min(box.low.y, top.low.y) - 100;
    const double y1 = std::max(box.high.y, top.high.y) + 100;
    for (const Flaw& f : slab.flaws) {
        if (f.outline.size() < 3) continue;
        Ring kept = largest(intersection(f.outline, {{from, y0}, {to, y0}, {to, y1}, {from, y1}}));
        if (kept.size() < 3) continue;
        for (Vec2& p : kept) p.x -= from;
        Flaw g = f;
        g.outline = kept;
        out.flaws.push_back(g);
    }
    for (auto* picture : {&out.picture_a, &out.picture_b})
        if (*picture) (*picture)->corner.x -= from;
    return out;
}

std::vector<Slab> offcuts_of(const Slab& slab, const Ring& rough, double least_mm) {
    std::vector<Slab> out;
    if (rough.size() < 3) return out;
    const SlabShape shape = shape_of(slab);
    const Box b = bounds(rough);
    // A cut askew leaves a piece that is square up to its nearer corner.
    for (const auto& [from, to, side] : {std::tuple(shape.x0, b.low.x, "left"), std::tuple(b.high.x, shape.x1, "right")})
        if (to - from >= least_mm) {
            out.push_back(piece_of(slab, from, to));
            out.back().name = slab.name + ", " + side + " offcut";
        }
    return out;
}

std::optional<Caution> too_damp(const Slab& s) {
    constexpr double damp_pct = 22;  // above it ends crack first: a starting value
    if (!s.moisture_pct || *s.moisture_pct <= damp_pct) return {};
    return Caution{
        "look.damp", Severity::note, step_key::rack,
        say("It reads {}: seal its ends with wax or paint today – they dry ten times as fast as the faces, and there it cracks –, "
            "sticker it, and weigh the top down.",
            percent(*s.moisture_pct))};
}

}  // namespace yb
