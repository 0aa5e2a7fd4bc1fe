#include <csignal>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <random>
#include <atomic>
#include <thread>

#include <SQLiteCpp/SQLiteCpp.h>
#include <catch2/catch.hpp>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/io/json.h"
#include "core/job/documents.h"
#include "core/store/merge.h"
#include "core/store/salvage.h"
#include "core/store/store.h"
#include "demo/demo.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

struct Folder {
    fs::path path;
    Folder() {
        std::string t = (fs::temp_directory_path() / "yb-store-XXXXXX").string();
        path = mkdtemp(t.data());
    }
    ~Folder() {
        std::error_code e;
        fs::remove_all(path, e);
    }
    std::string file(const char* name) const { return (path / name).string(); }
};

Documents named(Documents d, const std::string& name) {
    d.jobs.begin()->second.name = name;
    return d;
}
std::string name_in(const Store& s) { return s.documents().jobs.begin()->second.name; }

StoreError::Kind kind_of_failure(const std::string& path) {
    try {
        Store::open(path);
    } catch (const StoreError& e) {
        return e.kind();
    }
    FAIL("it opened");
    return StoreError::Kind::other;
}

std::string bytes(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace

TEST_CASE("what is stored is what was given", "[store]") {
    const Folder f;
    const Documents demo = demo_shop();
    { Store::create(f.file("a.shop"), demo, "New shop"); }
    const Store s = Store::open(f.file("a.shop"));
    CHECK(s.documents() == demo);
    CHECK(check_shop(f.file("a.shop")).ok);
    CHECK(check_shop(f.file("a.shop")).slabs == demo.slabs.size());
}

TEST_CASE("undo and redo hold across a restart", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        s.append("one", named(s.documents(), "one"));
        s.append("two", named(s.documents(), "two"));
        s.append("same", s.documents());  // nothing differs: no revision
        CHECK(s.history().size() == 3);
    }
    {
        Store s = Store::open(path);
        CHECK(name_in(s) == "two");
        CHECK(s.undo_label() == "two");
        s.undo();
        CHECK(name_in(s) == "one");
    }
    {
        Store s = Store::open(path);
        CHECK(name_in(s) == "one");
        REQUIRE(s.can_redo());
        CHECK(s.redo_label() == "two");
        s.redo();
        CHECK(name_in(s) == "two");
        s.undo();
        s.undo();
        CHECK_FALSE(s.can_undo());
        s.append("three", named(s.documents(), "three"));
        CHECK_FALSE(s.can_redo());
    }
    Store s = Store::open(path);
    CHECK(name_in(s) == "three");
    Documents d = s.documents();
    d.slabs.erase(d.slabs.begin());
    s.append("retire", d);
    CHECK(Store::open(path).documents() == d);
    s.undo();
    CHECK(s.documents().slabs.size() == d.slabs.size() + 1);
    // Nothing was overwritten: all five are in the file.
    CHECK(check_shop(path).revisions == 5);
}

TEST_CASE("a copy holds the history", "[store]") {
    const Folder f;
    Store s = Store::create(f.file("a.shop"), demo_shop(), "New shop");
    s.append("one", named(s.documents(), "one"));
    s.save_copy(f.file("b.shop"));
    CHECK(Store::open(f.file("b.shop")).can_undo());
    CHECK_THROWS_AS(s.save_copy(f.file("b.shop")), StoreError);
    CHECK_THROWS_AS(Store::create(f.file("a.shop"), demo_shop(), "again"), StoreError);
}

TEST_CASE("a full disk loses nothing that was taken and keeps the old state", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        s.append("one", named(s.documents(), "one"));
        s.limit_pages(1);
        Documents big = named(s.documents(), "too much");
        big.jobs.begin()->second.notes = std::string(200000, 'x');
        try {
            s.append("too much", big);
            FAIL("the disk was full");
        } catch (const StoreError& e) {
            CHECK(e.kind() == StoreError::Kind::full);
        }
        CHECK(name_in(s) == "one");
        s.limit_pages(1000000);
        s.append("again", big);
        CHECK(name_in(s) == "too much");
    }
    CHECK(name_in(Store::open(path)) == "too much");
}

