#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <tuple>

#include <SQLiteCpp/SQLiteCpp.h>
#include <sys/wait.h>
#include <unistd.h>

#include "core/files/io/json.h"
#include "core/files/store/check.h"
#include "core/files/store/schema.h"
#include "core/ground/file/digest.h"
#include "tests/files/store/folder.h"
#include "tests/how_much.h"

using namespace yb;

namespace fs = std::filesystem;

TEST_CASE("damaged, cut short, foreign and newer files are left as they are", "[store]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        for (int i = 0; i < 40; ++i) s.append("edit", named(s.documents(), std::to_string(i)));
    }
    REQUIRE(backup_once_a_day(path));
    REQUIRE(newest_backup(path));

    SECTION("cut short") {
        fs::resize_file(path, fs::file_size(path) - 12 * 4096);
        const std::string before = bytes_of(path);
        CHECK(kind_of_failure(path) == StoreError::Kind::damaged);
        CHECK(bytes_of(path) == before);
        CHECK(name_in(Store::open(*newest_backup(path))) == "39");
        const Repair r = repair_shop(path, f.file("b.shop"));
        CHECK(r.revisions > 20);  // only what stood on the last pages is gone
        CHECK_FALSE(r.whole());
        CHECK(check_shop(f.file("b.shop")).ok);
        CHECK(Store::open(f.file("b.shop")).documents().jobs.size() == demo_shop().jobs.size());
        CHECK(bytes_of(path) == before);
    }
    SECTION("a page overwritten") {
        {
            std::fstream io(path, std::ios::in | std::ios::out | std::ios::binary);
            io.seekp(static_cast<std::streamoff>(fs::file_size(path) / 2 / 4096 * 4096));
            io << std::string(4096, '\xA5');
        }
        const std::string before = bytes_of(path);
        CHECK_FALSE(check_shop(path).problems.empty());
        CHECK(bytes_of(path) == before);
    }
    SECTION("some other file") {
        std::ofstream(f.file("b.shop")) << "dear diary, today the tarn froze over and nobody came by the ferry";
        CHECK(kind_of_failure(f.file("b.shop")) == StoreError::Kind::damaged);
        CHECK(kind_of_failure(f.file("none.shop")) == StoreError::Kind::missing);
    }
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

namespace {
/// A shop of a few revisions, then spoilt by statements, the rows sealed again where the test wants them to fit.
CheckReport spoilt(const std::string& path, const std::string& statement, bool sealed = false) {
    {
        Store s = Store::create(path, demo_shop(), "New shop");
        for (const char* name : {"one", "two", "three"}) {
            Documents d = s.documents();
            d.shop.name = name;
            s.append(name, d);
        }
        s.undo();
    }
    {
        SQLite::Database db(path, SQLite::OPEN_READWRITE);
        db.exec(statement);
        if (sealed) {
            SQLite::Statement q(db, "SELECT id, parent, redo, label, at, changes FROM revision");
            while (q.executeStep())
                write_revision(db, q.getColumn(0).getInt64(),
                               {q.getColumn(1).getInt64(), q.getColumn(2).getInt64(), q.getColumn(3).getString(),
                                q.getColumn(4).getString(), q.getColumn(5).getString()});
            write_head(db, db.execAndGet("SELECT revision FROM head").getInt64());
        }
    }
    return check_shop(path);
}

bool says(const std::vector<std::string>& all, const std::string& part) {
    return std::any_of(all.begin(), all.end(), [&](const std::string& s) { return s.find(part) != std::string::npos; });
}
}  // namespace

