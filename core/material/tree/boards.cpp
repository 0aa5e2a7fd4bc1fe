// Which boards a pattern of sawing gives.
#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "core/material/tree/sawing.h"

namespace yb {

double largest_radius(const LogRecipe& r) { return std::max(r.butt_mm, r.top_mm) / 2 * (1.1 + r.out_of_round) + r.flare_mm; }

/// Where wood begins and ends across a face, or nothing.
std::optional<Span1> wood_across(const GrownLog& log, const Board& b, double x, double z, double reach) {
    const auto in = [&](double y) { return log.inside(b.in_log(x, y, z)); };
    const auto edge = [&](double from, double to) -> std::optional<double> {
        const double step = to > from ? 5 : -5;
        double y = from;
        while (!in(y)) {
            y += step;
            if (step > 0 ? y > to : y < to) return {};
        }
        if (y == from) return y;
        double outside = y - step;
        while (std::abs(y - outside) > 0.05) {
            const double mid = (y + outside) / 2;
            (in(mid) ? y : outside) = mid;
        }
        return y;
    };
    const double low = std::max(-reach, b.y_low);
    const double high = std::min(reach, b.y_high);
    if (high <= low) return {};
    const auto a = edge(low, high);
    const auto c = edge(high, low);
    if (!a || !c || *c - *a < 1) return {};
    return Span1{*a, *c};
}

namespace {

constexpr double pi = std::numbers::pi;

Board framed(double turn_deg, double tilt_deg) {
    const double t = turn_deg * pi / 180;
    const double tilt = tilt_deg * pi / 180;
    Board b;
    const Vec3 up{0, -std::sin(t), std::cos(t)};
    b.ey = {0, std::cos(t), std::sin(t)};
    b.ex = Vec3{std::cos(tilt), 0, 0} + up * std::sin(tilt);
    b.ez = up * std::cos(tilt) + Vec3{-std::sin(tilt), 0, 0};
    return b;
}

/// Shortens a board to where both faces are wide enough; false when too little is left.
bool trim(const GrownLog& log, Board& b, double least_width, double reach) {
    const auto wide = [&](double x) {
        for (const double z : {0.0, b.thickness_mm}) {
            const auto s = wood_across(log, b, x, z, reach);
            if (!s || s->to - s->from < least_width) return false;
        }
        return true;
    };
    while (b.x1 - b.x0 > 400 && !wide(b.x0)) b.x0 += 50;
    while (b.x1 - b.x0 > 400 && !wide(b.x1)) b.x1 -= 50;
    return b.x1 - b.x0 > 400 && wide(b.x0) && wide(b.x1) && wide((b.x0 + b.x1) / 2);
}

/// Boards side by side, upwards from the lowest that is wide enough.
void stack(const GrownLog& log, const SawPlan& plan, Board frame, double from, double to, std::vector<Board>& out) {
    const double reach = largest_radius(log.recipe());
    for (double z = from; z + plan.thickness_mm <= to; z += plan.thickness_mm + plan.kerf_mm) {
        Board b = frame;
        b.origin = frame.origin + frame.ez * z;
        b.thickness_mm = plan.thickness_mm;
        if (!trim(log, b, plan.least_width_mm, reach)) continue;
        b.number = static_cast<int>(out.size()) + 1;
        out.push_back(b);
    }
}

}  // namespace

Vec3 Board::in_log(double x, double y, double z) const { return origin + ex * x + ey * y + ez * z; }

std::vector<Board> boards_of(const GrownLog& log, const SawPlan& plan) {
    if (!(plan.thickness_mm > 5) || plan.kerf_mm < 0 || plan.kerf_mm > 50)
        throw std::invalid_argument("boards need a thickness over 5 mm and a kerf from 0 to 50 mm");
    std::vector<Board> out;
    const LogRecipe& r = log.recipe();
    const double reach = largest_radius(r);
    const Vec2 a = log.pith(0);
    const Vec2 c = log.pith(r.length_mm);
    const Vec3 middle{0, (a.x + c.x) / 2, (a.y + c.y) / 2};
    const double pitch = plan.thickness_mm + plan.kerf_mm;
    Board frame = framed(plan.turn_deg, plan.tilt_deg);
    frame.origin = middle;
    frame.x1 = r.length_mm;
    switch (plan.pattern) {
        case SawPattern::through: {
            // One board holds the pith in its middle unless the maker shifts the first cut.
            const double from = -plan.thickness_mm / 2 - std::ceil(reach / pitch) * pitch + std::fmod(plan.shift_mm, pitch);
            stack(log, plan, frame, from, reach, out);
            break;
        }
        case SawPattern::quarter:
            for (int q = 0; q < 4; ++q) {
                Board quarter = framed(plan.turn_deg + 45 + 90.0 * q, plan.tilt_deg);
                quarter.origin = middle;
                quarter.x1 = r.length_mm;
                for (int k = -4; k <= 4; ++k) {
                    const double z = k * pitch - plan.thickness_mm / 2;
                    quarter.y_low = std::max(std::abs(z), std::abs(z + plan.thickness_mm)) + plan.kerf_mm;
                    stack(log, plan, quarter, z, z + plan.thickness_mm, out);
                }
            }
            break;
        case SawPattern::cant: {
            const double half = std::min(r.butt_mm, r.top_mm) * 0.36;
            Board sides = frame;
            stack(log, plan, sides, half + plan.kerf_mm, reach, out);
            Board turned = framed(plan.turn_deg + 90, plan.tilt_deg);
            turned.origin = middle;
            turned.x1 = r.length_mm;
            turned.y_low = -half;
            turned.y_high = half;
            stack(log, plan, turned, -plan.thickness_mm / 2 - std::floor(reach / pitch) * pitch, reach, out);
            stack(log, plan, sides, -half - plan.kerf_mm - plan.thickness_mm, -half, out);
            break;
        }
        case SawPattern::round:
            for (double x = std::max(0.0, plan.shift_mm) + 30; x + plan.thickness_mm < r.length_mm; x += pitch) {
                Board b;
                b.ex = {0, 1, 0};
                b.ey = {0, 0, 1};
                b.ez = {1, 0, 0};
                const Vec2 at = log.pith(x);
                b.origin = {x, at.x, at.y};
                b.thickness_mm = plan.thickness_mm;
                b.x0 = -reach;
                b.x1 = reach;
                b.number = static_cast<int>(out.size()) + 1;
                out.push_back(b);
            }
            break;
    }
    return out;
}

}  // namespace yb
