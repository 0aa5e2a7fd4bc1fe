// A grown log's slabs as they lie in a yard: shuffled, turned over and round, measured by one hand or another, their true
// order known. Used by the tests of the order and by its benchmark.
#pragma once

#include <algorithm>
#include <cmath>
#include <random>
#include <vector>

#include "core/ground/geometry/noise.h"
#include "core/material/tree/saw.h"
#include "core/steps/match/sequence.h"

namespace yb {

enum class Read {
    traced,  ///< outlines as they are, the chalk line along the log
    askew,   ///< each slab's chalk line struck 1 to 2 degrees off
    tape     ///< every 300 mm, each reading up to `off_mm` wrong, some knots not seen
};

struct YardSlab {
    Slab slab;
    SlabShape shape;
    Picture a, b;
    bool over = false, ended = false;
    int number = 0;  ///< in the log, from the lowest; 100 and more: of another
};

struct Yard {
    std::vector<YardSlab> pile;
    std::vector<SequenceItem> items(bool pictures = false) const {
        std::vector<SequenceItem> out;
        for (const YardSlab& s : pile) out.push_back({&s.slab, &s.shape, pictures ? &s.a : nullptr, pictures ? &s.b : nullptr, {}, {}, {}});
        return out;
    }
};

struct YardPlan {
    Read read = Read::traced;
    double mm_per_px = 0;   ///< of pictures; 0: none
    std::size_t most = 10;  ///< slabs
    double off_mm = 3;      ///< of the tape
    double missed = 0.25;   ///< share of the knots, by tape
    int strangers = 0;      ///< slabs of other logs among them
    bool crooked = false;   ///< the chalk lines 1 to 2 degrees off too
};

inline Picture turned_round(const Picture& p) {
    Picture out(p.width, p.height);
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) std::copy_n(p.at(x, y), 3, out.at(p.width - 1 - x, p.height - 1 - y));
    return out;
}

/// A slab as it is picked from the pile and measured.
inline YardSlab picked_up(const SawnSlab& s, Dice& d, const YardPlan& plan) {
    YardSlab out;
    out.over = d.roll() < 0.5, out.ended = d.roll() < 0.5;
    out.number = s.board.number;
    Slab slab = s.slab;
    slab.heights_a = slab.heights_b = {};
    out.a = s.face_a, out.b = s.face_b;
    if (out.over) slab = turned_over(slab), std::swap(out.a, out.b);
    const double length = s.truth.x0 + s.truth.x1;
    const auto move = [&](auto&& to) {
        for (Ring* r : {&slab.outline->a, &slab.outline->b})
            for (Vec2& p : *r) p = to(p);
        for (Flaw& f : slab.flaws)
            for (Vec2& p : f.outline) p = to(p);
    };
    if (out.ended) {
        move([&](Vec2 p) { return Vec2{length - p.x, -p.y}; });
        for (Station& st : slab.tape.stations) st.x_mm = length - st.x_mm;
        for (const auto& [picture, pixels] : {std::pair(&slab.picture_a, &out.a), std::pair(&slab.picture_b, &out.b)}) {
            if (!*picture) continue;
            FacePicture& p = **picture;
            *pixels = turned_round(*pixels);
            const double w = (pixels->width - 1) * p.mm_per_px;
            const double h = (pixels->height - 1) * p.mm_per_px * (p.mirrored ? -1 : 1);
            p.corner = {length - (p.corner.x + w), -(p.corner.y - h)};
        }
    }
    // The maker's chalk line lies anywhere.
    const double slid = d.between(-30, 30);
    const double turn = plan.read == Read::askew || plan.crooked ? (d.roll() < 0.5 ? -1 : 1) * d.between(1, 2) : 0;
    const Frame line{{length / 2, slid}, turn};
    move([&](Vec2 p) { return line.from_slab(p) + Vec2{length / 2, 0}; });
    for (auto* p : {&slab.picture_a, &slab.picture_b})
        if (*p) {
            if (turn != 0) p->reset();
            else (*p)->corner.y -= slid;
        }
    if (plan.read == Read::tape) {
        const TracedOutline o = *slab.outline;
        slab.outline.reset();
        slab.tape.stations.clear();
        const auto read = [&](double v) { return std::round(v + d.between(-1, 1) * plan.off_mm); };
        const Box box = bounds(o.a);
        for (double x = box.low.x + 2; x < box.high.x; x = x + 300 < box.high.x - 2 || x > box.high.x - 23 ? x + 300 : box.high.x - 2) {
            const auto a = cut_at_x(o.a, x);
            const auto b = cut_at_x(o.b, x);
            if (a.empty() || b.empty()) continue;
            Station st;
            st.x_mm = std::round(x - box.low.x);
            st.left_mm = read(a.back().to), st.right_mm = read(-a.front().from);
            st.other_left_mm = read(b.back().to), st.other_right_mm = read(-b.front().from);
            st.thickness_mm = s.board.thickness_mm;
            slab.tape.stations.push_back(st);
        }
        std::erase_if(slab.flaws, [&](const Flaw& f) { return f.kind == FlawKind::knot && d.roll() < plan.missed; });
    }
    out.slab = slab;
    out.shape = shape_of(slab);
    return out;
}

