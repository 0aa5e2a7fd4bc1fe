#include <array>
#include <charconv>
#include <cmath>
#include <optional>

#include <fmt/format.h>

#include "core/ground/measure/constants.h"
#include "core/ground/measure/measure.h"

namespace yb {
namespace {

struct Unit {
    std::string_view word;
    double scale;
};

// Longer words first where one begins with another: the reader takes the first that fits.
constexpr std::array length_units{Unit{"millimetres", 1},
                                  Unit{"millimeters", 1},
                                  Unit{"mm", 1},
                                  Unit{"centimetres", 10},
                                  Unit{"cm", 10},
                                  Unit{"metres", 1000},
                                  Unit{"meters", 1000},
                                  Unit{"metre", 1000},
                                  Unit{"m", 1000},
                                  Unit{"inches", inch_mm},
                                  Unit{"inch", inch_mm},
                                  Unit{"in", inch_mm},
                                  Unit{"\"", inch_mm},
                                  Unit{"″", inch_mm},
                                  Unit{"”", inch_mm},
                                  Unit{"''", inch_mm},
                                  Unit{"feet", 12 * inch_mm},
                                  Unit{"foot", 12 * inch_mm},
                                  Unit{"ft", 12 * inch_mm},
                                  Unit{"'", 12 * inch_mm},
                                  Unit{"′", 12 * inch_mm},
                                  Unit{"’", 12 * inch_mm}};
constexpr double fluid_ounce_l = 3.785411784 / 128;
constexpr std::array volume_units{Unit{"millilitres", 1e-3},
                                  Unit{"milliliters", 1e-3},
                                  Unit{"ml", 1e-3},
                                  Unit{"cl", 1e-2},
                                  Unit{"litres", 1},
                                  Unit{"liters", 1},
                                  Unit{"litre", 1},
                                  Unit{"l", 1},
                                  Unit{"gallons", 3.785411784},
                                  Unit{"gallon", 3.785411784},
                                  Unit{"gal", 3.785411784},
                                  Unit{"quarts", 3.785411784 / 4},
                                  Unit{"qt", 3.785411784 / 4},
                                  Unit{"pt", 3.785411784 / 8},
                                  Unit{"fl oz", fluid_ounce_l},
                                  Unit{"floz", fluid_ounce_l},
                                  Unit{"oz", fluid_ounce_l}};
constexpr double pound_kg = 0.45359237;
constexpr std::array mass_units{Unit{"kg", 1},        Unit{"g", 1e-3},          Unit{"lbs", pound_kg},
                                Unit{"lb", pound_kg}, Unit{"pounds", pound_kg}, Unit{"oz", pound_kg / 16},
                                Unit{"t", 1000}};
constexpr std::array hour_units{Unit{"minutes", 1.0 / 60}, Unit{"min", 1.0 / 60}, Unit{"hours", 1}, Unit{"hour", 1},   Unit{"h", 1},
                                Unit{"days", 24},          Unit{"day", 24},       Unit{"d", 24},    Unit{"weeks", 168}};
constexpr std::array percent_units{Unit{"percent", 1}, Unit{"%", 1}};
constexpr std::array angle_units{Unit{"degrees", 1}, Unit{"deg", 1}, Unit{"°", 1}};
constexpr std::array area_units{Unit{"m²", 1}, Unit{"m2", 1}, Unit{"ft²", 0.09290304}, Unit{"ft2", 0.09290304}};
constexpr std::array<Unit, 0> no_units{};

struct Table {
    const Unit* first;
    std::size_t count;
};

Table table_of(Kind kind) {
    const auto of = [](const auto& a) { return Table{a.data(), a.size()}; };
    switch (kind) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: return of(length_units);
        case Kind::volume: return of(volume_units);
        case Kind::mass: return of(mass_units);
        case Kind::hours: return of(hour_units);
        case Kind::percent: return of(percent_units);
        case Kind::angle: return of(angle_units);
        case Kind::area: return of(area_units);
        default: return of(no_units);
    }
}

std::string example(Kind kind, const Units& u) {
    switch (kind) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: return u.metric_length() ? "2200, 2.2 m or 86 5/8\"" : "86 5/8, 7' 2 5/8\" or 2200 mm";
        case Kind::volume: return "2.5 L, 300 ml or 1 gal";
        case Kind::mass: return "40 kg, 250 g or 88 lb";
        case Kind::temperature: return "20, 20 C or 68 F";
        case Kind::percent: return "8 or 8.5 %";
        case Kind::hours: return "36 h, 90 min or 2 d";
        case Kind::angle: return "1.5 or 1.5°";
        default: return "12 or 12.5";
    }
}