TEST_CASE("revisions in a ring, without a parent, or with a redo to nothing are told and never walked round", "[store][damage]") {
    const Folder f;
    int n = 0;
    for (const auto& [statement, said] : {std::pair("UPDATE revision SET parent = 4 WHERE id = 2", "newer than itself"),
                                          std::pair("UPDATE revision SET parent = id WHERE id = 3", "newer than itself"),
                                          std::pair("UPDATE revision SET parent = -7 WHERE id = 2", "parent of revision 2 is missing"),
                                          std::pair("UPDATE head SET revision = 99", "head points at no revision")}) {
        INFO(statement);
        const std::string path = f.file("a" + std::to_string(++n) + ".shop");
        const CheckReport r = spoilt(path, statement, true);
        CHECK_FALSE(r.ok);
        CHECK(says(r.problems, said));
        CHECK(kind_of_failure(path) == StoreError::Kind::damaged);
        // Without its seal it is told all the same.
        const std::string bare = f.file("b" + std::to_string(n) + ".shop");
        CHECK(says(spoilt(bare, statement).problems, "does not fit its checksum"));
        CHECK(kind_of_failure(bare) == StoreError::Kind::damaged);
        const std::string mended = f.file("c" + std::to_string(n) + ".shop");
        const Repair repair = repair_shop(bare, mended);
        CHECK_FALSE(repair.whole());
        CHECK(check_shop(mended).ok);
        const Store s = Store::open(mended);
        CHECK(s.documents().slabs.size() == demo_shop().slabs.size());
        CHECK(s.history().size() == (std::string(statement).find("head") != std::string::npos ? 4 : 3));
    }
    // A redo that leads nowhere is no reason not to open: it is left out.
    for (const char* statement : {"UPDATE revision SET redo = 77 WHERE redo <> 0", "UPDATE revision SET redo = 1 WHERE redo <> 0"}) {
        const std::string path = f.file("a" + std::to_string(++n) + ".shop");
        const CheckReport r = spoilt(path, statement, true);
        CHECK(r.ok);
        CHECK(r.remarks.size() == 1);
        Store s = Store::open(path);
        CHECK_FALSE(s.can_redo());
        CHECK(s.redo_label().empty());
        s.redo();
        CHECK(s.documents().shop.name == "two");
    }
}

TEST_CASE("a document that fits its checksum and can't be read is found by the check, and its backup is not named", "[store][damage]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    const std::string body = R"({"v": 2, "id": 7})";
    { Store::create(path, demo_shop(), "New shop"); }
    {
        SQLite::Database db(path, SQLite::OPEN_READWRITE);
        write_revision(
            db, 2, {1, 0, "by a program gone wrong", "2026-11-25T10:00:00Z", seal_of_changes(seal_of_change(2, "slab", "slab-odd", body))});
        write_change(db, {0, 2, "slab", "slab-odd", ""}, body);
        write_head(db, 2);
    }
    const CheckReport r = check_shop(path);
    CHECK_FALSE(r.ok);
    REQUIRE(r.problems.size() == 1);
    CHECK(r.problems[0].find("slab ‘slab-odd’ of revision 2 can't be read") != std::string::npos);
    CHECK(kind_of_failure(path) == StoreError::Kind::damaged);
    fs::create_directories(backup_folder(path));
    fs::copy_file(path, backup_folder(path) + "/2026-11-24.shop");
    CHECK_FALSE(newest_backup(path));
    // Repair leaves it out, says so, and keeps all else.
    const Repair repair = repair_shop(path, f.file("b.shop"));
    CHECK(says(repair.lost, "slab ‘slab-odd’ of revision 2 fits its checksum and can't be read"));
    CHECK(Store::open(f.file("b.shop")).documents() == demo_shop());
}

