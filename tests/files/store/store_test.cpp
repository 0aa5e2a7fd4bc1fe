#include <csignal>
#include <cstdio>
#include <random>
#include <thread>

#include <SQLiteCpp/SQLiteCpp.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/files/store/check.h"
#include "core/ground/file/digest.h"
#include "tests/files/store/folder.h"

using namespace yb;

namespace fs = std::filesystem;

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
    const std::string before = bytes_of(path);
    {
        Store s = Store::open(path);
        CHECK(s.newer());
        CHECK(s.read_only());
        CHECK(s.documents() == demo_shop());
        CHECK_THROWS_AS(s.append("edit", named(s.documents(), "changed")), StoreError);
        CHECK_THROWS_AS(s.write({0, "", "", "", "note", "it rained", "", "", ""}), StoreError);
        CHECK(name_in(s) == demo_shop().jobs.begin()->second.name);
    }
    CHECK(bytes_of(path) == before);
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
    CHECK_FALSE(check_shop(path).ok);
    CHECK(Store::open(path).documents() == demo_shop());  // one spoilt picture does not keep the shop shut
}

namespace {
/// What a hand wrote: changes are written by the store itself.
std::vector<BookEntry> by_hand(const Store& s) {
    auto all = s.book();
    std::erase_if(all, [](const BookEntry& e) { return e.kind == "change"; });
    return all;
}
}  // namespace

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
        CHECK(by_hand(s).size() == 2);
        // Named otherwise, and named as before: both happened.
        CHECK(s.book().size() == 4);
    }
    const Store s = Store::open(path);
    const auto book = by_hand(s);
    REQUIRE(book.size() == 2);
    CHECK(book[0].what == "gel time");
    CHECK_FALSE(book[0].at.empty());
    CHECK(book[1].step == "varnish");
    CHECK(book[1].at == "2026-11-25T09:30:00+01:00");
    CHECK(book[0].id < book[1].id);
    // A copy takes it along.
    s.save_copy(f.file("b.shop"));
    CHECK(Store::open(f.file("b.shop")).book() == s.book());
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