double default_scale(Kind kind, const Units& u) {
    switch (kind) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: return u.metric_length() ? 1 : inch_mm;
        case Kind::volume: return u.litres ? 1 : fluid_ounce_l;
        case Kind::mass: return u.kilograms ? 1 : pound_kg;
        default: return 1;
    }
}

/// Reads left to right, remembering where it is for the error.
class Reader {
  public:
    Reader(std::string_view text, Kind kind, const Units& units) : text_(text), kind_(kind), units_(units) {}

    std::variant<double, ParseError> run() {
        skip();
        if (done()) return fail(0, "nothing is written here");
        double sign = 1;
        if (eat("-") || eat("−")) sign = -1;
        else eat("+");
        double sum = 0;
        bool after_feet = false;
        bool first = true;
        double last_scale = 0;
        while (skip(), !done()) {
            const std::size_t at = at_;
            const auto n = number_term();
            if (error_) return *error_;
            if (!n) {
                if (first) return fail(at, fmt::format("‘{}’ is not a number", here()));
                return fail(at, fmt::format("‘{}’ can't be read here", here()));
            }
            skip();
            const auto value = with_unit(sign * *n, first, after_feet, last_scale, at);
            if (error_) return *error_;
            sum += *value;
            first = false;
        }
        if (first) return fail(at_, "a number is missing");
        return sum;
    }

  private:
    bool done() const { return at_ >= text_.size(); }
    char peek(std::size_t ahead = 0) const { return at_ + ahead < text_.size() ? text_[at_ + ahead] : '\0'; }
    void skip() {
        while (!done() && (peek() == ' ' || peek() == '\t')) ++at_;
        if (eat("\u00a0") || eat("\u2009")) skip();
    }
    bool eat(std::string_view word) {
        if (text_.substr(at_, word.size()) != word) return false;
        at_ += word.size();
        return true;
    }
    static bool digit(char c) { return c >= '0' && c <= '9'; }
    static char lower(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; }

    /// The word that stands at the current place, for the message.
    std::string here() const {
        std::size_t end = at_;
        while (end < text_.size() && text_[end] != ' ' && end - at_ < 12) ++end;
        while (end < text_.size() && (static_cast<unsigned char>(text_[end]) & 0xC0) == 0x80) ++end;
        return std::string(text_.substr(at_, end - at_));
    }

    ParseError fail(std::size_t at, std::string what) { return ParseError{at, std::move(what), "Try " + example(kind_, units_)}; }

    std::optional<double> digits() {
        const std::size_t start = at_;
        while (digit(peek())) ++at_;
        bool point = false;
        if ((peek() == '.' || peek() == ',') && (digit(peek(1)) || at_ > start)) {
            const bool comma = peek() == ',';
            std::size_t n = 0;
            while (digit(peek(1 + n))) ++n;
            if (comma && n == 3 && at_ > start && text_[start] != '0') {
                error_ = fail(at_, fmt::format("‘{}’ could mean thousands or thousandths", text_.substr(start, at_ + 4 - start)));
                error_->hint = "Write it without the comma, or with a point";
                return {};
            }
            if (comma && n == 0) return at_ > start ? read(start, at_) : std::nullopt;
            at_ += 1 + n;
            point = true;
        }
        if (at_ == start || (point && at_ == start + 1)) {
            at_ = start;
            return {};
        }
        return read(start, at_);
    }

    std::optional<double> read(std::size_t from, std::size_t to) const {
        std::string s(text_.substr(from, to - from));
        for (char& c : s)
            if (c == ',') c = '.';
        double v = 0;
        std::from_chars(s.data(), s.data() + s.size(), v);
        return v;
    }