namespace {

/// Everything a shop file holds for its maker.
struct Content {
    std::vector<Documents> states;  ///< from the newest to the first, by undo
    std::vector<std::string> labels;
    std::vector<BookEntry> book;
    std::vector<std::string> attachments;
    bool operator==(const Content&) const = default;
};

/// Of two slabs, a job, a branch that was undone, an entry or two and a picture.
void make_shop(const std::string& path) {
    Documents d;
    d.shop = demo_shop().shop;
    for (const char* id : {"slab-1", "slab-2"}) d.slabs[id] = demo_shop().slabs.begin()->second, d.slabs[id].id = id;
    d.jobs["job-1"].id = "job-1";
    d.jobs["job-1"].name = "Bench";
    Store s = Store::create(path, d, "New shop");
    for (int i = 0; i < 6; ++i) {
        Documents next = s.documents();
        next.slabs["slab-1"].notes = "note " + std::to_string(i) + std::string(i == 2 ? 5000 : 10, 'n');
        if (i % 2) next.jobs["job-1"].under.helpers = i + 1;
        s.append("edit " + std::to_string(i), next);
        s.write({0, "2026-11-25T10:00:00+01:00", "job-1", "fill", "reading", "gel time", std::to_string(i), "h", ""});
        if (i == 3) s.undo();
    }
    std::string picture(9000, '\0');
    for (std::size_t i = 0; i < picture.size(); ++i) picture[i] = static_cast<char>(i * 37 % 251);
    s.attach("picture", picture);
}

Content content_of(const std::string& path) {
    Content c;
    Store s = Store::open(path);
    for (const RevisionInfo& r : s.history()) c.labels.push_back(std::to_string(r.id) + r.label + r.at);
    c.labels.push_back(s.redo_label());
    c.book = s.book();
    c.attachments.push_back(s.attachment("picture").value_or("none"));
    c.states.push_back(s.documents());
    while (s.can_undo()) {
        s.undo();
        c.states.push_back(s.documents());
    }
    return c;
}

enum class Verdict { told, harmless, changed };

/// What becomes of a spoilt file: told by opening or by the check; otherwise all it holds is what it held.
Verdict verdict(const Folder& f, const std::string& spoilt_bytes, const Content& truth, std::string& why) {
    const std::string path = f.file("spoilt.shop");
    for (const char* tail : {"", "-wal", "-shm"}) fs::remove(path + tail);
    write_bytes(path, spoilt_bytes);
    bool told = false;
    try {
        const CheckReport r = check_shop(path);
        told = !r.ok || r.version != schema_version;
    } catch (const StoreError&) {
        told = true;
    }
    CHECK(bytes_of(path) == spoilt_bytes);  // looking changes nothing
    // Opened in spite of it: what is shown must be what was kept.
    try {
        Store s = Store::open(path);
        if (!(s.documents() == truth.states.front())) {
            why = "it opened with other documents";
            return Verdict::changed;
        }
        for (const BookEntry& e : s.book())
            if (!told && std::find(truth.book.begin(), truth.book.end(), e) == truth.book.end()) {
                why = "an entry of the book is another";
                return Verdict::changed;
            }
        if (const auto bytes = s.attachment("picture"); !told && bytes.value_or("none") != truth.attachments.front()) {
            why = "the picture is another";
            return Verdict::changed;
        }
    } catch (const StoreError&) {
        told = true;
    }
    if (told) return Verdict::told;
    if (content_of(path) == truth) return Verdict::harmless;
    why = "its history is another";
    return Verdict::changed;
}

/// What a repair keeps is true: each document of the new file is one that the shop once held.
void check_repair(const Folder& f, const Content& truth) {
    const std::string out = f.file("repaired.shop");
    fs::remove(out);
    try {
        repair_shop(f.file("spoilt.shop"), out);
    } catch (const StoreError&) {
        CHECK_FALSE(fs::exists(out));
        return;
    }
    CHECK(check_shop(out).ok);
    const Store s = Store::open(out);
    for (const auto& [id, slab] : s.documents().slabs)
        CHECK(std::any_of(truth.states.begin(), truth.states.end(),
                          [&, &i = id, &sl = slab](const Documents& d) { return d.slabs.count(i) && d.slabs.at(i).tape == sl.tape; }));
}

/// A shop to spoil: its bytes, and what it holds.
struct Spoiling {
    Folder f;
    std::string whole;
    Content truth;
    Spoiling() {
        make_shop(f.file("whole.shop"));
        whole = bytes_of(f.file("whole.shop"));
        truth = content_of(f.file("whole.shop"));
    }
};

}  // namespace

TEST_CASE("a byte flipped anywhere is told, or harms nothing – nothing opens with other content", "[store][damage][fault]") {
    const Spoiling s;
    const auto& [f, whole, truth] = s;
    REQUIRE(truth.states.size() >= 6);
    const bool all = in_full();
    int told = 0;
    int harmless = 0;
    std::uint32_t random = 7;
    const auto draw = [&](std::uint32_t n) { return (random = random * 1664525U + 1013904223U) / 65536U % n; };
    const std::size_t pages = whole.size() / 4096;
    REQUIRE(pages > 15);
    for (std::size_t page = 0; page < pages; ++page)
        for (int k = 0; k < (all ? 60 : 5); ++k) {
            // The first bytes of a page say what it is; the header of the first says what the file is.
            const std::size_t at = page * 4096 + (k == 0 ? draw(page == 0 ? 100 : 12) : draw(4096));
            std::string bytes = whole;
            bytes[at] = static_cast<char>(bytes[at] ^ static_cast<char>(1U << draw(8)));
            INFO("byte " << at << " of " << whole.size());
            std::string why;
            const Verdict v = verdict(f, bytes, truth, why);
            INFO(why);
            CHECK(v != Verdict::changed);
            (v == Verdict::told ? told : harmless) += 1;
            if (v == Verdict::told && (all || k == 0)) check_repair(f, truth);
        }
    CHECK(told > harmless);
    if (all) std::printf("flips: %d told, %d in bytes that nothing uses\n", told, harmless);
}

