// Flattening on a machine: the program is swept by an interpreter of the test's own over the real surface.
#include <cmath>
#include <map>
#include <sstream>

#include <catch2/catch.hpp>

#include "core/files/io/json.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/steps/flat/machine.h"
#include "demo/demo.h"
#include "tests/everything.h"

using namespace yb;

namespace {

/// Reads a program and moves a flat cutter over a grid of heights.
class Sweep {
  public:
    Sweep(const MachinedSide& side, double cutter, double step) : radius_(cutter / 2), step_(step) {
        const Box box = bounds(side.piece);
        nx_ = static_cast<int>(box.width() / step) + 1;
        ny_ = static_cast<int>(box.height() / step) + 1;
        height_.assign(static_cast<std::size_t>(nx_ * ny_), -1e9);
        for (int i = 0; i < nx_; ++i)
            for (int j = 0; j < ny_; ++j)
                if (contains(side.piece, {i * step, j * step})) at(i, j) = side.before({i * step, j * step});
    }

    void run(const std::string& program) {
        std::istringstream in(program);
        std::string line;
        int n = 0;
        while (std::getline(in, line)) {
            ++n;
            if (const auto open = line.find('('); open != std::string::npos) line.erase(open, line.find(')', open) - open + 1);
            std::istringstream words(line);
            std::string word;
            std::map<char, double> now;
            while (words >> word) {
                REQUIRE(word.size() > 1);
                const double v = std::stod(word.substr(1));
                const std::string allowed = "GXYZFSTNM";
                REQUIRE(allowed.find(word[0]) != std::string::npos);
                if (word[0] == 'G') {
                    const int g = static_cast<int>(v);
                    REQUIRE((g == 0 || g == 1 || g == 4 || g == 17 || g == 20 || g == 21 || g == 54 || g == 90 || g == 94));
                    if (g == 20 || g == 21) unit_ = g == 20 ? 25.4 : 1;
                    if (g == 90) absolute_ = true;
                    if (g == 0 || g == 1) motion_ = g;
                    now['G'] = g;
                } else if (word[0] == 'M') {
                    const int m = static_cast<int>(v);
                    REQUIRE((m == 2 || m == 3 || m == 5 || m == 30));
                    if (m == 3) turning_ = true, speed_ = true;
                    if (m == 5) turning_ = false;
                    if (m == 2 || m == 30) ended = true;
                } else {
                    now[word[0]] = v;
                }
            }
            if (now.count('F')) fed_ = true;
            const bool moves = now.count('X') || now.count('Y') || now.count('Z');
            if (!moves) continue;
            INFO("line " << n << ": " << line);
            REQUIRE(unit_ > 0);
            REQUIRE(absolute_);
            if (!known_) REQUIRE((now.count('Z') && !now.count('X') && !now.count('Y')));  // where it stands is not known
            Vec3 to = here_;
            if (now.count('X')) to.x = now['X'] * unit_;
            if (now.count('Y')) to.y = now['Y'] * unit_;
            if (now.count('Z')) to.z = now['Z'] * unit_;
            if (motion_ == 0) {
                const double low = std::min(known_ ? here_.z : to.z, to.z);
                if (known_ && placed_) rapid_over(here_, to, low);
            } else {
                REQUIRE(fed_);
                REQUIRE(turning_);
                cut(here_, to);
            }
            if (now.count('X') && now.count('Y')) placed_ = true;
            known_ = true;
            here_ = to;
        }
    }

    int points() const {
        return static_cast<int>(std::count_if(height_.begin(), height_.end(), [](double h) { return h > -1e8; }));
    }
    double& at(int i, int j) { return height_[static_cast<std::size_t>(i * ny_ + j)]; }
    int nx() const { return nx_; }
    int ny() const { return ny_; }

    bool ended = false;
    double deepest = 0;    ///< of wood taken at once
    int through_wood = 0;  ///< rapids that met wood
    double cut_mm = 0;

