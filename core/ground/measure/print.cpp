#include <cctype>
#include <cmath>
#include <cstdlib>
#include <numeric>

#include <fmt/format.h>

#include "core/ground/measure/constants.h"
#include "core/ground/measure/measure.h"
#include "core/ground/measure/words.h"

namespace yb {
namespace {

/// Fixed decimals without trailing zeros and without a minus before nothing.
std::string decimals(double v, int most, bool keep_zeros = false) {
    std::string s = fmt::format("{:.{}f}", v, most);
    if (!keep_zeros && s.find('.') != std::string::npos) {
        while (s.back() == '0') s.pop_back();
        if (s.back() == '.') s.pop_back();
    }
    if (s.find_first_not_of("-0.") == std::string::npos && s.front() == '-') s.erase(0, 1);
    return s;
}

/// Whole parts of 1/denominator as `2 1/16`.
std::string fraction(long long parts, int denominator) {
    const long long whole = parts / denominator;
    const long long rest = parts % denominator;
    if (rest == 0) return fmt::format("{}", whole);
    const long long g = std::gcd(rest, static_cast<long long>(denominator));
    if (whole == 0) return fmt::format("{}/{}", rest / g, denominator / g);
    return fmt::format("{} {}/{}", whole, rest / g, denominator / g);
}

Printed feet_and_inches(double v, int denominator) {
    const long long parts = std::llround(std::abs(v) / inch_mm * denominator);
    const long long foot = 12LL * denominator;
    const std::string sign = v < 0 && parts > 0 ? "-" : "";
    if (parts < foot) return {sign + fraction(parts, denominator), "″"};
    const long long rest = parts % foot;
    std::string s = fmt::format("{}{}′", sign, parts / foot);
    if (rest == 0) return {s, ""};
    return {fmt::format("{} {}″", s, fraction(rest, denominator)), ""};
}

Printed inches(double v, int denominator) {
    const long long parts = std::llround(std::abs(v) / inch_mm * denominator);
    return {(v < 0 && parts > 0 ? "-" : "") + fraction(parts, denominator), "″"};
}

Printed print_length(double v, Kind kind, LengthStyle style) {
    const bool is_fine = kind == Kind::fine;
    switch (style) {
        case LengthStyle::millimetres:
            if (kind == Kind::along) return {decimals(v / 1000, 2, true), "m"};
            return {decimals(v, is_fine ? 1 : 0, is_fine), "mm"};
        case LengthStyle::inches_decimal: return {decimals(v / inch_mm, is_fine ? 3 : 2, true), "in"};
        case LengthStyle::feet_inches: return feet_and_inches(v, is_fine ? 32 : 16);
        case LengthStyle::inches_32:
        case LengthStyle::inches_16: break;
    }
    const int denominator = is_fine || style == LengthStyle::inches_32 ? 32 : 16;
    return kind == Kind::along ? feet_and_inches(v, denominator) : inches(v, denominator);
}

Printed print_volume(double l, bool metric) {
    if (metric) {
        if (std::abs(l) < 0.9995) return {decimals(l * 1000, std::abs(l) < 0.01 ? 1 : 0), "mL"};
        return {decimals(l, std::abs(l) < 9.995 ? 2 : std::abs(l) < 99.95 ? 1 : 0, true), "L"};
    }
    const double gal = l / 3.785411784;
    if (std::abs(gal) < 0.5) return {decimals(gal * 128, 1, true), "fl oz"};
    return {decimals(gal, 2, true), "gal"};
}

Printed print_mass(double m, bool metric) {
    if (metric) {
        if (std::abs(m) < 0.00995) return {decimals(m * 1000, 1), "g"};
        if (std::abs(m) < 0.9995) return {decimals(m * 1000, 0), "g"};
        return {decimals(m, std::abs(m) < 99.95 ? 1 : 0, true), "kg"};
    }
    const double lb = m / 0.45359237;
    if (std::abs(lb) < 2) return {decimals(lb * 16, 1, true), "oz"};
    return {decimals(lb, std::abs(lb) < 99.95 ? 1 : 0, true), "lb"};
}

Printed print_hours(double h) {
    if (std::abs(h) < 1) return {decimals(h * 60, 0), "min"};
    if (std::abs(h) < 72) return {decimals(h, std::abs(h) < 10 ? 1 : 0), "h"};
    return {decimals(h / 24, 1), in_words("days")};
}

/// The maker's unit for typing, with as many decimals as it takes to come back to the value.
std::string exact(double v, double scale, const char* unit, Kind kind, const Units& units) {
    std::string s;
    for (int d = 0; d <= 12; ++d) {
        s = decimals(v / scale, d) + unit;
        const auto back = parse(s, kind, units);
        const double* b = std::get_if<double>(&back);
        if (b && std::abs(*b - v) <= 1e-9 * std::max(1.0, std::abs(v))) break;
    }
    return s;
}

}  // namespace

Printed print(Quantity q, const Units& u) {
    switch (q.kind) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: return print_length(q.value, q.kind, u.length);
        case Kind::area:
            return u.metric_length() ? Printed{decimals(q.value, 2, true), "m²"} : Printed{decimals(q.value / 0.09290304, 1, true), "ft²"};
        case Kind::volume: return print_volume(q.value, u.litres);
        case Kind::mass: return print_mass(q.value, u.kilograms);
        case Kind::temperature: return u.celsius ? Printed{decimals(q.value, 0), "°C"} : Printed{decimals(q.value * 1.8 + 32, 0), "°F"};
        case Kind::percent: return {decimals(q.value, 1), "%"};
        case Kind::hours: return print_hours(q.value);
        case Kind::angle: return {decimals(q.value, 2), "°"};
        case Kind::count: return {decimals(q.value, 0), ""};
        case Kind::number: return {decimals(q.value, 3), ""};
    }
    std::abort();
}

