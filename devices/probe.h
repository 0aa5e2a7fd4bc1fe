// Instruments over a serial line: a dial gauge or depth probe that sends a reading at each press of its button.
//
// The line protocol, 9600 baud 8N1 unless the instrument says otherwise, ASCII, one line a message, CR LF or LF:
//
//     H <name>                 hello: what it is; sent when it is switched on or connected
//     R <value> <unit>[*hh]    a reading; a decimal point, a minus sign for above zero. Units: mm or in (gauge), C or F (thermocouple,
//     air), %MC (moisture
//                              meter, as it shows it), %RH (air), g or kg (scale)
//     Z                        it was zeroed
//     E <words>                something is wrong with it, in words
//
// `*hh` is the exclusive-or of all bytes before the star, two hexadecimal digits; where it is there it has to agree.
// Lines that begin with anything else are not understood and said so. No Qt here.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace yb {

struct ProbeMessage {
    enum class Kind { hello, reading, temperature, moisture, humidity, mass, zeroed, trouble, not_understood } kind = Kind::not_understood;
    double value = 0;   ///< of a reading mm, of a temperature °C, of moisture and humidity percent, of a mass g
    std::string words;  ///< name, trouble, or why the line was not understood
};

/// Takes bytes as they come and gives whole messages. A line longer than 200 bytes is dropped and said so.
class ProbeReader {
  public:
    std::vector<ProbeMessage> take(std::string_view bytes);

  private:
    std::string line_;
    bool too_long_ = false;
};

/// One line without its end. @returns what it says; never throws.
ProbeMessage read_probe_line(std::string_view line);

/// A reading as a line of the protocol, with its check sum and line end.
std::string instrument_line(double value, const char* unit);
/// Outside of this a thermocouple is broken, or not in what it should be in.
inline constexpr double coldest_c = -40, hottest_c = 250;
/// Wood has no more than this, percent; a meter that shows more is not in wood.
inline constexpr double wettest_pct = 130;

/// What an instrument sends over a plausible day, line by line; `bad`: with noise, drop-outs and garble. @param what gauge, thermocouple,
/// meter, air or scale. @throws std::invalid_argument for another.
std::vector<std::string> day_of(const std::string& what, bool bad);

}  // namespace yb
