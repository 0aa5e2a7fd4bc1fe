// The order of a log's slabs: made logs whose order is known, and bad pins.
#include <catch2/catch.hpp>

#include <numeric>
#include <random>

#include "core/lay/sequence.h"
#include "core/tree/noise.h"
#include "core/tree/saw.h"

using namespace yb;

namespace {

/// A slab turned over and end for end as a pile in a yard lies, its picture with it.
struct Shuffled {
    Slab slab;
    SlabShape shape;
    Picture a, b;
    bool over = false, ended = false;
    int number = 0;
};

Picture turned_round(const Picture& p) {
    Picture out(p.width, p.height);
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) std::copy_n(p.at(x, y), 3, out.at(p.width - 1 - x, p.height - 1 - y));
    return out;
}

Shuffled shuffled(const SawnSlab& s, bool over, bool ended, double slid) {
    Shuffled out;
    out.over = over, out.ended = ended;
    out.number = s.board.number;
    Slab slab = s.slab;
    slab.heights_a = slab.heights_b = {};
    out.a = s.face_a, out.b = s.face_b;
    if (over) slab = turned_over(slab), std::swap(out.a, out.b);
    if (ended) {
        const double length = s.truth.x0 + s.truth.x1;
        const auto round = [&](Vec2 p) { return Vec2{length - p.x, -p.y}; };
        for (Ring* r : {&slab.outline->a, &slab.outline->b})
            for (Vec2& p : *r) p = round(p);
        for (Flaw& f : slab.flaws)
            for (Vec2& p : f.outline) p = round(p);
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
    for (Ring* r : {&slab.outline->a, &slab.outline->b})
        for (Vec2& p : *r) p.y += slid;
    for (Flaw& f : slab.flaws)
        for (Vec2& p : f.outline) p.y += slid;
    for (auto* p : {&slab.picture_a, &slab.picture_b})
        if (*p) (*p)->corner.y += slid;
    out.slab = slab;
    out.shape = shape_of(slab);
    return out;
}

struct Yard {
    std::vector<Shuffled> pile;
    std::vector<SequenceItem> items(bool pictures) const {
        std::vector<SequenceItem> out;
        for (const Shuffled& s : pile) out.push_back({&s.slab, &s.shape, pictures ? &s.a : nullptr, pictures ? &s.b : nullptr, {}, {}, {}});
        return out;
    }
};

Yard yard(std::uint64_t seed, double mm_per_px, std::size_t most = 8) {
    const GrownLog log(drawn_recipe(seed, "sycamore, American", 2200, 560));
    SawPlan saw;
    saw.thickness_mm = 48;
    auto sawn = make_slabs(log, saw, {}, {mm_per_px, true});
    if (sawn.size() > most) sawn.resize(most);
    Dice d(seed, 99);
    Yard y;
    for (const SawnSlab& s : sawn) y.pile.push_back(shuffled(s, d.roll() < 0.5, d.roll() < 0.5, d.between(-30, 30)));
    std::mt19937 random(static_cast<unsigned>(seed));
    std::shuffle(y.pile.begin(), y.pile.end(), random);
    return y;
}

/// Right when the order and every turn are the log's own, or those of the whole log upside down or end for end.
bool right(const Yard& y, const Sequence& s) {
    if (s.places.size() != y.pile.size()) return false;
    const bool up = y.pile[s.places.front().item].number < y.pile[s.places.back().item].number;
    const bool ended = s.places[0].ended != y.pile[s.places[0].item].ended;
    for (std::size_t k = 0; k < s.places.size(); ++k) {
        const Shuffled& p = y.pile[s.places[k].item];
        if (k > 0) {
            const int step = p.number - y.pile[s.places[k - 1].item].number;
            if (step != (up ? 1 : -1)) return false;
        }
        // Upside down, every slab has to be told turned the other way.
        if ((s.places[k].over == p.over) != up) return false;
        if ((s.places[k].ended != p.ended) != ended) return false;
    }
    return true;
}

}  // namespace

TEST_CASE("shuffled slabs are put back as they were sawn, with pictures", "[sequence][grown]") {
    int good = 0;
    int all = 0;
    for (std::uint64_t seed = 1; seed <= 6; ++seed) {
        const Yard y = yard(seed, 4);
        const Sequence s = put_in_order(y.items(true));
        good += right(y, s);
        ++all;
        CHECK(s.exact);
    }
    CHECK(good >= all - 1);
}

TEST_CASE("pins are kept and contradictions said", "[sequence]") {
    const Yard y = yard(4, 0, 4);
    auto items = y.items(false);
    items[2].position = 0;
    items[2].over = true;
    items[2].ended = true;
    const Sequence s = put_in_order(items);
    CHECK(s.places[0].item == 2);
    CHECK(s.places[0].over);
    CHECK(s.places[0].ended);
    items[1].position = 0;
    CHECK_THROWS_WITH(put_in_order(items), Catch::Contains("pinned to one place"));
    items[1].position = 9;
    CHECK_THROWS_WITH(put_in_order(items), Catch::Contains("there is not"));
    Slab bare;
    bare.name = "bare";
    const SlabShape none;
    CHECK_THROWS_WITH(put_in_order({{&bare, &none, nullptr, nullptr, {}, {}, {}}}), Catch::Contains("no outline"));
    CHECK(put_in_order({}).places.empty());
    Work stopped;
    std::stop_source source;
    source.request_stop();
    stopped.stop = source.get_token();
    CHECK_THROWS_AS(put_in_order(y.items(false), stopped), Cancelled);
}