TEST_CASE("cut off at any page, and in the middle of one: told", "[store][damage][fault]") {
    const Spoiling s;
    const auto& [f, whole, truth] = s;
    int cuts = 0;
    const int parts = so_many(2, 12);
    for (std::size_t page = 0; page * 4096 < whole.size(); ++page)
        for (int k = 0; k < parts; ++k) {
            const std::size_t size = page * 4096 + static_cast<std::size_t>(k * 4096 / parts);
            INFO("cut to " << size);
            std::string why;
            CHECK(verdict(f, whole.substr(0, size), truth, why) == Verdict::told);
            check_repair(f, truth);
            ++cuts;
        }
    CHECK(cuts > 30);
    if (in_full()) std::printf("cuts: %d told\n", cuts);
}

TEST_CASE("repair keeps what is whole, says what is not, and which backup has it", "[store][damage]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    make_shop(path);
    REQUIRE(backup_once_a_day(path));
    const std::string backup = fs::path(*newest_backup(path)).filename().string();
    {
        Store s = Store::open(path);
        Documents d = s.documents();
        d.slabs["slab-2"].notes = "after the backup";
        s.append("late", d);
        Slab& pictured = d.slabs["slab-1"];
        pictured.picture_a.emplace();
        pictured.picture_a->key = "picture";
        s.append("picture", d);
    }
    const std::size_t entries = Store::open(path).book().size();
    {
        SQLite::Database db(path, SQLite::OPEN_READWRITE);
        db.exec("UPDATE change SET body = replace(body, 'note 5', 'note 6') WHERE body LIKE '%note 5%' AND revision = 7");
        db.exec("UPDATE change SET body = replace(body, 'after', 'often') WHERE body LIKE '%after the backup%'");
        db.exec("UPDATE revision SET label = 'edit Z' WHERE id = 3");
        db.exec("UPDATE attachment SET bytes = x'00' WHERE key = 'picture'");
        db.exec("UPDATE book SET value = '9' WHERE id = 4");
    }
    CHECK(kind_of_failure(path) == StoreError::Kind::damaged);
    const CheckReport told = check_shop(path);
    for (const char* part : {"slab ‘slab-1’ of revision 7", "slab ‘slab-2’", "revision 3 does not fit", "picture", "entry 4 of the book"}) {
        INFO(part);
        CHECK(says(told.problems, part));
    }
    const std::string before = bytes_of(path);
    const Repair r = repair_shop(path, f.file("b.shop"));
    CHECK(bytes_of(path) == before);
    CHECK(says(r.lost, "slab ‘slab-1’ of revision 7; the backup " + backup + " has it"));
    CHECK(says(r.lost, "slab ‘slab-2’ of revision 8; no backup has it"));
    CHECK(says(r.lost, "label and time of revision 3"));
    CHECK(says(r.lost, "the picture or scan picture of slab ‘slab-1’; the backup " + backup + " has it"));
    CHECK(says(r.lost, "entry 4 of the book"));
    CHECK(r.entries == entries);
    CHECK(r.attachments == 0);
    CHECK(check_shop(f.file("b.shop")).ok);
    Store s = Store::open(f.file("b.shop"));
    CHECK(s.documents().slabs.at("slab-2").notes != "often the backup");
    CHECK(s.documents().jobs.at("job-1").under.helpers == 6);
    CHECK_THROWS_AS(repair_shop(path, f.file("b.shop")), StoreError);
    CHECK_THROWS_AS(repair_shop(f.file("none.shop"), f.file("c.shop")), StoreError);
    // A whole one is copied whole.
    make_shop(f.file("sound.shop"));
    const Repair sound = repair_shop(f.file("sound.shop"), f.file("copy.shop"));
    CHECK(sound.whole());
    CHECK(content_of(f.file("copy.shop")) == content_of(f.file("sound.shop")));
}

