// The book of a shop file: only ever added to.
#include <chrono>
#include <ctime>

#include <fmt/chrono.h>
#include <fmt/format.h>

#include "core/files/store/store_impl.h"

namespace yb {

namespace {

/// Local time with its offset, as the book keeps it.
std::string now_local() {
    const std::time_t t = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    std::string at = fmt::format("{:%FT%T%z}", fmt::localtime(t));
    return at.insert(at.size() - 2, ":");
}

}  // namespace

void Store::write(BookEntry e) {
    impl_->guarded([&] {
        SQLite::Transaction tx(impl_->db, SQLite::TransactionBehavior::IMMEDIATE);
        e.id = 0;
        if (e.at.empty()) e.at = now_local();
        write_entry(impl_->db, e);
        tx.commit();
    });
}

std::vector<BookEntry> Store::book() const {
    std::vector<BookEntry> out;
    try {
        if (read_header(impl_->db).version < 3) return out;  // on a disk that can't be written
        SQLite::Statement q(impl_->db, fmt::format("SELECT {} FROM book ORDER BY id", entry_columns));
        while (q.executeStep()) out.push_back(entry_at(q));
    } catch (const SQLite::Exception& e) {
        throw sqlite_error(e, impl_->path);
    }
    return out;
}

}  // namespace yb
