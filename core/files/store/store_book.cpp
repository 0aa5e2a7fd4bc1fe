// The book of a shop file: only ever added to.
#include <fmt/format.h>

#include "core/files/store/store_impl.h"

namespace yb {

void Store::write(BookEntry e) { write(std::vector{std::move(e)}); }

void Store::write(const std::vector<BookEntry>& entries) {
    impl_->guarded([&] {
        SQLite::Transaction tx(impl_->db, SQLite::TransactionBehavior::IMMEDIATE);
        for (BookEntry e : entries) {
            e.id = 0;
            if (e.at.empty()) e.at = now_local();
            write_entry(impl_->db, e);
        }
        tx.commit();
    });
}

std::vector<BookEntry> Store::book(std::int64_t after) const {
    std::vector<BookEntry> out;
    try {
        if (read_header(impl_->db).version < 3) return out;  // on a disk that can't be written
        SQLite::Statement q(impl_->db, fmt::format("SELECT {} FROM book WHERE id > {} ORDER BY id", entry_columns, after));
        while (q.executeStep()) out.push_back(entry_at(q));
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, impl_->path);
    }
    return out;
}

}  // namespace yb
