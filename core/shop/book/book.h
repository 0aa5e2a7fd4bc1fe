// The book: what really happened, in the order it was written down. Only ever added to: what was wrong is corrected by a line that names
// it.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace yb {

struct Documents;

/// A line of the book.
struct BookEntry {
    std::int64_t id = 0;
    std::string at;    ///< local time with its offset, ISO 8601
    std::string job;   ///< id; may be empty
    std::string step;  ///< key; may be empty, or one that only a newer program knows
    std::string kind;  ///< reading, tick, note, change, agreement, photo, correction
    std::string what, value, unit;
    std::string of;  ///< what it corrects ("#12") or belongs to: a leaf, a void, an operation, a card
    bool operator==(const BookEntry&) const = default;
};

namespace book {
inline constexpr const char* reading = "reading";
inline constexpr const char* tick = "tick";
inline constexpr const char* note = "note";
inline constexpr const char* change = "change";
inline constexpr const char* agreement = "agreement";
inline constexpr const char* photo = "photo";
inline constexpr const char* correction = "correction";
}  // namespace book

/// Local time with its offset, "2026-11-30T16:30:05+01:00", of a moment in seconds since 1970.
std::string local_time(std::int64_t seconds);
/// Of a moment in UTC, "2026-11-26T07:12:05Z"; what can't be read stays as it is.
std::string local_time_of(const std::string& utc);

/// Seconds since 1970 of a local time with its offset, whatever the zone and the season; nothing for what is none.
std::optional<double> moment_of(const std::string& at);

/// What a change of the documents means for the book: readings, ticks, notes, photographs, agreements, decisions of the plan that are other
/// now – a school, a size, a slab. What is taken back is a correction that says so. Nothing for what is only moved or looked at.
/// @param now when it is written, local with offset; ticks and readings that know their own time keep it.
std::vector<BookEntry> happened(const Documents& before, const Documents& after, const std::string& now);

/// What was typed to be written down: "dry film 0.08 mm" is a reading – a name, a number, a unit of those instruments and makers have –,
/// all else a note.
BookEntry typed_entry(const std::string& text);

/// A line with what became of it.
struct BookLine {
    BookEntry entry;
    std::int64_t corrected_by = 0;  ///< the last line that corrects it; 0: it stands
};
/// The book as it is read, oldest first: corrections are followed, corrections of corrections likewise. One that names a line that is not
/// there, or one that comes after it, corrects nothing.
std::vector<BookLine> read_book(const std::vector<BookEntry>& entries);

struct BookAsk {
    std::string words;      ///< all of them stand somewhere in it, whatever their case
    std::string job, kind;  ///< empty: any
    std::string from, to;   ///< ISO dates, both counted; empty: any
};
/// Places in the book of the lines that are asked for, in its order.
std::vector<std::size_t> search(const std::vector<BookLine>& lines, const BookAsk& ask);

/// What a line of a card says it belongs to: "card pour 12.5".
struct OfCard {
    std::string card;
    std::string more;  ///< behind it: a reading's second, with its blank
};
/// Nothing for what belongs to no card.
std::optional<OfCard> of_card(const std::string& of);
/// True for a line that belongs to a thing, alone or with more behind it.
bool is_of(const BookEntry& entry, const std::string& thing);

/// A correction of a line: what it says instead. @param value what was right; empty: it did not happen.
BookEntry correcting(const BookEntry& wrong, const std::string& value, const std::string& why);

/// A point of a reading over time.
struct BookPoint {
    std::string at;
    double value = 0;
    std::int64_t id = 0;
};
/// Readings of a kind that stand, in order of their time: of a job (empty: any) and of a thing (empty: any). Corrected ones have their new
/// value; those that can't be read as a number are left out.
std::vector<BookPoint> readings_of(const std::vector<BookLine>& lines, const std::string& what, const std::string& job = {},
                                   const std::string& of = {});

}  // namespace yb
