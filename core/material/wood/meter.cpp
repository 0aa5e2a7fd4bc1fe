#include "core/material/wood/meter.h"

#include <algorithm>
#include <charconv>
#include <cmath>

#include <fmt/format.h>

#include "core/material/wood/wood.h"

namespace yb {

void fields(FieldVisitor& v, MeterWood& w) {
    v.text({"species", "Wood", true}, w.species);
    v.number({"slope", "Slope", Kind::number, {0.2, 5}}, w.slope);
    v.number({"offset", "Offset", Kind::number, {-20, 20}}, w.offset);
}

MeterWood meter_wood(const std::vector<MeterWood>& booklet, const std::string& species) {
    const auto it = std::find_if(booklet.begin(), booklet.end(), [&](const MeterWood& w) { return w.species == species; });
    return it == booklet.end() ? MeterWood{species, 1, 0} : *it;
}

std::variant<std::vector<MeterWood>, ParseError> read_booklet(const std::string& text) {
    std::vector<MeterWood> out;
    const auto number_in = [](std::string s) -> std::optional<double> {
        if (s.rfind("\u2212", 0) == 0) s = "-" + s.substr(3);
        double v = 0;
        const auto [end, error] = std::from_chars(s.data() + (s[0] == '+'), s.data() + s.size(), v);
        return error == std::errc() && end == s.data() + s.size() && std::isfinite(v) ? std::optional(v) : std::nullopt;
    };
    for (std::size_t at = 0; at <= text.size();) {
        const std::size_t end = std::min(text.find(';', at), text.size());
        const std::size_t begins = at;
        std::vector<std::string> words;
        for (std::size_t i = at; i < end;) {
            if (text[i] == ' ') {
                ++i;
                continue;
            }
            const std::size_t to = std::min(text.find(' ', i), end);
            words.push_back(text.substr(i, to - i));
            i = to;
        }
        at = end + 1;
        if (words.empty()) continue;
        std::vector<double> numbers;
        while (!words.empty() && numbers.size() < 2)
            if (const auto v = number_in(words.back())) numbers.insert(numbers.begin(), *v), words.pop_back();
            else break;
        MeterWood w;
        for (const std::string& word : words) w.species += (w.species.empty() ? "" : " ") + word;
        if (!find_species(w.species))
            return ParseError{begins, "‘" + w.species + "’ is no wood that is known",
                              "a name of the list, as on the slab: hackberry 1.05 -0.3"};
        if (numbers.empty())
            return ParseError{begins, "‘" + w.species + "’ has no slope", "as the meter's booklet has it: " + w.species + " 1.05 -0.3"};
        w.slope = numbers[0], w.offset = numbers.size() > 1 ? numbers[1] : 0;
        if (w.slope < 0.2 || w.slope > 5) return ParseError{begins, fmt::format("a slope of {} is none", w.slope), "between 0.2 and 5"};
        if (std::abs(w.offset) > 20) return ParseError{begins, fmt::format("an offset of {} is none", w.offset), "between -20 and 20"};
        if (std::any_of(out.begin(), out.end(), [&](const MeterWood& o) { return o.species == w.species; }))
            return ParseError{begins, "‘" + w.species + "’ is told twice", "one line for a wood"};
        out.push_back(std::move(w));
    }
    return out;
}

std::string booklet_text(const std::vector<MeterWood>& booklet) {
    std::string out;
    for (const MeterWood& w : booklet) out += fmt::format("{}{} {} {}", out.empty() ? "" : "; ", w.species, w.slope, w.offset);
    return out;
}

}  // namespace yb
