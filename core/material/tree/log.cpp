#include "core/material/tree/log.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/ground/geometry/noise.h"

namespace yb {
namespace {

constexpr double pi = std::numbers::pi;
constexpr double pith_step = 5, wobble_step = 20, near_step = 50;
constexpr int angles = 192;
constexpr double blend_years = 1.6;  ///< over which two stems grow together
constexpr double bulge_years = 3.2;  ///< how far rings are carried out by a branch
constexpr double flow_mm = 16;       ///< over which the grain comes back to its own way

/// Noise around the stem: `nodes` bumps in a full turn, no seam.
double around(double turn, double along, int nodes, std::uint32_t seed) {
    const double a = turn * nodes;
    const double fa = std::floor(a);
    const double t = eased(a - fa);
    const auto value = [&](double node) { return noise(along, std::fmod(node + nodes, nodes) * 17.3, seed); };
    return value(fa) * (1 - t) + value(fa + 1) * t;
}

double mix(double a, double b, double t) { return a + (b - a) * t; }
double step(double low, double high, double v) { return eased(std::clamp((v - low) / (high - low), 0.0, 1.0)); }

std::array<double, 3> rgb(unsigned hex) {
    return {static_cast<double>(hex >> 16), static_cast<double>((hex >> 8) & 255), static_cast<double>(hex & 255)};
}

}  // namespace

WoodLook look_of(const std::string& s) {
    const auto has = [&](const char* w) { return s.find(w) != std::string::npos; };
    using P = WoodLook::Pores;
    if (has("walnut")) return {rgb(0xC8AB86), rgb(0x7A563B), rgb(0x4E3423), rgb(0x4A3C30), P::diffuse, 0.5, 0.1, 12};
    if (has("butternut")) return {rgb(0xDCC7A2), rgb(0xB48E60), rgb(0x8A6743), rgb(0x5A4C3C), P::diffuse, 0.55, 0.1, 8};
    if (has("cherry")) return {rgb(0xE3C9A0), rgb(0xBC8259), rgb(0x945C3A), rgb(0x4F3B30), P::diffuse, 0.42, 0.2, 10};
    if (has("redwood") || has("cedar")) return {rgb(0xE0C8A4), rgb(0xB06A47), rgb(0x7A3F28), rgb(0x5C4334), P::softwood, 0.6, 0, 14};
    if (has("pine") || has("fir") || has("spruce") || has("larch") || has("hemlock"))
        return {rgb(0xEBD7AF), rgb(0xDDB27E), rgb(0xA9703C), rgb(0x5E4A3A), P::softwood, 0.62, 0, 25};
    if (has("oak") || has("chestnut")) return {rgb(0xDFCBA6), rgb(0xB9945F), rgb(0x8E6A3D), rgb(0x5B5146), P::ring, 0.6, 0.8, 14};
    if (has("elm")) return {rgb(0xDCC9A8), rgb(0xA9835A), rgb(0x7C5A3A), rgb(0x544A3F), P::ring, 0.6, 0.15, 14};
    if (has("ash") || has("hackberry")) return {rgb(0xE6D6B2), rgb(0xCBB083), rgb(0xA1814F), rgb(0x6B6252), P::ring, 0.6, 0.1, 30};
    if (has("maple") || has("birch") || has("basswood") || has("aspen"))
        return {rgb(0xEAD9B6), rgb(0xD2B187), rgb(0x9E7447), rgb(0x70655A), P::diffuse, 0.42, 0.25, 40};
    if (has("poplar")) return {rgb(0xE8DDBB), rgb(0xB7B184), rgb(0x8C8255), rgb(0x6A6154), P::diffuse, 0.36, 0.05, 25};
    return {rgb(0xE4CDA6), rgb(0xCCA67A), rgb(0x97693F), rgb(0x7A7062), P::diffuse, 0.46, 0.8, 30};
}

void add_fork(LogRecipe& r, double at_share) {
    BranchRecipe b;
    b.fork = true;
    b.x_mm = r.length_mm * at_share;
    b.bearing_deg = std::fmod(r.sweep_bearing_deg + 90, 360);
    b.dive_deg = 68;  // a fork climbs steeply
    b.born = 1;
    b.growth_mm = r.butt_mm / 2 / r.years * 0.8;
    b.reach_mm = r.length_mm * 1.2 / r.years;
    r.branches.push_back(b);
}

LogRecipe drawn_recipe(std::uint64_t seed, const std::string& species, double length_mm, double butt_mm) {
    Dice d(seed, 1);
    LogRecipe r;
    r.seed = seed;
    r.species = species;
    r.length_mm = length_mm;
    r.butt_mm = butt_mm;
    r.top_mm = butt_mm - length_mm / 1000 * d.between(14, 34);
    r.years = static_cast<int>(butt_mm / 2 / d.between(3.2, 4.6));
    r.sweep_mm = d.between(10, 60) * length_mm / 3000;
    r.sweep_bearing_deg = d.between(0, 360);
    r.wander_mm = d.between(4, 12);
    r.flare_mm = d.between(10, 38);
    r.out_of_round = d.between(0.02, 0.08);
    r.spiral_deg = d.between(-3, 3);
    r.bark_mm = d.between(8, 20);
    r.end_check_mm = d.between(80, 240);
    const int knots = static_cast<int>(d.between(9, 16) * length_mm / 3000);
    double bearing = d.between(0, 360);
    for (int i = 0; i < knots; ++i) {
        BranchRecipe b;
        bearing += 137.5 + d.between(-25, 25);  // branches spiral up a stem
        b.bearing_deg = std::fmod(bearing, 360);
        b.x_mm = length_mm * (i + d.between(0.1, 0.9)) / knots;
        b.dive_deg = d.between(15, 55);
        b.born = d.between(2, 8);
        b.growth_mm = d.between(0.5, 1.1);
        b.reach_mm = d.between(60, 120);
        // The lower branches are shaded out and swallowed, the upper ones live.
        if (d.roll() < 0.65) b.died = b.born + d.between(8, 26);
        else b.growth_mm *= 0.55;
        r.branches.push_back(b);
    }
    const auto pocket = [&](FlawKind kind, double deep_from, double deep_to) {
        PocketRecipe p;
        p.kind = kind;
        p.x_mm = d.between(0.12, 0.88) * length_mm;
        p.bearing_deg = d.between(0, 360);
        p.depth_mm = butt_mm / 2 * d.between(deep_from, deep_to);
        p.half_length_mm = d.between(50, 150);
        p.half_across_mm = d.between(9, 26);
        p.half_radial_mm = d.between(4, 12);
        return p;
    };
    for (int i = 0; i < 2; ++i) r.pockets.push_back(pocket(FlawKind::pocket, 0.55, 0.9));
    if (d.roll() < 0.6) {
        PocketRecipe rot = pocket(FlawKind::soft, 0.1, 0.6);
        rot.half_across_mm *= 2;
        rot.half_radial_mm *= 2.5;
        r.pockets.push_back(rot);
    }
    const int bored = static_cast<int>(d.between(4, 12));
    for (int i = 0; i < bored; ++i) {
        PocketRecipe hole = pocket(FlawKind::insects, 0.8, 0.96);
        hole.half_across_mm = d.between(1, 2.2);
        hole.half_length_mm = hole.half_across_mm;
        hole.half_radial_mm = d.between(15, 45);
        r.pockets.push_back(hole);
    }
    return r;
}

GrownLog::GrownLog(LogRecipe recipe)
    : recipe_(std::move(recipe)), look_(look_of(recipe_.species)), seed_(static_cast<std::uint32_t>(recipe_.seed * 2654435761U)) {
    const LogRecipe& r = recipe_;
    if (!(r.length_mm > 0) || !(r.butt_mm > 20) || !(r.top_mm > 20) || r.years < 3)
        throw std::invalid_argument("a log needs a length, a diameter over 20 mm at both ends and three years at least");
    const double sweep = r.sweep_bearing_deg * pi / 180;
    for (double x = 0; x <= r.length_mm + pith_step; x += pith_step) {
        const double t = x / r.length_mm;
        const double bow = r.sweep_mm * 4 * t * (1 - t);
        pith_.push_back({bow * std::cos(sweep) + r.wander_mm * noise2(x / 700, 3.5, seed_ + 1),
                         bow * std::sin(sweep) + r.wander_mm * noise2(x / 700, 7.5, seed_ + 2)});
        base_.push_back(static_cast<float>(mix(r.butt_mm, r.top_mm, t) / 2 + r.flare_mm * std::exp(-x / 260)));
    }
    const int rows = static_cast<int>(r.length_mm / wobble_step) + 2;
    const double lobe = hash01(1, 2, seed_);
    for (int i = 0; i < rows; ++i)
        for (int a = 0; a < angles; ++a) {
            const double x = i * wobble_step;
            const double turn = static_cast<double>(a) / angles;
            const double flutes = std::exp(-x / 300) * 0.03 * std::cos(2 * pi * (turn + lobe) * 5);
            // A circle seen from a point that is not its middle.
            const double off = std::clamp(r.pith_off_mm / std::max(1.0, r.butt_mm / 2), 0.0, 0.8);
            const double from_there = turn * 2 * pi - r.pith_bearing_deg * pi / 180;
            const double leaning = off * std::cos(from_there) + std::sqrt(1 - std::pow(off * std::sin(from_there), 2));
            const double shape = 1 + r.out_of_round * std::cos(4 * pi * (turn - lobe) + x / 4000) +
                                 0.030 * around(turn, x / 620, 5, seed_ + 3) + 0.010 * around(turn, x / 170, 14, seed_ + 4) + flutes;
            wobble_.push_back({static_cast<float>(shape * leaning), static_cast<float>(0.012 * around(turn, x / 420, 9, seed_ + 5) +
                                                                                       0.004 * around(turn, x / 90, 26, seed_ + 6))});
        }
    // Rings: wide in youth, narrow later, good years and bad ones.
    std::vector<double> edges{0};
    for (int y = 0; y < r.years; ++y) {
        const double trend = 0.75 + 0.6 * std::exp(-y / (0.35 * r.years));
        edges.push_back(edges.back() + trend * (1 + 0.38 * noise2(y / 5.0, 0.5, seed_ + 7) + 0.22 * (hash01(y, 5, seed_ + 8) - 0.5)));
    }
    constexpr int shares = 4096;
    std::size_t ring = 0;
    for (int i = 0; i <= shares; ++i) {
        const double at = edges.back() * i / shares;
        while (ring + 2 < edges.size() && edges[ring + 1] < at) ++ring;
        years_of_.push_back(static_cast<double>(ring) + (at - edges[ring]) / (edges[ring + 1] - edges[ring]));
    }
    forked_ = std::any_of(r.branches.begin(), r.branches.end(), [](const BranchRecipe& b) { return b.fork; });
    near_.resize(static_cast<std::size_t>(r.length_mm / near_step) + 2);
    for (const BranchRecipe& b : r.branches) {
        const double bearing = b.bearing_deg * pi / 180;
        const double dive = b.dive_deg * pi / 180;
        const Vec2 at = pith(b.x_mm);
        Branch made{b, {b.x_mm, at.x, at.y}, {std::sin(dive), std::cos(dive) * std::cos(bearing), std::cos(dive) * std::sin(bearing)}, 1e9};
        if (b.died > 0) {
            // What was dead stood out of the bark a hand's width, then fell; the stem closed over the stub.
            const double share = std::clamp(b.died / r.years, 0.0, 1.0);
            made.longest = std::min(b.reach_mm * (b.died - b.born),
                                    (radius(std::clamp(b.x_mm, 0.0, r.length_mm), bearing) * share + 70) / std::max(0.3, std::cos(dive)));
        }
        const int index = static_cast<int>(branches_.size());
        branches_.push_back(made);
        const double out = r.butt_mm / 2 + r.flare_mm + 40;
        const double thick = b.growth_mm * (r.years - b.born) + 60;
        const double run = std::min(made.longest, out / std::max(0.15, std::cos(dive))) * std::sin(dive);
        for (std::size_t k = 0; k < near_.size(); ++k) {
            const double x = static_cast<double>(k) * near_step;
            if (x > b.x_mm - thick - near_step && x < b.x_mm + run + thick + near_step) near_[k].push_back(index);
        }
    }
    pockets_near_.resize(near_.size());
    for (std::size_t i = 0; i < r.pockets.size(); ++i)
        for (std::size_t k = 0; k < near_.size(); ++k)
            if (std::abs((static_cast<double>(k) + 0.5) * near_step - r.pockets[i].x_mm) < 1.3 * r.pockets[i].half_length_mm + near_step)
                pockets_near_[k].push_back(static_cast<int>(i));
    Dice d(r.seed, 9);
    for (int i = 0; i < 5; ++i) {
        check_angles_.push_back(d.between(-pi, pi));
        for (auto& lengths : check_mm_) lengths.push_back(r.end_check_mm * d.between(0.15, 1.0) * (d.roll() < 0.75 ? 1 : 0));
    }
}

Vec2 GrownLog::pith(double x) const {
    const double at = std::clamp(x / pith_step, 0.0, static_cast<double>(pith_.size()) - 1.001);
    const auto i = static_cast<std::size_t>(at);
    return lerp(pith_[i], pith_[i + 1], at - static_cast<double>(i));
}

GrownLog::Wobble GrownLog::wobble(double x, double angle) const {
    const double rows = static_cast<double>(wobble_.size()) / angles;
    const double u = std::clamp(x / wobble_step, 0.0, rows - 1.001);
    double v = angle / (2 * pi) * angles;
    if (v < 0) v += angles;
    const auto i = static_cast<std::size_t>(u);
    const auto j = std::min(static_cast<std::size_t>(v), static_cast<std::size_t>(angles - 1));
    const std::size_t k = j + 1 == angles ? 0 : j + 1;
    const auto tu = static_cast<float>(u - static_cast<double>(i));
    const auto tv = static_cast<float>(v - static_cast<double>(j));
    const Wobble* a = &wobble_[i * angles];
    const Wobble* b = a + angles;
    const auto blend = [&](float Wobble::*m) {
        return (a[j].*m * (1 - tv) + a[k].*m * tv) * (1 - tu) + (b[j].*m * (1 - tv) + b[k].*m * tv) * tu;
    };
    return {blend(&Wobble::radius), blend(&Wobble::ring)};
}

double GrownLog::radius(double x, double angle) const {
    const double at = std::clamp(x / pith_step, 0.0, static_cast<double>(base_.size()) - 1.001);
    const auto i = static_cast<std::size_t>(at);
    const double t = at - static_cast<double>(i);
    return (base_[i] * (1 - t) + base_[i + 1] * t) * wobble(x, angle).radius;
}

double GrownLog::year_of(double share) const {
    if (share >= 1) return recipe_.years + (share - 1) * recipe_.years * 1.2;  // beyond the bark, so that edges can be found
    const double at = share * (static_cast<double>(years_of_.size()) - 1.001);
    const auto i = static_cast<std::size_t>(at);
    const double t = at - static_cast<double>(i);
    return years_of_[i] * (1 - t) + years_of_[i + 1] * t;
}

GrownLog::Here GrownLog::at(Vec3 p) const {
    Here h;
    const Vec2 c = pith(p.x);
    h.dy = p.y - c.x;
    h.dz = p.z - c.y;
    h.r = std::sqrt(h.dy * h.dy + h.dz * h.dz);
    h.angle = std::atan2(h.dz, h.dy);
    const Wobble w = wobble(p.x, h.angle);
    const double column = std::clamp(p.x / pith_step, 0.0, static_cast<double>(base_.size()) - 1.001);
    const auto i = static_cast<std::size_t>(column);
    const double t = column - static_cast<double>(i);
    h.radius = (base_[i] * (1 - t) + base_[i + 1] * t) * w.radius;
    const double share = h.r / h.radius;
    // Rings wobble inside; at the pith and at the bark they are what they are.
    h.stem = year_of(std::max(0.0, share + w.ring * 4 * share * (1 - std::min(1.0, share))));
    h.year = h.stem;
    const auto bucket = static_cast<std::size_t>(std::clamp(p.x / near_step, 0.0, static_cast<double>(near_.size()) - 1.0));
    for (const int index : near_[bucket]) {
        const Branch& b = branches_[static_cast<std::size_t>(index)];
        const Vec3 v{p.x - b.start.x, p.y - b.start.y, p.z - b.start.z};
        const double s = std::max(0.0, v.x * b.direction.x + v.y * b.direction.y + v.z * b.direction.z);
        if (s > b.longest + 3 * flow_mm) continue;
        const double ox = v.x - s * b.direction.x;
        const double oy = v.y - s * b.direction.y;
        const double oz = v.z - s * b.direction.z;
        const double across2 = ox * ox + oy * oy + oz * oz;
        const double begun = b.recipe.born + s / b.recipe.reach_mm;
        const double lived = b.recipe.died > 0 ? std::min(h.stem, b.recipe.died) : h.stem;
        const double thick = std::max(0.0, lived - begun) * b.recipe.growth_mm;  // when this wood was laid down
        const double most = thick + 3 * flow_mm;
        if (across2 > most * most || h.stem < begun) continue;
        const double across = std::sqrt(across2);
        // The stem's rings bulge out where they meet a branch: the grain flows around it.
        const double clear = std::hypot(std::max(0.0, across - thick), std::max(0.0, s - b.longest));
        const double bulge = bulge_years * std::min(1.0, thick / 12) * std::exp(-clear / flow_mm);
        h.year -= bulge;
        if (s > b.longest) continue;
        const double year = begun + across / b.recipe.growth_mm;
        if (b.recipe.died > 0 && year > b.recipe.died) {
            if (h.stem > b.recipe.died && (year - b.recipe.died) * b.recipe.growth_mm < 1.6) h.collar = true;
            continue;
        }
        const double apart = h.year - year;
        if (apart > 0) h.branch = index, h.branch_year = year;
        const double near = std::exp(-std::abs(apart) / blend_years);
        h.blend = std::max(h.blend, near);
        h.year = std::min(h.year, year) - (b.recipe.fork ? blend_years * std::log1p(near) : 0);
    }
    return h;
}

bool GrownLog::inside(const Here& h) const {
    if (h.year > recipe_.years) return false;
    if (h.r <= h.radius + 6) return true;
    return h.branch >= 0 && branches_[static_cast<std::size_t>(h.branch)].recipe.fork;
}

int GrownLog::pocket_at(Vec3 p, const Here& h) const {
    const auto bucket = static_cast<std::size_t>(std::clamp(p.x / near_step, 0.0, static_cast<double>(pockets_near_.size()) - 1.0));
    for (const int index : pockets_near_[bucket]) {
        const auto i = static_cast<std::size_t>(index);
        const PocketRecipe& k = recipe_.pockets[i];
        const double dx = (p.x - k.x_mm) / k.half_length_mm;
        if (std::abs(dx) > 1.3) continue;
        const double dr = (h.r - k.depth_mm) / k.half_radial_mm;
        if (std::abs(dr) > 1.3) continue;
        double da = h.angle - k.bearing_deg * pi / 180;
        da -= 2 * pi * std::round(da / (2 * pi));
        const double dt = da * std::max(20.0, h.r) / k.half_across_mm;
        const double rough = k.kind == FlawKind::insects ? 0 : 0.25 * noise3(p.x / 22, p.y / 9, p.z / 9, seed_ + 20);
        if (dx * dx + dr * dr + dt * dt < 1 + rough) return static_cast<int>(i);
    }
    return -1;
}

double GrownLog::check_depth(double angle, bool far_end) const {
    for (std::size_t i = 0; i < check_angles_.size(); ++i)
        if (check_angles_[i] == angle) return check_mm_[far_end ? 1 : 0][i];
    return 0;
}

std::array<double, 3> GrownLog::colour(Vec3 p, const Here& h, Vec3 normal, Walk& walk) const {
    const LogRecipe& r = recipe_;
    const double from_bark = r.years - h.year;
    const double inv = h.r > 1e-9 ? 1 / h.r : 0;
    // Fibre coordinates: along the stem and turning with the spiral. Wavelengths stand as their reciprocals below: a
    // dozen divisions a pixel would be felt.
    const double lean = r.spiral_deg * pi / 180 * h.r / std::max(1.0, h.radius);
    const double y = h.dy + lean * h.dz * p.x / 4000;
    const double z = h.dz - lean * h.dy * p.x / 4000;
    // Heartwood ends at a ring, now at this one and now at the next.
    const double edge =
        std::round(look_.sap_years * (1 + 0.12 * walk.heart.at(p.x * (1.0 / 500), h.dy * inv * 1.2, h.dz * inv * 1.2, seed_ + 30)));
    const double heart = step(edge - 0.25, edge + 0.25, from_bark);
    std::array<double, 3> out{};
    const double whole = floored(h.year);
    const double in = h.year - whole;
    const double good = 0.55 + 0.9 * hash01(static_cast<int>(whole), 3, seed_ + 31);  // some years stand out
    double dark = 0;
    double light = 1;
    const double fibre = walk.fibre.at(p.x * (1.0 / 160), y * (1.0 / 1.1), z * (1.0 / 1.1), seed_ + 32);
    switch (look_.pores) {
        case WoodLook::Pores::softwood: dark = look_.late_share * good * (in < 0.96 ? in * in * in : (1 - in) / 0.04); break;
        case WoodLook::Pores::ring: {
            const double zone = 1 - step(0.18, 0.42, in);
            const double pore = walk.pore.at(p.x * (1.0 / 9), y * (1.0 / 0.75), z * (1.0 / 0.75), seed_ + 33);
            dark = look_.late_share * good * (0.45 * zone + 0.75 * zone * step(0.0, 0.5, pore)) + 0.10 * in;
            break;
        }
        case WoodLook::Pores::diffuse: {
            const double line = in < 0.94 ? step(0.55, 0.94, in) : (1 - in) / 0.06;
            const double pore = walk.pore.at(p.x * (1.0 / 12), y * (1.0 / 0.7), z * (1.0 / 0.7), seed_ + 33);
            dark = look_.late_share * good * (0.62 * line + 0.25 * in) + 0.10 * step(0.35, 0.8, pore);
            break;
        }
    }
    light += 0.035 * fibre + 0.07 * walk.patch.at(p.x * (1.0 / 900), y * (1.0 / 38), z * (1.0 / 38), seed_ + 34) +
             0.04 * walk.streak.at(p.x * (1.0 / 420), y * (1.0 / 7), z * (1.0 / 7), seed_ + 35);
    // Rays show where the face runs from pith to bark.
    if (look_.ray > 0 && h.r > 12) {
        const double flat = std::abs((normal.y * h.dy + normal.z * h.dz) * inv);
        if (flat < 0.4)
            light += look_.ray * 0.13 * (1 - flat / 0.4) * step(0.15, 0.6, noise(p.x * (1.0 / 7) + whole * 3.1, h.r / 3.5, seed_ + 36));
    }
    if (r.curl > 0) {
        const double wave =
            std::sin(2 * pi * (p.x * (1.0 / 13) + 0.9 * noise(p.x * (1.0 / 70), y * (1.0 / 30) + z * (1.0 / 45), seed_ + 37)));
        light += 0.10 * r.curl * wave *
                 (0.4 + 0.6 * step(-0.3, 0.5, walk.curl.at(p.x * (1.0 / 600), y * (1.0 / 90), z * (1.0 / 90), seed_ + 38)));
    }
    if (h.blend > 0.05) {  // wood squeezed between two stems: feathered
        light += h.blend * (0.16 * walk.feather.at(p.x * (1.0 / 16), y * (1.0 / 3), z * (1.0 / 3), seed_ + 39) +
                            0.07 * std::sin((p.x + 0.6 * std::abs(y) + 0.6 * std::abs(z)) / 3.1));
        dark += 0.10 * h.blend;
    }
    for (int k = 0; k < 3; ++k)
        out[static_cast<std::size_t>(k)] = mix(mix(look_.sap[static_cast<std::size_t>(k)], look_.heart[static_cast<std::size_t>(k)], heart),
                                               look_.late[static_cast<std::size_t>(k)], std::clamp(dark, 0.0, 1.0)) *
                                           light;
    const auto toward = [&](const std::array<double, 3>& to, double t) {
        for (std::size_t k = 0; k < 3; ++k) out[k] = mix(out[k], to[k], std::clamp(t, 0.0, 1.0));
    };
    const std::array<double, 3> umber = rgb(0x3B2618);
    if (h.branch >= 0) {
        const Branch& b = branches_[static_cast<std::size_t>(h.branch)];
        if (!b.recipe.fork) {
            const double years = h.branch_year / 3.3;  // its own rings are fine: every third shows
            toward(rgb(0x6B3F24), 0.36 + 0.24 * step(0.5, 1, years - std::floor(years)));
            toward(umber, 0.45 * step(0.55, 1, h.blend));
        }
    }
    if (h.collar) toward(umber, 0.8);
    if (r.spalting > 0) {
        const double area = walk.spalt.at(p.x * (1.0 / 700), y * (1.0 / 110), z * (1.0 / 110), seed_ + 40);
        if (area > 1 - 2 * r.spalting) {
            const double n = walk.zone.at(p.x * (1.0 / 190), y * (1.0 / 24), z * (1.0 / 24), seed_ + 41) +
                             0.3 * walk.fine.at(p.x * (1.0 / 40), y * (1.0 / 8), z * (1.0 / 8), seed_ + 42);
            toward(rgb(0xE9DDC3), 0.25);
            toward(rgb(0x2B221B), 0.85 * (1 - step(0.008, 0.035, std::abs(n))));
        }
    }
    if (h.r < 4) toward(umber, 0.55 * (1 - h.r / 4));
    for (const bool far : {false, true}) {
        const double from_end = far ? r.length_mm - p.x : p.x;
        for (std::size_t i = 0; i < check_angles_.size(); ++i) {
            const double depth = check_mm_[far ? 1 : 0][i];
            if (from_end >= depth) continue;
            double da = h.angle - check_angles_[i] - 0.6 / std::max(8.0, h.r) * noise(p.x * (1.0 / 30), h.r / 25, seed_ + 43);
            da -= 2 * pi * std::round(da / (2 * pi));
            if (std::abs(da) < 0.4 && std::abs(da) * h.r < 1.6 * (1 - from_end / depth)) toward(rgb(0x1E1510), 0.9);
        }
    }
    if (const int k = pocket_at(p, h); k >= 0) {
        const FlawKind kind = recipe_.pockets[static_cast<std::size_t>(k)].kind;
        if (kind == FlawKind::insects) toward(rgb(0x17100C), 1);
        else if (kind == FlawKind::soft)
            toward(rgb(0x8C6B45), 0.5 + 0.3 * noise3(p.x * (1.0 / 8), y * (1.0 / 4), z * (1.0 / 4), seed_ + 44));
        else toward(look_.bark, 0.85 + 0.15 * fibre);
    }
    for (double& v : out) v = std::clamp(v, 0.0, 255.0);
    return out;
}

}  // namespace yb
