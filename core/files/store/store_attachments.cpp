// Pictures and scans of a shop file.
#include <sqlite3.h>

#include "core/files/store/store_impl.h"

namespace yb {

namespace {

/// @param again other bytes under a key that is taken are left out instead of refused: for what can be made again.
void write_attachments(SQLite::Database& db, const Store::Attachments& all, bool again) {
    SQLite::Transaction tx(db, SQLite::TransactionBehavior::IMMEDIATE);
    SQLite::Statement taken(db, "SELECT digest FROM attachment WHERE key = ?");
    for (const auto& [key, bytes] : all) {
        taken.bind(1, key);
        const bool there = taken.executeStep();
        const bool same = there && taken.getColumn(0).getString() == seal_of_attachment(key, bytes);
        taken.reset();
        if (there && !same && !again)
            throw StoreError(StoreError::Kind::other, "There is another picture or scan under the name " + key + ". It was kept.");
        if (!there) write_attachment(db, key, bytes);
    }
    tx.commit();
}

std::optional<std::string> read_verified(SQLite::Database& db, const std::string& key, const std::string& path) {
    const bool sealed = read_header(db).version == schema_version;
    SQLite::Statement q(db, sealed ? "SELECT bytes, digest FROM attachment WHERE key = ?" : "SELECT bytes FROM attachment WHERE key = ?");
    q.bind(1, key);
    if (!q.executeStep()) return {};
    std::string bytes = q.getColumn(0).getString();
    if (sealed && q.getColumn(1).getString() != seal_of_attachment(key, bytes))
        throw StoreError(StoreError::Kind::damaged,
                         "The picture or scan " + key + " in " + path + " is damaged: it does not fit its checksum.");
    return bytes;
}

}  // namespace

void Store::attach(const std::string& key, const std::string& bytes) { attach(Attachments{{key, bytes}}); }

void Store::attach(const Attachments& all) {
    impl_->guarded([&] { write_attachments(impl_->db, all, false); });
}

std::optional<std::string> Store::read_attachment(const std::string& path, const std::string& key) {
    try {
        SQLite::Database db = open_to_read(path);
        return read_verified(db, key, path);
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, path);
    }
}

Store::Beside Store::beside() const {
    Beside out;
    out.file_ = impl_->file;
    return out;
}

void Store::attach_beside(const Beside& file, const Attachments& all) {
    const std::string& path = file.file_->path;
    if (!(stamp_of(path) == file.file_->seen()))
        throw StoreError(StoreError::Kind::busy,
                         path + " was changed a moment ago, and nobody has looked at it yet. It is tried again later.");
    try {
        SQLite::Database db(path, SQLite::OPEN_READWRITE, 5000);
        trust_nothing(db);
        db.exec("PRAGMA synchronous = NORMAL");
        write_attachments(db, all, true);
        file.file_->saw(stamp_of(path));
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, path);
    }
}

std::optional<std::string> Store::attachment(const std::string& key) const {
    try {
        return read_verified(impl_->db, key, impl_->path);
    } catch (const SQLite::Exception& e) {
        // A shop of version 1 on a disk that can't be written has none.
        if (read_only() && e.getErrorCode() == SQLITE_ERROR) return {};
        throw sqlite_error(e, impl_->path);
    }
}

bool Store::has_attachment(const std::string& key) const {
    try {
        SQLite::Statement q(impl_->db, "SELECT 1 FROM attachment WHERE key = ?");
        q.bind(1, key);
        return q.executeStep();
    } catch (const SQLite::Exception&) {
        return false;
    }
}

}  // namespace yb
