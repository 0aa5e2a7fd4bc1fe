// Heat and cure through a section, in one dimension or two.
//
// Nodes stand on the surfaces and on the line where materials meet; each carries the heat of the quarters of cells around it. In
// every step half of the cure (each node by itself, no heat lost: Runge and Kutta), the conduction (Douglas' alternating
// directions, Crank and Nicolson's weights), the other half of the cure (Strang 1968): of second order, stable whatever the step.
// A step is so long that no node warms by more than a share of a degree in it.
#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <stdexcept>

#include "core/ground/cure/cure.h"
#include "core/ground/cure/law.h"

namespace yb {

namespace {

struct Stuff {
    double kg_m3, j_kg_k, w_mk;
    double per_m3() const { return kg_m3 * j_kg_k; }
};
constexpr Stuff wood{600, 1600, 0.12};
constexpr double resin_j = cure_law::j_kg_k;
constexpr double resin_w = 0.20;

/// From one place to another in steps of about so much, both ends on it.
void steps_to(std::vector<double>& out, double to, double step) {
    const double from = out.back();
    const int n = std::max(2, static_cast<int>(std::ceil((to - from) / step - 1e-9)));
    for (int i = 1; i <= n; ++i) out.push_back(from + (to - from) * i / n);
}

/// … in steps that grow from `first` on.
void growing_to(std::vector<double>& out, double to, double first) {
    double step = first;
    while (out.back() + 1.5 * step < to) out.push_back(out.back() + step), step = std::min(step * 1.15, std::max(15.0, to / 400));
    out.push_back(to);
}

/// A tridiagonal system, solved in place (Thomas).
void solve(const std::vector<double>& low, std::vector<double> diag, const std::vector<double>& up, std::vector<double>& rhs) {
    const std::size_t n = rhs.size();
    for (std::size_t i = 1; i < n; ++i) {
        const double w = low[i] / diag[i - 1];
        diag[i] -= w * up[i - 1];
        rhs[i] -= w * rhs[i - 1];
    }
    rhs[n - 1] /= diag[n - 1];
    for (std::size_t i = n - 1; i-- > 0;) rhs[i] = (rhs[i] - up[i] * rhs[i + 1]) / diag[i];
}

/// The grid with its heat capacities, conductances and state. x from the middle outward, z up from the board's underside.
class Body {
  public:
    std::vector<double> x, z;  // mm
    std::vector<double> temp, alpha;
    std::vector<double> resin;  // share of a node's heat capacity that is resin
    double floor_mm = 0;        // resin's underside
    double top_mm = 0;

    std::size_t at(std::size_t i, std::size_t j) const { return i * z.size() + j; }
    std::size_t nx() const { return x.size(); }
    std::size_t nz() const { return z.size(); }

    /// @param is what fills the cell between x[i], x[i+1] and z[j], z[j+1]: 0 resin, 1 wood. One column of nodes: one dimension.
    void make(const Kinetics& k, const std::function<bool(double, double)>& wooden, double h) {
        h_ = h;
        const Stuff res{k.kg_m3, resin_j, resin_w};
        const std::size_t n = nx() * nz();
        capacity_.assign(n, 0), resin.assign(n, 0), east_.assign(n, 0), north_.assign(n, 0), open_x_.assign(n, 0), open_z_.assign(n, 0);
        const bool flat = nx() == 1;
        const std::size_t cells_x = flat ? 1 : nx() - 1;
        for (std::size_t i = 0; i < cells_x; ++i)
            for (std::size_t j = 0; j + 1 < nz(); ++j) {
                const double dx = flat ? 1.0 : (x[i + 1] - x[i]) / 1000;
                const double dz = (z[j + 1] - z[j]) / 1000;
                const double mid = flat ? 0 : (x[i] + x[i + 1]) / 2;
                const bool in_wood = wooden(mid, (z[j] + z[j + 1]) / 2);
                const Stuff& s = in_wood ? wood : res;
                const double share = flat ? 0.5 : 0.25;
                for (const std::size_t di : {std::size_t{0}, std::size_t{1}})
                    for (const std::size_t dj : {std::size_t{0}, std::size_t{1}}) {
                        if (flat && di) continue;
                        const std::size_t p = at(i + di, j + dj);
                        capacity_[p] += share * s.per_m3() * dx * dz;
                        if (!in_wood) resin[p] += share * s.per_m3() * dx * dz;
                    }
                // Heat passes along the cell's four sides, each side with half of the cell beside it.
                for (const std::size_t di : {std::size_t{0}, std::size_t{1}}) {
                    if (flat && di) continue;
                    north_[at(i + di, j)] += s.w_mk * (flat ? dx : dx / 2) / dz;
                }
                if (!flat)
                    for (const std::size_t dj : {std::size_t{0}, std::size_t{1}}) east_[at(i, j + dj)] += s.w_mk * dz / 2 / dx;
            }
        for (std::size_t i = 0; i < nx(); ++i) {
            const double wide = flat ? 1.0 : ((i > 0 ? x[i] - x[i - 1] : 0) + (i + 1 < nx() ? x[i + 1] - x[i] : 0)) / 2000;
            open_z_[at(i, 0)] += h * wide;
            open_z_[at(i, nz() - 1)] += h * wide;
        }
        if (!flat)
            for (std::size_t j = 0; j < nz(); ++j) {
                const double high = ((j > 0 ? z[j] - z[j - 1] : 0) + (j + 1 < nz() ? z[j + 1] - z[j] : 0)) / 2000;
                open_x_[at(nx() - 1, j)] += h * high;
            }
        for (std::size_t p = 0; p < n; ++p) resin[p] = capacity_[p] > 0 ? resin[p] / capacity_[p] : 0;
    }