TEST_CASE("damaged, cut short, foreign and newer files are left as they are", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        for (int i = 0; i < 40; ++i) s.append("edit", named(s.documents(), std::to_string(i)));
    }
    { Store::open(path); }  // makes today's backup
    REQUIRE(newest_backup(path));

    SECTION("cut short") {
        fs::resize_file(path, fs::file_size(path) * 2 / 3 / 4096 * 4096);
        const std::string before = bytes(path);
        CHECK(kind_of_failure(path) == StoreError::Kind::damaged);
        CHECK(bytes(path) == before);
        CHECK(name_in(Store::open(*newest_backup(path))) == "39");
        const Salvage s = salvage(path);
        CHECK_FALSE(s.documents.jobs.empty());
        CHECK(bytes(path) == before);
    }
    SECTION("a page overwritten") {
        {
            std::fstream io(path, std::ios::in | std::ios::out | std::ios::binary);
            io.seekp(static_cast<std::streamoff>(fs::file_size(path) / 2 / 4096 * 4096));
            io << std::string(4096, '\xA5');
        }
        const std::string before = bytes(path);
        CHECK(kind_of_failure(path) == StoreError::Kind::damaged);
        CHECK_FALSE(check_shop(path).problems.empty());
        CHECK(bytes(path) == before);
    }
    SECTION("some other file") {
        std::ofstream(f.file("b.shop")) << "dear diary, today the tarn froze over and nobody came by the ferry";
        CHECK(kind_of_failure(f.file("b.shop")) == StoreError::Kind::damaged);
        CHECK(kind_of_failure(f.file("none.shop")) == StoreError::Kind::missing);
    }
}

TEST_CASE("what a newer program wrote opens to be read, says so, and stays as it is to the last byte", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    Store::create(path, demo_shop(), "New shop");
    {
        SQLite::Database db(path, SQLite::OPEN_READWRITE);
        db.exec("PRAGMA user_version = 99");
        db.exec("CREATE TABLE weather (day TEXT)");
        db.exec("PRAGMA wal_checkpoint(TRUNCATE)");
    }
    const std::string before = bytes(path);
    {
        Store s = Store::open(path);
        CHECK(s.newer());
        CHECK(s.read_only());
        CHECK(s.documents() == demo_shop());
        CHECK_THROWS_AS(s.append("edit", named(s.documents(), "changed")), StoreError);
        CHECK_THROWS_AS(s.write({0, "", "", "", "note", "it rained", "", "", ""}), StoreError);
        CHECK(name_in(s) == demo_shop().jobs.begin()->second.name);
    }
    CHECK(bytes(path) == before);
}

TEST_CASE("attachments never change, and are told where they don't fit their hash", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    Store s = Store::create(path, demo_shop(), "New shop");
    const std::string key = attachment_key("a picture of a slab");
    CHECK(key == "sha256-" + key.substr(7));
    CHECK(key.size() == 7 + 64);
    CHECK(attachment_key("abc") == "sha256-ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");  // FIPS 180-2
    s.attach(key, "a picture of a slab");
    s.attach(key, "a picture of a slab");
    CHECK_THROWS_AS(s.attach(key, "another picture"), StoreError);
    CHECK(*s.attachment(key) == "a picture of a slab");
    CHECK_FALSE(s.attachment(attachment_key("none")));
    // All or none.
    const std::string other = attachment_key("other");
    CHECK_THROWS_AS(s.attach({{other, "other"}, {key, "spoilt"}}), StoreError);
    CHECK_FALSE(s.has_attachment(other));
    {
        SQLite::Database db(path, SQLite::OPEN_READWRITE);
        SQLite::Statement q(db, "UPDATE attachment SET bytes = ? WHERE key = ?");
        q.bind(1, "a picture of a slug");
        q.bind(2, key);
        q.exec();
    }
    CHECK_THROWS_AS(s.attachment(key), StoreError);
    CHECK_THROWS_AS(Store::read_attachment(path, key), StoreError);
    CHECK(check_shop(path).ok);  // one spoilt picture does not keep the shop shut
}

