// What other programs do with a shop's file without asking: taken away, replaced, laid over, a journal left behind.
#include <sqlite3.h>
#include <sys/stat.h>

#include "core/files/store/check.h"
#include "tests/files/store/folder.h"

using namespace yb;
namespace fs = std::filesystem;

namespace {

using K = StoreError::Kind;

/// What writing another name into it fails with; K::other where it was written.
K kind_of_write(Store& s, const std::string& name) {
    try {
        s.append(name, named(s.documents(), name));
    } catch (const StoreError& e) {
        CHECK_FALSE(std::string(e.what()).empty());
        return e.kind();
    }
    return K::other;
}
K kind_of_look(const Store& s) {
    try {
        s.changed_beside();
    } catch (const StoreError& e) {
        return e.kind();
    }
    return K::other;
}

/// A shop of two revisions, and a copy of it as it was after the first.
struct Shop2 {
    Folder f;
    std::string path = f.file("a.shop"), backup = f.file("earlier.shop");
    Shop2() {
        Store s = Store::create(path, demo_shop(), "New shop");
        s.append("first", named(s.documents(), "first"));
        s.save_copy(backup);
        s.append("second", named(s.documents(), "second"));
        for (int i = 0; i < 20; ++i) s.append("more", named(s.documents(), "more " + std::to_string(i)));
    }
};

void sql(const std::string& path, const char* statement) {
    sqlite3* db = nullptr;
    REQUIRE(sqlite3_open(path.c_str(), &db) == SQLITE_OK);
    char* wrong = nullptr;
    sqlite3_exec(db, statement, nullptr, nullptr, &wrong);
    INFO((wrong ? wrong : ""));
    CHECK(wrong == nullptr);
    sqlite3_free(wrong);
    sqlite3_close(db);
}

unsigned mode_of(const std::string& path) {
    struct stat s {};
    REQUIRE(::stat(path.c_str(), &s) == 0);
    return s.st_mode & 0777U;
}

}  // namespace

TEST_CASE("a shop that was taken away is told at once and written nowhere, put back it goes on", "[store][beside]") {
    Shop2 shop;
    Store s = Store::open(shop.path);
    const std::string away = shop.f.file("elsewhere.shop");
    fs::rename(shop.path, away);
    const std::string before = bytes_of(away);
    CHECK(kind_of_look(s) == K::gone);
    CHECK(kind_of_write(s, "lost?") == K::gone);
    CHECK_THROWS_AS(s.write(BookEntry{}), StoreError);
    CHECK_THROWS_AS(s.undo(), StoreError);
    CHECK_THROWS_AS(s.attach("key", "bytes"), StoreError);
    CHECK_FALSE(fs::exists(shop.path));
    CHECK(bytes_of(away) == before);
    CHECK(name_in(s) == "more 19");
    // A copy has all of it, its history too.
    s.save_copy(shop.f.file("copy.shop"));
    CHECK(name_in(Store::open(shop.f.file("copy.shop"))) == "more 19");
    CHECK(check_shop(shop.f.file("copy.shop")).ok);
    fs::rename(away, shop.path);
    CHECK(kind_of_look(s) == K::other);
    CHECK(kind_of_write(s, "back") == K::other);
    CHECK(name_in(Store::open(shop.path)) == "back");
    CHECK(check_shop(shop.path).ok);
}

TEST_CASE("another file in its place, or laid over it, is told and left as it is", "[store][beside]") {
    Shop2 shop;
    for (const bool over : {false, true}) {
        INFO(over);
        {
            Store s = Store::open(shop.path);
            s.append("mine", named(s.documents(), over ? "mine, over" : "mine"));
            // As a file manager does it: another file by that name, or new bytes into the one that is there.
            if (over) fs::copy_file(shop.backup, shop.path, fs::copy_options::overwrite_existing);
            else fs::rename(shop.path, shop.f.file("old.shop")), fs::copy_file(shop.backup, shop.path);
            CHECK(kind_of_look(s) == K::replaced);
            CHECK(kind_of_write(s, "lost?") == K::replaced);
            CHECK_THROWS_AS(s.undo(), StoreError);
            CHECK(name_in(s) == (over ? "mine, over" : "mine"));
            CHECK(bytes_of(shop.path) == bytes_of(shop.backup));
        }
        // Nor does closing it write what is not there any more.
        CHECK(bytes_of(shop.path) == bytes_of(shop.backup));
        // Where the old one was moved away its journal stays behind, and is minded.
        if (!over) {
            CHECK(kind_of_failure(shop.path) == K::stray_journal);
            Store::set_journal_aside(shop.path);
        }
        const Store there = Store::open(shop.path);
        CHECK(name_in(there) == "first");
        CHECK(check_shop(shop.path).ok);
    }
}

TEST_CASE("two programs that write by turns are never taken for a file laid over", "[store][beside][two]") {
    Shop2 shop;
    Store a = Store::open(shop.path), b = Store::open(shop.path);
    for (int i = 0; i < 60; ++i) {
        Store& s = i % 3 ? a : b;
        CHECK(kind_of_look(s) == K::other);
        s.catch_up();
        CHECK(kind_of_write(s, "turn " + std::to_string(i)) == K::other);
        if (i % 7 == 0) s.attach("key " + std::to_string(i), std::string(100000, 'x'));
        if (i % 5 == 0) CHECK_NOTHROW(s.undo());
    }
    a.catch_up();
    b.catch_up();
    CHECK(a.documents() == b.documents());
    CHECK(check_shop(shop.path).ok);
}

