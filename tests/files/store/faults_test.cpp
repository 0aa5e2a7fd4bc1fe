// Faults by count: the program dies, the power goes or the disk fills at every write there is.
#include <csignal>
#include <cstdio>
#include <cstdlib>

#include <sys/wait.h>
#include <unistd.h>

#include "core/files/store/check.h"
#include "tests/files/store/faulty_disk.h"
#include "tests/files/store/folder.h"
#include "tests/how_much.h"

using namespace yb;

namespace fs = std::filesystem;

namespace {

Documents small_shop() {
    Documents d;
    d.slabs["slab-1"].id = "slab-1";
    d.slabs["slab-1"].name = "Butternut";
    d.jobs["job-1"].id = "job-1";
    d.jobs["job-1"].name = "0";
    return d;
}

/// Ends as a hand would: edits, an entry of the book with each, an undo and a redo now and then. Says what is kept.
void edits(Store& s, int from, int to, std::FILE* say) {
    for (int i = from; i <= to; ++i) {
        Documents d = named(s.documents(), std::to_string(i));
        d.slabs["slab-1"].notes = std::string(static_cast<std::size_t>(i % 3) * 3000, 'x');
        s.append("edit", d);
        std::fprintf(say, "%d\n", i);
        std::fflush(say);
        s.write({0, "2026-11-25T10:00:00+01:00", "job-1", "", "note", std::to_string(i), "", "", ""});
        std::fprintf(say, "%d\n", 1000 + i);
        std::fflush(say);
        if (i % 4 == 0) s.undo(), s.redo();
    }
}

struct Ended {
    bool by_itself = false;
    int edit = 0, entry = 0;  ///< the last that was acknowledged
    long writes = 0;
};

/// Edits in a process of its own, on a disk with a fault.
Ended edits_on(const std::string& path, int from, int to, Fault fault, long at) {
    int out[2];
    REQUIRE(pipe(out) == 0);
    const pid_t child = fork();
    if (child == 0) {
        close(out[0]);
        std::FILE* say = fdopen(out[1], "w");
        const FaultyDisk disk(fault, at);
        try {
            Store s = Store::open(path);
            edits(s, from, to, say);
        } catch (...) {
            _exit(3);
        }
        std::fprintf(say, "%ld\n", 1000000 + FaultyDisk::count());
        std::fflush(say);
        _exit(0);
    }
    close(out[1]);
    std::FILE* in = fdopen(out[0], "r");
    Ended e;
    long said = 0;
    while (std::fscanf(in, "%ld", &said) == 1) {
        if (said >= 1000000) e.writes = said - 1000000;
        else if (said >= 1000) e.entry = static_cast<int>(said - 1000);
        else e.edit = static_cast<int>(said);
    }
    std::fclose(in);
    int status = 0;
    waitpid(child, &status, 0);
    e.by_itself = WIFEXITED(status) && WEXITSTATUS(status) == 0;
    if (!e.by_itself) CHECK((WIFSIGNALED(status) && WTERMSIG(status) == SIGKILL));
    return e;
}

}  // namespace

TEST_CASE("killed, or without power, at every write: what was acknowledged is there, and nothing is damaged", "[store][fault]") {
    const int last = in_full() ? 40 : 8;
    // The book as it is where nothing happens: lines that came with a change, and those that were written.
    std::vector<BookEntry> whole;
    {
        const Folder f;
        Store s = Store::create(f.file("a.shop"), small_shop(), "New shop");
        std::FILE* nowhere = std::fopen("/dev/null", "w");
        edits(s, 1, last, nowhere);
        std::fclose(nowhere);
        whole = s.book();
        REQUIRE(whole.size() > static_cast<std::size_t>(2 * last));
    }
    for (const Fault fault : {Fault::kill, Fault::power_cut}) {
        int places = 0;
        long writes = 0;
        // By default every third write, another third for each fault.
        const long every = so_many(3L, 1L);
        for (long at = fault == Fault::kill || in_full() ? 1 : 2;; at += every) {
            const Folder f;
            const std::string path = f.file("a.shop");
            { Store::create(path, small_shop(), "New shop"); }
            const Ended e = edits_on(path, 1, last, fault, at);
            INFO("write " << at << ", acknowledged " << e.edit << " and entry " << e.entry);
            const CheckReport r = check_shop(path);
            if (!r.ok) FAIL_CHECK(r.problems.front());
            Store s = Store::open(path);
            const int kept = std::stoi(name_in(s));
            REQUIRE(kept >= e.edit - (e.edit % 4 == 0 ? 1 : 0));  // the undo of every fourth may be what was cut
            REQUIRE(kept <= e.edit + 1);
            if (kept < e.edit) CHECK(s.can_redo());
            // Its book is the beginning of that one, line by line: none is lost, altered or there twice, and what came with a change came
            // or did not with it.
            const auto book = s.book();
            REQUIRE(book.size() <= whole.size());
            int written = 0, changed = 0;
            for (std::size_t i = 0; i < book.size(); ++i) {
                const BookEntry &a = book[i], &b = whole[i];
                CHECK((a.id == b.id && a.job == b.job && a.kind == b.kind && a.what == b.what && a.value == b.value && a.of == b.of));
                written += a.job == "job-1" && a.kind == "note" && a.at == "2026-11-25T10:00:00+01:00";
                changed += a.kind == "change";
            }
            CHECK(written >= e.entry);
            if (kept > 0 && kept >= e.edit) CHECK(changed >= kept);
            // It goes on from there.
            s.append("after", named(s.documents(), "after"));
            CHECK(name_in(Store::open(path)) == "after");
            if (e.by_itself) {
                writes = e.writes;
                break;
            }
            ++places;
        }
        CHECK(places * every >= 100);
        CHECK(std::abs(places * every - writes) <= every);
        if (in_full()) std::printf("%s: %d places\n", fault == Fault::kill ? "killed" : "power cut", places);
    }
}

