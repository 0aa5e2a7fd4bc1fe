// Long work: every part done once, faults and stops come out where they were asked for.
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>

#include <atomic>
#include <set>
#include <vector>

#include "core/ground/geometry/noise.h"
#include "core/ground/work/work.h"

using namespace yb;

TEST_CASE("every index is worked on once, on any number of cores", "[work]") {
    for (const unsigned threads : {0U, 1U, 2U, 7U}) {
        std::vector<std::atomic<int>> seen(5000);
        in_parallel(seen.size(), [&](std::size_t i) { ++seen[i]; }, {{}, {}, threads});
        for (const auto& n : seen) CHECK(n == 1);
    }
    in_parallel(0, [](std::size_t) { FAIL("there is nothing to do"); });
}

TEST_CASE("the first fault comes out, a stop stops", "[work]") {
    CHECK_THROWS_AS(in_parallel(100,
                                [](std::size_t i) {
                                    if (i == 40) throw std::out_of_range("forty");
                                }),
                    std::out_of_range);
    std::stop_source stop;
    std::atomic<int> done = 0;
    CHECK_THROWS_AS(in_parallel(100000,
                                [&](std::size_t) {
                                    if (++done == 50) stop.request_stop();
                                },
                                {{}, stop.get_token(), 2}),
                    Cancelled);
    CHECK(done < 100000);
    CHECK_THROWS_AS(Work({{}, stop.get_token(), 0}).check(), Cancelled);
}

TEST_CASE("progress rises to the whole, a part to its stretch", "[work]") {
    std::vector<double> told;
    Work w;
    w.progress = [&](double share) { told.push_back(share); };
    in_parallel(
        200, [](std::size_t) {}, w);
    REQUIRE_FALSE(told.empty());
    CHECK(std::is_sorted(told.begin(), told.end()));
    CHECK(told.back() == Approx(1));
    told.clear();
    const Work part = w.part(0.2, 0.6).part(0.5, 1);
    part.tell(0);
    part.tell(0.5);
    part.tell(1);
    CHECK(told == std::vector<double>{0.4, 0.5, 0.6});
}

TEST_CASE("noise is the same everywhere, smooth, and fills its range evenly", "[work][noise]") {
    NoiseWalk walk;
    double sum = 0;
    double most = -1;
    double least = 1;
    for (int i = 0; i < 4000; ++i) {
        const double x = i * 0.037;
        const double y = 3 - i * 0.011;
        const double z = i * 0.0021;
        const double v = noise3(x, y, z, 9);
        CHECK(walk.at(x, y, z, 9) == Approx(v).margin(1e-12));  // the walk gives the same values
        CHECK(std::abs(noise3(x + 1e-4, y, z, 9) - v) < 1e-3);
        sum += v;
        most = std::max(most, v);
        least = std::min(least, v);
        CHECK(noise(x, y, 9) == noise(x, y, 9));
        CHECK(eased(0.5) == 0.5);
        CHECK(floored(-x) == std::floor(-x));
    }
    CHECK(std::abs(sum / 4000) < 0.1);
    CHECK(most > 0.5);
    CHECK(least < -0.5);
    std::set<double> values;
    for (int i = 0; i < 1000; ++i) values.insert(hash01(i, -i, 3));
    CHECK(values.size() > 990);
    CHECK(*values.begin() >= 0);
    CHECK(*values.rbegin() <= 1);
}

TEST_CASE("a forked child works on threads of its own", "[work]") {
    std::atomic<int> before{0};
    in_parallel(64, [&](std::size_t) { ++before; });
    REQUIRE(before == 64);
    // Its parent's threads wait for work meanwhile: what they hold must not stop the child.
    for (int i = 0; i < 20; ++i) {
        const pid_t child = fork();
        if (child == 0) {
            std::atomic<int> done{0};
            in_parallel(64, [&](std::size_t) { ++done; });
            _exit(done == 64 ? 0 : 1);
        }
        REQUIRE(child > 0);
        int status = 0;
        REQUIRE(waitpid(child, &status, 0) == child);
        CHECK(WIFEXITED(status));
        CHECK(WEXITSTATUS(status) == 0);
    }
}