  private:
    template <class F>
    void near(Vec3 a, Vec3 b, F with) {
        const int i0 = std::max(0, static_cast<int>(std::floor((std::min(a.x, b.x) - radius_) / step_)));
        const int i1 = std::min(nx_ - 1, static_cast<int>(std::ceil((std::max(a.x, b.x) + radius_) / step_)));
        const int j0 = std::max(0, static_cast<int>(std::floor((std::min(a.y, b.y) - radius_) / step_)));
        const int j1 = std::min(ny_ - 1, static_cast<int>(std::ceil((std::max(a.y, b.y) + radius_) / step_)));
        const double dx = b.x - a.x;
        const double dy = b.y - a.y;
        const double l2 = dx * dx + dy * dy;
        for (int i = i0; i <= i1; ++i)
            for (int j = j0; j <= j1; ++j) {
                const double px = i * step_ - a.x;
                const double py = j * step_ - a.y;
                const double t = l2 > 0 ? std::clamp((px * dx + py * dy) / l2, 0.0, 1.0) : 0;
                const double ex = px - t * dx;
                const double ey = py - t * dy;
                if (ex * ex + ey * ey <= radius_ * radius_ + 1e-9) with(at(i, j));
            }
    }
    void rapid_over(Vec3 a, Vec3 b, double low) {
        near(a, b, [&](double h) { through_wood += h > low + 1e-6; });
    }
    void cut(Vec3 a, Vec3 b) {
        const double z = std::min(a.z, b.z);
        near(a, b, [&](double& h) {
            if (h > z) deepest = std::max(deepest, h - z), h = z;
        });
        cut_mm += std::hypot(b.x - a.x, b.y - a.y);
    }

    double radius_, step_;
    int nx_ = 0, ny_ = 0;
    std::vector<double> height_;
    double unit_ = 0;
    bool absolute_ = false, turning_ = false, speed_ = false, fed_ = false, known_ = false, placed_ = false;
    int motion_ = 0;
    Vec3 here_{};
};

struct Made {
    MachinedSide side;
    Sled sled;
    std::string program;
};

Made made(const Documents& docs, const std::string& job, std::size_t leaf, bool first, bool inch, LaneWay lanes = LaneWay::across) {
    Job j = docs.jobs.at(job);
    j.flat.lanes = lanes;
    const Plan plan = plan_job(j, docs);
    Made m{machined_side(*plan.leaves.at(leaf).flat, *plan.leaves.at(leaf).lay, docs.shop.sled, j.flat, first), docs.shop.sled, {}};
    m.program = to_gcode(m.side, m.sled, {j.name, plan.leaves.at(leaf).slab().name, first, inch});
    return m;
}

void swept(const Made& m) {
    Sweep sweep(m.side, m.sled.cutter_mm, 5);
    REQUIRE(sweep.points() > 5000);
    sweep.run(m.program);
    CHECK(sweep.ended);
    CHECK(sweep.through_wood == 0);
    CHECK(sweep.deepest <= m.sled.depth_mm + 0.002);
    double worst = 0;
    for (int i = 0; i < sweep.nx(); ++i)
        for (int j = 0; j < sweep.ny(); ++j)
            if (const double h = sweep.at(i, j); h > -1e8) worst = std::max(worst, std::abs(h - m.side.after({i * 5.0, j * 5.0})));
    CHECK(worst <= 0.01);
}

}  // namespace

TEST_CASE("the program leaves the planned surface, takes no more than its layer, and hurries through no wood", "[flat][gcode]") {
    const Documents docs = demo_shop();
    for (const auto& [id, job] : docs.jobs) {
        if (id == "job-drawing-table") continue;  // too thin: nothing is left of it
        for (const bool first : {true, false}) {
            INFO(id << (first ? " first" : " second"));
            swept(made(docs, id, 0, first, id == "job-hall-table"));
        }
    }
    swept(made(docs, "job-tarn-river", 1, true, true));
}

TEST_CASE("lanes along the slab leave the same surface as lanes across it", "[flat][gcode]") {
    const Documents docs = demo_shop();
    for (const char* id : {"job-reading-table", "job-hall-table"})
        for (const bool first : {true, false}) {
            INFO(id << (first ? " first" : " second"));
            const Made along = made(docs, id, 0, first, false, LaneWay::along);
            swept(along);
            // The same layers, and no more lanes than the piece is wide.
            const Made across = made(docs, id, 0, first, false);
            CHECK(along.side.levels_mm.size() == across.side.levels_mm.size());
            CHECK(along.side.highest_mm == Approx(across.side.highest_mm).margin(0.5));  // lanes reach half a step past the piece
            for (const MachinePass& p : machine_passes(along.side, along.sled)) {
                CHECK(p.lane_mm <= bounds(along.side.piece).height() + 1e-9);
                CHECK(std::max(p.from_mm, p.to_mm) > 0);
            }
        }
}