/// A log of its own for each seed: species, girth, length, sawing thickness, kerf and turn on the mill drawn by lot.
inline Yard yard(std::uint64_t seed, const YardPlan& plan = {}) {
    static constexpr const char* woods[] = {"sycamore, American", "hackberry",     "maple, bigleaf",
                                            "butternut",          "walnut, black", "ash, white"};
    Dice d(seed, 4242);
    const double butt = d.between(380, 700);
    const double length = d.between(1500, 3200);
    SawPlan saw;
    saw.thickness_mm = d.between(30, 80);
    saw.kerf_mm = d.between(2, 6);
    const char* wood = woods[seed % std::size(woods)];
    const GrownLog log(drawn_recipe(1000 + seed, wood, length, butt));
    saw.turn_deg = d.between(0, 360);
    saw.shift_mm = d.between(0, saw.thickness_mm);
    auto sawn = make_slabs(log, saw, {}, {plan.mm_per_px, plan.mm_per_px > 0});
    if (sawn.size() > plan.most) {
        const auto first = static_cast<std::ptrdiff_t>(d.roll() * static_cast<double>(sawn.size() - plan.most + 1));
        sawn = {sawn.begin() + first, sawn.begin() + first + static_cast<std::ptrdiff_t>(plan.most)};
    }
    Yard y;
    for (const SawnSlab& s : sawn) y.pile.push_back(picked_up(s, d, plan));
    for (int k = 0; k < plan.strangers; ++k) {
        const GrownLog other(drawn_recipe(5000 + seed + 1000 * static_cast<std::uint64_t>(k), wood, length, butt * d.between(0.85, 1.15)));
        const auto all = make_slabs(other, saw, {}, {});
        y.pile.push_back(picked_up(all[static_cast<std::size_t>(d.roll() * static_cast<double>(all.size()))], d, plan));
        y.pile.back().number = 100 + 7 * k;
    }
    std::mt19937 random(static_cast<unsigned>(seed));
    std::shuffle(y.pile.begin(), y.pile.end(), random);
    return y;
}

/// Right when the order and every turn are the log's own, or those of the whole log upside down or end for end; slabs of
/// other logs, and nobody else, are told as strangers.
inline bool right(const Yard& y, const Sequence& s) {
    if (s.places.size() != y.pile.size()) return false;
    std::vector<const SequencePlace*> own;
    for (const SequencePlace& p : s.places) {
        if (p.stranger != (y.pile[p.item].number >= 100)) return false;
        if (!p.stranger) own.push_back(&p);
    }
    const bool up = y.pile[own.front()->item].number < y.pile[own.back()->item].number;
    const bool ended = own[0]->ended != y.pile[own[0]->item].ended;
    for (std::size_t k = 0; k < own.size(); ++k) {
        const YardSlab& p = y.pile[own[k]->item];
        if (k > 0 && p.number - y.pile[own[k - 1]->item].number != (up ? 1 : -1)) return false;
        // Upside down, every slab has to be told turned the other way.
        if ((own[k]->over == p.over) != up) return false;
        if ((own[k]->ended != p.ended) != ended) return false;
    }
    return true;
}

}  // namespace yb
