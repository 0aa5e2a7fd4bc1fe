#include "core/files/io/book_io.h"

#include "core/ground/file/csv_field.h"

namespace yb {

namespace {

constexpr const char* header = "at,job,step,kind,what,value,unit,of";

}  // namespace

std::string book_csv(const std::vector<BookEntry>& entries) {
    std::string out = std::string(header) + "\r\n";
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
        out.push_back({{"at", e.at}, {"job", e.job}, {"step", e.step}, {"kind", e.kind}, {"what", e.what}, {"value", e.value}, {"unit", e.unit}, {"of", e.of}});
    return out;
}

std::vector<BookEntry> read_book_csv(const std::string& text) {
    std::vector<std::vector<std::string>> rows;
    std::vector<std::string> row;
    std::string field;
    std::size_t line = 1, begun = 1;
    bool in_quotes = false;
    const auto end_row = [&] {
        row.push_back(std::move(field)), field.clear();
        if (row.size() > 1 || !row[0].empty()) {
            if (row.size() != 8) throw FormatError("line " + std::to_string(begun), "a line of the book has eight fields, this has " + std::to_string(row.size()) + ": " + header);
            rows.push_back(std::move(row));
        }
        row.clear();
    };
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (c == '\n') ++line;
        if (in_quotes) {
            if (c != '"') field += c;
            else if (i + 1 < text.size() && text[i + 1] == '"') field += c, ++i;
            else in_quotes = false;
        } else if (c == '"' && field.empty()) {
            in_quotes = true;
        } else if (c == ',') {
            row.push_back(std::move(field)), field.clear();
        } else if (c == '\n') {
            end_row(), begun = line;
        } else if (c != '\r') {
            field += c;
        }
    }
    if (in_quotes) throw FormatError("line " + std::to_string(begun), "a quote begins there and never ends");
    if (!field.empty() || !row.empty()) end_row();
    std::vector<BookEntry> out;
    if (rows.empty()) throw FormatError("line 1", std::string("a book begins with its columns: ") + header);
    std::string head;
    for (const std::string& s : rows[0]) head += (head.empty() ? "" : ",") + s;
    if (head != header) throw FormatError("line 1", std::string("a book begins with its columns: ") + header);
    for (std::size_t i = 1; i < rows.size(); ++i) {
        const auto& r = rows[i];
        out.push_back({static_cast<std::int64_t>(i), r[0], r[1], r[2], r[3], r[4], r[5], r[6], r[7]});
    }
    return out;
}

}  // namespace yb