TEST_CASE("a program says its cutter, its layer and its zero first, and is short where little stands", "[flat][gcode]") {
    const Documents docs = demo_shop();
    const Made m = made(docs, "job-reading-table", 0, true, false);
    std::istringstream in(m.program);
    std::string head;
    std::string line;
    for (int i = 0; i < 20 && std::getline(in, line); ++i) head += line + "\n";
    CHECK(head.find("(cutter diameter 38 mm)") != std::string::npos);
    CHECK(head.find("(layer depth 3 mm)") != std::string::npos);
    CHECK(head.find("Z0 the finished face") != std::string::npos);
    CHECK(head.find("X runs along the slab") != std::string::npos);
    CHECK(head.find("pins for turning over") != std::string::npos);
    for (const char c : m.program) CHECK((static_cast<unsigned char>(c) < 128));
    // Lanes with no wood above the layer are not gone over.
    const auto passes = machine_passes(m.side, m.sled);
    const auto all = m.side.levels_mm.size() * static_cast<std::size_t>(lanes_for(bounds(m.side.piece).width(), m.sled));
    CHECK(static_cast<double>(passes.size()) < 1.2 * static_cast<double>(all));
    for (const MachinePass& p : passes) CHECK(p.lane_mm <= bounds(m.side.piece).width() + 1e-9);
}

TEST_CASE("a plain board is cut in the lanes and layers counted by hand", "[flat][gcode]") {
    // 2.5 mm stand above the finished face everywhere, 600 by 300; a cutter of 40 half over: lanes at 0, 20 … 600, 31 of them;
    // layers of 1 mm with 0.5 left for after the rest: down to 1.5, 0.5, then 0.
    Sled sled;
    sled.cutter_mm = 40;
    sled.depth_mm = 1;
    MachinedSide side;
    side.rough = {{100, -150}, {700, 150}};
    side.piece = {{0, 0}, {600, 0}, {600, 300}, {0, 300}};
    side.off = Surface({0, 900}, {-200, 200}, {2.5, 2.5, 2.5, 2.5});
    side.highest_mm = 2.5;
    const Layers layers = layers_of(2.5, 0.5, sled);
    CHECK(layers.levels_mm == std::vector<double>{1.5, 0.5, 0});
    CHECK(layers.last == 1);
    side.levels_mm = layers.levels_mm, side.last_layers = layers.last;
    const auto passes = machine_passes(side, sled);
    REQUIRE(passes.size() == 3 * 31);
    CHECK(passes[0].from_mm == Approx(-23));
    CHECK(passes[0].to_mm == Approx(323));
    CHECK(passes[1].lane_mm == Approx(20));
    CHECK(passes[1].from_mm > passes[1].to_mm);  // back again
    swept({side, sled, to_gcode(side, sled, {"a", "b", true, false})});
    CHECK(layers_of(0, 1, sled).levels_mm.empty());
    // Turned over, what lay near lies far.
    side.face = Face::b;
    CHECK(side.to_machine({100, 150}).y == Approx(0));
    CHECK(side.to_slab(side.to_machine({333, 44})).y == Approx(44));
    CHECK(most_rpm(38) == Approx(17500));
    CHECK(most_rpm(80) == Approx(8300));
    CHECK(most_rpm(6) == Approx(18000));
}

TEST_CASE("the face before and after lies on one grid, and bad settings are told", "[flat][gcode]") {
    const Documents docs = demo_shop();
    const Made m = made(docs, "job-reading-table", 0, false, false);
    const auto before = surface_points(m.side, false, 20);
    const auto after = surface_points(m.side, true, 20);
    REQUIRE(before.size() == after.size());
    REQUIRE(before.size() > 4000);
    double most = 0;
    for (std::size_t i = 0; i < before.size(); ++i) {
        CHECK((before[i].x == after[i].x && before[i].y == after[i].y));
        CHECK(after[i].z == Approx(std::min(before[i].z, 0.0)).margin(1e-12));
        most = std::max(most, before[i].z);
    }
    CHECK(most <= m.side.highest_mm + 1e-9);
    CHECK(most > 0.9 * m.side.highest_mm);
    CHECK_THROWS_AS(surface_points(m.side, false, 0), std::invalid_argument);
    CHECK_THROWS_AS(surface_points(m.side, false, 0.01), std::invalid_argument);
    const Plan plan = plan_job(docs.jobs.at("job-reading-table"), docs);
    Sled sled = docs.shop.sled;
    sled.cutter_mm = 2000;
    CHECK_THROWS_AS(machined_side(*plan.flat, *plan.lay, sled, {}, true), std::invalid_argument);
    sled = docs.shop.sled;
    sled.depth_mm = 0;
    CHECK_THROWS_AS(machined_side(*plan.flat, *plan.lay, sled, {}, true), std::invalid_argument);
    CHECK_THROWS_AS(machined_side(FlatPlan(), LayPlan(), docs.shop.sled, {}, true), std::invalid_argument);
}