    double stored(double base) const {
        double sum = 0;
        for (std::size_t p = 0; p < temp.size(); ++p) sum += capacity_[p] * (temp[p] - base);
        return sum;
    }
    double leaving(double air) const {
        double sum = 0;
        for (std::size_t p = 0; p < temp.size(); ++p) sum += (open_x_[p] + open_z_[p]) * (temp[p] - air);
        return sum;
    }
    /// Heat set free when α goes up by 1 everywhere at once, J/K of rise: what α holds now.
    double freed(double rise) const {
        double sum = 0;
        for (std::size_t p = 0; p < temp.size(); ++p) sum += capacity_[p] * resin[p] * rise * alpha[p];
        return sum;
    }

    /// Conduction for so many seconds: Douglas' two sweeps.
    void conduct(double dt, double air) {
        const std::size_t n = temp.size();
        flux_.assign(n, 0);
        for (std::size_t i = 0; i < nx(); ++i)
            for (std::size_t j = 0; j < nz(); ++j) {
                const std::size_t p = at(i, j);
                if (j + 1 < nz()) {
                    const double q = north_[p] * (temp[p + 1] - temp[p]);
                    flux_[p] += q, flux_[p + 1] -= q;
                }
                if (i + 1 < nx()) {
                    const std::size_t e = at(i + 1, j);
                    const double q = east_[p] * (temp[e] - temp[p]);
                    flux_[p] += q, flux_[e] -= q;
                }
                flux_[p] += (open_x_[p] + open_z_[p]) * (air - temp[p]);
            }
        constexpr double theta = 0.5;
        if (nx() > 1) {
            // (C − θ dt A_x) d* = dt · A T
            low_.resize(nx()), diag_.resize(nx()), up_.resize(nx()), rhs_.resize(nx());
            for (std::size_t j = 0; j < nz(); ++j) {
                for (std::size_t i = 0; i < nx(); ++i) {
                    const std::size_t p = at(i, j);
                    const double w = i > 0 ? east_[at(i - 1, j)] : 0;
                    const double e = i + 1 < nx() ? east_[p] : 0;
                    low_[i] = -theta * dt * w, up_[i] = -theta * dt * e;
                    diag_[i] = capacity_[p] + theta * dt * (w + e + open_x_[p]);
                    rhs_[i] = dt * flux_[p];
                }
                solve(low_, diag_, up_, rhs_);
                for (std::size_t i = 0; i < nx(); ++i) flux_[at(i, j)] = rhs_[i] * capacity_[at(i, j)];
            }
        } else {
            for (double& f : flux_) f *= dt;
        }
        // (C − θ dt A_z) d = C d*
        low_.resize(nz()), diag_.resize(nz()), up_.resize(nz()), rhs_.resize(nz());
        for (std::size_t i = 0; i < nx(); ++i) {
            for (std::size_t j = 0; j < nz(); ++j) {
                const std::size_t p = at(i, j);
                const double s = j > 0 ? north_[p - 1] : 0;
                const double m = j + 1 < nz() ? north_[p] : 0;
                low_[j] = -theta * dt * s, up_[j] = -theta * dt * m;
                diag_[j] = capacity_[p] + theta * dt * (s + m + open_z_[p]);
                rhs_[j] = flux_[p];
            }
            solve(low_, diag_, up_, rhs_);
            for (std::size_t j = 0; j < nz(); ++j) temp[at(i, j)] += rhs_[j];
        }
    }