TEST_CASE("a change whose hash does not fit is found by the check", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    Store::create(path, demo_shop(), "New shop");
    CHECK(check_shop(path).problems.empty());
    {
        SQLite::Database db(path, SQLite::OPEN_READWRITE);
        db.exec("UPDATE change SET body = replace(body, 'moisture_pct', 'moisture_pcd') WHERE kind = 'slab'");
    }
    CHECK_FALSE(check_shop(path).problems.empty());
}

TEST_CASE("the book is written beside the revisions: undo takes nothing out of it", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        CHECK(s.book().empty());
        s.append("edit", named(s.documents(), "one"));
        s.write({0, "", "job-tarn-river", "fill", "reading", "gel time", "7.5", "h", ""});
        s.undo();
        s.write({0, "2026-11-25T09:30:00+01:00", "job-tarn-river", "varnish", "note", "a step of a newer program", "", "", ""});
        CHECK(s.book().size() == 2);
    }
    const Store s = Store::open(path);
    const auto book = s.book();
    REQUIRE(book.size() == 2);
    CHECK(book[0].what == "gel time");
    CHECK_FALSE(book[0].at.empty());
    CHECK(book[1].step == "varnish");
    CHECK(book[1].at == "2026-11-25T09:30:00+01:00");
    CHECK(book[0].id < book[1].id);
    // A copy takes it along.
    s.save_copy(f.file("b.shop"));
    CHECK(Store::open(f.file("b.shop")).book() == book);
}

TEST_CASE("a folder that can't be written opens for reading only", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    // Root may write anywhere: an ordinary user tries, in a process of its own.
    const pid_t child = fork();
    if (child == 0) {
        int code = 1;
        chmod(path.c_str(), 0444);
        chmod(f.path.c_str(), 0555);
        if (geteuid() == 0 && (setgid(65534) != 0 || setuid(65534) != 0)) _exit(9);
        try {
            Store s = Store::open(path);
            code = s.read_only() && s.documents() == demo_shop() ? 0 : 2;
            try {
                s.append("x", named(s.documents(), "x"));
                code = 3;
            } catch (const StoreError& e) {
                if (e.kind() != StoreError::Kind::read_only) code = 4;
            }
        } catch (const std::exception&) {
            code = 5;
        }
        _exit(code);
    }
    int status = 0;
    waitpid(child, &status, 0);
    chmod(f.path.c_str(), 0755);
    REQUIRE(WIFEXITED(status));
    CHECK(WEXITSTATUS(status) == 0);
}

TEST_CASE("a disk that takes no more stops the writing, not the reading", "[store]") {
    const Folder dir;
    const std::string path = dir.file("full.shop");
    Store::create(path, Documents(), "new");
    // The kernel refuses every byte past this size: first as an error the store must say, then as a kill.
    for (const char* how : {"trap '' XFSZ; ", ""}) {
        const std::string command = std::string(how) + "ulimit -f 600; exec " + STREAMER + " " + path + " 1 2>&1";
        FILE* out = popen(("bash -c \"" + command + "\"").c_str(), "r");
        REQUIRE(out);
        char line[4096];
        long last = 0;
        std::string said;
        while (std::fgets(line, sizeof line, out)) {
            if (const long n = std::atol(line); n > 0) last = n;
            else said += line;
        }
        CHECK(pclose(out) != 0);
        const Store s = Store::open(path);
        INFO(how << said);
        CHECK(check_shop(path).ok);
        if (last > 0) CHECK(std::stol(s.documents().slabs.at("s").notes) >= last);
        if (*how) CHECK(last > 0);
    }
}

TEST_CASE("killed while edits stream in, nothing acknowledged is lost", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    { Store::create(path, demo_shop(), "New shop"); }
    std::mt19937 random(3);
    long last = 0;
    for (int round = 0; round < 15; ++round) {
        int out[2];
        REQUIRE(pipe(out) == 0);
        const std::string from = std::to_string(last + 1);
        const pid_t child = fork();
        if (child == 0) {
            dup2(out[1], 1);
            close(out[0]);
            execl(STREAMER, STREAMER, path.c_str(), from.c_str(), nullptr);
            _exit(127);
        }
        close(out[1]);
        FILE* in = fdopen(out[0], "r");
        long said = 0;
        REQUIRE(std::fscanf(in, "%ld", &said) == 1);
        last = said;
        std::this_thread::sleep_for(std::chrono::milliseconds(1 + random() % 40));
        kill(child, SIGKILL);
        waitpid(child, nullptr, 0);
        while (std::fscanf(in, "%ld", &said) == 1) last = said;
        std::fclose(in);
        const Store s = Store::open(path);
        const long kept = std::stol(s.documents().slabs.at("s").notes);
        INFO("round " << round);
        REQUIRE(kept >= last);
        REQUIRE(kept <= last + 1);
        last = kept;
    }
    CHECK(check_shop(path).ok);
    CHECK(last > 15);
}

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
    // Lists that grew are one hand's whole.
    CHECK(merged_json(Json{1, 2}, Json{1, 2, 3}, Json{1, 5}) == Json({1, 2, 3}));
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

