// Edits of Under: plates, channels, what was read with the base stood under the top, the outline of a base of one's own.
#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <tuple>

#include "core/shop/edit/edits.h"
#include "core/shop/edit/items.h"
#include "core/shop/job/job.h"
#include "core/shop/job/shop.h"
#include "core/steps/under/under.h"

namespace yb {

namespace {

/// Sets one of four readings; with none left there are none.
void set_gap(std::vector<std::optional<double>>& gaps, std::size_t i, std::optional<double> gap) {
    if (i > 3) throw std::out_of_range("there are four corners");
    if (gaps.size() < 4) gaps.resize(4);
    gaps[i] = gap;
    if (std::none_of(gaps.begin(), gaps.end(), [](const auto& g) { return g.has_value(); })) gaps.clear();
}

/// The same side of the middle as before, so far from that end.
void set_from_end(const Job& job, double& u, double from_end) { u = (u < 0 ? -1 : 1) * (job.top.length_mm / 2 - from_end); }

/// The outline as the maker's own.
std::vector<BaseCorner>& own_outline(Job& job) { return job.under.outline = base_outline(job.under); }

}  // namespace

void lay_plates(Job& job) {
    const UnderChoices fresh = starting_under(job.top);
    job.under.plates = fresh.plates;
    job.under.channels = fresh.channels;
}

void add_channel(Job& job, double u) { job.under.channels.push_back({u, 0, std::floor(job.top.width_mm * 0.07) * 10, 40, 12, 3, 3}); }

void add_plate(Job& job, double u) {
    LegPlate p = job.under.plates.empty() ? starting_under(job.top).plates.front() : job.under.plates.back();
    p.u_mm = u;
    p.v_mm = 0;
    job.under.plates.push_back(p);
}

void drop_channel(Job& job, std::size_t channel) { drop(job.under.channels, channel); }
void drop_plate(Job& job, std::size_t plate) { drop(job.under.plates, plate); }

void set_plate_gap(Job& job, std::size_t plate, std::size_t corner, std::optional<double> gap) {
    set_gap(job.under.plates.at(plate).gaps_mm, corner, gap);
}
void set_floor_gap(Job& job, std::size_t foot, std::optional<double> gap) { set_gap(job.under.floor_gaps_mm, foot, gap); }

void move_plate(Job& job, std::size_t plate, Vec2 by) {
    LegPlate& p = job.under.plates.at(plate);
    p.u_mm += by.x, p.v_mm += by.y;
}

void move_channel(Job& job, std::size_t channel, Vec2 by) {
    Channel& c = job.under.channels.at(channel);
    c.u_mm += by.x, c.v_mm += by.y;
}

double from_end_mm(const Job& job, double u) { return job.top.length_mm / 2 - std::abs(u); }
void set_plate_from_end(Job& job, std::size_t i, double mm) { set_from_end(job, job.under.plates.at(i).u_mm, mm); }
void set_channel_from_end(Job& job, std::size_t i, double mm) { set_from_end(job, job.under.channels.at(i).u_mm, mm); }

void move_base_corner(Job& job, std::size_t corner, Vec2 by) {
    BaseCorner& c = own_outline(job).at(corner);
    c.u_mm += by.x, c.v_mm += by.y;
}

void set_base_corner(Job& job, std::size_t corner, double BaseCorner::*side, double mm) { own_outline(job).at(corner).*side = mm; }

void add_base_corner(Job& job) {
    auto& all = own_outline(job);
    if (all.size() < 2) return;
    const auto next = [&](std::size_t i) { return all[(i + 1) % all.size()]; };
    std::size_t longest = 0;
    const auto run = [&](std::size_t i) { return std::hypot(next(i).u_mm - all[i].u_mm, next(i).v_mm - all[i].v_mm); };
    for (std::size_t i = 1; i < all.size(); ++i)
        if (run(i) > run(longest) + 1e-9) longest = i;
    const BaseCorner middle{(all[longest].u_mm + next(longest).u_mm) / 2, (all[longest].v_mm + next(longest).v_mm) / 2};
    all.insert(all.begin() + static_cast<std::ptrdiff_t>(longest) + 1, middle);
}

void drop_base_corner(Job& job, std::size_t corner) {
    if (base_outline(job.under).size() <= 3) throw Refusal(say("An outline has three corners at least: move one instead."));
    drop(own_outline(job), corner);
}

void set_form_corner(Job& job, std::size_t corner, std::optional<double> high) { set_gap(job.pour.corners_mm, corner, high); }

void keep_section(Shop& shop, const Channel& c) {
    const ChannelSection s{c.width_mm, c.depth_mm, c.wall_mm};
    if (std::find(shop.sections.begin(), shop.sections.end(), s) == shop.sections.end()) shop.sections.push_back(s);
    std::sort(shop.sections.begin(), shop.sections.end(), [](const ChannelSection& a, const ChannelSection& b) {
        return std::tuple(a.width_mm, a.depth_mm, a.wall_mm) < std::tuple(b.width_mm, b.depth_mm, b.wall_mm);
    });
}

void drop_section(Shop& shop, const Channel& c) { std::erase(shop.sections, ChannelSection{c.width_mm, c.depth_mm, c.wall_mm}); }

void set_section(Job& job, std::size_t channel, const ChannelSection& s) {
    Channel& c = job.under.channels.at(channel);
    c.width_mm = s.width_mm, c.depth_mm = s.depth_mm, c.wall_mm = s.wall_mm;
}

}  // namespace yb
