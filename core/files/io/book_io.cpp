#include "core/files/io/book_io.h"

#include <algorithm>

#include <fmt/format.h>
#include <fmt/ranges.h>

#include "core/ground/file/csv.h"
#include "core/ground/file/format_error.h"

namespace yb {

namespace {

constexpr const char* header = "at,job,step,kind,what,value,unit,of";

}  // namespace

std::string book_csv(const std::vector<BookEntry>& entries) {
    std::string out = fmt::format("{}\r\n", header);
    for (const BookEntry& e : entries) {
        bool first = true;
        for (const std::string* s : {&e.at, &e.job, &e.step, &e.kind, &e.what, &e.value, &e.unit, &e.of}) {
            if (!first) out += ',';
            out += csv_field(*s), first = false;
        }
        out += "\r\n";
    }
    return out;
}

Json book_json(const std::vector<BookEntry>& entries) {
    Json out = Json::array();
    for (const BookEntry& e : entries)
        out.push_back({{"at", e.at},
                       {"job", e.job},
                       {"step", e.step},
                       {"kind", e.kind},
                       {"what", e.what},
                       {"value", e.value},
                       {"unit", e.unit},
                       {"of", e.of}});
    return out;
}

std::vector<BookEntry> read_book_csv(const std::string& text) {
    CsvRows rows(text);
    const auto fail = [&](const std::string& what) {
        throw FormatError(fmt::format("line {}", std::max<std::size_t>(rows.line(), 1)), what);
    };
    std::string head;
    if (rows.next()) head = fmt::format("{}", fmt::join(rows.cells(), ","));
    if (head != header) fail(fmt::format("a book begins with its columns: {}", header));
    std::vector<BookEntry> out;
    while (rows.next()) {
        std::vector<std::string> r(rows.cells().begin(), rows.cells().end());
        if (r.size() != 8) fail(fmt::format("a line of the book has eight fields, this has {}: {}", r.size(), header));
        out.push_back({static_cast<std::int64_t>(out.size()) + 1, r[0], r[1], r[2], r[3], r[4], r[5], r[6], r[7]});
    }
    return out;
}

}  // namespace yb
