// A field of a CSV line.
#pragma once

#include <string>

namespace yb {

/// As RFC 4180 has it: in quotes where it holds a comma, a quote or a line break, its own quotes doubled.
inline std::string csv_field(const std::string& s) {
    if (s.find_first_of(",\"\r\n") == std::string::npos) return s;
    std::string q = "\"";
    for (const char c : s) q += c == '"' ? std::string("\"\"") : std::string(1, c);
    return q + "\"";
}

}  // namespace yb
