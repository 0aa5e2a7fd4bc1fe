// The order of a log's slabs: grown logs whose order is known, and bad pins.
#include <catch2/catch.hpp>

#include <cstdlib>
#include <numeric>

#include "tests/everything.h"
#include "tests/how_much.h"
#include "tests/steps/match/pile.h"

using namespace yb;

namespace {

/// A share of the hundred logs in each run, all of them in the whole.
std::uint64_t logs() { return so_many(16, 100); }

int right_of(std::uint64_t n, const YardPlan& plan) {
    int good = 0;
    for (std::uint64_t seed = 0; seed < n; ++seed) {
        const Yard y = yard(seed, plan);
        good += right(y, put_in_order(y.items(plan.mm_per_px > 0)));
    }
    return good;
}

}  // namespace

TEST_CASE("shuffled slabs are put back as they were sawn", "[sequence][grown]") {
    const auto n = static_cast<double>(logs());
    CHECK(right_of(logs(), {}) >= 0.95 * n);
    CHECK(right_of(logs(), {Read::askew}) >= 0.90 * n);
    CHECK(right_of(logs(), {Read::tape}) >= 0.80 * n);
}

TEST_CASE("a rough tape under chalk lines that run askew: right or unsure, hardly ever surely wrong", "[sequence][grown]") {
    int good = 0;
    int sure = 0;
    int surely_wrong = 0;
    const std::uint64_t n = logs();
    for (std::uint64_t seed = 0; seed < n; ++seed) {
        YardPlan plan{Read::tape};
        plan.crooked = true;
        const Yard y = yard(seed, plan);
        const Sequence s = put_in_order(y.items());
        const bool ok = right(y, s);
        good += ok;
        if (s.confidence < 0.9) continue;
        ++sure, surely_wrong += !ok;
        // Sisters that are called strangers are never called so for certain.
        if (!ok) CHECK(s.confidence < 0.99);
    }
    CHECK(good >= static_cast<int>(n) / 2);
    CHECK(sure >= static_cast<int>(n) / 4);
    CHECK(surely_wrong <= static_cast<int>(n) / 10);
}

TEST_CASE("pictures of the faces are compared too", "[sequence][grown]") {
    for (const std::uint64_t seed : {std::uint64_t{2}, std::uint64_t{3}}) {
        YardPlan plan{Read::traced, 5, 5};
        const Yard y = yard(seed, plan);
        // Without knots and with edges that all look alike the pictures are what is left.
        Yard bare = y;
        for (YardSlab& s : bare.pile) s.slab.flaws.clear();
        const Sequence with = put_in_order(bare.items(true));
        CHECK(right(y, with));
        CHECK(with.cost < put_in_order(bare.items(false)).cost);
        CHECK(right(y, put_in_order(y.items(true))));
    }
}

TEST_CASE("how sure an order is means what it says, on readings poor enough to err", "[sequence][grown]") {
    int told = 0;
    int held = 0;
    int wrong = 0;
    const std::uint64_t n = 4 * logs();
    for (std::uint64_t seed = 0; seed < n; ++seed) {
        const Yard y = yard(seed, {Read::tape, 0, 10, 12, 1});
        const Sequence s = put_in_order(y.items());
        const bool good = right(y, s);
        wrong += !good;
        if (s.confidence < 0.9) continue;
        ++told, held += good;
    }
    CHECK(wrong >= static_cast<int>(n) / 20);  // or nothing is tried
    CHECK(told >= static_cast<int>(n) / 5);    // it does say something
    CHECK(held >= 0.9 * told);
}

TEST_CASE("slabs of other logs are named and get no place among the others", "[sequence][grown]") {
    const std::uint64_t n = so_many(10, 100);
    const int good = right_of(n, {Read::traced, 0, 6, 3, 0.25, 2});
    CHECK(good >= 0.9 * static_cast<double>(n));
}

TEST_CASE("an order of two, and slabs that are the same", "[sequence]") {
    const Yard y = yard(2, {Read::traced, 0, 2});
    const Sequence two = put_in_order(y.items());
    CHECK(right(y, two));
    CHECK_FALSE(two.places[0].stranger);
    // Copies of one slab tell nothing apart: an order is found, and it is not sure of it.
    Yard same;
    for (int i = 0; i < 4; ++i) same.pile.push_back(y.pile[0]);
    const Sequence s = put_in_order(same.items());
    CHECK(s.places.size() == 4);
    CHECK(s.confidence < 0.6);
}

TEST_CASE("pins are kept and contradictions said", "[sequence]") {
    const Yard y = yard(4, {Read::traced, 0, 4});
    auto items = y.items();
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
    CHECK_THROWS_AS(put_in_order(y.items(), stopped), Cancelled);
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
    const std::vector<Slab> slabs{board("c", 0.44, false), board("a", 0.2, false), board("b", 0.32, true)};
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
