#include "core/steps/flat/sled.h"

#include <algorithm>
#include <cmath>

#include <Eigen/Dense>

namespace yb {

std::optional<double> spacer_for(double stickout_mm, const Sled& sled) {
    if (stickout_mm <= sled.stickout_mm + 1e-9) return 0;
    std::vector<double> boards = sled.spacers_mm;
    std::sort(boards.begin(), boards.end());
    for (const double b : boards)
        if (stickout_mm - b <= sled.stickout_mm + 1e-9) return b;
    return {};
}

double sled_sag_mm(const Sled& s) {
    const double inertia = s.beams * s.beam_wide_mm * s.beam_high_mm * s.beam_high_mm * s.beam_high_mm / 12;
    return s.router_n * s.span_mm * s.span_mm * s.span_mm / (48 * s.beam_mpa * inertia);
}

double lane_mm(const Sled& s) { return s.cutter_mm * (1 - s.overlap); }

int lanes_for(double cover_mm, const Sled& sled) { return static_cast<int>(std::ceil(cover_mm / lane_mm(sled) - 1e-9)) + 1; }

double lane_step_mm(const Sled& s) { return s.tram_mm / s.cutter_mm * lane_mm(s); }

double lane_hollow_mm(const Sled& s) {
    const double r = s.cutter_mm / 2;
    const double step = lane_mm(s);
    return s.tram_feed_mm / s.cutter_mm * (r - std::sqrt(std::max(0.0, r * r - step * step / 4)));
}

double cutting_w(const Sled& s, double specific_gravity) {
    constexpr double n_mm2 = 18;  // at a specific gravity of 0.5
    return n_mm2 * specific_gravity / 0.5 * lane_mm(s) * s.depth_mm * s.feed_mm_s / 1000;
}

std::optional<BedCheck> check_bed(const Bed& b) {
    if (!b.front_mm || !b.back_mm || !b.left_mm || !b.right_mm || !b.rising_mm || !b.falling_mm) return {};
    // Heights up to a plane: three corners at 0. A gap is the ends' mean less the middle.
    const double middle = -*b.falling_mm;
    const double far_corner = 2 * (*b.rising_mm + middle);
    // Front left, front, front right; left, middle, right; back left, back, back right.
    const std::array<double, 9> z{
        0, -*b.front_mm, 0, -*b.left_mm, middle, far_corner / 2 - *b.right_mm, 0, far_corner / 2 - *b.back_mm, far_corner};
    // The plane that fits them best (least squares): on three by three places its slopes are plain means.
    double mean = 0;
    double along = 0;
    double across = 0;
    for (std::size_t i = 0; i < 9; ++i) {
        const double x = static_cast<double>(i % 3) - 1;
        const double y = static_cast<double>(i / 3) - 1;
        mean += z[i] / 9, along += x * z[i] / 6, across += y * z[i] / 6;
    }
    BedCheck out;
    std::array<double, 9> off{};
    for (std::size_t i = 0; i < 9; ++i)
        off[i] = z[i] - mean - along * (static_cast<double>(i % 3) - 1) - across * (static_cast<double>(i / 3) - 1);
    const double highest = *std::max_element(off.begin(), off.end());
    for (std::size_t i = 0; i < 9; ++i) out.shim_mm[i] = highest - off[i];
    out.lowest = static_cast<std::size_t>(std::max_element(out.shim_mm.begin(), out.shim_mm.end()) - out.shim_mm.begin());
    out.worst_mm = out.shim_mm[out.lowest];
    out.twist_mm = far_corner;
    return out;
}

const char* name_of_bed_place(std::size_t place) {
    static constexpr std::array names{"front left", "front",     "front right", "left end",  "middle",
                                      "right end",  "back left", "back",        "back right"};
    return names.at(place);
}

std::vector<SledPart> sled_parts(const Sled& s, double piece_long) {
    constexpr double beside = 60;  // the floor runs over each rail and a little past it
    constexpr double stop = 40;    // as high as a hand stops the router
    constexpr double rail_wide = 45;
    const double long_mm = s.span_mm + 2 * beside;
    const double inside = s.base_mm + 4;  // the base slides between the beams without play to speak of
    const double wide = inside + 2 * s.beam_wide_mm;
    const double rail_high = s.rail_mm + (s.rails_beside ? s.deck_mm : 0);
    std::vector<SledPart> out{{"sled, floor", 1, long_mm, wide, s.floor_mm},
                              {"sled, side beam", static_cast<int>(std::lround(s.beams)), long_mm, s.beam_high_mm, s.beam_wide_mm},
                              {"sled, end stop", 2, inside, stop, s.beam_wide_mm},
                              {"rail", 2, piece_long + 2 * wide, rail_high, rail_wide}};
    return out;
}

}  // namespace yb