TEST_CASE("killed at every write while a backup is due: the shop is whole and no half backup is named", "[store][fault]") {
    for (long at = 1; at < 400; at += in_full() ? 1 : 7) {
        const Folder f;
        const std::string path = f.file("a.shop");
        { Store::create(path, small_shop(), "New shop"); }
        const pid_t child = fork();
        if (child == 0) {
            const FaultyDisk disk(Fault::kill, at);
            backup_once_a_day(path);
            _exit(0);
        }
        int status = 0;
        waitpid(child, &status, 0);
        CHECK(check_shop(path).ok);
        CHECK(Store::open(path).documents() == small_shop());
        for (const std::string& backup : backups_of(path)) CHECK(check_shop(backup).ok);
        if (WIFEXITED(status)) {
            CHECK(newest_backup(path));
            CHECK(at > 5);
            return;
        }
    }
    FAIL("it never came to its end");
}

TEST_CASE("full at every write: told as full, the old state holds, and with room again all goes on", "[store][fault]") {
    int places = 0;
    for (long at = 1;; ++at) {
        const Folder f;
        const std::string path = f.file("a.shop");
        { Store::create(path, small_shop(), "New shop"); }
        std::optional<Store> s(Store::open(path));
        s->append("one", named(s->documents(), "1"));
        const Documents before = s->documents();
        bool refused = false;
        int done = 1;
        {
            const FaultyDisk disk(Fault::full, at);
            s.emplace(Store::open(path));  // through the faulty one
            INFO("write " << at);
            if (!s->read_only()) {
                for (int i = 2; i <= 9 && !refused; ++i) try {
                        Documents d = named(s->documents(), std::to_string(i));
                        d.slabs["slab-1"].notes = std::string(9000, static_cast<char>('a' + i));
                        s->append("edit", d);
                        done = i;
                    } catch (const StoreError& e) {
                        refused = true;
                        CHECK(e.kind() == StoreError::Kind::full);
                        CHECK(std::string(e.what()).find("full") != std::string::npos);
                        CHECK(std::string(e.what()).find("damaged") == std::string::npos);
                    }
                CHECK(name_in(*s) == std::to_string(done));
                FaultyDisk::mend();
                s->append("again", named(s->documents(), "again"));
            } else {
                refused = true;
                CHECK(s->why_read_only().find("full") != std::string::npos);
                CHECK(s->documents() == before);
            }
            s.reset();
        }
        const CheckReport r = check_shop(path);
        CHECK(r.ok);
        const std::string name = name_in(Store::open(path));
        CHECK((name == "again" || name == "1"));
        if (!refused) break;
        ++places;
    }
    CHECK(places >= 100);
    if (in_full()) std::printf("full: %d places\n", places);
}

TEST_CASE("a shop that can't be made leaves no file behind, whatever write fails", "[store][fault]") {
    int places = 0;
    for (long at = 1;; ++at) {
        const Folder f;
        const std::string path = f.file("a.shop");
        bool made = false;
        {
            const FaultyDisk disk(Fault::full, at);
            try {
                Store::create(path, small_shop(), "New shop");
                made = true;
            } catch (const StoreError& e) {
                CHECK(e.kind() == StoreError::Kind::full);
            }
        }
        if (made) {
            CHECK(Store::open(path).documents() == small_shop());
            break;
        }
        ++places;
        INFO("write " << at);
        CHECK(fs::is_empty(f.path));
    }
    CHECK(places > 10);
}

TEST_CASE("a clock set back: revisions keep their order, and today's backup is made and stays", "[store][fault]") {
    const Folder f;
    const std::string path = f.file("a.shop");
    {
        Store s = Store::create(path, small_shop(), "New shop");
        for (const char* name : {"one", "two"}) s.append(name, named(s.documents(), name));
    }
    fs::create_directories(backup_folder(path));
    // Fourteen backups of days that by this clock are still to come.
    for (int i = 10; i < 24; ++i) fs::copy_file(path, backup_folder(path) + "/2999-01-" + std::to_string(i) + ".shop");
    CHECK(backup_once_a_day(path));
    CHECK(backups_of(path).size() == 15);
    CHECK(check_shop(backups_of(path).back()).ok);
    Store s = Store::open(path);
    s.append("three", named(s.documents(), "three"));
    REQUIRE(s.history().size() == 4);
    CHECK(s.history().back().label == "three");
    CHECK(s.undo_label() == "three");
}