    std::optional<double> vulgar() {
        static constexpr std::array<std::pair<std::string_view, double>, 7> signs{
            {{"½", 0.5}, {"¼", 0.25}, {"¾", 0.75}, {"⅛", 0.125}, {"⅜", 0.375}, {"⅝", 0.625}, {"⅞", 0.875}}};
        for (const auto& [s, v] : signs)
            if (eat(s)) return v;
        return {};
    }

    /// `12`, `12.5`, `5/8`, `2 1/16`, `2-1/16`, `2½`.
    std::optional<double> number_term() {
        if (const auto v = vulgar()) return v;
        auto n = digits();
        if (!n) return {};
        if (peek() == '/') {
            const std::size_t slash = at_++;
            const auto d = digits();
            if (error_) return {};
            if (!d) {
                error_ = fail(slash, "the lower number of the fraction is missing");
                return {};
            }
            if (*d == 0) {
                error_ = fail(slash + 1, "a fraction over 0 has no value");
                return {};
            }
            return *n / *d;
        }
        const std::size_t keep = at_;
        skip();
        if (at_ == keep && peek() == '-') ++at_;
        if (const auto v = vulgar()) return *n + *v;
        const auto top = digits();
        if (top && peek() == '/' && digit(peek(1))) {
            ++at_;
            const auto d = digits();
            if (d && *d != 0) return *n + *top / *d;
            error_ = fail(at_ - 1, "a fraction over 0 has no value");
            return {};
        }
        error_.reset();
        at_ = keep;
        return n;
    }

    std::optional<double> with_unit(double n, bool first, bool& after_feet, double& last_scale, std::size_t at) {
        if (kind_ == Kind::temperature) return temperature(n);
        const Table t = table_of(kind_);
        for (std::size_t i = 0; i < t.count; ++i) {
            const std::string_view word = t.first[i].word;
            if (!matches(word)) continue;
            at_ += word.size();
            eat(".");
            after_feet = t.first[i].scale == 12 * inch_mm && kind_ != Kind::mass;
            last_scale = t.first[i].scale;
            return n * t.first[i].scale;
        }
        if (!done() && !digit(peek()) && peek() != ' ') {
            error_ = fail(at_, fmt::format("‘{}’ is no unit for this", here()));
            return {};
        }
        if (after_feet) {
            after_feet = false;
            return n * inch_mm;
        }
        if (!first) {
            error_ = fail(at, "a second number needs its unit");
            return {};
        }
        last_scale = default_scale(kind_, units_);
        if (!done()) {
            error_ = fail(at_, fmt::format("‘{}’ follows a number without a unit", here()));
            return {};
        }
        return n * last_scale;
    }

    bool matches(std::string_view word) const {
        if (text_.size() - at_ < word.size()) return false;
        for (std::size_t i = 0; i < word.size(); ++i)
            if (lower(text_[at_ + i]) != word[i]) return false;
        const char last = word.back();
        const char next = lower(peek(word.size()));
        const bool letters = last >= 'a' && last <= 'z';
        return !letters || !(next >= 'a' && next <= 'z');
    }

    std::optional<double> temperature(double n) {
        eat("°");
        skip();
        const char c = lower(peek());
        if (c == 'c' || c == 'f') ++at_;
        else if (!done()) {
            error_ = fail(at_, fmt::format("‘{}’ is no unit for this", here()));
            return {};
        }
        const bool f = c == 'f' || (c != 'c' && !units_.celsius);
        return f ? (n - 32) / 1.8 : n;
    }

    std::string_view text_;
    Kind kind_;
    Units units_;
    std::size_t at_ = 0;
    std::optional<ParseError> error_;
};

}  // namespace

std::string ParseError::sentence() const { return fmt::format("Place {}: {}. {}.", at + 1, what, hint); }

std::variant<double, ParseError> parse(std::string_view text, Kind kind, const Units& units) {
    while (!text.empty() && (text.back() == ' ' || text.back() == '\t')) text.remove_suffix(1);
    if (text.size() > 200) return ParseError{200, "the text is too long for a number", "Try " + example(kind, units)};
    return Reader(text, kind, units).run();
}

}  // namespace yb
