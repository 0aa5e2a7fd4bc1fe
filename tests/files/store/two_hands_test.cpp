#include <algorithm>
#include <atomic>
#include <cstdio>
#include <set>
#include <thread>

#include "core/files/io/json.h"
#include "core/files/store/check.h"
#include "core/files/store/merge.h"
#include "core/ground/fields/walk.h"
#include "tests/files/store/folder.h"

using namespace yb;

TEST_CASE("two programs on one shop: no edit of either is lost", "[store][two]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    Store a = Store::open(path);
    Store b = Store::open(path);
    // Each by turns: a slab's note of its own, a field of one job that both work on, a slab of the same id added.
    std::map<std::string, std::string> notes;
    for (int i = 0; i < 10; ++i) {
        Store& s = i % 2 ? a : b;
        Documents d = s.documents();
        auto slab = std::next(d.slabs.begin(), i);
        slab->second.notes = "edit " + std::to_string(i);
        notes[slab->first] = slab->second.notes;
        Job& j = d.jobs.at("job-reading-table");
        if (i % 2) j.under.helpers = 2 + i;
        else j.flat.rest_h = 10 + i;
        CHECK(s.append("edit " + std::to_string(i), d) == (i > 0));
    }
    for (Store* s : {&a, &b}) s->catch_up();
    CHECK(a.documents() == b.documents());
    const Store again = Store::open(path);
    CHECK(again.documents() == a.documents());
    for (const auto& [id, note] : notes) CHECK(again.documents().slabs.at(id).notes == note);
    CHECK(again.documents().jobs.at("job-reading-table").under.helpers == 11);
    CHECK(again.documents().jobs.at("job-reading-table").flat.rest_h == 18);
    CHECK(again.history().size() == 11);
    CHECK(check_shop(path).ok);
}

TEST_CASE("what two programs add under one id both stays, what one took away and the other changed too", "[store][two]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    Documents first;
    first.slabs["slab-1"].id = "slab-1";
    first.slabs["slab-2"].id = "slab-2";
    { Store::create(path, first, "New shop"); }
    Store a = Store::open(path);
    Store b = Store::open(path);
    Documents mine = a.documents();
    mine.slabs["slab-3"].id = "slab-3";
    mine.slabs["slab-3"].name = "a's";
    mine.slabs.erase("slab-1");
    mine.slabs.erase("slab-2");
    CHECK_FALSE(a.append("a", mine));
    Documents other = b.documents();
    other.slabs["slab-3"].id = "slab-3";
    other.slabs["slab-3"].name = "b's";
    other.slabs.at("slab-2").notes = "read again";
    other.jobs["job-1"].id = "job-1";
    other.jobs["job-1"].first().slab = "slab-3";
    CHECK(b.append("b", other));
    CHECK(a.changed_beside());
    CHECK(a.catch_up());
    CHECK_FALSE(a.catch_up());
    const Documents& d = a.documents();
    REQUIRE(d.slabs.size() == 3);
    CHECK_FALSE(d.slabs.count("slab-1"));
    CHECK(d.slabs.at("slab-2").notes == "read again");
    CHECK(d.slabs.at("slab-3").name == "a's");
    const std::string& given = d.jobs.at("job-1").first().slab;
    CHECK(given != "slab-3");
    CHECK(d.slabs.at(given).name == "b's");
    CHECK(d.slabs.at(given).id == given);
}

TEST_CASE("undo takes nothing back that this program has not seen", "[store][two]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    Store a = Store::open(path);
    Store b = Store::open(path);
    Documents d = a.documents();
    d.shop.name = "By a";
    a.append("a", d);
    d = b.documents();
    d.slabs.begin()->second.notes = "by b";
    b.append("b", d);
    CHECK(a.undo());  // catches up first
    CHECK(a.documents().slabs.begin()->second.notes == "by b");
    CHECK(a.documents().shop.name == "By a");
    CHECK(a.undo_label() == "b");
    CHECK_FALSE(a.undo());
    CHECK(a.documents().slabs.begin()->second.notes != "by b");
    CHECK(b.redo_label().empty());
    CHECK(b.undo());  // the other one's undo is seen, not undone again
    CHECK(b.documents() == a.documents());
    CHECK_FALSE(b.redo());
    CHECK(b.documents().slabs.begin()->second.notes == "by b");
}

