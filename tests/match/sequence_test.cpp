// The order of a log's slabs: made logs whose order is known, and bad pins.
#include <catch2/catch.hpp>

#include <numeric>
#include <random>

#include "core/match/sequence.h"
#include "core/tree/noise.h"
#include "core/tree/saw.h"
#include "tests/everything.h"

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

TEST_CASE("the order found is the cheapest of all orders and turns, each tried by pinning it", "[sequence]") {
    // Three boards of one crooked log, each with edges of its own; the middle one measured the other way round.
    const auto board = [](const char* id, double phase, bool ended) {
        Slab s;
        s.id = s.name = id;
        s.species = "butternut";
        TracedOutline o;
        Ring low;
        Ring high;
        for (double x = 0; x <= 1600; x += 20) {
            const double u = ended ? 1600 - x : x;
            const double bend = 30 * std::sin(u / 400 + phase) + 12 * std::sin(u / 110 + 3 * phase);
            const double y = ended ? -bend : bend;
            low.push_back({x, y - 180 - 10 * phase});
            high.push_back({x, y + 190 - 20 * phase});
        }
        low.insert(low.end(), high.rbegin(), high.rend());
        o.a = o.b = low;
        o.from = "drawing";
        s.outline = o;
        s.tape.stations = {{0, 200, 200, {}, {}, 50, {}}, {1600, 200, 200, {}, {}, 50, {}}};
        return s;
    };
    const std::vector<Slab> slabs{board("c", 0.9, false), board("a", 0.2, false), board("b", 0.5, true)};
    std::vector<SlabShape> shapes;
    for (const Slab& s : slabs) shapes.push_back(shape_of(s));
    std::vector<SequenceItem> items;
    for (std::size_t i = 0; i < slabs.size(); ++i) items.push_back({&slabs[i], &shapes[i], nullptr, nullptr, {}, {}, {}});
    const Sequence best = put_in_order(items);
    CHECK(best.exact);
    double least = 1e300;
    std::vector<int> order{0, 1, 2};
    do {
        for (unsigned turns = 0; turns < 64; ++turns) {
            for (std::size_t i = 0; i < 3; ++i) {
                items[i].position = order[i];
                items[i].over = (turns >> (2 * i) & 1U) != 0;
                items[i].ended = (turns >> (2 * i + 1) & 1U) != 0;
            }
            const Sequence one = put_in_order(items);
            for (std::size_t k = 0; k < 3; ++k) CHECK(order[one.places[k].item] == static_cast<int>(k));  // the pins are kept
            least = std::min(least, one.cost);
        }
    } while (std::next_permutation(order.begin(), order.end()));
    CHECK(best.cost == Approx(least).margin(1e-9));
    // And it is the log's own: a, b, c or c, b, a.
    CHECK(slabs[best.places[1].item].id == "b");
}