  private:
    double h_ = 0;
    std::vector<double> capacity_, east_, north_, open_x_, open_z_;  // J/K, W/K a metre of length
    std::vector<double> flux_, low_, diag_, up_, rhs_;
};

/// Each node cures for so many seconds, keeping its heat.
void react(Body& b, double per_s, double rise, double dt) {
    const auto slope = [&](double a, double t) { return per_s * cure_law::warmth(t) * cure_law::shape(a); };
    for (std::size_t p = 0; p < b.temp.size(); ++p) {
        if (b.resin[p] <= 0) continue;
        const double a = b.alpha[p];
        if (a > 0.9999) continue;
        const double t = b.temp[p];
        const double warm = rise * b.resin[p];
        const double k1 = slope(a, t);
        const double k2 = slope(a + dt / 2 * k1, t + warm * dt / 2 * k1);
        const double k3 = slope(a + dt / 2 * k2, t + warm * dt / 2 * k2);
        const double k4 = slope(a + dt * k3, t + warm * dt * k3);
        const double da = std::min(1 - a, dt / 6 * (k1 + 2 * k2 + 2 * k3 + k4));
        b.alpha[p] = a + da;
        b.temp[p] = t + warm * da;
    }
}

/// The air through the day: by night it is colder.
double air_at(const Section& s, double h) {
    const double of_day = std::fmod(h, 24.0);
    return s.night_c > 0 && of_day >= 12 ? s.air_c - s.night_c : s.air_c;
}

/// Follows a body until `done` or the end of its time. `seen` is told the time after each step, in h, and the length of the step.
template <class Seen>
void follow(Body& b, const Kinetics& k, const Section& s, double from_h, double to_h, double tightness, Seen seen) {
    const double per_s = k.per_s();
    const double rise = k.rise_c();
    double t = from_h * 3600;
    double dt = 120;
    std::vector<double> before;
    const double end = to_h * 3600;
    while (t < end - 1e-6) {
        dt = std::min(dt, end - t);
        // The heater's clock is met exactly.
        if (s.night_c > 0) {
            const double next = (std::floor(t / 43200 + 1e-9) + 1) * 43200 - t;
            if (next > 1) dt = std::min(dt, next);
        }
        before = b.temp;
        std::vector<double> alpha_before = b.alpha;
        const double air = air_at(s, (t + dt / 2) / 3600);
        react(b, per_s, rise, dt / 2);
        const double leaving_before = b.leaving(air);
        b.conduct(dt, air);
        // What the two sweeps send out: the mean of before and after.
        const double lost = (leaving_before + b.leaving(air)) / 2 * dt;
        react(b, per_s, rise, dt / 2);
        double warmed = 0;
        double cured = 0;
        for (std::size_t p = 0; p < before.size(); ++p) {
            warmed = std::max(warmed, std::abs(b.temp[p] - before[p]));
            cured = std::max(cured, b.alpha[p] - alpha_before[p]);
        }
        const double over = std::max(warmed / (0.15 * tightness), cured / (0.004 * tightness));
        if (over > 2 && dt > 2) {
            b.temp = before, b.alpha = alpha_before;
            dt = std::max(1.0, dt * 0.6 / over * 1.6);
            continue;
        }
        t += dt;
        if (!seen(t / 3600, lost)) return;
        dt = std::min(std::clamp(over > 1e-9 ? dt * std::min(1.6, 0.9 / over) : dt * 1.6, 1.0, 1800.0), end - t > 0 ? end - t : 1.0);
    }
}

void check(const Kinetics& k, const Section& s) {
    if (!(k.gel_25_h > 0) || !(k.heat_kj_kg > 0)) throw std::invalid_argument("a resin that gels and sets heat free is wanted");
    if (!(s.depth_mm > 0) || !(s.h > 0) || s.width_mm < 0 || s.board_mm < 0 || (s.width_mm > 0 && !(s.banks_mm > 0)))
        throw std::invalid_argument("depth, width, banks and h have to be above 0");
    if (s.depth_mm > 5000 || s.width_mm > 20000 || s.banks_mm > 20000 || s.board_mm > 1000)
        throw std::invalid_argument("a section up to 5 m deep and 20 m wide on a board of up to 1 m can be followed");
    if (!(s.most_h > 0 && s.most_h <= 20000)) throw std::invalid_argument("a cure can be followed for 20000 h at most");
    if (!(s.air_c >= -60 && s.air_c <= 80)) throw std::invalid_argument("air from -60 to 80 °C can be planned");
}

Body body_of(const Kinetics& k, const Section& s, double coarse) {
    Body b;
    // Large sections get coarser steps, not more of them than memory and patience have.
    const double step_z = std::max(std::clamp(s.depth_mm / 50, 0.25, 1.0), s.depth_mm / 400) * coarse;
    b.z = {0};
    if (s.board_mm > 0) steps_to(b.z, s.board_mm, std::max(step_z, s.board_mm / 10));
    b.floor_mm = s.board_mm;
    b.top_mm = s.board_mm + s.depth_mm;
    steps_to(b.z, b.top_mm, step_z);
    b.x = {0};
    if (s.width_mm > 0) {
        const double step_x = std::max(std::clamp(s.width_mm / 60, 0.5, 2.0), s.width_mm / 800) * coarse;
        steps_to(b.x, s.width_mm / 2, step_x);
        growing_to(b.x, s.width_mm / 2 + s.banks_mm, step_x);
    }
    b.make(
        k, [&](double x, double z) { return z < s.board_mm || (s.width_mm > 0 && x > s.width_mm / 2); }, s.h);
    b.temp.assign(b.nx() * b.nz(), s.start_c < -273 ? s.air_c : s.start_c);
    b.alpha.assign(b.nx() * b.nz(), 0);
    return b;
}

/// When a rising value passes a mark between two times.
void passes(std::optional<double>& at, double mark, double was, double is, double was_h, double is_h) {
    if (!at && is >= mark) at = is > was ? was_h + (is_h - was_h) * (mark - was) / (is - was) : is_h;
}

/// The time of the highest of points: of the parabola through it and its neighbours, for steps are long where little happens.
std::optional<double> summit(const std::vector<std::pair<double, double>>& at) {
    const auto top = std::max_element(at.begin(), at.end(), [](const auto& a, const auto& b) { return a.second < b.second; });
    if (top == at.begin() || top + 1 == at.end()) return {};
    const auto [t0, y0] = *(top - 1);
    const auto [t1, y1] = *top;
    const auto [t2, y2] = *(top + 1);
    const double left = (y1 - y0) / (t1 - t0);
    const double right = (y2 - y1) / (t2 - t1);
    const double bend = (right - left) / (t2 - t0);
    if (bend >= 0) return {};
    return std::clamp((t0 + t1) / 2 - left / (2 * bend), t0, t2);
}

}  // namespace

Cured cure(const Kinetics& k, const Section& s, const CureOrder& order) {
    check(k, s);
    Body b = body_of(k, s, order.coarse);
    Cured out;
    out.rise_c = k.rise_c();
    out.x = b.x;
    for (const double z : b.z) out.z.push_back(z - b.floor_mm);
    const double base = b.temp.front();
    out.peak_c = base;
    const std::size_t top = b.at(0, b.nz() - 1);
    double was_h = 0;
    double was_top = 0;
    double was_least = 0;
    double lost = 0;
    std::vector<std::pair<double, double>> hottest{{0, base}};  // of each step
    double next_frame = 0;
    double frame_step = order.frames > 0 ? std::min(2.5 * isothermal_gel_h(k, s.air_c), s.most_h) / order.frames : 0;
    const auto keep = [&](double h) {
        if (order.frames <= 0 || h < next_frame - 1e-9) return;
        out.frames.push_back({h, b.temp, b.alpha});
        next_frame = h + frame_step;
        if (static_cast<int>(out.frames.size()) < 2 * order.frames) return;
        // Twice as many as wanted: every other one goes, and the steps double.
        std::vector<CureFrame> half;
        for (std::size_t i = 0; i < out.frames.size(); i += 2) half.push_back(std::move(out.frames[i]));
        out.frames = std::move(half);
        frame_step *= 2;
    };
    keep(0);
    follow(b, k, s, 0, s.most_h, order.coarse, [&](double h, double gone) {
        ++out.steps;
        lost += gone;
        hottest.emplace_back(h, -1e9);
        for (std::size_t i = 0; i < b.nx(); ++i)
            for (std::size_t j = 0; j < b.nz(); ++j) {
                const std::size_t p = b.at(i, j);
                if (b.resin[p] <= 0) continue;
                hottest.back().second = std::max(hottest.back().second, b.temp[p]);
                if (b.temp[p] > out.peak_c)
                    out.peak_c = b.temp[p], out.peak_h = h, out.peak_x_mm = b.x[i], out.peak_z_mm = b.z[j] - b.floor_mm;
            }
        double least = 1;
        for (std::size_t p = 0; p < b.alpha.size(); ++p)
            if (b.resin[p] > 0) least = std::min(least, b.alpha[p]);
        passes(out.syrup_h, syrup_alpha, was_top, b.alpha[top], was_h, h);
        passes(out.gel_h, gel_alpha, was_top, b.alpha[top], was_h, h);
        passes(out.tacky_h, tacky_alpha, was_top, b.alpha[top], was_h, h);
        passes(out.cured_h, cured_alpha, was_least, least, was_h, h);
        was_h = h, was_top = b.alpha[top], was_least = least;
        keep(h);
        return !(out.cured_h && h > out.peak_h + 1 && h >= *out.cured_h);
    });
    out.peak_h = summit(hottest).value_or(out.peak_h);
    const double freed = b.freed(out.rise_c);
    // By night the air takes more than it gives: heat is counted from where all began.
    out.energy_error_pct = freed > 0 ? 100 * std::abs(freed - (b.stored(base) + lost)) / freed : 0;
    return out;
}

double resin_hottest_c(const Cured& c, const Section& s, std::size_t frame) {
    const CureFrame& f = c.frames.at(frame);
    double out = -1e300;
    for (std::size_t i = 0; i < c.x.size(); ++i)
        for (std::size_t j = 0; j < c.z.size(); ++j)
            if (c.z[j] >= 0 && c.z[j] <= s.depth_mm && (s.width_mm <= 0 || c.x[i] <= s.width_mm / 2))
                out = std::max(out, f.temp_c[i * c.z.size() + j]);
    return out;
}

std::vector<LiftCure> cure_lifts(const Kinetics& k, const Section& s, const std::vector<double>& depths, const CureOrder& order) {
    std::vector<LiftCure> out;
    Body b;
    double clock = 0;
    for (std::size_t i = 0; i < depths.size(); ++i) {
        Section here = s;
        here.width_mm = 0;
        here.depth_mm = depths[i];
        check(k, here);
        if (i == 0) {
            b = body_of(k, here, order.coarse);
        } else {
            // Fresh resin on what is there; what is there keeps its heat and its cure.
            const std::vector<double> temp = b.temp;
            const std::vector<double> alpha = b.alpha;
            const double step = std::clamp(depths[i] / 50, 0.25, 1.0) * order.coarse;
            b.top_mm += depths[i];
            steps_to(b.z, b.top_mm, step);
            b.make(
                k, [&](double, double z) { return z < s.board_mm; }, s.h);
            b.temp.assign(b.nz(), s.air_c);
            b.alpha.assign(b.nz(), 0);
            std::copy(temp.begin(), temp.end(), b.temp.begin());
            std::copy(alpha.begin(), alpha.end(), b.alpha.begin());
            // The node between them is half of each.
            b.temp[temp.size() - 1] = (temp.back() + s.air_c) / 2;
            b.alpha[alpha.size() - 1] = alpha.back() / 2;
        }
        LiftCure l;
        l.poured_h = clock;
        l.peak_c = *std::max_element(b.temp.begin(), b.temp.end());
        double was_h = clock;
        double was_top = 0;
        const bool last = i + 1 == depths.size();
        follow(b, k, here, clock, clock + s.most_h, order.coarse, [&](double h, double) {
            for (const double t : b.temp)
                if (t > l.peak_c) l.peak_c = t, l.peak_h = h - clock;
            const double top = b.alpha.back();
            passes(l.syrup_h, syrup_alpha, was_top, top, was_h - clock, h - clock);
            passes(l.gel_h, gel_alpha, was_top, top, was_h - clock, h - clock);
            passes(l.tacky_h, tacky_alpha, was_top, top, was_h - clock, h - clock);
            was_h = h, was_top = top;
            // The next is poured as the surface gels; the last is followed past its peak.
            return last ? !(l.tacky_h && h - clock > l.peak_h + 2) : !l.gel_h;
        });
        // What comes after the next went in is the next one's heat; the window to pour it in is that of this one alone.
        if (!last && l.gel_h) {
            Body alone = b;
            double w = was_h;
            double top_was = was_top;
            follow(alone, k, here, w, w + 200, order.coarse, [&](double h, double) {
                passes(l.tacky_h, tacky_alpha, top_was, alone.alpha.back(), w - clock, h - clock);
                for (const double t : alone.temp)
                    if (t > l.peak_c) l.peak_c = t, l.peak_h = h - clock;
                w = h, top_was = alone.alpha.back();
                return !l.tacky_h;
            });
        }
        clock = was_h;
        out.push_back(l);
    }
    return out;
}

}  // namespace yb