TEST_CASE("three-way: each hand's own fields and items, the later hand where both changed one", "[store][two]") {
    const Json base = parse_json(R"({"a": 1, "b": {"c": [1, 2, 3], "d": 4}, "gone": 5})");
    const Json mine = parse_json(R"({"a": 2, "b": {"c": [1, 9, 3], "d": 4}, "new": 7})");
    const Json theirs = parse_json(R"({"a": 1, "b": {"c": [8, 2, 3], "d": 6}, "gone": 5, "other": 8})");
    const Json both = merged_json(base, mine, theirs);
    CHECK(both == parse_json(R"({"a": 2, "b": {"c": [8, 9, 3], "d": 6}, "other": 8, "new": 7})"));
    CHECK(merged_json(base, base, theirs) == theirs);
    CHECK(merged_json(base, mine, base) == mine);
    CHECK(merged_json(base, parse_json(R"({"a": 3})"), parse_json(R"({"a": 4})"))["a"] == 3);
    // Lists of numbers that grew are one hand's whole.
    CHECK(merged_json(Json{1, 2}, Json{1, 2, 3}, Json{1, 5}) == Json({1, 2, 3}));
}

TEST_CASE("lists of two hands: what either added stays, what one took away goes unless the other changed it", "[store][two]") {
    const auto merged = [](const char* field, const char* base, const char* mine, const char* theirs) {
        return merged_json(parse_json(base), parse_json(mine), parse_json(theirs), field).dump();
    };
    const auto list = [](const char* text) { return parse_json(text).dump(); };
    CHECK(merged("done", "[]", R"([{"key":"a"}])", R"([{"key":"b"}])") == list(R"([{"key":"a"},{"key":"b"}])"));
    CHECK(merged("done", R"([{"key":"a"},{"key":"b"}])", R"([{"key":"b"},{"key":"c"}])", R"([{"key":"a"},{"key":"b"},{"key":"d"}])") ==
          list(R"([{"key":"b"},{"key":"c"},{"key":"d"}])"));
    CHECK(merged("done", R"([{"key":"a","took_h":1}])", "[]", R"([{"key":"a","took_h":2},{"key":"b"}])") ==
          list(R"([{"key":"a","took_h":2},{"key":"b"}])"));
    CHECK(merged("done", R"([{"key":"a","at":"1","name":"x"}])", R"([{"key":"a","at":"2","name":"x"}])",
                 R"([{"key":"a","at":"1","name":"y"},{"key":"b"}])") == list(R"([{"key":"a","at":"2","name":"y"},{"key":"b"}])"));
    // What the program names is two things where both hands made one.
    CHECK(merged("flaws", "[]", R"([{"id":"flaw-1","depth_mm":3}])", R"([{"id":"flaw-1","depth_mm":9}])") ==
          list(R"([{"id":"flaw-1","depth_mm":9},{"id":"flaw-2","depth_mm":3}])"));
    CHECK(merged("flaws", "[]", R"([{"id":"flaw-1"}])", R"([{"id":"flaw-1"}])") == list(R"([{"id":"flaw-1"}])"));
    // Readings have no names: the same twice is twice, and places hold where none was added.
    CHECK(merged("readings", R"([{"t":1}])", R"([{"t":1},{"t":1}])", R"([{"t":1},{"t":2}])") == list(R"([{"t":1},{"t":1},{"t":2}])"));
    CHECK(merged("plates", R"([{"u":1},{"u":2}])", R"([{"u":1},{"u":5}])", R"([{"u":4},{"u":2}])") == list(R"([{"u":4},{"u":5}])"));
    // A make-up hangs together: one hand's whole.
    CHECK(merged("leaves", R"([{"slab":"a"}])", R"([{"slab":"a"},{"slab":"b"}])", R"([{"slab":"c"},{"slab":"d"},{"slab":"e"}])") ==
          list(R"([{"slab":"a"},{"slab":"b"}])"));
}

TEST_CASE("every list of our documents is one that two hands can merge", "[store][two]") {
    Shop shop;
    Job job;
    Slab slab;
    // "leaves[0].supports[0].x_mm": the names before the brackets.
    std::set<std::string> found;
    for (const FieldWalk& walk : {walk_of(shop), walk_of(job), walk_of(slab)})
        for (const FieldLine& d : describe(walk))
            for (std::size_t at = d.path.find('['); at != std::string::npos; at = d.path.find('[', at + 1)) {
                const std::size_t dot = d.path.rfind('.', at);
                found.insert(d.path.substr(dot == std::string::npos ? 0 : dot + 1, at - (dot == std::string::npos ? 0 : dot + 1)));
            }
    const auto known = merged_lists();
    CHECK(std::set<std::string>(known.begin(), known.end()) == found);
}

