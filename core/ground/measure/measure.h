// Lengths, volumes, masses, temperatures: what people type and what they read.
//
// The program computes in millimetres, litres, kilograms, degrees Celsius, hours and percent. Conversion
// happens here and nowhere else. A text is read in whatever unit it names; a text without a unit is read in
// the maker's own. Exactness: an inch is 25.4 mm, a pound 0.45359237 kg, a US gallon 3.785411784 L.
//
// Round trips: for a value that the chosen style can show (a whole 1/16 of an inch, a whole millimetre),
// parse(format(v)) gives v back to the last bit; edit_text() falls back to decimals where it cannot.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace yb {

/// What a number measures, and so how it is written and read.
enum class Kind {
    length,       ///< mm; shown to 1 mm or 1/16 in
    fine,         ///< mm; shown to 0.1 mm or 1/32 in: thicknesses, shims, travel
    along,        ///< mm; a place along the slab, shown in metres or feet and inches
    area,         ///< m²; shown in m² or ft²
    volume,       ///< L; shown in L and mL, or gal and fl oz
    mass,         ///< kg; shown in kg and g, or lb and oz
    temperature,  ///< °C
    percent,      ///< %
    hours,        ///< h; shown in min, h or days
    angle,        ///< degrees
    count,        ///< a plain whole number
    number        ///< a plain number
};

/// A number and what it measures, in the program's own unit for that kind (see Kind).
struct Quantity {
    double value = 0;
    Kind kind = Kind::number;
    bool operator==(const Quantity&) const = default;
};

enum class LengthStyle { millimetres, inches_16, inches_32, inches_decimal, feet_inches };

/// The maker's units: one for the whole program.
struct Units {
    LengthStyle length = LengthStyle::millimetres;
    bool litres = true;
    bool kilograms = true;
    bool celsius = true;
    bool metric_length() const { return length == LengthStyle::millimetres; }
    bool operator==(const Units&) const = default;
    static Units metric() { return {}; }
    static Units imperial() { return {LengthStyle::inches_16, false, false, false}; }
};

/// Number and unit apart, so that a view can set them in different sizes. The unit may be empty.
struct Printed {
    std::string number;
    std::string unit;
};

/// Writes a quantity for reading, rounded as its Kind says.
Printed print(Quantity q, const Units& units);

/// print() in one text: `1620 mm`, `5/8″`, `7′ 6 1/2″`, `2.1 L`.
std::string format(Quantity q, const Units& units);

/// Writes a quantity for an edit field: the shortest text in the maker's units that parse() reads back as
/// the same value (to 1e-9 relative), falling back to as many decimals as that takes.
std::string edit_text(Quantity q, const Units& units);

/// Why a text could not be read: the place (byte offset from 0), what stands there and what to type instead.
struct ParseError {
    std::size_t at = 0;
    std::string what;
    std::string hint;
    /// One sentence for the maker.
    std::string sentence() const;
};

/// Reads a text as a quantity of the given kind, e.g. `7' 6 1/2"`, `90.5in`, `2.3 m`, `5/8`, `2 1/16"`,
/// `12 L`, `3 gal`, `3 lb 4 oz`, `68 F`, `36 h`. Terms add up (`2 m 30 cm`). A number without a unit takes
/// the maker's own; after feet it is inches.
/// @returns the value in the program's unit for the kind, or a ParseError; never throws.
std::variant<double, ParseError> parse(std::string_view text, Kind kind, const Units& units);

/// A word of the program's own, said in the language that is spoken (words.h).
struct Word {
    std::string english;
    bool operator==(const Word&) const = default;
};

/// So many of something, spoken as one speaks: "no lifts", "1 lift", "2 lifts". Both words are the program's own.
struct Counted {
    double n = 0;
    std::string one, many;
    bool operator==(const Counted&) const = default;
};

/// What goes into a phrase: a quantity, so many of something, a word of the program's own, or a name that stands as it is (whatever is
/// in it, `{}` too).
struct PhraseArg {
    std::variant<Quantity, std::string, Word, Counted> what;
    PhraseArg(Quantity q) : what(q) {}
    PhraseArg(std::string name) : what(std::move(name)) {}
    PhraseArg(const char* word) : what(Word{word}) {}
    PhraseArg(Counted c) : what(std::move(c)) {}
    bool operator==(const PhraseArg&) const = default;
    /// The quantity; nullptr for a word.
    const Quantity* quantity() const { return std::get_if<Quantity>(&what); }
};

/// A sentence with quantities and names in it, kept apart from the units it will be read in. Its pattern is a constant of
/// the program, so that it can be translated; `{}` in it stands for the next argument. `then` follows it, each a phrase of
/// its own.
struct Phrase {
    std::string pattern;
    std::vector<PhraseArg> values{};
    std::vector<Phrase> then{};
    bool operator==(const Phrase&) const = default;
    bool empty() const { return pattern.empty(); }
    /// The number of the i-th argument, how many for a count. @throws std::out_of_range, std::bad_variant_access for a word.
    double value(std::size_t i) const;
};

/// @param pattern a constant of the program: nothing is glued into it.
template <class... A>
Phrase say(const char* pattern, A&&... a) {
    return {pattern, {PhraseArg(std::forward<A>(a))...}, {}};
}

/// A name alone, as it stands.
inline Phrase named(std::string name) { return {"{}", {PhraseArg(std::move(name))}, {}}; }

/// So many of something; the number is rounded to a whole one.
inline Counted counted(double n, const char* one, const char* many) { return {n, one, many}; }

/// The phrase as the maker reads it. A quantity that is not nothing and would be printed as nothing is "less than" the least that is
/// printed; what a sentence begins with is written large.
std::string render(const Phrase& phrase, const Units& units);

inline Quantity mm(double v) { return {v, Kind::length}; }
inline Quantity fine(double v) { return {v, Kind::fine}; }
inline Quantity along(double v) { return {v, Kind::along}; }
inline Quantity litres(double v) { return {v, Kind::volume}; }
inline Quantity kg(double v) { return {v, Kind::mass}; }
inline Quantity celsius(double v) { return {v, Kind::temperature}; }
inline Quantity percent(double v) { return {v, Kind::percent}; }
inline Quantity hours(double v) { return {v, Kind::hours}; }
inline Quantity degrees(double v) { return {v, Kind::angle}; }
inline Quantity square_metres(double v) { return {v, Kind::area}; }
inline Quantity count(double v) { return {v, Kind::count}; }
inline Quantity number(double v) { return {v, Kind::number}; }

}  // namespace yb