std::string format(Quantity q, const Units& units) {
    const Printed p = print(q, units);
    if (p.unit.empty()) return p.number;
    const bool close = p.unit == "″" || p.unit == "°";
    return p.number + (close ? "" : " ") + p.unit;
}

std::string edit_text(Quantity q, const Units& u) {
    switch (q.kind) {
        case Kind::length:
        case Kind::fine:
        case Kind::along: {
            if (u.metric_length()) return exact(q.value, 1, "", q.kind, u);
            if (u.length != LengthStyle::inches_decimal) {
                const bool feet = u.length == LengthStyle::feet_inches;
                const Printed p = feet ? feet_and_inches(q.value, 32) : inches(q.value, 32);
                const std::string s = p.number + p.unit;
                const auto back = parse(s, q.kind, u);
                if (const double* b = std::get_if<double>(&back); b && std::abs(*b - q.value) <= 1e-9) return s;
            }
            return exact(q.value, inch_mm, " in", q.kind, u);
        }
        case Kind::volume: return u.litres ? exact(q.value, 1, " L", q.kind, u) : exact(q.value, 3.785411784 / 128, " fl oz", q.kind, u);
        case Kind::mass: return u.kilograms ? exact(q.value, 1, " kg", q.kind, u) : exact(q.value, 0.45359237, " lb", q.kind, u);
        case Kind::temperature:
            for (int d = 0; d <= 12 && !u.celsius; ++d) {
                std::string s = decimals(q.value * 1.8 + 32, d) + " F";
                const auto back = parse(s, q.kind, u);
                if (const double* b = std::get_if<double>(&back); b && std::abs(*b - q.value) <= 1e-9) return s;
            }
            return exact(q.value, 1, " C", q.kind, u);
        case Kind::hours: return exact(q.value, 1, " h", q.kind, u);
        case Kind::percent: return exact(q.value, 1, " %", q.kind, u);
        case Kind::angle: return exact(q.value, 1, "°", q.kind, u);
        case Kind::area: return exact(q.value, 1, " m²", q.kind, u);
        case Kind::count:
        case Kind::number: return exact(q.value, 1, "", q.kind, u);
    }
    std::abort();
}

double Phrase::value(std::size_t i) const {
    const auto& what = values.at(i).what;
    if (const auto* c = std::get_if<Counted>(&what)) return c->n;
    return std::get<Quantity>(what).value;
}

namespace {

/// In a sentence: "less than 0.1 mm" where the figure would be nothing and is not.
std::string spoken(Quantity q, const Units& units) {
    const Printed p = print(q, units);
    const bool nothing = p.number.find_first_of("123456789") == std::string::npos;
    const bool measured = q.kind == Kind::length || q.kind == Kind::fine || q.kind == Kind::volume || q.kind == Kind::mass ||
                          q.kind == Kind::area || q.kind == Kind::hours;
    if (!nothing || !measured) return format(q, units);
    if (std::abs(q.value) < 1e-6) return "0" + (p.unit.empty() ? "" : format(q, units).substr(p.number.size()));
    // The least that is printed, looked for upward.
    Quantity least = q;
    for (least.value = std::abs(q.value); print(least, units).number.find_first_of("123456789") == std::string::npos;) least.value *= 1.05;
    return in_words("less than ") + format(least, units);
}

std::string spoken(const Counted& c) {
    const double n = std::round(c.n);
    if (n == 0) return in_words("no") + " " + in_words(c.many);
    return decimals(n, 0) + " " + in_words(std::abs(n) == 1 ? c.one : c.many);
}

}  // namespace

std::string render(const Phrase& phrase, const Units& units) {
    std::string out;
    std::size_t next = 0;
    const std::string pattern = phrase.pattern.empty() ? std::string() : in_words(phrase.pattern);
    for (std::size_t i = 0; i < pattern.size(); ++i) {
        if (pattern.compare(i, 2, "{}") == 0 && next < phrase.values.size()) {
            const auto& what = phrase.values[next++].what;
            const std::size_t from = out.size();
            if (const auto* q = std::get_if<Quantity>(&what)) out += spoken(*q, units);
            else if (const auto* word = std::get_if<Word>(&what)) out += in_words(word->english);
            else if (const auto* c = std::get_if<Counted>(&what)) out += spoken(*c);
            else out += std::get<std::string>(what);
            // Within a sentence that ends with a full stop a sentence begins large; names stand as they are.
            const bool begins = (from == 0 && pattern.back() == '.') || (from > 1 && out.compare(from - 2, 2, ". ") == 0);
            if (begins && !std::holds_alternative<std::string>(what) && from < out.size())
                out[from] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[from])));
            ++i;
        } else {
            out += pattern[i];
        }
    }
    for (const Phrase& more : phrase.then) {
        // After a full stop a new sentence; a point between what are none; nothing before what brings its own.
        const std::string following = render(more, units);
        const bool brings_its_own = following.rfind(';', 0) == 0 || following.rfind(',', 0) == 0;
        const bool sum = following.rfind('+', 0) == 0;
        out += (brings_its_own ? "" : sum || (!out.empty() && out.back() == '.') ? " " : " · ") + following;
    }
    return out;
}

}  // namespace yb
