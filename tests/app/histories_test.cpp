// Whole histories are undone and done again with every step on screen: nothing on the bench is drawn that is not there any more.
#include <array>
#include <filesystem>
#include <fstream>

#include "app/ground/slow/runner.h"
#include "core/shop/edit/shop_edits.h"
#include "core/shop/job/documents.h"
#include "core/shop/job/job.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/steps.h"
#include "tests/app/desk.h"
#include "tests/fuzz/hand.h"
#include "tests/how_much.h"

using namespace yb;

namespace {

/// From nothing to a top of two leaves with voids, a patch and a base.
void make_a_history(Desk& d) {
    Session& s = d.session();
    d.click("new_slab");
    d.keys("300\t300\t\t\t52\n310\t305\n300\t300\n305\t310\n300\t300\n300\t300\n300\t300\n");
    d.click("heights_grid");
    d.keys("1.5\n2\n");
    s.edit_slab("Wood", [](Slab& slab) {
        slab.species = "butternut";
        slab.tree = "tarn";
        slab.flaws.push_back({"f1", FlawKind::crack, Face::a, {{500, -10}, {700, -6}, {700, 8}, {500, 10}}, true, {}, 1, ""});
    });
    d.click("copy_slab");
    const std::string copy = s.slab()->id;
    d.click("new_job");
    d.click("step_rack");
    for (const auto& [id, slab] : s.slabs())
        if (!s.uses(id)) s.look_at(QString::fromStdString(id));
    d.click("add_leaf");
    s.edit_job("Shorter", [](Job& j) { j.top.length_mm = 1200; });
    d.click("step_under");
    s.edit_job("Plates", [](Job& j) { j.under.plates = {{-300, 0, 100, 400, 3, 1}, {300, 0, 100, 400, 3, 1}}; });
    s.edit_job("A tie", [](Job& j) { j.join.ties = {{0, 50, 0, 90, 36, 12, true}}; });
    s.edit_job("A river", [](Job& j) { j.makeup.kind = MakeUp::river; });
}

}  // namespace

TEST_CASE("whole histories are undone and redone with each step on screen", "[app][undo]") {
    Desk d(false);
    d.session().create(d.shop(), Documents());
    d.window->open_shop(d.shop());
    make_a_history(d);
    const Documents end = d.session().documents();
    constexpr std::array on_screen{"rack", "lay", "flat", "fill", "pour", "join", "under", "sheets"};
    int undone = 0;
    // Each time round another step stands on the screen when a thing goes or comes.
    for (std::size_t round = 0; round < 3; ++round) {
        std::size_t n = 3 * round;
        const auto look = [&] {
            d.session().set_step(Step{on_screen[n++ % on_screen.size()]});
            d.window->grab();
            QApplication::processEvents();
            d.session().pick_next(1);
        };
        look();
        while (d.session().can_undo()) d.session().undo(), look(), ++undone;
        CHECK(d.session().documents().slabs.empty());
        CHECK(d.session().documents().jobs.empty());
        while (d.session().can_redo()) d.session().redo(), look();
        CHECK(d.session().documents() == end);
    }
    CHECK(undone > 60);
    wait_for_all();
}

TEST_CASE("every step is drawn with nothing there, with a slab alone, and with a job whose slab has gone", "[app][undo]") {
    Desk d(false);
    d.session().create(d.shop(), Documents());
    d.window->open_shop(d.shop());
    const auto all_steps = [&] {
        for (const char* step : {"rack", "lay", "flat", "fill", "pour", "join", "under", "sheets"}) {
            d.session().set_step(Step{step});
            d.window->grab();
        }
    };
    all_steps();
    d.session().set_step(step_key::rack);
    d.click("new_slab");
    all_steps();
    d.session().edit("A job of two without slabs", [](Documents& docs) {
        Job j;
        j.id = "j";
        j.leaves.resize(2);
        docs.jobs["j"] = j;
    });
    d.session().set_job("j");
    all_steps();
    d.session().edit_job("Slabs that are not there", [](Job& j) { j.leaves[0].slab = "gone", j.leaves[1].slab = "gone too"; });
    all_steps();
    d.session().set_step(step_key::rack);
    d.session().look_at("never was");
    d.window->grab();
    CHECK(d.session().step() == step_key::rack);
}

TEST_CASE("whatever a hand does to a shop is drawn after each move, in every step in turn", "[app][undo][fuzz]") {
    namespace fs = std::filesystem;
    int seen = 0;
    int taken = 0;
    for (const auto& entry : fs::directory_iterator(fs::path(YB_SOURCE) / "tests/fuzz/corpus/hand")) {
        // The core replays all of them (tests/fuzz); by default the first of them is drawn too.
        if (!in_full() && ++taken != 1) continue;
        INFO(entry.path().filename().string());
        std::ifstream in(entry.path(), std::ios::binary);
        Desk d;
        play({std::istreambuf_iterator<char>(in), {}}, [&](const Documents& docs, const std::string& job, const Plan&) {
            d.session().edit("A hand", [&](Documents& now) { now = docs; });
            d.session().set_job(QString::fromStdString(job));
            d.session().set_step(steps()[static_cast<std::size_t>(seen) % steps().size()].step);
            const QImage image = d.window->grab().toImage();
            CHECK(image.width() > 500);
            ++seen;
        });
        CHECK(d.session().is_open());
    }
    CHECK(seen > so_many(5, 60));
    wait_for_all();
}