TEST_CASE("the journal of another file beside a shop is told before anything is read into it", "[store][beside]") {
    Shop2 shop;
    const std::string wal = shop.path + "-wal", left = shop.f.file("left-wal");
    {
        // A program that was killed: its journal holds what its file has not.
        Store s = Store::open(shop.path);
        sqlite3* reader = nullptr;
        REQUIRE(sqlite3_open(shop.path.c_str(), &reader) == SQLITE_OK);
        sqlite3_exec(reader, "BEGIN; SELECT count(*) FROM change", nullptr, nullptr, nullptr);  // keeps the journal from being brought in
        for (int i = 0; i < 5; ++i) s.append("late", named(s.documents(), "late " + std::to_string(i)));
        fs::copy_file(wal, left);
        fs::copy_file(shop.path, shop.f.file("killed.shop"));
        fs::copy_file(wal, shop.f.file("killed.shop-wal"));
        sqlite3_close(reader);
    }
    // Its own journal belongs to it: nothing that was acknowledged is lost.
    CHECK(name_in(Store::open(shop.f.file("killed.shop"))) == "late 4");
    // The backup laid over the shop, the journal left behind.
    fs::copy_file(shop.backup, shop.path, fs::copy_options::overwrite_existing);
    for (const char* tail : {"-wal", "-shm"}) fs::remove(shop.path + tail);
    fs::copy_file(left, wal);
    std::string says;
    CHECK(kind_of_failure(shop.path, &says) == K::stray_journal);
    CHECK(says.find("-wal") != std::string::npos);
    CHECK(bytes_of(shop.path) == bytes_of(shop.backup));
    CHECK(bytes_of(wal) == bytes_of(left));
    const std::string kept = Store::set_journal_aside(shop.path);
    CHECK(bytes_of(kept) == bytes_of(left));
    CHECK(name_in(Store::open(shop.path)) == "first");
    CHECK(check_shop(shop.path).ok);
}

TEST_CASE("a backup is put in a shop's place, its journal minded, and what stood there is kept", "[store][beside]") {
    Shop2 shop;
    const std::string kept = Store::restore_backup(shop.path, shop.backup);
    CHECK(name_in(Store::open(shop.path)) == "first");
    CHECK(name_in(Store::open(kept)) == "more 19");
    write_bytes(shop.f.file("broken.shop"), bytes_of(shop.backup).substr(0, 5000));
    CHECK_THROWS_AS(Store::restore_backup(shop.path, shop.f.file("broken.shop")), StoreError);
    CHECK(name_in(Store::open(shop.path)) == "first");
    fs::remove(shop.path);
    CHECK(Store::restore_backup(shop.path, shop.backup).empty());
    CHECK(name_in(Store::open(shop.path)) == "first");
    CHECK(mode_of(shop.path) == 0600);
}

TEST_CASE("triggers, views and tables that are not ours are told, and never run", "[store][beside][hostile]") {
    Shop2 shop;
    sql(shop.path,
        "CREATE TABLE stolen (what TEXT); CREATE VIEW spy AS SELECT body FROM change;"
        "CREATE TRIGGER eve AFTER INSERT ON change BEGIN INSERT INTO stolen VALUES (new.body); END;"
        "CREATE TRIGGER wipe AFTER UPDATE ON head BEGIN DELETE FROM book; END;");
    const CheckReport r = check_shop(shop.path);
    CHECK(r.ok);
    for (const char* name : {"table ‘stolen’", "view ‘spy’", "trigger ‘eve’", "trigger ‘wipe’"})
        CHECK(std::any_of(r.remarks.begin(), r.remarks.end(), [&](const std::string& s) { return s.find(name) != std::string::npos; }));
    {
        Store s = Store::open(shop.path);
        s.write(BookEntry{0, "", "", "", "note", "", "kept", "", ""});
        const std::size_t entries = s.book().size();
        s.append("edit", named(s.documents(), "edited"));
        CHECK(s.book().size() >= entries);
    }
    sqlite3* db = nullptr;
    REQUIRE(sqlite3_open(shop.path.c_str(), &db) == SQLITE_OK);
    sqlite3_stmt* q = nullptr;
    REQUIRE(sqlite3_prepare_v2(db, "SELECT count(*) FROM stolen", -1, &q, nullptr) == SQLITE_OK);
    REQUIRE(sqlite3_step(q) == SQLITE_ROW);
    CHECK(sqlite3_column_int(q, 0) == 0);
    sqlite3_finalize(q);
    sqlite3_close(db);
}

TEST_CASE("shops, their copies and their backups are for their owner alone", "[store][beside]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    const mode_t before = ::umask(0);
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        s.append("first", named(s.documents(), "first"));
        CHECK(mode_of(path) == 0600);
        CHECK(mode_of(path + "-wal") == 0600);
        s.save_copy(f.file("copy.shop"));
        CHECK(backup_once_a_day(path));
    }
    repair_shop(path, f.file("repaired.shop"));
    ::umask(before);
    CHECK(mode_of(f.file("copy.shop")) == 0600);
    CHECK(mode_of(f.file("repaired.shop")) == 0600);
    CHECK(mode_of(backup_folder(path)) == 0700);
    REQUIRE(backups_of(path).size() == 1);
    CHECK(mode_of(backups_of(path)[0]) == 0600);
}

TEST_CASE("text that no file keeps is refused whole: what stood there stays", "[store][beside]") {
    Shop2 shop;
    Store s = Store::open(shop.path);
    Documents d = s.documents();
    d.slabs.begin()->second.name =
        "B\xFC"
        "ffel";
    try {
        s.append("spoilt", d);
        FAIL("it was written");
    } catch (const StoreError& e) {
        CHECK(e.kind() == K::unwritable);
        CHECK(std::string(e.what()).find("UTF-8") != std::string::npos);
    }
    CHECK(name_in(s) == "more 19");
    CHECK(kind_of_write(s, "goes on") == K::other);
    CHECK(check_shop(shop.path).ok);
}