namespace {
/// A shop of a few revisions, then spoilt by a statement.
CheckReport spoilt(const std::string& path, const char* statement, CheckDepth depth = CheckDepth::checksums) {
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        for (const char* name : {"one", "two", "three"}) {
            Documents d = s.documents();
            d.shop.name = name;
            s.append(name, d);
        }
        s.undo();
    }
    SQLite::Database(path, SQLite::OPEN_READWRITE).exec(statement);
    return check_shop(path, depth);
}
}  // namespace

TEST_CASE("revisions in a ring, without a parent, or with a redo to nothing are told and never walked round", "[store][damage]") {
    const Folder f;
    const auto opens = [](const std::string& path) {
        try {
            Store s = Store::open(path);
            s.history();
            return true;
        } catch (const StoreError& e) {
            CHECK(e.kind() == StoreError::Kind::damaged);
            return false;
        }
    };
    int n = 0;
    const auto next = [&] { return f.file(("a" + std::to_string(++n) + ".shop").c_str()); };
    for (const auto& [statement, said] : {std::pair("UPDATE revision SET parent = 4 WHERE id = 2", "newer than itself"),
                                          std::pair("UPDATE revision SET parent = id WHERE id = 3", "newer than itself"),
                                          std::pair("UPDATE revision SET parent = -7 WHERE id = 2", "parent is missing"),
                                          std::pair("UPDATE head SET revision = 99", "head points at no revision")}) {
        INFO(statement);
        const std::string path = next();
        const CheckReport r = spoilt(path, statement);
        CHECK_FALSE(r.ok);
        REQUIRE_FALSE(r.problems.empty());
        CHECK(r.problems.front().find(said) != std::string::npos);
        CHECK_FALSE(opens(path));
        CHECK(salvage(path).documents.slabs.size() == demo_shop().slabs.size());
    }
    // A redo that leads nowhere is no reason not to open: it is left out.
    for (const char* statement : {"UPDATE revision SET redo = 77 WHERE redo <> 0", "UPDATE revision SET redo = 1 WHERE redo <> 0"}) {
        const std::string path = next();
        const CheckReport r = spoilt(path, statement);
        CHECK(r.ok);
        CHECK(r.remarks.size() == 1);
        Store s = Store::open(path);
        CHECK_FALSE(s.can_redo());
        CHECK(s.redo_label().empty());
        s.redo();
        CHECK(s.documents().shop.name == "two");
    }
}

TEST_CASE("a document that fits its checksum and can't be read is found by the whole check, and its backup is not named",
          "[store][damage]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    const std::string body = R"({"v": 2, "id": 7})";
    const std::string statement = "UPDATE change SET body = '" + body + "', digest = '" +
                                  digest_of("slab\n" + demo_shop().slabs.begin()->first + "\n" + body) +
                                  "' WHERE kind = 'slab' AND document = '" + demo_shop().slabs.begin()->first + "'";
    CHECK(spoilt(path, statement.c_str()).ok);
    const CheckReport r = check_shop(path, CheckDepth::every_document);
    CHECK_FALSE(r.ok);
    REQUIRE(r.problems.size() == 1);
    CHECK(r.problems[0].find(demo_shop().slabs.begin()->first) != std::string::npos);
    std::filesystem::create_directories(backup_folder(path));
    std::filesystem::copy_file(path, backup_folder(path) + "/2026-11-24.shop");
    CHECK_FALSE(newest_backup(path));
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
                    if (Store::open(path).documents() == demo_shop()) ++opened;
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