TEST_CASE("two windows tick, add, take off and photograph at once: all of it stands, and nothing is said to be undone",
          "[store][two][book]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    Store a = Store::open(path), b = Store::open(path);
    const auto edit = [](Store& s, const char* whose) {
        Documents d = s.documents();
        Job& j = d.jobs.at("job-reading-table");
        const std::string w = whose;
        j.days.done.push_back({"op " + w, "2026-12-01T09:00", "Operation " + w, 1.0});
        j.days.own.push_back({"own " + w, "", "", 1, 0});
        j.record.photos.push_back({"sha256-" + w, "2026-12-01", "photograph " + w, ""});
        d.shop.workday.off.push_back({"2026-12-2" + w, "", "day " + w});
        d.slabs.begin()->second.moisture_log.push_back({"2026-12-01", w == "4" ? 11.0 : 12.0});
        s.append("edit " + w, d);
    };
    edit(a, "4");
    edit(b, "5");
    a.catch_up();
    for (const Store* s : {&a, &b}) {
        const Job& j = s->documents().jobs.at("job-reading-table");
        for (const char* w : {"4", "5"}) {
            INFO(w);
            const auto has = [&](const auto& list, auto of) { return std::count_if(list.begin(), list.end(), of) == 1; };
            CHECK(has(j.days.done, [&](const auto& o) { return o.key == "op " + std::string(w); }));
            CHECK(has(j.days.own, [&](const auto& o) { return o.name == "own " + std::string(w); }));
            CHECK(has(j.record.photos, [&](const auto& o) { return o.key == "sha256-" + std::string(w); }));
            CHECK(has(s->documents().shop.workday.off, [&](const auto& o) { return o.name == "day " + std::string(w); }));
            CHECK(has(s->documents().slabs.begin()->second.moisture_log,
                      [&](const auto& o) { return o.pct == (w == std::string("4") ? 11.0 : 12.0); }));
        }
    }
    for (const BookEntry& e : a.book()) CHECK(e.kind != book::correction);
    // Undo on either side takes its own back alone.
    CHECK_FALSE(b.undo());
    a.catch_up();
    CHECK(a.documents().jobs.at("job-reading-table").days.done.back().key == "op 4");
}

TEST_CASE("two programs write at once, and all that either was told is kept is there", "[store][two]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    FILE* out[2];
    for (int i = 0; i < 2; ++i) {
        const std::string command = std::string("timeout -s KILL 3 ") + STREAMER + " " + path + " 1 hand-" + std::to_string(i);
        out[i] = popen(command.c_str(), "r");
        REQUIRE(out[i]);
    }
    long last[2] = {};
    for (int i = 0; i < 2; ++i) {
        char line[256];
        while (std::fgets(line, sizeof line, out[i])) last[i] = std::max(last[i], std::atol(line));
        pclose(out[i]);
    }
    const Store s = Store::open(path);
    for (int i = 0; i < 2; ++i) {
        INFO("hand " << i);
        CHECK(last[i] > 3);
        CHECK(std::stol(s.documents().slabs.at("hand-" + std::to_string(i)).notes) >= last[i]);
    }
    CHECK(check_shop(path).ok);
}

TEST_CASE("two programs that open a shop at one moment both make or find today's backup", "[store][two]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    for (int round = 0; round < 8; ++round) {
        std::filesystem::remove_all(backup_folder(path));
        std::atomic<int> opened{0};
        std::vector<std::thread> hands;
        for (int i = 0; i < 2; ++i)
            hands.emplace_back([&] {
                try {
                    if (Store::open(path).documents() == demo_shop() && backup_once_a_day(path)) ++opened;
                } catch (const std::exception&) {
                }
            });
        for (std::thread& t : hands) t.join();
        CHECK(opened == 2);
        CHECK(newest_backup(path));
        int left = 0;
        for (const auto& e : std::filesystem::directory_iterator(backup_folder(path))) left += e.path().extension() != ".shop";
        CHECK(left == 0);
    }
}
