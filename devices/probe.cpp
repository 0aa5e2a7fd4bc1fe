#include "devices/probe.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <random>
#include <stdexcept>

#include <fmt/format.h>

namespace yb {

namespace {

ProbeMessage not_understood(std::string why) { return {ProbeMessage::Kind::not_understood, 0, std::move(why)}; }

unsigned sum_of(std::string_view s) {
    unsigned x = 0;
    for (const char c : s) x ^= static_cast<unsigned char>(c);
    return x;
}

}  // namespace

ProbeMessage read_probe_line(std::string_view line) {
    const std::string_view whole = line;
    if (const auto star = line.find('*'); star != std::string_view::npos) {
        unsigned told = 0;
        const std::string_view hex = line.substr(star + 1);
        const auto [end, error] = std::from_chars(hex.data(), hex.data() + hex.size(), told, 16);
        if (error != std::errc() || end != hex.data() + hex.size() || hex.size() != 2 || told != sum_of(line.substr(0, star)))
            return not_understood(fmt::format("‘{}’ came in garbled: its check sum does not agree. Press again.", whole));
        line = line.substr(0, star);
    }
    while (!line.empty() && line.back() == ' ') line.remove_suffix(1);
    const std::string_view rest = line.size() > 2 && line[1] == ' ' ? line.substr(2) : std::string_view();
    if (line == "Z") return {ProbeMessage::Kind::zeroed, 0, {}};
    if (line.substr(0, 2) == "H ") return {ProbeMessage::Kind::hello, 0, std::string(rest)};
    if (line.substr(0, 2) == "E ") return {ProbeMessage::Kind::trouble, 0, std::string(rest)};
    if (line.substr(0, 2) != "R ") return not_understood(fmt::format("‘{}’ is no message of a gauge (docs/formats.md, Gauges).", whole));
    double v = 0;
    const auto [end, error] = std::from_chars(rest.data(), rest.data() + rest.size(), v);
    if (error != std::errc() || !std::isfinite(v)) return not_understood(fmt::format("‘{}’ has no number that can be read.", whole));
    const std::string_view unit = rest.substr(static_cast<std::size_t>(end - rest.data()));
    const auto within = [&](ProbeMessage::Kind kind, double value, double most) -> ProbeMessage {
        if (!(std::abs(value) <= most))
            return {ProbeMessage::Kind::trouble, 0, fmt::format("it reads {:g}{}, which no workshop has: look at its plug", v, unit)};
        return {kind, value, {}};
    };
    constexpr double longest_mm = 100000, heaviest_g = 1e7;
    if (unit == " mm") return within(ProbeMessage::Kind::reading, v, longest_mm);
    if (unit == " C" || unit == " F") {
        const double c = unit == " C" ? v : (v - 32) / 1.8;
        if (c < coldest_c || c > hottest_c)
            return {ProbeMessage::Kind::trouble, 0, fmt::format("it reads {:.0f} °C, which no pour has: look at its wire and its plug", c)};
        return {ProbeMessage::Kind::temperature, c, {}};
    }
    const auto share = [&](ProbeMessage::Kind kind, double most, const char* of) -> ProbeMessage {
        if (v < 0 || v > most)
            return {ProbeMessage::Kind::trouble, 0, fmt::format("it reads {:g} %, which no {} has: look at its pins and its plug", v, of)};
        return {kind, v, {}};
    };
    if (unit == " %MC") return share(ProbeMessage::Kind::moisture, wettest_pct, "wood");
    if (unit == " %RH") return share(ProbeMessage::Kind::humidity, 100, "air");
    if (unit == " g" || unit == " kg") return within(ProbeMessage::Kind::mass, unit == " g" ? v : 1000 * v, heaviest_g);
    if (unit == " in") return within(ProbeMessage::Kind::reading, v * 25.4, longest_mm);
    return not_understood(fmt::format("‘{}’ does not say its unit: mm, in, C, F, %MC, %RH, g or kg is wanted.", whole));
}

std::vector<ProbeMessage> ProbeReader::take(std::string_view bytes) {
    std::vector<ProbeMessage> out;
    for (const char c : bytes) {
        if (c == '\r') continue;
        if (c == '\n') {
            if (too_long_) out.push_back(not_understood("a line of more than 200 bytes came in: is this a gauge, and at this speed?"));
            else if (!line_.empty()) out.push_back(read_probe_line(line_));
            line_.clear();
            too_long_ = false;
        } else if (line_.size() >= 200) {
            too_long_ = true;
        } else {
            line_ += c;
        }
    }
    return out;
}

namespace {
std::string with_sum(const std::string& text) { return fmt::format("{}*{:02X}\r\n", text, sum_of(text)); }
}  // namespace

std::string instrument_line(double value, const char* unit) { return with_sum(fmt::format("R {:.2f} {}", value, unit)); }

std::vector<std::string> day_of(const std::string& what, bool bad) {
    std::vector<std::string> out;
    std::mt19937 dice(17);
    std::uniform_real_distribution<double> any(0, 1);
    const auto put = [&](double value, const char* unit) {
        std::string line = instrument_line(value, unit);
        if (bad && any(dice) < 0.1) line[3] = static_cast<char>('!' + static_cast<int>(any(dice) * 40));  // garbled on the wire
        if (bad && any(dice) < 0.1) line = line.substr(0, line.size() / 2);                  // half a line: it runs into the next
        if (bad && any(dice) < 0.05) line = instrument_line(value + 500 * any(dice), unit);  // noise
        if (!bad || any(dice) > 0.08) out.push_back(line);                                   // a drop-out
    };
    out.push_back("H " + what + ", stand-in\r\n");
    for (int i = 0; i < 96; ++i) {
        const double hour = i / 4.0, sun = std::sin((hour - 9) / 24 * 6.2832);
        if (what == "gauge") put(0.4 + 0.3 * std::sin(i * 0.5) + 0.05 * any(dice), "mm");
        else if (what == "thermocouple") put(19 + 21 * std::exp(-std::pow((hour - 11) / 5, 2)) + 0.1 * any(dice), "C");
        else if (what == "meter") put(10.4 + 0.8 * std::sin(i * 0.9) + 0.2 * any(dice), "%MC");
        else if (what == "air") put(17 + 3 * sun, "C"), put(58 - 9 * sun + any(dice), "%RH");
        else if (what == "scale") put(std::min(500.0, i * 6.1) + 0.3 * any(dice), "g");
        else throw std::invalid_argument("no instrument is called ‘" + what + "’: gauge, thermocouple, meter, air or scale");
    }
    if (bad) out.push_back("E battery low\r\n");
    return out;
}

}  // namespace yb