TEST_CASE("what is no shop file, and what may not be read, each has its own true sentence", "[store][damage]") {
    const Folder f;
    using K = StoreError::Kind;
    const auto told = [&](const std::string& path, K kind, const std::string& part) {
        std::string says;
        INFO(path);
        CHECK(kind_of_failure(path, &says) == kind);
        INFO(says);
        CHECK(says.find(part) != std::string::npos);
        CHECK(says.find("terminate") == std::string::npos);
    };
    told(f.path.string(), K::not_a_shop, "is a folder");
    told(f.file("none.shop"), K::missing, "There is no file");
    write_bytes(f.file("empty.shop"), "");
    told(f.file("empty.shop"), K::not_a_shop, "is empty");
    told("/dev/zero", K::not_a_shop, "a device or a pipe");
    const std::string odd = f.file("na\xefve.shop");
    { Store::create(f.file("a.shop"), demo_shop(), "New shop"); }
    fs::copy_file(f.file("a.shop"), odd);
    told(odd, K::other, "not in UTF-8");
    for (const auto& [version, kind, part] :
         {std::tuple(-5, K::damaged, "version -5, which never was"), std::tuple(0, K::damaged, "version 0, which never was"),
          std::tuple(2, K::damaged, "damaged")}) {
        const std::string path = f.file("v" + std::to_string(version) + ".shop");
        fs::copy_file(f.file("a.shop"), path);
        SQLite::Database(path, SQLite::OPEN_READWRITE).exec("PRAGMA user_version = " + std::to_string(version));
        const std::string before = bytes_of(path);
        told(path, kind, part);
        CHECK(bytes_of(path) == before);
    }
    {
        SQLite::Database other(f.file("other.shop"), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        other.exec("CREATE TABLE weather (day TEXT)");
    }
    told(f.file("other.shop"), K::not_a_shop, "is not a shop file");
    CHECK_THROWS_WITH(Store::create(f.file("no folder/a.shop"), demo_shop(), "x"), Catch::Contains("There is no folder"));
    CHECK_THROWS_WITH(Store::create(f.file("a.shop"), demo_shop(), "x"), Catch::Contains("is there already"));
    // Nobody may read it: an ordinary user tries, in a process of its own.
    fs::copy_file(f.file("a.shop"), f.file("shut.shop"));
    fs::permissions(f.file("shut.shop"), fs::perms::none);
    fs::permissions(f.path, fs::perms::all);
    const pid_t child = fork();
    if (child == 0) {
        if (geteuid() == 0 && (setgid(65534) != 0 || setuid(65534) != 0)) _exit(9);
        try {
            Store::open(f.file("shut.shop"));
            _exit(1);
        } catch (const StoreError& e) {
            _exit(e.kind() == K::no_permission && std::string(e.what()).find("no permission") != std::string::npos ? 0 : 2);
        }
    }
    int status = 0;
    waitpid(child, &status, 0);
    CHECK((WIFEXITED(status) && WEXITSTATUS(status) == 0));
}

TEST_CASE("files of every earlier version come up to this one, a backup made before, and all they held is there", "[store][damage]") {
    for (const int version : {1, 2, 3}) {
        INFO("version " << version);
        const Folder f;
        const std::string path = f.file("a.shop");
        const Documents demo = demo_shop();
        {
            SQLite::Database db(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
            db.exec(
                "CREATE TABLE revision (id INTEGER PRIMARY KEY, parent INTEGER NOT NULL, redo INTEGER NOT NULL, label TEXT NOT NULL, at "
                "TEXT NOT NULL)");
            db.exec(std::string("CREATE TABLE change (id INTEGER PRIMARY KEY, revision INTEGER NOT NULL REFERENCES revision(id), kind TEXT "
                                "NOT NULL CHECK "
                                "(kind IN ('shop','slab','job')), document TEXT NOT NULL, body TEXT") +
                    (version == 3 ? ", digest TEXT)" : ")"));
            db.exec("CREATE INDEX change_revision ON change(revision)");
            db.exec("CREATE TABLE head (one INTEGER PRIMARY KEY CHECK (one = 1), revision INTEGER NOT NULL)");
            db.exec("INSERT INTO head VALUES (1, 2)");
            db.exec("INSERT INTO revision VALUES (1, 0, 2, 'New shop', '2026-11-01T08:00:00Z'), (2, 1, 0, 'edit', '2026-11-02T08:00:00Z')");
            const auto put = [&](int revision, const std::string& kind, const std::string& id, const std::string& body) {
                SQLite::Statement q(db, version == 3 ? "INSERT INTO change (revision, kind, document, body, digest) VALUES (?, ?, ?, ?, ?)"
                                                     : "INSERT INTO change (revision, kind, document, body) VALUES (?, ?, ?, ?)");
                q.bind(1, revision);
                q.bind(2, kind);
                q.bind(3, id);
                q.bind(4, body);
                if (version == 3) q.bind(5, digest_of(kind + '\n' + id + '\n' + body));
                q.exec();
            };
            put(1, "shop", "shop", to_json(demo.shop).dump());
            for (const auto& [id, slab] : demo.slabs) put(1, "slab", id, to_json(slab).dump());
            for (const auto& [id, job] : demo.jobs) put(1, "job", id, to_json(job).dump());
            put(2, "job", demo.jobs.begin()->first, to_json(named(demo, "later").jobs.begin()->second).dump());
            if (version >= 2) {
                db.exec(std::string("CREATE TABLE attachment (key TEXT PRIMARY KEY, bytes BLOB NOT NULL") +
                        (version == 3 ? ", digest TEXT)" : ")"));
                db.exec("INSERT INTO attachment (key, bytes" + std::string(version == 3 ? ", digest" : "") + ") VALUES ('picture', 'wood'" +
                        (version == 3 ? ", '" + digest_of("wood") + "')" : ")"));
            }
            if (version == 3) {
                db.exec(
                    "CREATE TABLE book (id INTEGER PRIMARY KEY, at TEXT NOT NULL, job TEXT NOT NULL, step TEXT NOT NULL, kind TEXT NOT "
                    "NULL, "
                    "what TEXT NOT NULL, value TEXT NOT NULL, unit TEXT NOT NULL, of_ TEXT NOT NULL)");
                db.exec("INSERT INTO book VALUES (1, '2026-11-02T09:00:00+01:00', 'j', 'fill', 'note', 'it rained', '', '', '')");
            }
            db.exec("PRAGMA application_id = " + std::to_string(application_id));
            db.exec("PRAGMA user_version = " + std::to_string(version));
        }
        CHECK(check_shop(path).ok);
        // A damaged one is not brought up: it stays as it is.
        fs::copy_file(path, f.file("bad.shop"));
        if (version == 3) {
            SQLite::Database(f.file("bad.shop"), SQLite::OPEN_READWRITE).exec("UPDATE change SET body = replace(body, 'later', 'lates')");
            const std::string before = bytes_of(f.file("bad.shop"));
            CHECK(kind_of_failure(f.file("bad.shop")) == StoreError::Kind::damaged);
            CHECK(bytes_of(f.file("bad.shop")) == before);
            repair_shop(f.file("bad.shop"), f.file("mended.shop"));
            CHECK(Store::open(f.file("mended.shop")).documents() == demo);  // as before the change that is lost
        }
        {
            Store s = Store::open(path);
            CHECK(s.documents() == named(demo, "later"));
            CHECK(s.book().size() == (version == 3 ? 1 : 0));
            CHECK(s.attachment("picture").value_or("") == (version >= 2 ? "wood" : ""));
            s.undo();
            CHECK(s.documents() == demo);
            CHECK(s.redo_label() == "edit");
            s.append("now", named(demo, "now"));
        }
        const CheckReport after = check_shop(path);
        CHECK(after.ok);
        CHECK(after.version == schema_version);
        REQUIRE(newest_backup(path));
        CHECK(check_shop(*newest_backup(path)).version == version);
        CHECK(name_in(Store::open(path)) == "now");
    }
}
